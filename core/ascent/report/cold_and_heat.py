"""A cold night and hot days that are forecast, in words."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from ..files.weather import Day
from ..plan.garden import Garden
from ..season.kept import Kept, everything
from ..season.watch import Act, Threatened, cold_watch, heat_watch
from ..words.quantities import System, write
from ..words.texts import say, template
from .season_parts import date_text
from .storm_readout import ActReport, ColdReport, ColdRow, HeatReport

_AHEAD = 2  # days that are watched
_CRUMB = 0.05  # that is not worth saying [kg]


def _near(days: Sequence[Day], today: dt.date) -> list[Day]:
    return [day for day in days if 0 <= (day.day - today).days <= _AHEAD]


def _when(day: Day, today: dt.date) -> str:
    ahead = (day.day - today).days
    return {0: "tonight", 1: "tomorrow"}.get(ahead, f"on {day.day:%A}")


def cold_report(garden: Garden, today: dt.date, days: Sequence[Day]) -> ColdReport | None:
    """Return the coldest of the nights that come, where it kills anything that grows here."""
    nights = [day for day in _near(days, today) if day.low is not None]
    if not nights:
        return None
    coldest = min(nights, key=lambda day: day.low if day.low is not None else 0.0)
    low = coldest.low or 0.0
    found = cold_watch(everything(garden), coldest.day, low)
    if not found:
        return None
    when = _when(coldest, today)
    return ColdReport(
        on=coldest.day,
        words=say("cold.words", garden.units, {"low": (low, "temperature")}, {"when": when}),
        rows=tuple(_cold_row(one, garden.units) for one in found),
    )


def _cold_row(one: Threatened, system: System) -> ColdRow:
    values = {"kills": (one.kills, "temperature")}
    words = say(f"cold.{one.outcome}", system, values, {"crop": one.grown.crop.called})
    return ColdRow(
        structure=one.kept.structure.key,
        planting=one.grown.planting.key,
        outcome=one.outcome,
        words=words[:1].upper() + words[1:],
        acts=tuple(_act(act, system) for act in one.acts),
    )


def _act(act: Act, system: System) -> ActReport:
    return ActReport(
        key=act.key,
        title=template(f"cold.act.{act.key}"),
        how=template(f"cold.how.{act.key}"),
        minutes=round(act.minutes),
        saves=write(act.saves_kg, "mass", system) if act.saves_kg > _CRUMB else "",
    )


def heat_report(garden: Garden, today: dt.date, days: Sequence[Day]) -> HeatReport | None:
    """Return the hottest of the days that come, where anything that flowers here sets nothing on it."""
    near = [day for day in _near(days, today) if day.high is not None]
    if not near:
        return None
    hottest = max(near, key=lambda day: day.high or 0.0)
    high = hottest.high or 0.0
    found = heat_watch(everything(garden), hottest.day, high)
    if not found:
        return None
    crops: dict[str, list[Kept]] = {}
    limits, later = {}, {}
    for one in found:
        name = one.grown.crop.called
        crops.setdefault(name, []).append(one.kept)
        limits[name] = one.limit
        later[name] = hottest.day + dt.timedelta(days=one.days)
    told = []
    for name, places in crops.items():
        words = {
            "crop": name,
            "where": ", ".join(dict.fromkeys(each.structure.name for each in places)),
            "later": date_text(later[name]),
        }
        sentence = say("heat.crop", garden.units, {"limit": (limits[name], "temperature")}, words)
        told.append(sentence[:1].upper() + sentence[1:])
    ahead = (hottest.day - today).days
    when = {0: "today", 1: "tomorrow"}.get(ahead, f"on {hottest.day:%A}")
    return HeatReport(
        on=hottest.day,
        words=say("heat.words", garden.units, {"high": (high, "temperature")}, {"when": when}),
        crops=tuple(told),
        acts=(template("heat.water"), template("heat.shade"), template("heat.ripe")),
    )
