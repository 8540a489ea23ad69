"""Rows of what things are made of, and of what is not well known."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from .base import Row


@dataclass(frozen=True)
class Material(Row):
    """What it may be stressed to in a gust and all season (the factor of its code or ours inside), and what
    it is expected to bear.

    yields: whether it bends on at its yield instead of breaking, so that a whole section may yield.
    """

    name: str
    E: float
    allow_gust: float
    allow_sustained: float
    median: float
    yields: bool
    creep: float
    stuff: Literal["wood", "cane", "metal"]
    median_source: str


@dataclass(frozen=True)
class Section(Row):
    A: float
    I: float
    S: float
    Z: float
    I_other: float
    S_other: float
    Z_other: float


@dataclass(frozen=True)
class MeshMaterial(Row):
    name: str
    E: float
    break_: float
    yield_: float
    median: float
    median_yield: float
    ductility: float
    factor: float
    efficiency: float


@dataclass(frozen=True)
class Uncertainty(Row):
    """Something that is not well known: between which factors it lies, and whether it changes a load or a
    strength.
    """

    name: str
    low: float
    high: float
    acts: Literal["load", "strength"]

    @property
    def dispersion(self) -> float:
        """Return the standard deviation of its logarithm: low and high are taken as where nineteen in twenty
        lie between.
        """
        return math.log(self.high / self.low) / (2 * 1.96)
