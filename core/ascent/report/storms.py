"""The weather that comes and that was, in words."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from functools import partial
from types import MappingProxyType

from .. import tables
from ..errors import guarded
from ..files.weather import Day, WindForecast
from ..plan.garden import Garden
from ..plan.record import Diary
from ..plan.structure import as_it_stands
from ..season.storm import (
    GAIN,
    PICK,
    SEVERE,
    SOAKS,
    TRIGGER,
    WITH,
    Move,
    StormCheck,
    at_the_plant,
    storm_check,
)
from ..site import plain_site
from ..words.quantities import System, write
from ..words.texts import say, template
from .cold_and_heat import cold_report, heat_report
from .season_parts import date_text
from .storm_readout import AfterReport, AfterRow, DayAhead, MoveReport, StormReport, StormRow, WeatherReport

_AHEAD, _BACK = 2, 3  # days ahead that are watched, and back in which one looks
_LOOK = 0.7  # of the limit: what was blown harder than that is looked at
_ORDER = {"goes": 0, "may-go": 1, "holds": 2, "bare": 3}
_STALE = 30  # hours after which a forecast's age is said as old


def weather_report(
    garden: Garden,
    today: dt.date,
    forecast: WindForecast,
    seen: Sequence[Day],
    now: dt.datetime,
    broken: Mapping[str, frozenset[str]] | None = None,
) -> WeatherReport:
    """Return the weather of a garden as it is forecast and was seen.

    Args:
        garden: The garden.
        today: The day it is.
        forecast: As it was issued.
        seen: Days before today, in order.
        now: The hour it is.
        broken: What broke and is not repaired, by support.
    """
    days = [day for day in forecast.days if day.day >= today]
    return WeatherReport(
        station=forecast.station,
        age=_age(forecast, now),
        days=tuple(_day(day, today, garden.units) for day in days[:7]),
        storm=_storm(garden, today, days, broken or {}),
        cold=cold_report(garden, today, days),
        heat=heat_report(garden, today, days),
        after=_after(garden, today, seen),
    )


def _age(forecast: WindForecast, now: dt.datetime) -> str:
    hours = max((now - forecast.issued).total_seconds() / 3600, 0.0)
    key = "weather.old" if hours > _STALE else "weather.fresh"
    return template(key).format(hours=round(hours), days=round(hours / 24))


def _day(day: Day, today: dt.date, system: System) -> DayAhead:
    def written(value: float | None, kind: str) -> str:
        return "–" if value is None else write(value, kind, system)

    ahead = (day.day - today).days
    return DayAhead(
        on=day.day,
        label={0: "today", 1: "tomorrow"}.get(ahead, f"{day.day:%a} {day.day.day}"),
        low=written(day.low, "temperature"),
        high=written(day.high, "temperature"),
        rain=written(None if day.rain is None else day.rain / 1000.0, "rain"),
        gust=written(day.gust, "speed"),
    )


def _storm(
    garden: Garden, today: dt.date, days: Sequence[Day], broken: Mapping[str, frozenset[str]]
) -> StormReport | None:
    """Return the worst day of the next two, where it is a storm for what stands here.

    Source: handbook-season-8
    """
    near = [day for day in days if (day.day - today).days <= _AHEAD and day.gust is not None]
    if not near:
        return None
    worst = max(near, key=lambda day: day.gust or 0.0)
    gust = worst.gust or 0.0
    fell = sum(day.rain or 0.0 for day in near if day.day <= worst.day)
    soaked = fell >= SOAKS
    if gust < TRIGGER and not (soaked and gust >= WITH):
        return None
    checks = _checks(garden, worst.day, gust, soaked, broken)
    checks.sort(key=lambda check: (_ORDER[check.outcome], check.limit / max(check.gust, 1e-9)))
    ahead = (worst.day - today).days
    when = {0: "today", 1: "tomorrow", 2: f"on {worst.day:%A}"}[ahead]
    values = {"gust": (gust, "speed"), "rain": (fell / 1000.0, "rain")}
    words = say("weather.storm", garden.units, values, {"when": when})
    words += " " + say("weather.soaks", garden.units, values) if soaked else ""
    general = ["ripe", "shoots"]
    general += ["covers", "lower"] if gust >= SEVERE else []
    general += ["plumb"] if soaked else []
    told = [check for check in checks if check.outcome in ("goes", "may-go")]
    return StormReport(
        on=worst.day,
        label=f"{worst.day:%A}, {date_text(worst.day)}",
        words=words,
        general=tuple(template(f"weather.general.{key}") for key in general),
        rows=tuple(_row(check, garden.units) for check in told),
        hold=sum(check.outcome == "holds" for check in checks),
        bare=sum(check.outcome == "bare" for check in checks),
        left_out=_left_out(garden, checks),
    )


def _left_out(garden: Garden, checks: Sequence[StormCheck]) -> tuple[str, ...]:
    known = {check.structure for check in checks}
    standing = (structure for bed in garden.beds for structure in bed.structures)
    return tuple(
        template("season.left-out").format(name=each.name) for each in standing if each.key not in known
    )


def _checks(
    garden: Garden,
    on: dt.date,
    gust: float,
    soaked: bool,
    broken: Mapping[str, frozenset[str]] = MappingProxyType({}),
) -> list[StormCheck]:
    """Return how every structure stands in a gust that is forecast for 10 m. [m/s]"""
    checks = []
    for bed in garden.beds:
        site = plain_site(garden, bed)
        felt = at_the_plant(site, gust)
        for structure in bed.structures:
            check = guarded(
                f"a storm at {structure.key}",
                partial(
                    storm_check,
                    site,
                    as_it_stands(structure),
                    on,
                    felt,
                    soaked,
                    broken.get(structure.key, frozenset()),
                ),
                None,
            )
            checks += [check] if check else []
    return checks


def _row(check: StormCheck, system: System) -> StormRow:
    values = {
        "gust": (check.gust, "speed"),
        "limit": (check.limit, "speed"),
        "median": (check.median, "speed"),
    }
    moves = tuple(_move(move, check, system) for move in check.moves)
    link = f"link.{check.weakest}"
    return StormRow(
        structure=check.structure,
        outcome=check.outcome,
        brief=say("weather.brief", system, values),
        words=say(f"weather.{check.outcome}", system, values),
        weakest=template(link),
        moves=moves,
        together=write(check.done, "speed", system) if sum(bool(move.after) for move in moves) > 1 else "",
    )


def _move(move: Move, check: StormCheck, system: System) -> MoveReport:
    row = None if move.key == PICK else tables.storm_moves()[move.key]
    return MoveReport(
        key=move.key,
        title=row.title if row else template("weather.pick.title"),
        how=row.how if row else template("weather.pick.how"),
        minutes=round(move.minutes),
        after=write(move.limit, "speed", system) if move.limit >= check.limit + GAIN else "",
    )


def _after(garden: Garden, today: dt.date, seen: Sequence[Day]) -> AfterReport | None:
    """Return the last storm of the days before, while one still goes and looks."""
    past = [day for day in seen if 0 < (today - day.day).days <= _BACK and (day.gust or 0.0) >= TRIGGER]
    if not past:
        return None
    worst = max(past, key=lambda day: day.gust or 0.0)
    gust = worst.gust or 0.0
    soaked = (worst.rain or 0.0) >= SOAKS
    diaries = {diary.structure: diary for diary in garden.diaries}
    checks = _checks(garden, worst.day, gust, soaked)
    checks.sort(key=lambda check: check.limit / max(check.gust, 1e-9))
    values = {"gust": (gust, "speed")}
    return AfterReport(
        on=worst.day,
        words=say("weather.after", garden.units, values, {"day": date_text(worst.day)}),
        rows=tuple(
            _looked(check, diaries.get(check.structure), worst.day)
            for check in checks
            if check.gust > _LOOK * check.limit
        ),
    )


def _looked(check: StormCheck, diary: Diary | None, day: dt.date) -> AfterRow:
    found = diary.storms.get(day.isoformat()) if diary else None
    link = f"link.{check.weakest}"
    named = template(link)
    return AfterRow(
        structure=check.structure,
        look=template("weather.look").format(weakest=named),
        found=found.found if found else None,
        note=found.note if found else "",
    )
