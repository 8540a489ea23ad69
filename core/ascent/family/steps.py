"""What is done to build a support: steps in the order people work, each with what it sets and hits."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

Quantity = tuple[float, str]


@dataclass(frozen=True)
class Hit:
    """A measure to hit: a text key of its own, what it should be and how far off it may come out.

    within: in the value's own kind; 0 where the value is a bound that is not to be passed.
    """

    key: str
    value: Quantity
    within: float = 0.0


@dataclass(frozen=True)
class Step:
    """One piece of work.

    row: of steps.csv, which says what is done.
    members: keys of the members it sets.
    supplies: keys of what it uses that has no place of its own.
    differs: options that may come out otherwise in it than planned.
    key: its own within the structure; the row where it is done once.
    words: put into its title.
    hands: people needed, where the row does not say it.
    """

    row: str
    members: tuple[str, ...] = ()
    supplies: tuple[str, ...] = ()
    hits: tuple[Hit, ...] = ()
    differs: tuple[str, ...] = ()
    key: str = ""
    words: Mapping[str, str] = field(default_factory=dict)
    hands: int = 0

    @property
    def own_key(self) -> str:
        """Return its key within the structure."""
        return self.key or self.row


@dataclass(frozen=True)
class Joined:
    """Whether a family is usually joined on the ground or in place; texts `joined.<key>` say why, either way.

    Source: handbook-parts-3.4, 3.5, 3.8, 3.11
    """

    key: str
    usual: Literal["ground", "place"]
