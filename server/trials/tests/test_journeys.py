"""Whole jobs on the real page, from an empty bed to a list of what to buy."""

from __future__ import annotations

import csv
import re
from pathlib import Path

from gardens.models import Thing
from playwright.sync_api import Route, expect

from .browser import BrowserTestCase, pick


class FirstFenceTest(BrowserTestCase):
    def test_from_making_an_account_to_what_to_buy(self):
        self.expected_errors = 4  # the refused passwords, and what a visitor may not see
        context = self.new_context()
        page = self.new_page(context)
        self.open("/", page)
        page.get_by_role("button", name="Make an account").click()
        page.get_by_label("Name").fill("tobin")
        page.get_by_label("Password", exact=True).fill("12345678")
        page.get_by_role("button", name="Make the account").click()
        expect(page.get_by_role("alert").first).to_contain_text("too common")
        page.get_by_label("Password", exact=True).fill("tall-peas-9")
        page.get_by_role("button", name="Make the account").click()
        expect(page.get_by_role("heading", name="A new garden")).to_be_visible()
        page.get_by_label("Garden", exact=True).fill("Tobin’s yard")
        page.get_by_label("Length", exact=True).fill("12 ft")
        page.get_by_role("button", name="Plan its first support").click()
        pick(page, "Crop", "Pole (snap) bean")
        page.get_by_label("How many plants").fill("10")
        pick(page, "A certain kind", "Mesh fence")
        page.get_by_text("Every value, with its reason").click()
        expect(page.get_by_text("10 plants at 0.15 m")).to_be_visible()
        page.get_by_role("button", name="Change the design first").click()
        expect(page.get_by_label("What it holds")).to_contain_text("Holds gusts up to")
        page.get_by_role("link", name=re.compile("^Parts")).click()
        expect(page.get_by_role("heading", name=re.compile("Parts for Pole"))).to_be_visible()
        with page.expect_download() as download:
            page.get_by_role("link", name="Save as CSV").click()
        rows = list(csv.DictReader(Path(download.value.path()).read_text().splitlines()))
        self.assertEqual(rows[-1]["part"], "total")
        self.assertGreater(float(rows[-1]["cost"]), 0)
        page.get_by_role("link", name="Tobin’s yard").click()
        expect(page.get_by_role("region", name="First bed")).to_contain_text("Pole bean fence")
        context.close()

    def test_everything_of_the_start_can_be_skipped(self):
        Thing.objects.filter(garden=self.garden).delete()
        self.plan()
        self.page.get_by_role("button", name="Skip these steps").click()
        expect(self.page.get_by_text("No bed yet")).to_be_visible()
        self.page.get_by_role("button", name="bed", exact=True).click()
        expect(self.page.get_by_role("heading", name="Bed 1", level=1)).to_be_visible()

    def test_the_whole_main_job_without_a_mouse(self):
        self.plan()
        page = self.page
        self.tab_to(page.get_by_role("button", name="bed", exact=True))
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Bed 22", level=1)).to_be_visible()
        expect(page.get_by_label("Name", exact=True)).to_be_focused()
        page.keyboard.type("Key Bed")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Key Bed", level=1)).to_be_visible()
        self.tab_to(page.get_by_role("link", name="Plan a support", exact=True), key="Shift+Tab")
        page.keyboard.press("Enter")
        kind = page.get_by_label("A certain kind", exact=True)
        expect(kind).to_be_visible()
        self.tab_to(kind, 120)
        page.keyboard.type("Mesh fence")
        page.keyboard.press("Enter")
        expect(kind).to_have_value("Mesh fence")
        build = page.get_by_role("button", name="Change the design first")
        expect(build).to_be_enabled(timeout=30_000)
        self.tab_to(build, 120, key="Shift+Tab")
        page.keyboard.press("Enter")
        depth = page.get_by_label("Post depth", exact=True)
        expect(depth).to_have_value(re.compile(r"^0\.\d\d m$"))
        self.tab_to(depth)
        page.keyboard.type("27 in")
        page.keyboard.press("Enter")
        expect(depth).to_have_value("0.69 m")
        self.saved()
        ring = page.get_by_role("button", name=re.compile("fails first"))
        self.tab_to(ring, 200)
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="What would help")).to_be_visible()
        self.tab_to(page.get_by_role("link", name=re.compile("^Parts")), 200)
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile("^Parts for"))).to_be_visible()


class BenchTest(BrowserTestCase):
    def setUp(self):
        super().setUp()
        self.path = self.structure()
        self.open(self.path)

    def limit(self) -> str:
        return self.page.locator(".verdict span").first.inner_text()

    def options(self) -> dict:
        return Thing.objects.get(pk=int(self.path.split("/")[-1])).document["options"]

    def test_a_kind_is_chosen_by_its_picture_and_says_what_each_side_gains(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/beds/chandlers/new")
        pick(page, "Crop", "Winter squash, butternut")
        pick(page, "A certain kind", "Panel arch")
        expect(page.get_by_text("Welded panels bent over a path")).to_be_visible()
        page.get_by_text("Every value, with its reason").click()
        expect(page.get_by_text("grips its wires, and its fruit hangs through them.")).to_be_visible()
        page.get_by_role("button", name="Change the design first").click()
        expect(page.get_by_role("button", name=re.compile("^Bent panel"))).to_be_visible()
        page.get_by_role("button", name="I want: headroom over a path").click()
        ways = page.get_by_role("group", name="headroom over a path")
        expect(ways.get_by_text(re.compile("m clear under what hangs")).first).to_be_visible()
        ways.get_by_role("button", name="Use this").first.click()
        expect(page.get_by_text(re.compile("m is clear"))).to_be_visible()
        page.get_by_role("combobox", name="Feet in", exact=True).select_option(label="boards")
        expect(page.get_by_role("combobox", name="Feet held by", exact=True)).to_be_visible()
        expect(page.get_by_role("textbox", name="Post depth")).to_have_count(0)
        expect(page.get_by_role("button", name=re.compile("^Cleats"))).to_be_visible()
        expect(
            page.get_by_role("region", name="What changes this result most").get_by_role("listitem").first
        ).to_be_visible()

    def test_a_dimension_is_edited_on_the_drawing_in_any_unit_and_reload_shows_the_truth(self):
        page = self.page
        page.get_by_role("button", name="Change Post depth: 0.60 m").click()
        page.locator(".measureedit input").fill("2' 6\"")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Change Post depth: 0.76 m")).to_be_visible()
        self.saved()
        page.reload()
        expect(page.get_by_role("button", name="Change Post depth: 0.76 m")).to_be_visible()
        self.assertAlmostEqual(self.options()["depth"], 0.762, places=4)

    def test_what_cannot_be_read_is_refused_where_it_stands_and_what_was_saved_stays(self):
        self.expected_errors = 2
        page = self.page
        field = page.get_by_label("Post spacing", exact=True)
        expect(field).to_have_value("1.22 m")
        for text, allowed in (("wide", "Write a length such as"), ("9 m", "0.30 m to 4.00 m is allowed")):
            field.fill(text)
            page.keyboard.press("Enter")
            expect(page.get_by_role("alert")).to_contain_text(f"‘{text}’ cannot be used")
            expect(page.get_by_role("alert")).to_contain_text(allowed)
            expect(field).to_have_value(text)
        page.keyboard.press("Escape")
        expect(field).to_have_value("1.22 m")
        self.assertEqual(self.options()["post_spacing"], 1.22)

    def test_more_plants_than_the_track_reaches_can_be_written(self):
        self.expected_errors = 1
        field = self.page.get_by_label("Plants", exact=True).last
        expect(field).to_have_value("13")
        field.fill("700")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("1 to 600 is allowed")
        field.fill("80")
        self.page.keyboard.press("Enter")
        expect(field).to_have_value("80")
        self.saved()

    def test_everything_answers_while_the_hand_is_on_the_control(self):
        page = self.page
        expect(page.get_by_label("What it holds")).to_contain_text("holds; needs 14 m/s")
        thumb = page.get_by_label("Post spacing, slide")
        thumb.scroll_into_view_if_needed()
        box = page.locator(".measured", has=thumb).locator(".MuiSlider-root").bounding_box()
        page.mouse.move(box["x"] + box["width"] * 0.25, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(box["x"] + box["width"] * 0.95, box["y"] + box["height"] / 2, steps=6)
        expect(page.get_by_label("What it holds")).to_contain_text(
            "probably holds; needs 14 m/s"
        )  # before the hand lets go
        page.mouse.up()
        self.saved()
        page.keyboard.press("Control+z")  # one drag is one step
        expect(page.get_by_label("Post spacing", exact=True)).to_have_value("1.22 m")

    def test_fixes_are_pressed_undone_and_redone_by_key(self):
        page = self.page
        page.get_by_role("button", name=re.compile("fails first")).click()
        before = self.limit()
        page.locator(".fix").first.click()
        expect(page.locator(".verdict span").first).not_to_have_text(before)
        after = self.limit()
        self.saved()
        page.keyboard.press("Control+z")
        expect(page.locator(".verdict span").first).to_have_text(before)
        page.keyboard.press("Control+Shift+z")
        expect(page.locator(".verdict span").first).to_have_text(after)

    def test_a_report_that_has_no_turn_is_asked_for_again(self):
        page = self.page
        before = self.limit()
        told = iter([429, 503])

        def busy(route: Route) -> None:
            status = next(told, None)
            route.continue_() if status is None else route.fulfill(status=status, json={"problems": []})

        self.expected_errors = 2
        page.route("**/report", busy)
        field = page.get_by_label("Post depth", exact=True)
        field.fill("30 cm")
        page.keyboard.press("Enter")
        expect(page.locator(".verdict span").first).not_to_have_text(before)
        self.assertIsNone(next(told, None), "both were met")

    def test_what_is_typed_as_the_figure_arrives_replaces_it(self):
        """A hand that is in the field before the report is there writes over it, never behind it."""
        page = self.page
        held: list[Route] = []

        def hold(route: Route) -> None:
            held.append(route)

        page.route("**/report", hold)
        page.reload()
        field = page.get_by_label("Ties on each post", exact=True)
        field.focus()
        expect(field).to_have_value("")
        for route in held:
            route.continue_()
        expect(field).to_have_value("4")
        page.keyboard.type("6")
        expect(field).to_have_value("6")

    def test_a_written_value_is_undone_by_key_from_where_the_hand_is(self):
        page = self.page
        field = page.get_by_label("Post depth", exact=True)
        expect(field).to_have_value("0.60 m")
        field.fill("80 cm")
        page.keyboard.press("Enter")
        expect(field).to_have_value("0.80 m")
        page.keyboard.press("Control+z")
        expect(field).to_have_value("0.60 m")

    def test_an_opened_link_shows_formula_numbers_source_and_certainty(self):
        page = self.page
        page.get_by_role("button", name=re.compile("^Soil grip")).click()
        panel = page.get_by_label("Link: Soil grip")
        for text in (
            "Broms",
            "the soil gives",
            "building code",
            "our estimate: it may be half or twice this",
        ):
            expect(panel).to_contain_text(text)
        self.assertIn("link=soil", page.url)
        page.go_back()
        expect(page.get_by_label("Post depth", exact=True)).to_be_visible()

    def test_a_long_row_is_looked_at_closer_and_whole_again(self):
        page = self.page
        self.open(self.structure("Chandler’s Wire"))
        sheet, depth = (
            page.locator(".sheet"),
            page.get_by_role("button", name=re.compile("^Change Post depth")),
        )
        past = "(sheet) => sheet.scrollWidth - sheet.clientWidth"
        expect(depth).to_be_visible()
        self.assertEqual(sheet.evaluate(past), 0)
        page.get_by_role("button", name="closer", exact=True).click()
        self.assertGreater(sheet.evaluate(past), 100)
        depth.click()  # measures are touched there, too
        page.keyboard.press("Escape")
        page.get_by_role("button", name="the whole row").click()
        self.assertEqual(sheet.evaluate(past), 0)

    def test_pointing_at_a_link_lights_its_members_and_the_other_way_round(self):
        page = self.page
        page.get_by_role("button", name=re.compile("^Post ties")).hover()
        lit = page.locator(".paper svg circle[r='4']")
        expect(lit.first).to_be_visible()
        self.assertGreater(lit.count(), 20)

    def test_kinds_are_compared_as_they_are_found_stopped_and_kept_to_what_matters(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/beds/barrel-1/new")
        looked = page.get_by_role("status", name="Progress")
        expect(page.get_by_role("table")).to_be_visible()
        page.get_by_role("button", name="Stop", exact=True).click()
        expect(looked).to_contain_text("of 15 kinds")
        page.get_by_role("button", name="Continue").click()
        page.get_by_text("What matters").click()
        page.get_by_label("parts from the shed are used").uncheck()
        page.get_by_label("People", exact=True).fill("0")
        expect(page.get_by_text("People: ‘0’ cannot be used. Enter 1 to 10.")).to_be_visible()
        page.get_by_label("People", exact=True).fill("1")
        page.get_by_label("People", exact=True).press("Enter")
        page.get_by_label("Most important").select_option("cost")
        page.get_by_text("Not suitable here").click(timeout=60_000)
        expect(page.locator(".willnot")).to_contain_text("people to build", timeout=60_000)
        expect(looked).to_contain_text("All 15 kinds calculated", timeout=60_000)
        looked.get_by_role("button", name="Stop").click()
        expect(page.get_by_role("group", name="Cost against failing")).to_be_visible()
        rows = page.get_by_role("row")
        expect(rows.nth(1)).to_contain_text("Costs least to buy")

    def test_several_changes_together_when_one_is_not_enough(self):
        page = self.page
        self.open(self.structure("Quay Fence"))
        field = page.get_by_label("Post spacing", exact=True)
        field.fill("2.4 m")
        page.keyboard.press("Enter")
        expect(page.get_by_label("What it holds")).to_contain_text("too weak")
        page.get_by_role("button", name=re.compile("fails first")).click()
        panel = page.get_by_role("region", name=re.compile("^Link: "))
        panel.get_by_role("button", name="Find a design").click(timeout=60_000)
        together = panel.locator(".fix", has_text="Together they hold up to")
        expect(together).to_contain_text("That is enough")
        together.click()
        expect(page.get_by_label("What it holds")).not_to_contain_text("too weak")

    def test_the_tide_is_dragged_and_keyed_and_its_week_is_in_the_address(self):
        page = self.page
        tide = page.get_by_role("slider", name="Week of the season")
        expect(tide).to_have_attribute(
            "aria-valuetext", re.compile("fourth week of September: holds up to 22 m/s")
        )
        tide.focus()
        page.keyboard.press("Home")
        expect(tide).to_have_attribute("aria-valuetext", re.compile("third week of May"))
        self.assertRegex(page.url, r"week=\d{4}-05-18")  # a Monday of the garden
        box = tide.bounding_box()
        page.mouse.click(box["x"] + box["width"] * 0.5, box["y"] + box["height"] * 0.5)
        expect(tide).to_have_attribute("aria-valuetext", re.compile("last week of July"))
        link, text = page.url, tide.get_attribute("aria-valuetext")
        self.open(link.removeprefix(self.live_server_url))
        expect(page.get_by_role("slider", name="Week of the season")).to_have_attribute(
            "aria-valuetext", text
        )

    def test_leaves_grow_with_the_week(self):
        page = self.page
        leaves = page.locator(".paper svg path[fill='var(--leaf)']").first
        tide = page.get_by_role("slider", name="Week of the season")
        expect(leaves).to_be_attached()
        full = len(leaves.get_attribute("d"))
        tide.focus()
        page.keyboard.press("Home")
        expect(tide).to_have_attribute("aria-valuenow", "0")
        self.assertLess(len(leaves.get_attribute("d") or ""), full / 3)

    def test_a_change_is_kept_when_the_bench_is_left_at_once(self):
        page = self.page
        expect(page.get_by_label("Ties on each post", exact=True)).to_have_value("4")
        page.get_by_label("Ties on each post", exact=True).fill("6")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Ties on each post", exact=True)).to_have_value("6")
        page.get_by_role("link", name=re.compile("^Parts")).click()
        expect(page.get_by_role("row", name=re.compile("wire clip for T-posts"))).to_contain_text("38")
        page.go_back()
        expect(page.get_by_label("Ties on each post", exact=True)).to_have_value("6")

    def test_units_change_everywhere(self):
        page = self.page
        page.get_by_role("button", name="Switch to feet and inches").click()
        expect(page.get_by_role("button", name="Change Post depth: 1 ft 11 1/2 in")).to_be_visible()
        expect(page.get_by_label("What it holds")).to_contain_text("mph")
        page.get_by_role("button", name="Switch to metres").click()
        expect(page.get_by_role("button", name="Change Post depth: 0.60 m")).to_be_visible()

    def test_removed_only_after_asking(self):
        page = self.page
        page.get_by_role("button", name="Remove from the bed").click()
        page.get_by_role("button", name="Cancel").click()
        page.get_by_role("button", name="Remove from the bed").click()
        page.get_by_role("button", name="Remove it").click()
        expect(page.get_by_role("heading", name="Lantern Quay")).to_be_visible()
        expect(page.get_by_text("Lantern Row")).to_have_count(0)
        page.keyboard.press("Control+z")
        expect(page.get_by_role("link", name=re.compile("Lantern Row"))).to_be_visible()


class PhoneTest(BrowserTestCase):
    size = (390, 844)

    def test_a_pressed_link_is_seen_though_it_stands_far_below(self):
        self.open(self.structure())
        self.page.get_by_role("button", name=re.compile("fails first")).click()
        expect(self.page.get_by_role("heading", name="What would help")).to_be_in_viewport()


class SavingTest(BrowserTestCase):
    def change_ties(self, page, count: str) -> None:
        field = page.get_by_label("Ties on each post", exact=True)
        expect(field).not_to_have_value("")
        field.fill(count)
        page.keyboard.press("Enter")
        expect(field).to_have_value(count)

    def test_two_pages_the_second_is_asked_and_nothing_is_lost(self):
        self.expected_errors = 2
        path = self.structure()
        other = self.another()
        self.open(path)
        self.open(path, other)
        self.change_ties(self.page, "5")
        self.saved()
        self.change_ties(other, "7")
        expect(other.get_by_role("alert")).to_contain_text("Someone else saved")
        other.get_by_role("radio", name="Ties on each post, theirs: 5").wait_for()
        other.get_by_role("button", name="Keep all of mine").click()
        self.saved(other)
        self.page.reload()
        expect(self.page.get_by_label("Ties on each post", exact=True)).to_have_value("7")

    def test_field_by_field_one_of_theirs_and_one_of_mine(self):
        self.expected_errors = 2
        path = self.structure()
        other = self.another()
        self.open(path)
        self.open(path, other)
        self.change_ties(self.page, "5")
        depth = self.page.get_by_label("Post depth", exact=True)
        depth.fill("0.8 m")
        self.page.keyboard.press("Enter")
        expect(depth).to_have_value("0.80 m")
        self.page.wait_for_timeout(600)  # saved once the hand rests
        self.saved()
        self.change_ties(other, "7")
        alert = other.get_by_role("alert")
        expect(
            alert.get_by_role("radio", name="Post depth, theirs: 0.80 m")
        ).to_be_checked()  # only they changed it
        expect(alert.get_by_role("radio", name="Ties on each post, mine: 7")).to_be_checked()
        other.get_by_role("button", name="Save this").click()
        self.saved(other)
        options = Thing.objects.get(pk=int(path.split("/")[-1])).document["options"]
        self.assertEqual((options["ties_per_post"], options["depth"]), (7, 0.8))

    def test_undo_works_across_a_reload(self):
        self.open(self.structure())
        for ties in ("6", "8"):  # each is saved: typed at once, they would be one change on a slow machine
            with self.page.expect_response(lambda response: response.request.method == "PUT"):
                self.change_ties(self.page, ties)
        self.saved()
        self.page.reload()
        field = self.page.get_by_label("Ties on each post", exact=True)
        expect(field).to_have_value("8")
        self.page.keyboard.press("Control+z")
        expect(field).to_have_value("6")
        self.page.keyboard.press("Control+z")
        expect(field).to_have_value("4")
        self.saved()

    def test_what_was_written_last_counts_though_its_answer_comes_first(self):
        path = self.structure()
        self.open(path)
        first: list = []

        def hold_the_first(route):
            if first:
                route.continue_()
            else:
                first.append(route)

        self.page.route("**/api/quantities/read", hold_the_first)
        self.change_ties(self.page, "6")
        self.change_ties(self.page, "8")
        field = self.page.get_by_label("Ties on each post", exact=True)
        expect(field).to_have_attribute("data-typing", "false")  # the second has been read
        field.press_sequentially("1")
        with self.page.expect_response("**/api/quantities/read"):
            first[0].continue_()
        expect(self.page.get_by_role("status").filter(has_text="saving")).to_have_count(0)
        expect(field).to_have_value("81")  # still in hand: not wiped by the late answer
        self.page.keyboard.press("Escape")
        expect(field).to_have_value("8")
        self.saved()
        options = Thing.objects.get(pk=int(path.split("/")[-1])).document["options"]
        self.assertEqual(options["ties_per_post"], 8)

    def test_when_the_server_is_away_what_was_entered_is_kept_and_sent_later(self):
        self.expected_errors = 20
        path = self.structure()
        self.open(path)
        expect(self.page.get_by_label("Ties on each post", exact=True)).to_have_value("4")
        self.page.route("**/api/structures/*", lambda route: route.abort())
        self.change_ties(self.page, "9")
        expect(self.page.get_by_role("status")).to_contain_text("stored on this device")
        self.page.unroute("**/api/structures/*")
        self.page.route(
            "**/api/structures/*",
            lambda route: route.abort() if route.request.method == "PUT" else route.continue_(),
        )
        self.page.reload()  # nor is it lost by a reload
        expect(self.page.get_by_label("Ties on each post", exact=True)).to_have_value("9")
        self.page.unroute("**/api/structures/*")
        self.saved()
        self.assertEqual(
            Thing.objects.get(pk=int(path.split("/")[-1])).document["options"]["ties_per_post"], 9
        )


class PriceTest(BrowserTestCase):
    def test_an_own_price_is_kept_and_a_bad_one_refused(self):
        self.open(f"{self.structure()}/parts")
        page = self.page
        field = page.get_by_label("Price of steel T-post 2.1 m")
        field.fill("-3")
        page.keyboard.press("Tab")
        expect(page.get_by_role("alert")).to_contain_text("‘-3’ cannot be used. Enter a price of 0 or more")
        field.fill("10,50")
        page.keyboard.press("Tab")
        expect(page.get_by_role("row", name=re.compile("steel T-post 2.1 m"))).to_contain_text("63.00")
        self.open(f"{self.structure()}/parts")
        expect(page.get_by_label("Price of steel T-post 2.1 m")).to_have_value("10.50")

    def test_the_garden_settings_are_kept(self):
        self.plan()
        page = self.page
        page.get_by_label("Currency").fill("kr")
        page.keyboard.press("Enter")
        page.get_by_label("Design gust").fill("50 mph")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="Use the value for this exposure")).to_be_visible()
        self.saved()
        page.reload()
        expect(page.get_by_label("Currency")).to_have_value("kr")
        expect(page.get_by_label("Design gust")).to_have_value("22 m/s")
