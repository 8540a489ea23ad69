"""The garden in plan: where beds, structures and everything else lie, in metres, x east and y north."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal, NamedTuple

import numpy as np
import shapely

from .. import tables
from ..analysis.design import geometry_of
from ..drawing.views import stuff_of
from ..families import family_of
from ..mechanics import Array
from ..memory import Said, remembered
from ..path.geometry import Geometry, Member
from ..plan.bed import BareBed, Bed, BedKind
from ..plan.features import ROUND, Feature, FeatureKind
from ..plan.fields import Spot, Typed
from ..plan.garden import Garden
from ..plan.structure import Structure

Flat = tuple[float, float]
_PAST_ROW = 0.4  # past a row's end nobody picks behind it, in a bed that ends there [m]
TO_WALL = 0.61  # from a bed to a wall that something on it is fixed to [m]
_ROOT = 0.15  # from the edge of a path to what is planted beside it [m]
_THIN = 0.06  # half the ground a bare row takes [m]
_HIPS = 1.0  # how high somebody who walks through brushes against what stands beside [m]
_ALWAYS = 4.0  # least side of a plan's extent [m]
# members, from which on a structure laid on the plan is not kept: too much memory for each step of a hand
_LARGE = 600


class BedMark(Typed):
    """A bed from above."""

    key: str
    name: str
    kind: BedKind
    hatch: str
    board: float
    outline: tuple[Flat, ...]
    middle: Flat
    length: float
    width: float
    bearing: float


class FeatureMark(Typed):
    """A path, wall, fence, buried line, post or stump from above; `keep` is the distance to stay off."""

    key: str
    name: str
    kind: FeatureKind
    round: bool
    points: tuple[Flat, ...]
    width: float
    keep: float


class Stroke(Typed):
    """A member from above: a line, or a point where it stands upright."""

    role: str
    stuff: str
    points: tuple[Flat, ...]


class StructureMark(Typed):
    """A structure from above; `row` runs from its first end to its last, `stretch` is the option its length
    is.
    """

    key: str
    name: str
    bed: str
    row: tuple[Flat, Flat]
    middle: Flat
    bearing: float
    strokes: tuple[Stroke, ...]
    plants: tuple[Flat, ...]
    stretch: str


class PlotDrawing(Typed):
    """Everything on the plan, and how far it reaches."""

    beds: tuple[BedMark, ...]
    features: tuple[FeatureMark, ...]
    structures: tuple[StructureMark, ...]
    low: Flat
    high: Flat


_UNSEEN = ("grip", "cap", "tie", "fitting", "string")


@dataclass(frozen=True)
class Frame:
    """Where a row lies on the plan: its first end, and the way it runs, degrees from north clockwise."""

    x: float
    y: float
    bearing: float

    @property
    def _axes(self) -> tuple[Array, Array]:
        angle = math.radians(self.bearing)
        return np.array([math.sin(angle), math.cos(angle)]), np.array([-math.cos(angle), math.sin(angle)])

    def into(self, points: Array) -> Array:
        """Return points of the plan as points of the row's own ground, (..., 2). [m]"""
        along, left = self._axes
        off = np.asarray(points, dtype=float) - np.array([self.x, self.y])
        return np.stack([off @ along, off @ left], axis=-1)

    def out(self, points: Array) -> Array:
        """Return points of the row's own ground as points of the plan, (N, 2). [m]"""
        along, left = self._axes
        flat = np.asarray(points, dtype=float).reshape(-1, 2)
        return np.asarray(np.array([self.x, self.y]) + flat[:, :1] * along + flat[:, 1:] * left)


@dataclass(frozen=True)
class Laid:
    """A structure where it stands on the plan; its bed is known here without what else stands on it."""

    structure: Structure
    bed: Bed
    geometry: Geometry
    frame: Frame

    def spot(self, x: float, y: float) -> Flat:
        """Return one point of the structure on the plan."""
        return spots(self.frame.out(np.array([[x, y]])))[0]

    @cached_property
    def lines(self) -> tuple[tuple[Member, list[Flat]], ...]:
        """Return its members with their points on the plan."""
        members = self.geometry.members
        flat = spots(self.frame.out(np.array([(p[0], p[1]) for m in members for p in m.points])))
        ends = np.cumsum([0, *(len(m.points) for m in members)])
        return tuple((m, flat[a:b]) for m, a, b in zip(members, ends, ends[1:], strict=False))

    @cached_property
    def reach(self) -> shapely.Polygon:
        """Return the upright box round everything of it, guys and anchors too."""
        points = np.array([p for _, ends in self.lines for p in ends])
        (x0, y0), (x1, y1) = points.min(axis=0), points.max(axis=0)
        (low_x, low_y), (high_x, high_y) = (x0 - _THIN, y0 - _THIN), (x1 + _THIN, y1 + _THIN)
        return shapely.Polygon(((low_x, low_y), (high_x, low_y), (high_x, high_y), (low_x, high_y)))

    @cached_property
    def row(self) -> tuple[Flat, Flat]:
        """Return its two ends."""
        first, last = spots(self.frame.out(np.array([[0.0, 0.0], [self.geometry.length, 0.0]])))
        return first, last

    @cached_property
    def ground(self) -> Any:
        """Return the ground it takes: the row, its plants, and whatever stands beside it."""
        beside = [m for m in self.geometry.members if m.role not in ("grip", "guy", "anchor")]
        # one walks through between the feet of what stands over a path: what is above the hips bends over it
        most = _HIPS if self.geometry.gap else math.inf
        points = [(p[0], p[1]) for m in beside for p in m.points if p[2] <= most]
        points += [(plant.at[0], plant.at[1]) for plant in self.geometry.plants]
        sides = [points]
        if self.geometry.gap:  # one walks through between its feet
            sides = [[p for p in points if p[1] > 0], [p for p in points if p[1] < 0]]
        hulls = [shapely.MultiPoint(self.frame.out(np.array(side))).convex_hull for side in sides if side]
        return shapely.union_all([hull.buffer(_THIN) for hull in hulls])

    @cached_property
    def rooted(self) -> Any:
        """Return where its plants stand: along the row, or on either side of the path it stands over."""
        if not self.geometry.gap:
            return self.line
        out = self.geometry.gap / 2 + _ROOT
        ends = (0.0, self.geometry.length)
        return shapely.MultiLineString([[self.spot(x, side * out) for x in ends] for side in (1.0, -1.0)])

    @cached_property
    def line(self) -> shapely.LineString:
        """Return its row."""
        return shapely.LineString(self.row)

    @cached_property
    def swath(self) -> Any:
        """Return the ground its leaves hang over."""
        return self.rooted.buffer(self.leaves, cap_style="flat")

    @cached_property
    def cut(self) -> Any:
        """Return the line that divides its bed: nobody picks through a row or beyond its end."""
        if self.geometry.gap:
            return self.rooted.buffer(0.005)
        return shapely.LineString(
            (self.spot(-_PAST_ROW, 0.0), self.spot(self.geometry.length + _PAST_ROW, 0.0))
        ).buffer(0.005)

    @cached_property
    def kept_off(self) -> Any:
        """Return the ground on which nobody can walk because of the row."""
        if self.geometry.gap:
            return kept_off(self.ground)
        return self.line.buffer(
            tables.constant("foot_path") / 2 + 0.015, cap_style="flat", join_style="mitre"
        )

    @cached_property
    def mark(self) -> StructureMark:
        """Return how it is drawn on the plan."""
        return _structure(self)

    @property
    def leaves(self) -> float:
        """Return how far its leaves reach to either side of the row. [m]"""
        return max(tables.crops()[p.crop].depth_m for p in self.structure.plantings) / 2


def spots(points: Array) -> list[Flat]:
    """Return points of the plan to the millimetre. [m]"""
    return [(x, y) for x, y in np.round(np.asarray(points, dtype=float), 3).tolist()]


class Lie(NamedTuple):
    """Where a bed lies and how large it is: all that its ground is made of, so that what was made of it is
    found again.
    """

    kind: BedKind
    x: float
    y: float
    bearing: float
    length: float
    width: float
    board: float


def lie_of(bed: BareBed) -> Lie:
    """Return where a bed lies."""
    return Lie(bed.kind, bed.x, bed.y, bed.bearing, bed.length, bed.width, bed.board)


def bed_middle(bed: BareBed) -> Frame:
    """Return a bed's own ground with its origin at the bed's middle."""
    return Frame(bed.x, bed.y, bed.bearing)


def bed_frame(bed: BareBed | Lie) -> Frame:
    """Return where a bed's middle line lies; its first end is half a length behind its middle."""
    start = Frame(bed.x, bed.y, bed.bearing).out(np.array([[-bed.length / 2, 0.0]]))[0]
    return Frame(float(start[0]), float(start[1]), bed.bearing)


def bed_outline(bed: BareBed | Lie) -> Array:
    """Return the corners of a bed, its boards outside of it where it has any, (4, 2). [m]"""
    board = bed.board if bed.kind != "in-ground" else 0.0
    half, long = bed.width / 2 + board, bed.length + board
    return bed_frame(bed).out(np.array([[-board, -half], [long, -half], [long, half], [-board, half]]))


@remembered(2048)
def bed_shape(lie: Lie) -> shapely.Polygon:
    """Return the ground a bed takes."""
    return shapely.Polygon(bed_outline(lie))


def kept_off(shape: Any) -> Any:
    """Return the ground on which nobody can walk because of a bed, a wall or a fence."""
    return shape.buffer(tables.constant("foot_path") / 2 - 0.005, join_style="mitre")


@remembered(2048)
def bed_kept_off(lie: Lie) -> Any:
    """Return the ground on which nobody can walk because of a bed."""
    return kept_off(bed_shape(lie))


def structure_frame(bed: BareBed, structure: Structure, length: float) -> Frame:
    """Return where a structure's row lies: its middle stands off the bed's middle, its row turned from the
    bed's. [m]
    """
    middle = bed_middle(bed).out(np.array([[structure.along, structure.across]]))[0]
    bearing = (bed.bearing + structure.turn) % 360.0
    start = Frame(float(middle[0]), float(middle[1]), bearing).out(np.array([[-length / 2, 0.0]]))[0]
    return Frame(float(start[0]), float(start[1]), bearing)


def laid_out(garden: Garden) -> tuple[Laid, ...]:
    """Return every structure of a garden where it stands."""
    laid = []
    for bed in garden.beds:
        home = Said(bed, "structures")
        for structure in bed.structures:
            wanted = Said(structure)
            laid.append((_laid if _large(home, wanted) else _laid_before)(home, wanted))
    return tuple(laid)


@remembered(4096)
def _large(home: Said, wanted: Said) -> bool:
    return len(geometry_of(home.thing, wanted.thing).members) > _LARGE


def _laid(home: Said, wanted: Said) -> Laid:
    bed, structure = home.thing.model_copy(update={"structures": ()}), wanted.thing
    geometry = geometry_of(bed, structure)
    return Laid(structure, bed, geometry, structure_frame(bed, structure, geometry.length))


_laid_before = remembered(1024)(_laid)  # what nobody has moved is not laid anew


def plot_of(garden: Garden, laid: Sequence[Laid] | None = None) -> PlotDrawing:
    """Return a garden in plan."""
    structures = tuple(standing.mark for standing in (laid_out(garden) if laid is None else laid))
    beds = tuple(
        _bed(bed.key, bed.name, bed.soil if bed.kind == "in-ground" else bed.fill, lie_of(bed))
        for bed in garden.beds
    )
    features = tuple(
        FeatureMark(
            key=f.key,
            name=f.name,
            kind=f.kind,
            round=f.kind in ROUND,
            points=f.points,
            width=f.width,
            keep=keep_of(f),
        )
        for f in garden.features
    )
    points = [p for bed in beds for p in bed.outline]
    points += [
        (x + side * f.width / 2, y + side * f.width / 2)
        for f in features
        for x, y in f.points
        for side in (-1, 1)
    ]
    points += [p for s in structures for stroke in s.strokes for p in stroke.points]
    low, high = _extent(points)
    return PlotDrawing(beds=beds, features=features, structures=structures, low=low, high=high)


def stretch_of(structure: Structure) -> Literal["length", ""]:
    """Return the option that is a structure's length on the plan, empty where it has none."""
    return "length" if "length" in family_of(structure.family).options.model_fields else ""


def room_for(garden: Garden, length: float, width: float, drawing: PlotDrawing | None = None) -> Flat:
    """Return where the middle of a new bed may lie: below everything, a path's width off, in line with its
    left edge. [m]
    """
    drawing = drawing or plot_of(garden)
    if not (garden.beds or garden.features):
        return 0.0, 0.0
    (left, low), _ = drawing.low, drawing.high
    return round(left + length / 2, 3), round(low - garden.path_width - width / 2, 3)


def placed(garden: Garden, bed: Bed, structure: Structure) -> Structure:
    """Return a structure moved across its bed to ground that no other structure of the bed takes, if there is
    any.
    """
    geometry = geometry_of(bed, structure)
    taken = [
        standing.ground
        for standing in laid_out(garden)
        if standing.bed.key == bed.key and standing.structure.key != structure.key
    ]
    steps = np.arange(0.0, bed.width / 2, 0.05)
    for across in [0.0, *(sign * step for step in steps[1:] for sign in (1.0, -1.0))]:
        moved = structure.model_copy(update={"across": round(float(across), 3)})
        ground = Laid(moved, bed, geometry, structure_frame(bed, moved, geometry.length)).ground
        if not any(ground.intersects(other) for other in taken):
            return moved
    return structure


def keep_of(feature: Feature) -> float:
    """Return the distance that driven things keep from a feature, 0 where none is asked. [m]

    Source: handbook-parts-4.6
    """
    return tables.features()[feature.kind].keep


def _extent(points: Sequence[Spot]) -> tuple[Flat, Flat]:
    if not points:
        return (-_ALWAYS / 2, -_ALWAYS / 2), (_ALWAYS / 2, _ALWAYS / 2)
    array = np.array(points)
    low, high = array.min(axis=0), array.max(axis=0)
    short = np.maximum(_ALWAYS - (high - low), 0.0) / 2
    (a, b), (c, d) = low - short, high + short
    return (float(a), float(b)), (float(c), float(d))


@remembered(2048)
def _bed(key: str, name: str, soil: str, lie: Lie) -> BedMark:
    return BedMark(
        key=key,
        name=name,
        kind=lie.kind,
        hatch=tables.soils()[soil].hatch,
        board=lie.board if lie.kind != "in-ground" else 0.0,
        outline=tuple(spots(bed_outline(lie))),
        middle=(lie.x, lie.y),
        length=lie.length,
        width=lie.width,
        bearing=lie.bearing,
    )


def _structure(laid: Laid) -> StructureMark:
    geometry, out = laid.geometry, laid.frame.out
    strokes = []
    for member, flat in laid.lines:
        if member.role in _UNSEEN:
            continue
        line = _line(member, flat, out)
        upright = len(set(line)) == 1
        strokes.append(
            Stroke(role=member.role, stuff=stuff_of(member), points=(line[0],) if upright else tuple(line))
        )
    middle = ((laid.row[0][0] + laid.row[1][0]) / 2, (laid.row[0][1] + laid.row[1][1]) / 2)
    return StructureMark(
        key=laid.structure.key,
        name=laid.structure.name,
        bed=laid.bed.key,
        row=laid.row,
        middle=middle,
        bearing=laid.frame.bearing,
        strokes=tuple(strokes),
        stretch=stretch_of(laid.structure),
        plants=tuple(spots(out(np.array([(p.at[0], p.at[1]) for p in geometry.plants]))))
        if geometry.plants
        else (),
    )


def _line(member: Member, flat: list[Flat], out: Callable[[Array], Array]) -> list[Flat]:
    """Return what a member is from above: a ring, the outline of a panel, a run with all its turns, else its
    two ends.
    """
    if member.role == "ring":
        return spots(out(np.array(member.lines[0])[:, :2]))
    if member.role == "panel":
        return [*flat, flat[0]]
    if member.role == "run":
        return flat
    return [flat[0], flat[0] if member.role == "post" else max(flat, key=lambda p: math.dist(p, flat[0]))]
