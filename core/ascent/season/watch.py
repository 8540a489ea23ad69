"""A cold night and hot days that are forecast: what they kill or spoil, and what saves it, by minutes."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from .. import tables
from ..loads.season import cover_span
from ..weather.course import turn_of
from .kept import Kept
from .tasks import GrownPlanting

ColdOutcome = Literal["dies", "may-die", "flowers"]
ActKey = Literal["pick", "cover", "bring-in"]
SURE = 2.0  # of a forecast night, above what kills [K], judgement
FLEECE = 2.0  # that a fleece keeps off, handbook season 1 [K]
_COVER_MINUTES, _COVER_A_PLANT = 5.0, 0.7  # of fleece over a row, and of each plant of it
_POT_MINUTES = 6.0  # of one pot that is carried in
_POT_MOST = 0.5  # side of a pot that two people carry [m]
_HANGS = 0.35  # of a crop's days from set to pick, of which what hangs is worth picking before a frost
_HOT_COOL = 27.0  # high at which a crop of the cool season drops its flowers, handbook season 2 [degC]


@dataclass(frozen=True)
class Act:
    """Something to do before a cold night: what, how many minutes it takes, and what it saves. [kg]"""

    key: ActKey
    minutes: float
    saves_kg: float

    @property
    def worth(self) -> float:
        """Return what a minute of it saves. [kg/min]"""
        return self.saves_kg / max(self.minutes, 1.0)


@dataclass(frozen=True)
class Threatened:
    """A planting before a cold night: what becomes of it, the night that kills it [degC], and what helps, the
    most for a minute first.
    """

    kept: Kept
    grown: GrownPlanting
    outcome: ColdOutcome
    kills: float
    acts: tuple[Act, ...]


def standing(kept: Iterable[Kept], on: dt.date) -> Iterator[tuple[Kept, GrownPlanting]]:
    """Yield the plantings that grow on a day by the plan."""
    for each in kept:
        for grown in each.tended.grown:
            day = (on - grown.pace.turns).days
            if grown.course.start <= day < grown.course.end:
                yield each, grown


def cold_watch(kept: Iterable[Kept], on: dt.date, low: float) -> list[Threatened]:
    """Return what a cold night kills or may kill, what saves the most in a minute first.

    Args:
        kept: Structures with what grows on them.
        on: The night's morning.
        low: Least temperature that is forecast, at 1.5 to 2 m. [degC]

    Source: handbook-season-1
    """
    found = [
        threatened for each, grown in standing(kept, on) if (threatened := _threatened(each, grown, on, low))
    ]
    return sorted(found, key=lambda one: -max((act.worth for act in one.acts), default=0.0))


def _threatened(each: Kept, grown: GrownPlanting, on: dt.date, low: float) -> Threatened | None:
    """Return what a night does to a planting; nothing where it does nothing. A young plant of the cool season
    outlives more than one in flower.
    """
    calendar, day = grown.calendar, (on - grown.pace.turns).days
    kills = tables.frost_classes()[calendar.frost_class].kills_C
    flowers = day >= grown.course.first - grown.crop.set_to_pick_d
    if calendar.winter_C is not None and not flowers:
        kills = calendar.winter_C
    felt = low + (FLEECE if _covered(each, on) else 0.0)
    if felt <= kills:
        outcome: ColdOutcome = "dies"
    elif felt <= kills + SURE:
        outcome = "may-die"
    elif flowers and calendar.flower_C is not None and felt <= calendar.flower_C:
        outcome, kills = "flowers", calendar.flower_C
    else:
        return None
    return Threatened(each, grown, outcome, kills, tuple(_acts(each, grown, day, felt, kills)))


def _covered(each: Kept, on: dt.date) -> bool:
    place = each.tended.site.garden
    day = (on - turn_of(place)).days
    spans = (cover_span(place, cover) for cover in each.structure.covers)
    return any(first <= day <= last for first, last in spans)


def _acts(each: Kept, grown: GrownPlanting, day: int, felt: float, kills: float) -> list[Act]:
    """Return what can be done for a planting before a night that it would feel so cold. [degC]"""
    hangs, to_come = _left(grown, day)
    count, acts = grown.planting.count, []
    if hangs > 0:
        rate = grown.calendar.pick_kg_h or 1.0
        acts.append(Act("pick", tables.jobs()["pick"].minutes + 60.0 * hangs / rate, hangs))
    if felt + FLEECE > kills:
        acts.append(Act("cover", _COVER_MINUTES + _COVER_A_PLANT * count, hangs + to_come))
    if each.bed.kind == "container" and max(each.bed.length, each.bed.width) <= _POT_MOST:
        acts.append(Act("bring-in", _POT_MINUTES, hangs + to_come))
    return sorted(acts, key=lambda act: -act.worth)


def _left(grown: GrownPlanting, day: int) -> tuple[float, float]:
    """Return what hangs on a day and is worth picking, and what would come after it. [kg]"""
    usual = grown.bears_kg[0]
    begin, now, soon, whole = (
        float(each)
        for each in grown.borne(
            np.array(
                [
                    grown.course.first,
                    max(day, grown.course.first),
                    max(day + _HANGS * grown.crop.set_to_pick_d, grown.course.first),
                    max(grown.course.end, grown.course.first + 1),
                ],
                dtype=float,
            )
        )
    )
    if grown.crop.one_pick:
        ripe = day >= grown.course.first - _HANGS * grown.crop.set_to_pick_d
        return (usual, 0.0) if ripe else (0.0, usual)
    kg_d = usual / max(whole - begin, 1e-6)
    hangs = kg_d * max(min(soon, whole) - now, 0.0)
    return hangs, max(kg_d * (whole - now) - hangs, 0.0)


@dataclass(frozen=True)
class Parched:
    """A planting in hot days: above which high its flowers drop [degC], and how many days later its picks
    fail.
    """

    kept: Kept
    grown: GrownPlanting
    limit: float
    days: int


def heat_watch(kept: Iterable[Kept], on: dt.date, high: float) -> list[Parched]:
    """Return the plantings that set nothing on a hot day and are in flower, in the order in which one walks.

    Args:
        kept: Structures with what grows on them.
        on: The day.
        high: Greatest temperature that is forecast. [degC]

    Source: handbook-season-2
    """
    found = []
    for each, grown in standing(kept, on):
        calendar = grown.calendar
        limit = _HOT_COOL if calendar.cool else calendar.set_day_C
        day = (on - grown.pace.turns).days
        set_to_pick = round(grown.crop.set_to_pick_d)
        flowers = grown.course.first - set_to_pick <= day < grown.course.end - set_to_pick
        if limit is not None and high >= limit and (flowers or calendar.cool):
            found.append(Parched(each, grown, limit, set_to_pick))
    return found
