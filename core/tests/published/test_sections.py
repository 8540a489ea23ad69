"""Section properties: Roark's Table A.1 (from memory) by integration, and the structures handbook's table
3.2.
"""

from __future__ import annotations

import math

import numpy as np
from ascent import tables
from ascent.checks import bending, sections
from ascent.families import FAMILIES
from ascent.mechanics import section

from tests.support import NearTestCase, fence, site

# key in posts.csv, I mm⁴, S mm³, EI N·m², allowable moment in a gust N·m: structures handbook 3.2
TABLE_3_2 = [
    ("post_lumber_38x89", 2232000, 50170, 19390, 617.4),
    ("post_lumber_89", 5229000, 117500, 45420, 1446),
    ("post_round_50", 306800, 12270, 2665, 151),
    ("post_round_75", 1553000, 41420, 13490, 509.7),
    ("cane_10", 460.2, 92.04, 6.903, 2.761),
    ("cane_12", 954.3, 159, 14.31, 4.771),
    ("cane_16", 3016, 377, 45.24, 11.31),
    ("cane_20", 7363, 736.3, 110.4, 22.09),
    ("cane_25", 17980, 1438, 269.6, 43.14),
    ("tpost_light_1.8", 25840, 1035, 5167, 214.3),
    ("tpost_2.1", 27330, 1099, 5466, 227.4),
    ("upost_light", 11840, 1070, 2368, 147.7),
    ("upost_heavy", 29950, 2178, 5990, 300.6),
    ("rod_rebar_10", 490.9, 98.17, 98.17, 29.45),
    ("rod_rebar_12", 1018, 169.6, 203.6, 50.89),
    ("rod_rebar_16", 3217, 402.1, 643.4, 120.6),
    ("tube_toprail_35_16", 23940, 1371, 4789, 187.3),
    ("tube_toprail_35_17", 20710, 1186, 4143, 162),
    ("tube_emt_15", 2018, 225, 403.6, 30.75),
    ("cane_8", 188.5, 47.12, 2.827, 1.414),
    ("tube_emt_20", 5346, 456.5, 1069, 62.37),
    ("tube_emt_25", 12640, 855.7, 2528, 116.9),
]


def integrated(width_at, bottom: float, top: float) -> tuple[float, float, float]:
    """Return area, centroid and second moment of a section by its width at each height, summed in thin
    strips.
    """
    edges = np.linspace(bottom, top, 40001)
    y = (edges[1:] + edges[:-1]) / 2
    strip = np.array([width_at(v) for v in y]) * np.diff(edges)
    area = float(np.sum(strip))
    middle = float(np.sum(strip * y) / area)
    return area, middle, float(np.sum(strip * (y - middle) ** 2))


class TableTest(NearTestCase):
    def test_every_post_of_the_handbook_table(self):
        for key, second, modulus, stiffness, moment in TABLE_3_2:
            with self.subTest(key):
                post = tables.posts()[key]
                found = sections.of_post(post)
                self.assertNear(found.I * 1e12, second)
                self.assertNear(found.S * 1e9, modulus)
                self.assertNear(bending.stiffness(post), stiffness)
                self.assertNear(bending.moments(post).allowable, moment * self.yielded(post))

    def yielded(self, post) -> float:
        """Return by how much a whole yielded section bears more than its edge, Z/S: 16/(3π) round, 4/π for a
        thin tube, 1 for a tee and wood.

        AISC 360 F8 to F11 (from memory); a tee whose stem is pressed is held to its first yield, F9.
        """
        if post.shape == "round" and post.material.startswith("rebar"):
            return 1.6  # of 16/(3π) = 1.70, the most that F11 lets count
        if post.shape == "tube":
            ratio = (post.a - 2 * post.b) / post.a
            return 16 / (3 * math.pi) * (1 - ratio**3) / (1 - ratio**4)
        return 1.2 if post.shape.startswith("hat") else 1.0

    def test_ungraded_stakes_have_six_tenths_of_graded(self):
        """Structures handbook 3.2: 'Ungraded garden stakes: × 0.6' of 112.6 N·m for 38 × 38."""
        self.assertNear(bending.moments(tables.posts()["post_sw_stake_38"]).allowable, 0.6 * 112.6)

    def test_the_strong_way_of_a_t_post_is_told_to_the_builder(self):
        """Structures handbook 3.1: the strong axis may be used only if the build step says that the studs
        face the row.
        """
        post = sections.of_post(tables.posts()["tpost_2.1"])
        self.assertNear(post.S_other / post.S, 0.67)
        for key, told in (("tpost_2.1", True), ("post_round_75", False)):
            structure = fence(post=key)
            family = FAMILIES[structure.family]
            geometry = family.geometry(family.options(**structure.options), structure.plantings, site())
            self.assertEqual("studs" in family.cautions(geometry), told, key)

    def test_other_posts_of_the_parts_handbook(self):
        """Parts handbook 2.1, allowable moment in a gust, rounded there to two figures."""
        for key, moment in (
            ("post_hw_stake_20", 27),
            ("post_hw_stake_25", 52),
            ("post_hw_stake_38", 183),
            ("post_lumber_38x140", 1330),
            ("stake_coated_8", 4),
            ("stake_coated_11", 8),
            ("rod_frp_8", 7.5),
            ("pole_hazel_25", 16),
            ("tube_alu_25", 90),
        ):
            with self.subTest(key):
                post = tables.posts()[key]
                more = 1.2 if key == "tube_alu_25" else self.yielded(post)
                self.assertNear(bending.moments(post).allowable, moment * more, 0.13)

    def test_medians_stand_well_above_what_is_allowed(self):
        """Wood: 2.1 from the weakest twentieth (NDS, in its 1.6 for a gust and 1.3) and 1.6 to 1.9 from there
        to the middle; steel 1.67 and its mean.

        Value from memory: in-grade spread 0.35 to 0.40 (NDS); mean yield 1.05 to 1.2 of the least (NBS SP
        577).
        """
        graded, steel = (
            bending.moments(tables.posts()["post_lumber_89"]),
            bending.moments(tables.posts()["rod_rebar_12"]),
        )
        weakest = graded.allowable * 2.1 / 1.6
        self.assertTrue(1.5 < graded.median / weakest < 2.0, graded.median / weakest)
        self.assertTrue(1.05 < steel.median / (steel.allowable / 0.6) < 1.2)
        tee = bending.moments(tables.posts()["tpost_2.1"])
        self.assertNear(tee.median / tee.allowable, 1.6 * 380 / 207)

    def test_wood_bears_less_for_a_season_than_for_a_gust(self):
        """NDS 2.3.2 (from memory): load duration 1.15 for two months, 1.6 for wind."""
        bears = bending.moments(tables.posts()["post_lumber_89"])
        for lasting, gust in ((bears.lasting, bears.allowable), (bears.median_lasting, bears.median)):
            self.assertNear(lasting / gust, 1.15 / 1.6)


class IntegralTest(NearTestCase):
    def test_tee_against_strips(self):
        """The 1.33 lb/ft T-post of handbook 3.1: A 237.0 mm², centroid 10.05 mm, weak axis I 12 810 mm⁴, S
        733.9 mm³.
        """
        side, thick = 34.9e-3, 3.58e-3
        area, middle, second = integrated(lambda y: side if y < thick else thick, 0.0, side)
        found = section.tee(side, thick)
        self.assertNear(found.A, area, 1e-4)
        self.assertNear(found.I, second, 1e-3)
        self.assertNear(found.S, second / (side - middle), 1e-3)
        self.assertNear(found.A * 1e6, 237.0)
        self.assertNear(middle * 1e3, 10.05)
        self.assertNear(found.I_other * 1e12, 12810)
        self.assertNear(found.S_other * 1e9, 733.9)

    def test_plastic_moduli_against_strips(self):
        """Z is the first moment of area about the axis that halves the area."""
        side, thick, d = 34.9e-3, 3.58e-3, 34.9e-3
        for width_at, low, high, plastic in (
            (lambda y: side if y < thick else thick, 0.0, side, section.tee(side, thick).Z),
            (lambda y: 2 * math.sqrt(max((d / 2) ** 2 - y**2, 0.0)), -d / 2, d / 2, section.round_bar(d).Z),
            (
                lambda y: (
                    2
                    * (
                        math.sqrt(max((d / 2) ** 2 - y**2, 0.0))
                        - math.sqrt(max((d / 2 - 1.4e-3) ** 2 - y**2, 0.0))
                    )
                ),
                -d / 2,
                d / 2,
                section.tube(d, 1.4e-3).Z,
            ),
            (lambda _y: 0.038, 0.0, 0.089, section.rectangle(0.038, 0.089).Z),
            (
                lambda y: side if abs(y - side / 2) < thick / 2 else thick,
                0.0,
                side,
                section.tee(side, thick).Z_other,
            ),
        ):
            edges = np.linspace(low, high, 40001)
            y = (edges[1:] + edges[:-1]) / 2
            strip = np.array([width_at(v) for v in y]) * np.diff(edges)
            half = y[np.searchsorted(np.cumsum(strip), np.sum(strip) / 2)]
            self.assertNear(plastic, float(np.sum(strip * np.abs(y - half))), 2e-3)

    def test_round_and_tube_against_strips(self):
        d, wall = 34.9e-3, 1.65e-3

        def chord(radius: float, y: float) -> float:
            return 2 * math.sqrt(max(radius**2 - y**2, 0.0))

        area, _, second = integrated(lambda y: chord(d / 2, y), -d / 2, d / 2)
        self.assertNear(section.round_bar(d).A, area, 1e-4)
        self.assertNear(section.round_bar(d).I, second, 1e-3)
        area, _, second = integrated(lambda y: chord(d / 2, y) - chord(d / 2 - wall, y), -d / 2, d / 2)
        self.assertNear(section.tube(d, wall).A, area, 1e-3)
        self.assertNear(section.tube(d, wall).I, second, 1e-3)

    def test_rectangle_both_ways(self):
        found = section.rectangle(0.038, 0.089)
        self.assertNear(found.I, 0.038 * 0.089**3 / 12, 1e-9)
        self.assertNear(found.S_other, 0.089 * 0.038**2 / 6, 1e-9)
