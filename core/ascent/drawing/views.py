"""Elevation, plan and end view of a structure standing in its bed."""

from __future__ import annotations

from typing import Literal, get_args

import numpy as np

from ..path.geometry import Geometry, Member, Point
from ..plan.bed import BareBed
from ..plan.fields import Typed
from ..tables import materials, posts, soils
from ..words.quantities import System, write
from ..words.texts import template

ViewName = Literal["elevation", "plan", "end"]
VIEWS: tuple[ViewName, ...] = get_args(ViewName)
Flat = tuple[float, float]
_STANDING = ("panel", "ring", "stem")
_BESIDE = ("guy", "strut", "anchor")
_NEAR = 0.03  # of the first station, to stand at it [m]
_THIN = 0.002
_BED_SHOWN = 0.3  # of a long bed, past each end of the structure [m]

_AXES: dict[ViewName, tuple[int, int]] = {"elevation": (0, 2), "plan": (0, 1), "end": (1, 2)}


class Mark(Typed):
    """One inked thing: a member's outline in a view, metres."""

    member: str
    role: str
    stuff: str
    shape: Literal["line", "panel", "point", "wires"]
    points: tuple[Flat, ...]
    thickness: float
    grid: Flat | None = None
    lines: tuple[tuple[Flat, ...], ...] = ()
    sags: bool = False


class Measure(Typed):
    """A dimension line that edits an option; `text` is how its value is written, `label` what it is
    called.
    """

    option: str
    label: str
    start: Flat
    end: Flat
    offset: float
    value: float
    text: str


class PlantMark(Typed):
    """A plant's foot in a view, and the way it climbs from there; straight up where none is given."""

    planting: int
    at: Flat
    way: tuple[Flat, ...] = ()


class View(Typed):
    """One drawing: marks, measures, plants, and the extent of bed and soil, and of the path in
    its middle, metres.
    """

    name: ViewName
    marks: tuple[Mark, ...]
    measures: tuple[Measure, ...]
    plants: tuple[PlantMark, ...]
    bed: tuple[Flat, Flat]
    gap: float
    fill_depth: float
    soil: str
    fill: str
    low: Flat
    high: Flat


def view_of(geometry: Geometry, bed: BareBed, name: ViewName, system: System) -> View:
    """Return one view of a structure in its bed.

    Args:
        geometry: The structure laid out.
        bed: The bed it stands in.
        name: Which view.
        system: The reader's units.
    """
    first, second = _AXES[name]

    def flat(point: Point) -> Flat:
        return point[first], point[second]

    members = geometry.members if name != "end" else _first_end(geometry)
    marks = tuple(
        Mark(
            member=m.key,
            role=m.role,
            stuff=stuff_of(m),
            shape=m.shape,
            points=tuple(map(flat, m.points)),
            thickness=m.thickness,
            grid=m.grid if name == "elevation" else None,
            lines=_flattened(m, name),
            sags=m.sags and name == "elevation",
        )
        for m in members
    )
    measures = tuple(
        Measure(
            option=d.option,
            label=template(f"option.{d.option.rsplit('.')[-1]}"),
            start=flat(d.start),
            end=flat(d.end),
            offset=d.offset,
            value=d.value,
            text=write(d.value, "length", system),
        )
        for d in geometry.dimensions
        if d.view == name
    )
    plants = tuple(
        PlantMark(planting=p.planting, at=flat(p.at), way=tuple(map(flat, p.way)) if name != "plan" else ())
        for p in geometry.plants
    )
    margin = min(max((bed.length - geometry.length) / 2, 0.0), _BED_SHOWN)
    reach = geometry.reach(bed.width)
    ends: dict[ViewName, tuple[Flat, Flat]] = {
        "elevation": ((-margin, 0.0), (geometry.length + margin, 0.0)),
        "plan": ((-margin, -reach), (geometry.length + margin, reach)),
        "end": ((-reach, 0.0), (reach, 0.0)),
    }
    corners = [p for mark in marks for line in (mark.points, *mark.lines) for p in line] + list(ends[name])
    corners += [plant.at for plant in plants] + [
        place for measure in measures for place in (measure.start, measure.end)
    ]
    us, vs = [u for u, _ in corners], [v for _, v in corners]
    return View(
        name=name,
        marks=marks,
        measures=measures,
        plants=plants,
        bed=ends[name],
        gap=geometry.gap,
        fill_depth=bed.raised_by,
        soil=soils()[bed.soil].hatch,
        fill=soils()[bed.fill].hatch,
        low=(min(us), min(vs)),
        high=(max(us), max(vs)),
    )


def project(name: ViewName, point: Point) -> Flat:
    """Return a point as a view sees it."""
    first, second = _AXES[name]
    return point[first], point[second]


def _flattened(member: Member, name: ViewName) -> tuple[tuple[Flat, ...], ...]:
    """Return a member's own lines in a view: those that fall on one another once, straight ones by their
    ends.
    """
    if not member.lines:
        return ()
    points = np.round(np.array([point for line in member.lines for point in line])[:, _AXES[name]], 3)
    ends = np.cumsum([0, *(len(line) for line in member.lines)])
    low, high = (
        np.minimum.reduceat(points, ends[:-1]).tolist(),
        np.maximum.reduceat(points, ends[:-1]).tolist(),
    )
    places = [(u, v) for u, v in points.tolist()]
    lines: dict[tuple[Flat, ...], None] = {}
    for (u0, v0), (u1, v1), start, end in zip(low, high, ends[:-1].tolist(), ends[1:].tolist(), strict=True):
        wide, tall = u1 - u0 >= _THIN, v1 - v0 >= _THIN
        if wide and tall:
            lines[tuple(places[start:end])] = None
        elif wide or tall:
            lines[((u0, v0), (u1, v1))] = None
    return tuple(lines)


def stuff_of(member: Member) -> str:
    """Return what a member is drawn as: wood, cane, metal, twine, leaf, or soil."""
    if member.role == "grip":
        return "soil"
    if member.table == "posts":
        return materials()[posts()[member.item].material].stuff
    return {"twines": "twine", "hosts": "leaf", "existing": "wood"}.get(member.table, "metal")


def _first_end(geometry: Geometry) -> tuple[Member, ...]:
    """Return what is seen from the row's first end: what stands at its first station, and what passes it."""
    posts_ = [m.points[0][0] for m in geometry.members if m.role == "post"]
    first = min(posts_ or [m.points[0][0] for m in geometry.members if m.role in _STANDING], default=0.0)
    return tuple(
        m for m in geometry.members if m.role not in _BESIDE and _passes(m, first, first + geometry.unit)
    )


def _passes(member: Member, start: float, end: float) -> bool:
    xs = [x for line in (member.points, *member.lines) for x, _, _ in line]
    return min(xs) <= end + _NEAR and max(xs) >= start - _NEAR
