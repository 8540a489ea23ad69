"""A garden's season as entries of a calendar: its days of visits, and what begins or ends."""

from __future__ import annotations

import datetime as dt
from collections import defaultdict
from collections.abc import Iterator, Sequence

from ..files.calendar_file import CalendarEntry
from ..plan.entries import Entry as LogEntry
from ..plan.garden import Garden
from ..season.kept import Kept, everything
from ..season.visits import Visit
from ..words.texts import template
from .log import Where, entry_words, place_words
from .tasks import task_title

MILESTONES = ("build", "build-day", "sow-pots", "sow", "plant", "pick-once", "clear", "take-down")
TOLD_FOR = dt.timedelta(days=30)  # that what was written in the log is told
_MOST_LINES = 60  # of the text of one entry


def entries_of(garden: Garden, today: dt.date, log: Sequence[LogEntry] = ()) -> list[CalendarEntry]:
    """Return the entries of a garden's calendar, those of days to come with what is still to do.

    A day of visits is one entry, known again by its day; whatever begins or ends is one of its own, known
    again by its task, so that it moves and is not doubled. A day of the last month on which something was
    written in the log has one more, with what was written and nobody’s name.

    Args:
        garden: The garden.
        today: Of it.
        log: What happened in it that its season hangs on.
    """
    kept = everything(garden, log)
    days: dict[dt.date, list[tuple[Kept, Visit]]] = defaultdict(list)
    for each in kept:
        for visit in each.visits:
            days[visit.on].append((each, visit))
    entries = [_day(garden, on, visits) for on, visits in sorted(days.items())]
    entries += [entry for each in kept for entry in _milestones(each, garden)]
    told = [entry for entry in entries if entry.minutes or entry.hour is None or entry.on < today]
    return [*told, *_written(garden, log, today)]


def _written(garden: Garden, log: Sequence[LogEntry], today: dt.date) -> Iterator[CalendarEntry]:
    """Yield the days of the last month on which something was written in the log, with what."""
    names = {bed.key: bed.name for bed in garden.beds}
    names |= {structure.key: structure.name for bed in garden.beds for structure in bed.structures}
    days: dict[dt.date, list[str]] = {}
    where = Where(names, {})
    for each in sorted(log, key=lambda entry: (entry.on, entry.at, entry.key)):
        if today - TOLD_FOR <= each.on <= today:
            said = entry_words(each, garden.units, garden.currency)
            place = place_words(each, where)
            days.setdefault(each.on, []).append(f"{place}: {said}" if place else said)
    for on, lines in days.items():
        title = template("calendar.written").format(garden=garden.name, count=len(lines))
        more = len(lines) - _MOST_LINES
        told = lines[:_MOST_LINES] + ([template("calendar.more").format(count=more)] if more > 0 else [])
        yield CalendarEntry(f"log-{on.isoformat()}", on, title, "\n".join(told), sort="log")


def _day(garden: Garden, on: dt.date, visits: Sequence[tuple[Kept, Visit]]) -> CalendarEntry:
    open_ = [(each, visit) for each, visit in visits if visit.minutes]
    minutes = sum(visit.minutes for _, visit in open_)
    lines = []
    for each, visit in open_:
        titles = ", ".join(task_title(each.tended, due.task, garden.units) for due in visit.due if due.open)
        lines.append(f"{each.structure.name} ({round(visit.minutes)} min): {titles}")
    more = len(lines) - _MOST_LINES
    lines = lines[:_MOST_LINES] + ([template("calendar.more").format(count=more)] if more > 0 else [])
    title = template("calendar.day").format(garden=garden.name, visits=len(open_), minutes=round(minutes))
    return CalendarEntry(
        f"day-{on.isoformat()}", on, title, "\n".join(lines), garden.visit_hour, minutes, sort="visits"
    )


def _milestones(each: Kept, garden: Garden) -> list[CalendarEntry]:
    entries = []
    for visit in each.visits:
        for due in visit.due:
            if due.task.job not in MILESTONES:
                continue
            title = f"{each.structure.name}: {task_title(each.tended, due.task, garden.units)}"
            key = f"{each.structure.key}-{due.task.key}"
            entries.append(CalendarEntry(key, visit.on, title, due.task.row.tools, sort=due.task.row.sort))
    return entries
