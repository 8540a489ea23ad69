"""Wishes: the result is given, and the options that reach it are sought."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from ..plan.structure import Structure
from ..site import Site
from ..words.quantities import Kind


@dataclass(frozen=True)
class Ask:
    """One number of a wish, SI: what it is, where it starts and what is allowed."""

    name: str
    kind: Kind
    start: float
    low: float
    high: float
    step: float


@dataclass(frozen=True)
class Suggestion:
    """One way towards a wish: the sentences that tell it, whether it gets there, the options to change, what
    comes of it.
    """

    says: tuple[str, ...]
    reaches: bool
    changes: Mapping[str, float]
    values: Mapping[str, tuple[float, str]]


@dataclass(frozen=True)
class Wish:
    """What a gardener may ask of a structure the other way round: the result given, the options sought.

    ways: from the numbers wanted, a family's options, the structure and its site to the ways there, the best
    first.
    """

    key: str
    asks: tuple[Ask, ...]
    ways: Callable[[Mapping[str, float], Any, Structure, Site], tuple[Suggestion, ...]]
