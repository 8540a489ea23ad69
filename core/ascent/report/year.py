"""The year of a garden in words: what grows when, what is in the way, what comes in."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import replace

import numpy as np

from .. import tables
from ..mechanics import Array, growth
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..season.kept import Kept, everything
from ..season.tasks import GrownPlanting
from ..season.windows import fate_of, instead
from ..weather.course import turn_of
from ..weather.frosts import frosts_of
from ..words.quantities import System
from ..words.texts import template
from .fates import fate_words
from .hours import hours_report
from .season import left_out
from .season_parts import clash_reports, date_text, harvest_report, turn_report
from .season_readout import ClosingReport, GrowingReport, StillReport, YearReport, YearRow
from .tasks import chance_text

_CLEARED_BY = 21  # days after its end that a planting is likely to be cleared
_MOST_WEEKS = 80  # of the sheet: a crop sown in autumn, and all of the next season
_WAITS = ("early", "cold")
_FAILS = ("late", "short", "hot", "winter")


def year_report(garden: Garden, today: dt.date, log: Iterable[Entry] = ()) -> YearReport:
    """Return a garden's year, by its plan and by what happened."""
    kept = everything(garden, log)
    mondays = _mondays(garden, kept)
    frosts, turns = frosts_of(garden), turn_of(garden)
    words = template("frosts.free")
    ends: tuple[dt.date | None, dt.date | None] = (None, None)
    if frosts and not frosts.usual:
        words = template("frosts.mild").format(
            winters=frosts.years,
            years=round(frosts.years / frosts.winters),
            last=date_text(turns + dt.timedelta(days=round(frosts.last))),
        )
    elif frosts:
        about = [frosts.last, frosts.first, frosts.last_with(0.1), frosts.first_with(0.1)]
        dates = [turns + dt.timedelta(days=round(day)) for day in about]
        last, first, late, early = (date_text(date) for date in dates)
        words = template("frosts.words").format(last=last, first=first, late=late, early=early)
        words += template("frosts.record").format(years=frosts.years) if frosts.years else ""
        ends = (dates[0], dates[1])
    return YearReport(
        label=_years(mondays[0].year, mondays[-1].year),
        closing=_closing(garden, kept, today),
        today=today,
        mondays=mondays,
        last_frost=ends[0],
        first_frost=ends[1],
        frost_words=words,
        warmth_words="" if garden.warmth else template("frosts.none"),
        rows=tuple(year_row(each, mondays, today, garden.units) for each in kept),
        clashes=tuple(clash for each in kept for clash in clash_reports(each.tended)),
        turns=tuple(turn_report(garden, bed) for bed in garden.beds),
        harvest=harvest_report(garden, kept, mondays, today),
        hours=hours_report(garden, kept, mondays),
        left_out=left_out(garden, kept),
    )


def _closing(garden: Garden, kept: Sequence[Kept], today: dt.date) -> ClosingReport:
    """Return what closing the season today comes to."""
    still = [
        said
        for each in kept
        for grown in each.tended.grown
        if (said := _still(each, grown, today)) is not None
    ]
    still += [
        StillReport(
            structure=each.structure.key,
            planting="",
            words=template("season.still-stands").format(name=each.structure.name),
            cleared=False,
        )
        for each in kept
        if each.tended.built or each.structure.built
    ]
    return ClosingReport(
        year=garden.year,
        begun=any(
            grown.season == garden.year and grown.date(grown.course.start) <= today
            for each in kept
            for grown in each.tended.grown
        ),
        still=tuple(still),
    )


def _still(each: Kept, grown: GrownPlanting, today: dt.date) -> StillReport | None:
    """Return what is said of a planting that is not cleared; nothing where it is ticked so."""
    ticked = any(
        due.task.job == "clear" and due.task.planting == grown.planting.key and not due.open
        for visit in each.visits
        for due in visit.due
    )
    if ticked:
        return None
    start, end = grown.date(grown.course.start), grown.date(grown.course.end)
    key = "still-comes" if start > today else "still-grows" if end > today else "still-there"
    words = {
        "name": each.structure.name,
        "crop": grown.crop.called,
        "end": date_text(end),
        "on": date_text(start, today.year),
    }
    return StillReport(
        structure=each.structure.key,
        planting=grown.planting.key if start <= today else "",
        words=template(f"season.{key}").format(**words),
        cleared=end + dt.timedelta(days=_CLEARED_BY) < today,
    )


def _years(first: int, last: int) -> str:
    return str(first) if first == last else f"{first}/{last % 100:02d}"


def _mondays(garden: Garden, kept: Sequence[Kept]) -> tuple[dt.date, ...]:
    """Return the Mondays from the first to the last week in which anything is due or grows."""
    turns = turn_of(garden)
    days = [visit.on for each in kept for visit in each.visits]
    days += [grown.date(grown.course.end) for each in kept for grown in each.tended.grown]
    first = min(days, default=turns - dt.timedelta(days=60))
    last = max(days, default=turns + dt.timedelta(days=200))
    last = min(last, first + dt.timedelta(days=7 * _MOST_WEEKS - 1))
    begins = first - dt.timedelta(days=first.weekday())
    return tuple(begins + dt.timedelta(days=7 * n) for n in range((last - begins).days // 7 + 1))


def year_row(each: Kept, mondays: Sequence[dt.date], today: dt.date, system: System) -> YearRow:
    """Return a structure's year, week by week."""
    minutes = [0.0] * len(mondays)
    for visit in each.visits:
        week = (visit.on - mondays[0]).days // 7
        if 0 <= week < len(mondays):
            minutes[week] += sum(due.task.minutes for due in visit.due)
    return YearRow(
        structure=each.structure.key,
        growing=tuple(_growing(each, grown, mondays, today, system) for grown in each.tended.grown),
        minutes=tuple(round(m) for m in minutes),
    )


def _growing(
    each: Kept, grown: GrownPlanting, mondays: Sequence[dt.date], today: dt.date, system: System
) -> GrowingReport:
    place, planting, course = each.tended.site.garden, grown.planting, grown.course
    fate = fate_of(place, planting)
    if fate.verdict in _WAITS and grown.date(course.start) < today:
        fate = replace(fate, verdict="good")  # it has come through
    calendar = grown.calendar
    sown = grown.date(course.start - calendar.indoors_d) if grown.potted and calendar.indoors_d else None
    offset = (mondays[0] - grown.pace.turns).days
    days: Array = offset + 3.5 + 7.0 * np.arange(len(mondays), dtype=np.float64)
    since = grown.pace.upto(days) - float(grown.pace.upto(course.start)) + course.ahead
    share = growth.logistic(since, grown.crop.t50_d, grown.crop.t95_d)
    share = np.where((days >= course.start) & (days < course.end), share, 0.0)
    others = instead(place, planting, each.structure.family) if fate.verdict in _FAILS else ()
    names = ", ".join(tables.crops()[key].name for key in others)
    return GrowingReport(
        planting=planting.key,
        crop=planting.crop,
        name=grown.crop.name,
        sown=sown,
        planted=grown.date(course.start),
        first=grown.date(course.first),
        gone=grown.date(course.end),
        verdict=fate.verdict,
        words=fate_words(place, planting, fate, system),
        instead=template("fate.instead").format(crops=names) if names else "",
        frost=chance_text(fate.frost) if frosts_of(place) else "",
        windows=tuple((grown.date(window.first), grown.date(window.last)) for window in fate.windows),
        window_words=tuple(
            template(f"fate.closes.{window.closes}").format(
                first=date_text(grown.date(window.first)), last=date_text(grown.date(window.last))
            )
            for window in fate.windows
        ),
        share=tuple(round(float(value), 3) for value in share),
    )
