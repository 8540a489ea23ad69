"""A fence's line folded in plan: lengths and sides, against a geometry library."""

from __future__ import annotations

import math
import unittest

import shapely
from ascent.family.protocol import Need
from ascent.path.geometry import Plant
from ascent.patterns import plants, starters, tube_arch
from ascent.patterns.course import RowCourse

from tests.support import NearTestCase, site

SHAPES = {
    "straight": RowCourse("straight", 3.6, 1.2, 0.3, 0.0),
    "zigzag": RowCourse("zigzag", 3.6, 1.2, 0.3, 0.0),
    "u": RowCourse("u", 2.4, 1.2, 0.0, 1.0),
}


class CourseTest(unittest.TestCase):
    def test_what_is_folded_keeps_its_place_along_and_beside_the_line(self):
        """A point s along and a beside comes to lie at s along the folded line, a to its left."""
        for name, course in SHAPES.items():
            line = shapely.LineString(course.corners)
            self.assertAlmostEqual(course.run, line.length)
            for bay in range(len(course.corners) - 1):
                s = float(course.stations[bay] + course.stations[bay + 1]) / 2
                for aside in (-0.11, 0.0, 0.07):
                    x, y, up = course.folded((s, aside, 1.3))
                    leg = shapely.LineString(course.corners[bay : bay + 2])
                    (ax, ay), (bx, by) = leg.coords
                    with self.subTest(course=name, bay=bay, aside=aside):
                        self.assertAlmostEqual(leg.distance(shapely.Point(x, y)), abs(aside))
                        self.assertAlmostEqual(leg.project(shapely.Point(x, y)), leg.length / 2)
                        left = (bx - ax) * (y - ay) - (by - ay) * (x - ax)
                        self.assertEqual((left > 1e-9) - (left < -1e-9), (aside > 0) - (aside < 0))
                        self.assertEqual(up, 1.3)

    def test_posts_of_three_sides_stand_on_a_rectangle(self):
        corners = SHAPES["u"].corners
        self.assertEqual(corners[0], (0.0, -0.5))
        self.assertEqual(corners[-1], (2.4, -0.5))
        self.assertIn((0.0, 0.5), corners)
        self.assertIn((2.4, 0.5), corners)
        self.assertAlmostEqual(SHAPES["u"].run, 2.4 + 2 * 1.0)

    def test_starters_stand_beside_the_stem_and_lean_to_where_it_goes(self):
        """Parts handbook 3.15: a starter of 0.60 m, 0.15 m of it in the soil, 0.05 m from the stem."""
        plant = Plant((1.0, 0.2, 0.0), 0, ((1.0, 0.2, 0.0), (1.5, 0.2, 0.4), (2.0, 0.0, 0.8)))
        (stick,) = starters.members((plant,))
        (x, y, z), (to_x, to_y, top) = stick.points
        self.assertAlmostEqual(math.hypot(x - 1.0, y - 0.2), 0.05)
        self.assertAlmostEqual(top - z, 0.60)
        self.assertAlmostEqual(z, -0.15)
        self.assertTrue(1.0 < to_x < 2.0 and 0.0 < to_y < 0.2)
        self.assertEqual(starters.height(), 0.45)


class RowTest(NearTestCase):
    def test_as_many_as_asked_take_their_length(self):
        """Crops handbook 3: n plants in a line take n − 1 spacings and 0.15 m clear at each end."""
        for side, count, spaces in (("left", 8, 7), ("both", 8, 3), ("left", 1, 0)):
            sown = plants.sown(Need("tom-slicer", count, side, "pruned"), site(), 10.0, shortest=0.3)
            with self.subTest(side=side, count=count):
                self.assertAlmostEqual(sown.length, max(spaces * 0.45 + 0.30, 0.9), delta=0.05)
                self.assertGreaterEqual(sown.length, spaces * 0.45 + 0.30 - 1e-9)
                self.assertEqual(sown.plantings[0].count, count)

    def test_as_many_as_fit(self):
        """On 12 m: (12 − 0.30)/0.45 = 26 spacings, 27 plants a line."""
        for side, count in (("left", 27), ("both", 54)):
            sown = plants.sown(Need("tom-slicer", None, side, "pruned"), site(), 20.0)
            self.assertEqual(sown.plantings[0].count, count)

    def test_no_line_over_a_tunnel_that_is_clad_to_its_crown(self):
        shape = tube_arch.curve(1.5, 2.2)
        long = tube_arch.arc_length(shape)
        self.assertEqual(tube_arch.lines(shape, long / 2 - 0.1, 0.25), ())
        self.assertEqual(len(tube_arch.lines(shape, long / 2 - 0.5, 0.25)), 3)


if __name__ == "__main__":
    unittest.main()
