"""Every screen in both themes and at phone width: nothing for axe to find, nothing wider than the window."""

from __future__ import annotations

import json
from collections.abc import Callable

from django.conf import settings
from gardens.models import Garden, Thing
from playwright.sync_api import expect

from .browser import BrowserTestCase

AXE = settings.ROOT / "client" / "node_modules" / "axe-core" / "axe.min.js"
LONG = "Extraordinarilylongnamedfencebythefarthestquay" * 2


class ScreensTest(BrowserTestCase):
    logged = True

    def screens(self) -> dict[str, str]:
        structure, garden = self.structure(), f"/gardens/{self.garden.pk}"
        return {
            "Conflicts": garden,
            "Plan a support": f"{garden}?on=loft-bed-2",
            "Open design": f"{garden}?on=cove-fence",
            "Have buried services marked": f"{garden}?on=water-pipe",
            "A support for Chandler’s": f"{garden}/beds/chandlers/new",
            "Shopping list": f"{garden}/parts",
            "by structure": f"{garden}/parts?by=structure",
            "The arch is closed": f"{garden}/log",
            "What storms showed": f"{garden}/lessons",
            "repaired: Longer posts": f"{garden}/years",
            "Parts that wear": f"{self.structure('Twine Beam')}/life",
            "Nothing has been changed yet": f"{garden}/history",
            "As it began": f"{garden}/history?at=0",
            "Choose a file": f"{garden}/files",
            "A link to look at it": f"{garden}/people",
            "Delete this account": "/account",
            "How Ascent calculates": "/method",
            "Lantern Row": structure,
            "Soil grip": f"{structure}?link=soil",
            "headroom over a path": self.structure("Lantern Arch"),
            "The figure stands": f"{structure}?view=round&hour=10",
            "Parts for Lantern Row": f"{structure}/parts",
            "Build Lantern Row": f"{structure}/build?part=before",
            "Joined": f"{self.structure('Runner Row')}/build?part=steps",
            "where the two tapes meet": f"{structure}/build?part=stake",
            "Pull a post": f"{structure}/build?part=pulls",
            "This page does not exist": "/nowhere/at/all",
        }

    def visit(self, path: str, words: str, go: Callable[[str], None] | None = None) -> None:
        (go or self.open)(path)
        expect(self.page.get_by_text(words).first).to_be_visible()
        expect(self.page.get_by_text("Loading…")).to_have_count(0)
        expect(self.page.get_by_text("Calculating…")).to_have_count(0)

    def test_axe_finds_nothing_in_either_theme_and_nothing_is_wider_than_its_window(self):
        """Opened on a phone, then as wide as a desk's, then at twice the size; colours are all that a theme
        changes.
        """
        self.open("/account")
        self.page.evaluate(AXE.read_text(encoding="utf-8"))
        for words, path in self.screens().items():
            self.page.set_viewport_size({"width": 390, "height": 844})
            self.page.emulate_media(color_scheme="light")
            self.visit(path, words, self.walk)
            with self.subTest(path, width=390):
                self.assertLessEqual(self.overflow(), 0)
            self.page.set_viewport_size({"width": 1280, "height": 800})
            for theme, rules in (("light", {}), ("dark", {"runOnly": ["color-contrast"]})):
                self.page.emulate_media(color_scheme=theme)
                with self.subTest(path, theme=theme):
                    found = self.page.evaluate(
                        "async (rules) => (await axe.run(rules)).violations"
                        ".map(v => [v.id, v.nodes.map(n => n.target.join(' '))])",
                        rules,
                    )
                    self.assertEqual(found, [], json.dumps(found, indent=1)[:2000])
            self.page.set_viewport_size({"width": 640, "height": 400})
            with self.subTest(path, width=640):  # also when it becomes so while it is looked at
                self.page.wait_for_timeout(100)
                self.assertLessEqual(self.overflow(), 0)

    def test_signing_in_too(self):
        self.context.clear_cookies()
        for width in (1280, 390):
            self.page.set_viewport_size({"width": width, "height": 844})
            self.expected_errors += 2  # what a visitor may not see
            self.visit("/", "stand up in a storm")
            self.page.evaluate(AXE.read_text(encoding="utf-8"))
            self.assertEqual(
                self.page.evaluate("async () => (await axe.run()).violations.map(v => v.id)"), []
            )
            self.assertLessEqual(self.overflow(), 0)

    def test_on_a_phone_the_answer_stands_before_its_sentence_and_no_measure_leaves_the_sheet(self):
        self.page.set_viewport_size({"width": 390, "height": 844})
        for name in ("Lantern Row", "Runner Row", "Cove Hoops"):
            with self.subTest(name):
                self.visit(self.structure(name), "Holds gusts up to")
                answer = self.page.get_by_label("What it holds").locator("p")
                verdict, sentence = (answer.nth(n).bounding_box() for n in (0, 1))
                assert verdict and sentence
                self.assertLess(verdict["y"], sentence["y"])
                for box in filter(
                    None, (measure.bounding_box() for measure in self.page.locator(".measure").all())
                ):
                    self.assertGreaterEqual(box["x"], 0)
                    self.assertLessEqual(box["x"] + box["width"], 390)

    def test_a_very_long_name_breaks_nothing(self):
        row = Thing.objects.get(garden=self.garden, document__name="Lantern Row")
        for thing in (row, *Thing.objects.filter(garden=self.garden, key__in=("long-plot-a", "quay-walk"))):
            thing.document["name"] = LONG
            thing.save()
        garden = f"/gardens/{self.garden.pk}"
        plans = [
            garden,
            f"{garden}?on=lantern-row",
            f"{garden}?on=long-plot-a",
            f"{garden}?on=quay-walk",
            f"{garden}/parts?by=structure",
        ]
        self.open("/account")
        for path in (*plans, f"/structures/{row.pk}", f"/structures/{row.pk}/parts"):
            self.page.set_viewport_size({"width": 390, "height": 844})
            self.visit(path, LONG, self.walk)
            for width in (390, 1280):
                with self.subTest(path, width=width):
                    self.page.set_viewport_size({"width": width, "height": 844})
                    self.page.wait_for_timeout(100)
                    self.assertLessEqual(self.overflow(), 0)

    def test_an_empty_garden_says_what_to_do_next(self):
        Thing.objects.filter(garden=self.garden).delete()
        self.visit(f"/gardens/{self.garden.pk}", "Three short steps")
        expect(self.page.get_by_role("button", name="Plan its first support")).to_be_visible()
        self.visit(f"/gardens/{self.garden.pk}/parts", "There is no support in this garden yet")

    def test_the_theme_is_switched_and_remembered(self):
        self.visit(f"/gardens/{self.garden.pk}", "Lantern Quay")
        paper = "getComputedStyle(document.body).backgroundColor"
        light = self.page.evaluate(paper)
        self.page.get_by_role("button", name="Dark theme").click()
        self.assertNotEqual(self.page.evaluate(paper), light)
        self.page.reload()
        expect(self.page.get_by_role("button", name="Light theme")).to_be_visible()

    def test_the_parts_print_without_what_is_only_for_the_screen(self):
        self.visit(f"{self.structure()}/parts", "Parts for Lantern Row")
        self.page.emulate_media(media="print")
        expect(self.page.get_by_role("button", name="Print")).not_to_be_visible()
        expect(self.page.get_by_role("row", name="Together")).to_be_visible()


class WholeTest(BrowserTestCase):
    def test_no_drawing_is_cut_off_on_the_parts_page(self):
        for name in ("Corn Block", "Lantern Arch", "Lantern Row"):
            self.open(f"{self.structure(name)}/parts")
            sheet = self.page.locator(".partssheet .sheet")
            expect(sheet.locator("svg")).to_be_visible()
            self.assertEqual(*sheet.evaluate("sheet => [sheet.scrollHeight, sheet.clientHeight]"), name)

    def test_what_to_watch_is_seen_once_and_covers_nothing(self):
        """On a sheet beside the view from above or at its foot, on a phone under the answer."""
        boxes = (
            "(all) => all.map((each) => each.getBoundingClientRect())"
            ".map((box) => [box.left, box.top, box.right, box.bottom])"
        )
        for name in ("Lantern Arch", "Chandler’s Wire", "Cove Fence"):
            self.open("/account")
            for width, height in ((1280, 800), (1700, 1000), (1000, 640), (390, 844)):
                self.page.set_viewport_size({"width": width, "height": height})
                self.walk(self.structure(name))
                expect(self.page.get_by_text("Holds gusts up to").first).to_be_visible()
                with self.subTest(name, width=width):
                    notes = self.page.get_by_role("region", name="To watch").locator("visible=true")
                    expect(notes).to_have_count(1)
                    lines = notes.locator("li").evaluate_all(boxes)
                    self.assertTrue(lines)
                    for left, top, right, bottom in lines:
                        self.assertTrue(left >= 0 and right <= width)
                        for x0, y0, x1, y1 in self.page.locator(".measure").evaluate_all(boxes):
                            self.assertFalse(left < x1 and x0 < right and top < y1 and y0 < bottom)
                    self.assertEqual(self.overflow(), 0)

    def test_units_picked_in_the_bar_a_moment_before_the_first_garden_is_made_stay(self):
        self.open("/account")
        self.page.get_by_role("button", name="New garden").click()
        expect(self.page.get_by_label("Length", exact=True)).to_have_value("3.60 m")
        self.page.get_by_role("button", name="Switch to feet and inches").click()
        expect(self.page.get_by_label("Length", exact=True)).to_have_value("12 ft")
        self.page.get_by_role("button", name="Add the bed only").click()
        expect(self.page.get_by_role("region", name="First bed")).to_be_visible()
        self.saved()
        self.assertEqual(Garden.objects.latest("pk").document["units"], "imperial")

    def test_readers_of_feet_pick_from_names_in_feet(self):
        self.garden.document["units"] = "imperial"
        self.garden.save()
        self.open(self.structure())
        self.page.get_by_role("combobox", name="Post", exact=True).fill("steel T-post")
        expect(self.page.get_by_role("option", name="steel T-post 7 ft")).not_to_have_count(0)
        expect(self.page.get_by_role("option", name="2.1 m")).to_have_count(0)
