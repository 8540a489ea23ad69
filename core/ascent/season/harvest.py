"""Harvest by week: what a planting brings in, with its spread; gluts and gaps of a garden."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from .. import tables
from ..mechanics import Array
from .tasks import GrownPlanting

GLUT, GAP = 2.2, 0.15  # of the mean of the weeks in which anything is picked
_FEW = 4  # weeks of harvest below which neither is told
_ONCE = 14.0  # days over which a crop that is picked once comes in [d]
_RISE, _FALL = 0.3, 0.2  # of the time it bears, over which a harvest rises and falls
_SHIFT = 0.15  # of a crop's days: how far its dates are off, handbook season 13


@dataclass(frozen=True)
class Harvest:
    """What is picked in each week, (W,): as a rule, and the least and the most of a poor and a good year that
    comes earlier or later. [kg]

    good: a good year over a usual one.
    """

    low: Array
    usual: Array
    high: Array
    good: float = 1.0

    @property
    def totals(self) -> tuple[float, float, float]:
        """Return what comes in in all, in a poor, a usual and a good year. [kg]"""
        whole = float(np.sum(self.usual))
        return whole / self.good, whole, whole * self.good


def harvest_of(grown: GrownPlanting, mondays: Sequence[dt.date]) -> Harvest:
    """Return what a planting brings in by week.

    A crop that is picked again and again comes in from its first pick until something ends it: it rises,
    stays, and falls at the end; less comes in weeks in which little set for the heat. One that is picked once
    comes in in its first two weeks. A season shorter than the usual harvest brings so much less. A poor year
    brings as much less as a good one brings more, and either comes earlier or later by a seventh of the
    crop's days.

    Args:
        grown: The planting.
        mondays: First days of the weeks.

    Source: crops-5.1
    """
    crop, course = grown.crop, grown.course
    usual, good = grown.bears_kg
    offset = (mondays[0] - grown.pace.turns).days
    edges: Array = offset + 7.0 * np.arange(len(mondays) + 1, dtype=float)
    ends = (course.first, max(course.first + _ONCE, course.end) if crop.one_pick else course.end)
    begin, whole = (float(each) for each in grown.borne(np.array(ends, dtype=float)))
    length = _ONCE if crop.one_pick else whole - begin

    def picked(shift: float) -> Array:
        days = shift * (course.first - course.start)
        at = np.clip(edges - days, course.start, max(course.end - max(days, 0.0), course.start))
        u = np.clip((grown.borne(at) - begin) / max(length, 1e-6), 0.0, 1.0)
        return np.asarray(np.diff(u**2 * (3 - 2 * u) if crop.one_pick else _brought(u)))

    ways = [picked(shift) for shift in (-_SHIFT, 0.0, _SHIFT)]
    ratio = good / usual if usual else 1.0
    return Harvest(
        usual / ratio * np.minimum.reduce(ways), usual * ways[1], good * np.maximum.reduce(ways), ratio
    )


def _brought(u: Array) -> Array:
    """Return the share of a harvest that is in, by the share of its time: it rises, stays, and falls."""
    rise, fall = _RISE, _FALL
    at = np.minimum(u, rise)
    share = at**2 / (2 * rise) + np.clip(u - rise, 0.0, 1.0 - rise - fall)
    left = np.clip(u - (1.0 - fall), 0.0, fall)
    return np.asarray((share + left - left**2 / (2 * fall)) / (1.0 - (rise + fall) / 2))


def gluts_and_gaps(total: Array) -> tuple[list[int], list[int]]:
    """Return the weeks in which far more comes in than on the mean, and those between first and last pick in
    which next to nothing does.

    Args:
        total: Of a garden by week, (W,). [kg]
    """
    picked = np.flatnonzero(total > 1e-6)
    if len(picked) < _FEW:
        return [], []
    mean = float(np.mean(total[picked]))
    between = range(int(picked[0]), int(picked[-1]) + 1)
    return (
        [week for week in between if total[week] > GLUT * mean],
        [week for week in between if total[week] < GAP * mean and week not in (picked[0], picked[-1])],
    )


def measured(crop: str, kg: float) -> tuple[float, str] | None:
    """Return a harvest in the largest measure that it fills half of, in which such a crop is sold: how
    many, and of what; nothing where it is sold by weight. [kg]

    Source: crops-7
    """
    row = next((row for row in tables.measures().values() if crop in row.crops), None)
    if row is None:
        return None
    for name, size in row.sizes.items():
        if kg >= size / 2:
            return kg / size, name
    return None
