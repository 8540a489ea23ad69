"""The shed-door sheet: what is to do on the next days of visits, on one page, with boxes and no reasons."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence

from ..drawing.paper import Block, Heading, Listed, Paper, Text
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..words.texts import template
from .season import week_report
from .season_readout import DayReport, VisitReport, WeekReport

_LINES = 34  # of tasks that one page takes
_LETTERS = 78  # of one line
_HEADED = 2  # lines that a heading is worth
_LEAST = 3  # lines that are left for a day before it is begun


def shed_door_sheet(
    garden: Garden, today: dt.date, log: Sequence[Entry] = (), storm: Sequence[str] = ()
) -> Paper:
    """Return what is to do on the next days of visits, as many of them as one page takes.

    Args:
        garden: The garden.
        today: Of it.
        log: What happened in it that its season hangs on.
        storm: What is said of a storm, a frost or heat that is forecast, a line each.
    """
    week = week_report(garden, today, log)
    names = {structure.key: structure.name for bed in garden.beds for structure in bed.structures}
    blocks: list[Block] = [Heading(template("door.title").format(garden=garden.name), 1)]
    blocks += [Text(line, "care") for line in storm]
    left = _LINES - sum(_lines(line) + 1 for line in storm)
    for day in _days(week):
        if left < _HEADED + _LEAST:
            break
        rows = [row for visit in day.visits if (row := _row(visit, names))]
        if not rows:
            continue
        told, left = _fitting(rows, left - _HEADED)
        blocks.append(Heading(template("door.day").format(day=day.label, minutes=day.minutes)))
        blocks.append(Listed(tuple(told), boxes=True, large=True))
        if len(told) < len(rows):
            blocks.append(Text(template("door.more").format(count=len(rows) - len(told)), "quiet"))
            left -= 1
    if week.overdue:
        count = sum(len(visit.tasks) for visit in week.overdue)
        blocks.append(Text(template("door.overdue").format(count=count), "quiet"))
    return Paper(
        template("door.title").format(garden=garden.name), f"{garden.name}, {week.label}", tuple(blocks)
    )


def _days(week: WeekReport) -> list[DayReport]:
    return [*([week.now] if week.now else []), *week.coming]


def _row(visit: VisitReport, names: dict[str, str]) -> str:
    """Return the line of one structure: what is still to do there, and the minutes of it."""
    open_ = [task.title for task in visit.tasks if task.state is None and not task.waits]
    if not open_:
        return ""
    return template("door.row").format(
        name=names.get(visit.structure, visit.structure),
        tasks="; ".join(title[:1].lower() + title[1:] for title in open_),
        minutes=visit.minutes,
    )


def _lines(text: str) -> int:
    return max(math.ceil(len(text) / _LETTERS), 1)


def _fitting(rows: Sequence[str], left: int) -> tuple[list[str], int]:
    """Return the rows that so many lines take, and the lines that are left."""
    told: list[str] = []
    for row in rows:
        if left < _lines(row):
            break
        told.append(row)
        left -= _lines(row)
    return told, left
