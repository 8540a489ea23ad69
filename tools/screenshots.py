"""The pictures of docs/screenshots/, one for each main view, made anew from the demo.

Run in the virtual environment of ./ascent test, after the client is built: PYTHONPATH=server .venv/bin/python
tools/screenshots.py
"""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import NamedTuple

from playwright.sync_api import Page, sync_playwright
from trials import chromium
from trials.served import ROOT, served


class Shot(NamedTuple):
    """A picture: its name, the address, how large, which theme, and what to do first."""

    name: str
    path: str
    size: tuple[int, int] = (1280, 800)
    theme: str = "light"
    first: Callable[[Page], object] | None = None


def begun(page: Page) -> None:
    page.get_by_role("button", name="New garden").click()
    page.get_by_role("heading", name="A new garden").wait_for()


def stormy(page: Page) -> None:
    page.locator(".storm").wait_for()


def tonight(page: Page) -> None:
    stormy(page)
    page.locator(".visit").nth(1).scroll_into_view_if_needed()


def calculated(page: Page) -> None:
    """Wait until the gusts of every structure are there."""
    page.locator(".yearrow").last.wait_for()
    page.wait_for_timeout(4000)


def shaded(page: Page) -> None:
    page.get_by_role("button", name="shade").click()
    page.locator(".shadewords", has_text="sun time").wait_for()


def looked(page: Page) -> None:
    """Wait until every kind has been looked at."""
    page.get_by_text("All 15 kinds calculated").wait_for(timeout=60_000)
    page.get_by_role("button", name="stop", exact=True).wait_for(state="detached", timeout=120_000)


def logged(page: Page) -> None:
    """Write some of what happens in a week."""
    for line in (
        "2.4 kg tomatoes from Lantern Row 2026-08-07",
        "14 cucumbers from Quay Fence 2026-08-08",
        "post 3 of Gull Fence broke 2026-08-09",
        "repaired post 3 of Gull Fence, 40 min 2026-08-10",
        "sprayed Chandler’s Wire with soap, wait 3 days",
        "post 2 of Lantern Row leans 4 cm at 1.5 m under 100 N",
    ):
        page.get_by_label("What happened").fill(line)
        page.get_by_label("What happened").press("Enter")
        page.get_by_text(f"Written down: {line}").wait_for()
    page.get_by_role("listitem").filter(has_text="Post 2 leans").wait_for()


def taught(page: Page) -> None:
    """Wait until the log was learnt from."""
    page.get_by_role("article", name="What storms showed").wait_for(timeout=60_000)


SHOTS = [
    Shot("plan", "/gardens/1"),
    Shot("plan-shade-dark", "/gardens/1?on=long-plot-a", theme="dark", first=shaded),
    Shot("plan-phone", "/gardens/1", size=(390, 844)),
    Shot("new-garden", "/account", first=begun),
    Shot("new-support", "/gardens/1/beds/long-plot-a/new?need=need-slicers", first=looked),
    Shot("bench", "/structures/{lantern-row}"),
    Shot(
        "round",
        "/structures/{lantern-arch}?view=round&hour=10",
        first=lambda page: page.get_by_text("The figure stands").wait_for(),
    ),
    Shot("build", "/structures/{bollard-fence}/build?part=steps&step=2", size=(1280, 1000)),
    Shot("build-phone", "/structures/{gull-fence}/build?part=steps", size=(390, 844), theme="dark"),
    Shot("parts", "/structures/{lantern-row}/parts"),
    Shot("shed", "/gardens/1/shed"),
    Shot("shopping", "/gardens/1/parts"),
    Shot("history", "/gardens/1/history?at=0"),
    Shot("files", "/gardens/1/files"),
    Shot("log", "/gardens/1/log", first=logged),
    Shot("lessons", "/gardens/1/lessons", size=(1280, 1000), first=taught),
    Shot("week", "/gardens/1/week", size=(1280, 1000), first=stormy),
    Shot("week-phone", "/gardens/1/week", size=(390, 844), theme="dark", first=tonight),
    Shot("year", "/gardens/1/year", size=(1280, 1000), first=calculated),
]


def main() -> None:
    """Take them all."""
    folder = ROOT / "docs" / "screenshots"
    folder.mkdir(exist_ok=True)
    with served() as (port, _home), sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path=chromium.executable(), args=chromium.ARGUMENTS)
        page = browser.new_page()
        page.goto(f"http://127.0.0.1:{port}/")
        rows = page.evaluate(
            "fetch('/api/gardens/1').then(answer => answer.json()).then(garden => garden.structures)"
        )
        ids = {row["key"]: row["id"] for row in rows}
        for shot in SHOTS:
            context = browser.new_context(
                viewport={"width": shot.size[0], "height": shot.size[1]}, color_scheme=shot.theme
            )
            page = context.new_page()
            path = re.sub(r"\{([\w-]+)\}", lambda box: str(ids[box[1]]), shot.path)
            page.goto(f"http://127.0.0.1:{port}{path}")
            page.wait_for_load_state("networkidle", timeout=120_000)
            if shot.first:
                shot.first(page)
            page.get_by_text("Calculating…").first.wait_for(state="detached", timeout=120_000)
            page.wait_for_timeout(400)
            page.screenshot(path=folder / f"{shot.name}.png")
            context.close()
        browser.close()


if __name__ == "__main__":
    main()
