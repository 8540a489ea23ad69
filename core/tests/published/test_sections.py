"""Section properties: Roark's Table A.1 (from memory) by integration, and the structures handbook's table 3.2."""

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
    """Return area, centroid and second moment of a section by its width at each height, summed in thin strips."""
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
                ultimate, factor = bending.gust_moment(post)
                self.assertNear(ultimate / factor, moment)

    def test_ungraded_stakes_have_six_tenths_of_graded(self):
        """Structures handbook 3.2: 'Ungraded garden stakes: × 0.6' of 112.6 N·m for 38 × 38."""
        ultimate, factor = bending.gust_moment(tables.posts()["post_sw_stake_38"])
        self.assertNear(ultimate / factor, 0.6 * 112.6)

    def test_the_strong_way_of_a_t_post_is_told_to_the_builder(self):
        """Structures handbook 3.1: the strong axis may be used only if the build step says that the studs face the row."""
        post = sections.of_post(tables.posts()["tpost_2.1"])
        self.assertNear(post.S_other / post.S, 0.67)
        for key, told in (("tpost_2.1", True), ("post_round_75", False)):
            structure = fence(post=key)
            family = FAMILIES[structure.family]
            geometry = family.geometry(family.options(**structure.options), structure.plantings, site())
            self.assertEqual("studs" in family.cautions(geometry), told, key)

    def test_other_posts_of_the_parts_handbook(self):
        """Parts handbook 2.1, allowable moment in a gust, rounded there to two figures."""
        for key, moment in (("post_hw_stake_20", 27), ("post_hw_stake_25", 52), ("post_hw_stake_38", 183), ("post_lumber_38x140", 1330),
                            ("stake_coated_8", 4), ("stake_coated_11", 8), ("rod_frp_8", 7.5), ("pole_hazel_25", 16), ("tube_alu_25", 90)):  # fmt: skip
            with self.subTest(key):
                ultimate, factor = bending.gust_moment(tables.posts()[key])
                self.assertNear(ultimate / factor, moment, 0.13)


class IntegralTest(NearTestCase):
    def test_tee_against_strips(self):
        """The 1.33 lb/ft T-post of handbook 3.1: A 237.0 mm², centroid 10.05 mm, weak axis I 12 810 mm⁴, S 733.9 mm³."""
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
