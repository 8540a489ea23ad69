"""Irvine 1981, Cable Structures (from memory): shallow cables, against the handbook's table and against a solved catenary."""

from __future__ import annotations

import math

import numpy as np
from ascent import tables
from ascent.checks import mesh as mesh_checks
from ascent.checks import tension
from ascent.mechanics import cable
from scipy.optimize import brentq

from tests.support import NearTestCase

EA = 993.2e3  # 12.5 gauge steel


def elastic_catenary(load: float, span: float, axial: float, pretension: float) -> tuple[float, float]:
    """Return tension and sag of an elastic catenary (Irvine 1981, eq. 1.27), cut to length at its pretension."""
    unstretched = span / (1 + pretension / axial)

    def misfit(h: float) -> float:
        weight = load * unstretched
        return h * unstretched / axial + 2 * h / load * unstretched / unstretched * math.asinh(weight / (2 * h)) - span

    h = brentq(misfit, 1.0, 1e6)
    weight = load * unstretched
    sag = weight * unstretched / (8 * axial) + h / load * (math.sqrt(1 + (weight / (2 * h)) ** 2) - 1)
    return h, sag


class WireTest(NearTestCase):
    TABLE = {20: (840.8, 1045), 40: (1334, 1523), 65: (1843, 2026), 117: (2725, 2902)}

    def test_rigid_ends(self):
        """Structures handbook 6.4, 12.5 gauge over 6 m, pretension 0 and 500 N."""
        for load, (slack, tight) in self.TABLE.items():
            with self.subTest(load=load):
                self.assertNear(cable.loaded_tension(load, 6.0, 0.0, EA), slack)
                self.assertNear(cable.loaded_tension(load, 6.0, 500.0, EA), tight)

    def test_against_an_elastic_catenary(self):
        for load, pretension in ((20.0, 500.0), (65.0, 500.0), (65.0, 1000.0)):
            expected, sag = elastic_catenary(load, 6.0, EA, pretension)
            found = cable.loaded_tension(load, 6.0, pretension, EA)
            self.assertNear(found, expected)
            self.assertNear(tension.wire_sag(found, np.array(load), 6.0), sag, 0.015)

    def test_springy_ends(self):
        """Structures handbook 6.4, ends of 20 kN/m, pretension 500: 595.4, 743.5, 918.7, 1238 N.

        The handbook lets the ends start from the pretended state and follows the curve's length; the
        product's shallow form is 2 % higher at the deepest sag, on the safe side.
        """
        for load, expected in ((20, 595.4), (40, 743.5), (65, 918.7), (117, 1238)):
            stiffness = cable.effective_stiffness(EA, 20e3, 6.0)
            self.assertNear(cable.loaded_tension(load, 6.0, 500.0, stiffness), expected, 0.025)

    def test_end_stiffness_in_series(self):
        """Two springs of k at the ends and EA/L between: 1/(2/k + L/EA)."""
        together = 1 / (2 / 20e3 + 6.0 / EA)
        self.assertNear(cable.effective_stiffness(EA, 20e3, 6.0) / 6.0, together, 1e-9)

    def test_breaking_loads_of_the_wire_table(self):
        """Structures handbook 6.1: 12.5 gauge soft 1986 N, high-tensile 5811 N; 14 gauge soft 1297 N."""
        for key, breaks in (("wire_soft_125", 1986), ("wire_ht_125", 5811), ("wire_soft_14", 1297), ("wire_soft_9", 4458)):
            row = tables.wires()[key]
            self.assertNear(tension.wire_area(row) * row.break_, breaks)


class MeshMembraneTest(NearTestCase):
    def test_rigid_panel(self):
        """Structures handbook 12: livestock panel in 75 Pa, rigid ends: 1.2 m 342.6 N, 6.0 mm; 2.4 m 543.9 N, 15.1 mm."""
        area = math.pi * 5.715e-3**2 / 4
        for span, pull, belly in ((1.2, 342.6, 0.0060), (2.4, 543.9, 0.0151)):
            deflection, _, tight = cable.beam_cable(75 * 0.152, span, 1e-6, 200e9 * area)
            self.assertNear(tight, pull)
            self.assertNear(deflection, belly, 0.02)

    def test_springy_ends_within_the_shallow_limit(self):
        """Structures handbook 12: concrete mesh in 111 Pa, ends 50 and 5 kN/m a wire, 1.2 m: 80.8 and 38.4 N, 37 and 78 mm.

        5 % is allowed: at 78 mm in 1.2 m the shallow form begins to leave the handbook's full length.
        """
        area = math.pi * 3.77e-3**2 / 4
        for ends, pull, belly in ((50e3, 80.8, 0.037), (5e3, 38.4, 0.078)):
            axial = cable.effective_stiffness(200e9 * area, ends, 1.2)
            deflection, _, tight = cable.beam_cable(111 * 0.152, 1.2, 1e-6, axial)
            self.assertNear(tight, pull, 0.05)
            self.assertNear(deflection, belly, 0.05)

    def test_a_stiff_short_wire_is_a_beam(self):
        """With slack ends the shared load goes back to a simple beam: wS²/8 and 5wS⁴/384EI."""
        deflection, moment, _ = cable.beam_cable(10.0, 1.0, 1000.0, 1e-3)
        self.assertNear(moment, 10.0 / 8, 1e-3)
        self.assertNear(deflection, 5 * 10.0 / (384 * 1000.0), 1e-3)

    def test_weld_strength(self):
        """Structures handbook 12 after ASTM A1064: 241 MPa on 5.715 mm wire is 6182 N."""
        check = mesh_checks.weld(tables.meshes()["panel_large"], np.ones((1, 1, 1)))
        self.assertNear(check.capacity, 6182)


class GaugeTest(NearTestCase):
    def test_twine_working_loads(self):
        """Structures handbook 6.7: sisal works at 45 N a leg at the season's end: 450 × 0.5 × 0.6 / 3."""
        tie = tables.ties()["twine_sisal_loop"]
        self.assertNear(tie.break_N * tie.knot * tie.season_end / tie.factor, 45)
