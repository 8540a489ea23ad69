"""Heat and frost against the season handbook, the definition of a sine day, and an ephemeris."""

from __future__ import annotations

import datetime as dt
import math
import unittest

import ephem
import numpy as np
from ascent.ground.shade import sun_at
from ascent.mechanics import heat
from scipy.integrate import quad

from tests.support import NearTestCase


class DegreeDaysTest(NearTestCase):
    """Season handbook 2; Baskerville & Emin 1969."""

    def test_the_mean_of_a_warm_day(self):
        """A day of 55 to 85 °F has 20 degree days (F) over 50 °F: the extension sheets' own example, value
        from memory.
        """
        low, high, base = ((f - 32) / 1.8 for f in (55.0, 85.0, 50.0))
        self.assertNear(heat.degree_days(low, high, base, 40.0) * 1.8, 20.0)

    def test_a_tomato_of_seventy_days_at_eighteen_degrees(self):
        """Season handbook 2: at 18 °C it needs 70 · 12/8 = 105 days, with its reference of 22 °C."""
        need = 70 * (22.0 - 10.0)
        self.assertNear(need / float(heat.degree_days(18.0, 18.0, 10.0, 30.0)), 105.0)

    def test_a_sine_day_is_the_area_under_it(self):
        """By its definition, integrated numerically."""
        for low, high, base, upper in ((4, 21, 10, 30), (12, 35, 10, 30), (14, 20, 10, 30), (-5, 8, 10, 30)):
            mean, half = (low + high) / 2, (high - low) / 2

            def day(turn: float, mean=mean, half=half, base=base, upper=upper) -> float:
                return min(max(mean + half * math.sin(2 * math.pi * turn), base), upper) - base

            area, _ = quad(day, 0.0, 1.0, limit=200)
            with self.subTest(low=low, high=high):
                self.assertAlmostEqual(
                    float(heat.sine_degree_days(low, high, base, upper)), area, delta=0.005
                )

    def test_both_ways_agree_where_a_day_stays_between(self):
        sine = heat.sine_degree_days(12.0, 24.0, 10.0, 30.0)
        self.assertNear(sine, float(heat.degree_days(12.0, 24.0, 10.0, 30.0)), 1e-6)

    def test_soil_follows_air(self):
        """After three time constants of warmer air it has come 95 % of the way: the law of a leaky store."""
        air = np.concatenate((np.full(100, 5.0), np.full(24, 15.0)))
        self.assertAlmostEqual(float(heat.soil_temperature(air)[-1]), 15.0 - 10.0 * math.exp(-3), delta=0.05)


class FrostTest(NearTestCase):
    """Season handbook 1: dates with a risk left."""

    def test_shifts(self):
        for risk, shift in ((0.5, 0.0), (0.3, 0.52), (0.2, 0.84), (0.1, 1.28), (0.05, 1.64)):
            self.assertAlmostEqual(heat.frost_shift(risk, 1.0), shift, delta=0.006)

    def test_chance_after_a_week(self):
        """A week after the median with a spread of ten days: 1 − Φ(0.7) = 24 %, any table of the normal
        law.
        """
        self.assertAlmostEqual(float(heat.frost_chance_after(7.0, 10.0)), 0.242, delta=0.001)


class SunTest(unittest.TestCase):
    """Against an ephemeris: heights of the sun, length of day, on both halves of the earth."""

    def test_heights(self):
        for latitude in (51.0, 25.8, -37.8):
            for day in (80, 172, 221, 355):
                date = dt.date(2025, 1, 1) + dt.timedelta(days=day - 1)
                place = ephem.Observer()
                place.lat, place.lon, place.pressure = str(latitude), "0", 0
                place.date = f"{date} 00:00"
                noon = place.next_transit(ephem.Sun())
                for hour in (9.0, 12.0, 15.0):
                    place.date = noon + (hour - 12.0) / 24.0
                    expected = math.degrees(float(ephem.Sun(place).alt))
                    found, _ = sun_at(latitude, day, np.array([hour]))
                    with self.subTest(latitude=latitude, day=day, hour=hour):
                        self.assertAlmostEqual(float(found[0]), expected, delta=0.4)

    def test_length_of_day(self):
        hours = np.arange(0.0, 24.0, 1 / 60)
        for latitude, day in ((51.0, 172), (51.0, 355), (-37.8, 355), (0.0, 80)):
            date = dt.date(2025, 1, 1) + dt.timedelta(days=day - 1)
            place = ephem.Observer()
            place.lat, place.lon, place.pressure, place.horizon = str(latitude), "0", 0, "0"
            place.date = f"{date} 12:00"
            up = place.next_setting(ephem.Sun(), use_center=True) - place.previous_rising(
                ephem.Sun(), use_center=True
            )
            heights, _ = sun_at(latitude, day, hours)
            with self.subTest(latitude=latitude, day=day):
                self.assertAlmostEqual(float(np.mean(heights > 0)) * 24, float(up) * 24, delta=0.12)
