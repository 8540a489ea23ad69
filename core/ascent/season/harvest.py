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

    A crop that is picked again and again comes in over its harvest as a smooth rise and fall, one that is
    picked once in its first two weeks; what frost or heat cuts off is lost. A poor year brings as much less
    as a good one brings more, and either comes earlier or later by a seventh of the crop's days.

    Args:
        grown: The planting.
        mondays: First days of the weeks.

    Source: crops-5.1
    """
    crop, course = grown.crop, grown.course
    free = grown.planting.training == "free" and crop.free_yield_kg is not None
    usual = (crop.free_yield_kg if free else crop.yield_kg) or 0.0
    good = (crop.free_yield_high_kg if free else crop.yield_high_kg) or usual
    here = grown.place.times("yield", crop.key)
    offset = (mondays[0] - grown.pace.turns).days
    edges: Array = offset + 7.0 * np.arange(len(mondays) + 1, dtype=float)
    begun = float(grown.pace.upto(course.start)) - course.ahead
    first = (crop.first_low_d + crop.first_high_d) / 2
    length = 14.0 if crop.one_pick else 3.5 * (crop.harvest_low_wk + crop.harvest_high_wk)

    def picked(shift: float) -> Array:
        at = np.clip(edges, course.start, course.end)
        u = np.clip((grown.pace.upto(at) - begun - first * (1 + shift)) / length, 0.0, 1.0)
        return np.asarray(np.diff(u**2 * (3 - 2 * u)))

    count, ways = grown.planting.count * here, [picked(shift) for shift in (-_SHIFT, 0.0, _SHIFT)]
    ratio = good / usual if usual else 1.0
    return Harvest(
        count * usual / ratio * np.minimum.reduce(ways),
        count * usual * ways[1],
        count * good * np.maximum.reduce(ways),
        ratio,
    )


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
