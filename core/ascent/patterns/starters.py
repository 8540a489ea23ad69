"""A twiggy stick beside each plant that brings it up to what it is to climb."""

from __future__ import annotations

import math

from ..path.geometry import Member, Plant

STICK = "brush_12"
LONG = 0.6  # of a starter [m]
_IN = 0.15  # of it in the soil [m]
_BESIDE = 0.05  # from the stem [m], parts handbook 3.15


def members(grown: tuple[Plant, ...]) -> list[Member]:
    """Return a starter at each plant, leaning to where the plant is to go; it is not counted on to carry
    anything.
    """
    sticks = []
    for n, plant in enumerate(grown):
        x, y, _ = plant.at
        to_x, to_y, _ = plant.way[-1] if plant.way else (x, 0.0, 0.0)
        foot = (x + _BESIDE, y, -_IN)
        head = (x + 0.3 * (to_x - x), y + 0.6 * (to_y - y), LONG - _IN)
        sticks.append(Member(f"starter-{n + 1}", "strut", "posts", STICK, (foot, head), LONG, 0.012))
    return sticks


def height() -> float:
    """Return how high a starter brings a plant. [m]"""
    return math.floor((LONG - _IN) * 20) / 20
