"""What the API takes and gives of one structure on the bench, and of pickers."""

from __future__ import annotations

import datetime as dt
from typing import Annotated

from ascent.plan.features import FeatureKind
from ascent.plan.fields import MOST_ALIKE, ExposureKey, Joining, Key, Name, SoilKey, Typed
from ascent.plan.needs import First, Grown, Others, Wants
from ascent.plan.record import Tick
from ascent.plan.shed import MOST_TAKEN, Taken
from ascent.plan.structure import AsBuilt, Covered, Options, Plantings
from ascent.report.build_readout import BuildReport
from ascent.report.changes import Difference
from ascent.report.choosing import PlaceReport
from ascent.report.divides import DivideReport
from ascent.report.readout import Report, SizingWanted
from ascent.sizing.choose import Figures
from ascent.sizing.offer import Support
from ascent.words.quantities import Kind, System
from pydantic import Field


class ProblemOut(Typed):
    """One wrong field."""

    path: str
    given: str
    allowed: str
    suggestion: str


class Problems(Typed):
    """Every wrong field of a request."""

    problems: list[ProblemOut]


class Draft(Typed):
    """A structure as it stands on the bench, with what the bench changes of its bed."""

    name: Name
    options: Options
    plantings: Plantings
    soil: SoilKey
    exposure: ExposureKey
    taken: tuple[Taken, ...] = Field((), max_length=MOST_TAKEN)
    covers: tuple[Covered, ...] = Field((), max_length=3)


class StructureOut(Typed):
    """A structure on the bench."""

    id: int
    key: str
    garden: int
    bed: str
    bed_name: str
    family: str
    sides: dict[str, str]
    units: System
    currency: str
    revision: int
    may_edit: bool
    broken: str = Field("", description="what of it is broken and not repaired, in words")
    draft: Draft


class StructureConflict(Typed):
    """What someone else saved meanwhile, and the fields in which it differs from what was sent (before:
    theirs).
    """

    saved: StructureOut
    differences: list[Difference]


class DraftIn(Typed):
    """A draft to evaluate in the week of a day, or in its worst."""

    draft: Draft
    day: dt.date | None = None


class SensitivityIn(Typed):
    """A draft of which is asked what it rests on."""

    draft: Draft


class SizingIn(Typed):
    """A draft to size, and for what."""

    draft: Draft
    wanted: SizingWanted = SizingWanted()


class TakeIn(Typed):
    """A draft that is to have of the shed what fits it, or nothing."""

    draft: Draft
    have: bool = True


class TakenOut(Typed):
    """What a draft has of the shed, and what that saves."""

    taken: tuple[Taken, ...]
    words: str


class FixesIn(Typed):
    """A draft and the link to mend."""

    draft: Draft
    link: str = Field(max_length=40)


class SolidIn(Typed):
    """A draft to look at from all sides, in the week of a day or in its worst."""

    draft: Draft
    day: dt.date | None = None


class CurveIn(Typed):
    """A draft, and the option whose range is asked for."""

    draft: Draft
    option: str = Field(max_length=64)


class WishIn(Typed):
    """What is wished of a draft: its family's wish, with its numbers, SI."""

    draft: Draft
    wish: str = Field(max_length=40)
    wanted: dict[Annotated[str, Field(max_length=40)], float] = Field(max_length=20)


class SaveIn(Typed):
    """A draft to save, and the revision it started from."""

    draft: Draft
    revision: int = Field(ge=0, le=10**9)


class Chosen(Typed):
    """A way of building that was chosen: its name, options and plants."""

    name: Name
    options: Options
    plantings: Plantings


class WantedIn(Grown):
    """What a gardener wants to grow on a bed, on whatever supports it: one crop or several, on beds alike or
    over the path between two, along a wall or a fence.
    """

    others: Others = ()
    beds: Annotated[tuple[Key, ...], Field(max_length=MOST_ALIKE - 1)] = ()
    host: Key | None = None


class NeedIn(WantedIn):
    """What a gardener wants to grow on a bed, and on which kind of support; with its options and plants where
    those were chosen already.
    """

    family: str = Field(max_length=40)
    chosen: Chosen | None = None
    shed: bool = Field(True, description="whether it has what the shed has free for it")


class ChooseIn(WantedIn):
    """What a gardener wants to grow on a bed, and what matters of its support."""

    wants: Wants = Wants()
    closely: bool = Field(True, description="whether to look on, or only for a moment")


class OrderIn(Typed):
    """Ways of building that will do, to be put in order by what comes first."""

    first: First = "per-season"
    ways: Annotated[dict[Annotated[str, Field(max_length=40)], Figures], Field(max_length=40)]


class DividesIn(OrderIn):
    """A way of building that was chosen, and the figures of all that will do."""

    need: NeedIn


class DividesOut(Typed):
    """The choices that divide growers, as they come out here."""

    divides: tuple[DivideReport, ...]


class OrderOut(Typed):
    """Ways of building in order, each with why."""

    places: tuple[PlaceReport, ...]


class AlikeOut(Typed):
    """A bed like the one that is asked about; `path` says how wide the path between them is, if one is."""

    key: str
    name: str
    path: str


class HostOut(Typed):
    """A wall or fence along a bed."""

    key: str
    name: str


class SupportsOut(Typed):
    """Every kind of support for a crop, those that suit it best first; which beds are alike, what walls and
    fences run along, and what a kind is sized by where it comes first. `failed`: what is said of each kind
    that could not be calculated. taught_said: what the log taught and they are calculated with.
    """

    supports: list[Support]
    taught_said: str
    failed: list[str]
    beds: list[AlikeOut]
    hosts: list[HostOut]
    sized_by: tuple[First, ...]


class ProposedValue(Typed):
    """A value filled in, and why."""

    option: str
    label: str
    value: str
    reason: str


class ProposalOut(Typed):
    """A structure with everything filled in."""

    draft: Draft
    values: list[ProposedValue]
    report: Report


class QuantityIn(Typed):
    """Text that a person wrote for a quantity, and what is allowed."""

    text: str = Field(max_length=60)
    kind: Kind
    system: System = "metric"
    low: float | None = None
    high: float | None = None
    exposure: ExposureKey | None = Field(None, description="for a gust at the plant: where it blows")


class QuantityOut(Typed):
    """The quantity in SI, as it is written, and what was assumed in reading it."""

    value: float
    text: str
    said: str


class Choice(Typed):
    """One value of a list."""

    key: str
    name: str
    roles: list[str]
    gain: str = Field("", description="what this side of a choice gains")


class OptionField(Typed):
    """One option of a family: what it is called, how it is edited, what is allowed."""

    name: str
    label: str
    group: str
    kind: str
    step: float
    low: float | None
    high: float | None
    table: str
    role: str
    when_option: str
    when_is: list[str]
    choices: list[Choice]
    help: str


class Bounds(Typed):
    """What is allowed of a quantity, SI."""

    low: float
    high: float


class AskField(Typed):
    """One number of a wish: what it is called, how it is edited, what is allowed, SI."""

    name: str
    label: str
    kind: Kind
    start: float
    low: float
    high: float
    step: float


class WishField(Typed):
    """What may be asked of a family the other way round."""

    key: str
    name: str
    asks: list[AskField]


class FamilyOut(Typed):
    """A family's options in order, and its wishes."""

    key: str
    name: str
    noun: str
    options: list[OptionField]
    wishes: list[WishField]


class FeatureChoice(Typed):
    """A kind of thing on the plan: what it is called, which sort it is, how wide one starts, and how long (0:
    as the plan is long).
    """

    key: FeatureKind
    name: str
    group: str
    width: float
    length: float
    round: bool


class LineIn(Typed):
    """A thing of the shed as it is written in one line."""

    text: str = Field(max_length=200)


class Catalogue(Typed):
    """Everything a picker lists."""

    bed_kinds: list[Choice]
    bed_tops: list[Choice]
    feature_kinds: list[FeatureChoice]
    crops: list[Choice]
    soils: list[Choice]
    exposures: list[Choice]
    climates: list[Choice]
    covers: list[Choice]
    waters: list[Choice]
    rains: list[Choice]
    tools: list[Choice] = Field(description="tools that not everybody has")
    tables: dict[str, list[Choice]]
    stocked: list[Choice] = Field(description="the tables of what a shed may hold")
    measures: dict[str, list[str]] = Field(description="by table, what a thing of one’s own may measure")
    families: list[FamilyOut]
    bounds: dict[str, Bounds] = Field(
        description="of what is no option: ‘planting.count’, ‘bed.length’ and so on"
    )


class RecordRow(Typed):
    """What was done of a structure: its record's key and revision, and its ticks by step."""

    key: str
    revision: int
    begun: dt.date
    joining: Joining
    ticks: dict[str, Tick]
    stands: dt.date | None


class ScaleOut(Typed):
    """What hangs on the scale: its pull [N], and as a weight [kg]."""

    name: str
    pull: float
    text: str
    mass: float
    mass_text: str


class BuildOut(Typed):
    """How a structure is built.

    kept: what is kept of it when building begins.
    """

    id: int
    key: str
    garden: int
    bed: str
    units: System
    may_edit: bool
    record: RecordRow | None
    kept: AsBuilt
    report: BuildReport


class Nothing(Typed):
    """An empty answer, against which the live edit is measured."""

    ok: bool = True
