"""When a crop can be planted in a garden, and what becomes of one planted on a day."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np

from .. import tables
from ..loads.season import PlantingCourse, ahead_of, course_of, season_days, start_of
from ..mechanics import Array, Flags
from ..memory import remembered
from ..plan.place import Place
from ..plan.structure import Planting, Raised
from ..tables import rows
from ..weather.course import (
    AFTER,
    BEFORE,
    ClimateInputs,
    DailyWeather,
    climate_inputs_of,
    days_of,
    pace_in_climate,
    turn_of,
)
from ..weather.frosts import RISKS, Frosts, frosts_of

Verdict = Literal["good", "early", "cold", "late", "short", "hot"]
HARDEN, POT_ON = 7, 21  # days before it goes out, handbook season 3
_HALF = 0.5  # of a harvest that a planting is worth its place for
_EARLIER = 14  # days that a hardy crop may go before its usual first day, by someone bold
_WARM_FOR = 3  # days that soil is to be warm enough
_WINTER = 1.5  # of a day's spread below its mean that a winter's cold nights reach
_YEAR = 365
_LONGER = 1.2  # of a crop's days, where it is sown after midsummer and nobody said how warm it is
_SUM_WEEK = 7
_PERENNIAL = "shoots"
_SURE = 0.5  # of the soil's temperature: it is not known better [K]


@dataclass(frozen=True)
class Outlook:
    """What becomes of a crop by the day it is planted: days from the turn of the garden's year, each (N,).

    first: first pick. done: when half of it is in. frost, soil, heat, time: whether the day is free of frost
    and warm enough for it, no heat stops it, and it is done before the cold. over: by how many days it comes
    too late.
    """

    crop: rows.Crop
    days: Array
    first: Array
    done: Array
    frost: Flags
    soil: Flags
    heat: Flags
    time: Flags
    over: Array

    @property
    def good(self) -> Flags:
        """Return on which days all is well, (N,)."""
        return self.frost & self.soil & self.heat & self.time

    @property
    def windows(self) -> tuple[tuple[int, int], ...]:
        """Return from when to when it can be planted, as first and last days."""
        good = np.concatenate(([False], self.good, [False]))
        turns = np.flatnonzero(good[1:] != good[:-1])
        return tuple(
            (int(self.days[a]), int(self.days[b - 1])) for a, b in zip(turns[::2], turns[1::2], strict=True)
        )

    def at(self, day: int) -> int:
        """Return the place of a day."""
        return min(max(day - int(self.days[0]), 0), len(self.days) - 1)


def outlook(place: Place, crop: str, raised: Raised = "usual") -> Outlook:
    """Return what becomes of a crop by the day it is planted, over the garden's year.

    Source: handbook-season-3
    """
    return _outlook(_Garden.of(place), crop, raised)


def plantable(place: Place) -> frozenset[str]:
    """Return the crops that make it in a garden, planted on some day."""
    return _plantable(_Garden.of(place))


@remembered(64)
def _plantable(asked: _Garden) -> frozenset[str]:
    return frozenset(
        key
        for key, calendar in tables.calendars().items()
        if calendar.counted_from != _PERENNIAL and bool(np.any(_outlook(asked, key, "usual").good))
    )


@dataclass(frozen=True)
class _Garden:
    turns: dt.date
    frosts: Frosts | None
    careful: str
    days: ClimateInputs | None

    @classmethod
    def of(cls, place: Place) -> _Garden:
        return cls(turn_of(place), frosts_of(place), place.careful, climate_inputs_of(place))


@remembered(512)
def _outlook(asked: _Garden, key: str, raised: Raised) -> Outlook:
    crop, calendar = tables.crops()[key], tables.calendars()[key]
    frosts, about = asked.frosts, asked.days
    known: DailyWeather | None = days_of(about) if about is not None else None
    opens, closes = season_days(round(frosts.first) if frosts else None)
    days: Array = np.arange(float(opens), closes + 1.0)
    ahead = ahead_of(key, raised)
    wants = (crop.first_low_d + crop.first_high_d) / 2
    harvest = 0.0 if crop.one_pick else 3.5 * (crop.harvest_low_wk + crop.harvest_high_wk) * _HALF
    if known is None:
        late = frosts is not None and calendar.cool
        factor = np.where((days > (frosts.first if frosts else 0) * 0.4) & late, _LONGER, 1.0)
        first, done = days + wants * factor - ahead, days + wants * factor - ahead + harvest
        reached = np.ones(len(days), dtype=bool)
    else:
        at = days.astype(int) + BEFORE
        total = pace_in_climate(asked.turns, about, calendar).total
        assert total is not None  # noqa: S101 - the days are known
        first = np.searchsorted(total, total[at] - ahead + wants) - BEFORE
        done = first + round(harvest)
        reached = done < AFTER
    cold, over = _in_time(frosts, asked.careful, calendar, days, done)
    return Outlook(
        crop,
        days,
        first,
        done,
        _frost_free(frosts, asked.careful, crop, calendar, days),
        _soil_warm(known, calendar, days),
        _not_too_hot(known, crop, calendar, first, done),
        cold & reached & _winters(known, frosts, calendar, days, first),
        over,
    )


def _frost_free(
    frosts: Frosts | None, careful: str, crop: rows.Crop, calendar: rows.CropCalendar, days: Array
) -> Flags:
    """Return on which days of spring a crop may go out, as careful as one is."""
    if frosts is None:
        return np.ones(len(days), dtype=bool)
    low = crop.plant_low_d
    hardy = calendar.frost_class in ("H", "HH")
    if hardy:
        opens = {"bold": low - _EARLIER, "usual": low, "cautious": (low + crop.plant_high_d) / 2}[careful]
    else:
        opens = {
            "bold": min(low, frosts.last_with(RISKS["bold"])),
            "usual": low,
            "cautious": max(low, frosts.last_with(RISKS["cautious"])),
        }[careful]
    winter = days < frosts.first - _YEAR if hardy else np.zeros(len(days), dtype=bool)
    return np.asarray((days >= opens) | winter)


def _soil_warm(known: DailyWeather | None, calendar: rows.CropCalendar, days: Array) -> Flags:
    """Return on which days the soil has been warm enough for three."""
    if known is None:
        return np.ones(len(days), dtype=bool)
    warm = known.soil >= calendar.soil_C - _SURE
    lasting = warm.copy()
    for back in range(1, _WARM_FOR):
        lasting[back:] &= warm[:-back]
    return np.asarray(lasting[days.astype(int) + BEFORE])


def _not_too_hot(
    known: DailyWeather | None, crop: rows.Crop, calendar: rows.CropCalendar, first: Array, done: Array
) -> Flags:
    """Return for which first picks no heat stops a crop: of a cool one its harvest, of a warm one its set."""
    if known is None or calendar.stops_C is None:
        return np.ones(len(first), dtype=bool)
    sums, nights = (np.concatenate(([0.0], np.cumsum(each))) for each in (known.high, known.low))
    if calendar.cool:
        low, high = first, np.maximum(done, first + _SUM_WEEK)
    else:
        low, high = first - round(crop.set_to_pick_d), first
    a = np.clip(low + BEFORE, 0, len(known.high) - 1).astype(int)
    b = np.clip(high + BEFORE, 1, len(known.high)).astype(int)
    span = np.maximum(b - a, 1)
    cool = (nights[b] - nights[a]) / span <= (calendar.night_C or np.inf)
    return np.asarray(cool & ((sums[b] - sums[a]) / span <= calendar.stops_C))


def _in_time(
    frosts: Frosts | None, careful: str, calendar: rows.CropCalendar, days: Array, done: Array
) -> tuple[Flags, Array]:
    """Return whether half a harvest is in before the cold, and by how many days it is not."""
    if frosts is None:
        return np.ones(len(days), dtype=bool), np.zeros(len(days))
    tender = calendar.frost_class in ("T", "VT")
    cold = frosts.first_with(RISKS[careful]) if tender else frosts.first  # type: ignore[index]
    before = np.where(days < cold - _YEAR + 1, cold - _YEAR, np.where(days < cold, cold, cold + _YEAR))
    grown = np.where(before < frosts.first - _YEAR + 1, before + _YEAR, before)
    over = np.maximum(done - grown, 0.0)
    return np.asarray(over <= 0), np.asarray(over)


def _winters(
    known: DailyWeather | None, frosts: Frosts | None, calendar: rows.CropCalendar, days: Array, first: Array
) -> Flags:
    """Return whether what is sown in autumn outlives the winter until its first pick."""
    if frosts is None:
        return np.ones(len(days), dtype=bool)
    autumn = (days > frosts.first - 20) | (days < frosts.first - _YEAR)
    if known is None or calendar.frost_class != "H":
        return ~autumn
    kills = tables.frost_classes()[calendar.frost_class].kills_C
    nights = known.low - _WINTER * tables.waters()["near"].spread_K
    hard = np.concatenate(([0], np.cumsum(nights < kills)))
    a = np.clip(days + BEFORE, 0, len(nights) - 1).astype(int)
    b = np.clip(first + BEFORE, 1, len(nights)).astype(int)
    return np.asarray(~autumn | (hard[b] - hard[a] == 0))


@dataclass(frozen=True)
class Fate:
    """What becomes of a planting: its course, whether it is well planted, and what else could be done.

    frost: chance that a frost still comes after it is planted.
    windows: from when to when it can be planted. late: days that it comes too late. last: last useful day.
    """

    course: PlantingCourse
    verdict: Verdict
    frost: float
    windows: tuple[tuple[int, int], ...]
    last: int | None
    late: int
    values: Mapping[str, float] = field(default_factory=dict)


def fate_of(place: Place, planting: Planting) -> Fate:
    """Return what becomes of a planting.

    Source: handbook-season-3
    """
    seen, course, frosts = (
        outlook(place, planting.crop, planting.raised),
        course_of(place, planting),
        frosts_of(place),
    )
    at = seen.at(course.start)
    windows = seen.windows
    last = next((b for a, b in reversed(windows) if b <= course.start or a <= course.start), None)
    late = round(float(seen.over[at]))
    values: dict[str, float] = {}
    if not windows and not np.any(seen.frost & seen.soil & seen.time):
        verdict: Verdict = "short"
        late = round(float(np.min(np.where(seen.frost & seen.soil, seen.over, np.inf), initial=_YEAR)))
    elif not seen.frost[at]:
        verdict = "early"
    elif not seen.soil[at]:
        verdict = "cold"
    elif not seen.time[at]:
        verdict = "late" if windows else "short"
    else:
        verdict = "good" if seen.heat[at] else "hot"
    asked = climate_inputs_of(place)
    if asked is not None:
        days = days_of(asked)
        values["soil"] = float(days.soil[min(max(course.start + BEFORE, 0), len(days.soil) - 1)])
    return Fate(
        course, verdict, frosts.chance_after(course.start) if frosts else 0.0, windows, last, late, values
    )


def instead(place: Place, planting: Planting, family: str, most: int = 3) -> tuple[str, ...]:
    """Return crops that would make it where one does not: planted then or soon after, on the same support,
    those of its own kind first.
    """
    start = start_of(place, planting.planted)
    own = tables.crops()[planting.crop]
    suits = tables.suits()
    ways: list[tuple[int, float, str]] = []
    for key, crop in tables.crops().items():
        if (
            key == planting.crop
            or suits[key].scores[family] < 2
            or tables.calendars()[key].counted_from == _PERENNIAL
        ):
            continue
        seen = outlook(place, key)
        soon = seen.good[seen.at(start) : seen.at(start + 21) + 1]
        if not np.any(soon):
            continue
        wait = int(np.argmax(soon))
        ways.append((0 if crop.cap_group == own.cap_group else 1, wait + crop.first_high_d, key))
    return tuple(key for _, _, key in sorted(ways)[:most])


def opened(windows: Sequence[tuple[int, int]], day: int) -> tuple[int, int] | None:
    """Return the window that a day lies in, or the next one after it."""
    return next((window for window in windows if window[1] >= day), None)
