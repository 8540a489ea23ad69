"""What a screen or a printed report is given of a structure: typed, in words, ready to show."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import Field

from ..analysis.design import State
from ..drawing.solid import Solid
from ..drawing.views import View, ViewName
from ..loads.outlook import Verdict
from ..plan.fields import Typed
from ..plan.shed import Taken
from ..sizing.size import Aim


class Working(Typed):
    """One check of a link, in words, as a formula and with its numbers."""

    title: str
    words: str
    formula: str
    numbers: str
    expects: str
    compare: str
    utilisation: float
    source: str
    certainty: str


class ArrowMark(Typed):
    """A force drawn in a view: where, and which way; the direction's length is what of it that view sees."""

    view: ViewName
    at: tuple[float, float]
    towards: tuple[float, float]


class LinkReport(Typed):
    """One link: its use by week in the required gust, the gust it holds to by week, how often it is expected
    to go, and its working.
    """

    key: str
    title: str
    item: str
    members: tuple[str, ...]
    hands_to: tuple[str, ...]
    carries: float
    carries_text: str
    utilisation: tuple[float, ...]
    limit: tuple[float, ...]
    limit_text: str
    states: tuple[State, ...]
    probability: float
    return_period_text: str
    return_period_range: str
    certainty: str
    workings: tuple[Working, ...]
    arrows: tuple[ArrowMark, ...]


class Week(Typed):
    """One week of the season; gusts at the plant in m/s, and what stands on the face."""

    date: str
    label: str
    short: str
    limit: float
    limit_text: str
    saturated: float
    median: float
    weakest: str
    usual: float
    rare: float
    lean: tuple[float, float, float]
    sag: tuple[float, float, float]


class Foliage(Typed):
    """A planting by week: height, leaf cover and hanging mass of one plant."""

    crop: str
    name: str
    habit: str
    top: tuple[float, ...]
    bottom: float
    cover: tuple[float, ...]
    depth: float
    fruit_kg: tuple[float, ...]
    fruit_size: float


class RemarkReport(Typed):
    """Something to know apart from strength."""

    key: str
    level: Literal["fine", "watch", "wrong"]
    text: str
    source: str
    levers: tuple[str, ...]


class PartReport(Typed):
    """One line of the shopping list; `price_key` is what an own price of it is kept under, `shelf` where a
    shop keeps it, `own` what of the shed it is; `missing` says that no more of it is to be had.
    """

    key: str
    price_key: str
    name: str
    use: str
    count: int
    buy: str
    price: float
    cost: float
    lasts: str
    shelf: str
    own: str
    missing: bool


class CutReport(Typed):
    """Some lengths of stock that are cut alike: what of, how many, which cuts with their lengths as written,
    what is left of each, and whether less would do.
    """

    name: str
    use: str
    bars: int
    length: float
    length_text: str
    cuts: tuple[tuple[float, str], ...]
    rest: float
    rest_text: str
    own: str
    looked: str


class CostReport(Typed):
    """What a structure costs: now, in a season over its life, for each plant, for each kilogram or pound of
    the usual crop; why.
    """

    season: str
    plant: str
    crop: str
    said: str


class PriceLine(Typed):
    """A price that a list changes: the item, the gardener's own price before, and the new one."""

    name: str
    before: str
    after: str


class PricesReport(Typed):
    """What a supplier's list changes, and what should be known of it first."""

    supplier: str
    lines: tuple[PriceLine, ...]
    warned: tuple[str, ...]


class Brief(Typed):
    """How a structure stands, as a list says it."""

    state: State
    words: str
    limit_text: str
    forecast_text: str
    required_text: str
    return_period_text: str
    weakest: str
    weakest_text: str
    week: int
    week_label: str


class Headline(Brief):
    """The answer in a gardener's words."""

    sentence: str
    limit: float
    saturated_text: str
    median_text: str
    probability: float
    return_period_range: str
    return_period_said: str
    required_said: str
    taught_said: str = ""
    spare_text: str
    crop_load_factor_text: str
    by: str
    beside: str


class FixReport(Typed):
    """One change that helps, with what it does and costs."""

    option: str
    value: Any
    words: str
    limit: float
    limit_text: str
    link_limit_text: str
    holds: bool
    cost: float
    cost_text: str


class LinkFixes(Typed):
    """Fixes of a link, cheapest that holds first; `said` where they were tried on a stretch of it."""

    link: str
    fixes: tuple[FixReport, ...]
    said: str


class WayReport(Typed):
    """One way towards a wish, in words, with the changes that go there."""

    text: str
    reaches: bool
    changes: dict[str, float]


class WishReport(Typed):
    """The numbers of a wish as people write them, and the ways to it, the best first."""

    written: dict[str, str]
    planted: tuple[PlantedReport, ...] = ()
    ways: tuple[WayReport, ...]


class SensitivityInput(Typed):
    """An input that is not well known, and the limit gust if it were as low or as high as it may be."""

    name: str
    low_text: str
    high_text: str
    range: float
    certainty: str


class SensitivityReport(Typed):
    """The inputs that move a limit gust most; `said` where that was tried on a stretch of it."""

    inputs: tuple[SensitivityInput, ...]
    said: str


class CurvePoint(Typed):
    """What comes of one value of an option: limit gust [m/s], cost, and the link that goes first."""

    value: Any
    text: str
    limit: float
    limit_text: str
    cost: float
    cost_text: str
    governs: str
    holds: bool


class CurveReport(Typed):
    """What moves it: the limit gust and the cost against one option over its range; `ordered` where its
    values are a quantity.
    """

    option: str
    label: str
    ordered: bool
    points: tuple[CurvePoint, ...]
    present: int
    required_gust: float
    says: str


class Sun(Typed):
    """Where the sun stands at an hour of sun time, as the row sees it: along it, to its left, up."""

    hour: int
    text: str
    towards: tuple[float, float, float]


class SolidReport(Typed):
    """A structure in three dimensions in one week, with the sun of its day by the hour, and the whole in
    words.
    """

    solid: Solid
    week: int
    suns: tuple[Sun, ...]
    says: str
    person: float
    person_text: str


class SizingWanted(Typed):
    """What a structure is sized for: an aim, what may be spent, options that stay as they are, what may be
    had.
    """

    aim: Aim = "cheapest"
    budget: float | None = Field(None, ge=0, le=1e7)
    locked: tuple[Annotated[str, Field(max_length=40)], ...] = Field((), max_length=80)
    shed: bool = Field(True, description="whether what the shed has free may be had")


class ChangeReport(Typed):
    """One thing that is changed, what for, and what that costs."""

    words: str
    why: str
    cost_text: str


class Sizing(Typed):
    """A structure sized: changes that together do what was asked, or what stops them; through how many ways
    it was looked; `said` where that was done on a stretch of it.
    """

    changes: dict[str, Any]
    words: tuple[ChangeReport, ...]
    limit_text: str
    holds: bool
    cost_text: str
    stopped: str
    looked: str
    said: str
    taken: tuple[Taken, ...] = ()


class PlantedReport(Typed):
    """When a planting is planted, in which years it could be, and what becomes of it."""

    planting: str
    on: dt.date
    years: tuple[int, ...]
    verdict: Verdict
    words: str


class Report(Typed):
    """Everything a screen or a printed report shows of one structure."""

    headline: Headline
    links: tuple[LinkReport, ...]
    weeks: tuple[Week, ...]
    foliage: tuple[Foliage, ...]
    required_gust: float
    serviceability_wind: float
    winds: tuple[str, str, str]
    speed_unit: str
    speed_scale: float
    remarks: tuple[RemarkReport, ...]
    cautions: tuple[str, ...]
    parts: tuple[PartReport, ...]
    cuts: tuple[CutReport, ...]
    costs: CostReport
    cost: float
    cost_text: str
    views: tuple[View, ...]
    exaggeration: float
    written: dict[str, str]
    planted: tuple[PlantedReport, ...] = ()
