"""Where something that is wanted would stand: on one bed or several alike, over the path between two, along
a wall or a fence.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence

import numpy as np
import shapely

from .. import tables
from ..errors import InvalidPlan, Problem
from ..mechanics import Array
from ..plan.bed import BareBed, Bed
from ..plan.features import Feature
from ..plan.fields import Key
from ..plan.garden import Garden
from ..plan.shed import Spare
from ..plan.structure import Structure
from ..site import HostWall, Site
from ..words.quantities import write
from .plot import TO_WALL, bed_middle, bed_shape, lie_of, placed

_ALIKE = 0.051  # by which measures of beds alike may differ [m]
_PARALLEL = math.sin(math.radians(10.0))
_FACING = 0.6  # share of the shorter bed over which two face one another
_PATHS = (0.3, 2.4)  # what is a path between two beds that something can stand over [m]
_SAID = {"metric": 0.6, "imperial": 0.6096}  # of how far a wall may be, as it is told [m]
_LEAST = 0.3  # of a wall along a bed [m]


def site_for(
    garden: Garden, bed: Bed, beds: Iterable[Key] = (), host: Key | None = None, spare: tuple[Spare, ...] = ()
) -> Site:
    """Return where something wanted on a bed would stand; of several beds the wind of the windiest counts.

    Args:
        garden: With everything on its plan.
        bed: The bed.
        beds: Others alike that each get the same, or the one across a path.
        host: A wall or fence along the bed.
        spare: What the shed has free.

    Raises:
        InvalidPlan: No such bed, or one that is not alike; no such wall or fence, or one out of reach.
    """
    others = [_bed_of(garden, bed, key) for key in beds]
    path = _path_between(bed, others[0]) if len(others) == 1 else None
    windiest = max(
        (each.exposure or garden.exposure for each in (bed, *others)),
        key=lambda key: tables.exposures()[key].design_gust_m_s,
    )
    home = bed.model_copy(update={"exposure": windiest}) if others else bed
    return Site(garden=garden, bed=home, spare=spare, path=path, host=_host_of(garden, bed, host))


def stood(
    garden: Garden, bed: Bed, structure: Structure, beds: Sequence[Key] = (), host: Key | None = None
) -> list[tuple[Bed, Structure]]:
    """Return a structure that is wanted where it is to stand: over the path, along the wall or fence, or once
    on each bed, on ground that nothing else takes if there is any.

    Raises:
        InvalidPlan: As `site_for`.
    """
    others = [_bed_of(garden, bed, key) for key in beds]
    if over_path(structure) and others:
        middle = bed_middle(bed).into(_facing(bed, others[0])[0])
        along, across = (round(float(value), 3) for value in middle)
        return [(bed, structure.model_copy(update={"along": along, "across": across}))]
    if host and structure.options.get("fixed_to") in ("wall", "fence"):
        return [(bed, _along_host(garden, bed, host, structure))]
    return [(each, placed(garden, each, structure)) for each in (bed, *others)]


def over_path(structure: Structure) -> bool:
    """Return whether a structure stands over a path between two beds."""
    return structure.options.get("over") == "path"


def likely_beds(garden: Garden, bed: Bed) -> list[tuple[Bed, float | None]]:
    """Return the beds alike, each with the width of the path to it where one lies between. [m]"""
    return [
        (each, _path_between(bed, each)) for each in garden.beds if each.key != bed.key and _alike(bed, each)
    ]


def likely_hosts(garden: Garden, bed: Bed) -> list[Feature]:
    """Return the walls and fences that something on a bed may be fixed to."""
    return [each for each in garden.features if each.kind in ("wall", "fence") and _stretch(bed, each)]


def _bed_of(garden: Garden, bed: Bed, key: Key) -> Bed:
    other = next((each for each in garden.beds if each.key == key), None)
    if other is None or other.key == bed.key:
        raise InvalidPlan([Problem("beds", key, "another bed of this garden is allowed")])
    if not _alike(bed, other):
        raise InvalidPlan(
            [Problem("beds", other.name, f"a bed like {bed.name} in kind, size and soil is allowed")]
        )
    return other


def _alike(one: BareBed, other: BareBed) -> bool:
    """Return whether what stands on one bed stands as well on another."""
    same = all(
        getattr(one, name) == getattr(other, name) for name in ("kind", "soil", "top", "fill", "board")
    )
    return same and all(
        abs(getattr(one, name) - getattr(other, name)) < _ALIKE for name in ("length", "width", "raised_by")
    )


def _path_between(one: BareBed, other: BareBed) -> float | None:
    """Return the width of the path between two beds; nothing where none lies between them. [m]"""
    turned = math.radians(one.bearing - other.bearing)
    if abs(math.sin(turned)) > _PARALLEL:
        return None
    shapes = bed_shape(lie_of(one)), bed_shape(lie_of(other))
    wide, (_, shared) = float(shapely.distance(*shapes)), _facing(one, other)
    facing = shared >= _FACING * min(one.length, other.length)
    return round(wide, 3) if facing and _PATHS[0] <= wide <= _PATHS[1] else None


def _facing(one: BareBed, other: BareBed) -> tuple[Array, float]:
    """Return the middle between two beds on the plan, and how long they face one another. [m]"""
    frame = bed_middle(one)
    along, across = frame.into(np.array([other.x, other.y]))
    low = max(-one.length / 2, along - other.length / 2)
    high = min(one.length / 2, along + other.length / 2)
    return frame.out(np.array([[(low + high) / 2, across / 2]]))[0], high - low


def _host_of(garden: Garden, bed: Bed, key: Key | None) -> HostWall | None:
    if key is None:
        return None
    feature = _feature_of(garden, key)
    (low, high), offset = _along_bed(garden, bed, feature)
    return HostWall(
        kind="wall" if feature.kind == "wall" else "fence",
        length=round(high - low, 3),
        height=feature.height,
        side="left" if offset > 0 else "right",
    )


def _feature_of(garden: Garden, key: Key) -> Feature:
    feature = next((each for each in garden.features if each.key == key), None)
    if feature is None or feature.kind not in ("wall", "fence"):
        raise InvalidPlan([Problem("host", key, "a wall or a fence of this plan is allowed")])
    return feature


def _along_bed(garden: Garden, bed: Bed, feature: Feature) -> tuple[tuple[float, float], float]:
    found = _stretch(bed, feature)
    if found is None:
        within = write(_SAID[garden.units], "length", garden.units)
        raise InvalidPlan(
            [
                Problem(
                    "host",
                    feature.name,
                    f"a wall or fence along {bed.name}, no more than {within} from it, is allowed",
                )
            ]
        )
    return found


def _stretch(bed: BareBed, feature: Feature) -> tuple[tuple[float, float], float] | None:
    """Return from where to where along a bed a wall or fence runs, and how far its middle lies to the left of
    the bed's; nothing where it does not run along it within reach. [m]
    """
    corners = bed_middle(bed).into(np.array(feature.points))
    best = None
    for (x0, y0), (x1, y1) in zip(corners[:-1].tolist(), corners[1:].tolist(), strict=True):
        long = math.hypot(x1 - x0, y1 - y0)
        low, high = max(min(x0, x1), -bed.length / 2), min(max(x0, x1), bed.length / 2)
        if long == 0 or abs(y1 - y0) > _PARALLEL * long or high - low < _LEAST:
            continue
        offset = y0 + (y1 - y0) * ((low + high) / 2 - x0) / (x1 - x0)
        if abs(offset) - bed.width / 2 - feature.width / 2 > TO_WALL:
            continue
        if best is None or abs(offset) < abs(best[1]):
            best = ((low, high), offset)
    return best


def _along_host(garden: Garden, bed: Bed, host: Key, structure: Structure) -> Structure:
    """Return a structure moved along a wall or fence, its row off its face by as much as its options say."""
    feature = _feature_of(garden, host)
    (low, high), offset = _along_bed(garden, bed, feature)
    away = feature.width / 2 + float(structure.options.get("offset", 0.0))
    across = offset - math.copysign(away, offset)
    return structure.model_copy(update={"along": round((low + high) / 2, 3), "across": round(across, 3)})
