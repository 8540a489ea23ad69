"""The season of a structure in weeks, and the gusts each week brings."""

from __future__ import annotations

import datetime as dt
import math
from dataclasses import dataclass

import numpy as np

from .. import tables
from ..mechanics import Array, wind
from ..model import MAX_WEEKS, Place, Planting, Site, day_of_year

_ORDINALS = ("first", "second", "third", "fourth", "last")


def _offset(garden: Place, month_day: str) -> int:
    """Return days from the last frost, between −182 and +182."""
    return (day_of_year(month_day) - day_of_year(garden.last_frost) + 182) % 365 - 182


def _span(garden: Place, planting: Planting) -> tuple[int, int]:
    crop = tables.crops()[planting.crop]
    start = _offset(garden, planting.planted)
    first = (crop.first_low_d + crop.first_high_d) / 2
    end = start + round(first + 7 * (crop.harvest_low_wk + crop.harvest_high_wk) / 2)
    frost = (day_of_year(garden.first_frost) - day_of_year(garden.last_frost)) % 365
    return start, min(end, frost) if start < frost else end


@dataclass(frozen=True)
class Season:
    """Weeks of a structure's season.

    days: first day of each week, days from the last frost, (W,).
    spans: start and end of each planting, days from the last frost.
    last_frost: day of the year.
    """

    days: Array
    spans: tuple[tuple[int, int], ...]
    last_frost: int

    @property
    def weeks(self) -> int:
        """Return the number of weeks."""
        return len(self.days)

    def date(self, week: int) -> dt.date:
        """Return the first day of a week in a year without a leap day."""
        return dt.date(2001, 1, 1) + dt.timedelta(days=(self.last_frost - 1 + int(self.days[week])) % 365)

    def label(self, week: int) -> str:
        """Return a week as people say it: ‘the third week of August’."""
        date = self.date(week) + dt.timedelta(days=3)
        return f"the {_ORDINALS[(date.day - 1) // 7]} week of {date:%B}"

    def growing_days(self, planting: int) -> Array:
        """Return days since planting at the middle of each week, (W,)."""
        return self.days + 3.5 - self.spans[planting][0]


def season_of(garden: Place, plantings: tuple[Planting, ...]) -> Season:
    """Return the weeks from the first planting to the last clearing."""
    spans = tuple(_span(garden, planting) for planting in plantings)
    start, end = min(s for s, _ in spans), max(e for _, e in spans)
    weeks = min(max(math.ceil((end - start) / 7), 1), MAX_WEEKS)
    return Season(np.asarray(start + 7.0 * np.arange(weeks), dtype=np.float64), spans, day_of_year(garden.last_frost))


def weekly_gusts(site: Site, season: Season, asked: float) -> dict[str, Array]:
    """Return the strongest gust of each week at the plant: usual (1 in 2), rare (1 in 10) and that of once in ten seasons, (W,) m/s.

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
