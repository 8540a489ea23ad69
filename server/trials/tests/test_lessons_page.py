"""What the log teaches, as it is used: looked at, used, undone, refused; a harvest from the scale."""

from __future__ import annotations

from django.test import override_settings
from gardens.models import Garden, LogEntry
from gardens.tests.test_scale import scale
from playwright.sync_api import expect

from .test_season_pages import SeasonTestCase


class LessonsPageTest(SeasonTestCase):
    logged = True

    def taught(self) -> list[str]:
        """Return what the garden counts with, as it is stored."""
        fields = Garden.objects.get(pk=self.garden.pk).document
        return [each["key"] for each in fields["taught"]]

    def test_a_lesson_is_used_said_on_the_design_and_undone(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/lessons")
        card = page.get_by_role("article", name="What storms showed")
        expect(card.get_by_text("Cove Fence: no longer holds what is asked")).to_be_visible(timeout=30_000)
        card.get_by_role("button", name="Use this").click()
        expect(card.get_by_text("It is used.")).to_be_visible(timeout=30_000)
        self.assertIn("soil", self.taught())
        self.open(self.structure("Cove Fence"))
        expect(page.get_by_text("Calculated with what the log taught.")).to_be_visible(timeout=20_000)
        self.open(f"/gardens/{self.garden.pk}/lessons")
        card.get_by_role("button", name="Stop using this").click()
        expect(card.get_by_role("button", name="Use this")).to_be_visible(timeout=30_000)
        self.assertEqual(self.taught(), [])

    def test_what_entries_change_at_once_is_refused(self):
        page = self.page
        broken = {
            "key": "b",
            "kind": "break",
            "on": "2026-08-10",
            "at": "2026-08-10T18:00:00Z",
            "structure": "lantern-row",
        }
        LogEntry.objects.create(
            garden=self.garden,
            key="b",
            kind="break",
            on="2026-08-10",
            structure="lantern-row",
            document=broken,
        )
        self.open(f"/gardens/{self.garden.pk}/week")
        expect(page.get_by_text("Do not pick here yet").first).to_be_visible(timeout=20_000)
        self.open(f"/gardens/{self.garden.pk}/lessons")
        page.get_by_role("checkbox", name="What broke asks for its repair").uncheck()
        self.saved()
        self.open(f"/gardens/{self.garden.pk}/week")
        expect(page.locator(".visit").first).to_be_visible(timeout=20_000)
        expect(page.get_by_text("Do not pick here yet")).to_have_count(0)

    def test_years_side_by_side_and_the_drawing_of_the_harvest(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/log")
        page.get_by_role("link", name="Years side by side").click()
        row = page.get_by_role("row", name="Cove Bed")
        expect(row.get_by_text("repaired: Longer posts, 20 cm deeper.")).to_be_visible()
        with page.expect_download() as kept:
            page.get_by_role("link", name="Harvest by week and crop (SVG)").click()
        self.assertIn("cherry tomato", kept.value.path().read_text(encoding="utf-8"))

    def test_a_garden_with_its_photos_goes_out_and_comes_in_as_one_file(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/files")
        with page.expect_download() as kept:
            page.get_by_role("link", name="Plan file with photos (zip)").click()
        content = kept.value.path().read_bytes()
        chooser = page.get_by_label("The file", exact=True)
        chooser.set_input_files({"name": "quay.zip", "mimeType": "application/zip", "buffer": content})
        expect(page.get_by_text("It changes nothing")).to_be_visible(timeout=20_000)
        page.get_by_role("button", name="Make a new garden from it").click()
        page.wait_for_url(lambda address: "/files" not in address)
        made = Garden.objects.exclude(pk=self.garden.pk).get()
        for _ in range(100):
            if made.photos.count() == 3:
                break
            page.wait_for_timeout(100)
        self.assertEqual(made.photos.count(), 3)
        self.assertEqual(made.entries.count(), self.garden.entries.count())


class ScalePageTest(SeasonTestCase):
    size = (390, 844)

    def test_a_harvest_comes_straight_from_the_scale_and_a_fault_says_so(self):
        page = self.page
        with scale(pull=24.5) as standing, override_settings(SCALE=standing.address):
            self.open(f"/gardens/{self.garden.pk}/log")
            page.get_by_role("button", name="Weigh a harvest").click()
            form = page.get_by_role("form", name="Weigh a harvest")
            form.get_by_label("Place").click()
            page.get_by_role("option", name="Lantern Row").click()
            form.get_by_role("button", name="Read the scale").click()
            expect(form.get_by_label("Weight")).to_have_value("2.5 kg", timeout=20_000)
            form.get_by_role("button", name="Save").click()
            self.saved()
        entry = LogEntry.objects.get(garden=self.garden)
        self.assertEqual(entry.structure, "lantern-row")
        self.assertAlmostEqual(entry.document["mass"], 2.5, delta=0.05)
        with scale("overload") as standing, override_settings(SCALE=standing.address):
            self.expected_errors = 1
            page.get_by_role("button", name="Weigh a harvest").click()
            page.get_by_role("button", name="Read the scale").click()
            expect(page.get_by_text("overloaded")).to_be_visible(timeout=20_000)

    def test_a_part_is_named_in_the_form(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/log?about=lantern-row")
        page.get_by_role("button", name="Record a lean").click()
        form = page.get_by_role("form", name="Record a lean")
        form.get_by_label("Part").fill("post 3")
        form.get_by_label("How far").fill("4 cm")
        form.get_by_label("How far").press("Enter")
        self.saved()
        expect(page.get_by_text("Post 3 leans 4.0 cm")).to_be_visible()
