"""What is in the way of what on the plan: narrow paths, posts over buried lines, guys to trip on, ground
taken twice.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise
from typing import Any, Literal

import numpy as np
import shapely
from shapely import ops

from .. import tables
from ..errors import guarded
from ..memory import remembered, text_of
from ..plan.bed import Bed
from ..plan.features import ROUND, Feature
from ..plan.fields import Typed
from ..plan.garden import Garden
from ..words.quantities import System, write
from ..words.texts import say, template
from .plot import TO_WALL, Flat, Laid, bed_kept_off, bed_shape, keep_of, kept_off, lie_of

_TOUCH = 0.05  # beds nearer than this are one bed to walk round [m]
_FACING = 0.3  # beds face one another over at least this length [m]
_SHARE = 0.15  # of a bed's part out of reach before it is said
_AROUND = 2.0  # of free ground around the plan [m]
_FAR = 6.0  # beyond this no distance is shown [m]
_NEAREST = 4
_BESIDE = 0.1  # of a part of a bed, where it is looked whether somebody walks [m]
_STRIP = 4.0  # of a plan, from south to north [m]
_FARTHEST = 4.0  # that a rule looks for something: the widest path, the farthest that is kept off [m]
_MANY = 40  # things that differ, from which on the whole garden is looked at anew
_OF_WAYS = ("out-of-reach", "closed-off", "no-way-to")
_BROKEN = "not-looked-at"
_GRAIN = 1e-4  # to which overlays are rounded, so that touching edges cannot cross [m]


@dataclass(frozen=True)
class Clash:
    """One thing in the way of another: a text key with its numbers and names, the things it is about, and
    where.
    """

    key: str
    level: Literal["watch", "wrong"]
    things: tuple[str, ...]
    at: Flat
    values: Mapping[str, tuple[float, str]] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)


class Warned(Typed):
    """A clash in words."""

    key: str
    level: Literal["watch", "wrong"]
    things: tuple[str, ...]
    at: Flat
    text: str


class Gap(Typed):
    """The distance from a thing to a neighbour, between their nearest points."""

    to: str
    start: Flat
    end: Flat
    text: str


class _Ground:
    """A garden's shapes, made once for all rules."""

    def __init__(self, garden: Garden, laid: Sequence[Laid]) -> None:
        self.garden, self.laid = garden, laid
        self.beds = [(bed, bed_shape(lie_of(bed))) for bed in garden.beds]
        self.features = [(feature, shape_of(feature)) for feature in garden.features]
        self.paths = [(feature, shape) for feature, shape in self.features if feature.kind == "path"]
        self.barriers = [shape for feature, shape in self.features if feature.kind in ("wall", "fence")]

    @cached_property
    def _reaches(self) -> Any:
        return shapely.STRtree([standing.reach for standing in self.laid])

    @cached_property
    def things(self) -> tuple[list[str], Any]:
        """Return the key and the shape of everything; of structures what they reach and what they take."""
        things = [(bed.key, shape) for bed, shape in self.beds]
        things += [(feature.key, shape) for feature, shape in self.features]
        things += [(standing.structure.key, standing.reach) for standing in self.laid]
        things += [(standing.structure.key, standing.ground) for standing in self.laid]
        return [key for key, _ in things], np.array([shape for _, shape in things], dtype=object)

    def near(self, shape: Any, distance: float) -> list[Laid]:
        """Return the structures that reach within a distance of a shape."""
        return [
            self.laid[i] for i in sorted(self._reaches.query(shape, predicate="dwithin", distance=distance))
        ]


def shape_of(feature: Feature) -> Any:
    """Return the ground a feature takes."""
    return _shape_of(feature.kind in ROUND, feature.points, feature.width)


@remembered(1024)
def _shape_of(rounded: bool, points: tuple[Flat, ...], width: float) -> Any:
    if rounded:
        return shapely.Point(points[0]).buffer(width / 2)
    return shapely.LineString(points).buffer(width / 2, cap_style="flat", join_style="mitre")


def clashes(garden: Garden, laid: Sequence[Laid], ways: Sequence[Clash] | None = None) -> list[Clash]:
    """Return everything that is in the way of something, the worse first.

    Args:
        garden: The garden.
        laid: Its structures where they stand.
        ways: What is known of where nobody gets to, which asks for the whole ground; it is looked at anew
        where this is not given.
    """
    ground = _Ground(garden, laid)
    broken = [
        clash
        for key, rule in RULES.items()
        if ways is None or key != _WAYS
        for clash in _said(key, rule, ground)
    ]
    return _ordered((*broken, *(ways or ())))


@dataclass(frozen=True)
class Looked:
    """A garden that has been looked at: where its structures stand, and what is in the way."""

    garden: Garden
    laid: Sequence[Laid]
    found: Sequence[Clash]

    @cached_property
    def ground(self) -> _Ground:
        """Return its shapes."""
        return _Ground(self.garden, self.laid)


def clashes_since(
    before: Looked, garden: Garden, laid: Sequence[Laid], ways: Sequence[Clash] | None = None
) -> list[Clash]:
    """Return the same as `clashes`, looked at anew only round what differs from a garden that has been looked
    at already.

    Args:
        before: The garden as it was.
        garden: The garden.
        laid: Its structures where they stand.
        ways: As for `clashes`.
    """
    zone, changed = _changed(before, garden, laid)
    broken = any(clash.key == _BROKEN for clash in before.found)
    if broken or before.garden.path_width != garden.path_width or len(changed) > _MANY:
        return clashes(garden, laid, ways)
    found = _Ground(garden, laid)
    near = {*changed, *_within(before.ground, zone), *_within(found, zone)}
    about = _within(found, shapely.buffer(zone, _range(garden)))
    small = garden.model_copy(
        update={
            "beds": tuple(bed for bed in garden.beds if bed.key in about),
            "features": tuple(feature for feature in garden.features if feature.key in about),
        }
    )
    ground = _Ground(small, [standing for standing in laid if standing.structure.key in about])
    fresh = [
        clash
        for key, rule in RULES.items()
        if key != _WAYS
        for clash in _said(key, rule, ground)
        if clash.key == _BROKEN or not near.isdisjoint(clash.things)
    ]
    same = [clash for clash in before.found if clash.key not in _OF_WAYS and near.isdisjoint(clash.things)]
    if ways is None:
        ways = _said(_WAYS, RULES[_WAYS], found)
    return _ordered((*same, *fresh, *ways))


def _changed(before: Looked, garden: Garden, laid: Sequence[Laid]) -> tuple[Any, set[str]]:
    """Return the ground round everything that differs between two gardens, as it was and as it is, and the
    keys of that.
    """
    shapes: list[Any] = []
    keys: set[str] = set()
    was, now = (_things_of(each) for each in (before.garden, garden))
    for key in was.keys() | now.keys():
        old, new = was.get(key), now.get(key)
        if old is not new and not _bare_same(old, new):
            keys.add(key)
            shapes += [
                shape_of(each) if isinstance(each, Feature) else bed_shape(lie_of(each))
                for each in (old, new)
                if each is not None
            ]
    stood, stands = ({each.structure.key: each for each in those} for those in (before.laid, laid))
    for key in stood.keys() | stands.keys():
        once, then = stood.get(key), stands.get(key)
        if once is not then:
            keys.add(key)
            shapes += [shapely.union(each.reach, each.ground) for each in (once, then) if each is not None]
    return shapely.buffer(shapely.union_all(shapes), _range(before.garden, garden)), keys


def _things_of(garden: Garden) -> dict[str, Bed | Feature]:
    """Return the beds and features of a garden by their keys."""
    things: dict[str, Bed | Feature] = {bed.key: bed for bed in garden.beds}
    return things | {feature.key: feature for feature in garden.features}


def _bare_same(old: Any, new: Any) -> bool:
    """Return whether two things are the same but for what stands on them."""
    if old is None or new is None:
        return False
    return bool(text_of(old, "structures") == text_of(new, "structures"))


def _range(*gardens: Garden) -> float:
    """Return how far anything can be in the way of something else. [m]"""
    doors = [
        math.dist(a, b)
        for garden in gardens
        for feature in garden.features
        if feature.kind == "door"
        for a, b in pairwise(feature.points)
    ]
    return max(_FARTHEST, *doors) if doors else _FARTHEST


def _within(ground: _Ground, zone: Any) -> set[str]:
    """Return the keys of what a zone meets."""
    keys, shapes = ground.things
    if not keys or zone.is_empty:
        return set()
    shapely.prepare(zone)
    return {keys[i] for i in np.flatnonzero(shapely.intersects(zone, shapes))}


def _ordered(those: Iterable[Clash]) -> list[Clash]:
    return sorted(those, key=lambda clash: (clash.level != "wrong", clash.key, clash.things, clash.at))


def of_ways(those: Iterable[Clash]) -> list[Clash]:
    """Return those clashes that tell where nobody gets to."""
    return [clash for clash in those if clash.key in _OF_WAYS]


def _said(key: str, rule: Callable[[_Ground], Iterable[Clash]], ground: _Ground) -> list[Clash]:
    """Return what a rule finds; one that fails is said to have failed and never stops the plan."""
    failed = Clash(_BROKEN, "watch", (), _middle_of(ground), words={"rule": template(f"rule.{key}")})
    return guarded(f"the rule {key}", lambda: list(rule(ground)), [failed])


def _middle_of(ground: _Ground) -> Flat:
    bed = ground.garden.beds[0] if ground.garden.beds else None
    return (bed.x, bed.y) if bed else (0.0, 0.0)


def warned(those: Iterable[Clash], system: System) -> tuple[Warned, ...]:
    """Return clashes in words and the reader's units."""
    return tuple(
        Warned(
            key=c.key,
            level=c.level,
            things=c.things,
            at=c.at,
            text=say(f"clash.{c.key}", system, c.values, c.words),
        )
        for c in those
    )


def gaps(garden: Garden, laid: Sequence[Laid], key: str, system: System) -> tuple[Gap, ...]:
    """Return the distances from one thing to its nearest neighbours, shortest first."""
    ground = _Ground(garden, laid)
    shapes = {bed.key: shape for bed, shape in ground.beds} | {
        feature.key: shape for feature, shape in ground.features
    }
    shapes |= {standing.structure.key: standing.ground for standing in laid}
    if key not in shapes:
        return ()
    own = shapes[key]
    home = next((standing.bed.key for standing in laid if standing.structure.key == key), "")
    guests = {standing.structure.key for standing in laid if standing.bed.key == key}
    others = {k: s for k, s in shapes.items() if k not in {key, home, *guests}}
    near = sorted(zip(shapely.distance(own, list(others.values())).tolist(), others, strict=True))
    narrow: list[Gap] = []
    for distance, other in near:
        if 0.0 < distance < _FAR and len(narrow) < _NEAREST:
            start, end = (_flat(point) for point in ops.nearest_points(own, shapes[other]))
            narrow.append(Gap(to=other, start=start, end=end, text=write(distance, "length", system)))
    return tuple(narrow)


def _flat(point: Any) -> Flat:
    return round(float(point.x), 3), round(float(point.y), 3)


def _middle(a: Flat, b: Flat) -> Flat:
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2


def _pairs(shapes: Sequence[Any], distance: float) -> Iterator[tuple[int, int]]:
    """Return the pairs of shapes within a distance of one another."""
    if len(shapes) < 2:
        return
    tree = shapely.STRtree(shapes)
    for i, j in tree.query(shapes, predicate="dwithin", distance=distance).T:
        if i < j:
            yield int(i), int(j)


def _narrow_gaps(ground: _Ground) -> Iterator[Clash]:
    """Beds that leave less than the garden's own path between them, source handbook-parts-4.1."""
    least = ground.garden.path_width
    for i, j in _pairs([shape for _, shape in ground.beds], least - 0.005):
        (a, shape_a), (b, shape_b) = ground.beds[i], ground.beds[j]
        distance = float(shape_a.distance(shape_b))
        facing = shape_a.boundary.intersection(shape_b.buffer(distance + 0.05)).length
        if distance < _TOUCH or facing < _FACING:
            continue
        start, end = (_flat(p) for p in ops.nearest_points(shape_a, shape_b))
        yield Clash(
            "narrow-gap",
            "watch",
            (a.key, b.key),
            _middle(start, end),
            {"gap": (distance, "length"), "least": (least, "length")},
            {"a": a.name, "b": b.name},
        )


def _narrow_paths(ground: _Ground) -> Iterator[Clash]:
    """Paths laid too narrow, or squeezed by what reaches into them."""
    least = ground.garden.path_width
    solid = [(bed.key, bed.name, shape) for bed, shape in ground.beds]
    solid += [(f.key, f.name, shape) for f, shape in ground.features if f.kind in ("wall", "fence")]
    solid += [(e.structure.key, e.structure.name, e.swath) for e in ground.laid]
    tree = shapely.STRtree([shape for _, _, shape in solid])
    for path, shape in ground.paths:
        if path.width < least - 0.005:
            values = {"width": (path.width, "length"), "least": (least, "length")}
            yield Clash(
                "narrow-path",
                "watch",
                (path.key,),
                _flat(shape.representative_point()),
                values,
                {"path": path.name},
            )
            continue
        for i in sorted(tree.query(shape, predicate="intersects")):
            key, name, other = solid[i]
            free = _free_width(path, shape, other)
            if free < least - 0.005:
                spot = _flat(shape.intersection(other).representative_point())
                values = {"free": (free, "length"), "least": (least, "length")}
                yield Clash(
                    "squeezed-path",
                    "watch",
                    (path.key, key),
                    spot,
                    values,
                    {"path": path.name, "other": name},
                )


@remembered(2048)
def _free_width(path: Feature, shape: Any, other: Any) -> float:
    """Return the width left of a path beside something that reaches into it. [m]"""
    if shape.intersection(other).area < 1e-4:
        return path.width
    free = path.width
    for start, end in zip(path.points, path.points[1:], strict=False):
        long = math.dist(start, end)
        if long < 1e-6:
            continue
        lane = shapely.LineString((start, end)).buffer(path.width / 2, cap_style="flat")
        inside = lane.intersection(other)
        if inside.area < 1e-4:
            continue
        along = np.array([(end[0] - start[0]) / long, (end[1] - start[1]) / long])
        sides = (shapely.get_coordinates(inside) - np.array(start)) @ np.array([-along[1], along[0]])
        free = min(free, max(path.width / 2 - float(sides.max()), path.width / 2 + float(sides.min()), 0.0))
    return free


def _over_buried(ground: _Ground) -> Iterator[Clash]:
    """Driven things too near to what is buried, source handbook-parts-4.6."""
    spare = tables.constant("service_depth_spare")
    for feature in ground.garden.features:
        keep = keep_of(feature)
        if not keep:
            continue
        line = shapely.LineString(feature.points)
        for standing in ground.near(line, keep + feature.width):
            driven = [(m, ends[0]) for m, ends in standing.lines if m.role in ("post", "anchor", "strut")]
            if not driven:
                continue
            away = shapely.distance(line, shapely.points([spot for _, spot in driven])) - feature.width / 2
            shallow = feature.depth is not None and standing.geometry.depth < feature.depth - spare
            near = [
                (max(float(distance), 0.0), member.role, spot)
                for (member, spot), distance in zip(driven, away, strict=True)
                if distance < keep - 0.005 and not (shallow and member.role == "post")
            ]
            if near:
                least, role, spot = min(near)
                values = {
                    "away": (least, "length"),
                    "keep": (keep, "length"),
                    "count": (float(len(near)), "count"),
                }
                words = {
                    "what": {"post": "a post", "anchor": "an anchor", "strut": "a strut"}[role],
                    "structure": standing.structure.name,
                    "line": feature.name,
                }
                level: Literal["watch", "wrong"] = "watch" if feature.kind == "drip-line" else "wrong"
                yield Clash(
                    f"near-{feature.kind}", level, (standing.structure.key, feature.key), spot, values, words
                )


def _over_paths(ground: _Ground) -> Iterator[Clash]:
    """Guys to trip on and feet in the way, source handbook-parts-4.7."""
    for path, shape in ground.paths:
        for standing in ground.near(shape, 0.0):
            crossing = next(
                (
                    clash
                    for member, ends in standing.lines
                    if (clash := _crossing(standing, member.role, ends, path, shape))
                ),
                None,
            )
            if crossing:
                yield crossing


def _crossing(standing: Laid, role: str, ends: Sequence[Flat], path: Feature, shape: Any) -> Clash | None:
    """Return the clash of one member with a path, if there is one."""
    if role not in ("guy", "strut", "post", "anchor"):
        return None
    leaning = role in ("guy", "strut")
    crossed = shape.intersection(shapely.LineString(ends) if leaning else shapely.Point(ends[0]))
    if crossed.is_empty or (leaning and crossed.length < 1e-3):
        return None
    what = {"guy": "A guy", "strut": "A strut", "post": "A post", "anchor": "An anchor"}[role]
    words = {"what": what, "structure": standing.structure.name, "path": path.name}
    values = {"clear": (tables.constant("guy_headroom"), "length")}
    key = "guy-over-path" if leaning else "foot-in-path"
    return Clash(
        key, "wrong", (standing.structure.key, path.key), _flat(crossed.representative_point()), values, words
    )


def _before_doors(ground: _Ground) -> Iterator[Clash]:
    """What stands where a door or gate swings, on either side of it, source handbook-parts-4.1."""
    for door in ground.garden.features:
        if door.kind != "door":
            continue
        line = shapely.LineString(door.points)
        swing = line.buffer(max(line.length, tables.constant("foot_path")), cap_style="flat")
        for standing in ground.near(swing, 0.0):
            if standing.ground.intersects(swing):
                words = {"structure": standing.structure.name, "door": door.name}
                values = {"clear": (line.length, "length")}
                middle = _flat(line.interpolate(0.5, normalized=True))
                things = (standing.structure.key, door.key)
                yield Clash("before-door", "wrong", things, middle, values, words)


def _taken_twice(ground: _Ground) -> Iterator[Clash]:
    """Two structures in the same ground."""
    shapes = [standing.ground for standing in ground.laid]
    for i, j in _pairs(shapes, 0.0):
        shared = shapes[i].intersection(shapes[j])
        if shared.area < 0.002:
            continue
        a, b = ground.laid[i].structure, ground.laid[j].structure
        x0, y0, x1, y1 = shared.bounds
        over = math.hypot(x1 - x0, y1 - y0)
        yield Clash(
            "taken-twice",
            "wrong",
            (a.key, b.key),
            _flat(shared.representative_point()),
            {"over": (over, "length")},
            {"a": a.name, "b": b.name},
        )


def _past_bed(ground: _Ground) -> Iterator[Clash]:
    """Rows that end beyond their bed's boards."""
    beds = [shape for _, shape in ground.beds]
    tree = shapely.STRtree(beds)
    inside = shapely.covers(
        [bed_shape(lie_of(standing.bed)) for standing in ground.laid],
        [standing.rooted for standing in ground.laid],
    ).tolist()
    for standing, within in zip(ground.laid, inside, strict=True):
        row = standing.rooted
        if within:
            continue
        # what is fixed to a wall stands beside its bed, what it carries in it
        off = TO_WALL if tables.traits()[standing.structure.family].faces == "one" else 0.0
        near = [beds[i] for i in tree.query(row, predicate="dwithin", distance=off)]
        past = row.difference(shapely.union_all(near).buffer(off, cap_style="flat", join_style="mitre"))
        if past.length > 0.05:
            yield Clash(
                "past-bed",
                "watch",
                (standing.structure.key, standing.bed.key),
                _flat(past.representative_point()),
                {"past": (past.length, "length")},
                {"structure": standing.structure.name, "bed": standing.bed.name},
            )


def _closed_off(ground: _Ground) -> Iterator[Clash]:
    """Beds or parts of beds that nobody can get to, source handbook-parts-4.1."""
    if not ground.beds:
        return
    parts = _parted(ground)
    whole = [part for _, _, part in parts]
    beyonds = _unreached(whole, _walks(ground, [standing.kept_off for standing in ground.laid]))
    least = np.maximum(_SHARE * shapely.area(whole), 0.05)
    short = [(*parts[i], beyonds[i]) for i in np.flatnonzero(shapely.area(beyonds) >= least)]
    if not short:
        return
    befores = _unreached(
        [shape for _, shape, _, _ in short], _walks(ground, [])
    )  # as it would be without the rows
    enclosed: dict[tuple[str, tuple[tuple[str, str, str], ...]], list[Any]] = {}
    for (bed, _, part, beyond), without in zip(short, befores, strict=True):
        before = without.intersection(part)
        key = "out-of-reach"
        about: tuple[tuple[str, str, str], ...] = (("bed", bed.key, bed.name),)
        if beyond.area - before.area > 0.05:
            by = _nearest_row(ground, bed.key, beyond).structure
            key, about = "closed-off", (("structure", by.key, by.name), *about)
        elif before.area > 0.9 * part.area:
            key = "no-way-to"
        enclosed.setdefault((key, about), []).append(beyond)
    for (key, about), pieces in enclosed.items():
        area, largest = (
            sum(float(piece.area) for piece in pieces),
            max(pieces, key=lambda piece: float(piece.area)),
        )
        values = {"area": (area, "area"), "reach": (tables.constant("arm_reach"), "length")}
        things, words = tuple(thing for _, thing, _ in about), {role: name for role, _, name in about}
        yield Clash(key, "watch", things, _flat(largest.representative_point()), values, words)


def _nearest_row(ground: _Ground, bed: str, shape: Any) -> Laid:
    """Return the structure whose row is nearest to a shape; of equals one that stands on that bed."""
    return min(
        ground.laid,
        key=lambda standing: (round(float(standing.line.distance(shape)), 2), standing.bed.key != bed),
    )


def _parted(ground: _Ground) -> list[tuple[Bed, Any, Any]]:
    """Return every bed, its shape, and each part that its rows cut it into."""
    shapes, cuts = [shape for _, shape in ground.beds], [standing.cut for standing in ground.laid]
    by_bed: dict[int, list[bytes]] = {}
    known = shapely.to_wkb(cuts)
    for bed, cut in shapely.STRtree(cuts).query(shapes, "intersects").T.tolist():
        by_bed.setdefault(bed, []).append(known[cut])
    whole = shapely.to_wkb(shapes)
    return [
        (bed, shape, part)
        for i, (bed, shape) in enumerate(ground.beds)
        for part in _parts(whole[i], tuple(by_bed.get(i, ())))
    ]


@remembered(2048)
def _parts(bed: bytes, cuts: tuple[bytes, ...]) -> tuple[Any, ...]:
    """Return the parts into which rows cut a bed; most beds are those of the last time."""
    shape = shapely.from_wkb(bed)
    return (
        tuple(shapely.get_parts(shape.difference(shapely.union_all(shapely.from_wkb(cuts)))))
        if cuts
        else (shape,)
    )


def _walks(ground: _Ground, rows: Sequence[Any]) -> Any:
    """Return the ground a person walks, and a hand's breadth past it: the connected part that meets most
    beds.
    """
    half = tables.constant("foot_path") / 2
    # most beds lie apart from one another: to join only what touches takes a quarter of the time
    solid = shapely.disjoint_subset_union_all(
        [*(bed_kept_off(lie_of(bed)) for bed, _ in ground.beds), *map(kept_off, ground.barriers), *rows]
    )
    low_x, low_y, high_x, high_y = solid.bounds
    free = shapely.box(low_x - _AROUND, low_y - _AROUND, high_x + _AROUND, high_y + _AROUND).difference(solid)
    parts = list(shapely.get_parts(free))
    beds = shapely.STRtree([shape for _, shape in ground.beds])
    met = (
        [len(beds.query(part, predicate="dwithin", distance=half + 0.02)) for part in parts]
        if len(parts) > 1
        else [1]
    )
    return parts[int(np.argmax(met))].buffer(half + 0.02, quad_segs=3)


def _cut(shape: Any, low_x: float, low_y: float, high_x: float, high_y: float) -> Any:
    """Return what of a shape lies in a rectangle. The quick way fails where only a sliver would be left."""
    try:
        return shapely.clip_by_rect(shape, low_x, low_y, high_x, high_y)
    except shapely.errors.GEOSException:
        return shapely.intersection(shape, shapely.box(low_x, low_y, high_x, high_y))


def _unreached(parts: Sequence[Any], walk: Any) -> list[Any]:
    """Return what of each part no arm reaches from where a person walks."""
    around = shapely.bounds(parts) + np.array([-1.0, -1.0, 1.0, 1.0]) * _BESIDE
    strips = np.floor(around[:, 1] / _STRIP)
    near: list[Any] = [None] * len(parts)
    for strip in np.unique(strips):  # what is cut from a strip of the plan is cut faster than from all of it
        own = np.flatnonzero(strips == strip)
        (low_x, low_y), (high_x, high_y) = around[own, :2].min(axis=0), around[own, 2:].max(axis=0)
        wide = _cut(walk, low_x, low_y, high_x, high_y)
        for i in own.tolist():
            near[i] = _cut(wide, *around[i].tolist())
    pairs = zip(shapely.to_wkb(parts), shapely.to_wkb(near), strict=True)
    return [_beyond(part, walked) for part, walked in pairs]


@remembered(4096)
def _beyond(part: bytes, walk: bytes) -> Any:
    """Return what of a part no arm reaches from what is walked beside it; most are those of the last time."""
    shape = shapely.from_wkb(part)
    edge = shapely.intersection(shapely.boundary(shape), shapely.from_wkb(walk))
    reach = shapely.buffer(edge, tables.constant("arm_reach"), quad_segs=4)
    return shapely.difference(shape, reach, grid_size=_GRAIN)


_WAYS = "closed-off"
RULES: dict[str, Callable[[_Ground], Iterable[Clash]]] = {
    "narrow-gaps": _narrow_gaps,
    "narrow-paths": _narrow_paths,
    "over-buried": _over_buried,
    "over-paths": _over_paths,
    "before-doors": _before_doors,
    "taken-twice": _taken_twice,
    "past-bed": _past_bed,
    "closed-off": _closed_off,
}
