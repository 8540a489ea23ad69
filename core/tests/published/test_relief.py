"""Forced movements relieve themselves: against non-linear solutions of SciPy over bays, meshes and soils, and
limiting cases.
"""

from __future__ import annotations

import itertools
import math

import numpy as np
from ascent import tables
from ascent.analysis.design import design_of
from ascent.checks import mesh
from ascent.mechanics import relaxation
from scipy.optimize import brentq, fsolve

from tests.support import NearTestCase, fence, site

MESHES = {
    "panel_large": (5.715, 152, 200e9, 520e6),
    "weld_50x100_14": (2.03, 50, 200e9, 310e6),
    "mesh_conc_150_5": (5.0, 150, 200e9, 520e6),
}  # mm, mm, Pa, Pa


class MeshBetweenEndsThatGiveTest(NearTestCase):
    """One wire of a mesh under a load: w = 384 EI f/5L⁴ + 8 T f/L², arc 8 f²/3L = T L/EA + g/n; the end gives
    T/k until it yields, then on.
    """

    def solved(
        self, key: str, pressure: float, span: float, end: float, bays: float, yields: float
    ) -> tuple[float, float]:
        """Return belly and pull by two unknowns; past the yield the pull is given and the belly is left."""
        d, up, e, _ = MESHES[key]
        d, up = d / 1000, up / 1000
        inertia, axial, height = math.pi * d**4 / 64, e * math.pi * d**2 / 4, 8 * up
        load, wires = pressure * up, 8.0

        def rest(x: np.ndarray) -> list[float]:
            f, t = x[0] * 0.1, x[1] * 100.0
            return [
                (384 * e * inertia * f / 5 / span**4 + 8 * t * f / span**2) / load - 1,
                (8 * f**2 / 3 / span - t * span / axial - t * wires / end / bays) / 0.01,
            ]

        start = brentq(
            lambda f: 384 * e * inertia * f / 5 / span**4 + 64 / 3 * axial * f**3 / span**4 - load, 1e-6, span
        )
        (f, t), _, good, _ = fsolve(
            rest, [start / 0.1, 8 / 3 * axial * (start / span) ** 2 / 300.0], full_output=True
        )
        self.assertEqual(good, 1)
        f, t = f * 0.1, t * 100.0
        if t * wires > yields:
            t = yields / wires
            f = brentq(
                lambda f: 384 * e * inertia * f / 5 / span**4 + 8 * t * f / span**2 - load, 1e-6, 3 * span
            )
        self.assertGreater(height, 0)
        return f, t

    def test_over_bays_meshes_and_soils(self):
        count = 0
        for key, span, end, yields, pressure in itertools.product(
            MESHES, (0.9, 1.2, 1.8, 2.4), (3e3, 20e3, 100e3), (150.0, 1e9), (60.0, 180.0, 400.0)
        ):
            up = MESHES[key][1] / 1000
            state = mesh.in_wind(
                tables.meshes()[key],
                np.full((1, 1, 1), pressure),
                span,
                8 * up,
                np.full((1, 1, 1), end),
                1.125,
                yields,
            )
            f, t = self.solved(key, pressure, span, end, 1.125, yields)
            with self.subTest(mesh=key, span=span, end=end, yields=yields, pressure=pressure):
                self.assertLess(abs(float(state.belly[0, 0, 0]) - f), 0.02 * f + 1e-4)
                self.assertLess(abs(float(state.tension[0, 0, 0]) - t), 0.03 * t + 0.5)
            count += 1
        self.assertEqual(count, 216)

    def test_rigid_ends(self):
        """Between ends that do not give, a thin wire is the membrane T³ = EA (w L)²/24 (Irvine 1981), within
        the little that it bends.
        """
        state = mesh.in_wind(
            tables.meshes()["weld_50x100_14"],
            np.full((1, 1, 1), 300.0),
            2.4,
            0.4,
            np.full((1, 1, 1), 1e15),
            1.0,
        )
        ea, load = 200e9 * math.pi / 4 * 0.00203**2, 300 * 0.05
        self.assertNear(state.tension, (ea * (load * 2.4) ** 2 / 24) ** (1 / 3), 0.01)

    def test_ends_without_stiffness(self):
        """Between ends that hold nothing it is a beam, 5 w L⁴/384 EI, and pulls at nothing."""
        state = mesh.in_wind(
            tables.meshes()["panel_large"],
            np.full((1, 1, 1), 100.0),
            1.2,
            8 * 0.152,
            np.full((1, 1, 1), 1e-3),
            1.0,
        )
        self.assertNear(
            state.belly, 5 * 100 * 0.152 * 1.2**4 / 384 / (200e9 * math.pi * 0.005715**4 / 64), 0.002
        )
        self.assertLess(float(state.tension[0, 0, 0]), 1e-3)


class RowOfPostsTest(NearTestCase):
    def test_how_many_bays_an_end_shortens(self):
        """Posts that yield alike: from an end the pulls are H, 2H, 3H …, each bay is shorter by (wL)² L/24
        T², to the middle of the row.
        """
        for bays in range(1, 12):
            moved = sum(min(1.0, max(0.0, bays / 2 - (i - 1))) / i**2 for i in range(1, bays + 1))
            with self.subTest(bays=bays):
                self.assertNear(relaxation.tied_bays(bays), moved, 1e-9)
        self.assertNear(relaxation.tied_bays(2000), math.pi**2 / 6, 0.001)

    def test_pull_left_once_an_end_has_come_in(self):
        """Arc of a parabola by its own integral: a chord shortened by g leaves a belly whose arc is the old
        chord; its pull is w L²/8f.
        """
        span, give, load = 1.5, 0.06, 40.0
        chord = span - give

        def arc(f: float) -> float:
            u = 4 * f / chord
            return chord / 2 * (math.sqrt(1 + u * u) + math.asinh(u) / u)

        belly = brentq(lambda f: arc(f) - span, 0.01, 0.6)
        left, exact = (
            float(relaxation.pull_at(load, span, relaxation.belly_after(give, span, 1.0))),
            load * chord**2 / 8 / belly,
        )
        self.assertGreaterEqual(left, exact, "the shallow curve is on the safe side")
        self.assertNear(left, exact, 0.09)

    def test_a_deeper_or_stouter_post_is_never_weaker(self):
        """The curve of the limit gust over depth, and over stouter posts, does not fall (common practice, no
        source).
        """
        for kind in ({"mesh": "weld_50x100_14", "post_spacing": 2.4}, {"mesh": "mesh_conc_150_5"}):
            limits = [
                design_of(site(), fence(depth=depth, post="tpost_2.4", **kind)).moist_limit()
                for depth in (0.3, 0.45, 0.6, 0.75, 0.9)
            ]
            with self.subTest(kind=kind, limits=limits):
                self.assertTrue(all(b >= a - 0.15 for a, b in itertools.pairwise(limits)))
        stout = [
            design_of(site(), fence(post=post, mesh="weld_50x100_14")).moist_limit()
            for post in ("post_sw_stake_38", "post_round_75", "post_round_100")
        ]
        self.assertTrue(all(b >= a - 0.15 for a, b in itertools.pairwise(stout)), stout)
