"""The line a fence takes in plan: straight, in zigzag, in waves, or round three sides of a bed."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import Literal

import numpy as np

from ..mechanics import Array
from ..path.geometry import Member, Plant, Point
from .posts import stations

Plan = Literal["straight", "zigzag", "serpentine", "u"]
FOLDED = ("zigzag", "serpentine")


@dataclass(frozen=True)
class RowCourse:
    """A fence's line through its posts, which is laid out straight and then folded.

    plan: its shape.
    length: along the row. [m]
    spacing: greatest distance of posts along the row. [m]
    swing: of the posts to either side of the row, where it goes in zigzag or in waves. [m]
    arm: of its two arms, where it goes round three sides. [m]

    Source: handbook-parts-3.2
    """

    plan: Plan
    length: float
    spacing: float
    swing: float
    arm: float

    @cached_property
    def corners(self) -> list[tuple[float, float]]:
        """Return the places of its posts in plan. [m]"""
        row = [float(x) for x in stations(self.length, self.spacing)]
        if self.plan in FOLDED:
            return [(x, self.swing if n % 2 else -self.swing) for n, x in enumerate(row)]
        if self.plan == "u":
            out = [float(x) for x in stations(self.arm, self.spacing)[1:]]
            back = self.arm / 2  # from the middle of its bed
            return [
                *((0.0, back - y) for y in reversed(out)),
                *((x, back) for x in row),
                *((self.length, back - y) for y in out),
            ]
        return [(x, 0.0) for x in row]

    @cached_property
    def stations(self) -> Array:
        """Return its posts as it is laid out straight, (n,). [m]"""
        return np.concatenate([[0.0], np.cumsum([math.dist(a, b) for a, b in pairwise(self.corners)])])

    @property
    def run(self) -> float:
        """Return its length laid out straight. [m]"""
        return float(self.stations[-1])

    @property
    def ratio(self) -> float:
        """Return how much longer a bay is than what it stretches along the row."""
        return self.run / self.length if self.plan in FOLDED else 1.0

    @cached_property
    def back(self) -> int:
        """Return the bays between its corners: all, or those of the back."""
        return len(stations(self.length, self.spacing)) - 1

    def folded(self, at: Point) -> Point:
        """Return where a point comes to that is laid out straight; past its ends it goes on as its last bays
        do.
        """
        s, aside, up = at
        bay = int(np.clip(np.searchsorted(self.stations, s, side="right") - 1, 0, len(self.corners) - 2))
        (x0, y0), (x1, y1) = self.corners[bay], self.corners[bay + 1]
        long = math.hypot(x1 - x0, y1 - y0)
        ux, uy = (x1 - x0) / long, (y1 - y0) / long
        on = s - float(self.stations[bay])
        return (x0 + on * ux - aside * uy, y0 + on * uy + aside * ux, up)

    def members(self, laid: Iterable[Member]) -> tuple[Member, ...]:
        """Return members that are laid out straight, folded at the posts between their points."""
        return tuple(self._member(member) for member in laid) if self.plan != "straight" else tuple(laid)

    def plants(self, laid: Iterable[Plant]) -> tuple[Plant, ...]:
        """Return plants that are laid out straight."""
        return (
            tuple(
                replace(p, at=self.folded(p.at), way=tuple(map(self.folded, p.way)), station=p.at[0])
                for p in laid
            )
            if self.plan != "straight"
            else tuple(laid)
        )

    def _member(self, member: Member) -> Member:
        lines = tuple(tuple(map(self.folded, line)) for line in member.lines)
        return replace(member, points=tuple(map(self.folded, self._broken(member))), lines=lines)

    def _broken(self, member: Member) -> tuple[Point, ...]:
        """Return the points of a member with one more at every post it passes."""
        if member.shape != "line" or len(member.points) != 2:
            return member.points
        (s0, y0, z0), (s1, y1, z1) = member.points
        passed = [float(s) for s in self.stations if min(s0, s1) + 1e-6 < s < max(s0, s1) - 1e-6]
        inner = [
            (s, y0 + (y1 - y0) * (s - s0) / (s1 - s0), z0 + (z1 - z0) * (s - s0) / (s1 - s0))
            for s in sorted(passed, reverse=s1 < s0)
        ]
        return (member.points[0], *inner, member.points[1])
