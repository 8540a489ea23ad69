"""What becomes of a planting, in a sentence or two."""

from __future__ import annotations

import datetime as dt

from .. import tables
from ..loads.outlook import least_night, opened
from ..plan.place import Place
from ..plan.structure import Planting
from ..season.windows import Fate, fate_of
from ..weather.course import turn_of
from ..words.quantities import System, write
from ..words.texts import template
from .readout import PlantedReport
from .season_parts import date_text
from .tasks import chance_text

_HARDLY = 0.01  # chance of a frost of spring below which it is one of autumn that comes


def fate_words(place: Place, planting: Planting, fate: Fate, system: System) -> str:
    """Return what becomes of a planting, in a sentence or two."""
    calendar = tables.calendars()[planting.crop]
    turns = turn_of(place)

    def said(day: float) -> str:
        return date_text(turns + dt.timedelta(days=round(day)))

    window = opened(fate.windows, fate.course.start)
    nights = least_night(calendar)
    night, soil = fate.values.get("night", 0.0), fate.values.get("soil", 0.0)
    words = {
        "frost": chance_text(fate.frost),
        "opens": said(window.first) if window else "",
        "soil": write(soil, "temperature", system),
        "least": write(calendar.soil_C, "temperature", system),
        "night": write(night, "temperature", system),
        "night_least": write(nights or 0.0, "temperature", system),
        "days": str(fate.late),
        "share": f"{100 * fate.share:.0f}",
        "last": said(fate.last) if fate.last is not None else "",
        "lives": f"{10 * fate.lives:.0f}",
    }
    key: str = fate.verdict
    if key == "late" and (fate.last is None or not fate.late):
        key = "late-now"
    if key == "cold":
        chilled = nights is not None and night < nights and soil >= calendar.soil_C
        key = "cold-never" if not window else "cold-night" if chilled else "cold"
    if key == "early":
        key = "short" if not window else "frozen" if fate.frost < _HARDLY else "early"
    if key == "hot":
        key = "hot-never" if not fate.windows else "hot-cool" if calendar.cool else "hot"
    sentence = template(f"fate.{key}").format(**words)
    if fate.verdict in ("hot", "winter") and fate.windows:
        spans = " or ".join(
            template("fate.window").format(first=said(window.first), last=said(window.last))
            for window in fate.windows
        )
        sentence += template("fate.windows").format(windows=spans)
    if fate.potted:
        sentence += template("fate.potted").format(first=said(fate.potted.first), last=said(fate.potted.last))
    if fate.hopeless:
        sentence += template("fate.hopeless")
    return sentence


def planted_report(place: Place, planting: Planting, system: System) -> PlantedReport:
    """Return when a planting is planted, in which years it could be, and what becomes of it."""
    fate = fate_of(place, planting)
    return PlantedReport(
        planting=planting.key,
        on=turn_of(place) + dt.timedelta(days=fate.course.start),
        years=tuple(range(place.year - 1, place.year + 2)),
        verdict=fate.verdict,
        words=fate_words(place, planting, fate, system),
    )
