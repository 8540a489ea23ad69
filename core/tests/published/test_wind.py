"""Wind: ASCE 7-16 and EN 1991-1-4 (from memory), the structures handbook's pressures, and the WMO's Beaufort
scale.
"""

from __future__ import annotations

import numpy as np
from ascent import tables
from ascent.loads import face
from ascent.mechanics import wind
from ascent.words import quantities

from tests.support import NearTestCase, site


class PressureTest(NearTestCase):
    def test_velocity_pressure(self):
        """ASCE 7-16 eq. 26.10-1: q = 0.613 V² (standard air); handbook 1.1: 15 m/s 137.8 Pa, 25 m/s 382.8
        Pa.
        """
        self.assertNear(wind.gust_pressure(1.0), 0.613)
        self.assertNear(wind.gust_pressure(15.0), 137.8)
        self.assertNear(wind.gust_pressure(25.0), 382.8)

    def test_solidity_of_meshes(self):
        """Structures handbook 1.5, worked: livestock panel 0.0646, reinforcing mesh 0.0489, welded roll
        0.0592.
        """
        self.assertNear(wind.mesh_solidity(5.715e-3, 0.203, 0.152), 0.0646)
        self.assertNear(wind.mesh_solidity(3.77e-3, 0.152, 0.152), 0.0489)
        self.assertNear(wind.mesh_solidity(2.0e-3, 0.100, 0.050), 0.0592)
        self.assertNear(wind.mixed_solidity(0.0646, 0.6), 0.6258)

    def test_drag_joins_lattice_and_sign(self):
        """ASCE 7-16 Fig. 29.4-2 (lattice, Cf·ε) and Fig. 29.3-1 (solid sign): the table's points and the line
        between two.
        """
        for solidity, drag in ((0.05, 0.10), (0.3, 0.50), (0.7, 1.12), (1.0, 1.40), (0.4, 0.655)):
            self.assertNear(face.drag_coefficient(np.array(solidity)), drag)

    def test_leafy_pressure_table(self):
        """Structures handbook 1.5, pressure on the gross face by gust and leaf cover."""
        table = {
            5: (5.4, 10.0, 14.8, 18.6, 20.7), 8: (13.7, 25.7, 37.8, 47.6, 53.1),
            12: (26.3, 49.1, 72.4, 91.0, 101.5), 15: (37.5, 70.2, 103.4, 130.0, 145.0),
            20: (59.4, 111.2, 163.9, 206.0, 229.8), 30: (113.7, 212.8, 313.5, 394.2, 439.7),
        }  # fmt: skip
        for gust, row in table.items():
            for cover, expected in zip((0.2, 0.4, 0.6, 0.8, 0.95), row, strict=True):
                with self.subTest(gust=gust, cover=cover):
                    self.assertNear(
                        face.leafy_pressure(np.array(float(gust)), 0.0, np.array(cover)), expected
                    )

    def test_panel_with_and_without_leaf(self):
        """Structures handbook 1.5: livestock panel with leaf 0.6 and bare, 15 and 25 m/s."""
        for gust, leafy, bare in ((15.0, 111.7, 17.8), (25.0, 262.0, 49.5)):
            self.assertNear(face.leafy_pressure(np.array(gust), 0.0646, np.array(0.6)), leafy)
            self.assertNear(face.leafy_pressure(np.array(gust), 0.0646, np.array(0.0)), bare)

    def test_streamlining(self):
        """Structures handbook 1.5: ψ 1 at 8 m/s, 0.778 at 15, 0.589 at 30, never below 0.5."""
        for speed, share in ((5, 1.0), (8, 1.0), (15, 0.778), (30, 0.589), (60, 0.5)):
            self.assertNear(wind.reconfiguration(float(speed)), share)


class GustClimateTest(NearTestCase):
    def test_return_periods(self):
        """EN 1991-1-4 eq. 4.2 with K 0.2, n 0.5, anchored at ten seasons: handbook 1.4."""
        for seasons, share in ((2, 0.860), (5, 0.947), (10, 1.0), (20, 1.048), (50, 1.108)):
            self.assertNear(wind.seasonal_share(1 - 1 / seasons), share)

    def test_against_the_code_factor_at_fifty_years(self):
        """EN 1991-1-4 cprob: T 2 → 0.776, 10 → 0.903, 100 → 1.038; only the anchor differs."""
        ten = 0.903
        for years, share in ((2, 0.776), (10, 0.903), (100, 1.038)):
            self.assertNear(wind.seasonal_share(1 - 1 / years) * ten, share, 0.002)

    def test_weekly_maximum(self):
        """Structures handbook 1.4: of 20 weeks 0.402 (10 %), 0.572 (median), 0.766 (90 %)."""
        for p, share in ((0.1, 0.402), (0.5, 0.572), (0.9, 0.766)):
            self.assertNear(wind.seasonal_share(p, 20), share)

    def test_design_and_working_wind_of_exposures(self):
        """Structures handbook 1.4 and 1.6: 10, 15, 20, 25 m/s; working wind 8 m/s at an ordinary site, at
        least 5.
        """
        self.assertEqual([row.design_gust_m_s for row in tables.exposures().values()], [10, 15, 20, 25])
        self.assertNear(site().serviceability_wind, 8.25)
        self.assertNear(site(exposure="sheltered").serviceability_wind, 5.5)


class BeaufortTest(NearTestCase):
    def test_scale(self):
        """WMO: force 7 is 13.9 to 17.1 m/s at 10 m, force 8 17.2 to 20.7."""
        for number, low, high in (
            (3, 3.4, 5.4),
            (5, 8.0, 10.7),
            (7, 13.9, 17.1),
            (8, 17.2, 20.7),
            (10, 24.5, 28.4),
        ):
            self.assertEqual(quantities.beaufort(low), number)
            self.assertEqual(quantities.beaufort(high), number)
            self.assertTrue(low <= quantities.beaufort_mean(number) <= high)
