"""One headless Chromium and one page of it for all browser tests of a process, emptied after each; no console
error goes unseen.
"""

from __future__ import annotations

import atexit
import os
from functools import cache
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.cache import cache as counted
from gardens.models import Thing
from gardens.services import known
from gardens.tests.support import demo_garden
from playwright.sync_api import (
    Browser,
    BrowserContext,
    ConsoleMessage,
    Error,
    Locator,
    Page,
    expect,
    sync_playwright,
)

from trials import chromium

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")
expect.set_options(timeout=15_000)


@cache
def browser() -> Browser:
    """Return the one browser of this process."""
    driver = sync_playwright().start()
    found = driver.chromium.launch(executable_path=chromium.executable(), args=chromium.ARGUMENTS)
    atexit.register(driver.stop)
    atexit.register(found.close)
    return found


_WALK = """(path) => {
  const before = location.pathname;
  for (const part of document.querySelectorAll("#root > *")) part.dataset.left = "";
  const state = { idx: (history.state?.idx ?? 0) + 1, key: path, usr: null };
  history.pushState(state, "", path);
  dispatchEvent(new PopStateEvent("popstate", { state }));
  return location.pathname !== before;
}"""


# the addresses of all that the service worker keeps of what the server said
KEPT = """async () => {
  const names = (await caches.keys()).filter((name) => name.startsWith("ascent-said-"));
  const found = [];
  for (const name of names) for (const { url } of await (await caches.open(name)).keys()) found.push(url);
  return found;
}"""


def _context(size: tuple[int, int], **options: Any) -> BrowserContext:
    given = {"reduced_motion": "reduce", "service_workers": "block", **options}
    return browser().new_context(viewport={"width": size[0], "height": size[1]}, **given)


@cache
def _kept() -> BrowserContext:
    """Return the context whose page tests use one after another: what ran there before runs at once, and the
    client is up in half the time.
    """
    return _context(BrowserTestCase.size)


def _empty(context: BrowserContext, origin: str) -> None:
    """Leave one page in a context, and nothing of what a test put there: neither what its site stored nor
    what stood in its way.
    """
    for other in context.pages[1:]:
        other.close()
    context.unroute_all(behavior="ignoreErrors")
    context.set_offline(False)
    page = context.pages[0] if context.pages else context.new_page()
    page.unroute_all(behavior="ignoreErrors")
    page.goto(f"{origin}/static/mark.svg")  # of the same site, so that the process behind the page stays
    page.evaluate("sessionStorage.clear()")
    page.emulate_media(media="null", color_scheme="null")
    context.clear_cookies()
    held = context.new_cdp_session(page)
    stores = "local_storage,indexeddb,cache_storage"
    held.send("Storage.clearDataForOrigin", {"origin": origin, "storageTypes": stores})
    held.detach()


def pick(page: Page, label: str, name: str) -> None:
    """Choose one of a long list by typing the beginning of its name."""
    field = page.get_by_role("combobox", name=label, exact=True).and_(page.locator("input"))
    field.fill(name)
    page.get_by_role("option", name=name, exact=True).click()
    expect(field).to_have_value(name)


class BrowserTestCase(StaticLiveServerTestCase):
    """A page of the built client, signed in as the owner of the demo garden.

    Attributes:
        size: Of its window.
        alone: Whether its tests each want a context of their own, as where they stop its clock.
        logged: Whether four years are written in its log.
        expected_errors: How many there may be.
    """

    size = (1280, 800)
    alone = False
    logged = False
    expected_errors = 0

    def __getstate__(self) -> dict[str, Any]:
        """Return what a failed subtest sends to the process that counts: all but the browser's own."""
        kept = {**vars(self), "_outcome": None}
        return {name: value for name, value in kept.items() if "playwright" not in type(value).__module__}

    def setUp(self) -> None:
        known.forget()
        counted.clear()  # tries are counted by address, and every test comes from one
        self.owner = get_user_model().objects.create_user("mara", password="tall-beans-9")
        self.garden = demo_garden(self.owner, self.logged)
        self.errors: list[str] = []
        self.context = self.new_context() if self.alone else _kept()
        self.sign_in(self.context)
        self.page = self.heard(self.context.pages[0]) if self.context.pages else self.new_page(self.context)
        self.page.set_viewport_size({"width": self.size[0], "height": self.size[1]})

    def tearDown(self) -> None:
        if self.alone:
            self.context.close()
        else:
            self.page.remove_listener("pageerror", self._failed)
            self.page.remove_listener("console", self._said)
            _empty(self.context, self.live_server_url)
        self.assertLessEqual(len(self.errors), self.expected_errors, self.errors)

    def new_context(self, **options: Any) -> BrowserContext:
        """Return a fresh context of this case's size; one with a service worker hides what it asks for from
        routes.
        """
        return _context(self.size, **options)

    def sign_in(self, context: BrowserContext) -> None:
        """Put the owner's session into a context."""
        self.client.force_login(self.owner)
        cookie = self.client.cookies[settings.SESSION_COOKIE_NAME].value
        context.add_cookies(
            [{"name": settings.SESSION_COOKIE_NAME, "value": cookie, "url": self.live_server_url}]
        )

    def new_page(self, context: BrowserContext) -> Page:
        """Return a new page whose errors are kept for the end of the test."""
        return self.heard(context.new_page())

    def heard(self, page: Page) -> Page:
        """Keep a page's errors for the end of the test; return it."""
        page.set_default_timeout(15_000)
        page.on("pageerror", self._failed)
        page.on("console", self._said)
        return page

    def _failed(self, error: Error) -> None:
        self.errors.append(str(error))

    def _said(self, message: ConsoleMessage) -> None:
        if message.type == "error":
            self.errors.append(message.text)

    def another(self) -> Page:
        """Return a page of another browser in which the owner is signed in, too."""
        context = self.new_context()
        self.addCleanup(context.close)
        self.sign_in(context)
        return self.new_page(context)

    def plan(self, chosen: str = "", page: Page | None = None) -> None:
        """Open the plan of the garden, with a thing chosen."""
        self.open(f"/gardens/{self.garden.pk}{f'?on={chosen}' if chosen else ''}", page)

    def item(self, key: str) -> Locator:
        """Return a thing on the plan."""
        return self.page.locator(f"[data-item='{key}']")

    def fields(self, key: str) -> dict[str, Any]:
        """Return a thing as it is stored."""
        return Thing.objects.get(garden=self.garden, key=key).document

    def tab_to(self, target: Locator, most: int = 80, page: Page | None = None, key: str = "Tab") -> None:
        """Press Tab, or Shift+Tab, until a control has the focus."""
        for _ in range(most):
            if target.count() and target.evaluate("node => node === document.activeElement"):
                return
            (page or self.page).keyboard.press(key)
        raise AssertionError("Tab never came there")

    def open(self, path: str, page: Page | None = None) -> None:
        """Go to an address of the client."""
        (page or self.page).goto(f"{self.live_server_url}{path}")

    def walk(self, path: str) -> None:
        """Go to an address as by a link, without loading the client anew; nothing of the page before is there
        then, not even where it would have been one of the same kind.
        """
        for step in ("/method" if path == "/account" else "/account", path):
            if self.page.evaluate(_WALK, step):
                expect(self.page.locator("[data-left]")).to_have_count(0)

    def structure(self, name: str = "Lantern Row") -> str:
        """Return the address of a structure of the demo."""
        thing = Thing.objects.get(garden=self.garden, kind=Thing.STRUCTURE, document__name=name)
        return f"/structures/{thing.pk}"

    def saved(self, page: Page | None = None) -> None:
        """Wait until the page says that all is saved."""
        (page or self.page).get_by_role("status").filter(has_text="saved").filter(
            has_not_text="not"
        ).wait_for()

    def overflow(self) -> int:
        """Return by how many pixels the page is wider than the window."""
        return int(self.page.evaluate("document.documentElement.scrollWidth - window.innerWidth"))
