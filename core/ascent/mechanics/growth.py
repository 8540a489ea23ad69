"""Courses of plants over the season."""

from __future__ import annotations

import math

import numpy as np

from . import Array, Number


def logistic(day: Number, half: float, nearly: float) -> Array:
    """Return the share of full growth on a logistic course.

    Args:
        day: Days since planting. [d]
        half: Day of 50 % growth. [d]
        nearly: Day of 95 % growth. [d]

    Returns:
        Share of full growth, 0 to 1.

    Source: crops-5.1
    """
    rate = math.log(19.0) / (nearly - half)
    return np.asarray(1.0 / (1.0 + np.exp(-rate * (np.asarray(day, dtype=float) - half))))


def smooth_step(u: Number) -> Array:
    """Return the smooth rise u²(3 − 2u), held at 0 below 0 and at 1 above 1. [-]

    Args:
        u: Position on the rise.

    Returns:
        Share risen.

    Source: crops-5.1
    """
    t = np.clip(np.asarray(u, dtype=float), 0.0, 1.0)
    return np.asarray(t**2 * (3.0 - 2.0 * t))


def hanging_fruit(day: Number, first: float, harvest: float, set_to_pick: float, one_pick: bool) -> Array:
    """Return the share of the greatest hanging fruit that hangs on a day.

    Args:
        day: Days since planting. [d]
        first: Day of first harvest. [d]
        harvest: Length of harvest. [d]
        set_to_pick: Days from fruit set to picking. [d]
        one_pick: All picked at once, as winter squash.

    Returns:
        Share of the peak, 0 to 1.

    Source: crops-5.1
    """
    t = np.asarray(day, dtype=float)
    start = first - set_to_pick
    if one_pick:
        return np.where(t > first + harvest, 0.0, smooth_step((t - start) / (0.8 * set_to_pick)))
    rise = smooth_step((t - start) / (first + 0.25 * harvest - start))
    fall = 1.0 - 0.7 * np.clip((t - first - 0.7 * harvest) / (0.3 * harvest), 0.0, 1.0)
    return np.asarray(rise * fall)


def canopy_cover(full_cover: float, leaf_share: Number) -> Array:
    """Return the leaf cover of a face with more or less leaf than the reference stand. [-]

    From cover = 1 − exp(−k·leaf area): the clear share is raised to the power of the leaf share.

    Args:
        full_cover: Cover of the reference stand.
        leaf_share: Leaf per length of row over that of the reference stand.

    Returns:
        Leaf cover, 0 to 1.

    Source: beer-lambert
    """
    return np.asarray(1.0 - (1.0 - full_cover) ** np.asarray(leaf_share, dtype=float))
