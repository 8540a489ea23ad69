"""The log as it is used: a line by thumb, with and without a line to the server, by kind, from anywhere."""

from __future__ import annotations

from gardens.models import LogEntry
from playwright.sync_api import expect

from .test_season_pages import SeasonTestCase


class LogPageTest(SeasonTestCase):
    size = (390, 844)

    def written(self) -> list[tuple[str, str]]:
        """Return what is stored of the log, the oldest first: kinds and places."""
        rows = LogEntry.objects.filter(garden=self.garden).order_by("pk")
        return list(rows.values_list("kind", "structure"))

    def test_a_line_is_told_back_saved_corrected_and_removed(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/log")
        line = page.get_by_label("What happened")
        line.fill("2.4 kg tomatoes from Lantern Row")
        expect(page.get_by_text("Harvest: 2.4 kg picked: slicing tomato. Lantern Row")).to_be_visible()
        line.press("Enter")
        row = page.get_by_role("listitem").filter(has_text="2.4 kg picked")
        expect(row.get_by_role("link", name="Lantern Row")).to_be_visible()
        row.get_by_role("button", name="Correct").click()
        row.get_by_label("Weight").fill("2.6 kg")
        row.get_by_label("Weight").press("Enter")
        row = page.get_by_role("listitem").filter(has_text="2.6 kg picked")
        row.get_by_role("button", name="Correct").click()
        row.get_by_role("button", name="Remove this entry").click()
        expect(page.get_by_text("Nothing has been written yet.")).to_be_visible()
        self.assertEqual(self.written(), [])

    def test_a_line_that_cannot_be_says_what_is_allowed(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/log")
        self.expected_errors = 1  # the refusal
        page.get_by_label("What happened").fill("post 3 leans 4 cm")
        expect(page.get_by_role("alert")).to_contain_text("The name of its support")

    def test_without_a_line_to_the_server_it_waits_and_gets_there_once_and_in_order(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/log")
        expect(page.get_by_label("What happened")).to_be_visible()
        self.saved()
        page.context.set_offline(True)
        self.expected_errors = 100
        for said in ("2 kg tomatoes from Lantern Row", "post 3 of Lantern Row leans 4 cm", "frost -1"):
            page.get_by_label("What happened").fill(said)
            page.get_by_label("What happened").press("Enter")
            expect(page.get_by_label("waiting to be sent")).to_contain_text(said)
        self.assertEqual(self.written(), [])
        page.context.set_offline(False)
        self.saved()
        self.assertEqual(self.written(), [("harvest", "lantern-row"), ("lean", "lantern-row"), ("frost", "")])

    def test_a_kind_asks_for_its_fields_by_large_targets(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/log?about=lantern-row")
        button = page.get_by_role("button", name="Record a treatment")
        box = button.bounding_box()
        self.assertGreaterEqual(min(box["width"], box["height"]), 44)
        button.click()
        form = page.get_by_role("form", name="Record a treatment")
        form.get_by_role("button", name="Save").click()
        expect(form.get_by_role("alert")).to_contain_text("Still missing: ")
        form.get_by_label("Name").fill("soap")
        form.get_by_label("Days until picking").fill("3")
        form.get_by_label("Note").fill("in the evening")
        form.get_by_role("button", name="Save").click()
        expect(page.get_by_text("All crops treated: soap; 3 days until picking")).to_be_visible()
        self.assertEqual(self.written(), [("treatment", "lantern-row")])

    def test_what_broke_is_repaired_from_the_week(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/week")
        page.get_by_label("What happened").fill("post 3 of Lantern Row broke")
        page.get_by_label("What happened").press("Enter")
        rows = page.locator(".visit", has=page.get_by_role("link", name="Lantern Row"))
        expect(rows.get_by_text("Do not pick here yet: repair post 3 first.").first).to_be_visible()
        rows.get_by_role("checkbox", name="Repair post 3").first.check()
        self.saved()
        expect(page.get_by_text("Do not pick here yet")).to_have_count(0)


class AnywhereTest(SeasonTestCase):
    def test_by_typing_and_from_a_part_on_the_drawing(self):
        page = self.page
        self.open(self.structure())
        expect(page.get_by_label("What it holds")).to_contain_text("Holds gusts up to", timeout=20_000)
        page.keyboard.press("Control+k")
        page.get_by_role("combobox", name="A bed, a support").fill("1.5 kg tomatoes")
        page.get_by_role("option", name="Log: 1.5 kg tomatoes").click()
        self.saved()
        entry = LogEntry.objects.get(garden=self.garden)
        self.assertEqual((entry.kind, entry.structure), ("harvest", "lantern-row"))
        page.get_by_role("link", name="Life of this support").click()
        expect(page.get_by_role("heading", level=1)).to_have_text("The life of Lantern Row")
        expect(page.get_by_text("1.5 kg picked so far")).to_be_visible()
        expect(page.get_by_role("img", name="Harvest by week")).to_be_visible()
