"""A garden's season as entries of a calendar: its days of visits, or each of its tasks."""

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

TOLD_FOR = dt.timedelta(days=30)  # that what was written in the log is told
_MOST_LINES = 60  # of the text of one entry


def entries_of(
    garden: Garden, today: dt.date, log: Sequence[LogEntry] = (), *, each_task: bool = False
) -> list[CalendarEntry]:
    """Return the entries of a garden's calendar, those of days to come with what is still to do.

    A day of visits is one entry with all of its tasks, known again by its day. On wish each task is one of
    its own instead, known again by itself, so that it moves and is not doubled. A day of the last month on
    which something was written in the log has one more, with what was written and nobody’s name.

    Args:
        garden: The garden.
        today: Of it.
        log: What happened in it that its season hangs on.
        each_task: Whether each task is an entry.
    """
    kept = everything(garden, log)
    written = _written(garden, log, today)
    if each_task:
        return [*(entry for each in kept for entry in _tasks(each, garden, today)), *written]
    days: dict[dt.date, list[tuple[Kept, Visit]]] = defaultdict(list)
    for each in kept:
        for visit in each.visits:
            if visit.minutes or visit.on < today:
                days[visit.on].append((each, visit))
    return [*(_day(garden, on, visits) for on, visits in sorted(days.items())), *written]


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
    """Return a day of visits: with what is still to do, or, where all of it is done, with what was."""
    left = [(each, visit, True) for each, visit in visits if visit.minutes]
    told = left or [(each, visit, False) for each, visit in visits]
    lines, minutes = [], 0.0
    for each, visit, open_ in told:
        due = [due for due in visit.due if due.open == open_]
        taken = sum(one.task.minutes for one in due)
        titles = ", ".join(task_title(each.tended, one.task, garden.units) for one in due)
        lines.append(f"{each.structure.name} ({round(taken)} min): {titles}")
        minutes += taken
    more = len(lines) - _MOST_LINES
    lines = lines[:_MOST_LINES] + ([template("calendar.more").format(count=more)] if more > 0 else [])
    title = template("calendar.day").format(garden=garden.name, visits=len(told), minutes=round(minutes))
    return CalendarEntry(
        f"day-{on.isoformat()}", on, title, "\n".join(lines), garden.visit_hour, minutes, sort="visits"
    )


def _tasks(each: Kept, garden: Garden, today: dt.date) -> Iterator[CalendarEntry]:
    """Yield each task of a structure that is still to do, or whose day has passed."""
    for visit in each.visits:
        for due in visit.due:
            if due.open or visit.on < today:
                title = f"{each.structure.name}: {task_title(each.tended, due.task, garden.units)}"
                key = f"{each.structure.key}-{due.task.key}"
                yield CalendarEntry(key, visit.on, title, due.task.row.tools, sort=due.task.row.sort)
