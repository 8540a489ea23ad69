"""What hangs and grows by week: the crops handbook's worked examples (section 6) and cover after Monsi &
Saeki.
"""

from __future__ import annotations

import numpy as np
from ascent import tables
from ascent.loads import crop as crop_loads
from ascent.loads.season import season_of
from ascent.mechanics import growth
from ascent.plan.structure import Planting

from tests.support import NearTestCase, site


class SlicerCourseTest(NearTestCase):
    """Crops handbook 6.1: an indeterminate slicer on a string, 2.19 plants a metre."""

    COURSE = {
        14: (0.07, 0.00, 0.2), 28: (0.19, 0.02, 0.7), 42: (0.44, 0.21, 2.1), 56: (0.72, 0.51, 4.0),
        70: (0.89, 0.80, 5.6), 85: (0.97, 0.99, 6.5),
        100: (0.99, 1.00, 6.6), 126: (1.00, 0.83, 6.0), 140: (1.00, 0.37, 4.3),
    }  # fmt: skip

    def test_growth_and_fruit(self):
        for day, (grown, fruit, _) in self.COURSE.items():
            with self.subTest(day=day):
                self.assertAlmostEqual(float(growth.logistic(day, 45, 80)), grown, delta=0.006)
                self.assertAlmostEqual(
                    float(growth.hanging_fruit(day, 72, 70, 50, False)), fruit, delta=0.006
                )

    def test_mass_of_a_metre(self):
        """Rounded to 0.1 kg in the handbook, so 0.06 kg is allowed."""
        row = tables.crops()["tom-slicer"]
        for day, (_, _, mass) in self.COURSE.items():
            shoot = (
                row.shoot_kg
                * (1 + row.rain_share)
                * row.carried_share
                * growth.logistic(day, row.t50_d, row.t95_d)
            )
            fruit = (
                row.yield_kg
                * row.hanging_share
                * growth.hanging_fruit(day, 72, 70, row.set_to_pick_d, row.one_pick)
            )
            self.assertAlmostEqual(float(2.19 * (shoot + fruit)), mass, delta=0.06)

    def test_the_product_reaches_the_peak(self):
        """3.03 kg a plant typical and 5.43 kg high, at the season's peak."""
        planting = Planting(key="p1", crop="tom-slicer", count=7, spacing=0.457, planted="05-04")
        season = season_of(site().garden, (planting,))
        growth = crop_loads.planting_on_face(planting, season, 0, 2.0)
        self.assertNear(np.max(growth.plant_kg), 3.03)
        self.assertNear(np.max(growth.high_kg), 5.43)


class CucumberBayTest(NearTestCase):
    def test_face_cap(self):
        """Crops handbook 6.5: cucumbers on mesh 1.8 m high: 4.5 kg a metre typical once capped by light; a
        2.4 m bay 11 kg.
        """
        planting = Planting(key="p1", crop="cuc-slice", count=8, spacing=0.30, planted="05-04")
        season = season_of(site().garden, (planting,))
        course = crop_loads.planting_on_face(planting, season, 0, 1.8)
        self.assertNear(np.max(crop_loads.several(course, 8, 2.4 * 1.8)), 2.4 * 4.5, 0.02)


class OnePickTest(NearTestCase):
    def test_squash_stays_until_the_pick(self):
        """Crops handbook 5.1: smooth rise to 1 at 0.8 τ after set, then 1 until the pick."""
        self.assertEqual(float(growth.hanging_fruit(50, 105, 17, 52, True)), 0.0)
        self.assertEqual(float(growth.hanging_fruit(53 + 0.8 * 52, 105, 17, 52, True)), 1.0)
        self.assertEqual(float(growth.hanging_fruit(120, 105, 17, 52, True)), 1.0)
        self.assertEqual(float(growth.hanging_fruit(123, 105, 17, 52, True)), 0.0)


class CoverTest(NearTestCase):
    def test_more_leaf_covers_more_by_beer_and_lambert(self):
        """Monsi & Saeki 1953 (from memory): cover 1 − exp(−k·L); twice the leaf of a 0.6 face clears 0.4²."""
        self.assertNear(growth.canopy_cover(0.6, 2.0), 1 - 0.4**2, 1e-9)
        self.assertNear(growth.canopy_cover(0.75, 1.0), 0.75, 1e-9)
