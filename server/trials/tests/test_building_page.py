"""The build screen as it is used: a phone in a garden, dirty hands, no line."""

from __future__ import annotations

import re

from gardens.models import Change, Thing
from playwright.sync_api import Page, Route, expect

from .browser import KEPT, BrowserTestCase

EDITS = re.compile(r"/api/gardens/\d+/edits$")


class BuildTestCase(BrowserTestCase):
    size = (390, 844)

    def build(self, page: Page | None = None, part: str = "steps", name: str = "Lantern Row") -> None:
        """Open the build screen of a structure."""
        self.open(f"{self.structure(name)}/build?part={part}", page)
        expect((page or self.page).get_by_role("heading", name=f"Build {name}", level=1)).to_be_visible()

    def done(self, page: Page | None = None) -> None:
        """Tick the step that is shown."""
        (page or self.page).get_by_role("button", name="Done", exact=True).click()

    def step(self, title: str, page: Page | None = None):
        """Return the heading of a step that is shown."""
        return (page or self.page).get_by_role("heading", name=title, level=2, exact=True)

    def records(self):
        """Return what is stored of the building of the fence."""
        return Thing.objects.filter(garden=self.garden, kind="record", document__structure="lantern-row")

    def ticks(self) -> set[str]:
        """Return the steps that are ticked as it is stored."""
        row = self.records().first()
        return set(row.document["ticks"]) if row else set()


class StepsTest(BuildTestCase):
    def test_from_the_plan_to_a_fence_that_stands(self):
        """Every step by its button; nothing is asked twice."""
        self.build()
        count = self.page.locator(".steprow").count()
        for number in range(count):
            expect(self.page.get_by_text(f"Step {number + 1} of {count}")).to_be_visible()
            self.done()
        expect(self.page.get_by_text(f"{count} of {count} steps done")).to_be_visible()
        self.page.get_by_role("button", name="Mark as built").click()
        expect(self.page.get_by_text("Built on")).to_be_visible()
        self.saved()
        self.assertEqual(len(self.ticks()), count)

    def test_a_post_on_a_stone_is_checked_at_once_and_what_helps_is_named(self):
        self.build()
        self.done()
        expect(self.step("Drive the posts")).to_be_visible()
        self.page.get_by_role("button", name="Record a difference").click()
        self.page.get_by_role("button", name="P2", exact=True).click()
        self.page.get_by_label("Post depth, as it came out").fill("0.25 m")
        self.page.get_by_role("button", name="Save the difference").click()
        expect(self.page.get_by_text("P2: Post depth 0.25 m instead of 0.60 m")).to_be_visible()
        expect(self.page.get_by_text("As built it is too weak")).to_be_visible()
        self.assertGreater(self.page.get_by_role("button", name="Solved").count(), 0)
        self.page.get_by_role("button", name="Remove this difference").click()
        expect(self.page.get_by_text("Built as planned so far.")).to_be_visible()

    def test_what_cannot_be_is_set_aside_with_its_words(self):
        self.build()
        self.done()
        self.expected_errors = 1
        self.page.get_by_role("button", name="Record a difference").click()
        self.page.get_by_label("Post depth, as it came out").fill("nine feet deep")
        self.page.get_by_role("button", name="Save the difference").click()
        expect(self.page.get_by_text("nine feet deep").first).to_be_visible()
        expect(self.page.get_by_role("alert")).to_contain_text("write a length such as 1.2 m")

    def test_two_people_tick_the_same_fence(self):
        other = self.another()
        self.build()
        self.build(other)
        self.done()
        expect(self.step("Drive the posts")).to_be_visible()
        self.saved()
        other.get_by_role("button", name="Drive the posts").click()
        self.done(other)
        expect(self.step("Drive the posts", other)).to_have_count(0)
        self.saved(other)
        self.assertEqual(self.ticks(), {"mark", "posts"})
        self.assertEqual(self.records().count(), 1)

    def test_joined_the_other_way_the_steps_change_their_order(self):
        self.build(name="Runner Row")
        before = self.page.locator(".steprow").all_inner_texts()
        self.page.get_by_role("button", name="Join it on the ground").click()
        expect(self.page.get_by_text("Joined on the ground.")).to_be_visible()
        self.assertNotEqual(self.page.locator(".steprow").all_inner_texts(), before)

    def test_in_the_round_the_steps_are_played_to_the_last(self):
        self.build(name="Lantern Arch")
        self.page.get_by_role("button", name="3D view").click()
        self.page.get_by_role("button", name="play the steps").click()
        expect(self.page.get_by_text("Step 4 of")).to_be_visible()
        self.page.get_by_role("button", name="stop", exact=True).click()
        expect(self.page.get_by_role("button", name="play the steps")).to_be_visible()

    def test_a_pipe_too_near_is_said_and_the_way_clear_of_it_is_one_press(self):
        self.build(part="before", name="Cove Fence")
        expect(self.page.get_by_text("Water pipe").first).to_be_visible()
        self.page.get_by_role("button", name=re.compile("shorter")).click()
        expect(self.page.get_by_role("button", name=re.compile("shorter"))).to_have_count(0)

    def test_gloves_reach_everything_and_nothing_is_wider_than_a_phone(self):
        self.build()
        self.done()
        expect(self.step("Drive the posts")).to_be_visible()
        self.assertLessEqual(self.overflow(), 0)
        for name in ("Done", "Back", "Record a difference"):
            box = self.page.get_by_role("button", name=name, exact=True).bounding_box()
            self.assertGreaterEqual(box["height"], 44, name)


class NoLineTest(BuildTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.expected_errors = 400  # every try while there is no line is one

    def test_without_a_line_reloaded_ticked_closed_opened_and_back(self):
        context = self.new_context(service_workers="allow")
        self.addCleanup(context.close)
        self.sign_in(context)
        page = self.new_page(context)
        self.build(page)
        page.evaluate("async () => { await navigator.serviceWorker.ready; }")
        page.reload()  # from now on the worker keeps what is said
        expect(self.step("Mark out", page)).to_be_visible()
        page.wait_for_load_state("networkidle")
        context.set_offline(True)
        page.reload()
        expect(self.step("Mark out", page)).to_be_visible()
        self.done(page)
        expect(self.step("Drive the posts", page)).to_be_visible()
        page.close()
        self.assertEqual(self.ticks(), set())
        again = self.new_page(context)
        self.build(again)
        expect(again.get_by_text("1 of")).to_be_visible()
        self.done(again)
        expect(again.get_by_text("2 of")).to_be_visible()
        context.set_offline(False)
        self.saved(again)
        self.assertEqual(self.ticks(), {"mark", "posts"})
        self.assertEqual(Change.objects.filter(garden=self.garden).count(), 2, "each tick once")

    def test_an_answer_lost_after_a_tick_does_it_once(self):
        """As when the server is killed between a tick and its answer."""
        lost: list[int] = []

        def lose(route: Route) -> None:
            if lost:
                route.fallback()
                return
            route.fetch()
            lost.append(1)
            route.abort()

        self.context.route(EDITS, lose)
        self.build()
        self.done()
        self.saved()
        self.assertEqual(lost, [1])
        self.assertEqual(self.ticks(), {"mark"})
        self.assertEqual(Change.objects.filter(garden=self.garden).count(), 1)

    def test_whoever_signs_out_leaves_nothing_that_was_said(self):
        context = self.new_context(service_workers="allow")
        self.addCleanup(context.close)
        self.sign_in(context)
        page = self.new_page(context)
        self.build(page)
        page.evaluate("async () => { await navigator.serviceWorker.ready; }")
        page.reload()
        expect(self.step("Mark out", page)).to_be_visible()
        page.wait_for_function(f"async () => (await ({KEPT})()).some((url) => url.includes('structures'))")
        page.get_by_role("button", name="Menu", exact=True).click()
        page.get_by_role("button", name="sign out").click()
        expect(page.get_by_label("Password")).to_be_visible()
        said = page.evaluate(KEPT)
        self.assertFalse([url for url in said if "structures" in url], "only what is said to anybody")
