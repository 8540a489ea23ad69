"""The season in words: the days in the garden, and the year of each structure."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence

import numpy as np

from ..ground.plot import bed_middle
from ..loads.cases import CROP_FACTORS
from ..plan.bed import Bed
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.structure import Structure, as_it_stands
from ..season.kept import Kept, everything, not_again, visited_on
from ..season.skipped import TRIPLED_BY, missed
from ..season.visits import Due, Visit, walk
from ..site import plain_site
from ..wording import gust_text
from ..words.quantities import System
from ..words.texts import template
from .season_parts import date_text, rescues
from .season_readout import DayReport, VisitReport, WeekReport
from .tasks import task_report, waiting_words

_AHEAD = 8  # days that are shown to come
_BEHIND = 10  # days back that what was left is still shown


def left_out(garden: Garden, kept: Iterable[Kept]) -> tuple[str, ...]:
    """Return what is said of each structure whose season cannot be calculated."""
    known = {each.structure.key for each in kept}
    standing = (structure for bed in garden.beds for structure in bed.structures)
    return tuple(
        template("season.left-out").format(name=each.name) for each in standing if each.key not in known
    )


def week_report(garden: Garden, today: dt.date, log: Iterable[Entry] = ()) -> WeekReport:
    """Return the days in the garden about a day, by its plan and by what happened."""
    kept = everything(garden, log)
    order = walk({each.structure.key: _middle(each.bed, each.structure) for each in kept})
    by_key = {each.structure.key: each for each in kept}
    days: dict[dt.date, list[VisitReport]] = {}
    overdue: list[VisitReport] = []
    now = visited_on(garden, today)
    for key in order:
        each = by_key[key]
        left: list[Due] = []
        for visit in each.visits:
            if now <= visit.on <= today + dt.timedelta(days=_AHEAD):
                report = _visit(each, visit, visit.due, today, garden.units)
                days.setdefault(max(visit.on, now), []).append(report)
            elif today - dt.timedelta(days=_BEHIND) <= visit.on < now:
                left += [due for due in visit.due if due.open]
        fresh = not_again(left, each.visits, now)
        if fresh:
            overdue.append(_visit(each, Visit(key, fresh[0].on, tuple(fresh)), fresh, today, garden.units))
    reports = [_day(day, today, days[day]) for day in sorted(days)]
    first = reports[0] if reports and reports[0].on == now else None
    return WeekReport(
        today=today,
        season=garden.year,
        label=f"{today:%A} {date_text(today)}",
        now=first,
        overdue=tuple(overdue),
        rescues=tuple(rescues(garden, kept, today)),
        coming=tuple(reports[1:] if first else reports),
        left_out=left_out(garden, kept),
    )


def _middle(bed: Bed, structure: Structure) -> tuple[float, float]:
    at = bed_middle(bed).out(np.array([[structure.along, structure.across]]))[0]
    return float(at[0]), float(at[1])


def _day(on: dt.date, today: dt.date, visits: list[VisitReport]) -> DayReport:
    ahead = (on - today).days
    said = {0: "Today", 1: "Tomorrow"}.get(ahead, f"{on:%A}")
    return DayReport(
        on=on,
        label=f"{said}, {date_text(on)}",
        minutes=sum(visit.minutes for visit in visits),
        visits=tuple(visits),
    )


def _visit(each: Kept, visit: Visit, dues: Sequence[Due], today: dt.date, system: System) -> VisitReport:
    waits = [waiting_words(each, due, today) for due in dues]
    return VisitReport(
        structure=each.structure.key,
        on=visit.on,
        minutes=round(
            sum(due.task.minutes for due, why in zip(dues, waits, strict=True) if due.open and not why)
        ),
        tasks=tuple(
            task_report(each.tended, due, today, system, why) for due, why in zip(dues, waits, strict=True)
        ),
    )


def skipped_words(garden: Garden, bed: Bed, structure: Structure, today: dt.date) -> str:
    """Return what it does to a structure when its picks are missed, once and three times."""
    still = as_it_stands(structure)
    told = []
    for picks in (1, TRIPLED_BY):
        found = missed(plain_site(garden, bed), still, today, picks)
        if found is None:
            return template("skipped.none")
        told.append(
            template("skipped.words").format(
                picks=template("skipped.once" if picks == 1 else "skipped.often").format(picks=picks),
                hangs=f"{found.hangs:.1f}",
                before=_times(found.margin),
                after=_times(found.margin_after),
                limit=gust_text(found.limit, garden.units),
                limit_after=gust_text(found.limit_after, garden.units),
            )
        )
    return " ".join(told)


def _times(margin: float) -> str:
    """Return a crop load factor in words, within the range that is calculated."""
    most = float(CROP_FACTORS[-1])
    return f"over {most:.0f} times" if margin >= most else f"{max(margin, 0.0):.1f} times"
