"""Shade by its symmetries: morning and afternoon, north and south, more leaves and fewer."""

from __future__ import annotations

import unittest

import numpy as np
from ascent.ground.shade import Canopy, day_hours, hours_of_sun, shadows_of, sun_at
from ascent.plan.bed import Bed
from ascent.plan.fields import day_of_year
from ascent.plan.garden import Garden
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

FEW = settings(max_examples=12, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))
DAYS = st.integers(1, 365)
LATITUDES = st.floats(25, 60)


def sheet(x0: float, y0: float, x1: float, y1: float, top: float = 1.8, cover: float = 1.0) -> Canopy:
    corners = np.array([[x0, y0, 0.0], [x1, y1, 0.0], [x1, y1, top], [x0, y0, top]])
    return Canopy("row", corners, cover)


def lost(latitude: float, day: int, leaves: list[Canopy], x: float, y: float) -> float:
    bed = Bed(key="b", name="b", length=2.0, width=0.8, x=x, y=y)
    return hours_of_sun(Garden(name="g", latitude=latitude, beds=(bed,)), leaves, day)[0].lost


class SymmetryTest(unittest.TestCase):
    @given(LATITUDES, DAYS, st.floats(0.5, 5.5))
    @FEW
    def test_the_sun_stands_as_high_before_noon_as_after(self, latitude, day, hours):
        (before, after), (east, west) = sun_at(latitude, day, np.array([12.0 - hours, 12.0 + hours]))
        self.assertAlmostEqual(before, after, delta=0.25)  # its declination moves on in between
        self.assertAlmostEqual(east, 360.0 - west, delta=0.5)

    @given(LATITUDES, DAYS)
    @FEW
    def test_a_row_that_runs_north_takes_as_much_from_the_west_as_from_the_east(self, latitude, day):
        row = [sheet(0, -6, 0, 6)]
        self.assertAlmostEqual(
            lost(latitude, day, row, -1.5, 0.0), lost(latitude, day, row, 1.5, 0.0), delta=0.26
        )

    @given(st.floats(38, 60), DAYS)
    @FEW
    def test_half_a_year_and_the_other_hemisphere_turn_the_shade_round(self, latitude, day):
        row = [sheet(-6, 0, 6, 0)]
        north = lost(latitude, day, row, 0.0, 1.0)
        south = lost(-latitude, (day + 182) % 365 + 1, row, 0.0, -1.0)
        self.assertAlmostEqual(
            north, south, delta=2.0
        )  # the seasons are not quite of one length, and near the equinox a day counts

    @given(LATITUDES, DAYS, st.floats(0.1, 0.9), st.floats(0.5, 2.5))
    @FEW
    def test_more_leaf_and_more_height_never_give_more_sun(self, latitude, day, cover, top):
        thin, dense = (
            lost(latitude, day, [sheet(-5, 0, 5, 0, top, share)], 0.0, 1.0)
            for share in (cover, min(cover + 0.1, 1.0))
        )
        tall = lost(latitude, day, [sheet(-5, 0, 5, 0, top + 0.4, cover)], 0.0, 1.0)
        self.assertLessEqual(thin, dense + 1e-9)
        self.assertLessEqual(thin, tall + 1e-9)

    @given(LATITUDES, DAYS, st.integers(1, 6))
    @FEW
    def test_no_more_is_taken_than_there_is(self, latitude, day, count):
        rows = [sheet(-4, n * 0.3, 4, n * 0.3) for n in range(count)]
        bed = Bed(key="b", name="b", length=2.0, width=0.8, y=1.0)
        (sun,) = hours_of_sun(Garden(name="g", latitude=latitude, beds=(bed,)), rows, day)
        self.assertTrue(0.0 <= sun.lost <= sun.open <= 24.0)

    def test_a_shadow_is_as_long_as_the_sun_is_low(self):
        """A stick of 1 m throws 1 m at 45° and 1.73 m at 30°; common knowledge, no source."""
        for altitude, length in ((45.0, 1.0), (30.0, 1.7321), (60.0, 0.5774)):
            (shape,) = shadows_of([sheet(0, 0, 1, 0, top=1.0)], altitude, 180.0)
            self.assertAlmostEqual(shape.bounds[3], length, places=3)

    def test_the_day_is_looked_at_evenly_about_noon(self):
        """Sun time: what is before noon is mirrored after it."""
        hours, heights, _ = day_hours(50.0, 172)
        np.testing.assert_allclose(hours + hours[::-1], 24.0, atol=1e-9)
        np.testing.assert_allclose(heights, heights[::-1], atol=0.3)

    def test_midsummer_is_longer_than_midwinter_north_and_shorter_south(self):
        for latitude, longer in ((50.0, "06-21"), (-50.0, "12-21")):
            shorter = "12-21" if longer == "06-21" else "06-21"
            long, short = (
                hours_of_sun(
                    Garden(name="g", latitude=latitude, beds=(Bed(key="b", name="b", length=1, width=1),)),
                    [],
                    day_of_year(d),
                )[0].open
                for d in (longer, shorter)
            )
            self.assertGreater(long, short + 6)


class RaysTest(unittest.TestCase):
    """Hours of sun against a ray from each of many spots to the sun, every three minutes."""

    def ray(
        self, latitude: float, day: int, leaves: list[Canopy], home: Bed, ground: float
    ) -> tuple[float, float]:
        """Return the hours the sun is above 5° and what the leaves take of them, mean over a bed."""
        hours = np.arange(0.025, 24.0, 0.05)
        heights, azimuths = sun_at(latitude, day, hours)
        up = heights > 5.0  # season handbook 12
        along, across = np.meshgrid(
            (np.arange(24) + 0.5) / 24 * home.length - home.length / 2,
            (np.arange(12) + 0.5) / 12 * home.width - home.width / 2,
        )
        turn = np.radians(home.bearing)
        x = (
            home.x + along * np.sin(turn) - across * np.cos(turn)
        )  # a bearing counts from north clockwise; left of a row north is west
        y = home.y + along * np.cos(turn) + across * np.sin(turn)
        lost = np.zeros(x.shape)
        for height, azimuth in zip(np.radians(heights[up]), np.radians(azimuths[up]), strict=True):
            to_sun = np.array(
                [np.cos(height) * np.sin(azimuth), np.cos(height) * np.cos(azimuth), np.sin(height)]
            )
            through = np.ones(x.shape)
            for leaf in leaves:
                (x0, y0, low), (x1, y1, _), (_, _, top), _ = leaf.corners
                long = np.hypot(x1 - x0, y1 - y0)
                way = np.array([x1 - x0, y1 - y0]) / long
                facing = to_sun[0] * way[1] - to_sun[1] * way[0]
                if abs(facing) < 1e-9:
                    continue
                reach = (
                    (x0 - x) * way[1] - (y0 - y) * way[0]
                ) / facing  # along the ray, to the sheet's plane
                place = (x + reach * to_sun[0] - x0) * way[0] + (y + reach * to_sun[1] - y0) * way[1]
                z = ground + reach * to_sun[2]
                hit = (reach > 0) & (place >= 0) & (place <= long) & (z >= low) & (z <= top)
                through = np.where(hit, through * (1 - leaf.cover), through)
            lost += (1 - through) * 0.05
        return float(up.sum() * 0.05), float(lost.mean())

    def test_one_row_and_two_by_many_rays(self):
        for latitude, day, bearing, raised in (
            (48.0, 172, 90.0, 0.0),
            (48.0, 265, 90.0, 0.4),
            (52.0, 230, 35.0, 0.0),
            (-35.0, 15, 300.0, 0.2),
        ):
            kind = {"kind": "raised", "fill_depth": raised} if raised else {}
            home = Bed(key="b", name="b", length=4.0, width=1.2, x=0.5, y=0.8, bearing=bearing, **kind)
            self.assertAlmostEqual(home.raised_by, raised)
            leaves = [sheet(-2, 0, 3, 0, cover=0.7), sheet(-2, 2.6, 2.5, 3.0, top=2.2, cover=0.5)]
            (found,) = hours_of_sun(Garden(name="g", latitude=latitude, beds=(home,)), leaves, day)
            hours, taken = self.ray(latitude, day, leaves, home, raised)
            with self.subTest(latitude=latitude, day=day):
                self.assertAlmostEqual(found.open, hours, delta=0.26)
                self.assertGreater(taken, 0.3)
                self.assertAlmostEqual(found.lost, taken, delta=max(0.05 * taken, 0.1))
