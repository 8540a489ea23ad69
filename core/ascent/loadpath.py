"""The load path: links from fruit to ground, each with the ways it can fail."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

import numpy as np

from .mechanics import Array
from .rows import Certainty

Term = tuple[Array | float, str]
Level = Literal["fine", "watch", "wrong"]


@dataclass(frozen=True)
class Check:
    """One way a link can fail, over cases.

    key: names the texts of the check.
    demand, capacity: arrays over cases in the SI unit of `quantity`; capacity is before the factor.
    factor: what capacity is divided by.
    source: row of sources.csv.
    terms: numbers of the working, each an array over cases with its kind of quantity.
    rests_on: row of uncertainties.csv that its capacity stands or falls with.
    """

    key: str
    demand: Array
    capacity: Array | float
    factor: Array | float
    quantity: str
    source: str
    certainty: Certainty
    terms: Mapping[str, Term] = field(default_factory=dict)
    rests_on: str = "steel"

    @cached_property
    def use(self) -> Array:
        """Return demand over allowable; infinite where nothing is left to carry it."""
        allowable = np.asarray(self.capacity / np.asarray(self.factor, dtype=float))
        demand, allowable = np.broadcast_arrays(self.demand, allowable)
        with np.errstate(divide="ignore", invalid="ignore"):
            ratio = demand / allowable
        return np.where(demand <= 1e-12, 0.0, np.where(allowable > 0, ratio, np.inf))


@dataclass(frozen=True)
class Arrow:
    """A place on the structure and the direction of a force there; x along the row, y across, z up."""

    at: tuple[float, float, float]
    towards: tuple[float, float, float]


@dataclass(frozen=True)
class Link:
    """One thing on the load path.

    members: keys of the geometry's members it covers.
    item: table and key of what it is made of, if it was chosen from a table.
    hands_to: keys of the links that take its load.
    levers: options that can strengthen it.
    carries: force through it, over cases [N].
    arrows: where its force is drawn, and which way it goes.
    """

    key: str
    members: tuple[str, ...]
    item: tuple[str, str] | None
    hands_to: tuple[str, ...]
    levers: tuple[str, ...]
    carries: Array
    checks: tuple[Check, ...]
    arrows: tuple[Arrow, ...] = ()

    @cached_property
    def use(self) -> Array:
        """Return the greatest use of its checks."""
        return _greatest([check.use for check in self.checks])

    @cached_property
    def bare_use(self) -> Array:
        """Return the same with every factor set to 1: at 1 it would be expected to fail."""
        return _greatest([check.use / np.asarray(check.factor, dtype=float) for check in self.checks])


@dataclass(frozen=True)
class Remark:
    """Something a gardener should know that is not a matter of strength; a text key with its numbers."""

    key: str
    level: Level
    values: Mapping[str, tuple[float, str]] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)
    source: str = "handbook-parts-4.1"
    levers: tuple[str, ...] = ()


@dataclass(frozen=True)
class Service:
    """A movement that is judged in the working wind, not as strength: amount over cases against a limit. [m]"""

    key: str
    amount: Array
    limit: float
    source: str
    levers: tuple[str, ...]


def _greatest(uses: list[Array]) -> Array:
    result = uses[0]
    for use in uses[1:]:
        result = np.maximum(result, use)
    return result
