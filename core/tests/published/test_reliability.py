"""How often: against a plain simulation of seasons, and where there is a closed form."""

from __future__ import annotations

import math

import numpy as np
from ascent import tables
from ascent.analysis.reliability import reliability_of
from ascent.mechanics import wind

from tests.support import NearTestCase

GUSTS = np.geomspace(1.0, 60.0, 200)
K = 0.2  # shape of the law of yearly gusts, EN 1991-1-4 4.2


def use(material_group: str, median: float, power: float = 2.0) -> tuple[str, str, np.ndarray]:
    """Return the use of a link whose median strength is reached at a gust, growing with a power of it."""
    return material_group, material_group, (GUSTS / median).reshape(1, -1) ** power


def spread(key: str) -> float:
    """Return the logarithmic spread of a row whose low and high leave out one value in forty on each side."""
    row = tables.uncertainties()[key]
    return math.log(row.high / row.low) / (2 * 1.959964)


def a_week_s_gust(chance: np.ndarray, v10: float) -> np.ndarray:
    """Return the strongest gust of a week by its probability: twenty such weeks reach v10 once in ten
    seasons. EN 1991-1-4 (4.2).
    """
    a = 1 - K * math.log(-math.log(0.9))
    return v10 * np.sqrt(np.maximum(1 - K * np.log(-20 * np.log(chance)), 0.0) / a)  # the law knows no calm


class SimulationTest(NearTestCase):
    def test_plain_simulation(self):
        """60,000 seasons of 20 weeks: strengths drawn once a season, a gust each week; chances within
        0.01.
        """
        draw = np.random.default_rng(5)
        seasons, weeks, v10 = 60_000, 20, 15.0
        for limits in (
            {"soil": 17.0},
            {"wood": 22.0, "soil": 19.0},
            {"steel": 16.0, "twine": 24.0, "soil": 28.0},
        ):
            with self.subTest(limits=limits):
                uses = [use(key, median) for key, median in limits.items()]
                found = reliability_of(uses, GUSTS, weeks, np.full(weeks, v10))
                leaf = np.exp(spread("leaf") * draw.standard_normal(seasons))
                gusts = a_week_s_gust(draw.uniform(size=(seasons, weeks)), v10).max(axis=1)
                stands, links = np.ones(seasons, dtype=bool), {}
                for key, median in limits.items():
                    strong = np.exp(spread(key) * draw.standard_normal(seasons))
                    links[key] = gusts < median * np.sqrt(strong / leaf)
                    stands &= links[key]
                self.assertAlmostEqual(found.whole, float(np.mean(stands)), delta=0.01)
                for key, each in links.items():
                    self.assertAlmostEqual(found.of(key), float(np.mean(each)), delta=0.01)

    def test_closed_form_without_spread(self):
        """Of strengths that are known the chance is exp(−n exp(−((v/v10)² a − 1)/K)/20): steel alone, 5 %
        about its mean, in still leaves.
        """
        a = 1 - K * math.log(-math.log(0.9))
        for ratio in (0.9, 1.0, 1.1):
            rate = math.exp(-(ratio**2 * a - 1) / K) / 20
            self.assertNear(wind.weekly_rate(ratio), rate, 1e-9)
        self.assertNear(math.exp(-20 * float(wind.weekly_rate(1.0))), 0.9, 1e-9)

    def test_what_no_wind_loads_does_not_hang_on_the_wind(self):
        """A demand that is the same in calm and storm is met or not, whatever blows: half of what is just
        strong enough is too weak.
        """
        flat = use("wood", 1.0, 0.0)
        self.assertAlmostEqual(reliability_of([flat], GUSTS, 20, np.full(20, 15.0)).whole, 0.5, delta=0.02)

    def test_more_weeks_and_rougher_ones_are_worse(self):
        stands = [
            reliability_of([use("soil", 18.0)], GUSTS, weeks, np.full(weeks, v)).whole
            for weeks, v in ((10, 15), (20, 15), (20, 18))
        ]
        self.assertGreater(stands[0], stands[1])
        self.assertGreater(stands[1], stands[2])

    def test_seasons_in_a_row_with_the_same_strengths(self):
        """What stood one season is likelier to stand the next: P(3) > P(1)³, since strengths stay; and it is
        less than P(1).
        """
        found = reliability_of([use("soil", 17.0)], GUSTS, 20, np.full(20, 15.0))
        self.assertGreater(found.seasons(3), found.whole**3)
        self.assertLess(found.seasons(3), found.whole)
        mean, weak, strong = found.return_period()
        self.assertNear(mean, 1 / (1 - found.whole), 1e-6)
        self.assertLess(weak, mean)
        self.assertLess(mean, strong)
