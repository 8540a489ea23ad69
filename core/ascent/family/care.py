"""What a structure asks of whoever tends it: jobs that come round as its crops grow."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

Quantity = tuple[float, str]
Until = Literal["end", "cover", "cool", "top", "pods"]


@dataclass(frozen=True)
class Care:
    """One job of one planting.

    job: row of jobs.csv.
    planting: which of the structure's.
    heights: of the canopy at which it falls due, once each. [m]
    first: days of growth after which it falls due first, where it is not due by height. [d]
    step: growth of the tip from one time to the next; 0 where only days count. [m]
    cap: most days from one time to the next; 0 where it is done once. [d]
    after: days after that height at which it falls due first. [d]
    times: most times; 0 for as long as it goes on.
    until: when it ends; ‘top’ falls due where the crop is as tall as it gets there.
    key: its own within the planting; the job where it is there once.
    values, words: put into its words.
    """

    job: str
    planting: int
    heights: tuple[float, ...] = ()
    first: float = 0.0
    step: float = 0.0
    cap: float = 0.0
    after: float = 0.0
    times: int = 0
    until: Until = "end"
    key: str = ""
    values: Mapping[str, Quantity] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)

    @property
    def own_key(self) -> str:
        """Return its key within its planting."""
        return self.key or self.job
