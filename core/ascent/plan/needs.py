"""What is to grow, and what matters of its support."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .fields import (
    MOST_ALIKE,
    CropKey,
    Key,
    Named,
    PlantCount,
    PlantGust,
    Side,
    ToolKey,
    Training,
    Typed,
    counted_first,
)

MOST_NEEDS = 200
First = Literal["per-season", "cost", "strength", "work", "life", "own", "looks"]


class Wants(Typed):
    """What matters to whoever builds: what comes first, and what must be kept. Nothing said of it asks
    nothing.

    first: what kinds are ordered by. gust: at the plant that it should hold to; that of once in ten seasons
    where none is said. [m/s] money: for all parts. years: seasons it will be used. minutes: of one
    adult's work. people: there to build. reach: how high one ties and picks. [m] headroom: clear height
    that whoever walks under it must have. [m] pulled: whether children
    or others may pull on it. tools: keys of the tools at hand, where that is said; what else is needed is
    bought. wall: whether
    a wall, fence or pole stands there to fix it to. shed: whether what the shed has free is built with.
    """

    first: First = "per-season"
    gust: PlantGust | None = None
    money: float | None = Field(None, ge=0, le=1e6)
    years: int = Field(10, ge=1, le=40)
    minutes: int | None = Field(None, ge=10, le=10_000)
    people: int | None = Field(None, ge=1, le=10)
    reach: float | None = Field(None, ge=0.8, le=2.6)
    moves: bool = False
    both_faces: bool = False
    no_digging: bool = False
    heads_pass: bool = False
    headroom: float | None = Field(None, ge=1.0, le=2.4)
    pulled: bool = False
    tools: Annotated[tuple[ToolKey, ...], Field(max_length=20)] | None = None
    wall: bool = False
    shed: bool = True


class Grown(Typed):
    """A crop that is wanted on a support; as many as fit where no count is said."""

    crop: CropKey
    count: PlantCount | None = None
    side: Side = "right"
    training: Training = "pruned"


Others = Annotated[tuple[Grown, ...], Field(max_length=3), counted_first(3)]


class KeptNeed(Named, Grown):
    """What somebody wants to grow on a bed and what matters of its support, kept to be looked at again.

    others: what grows on the same support. beds: others like its bed that each get the same, or the one
    across a path. host: a wall or fence of the plan that it may be fixed to.
    """

    bed: Key
    others: Others = ()
    beds: Annotated[tuple[Key, ...], Field(max_length=MOST_ALIKE - 1), counted_first(MOST_ALIKE - 1)] = ()
    host: Key | None = None
    wants: Wants = Wants()
