"""Rules of a garden plan: gaps, paths, buried lines, doors, and ground taken twice."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any, Literal

import numpy as np
import shapely
from shapely import ops

from .. import tables
from ..memory import remembered
from ..plan.features import Feature
from .plot import TO_WALL, Flat, Laid, bed_shape, keep_of, lie_of
from .shapes import Clash, GardenShapes, flat, middle, pairs_within

_TOUCH = 0.05  # beds nearer than this are one bed to walk round [m]
_FACING = 0.3  # beds face one another over at least this length [m]


def narrow_gaps(ground: GardenShapes) -> Iterator[Clash]:
    """Beds that leave less than the garden's own path between them, source handbook-parts-4.1."""
    least = ground.garden.path_width
    for i, j in pairs_within([shape for _, shape in ground.beds], least - 0.005):
        (a, shape_a), (b, shape_b) = ground.beds[i], ground.beds[j]
        distance = float(shape_a.distance(shape_b))
        facing = shape_a.boundary.intersection(shape_b.buffer(distance + 0.05)).length
        if distance < _TOUCH or facing < _FACING:
            continue
        start, end = (flat(p) for p in ops.nearest_points(shape_a, shape_b))
        yield Clash(
            "narrow-gap",
            "watch",
            (a.key, b.key),
            middle(start, end),
            {"gap": (distance, "length"), "least": (least, "length")},
            {"a": a.name, "b": b.name},
        )


def narrow_paths(ground: GardenShapes) -> Iterator[Clash]:
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
                flat(shape.representative_point()),
                values,
                {"path": path.name},
            )
            continue
        for i in sorted(tree.query(shape, predicate="intersects")):
            key, name, other = solid[i]
            free = _free_width(path, shape, other)
            if free < least - 0.005:
                spot = flat(shape.intersection(other).representative_point())
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


def over_buried(ground: GardenShapes) -> Iterator[Clash]:
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


def over_paths(ground: GardenShapes) -> Iterator[Clash]:
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
        key, "wrong", (standing.structure.key, path.key), flat(crossed.representative_point()), values, words
    )


def before_doors(ground: GardenShapes) -> Iterator[Clash]:
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
                middle = flat(line.interpolate(0.5, normalized=True))
                things = (standing.structure.key, door.key)
                yield Clash("before-door", "wrong", things, middle, values, words)


def taken_twice(ground: GardenShapes) -> Iterator[Clash]:
    """Two structures in the same ground."""
    shapes = [standing.ground for standing in ground.laid]
    for i, j in pairs_within(shapes, 0.0):
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
            flat(shared.representative_point()),
            {"over": (over, "length")},
            {"a": a.name, "b": b.name},
        )


def past_bed(ground: GardenShapes) -> Iterator[Clash]:
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
                flat(past.representative_point()),
                {"past": (past.length, "length")},
                {"structure": standing.structure.name, "bed": standing.bed.name},
            )
