"""The first hours of five gardeners, walked in a browser: actions, minutes, seconds to a first answer.

Run by ./ascent bench --journeys, or with everything else by ./ascent bench.
"""

from __future__ import annotations

from collections.abc import Callable

from playwright.sync_api import sync_playwright
from trials import chromium
from trials.journeys import JOURNEYS, Gardener
from trials.served import served


def first_hour(say: Callable[..., None]) -> None:
    """Walk each journey on a fresh demo server, one after another."""
    with served() as (port, _home), sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path=chromium.executable(), args=chromium.ARGUMENTS)
        for name, walk in JOURNEYS.items():
            context = browser.new_context(viewport={"width": 1280, "height": 800})
            hand = Gardener(context.new_page(), f"http://127.0.0.1:{port}")
            walk(hand)
            say(
                f"first hour, {name}: actions, minutes, seconds to the first answer",
                f"{hand.actions}, {hand.minutes:.1f} min, {hand.first:.1f} s",
                "≤ 25, ≤ 10 min, ≤ 3 s",
            )
            context.close()
        browser.close()
