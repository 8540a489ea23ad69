"""What a browser keeps when an account ends on it, when it has no room, and when the program has changed."""

from __future__ import annotations

import re

from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from gardens.models import Change, Garden
from gardens.tests.support import demo_garden
from playwright.sync_api import BrowserContext, Page, expect

from .browser import KEPT, BrowserTestCase

EDITS = re.compile(r"/api/gardens/\d+/edits$")
UP = """async () => {
  await navigator.serviceWorker.ready;
  if (!navigator.serviceWorker.controller)
    await new Promise((taken) => {
      navigator.serviceWorker.addEventListener("controllerchange", taken, { once: true });
    });
}"""


class EndedTestCase(BrowserTestCase):
    alone = True

    def setUp(self) -> None:
        super().setUp()
        self.expected_errors = 200  # without a line every question is one
        self.other = get_user_model().objects.create_user("piet", password="low-onions-7")
        self.others = demo_garden(self.other)
        Garden.objects.filter(pk=self.others.pk).update(
            document={**self.others.document, "name": "Piet’s plot"}
        )

    def with_worker(self) -> Page:
        """Return a page whose service worker has taken it over."""
        context = self.new_context(service_workers="allow")
        self.addCleanup(context.close)
        self.sign_in(context)
        page = self.new_page(context)
        self.open(f"/gardens/{self.garden.pk}", page)
        page.evaluate(UP)
        self.open(f"/gardens/{self.garden.pk}", page)
        expect(page.locator("[data-item='cove-bed']")).to_be_visible()
        return page

    def as_other(self, context: BrowserContext) -> None:
        """Have another person signed in on the same browser."""
        self.client.force_login(self.other)
        cookie = self.client.cookies[settings.SESSION_COOKIE_NAME].value
        context.add_cookies(
            [{"name": settings.SESSION_COOKIE_NAME, "value": cookie, "url": self.live_server_url}]
        )

    def garden_kept(self, page: Page) -> bool:
        return any(url.endswith(f"/api/gardens/{self.garden.pk}") for url in page.evaluate(KEPT))


class OtherAccountTest(EndedTestCase):
    def test_what_one_person_opened_does_not_open_for_the_next_without_a_line(self):
        page = self.with_worker()
        page.wait_for_function(f"async () => (await ({KEPT})()).some((u) => u.endsWith('/{self.garden.pk}'))")
        Session.objects.all().delete()
        self.as_other(page.context)
        self.open(f"/gardens/{self.others.pk}", page)
        expect(page.get_by_text("Piet’s plot").first).to_be_visible()
        self.assertFalse(self.garden_kept(page))
        page.context.set_offline(True)
        self.open(f"/gardens/{self.garden.pk}", page)
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        expect(page.locator("[data-item]")).to_have_count(0)

    def test_a_deleted_account_leaves_nothing_that_opens(self):
        page = self.with_worker()
        self.open("/account", page)
        form = page.get_by_role("form", name="Delete the account")
        form.get_by_label("Password").fill("tall-beans-9")
        form.get_by_role("button", name="Delete the account").click()
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.assertFalse(self.garden_kept(page))

    def test_what_waits_of_one_person_is_not_sent_as_another_s(self):
        """Two tabs: in the one somebody edits without an answer, in the other the next person signs in."""
        self.plan("cove-bed")
        self.context.route(EDITS, lambda route: route.abort())
        self.item("cove-bed").focus()
        self.page.keyboard.press("ArrowRight")
        expect(self.page.get_by_role("status").first).to_contain_text("stored on this device")
        self.as_other(self.context)
        self.context.unroute(EDITS)
        self.page.evaluate("dispatchEvent(new Event('online'))")
        with self.page.expect_response(EDITS) as answered:
            pass
        self.assertEqual(answered.value.status, 401)
        self.assertEqual(Change.objects.count(), 0)


class RoomTest(EndedTestCase):
    def test_a_full_browser_shows_what_is_true_now(self):
        page = self.with_worker()
        held = page.context.new_cdp_session(page)
        held.send("Storage.overrideQuotaForOrigin", {"origin": self.live_server_url, "quotaSize": 1})
        document = {**Garden.objects.get(pk=self.garden.pk).document, "name": "Renamed Quay"}
        Garden.objects.filter(pk=self.garden.pk).update(document=document, changes=9, revision=9)
        self.open(f"/gardens/{self.garden.pk}", page)
        expect(page.get_by_text("Renamed Quay").first).to_be_visible()
        self.open(f"/gardens/{self.garden.pk}/year", page)  # never opened before
        expect(page.get_by_role("heading", name="The year 2026")).to_be_visible()
        held.send("Storage.overrideQuotaForOrigin", {"origin": self.live_server_url})

    def test_what_is_kept_is_bounded(self):
        page = self.with_worker()
        page.evaluate(
            """async (garden) => {
              for (let n = 1; n <= 100; n++)
                await fetch(`/api/gardens/${garden}/shade?date=06-01&hour=${n % 24}&n=${n}`);
            }""",
            self.garden.pk,
        )
        page.wait_for_function(f"async () => (await ({KEPT})()).length <= 80")
        self.assertGreater(len(page.evaluate(KEPT)), 40)


class ChangedTest(EndedTestCase):
    def test_a_part_of_the_program_that_is_gone_is_fetched_by_one_reload(self):
        self.open("/account")
        gone = []

        def lost(route):
            gone.append(route.request.url)
            if len(gone) == 1:
                route.fulfill(status=404, body="")
            else:
                route.fallback()

        self.context.route(re.compile(r"/assets/YearPage"), lost)
        self.walk_to_year()
        expect(self.page.get_by_role("heading", name="The year 2026")).to_be_visible()
        self.assertEqual(len(gone), 2)

    def test_gone_for_good_it_is_said_in_words(self):
        self.open("/account")
        self.context.route(re.compile(r"/assets/YearPage"), lambda route: route.fulfill(status=404, body=""))
        self.walk_to_year()
        expect(self.page.get_by_role("heading", name="Ascent has been updated")).to_be_visible()
        expect(self.page.get_by_role("button", name="Reload the page")).to_be_visible()

    def walk_to_year(self) -> None:
        """Go to the year as by a link."""
        path = f"/gardens/{self.garden.pk}/year"
        self.page.evaluate(
            "(path) => { history.pushState({ idx: 9, key: 'year', usr: null }, '', path);"
            "dispatchEvent(new PopStateEvent('popstate', { state: history.state })); }",
            path,
        )

    def test_a_panel_that_fails_leaves_the_page(self):
        answer = {"problem": "", "report": {"days": None}, "unseen": 0, "coming": False}
        self.context.route(re.compile(r"/weather$"), lambda route: route.fulfill(json=answer))
        self.open(f"/gardens/{self.garden.pk}/week")
        expect(self.page.get_by_role("alert")).to_contain_text("The weather cannot be shown")
        expect(self.page.get_by_role("heading", name="Coming")).to_be_visible()

    def test_a_page_that_fails_says_so_in_words(self):
        self.context.route(re.compile(r"/api/.*/year$"), lambda route: route.fulfill(json={"report": {}}))
        self.open(f"/gardens/{self.garden.pk}/year")
        expect(self.page.get_by_role("heading", name="This page cannot be shown")).to_be_visible()
