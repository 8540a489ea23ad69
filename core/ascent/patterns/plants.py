"""Plants along a row: where they stand, and the ties that hold their stems."""

from __future__ import annotations

import math
from collections.abc import Iterable

from .. import rows, tables
from ..family import Reason
from ..geometry import Plant, Point, Supply
from ..model import Planting

OFFSET = 0.10  # of a plant from the line it climbs [m], parts handbook 3.2
_TIE_EVERY = 0.30  # of stem between ties [m], structures handbook 10.5


def along(plantings: tuple[Planting, ...], length: float) -> tuple[Plant, ...]:
    """Return every plant of a straight row."""
    return tuple(Plant(at, index) for index, planting in enumerate(plantings) for at in _places(planting, length))


def _places(planting: Planting, length: float) -> list[Point]:
    """Return where plants stand: one line a side, two lines staggered by half a spacing."""
    lines = {"left": (1.0,), "right": (-1.0,), "both": (1.0, -1.0)}[planting.side]
    places: list[Point] = []
    for number, side in enumerate(lines):
        count = len(range(number, planting.count, len(lines)))
        stagger = planting.spacing / 2 * number
        start = (length - (count - 1) * planting.spacing) / 2 - (planting.spacing / 4 if len(lines) == 2 else 0.0) + stagger
        places += [(start + i * planting.spacing, side * OFFSET, 0.0) for i in range(count)]
    return places


def ties_on_stem(height: float) -> int:
    """Return how many ties a stem of that height takes."""
    return math.ceil(max(height, _TIE_EVERY) / _TIE_EVERY) + 1


def stem_ties(plantings: Iterable[Planting], tie: str, top: float, bare: float) -> tuple[Supply, ...]:
    """Return the ties for stems that hold on to nothing, up to the top of what they climb."""
    count = sum(
        planting.count * ties_on_stem(min(tables.crops()[planting.crop].height_m, top) - bare)
        for planting in plantings
        if tables.crops()[planting.crop].training == "TIE"
    )
    return (Supply("stem-ties", "ties", tie, count),) if count else ()


def planting_reason(crop: rows.Crop) -> Reason:
    """Return why a crop is planted when it is: so many days before or after the last frost."""
    low, high = crop.plant_low_d, crop.plant_high_d
    if high <= 0:
        return Reason("planted_before", {"low": (-high, "count"), "high": (-low, "count")})
    return Reason("planted", {"low": (low, "count"), "high": (high, "count")})
