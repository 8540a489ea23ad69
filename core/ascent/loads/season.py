"""The season of a structure in weeks of the calendar, and the gusts each week brings."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Collection, Iterable
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from .. import tables
from ..mechanics import Array, wind
from ..memory import remembered
from ..plan.fields import MAX_WEEKS, day_of_year, month_day
from ..plan.place import Place
from ..plan.structure import Covered, Planting
from ..site import Site
from ..weather.course import ClimateInputs, Pace, climate_inputs_of, pace_in_climate, turn_of
from .bearing import ENDS, Ends, bearing, bears_upto

MAX_DAYS = 7 * MAX_WEEKS
_HALF_YEAR, _YEAR = 182, 365
_LEAST_BEARING = 14.0  # days of growth over which what hangs is spread where little time is left [d]
_ORDINALS = ("first", "second", "third", "fourth", "last")


def _date(year: int, day: str) -> dt.date:
    month, of_month = map(int, day.split("-"))
    return dt.date(year, month, of_month)


class _Key(NamedTuple):
    """What the weeks of a garden's structures depend on."""

    turns: dt.date
    season: int | None
    climate: ClimateInputs | None


def start_of(place: Place, day: str) -> int:
    """Return days from the turn of a garden's year to a day of its season."""
    return _offset(_key_of(place), day)


def day_named(place: Place, day: int) -> str:
    """Return a day of a garden's year as month and day.

    Args:
        place: The garden.
        day: From the turn of its year. [d]
    """
    return month_day((day_of_year(place.turns) + day - 1) % _YEAR + 1)


def season_days(season: int | None) -> tuple[int, int]:
    """Return the first and the last day of a garden's season, from the turn of its year: half a year before
    and after it; all days without frost come after it, since what is planted on them is of this season.

    season: days from the last frost to the first, none in a place without frost.
    """
    last = max(_HALF_YEAR, season) if season is not None else _YEAR - 1
    return last - _YEAR + 1, last


def _offset(key: _Key, day: str, year: int | None = None) -> int:
    """Return days from the turn of a garden's year to a day: of a year, or of its season."""
    if year is not None:
        return (_date(year, day) - key.turns).days
    last = season_days(key.season)[1]
    away = (_date(key.turns.year + n, day) - key.turns for n in (1, 0, -1))
    return next(each.days for each in away if each.days <= last)


def planted_on(place: Place, planting: Planting) -> int:
    """Return days from the turn of a garden's year to the day of a planting."""
    return _offset(_key_of(place), planting.planted, planting.year)


def date_of(place: Place, planting: Planting) -> dt.date:
    """Return the date of a planting."""
    return turn_of(place) + dt.timedelta(days=planted_on(place, planting))


def dated(place: Place, planting: Planting, date: dt.date) -> Planting:
    """Return a planting planted on a date; its year is written down where it is not that of the garden's
    season.
    """
    named = "02-28" if (date.month, date.day) == (2, 29) else f"{date:%m-%d}"
    moved = planting.model_copy(update={"planted": named, "year": None})
    usual = date_of(place, moved).year == date.year
    return moved if usual else moved.model_copy(update={"year": date.year})


def planted_at(place: Place, planting: Planting, day: int) -> Planting:
    """Return a planting planted on another day.

    Args:
        place: The garden.
        planting: As it is.
        day: From the turn of the garden's year. [d]
    """
    return dated(place, planting, turn_of(place) + dt.timedelta(days=day))


def season_year(place: Place, planting: Planting) -> int:
    """Return the year of the garden's season that a planting is of, whichever is open now."""
    if planting.year is None:
        return place.year
    date = date_of(place, planting)
    unsaid = planting.model_copy(update={"year": None})
    seasons = (date.year + n for n in (0, 1, -1))
    return next(
        (year for year in seasons if date_of(place.model_copy(update={"year": year}), unsaid) == date),
        date.year,
    )


def in_next_season(
    place: Place, plantings: Iterable[Planting], cleared: Collection[str], today: dt.date, *, begun: bool
) -> tuple[Planting, ...]:
    """Return plantings as they go on when a season is closed: what is not cleared, or still to be planted,
    keeps its date; what is cleared is planned for the next one.

    Args:
        place: The garden, in the season that is closed.
        plantings: Of a structure.
        cleared: Keys of those that are cleared.
        today: On which it is closed.
        begun: Whether anything of the season has begun; else what is to come is planned for the next one.
    """
    after = place.model_copy(update={"year": place.year + 1})
    kept = []
    for planting in plantings:
        date = date_of(place, planting)
        if planting.key not in cleared and (begun or date <= today):
            kept.append(dated(after, planting, date))
        elif planting.year is None:
            kept.append(planting)
        else:
            kept.append(dated(after, planting, date.replace(year=date.year + 1)))
    return tuple(kept)


class PlantingCourse(NamedTuple):
    """When a planting begins, is first picked and is gone, in days from the turn of the garden's year.

    ahead: days of growth it has on the day it is planted, from its pots; below 0 where it is sown in place
        though others of its kind are planted. ends: what ends it. brings: days of growth at its reference
        heat that it bears, frost counted. [d]
    """

    start: int
    first: int
    end: int
    ahead: float
    ends: Ends = "age"
    brings: float = 0.0


def ahead_of(crop: str, raised: str) -> float:
    """Return the days of growth a planting has on the day it stands in its place. [d]

    Source: handbook-season-3
    """
    calendar = tables.calendars()[crop]
    if raised == "potted" and calendar.counted_from == "sowing":
        return calendar.indoors_d
    if raised == "sown" and calendar.counted_from == "planting":
        return -calendar.indoors_d
    return 0.0


def course_of(place: Place, planting: Planting) -> PlantingCourse:
    """Return when a planting begins, is first picked and is gone.

    Source: handbook-season-2
    """
    return _course(_key_of(place), planting)


@remembered(4096)
def _course(key: _Key, planting: Planting) -> PlantingCourse:
    start, ahead = _offset(key, planting.planted, planting.year), ahead_of(planting.crop, planting.raised)
    found = bearing(key.climate, key.season, planting.crop, np.array([float(start)]), ahead)
    first, end = min(int(found.first[0]), start + MAX_DAYS), min(int(found.end[0]), start + MAX_DAYS)
    return PlantingCourse(start, first, end, ahead, ENDS[int(found.ends[0])], float(found.worth[0]))


def borne_by(place: Place, crop: str, day: Array) -> Array:
    """Return how much of the growth of a crop up to each day is such that fruit sets for and it bears.

    Args:
        place: The garden.
        crop: Its key.
        day: From the turn of the garden's year, (N,). [d]

    Returns:
        Days of growth at its reference heat, (N,). [d]
    """
    key = _key_of(place)
    if key.climate is None:
        return np.asarray(day, dtype=float)
    return bears_upto(key.climate, crop, day)


def pace_in(key: _Key, crop: str) -> Pace:
    """Return how fast a crop grows, day by day."""
    calendar = tables.calendars()[crop]
    return pace_in_climate(key.turns, key.climate, calendar)


def _key_of(place: Place) -> _Key:
    season = None
    if place.last_frost is not None and place.first_frost is not None:
        season = (day_of_year(place.first_frost) - day_of_year(place.last_frost)) % 365
    return _Key(turn_of(place), season, climate_inputs_of(place))


@dataclass(frozen=True)
class Season:
    """Weeks of a structure's season, from Monday on, so that one week is the same for every structure of a
    garden.

    days: first day of each week, days from the turn of the garden's year, (W,).
    spans: start and end of each planting, days from that turn.
    turns: the day that the garden's year is counted from.
    grown: of each planting, days of growth at its reference heat by the middle of each week, (W,).
    late: by how much everything that grows is behind its usual course, one figure or (N, 1). [d]
    cloth: solid share of what is spread over it in each week, (W,), where anything ever is; cloth_kg_m2: what
        that weighs with the snow that may lie on it. [kg/m²]
    bears: how many times its usual yield each planting bears here, where that was learnt. harvests: how long
        each bears from its first pick, in days of growth at its reference heat. [d]
    """

    days: Array
    spans: tuple[tuple[int, int], ...]
    turns: dt.date
    grown: tuple[Array, ...]
    late: Array | float = 0.0
    cloth: Array | None = None
    cloth_kg_m2: Array | None = None
    bears: tuple[float, ...] = ()
    harvests: tuple[float, ...] = ()

    def times(self, planting: int) -> float:
        """Return how many times its usual yield a planting bears here."""
        return self.bears[planting] if planting < len(self.bears) else 1.0

    @property
    def weeks(self) -> int:
        """Return the number of weeks."""
        return len(self.days)

    def date(self, week: int) -> dt.date:
        """Return the first day of a week."""
        return self.turns + dt.timedelta(days=int(self.days[week]))

    def week_of(self, day: int) -> int | None:
        """Return the week that a day of the year lies in, counted from 1 without a leap day; none outside of
        the season.
        """
        first = self.date(0)
        after = ((_date(year, month_day(day)) - first).days // 7 for year in (first.year, first.year + 1))
        return next((week for week in after if 0 <= week < self.weeks), None)

    def week_in_any_year(self, on: dt.date) -> int | None:
        """Return the week that a day lies in, whatever its year; none outside of the season."""
        leap = (on.month, on.day) == (2, 29)
        return self.week_of(day_of_year("02-28" if leap else f"{on:%m-%d}"))

    def nearest_week(self, day: dt.date) -> int:
        """Return the week that a day lies in, the first or the last where it is out of the season."""
        return min(max((day - self.date(0)).days // 7, 0), self.weeks - 1)

    def label(self, week: int) -> str:
        """Return a week as people say it: ‘the third week of August’."""
        date = self.date(week) + dt.timedelta(days=3)
        return f"the {_ORDINALS[(date.day - 1) // 7]} week of {date:%B}"

    def growing_days(self, planting: int) -> Array:
        """Return days since planting at the middle of each week, (W,)."""
        return self.days + 3.5 - self.spans[planting][0]

    def with_hosts(self, head_start: float) -> Season:
        """Return the season with the hosts of its first planting after all others, sown so much before it."""
        start, end = self.spans[0]
        return replace(
            self,
            spans=(*self.spans, (round(start - head_start), max(end, start + 1))),
            grown=(*self.grown, self.grown[0] + head_start),
            harvests=(*self.harvests, self.harvests[0]),
        )


def season_of(garden: Place, plantings: tuple[Planting, ...], covers: tuple[Covered, ...] = ()) -> Season:
    """Return the weeks of the calendar from the first planting to the last clearing, or until the last cover
    comes off.
    """
    season = _season(_key_of(garden), plantings, covers)
    if not garden.taught:
        return season
    return replace(season, bears=tuple(garden.times("yield", planting.crop) for planting in plantings))


def cover_span(place: Place, cover: Covered) -> tuple[int, int]:
    """Return from when to when a cover is on, in days from the turn of the garden's year."""
    return _span(_key_of(place), cover)


def _span(key: _Key, cover: Covered) -> tuple[int, int]:
    on, off = _offset(key, cover.on), _offset(key, cover.off)
    return on, off if off > on else off + _YEAR


def _cloth(key: _Key, days: Array, covers: tuple[Covered, ...]) -> tuple[Array | None, Array | None]:
    """Return the solid share of covers by week, and what they weigh with snow. [kg/m²]

    Source: handbook-1.6
    """
    if not covers:
        return None, None
    clear, mass = np.ones(len(days)), np.zeros(len(days))
    snows = np.array([_may_snow(key, int(day) + 3) for day in days])
    for cover in covers:
        row, (on, off) = tables.covers()[cover.cover], _span(key, cover)
        there = (days + 7 > on) & (days <= off)
        clear = clear * np.where(there, 1.0 - row.solidity, 1.0)
        mass = mass + np.where(there, row.kg_m2 + tables.constant("snow_lying") * snows, 0.0)
    return 1.0 - clear, mass


def _may_snow(key: _Key, day: int) -> bool:
    """Return whether snow may lie on a day: between the frosts of autumn and spring, where it freezes."""
    if key.season is None:
        return False
    after = (day - key.season) % 365
    return after < (365 - key.season)


@remembered(1024)
def _season(key: _Key, plantings: tuple[Planting, ...], covers: tuple[Covered, ...]) -> Season:
    courses = [_course(key, planting) for planting in plantings]
    planted, end = min(course.start for course in courses), max(course.end for course in courses)
    if covers:
        on, off = zip(*(_span(key, cover) for cover in covers), strict=True)
        planted, end = min(planted, *on), max(end, *off)
    monday = planted - (key.turns + dt.timedelta(days=planted)).weekday()
    weeks = min(max(math.ceil((end - monday) / 7), 1), MAX_WEEKS)
    days = np.asarray(monday + 7.0 * np.arange(weeks), dtype=np.float64)
    grown, harvests = [], []
    for planting, course in zip(plantings, courses, strict=True):
        pace = pace_in(key, planting.crop)
        sown = float(pace.upto(course.start)) - course.ahead
        grown.append(pace.upto(days + 3.5) - sown)
        crop = tables.crops()[planting.crop]
        left = float(pace.upto(course.end)) - sown - crop.first_d
        harvests.append(crop.harvest_d if crop.one_pick else max(left, _LEAST_BEARING))
    cloth, mass = _cloth(key, days, covers)
    for each in (days, *grown, *(arr for arr in (cloth, mass) if arr is not None)):
        each.setflags(write=False)  # they are shared
    spans = tuple((course.start, course.end) for course in courses)
    return Season(
        days, spans, key.turns, tuple(grown), cloth=cloth, cloth_kg_m2=mass, harvests=tuple(harvests)
    )


def weekly_gusts(site: Site, season: Season, required_gust: float) -> dict[str, Array]:
    """Return the strongest gust of each week at the plant: usual (1 in 2), rare (1 in 10) and that of once in
    ten seasons, (W,) m/s.

    The spread within a season follows EN 1991-1-4; the course over the months is the garden's climate.

    Args:
        site: Where.
        season: Its weeks.
        required_gust: Gust of once in ten seasons from the side that the structure turns to it. [m/s]
    """
    climate = tables.climates()[site.garden.climate]
    months = np.array([climate.months[season.date(week).month - 1] for week in range(season.weeks)])
    usual, rare = (float(wind.seasonal_share(p, wind.WEEKS)) for p in (0.5, 0.9))
    return {
        "usual": required_gust * usual * months,
        "rare": required_gust * rare * months,
        "rough": required_gust * months,
    }
