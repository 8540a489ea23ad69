"""Rows of joints, steps, work and tools."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .base import Row


@dataclass(frozen=True)
class WorkRate(Row):
    """Minutes of one practised adult for one of a kind of work, for a metre of it, or for a plant; whether it
    is dug.
    """

    what: str
    minutes: float
    per_m: float
    per_plant: float
    digs: bool


@dataclass(frozen=True)
class Joint(Row):
    """How two things are joined."""

    name: str
    how: str


@dataclass(frozen=True)
class JointStroke(Row):
    """One stroke of a joint's drawing, from its middle: a line or an outline through points, a ring by its
    middle and its half width and height, or a dot. [m]
    """

    joint: str
    shape: Literal["line", "outline", "ring", "dot"]
    ink: Literal["ink", "wood", "cane", "metal", "soil", "leaf", "wall"]
    wide: float
    points: tuple[float, ...]


@dataclass(frozen=True)
class StepText(Row):
    """A piece of work in words: what to do, how to look at it, how it is undone, what springs then, and
    whether what it sets stays where it is when the rest is taken down.

    joint: a row of joints.csv; ‘*’ for that of the item it is made with. tools, caution: apart by semicolons.
    """

    title: str
    do: str
    check: str | None
    joint: str | None
    tools: str | None
    people: int
    caution: str | None
    undo: str | None
    springs: str | None
    stays: bool

    @property
    def cautions(self) -> tuple[str, ...]:
        """Return the keys of its cautions."""
        return tuple(key.strip() for key in (self.caution or "").split(";") if key.strip())


@dataclass(frozen=True)
class Tool(Row):
    """A tool that not everybody has, and what one costs."""

    name: str
    price: float
