"""The one queue, by its hostile cases: a line that is down, an answer that is lost, an edit that is refused,
a reload, a new sign-in.
"""

from __future__ import annotations

import re
from unittest import mock

from django.contrib.sessions.models import Session
from gardens.models import Change, Thing
from playwright.sync_api import Page, Route, expect

from .browser import BrowserTestCase

EDITS = re.compile(r"/api/gardens/\d+/edits$")
WRITES = re.compile(r"/api/(gardens/\d+/(edits|undo|redo)|structures/\d+)$")
NOTHING = "**/no-such-thing"
STALLED = """() => {
  IDBObjectStore.prototype.put = function () {
    const nothing = this.get("no such thing");
    nothing.addEventListener = () => undefined;
    return nothing;
  };
}"""


class QueueTestCase(BrowserTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.expected_errors = 200  # every try while the line is down is one

    def plan(self, chosen: str = "", page: Page | None = None) -> None:
        """Open the plan and wait until it stands."""
        super().plan(chosen, page)
        expect((page or self.page).locator("[data-item='cove-bed']")).to_be_visible()

    def status(self, page: Page | None = None):
        return (page or self.page).get_by_role("status").first

    def down(self, page: Page | None = None) -> None:
        """Take the line away from everything that writes, without the browser knowing."""
        (page or self.page).context.route(
            WRITES, lambda route: route.abort() if route.request.method != "GET" else route.fallback()
        )

    def up(self, page: Page | None = None) -> None:
        (page or self.page).context.unroute(WRITES)

    def east(self, text: str, page: Page | None = None) -> None:
        """Write a bed's place in whole metres, and wait until it is read: until then it could go with the
        page, after asking.
        """
        self.write_east(text, page)
        read = (page or self.page).get_by_label("East", exact=True)
        expect(read).to_have_value(text.replace(" ", ".00 "))

    def write_east(self, text: str, page: Page | None = None) -> None:
        """Write a bed's place."""
        field = (page or self.page).get_by_label("East", exact=True)
        field.fill(text)
        field.press("Enter")

    def stored(self, key: str = "cove-bed", field: str = "x") -> float:
        return self.fields(key)[field]

    def waits(self, page: Page | None = None) -> None:
        expect(self.status(page)).to_contain_text("stored on this device, trying again")


class LineTest(QueueTestCase):
    alone = True

    def test_a_line_down_for_longer_than_any_pause(self):
        self.page.clock.install()
        self.plan("cove-bed")
        self.down()
        self.east("20 m")
        self.waits()
        for text in ("21 m", "22 m", "23 m"):
            self.page.clock.fast_forward(300_000)
            self.east(text)
            self.waits()
        self.assertEqual(Change.objects.count(), 0)
        self.page.clock.fast_forward(3_600_000)
        self.up()
        for _ in range(20):  # longer than the longest pause each time, and nobody said that the line is back
            self.page.clock.fast_forward(30_000)
            if self.status().inner_text() == "saved":
                break
            self.page.wait_for_timeout(200)
        self.saved()
        self.assertEqual(self.stored(), 23.0)

    def test_what_the_server_fails_at_again_and_again_is_set_aside_and_the_rest_goes_on(self):
        """One write is answered busy by the server itself for ever; the one after it gets there."""
        self.page.clock.install()
        self.plan("cove-bed")
        tries: list[str] = []

        def poison(route: Route) -> None:
            mark = route.request.headers.get("ascent-mark", "")
            if tries and mark != tries[0]:
                route.fallback()
                return
            tries.append(mark)
            problem = {"path": "data", "given": "busy", "allowed": "again in a moment", "suggestion": ""}
            route.fulfill(status=503, json={"problems": [problem]})

        self.context.route(EDITS, poison)
        self.east("20 m")
        self.waits()
        for _ in range(11):
            # the page's clock moves only after an answer: what runs out of time meanwhile says nothing
            with self.page.expect_event("requestfinished", lambda request: bool(EDITS.search(request.url))):
                self.page.clock.fast_forward(29_000)
            self.page.wait_for_timeout(100)
        expect(self.page.get_by_role("alert", name="Set aside")).to_contain_text("again in a moment")
        self.assertEqual(len(tries), 12)
        self.item("long-plot-a").focus()
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.clock.fast_forward(5_000)
        for _ in range(20):
            self.page.clock.fast_forward(1_000)
            self.page.wait_for_timeout(200)
            if Change.objects.count():
                break
        self.assertEqual(Change.objects.count(), 1)

    def test_when_the_browser_says_that_the_line_is_back_nobody_waits(self):
        self.plan("cove-bed")
        self.page.clock.install()  # from here on no pause ends by itself
        self.context.set_offline(True)
        self.item("cove-bed").focus()
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.clock.run_for(2_000)
        self.waits()
        self.context.set_offline(False)
        self.page.clock.run_for(500)
        self.saved()
        self.assertEqual(self.stored(), 8.6)

    def test_an_answer_lost_on_the_way_doubles_nothing(self):
        self.plan()
        lost: list[str] = []

        def lose(route: Route) -> None:
            if len(lost) < 2:
                route.fetch()
                lost.append(route.request.headers["ascent-mark"])
                route.abort()
            else:
                route.fallback()

        self.context.route(EDITS, lose)
        beds = Thing.objects.filter(garden=self.garden, kind="bed").count()
        self.page.get_by_role("button", name="bed", exact=True).click()
        expect(self.page.get_by_role("heading", name="Bed 22", level=1)).to_be_visible()
        self.saved()
        self.assertEqual(len(set(lost)), 1, "sent again as the same write")
        self.assertEqual(Thing.objects.filter(garden=self.garden, kind="bed").count(), beds + 1)
        self.assertEqual(Change.objects.count(), 1)

    def test_many_quick_steps_while_earlier_ones_are_on_their_way(self):
        """A step that would join a write just as that one is sent goes by itself; none is lost, and none is
        in the way of another.
        """
        self.plan("cove-bed")
        field = self.page.get_by_label("East", exact=True)
        field.focus()
        for _ in range(60):
            self.page.keyboard.press("ArrowUp")
        expect(field).to_have_value("10.60 m")
        self.saved()
        self.assertAlmostEqual(self.stored(), 10.6)
        self.assertGreater(Change.objects.count(), 1)
        expect(self.page.get_by_role("alert")).to_have_count(0)

    def test_an_undo_whose_answer_was_lost_undoes_once(self):
        self.plan("cove-bed")
        for text in ("20 m", "21 m"):
            self.east(text)
            self.saved()
        lost: list[int] = []

        def lose(route: Route) -> None:
            if not lost:
                route.fetch()
                lost.append(1)
                route.abort()
            else:
                route.fallback()

        self.context.route(re.compile("/undo$"), lose)
        self.page.get_by_role("button", name="undo", exact=True).click()
        expect(self.page.get_by_label("East", exact=True)).to_have_value("20.00 m")
        self.saved()
        self.assertEqual(self.stored(), 20.0)

    def test_a_busy_server_is_asked_again(self):
        self.plan("cove-bed")
        answers = iter([503, 429, 500])

        def busy(route: Route) -> None:
            status = next(answers, None)
            route.fallback() if status is None else route.fulfill(status=status, json={"problems": []})

        self.context.route(EDITS, busy)
        self.east("20 m")
        expect(self.page.get_by_role("button", name="undo", exact=True)).to_be_enabled(timeout=20_000)
        self.assertEqual(self.stored(), 20.0)


class KeptTest(QueueTestCase):
    def test_across_a_reload_a_closed_tab_and_another_one_in_order(self):
        self.plan("cove-bed")
        self.down()
        self.east("20 m")
        self.waits()
        expect(self.page.get_by_label("East", exact=True)).to_have_value("20.00 m")
        self.east("21 m")
        self.page.get_by_label("Name", exact=True).fill("Gull Bed")
        self.page.get_by_label("Name", exact=True).press("Enter")
        self.page.reload()
        self.waits()
        expect(self.page.get_by_label("East", exact=True)).to_have_value(
            "21.00 m"
        )  # as it was written, not as it is saved
        other = self.new_page(self.context)
        self.page.close()
        self.plan("cove-bed", other)
        self.waits(other)
        self.up(other)
        expect(other.get_by_label("East", exact=True)).to_have_value("21.00 m", timeout=30_000)
        self.saved(other)
        self.assertEqual((self.stored(), self.stored(field="name")), (21.0, "Gull Bed"))

    def test_what_was_entered_in_the_moment_of_a_reload_is_kept(self):
        """The page goes before the browser's database has anything of it."""
        self.down()
        self.plan("cove-bed")
        left = "() => { document.activeElement.blur(); location.reload(); }"
        for text in ("Gull Bed", "Tern Bed"):
            self.page.evaluate(STALLED)
            self.page.get_by_label("Name", exact=True).fill(text)
            with self.page.expect_event("load"):
                self.page.evaluate(left)
            self.waits()
            expect(self.page.get_by_label("Name", exact=True)).to_have_value(text)
        self.up()
        self.saved()
        self.assertEqual(self.stored(field="name"), "Tern Bed")

    def test_closing_the_tab_at_once_loses_nothing(self):
        self.open(self.structure())
        self.down()
        field = self.page.get_by_label("Ties on each post", exact=True)
        field.fill("6")
        field.press("Enter")
        self.waits()
        self.page.close()
        other = self.new_page(self.context)
        self.open(self.structure(), other)
        expect(other.get_by_label("Ties on each post", exact=True)).to_have_value("6")
        self.up(other)
        expect(self.status(other)).to_have_text("saved", timeout=30_000)
        self.assertEqual(
            Thing.objects.get(garden=self.garden, key="lantern-row").document["options"]["ties_per_post"], 6
        )

    def test_signed_out_meanwhile_reloaded_and_signed_in_again(self):
        self.plan("cove-bed")
        Session.objects.all().delete()
        self.item("cove-bed").focus()
        self.page.keyboard.press("Shift+ArrowRight")
        expect(self.status()).to_contain_text("signed out: one change stored on this device")
        self.page.reload()
        self.page.get_by_label("Name", exact=True).fill("mara")
        self.page.get_by_label("Password", exact=True).fill("tall-beans-9")
        self.page.get_by_role("button", name="Sign in").click()
        expect(self.page.get_by_role("button", name="undo", exact=True)).to_be_enabled()
        self.assertEqual(self.stored(), 8.6)

    def test_signed_in_again_without_leaving_the_page(self):
        self.plan("cove-bed")
        Session.objects.all().delete()
        self.item("cove-bed").focus()
        self.page.keyboard.press("Shift+ArrowRight")
        self.page.get_by_role("button", name="sign in again").click()
        self.page.get_by_label("Password", exact=True).fill("tall-beans-9")  # the bed has a name, too
        self.page.get_by_label("Name", exact=True).fill("mara")
        self.page.get_by_role("button", name="Sign in").click()
        expect(self.page.get_by_role("button", name="undo", exact=True)).to_be_enabled()
        self.assertEqual(self.stored(), 8.6)

    def test_a_conflict_stays_open_over_a_reload_with_one_s_own_version(self):
        other = self.another()
        self.plan("cove-bed")
        self.plan("cove-bed", other)
        expect(other.get_by_label("East", exact=True)).not_to_have_value("")  # it has read the garden
        self.east("20 m")
        expect(self.page.get_by_role("button", name="undo", exact=True)).to_be_enabled()
        self.east("22 m", other)
        mine = other.get_by_role("radio", name="East, mine: 22.00 m")
        expect(mine).to_be_visible()
        other.reload()
        expect(mine).to_be_visible()
        other.get_by_role("button", name="Keep all of mine").click()
        self.saved(other)
        expect(other.get_by_label("East", exact=True)).to_have_value("22.00 m")
        self.assertEqual(self.stored(), 22.0)

    def test_a_bench_s_conflict_stays_open_over_a_reload(self):
        other = self.another()
        for page in (self.page, other):
            self.open(self.structure(), page)
            expect(page.get_by_label("Ties on each post", exact=True)).not_to_have_value("")
        for page, count in ((self.page, "5"), (other, "7")):
            field = page.get_by_label("Ties on each post", exact=True)
            field.fill(count)
            field.press("Enter")
            if page is self.page:
                page.wait_for_timeout(700)
                self.saved()
        expect(other.get_by_role("radio", name="Ties on each post, mine: 7")).to_be_visible()
        other.reload()
        expect(other.get_by_role("radio", name="Ties on each post, mine: 7")).to_be_visible()
        other.get_by_role("button", name="Keep all of mine").click()
        self.saved(other)
        self.assertEqual(
            Thing.objects.get(garden=self.garden, key="lantern-row").document["options"]["ties_per_post"], 7
        )

    def test_leaving_warns_only_where_nothing_is_kept(self):
        for kept in (True, False):
            with self.subTest(kept=kept):
                context = self.new_context()
                self.sign_in(context)
                if not kept:
                    context.add_init_script("Object.defineProperty(window, 'indexedDB', {value: undefined})")
                page = self.new_page(context)
                self.plan("cove-bed", page)
                self.down(page)
                self.east("20 m", page)
                expect(self.status(page)).to_contain_text(
                    "stored on this device" if kept else "keep this page open"
                )
                asked: list[str] = []
                page.on("dialog", lambda dialog, asked=asked: (asked.append(dialog.type), dialog.accept()))
                page.reload()
                self.assertEqual(asked, [] if kept else ["beforeunload"])
                context.close()


class RefusedTest(QueueTestCase):
    def test_what_is_refused_is_set_aside_mended_or_let_go_and_nothing_waits_behind_it(self):
        self.plan("cove-bed")
        self.down()
        name = self.page.get_by_label("Name", exact=True)
        name.fill("Gull\u2028Bed")
        name.press("Enter")
        self.east("20 m")
        self.waits()
        self.up()
        aside = self.page.get_by_role("alert", name="Set aside")
        expect(aside).to_contain_text("letters, figures and signs on one line are allowed", timeout=30_000)
        expect(self.status()).to_contain_text("one change not saved: action needed")
        self.assertEqual(self.stored(), 20.0)
        self.east("21 m")
        expect(self.page.get_by_label("East", exact=True)).to_have_value("21.00 m")
        self.page.reload()
        expect(aside).to_contain_text("Cove Bed: name")
        self.assertEqual(self.stored(), 21.0)
        aside.get_by_label("name", exact=True).fill("Gull Bed")
        aside.get_by_role("button", name="Save the correction").click()
        expect(aside).to_have_count(0)
        self.saved()
        self.assertEqual(self.stored(field="name"), "Gull Bed")

    def test_let_go(self):
        self.plan("cove-bed")
        name = self.page.get_by_label("Name", exact=True)
        name.fill("Gull\u2028Bed")
        name.press("Enter")
        self.page.get_by_role("button", name="Discard it").click()
        expect(self.page.get_by_role("alert", name="Set aside")).to_have_count(0)
        expect(self.status()).to_have_text("saved")
        self.page.reload()
        expect(self.page.get_by_role("heading", name="Cove Bed", level=1)).to_be_visible()
        expect(self.page.get_by_role("alert", name="Set aside")).to_have_count(0)


class WrittenTest(QueueTestCase):
    alone = True

    def test_a_quantity_written_without_a_line_is_read_and_saved_when_it_is_back(self):
        self.plan("cove-bed")
        self.page.clock.install()
        self.context.set_offline(True)
        self.write_east("2 ft")
        expect(self.status()).to_contain_text("‘2 ft’ is stored on this device")
        self.page.keyboard.press("Escape")
        self.page.get_by_role("button", name="Chandler’s", exact=True).click()  # its field is gone
        expect(self.status()).to_contain_text("‘2 ft’ is stored on this device")
        self.context.set_offline(False)
        self.page.clock.run_for(500)
        self.saved()
        self.assertAlmostEqual(self.stored(), 0.6096, places=4)


class FaultTest(QueueTestCase):
    def test_a_fault_of_ours_is_told_from_a_garden_that_is_not_there_and_undo_is_offered(self):
        self.plan("cove-bed")
        self.east("20 m")
        expect(self.page.get_by_role("button", name="undo", exact=True)).to_be_enabled()
        with mock.patch("gardens.services.garden.known_of", side_effect=ZeroDivisionError):
            self.page.reload()
            expect(self.page.get_by_role("heading", name="This cannot be shown now")).to_be_visible()
            expect(self.page.get_by_text("a fault of ours")).to_be_visible()
        self.page.get_by_role("button", name="Undo my last change").click()
        expect(self.page.get_by_label("East", exact=True)).to_have_value("7.60 m")
        self.open("/gardens/999999")
        expect(self.page.get_by_role("heading", name="This page does not exist")).to_be_visible()

    def test_what_cannot_be_read_is_shown_with_its_text_and_taken_away(self):
        row = Thing.objects.get(garden=self.garden, key="lantern-row")
        row.document = {**row.document, "options": {"gone": 1}}
        row.save()
        self.plan()
        lost = self.page.get_by_role("region", name="Cannot be read")
        lost.locator("summary").click()
        expect(lost).to_contain_text("no field of that name belongs here")
        expect(lost.locator("pre")).to_contain_text('"gone": 1')
        lost.get_by_role("button", name="Remove it").click()
        expect(lost).to_have_count(0)
        self.saved()
        self.page.get_by_role("button", name="undo", exact=True).click()
        expect(lost).to_be_visible()


class TabsTest(QueueTestCase):
    def test_what_one_tab_waits_for_and_another_has_sent_is_answered_all_the_same(self):
        """Two tabs, one line: the other tab holds it and sends what this one has asked for."""
        other = self.new_page(self.context)
        self.plan("cove-bed", other)
        self.open(f"/gardens/{self.garden.pk}/beds/chandlers/new?on=stake")
        build = self.page.get_by_role("button", name="Change the design first")
        expect(build).to_be_enabled()
        begun: list[Route] = []
        self.context.route(EDITS, lambda route: begun.append(route))  # noqa: PLW0108 - a handler of its own; the other tab's own write is long on its way
        self.east("20 m", other)
        for _ in range(100):  # until the other tab's write is out, however slow the machine
            if begun:
                break
            other.wait_for_timeout(100)
        self.assertEqual(len(begun), 1)
        build.click()
        expect(self.page.get_by_role("button", name="Saving…")).to_be_visible()
        self.page.wait_for_timeout(300)
        begun[0].fallback()
        expect(self.page.get_by_label("What it holds")).to_contain_text("Holds gusts up to", timeout=20_000)
        self.assertEqual(
            Thing.objects.filter(garden=self.garden, kind="structure", home="chandlers").count(), 2
        )
