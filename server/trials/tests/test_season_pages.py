"""This week and the year as they are used: a thumb on a phone, a hand at a desk, no line."""

from __future__ import annotations

import datetime as dt
import re

from django.test import override_settings
from gardens.models import Thing
from gardens.services.state import place_of
from gardens.tests.test_season import mast
from playwright.sync_api import expect

from .browser import BrowserTestCase

DAY = dt.date(2026, 8, 11)


class SeasonTestCase(BrowserTestCase):
    def setUp(self) -> None:
        super().setUp()
        day = override_settings(TODAY=DAY, WEATHER=mast(self, storm=(26.0, 2)).address)
        day.enable()
        self.addCleanup(day.disable)

    def marks(self, structure: str = "lantern-row") -> dict[str, str]:
        """Return what is marked of a structure, as it is stored."""
        found: dict[str, str] = {}
        rows = Thing.objects.filter(garden=self.garden, kind="diary", document__structure=structure)
        for row in rows:
            found |= {key: mark["state"] for key, mark in row.document["marks"].items()}
        return found


class WeekTest(SeasonTestCase):
    size = (390, 844)

    def test_the_storm_then_tonight_and_one_thumb_to_tick(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/week")
        expect(page.get_by_role("heading", level=1)).to_contain_text("Today, 11 August")
        storm = page.get_by_role("region", name="Storm watch")
        expect(storm).to_contain_text("Thursday, 13 August")
        expect(storm.get_by_text("too weak").first).to_be_visible()
        row = page.locator(".visit", has=page.get_by_role("link", name="Lantern Row")).first
        tick = row.get_by_role("checkbox").first
        box = tick.locator("xpath=..").bounding_box()
        self.assertGreaterEqual(min(box["width"], box["height"]), 44)
        tick.check()
        expect(row.locator(".task").first).to_contain_text("done")
        self.saved()
        self.assertIn("done", self.marks().values())
        tick.uncheck()
        self.saved()
        self.assertNotIn("done", [s for k, s in self.marks().items() if "build" not in k])

    def test_it_can_be_skipped_and_what_that_does_is_told(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/week")
        visits = page.locator(".visit", has=page.get_by_role("link", name="Lantern Row"))
        pick = re.compile("^Pick .*tomato")
        row = visits.filter(has=page.get_by_role("button", name=pick)).first
        row.get_by_role("button", name=pick).click()
        expect(
            row.get_by_text(re.compile("If you miss one pick, 1.7 times as much fruit hangs"))
        ).to_be_visible()
        row.get_by_role("button", name="Skip this time").click()
        expect(row.get_by_text("skipped")).to_be_visible()
        self.saved()
        self.assertIn("skipped", self.marks().values())

    def test_ticks_without_a_line_get_there_once(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/week")
        row = page.locator(".visit", has=page.get_by_role("link", name="Lantern Row")).first
        expect(row).to_be_visible()
        self.saved()
        self.page.context.set_offline(True)
        self.expected_errors = 100
        row.get_by_role("checkbox").first.check()
        expect(row.locator(".task").first).to_contain_text("done")
        self.page.context.set_offline(False)
        self.saved()
        self.assertEqual(list(self.marks().values()).count("done"), 2)  # that, and that it is built

    def test_a_reader_sees_and_cannot_tick(self):
        self.open(f"/gardens/{self.garden.pk}/week")
        expect(self.page.get_by_role("checkbox").first).to_be_visible()

    def test_what_came_too_late_has_its_ways(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/week")
        late = page.get_by_role("region", name="Not built yet")
        expect(late).to_contain_text("Weavers is not built")
        late.get_by_text("Weavers is not built").click()
        expect(late.get_by_text("A string to each plant")).to_be_visible()
        late.get_by_role("button", name="Mark as built").click()
        self.saved()
        self.assertEqual(self.marks("weavers"), {"2026.build.1": "done"})

    def test_a_feed_is_made_and_withdrawn(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/week")
        page.get_by_role("button", name="Make a feed").click()
        address = page.get_by_label("Address of the feed")
        expect(address).to_have_value(re.compile(r"/api/feed/[\w-]{40,}\.ics$"))
        page.get_by_role("button", name="Withdraw the address").click()
        expect(page.get_by_role("button", name="Make a feed")).to_be_visible()


class YearTest(SeasonTestCase):
    def test_a_sowing_is_moved_by_the_keys_and_by_the_hand(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/year")
        row = page.get_by_role("region", name="Lantern Row", exact=True)
        knob = row.get_by_role("slider")
        expect(knob).to_have_attribute("aria-valuetext", "20 May")
        knob.focus()
        page.keyboard.press("PageDown")
        expect(knob).to_have_attribute("aria-valuetext", "27 May")
        self.saved()
        stored = Thing.objects.get(garden=self.garden, key="lantern-row")
        self.assertEqual(stored.document["plantings"][0]["planted"], "05-27")
        box = knob.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + 100, y, steps=8)
        expect(knob).not_to_have_attribute("aria-valuetext", "27 May")
        page.mouse.up()
        self.saved()
        stored.refresh_from_db()
        self.assertRegex(stored.document["plantings"][0]["planted"], r"0[67]-\d\d")

    def test_what_will_not_make_it_is_said_with_what_would(self):
        self.open(f"/gardens/{self.garden.pk}/year")
        row = self.page.get_by_role("region", name="Cove Hoops", exact=True)
        expect(row).to_contain_text("It will not make it here")
        expect(row).to_contain_text("This would:")

    def test_the_harvest_and_the_rotation_are_there(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/year")
        page.get_by_text("The harvest by week").click()
        expect(page.get_by_role("cell", name=re.compile("glut")).first).to_be_visible()
        expect(page.get_by_role("region", name="Rotation")).to_contain_text(
            "last year: not again before 2028"
        )

    def test_the_season_is_closed_and_undone(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/year")
        page.get_by_role("button", name="Close season 2026").click()
        page.get_by_role("button", name="Close season 2026").click()
        # what is not cleared keeps its dates, so the sheet begins with it
        expect(page.get_by_role("heading", name="The year 2026/27")).to_be_visible()
        self.garden.refresh_from_db()
        self.assertEqual(place_of(self.garden).year, 2027)
        page.keyboard.press("Control+z")
        expect(page.get_by_role("heading", name="The year 2026", exact=True)).to_be_visible()
        page.keyboard.press("Control+Shift+z")
        expect(page.get_by_role("heading", name="The year 2026/27")).to_be_visible()
        page.get_by_role("button", name="Undo closing season 2026").click()
        expect(page.get_by_role("heading", name="The year 2026", exact=True)).to_be_visible()

    def test_what_still_grows_is_said_before_a_season_is_closed(self):
        self.open(f"/gardens/{self.garden.pk}/year")
        self.page.get_by_role("button", name="Close season 2026").click()
        dialog = self.page.get_by_role("dialog")
        expect(dialog).to_contain_text(re.compile("Lantern Row: .*tomato grows until"))
        dialog.get_by_role("button", name="Cancel").click()
        self.garden.refresh_from_db()
        self.assertEqual(place_of(self.garden).year, 2026)


class PlaceTest(SeasonTestCase):
    def test_a_garden_where_it_never_freezes(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}")
        about = page.get_by_role("group", name="About this garden")
        about.get_by_label("It never freezes here").click()
        expect(about.get_by_label("Last frost, day")).to_have_count(0)
        self.saved()
        self.garden.refresh_from_db()
        self.assertIsNone(place_of(self.garden).last_frost)
        self.open(f"/gardens/{self.garden.pk}/year")
        expect(page.get_by_text("It never freezes here.")).to_be_visible()

    def test_days_in_the_garden(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}")
        about = page.get_by_role("group", name="About this garden")
        about.get_by_role("button", name="Su", exact=True).click()
        self.saved()
        self.garden.refresh_from_db()
        self.assertEqual(place_of(self.garden).visits, (1, 3, 5, 6))
