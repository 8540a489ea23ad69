"""The plan: what is wanted, typed. It is also the plan file (versioned JSON)."""

from __future__ import annotations

import datetime as dt
import math
import re
import unicodedata
import zoneinfo
from typing import Annotated, Any, Literal

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    ValidationInfo,
    field_validator,
    model_validator,
)

from .. import tables
from ..errors import UnknownItem
from ..tables import own, rows
from ..words.quantities import System
from .upgrades import UNWRITTEN

FORMAT_VERSION: Literal[8] = 8
MAX_WEEKS = 56
MOST_PLANTS = 600
MOST_BEDS = MOST_FEATURES = 400
MOST_STRUCTURES, MOST_STANDING = 600, 250  # in a garden, on one bed
MOST_STOCK, MOST_TAKEN = 400, 60  # in a shed, from it for one structure
MOST_NEEDS = 200
MOST_RECORDS = 600
MOST_STEPS, MOST_DIFFERING = 60, 300  # of a record
MOST_SEEN = 120  # weeks
MOST_PAST = 120  # crops of a bed
MOST_TAUGHT = 200
LEAST_TAUGHT, MOST_TAUGHT_TIMES, WIDEST_TAUGHT = 0.1, 10.0, 2.0  # times, times, spread of its logarithm
_QUARTILE = 0.6745  # standard deviations
GROUND = ("soil", "skin", "anchor")  # of uncertainties.csv: what is of the ground, bed by bed
MOST_DIARIES, MOST_MARKS, MOST_STORMS = 600, 900, 200
NO_CURRENCY = "¤"  # of a garden that never named its money
MOST_ALIKE = 12  # beds or pots that get the same at once
GREATEST_GUST = 45.0  # that is calculated with; beyond it is ‘over’ [m/s]


class Typed(BaseModel):
    """Unknown fields and numbers that are not finite are errors."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True)


def _key_of(table: str) -> AfterValidator:
    def check(key: str) -> str:
        try:
            getattr(tables, table)()[key]
        except UnknownItem as error:
            raise ValueError(str(error)) from error
        return key

    return AfterValidator(check)


def counted_first(most: int) -> BeforeValidator:
    """Return the check of a list's length before its contents, so that a list of millions is refused as
    one.
    """

    def check(value: Any) -> Any:
        if isinstance(value, list | tuple) and len(value) > most:
            raise ValueError(f"up to {most} are allowed, not {len(value)}")
        return value

    return BeforeValidator(check)


def day_of_year(month_day: str) -> int:
    """Return the day number of a month-day such as ‘05-04’ in a year without a leap day."""
    month, day = month_day.split("-")
    return dt.date(2001, int(month), int(day)).timetuple().tm_yday


def month_day(day: int) -> str:
    """Return the month-day of a day number; numbers past the year's ends wrap round."""
    date = dt.date(2001, 1, 1) + dt.timedelta(days=(day - 1) % 365)
    return f"{date:%m-%d}"


def _real_date(text: str) -> str:
    if not re.fullmatch(r"\d\d-\d\d", text):
        raise ValueError("month and day such as 05-04 are allowed")
    try:
        day_of_year(text)
    except ValueError as error:
        raise ValueError(f"a day of the calendar such as 05-04 is allowed ({error})") from error
    return text


def written(text: str) -> str:
    """Refuse what cannot be written: control characters, which no drawing and no table may hold."""
    if any(unicodedata.category(letter) in UNWRITTEN or letter in "\ufffe\uffff" for letter in text):
        raise ValueError("letters, figures and signs on one line are allowed")
    return text


MonthDay = Annotated[str, Field(examples=["05-04"]), AfterValidator(_real_date)]
Name = Annotated[str, Field(min_length=1, max_length=120), AfterValidator(written)]
Currency = Annotated[str, Field(min_length=1, max_length=8), AfterValidator(written)]
Key = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$")]
CropKey = Annotated[str, _key_of("crops")]
ToolKey = Annotated[str, _key_of("tools")]
SoilKey = Annotated[str, _key_of("soils")]
ExposureKey = Annotated[str, _key_of("exposures")]
ClimateKey = Annotated[str, _key_of("climates")]
SeasonYear = Annotated[int, Field(ge=1970, le=2200)]
Side = Literal["left", "right", "both"]
Training = Literal["pruned", "free"]
Raised = Literal["usual", "sown", "potted"]
PlantCount = Annotated[int, Field(ge=1, le=MOST_PLANTS)]
PlantSpacing = Annotated[float, Field(ge=0.03, le=3.0)]
BedLength = Annotated[float, Field(ge=0.3, le=60.0)]
BedWidth = Annotated[float, Field(ge=0.2, le=20.0)]
FillDepth = Annotated[float, Field(ge=0.0, le=1.2)]
PlantGust = Annotated[float, Field(ge=5.0, le=GREATEST_GUST)]
Degrees = Annotated[float, Field(ge=-60.0, le=60.0)]
BedKind = Literal["in-ground", "raised", "container", "straw-bale"]
BedTop = Literal["dug", "undisturbed"]
FeatureKind = Literal[
    "path", "wall", "fence", "door", "drip-line", "water-pipe", "cable", "steel-post", "stump"
]
ROUND: tuple[FeatureKind, ...] = ("steel-post", "stump")
Metres = Annotated[float, Field(ge=-500.0, le=500.0)]
Spot = tuple[Metres, Metres]
Points = Annotated[tuple[Spot, ...], Field(min_length=1, max_length=20), counted_first(20)]
Bearing = Annotated[float, Field(ge=0.0, lt=360.0)]


class Named(Typed):
    """What can be spoken of: a key of its own within a plan, and a name."""

    key: Key
    name: Name


class Planting(Typed):
    """A crop on a structure; its key stays its own as long as it grows there."""

    key: Key
    crop: CropKey
    count: PlantCount
    spacing: PlantSpacing = Field(description="between neighbours of one line, m")
    side: Side = "right"
    training: Training = "pruned"
    planted: MonthDay
    raised: Raised = Field("usual", description="whether it is sown where it stands or raised in pots")
    along: Metres = Field(0.0, description="its middle from the row’s middle, along the row, m")

    def path(self, field: str) -> str:
        """Return where a field of it is found in its structure."""
        return f"plantings.{self.key}.{field}"


StockTable = Literal["posts", "meshes", "ties", "wires", "anchors", "twines", "fittings", "cages"]
Condition = Literal["good", "fair", "poor"]
Sure = Literal["known", "seen", "guessed"]
MOST_STOCKED_ALIKE = 1000  # things of one kind in a shed, as one line of it
StockCount = Annotated[int, Field(ge=0, le=MOST_STOCKED_ALIKE)]
StockAge = Annotated[int, Field(ge=0, le=60)]
Note = Annotated[str, Field(max_length=120), AfterValidator(written)]


class Stock(Named):
    """Something in the shed, so many alike: like a row of a table, with measures, age and strength of their
    own.
    """

    table: StockTable
    item: Annotated[str, Field(max_length=64)] = Field(description="the row of the table that it is like")
    width: float | None = Field(None, description="across the weaker way, of what is no roll, m")
    depth: float | None = Field(None, description="across the other way; of a tube its wall, m")
    thickness: float | None = Field(None, description="of a wire, a string or a mesh’s wires, m")
    height: float | None = Field(None, description="of a mesh, m")
    length: float | None = Field(None, description="of each, m; nothing where it has none")
    count: StockCount = 1
    age: StockAge = Field(0, description="seasons it has been in use")
    condition: Condition = "good"
    strength: float = Field(1.0, ge=0.1, le=1.5, description="share of what such a new one bears")
    sure: Sure = Field("known", description="how sure one is of its strength")
    in_use: Note = Field("", description="what else it is in use for now; it is not planned with")

    @model_validator(mode="after")
    def _a_row(self) -> Stock:
        try:
            like = tables.item(self.table, self.item)
        except UnknownItem as error:
            raise ValueError(f"item: {error}") from error
        if own.MARK in self.item:
            raise ValueError("item: the key of a row of the table is allowed")
        measures = {measure.name: measure for measure in own.MEASURES.get(self.table, ())}
        for name in ("width", "depth", "thickness", "height", "length"):
            value, measure = getattr(self, name), measures.get(name)
            if value is not None and measure is None:
                raise ValueError(f"{name}: nothing is allowed for a row of {self.table}")
            if value is not None and measure and not measure.low <= value <= measure.high:
                raise ValueError(f"{name}: {measure.low:g} to {measure.high:g} m is allowed")
        if own.MEASURES.get(self.table) and self.length is None:
            raise ValueError("length: the length of each is needed")
        key = own.key_of(like, **self.measures)
        if (
            own.MARK in key
            and own.row_of(self.table, key, tables.ITEM_TABLES[self.table]().__getitem__) is None
        ):
            raise ValueError(f"width: measures that a row like {like.name} can have are allowed")
        return self

    @property
    def measures(self) -> dict[str, float | None]:
        """Return its own measures by name, SI."""
        return {name: getattr(self, name) for name in ("width", "depth", "thickness", "height", "length")}


class Taken(Typed):
    """Something from the shed that a structure has: pieces, or metres of what is cut from a roll or coil."""

    stock: Key
    amount: float = Field(gt=0.0, le=1e5)


class Spare(Typed):
    """Something of the shed that a structure may have.

    item: its key, with what it has of its own. amount: pieces, or metres of what is cut from a roll or coil.
    length: of each piece or roll. [m] life: seasons it has left.
    """

    stock: Key
    name: Name
    table: StockTable
    item: str
    amount: float
    length: float = 0.0
    life: float = 0.0


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


class Host(Typed):
    """A wall or fence that stands along a bed: how long and how high, and on which side of the row. [m]"""

    kind: Literal["wall", "fence"]
    length: float = Field(ge=0.3, le=60.0)
    height: float | None = Field(None, ge=0.3, le=6.0, description="unknown when null")
    side: Literal["left", "right"] = "left"


StepKey = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$")]
Joining = Literal["usual", "other"]
Remark = Annotated[str, Field(max_length=400), AfterValidator(written)]
OptionName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{0,63}$")]
MemberKey = Annotated[str, Field(max_length=80, pattern=r"^[a-z0-9@,-]*$")]


class Tick(Typed):
    """A step that is done: when, by whom, and what there was to say."""

    at: dt.datetime
    who: Annotated[str, Field(max_length=80), AfterValidator(written)] = ""
    note: Remark = ""


class Differs(Typed):
    """What went in otherwise than planned: an option, all over or at one member, and what it came out at."""

    option: OptionName
    value: float | int | bool | Annotated[str, Field(max_length=80)]
    member: MemberKey = ""
    step: StepKey | None = None
    note: Remark = ""
    at: dt.datetime


class Reading(Typed):
    """A pull [N] and how far the post had moved at its height [m]."""

    pull: float = Field(ge=0.0, le=5000.0)
    moved: float = Field(ge=-0.1, le=1.0)


Readings = Annotated[tuple[Reading, ...], Field(min_length=2, max_length=60), counted_first(60)]


class PullTest(Typed):
    """A post pulled with a scale, up and perhaps back, in the order it was read.

    height: of the pull above the ground. [m] state: of the soil. moved_on: whether it crept on under the
    greatest pull.
    """

    member: MemberKey
    height: float = Field(ge=0.2, le=3.0)
    state: Literal["dry", "moist", "wet"] = "moist"
    readings: Readings
    moved_on: bool = False
    at: dt.datetime


Pulls = Annotated[dict[Annotated[str, Field(max_length=80)], PullTest], Field(max_length=40)]
Ticks = Annotated[dict[StepKey, Tick], Field(max_length=MOST_STEPS)]
Differing = Annotated[dict[Annotated[str, Field(max_length=160)], Differs], Field(max_length=MOST_DIFFERING)]


class Record(Named):
    """What was done of a structure: its steps as they are ticked, and what went in otherwise than planned.

    What it is built to is kept with the structure. stands: since when nothing is left to do.
    """

    structure: Key
    begun: dt.date
    joining: Joining = "usual"
    ticks: Ticks = Field(default_factory=dict)
    differs: Differing = Field(default_factory=dict)
    pulls: Pulls = Field(default_factory=dict)
    stands: dt.date | None = None


TaskKey = Annotated[str, Field(max_length=120, pattern=r"^[0-9]{4}\.[a-z0-9][a-z0-9.-]*$")]
MarkState = Literal["done", "skipped", "not-needed"]
Finding = Literal["stood", "leans", "slack", "torn", "fell"]
DayKey = Annotated[str, Field(pattern=r"^[0-9]{4}-[0-9]{2}-[0-9]{2}$")]


class Marked(Typed):
    """What became of a task: done, skipped, or not needed; when, by whom, what there was to say, and what was
    picked. [kg]
    """

    state: MarkState
    at: dt.datetime
    who: Annotated[str, Field(max_length=80), AfterValidator(written)] = ""
    note: Remark = ""
    picked: float | None = Field(None, ge=0.0, le=10_000.0)


class Found(Typed):
    """How a structure was found after a storm."""

    found: Finding
    at: dt.datetime
    who: Annotated[str, Field(max_length=80), AfterValidator(written)] = ""
    note: Remark = ""


Marks = Annotated[dict[TaskKey, Marked], Field(max_length=MOST_MARKS)]
AfterStorms = Annotated[dict[DayKey, Found], Field(max_length=MOST_STORMS)]


class Diary(Named):
    """What was done on a structure while it stood: its tasks as they were marked, and how it was found after
    each storm, by its day.
    """

    structure: Key
    marks: Marks = Field(default_factory=dict)
    storms: AfterStorms = Field(default_factory=dict)


class Feature(Named):
    """What else is on the plan: a path, a wall or fence, something buried to keep clear of, something to tie
    to.

    A post or a stump is one point, everything else a line through two points or more.
    """

    kind: FeatureKind
    points: Points
    width: float = Field(
        0.1,
        ge=0.005,
        le=20.0,
        description="of a path, a wall, a trunk; of a buried line its own thickness, m",
    )
    depth: float | None = Field(None, ge=0.0, le=5.0, description="of something buried, m; unknown when null")
    height: float | None = Field(None, ge=0.3, le=6.0, description="of a wall or fence, m; unknown when null")

    @model_validator(mode="after")
    def _enough_points(self) -> Feature:
        lone = self.kind in ROUND
        if lone != (len(self.points) == 1) or (not lone and len(set(self.points)) < 2):
            raise ValueError(
                f"{'one point' if lone else 'two points or more that differ'} for a {self.kind} is allowed"
            )
        return self


MOST_RAIN = 3000.0  # in a month or a week [mm]


class Normal(Typed):
    """A month of a garden's own record: mean least and greatest temperature of its days [degC], rain [mm]."""

    low: Degrees
    high: Degrees
    rain: float = Field(0.0, ge=0.0, le=MOST_RAIN)


class SeenWeek(Typed):
    """A week that was, from its Monday: mean least and greatest temperature [degC], rain [mm], strongest gust
    [m/s].
    """

    monday: dt.date
    low: Degrees
    high: Degrees
    rain: float = Field(0.0, ge=0.0, le=MOST_RAIN)
    gust: float | None = Field(None, ge=0.0, le=100.0)


class Warmth(Typed):
    """How warm a garden is: by where it lies, or by its own record; and what was seen of its season so far.

    height: above the sea. [m] rain_mm: in a year. spread: standard deviation of a day's temperatures about
    their means, where it is known. [K] normals: of twelve months, from its own record. lasts, firsts: last
    and first frost of each year of that record. years: of it.
    """

    height: float = Field(20.0, ge=-100.0, le=4500.0)
    water: Annotated[str, _key_of("waters")] = "near"
    rain: Annotated[str, _key_of("rains")] = "even"
    rain_mm: float = Field(700.0, ge=0.0, le=8000.0)
    spread: float | None = Field(None, ge=0.5, le=10.0)
    normals: Annotated[tuple[Normal, ...], counted_first(12)] = ()
    lasts: Annotated[tuple[MonthDay, ...], counted_first(150)] = ()
    firsts: Annotated[tuple[MonthDay, ...], counted_first(150)] = ()
    years: int = Field(0, ge=0, le=150)
    seen: Annotated[tuple[SeenWeek, ...], counted_first(MOST_SEEN)] = ()

    @model_validator(mode="after")
    def _of_twelve(self) -> Warmth:
        if self.normals and len(self.normals) != 12:
            raise ValueError(f"normals: twelve months are allowed, not {len(self.normals)}")
        mondays = [week.monday for week in self.seen]
        if any(day.weekday() for day in mondays):
            raise ValueError("seen: weeks from a Monday are allowed")
        if mondays != sorted(set(mondays)):
            raise ValueError("seen: one of each week, in their order, is allowed")
        return self


Weekday = Annotated[int, Field(ge=0, le=6)]


def _some_day(days: tuple[int, ...]) -> tuple[int, ...]:
    if not days:
        raise ValueError("one day of the week or more, Monday 0 to Sunday 6, is allowed")
    return days


VisitDays = Annotated[tuple[Weekday, ...], AfterValidator(_some_day), counted_first(7)]
Careful = Literal["cautious", "usual", "bold"]


def _zone(name: str) -> str:
    try:
        zoneinfo.ZoneInfo(name)
    except (ValueError, OSError, zoneinfo.ZoneInfoNotFoundError) as error:
        raise ValueError("a time zone such as Europe/Lisbon or UTC is allowed") from error
    return name


TaughtKey = Annotated[str, Field(pattern=r"^[a-z]+$", max_length=24)]


class Taught(Typed):
    """What the log taught of something that is not well known, and somebody accepted.

    key: a row of uncertainties.csv, ‘site’ for how gusty the place is, ‘yield’ of a crop, ‘minutes’ of work.
    about: the crop, or of the ground ‘bed/’ or ‘soil/’ and its key; empty for the whole garden. factor: so
    many times what the tables say. spread: standard deviation of its logarithm. says: on what evidence.
    """

    key: TaughtKey
    about: Annotated[str, Field(max_length=80)] = ""
    factor: float = Field(ge=LEAST_TAUGHT, le=MOST_TAUGHT_TIMES)
    spread: float = Field(ge=0.0, le=WIDEST_TAUGHT)
    on: dt.date
    says: Annotated[str, Field(max_length=300), AfterValidator(written)] = ""

    @property
    def careful_strength(self) -> float:
        """Return the factor on a strength one designs to: where it proved stronger, its lower quartile."""
        return min(self.factor, max(1.0, self.factor * math.exp(-_QUARTILE * self.spread)))

    @property
    def careful_load(self) -> float:
        """Return the factor on a load: where it proved lighter, its upper quartile."""
        return max(self.factor, min(1.0, self.factor * math.exp(_QUARTILE * self.spread)))


Heeded = Literal["break", "harvest", "treatment"]


class Place(Typed):
    """A place: frost dates, warmth, wind, people's units, days and currency; a garden's own fields.

    A place without frost has neither date. year: of the season that is planned, that of the day its year
    turns on: its last frost, or in a place without frost the first of January, south of the equator the first
    of July.
    """

    name: Name
    latitude: float = Field(51.0, ge=-66.0, le=66.0)
    last_frost: MonthDay | None = "04-24"
    first_frost: MonthDay | None = Field("10-27", validate_default=True)
    frost_spread: float = Field(
        10.0, ge=2.0, le=40.0, description="standard deviation of the yearly date of a frost, days"
    )
    careful: Careful = Field("usual", description="how much risk of frost a tender crop is planted out with")
    warmth: Warmth | None = None
    visits: VisitDays = (1, 3, 5)
    visit_hour: int = Field(18, ge=0, le=23, description="at which people come, in calendars")
    timezone: Annotated[str, Field(max_length=64), AfterValidator(_zone)] = "UTC"
    year: SeasonYear = Field(2026, description="of the season that is planned: that of its last frost")
    exposure: ExposureKey = "ordinary"
    climate: ClimateKey = "even"
    design_gust: PlantGust | None = Field(None, description="own once-in-ten-seasons gust at the plant, m/s")
    units: System = "metric"
    currency: Currency = NO_CURRENCY
    prices: dict[str, Annotated[float, Field(ge=0.0, le=1e6)]] = Field(default_factory=dict, max_length=500)
    hour: float | None = Field(None, ge=0.0, le=1e4, description="what an hour of work is counted at")
    path_width: float = Field(0.6, ge=0.3, le=3.0, description="the least width of a path here, m")
    taught: Annotated[tuple[Taught, ...], counted_first(MOST_TAUGHT)] = ()
    ignores: tuple[Heeded, ...] = Field(
        (), max_length=3, description="kinds of entries of the log that change nothing by themselves here"
    )

    @field_validator("first_frost")
    @classmethod
    def _both_frosts(cls, first: str | None, others: ValidationInfo) -> str | None:
        if "last_frost" in others.data and (others.data["last_frost"] is None) != (first is None):
            raise ValueError(
                "a day where last_frost has one, none where it has none: both or neither is allowed"
            )
        return first

    def learnt(self, key: str, about: str = "") -> Taught | None:
        """Return what the log taught of something, nothing where it did not or nobody accepted it."""
        return next((each for each in self.taught if each.key == key and each.about == about), None)

    def times(self, key: str, about: str = "") -> float:
        """Return how many times what the tables say something is here: 1 where nothing was learnt."""
        found = self.learnt(key, about)
        return found.factor if found else 1.0

    @property
    def turns(self) -> MonthDay:
        """Return the day that its growing years are counted by."""
        return self.last_frost or ("01-01" if self.latitude >= 0 else "07-01")


class Garden(Place):
    """A garden with its beds, what else is on its plan, its shed, what is wanted of it, and what was done."""

    beds: Annotated[tuple[Bed, ...], Field(max_length=MOST_BEDS), counted_first(MOST_BEDS)] = ()
    features: Annotated[
        tuple[Feature, ...], Field(max_length=MOST_FEATURES), counted_first(MOST_FEATURES)
    ] = ()
    stock: Annotated[tuple[Stock, ...], Field(max_length=MOST_STOCK), counted_first(MOST_STOCK)] = ()
    needs: Annotated[tuple[KeptNeed, ...], Field(max_length=MOST_NEEDS), counted_first(MOST_NEEDS)] = ()
    records: Annotated[tuple[Record, ...], Field(max_length=MOST_RECORDS), counted_first(MOST_RECORDS)] = ()
    diaries: Annotated[tuple[Diary, ...], Field(max_length=MOST_DIARIES), counted_first(MOST_DIARIES)] = ()


class Site(Typed):
    """What a structure needs to know of where it stands: its bed and garden, one of each, and what it may
    have of the shed.

    path: width of the path between its bed and one alike, where it may stand over it. [m] host: what it may
    be fixed to.
    """

    garden: Place
    bed: BareBed
    spare: tuple[Spare, ...] = ()
    path: float | None = None
    host: Host | None = None

    @property
    def exposure(self) -> rows.Exposure:
        """Return the wind exposure of the bed, its own or the garden's."""
        return tables.exposures()[self.bed.exposure or self.garden.exposure]

    @property
    def design_gust(self) -> float:
        """Return the gust at the plant met once in ten growing seasons, m/s.

        A garden's own figure belongs to its own exposure; a bed of another exposure scales it.
        """
        own = self.garden.design_gust
        if own is None:
            return self.exposure.design_gust_m_s * self.garden.times("site")
        return own * self.exposure.design_gust_m_s / tables.exposures()[self.garden.exposure].design_gust_m_s

    @property
    def forecast_ratio(self) -> float:
        """Return the gust at the plant over the one measured or forecast at 10 m over open ground."""
        return self.exposure.forecast_ratio * self.garden.times("site")

    def learnt(self, key: str) -> Taught | None:
        """Return what the log taught of a row of uncertainties.csv here: of the ground that of the bed, else
        that of its soil.
        """
        if key not in GROUND:
            return self.garden.learnt(key)
        return self.garden.learnt(key, f"bed/{self.bed.key}") or self.garden.learnt(
            key, f"soil/{self.bed.soil}"
        )

    def asking(self, gust: float | None) -> Site:
        """Return the same place with a gust of one's own asked of what stands there; itself where none is."""
        if gust is None:
            return self
        own = {"design_gust": gust, "exposure": self.bed.exposure or self.garden.exposure}
        return self.model_copy(update={"garden": self.garden.model_copy(update=own)})

    @property
    def working_wind(self) -> float:
        """Return the gust that comes about every week, m/s."""
        return max(tables.constant("working_share") * self.design_gust, tables.constant("working_least"))
