"""The sun's place and shadows against the textbook's formulas and tables of hours of sun beside a row."""

from __future__ import annotations

import numpy as np
from ascent.ground import shade
from ascent.ground.plot import laid_out
from ascent.plan.bed import Bed
from ascent.plan.fields import day_of_year
from ascent.plan.garden import Garden

from tests.support import NearTestCase, demo, fence


class SunTest(NearTestCase):
    def test_noon_height_is_ninety_less_latitude_and_declination(self):
        """Cooper 1969: declination 23.45° sin(360° (284 + N) / 365); value from memory, good to 0.5° (two
        days at the equinox).
        """
        for date in ("01-15", "03-21", "05-01", "06-21", "08-15", "09-22", "12-21"):
            day = day_of_year(date)
            declination = 23.45 * np.sin(np.radians(360 * (284 + day) / 365))
            for latitude in (-35.0, 0.0, 30.0, 51.0):
                (height,), (azimuth,) = shade.sun_at(latitude, day, np.array([12.0]))
                self.assertAlmostEqual(height, 90 - abs(latitude - declination), delta=1.1)
                if abs(latitude - declination) > 2:
                    self.assertAlmostEqual(
                        np.cos(np.radians(azimuth)), -1.0 if latitude > declination else 1.0, delta=0.05
                    )

    def test_length_of_a_shadow(self):
        """Project season handbook 12, from the same textbook formulas: length per metre at noon and 3 h from
        it.
        """
        for date, latitude, noon, later in (
            ("05-01", 30, 0.27, 0.96),
            ("05-01", 50, 0.70, 1.21),
            ("06-21", 40, 0.30, 0.87),
            ("08-15", 40, 0.49, 1.08),
            ("08-15", 50, 0.73, 1.25),
            ("09-22", 40, 0.86, 1.58),
        ):
            heights, _ = shade.sun_at(latitude, day_of_year(date), np.array([12.0, 15.0]))
            found = 1 / np.tan(np.radians(heights))
            self.assertNear(
                found[0], noon, 0.04
            )  # the textbook's declination is up to 0.6° off; two figures given
            self.assertNear(found[1], later, 0.03)

    def test_the_sun_rises_in_the_east_and_is_up_twelve_hours_at_the_equinox(self):
        """Common knowledge, no source."""
        hours = np.linspace(4, 20, 400)
        heights, azimuths = shade.sun_at(51.0, day_of_year("03-20"), hours)
        up = heights > 0
        self.assertAlmostEqual(np.ptp(hours[up]), 12.0, delta=0.15)
        self.assertAlmostEqual(azimuths[up][0], 90.0, delta=2.0)

    def test_the_day_at_midsummer(self):
        """Almanac: 16 h 38 min from sunrise to sunset at 51.5° N on 21 June, refraction included (7 min of
        it); value from memory.
        """
        hours = np.linspace(2, 22, 2400)
        heights, _ = shade.sun_at(51.5, day_of_year("06-21"), hours)
        self.assertAlmostEqual(np.ptp(hours[heights > -0.833]), 16.63, delta=0.05)


class HoursOfSunTest(NearTestCase):
    """Strips beside a solid row without end, project season handbook 12: hours of sun left at x/h from the
    foot.
    """

    def left(
        self, date: str, latitude: float, bearing: float, side: float, share: float
    ) -> tuple[float, float]:
        """Return hours under an open sky, and left at that share of the row's height to its left (1) or right
        (−1).
        """
        day, height, half = day_of_year(date), 1.0, 60.0
        angle = np.radians(bearing)
        ends = np.array([-1, 1])[:, None] * half * np.array([[np.sin(angle), np.cos(angle)]])
        corners = np.array([[*ends[0], 0.0], [*ends[1], 0.0], [*ends[1], height], [*ends[0], height]])
        off = side * share * height * np.array([-np.cos(angle), np.sin(angle)])
        strip = Bed(
            key="s", name="s", length=0.3, width=0.2, bearing=bearing, x=float(off[0]), y=float(off[1])
        )
        (sun,) = shade.hours_of_sun(
            Garden(name="g", latitude=latitude, beds=(strip,)), [shade.Canopy("row", corners, 1.0)], day
        )
        return sun.open, sun.open - sun.lost

    def test_table(self):
        north_south, east_west = 0.0, 90.0
        for date, latitude, bearing, side, open_sky, expected in (
            ("06-21", 40, north_south, 1, 13.9, {0.25: 7.9, 0.5: 8.8, 1.0: 10.3, 1.5: 11.3}),
            ("06-21", 40, north_south, -1, 13.9, {0.25: 7.9, 1.0: 10.3}),
            ("06-21", 40, east_west, -1, 13.9, {0.5: 10.5, 1.0: 11.7}),
            ("08-15", 50, north_south, 1, 13.2, {0.25: 7.4, 1.0: 9.4, 1.5: 10.3}),
            ("08-15", 50, east_west, 1, 13.2, {1.0: 13.2}),
            ("09-22", 40, east_west, 1, 11.1, {0.25: 0.0, 0.5: 0.0, 1.0: 11.1}),
        ):
            for share, hours in expected.items():
                found_open, found = self.left(date, latitude, bearing, side, share)
                self.assertAlmostEqual(found_open, open_sky, delta=0.3)
                # quarter hours, a strip of some width, and the textbook's declination
                self.assertAlmostEqual(found, hours, delta=0.45, msg=f"{date} {latitude}° {bearing}° {share}")

    def test_half_the_leaves_take_half_the_hours(self):
        garden = Garden(name="g", latitude=40.0, beds=(Bed(key="s", name="s", length=4.0, width=1.0, y=0.6),))
        corners = np.array([[-9, 0, 0], [9, 0, 0], [9, 0, 1.8], [-9, 0, 1.8]], dtype=float)
        whole, half = (
            shade.hours_of_sun(garden, [shade.Canopy("r", corners, cover)], 230)[0].lost
            for cover in (1.0, 0.5)
        )
        self.assertNear(half, whole / 2, 1e-6)

    def test_two_rows_in_line_take_no_more_than_the_sun_there_is(self):
        """Several obstacles: union of blocked hours, not the sum (project season handbook 12)."""
        garden = Garden(name="g", latitude=40.0, beds=(Bed(key="s", name="s", length=2.0, width=0.4, y=0.3),))
        corners = np.array([[-9, 0, 0], [9, 0, 0], [9, 0, 1.8], [-9, 0, 1.8]], dtype=float)
        one = shade.hours_of_sun(garden, [shade.Canopy("r", corners, 1.0)], 260)[0].lost
        two = shade.hours_of_sun(garden, [shade.Canopy("r", corners, 1.0)] * 2, 260)[0].lost
        self.assertNear(two, one, 1e-9)


class ShadeTest(NearTestCase):
    def test_a_fence_throws_its_shadow_away_from_the_sun(self):
        garden = demo()
        found = shade.shade_of(garden, laid_out(garden), "08-10", 12.0)
        self.assertGreater(found.altitude, 45)
        self.assertAlmostEqual(found.rises + found.sets, 24.0)  # sun time: as long before noon as after
        row = next(s for s in found.shadows if s.structure == "lantern-row")
        self.assertGreater(max(y for _, y in row.outline), 5.2 + 0.5)
        self.assertGreaterEqual(min(y for _, y in row.outline), 5.2 - 0.01)

    def test_a_sun_that_is_hardly_up_throws_no_shadow(self):
        """Common practice, no source: below a degree what stands round a garden hides it."""
        garden = demo()
        laid, hours = laid_out(garden), np.linspace(3.0, 9.0, 361)
        heights, _ = shade.sun_at(garden.latitude, day_of_year("08-10"), hours)
        for height, thrown in ((0.8, False), (1.2, True)):
            hour = float(np.interp(height, heights, hours))
            self.assertEqual(bool(shade.shade_of(garden, laid, "08-10", hour).shadows), thrown)

    def test_before_planting_and_at_night_there_is_none(self):
        garden = demo()
        laid = laid_out(garden)
        self.assertEqual(shade.shade_of(garden, laid, "01-10", 12.0).shadows, ())
        night = shade.shade_of(garden, laid, "08-10", 0.5)
        self.assertLess(night.altitude, 0)
        self.assertEqual(night.shadows, ())
        self.assertTrue(
            any(sun.lost > 0.5 for sun in night.beds), "the day's hours do not hang on the hour looked at"
        )

    def test_a_raised_bed_is_shaded_less(self):
        beds = [
            Bed(key="low", name="low", length=4.0, width=1.2, structures=(fence(),)),
            Bed(key="seen", name="seen", length=4.0, width=1.2, y=1.3),
        ]
        flat = Garden(name="g", latitude=50.0, beds=tuple(beds))
        high = flat.model_copy(
            update={"beds": (beds[0], beds[1].model_copy(update={"kind": "raised", "fill_depth": 0.6}))}
        )
        lost = [shade.shade_of(g, laid_out(g), "08-15", 12.0).beds[1].lost for g in (flat, high)]
        self.assertGreater(lost[0], lost[1])
