"""A late support: plants already sprawl, and driven posts cut their roots."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ..path.geometry import Geometry
from ..plan.bed import Bed

_ROOTS, _A_DAY, _MOST = 0.10, 0.0075, 0.45  # [m], handbook season 4
_IN_SOIL = ("post", "stake", "anchor", "strut", "pole")
_FREE_DAYS = 10  # after planting that nobody need mind


@dataclass(frozen=True)
class Rescue:
    """A late support: days since planting, how far roots reach [m], what of it would stand in them, and the
    ways to go, best first.
    """

    days: int
    roots: float
    driven: int
    inside: int
    ways: tuple[Literal["straddle", "overhead", "bar", "careful", "go-on"], ...]


def root_reach(days: float) -> float:
    """Return how far from a plant nothing is to be driven.

    Args:
        days: Since it was planted. [d]

    Returns:
        Radius. [m]

    Source: handbook-season-4
    """
    return min(_ROOTS + _A_DAY * max(days, 0.0), _MOST)


def rescue_of(bed: Bed, geometry: Geometry, days: int) -> Rescue | None:
    """Return how a support can still be set among plants that stand already; nothing as long as nobody need
    mind.

    Args:
        bed: It stands on.
        geometry: The support laid out.
        days: Since its first plants were planted.

    Source: handbook-season-4
    """
    if days <= _FREE_DAYS:
        return None
    reach = root_reach(days)
    feet = [
        min(member.points, key=lambda point: point[2])
        for member in geometry.members
        if member.role in _IN_SOIL and min(point[2] for point in member.points) < 0.0
    ]
    plants = [plant.at for plant in geometry.plants]
    inside = sum(any(math.hypot(foot[0] - at[0], foot[1] - at[1]) < reach for at in plants) for foot in feet)
    ways: list[Literal["straddle", "overhead", "bar", "careful", "go-on"]] = []
    if not inside:
        ways.append("go-on")
    else:
        if bed.kind == "raised":
            ways.append("straddle")
        ways += ["overhead", "bar", "careful"]
    return Rescue(days, reach, len(feet), inside, tuple(ways))
