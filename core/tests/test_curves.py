"""What moves it: every point of a curve is what the whole evaluation says of that value by itself."""

from __future__ import annotations

import numpy as np
from ascent.analysis.design import design_of
from ascent.buying.lists import shopping, total
from ascent.errors import InvalidPlan
from ascent.families import FAMILIES
from ascent.family.options import extra_of
from ascent.family.protocol import Need
from ascent.plan.structure import Structure
from ascent.report.sensitivity import curve_report
from ascent.sizing.curves import curve

from tests.support import NearTestCase, fence, share, site


class CurveTest(NearTestCase):
    def test_each_point_is_the_structure_with_that_value(self):
        row = fence()
        for option in ("depth", "post_spacing", "ties_per_post", "post", "leaned_on", "ends"):
            found = curve(site(), row, option)
            for n in (0, len(found.values) // 2, -1):
                one = design_of(
                    site(), row.model_copy(update={"options": {**row.options, option: found.values[n]}})
                )
                with self.subTest(option, value=found.values[n]):
                    self.assertNear(found.limits[n], one.moist_limit(), 1e-9)
                    self.assertNear(found.costs[n], total(shopping(one.geometry, {})), 1e-9)
                    self.assertNear(
                        float(np.min(one.moist_limits()[found.first[n]])), one.moist_limit(), 1e-9
                    )

    def test_a_measure_is_tried_fifteen_times_over_all_it_may_be(self):
        """The depth of a fence's posts goes from 0.15 to 1.20 m, so every 75 mm; the present one stands in
        for what lies within a quarter of that of it, no more.
        """
        evenly = [round(0.15 + 0.075 * n, 4) for n in range(15)]
        for depth, instead in ((0.60, 0.60), (0.615, 0.60), (0.62, None)):
            found = list(curve(site(), fence(depth=depth), "depth").values)
            wanted = sorted({*(value for value in evenly if value != instead), depth})
            with self.subTest(depth=depth):
                np.testing.assert_allclose(found, wanted, atol=1e-9)

    def test_a_count_is_tried_one_by_one_where_there_are_few(self):
        """Two to twelve ties on a post."""
        self.assertEqual(list(curve(site(), fence(), "ties_per_post").values), list(range(2, 13)))

    def test_the_present_value_is_one_of_them(self):
        for family in share(FAMILIES.values(), 3, 2):
            proposed = family.propose(Need("bean-pole", None, "both", "pruned"), site())
            structure = Structure(
                key="x",
                name="x",
                family=family.key,
                options=proposed.options.model_dump(),
                plantings=proposed.plantings,
            )
            names = [
                name
                for name in family.options.model_fields
                if extra_of(family.options, name)["kind"] != "item"
            ]
            for option in (*names[:3], *names[-1:]):
                found = curve(site(), structure, option)
                with self.subTest(family.key, option=option):
                    self.assertEqual(found.values[found.present], getattr(proposed.options, option))
                    self.assertEqual(len(found.values), len(set(found.values)))
                    self.assertFalse(np.isnan(found.limits).any())

    def test_deeper_never_holds_less_and_never_costs_less(self):
        """As long as the soil goes first; deeper still the end stands stiffer, so the mesh pulls harder on
        it.
        """
        found = curve(site(), fence(post="tpost_2.4"), "depth")
        soft = np.array(found.first) == "soil"
        self.assertGreater(int(soft.sum()), 3)
        self.assertTrue((np.diff(found.limits[soft]) > 0).all())
        self.assertTrue((np.diff(found.costs) >= -1e-9).all())
        self.assertEqual(list(found.values), sorted(found.values))

    def test_closer_posts_cost_more(self):
        found = curve(site(), fence(), "post_spacing")
        self.assertGreater(found.costs[0], found.costs[-1])
        self.assertGreater(found.limits[0], found.limits[-1])

    def test_it_is_said_in_both_systems(self):
        for system, unit in (("metric", " m"), ("imperial", " in")):
            report = curve_report(site(), fence(), "depth", system)
            self.assertTrue(report.ordered)
            self.assertIn(unit, report.points[0].text)
            self.assertIn(report.points[report.present].text, report.says)
            self.assertTrue(
                all(point.holds == (point.limit >= report.required_gust) for point in report.points)
            )

    def test_an_option_that_is_not_there_is_refused_by_name(self):
        with self.assertRaises(InvalidPlan) as caught:
            curve(site(), fence(), "moon")
        self.assertEqual([problem.path for problem in caught.exception.problems], ["option"])
