"""Plants along a row: where they stand, and the ties that hold their stems."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from .. import tables
from ..family.protocol import Need, Reason
from ..mechanics import Array, Number
from ..path.geometry import Dimension, Plant, Point, Supply
from ..plan.model import MOST_PLANTS, Planting, Site, day_of_year, month_day
from ..tables import rows

FIRST = "p1"  # key of the planting a structure is proposed with
OFFSET = 0.10  # of a plant from the line it climbs [m], parts handbook 3.2
HEAVY = 0.5  # a fruit from which slings are usual [kg], crops handbook 5.4
_TIE_EVERY = 0.30  # of stem between ties [m], structures handbook 10.5


def along(plantings: tuple[Planting, ...], length: float, offset: float = OFFSET) -> tuple[Plant, ...]:
    """Return every plant of a straight row, so far off its line."""
    return tuple(
        Plant(at, index)
        for index, planting in enumerate(plantings)
        for at in _places(planting, length, offset)
    )


def _places(planting: Planting, length: float, offset: float) -> list[Point]:
    """Return where plants stand: one line a side, two lines staggered by half a spacing."""
    lines = {"left": (1.0,), "right": (-1.0,), "both": (1.0, -1.0)}[planting.side]
    places: list[Point] = []
    for number, side in enumerate(lines):
        count = len(range(number, planting.count, len(lines)))
        stagger = planting.spacing / 2 * number
        start = (
            (length - (count - 1) * planting.spacing) / 2
            - (planting.spacing / 4 if len(lines) == 2 else 0.0)
            + stagger
        )
        places += [(start + i * planting.spacing, side * offset, 0.0) for i in range(count)]
    return places


def ties_on_stem(height: Number) -> Array:
    """Return how many ties a stem of that height takes. [m]"""
    return np.ceil(np.maximum(height, _TIE_EVERY) / _TIE_EVERY) + 1


def stem_ties(plantings: Iterable[Planting], tie: str, top: float, bare: float) -> tuple[Supply, ...]:
    """Return the ties for stems that hold on to nothing, up to the top of what they climb."""
    count = sum(
        planting.count * int(ties_on_stem(min(tables.crops()[planting.crop].height_m, top) - bare))
        for planting in plantings
        if tables.crops()[planting.crop].training == "TIE"
    )
    return (Supply("stem-ties", "ties", tie, count),) if count else ()


def slings(plantings: Iterable[Planting], sling: str) -> tuple[Supply, ...]:
    """Return a sling for each fruit that wants one, and a tenth more."""
    supplies = []
    for planting in plantings:
        row = tables.crops()[planting.crop]
        fruit = (
            math.ceil(planting.count * row.yield_kg / max(row.fruit_kg, 0.1) * 1.1)
            if row.fruit_heaviest_kg > HEAVY
            else 0
        )
        if fruit:
            supplies.append(Supply("sling", "fittings", sling, fruit))
    return tuple(supplies)


@dataclass(frozen=True)
class Sown:
    """A need turned into a row: the crop, its count and spacing, the length of row it takes, and why."""

    crop: rows.Crop
    plantings: tuple[Planting, ...]
    length: float
    reasons: dict[str, Reason]


def sown(need: Need, site: Site, longest: float, shortest: float = 0.6, spacing: float | None = None) -> Sown:
    """Return the row that a need takes on a bed, as many plants as fit unless a number is asked for.

    Args:
        need: What is wanted.
        site: Where.
        longest, shortest: Row that this kind of support can be. [m]
        spacing: Between plants, where the support decides it. [m]

    Source: crops-3
    """
    plant = tables.crops()[need.crop]
    free = (plant.free_spacing_low_m + plant.free_spacing_high_m) / 2
    apart = spacing or (plant.spacing_m if need.training == "pruned" else free)
    lines = 2 if need.side == "both" else 1
    clear, bed = tables.constant("row_end_clear"), min(site.bed.length, longest)
    room = min(max(math.floor((bed - 2 * clear) / apart + 1e-6) + 1, 1) * lines, MOST_PLANTS)
    count = need.count or room
    wanted = max((math.ceil(count / lines) - 1) * apart + 2 * clear, 0.9)
    whole_bed = math.floor(bed * 20 + 1e-6) / 20
    length = max(min(math.ceil(wanted * 20 - 1e-6) / 20, whole_bed), shortest)
    middle = round((plant.plant_low_d + plant.plant_high_d) / 2)
    planted = month_day(day_of_year(site.garden.last_frost) + middle)
    planting = Planting(
        key=FIRST,
        crop=plant.key,
        count=count,
        spacing=apart,
        side=need.side,
        training=need.training,
        planted=planted,
    )
    reasons = {
        "length": Reason(
            "length", {"length": (length, "length"), "count": (count, "count"), "spacing": (apart, "length")}
        ),
        planting.path("count"): Reason(
            "count_asked" if need.count else "count", {"count": (count, "count"), "room": (room, "count")}
        ),
        planting.path("spacing"): Reason("spacing", {"spacing": (apart, "length")}, {"crop": plant.name}),
        planting.path("planted"): planting_reason(plant),
    }
    return Sown(plant, (planting,), length, reasons)


def planting_reason(crop: rows.Crop) -> Reason:
    """Return why a crop is planted when it is: so many days before or after the last frost."""
    low, high = crop.plant_low_d, crop.plant_high_d
    if high <= 0:
        return Reason("planted_before", {"low": (-high, "count"), "high": (-low, "count")})
    return Reason("planted", {"low": (low, "count"), "high": (high, "count")})


def spacing_dimension(
    plantings: tuple[Planting, ...], grown: tuple[Plant, ...], edge: float
) -> tuple[Dimension, ...]:
    """Return the measure between the first two plants of a line, shown along the bed's edge in plan."""
    first = [plant for plant in grown if plant.planting == 0]
    lines = 2 if plantings[0].side == "both" else 1
    if len(first) <= lines:
        return ()
    (x0, _, _), (x1, _, _) = first[0].at, first[1].at
    return (
        Dimension(
            plantings[0].path("spacing"), "plan", (x0, -edge, 0), (x1, -edge, 0), plantings[0].spacing, -0.42
        ),
    )
