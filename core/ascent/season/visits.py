"""Visits: what is due merged onto the days on which people come, in the order in which they walk."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..plan.record import Diary, Marked
from .tasks import Task

_NOT_BEFORE = ("sow", "plant", "clear", "take-down", "pick-once", "sow-pots")  # never early
_EARLY = 4  # days that other work may come before its first day, where nobody comes in between


@dataclass(frozen=True)
class Due:
    """A task on the day of a visit, with what became of it."""

    task: Task
    on: dt.date
    mark: Marked | None

    @property
    def open(self) -> bool:
        """Return whether it is still to do."""
        return self.mark is None


@dataclass(frozen=True)
class Visit:
    """What is done at one structure on one day."""

    structure: str
    on: dt.date
    due: tuple[Due, ...]

    @property
    def minutes(self) -> float:
        """Return the minutes of one person that are still to do."""
        return sum(due.task.minutes for due in self.due if due.open)


def visit_day(task: Task, weekdays: Sequence[int]) -> dt.date:
    """Return the day on which a task is done: the first one people come on within its days, else the last
    before them, or, where it may not be early, the next after them.

    Source: handbook-season-5
    """
    for n in range(max((task.until - task.on).days, 0) + 1):
        day = task.on + dt.timedelta(days=n)
        if day.weekday() in weekdays:
            return day
    if task.job not in _NOT_BEFORE:
        for n in range(1, _EARLY + 1):
            day = task.on - dt.timedelta(days=n)
            if day.weekday() in weekdays:
                return day
    return next(
        day for day in (task.until + dt.timedelta(days=n) for n in range(1, 8)) if day.weekday() in weekdays
    )


def visits_of(
    tasks: Sequence[Task], weekdays: Sequence[int], diary: Diary | None, planted: Mapping[str, dt.date]
) -> tuple[Visit, ...]:
    """Return the visits to one structure, in order of their days.

    What comes round more often than people come is done once a visit: the last of it stands for those before.
    Nothing that is of a planting comes before its planting day, but raising it.

    Args:
        tasks: Of the structure, in order.
        weekdays: On which people come, from Monday, 0.
        diary: What became of its tasks.
        planted: When each of its plantings is planted, by key.
    """
    marks = diary.marks if diary else {}
    days: dict[dt.date, dict[tuple[str, str | None, str], Due]] = {}
    for task in tasks:
        day = visit_day(task, weekdays)
        begun = planted.get(task.planting or "")
        if begun and task.on >= begun > day:
            day = begun
        stem = task.key.rsplit(".", maxsplit=1)[0]
        due = Due(task, day, marks.get(task.key))
        of_day = days.setdefault(day, {})
        before = of_day.get((stem, task.planting, task.job))
        if before is None or before.mark is None or due.mark is not None:
            of_day[stem, task.planting, task.job] = due
    structure = tasks[0].structure if tasks else ""
    return tuple(Visit(structure, day, tuple(days[day].values())) for day in sorted(days))


def walk(places: Mapping[str, tuple[float, float]]) -> list[str]:
    """Return structures in the order in which one walks them: from the south-west corner to the nearest next.

    Args:
        places: Middle of each on the plan, east and north. [m]
    """
    left = dict(places)
    if not left:
        return []
    corner = (min(x for x, _ in left.values()), min(y for _, y in left.values()))
    order: list[str] = []
    while left:
        key = min(left, key=lambda each: (math.dist(left[each], corner), each))
        order.append(key)
        corner = left.pop(key)
    return order
