"""The days of a garden's season: what was seen of them, and the climate's mean days where nothing was yet."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np

from ..mechanics import Array, Flags, heat
from ..memory import remembered
from ..plan.climate import Warmth
from ..plan.place import Place
from ..tables import rows
from .climate import YEAR, climate_of

BEFORE, AFTER = 400, 800  # days about the turn of the garden's year
_NIGHT = 0.25  # of a day's swing that its night is above its least temperature on the mean
MOST_PACE = 1.15  # of growth at its reference heat: days of the tables are those of warm summers


@dataclass(frozen=True)
class DailyWeather:
    """Days about a season, each (N,): least and greatest temperature [degC], rain [mm], whether it was
    seen.

    spread: standard deviation of a day's temperatures about their means. [K] sinks: whether the year grows
        colder on the mean, whatever was seen.
    """

    first: dt.date
    low: Array
    high: Array
    rain: Array
    seen: Array
    spread: float
    sinks: Flags

    def at(self, day: dt.date) -> int:
        """Return the place of a day, the first or the last where it lies beyond."""
        return min(max((day - self.first).days, 0), len(self.low) - 1)

    @property
    def mean(self) -> Array:
        """Return the mean temperature of each day, (N,). [degC]"""
        return (self.low + self.high) / 2

    @property
    def night(self) -> Array:
        """Return the mean temperature of each night, (N,). [degC]"""
        return self.low + _NIGHT * (self.high - self.low)

    @cached_property
    def soil(self) -> Array:
        """Return the temperature of bare soil in the sun by day, (N,). [degC]"""
        return heat.soil_temperature(self.mean, 1.5)


def turn_of(place: Place) -> dt.date:
    """Return the day that the garden's year is counted from: its last frost, as a date."""
    month, day = map(int, place.turns.split("-"))
    return dt.date(place.year, month, day)


class ClimateInputs(NamedTuple):
    """What the daily weather of a place depends on."""

    turns: dt.date
    latitude: float
    last: str | None
    first: str | None
    warmth: Warmth


def climate_inputs_of(place: Place) -> ClimateInputs | None:
    """Return what the daily weather of a place depends on; nothing where its warmth is not known."""
    if place.warmth is None:
        return None
    return ClimateInputs(turn_of(place), place.latitude, place.last_frost, place.first_frost, place.warmth)


def usual_inputs_of(place: Place) -> ClimateInputs | None:
    """Return what the usual daily weather of a place depends on, whatever was seen of a season; nothing where
    its warmth is not known.
    """
    inputs = climate_inputs_of(place)
    if inputs is None or not inputs.warmth.seen:
        return inputs
    return inputs._replace(warmth=inputs.warmth.model_copy(update={"seen": ()}))


@remembered(64)
def days_of(inputs: ClimateInputs) -> DailyWeather:
    """Return the days about a garden's season."""
    place = Place(
        name="-",
        latitude=inputs.latitude,
        last_frost=inputs.last,
        first_frost=inputs.first,
        warmth=inputs.warmth,
    )
    climate = climate_of(place)
    assert climate is not None  # noqa: S101 - a place with warmth has one
    first = inputs.turns - dt.timedelta(days=BEFORE)
    dates = [first + dt.timedelta(days=n) for n in range(BEFORE + AFTER)]
    of_year = np.array([min(date.timetuple().tm_yday, YEAR) - 1 for date in dates])
    low, high, rain = (each[of_year].copy() for each in (climate.low, climate.high, climate.rain))
    sinks = np.gradient(low + high) < 0.0
    seen = np.zeros(len(dates), dtype=bool)
    for week in inputs.warmth.seen:
        start = (week.monday - first).days
        if 0 <= start <= len(dates) - 7:
            own = slice(start, start + 7)
            low[own], high[own], rain[own], seen[own] = week.low, week.high, week.rain / 7, True
    return DailyWeather(first, low, high, rain, seen, climate.spread, sinks)


@remembered(512)
def _grown(climate: ClimateInputs, base: float, upper: float, reference: float) -> Array:
    course = days_of(climate)
    pace = np.minimum(
        heat.sine_degree_days(course.low, course.high, base, upper) / (reference - base), MOST_PACE
    )
    grown = np.concatenate(([0.0], np.cumsum(pace)))
    grown.setflags(write=False)  # it is shared
    return grown


@dataclass(frozen=True)
class Pace:
    """How far a crop grows by day, counted in days at its reference heat: `total` before each day, (N + 1,).

    Where nobody said how warm a garden is, each day counts as one.
    """

    turns: dt.date
    total: Array | None

    def upto(self, day: Array | float) -> Array:
        """Return the days of growth up to a day, counted from the turn of the year and in parts of a day."""
        days = np.asarray(day, dtype=float)
        if self.total is None:
            return days
        return np.asarray(np.interp(days + BEFORE, np.arange(len(self.total)), self.total))

    def reached(self, grown: float, most: float) -> float:
        """Return the day on which so much has grown, at most another; counted from the turn of the year."""
        if self.total is None:
            return min(grown, most)
        if grown >= self.total[-1]:
            return most
        return min(float(np.interp(grown, self.total, np.arange(len(self.total)))) - BEFORE, most)


def pace_in_climate(turns: dt.date, climate: ClimateInputs | None, calendar: rows.CropCalendar) -> Pace:
    """Return how fast a crop grows in a garden, day by day.

    Source: handbook-season-2
    """
    if climate is None:
        return Pace(turns, None)
    return Pace(turns, _grown(climate, calendar.base_C, calendar.upper_C, calendar.reference_C))
