"""Guys, struts and anchors: structures handbook 7, and by statics."""

from __future__ import annotations

import math

import numpy as np
from ascent import tables
from ascent.checks import tension
from ascent.loads import cases
from ascent.mechanics import ends
from ascent.shapes import earth

from tests.support import NearTestCase, site


class GuyTest(NearTestCase):
    def test_worked_values(self):
        """Structures handbook 7.1, H 1000 N at the guy's height: 30° 1155 / 577, 45° 1414 / 1000, 60° 2000 /
        1732 N.
        """
        for angle, pull, push in ((30, 1155, 577), (45, 1414, 1000), (60, 2000, 1732)):
            tight, down, _ = ends.guy_forces(1000.0, 1.5, 1.5, math.radians(angle))
            self.assertNear(tight, pull)
            self.assertNear(down, push)

    def test_moment_balance(self):
        """The pull's moment about the foot equals the guy's horizontal part times its height."""
        tight, _, _ = ends.guy_forces(800.0, 0.9, 1.3, math.radians(50))
        self.assertNear(tight * math.cos(math.radians(50)) * 1.3, 800 * 0.9, 1e-9)


class StrutTest(NearTestCase):
    def test_worked_values(self):
        """Structures handbook 7.4: H 1000, h 1.5, hs 1.2, a 1.5: 1600.8, 1000, 250; H 800: 1281, 800, 200
        N.
        """
        for pull, push, lift, foot in ((1000.0, 1600.8, 1000, 250), (800.0, 1281, 800, 200)):
            found = ends.strut_forces(pull, 1.5, 1.2, 1.5)
            for value, expected in zip(found, (push, lift, foot), strict=True):
                self.assertNear(value, expected)


class AnchorTest(NearTestCase):
    def test_screw_anchor_when_nothing_is_known(self):
        """Structures handbook 7.6: a 30-inch, 4-inch helix works at 200, 500, 1800, 1200 N in loose, loam,
        clay, gravel.
        """
        anchor = tables.anchors()["anchor_screw_30x4"]
        for soil, working in (("sandy", 200), ("firm_loam", 500), ("firm_clay", 1800), ("gravelly", 1200)):
            (check,) = tension.anchor(
                anchor, tables.soils()[soil], np.full((1, 1, 1), 100.0), math.pi / 4, cases.moist_gusts()
            )
            self.assertNear(check.utilisation, 100 / working, 1e-6)

    def test_skin_friction_against_lifting(self):
        """Structures handbook 5.7: a T-post 0.61 m deep in firm soil has 322 N ultimate (perimeter 0.14
        m).
        """
        ground = earth.ground_of(site().bed, "driven")
        check = tension.uplift(
            tables.posts()["tpost_2.1"], ground, 0.61, np.full((1, 1, 1), 100.0), np.ones((1, 1, 1))
        )
        self.assertNear(np.max(check.allowable), 322 / 2)
        self.assertNear(np.max(check.median), 322 * 2)
