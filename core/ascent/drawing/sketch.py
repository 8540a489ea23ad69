"""A structure at a glance, from a little above and to one side: what it is chosen by."""

from __future__ import annotations

import math

import numpy as np

from ..path.geometry import Geometry, Member, Plant, Point
from ..plan.fields import Typed
from .views import Flat, stuff_of

_AROUND, _ABOVE = math.radians(28.0), math.radians(16.0)
_UNSEEN = ("grip", "cap", "tie", "fitting")
_LEAF_EVERY = 0.16  # along a plant's way [m]
_MOST_LEAVES = 700
_WIRES = 6  # each way that stand for the wires of a panel


class Trace(Typed):
    """A line of the sketch, metres."""

    role: str
    stuff: str
    thickness: float
    points: tuple[Flat, ...]


class Sketch(Typed):
    """A structure at a glance: its strokes, its leaves as spots, the ground line of its bed, and how far it
    reaches.
    """

    strokes: tuple[Trace, ...]
    leaves: tuple[Flat, ...]
    ground: tuple[Flat, ...]
    low: Flat
    high: Flat


def seen(point: Point) -> Flat:
    """Return where a point stands in the sketch."""
    x, y, z = point
    away = x * math.sin(_AROUND) + y * math.cos(_AROUND)
    return round(x * math.cos(_AROUND) - y * math.sin(_AROUND), 3), round(
        z * math.cos(_ABOVE) + away * math.sin(_ABOVE), 3
    )


def sketch_of(geometry: Geometry, length: float, width: float) -> Sketch:
    """Return a structure at a glance, in a bed of some length and width. [m]"""
    strokes = []
    for member in geometry.members:
        if member.role in _UNSEEN or member.shape == "point":
            continue
        lines = member.lines or _lines(member)
        for line in lines:
            above = [(x, y, max(z, 0.0)) for x, y, z in line]
            strokes.append(
                Trace(
                    role=member.role,
                    stuff=stuff_of(member),
                    thickness=member.thickness,
                    points=tuple(map(seen, above)),
                )
            )
    leaves = [spot for plant in geometry.plants for spot in _leaves(plant, geometry.climb)]
    thinned = leaves[:: max(math.ceil(len(leaves) / _MOST_LEAVES), 1)]
    middle, half = geometry.length / 2, length / 2
    corners = [
        (middle - half, -width / 2, 0.0),
        (middle + half, -width / 2, 0.0),
        (middle + half, width / 2, 0.0),
        (middle - half, width / 2, 0.0),
    ]
    ground = tuple(seen(corner) for corner in corners)
    points = np.array([p for stroke in strokes for p in stroke.points] + thinned + list(ground))
    (low_u, low_v), (high_u, high_v) = points.min(axis=0).tolist(), points.max(axis=0).tolist()
    return Sketch(
        strokes=tuple(strokes),
        leaves=tuple(thinned),
        ground=ground,
        low=(low_u, low_v),
        high=(high_u, high_v),
    )


def _lines(member: Member) -> tuple[tuple[Point, ...], ...]:
    """Return what a member is drawn by: its line, or the edges of a panel with some of its wires."""
    if member.shape == "line":
        return (member.points,)
    a, b, c, d = (np.array(point) for point in member.points[:4])
    along = [(a + (b - a) * s, d + (c - d) * s) for s in np.linspace(0, 1, _WIRES + 1)]
    up = [(a + (d - a) * s, b + (c - b) * s) for s in np.linspace(0, 1, _WIRES + 1)]
    return tuple((tuple(map(float, p)), tuple(map(float, q))) for p, q in (*along, *up))  # type: ignore[misc]


def _leaves(plant: Plant, climb: float) -> list[Flat]:
    """Return spots along the way of a plant."""
    x, y, _ = plant.at
    way = np.array(plant.way or ((x, y, 0.0), (x, y, climb)))
    steps = np.concatenate(([0.0], np.cumsum(np.linalg.norm(np.diff(way, axis=0), axis=1))))
    along = np.arange(0.2, min(climb, float(steps[-1])), _LEAF_EVERY)
    spots = np.stack([np.interp(along, steps, way[:, i]) for i in range(3)], axis=1)
    return [seen((float(a), float(b), float(c))) for a, b, c in spots]
