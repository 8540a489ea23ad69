"""What the API takes and gives of a garden and its plan."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from ascent.analysis.design import State
from ascent.ground.clashes import Gap, Warned
from ascent.ground.plot import PlotDrawing
from ascent.log.line import LONGEST
from ascent.plan.bed import (
    MOST_PAST,
    BareBed,
    BedKind,
    BedLength,
    BedTop,
    BedWidth,
    FillDepth,
    GrewHere,
    Tested,
)
from ascent.plan.climate import Warmth
from ascent.plan.entries import MOST_PHOTOS, EntryKind
from ascent.plan.features import Feature, FeatureKind
from ascent.plan.fields import (
    MOST_ALIKE,
    Bearing,
    ClimateKey,
    CropKey,
    Currency,
    ExposureKey,
    Joining,
    Key,
    Metres,
    MonthDay,
    Name,
    Note,
    PlantCount,
    PlantGust,
    Points,
    SeasonYear,
    Side,
    SoilKey,
    StepKey,
    Training,
    Typed,
    counted_first,
)
from ascent.plan.needs import KeptNeed, Others, Wants
from ascent.plan.place import MOST_TAUGHT, Careful, Heeded, Place, Taught, VisitDays
from ascent.plan.record import (
    MOST_DIFFERING,
    MOST_MARKS,
    MOST_STEPS,
    MOST_STORMS,
    DayKey,
    Differs,
    Finding,
    Found,
    Marked,
    PullTest,
    TaskKey,
    Tick,
)
from ascent.plan.shed import Condition, Stock, StockAge, StockCount, StockTable, Sure
from ascent.plan.structure import AsBuilt, Options
from ascent.report.changes import Difference
from ascent.report.readout import CutReport, PartReport, PricesReport
from ascent.words.quantities import System
from pydantic import Field

from .people import Role

MOST_EDITS = 400
MOST_LINES = 50
MOST_TEXT = 6_000_000
Act = Literal["add", "change", "remove"]
Revision = Annotated[int, Field(ge=0, le=10**9)]


class PlaceChange(Typed):
    """What changes of a garden's own fields; what is left out stays."""

    name: Name | None = None
    latitude: float | None = Field(None, ge=-66.0, le=66.0)
    last_frost: MonthDay | None = None
    first_frost: MonthDay | None = None
    frost_spread: float | None = Field(None, ge=2.0, le=40.0)
    careful: Careful | None = None
    warmth: Warmth | None = None
    visits: VisitDays | None = None
    people: int | None = Field(None, ge=1, le=500)
    visit_hour: int | None = Field(None, ge=0, le=23)
    timezone: Annotated[str, Field(max_length=64)] | None = None
    year: SeasonYear | None = None
    exposure: ExposureKey | None = None
    climate: ClimateKey | None = None
    design_gust: PlantGust | None = None
    units: System | None = None
    currency: Currency | None = None
    prices: dict[Annotated[str, Field(max_length=64)], Annotated[float, Field(ge=0.0, le=1e6)]] | None = (
        Field(None, max_length=500)
    )
    path_width: float | None = Field(None, ge=0.3, le=3.0)
    hour: float | None = Field(None, ge=0.0, le=1e4)
    taught: tuple[Taught, ...] | None = Field(None, max_length=MOST_TAUGHT)
    ignores: tuple[Heeded, ...] | None = Field(None, max_length=3)


class BedChange(Typed):
    """What changes of a bed; what is left out stays."""

    name: Name | None = None
    kind: BedKind | None = None
    length: BedLength | None = None
    width: BedWidth | None = None
    bearing: Bearing | None = None
    x: Metres | None = None
    y: Metres | None = None
    board: float | None = Field(None, ge=0.0, le=0.3)
    soil: SoilKey | None = None
    top: BedTop | None = None
    fill: SoilKey | None = None
    fill_depth: FillDepth | None = None
    exposure: ExposureKey | None = None
    tested: Tested | None = None
    past: tuple[GrewHere, ...] | None = Field(None, max_length=MOST_PAST)


class FeatureChange(Typed):
    """What changes of a feature; what is left out stays."""

    name: Name | None = None
    kind: FeatureKind | None = None
    points: Points | None = None
    width: float | None = Field(None, ge=0.005, le=20.0)
    depth: float | None = Field(None, ge=0.0, le=5.0)
    height: float | None = Field(None, ge=0.3, le=6.0)


class StructureChange(Typed):
    """What changes of a structure: its bed, its place, single options; what is left out stays.

    planted: on which day plantings of it are planted, by their keys.
    """

    name: Name | None = None
    bed: Key | None = None
    along: Metres | None = None
    across: Metres | None = None
    turn: Bearing | None = None
    options: Options | None = None
    planted: dict[Key, dt.date] | None = Field(None, max_length=4)
    built: AsBuilt | None = None


class RecordChange(Typed):
    """What changes of a record; what is left out stays, a tick or something differing of null goes."""

    name: Name | None = None
    structure: Key | None = None
    begun: dt.date | None = None
    joining: Joining | None = None
    ticks: dict[StepKey, Tick | None] | None = Field(None, max_length=MOST_STEPS)
    differs: dict[Annotated[str, Field(max_length=160)], Differs | None] | None = Field(
        None, max_length=MOST_DIFFERING
    )
    pulls: dict[Annotated[str, Field(max_length=80)], PullTest | None] | None = Field(None, max_length=40)
    stands: dt.date | None = None


class DiaryChange(Typed):
    """What changes of a diary; what is left out stays, a mark or a finding of null goes."""

    name: Name | None = None
    structure: Key | None = None
    marks: dict[TaskKey, Marked | None] | None = Field(None, max_length=MOST_MARKS)
    storms: dict[DayKey, Found | None] | None = Field(None, max_length=MOST_STORMS)


class StockChange(Typed):
    """What changes of something in the shed; what is left out stays, a measure of null is that of the row."""

    name: Name | None = None
    table: StockTable | None = None
    item: Annotated[str, Field(max_length=64)] | None = None
    width: float | None = None
    depth: float | None = None
    thickness: float | None = None
    height: float | None = None
    length: float | None = None
    count: StockCount | None = None
    age: StockAge | None = None
    condition: Condition | None = None
    strength: float | None = Field(None, ge=0.1, le=1.5)
    sure: Sure | None = None
    in_use: Note | None = None


class NeedChange(Typed):
    """What changes of a kept need; what is left out stays."""

    name: Name | None = None
    bed: Key | None = None
    crop: CropKey | None = None
    count: PlantCount | None = None
    side: Side | None = None
    training: Training | None = None
    others: Others | None = None
    beds: Annotated[tuple[Key, ...], Field(max_length=MOST_ALIKE - 1)] | None = None
    host: Key | None = None
    wants: Wants | None = None


Picture = Annotated[str, Field(max_length=4_100_000)]


class EntryChange(Typed):
    """What an entry of the log says, or a line from which it is read; what is left out stays."""

    line: str | None = Field(None, max_length=LONGEST)
    kind: EntryKind | None = None
    on: dt.date | None = None
    at: dt.datetime | None = None
    who: Annotated[str, Field(max_length=80)] | None = None
    bed: Key | None = None
    structure: Key | None = None
    member: Annotated[str, Field(max_length=80)] | None = None
    crop: CropKey | None = None
    mass: float | None = None
    count: int | None = None
    moved: float | None = None
    height: float | None = None
    pull: float | None = None
    volume: float | None = None
    minutes: float | None = None
    gust: float | None = None
    low: float | None = None
    waits: int | None = None
    cost: float | None = None
    found: Finding | None = None
    mends: Key | None = None
    what: Annotated[str, Field(max_length=120)] | None = None
    note: Annotated[str, Field(max_length=400)] | None = None
    pictures: Annotated[tuple[Picture, ...], counted_first(MOST_PHOTOS)] | None = Field(
        None, description="photos to be added to it, as files in base64"
    )


class PlaceEdit(Typed):
    """A change of a garden's own fields."""

    kind: Literal["place"]
    revision: Revision | None = None
    change: PlaceChange


class ThingEdit(Typed):
    """What every edit of a thing has: the thing, what is done with it, and the revision it started from."""

    act: Act = "change"
    key: Key
    copy_of: Key | None = None
    revision: Revision | None = None


class BedEdit(ThingEdit):
    """A bed added (as a copy, with what stands on it, when `copy_of` names one), changed, or removed with
    what stands on it.
    """

    kind: Literal["bed"]
    change: BedChange = Field(default_factory=BedChange)


class FeatureEdit(ThingEdit):
    """A feature added, copied, changed or removed."""

    kind: Literal["feature"]
    change: FeatureChange = Field(default_factory=FeatureChange)


class StructureEdit(ThingEdit):
    """A structure copied, moved, changed or removed; one is added by planning a support on a bed."""

    kind: Literal["structure"]
    change: StructureChange = Field(default_factory=StructureChange)


class StockEdit(ThingEdit):
    """Something in the shed added, copied, changed or removed."""

    kind: Literal["stock"]
    change: StockChange = Field(default_factory=StockChange)


class NeedEdit(ThingEdit):
    """A need kept, changed or forgotten."""

    kind: Literal["need"]
    change: NeedChange = Field(default_factory=NeedChange)


class RecordEdit(ThingEdit):
    """The record of a structure: begun, or written in where it has begun already; or taken away."""

    kind: Literal["record"]
    change: RecordChange = Field(default_factory=RecordChange)


class DiaryEdit(ThingEdit):
    """The diary of a structure: begun, or written in where it has begun already; or taken away."""

    kind: Literal["diary"]
    change: DiaryChange = Field(default_factory=DiaryChange)


class EntryEdit(ThingEdit):
    """An entry of the log written under a key of its sender’s own, corrected, or removed."""

    kind: Literal["entry"]
    change: EntryChange = Field(default_factory=EntryChange)


Edit = Annotated[
    PlaceEdit
    | BedEdit
    | FeatureEdit
    | StructureEdit
    | StockEdit
    | NeedEdit
    | RecordEdit
    | DiaryEdit
    | EntryEdit,
    Field(discriminator="kind"),
]


class EditsIn(Typed):
    """Edits that are saved together or not at all."""

    edits: Annotated[tuple[Edit, ...], Field(min_length=1, max_length=MOST_EDITS), counted_first(MOST_EDITS)]


class DraftEditsIn(Typed):
    """Edits to look at; nothing is stored. `about` is the thing whose distances are wanted."""

    edits: Annotated[tuple[Edit, ...], Field(max_length=MOST_EDITS), counted_first(MOST_EDITS)] = ()
    about: str = Field("", max_length=64)


class LinesAsked(Typed):
    """The structures whose lines are wanted; all when none is named."""

    keys: list[Annotated[str, Field(max_length=64)]] = Field(default_factory=list, max_length=MOST_LINES)


class StructureLine(Typed):
    """How a structure stands: how strong, what goes first, when; without a state where that cannot be
    calculated.
    """

    key: str
    crops: str
    state: State | None
    words: str
    limit: str
    forecast: str
    design: str
    required_m_s: float
    once: str
    weakest: str
    week: str
    cost: str
    broken: str = Field("", description="what of it is broken and not repaired, in words")
    season: list[tuple[float, float]] = Field(
        description="limit gust and rough week’s gust, week by week, m/s"
    )


class StructureRow(Typed):
    """A structure as the plan and the list know it."""

    id: int
    key: str
    revision: int
    written: dict[str, str]
    name: str
    bed: str
    crops: str
    along: float
    across: float
    turn: float
    stretch: str
    length: float
    built: str = Field(description="how far it is built, in words; empty where building has not begun")


class WrittenGust(Typed):
    """A gust at the plant, m/s, and how it is written."""

    value: float
    text: str


class BedRow(Typed):
    """A bed as the plan and the list know it."""

    key: str
    revision: int
    written: dict[str, str]
    words: str
    gust: WrittenGust
    sides: dict[str, str]
    fields: BareBed


class FeatureRow(Typed):
    """A feature as the plan and the list know it."""

    key: str
    revision: int
    written: dict[str, str]
    words: str
    fields: Feature


class NeedRow(Typed):
    """A need that is kept for a bed, and what it asks for in a line."""

    key: str
    revision: int
    words: str
    gust: str = Field(description="the gust it is to hold to, as written; empty where none is said")
    headroom: str = Field(
        description="the clear height wanted under it, as written; empty where none is said"
    )
    fields: KeptNeed


class PlaceRow(Typed):
    """A garden's own fields, and how its gust is written."""

    revision: int
    written: dict[str, str]
    design_gust: float
    design_gust_text: str
    fields: Place


class UnreadableRow(Typed):
    """A thing whose document cannot be read: why, and its text as it is kept."""

    kind: str
    key: str
    name: str
    revision: int
    why: str
    text: str


class GardenShown(Typed):
    """A garden as everybody sees it: its own fields, what is on its plan, and what is in the way."""

    id: int
    owner: str
    name: str
    units: System
    number: int
    place: PlaceRow
    beds: list[BedRow]
    features: list[FeatureRow]
    structures: list[StructureRow]
    needs: list[NeedRow]
    plot: PlotDrawing
    room: tuple[float, float] = Field(description="the north-west corner of free ground for something new")
    next_bed: BareBed = Field(description="a new bed, where it would lie")
    warnings: tuple[Warned, ...]
    unreadable: list[UnreadableRow] = Field(description="what is stored and cannot be shown")


class Own(Typed):
    """What of a garden is whoever asks's own: what they may do in it, and what they can undo."""

    role: Role
    undo: str | None
    redo: str | None


class GardenOut(GardenShown, Own):
    """A garden, and what the person can undo."""


class GardenDifference(Own):
    """What of a garden is otherwise than it was at a number: things that came or changed, of each kind; keys
    of those that are gone; the order of all where any came or went. What is said of nothing is the same.
    """

    since: int
    number: int
    name: str
    units: System
    place: PlaceRow
    beds: list[BedRow]
    features: list[FeatureRow]
    structures: list[StructureRow]
    needs: list[NeedRow]
    gone: list[str]
    order: list[str] | None
    plot: PlotDrawing = Field(description="the marks that differ")
    undrawn: list[str] = Field(description="keys of marks that are gone")
    room: tuple[float, float]
    next_bed: BareBed
    warnings: tuple[Warned, ...] | None
    unreadable: list[UnreadableRow] | None


class GardenSince(Typed):
    """What of a garden differs from a number, or all of it where that number is no longer known."""

    difference: GardenDifference | None
    garden: GardenOut | None


class EditsOut(Typed):
    """What edits have made of the garden since the number before them, the keys of what was added, and the
    revisions that later edits start from.
    """

    changed: GardenDifference
    made: list[str]
    revisions: dict[str, int] = Field(
        description="of what was changed, by kind and key, as these edits left it"
    )


class PlotOut(Typed):
    """A plan that is not stored: what of it is drawn otherwise than in the stored one, its warnings and the
    distances of one thing.
    """

    plot: PlotDrawing = Field(description="the marks that differ")
    gone: tuple[str, ...] = Field(description="keys of what is no longer there")
    warnings: tuple[Warned, ...]
    gaps: tuple[Gap, ...]
    written: dict[str, str] = Field(description="every field of the thing it is about, as it is written")
    problems: tuple[str, ...] = ()


class ThingConflict(Typed):
    """A thing that someone else changed meanwhile: its present revision, and fields that differ (before:
    theirs, after: mine).
    """

    kind: str
    key: str
    name: str
    revision: int | None = Field(description="null when it was taken away")
    differences: list[Difference]


class Conflict(Typed):
    """Edits that were not saved: the garden as it is now, and what stands against them."""

    garden: GardenOut
    things: list[ThingConflict]


class ChangeOut(Typed):
    """One entry of a garden's history."""

    number: int
    when: dt.datetime
    who: str
    way: str
    words: str


class Past(Typed):
    """A garden as it was after a change, and what has become of it since, in words."""

    number: int
    when: dt.datetime | None
    who: str
    words: str
    plot: PlotDrawing
    since: list[str]


class BedShade(Typed):
    """Hours of sun of a bed, in words."""

    bed: str
    text: str
    lost: float
    open: float


class ShadeOut(Typed):
    """The sun and the shadows at an hour of a day."""

    words: str
    altitude: float
    azimuth: float
    rises: float
    sets: float
    shadows: list[tuple[tuple[tuple[float, float], ...], float]] = Field(
        description="outline and cover of each shadow"
    )
    beds: list[BedShade]


class StockRow(Typed):
    """Something in the shed: what it is and still bears, how much of it is free, and who has the rest.

    item: its key as options name it, for the roles it may have. free: pieces, or metres of what is cut from a
    roll or coil. planned: whether it is built with.
    """

    key: str
    revision: int
    written: dict[str, str]
    fields: Stock
    item: str
    roles: list[str]
    words: str
    state: str
    amount_text: str
    free: float
    free_text: str
    planned: bool
    used_by: list[str]


class ShedOut(Typed):
    """A garden's shed."""

    id: int
    role: Role
    name: str
    units: System
    rows: list[StockRow]
    unreadable: list[str] = Field(description="names of what is stored and cannot be read")


class DownIn(Typed):
    """A structure to take down: how many seasons it has stood."""

    seasons: int = Field(1, ge=0, le=60)


class StructureParts(Typed):
    """What one structure takes."""

    id: int
    name: str
    parts: tuple[PartReport, ...]
    cost: float


class GardenParts(Typed):
    """What a whole garden takes: together, every pack rounded once, and by structure."""

    currency: str
    together: tuple[PartReport, ...]
    cuts: tuple[CutReport, ...] = Field(description="how stock is cut, over all structures")
    shelves: dict[str, str] = Field(description="what a shop’s shelves are called, by key, in their order")
    cost: float
    apart: float = Field(description="what the structures cost bought one by one")
    saved_text: str
    structures: list[StructureParts]
    cautions: list[str]


class SupplierOut(Typed):
    """A supplier's price list: what it would change, its text to take in, and the state of the garden it was
    looked at in.
    """

    report: PricesReport
    text: str
    number: int


class ArchiveOut(Typed):
    """The garden file of an archive whose photos are kept."""

    text: str


class ImportIn(Typed):
    """A file's text to take in: a plan, or a table of beds, plantings or materials."""

    what: Literal["plan", "beds", "plantings", "materials", "shed", "log", "prices"] = "plan"
    text: str = Field(max_length=MOST_TEXT)
    take_away: bool = Field(False, description="also take away what the file does not have")


class ImportLine(Typed):
    """One thing that an import adds, changes or takes away."""

    act: Act
    words: str


class ImportOut(Typed):
    """What an import does, before it does it; `number` says which state of the garden that was calculated
    from.
    """

    number: int
    lines: list[ImportLine]


class ImportDo(ImportIn):
    """An import that was looked at."""

    number: Revision


class Method(Typed):
    """How Ascent calculates, as HTML."""

    html: str
