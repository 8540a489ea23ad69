"""The shapes of a garden plan, made once for all rules, and what a rule finds."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Literal

import numpy as np
import shapely

from ..memory import remembered
from ..plan.features import ROUND, Feature
from ..plan.garden import Garden
from .plot import Flat, Laid, bed_shape, lie_of


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


class GardenShapes:
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


def middle_of(ground: GardenShapes) -> Flat:
    """Return the middle of everything on a garden plan. [m]"""
    bed = ground.garden.beds[0] if ground.garden.beds else None
    return (bed.x, bed.y) if bed else (0.0, 0.0)


def flat(point: Any) -> Flat:
    """Return a point as a pair of coordinates. [m]"""
    return round(float(point.x), 3), round(float(point.y), 3)


def middle(a: Flat, b: Flat) -> Flat:
    """Return the point halfway between two points. [m]"""
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2


def pairs_within(shapes: Sequence[Any], distance: float) -> Iterator[tuple[int, int]]:
    """Return the pairs of shapes within a distance of one another. [m]"""
    if len(shapes) < 2:
        return
    tree = shapely.STRtree(shapes)
    for i, j in tree.query(shapes, predicate="dwithin", distance=distance).T:
        if i < j:
            yield int(i), int(j)
