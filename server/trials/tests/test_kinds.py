"""Every kind of support in its design: drawn, answered, in the 3D view and on a phone, in feet and inches."""

from __future__ import annotations

import re

from ascent.families import FAMILIES
from gardens.models import Thing
from playwright.sync_api import expect
from tests.support import share

from .browser import BrowserTestCase


class KindsTest(BrowserTestCase):
    def ones(self) -> dict[str, Thing]:
        """Return one structure of the demo of each kind."""
        rows = Thing.objects.filter(garden=self.garden, kind=Thing.STRUCTURE).order_by("-pk")
        return {row.document["family"]: row for row in rows}

    def test_each_is_drawn_answers_is_looked_at_in_the_round_and_fits_a_phone_and_some_are_changed(self):
        page, ones = self.page, self.ones()
        self.assertEqual(set(ones), set(FAMILIES))
        self.open(f"/gardens/{self.garden.pk}")
        page.get_by_role("button", name="Switch to feet and inches").click()
        expect(page.get_by_role("button", name="Switch to metres")).to_be_visible()
        for number, (family, row) in enumerate(share(ones.items(), 3)):
            with self.subTest(family):
                page.set_viewport_size({"width": 1280, "height": 800})
                self.walk(f"/structures/{row.pk}")
                if number % 3 == 0:
                    self.changed_and_back(row)
                self.answers()
                page.set_viewport_size({"width": 390, "height": 844})
                expect(page.get_by_text(re.compile(r"\bmph\b")).first).to_be_visible()
                self.assertLessEqual(self.overflow(), 0)
                self.in_the_round(row, dark=number % 2 == 1)

    def in_the_round(self, row: Thing, dark: bool) -> None:
        """Look at it in the 3D view, in either theme."""
        page = self.page
        page.emulate_media(color_scheme="dark" if dark else "light")
        page.get_by_role("button", name="3D view").click()
        canvas = page.get_by_role("img", name=re.compile("^3D view"))
        expect(canvas).to_have_attribute("aria-label", re.compile(re.escape(row.document["name"])))
        page.wait_for_timeout(200)  # a frame of the software renderer
        self.assertLessEqual(self.overflow(), 0)
        self.assertGreater(len(canvas.screenshot()), 4000, "something is drawn")

    def changed_and_back(self, row: Thing) -> None:
        """Plant one more, see it saved, take it back."""
        page = self.page
        field = page.get_by_label("Plants", exact=True).last
        expect(field).not_to_have_value("")
        count = field.input_value()
        field.fill(str(int(count) + 1))
        with page.expect_response(lambda answer: answer.request.method == "PUT") as put:
            page.keyboard.press("Enter")
        self.assertEqual(put.value.status, 200)
        expect(field).to_have_value(str(int(count) + 1))
        row.refresh_from_db()
        self.assertEqual(row.document["plantings"][0]["count"], int(count) + 1)
        with page.expect_response(lambda answer: answer.request.method == "PUT"):
            page.get_by_role("button", name="undo").click()
        expect(field).to_have_value(count)
        was = row.document
        row.refresh_from_db()
        self.assertNotEqual(row.document, was)
        self.assertEqual(row.document["plantings"][0]["count"], int(count))

    def answers(self) -> None:
        """Look at the views, open the weakest link, blow at it."""
        page = self.page
        path = page.get_by_role("complementary", name="Load path")
        weakest = path.get_by_role("button", name=re.compile("fails first"))
        expect(weakest).to_have_count(1)
        for view in ("from the side", "from the end", "from above"):
            expect(page.get_by_text(view, exact=True)).to_be_visible()
        weakest.click()
        panel = page.get_by_role("region", name=re.compile("^Link: "))
        expect(panel.get_by_role("heading", name="Calculation")).to_be_visible()
        expect(panel.get_by_text(re.compile("Expected to fail .*season"))).to_be_visible()
        expect(panel.get_by_text(re.compile("Typical strength")).first).to_be_visible()
        expect(panel.get_by_role("heading", level=3).first).to_contain_text("use")
        for wind in ("no wind", "design gust"):
            page.get_by_role("button", name=wind, exact=True).click()
        expect(page.get_by_role("button", name="design gust", exact=True)).to_have_attribute(
            "aria-pressed", "true"
        )
        self.assertLessEqual(self.overflow(), 0)
