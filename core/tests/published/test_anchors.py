"""What holds a guy: structures handbook 7.2, 7.3, 7.6; Das; Meyerhof & Adams; and by statics."""

from __future__ import annotations

import math

import numpy as np
from ascent import tables
from ascent.checks import tension
from ascent.loads import cases
from ascent.mechanics import anchors, ends, lodging
from scipy.integrate import quad

from tests.support import NearTestCase

DEGREE = math.pi / 180


class LeaningPostTest(NearTestCase):
    def test_worked_values(self):
        """7.2: H 2000, ψ 70°, β 45°: T 2073.7, N 1560.4, foot 533.7; H 800, ψ 75°: 892.3, 653.2, 169.1."""
        for pull, lean, expected in (
            (2000.0, 70, (2073.7, 1560.4, 533.7)),
            (800.0, 75, (892.3, 653.2, 169.1)),
        ):
            for found, value in zip(
                ends.leaning_forces(pull, 0.0, lean * DEGREE, 45 * DEGREE), expected, strict=True
            ):
                self.assertNear(found, value)

    def test_joint_is_in_balance(self):
        """At the top of the post guy, post, pull and weight cancel, whatever the angles."""
        for lean, angle, weight in ((65, 40, 120.0), (80, 55, 0.0)):
            tight, push, foot = ends.leaning_forces(900.0, weight, lean * DEGREE, angle * DEGREE)
            self.assertNear(push * math.cos(lean * DEGREE), foot, 1e-9)
            self.assertNear(push * math.sin(lean * DEGREE), tight * math.sin(angle * DEGREE) + weight, 1e-9)
            self.assertNear(tight * math.cos(angle * DEGREE) + push * math.cos(lean * DEGREE), 900.0, 1e-9)

    def test_an_upright_post_is_a_guyed_one(self):
        tight, push, foot = ends.leaning_forces(1000.0, 0.0, math.pi / 2, 45 * DEGREE)
        self.assertNear(tight, 1414)
        self.assertNear(push, 1000)
        self.assertLess(abs(foot), 1e-9)


class BraceTest(NearTestCase):
    def test_worked_values(self):
        """7.3: H 2000, h 1.2, L 2.4: rail 2000, wire 2236, uplift 1000; H 800: 800, 894, 400."""
        for pull, expected in ((2000.0, (2000, 2236, 1000)), (800.0, (800, 894, 400))):
            for found, value in zip(ends.brace_forces(pull, 1.2, 1.2, 2.4), expected, strict=True):
                self.assertNear(found, value)


class DeadmanTest(NearTestCase):
    def test_worked_values(self):
        """7.6: 30 kg at 0.40 m in 30°, 16 kN/m³: 1062 N up, 2240 N along; 60 kg at 0.50 m in 32°, 17 kN/m³:
        2629 and 5862 N.
        """
        for given, up, along in (
            ((30, 0.4, 0.25, 0.4, 0.3, 30, 16e3), 1062, 2240),
            ((60, 0.5, 0.3, 0.6, 0.4, 32, 17e3), 2629, 5862),
        ):
            found = anchors.deadman(*given[:5], given[5] * DEGREE, given[6])
            self.assertNear(found.up, up)
            self.assertNear(found.along, along)

    def test_allowed_at_a_guy_of_45_degrees(self):
        """7.6 has the prism straight above, 1001.5 N at 45°; ours takes the earth that comes up with it,
        widening by 20° a side.

        The frustum between 0.4 × 0.3 m and what it has become 0.4 m higher, integrated slice by slice. Drag
        as in 7.6.
        """
        row, soil = tables.anchors()["deadman_stones_30"], tables.soils()["firm_loam"]
        slope = 2 * math.tan(20 * DEGREE)
        up = 30 * 9.81 + 17e3 * quad(lambda z: (0.4 + slope * z) * (0.3 + slope * z), 0.0, 0.4)[0]
        along = (3 - 1 / 3) * 17e3 * 0.4 * (0.65**2 - 0.40**2) / 2
        held = tension.anchor_strength(row, soil, 45 * DEGREE)
        self.assertNear(held.allowable, min(up, along) / math.sin(45 * DEGREE) / 1.5, 0.002)
        lift, drag = tension.anchor(row, soil, np.full((1, 1, 1), 1000.0), 45 * DEGREE, cases.moist_gusts())
        self.assertNear(lift.utilisation, 1000 * math.sin(45 * DEGREE) / (up / 1.5), 0.002)
        self.assertNear(lift.median_utilisation, 1000 * math.sin(45 * DEGREE) / up, 0.002)
        self.assertAlmostEqual(float(drag.utilisation[0, 0, 0]), 0.474, delta=0.04)


class TableTest(NearTestCase):
    """The working pulls of anchors.csv against formulas that nothing in the product uses."""

    def test_screw_in_firm_clay(self):
        """Das, Earth Anchors (value from memory): Qu = A cu Nc, Nc = min(9, 1.2 H/D); D 0.1016, H 0.70 m;
        working = Qu/2 within a tenth.
        """
        cu, area = tables.soils()["firm_clay"].cu, math.pi * 0.1016**2 / 4
        self.assertNear(
            tables.anchors()["anchor_screw_30x4"].clay_N, area * cu * min(9.0, 1.2 * 0.70 / 0.1016) / 2, 0.1
        )

    def test_driven_bar(self):
        """7.6: 12 mm bar 0.6 m in firm loam, guy at 45°, 623.3 N across, 103.7 along, leaning 30°: 1/(sin δ/H
        + cos δ/Q), half of it.
        """
        delta = math.radians(90 - 45 + 30)
        self.assertNear(
            tables.anchors()["stake_guy_rebar"].loam_N,
            0.5 / (math.sin(delta) / 623.3 + math.cos(delta) / 103.7),
        )


class WeightTest(NearTestCase):
    def test_weight_on_the_ground(self):
        """7.6: 20 kg, μ 0.45, β 0/30/45/60°: 88.3, 80.9, 86.1, 99.2 N; 25 kg bag, μ 0.5: 122.6, 109.9, 115.6,
        131.4.
        """
        for mass, friction, row in (
            (20, 0.45, (88.3, 80.9, 86.1, 99.2)),
            (25, 0.5, (122.6, 109.9, 115.6, 131.4)),
        ):
            for angle, expected in zip((0, 30, 45, 60), row, strict=True):
                slides, lifts = anchors.weight_on_ground(mass * 9.81, friction, angle * DEGREE)
                self.assertNear(min(slides, lifts), expected)

    def test_a_bag_that_only_lies_there(self):
        """7.6: 25 kg, μ 0.5, a guy at 45°: 115.6 N, of which two thirds are allowed."""
        (check,) = tension.anchor(
            tables.anchors()["weight_bag_25"],
            tables.soils()["firm_loam"],
            np.full((1, 1, 1), 60.0),
            45 * DEGREE,
            cases.moist_gusts(),
        )
        self.assertNear(check.allowable, 115.6 / 1.5)
        self.assertNear(check.median, 115.6)


class LodgingTest(NearTestCase):
    def test_root_plate(self):
        """Baker and others 1998 (value from memory): a wheat root plate of 40 mm in soil of 25 kPa turns at
        about 0.7 N·m.
        """
        self.assertNear(lodging.root_anchorage(25e3, 0.04), 0.688)

    def test_a_plant_that_bends_sheds_wind(self):
        """Vogel 1989: with an exponent of −1 drag grows with the first power of speed."""
        speeds = np.array([10.0, 20.0])
        drag = speeds**2 * lodging.free_streamlining(speeds)
        self.assertNear(drag[1] / drag[0], 2.0, 1e-9)

    def test_rows_behind_rows(self):
        """Structures handbook 1.6: the sum over n rows is 1 + 0.4 (n − 1)."""
        self.assertNear(lodging.row_shelter(4, 0.4) * 4, 2.2, 1e-9)
