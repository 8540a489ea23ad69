"""A structure in three dimensions: its members with their real sections, its plants, its bed, and where the
sun stands.
"""

from __future__ import annotations

import math
from typing import Literal

import numpy as np

from .. import tables
from ..path.geometry import Geometry, Member, Point
from ..plan.bed import BareBed
from ..plan.fields import Typed
from .views import stuff_of

_UNSEEN = ("tie", "fitting", "cap")
_GRIP = 0.5  # of the width a grip is drawn with, what it is drawn as in the round
_THICK = 0.004  # from which a line is drawn as a bar, thinner ones as lines [m]
_HAIR = 0.002  # of a bar whose thickness nobody says [m]
_BED_SHOWN = 0.6  # of a long bed, past each end of the structure [m]


class Bar(Typed):
    """A straight or bent bar by its points, and its section across: round, or so wide and deep. [m]"""

    member: str
    stuff: str
    section: Literal["round", "square"]
    wide: float
    deep: float
    points: tuple[Point, ...]


class Strands(Typed):
    """Lines too thin to have a section: mesh, wire, twine."""

    member: str
    stuff: str
    lines: tuple[tuple[Point, ...], ...]


class Climber(Typed):
    """A plant: which planting it belongs to, its foot, and the way it climbs."""

    planting: int
    way: tuple[Point, ...]


class Ground(Typed):
    """The bed round the structure, and how deep anything of it goes. [m]"""

    low: tuple[float, float]
    high: tuple[float, float]
    fill_depth: float
    board: float
    depth: float
    soil: str
    fill: str


class Solid(Typed):
    """A structure in three dimensions, metres: x along the row, y across it, z up from the soil."""

    bars: tuple[Bar, ...]
    strands: tuple[Strands, ...]
    climbers: tuple[Climber, ...]
    ground: Ground
    top: float


def solid_of(geometry: Geometry, bed: BareBed) -> Solid:
    """Return a structure in three dimensions, in its bed."""
    bars: list[Bar] = []
    strands: list[Strands] = []
    for member in geometry.members:
        if member.role in _UNSEEN or member.shape == "point":
            continue
        lines = _lines(member)
        if member.role in ("mesh", "panel", "ring", "host") or max(member.thickness, _HAIR) < _THICK:
            strands.append(Strands(member=member.key, stuff=stuff_of(member), lines=lines))
        else:
            section, wide, deep = _section(member)
            bars += [
                Bar(
                    member=member.key,
                    stuff=stuff_of(member),
                    section=section,
                    wide=wide,
                    deep=deep,
                    points=line,
                )
                for line in lines
            ]
    climbers = tuple(
        Climber(
            planting=plant.planting, way=plant.way or (plant.at, (plant.at[0], plant.at[1], geometry.climb))
        )
        for plant in geometry.plants
    )
    margin = min(max((bed.length - geometry.length) / 2, 0.0), _BED_SHOWN)
    ground = Ground(
        low=(-margin, -geometry.reach(bed.width)),
        high=(geometry.length + margin, geometry.reach(bed.width)),
        fill_depth=bed.raised_by,
        board=bed.board,
        depth=max(geometry.depth, 0.0),
        soil=tables.soils()[bed.soil].hatch,
        fill=tables.soils()[bed.fill].hatch,
    )
    return Solid(bars=tuple(bars), strands=tuple(strands), climbers=climbers, ground=ground, top=geometry.top)


def sun_towards(height: float, azimuth: float, bearing: float) -> Point:
    """Return the direction of the sun as a row sees it: along it, to its left, and up.

    Args:
        height: Of the sun above the horizon. [deg]
        azimuth: Of the sun from north, clockwise. [deg]
        bearing: Of the row from north, clockwise. [deg]
    """
    up, turn = math.radians(height), math.radians(azimuth - bearing)
    return math.cos(up) * math.cos(turn), -math.cos(up) * math.sin(turn), math.sin(up)


def _lines(member: Member) -> tuple[tuple[Point, ...], ...]:
    """Return what a member is drawn by: its own lines, the wires of a panel, or its line."""
    if member.lines:
        return member.lines
    if member.shape != "panel":
        return (member.points,)
    a, b, c, d = (np.array(point) for point in member.points[:4])
    along, up = member.grid or (0.15, 0.15)
    across = max(round(float(np.linalg.norm(b - a)) / along), 1)
    high = max(round(float(np.linalg.norm(d - a)) / up), 1)
    lines = [(a + (b - a) * s, d + (c - d) * s) for s in np.linspace(0, 1, across + 1)]
    lines += [(a + (d - a) * s, b + (c - b) * s) for s in np.linspace(0, 1, high + 1)]
    return tuple(
        ((float(p[0]), float(p[1]), float(p[2])), (float(q[0]), float(q[1]), float(q[2]))) for p, q in lines
    )


def _section(member: Member) -> tuple[Literal["round", "square"], float, float]:
    """Return a member's real section: from its row where it has one, else as thick as it is drawn."""
    if member.table == "posts":
        row = tables.posts()[member.item]
        if row.shape in ("square", "rect"):
            return "square", row.a, row.b
        if row.shape in ("tee", "alu_square") or row.shape.startswith("hat"):
            return "square", row.a, row.a
        return "round", row.a, row.a
    thick = max(member.thickness, _HAIR)
    if member.role == "grip":
        return "round", _GRIP * thick, _GRIP * thick
    return ("square" if member.table == "existing" else "round"), thick, thick
