"""The rows of the data tables, SI; a column's unit stands in the name it has in the file."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar, Literal

Certainty = Literal["certain", "published", "judgement", "measured"]


@dataclass(frozen=True)
class Row:
    """What every row of every table has."""

    key: str
    source: str
    certainty: Certainty


@dataclass(frozen=True)
class Source(Row):
    title: str
    where: str
    checked: str


@dataclass(frozen=True)
class Material(Row):
    """What it may be stressed to in a gust and all season (the factor of its code or ours inside), and what
    it is expected to bear.

    yields: whether it bends on at its yield instead of breaking, so that a whole section may yield.
    """

    name: str
    E: float
    allow_gust: float
    allow_sustained: float
    median: float
    yields: bool
    creep: float
    stuff: Literal["wood", "cane", "metal"]
    median_source: str


@dataclass(frozen=True)
class Section(Row):
    A: float
    I: float
    S: float
    Z: float
    I_other: float
    S_other: float
    Z_other: float


@dataclass(frozen=True)
class Item(Row):
    """What is chosen from a table, bought and built in. What one bears is the matter of the checks, each of
    which gives what one designs to and what one expects.

    serves: the roles it may have; of one that names none every role is allowed.
    lengths: that it is sold in; none of what comes by the piece. [m]
    life: seasons it lasts where it is used, in soil where it stands in soil; 0 where no table says.
    pack_of: pieces in a pack.
    price_each: of one piece that is sold as it is; nothing of what is sold by length or area.
    """

    table: ClassVar[str]
    name: str

    @property
    def reclaimed(self) -> bool:
        """Return whether it had another use before and is built with only where somebody has it."""
        return self.key.startswith("old_")

    @property
    def serves(self) -> tuple[str, ...]:
        return ()

    @property
    def lengths(self) -> tuple[float, ...]:
        return ()

    @property
    def life(self) -> float:
        return 0.0

    @property
    def pack_of(self) -> int:
        return 1

    @property
    def price_each(self) -> float | None:
        return None


@dataclass(frozen=True)
class _Serves(Item):
    """Has roles of its own."""

    roles: tuple[str, ...]

    @property
    def serves(self) -> tuple[str, ...]:
        return self.roles


@dataclass(frozen=True)
class _Lasts(Item):
    """Has a life in dry air and in wet soil."""

    life_dry: float
    life_wet: float

    @property
    def life(self) -> float:
        return self.life_dry


@dataclass(frozen=True)
class _DrawnOff(_Lasts):
    """Comes on coils or spools of so many metres, if it does."""

    packs_m: tuple[float, ...]

    @property
    def lengths(self) -> tuple[float, ...]:
        return self.packs_m


@dataclass(frozen=True)
class _Counted(Item):
    """Has a price for one of it."""

    price: float

    @property
    def price_each(self) -> float:
        return self.price


@dataclass(frozen=True)
class _Packed(_Counted):
    """Comes so many in a pack."""

    pack: int

    @property
    def pack_of(self) -> int:
        return self.pack


@dataclass(frozen=True)
class Post(_Serves, _Lasts):
    """A post, pole, cane or bar; sound is what time has left of its strength."""

    table = "posts"
    shape: str
    a: float
    b: float
    material: str
    lengths_m: tuple[float, ...]
    kg_m: float
    soil_width: float
    plate_m2: float
    top_cap: bool
    price_m: float
    sound: float = 1.0

    @property
    def lengths(self) -> tuple[float, ...]:
        return self.lengths_m

    @property
    def life(self) -> float:
        return self.life_wet


@dataclass(frozen=True)
class MeshMaterial(Row):
    name: str
    E: float
    break_: float
    yield_: float
    median: float
    median_yield: float
    ductility: float
    factor: float
    efficiency: float


@dataclass(frozen=True)
class Mesh(_Lasts):
    table = "meshes"
    kind: Literal["panel", "sheet", "roll", "net"]
    wire: float
    along: float
    up: float
    heights_m: tuple[float, ...]
    lengths_m: tuple[float, ...]
    kg_m2: float
    material: str
    hand: Literal["passes", "tight", "no"]
    price_m2: float

    @property
    def stiff(self) -> bool:
        """Return whether it comes flat and stands by itself."""
        return self.kind in ("panel", "sheet")

    @property
    def opening(self) -> float:
        """Return the lesser side of its openings, from middle to middle of the wires. [m]"""
        return min(self.along, self.up)

    @property
    def lengths(self) -> tuple[float, ...]:
        return self.lengths_m


@dataclass(frozen=True)
class Tie(_DrawnOff, _Packed):
    table = "ties"
    use: tuple[str, ...]
    break_N: float
    strands: int
    knot: float
    season_new: float
    season_end: float
    median: float
    factor: float
    length_m: float
    fits: str
    joint: str

    @property
    def serves(self) -> tuple[str, ...]:
        return self.use


@dataclass(frozen=True)
class Wire(_DrawnOff):
    table = "wires"
    d: float
    break_: float
    median: float
    ductility: float
    E: float
    factor: float
    price_m: float


@dataclass(frozen=True)
class Anchor(_Counted):
    """What holds a guy: by its working pull in a class of soil, as a weight buried `top` deep, or as one that
    only lies there.
    """

    table = "anchors"
    loose_N: float
    loam_N: float
    clay_N: float
    gravel_N: float
    factor: float
    median: float
    mass_kg: float
    deep_m: float
    top_m: float
    height_m: float
    width_m: float
    length_m: float
    friction: float


@dataclass(frozen=True)
class Twine(_Serves, _DrawnOff):
    table = "twines"
    d: float
    break_N: float
    stretch: float
    season_end: float
    price_m: float


@dataclass(frozen=True)
class Fitting(_Serves, _Lasts, _Packed):
    table = "fittings"
    working_N: float
    median: float
    kg: float
    long_m: float | None
    joint: str | None


@dataclass(frozen=True)
class Cage(_Lasts, _Counted):
    table = "cages"
    wire: float
    height_m: float
    diameter_m: float
    leg_m: float
    legs: int
    along: float
    up: float
    kg: float
    yield_: float
    median: float


@dataclass(frozen=True)
class Host(Item):
    table = "hosts"
    stem_Nm: float
    root_plate_m: float
    carries_kg: float
    start_low_d: float
    start_high_d: float
    ready_low_m: float
    ready_high_m: float
    least_rows: int
    fades_d: float


@dataclass(frozen=True)
class Cover(Item):
    table = "covers"
    solidity: float
    kg_m2: float


@dataclass(frozen=True)
class Suit(Row):
    """How well each family of support suits a crop: 0 no, 1 possible with work, 2 good, 3 best."""

    scores: Mapping[str, int]


@dataclass(frozen=True)
class Uncertainty(Row):
    """Something that is not well known: between which factors it lies, and whether it changes a load or a
    strength.
    """

    name: str
    low: float
    high: float
    acts: Literal["load", "strength"]

    @property
    def spread(self) -> float:
        """Return the standard deviation of its logarithm: low and high are taken as where nineteen in twenty
        lie between.
        """
        return math.log(self.high / self.low) / (2 * 1.96)


@dataclass(frozen=True)
class Soil(Row):
    name: str
    also: str
    model: Literal["clay", "sand"]
    cu: float
    phi_deg: float
    gamma: float
    median: float
    dry: float
    moist: float
    saturated: float
    modulus: float
    modulus_saturated: float
    S: float
    skin: float
    bearing: float
    anchor: str
    hatch: Literal["clay", "loam", "sand", "gravel", "crumb"]


@dataclass(frozen=True)
class Exposure(Row):
    name: str
    design_gust_m_s: float
    forecast_ratio: float
    where: str


@dataclass(frozen=True)
class Climate(Row):
    name: str
    months: tuple[float, ...]


@dataclass(frozen=True)
class Job(Row):
    """A job of the season in words: why it is done and why then, how, and with what; its minutes, and those
    for each plant.
    """

    title: str
    why: str
    how: str
    tools: str
    minutes: float
    per_plant: float
    sort: Literal["build", "sow", "train", "prune", "fruit", "feed", "scout", "pick", "look", "clear"]


_POUND = 0.45359237  # [kg]
_QUARTS = 32  # of a bushel


@dataclass(frozen=True)
class Measure(Row):
    """Measures that crops are sold by: what a bushel of them weighs, and a lug where there is one. [lb]"""

    crops: tuple[str, ...]
    bushel_lb: float
    lug_lb: float | None

    @property
    def sizes(self) -> dict[str, float]:
        """Return what each measure of them weighs, the largest first. [kg]"""
        pounds = {"bushel": self.bushel_lb, "lug": self.lug_lb, "quart": self.bushel_lb / _QUARTS}
        return {name: weight * _POUND for name, weight in pounds.items() if weight}


@dataclass(frozen=True)
class LogKind(Row):
    """A kind of entry in a garden’s log: what it is called, what one does to make it, the fields it has and
    which of them it needs, and the words by which it is known in a typed line.

    about: whether it is always of one structure.
    """

    name: str
    verb: str
    fields: tuple[str, ...]
    needs: tuple[str, ...]
    words: tuple[str, ...]
    about: Literal["structure", "any"]


@dataclass(frozen=True)
class StormMove(Row):
    """Something quick to do before a storm: an option and what it becomes (‘+1’: so many more), its minutes
    and those for each metre of row, in words.
    """

    option: str
    value: str
    minutes: float
    per_m: float
    title: str
    how: str


@dataclass(frozen=True)
class Scout(Row):
    """What to look for on a crop, at which stage of it, and where."""

    crops: tuple[str, ...]
    stage: Literal["early", "middle", "late", "any"]
    look: str
    where: str


@dataclass(frozen=True)
class Water(Row):
    """How near a sea is, and what that does to a year's temperatures."""

    name: str
    warmer_K: float
    swing_per_deg_K: float
    warmest_d: float
    day_swing_K: float
    spread_K: float


@dataclass(frozen=True)
class Rain(Row):
    """When in the year it rains: by how much more in its warm half than on the mean."""

    name: str
    lean: float


@dataclass(frozen=True)
class FrostClass(Row):
    """What cold a crop bears: what kills it, below what it sulks, and how long after the first frost of
    autumn it still stands. [degC], [d]
    """

    name: str
    kills_C: float
    chilled_C: float | None
    first_d: float


@dataclass(frozen=True)
class Calendar(Row):
    """What dates a crop: from when its days are counted, the heat they were counted at, the soil and frost it
    bears, how long it is raised indoors, the days and nights that stop it, and how often it is picked (0:
    once).
    """

    counted_from: Literal["planting", "sowing", "shoots"]
    base_C: float
    upper_C: float
    reference_C: float
    soil_C: float
    frost_class: str
    indoors_low_wk: float
    indoors_high_wk: float
    pot_bound_d: float
    stops_C: float | None
    night_C: float | None
    pick_low_d: float
    pick_high_d: float

    @property
    def cool(self) -> bool:
        """Return whether it is a crop of the cool season, which heat ends."""
        return self.reference_C < 18.0

    @property
    def indoors_d(self) -> float:
        """Return days it is raised indoors for, where it is. [d]"""
        return 3.5 * (self.indoors_low_wk + self.indoors_high_wk)


@dataclass(frozen=True)
class Crop(Row):
    name: str
    called: str
    family: str
    habit: str
    height_m: float
    height_high_m: float
    support_height_m: float
    spacing_m: float
    free_spacing_low_m: float
    free_spacing_high_m: float
    strand_max: float | None
    opening_min: float | None
    fruit_min: float | None
    fruit_max: float | None
    fruit_kg: float
    fruit_heaviest_kg: float
    shoot_kg: float
    shoot_high_kg: float
    free_shoot_kg: float | None
    free_shoot_high_kg: float | None
    yield_kg: float
    yield_high_kg: float
    free_yield_kg: float | None
    free_yield_high_kg: float | None
    hanging_share: float
    carried_share: float
    depth_m: float
    cover: float
    t50_d: float
    t95_d: float
    extension_mm_d: float
    first_low_d: float
    first_high_d: float
    harvest_low_wk: float
    harvest_high_wk: float
    one_pick: bool
    set_to_pick_d: float
    rain_share: float
    plant_low_d: float
    plant_high_d: float
    training: str
    cap_group: str
    face_limit_m2: float | None


@dataclass(frozen=True)
class FaceCap(Row):
    shoot_kg_m2: float
    shoot_high_kg_m2: float
    fruit_kg_m2: float
    fruit_high_kg_m2: float


@dataclass(frozen=True)
class DragPoint(Row):
    solidity: float
    drag: float


@dataclass(frozen=True)
class FeatureKind(Row):
    """What else is on a plan: how wide it is drawn, how long it starts (0: as the plan is long), and how far
    driven things keep off. [m]
    """

    name: str
    group: Literal["path", "barrier", "buried", "tie-off"]
    width: float
    length: float
    keep: float


@dataclass(frozen=True)
class Work(Row):
    """Minutes of one practised adult for one of a kind of work, for a metre of it, or for a plant; whether it
    is dug.
    """

    what: str
    minutes: float
    per_m: float
    per_plant: float
    digs: bool


@dataclass(frozen=True)
class Joint(Row):
    """How two things are joined."""

    name: str
    how: str


@dataclass(frozen=True)
class JointStroke(Row):
    """One stroke of a joint's drawing, from its middle: a line or an outline through points, a ring by its
    middle and its half width and height, or a dot. [m]
    """

    joint: str
    shape: Literal["line", "outline", "ring", "dot"]
    ink: Literal["ink", "wood", "cane", "metal", "soil", "leaf", "wall"]
    wide: float
    points: tuple[float, ...]


@dataclass(frozen=True)
class StepText(Row):
    """A piece of work in words: what to do, how to look at it, how it is undone, what springs then, and
    whether what it sets stays where it is when the rest is taken down.

    joint: a row of joints.csv; ‘*’ for that of the item it is made with. tools, caution: apart by semicolons.
    """

    title: str
    do: str
    check: str | None
    joint: str | None
    tools: str | None
    people: int
    caution: str | None
    undo: str | None
    springs: str | None
    stays: bool

    @property
    def cautions(self) -> tuple[str, ...]:
        """Return the keys of its cautions."""
        return tuple(key.strip() for key in (self.caution or "").split(";") if key.strip())


@dataclass(frozen=True)
class Trait(Row):
    """What a family of support is to live with: people to build it, how hard that is from 1 to 5, whether it
    moves to another bed, from where its plants are reached, whether one walks under it and it can stand over
    a path between two beds; how it looks, from 1, a thing of wire and steel, to 3, of the garden.
    """

    people: int
    difficulty: int
    moves: Literal["yes", "half", "no"]
    faces: Literal["both", "one", "round", "outside"]
    walked_under: bool
    over_path: bool
    looks: int


@dataclass(frozen=True)
class Tool(Row):
    """A tool that not everybody has, and what one costs."""

    name: str
    price: float


@dataclass(frozen=True)
class RemarkRow(Row):
    """How much a remark of level watch weighs where kinds of support are compared.

    weight: serious: a kind without it comes first. drawback: it counts. care: nothing but care to be taken.
    remedy: whether there is a text that says what would make it do, where that is no option of its own.
    """

    weight: Literal["serious", "drawback", "care"]
    remedy: bool


@dataclass(frozen=True)
class Divide(Row):
    """A choice that divides growers: by what it is decided, and both its sides.

    by: kinds of support, the value of an option, an item of it, a measure of it [m], or nothing that can be
    computed. families: that it concerns; all where none is named. one, other: kinds, values, or the
    beginnings of the keys of items.
    """

    by: Literal["kinds", "value", "item", "measure", "none"]
    families: tuple[str, ...]
    option: str
    table: str
    one: tuple[str, ...]
    other: tuple[str, ...]


@dataclass(frozen=True)
class Constant(Row):
    value: float
    unit: str
    what: str
