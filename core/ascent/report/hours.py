"""The hours of work that a garden's year asks, whose they are, and what would make them fewer."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Sequence

from ..plan.garden import Garden
from ..plan.structure import Structure
from ..season.kept import Kept, tended_of
from ..season.tasks import Task
from ..words.texts import template
from .season_parts import date_text
from .season_readout import HoursReport

_MULCHED = 0.5  # of the looks after water, once the soil is mulched
_FEWER = 0.25  # of the plants
_BY_PLANT = ("train", "prune", "fruit", "pick", "clear")
_CRUMB = 1.0  # hours that are not worth a sentence [h]


def hours_report(garden: Garden, kept: Sequence[Kept], mondays: Sequence[dt.date]) -> HoursReport:
    """Return the hours of a garden's year, those of its busiest week, and lighter ways, the best first."""
    tasks = list(_tasks(kept))
    total = _hours(tasks)
    weeks = [0.0] * len(mondays)
    for each in kept:
        for visit in each.visits:
            week = (visit.on - mondays[0]).days // 7
            if 0 <= week < len(weeks):
                weeks[week] += sum(due.task.minutes for due in visit.due) / 60
    busiest = max(range(len(weeks)), key=weeks.__getitem__)
    words = template("hours.total" if garden.people == 1 else "hours.shared").format(
        total=round(total),
        people=garden.people,
        each=round(total / garden.people),
        most=round(weeks[busiest]),
        week=date_text(mondays[busiest]),
    )
    ways = sorted(_lighter(kept, tasks), reverse=True)
    return HoursReport(
        words=words,
        ways=tuple(
            template(f"hours.{way}").format(hours=round(saved)) for saved, way in ways if saved >= _CRUMB
        ),
    )


def _tasks(kept: Iterable[Kept]) -> Iterator[Task]:
    return (due.task for each in kept for visit in each.visits for due in visit.due)


def _hours(tasks: Iterable[Task]) -> float:
    return sum(task.minutes for task in tasks) / 60


def _lighter(kept: Sequence[Kept], tasks: Sequence[Task]) -> Iterator[tuple[float, str]]:
    """Yield how many hours lighter ways would save, and which they are."""
    yield _MULCHED * _hours(task for task in tasks if task.job == "water"), "mulch"
    by_plant = (max(task.minutes - task.row.minutes, 0.0) for task in tasks if task.row.sort in _BY_PLANT)
    yield _FEWER * sum(by_plant) / 60, "fewer"
    saved = 0.0
    for each in kept:
        free = _left_to_grow(each.structure)
        if free is not None:
            trained = ("train", "prune")
            now = _hours(task for task in each.tended.tasks if task.row.sort in trained)
            then = _hours(
                task
                for task in tended_of(each.tended.site, free, each.tended.built).tasks
                if task.row.sort in trained
            )
            saved += max(now - then, 0.0)
    yield saved, "free"


def _left_to_grow(structure: Structure) -> Structure | None:
    """Return a structure with all that is pruned on it left to grow; nothing where nothing is."""
    if all(planting.training == "free" for planting in structure.plantings):
        return None
    plantings = tuple(planting.model_copy(update={"training": "free"}) for planting in structure.plantings)
    return structure.model_copy(update={"plantings": plantings})
