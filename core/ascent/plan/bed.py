"""A bed, its soil and what grew on it."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from pydantic import Field

from .fields import (
    Bearing,
    CropKey,
    ExposureKey,
    Metres,
    Named,
    Note,
    SeasonYear,
    SoilKey,
    Typed,
    counted_first,
)
from .structure import Structure

MOST_STRUCTURES, MOST_STANDING = 600, 250  # in a garden, on one bed
MOST_PAST = 120  # crops of a bed
BedLength = Annotated[float, Field(ge=0.3, le=60.0)]
BedWidth = Annotated[float, Field(ge=0.2, le=20.0)]
FillDepth = Annotated[float, Field(ge=0.0, le=1.2)]
BedKind = Literal["in-ground", "raised", "container", "straw-bale"]
BedTop = Literal["dug", "undisturbed"]


class Tested(Typed):
    """What a pull test says of a bed's soil, as so many times what is assumed of it."""

    on: dt.date
    grip: float = Field(1.0, ge=0.2, le=5.0)
    stiffness: float = Field(1.0, ge=0.2, le=5.0)


class GrewHere(Typed):
    """What grew on a bed in a season that is over: its crop, on which structure, what was seen of it."""

    year: SeasonYear
    crop: CropKey
    structure: Annotated[str, Field(max_length=64)] = ""
    fault: Note = ""


class BareBed(Named):
    """Ground to grow in, without what stands on it: a bed's own fields."""

    kind: BedKind = "in-ground"
    length: BedLength = Field(description="along the row, m")
    width: BedWidth = Field(description="m")
    bearing: Bearing = Field(90.0, description="direction of the bed's length from north, clockwise, degrees")
    x: Metres = Field(0.0, description="the bed's middle, east of the plan's origin, m")
    y: Metres = Field(0.0, description="the bed's middle, north of the plan's origin, m")
    board: float = Field(0.038, ge=0.0, le=0.3, description="thickness of its boards or sides, m")
    soil: SoilKey = "firm_loam"
    top: BedTop = Field("dug", description="whether its top is dug over each year or left as it lies")
    fill: SoilKey = "raised_bed_mix"
    fill_depth: FillDepth = Field(0.0, description="bed fill above native soil, m")
    exposure: ExposureKey | None = None
    tested: Tested | None = None
    past: Annotated[tuple[GrewHere, ...], counted_first(MOST_PAST)] = ()

    @property
    def volume(self) -> float:
        """Return how much a container or the fill of a bed holds, m³."""
        return self.length * self.width * self.raised_by

    @property
    def raised_by(self) -> float:
        """Return how much fill stands above the native soil, m."""
        return 0.0 if self.kind == "in-ground" else self.fill_depth


class Bed(BareBed):
    """A bed with its structures."""

    structures: Annotated[
        tuple[Structure, ...], Field(max_length=MOST_STANDING), counted_first(MOST_STANDING)
    ] = ()
