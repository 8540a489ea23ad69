"""Real daily records that general packages carry, against the climate made, the frosts and the gust law."""

from __future__ import annotations

import datetime as dt
import unittest
import warnings
from functools import cache
from pathlib import Path

import numpy as np
import pvlib
from ascent.files.weather import Day, frosts_in, recorded
from ascent.mechanics import heat, wind
from ascent.plan.climate import Normal, Warmth
from ascent.plan.place import Place
from ascent.season.windows import outlook
from ascent.weather.climate import climate_of, made, years_of
from ascent.weather.climate import recorded as read_between
from ascent.weather.course import turn_of
from vega_datasets import data

STATIONS = Path(pvlib.__file__).parent / "data"


@cache
def coast() -> tuple[Day, ...]:
    """Return four years of days of a coastal city at 47.6° north (vega_datasets: seattle-weather)."""
    rows = data.seattle_weather()
    return tuple(
        Day(day=row.date.date(), low=row.temp_min, high=row.temp_max, rain=row.precipitation)
        for row in rows.itertuples()
    )


@cache
def typical(name: str) -> tuple[Day, ...]:
    """Return a typical year of a station by days (pvlib), each month of its own year, as if of one."""
    path = STATIONS / name
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        if name.endswith("tm2"):
            values = pvlib.iotools.read_tmy2(str(path))[0]["DryBulb"].to_numpy(dtype=float) / 10.0
        else:
            hours, _ = pvlib.iotools.read_tmy3(str(path), map_variables=True)
            values = hours["temp_air"].to_numpy(dtype=float)
    first = dt.date(2001, 1, 1)
    by_day = values[: 365 * 24].reshape(365, 24)
    return tuple(
        Day(day=first + dt.timedelta(days=n), low=float(day.min()), high=float(day.max()), rain=0.0)
        for n, day in enumerate(by_day)
    )


class CoastTest(unittest.TestCase):
    """A coastal city: frosts, heat, gusts."""

    def test_frosts(self):
        """The city's airport has its last frost about 17 March and its first about 17 November (climate
        normals, value from memory); the middle of four years lies within four weeks of it.
        """
        lasts, firsts = frosts_in(coast(), north=True)
        self.assertEqual(len(lasts), 4)
        for days, month in ((lasts, 3), (firsts, 11)):
            off = [(day - dt.date(day.year, month, 17)).days for day in days]
            self.assertLess(abs(float(np.median(off))), 28, days)

    def test_a_record_is_read_as_what_it_is(self):
        """Means of its months are those that the data frame's own group-by gives."""
        rows = data.seattle_weather()
        months = rows.groupby(rows.date.dt.month)
        warmth, last, first, spread = recorded(coast(), Warmth(), north=True)
        for month, normal in enumerate(warmth.normals, start=1):
            self.assertAlmostEqual(normal.low, months.temp_min.mean()[month], delta=0.01)
            self.assertAlmostEqual(normal.high, months.temp_max.mean()[month], delta=0.01)
        self.assertEqual(warmth.years, 4)
        self.assertTrue("02-15" < last < "04-15", last)
        self.assertTrue("10-25" < first < "12-05", first)
        self.assertTrue(2.0 <= spread <= 40.0)

    def test_heat_sums(self):
        """Means of months give 6 % less over a base of 10 °C than the days do, which vary about it: within a
        week or so, that the season handbook (2) allows for them.
        """
        low = np.array([day.low for day in coast()])
        high = np.array([day.high for day in coast()])
        years = len(low) / 365.25
        real = float(np.sum(heat.sine_degree_days(low, high, 10.0, 30.0))) / years
        warmth, *_ = recorded(coast(), Warmth(), north=True)
        climate = read_between(warmth.normals, warmth.spread)
        smooth = float(np.sum(heat.sine_degree_days(climate.low, climate.high, 10.0, 30.0)))
        self.assertTrue(0.92 < smooth / real < 1.0, (smooth, real))

    def test_a_made_climate_is_near(self):
        """Made from latitude and the sea alone it is within 4.5 K in each month."""
        climate = made(47.6, Warmth(water="shore", height=50.0))
        warmth, *_ = recorded(coast(), Warmth(), north=True)
        real = read_between(warmth.normals, None)
        off = (climate.low + climate.high - real.low - real.high) / 2
        self.assertLess(float(np.max(np.abs(off))), 4.5)

    def test_the_law_of_the_strongest_winds_of_weeks(self):
        """The strongest wind of a week, not exceeded in half and nine of ten: their ratio is 0.572 to 0.766
        by the law (structures handbook 1.4), and so it is here within a tenth.
        """
        speeds = data.seattle_weather().wind.to_numpy(dtype=float)
        weeks = speeds[: len(speeds) // 7 * 7].reshape(-1, 7).max(axis=1)
        law = [float(wind.seasonal_share(p, wind.WEEKS)) for p in (0.5, 0.9)]
        real = np.quantile(weeks, (0.5, 0.9))
        self.assertAlmostEqual(real[0] / real[1], law[0] / law[1], delta=0.1)


class StationsTest(unittest.TestCase):
    """Typical years of three stations: subarctic shore, warm inland, frost-free shore."""

    PLACES = (
        ("703165TY.csv", 55.3, "shore", 5.0),
        ("723170TYA.CSV", 36.1, "inland", 270.0),
        ("12839.tm2", 25.8, "shore", 2.0),
    )

    def test_made_climates_are_near(self):
        """Within 5 K in the mean of the warmest and the coldest month, without any frost said."""
        for name, latitude, water, height in self.PLACES:
            days = typical(name)
            means = np.array([(day.low + day.high) / 2 for day in days])
            climate = made(latitude, Warmth(water=water, height=height))
            ours = (climate.low + climate.high) / 2
            for month in (slice(0, 31), slice(181, 212)):
                with self.subTest(name=name, month=month.start):
                    self.assertLess(abs(float(np.mean(means[month]) - np.mean(ours[month]))), 5.0)

    def test_which_of_them_freezes(self):
        self.assertEqual(frosts_in(typical("12839.tm2"), north=True), ([], []))
        lasts, firsts = frosts_in(typical("723170TYA.CSV"), north=True)
        self.assertTrue(all(day.month in (3, 4, 5) for day in lasts))
        self.assertTrue(all(day.month in (10, 11) for day in firsts))

    def test_a_frost_free_record_makes_a_frost_free_garden(self):
        """South Florida's planting guide (UF/IFAS, value from memory): tomatoes from August to March, none
        planted to crop through midsummer; peas in the cool months only.
        """
        warmth, last, first, _ = recorded(typical("12839.tm2"), Warmth(water="shore"), north=True)
        self.assertIsNone(last)
        self.assertIsNone(first)
        place = Place(name="-", latitude=25.8, last_frost=None, first_frost=None, warmth=warmth)
        turns = turn_of(place)

        def good(crop: str, month: int) -> float:
            seen = outlook(place, crop)
            days = [
                n
                for n in range(len(seen.days))
                if (turns + dt.timedelta(days=int(seen.days[n]))).month == month
            ]
            return float(np.mean(seen.good[days]))

        for month in (10, 11, 12, 1, 2):
            self.assertGreater(good("tom-slicer", month), 0.8, month)
        self.assertGreater(good("tom-slicer", 9), 0.6)
        for month in (5, 6):
            self.assertLess(good("tom-slicer", month), 0.3, month)
        self.assertGreater(good("pea-snap", 11), 0.7)
        self.assertLess(good("pea-snap", 6), 0.1)


class MadeTest(unittest.TestCase):
    """What is made has what was said of it."""

    def test_it_has_the_frosts_of_its_garden(self):
        for latitude, last, first, water in (
            (51.0, "04-24", "10-27", "near"),
            (39.0, "04-15", "10-20", "inland"),
            (46.5, "05-25", "09-20", "inland"),
            (-37.8, "09-05", "06-10", "near"),
        ):
            place = Place(
                name="-", latitude=latitude, last_frost=last, first_frost=first, warmth=Warmth(water=water)
            )
            found = climate_of(place).frosts
            for asked, got in zip((last, first), found, strict=True):
                apart = (dt.date.fromisoformat(f"2001-{got}") - dt.date.fromisoformat(f"2001-{asked}")).days
                with self.subTest(latitude=latitude, asked=asked):
                    self.assertLessEqual(abs((apart + 182) % 365 - 182), 4)

    def test_years_of_it_freeze_when_it_says(self):
        """Forty years of days: the median of their last and first frosts is as asked, within eight days."""
        place = Place(name="-", warmth=Warmth())
        climate = climate_of(place)
        days = years_of(climate, np.ones(12), 20.0, dt.date(1980, 1, 1), 40 * 365, 5)
        record = tuple(
            Day(day=days.first + dt.timedelta(days=n), low=float(days.low[n]), high=float(days.high[n]))
            for n in range(len(days))
        )
        warmth, last, first, spread = recorded(record, Warmth(), north=True)
        for asked, got in (("04-24", last), ("10-27", first)):
            apart = dt.date.fromisoformat(f"2001-{got}") - dt.date.fromisoformat(f"2001-{asked}")
            self.assertLessEqual(abs(apart.days), 8, (asked, got))
        self.assertTrue(5.0 <= spread <= 20.0, spread)
        self.assertEqual(len(warmth.normals), 12)

    def test_the_same_seed_brings_the_same_days(self):
        climate = climate_of(Place(name="-", warmth=Warmth()))
        one, again, other = (
            years_of(climate, np.ones(12), 20.0, dt.date(2026, 1, 1), 100, seed) for seed in (3, 3, 4)
        )
        np.testing.assert_array_equal(one.low, again.low)
        self.assertGreater(float(np.max(np.abs(one.low - other.low))), 1.0)

    def test_daily_gusts_have_weeks_like_the_law(self):
        """The strongest of a week, in half of them: 0.572 of the ten-season gust (structures 1.4)."""
        climate = climate_of(Place(name="-", warmth=Warmth()))
        days = years_of(climate, np.ones(12), 20.0, dt.date(2000, 1, 3), 7 * 1500, 1)
        weeks = days.gust.reshape(-1, 7).max(axis=1) / 20.0
        self.assertAlmostEqual(float(np.median(weeks)), 0.572, delta=0.03)
        self.assertAlmostEqual(float(np.quantile(weeks, 0.9)), 0.766, delta=0.03)


class TwoMonthsTest(unittest.TestCase):
    """Climates made from latitude, height and the means of the coldest and the warmest month, against monthly
    means of stations from 60° north to 38° south: by the sea, on high ground, in monsoons. Means are from
    memory, of normals of 1991 to 2020 or before.
    """

    STATIONS = (
        ("fjord", 60.4, "near", "winter", (2, 1.8, 3.2, 6.3, 10.1, 13.1, 15.1, 15, 12.2, 8.6, 5.4, 2.7)),
        ("plain", 55.8, "inland", "even", (-6.5, -6.2, -0.7, 7, 13.5, 17, 19.3, 17.2, 11.6, 5.6, -0.6, -4.7)),
        ("river", 48.2, "inland", "even", (1.2, 3, 7.2, 12, 16.6, 20, 21.9, 21.5, 16.6, 11.3, 6, 1.9)),
        ("sound", 47.6, "near", "winter", (5.8, 6.4, 8.2, 10.4, 14, 16.5, 19.3, 19.4, 16.7, 12, 8, 5.5)),
        (
            "lakes",
            45.0,
            "inland",
            "summer",
            (-8.8, -6.3, 0.3, 8.1, 15, 20.8, 23.5, 22.1, 17.4, 9.9, 1.7, -5.8),
        ),
        ("prairie", 39.0, "inland", "summer", (-1, 1.6, 7.3, 13, 18.7, 23.9, 26.3, 25.5, 20.8, 14.3, 7, 0.9)),
        (
            "east coast",
            35.7,
            "shore",
            "even",
            (5.2, 5.7, 8.7, 13.9, 18.2, 21.4, 25, 26.4, 22.8, 17.5, 12.1, 7.6),
        ),
        (
            "desert",
            33.4,
            "inland",
            "even",
            (13.7, 15.6, 19, 23, 28, 32.9, 35.2, 34.5, 31.4, 24.7, 18.1, 13.2),
        ),
        (
            "high valley",
            29.7,
            "inland",
            "summer",
            (-1, 1.8, 5.3, 8.7, 12.6, 16.4, 16.2, 15.5, 13.9, 9.4, 3.7, -0.3),
        ),
        (
            "monsoon plain",
            28.6,
            "inland",
            "monsoon",
            (13.9, 17.1, 22.5, 28.7, 32.6, 33.6, 31.3, 30.1, 29.3, 25.9, 20.3, 15.4),
        ),
        (
            "monsoon shore",
            19.1,
            "shore",
            "monsoon",
            (24.3, 25, 27.2, 29, 30.4, 29, 27.7, 27.3, 27.6, 28.6, 27.7, 25.7),
        ),
        (
            "monsoon delta",
            13.7,
            "near",
            "monsoon",
            (27.3, 28.6, 29.8, 30.9, 30.1, 29.5, 29, 28.8, 28.3, 28.1, 27.8, 26.5),
        ),
        (
            "high equator",
            -0.2,
            "inland",
            "even",
            (13.8, 13.8, 13.9, 13.9, 14, 13.9, 13.8, 14.1, 14.1, 13.9, 13.6, 13.7),
        ),
        (
            "cape",
            -33.9,
            "near",
            "winter",
            (21.4, 21.5, 20.2, 17.5, 15.1, 13, 12.3, 12.8, 14.3, 16.5, 18.5, 20.4),
        ),
        (
            "isthmus",
            -36.9,
            "shore",
            "even",
            (19.7, 20.2, 18.9, 16.7, 14.3, 11.9, 11.1, 11.6, 13, 14.4, 16, 18.1),
        ),
        (
            "southern bay",
            -37.8,
            "near",
            "even",
            (20.4, 20.4, 18.7, 15.6, 12.8, 10.6, 9.9, 11, 12.8, 14.7, 16.7, 18.7),
        ),
    )

    def test_every_month_is_within_two_degrees(self):
        for name, latitude, water, rain, means in self.STATIONS:
            coldest, warmest = min(means), max(means)
            climate = made(
                latitude,
                Warmth(
                    water=water,
                    rain=rain,
                    coldest=Normal(low=coldest - 4, high=coldest + 4),
                    warmest=Normal(low=warmest - 5, high=warmest + 5),
                ),
            )
            ours = (climate.low + climate.high) / 2
            first = 0
            for month, mean in enumerate(means):
                length = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)[month]
                with self.subTest(place=name, month=month + 1):
                    self.assertAlmostEqual(float(np.mean(ours[first : first + length])), mean, delta=2.0)
                first += length

    def test_months_the_wrong_way_round_are_refused(self):
        with self.assertRaises(ValueError):
            Warmth(coldest=Normal(low=10, high=20), warmest=Normal(low=0, high=5))
        with self.assertRaises(ValueError):
            Warmth(coldest=Normal(low=10, high=20))
