"""Plants along a row: where they stand, and the ties that hold their stems."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from .. import tables
from ..family.protocol import Need, Reason
from ..loads.outlook import opened, outlook, proposed_day
from ..loads.season import day_named
from ..mechanics import Array, Number
from ..path.geometry import Dimension, Plant, Point, Supply
from ..plan.fields import MOST_PLANTS
from ..plan.place import Place
from ..plan.structure import Planting
from ..site import Site
from ..tables import rows
from ..wording import day_text

FIRST = "p1"  # key of the planting a structure is proposed with
OFFSET = 0.10  # of a plant from the line it climbs [m], parts handbook 3.2
HEAVY = 0.5  # a fruit from which slings are usual [kg], crops handbook 5.4
_TIE_EVERY = 0.30  # of stem between ties [m], structures handbook 10.5


def along(plantings: tuple[Planting, ...], length: float, offset: float = OFFSET) -> tuple[Plant, ...]:
    """Return every plant of a straight row, so far off its line. [m]"""
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
            + planting.along
            - (planting.spacing / 4 if len(lines) == 2 else 0.0)
            + stagger
        )
        places += [(start + i * planting.spacing, side * offset, 0.0) for i in range(count)]
    return places


def ties_on_stem(height: Number) -> Array:
    """Return how many ties a stem of that height takes. [m]"""
    return np.ceil(np.maximum(height, _TIE_EVERY) / _TIE_EVERY) + 1


def stem_ties(plantings: Iterable[Planting], tie: str, top: float, bare: float) -> tuple[Supply, ...]:
    """Return the ties for stems that hold on to nothing, up to the top of what they climb. [m]"""
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
    """A need turned into a row: the crop that leads, every planting, the length of row they take, and why."""

    crop: rows.Crop
    plantings: tuple[Planting, ...]
    length: float
    reasons: dict[str, Reason]

    def filled(self, need: Need, room: int) -> tuple[Planting, ...]:
        """Return the plantings with as many of what leads as a support has room for where no number is asked
        for and nothing else grows on it.
        """
        first, *others = self.plantings
        if need.count or others:
            return self.plantings
        return (first.model_copy(update={"count": min(room, MOST_PLANTS)}),)


@dataclass(frozen=True)
class _Line:
    """One crop of a row: how far apart it stands, on how many lines, on which sides."""

    need: Need
    crop: rows.Crop
    apart: float

    @property
    def sides(self) -> tuple[str, ...]:
        return ("left", "right") if self.need.side == "both" else (self.need.side,)

    def run(self, count: int) -> float:
        """Return the row that so many of it take, from the first to the last. [m]"""
        return (math.ceil(count / len(self.sides)) - 1) * self.apart

    def room(self, row: float) -> int:
        """Return how many of it find room on so much row. [m]"""
        return min(max(math.floor(row / self.apart + 1e-6) + 1, 1) * len(self.sides), MOST_PLANTS)

    def beside(self, other: _Line) -> bool:
        """Return whether it shares a side with another, so that they stand one after the other."""
        return bool(set(self.sides) & set(other.sides))


def sown(need: Need, site: Site, longest: float, shortest: float = 0.6, spacing: float | None = None) -> Sown:
    """Return the row that a need takes on a bed, as many plants as fit unless a number is asked for. Crops of
    one side stand one after the other; those without a number share what is left alike.

    Args:
        need: What is wanted.
        site: Where.
        longest, shortest: Row that this kind of support can be. [m]
        spacing: Between plants, where the support decides it. [m]

    Source: crops-3
    """
    clear, bed = tables.constant("row_end_clear"), min(site.bed.length, longest)
    lines = [_line(each, spacing) for each in need.crops]
    rooms = [_room(line, lines, bed - 2 * clear) for line in lines]
    counts = [line.need.count or room for line, room in zip(lines, rooms, strict=True)]
    middles, run = _set_out(lines, counts)
    whole_bed = math.floor(bed * 20 + 1e-6) / 20
    length = max(min(math.ceil(max(run + 2 * clear, 0.9) * 20 - 1e-6) / 20, whole_bed), shortest)
    plantings, reasons = [], {}
    for number, (line, count, at) in enumerate(zip(lines, counts, middles, strict=True)):
        planting = Planting(
            key=FIRST if not number else f"p{number + 1}",
            crop=line.crop.key,
            count=count,
            spacing=line.apart,
            side=line.need.side,
            training=line.need.training,
            planted=day_named(site.garden, proposed_day(site.garden, line.crop.key)),
            along=0.0 if spacing else round(at, 3),
        )
        plantings.append(planting)
        reasons[planting.path("count")] = Reason(
            "count_asked" if line.need.count else "count",
            {"count": (count, "count"), "room": (rooms[number], "count")},
        )
        reasons[planting.path("spacing")] = Reason(
            "spacing", {"spacing": (line.apart, "length")}, {"crop": line.crop.name}
        )
        reasons[planting.path("planted")] = planting_reason(site.garden, line.crop)
    first = plantings[0]
    measures = {"count": (first.count, "count"), "spacing": (first.spacing, "length")}
    row = Reason("length" if len(lines) == 1 else "length_shared", {"length": (length, "length"), **measures})
    return Sown(lines[0].crop, tuple(plantings), length, {"length": row, **reasons})


def _line(need: Need, spacing: float | None) -> _Line:
    crop = tables.crops()[need.crop]
    free = (crop.free_spacing_low_m + crop.free_spacing_high_m) / 2
    return _Line(need, crop, spacing or (crop.spacing_m if need.training == "pruned" else free))


def _room(line: _Line, lines: Sequence[_Line], row: float) -> int:
    """Return how many of a crop find room beside what else shares its side. [m]"""
    sharing = [other for other in lines if other is not line and line.beside(other)]
    for other in sharing:
        row -= (line.apart + other.apart) / 2
        if other.need.count:
            row -= other.run(other.need.count)
    return line.room(row / (1 + sum(1 for other in sharing if not other.need.count)))


def _set_out(lines: Sequence[_Line], counts: Sequence[int]) -> tuple[list[float], float]:
    """Return where the middle of each crop lies from that of the row, and the row that all take: those that
    share a side one after the other, what shares none with them beside them. [m]
    """
    starts: list[float] = []
    together: list[set[int]] = []
    for number, line in enumerate(lines):
        before = [n for n in range(number) if line.beside(lines[n])]
        ends = [starts[n] + lines[n].run(counts[n]) + (line.apart + lines[n].apart) / 2 for n in before]
        starts.append(max(ends, default=0.0))
        joined = [group for group in together if group & set(before)]
        together = [group for group in together if group not in joined]
        together.append({number}.union(*joined))
    ends = [start + line.run(count) for start, line, count in zip(starts, lines, counts, strict=True)]
    runs = {n: max(ends[k] for k in group) for group in together for n in group}
    middles = [(starts[n] + ends[n] - runs[n]) / 2 for n in range(len(lines))]
    return middles, max(runs.values())


def planting_reason(place: Place, crop: rows.Crop) -> Reason:
    """Return why a crop is planted when it is: its window in the garden; where none is known, so many days
    before or after the last frost.
    """
    low, high = crop.plant_low_d, crop.plant_high_d
    if place.warmth is not None:
        day = proposed_day(place, crop.key)
        window = opened(outlook(place, crop.key).near(day), day)
        if window is None:
            return Reason("planted_never")
        words = {
            "opens": day_text(day_named(place, window.first)),
            "closes": day_text(day_named(place, window.last)),
        }
        return Reason("planted_window", words=words)
    if high <= 0:
        return Reason("planted_before", {"low": (-high, "count"), "high": (-low, "count")})
    return Reason("planted", {"low": (low, "count"), "high": (high, "count")})


def spacing_dimension(
    plantings: tuple[Planting, ...], grown: tuple[Plant, ...], edge: float
) -> tuple[Dimension, ...]:
    """Return the measure between the first two plants of a line, shown along the bed's edge in plan. [m]"""
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
