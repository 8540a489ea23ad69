"""The log of a garden: what happened in it, one entry each."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from pydantic import AfterValidator, Field, model_validator

from .. import tables
from .fields import CropKey, Degrees, Key, MemberKey, Typed, counted_first, written
from .record import Finding

MOST_ENTRIES = 40_000
MOST_PHOTOS = 6  # of one entry
MOST_WAITING = 120  # days between a treatment and picking

EntryKind = Literal[
    "harvest",
    "lean",
    "sag",
    "slip",
    "break",
    "repair",
    "storm",
    "frost",
    "sighting",
    "treatment",
    "water",
    "hours",
    "cost",
    "note",
    "photo",
]
EITHER: dict[str, tuple[str, ...]] = {"harvest": ("mass", "count")}  # of which a kind needs one
Text = Annotated[str, AfterValidator(written)]
Sha = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


class Entry(Typed):
    """One thing that happened: what, on which day, to what; which fields it has hangs on its kind.

    at: when it was written. bed, structure, member: where. mends: key of the break that a repair mends.
    said: the line that it was read from, where it was typed.
    """

    key: Key
    kind: EntryKind
    on: dt.date
    at: dt.datetime
    who: Annotated[Text, Field(max_length=80)] = ""
    bed: Key | None = None
    structure: Key | None = None
    member: MemberKey = ""
    crop: CropKey | None = None
    mass: float | None = Field(None, gt=0.0, le=10_000.0, description="picked, kg")
    count: int | None = Field(None, ge=1, le=100_000, description="pieces picked")
    moved: float | None = Field(
        None,
        ge=0.0,
        le=3.0,
        description="how far a post leans at that height, a wire sags, a joint slipped, m",
    )
    height: float | None = Field(None, ge=0.1, le=6.0, description="at which a lean is measured, m")
    pull: float | None = Field(None, gt=0.0, le=5000.0, description="level pull that moved it, N")
    volume: float | None = Field(None, gt=0.0, le=100.0, description="water given, m³")
    minutes: float | None = Field(None, gt=0.0, le=6000.0, description="work of one person, min")
    gust: float | None = Field(None, gt=0.0, le=100.0, description="strongest, where it was measured, m/s")
    low: Degrees | None = Field(None, description="lowest temperature, degC")
    waits: int | None = Field(
        None, ge=0, le=MOST_WAITING, description="days until picking, as the label says"
    )
    cost: float | None = Field(None, ge=0.0, le=1e6, description="in the garden’s currency")
    found: Finding | None = Field(None, description="how it was found after a storm")
    mends: Key | None = None
    what: Annotated[Text, Field(max_length=120)] = ""
    note: Annotated[Text, Field(max_length=400)] = ""
    said: Annotated[Text, Field(max_length=200)] = ""
    photos: Annotated[tuple[Sha, ...], counted_first(MOST_PHOTOS)] = ()

    @model_validator(mode="after")
    def _as_its_kind(self) -> Entry:
        row = tables.log_kinds()[self.kind]
        for name in OWN:
            if getattr(self, name) != NOTHING[name] and name not in row.fields:
                raise ValueError(f"{name}: no such field is allowed for {row.name.lower()}")
        for name in row.needs:
            if not getattr(self, name) and getattr(self, name) != 0:
                raise ValueError(f"{name}: it is needed for {row.name.lower()}")
        either = EITHER.get(self.kind, ())
        if either and all(getattr(self, name) is None for name in either):
            raise ValueError(f"{either[0]}: a weight or a number of pieces is needed")
        if row.about == "structure" and self.structure is None:
            raise ValueError(f"structure: {row.name.lower()} is of a support, and its key is needed")
        return self

    @property
    def kg(self) -> float | None:
        """Return what was picked; by the usual weight of a fruit where only pieces were counted. [kg]"""
        if self.mass is not None or self.crop is None or self.count is None:
            return self.mass
        each = tables.crops()[self.crop].fruit_kg
        return self.count * each if each else None


OWN = tuple(
    name
    for name in Entry.model_fields
    if name not in ("key", "kind", "on", "at", "who", "bed", "structure", "note", "said", "photos")
)  # what only some kinds have
NOTHING = {name: Entry.model_fields[name].default for name in OWN}
