"""What to look for before anything is driven: what is buried near each place, how the structure would have to
move to be clear of it, and whom to ask.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import shapely

from .. import tables
from ..analysis.design import geometry_of
from ..families import family_of
from ..ground.clashes import clashes
from ..ground.plot import Laid, bed_middle, bed_shape, keep_of, laid_out, lie_of, structure_frame
from ..ground.shapes import Clash, shape_of
from ..path.geometry import Member, depth_of
from ..plan.features import Feature
from ..plan.garden import Garden
from ..plan.structure import Structure
from .stakeout import feet_of

_LOOKED = 0.6  # beyond what is kept, within which something buried is told [m]
_STEP, _STEPS = 0.05, 30  # of a move that is looked for [m], and how many of them
_SPACINGS = ("post_spacing", "pair_spacing", "hoop_spacing", "stick_spacing")
_MORE_BAYS = 6
BOARD = 0.10  # of a post inside a raised bed from its board [m], handbook-parts-4.6
_SHALLOW = 0.05  # of a piece that only stands on the ground [m]
_AT_EDGE = 0.01  # of a bed's edge, where a piece stands on the boards or beside them [m]
_IN_GROUND = ("post", "anchor", "strut", "arm", "ring", "rail", "panel")  # roles that may stand in the ground
_ROUND_ABOUT = 4.0  # of a structure, within which others can be in its way [m]
_NEIGHBOUR = 1.0  # of a wall or fence that somebody may own [m], common practice


@dataclass(frozen=True)
class Near:
    """Something buried near a place.

    away: between the two. [m] keep: the distance asked for. [m] shallow: whether what is driven ends well
    above it.
    """

    member: Member
    feature: Feature
    away: float
    keep: float
    shallow: bool

    @property
    def too_near(self) -> bool:
        """Return whether it must not be driven there."""
        return self.away < self.keep - 0.005 and not self.shallow


@dataclass(frozen=True)
class Relocation:
    """A change of a structure after which nothing of it is too near anything buried.

    key: whether it is moved, its bays are changed, or it is shortened. along, across: where it stands then
    on its bed. [m] options: what changes of it.
    """

    key: Literal["moved", "bays", "shorter"]
    along: float
    across: float
    options: Mapping[str, float]


def buried_near(laid: Laid, features: Sequence[Feature]) -> tuple[Near, ...]:
    """Return what is buried near each place where something is driven, nearest first.

    Source: handbook-parts-4.6
    """
    spare = tables.constant("service_depth_spare")
    found = []
    places = driven(laid)
    for feature in features:
        keep = keep_of(feature)
        if not keep or not places:
            continue
        line = shapely.LineString(feature.points)
        spots = shapely.points([laid.spot(*at) for _, at, _ in places])
        away = np.maximum(shapely.distance(line, spots) - feature.width / 2, 0.0)
        for (member, _, depth), distance in zip(places, away.tolist(), strict=True):
            if distance < keep + _LOOKED:
                shallow = feature.depth is not None and depth < feature.depth - spare
                found.append(Near(member, feature, distance, keep, shallow))
    return tuple(sorted(found, key=lambda near: (not near.too_near, near.away - near.keep)))


def driven(laid: Laid) -> list[tuple[Member, tuple[float, float], float]]:
    """Return every member that goes into the ground, where it does, and how deep. [m]

    What stands beside a raised bed or a container stands on the ground around it, which lies lower than the
    soil in it.
    """
    feet = [
        (member, (foot[0], foot[1]), depth_of(member))
        for member in laid.geometry.members
        if member.table in tables.ITEM_TABLES and member.role in _IN_GROUND
        for foot in feet_of(member)
    ]
    if not feet:
        return []
    inside = np.array([laid.bed.length, laid.bed.width]) / 2 - _AT_EDGE
    on_bed = bed_middle(laid.bed).into(laid.frame.out(np.array([at for _, at, _ in feet])))
    lower = np.where(np.any(np.abs(on_bed) > inside, axis=1), laid.bed.raised_by, 0.0)
    return [
        (member, at, deep - low)
        for (member, at, deep), low in zip(feet, lower.tolist(), strict=True)
        if deep - low > _SHALLOW
    ]


def ways_clear(laid: Laid, features: Sequence[Feature]) -> tuple[Relocation, ...]:
    """Return how a structure would come clear of everything buried: moved on its bed, its posts nearer to one
    another, or made shorter at one end; each the least of its kind. Nothing where it stands clear.
    """
    if not any(near.too_near for near in buried_near(laid, features)):
        return ()
    found = (_moved(laid, features), _nearer(laid, features), _shorter(laid, features))
    return tuple(way for way in found if way)


def _clear(laid: Laid, features: Sequence[Feature], along: float, across: float, **options: float) -> bool:
    there = {"along": along, "across": across, "options": {**laid.structure.options, **options}}
    structure = laid.structure.model_copy(update=there)
    geometry = geometry_of(laid.bed, structure) if options else laid.geometry
    frame = structure_frame(laid.bed, structure, geometry.length)
    other = replace(laid, structure=structure, geometry=geometry, frame=frame)
    return not any(near.too_near for near in buried_near(other, features))


def _moved(laid: Laid, features: Sequence[Feature]) -> Relocation | None:
    low, high, right, left = _room(laid)
    steps = [n * _STEP for n in range(-_STEPS, _STEPS + 1)]
    ways = [(a, c) for a in steps for c in (steps if a == 0.0 else [0.0])]
    along, across = laid.structure.along, laid.structure.across
    for a, c in sorted(ways, key=lambda way: abs(way[0]) + abs(way[1])):
        inside = low - 1e-6 <= a <= high + 1e-6 and right - 1e-6 <= c <= left + 1e-6
        if inside and _clear(laid, features, along + a, across + c):
            return Relocation("moved", round(along + a, 2), round(across + c, 2), {})
    return None


def _nearer(laid: Laid, features: Sequence[Feature]) -> Relocation | None:
    name = next((name for name in _SPACINGS if name in laid.structure.options), None)
    if name is None:
        return None
    along, across = laid.structure.along, laid.structure.across
    least, most = _bound(laid.structure, name, "minimum"), _bound(laid.structure, name, "maximum")
    bays = max(math.ceil(laid.geometry.length / float(laid.structure.options[name]) - 1e-6), 1)
    for more in range(bays + 1, bays + _MORE_BAYS + 1):
        spacing = math.ceil(laid.geometry.length / more * 100) / 100
        if spacing < least:
            return None
        if spacing <= most and _clear(laid, features, along, across, **{name: spacing}):
            return Relocation("bays", along, across, {name: spacing})
    return None


def _bound(structure: Structure, option: str, end: Literal["minimum", "maximum"]) -> float:
    """Return the least or the most that a measure of a structure may be. [m]"""
    properties = family_of(structure.family).options.model_json_schema()["properties"]
    return float(properties[option][end])


def _shorter(laid: Laid, features: Sequence[Feature]) -> Relocation | None:
    if "length" not in laid.structure.options:
        return None
    length, across = float(laid.structure.options["length"]), laid.structure.across
    least = _bound(laid.structure, "length", "minimum")
    for less in (0.1 * n for n in range(1, min(int(length / 0.1) - 9, _STEPS // 2))):
        for side in (-0.5, 0.5):
            along, left = round(laid.structure.along + side * less, 2), round(length - less, 2)
            if left >= least and _clear(laid, features, along, across, length=left):
                return Relocation("shorter", along, across, {"length": left})
    return None


def _room(laid: Laid) -> tuple[float, float, float, float]:
    """Return how far the row may move back and on along its bed, and to the right and left in it; one that
    lies askew not at all. [m]
    """
    bed, structure = laid.bed, laid.structure
    if abs(math.sin(math.radians(structure.turn))) > 0.1:
        return 0.0, 0.0, 0.0, 0.0
    spare = max((bed.length - laid.geometry.length) / 2, 0.0)
    wide = max((abs(m.points[0][1]) for m in laid.geometry.by_role("post")), default=0.0)
    side = max(bed.width / 2 - wide - BOARD, 0.0)
    return (
        -spare - structure.along,
        spare - structure.along,
        -side - structure.across,
        side - structure.across,
    )


def in_board(laid: Laid) -> tuple[str, ...]:
    """Return the posts that would be driven inside a raised bed against its board, which they push out.

    Source: handbook-parts-4.6
    """
    bed = laid.bed
    if bed.kind != "raised":
        return ()
    half, long = bed.width / 2, bed.length / 2
    found = []
    for member, at, _ in driven(laid):
        if member.role != "post":
            continue
        x, y = bed_middle(bed).into(laid.frame.out(np.array([at])))[0]
        inside = min(half - abs(y), long - abs(x))
        if 0.0 <= inside < BOARD - 0.005:
            found.append(member.key)
    return tuple(found)


def to_ask(laid: Laid, features: Sequence[Feature]) -> tuple[Feature, ...]:
    """Return walls and fences so near that whoever owns them is asked first.

    Source: handbook-parts-4.6
    """
    return tuple(
        feature
        for feature in features
        if feature.kind in ("wall", "fence") and shapely.distance(shape_of(feature), laid.ground) < _NEIGHBOUR
    )


def in_the_way(garden: Garden, laid: Laid) -> list[Clash]:
    """Return what of a structure is in the way of paths, neighbours and people, apart from what is buried:
    looked for among the beds near it.
    """
    close = laid.ground.buffer(_ROUND_ABOUT)
    beds = tuple(bed for bed in garden.beds if bed_shape(lie_of(bed)).intersects(close))
    near = garden.model_copy(update={"beds": beds})
    others = [each for each in laid_out(near) if each.structure.key != laid.structure.key]
    found = clashes(near, [laid, *others])
    return [each for each in found if laid.structure.key in each.things and not each.key.startswith("near-")]
