"""The pictures of docs/screenshots/, one for each main view, made anew from the demo.

Run in the virtual environment of ./ascent test, after the client is built: PYTHONPATH=server .venv/bin/python tools/screenshots.py
"""

from __future__ import annotations

import shutil
from collections.abc import Callable
from typing import NamedTuple

from config.served import ROOT, served
from playwright.sync_api import Page, sync_playwright


class Shot(NamedTuple):
    """A picture: its name, the address, how large, which theme, and what to do first."""

    name: str
    path: str
    size: tuple[int, int] = (1280, 800)
    theme: str = "light"
    first: Callable[[Page], object] | None = None


def together(page: Page) -> None:
    page.get_by_role("button", name="Try several together").click()
    page.get_by_text("together to").wait_for()


SHOTS = [
    Shot("garden", "/"),
    Shot("new-fence", "/gardens/1/beds/3/new"),
    Shot("bench", "/structures/1"),
    Shot("bench-dark", "/structures/3", theme="dark"),
    Shot("link", "/structures/1?link=end-soil", first=together),
    Shot("parts", "/structures/2/parts"),
    Shot("phone", "/structures/2", size=(390, 844)),
]


def main() -> None:
    """Take them all."""
    folder = ROOT / "docs" / "screenshots"
    folder.mkdir(exist_ok=True)
    with served() as (port, _home), sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path=shutil.which("chromium"), args=["--no-sandbox", "--disable-quic"])
        for shot in SHOTS:
            context = browser.new_context(viewport={"width": shot.size[0], "height": shot.size[1]}, color_scheme=shot.theme)
            page = context.new_page()
            page.goto(f"http://127.0.0.1:{port}{shot.path}")
            page.wait_for_load_state("networkidle")
            if shot.first:
                shot.first(page)
            page.wait_for_timeout(400)
            page.screenshot(path=folder / f"{shot.name}.png")
            context.close()
        browser.close()


if __name__ == "__main__":
    main()
