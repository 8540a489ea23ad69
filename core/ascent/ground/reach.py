"""Ground that no arm reaches: beds closed off by their rows."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
import shapely

from .. import tables
from ..memory import remembered
from ..plan.bed import Bed
from .plot import Laid, bed_kept_off, kept_off, lie_of
from .shapes import Clash, GardenShapes, flat

_BESIDE = 0.1  # of a part of a bed, where it is looked whether somebody walks [m]
_SHARE = 0.15  # of a bed's part out of reach before it is said
_STRIP = 4.0  # of a plan, from south to north [m]
_AROUND = 2.0  # of free ground around the plan [m]
_GRAIN = 1e-4  # to which overlays are rounded, so that touching edges cannot cross [m]


def closed_off(ground: GardenShapes) -> Iterator[Clash]:
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
        yield Clash(key, "watch", things, flat(largest.representative_point()), values, words)


def _nearest_row(ground: GardenShapes, bed: str, shape: Any) -> Laid:
    """Return the structure whose row is nearest to a shape; of equals one that stands on that bed."""
    return min(
        ground.laid,
        key=lambda standing: (round(float(standing.line.distance(shape)), 2), standing.bed.key != bed),
    )


def _parted(ground: GardenShapes) -> list[tuple[Bed, Any, Any]]:
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


def _walks(ground: GardenShapes, rows: Sequence[Any]) -> Any:
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
