"""The worked example of docs/families/mesh-fence.md, step by step by hand, against the product."""

from __future__ import annotations

import math

from ascent.model import Site
from ascent.report import at, evaluate

from tests.support import NearTestCase, demo


class WorkedExampleTest(NearTestCase):
    def setUp(self):
        garden = demo()
        bed = next(bed for bed in garden.beds if bed.name == "Long Plot A")
        self.found = evaluate(Site(garden=garden, bed=bed), bed.structures[0])
        self.week = self.found.worst_week

    def term(self, link: str, check: str, name: str) -> float:
        """Return a number of a check's working at the design gust in the worst week."""
        found = next(c for each in self.found.links if each.key == link for c in each.checks if c.key == check)
        return at(found.terms[name][0], 0, self.week, 2)

    def test_wind_on_a_post(self):
        pressure = 0.5 * 1.225 * 15**2
        streaming = (15 / 8) ** -0.4
        mesh = 1 - (1 - 5.715 / 203) * (1 - 5.715 / 152)
        both = 1 - (1 - mesh) * (1 - 0.748)
        bare = 0.10 + (mesh - 0.05) / 0.05 * 0.10
        leafy = 1.12 + (both - 0.70) / 0.15 * (1.26 - 1.12)
        on_leaf = pressure * (bare + (leafy - bare) * streaming)
        self.assertNear(on_leaf, 130.5)
        row = on_leaf * 1.12 + pressure * bare * 0.15
        self.assertNear(row * 1.14, self.term("post", "post-bending-across", "force"))
        height = (on_leaf * 1.12 * 0.86 + pressure * bare * 0.15 * 0.225) / row
        self.assertNear(height, self.term("post", "post-bending-across", "height"))

    def test_post(self):
        self.assertNear(self.term("post", "post-bending-across", "moment"), 170 * 0.85 * 1.02, 0.02)
        self.assertNear(self.found.use_of("post", self.week), 147 / (1.099e-6 * 207e6), 0.02)

    def test_soil(self):
        f = 0.5 * (math.sqrt(4.98**2 + 4 * 0.45**2) - 4.98)
        ultimate = 9 * 30e3 * 0.035 * f + 4 * 30e3 * 0.0105 * (0.48 - 0.30) / (0.87 + 0.48)
        self.assertNear(self.term("soil", "soil-grip", "ultimate"), ultimate)
        self.assertNear(self.found.use_of("soil", self.week), 170 / (ultimate / 1.5), 0.02)

    def test_tie(self):
        self.assertNear(self.found.use_of("mesh-tie", self.week), math.hypot(189 / 4 * 1.5, 208) / 300, 0.02)

    def test_the_most_used_link_is_not_the_first_to_go(self):
        self.assertEqual(self.found.weakest(self.week), "post")
        self.assertGreater(self.found.use_of("mesh-tie", self.week), self.found.use_of("post", self.week))
