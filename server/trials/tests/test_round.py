"""The 3D view of a support, and what moves it, in its design."""

from __future__ import annotations

import re

from gardens.models import Thing
from playwright.sync_api import expect

from .browser import BrowserTestCase


class RoundTest(BrowserTestCase):
    def canvas(self):
        return self.page.get_by_role("img", name=re.compile("^3D view"))

    def drawn(self) -> bytes:
        self.page.wait_for_timeout(150)  # a frame of the software renderer
        return self.canvas().screenshot()

    def test_it_is_turned_by_keys_and_hand_lit_by_an_hour_and_told_in_words(self):
        page = self.page
        self.open(self.structure())
        page.get_by_role("button", name="3D view").click()
        canvas = self.canvas()
        expect(canvas).to_have_attribute(
            "aria-label", re.compile("Plants of Tomato, indeterminate, slicer.*arrow keys")
        )
        expect(page.get_by_text("The figure stands 1.70 m tall.")).to_be_visible()
        first = self.drawn()
        canvas.focus()
        page.keyboard.press("ArrowLeft")
        turned = self.drawn()
        self.assertNotEqual(first, turned)
        page.keyboard.press("ArrowRight")
        page.keyboard.press("+")
        self.assertNotEqual(self.drawn(), turned)
        box = canvas.bounding_box()
        assert box
        before = self.drawn()
        page.mouse.move(box["x"] + 200, box["y"] + 120)
        page.mouse.down()
        page.mouse.move(box["x"] + 300, box["y"] + 140, steps=4)
        page.mouse.up()
        self.assertNotEqual(self.drawn(), before)
        page.get_by_role("button", name="with its shadow").click()
        expect(page).to_have_url(re.compile("hour=12"))
        page.get_by_label("Hour of the sun").fill("9")
        expect(page.get_by_text("9 o’clock")).to_be_visible()
        page.get_by_role("button", name="2D drawing", exact=True).click()
        expect(
            page.get_by_role("img", name="The support from the side, from the end and from above")
        ).to_be_visible()


class MovesTest(BrowserTestCase):
    def test_a_curve_is_opened_and_a_value_of_it_taken(self):
        page = self.page
        self.open(self.structure())
        page.get_by_role("button", name="Effect of Post spacing on strength and cost").click()
        curve = page.get_by_role("group", name="Effect of Post spacing on strength and cost")
        expect(curve).to_contain_text("Now 1.22 m: holds 22 m/s.")
        spots = curve.locator("rect")
        expect(spots.first).to_be_attached()
        with page.expect_response(lambda answer: answer.request.method == "PUT"):
            spots.first.click(force=True)
        self.assertEqual(
            Thing.objects.get(garden=self.garden, document__name="Lantern Row").document["options"][
                "post_spacing"
            ],
            0.3,
        )
        expect(curve).to_contain_text("Now 0.30 m")

    def test_a_list_of_things_is_compared_and_one_taken(self):
        page = self.page
        self.open(self.structure())
        page.get_by_role("button", name="Effect of Post on strength and cost").click()
        listed = page.get_by_role("group", name="Effect of Post on strength and cost")
        expect(listed.get_by_role("button", name="steel T-post 2.1 m", exact=True)).to_have_attribute(
            "aria-pressed", "true"
        )
        with page.expect_response(lambda answer: answer.request.method == "PUT"):
            listed.get_by_role("button", name="steel T-post 2.4 m", exact=True).click()
        self.assertEqual(
            Thing.objects.get(garden=self.garden, document__name="Lantern Row").document["options"]["post"],
            "tpost_2.4",
        )
