"""The shed: something put in, built with, left off the list, and back, older, when a structure comes down."""

from __future__ import annotations

import re
from unittest import mock

from gardens.models import Thing
from playwright.sync_api import expect

from .browser import BrowserTestCase, pick


class ShedTest(BrowserTestCase):
    def shed(self) -> None:
        self.open(f"/gardens/{self.garden.pk}/shed")
        expect(self.page.get_by_role("heading", name="Shed")).to_be_visible()

    def test_put_in_changed_and_thrown_out(self):
        page = self.page
        self.shed()
        page.get_by_role("button", name="Add by form").click()
        form = page.get_by_role("form", name="Something new for the shed")
        pick(page, "Most like", "water pipe 27 mm")
        form.get_by_label("Called").fill("Pipe of the pump")
        form.get_by_label("How many").fill("3")
        form.get_by_label("Length of each").fill("210 cm")
        page.keyboard.press("Tab")
        form.get_by_label("Seasons old").fill("2")
        form.get_by_role("button", name="Add to the shed").click()
        row = page.get_by_role("row", name=re.compile("Pipe of the pump"))
        expect(row).to_contain_text("6 seasons left")
        expect(row).to_contain_text("2.10 m long")
        page.get_by_role("button", name="Pipe of the pump").click()
        form = page.get_by_role("form", name="Pipe of the pump")
        form.get_by_label("In use for").fill("the water butt")
        form.get_by_role("button", name="Keep").click()
        expect(row.first).to_contain_text("in use: the water butt")
        stored = Thing.objects.get(garden=self.garden, document__name="Pipe of the pump").document
        self.assertEqual((stored["count"], stored["length"], stored["age"]), (3, 2.1, 2))
        page.get_by_role("button", name="Pipe of the pump").click()
        page.get_by_role("button", name="Delete it from the shed").click()
        expect(row).to_have_count(0)

    def test_what_cannot_be_is_refused_with_its_name(self):
        page = self.page
        self.shed()
        page.get_by_role("button", name="Add by form").click()
        form = page.get_by_role("form", name="Something new for the shed")
        pick(page, "Most like", "steel T-post 1.8 m")
        page.get_by_text("A shape and strength of its own").click()
        form.get_by_label("Width").fill("20 mm")
        page.keyboard.press("Tab")
        form.get_by_role("button", name="Add to the shed").click()
        self.expected_errors = 1  # the console tells of an answer of 422
        expect(form.get_by_role("alert")).to_contain_text(
            "measures that a row like steel T-post 1.8 m can have"
        )

    def test_built_with_left_off_the_list_and_back_when_it_comes_down(self):
        page = self.page
        self.open(self.structure("Lantern Row"))
        shed = page.get_by_role("region", name="From the shed")
        expect(shed).to_contain_text("No parts from the shed are used.")
        shed.get_by_role("button", name="Use parts from the shed").click()
        expect(shed).to_contain_text("Livestock panel, one end cut")
        self.saved()
        self.open(f"{self.structure('Lantern Row')}/parts")
        own = page.get_by_role("row", name=re.compile("Livestock panel, one end cut"))
        expect(own).to_contain_text("from the shed")
        expect(own).to_contain_text("0.00")
        self.shed()
        expect(page.get_by_role("row", name=re.compile("Livestock panel, one end cut"))).to_contain_text(
            "Lantern Row"
        )
        self.open(self.structure("Lantern Row"))
        page.get_by_role("button", name="Take down this support").click()
        page.get_by_label("Seasons in use").fill("2")
        page.get_by_role("button", name="Take down: parts go to the shed").click()
        expect(page.get_by_role("heading", name="Lantern Quay")).to_be_visible()
        self.saved()
        self.shed()
        expect(
            page.get_by_role("row", name=re.compile("steel T-post 2.1 m, of Lantern Row"))
        ).to_contain_text("6")
        self.assertFalse(Thing.objects.filter(garden=self.garden, document__name="Lantern Row").exists())
        self.plan()
        page.get_by_role("button", name="undo").click()
        expect(page.get_by_role("link", name=re.compile("Lantern Row"))).to_be_visible()

    @mock.patch("gardens.api.structures.until_enough", lambda: lambda: False)  # however slow this machine is
    def test_use_what_i_have_is_an_aim_and_an_option_can_be_locked(self):
        page = self.page
        self.open(self.structure("Lantern Row"))
        page.get_by_text("Size the whole support").click()
        sizing = page.get_by_role("region", name="Size the whole support")
        sizing.get_by_label("For", exact=True).select_option("own")
        lock = sizing.get_by_label("Keep as it is")
        lock.fill("Post")
        page.get_by_role("option", name="Post", exact=True).click()
        sizing.get_by_role("button", name="Find a design").click()
        found = sizing.locator(".fix")
        expect(found).to_be_visible(timeout=30_000)
        expect(found).to_contain_text("That is enough")
        self.assertNotRegex(found.inner_text(), r"(?m)^Post: ")
        found.click()
        self.saved()
        stored = Thing.objects.get(garden=self.garden, document__name="Lantern Row").document
        self.assertEqual(stored["options"]["post"], "tpost_2.1")
        self.assertTrue(stored["taken"])

    def test_the_cut_list_is_drawn_and_the_list_goes_by_shelf(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/parts")
        cuts = page.get_by_role("region", name="Cut list")
        expect(cuts.locator("svg").first).to_be_visible()
        expect(cuts).to_contain_text("nothing does with less")
        for shelf in ("From the shed", "Timber", "Canes and poles", "Twine and string"):
            expect(page.get_by_role("rowheader", name=shelf, exact=True)).to_be_visible()


class MoneyTest(BrowserTestCase):
    def test_it_is_asked_once(self):
        page = self.page
        place = self.garden
        place.document = {**place.document, "currency": "¤"}
        place.save()
        self.open(f"/gardens/{self.garden.pk}/parts")
        page.get_by_label("Currency").fill("kr")
        page.keyboard.press("Enter")
        expect(page.get_by_role("columnheader", name="Cost, kr")).to_be_visible()
        expect(page.get_by_label("Currency")).to_have_count(0)
