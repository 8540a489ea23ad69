"""Elevation, plan and end view of a structure standing in its bed."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, get_args

from ..geometry import Geometry, Member, Point
from ..model import BareBed, Typed
from ..tables import materials, posts, soils

ViewName = Literal["elevation", "plan", "end"]
VIEWS: tuple[ViewName, ...] = get_args(ViewName)
Flat = tuple[float, float]
_BED_SHOWN = 0.3  # of a long bed, past each end of the structure [m]

_PROJECT: dict[ViewName, Callable[[Point], Flat]] = {
    "elevation": lambda p: (p[0], p[2]),
    "plan": lambda p: (p[0], p[1]),
    "end": lambda p: (p[1], p[2]),
}


class Mark(Typed):
    """One inked thing: a member's outline in a view, metres."""

    member: str
    role: str
    stuff: str
    shape: Literal["line", "panel", "point"]
    points: tuple[Flat, ...]
    thickness: float
    grid: Flat | None = None


class Measure(Typed):
    """A dimension line that edits an option; `text` is how its value is written, `label` what it is called."""

    option: str
    label: str
    start: Flat
    end: Flat
    offset: float
    value: float
    text: str


class PlantMark(Typed):
    """A plant's foot in a view."""

    planting: int
    at: Flat


class View(Typed):
    """One drawing: marks, measures, plants, and the extent of bed and soil, metres."""

    name: ViewName
    marks: tuple[Mark, ...]
    measures: tuple[Measure, ...]
    plants: tuple[PlantMark, ...]
    bed: tuple[Flat, Flat]
    fill_depth: float
    soil: str
    fill: str
    low: Flat
    high: Flat


def view_of(geometry: Geometry, bed: BareBed, name: ViewName, write: Callable[[float], str], label: Callable[[str], str]) -> View:
    """Return one view of a structure in its bed.

    Args:
        geometry: The structure laid out.
        bed: The bed it stands in.
        name: Which view.
        write: Writes a length in the reader's units.
        label: Says what an option is called.
    """
    project = _PROJECT[name]
    members = geometry.members if name != "end" else _first_end(geometry)
    marks = tuple(
        Mark(
            member=m.key, role=m.role, stuff=stuff_of(m), shape=m.shape, points=tuple(project(p) for p in m.points), thickness=m.thickness,
            grid=m.grid if name == "elevation" else None,
        )
        for m in members
    )  # fmt: skip
    measures = tuple(
        Measure(
            option=d.option,
            label=label(d.option),
            start=project(d.start),
            end=project(d.end),
            offset=d.offset,
            value=d.value,
            text=write(d.value),
        )
        for d in geometry.dimensions
        if d.view == name
    )
    plants = tuple(PlantMark(planting=p.planting, at=project(p.at)) for p in geometry.plants)
    margin = min(max((bed.length - geometry.length) / 2, 0.0), _BED_SHOWN)
    ends: dict[ViewName, tuple[Flat, Flat]] = {
        "elevation": ((-margin, 0.0), (geometry.length + margin, 0.0)),
        "plan": ((-margin, -bed.width / 2), (geometry.length + margin, bed.width / 2)),
        "end": ((-bed.width / 2, 0.0), (bed.width / 2, 0.0)),
    }
    us = [u for mark in marks for u, _ in mark.points] + [p[0] for p in ends[name]]
    vs = [v for mark in marks for _, v in mark.points] + [p[1] for p in ends[name]]
    return View(
        name=name, marks=marks, measures=measures, plants=plants, bed=ends[name], fill_depth=bed.raised_by,
        soil=soils()[bed.soil].hatch, fill=soils()[bed.fill].hatch,
        low=(min(us), min(vs)), high=(max(us), max(vs)),
    )  # fmt: skip


def stuff_of(member: Member) -> str:
    """Return what a member is drawn as: wood, cane, metal, or soil."""
    if member.role == "grip":
        return "soil"
    return materials()[posts()[member.item].material].stuff if member.table == "posts" else "metal"


def _first_end(geometry: Geometry) -> tuple[Member, ...]:
    """Return what is seen from the row's first end: one post, one bay edge, its ties and top."""
    seen = ("post-1", "grip-1", "mesh-1", "cap-1", "top-line")
    return tuple(m for m in geometry.members if m.key in seen or m.key.startswith("tie-1-"))
