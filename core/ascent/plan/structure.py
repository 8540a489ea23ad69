"""A structure: a support of a family, its options and plantings, as planned and as built."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import Field, field_validator

from .fields import (
    Bearing,
    CropKey,
    Key,
    Metres,
    MonthDay,
    Named,
    PlantCount,
    PlantSpacing,
    SeasonYear,
    Side,
    Training,
    Typed,
    _key_of,
    counted_first,
)
from .shed import MOST_TAKEN, Taken

Raised = Literal["usual", "sown", "potted"]


class Planting(Typed):
    """A crop on a structure; its key stays its own as long as it grows there."""

    key: Key
    crop: CropKey
    count: PlantCount
    spacing: PlantSpacing = Field(description="between neighbours of one line, m")
    side: Side = "right"
    training: Training = "pruned"
    planted: MonthDay
    year: SeasonYear | None = Field(
        None, description="in which it is planted; that of the garden's season where it is left out"
    )
    raised: Raised = Field("usual", description="whether it is sown where it stands or raised in pots")
    along: Metres = Field(0.0, description="its middle from the row’s middle, along the row, m")

    def path(self, field: str) -> str:
        """Return where a field of it is found in its structure."""
        return f"plantings.{self.key}.{field}"


Options = Annotated[dict[Annotated[str, Field(max_length=64)], Any], Field(max_length=100)]
Plantings = Annotated[tuple[Planting, ...], Field(min_length=1, max_length=4), counted_first(4)]


class Covered(Typed):
    """A cloth or film over a structure from one day to another, each year."""

    cover: Annotated[str, _key_of("covers")]
    on: MonthDay
    off: MonthDay


class Build(Typed):
    """A support of a family, with its options, what grows on it, and where in its bed it stands."""

    family: Annotated[str, Field(max_length=64)]
    options: Options
    plantings: Plantings
    covers: Annotated[tuple[Covered, ...], Field(max_length=3), counted_first(3)] = ()
    along: Metres = Field(0.0, description="its middle from the bed's middle, along the bed's bearing, m")
    across: Metres = Field(
        0.0, description="its middle from the bed's middle, to the left of the bed's bearing, m"
    )
    turn: Bearing = Field(0.0, description="its row from the bed's bearing, clockwise, degrees")

    @field_validator("plantings")
    @classmethod
    def _plantings_apart(cls, plantings: tuple[Planting, ...]) -> tuple[Planting, ...]:
        keys = [planting.key for planting in plantings]
        if twice := next((key for key in keys if keys.count(key) > 1), ""):
            raise ValueError(f"a key of its own for each planting is allowed; ‘{twice}’ stands for two")
        return plantings


class AsBuilt(Build):
    """A structure as it was built on a day, kept as it was then while its plan goes on; what it had of the
    shed then, where that was kept.
    """

    on: dt.date
    taken: Annotated[tuple[Taken, ...], Field(max_length=MOST_TAKEN), counted_first(MOST_TAKEN)] | None = None


class Structure(Build, Named):
    """One support as it is planned, and as it was built where it has been."""

    taken: Annotated[tuple[Taken, ...], Field(max_length=MOST_TAKEN), counted_first(MOST_TAKEN)] = ()
    built: AsBuilt | None = None


def as_it_stands(structure: Structure) -> Structure:
    """Return a structure as it was built, with the plantings of its plan and nothing taken from the shed."""
    built = structure.built
    own = {"options": built.options, "family": built.family} if built else {}
    return structure.model_copy(update={**own, "taken": (), "built": None})
