"""A structure in three dimensions: its sections, where its sun stands, what is said of it."""

from __future__ import annotations

import datetime as dt
import math
import re
import unittest

from ascent import tables
from ascent.drawing.solid import sun_towards
from ascent.report.report import full_report
from ascent.report.solids import solid_report
from ascent.site import Site

from tests.support import demo, fence, site


class SunTest(unittest.TestCase):
    """Directions on a compass: facts of geometry."""

    def test_a_low_sun_in_the_east_shines_along_a_row_that_runs_east(self):
        x, y, z = sun_towards(0.0, 90.0, 90.0)
        self.assertAlmostEqual(abs(x), 1.0)
        self.assertAlmostEqual(y, 0.0)
        self.assertAlmostEqual(z, 0.0)

    def test_a_sun_overhead_shines_down_whatever_the_row(self):
        for bearing in (0.0, 45.0, 200.0):
            self.assertAlmostEqual(sun_towards(90.0, 180.0, bearing)[2], 1.0)

    def test_its_height_is_its_rise(self):
        self.assertAlmostEqual(sun_towards(30.0, 123.0, 45.0)[2], 0.5)
        self.assertAlmostEqual(math.hypot(*sun_towards(30.0, 123.0, 45.0)), 1.0)

    def test_turning_the_row_with_the_sun_changes_nothing(self):
        for one, other in zip(sun_towards(25.0, 100.0, 40.0), sun_towards(25.0, 160.0, 100.0), strict=True):
            self.assertAlmostEqual(one, other)

    def test_at_noon_in_the_north_it_stands_in_the_south(self):
        """Declination at midsummer 23.4°: at 51° north the noon sun stands 90 − 51 + 23.4 = 62.4° high
        (common almanac).
        """
        garden = demo()
        bed = garden.beds[0]
        report = solid_report(
            Site(garden=garden, bed=bed), bed.structures[0], "metric", dt.date(garden.year, 1, 1)
        )
        highest = max(report.suns, key=lambda sun: sun.towards[2])
        self.assertEqual(highest.hour, 12)
        self.assertTrue(all(sun.towards[2] > 0 for sun in report.suns))
        self.assertLessEqual(math.degrees(math.asin(highest.towards[2])), 90 - garden.latitude + 23.5)


class WordsTest(unittest.TestCase):
    def test_every_structure_is_told_with_units_and_without_nothings(self):
        garden = demo()
        for system, unit in (("metric", r"\d m\b"), ("imperial", r"\d (ft|in)\b")):
            for bed in garden.beds:
                for one in bed.structures:
                    with self.subTest(one.name, system=system):
                        says = solid_report(Site(garden=garden, bed=bed), one, system).says
                        self.assertTrue(says.startswith(f"{one.name}, "))
                        self.assertRegex(says, unit)
                        self.assertRegex(says, r"at a gust of .*\d+ (m/s|mph)|beyond")
                        self.assertIsNone(re.search(r"\b0 posts|\bnan\b|None|[{}]", says), says)

    def test_a_week_is_kept_within_the_season(self):
        for day, week in ((dt.date(1990, 1, 1), 0), (dt.date(2100, 1, 1), -1)):
            report = solid_report(site(), fence(), "metric", day)
            told = full_report(site(), fence(), "metric", day)
            self.assertEqual(told.weeks[report.week].date, told.weeks[week].date)


class SectionsTest(unittest.TestCase):
    def test_posts_have_the_section_they_are_bought_in(self):
        key = "post_round_75"
        solid = solid_report(site(), fence(post=key), "metric").solid
        posts = [bar for bar in solid.bars if bar.member.startswith("post@")]
        self.assertEqual({bar.section for bar in posts}, {"round"})
        for bar in posts:
            self.assertAlmostEqual(bar.wide, tables.posts()[key].soil_width)
            self.assertAlmostEqual(min(z for _, _, z in bar.points), -0.45)

    def test_there_is_a_climber_for_each_plant(self):
        self.assertEqual(len(solid_report(site(), fence(count=7), "metric").solid.climbers), 7)
