"""Pull tests: the handbook's worked example, and soils that are known because they were made up."""

from __future__ import annotations

import datetime as dt

import numpy as np
from ascent import tables
from ascent.analysis.design import design_of
from ascent.building.pull_test import compared, how_sure
from ascent.errors import InvalidPlan
from ascent.mechanics.pull import bound_at, pulled
from ascent.mechanics.soil import clay_movement, sand_movement
from ascent.plan.bed import Tested
from ascent.plan.record import PullTest, Reading
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import NearTestCase, fence, site

NOW = dt.datetime(2026, 4, 12, 10, 0, tzinfo=dt.UTC)


class WorkedTest(NearTestCase):
    """Structures handbook 5.5: T-post 1.33, L 0.6 m, 150 N at 1.2 m, 25 mm."""

    def test_modulus_and_bend_of_the_worked_example(self):
        found = pulled([(0.0, 0.0), (150.0, 0.025)], 1.2, 0.6, 0.150 * 1000 * 1.2**3 / (3 * 0.0158), "clay")
        self.assertNear(150 * found.bent, 0.0158, 0.01)
        self.assertNear(found.modulus, 2.07e6, 0.01)
        self.assertIsNone(found.error, "two readings leave no error to be seen")

    def test_bound_of_the_worked_example(self):
        self.assertNear(bound_at(150.0, 1.2, 0.8, 0.6, "clay"), 198.0, 0.005)

    def test_rule_for_another_height_against_the_exact_ratio(self):
        """Clay, firm loam, L 0.6: capacity ratio of 0.6 to 1.2 m is 1.603, by the rule 1.571."""
        self.assertNear(bound_at(1.0, 1.2, 0.6, 0.6, "clay"), 1.571, 0.001)
        self.assertLess(bound_at(1.0, 0.6, 1.2, 0.6, "clay"), 1 / 1.571, "on the safe side the other way")


class MadeUpTest(NearTestCase):
    """Soils whose modulus is known: the movement of a rigid short post after Broms and Terzaghi."""

    @settings(max_examples=60, deadline=None, derandomize=True)
    @given(
        st.sampled_from(["clay", "sand"]),
        st.floats(5e5, 2e7),
        st.floats(0.3, 1.0),
        st.floats(0.4, 2.0),
        st.floats(0.0, 0.01),
        st.integers(3, 9),
    )
    def test_is_found_again_whatever_the_slack(self, soil, modulus, depth, height, slack, count):
        move, turn = (clay_movement if soil == "clay" else sand_movement)(modulus, depth, height)
        stiff = 5_000.0
        per = float(move + turn * height + height**3 / (3 * stiff))
        pulls = np.linspace(20.0, 150.0, count)
        up = [(float(p), float(p * per + slack)) for p in pulls]
        back = [(float(p), float(p * per + slack + 0.002)) for p in pulls[::-1]] + [(0.0, slack + 0.002)]
        found = pulled([*up, *back], height, depth, stiff, soil)
        if found.modulus is None:
            self.assertLess((per - height**3 / (3 * stiff)) / per, 0.11, "too limber to tell")
        else:
            self.assertNear(found.modulus, modulus, 1e-6)
        self.assertNear(found.left, slack + 0.002, 1e-6)
        self.assertFalse(found.moving_on)

    def test_noise_widens_what_is_known_and_keeps_the_truth_within(self):
        rng = np.random.default_rng(3)
        move, turn = clay_movement(2e6, 0.6, 1.2)
        per, inside = float(move + turn * 1.2), 0
        for _ in range(100):
            pulls = np.linspace(15.0, 150.0, 8)
            read = [(float(p), float(p * per + rng.normal(0, 4e-4))) for p in pulls]
            found = pulled(read, 1.2, 0.6, 1e9, "clay")
            inside += found.low <= 2e6 <= found.high
        self.assertGreaterEqual(inside, 85, "two standard errors hold about nineteen of twenty")

    def test_a_post_that_gives_ever_more_moves_on(self):
        found = pulled([(50, 0.005), (100, 0.010), (150, 0.030)], 1.0, 0.6, 5e3, "clay")
        self.assertTrue(found.moving_on)

    def test_what_says_nothing_is_refused(self):
        for readings in ([(50, 0.01), (50, 0.02)], [(50, 0.02), (100, 0.01)]):
            with self.assertRaises(ValueError):
                pulled(readings, 1.0, 0.6, 5e3, "clay")


class OfABedTest(NearTestCase):
    def pulled(self, *readings: tuple[float, float], **more: object) -> PullTest:
        rows = tuple(Reading(pull=pull, moved=moved) for pull, moved in readings)
        return PullTest(member="post@120", height=1.2, readings=rows, at=NOW, **more)

    def test_is_shown_against_the_assumption(self):
        found = compared(site(), fence(), self.pulled((40, 0.0067), (80, 0.0135), (120, 0.02), (0, 0.001)))
        self.assertIsNotNone(found.stiffer)
        self.assertEqual(found.assumed, tables.soils()["firm_loam"].modulus)
        self.assertGreaterEqual(found.grip, 1.0, "a pull that held says no less than the table")
        self.assertIn(how_sure(found.found), ("well", "roughly", "hardly"))

    def test_a_post_that_moved_on_grips_no_more_than_that(self):
        found = compared(site(), fence(depth=0.9), self.pulled((20, 0.004), (40, 0.01), moved_on=True))
        self.assertLess(found.grip, 1.0)

    def test_used_for_the_bed_it_moves_the_limit_the_same_way(self):
        loose = site(tested=Tested(on=NOW.date(), grip=0.6))
        firm = site(tested=Tested(on=NOW.date(), grip=1.6, stiffness=2.0))
        limits = [float(design_of(place, fence()).limit.min()) for place in (loose, site(), firm)]
        self.assertLess(limits[0], limits[1])
        self.assertLessEqual(limits[1], limits[2])
        leans = [float(np.max(design_of(place, fence()).service[0].amount)) for place in (site(), firm)]
        self.assertLess(leans[1], leans[0])

    def test_a_post_that_is_not_there_is_refused_by_its_name(self):
        with self.assertRaises(InvalidPlan) as caught:
            compared(site(), fence(), self.pulled((1, 0.1), (2, 0.2)).model_copy(update={"member": "post@9"}))
        self.assertIn("post@9", str(caught.exception))
