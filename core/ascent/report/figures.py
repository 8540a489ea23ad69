"""Figures of an evaluation as a report carries them."""

from __future__ import annotations

import numpy as np

from ..analysis.crossings import at
from ..mechanics import Array


def grid_week(values: Array, state: int, weeks: int) -> list[float]:
    """Return the figures of one soil state by week, (W,), finite. [the unit of the figures]"""
    row = np.broadcast_to(values[min(state, values.shape[0] - 1)], (weeks,))
    return [finite(float(v)) for v in row]


def finite(value: float, most: float = 99.0) -> float:
    """Return a figure as JSON can carry it: at most `most`, also where it is infinite. [the unit of the
    figure]
    """
    return round(min(value, most), 3)


def of_winds(amount: Array | float, week: int) -> tuple[float, float, float]:
    """Return a movement in still air, serviceability wind and design gust of a week. [m]"""
    still, working, design = (finite(at(amount, 0, week, wind), 3.0) for wind in range(3))
    return still, working, design


def capital(text: str) -> str:
    """Return a text with a capital letter first."""
    return text[:1].upper() + text[1:]
