"""What hours that were written down teach: how long work takes here against the minutes of the tables."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..mechanics.bayes import normal_posterior
from ..plan.entries import Entry
from ..plan.garden import Garden
from .tables_alone import tended_by_tables

_PEOPLE = 0.5  # spread, in its logarithm, of how fast gardeners work
_ONE_DAY = 0.6  # of one day's work about a gardener's usual
_LEAST = 5.0  # minutes of a day's ticked tasks, below which nothing is told


@dataclass(frozen=True)
class WorkLesson:
    """What days of work teach: minutes that were written and those of the tables for what was ticked on the
    same days, (written, tables); the factor with the spreads of its logarithm before and after.
    """

    days: tuple[tuple[float, float], ...]
    factor: float
    prior: float
    spread: float


def work_of(garden: Garden, log: Sequence[Entry]) -> WorkLesson | None:
    """Return what hours teach; nothing where no day has both hours written and tasks ticked.

    Hours of one support are held against what was ticked on it that day, hours of no place against all that
    was ticked and has no hours of its own. The pace is taken as log-normal, as is each day about it.

    Args:
        garden: With its diaries.
        log: All that happened.

    Source: gelman-2.5
    """
    ticked: dict[tuple[str, str], float] = {}
    diaries = {diary.structure: diary for diary in garden.diaries}
    for bed in garden.beds:
        for structure in bed.structures:
            diary = diaries.get(structure.key)
            if diary is None or not any(mark.state == "done" for mark in diary.marks.values()):
                continue
            for task in tended_by_tables(garden, bed, structure).tasks:
                mark = diary.marks.get(task.key)
                if mark and mark.state == "done":
                    key = (mark.at.date().isoformat(), structure.key)
                    ticked[key] = ticked.get(key, 0.0) + task.minutes
    written: dict[tuple[str, str], float] = {}
    for entry in log:
        if entry.kind == "hours" and entry.minutes:
            key = (entry.on.isoformat(), entry.structure or "")
            written[key] = written.get(key, 0.0) + entry.minutes
    days = []
    for (day, structure_key), minutes in sorted(written.items()):
        own = [
            due
            for (on, key), due in ticked.items()
            if on == day and (key == structure_key if structure_key else (on, key) not in written)
        ]
        if sum(own) >= _LEAST:
            days.append((minutes, sum(own)))
    if not days:
        return None
    mean, sd = 0.0, _PEOPLE
    for minutes, due in days:
        mean, sd = normal_posterior(mean, sd, math.log(minutes / due), _ONE_DAY)
    return WorkLesson(tuple(days), math.exp(mean), _PEOPLE, sd)
