"""What becomes of a crop by the day it is planted: its first pick, what ends it, and what it brings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from .. import tables
from ..mechanics import Array, Flags, daylight
from ..memory import remembered
from ..tables import rows
from ..weather.climate import CLUMP
from ..weather.course import BEFORE, ClimateInputs, DailyWeather, days_of, pace_in_climate

Ends = Literal["cold", "frost", "heat", "age"]
Places = NDArray[np.intp]
ENDS: tuple[Ends, ...] = ("cold", "frost", "heat", "age")
_DAY_SPREAD, _NIGHT_SPREAD, _MEAN_SPREAD = 4.0, 1.6, 4.0  # of weather and kinds about a limit of set [K]
_NO_SET, _NO_BEARING = 0.25, 0.12  # share of set below which a warm crop, and a cool one, is ended by heat
_SMOOTH = 21  # days over which heat and cold are looked at
_HOT_FOR = 42  # days without set that end a warm crop: after fewer it sets again
_SPARE = 0.14  # of its days that a crop picked once is to be ripe before its end
_YOUNG = 30  # days after sowing that heat stops a crop of the cool season
_COOLEST = 2.5  # above the coolest month, within which it is sown where no month is cool [K]
_MILD = 20  # days after its first pick in which a hard frost takes an overwintered crop
_LONGER = 1.2  # of a crop's days, where it is sown after midsummer and nobody said how warm it is
_MIDSUMMER = 0.4  # of the days without frost, from which on a hardy crop is one of autumn
_HARDY_AFTER = 10  # days after the first frost that a hardy crop still bears
_YEAR = 365


class _Days(NamedTuple):
    """Days of a crop in a climate, each (D,) or sums before each day, (D + 1,).

    total: days of growth at reference heat. sets: share of flowers that set, by day. picked: the day that
    what is picked was set on. bears: sum of growth that bears. cold, hot: next day from which it is too cold
    or too hot. flowers: next day that is as long as it flowers in. hard, flowering: sum of bouts of frost
    that kill a young plant, and one in flower. young: whether the month after is cool enough for a crop of
    the cool season.
    """

    total: Array
    sets: Array
    picked: Places
    bears: Array
    cold: Places
    hot: Places
    flowers: Places
    hard: Array
    flowering: Array
    young: Flags


def _next(flags: Flags) -> Places:
    """Return the next place from each on that is marked, the end where none is, (D + 1,)."""
    places = np.where(flags, np.arange(len(flags)), len(flags))
    return np.append(np.minimum.accumulate(places[::-1])[::-1], len(flags))


def _averaged(values: Array, days: int) -> Array:
    """Return the means over so many days about each, (D,)."""
    return np.asarray(np.convolve(np.pad(values, days // 2, mode="edge"), np.full(days, 1 / days), "valid"))


def _to_come(values: Array, days: int) -> Array:
    """Return the means over so many days from each on, (D,)."""
    sums = _sum(np.append(values, np.full(days, values[-1])))
    return np.asarray((sums[days:-1] - sums[: -days - 1]) / days)


def _sum(values: Array) -> Array:
    return np.concatenate(([0.0], np.cumsum(values)))


def _set_shares(calendar: rows.CropCalendar, known: DailyWeather) -> Array:
    """Return the share of flowers that set on each day, (D,): less on hot days, in warm nights and in frost.

    Source: handbook-season-2
    """
    share: Array = np.ones(len(known.low))
    if calendar.warm_C is not None:
        share = share * ndtr((calendar.warm_C - known.mean) / _MEAN_SPREAD)
    if calendar.set_day_C is not None:
        share = share * ndtr((calendar.set_day_C - known.high) / _DAY_SPREAD)
    if calendar.set_night_C is not None:
        share = share * ndtr((calendar.set_night_C - known.low) / _NIGHT_SPREAD)
    if calendar.flower_C is not None:
        share = share * ndtr((known.low - calendar.flower_C) / known.spread)
    return share


def _flowering_days(calendar: rows.CropCalendar, known: DailyWeather, latitude: float) -> Flags:
    """Return on which days a crop flowers by the length of the day, (D,)."""
    of_year = known.first.timetuple().tm_yday + np.arange(len(known.low), dtype=float)
    hours = daylight.day_length(latitude, of_year)
    below, above = calendar.flowers_below_h or 24.0, calendar.flowers_above_h or 0.0
    return np.asarray((hours <= below) & (hours >= above))


@remembered(512)
def _days(climate: ClimateInputs, key: str) -> _Days:
    crop, calendar, known = tables.crops()[key], tables.calendars()[key], days_of(climate)
    total = pace_in_climate(climate.turns, climate, calendar).total
    assert total is not None  # noqa: S101 - the days are known
    pace, count = np.diff(total), len(known.low)
    sets = _set_shares(calendar, known)
    picked = np.clip(np.searchsorted(total, total[:-1] - crop.set_to_pick_d), 0, count - 1)
    share = np.minimum(sets[picked], sets) if calendar.cool else sets[picked]
    smooth = _averaged(known.mean, _SMOOTH)
    cold = smooth < (calendar.cold_C if calendar.cold_C is not None else -np.inf)
    lasting = _averaged(sets, _SMOOTH)
    to_come = lasting if calendar.cool else _to_come(sets, _HOT_FOR)
    warm = ~known.sinks if calendar.cool else np.ones(count, dtype=bool)
    least = _NO_BEARING if calendar.cool else _NO_SET
    hot = (to_come < least) & (lasting < 2 * least) & warm & (known.low > 0.0)
    kills = tables.frost_classes()[calendar.frost_class].kills_C
    outlives = calendar.winter_C if calendar.winter_C is not None else kills
    means = _sum(known.mean)
    young = (means[_YOUNG:] - means[:-_YOUNG]) / _YOUNG
    coolest = float(np.min(young))
    limit = max(calendar.young_C, coolest + _COOLEST) if calendar.young_C is not None else np.inf
    return _Days(
        total,
        sets,
        picked,
        _sum(pace * share * ~cold),
        _next(cold & known.sinks),
        _next(hot),
        _next(_flowering_days(calendar, known, climate.latitude)),
        _sum(ndtr((outlives - known.low) / known.spread) / CLUMP),
        _sum(ndtr((kills - known.low) / known.spread) / CLUMP),
        np.pad(young, (0, count + 1 - len(young)), mode="edge") <= limit,
    )


@dataclass(frozen=True)
class Bearing:
    """What becomes of a crop by the day it is planted, in days from the turn of the garden's year, each (N,).

    first: first pick. end: when it is gone. ends: what ends it, a place in ENDS. brings: days of growth at
    reference heat that it bears, for a crop picked once whether it ripens, times its set. lives: chance that
    frost leaves it alive. sets: mean share of flowers that set for what is picked. calm: whether the heat
    after sowing does not stop a crop of the cool season.
    """

    first: Array
    end: Array
    ends: Array
    brings: Array
    lives: Array
    sets: Array
    calm: Flags

    @property
    def worth(self) -> Array:
        """Return what it brings as a rule, frost counted, (N,). [d]"""
        return np.asarray(self.brings * self.lives)


def bearing(
    climate: ClimateInputs | None, frost_free: int | None, key: str, start: Array, ahead: float
) -> Bearing:
    """Return what becomes of a crop by the day it is planted.

    It grows as fast as the garden's days let it, and bears until something ends it: mean days below its
    limit, the first frost if it is tender, heat in which nothing sets any more, or its own age.

    Args:
        climate: Of the garden; none where nobody said how warm it is.
        frost_free: Days from the last frost, at which the garden's year turns, to the first; none where no
            frost comes as a rule.
        key: Of the crop.
        start: Days of planting, from the turn of the garden's year, (N,). [d]
        ahead: Days of growth it has then. [d]

    Returns:
        What becomes of it.

    Source: handbook-season-2, handbook-season-3
    """
    crop, calendar = tables.crops()[key], tables.calendars()[key]
    ripe = crop.first_d - ahead
    frost = np.full(len(start), np.inf)
    if frost_free is not None and not calendar.hardy:
        first = frost_free + tables.frost_classes()[calendar.frost_class].first_d
        frost = first + _YEAR * np.ceil((start - first + 1) / _YEAR)
    if climate is None:
        return _by_table(crop, calendar, start, ripe, frost, np.inf if frost_free is None else frost_free)
    days = _days(climate, key)
    last = len(days.sets) - 1
    at = np.clip(start + BEFORE, 0, last).astype(int)
    first_at = np.clip(np.searchsorted(days.total, days.total[at] + ripe), at, last)
    first_at = np.minimum(days.flowers[first_at], last)
    lag = np.where(calendar.cool, 0, first_at - days.picked[first_at])
    set_at = np.maximum(first_at - lag, at)
    age = (
        np.searchsorted(days.total, days.total[first_at] + calendar.bears_d)
        if calendar.bears_d is not None
        else np.full(len(at), np.inf)
    )
    ways = [
        np.full(len(at), np.inf) if calendar.hardy else days.cold[at].astype(float),
        frost + BEFORE,
        days.hot[set_at] + lag.astype(float),
        age,
    ]
    if calendar.hardy:
        killed = np.searchsorted(days.flowering, days.flowering[first_at] + np.log(2.0))
        ways[1] = np.asarray(killed, dtype=float)
    found = np.stack([np.minimum(way, last) for way in ways])
    ends, end = np.argmin(found, axis=0), np.min(found, axis=0).astype(int)
    until = np.maximum(end, first_at)
    if crop.one_pick:
        ripens = end >= first_at + _SPARE * (first_at - at)
        brings = ripens * days.sets[days.picked[first_at]]
    else:
        brings = days.bears[until] - days.bears[first_at]
    lives = np.ones(len(at))
    if calendar.hardy:
        flowers = np.maximum(days.picked[first_at], at)
        soon = np.maximum(np.minimum(end, first_at + _MILD), flowers)
        lives = np.exp(days.hard[at] - days.hard[flowers] + days.flowering[flowers] - days.flowering[soon])
    elif frost_free is None:
        lives = np.exp(days.flowering[at] - days.flowering[until])
    grown = np.maximum(days.total[until] - days.total[first_at], 1.0)
    return Bearing(
        first_at - float(BEFORE),
        np.maximum(end, at + 1) - float(BEFORE),
        ends,
        brings,
        lives,
        days.sets[days.picked[first_at]] if crop.one_pick else brings / grown,
        np.asarray(days.young[at], dtype=bool),
    )


def bears_upto(climate: ClimateInputs, key: str, day: Array) -> Array:
    """Return how much of the growth of a crop up to each day is such that fruit sets for and it bears.

    Args:
        climate: Of the garden.
        key: Of the crop.
        day: From the turn of the garden's year, (N,). [d]

    Returns:
        Days of growth at its reference heat, (N,). [d]
    """
    bears = _days(climate, key).bears
    return np.asarray(np.interp(np.asarray(day, dtype=float) + BEFORE, np.arange(len(bears)), bears))


def _by_table(
    crop: rows.Crop, calendar: rows.CropCalendar, start: Array, ripe: float, frost: Array, frost_free: float
) -> Bearing:
    """Return what becomes of a crop where nobody said how warm it is: by the days of its table, until the
    first frost.
    """
    if calendar.cool and np.isfinite(frost_free):
        after = (start + _YEAR / 2) % _YEAR - _YEAR / 2  # from the last frost of its year
        autumn = after > _MIDSUMMER * frost_free
        first = start + np.round(np.where(autumn, _LONGER, 1.0) * ripe)
        frost = np.where(autumn, start - after + frost_free + _HARDY_AFTER, np.inf)
    else:
        first = start + np.round(ripe)
    bears = calendar.bears_d
    if bears is None:
        bears = np.inf if np.all(np.isfinite(frost)) else crop.harvest_d
    age = first + bears
    found = np.stack([np.full(len(start), np.inf), frost, np.full(len(start), np.inf), age])
    end = np.round(np.min(found, axis=0))
    if crop.one_pick:
        brings = np.asarray(end >= first + _SPARE * ripe, dtype=float)
    else:
        brings = np.maximum(end - first, 0.0)
    ones = np.ones(len(start))
    return Bearing(
        first, np.maximum(end, start + 1), np.argmin(found, axis=0), brings, ones, ones, ones.astype(bool)
    )
