"""The first hour of five gardeners, from signing up to a printed sheet: few actions, and a sheet one would
build from.
"""

from __future__ import annotations

import re

from ascent.plan.structure import Structure
from ascent.report.readout import Report
from ascent.report.report import full_report
from gardens.models import Thing
from gardens.services import structures

from ..journeys import JOURNEYS, Gardener
from .browser import BrowserTestCase

MOST_ACTIONS = 25


class FirstHourTest(BrowserTestCase):
    def walk(self, name: str) -> tuple[Gardener, Thing]:
        """Walk one journey; return who walked it, and what came of it."""
        self.expected_errors = 40  # what had no turn beside what was being calculated is asked for again
        context = self.new_context()
        self.addCleanup(context.close)
        hand = Gardener(self.new_page(context), self.live_server_url)
        JOURNEYS[name](hand)
        self.assertLessEqual(hand.actions, MOST_ACTIONS, name)
        found = re.search(r"/structures/(\d+)/build", hand.page.url)
        assert found
        made = Thing.objects.get(pk=int(found.group(1)))
        href = hand.page.get_by_role("link", name="Print the build sheet").get_attribute("href")
        answer = hand.page.request.get(f"{self.live_server_url}{href}")
        self.assertTrue(answer.ok)
        self.assertTrue(answer.body().startswith(b"%PDF"))
        report = self.report(made)
        self.assertEqual([r.text for r in report.remarks if r.level == "wrong"], [])
        self.assertNotEqual(report.headline.state, "inadequate")
        return hand, made

    def report(self, made: Thing) -> Report:
        """Return what the bench says of it."""
        site = structures.site_of(made)
        return full_report(site, Structure.model_validate(made.document), site.garden.units)

    def test_a_beginner_with_a_raised_bed_and_sixty_to_spend(self):
        _, made = self.walk("beginner")
        report = self.report(made)
        self.assertLessEqual(report.cost, 60.0)

    def test_two_pots_on_a_balcony(self):
        _, made = self.walk("balcony")
        self.assertEqual(made.document["family"], "existing", "by itself a pot tips over in that wind")

    def test_an_allotment_on_a_hill_with_what_is_there(self):
        self.walk("allotment")
        shed = Thing.objects.filter(kind=Thing.STOCK, garden__owner__username="rook")
        self.assertEqual({each.document["table"] for each in shed}, {"posts", "twines"})

    def test_an_arch_to_walk_under(self):
        _, made = self.walk("arch")
        self.assertEqual(made.document["family"], "panel-arch")
        self.assertEqual(made.document["options"]["over"], "path")
        pipe = Thing.objects.get(kind=Thing.FEATURE, garden=made.garden).document
        self.assertEqual(pipe["points"][0][1], pipe["points"][1][1])
        self.assertGreaterEqual(made.document["options"]["headroom"], 1.87)

    def test_a_grower_with_two_rows(self):
        self.walk("grower")
        rows = Thing.objects.filter(kind=Thing.STRUCTURE, garden__owner__username="heron")
        self.assertEqual(rows.count(), 2)
