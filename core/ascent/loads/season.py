"""The season of a structure in weeks of the calendar, and the gusts each week brings."""

from __future__ import annotations

import datetime as dt
import math
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from .. import tables
from ..mechanics import Array, wind
from ..plan.model import MAX_WEEKS, Place, Planting, Site, day_of_year, month_day

_ORDINALS = ("first", "second", "third", "fourth", "last")


def _date(year: int, day: str) -> dt.date:
    month, of_month = map(int, day.split("-"))
    return dt.date(year, month, of_month)


class _Frosts(NamedTuple):
    """The year of a garden's last frost, and its frosts as month and day."""

    year: int
    last: str
    first: str

    @property
    def date(self) -> dt.date:
        """Return the day of the last frost."""
        return _date(self.year, self.last)


def _offset(frosts: _Frosts, day: str) -> int:
    """Return days from the last frost to the nearest such day, half a year before or after at most."""
    near = (_date(year, day) - frosts.date for year in (frosts.year - 1, frosts.year, frosts.year + 1))
    return min((away.days for away in near), key=abs)


def _span(frosts: _Frosts, planting: Planting) -> tuple[int, int]:
    crop = tables.crops()[planting.crop]
    start = _offset(frosts, planting.planted)
    first = (crop.first_low_d + crop.first_high_d) / 2
    end = start + round(first + 7 * (crop.harvest_low_wk + crop.harvest_high_wk) / 2)
    frost = (day_of_year(frosts.first) - day_of_year(frosts.last)) % 365
    return start, min(end, frost) if start < frost else end


@dataclass(frozen=True)
class Season:
    """Weeks of a structure's season, from Monday on, so that one week is the same for every structure of a
    garden.

    days: first day of each week, days from the last frost, (W,).
    spans: start and end of each planting, days from the last frost.
    last_frost: of the garden's year.
    late: by how much everything that grows is behind its usual course, one figure or (N, 1). [d]
    """

    days: Array
    spans: tuple[tuple[int, int], ...]
    last_frost: dt.date
    late: Array | float = 0.0

    @property
    def weeks(self) -> int:
        """Return the number of weeks."""
        return len(self.days)

    def date(self, week: int) -> dt.date:
        """Return the first day of a week."""
        return self.last_frost + dt.timedelta(days=int(self.days[week]))

    def week_of(self, day: int) -> int | None:
        """Return the week that a day of the year lies in, counted from 1 without a leap day; none outside of
        the season.
        """
        first = self.date(0)
        after = ((_date(year, month_day(day)) - first).days // 7 for year in (first.year, first.year + 1))
        return next((week for week in after if 0 <= week < self.weeks), None)

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


def season_of(garden: Place, plantings: tuple[Planting, ...]) -> Season:
    """Return the weeks of the calendar from the first planting to the last clearing."""
    return _season(_Frosts(garden.year, garden.last_frost, garden.first_frost), plantings)


@lru_cache(maxsize=1024)
def _season(frosts: _Frosts, plantings: tuple[Planting, ...]) -> Season:
    spans, frost = tuple(_span(frosts, planting) for planting in plantings), frosts.date
    planted, end = min(s for s, _ in spans), max(e for _, e in spans)
    monday = planted - (frost + dt.timedelta(days=planted)).weekday()
    weeks = min(max(math.ceil((end - monday) / 7), 1), MAX_WEEKS)
    days = np.asarray(monday + 7.0 * np.arange(weeks), dtype=np.float64)
    days.setflags(write=False)  # it is shared
    return Season(days, spans, frost)


def weekly_gusts(site: Site, season: Season, asked: float) -> dict[str, Array]:
    """Return the strongest gust of each week at the plant: usual (1 in 2), rare (1 in 10) and that of once in
    ten seasons, (W,) m/s.

    The spread within a season follows EN 1991-1-4; the course over the months is the garden's climate.

    Args:
        site: Where.
        season: Its weeks.
        asked: Gust of once in ten seasons from the side that the structure turns to it. [m/s]
    """
    climate = tables.climates()[site.garden.climate]
    months = np.array([climate.months[season.date(week).month - 1] for week in range(season.weeks)])
    usual, rare = (float(wind.seasonal_share(p, wind.WEEKS)) for p in (0.5, 0.9))
    return {"usual": asked * usual * months, "rare": asked * rare * months, "rough": asked * months}
