"""Fixes help, hold where they say so, and come cheapest first."""

from __future__ import annotations

import numpy as np
from ascent.families import FAMILIES
from ascent.family import Need
from ascent.fixes import fixes_for, sized
from ascent.model import Structure
from ascent.report import evaluate

from tests.support import NearTestCase, fence, site


class FixesTest(NearTestCase):
    def setUp(self):
        self.before = evaluate(site(), fence(post_spacing=2.4, length=7.2, count=14))
        self.fixes = fixes_for(self.before, self.before.weakest(self.before.worst_week))

    def test_every_fix_raises_its_link_and_says_what_comes_out(self):
        key = self.before.weakest(self.before.worst_week)
        self.assertTrue(self.fixes)
        for fix in self.fixes:
            with self.subTest(fix.option):
                after = evaluate(
                    site(), self.before.structure.model_copy(update={"options": {**self.before.structure.options, fix.option: fix.value}})
                )
                self.assertGreater(fix.link_limit, float(np.min(self.before.limits[key][0])))
                self.assertNear(fix.limit, float(np.min(after.limit[0])), 1e-6)

    def test_those_that_hold_come_first_and_the_cheapest_of_them_leads(self):
        wanted = self.before.site.design_gust
        order = [(fix.link_limit < wanted, not fix.holds, fix.cost) for fix in self.fixes]
        self.assertEqual(order, sorted(order))

    def test_closer_posts_are_the_cure_for_a_wide_bay(self):
        """14.2 and 12: the usual cure for the sway of a 2.4 m bay is a middle post (common practice, no source)."""
        self.assertIn("post_spacing", {fix.option for fix in self.fixes})

    def test_an_unknown_link_has_no_fixes(self):
        self.assertEqual(fixes_for(self.before, "nothing"), ())


class SizedTest(NearTestCase):
    def test_a_proposal_is_made_to_hold_where_it_can(self):
        """In every soil that can hold a post, at ordinary exposure, what is proposed for a pruned slicer holds."""
        for soil in ("stiff_clay", "firm_clay", "firm_loam", "gravelly"):
            with self.subTest(soil):
                family = FAMILIES["mesh-fence"]
                offered = family.propose(Need("tom-slicer", None, "right", "pruned"), site(soil))
                start = Structure(key="x", name="x", family=family.key, options=offered.options.model_dump(), plantings=offered.plantings)
                structure, _ = sized(site(soil), start)
                self.assertNotEqual(evaluate(site(soil), structure).state, "short")

    def test_what_already_holds_is_left_alone(self):
        structure, changed = sized(site(exposure="sheltered"), fence(depth=0.6))
        self.assertEqual((structure, changed), (fence(depth=0.6), {}))
