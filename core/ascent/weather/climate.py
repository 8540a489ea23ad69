"""The climate of a garden: a year of mean days, made from where it lies or taken from its own record."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from .. import tables
from ..mechanics import Array, heat, wind
from ..memory import remembered
from ..plan.climate import Normal, Warmth
from ..plan.fields import day_of_year, month_day
from ..plan.place import Place

YEAR = 365
CLUMP = 2.5  # days that frost comes in at once [d]
_FREE = 3.0  # spreads that the coldest mornings are above frost on the mean, where it never freezes
_SEA, _PER_DEG2 = 27.5, 0.0062  # mean at the equator's shore, and less by latitude squared [degC], [K]
_NEAR_EQUATOR, _FAR_OF_IT = 15.0, 12.0  # latitude from which on rain cools less, and over which [deg]
_PER_M = 0.005  # colder with height [K/m]
_DAYS: Array = np.arange(YEAR, dtype=float) + 0.5
_MID_MONTHS: Array = np.array([15.5, 45, 74.5, 105, 135.5, 166, 196.5, 227.5, 258, 288.5, 319, 349.5])


@dataclass(frozen=True)
class Climate:
    """A year of mean days, from the first of January, each (365,).

    low, high: mean least and greatest temperature of the day. [degC] rain: mean of the day. [mm]
    spread: standard deviation of a day's temperatures about their means. [K]
    """

    low: Array
    high: Array
    rain: Array
    spread: float

    @property
    def bouts(self) -> Array:
        """Return how many bouts of frost each day brings on the mean, (365,)."""
        return heat.cold_days(self.low, self.spread, CLUMP)

    @property
    def frosts(self) -> tuple[str, str] | None:
        """Return the median last and first frost as month and day; none where fewer than one year in two has
        one.
        """
        bouts = self.bouts
        if float(np.sum(bouts)) < np.log(2.0):
            return None
        warmest = int(np.argmin(bouts + 1e-9 * np.abs(np.arange(YEAR) - int(np.argmax(self.low)))))
        onwards = np.cumsum(np.roll(bouts, -warmest))
        back = np.cumsum(np.roll(bouts, -warmest)[::-1])
        half = float(np.log(2.0))
        until, since = int(np.searchsorted(onwards, half)), int(np.searchsorted(back, half))
        if until + since >= YEAR:
            return None
        first, last = warmest + until, warmest - 1 - since
        return month_day(last % YEAR + 1), month_day(first % YEAR + 1)


class _Asked(NamedTuple):
    """What the climate of a place hangs on."""

    latitude: float
    warmth: Warmth
    last: str | None
    first: str | None


def climate_of(place: Place) -> Climate | None:
    """Return the climate of a garden: its own record's where it has one, else made from where it lies and
    shifted until it has the garden's frosts; nothing where nobody said how warm it is.
    """
    if place.warmth is None:
        return None
    warmth = place.warmth.model_copy(update={"seen": ()})
    if warmth.normals:
        return recorded(warmth.normals, warmth.spread)
    return _made(_Asked(place.latitude, warmth, place.last_frost, place.first_frost))


def recorded(normals: tuple[Normal, ...], spread: float | None) -> Climate:
    """Return a climate from the means of twelve months, read between the middles of the months. [°C and mm]

    Source: handbook-season-2
    """

    def daily(values: list[float]) -> Array:
        return np.interp(_DAYS, _MID_MONTHS, values, period=YEAR)

    return Climate(
        daily([month.low for month in normals]),
        daily([month.high for month in normals]),
        daily([month.rain / 30.4 for month in normals]),
        spread or tables.waters()["near"].spread_K,
    )


@remembered(256)
def _made(inputs: _Asked) -> Climate:
    raw = made(inputs.latitude, inputs.warmth)
    if inputs.warmth.coldest is not None:
        return raw
    if inputs.last is None or inputs.first is None:
        return _without_frost(raw)
    return _with_frosts(raw, day_of_year(inputs.last), day_of_year(inputs.first))


def made(latitude: float, warmth: Warmth) -> Climate:
    """Return the climate of a place by its latitude, height and nearness of water alone.

    Args:
        latitude: North positive. [deg]
        warmth: Height, water and rain.

    Source: climate-made
    """
    water, rain = tables.waters()[warmth.water], tables.rains()[warmth.rain]
    mean = _SEA - _PER_DEG2 * latitude**2 + water.warmer_K - _PER_M * warmth.height
    swing = water.swing_per_deg_K * abs(latitude)
    warmest = water.warmest_d + (YEAR / 2 if latitude < 0 else 0.0)
    course = np.cos(2 * np.pi * (_DAYS - warmest) / YEAR)
    rained = warmth.rain_mm / YEAR * (1.0 + rain.lean * course)
    if warmth.coldest is not None and warmth.warmest is not None:
        share = _monsoon(latitude) if rain.monsoon else ((course + 1.0) / 2) ** rain.peak
        low, high = (
            cold + (warm - cold) * share
            for cold, warm in (
                (warmth.coldest.low, warmth.warmest.low),
                (warmth.coldest.high, warmth.warmest.high),
            )
        )
        return Climate(low, high, rained, warmth.spread or water.spread_K)
    middle = mean + swing * course
    half = water.day_swing_K / 2
    return Climate(middle - half, middle + half, rained, warmth.spread or water.spread_K)


def _monsoon(latitude: float) -> Array:
    """Return the share of the year's swing that each day has where rain cools its summer, (365,): the
    warmest month comes before the rain, and the further from the equator the less it cools. [deg]

    Source: climate-made
    """
    far = float(np.clip((abs(latitude) - _NEAR_EQUATOR) / _FAR_OF_IT, 0.0, 1.0))
    rows = tables.monsoons()
    months = [
        (1 - far) * near + far * away
        for near, away in zip(rows["near"].months, rows["far"].months, strict=True)
    ]
    turned = np.roll(months, 6 if latitude < 0 else 0)
    return np.asarray(np.interp(_DAYS, _MID_MONTHS, turned, period=YEAR))


def _shifted(climate: Climate, days: int, degrees: float) -> Climate:
    low, high, rain = (np.roll(each, days) for each in (climate.low, climate.high, climate.rain))
    return Climate(low + degrees, high + degrees, rain, climate.spread)


def _without_frost(climate: Climate) -> Climate:
    """Return a climate warm enough to have no frost in a lifetime."""
    short = _FREE * climate.spread - float(np.min(climate.low))
    return _shifted(climate, 0, max(short, 0.0))


def _with_frosts(climate: Climate, last: int, first: int) -> Climate:
    """Return a climate shifted in time and warmth until its median frosts are those of the garden."""
    season = (first - last) % YEAR
    middle = (last + season / 2) % YEAR
    days = round((middle - (int(np.argmax(climate.low)) + 1) + YEAR / 2) % YEAR - YEAR / 2)
    turned = _shifted(climate, days, 0.0)
    cold, warm = -40.0, 40.0
    for _ in range(30):
        between = (cold + warm) / 2
        frosts = _shifted(turned, 0, between).frosts
        length = YEAR if frosts is None else (day_of_year(frosts[1]) - day_of_year(frosts[0])) % YEAR
        cold, warm = (between, warm) if length < season else (cold, between)
    return _shifted(turned, 0, warm)


@dataclass(frozen=True)
class Days:
    """Days one after the other, each (N,): least and greatest temperature, rain and strongest gust.

    first: date of the first. [degC], [mm], [m/s]
    """

    first: dt.date
    low: Array
    high: Array
    rain: Array
    gust: Array

    def __len__(self) -> int:
        return len(self.low)


_LINGERS = 0.7  # of yesterday's departure in today's
_WET_COOLER = 0.35  # of a day's swing, when it rains
_RAIN_DAYS = 0.38  # of days, on the mean
_CALM = 0.4  # of days are so calm that the law of the strongest gusts says nothing of them


def years_of(
    climate: Climate, gusts: Array, required_gust: float, first: dt.date, days: int, seed: int
) -> Days:
    """Return days as such a climate may bring them: one course of the many, the same for the same seed.

    Temperatures depart from the mean as yesterday's did; rain comes on some days, more than it does on the
    mean; the strongest gust of a day has the law whose weekly greatest has that of EN 1991-1-4.

    Args:
        climate: Its mean days.
        gusts: By month, share of the once-in-ten-seasons gust, (12,).
        required_gust: Gust of once in ten seasons. [m/s]
        first: First day.
        days: How many.
        seed: Which course.

    Source: en-1991-1-4
    """
    start = first.toordinal()
    chance = np.random.default_rng([seed & 0x7FFFFFFF, start])
    dates = [dt.date.fromordinal(start + n) for n in range(days)]
    of_year = np.array([min(date.timetuple().tm_yday, YEAR) - 1 for date in dates])
    months = np.array([date.month - 1 for date in dates])
    noise, departs, now = chance.standard_normal(days), np.empty(days), chance.standard_normal()
    for n in range(days):
        now = _LINGERS * now + np.sqrt(1 - _LINGERS**2) * noise[n]
        departs[n] = now
    rain = climate.rain[of_year]
    wet = chance.random(days) < np.clip(
        _RAIN_DAYS * rain / max(float(np.mean(climate.rain)), 1e-9), 0.02, 0.9
    )
    fell = np.where(wet, chance.gamma(0.75, rain / (0.75 * _RAIN_DAYS) + 1e-9), 0.0)
    middle = (climate.low + climate.high)[of_year] / 2 + climate.spread * departs
    half = (climate.high - climate.low)[of_year] / 2 * np.where(wet, 1 - _WET_COOLER, 1 + _WET_COOLER * 0.6)
    share = wind.seasonal_share(np.clip(chance.random(days), _CALM, 1 - 1e-6), wind.WEEKS * 7)
    return Days(first, middle - half, middle + half, fell, required_gust * gusts[months] * np.asarray(share))
