"""A structure from the side, from the end and from above on one sheet, with its measures."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence, Set
from dataclasses import dataclass

from ..words.quantities import System, write
from .sheet import Dot, Drawn, Flat, Ink, Line, Mark, Sheet, Span, Words, moved
from .views import View

_GAP = 1.2  # between views [m]
_FLAT = 1.15  # how much smaller what is drawn flatter, and takes less paper, may be
_EDGE = 0.6  # of a sheet, for the names of views [m]
_MOST_WIRES = 400  # of a panel, each way
_NAMES = {"elevation": "from the side", "end": "from the end", "plan": "from above"}
_INKS: dict[str, Ink] = {"wood": "wood", "cane": "cane", "metal": "metal", "soil": "soil"}


@dataclass(frozen=True)
class Stage:
    """How far a structure is built: members that stand, drawn pale, and those that are just set, in ink."""

    standing: frozenset[str]
    fresh: frozenset[str]


def views_sheet(
    views: Sequence[View], title: str, system: System, stage: Stage | None = None, room: float = 0.0
) -> Sheet:
    """Return the views of a structure as one sheet: side and end beside each other on one ground, the plan
    below them, or beside them where all is drawn larger so. [m]

    Args:
        views: From the side, from the end and from above.
        title: Of the sheet.
        system: Whose units measures are written in.
        stage: How far it is built, where it is not drawn whole and with its measures.
        room: Width over height of the room it is drawn in; the plan is below where none is said.
    """
    named: dict[str, View] = {view.name: view for view in views}
    side, end = named["elevation"], named["end"]
    shift: dict[str, Flat] = {"elevation": (0.0, 0.0), "end": (side.high[0] + _GAP - end.low[0], 0.0)}
    ground_to = shift["end"][0] + end.high[0]
    below, beside = (_laid(named, shift, at) for at in _plans_at(named, ground_to))
    flat = room and _size(beside, room) <= _FLAT * _size(below, room)
    low, high, shift = beside if flat else below
    sheet = Drawn(title, low, high)
    for view in views:
        by = shift[view.name]
        sheet.on("ground", *_bed(view, by))
        if stage:
            sheet.on("standing", *_members(view, by, stage.standing, "pale"))
            sheet.on("members", *_members(view, by, stage.fresh))
            continue
        sheet.on("members", *_members(view, by))
        sheet.on("plants", *_plants(view, by))
        sheet.on("measures", *_measures(view, by, system))
    left, right = low[0] - 0.8, ground_to + _GAP / 2
    sheet.on("ground", Line(((left, 0.0), (right, 0.0)), 0.025))
    for name, words in _NAMES.items():
        (dx, dy), view = shift[name], named[name]
        sheet.on("names", Words((dx + view.low[0], dy + view.high[1] + 0.55), words, "start"))
    return sheet.done()


def _plans_at(named: Mapping[str, View], ground_to: float) -> tuple[Flat, Flat]:
    """Return where the plan may lie: below the views from the side and the end, or beside them."""
    side, plan = named["elevation"], named["plan"]
    below = (0.0, side.low[1] - _GAP - plan.high[1])
    return below, (ground_to + _GAP - plan.low[0], side.high[1] - plan.high[1])


def _laid(
    named: Mapping[str, View], shift: Mapping[str, Flat], plan_at: Flat
) -> tuple[Flat, Flat, dict[str, Flat]]:
    """Return the corners of a sheet on which the plan lies somewhere, and where each view does."""
    at = {**shift, "plan": plan_at}
    lows = [(at[name][0] + view.low[0], at[name][1] + view.low[1]) for name, view in named.items()]
    highs = [(at[name][0] + view.high[0], at[name][1] + view.high[1]) for name, view in named.items()]
    low = (min(x for x, _ in lows) - _EDGE, min(y for _, y in lows))
    return low, (max(x for x, _ in highs), max(y for _, y in highs) + _EDGE), at


def _size(way: tuple[Flat, Flat, dict[str, Flat]], room: float) -> float:
    """Return how wide a room of a shape must be for a sheet. [m]"""
    low, high, _ = way
    return max(high[0] - low[0], (high[1] - low[1]) * room)


def _bed(view: View, by: Flat) -> Iterator[Mark]:
    if view.name == "plan":
        (x0, y0), (x1, y1) = moved(view.bed, by)
        yield Line(((x0, y0), (x1, y0), (x1, y1), (x0, y1)), ink="soil", closed=True, fill="bed")


def _members(
    view: View, by: Flat, only: Set[str] | None = None, drawn_in: Ink | None = None
) -> Iterator[Mark]:
    for mark in view.marks:
        if mark.role == "grip" or (only is not None and mark.member not in only):
            continue
        points, ink = moved(mark.points, by), drawn_in or _INKS.get(mark.stuff, "ink")
        if mark.shape == "point":
            yield Dot(points[0], 0.015, ink)
        elif mark.shape == "panel":
            yield Line(points, 0.004, ink, closed=True)
            for wire in _wires(mark.points, mark.grid):
                yield Line(moved(wire, by), 0.003, ink)
        elif mark.shape == "wires":
            for line in mark.lines:
                yield Line(moved(line, by), max(mark.thickness, 0.004), ink)
        else:
            yield Line(points, max(mark.thickness, 0.006), ink)


def _plants(view: View, by: Flat) -> Iterator[Mark]:
    for plant in view.plants:
        if plant.way:
            yield Line(moved(plant.way, by), 0.012, "leaf")
        yield Dot(moved((plant.at,), by)[0], 0.03, "leaf")


def _wires(points: Sequence[Flat], grid: Flat | None) -> list[tuple[Flat, Flat]]:
    """Return the wires of a panel of some grid."""
    if grid is None:
        return []
    (x0, z0), (x1, z1) = points[0], points[2]
    along = [x0 + i * grid[0] for i in range(1, min(math.ceil((x1 - x0) / grid[0]), _MOST_WIRES))]
    up = [z0 + i * grid[1] for i in range(1, min(math.ceil((z1 - z0) / grid[1]), _MOST_WIRES))]
    return [((x, z0), (x, z1)) for x in along] + [((x0, z), (x1, z)) for z in up]


def _measures(view: View, by: Flat, system: System) -> Iterator[Mark]:
    for measure in view.measures:
        start, end = moved((measure.start, measure.end), by)
        wide, tall = abs(start[0] - end[0]), abs(start[1] - end[1])
        away = 0.4 * measure.offset / max(math.hypot(wide, tall), 1e-9)
        a, b = moved((start, end), (away * tall, away * wide))
        yield Span(start, end, (a, b), measure.value, write(measure.value, "length", system))
