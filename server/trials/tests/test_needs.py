"""What is wanted on a bed: kept under a name, looked at again, compared, what growers differ over decided."""

from __future__ import annotations

import re
from typing import Any

from gardens.models import Thing
from playwright.sync_api import expect

from .browser import BrowserTestCase, pick


class NeedsTest(BrowserTestCase):
    def test_kept_opened_again_from_its_bed_and_forgotten(self):
        page = self.page
        self.open(f"/gardens/{self.garden.pk}/beds/barrel-1/new")
        pick(page, "Crop", "Pole (snap) bean")
        page.get_by_text("What matters").click()
        page.get_by_label("no holes are dug").check()
        page.get_by_role("button", name="Save this need").click()
        page.get_by_label("Called").fill("Beans by the door")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Beans by the door")).to_be_visible()
        kept = Thing.objects.get(garden=self.garden, kind=Thing.NEED, document__name="Beans by the door")
        self.assertEqual(kept.document["bed"], "barrel-1")
        self.assertTrue(kept.document["wants"]["no_digging"])
        self.plan("barrel-1")
        page.get_by_role("link", name="Beans by the door").click()
        expect(page.get_by_role("heading", name="Beans by the door")).to_be_visible()
        expect(page.get_by_label("no holes are dug")).to_be_checked()
        page.get_by_role("button", name="Delete this need").click()
        expect(page.get_by_role("heading", name="A support for Barrel 1")).to_be_visible()
        self.saved()
        self.assertFalse(Thing.objects.filter(pk=kept.pk).exists())

    def test_two_are_compared_and_what_growers_differ_over_is_decided(self):
        page = self.page
        self.expected_errors = 5  # what had no turn beside what was being looked at is asked for again
        self.open(f"/gardens/{self.garden.pk}/beds/barrel-1/new")
        looked = page.get_by_role("status", name="Progress")
        expect(looked).to_contain_text("All 15 kinds calculated", timeout=60_000)
        looked.get_by_role("button", name="Stop").click()
        # what was still on its way when it was stopped comes in first, or the rows move under the pointer
        page.wait_for_load_state("networkidle")
        for name in page.locator(".compared .kind strong").all_inner_texts()[:2]:
            row = page.get_by_role("row").filter(has=page.get_by_text(name, exact=True))
            row.get_by_label("compare").check()
        compared = page.get_by_role("region", name="Two compared")
        expect(compared.get_by_role("img", name=re.compile("drawn over one another"))).to_be_visible()
        expect(compared.get_by_role("columnheader")).to_have_count(3)
        differ = page.get_by_role("region", name="Where growers differ")
        expect(differ).to_be_visible(timeout=30_000)
        first = differ.locator("details").first
        first.locator("summary").click()
        expect(first).to_contain_text(re.compile("holds up to|too weak"))

    def test_a_bed_takes_its_needs_along_and_undo_brings_them_back(self):
        page = self.page
        self.plan("arbour-row")
        needs = Thing.objects.filter(garden=self.garden, kind=Thing.NEED)
        count = needs.count()
        page.get_by_role("button", name="Remove").click()
        self.saved()
        self.assertEqual(needs.count(), count - 1)
        page.get_by_role("button", name="undo", exact=True).click()
        self.saved()
        self.assertEqual(needs.count(), count)

    def test_a_second_crop_over_the_path_to_the_next_bed_stands_there(self):
        page = self.page
        self.expected_errors = 5  # as above
        self.open(f"/gardens/{self.garden.pk}/beds/loft-bed-1/new?on=panel-arch")
        first = page.get_by_role("group", name="Crop", exact=True)
        first.get_by_label("How many plants").fill("6")
        page.get_by_role("button", name="Add another crop").click()
        second = page.get_by_role("group", name="Crop 2")
        pick(page, "Crop 2", "Pole (snap) bean")
        second.get_by_label("How many plants 2").fill("0")
        expect(second.get_by_role("alert")).to_contain_text("‘0’ cannot be used")
        second.get_by_label("How many plants 2").fill("8")
        page.get_by_label("Also on").select_option("loft-bed-2")
        expect(page.get_by_text("Loft Bed 2, a path of 1.32 m between")).to_be_visible()
        row = page.get_by_role("row").filter(has=page.get_by_text("Panel arch", exact=True))
        expect(row).to_contain_text("over the path of 1.32 m", timeout=60_000)
        page.get_by_role("status", name="Progress").get_by_role("button", name="Stop").click()
        page.get_by_role("button", name="Change the design first").click()
        page.wait_for_url("**/structures/*")
        made = Thing.objects.filter(garden=self.garden, kind=Thing.STRUCTURE).latest("pk")
        self.assertEqual({each["count"] for each in made.document["plantings"]}, {6, 8})
        self.assertEqual((made.document["options"]["over"], made.home), ("path", "loft-bed-1"))
        self.assertAlmostEqual(abs(made.document["across"]), 1.3, delta=0.01)

    def test_what_is_taken_up_is_what_was_seen(self):
        """The order of the kinds goes on changing while somebody takes one: it is made as it is drawn."""
        page = self.page
        self.expected_errors = 20
        seen: list[dict[str, Any]] = []
        page.on(
            "response",
            lambda answer: (
                seen.append(answer.request.post_data_json)
                if answer.url.endswith("/proposal") and answer.ok
                else None
            ),
        )
        self.open(f"/gardens/{self.garden.pk}/beds/barrel-1/new")
        build = page.get_by_role("button", name="Change the design first")
        expect(build).to_be_enabled(timeout=60_000)
        page.locator(".compared .kind").nth(1).click()
        expect(build).to_be_enabled(timeout=60_000)
        with page.expect_request(re.compile(r"/beds/barrel-1/structures$")) as asked:
            build.click()
        made = asked.value.post_data_json
        self.assertIn(made["chosen"], [each["chosen"] for each in seen])
        page.wait_for_url(re.compile(r"/structures/\d+$"))
        row = Thing.objects.get(pk=int(page.url.rsplit("/", 1)[1]))
        self.assertEqual(row.document["family"], made["family"])
        self.assertEqual(row.document["options"], made["chosen"]["options"])

    def test_a_kind_that_fails_closes_no_list(self):
        page = self.page
        self.expected_errors = 20
        page.context.route(
            re.compile(r"/ways/cage$"),
            lambda route: route.fulfill(
                status=422,
                json={
                    "problems": [
                        {
                            "path": "family",
                            "given": "Cage",
                            "allowed": "Cage is left out here",
                            "suggestion": "",
                        }
                    ]
                },
            ),
        )
        self.open(f"/gardens/{self.garden.pk}/beds/barrel-1/new")
        expect(page.get_by_text("Cage is left out here").first).to_be_visible(timeout=60_000)
        looked = page.get_by_role("status", name="Progress")
        expect(looked).to_contain_text("All 15 kinds calculated", timeout=60_000)
        expect(page.get_by_role("button", name="Change the design first")).to_be_enabled(timeout=60_000)
