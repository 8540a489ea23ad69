"""Frosts of a garden: their dates with a risk left, and the chance of one after a day."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

import numpy as np

from ..mechanics import heat
from ..memory import remembered
from ..plan.climate import Warmth
from ..plan.fields import day_of_year, month_day
from ..plan.place import Careful, Place
from .course import turn_of

ENOUGH_YEARS = 20  # of a record whose own quantiles are used, handbook season 1
RISKS: dict[Careful, float] = {"cautious": 0.1, "usual": 0.3, "bold": 0.5}
_YEAR = 365


@dataclass(frozen=True)
class Frosts:
    """The last and the first frost of a garden's season as days from the turn of its year, median and spread.

    lasts, firsts: of each year of its own record about their medians, rising; none where it is too short.
    spread: standard deviation of either date. [d] winters: share of winters that have a frost.
    """

    turns: dt.date
    last: float
    first: float
    spread: float
    lasts: tuple[float, ...] = ()
    firsts: tuple[float, ...] = ()
    winters: float = 1.0

    @property
    def usual(self) -> bool:
        """Return whether one winter in two has a frost, so that its dates are those of the garden."""
        return self.winters >= 0.5

    @property
    def years(self) -> int:
        """Return the years of the record that its dates rest on; 0 where they follow the normal law."""
        return len(self.lasts)

    def last_with(self, risk: float) -> float:
        """Return the day after which a frost still comes with that chance. [d]

        Source: handbook-season-1
        """
        if self.lasts:
            return self.last + float(np.quantile(self.lasts, 1.0 - risk))
        return self.last + heat.frost_shift(risk, self.spread)

    def first_with(self, risk: float) -> float:
        """Return the day before which a frost has come with that chance. [d]

        Source: handbook-season-1
        """
        if self.firsts:
            return self.first + float(np.quantile(self.firsts, risk))
        return self.first - heat.frost_shift(risk, self.spread)

    def chance_after(self, day: float) -> float:
        """Return the chance that a frost of spring still comes after a day."""
        if self.lasts:
            return self.winters * float(np.mean(np.asarray(self.lasts) + self.last > day))
        return float(heat.frost_chance_after(day - self.last, self.spread))


def frosts_of(place: Place) -> Frosts | None:
    """Return the frosts of a garden's season; nothing where it never freezes. Where fewer than one winter in
    two has a frost they are a chance and not its dates.
    """
    warmth = place.warmth
    if place.last_frost is None or place.first_frost is None:
        return _mild(place, warmth) if warmth and warmth.lasts and warmth.firsts else None
    season = float((day_of_year(place.first_frost) - day_of_year(place.last_frost)) % _YEAR)
    if warmth and min(len(warmth.lasts), len(warmth.firsts)) >= ENOUGH_YEARS:
        return Frosts(
            turn_of(place),
            0.0,
            season,
            place.frost_spread,
            _about(warmth.lasts, place.last_frost),
            _about(warmth.firsts, place.first_frost),
        )
    return Frosts(turn_of(place), 0.0, season, place.frost_spread)


def _mild(place: Place, warmth: Warmth) -> Frosts:
    """Return the frosts of a garden most of whose winters have none."""
    turns = turn_of(place)
    winter = 0.0 if place.latitude >= 0 else 14.0  # the middle of winter from the turn of its year
    middle = month_day(day_of_year(place.turns) + int(winter))
    lasts = [each + winter for each in _about(warmth.lasts, middle)]
    firsts = [each + winter for each in _about(warmth.firsts, middle)]
    last, first = float(np.median(lasts)), float(np.median(firsts))
    return Frosts(
        turns,
        last,
        first + _YEAR,
        place.frost_spread,
        tuple(each - last for each in lasts),
        tuple(each - first for each in firsts),
        min(len(lasts) / max(warmth.years, len(lasts)), 0.49),
    )


@remembered(128)
def _about(days: tuple[str, ...], median: str) -> tuple[float, ...]:
    """Return how far days of the year lie from one of them, half a year at most either way, rising."""
    half = _YEAR // 2
    at = day_of_year(median)
    return tuple(sorted(float((day_of_year(day) - at + half) % _YEAR - half) for day in days))
