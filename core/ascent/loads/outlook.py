"""When a crop can be planted in a garden: on which days all is well, and why not on the others."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, NamedTuple

import numpy as np

from .. import tables
from ..mechanics import Array, Flags
from ..memory import remembered
from ..plan.place import Place
from ..plan.structure import Raised
from ..tables import rows
from ..weather.course import AFTER, BEFORE, ClimateInputs, DailyWeather, days_of, turn_of, usual_inputs_of
from ..weather.frosts import RISKS, Frosts, frosts_of
from .bearing import ENDS, Bearing, bearing
from .season import ahead_of

Verdict = Literal["good", "early", "cold", "hot", "winter", "late", "short"]
_FROM, _TO = -364, 400  # days about the turn of the garden's year that are looked at
_EARLIER = 14  # days that a hardy crop may go before its usual first day, by someone bold
_WARM_FOR = 3  # days that soil is to be warm enough
_YEAR, _HALF_YEAR = 365, 182
_PERENNIAL = "shoots"
_SURE = 0.5  # of the soil's temperature and of nights: they are not known better [K]
_LEAST = 0.17  # of its usual harvest that a crop is to bring on its best day
_SURVIVES = 0.5  # of winters that a planting is to outlive
_HALF_SET = 0.6  # of the best day's set below which heat is what is wrong
_EDGE = 10  # days that a proposal stays off the ends of a window, where it is long


class Window(NamedTuple):
    """First and last day of a time in which all is well, in days from the turn of the garden's year; closes:
    why it is over.
    """

    first: int
    last: int
    closes: Verdict


@dataclass(frozen=True)
class Outlook:
    """What becomes of a crop by the day it is planted: days from the turn of the garden's year, each (N,).

    frost, warm, calm, lives: whether the day is free of frost, soil and nights are warm enough for it, no
    heat stops it when young, and it outlives the winter. worth: share of the best day's harvest. bears:
    whether the best day brings enough.
    """

    crop: rows.Crop
    days: Array
    found: Bearing
    frost: Flags
    warm: Flags
    calm: Flags
    lives: Flags
    worth: Array
    bears: bool

    @property
    def good(self) -> Flags:
        """Return on which days all is well, (N,)."""
        least = tables.calendars()[self.crop.key].worth
        return np.asarray(self.open & self.lives & (self.worth >= least) & self.bears)

    @property
    def open(self) -> Flags:
        """Return on which days it may go out, whatever comes of it, (N,)."""
        return self.frost & self.warm & self.calm

    @cached_property
    def windows(self) -> tuple[Window, ...]:
        """Return when it can be planted."""
        good = np.concatenate(([False], self.good, [False]))
        turns = np.flatnonzero(good[1:] != good[:-1])
        return tuple(
            Window(int(self.days[a]), int(self.days[b - 1]), self.verdict(min(b, len(self.days) - 1)))
            for a, b in zip(turns[::2], turns[1::2], strict=True)
        )

    def near(self, day: int) -> tuple[Window, ...]:
        """Return the windows of the year about a day."""
        return tuple(
            window
            for window in self.windows
            if window.last > day - _HALF_YEAR and window.first <= day + _YEAR - _HALF_YEAR
        )

    def at(self, day: int) -> int:
        """Return the place of a day."""
        return min(max(day - int(self.days[0]), 0), len(self.days) - 1)

    def verdict(self, at: int) -> Verdict:
        """Return what is to be said of planting on the day of a place."""
        if self.good[at]:
            return "good"
        if not np.any(self.good):
            return "short" if self._cold() else "hot"
        gates: tuple[tuple[Flags, Verdict], ...] = (
            (self.frost, "early"),
            (self.warm, "cold"),
            (self.calm, "hot"),
            (self.lives, "winter"),
        )
        shut = next((why for passes, why in gates if not passes[at]), None)
        if shut:
            return shut
        best = int(np.argmax(np.where(self.open, self.worth, -1.0)))
        hot = ENDS[int(self.found.ends[at])] == "heat" or (
            self.found.sets[at] < _HALF_SET * self.found.sets[best]
        )
        return "hot" if hot else "late"

    def _cold(self) -> bool:
        """Return whether it is the cold that leaves a crop no day at all."""
        best = int(np.argmax(self.found.worth))
        return ENDS[int(self.found.ends[best])] in ("cold", "frost") or not bool(
            np.any(self.frost & self.warm)
        )

    def proposed(self, day: int) -> int:
        """Return the day nearest to another on which it is well planted, some days off the ends of a window;
        that day itself where none is good.
        """
        ways = []
        for window in self.near(day):
            edge = min(_EDGE, (window.last - window.first) // 4)
            ways.append(min(max(day, window.first + edge), window.last - edge))
        return min(ways, key=lambda way: abs(way - day), default=day)


def outlook(place: Place, crop: str, raised: Raised = "usual") -> Outlook:
    """Return what becomes of a crop by the day it is planted, over two years about the turn of the garden's.

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


def proposed_day(place: Place, crop: str) -> int:
    """Return the day on which a crop is proposed to be planted, from the turn of the garden's year."""
    row = tables.crops()[crop]
    return outlook(place, crop).proposed(round((row.plant_low_d + row.plant_high_d) / 2))


@dataclass(frozen=True)
class _Garden:
    turns: dt.date
    frosts: Frosts | None
    careful: str
    days: ClimateInputs | None

    @classmethod
    def of(cls, place: Place) -> _Garden:
        return cls(turn_of(place), frosts_of(place), place.careful, usual_inputs_of(place))


@remembered(512)
def _outlook(asked: _Garden, key: str, raised: Raised) -> Outlook:
    crop, calendar = tables.crops()[key], tables.calendars()[key]
    frosts = asked.frosts if asked.frosts and asked.frosts.usual else None
    known: DailyWeather | None = days_of(asked.days) if asked.days is not None else None
    days: Array = np.arange(float(_FROM), _TO + 1.0)
    found = bearing(asked.days, round(frosts.first) if frosts else None, key, days, ahead_of(key, raised))
    frost = _frost_free(asked, frosts, crop, days)
    warm = _warm(known, calendar, days)
    year = (days >= -_HALF_YEAR) & (days < _YEAR - _HALF_YEAR)
    best = float(np.max(np.where(frost & warm & found.calm & year, found.worth, 0.0)))
    least = _LEAST if crop.one_pick else _LEAST * crop.harvest_d
    reached = found.end < AFTER - 1
    return Outlook(
        crop,
        days,
        found,
        frost,
        warm,
        found.calm,
        np.asarray(reached & (found.lives >= _SURVIVES)),
        found.worth / max(best, 1e-9),
        best >= least,
    )


def _frost_free(asked: _Garden, frosts: Frosts | None, crop: rows.Crop, days: Array) -> Flags:
    """Return on which days a crop may go out for the frost, as careful as one is. A hardy one may always
    where it is known how cold it gets; else from so many days before the last frost on.
    """
    calendar, careful = tables.calendars()[crop.key], asked.careful
    if frosts is None or (calendar.hardy and asked.days is not None):
        return np.ones(len(days), dtype=bool)
    low = crop.plant_low_d
    if calendar.hardy:
        opens = {"bold": low - _EARLIER, "usual": low, "cautious": (low + crop.plant_high_d) / 2}[careful]
    else:
        opens = {
            "bold": min(low, frosts.last_with(RISKS["bold"])),
            "usual": low,
            "cautious": max(low, frosts.last_with(RISKS["cautious"])),
        }[careful]
    return np.asarray((days - opens) % _YEAR < frosts.first - opens)


def least_night(calendar: rows.CropCalendar) -> float | None:
    """Return the mean temperature of the night from which a crop goes out: its own, else that of its frost
    class; none where nights do not matter. [degC]
    """
    if calendar.nights_C is not None:
        return calendar.nights_C
    return tables.frost_classes()[calendar.frost_class].chilled_C


def _warm(known: DailyWeather | None, calendar: rows.CropCalendar, days: Array) -> Flags:
    """Return on which days the soil has been warm enough for three, and nights are."""
    if known is None:
        return np.ones(len(days), dtype=bool)
    warm = known.soil >= calendar.soil_C - _SURE
    nights = least_night(calendar)
    if nights is not None:
        warm = warm & (np.convolve(known.night, np.full(7, 1 / 7), "same") >= nights)
    lasting = warm.copy()
    for back in range(1, _WARM_FOR):
        lasting[back:] &= warm[:-back]
    return np.asarray(lasting[days.astype(int) + BEFORE])


def opened(windows: Sequence[Window], day: int) -> Window | None:
    """Return the window that a day lies in, or the next one after it."""
    return next((window for window in windows if window.last >= day), None)
