"""A panel bent over: its curve, drawn; its wires; the way a vine takes up it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from ..mechanics import Array, rod
from ..memory import remembered
from ..path.geometry import Member, Point
from ..shapes import sprung
from ..tables import rows

_LINKS = 60  # of the drawn curve; the figures come from the table
_HELD = 0.005  # of the length: lower ties hold nothing

_SPANS = (0.6, 2.6, 0.01)  # of an arch worth looking at [m]

Curve = tuple[tuple[float, float], ...]


class Reach(NamedTuple):
    """What an arch is to give: the path it spans and the rise of its crown. [m]"""

    path: float
    rise: float


class Bent(NamedTuple):
    """A way to bend a panel, and the rise of its crown. [m]"""

    length: float
    span: float
    hold: float
    rise: float


@remembered(256)
def curve(length: float, span: float, hold: float, clamped: bool = False) -> Curve:
    """Return a bent panel from one foot to the other: across, from its middle, and up. [m]

    Args:
        length: Of the panel. [m]
        span: Between its feet. [m]
        hold: Height at which it is tied upright. [m]
        clamped: Whether it is held straight all the way up to there.
    """
    if clamped:
        free = length - 2 * hold
        shape = rod.bent(span / free, links=_LINKS, start=rod.bent(0.5, links=_LINKS), clamped=True)
        above = [
            (float(x) * free - span / 2, hold + float(y) * free)
            for x, y in zip(shape.x, shape.y, strict=True)
        ]
        leg = np.linspace(0.0, hold, max(round(hold / free * _LINKS), 1), endpoint=False).tolist()
        return (*((-span / 2, z) for z in leg), *above, *((span / 2, z) for z in reversed(leg)))
    shape = rod.bent(span / length, links=_LINKS)
    for held in np.linspace(0.03, hold / length, 4) if hold / length > _HELD else ():
        shape = rod.bent(span / length, float(held), links=_LINKS, start=shape)
    return tuple(
        (float(x) * length - span / 2, float(y) * length) for x, y in zip(shape.x, shape.y, strict=True)
    )


def height_at(shape: Curve, length: float, climbed: Array) -> Array:
    """Return how high a vine stands that has climbed so far along a panel from its foot. [m]"""
    along = np.linspace(0.0, length, len(shape))
    up = np.maximum.accumulate([y for _, y in shape[: len(shape) // 2 + 1]])
    return np.interp(climbed, along[: len(up)], up)


def half_width_at(shape: Curve, height: float) -> float:
    """Return how far from the middle the outermost part of a curve is at a height or above it, read between
    its nodes. [m]
    """
    wide = [abs(y) for y, z in shape if z >= height]
    for (y0, z0), (y1, z1) in pairwise(shape):
        if (z0 - height) * (z1 - height) < 0:
            wide.append(abs(y0 + (height - z0) / (z1 - z0) * (y1 - y0)))
    return max(wide, default=0.0)


def reaching(reach: Reach, lengths: Sequence[float] | Array, holds: Array) -> Bent | None:
    """Return the bend that spans a path and reaches a rise, or the highest there is; None where no panel can
    be bent so.

    Of those that reach it the shortest panel, held lowest, over the widest span, which is the gentlest bend.

    Args:
        reach: Wanted.
        lengths: Of the panels there are. [m]
        holds: Heights at which they may be tied upright. [m]

    Source: handbook-8.8, the table of bent panels read backwards
    """
    low, high, step = _SPANS
    spans = np.arange(round(max(reach.path, low) / step), round(high / step) + 1) * step
    long, held, wide = (
        each.ravel() for each in np.meshgrid(np.asarray(lengths, dtype=float), holds, spans, indexing="ij")
    )
    may = sprung.fits(long, wide, held)
    if not np.any(may):
        return None
    long, held, wide = long[may], held[may], wide[may]
    rise = sprung.figures(long, wide, held, 1.0).rise
    enough = rise >= reach.rise - 1e-6
    order = np.lexsort((-wide, held, long)) if np.any(enough) else np.argsort(-rise)
    best = next(i for i in order.tolist() if enough[i] or not np.any(enough))
    return Bent(*(round(float(v[best]), 4) for v in (long, wide, held, rise)))


def member(mesh: rows.Mesh, number: int, shape: Curve, length: float, width: float, x: float) -> Member:
    """Return one bent panel from x on, drawn by its wires. [m]"""
    long = max(math.floor(width / mesh.up + 1e-6), 2)
    stations = [x + i * width / (long - 1) for i in range(long)]
    lines: list[tuple[Point, ...]] = [tuple((station, y, z) for y, z in shape) for station in stations]
    along = np.linspace(0.0, length, len(shape))
    ys, zs = np.array(shape).T
    for s in np.arange(0.0, length + 1e-6, mesh.along):
        y, z = float(np.interp(s, along, ys)), float(np.interp(s, along, zs))
        lines.append(((x, y, z), (x + width, y, z)))
    left, right = shape[0], shape[-1]
    corners = ((x, *left), (x + width, *left), (x + width, *right), (x, *right))
    return Member(
        f"panel-{number}",
        "panel",
        "meshes",
        mesh.key,
        corners,
        length,
        mesh.wire,
        "wires",
        lines=tuple(lines),
    )


def way_up(shape: Curve, x: float, side: float, foot: Point) -> tuple[Point, ...]:
    """Return the way of a vine from its foot up the nearer side of a panel to the crown. [m]"""
    half = shape[: len(shape) // 2 + 1]
    outward = [(x, side * abs(y) if z < 0.1 else -side * y if side > 0 else y, z) for y, z in half]
    return (foot, *outward[2:])
