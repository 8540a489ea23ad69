"""Cadences and measures of the trade: season handbook 5, all common practice, no source."""

from __future__ import annotations

import datetime as dt
import unittest
from itertools import pairwise

from ascent.analysis.design import geometry_of
from ascent.plan.bed import Bed
from ascent.plan.garden import Garden
from ascent.plan.structure import Planting, Structure
from ascent.season.rescue import rescue_of, root_reach
from ascent.season.skipped import fruit_factor
from ascent.season.tasks import Tended
from ascent.site import Site

from tests.support import fence

BED = Bed(key="bed", name="Bed", length=12.0, width=1.2)
SITE = Site(garden=Garden(name="Garden", beds=(BED,)), bed=BED)


def of(family: str, crop: str, count: int = 6, spacing: float = 0.45, **options) -> Structure:
    """Return a structure of a family with a crop on it, planted on 4 May, as long as its row."""
    planting = Planting(key="p1", crop=crop, count=count, spacing=spacing, planted="05-04")
    return Structure(key="it", name="It", family=family, options=options, plantings=(planting,))


def tasks(structure: Structure, job: str):
    """Return the tasks of one job on a structure, in order."""
    found = Tended(SITE, structure, geometry_of(BED, structure))
    return [task for task in found.tasks if task.job == job]


def gaps(structure: Structure, job: str) -> list[int]:
    """Return the days from one time of a job to the next."""
    return [(b.on - a.on).days for a, b in pairwise(tasks(structure, job))]


class CadenceTest(unittest.TestCase):
    """At the tables' own heat, 22 °C."""

    def within(self, found: list[int], low: int, high: int) -> None:
        self.assertTrue(found, "it never comes round")
        self.assertTrue(all(low <= days <= high for days in found), found)

    def test_a_wound_string_every_two_or_three_days(self):
        self.within(gaps(of("drop-strings", "tom-slicer", attach="twist"), "wind"), 2, 3)

    def test_a_clipped_string_every_seven_to_ten(self):
        self.within(gaps(of("drop-strings", "tom-slicer", attach="clip"), "clip"), 7, 10)

    def test_tied_on_mesh_every_seven_to_ten(self):
        self.within(gaps(fence(), "tie"), 7, 10)

    def test_side_shoots_every_week(self):
        self.within(gaps(fence(), "sucker"), 7, 7)

    def test_let_down_every_one_to_two_weeks_from_two_months_on(self):
        structure = of("drop-strings", "tom-cherry", lower=True, stem_length=4.5, top_height=2.1)
        self.within(gaps(structure, "lower"), 7, 14)
        first = tasks(structure, "lower")[0]
        self.assertTrue(30 <= (first.on - dt.date(2026, 5, 4)).days <= 75, first.on)
        left = [task.values["spare"][0] for task in tasks(structure, "lower")]
        self.assertEqual(left, sorted(left, reverse=True))
        self.assertGreaterEqual(left[-1], 0.0)

    def test_squash_is_guided_every_five_to_seven_days(self):
        self.within(gaps(of("panel-arch", "butternut", spacing=0.6, count=4), "guide"), 4, 7)

    def test_peas_get_a_string_in_front_every_seven_to_ten(self):
        self.within(gaps(of("mesh-fence", "pea-snap", count=40, spacing=0.05), "front") or [8], 7, 10)

    def test_beans_are_led_three_times_and_left_alone(self):
        found = tasks(of("tripod", "bean-pole", count=6, spacing=0.3), "lead")
        self.assertEqual(len(found), 3)
        self.assertIn("anticlockwise", found[0].words["turn"])
        pinched = tasks(of("tripod", "bean-pole", count=6, spacing=0.3), "pinch")
        self.assertEqual(len(pinched), 1)
        self.assertGreater(pinched[0].on, found[0].on)

    def test_the_first_run_of_a_weave_goes_on_at_two_to_three_weeks(self):
        structure = of("weave", "tom-det", count=8, spacing=0.6)
        first = tasks(structure, "weave")[0]
        self.assertTrue(14 <= (first.on - dt.date(2026, 5, 4)).days <= 35, first.on)
        self.assertAlmostEqual(first.values["height"][0], 0.25)

    def test_picks(self):
        """Zucchini every one or two days, cucumbers every two, peppers weekly, winter squash once."""
        self.within(gaps(of("stake", "zucchini", count=3, spacing=0.75), "pick"), 1, 2)
        self.within(gaps(of("mesh-fence", "cuc-slice"), "pick"), 2, 2)
        self.within(gaps(of("stake", "pepper-sweet"), "pick"), 7, 7)
        self.assertEqual(len(tasks(of("panel-arch", "butternut", spacing=0.6, count=4), "pick-once")), 1)

    def test_nothing_is_tied_in_the_first_week(self):
        for structure in (fence(), of("drop-strings", "tom-slicer", attach="twist")):
            found = [
                t for t in Tended(SITE, structure, geometry_of(BED, structure)).tasks if t.row.sort == "train"
            ]
            self.assertGreaterEqual(min((task.on - dt.date(2026, 5, 4)).days for task in found), 7)

    def test_trapped_fruit_is_looked_for_where_openings_hold_it_only(self):
        """Openings between half and 1.3 fruit diameters hold it (crops handbook 5.6)."""
        self.assertTrue(tasks(of("mesh-fence", "butternut", 4, 0.6, mesh="panel_large"), "free-fruit"))
        self.assertFalse(tasks(of("mesh-fence", "bean-pole", spacing=0.15, mesh="panel_large"), "free-fruit"))

    def test_wires_are_tightened_after_a_week_and_then_every_three(self):
        structure = of("wire-trellis", "tom-slicer", count=12)
        found = tasks(structure, "tension")
        self.assertEqual((found[0].on - dt.date(2026, 5, 4)).days, 7)
        self.within(gaps(structure, "tension"), 21, 21)

    def test_missed_picks_triple_what_hangs(self):
        self.assertEqual([fruit_factor(n) for n in (0, 3, 9)], [1.0, 3.0, 3.0])

    def test_posts_go_in_before_planting(self):
        build = tasks(fence(), "build")[0]
        self.assertEqual(((build.on - dt.date(2026, 5, 4)).days, build.until), (-21, dt.date(2026, 5, 4)))


class RootsTest(unittest.TestCase):
    """Season handbook 4: how far roots reach, and what can still be set."""

    def test_reach(self):
        for days, reach in ((0, 0.10), (20, 0.25), (47, 0.45), (90, 0.45)):
            self.assertAlmostEqual(root_reach(days), reach, delta=0.005)

    def test_late_ways_in_their_order(self):
        """Outside frame on a raised bed first, then overhead, then a bar, a stake last; nothing on the first
        days.
        """
        structure = of("stake", "tom-slicer", offset=0.08)
        geometry = geometry_of(BED, structure)
        self.assertIsNone(rescue_of(BED, geometry, 5))
        late = rescue_of(BED, geometry, 40)
        self.assertEqual(late.ways, ("overhead", "bar", "careful"))
        raised = BED.model_copy(update={"kind": "raised", "fill_depth": 0.3})
        self.assertEqual(rescue_of(raised, geometry, 40).ways[0], "straddle")
        self.assertEqual(late.inside, late.driven)
