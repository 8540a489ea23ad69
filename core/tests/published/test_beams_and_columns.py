"""Timoshenko, Strength of Materials part I and Theory of Elastic Stability (values from memory), against
integration.
"""

from __future__ import annotations

import math

import numpy as np
from ascent.mechanics import beam, column, soil
from scipy.integrate import quad

from tests.support import NearTestCase


class CantileverTest(NearTestCase):
    def test_tip_under_a_force_near_the_tip(self):
        """Timoshenko I, art. 39: F L³/(3 EI)."""
        self.assertNear(
            beam.cantilever_tip(100.0, 2.0 - 1e-6, 2.0, 2.0, 5000.0), 100 * 2**3 / (3 * 5000), 1e-5
        )

    def test_tip_under_an_even_load_all_over(self):
        """Timoshenko I, art. 39: w L⁴/(8 EI)."""
        self.assertNear(beam.cantilever_tip(50.0 * 2.0, 0.0, 2.0, 2.0, 5000.0), 50 * 2**4 / (8 * 5000), 1e-9)

    def test_tip_is_the_integral_of_curvature(self):
        """Unit-load theorem: δ = ∫ M m/EI dz, integrated by scipy, of a force at 1.0 m."""
        force, arm, length, stiffness = 98.3, 1.0, 1.83, 5466.0
        integral, _ = quad(lambda z: force * (arm - z) * (length - z) / stiffness, 0, arm)
        self.assertNear(beam.cantilever_tip(force, arm - 1e-3, arm + 1e-3, length, stiffness), integral, 1e-4)

    def test_worked_post_of_the_handbook(self):
        """Structures handbook 4.1: 98.3 N spread over 0.2–1.8 m, 1.83 m post, EI 5466: 15.1 mm."""
        self.assertNear(beam.cantilever_tip(98.3, 0.2, 1.8, 1.83, 5466.0), 0.0151)

    def test_worked_movement_of_post_and_soil(self):
        """Structures handbook 5.5: 60 N at 0.8 m moves the point at 1.8 m by 3.8 mm in soil of k 2.07 MPa and
        5.4 mm in a T-post.
        """
        move, turn = soil.clay_movement(2.07e6, 0.6, 0.8)
        self.assertNear(60 * (move + turn * 1.8), 0.0038, 0.015)
        self.assertNear(beam.cantilever_tip(60.0, 0.8 - 1e-3, 0.8 + 1e-3, 1.8, 5466.0), 0.0054)


class SpanTest(NearTestCase):
    def test_simple_span(self):
        """Structures handbook 9.4 from Timoshenko I: bamboo 20 mm, 50 N/m, 1.2 m: 9.0 N·m and 12.2 mm."""
        self.assertNear(beam.span_moment(50.0, 1.2), 9.0)
        self.assertNear(beam.span_sag(50.0, 1.2, 110.4), 0.0122)

    def test_conduit_span(self):
        """Structures handbook 9.4: ¾ in conduit, 65 N/m, 2.4 m: 46.8 N·m, 26.3 mm."""
        self.assertNear(beam.span_moment(65.0, 2.4), 46.8)
        self.assertNear(beam.span_sag(65.0, 2.4, 1069.0), 0.0263)


class ProppedTest(NearTestCase):
    def test_between_foot_and_prop_and_past_it(self):
        """Unit-load theorem on a beam hinged at foot and prop, integrated by scipy."""
        stiffness = 2562.0
        for arm, prop in ((0.75, 1.4), (1.35, 1.12)):
            foot = 1 - arm / prop

            def moment(z: float, arm: float = arm, prop: float = prop, foot: float = foot) -> float:
                return foot * z - max(z - arm, 0.0) + max(z - prop, 0.0) * arm / prop

            span = [0.0, max(arm, prop)]
            give, _ = quad(lambda z, m=moment: m(z) ** 2 / stiffness, *span, points=[min(arm, prop)])
            self.assertNear(beam.propped_give(arm, prop, stiffness), give, 1e-6)


class ColumnTest(NearTestCase):
    def test_canes_in_compression(self):
        """Structures handbook 9.3, allowable a third of Euler's load: 12 mm cane of 2.0 m 35.3 N, 16 mm of
        1.8 m 137.8 N.
        """
        self.assertNear(column.euler_load(14.31, 2.0), 35.3)
        self.assertNear(column.euler_load(45.24, 1.8), 137.8)

    def test_cantilever_has_a_quarter_of_the_hinged_load(self):
        """Timoshenko & Gere, art. 2.2."""
        self.assertNear(column.euler_load(1000.0, 2.0, 2.0), column.euler_load(1000.0, 2.0) / 4, 1e-9)

    def test_amplification(self):
        """Structures handbook 9.5: W 250 N on a critical 2299 N: 1.122."""
        self.assertNear(column.amplification(250.0, 2299.0), 1.122)

    def test_amplification_covers_the_exact_cantilever(self):
        """Timoshenko & Gere, art. 1.11: a cantilever with a side force at its loaded tip has M = F L
        tan(u)/u, u = π/2 √(W/Wcr).

        1/(1 − W/Wcr) is never below it, and within 6 % up to a third of the critical load.
        """
        for share in (0.05, 0.1, 0.2, 0.3):
            u = math.pi / 2 * math.sqrt(share)
            exact, found = math.tan(u) / u, float(column.amplification(share, 1.0))
            self.assertGreaterEqual(found, exact)
            self.assertNear(found, exact, 0.06)

    def test_no_strength_left_past_the_critical_load(self):
        self.assertTrue(np.all(column.amplification(np.array([100.0, 250.0]), 100.0) > 1e6))
