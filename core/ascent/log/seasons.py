"""The seasons that a log holds: what grew where in which year, and what was picked in which week."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass

from ..plan.bed import MOST_PAST, Bed, GrewHere
from ..plan.entries import Entry
from ..plan.garden import Garden

Grew = tuple[str, str, int]  # key of a support, crop, year


@dataclass(frozen=True)
class PickedWeek:
    """What was picked of a crop in a week, from its Monday. [kg]"""

    monday: dt.date
    crop: str
    mass: float


def grew_in(log: Iterable[Entry]) -> set[Grew]:
    """Return what was picked where in which year: so it grew there."""
    return {
        (entry.structure, entry.crop, entry.on.year)
        for entry in log
        if entry.kind == "harvest" and entry.structure and entry.crop
    }


def with_past(garden: Garden, grew: Iterable[Grew]) -> Garden:
    """Return a garden whose beds know what was picked on them in seasons before its own, besides what
    somebody wrote of their past.
    """
    by_structure: dict[str, list[tuple[str, int]]] = {}
    for structure, crop, year in sorted(grew):
        if year < garden.year:
            by_structure.setdefault(structure, []).append((crop, year))
    return garden.model_copy(update={"beds": tuple(_with_past(bed, by_structure) for bed in garden.beds)})


def _with_past(bed: Bed, by_structure: dict[str, list[tuple[str, int]]]) -> Bed:
    known = {(past.crop, past.year) for past in bed.past}
    more = {
        (crop, year): structure.key
        for structure in bed.structures
        for crop, year in by_structure.get(structure.key, ())
        if (crop, year) not in known
    }
    if not more:
        return bed
    grew = (GrewHere(year=year, crop=crop, structure=key) for (crop, year), key in more.items())
    return bed.model_copy(update={"past": (*bed.past, *grew)[:MOST_PAST]})


def picked_by_week(log: Iterable[Entry]) -> list[PickedWeek]:
    """Return what was picked by week and crop, the oldest first. [kg]"""
    found: dict[tuple[dt.date, str], float] = {}
    for entry in log:
        if entry.kind == "harvest" and entry.crop and (kg := entry.kg):
            key = (entry.on - dt.timedelta(days=entry.on.weekday()), entry.crop)
            found[key] = found.get(key, 0.0) + kg
    return [PickedWeek(monday, crop, kg) for (monday, crop), kg in sorted(found.items())]
