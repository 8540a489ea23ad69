"""A forecast storm: the limit gust of each support in that week, and useful preparations."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np
from pydantic import ValidationError

from .. import tables
from ..families import family_of
from ..family.options import in_use
from ..loads.crop import Growth
from ..memory import remembered
from ..plan.fields import Typed
from ..plan.structure import Structure
from ..site import Site
from ..tables import rows
from .limits import WeekLimits, limits_in, week_of

TRIGGER, SEVERE = 17.0, 22.0  # forecast gusts at 10 m at which one looks and acts [m/s], handbook season 8
SOAKS, WITH = 25.0, 14.0  # rain in two days that soaks the ground [mm], with such a gust [m/s]
_RIPE = 0.25  # of what hangs on a picked crop is ripe on a day
_CLOSE = 0.85  # of the limit from which something is worth doing
GAIN = 0.3  # m/s: less is not worth a gardener's work
PICK = "pick"  # what is ripe: no row of the table

Outcome = Literal["holds", "may-go", "goes", "bare"]


@dataclass(frozen=True)
class Move:
    """Something to do before a storm: a row of storm_moves.csv, or ‘pick’; minutes, and the limits after it.
    [m/s]
    """

    key: str
    minutes: float
    limit: float
    median: float


@dataclass(frozen=True)
class StormCheck:
    """A structure in the week of a storm: the gust at the plant, its limit and its median strength. [m/s]

    soaked: whether the ground is taken to be soft. moves: worth doing, the most for a minute first.
    weakest: the link that goes first. done: the limit with all of them together.
    """

    structure: str
    gust: float
    limit: float
    median: float
    weakest: str
    soaked: bool
    moves: tuple[Move, ...]
    done: float

    @property
    def outcome(self) -> Outcome:
        """Return what is expected of it."""
        if np.isinf(self.limit) and not self.weakest:
            return "bare"
        if self.gust <= self.limit:
            return "holds"
        return "may-go" if self.gust <= self.median else "goes"


def at_the_plant(site: Site, forecast: float) -> float:
    """Return the gust at the plant for one that is forecast for 10 m over open ground. [m/s]

    Source: handbook-1.4
    """
    return forecast * site.forecast_ratio


@remembered(512)
def storm_check(
    site: Site,
    structure: Structure,
    on: dt.date,
    gust: float,
    soaked: bool,
    broken: frozenset[str] = frozenset(),
) -> StormCheck:
    """Return how a structure stands in a storm, and what is worth doing before it.

    Args:
        site: Where it stands.
        structure: As it stands.
        on: Day of the storm.
        gust: At the plant. [m/s]
        soaked: Whether the ground is soaked.
        broken: Keys of members that broke, an empty one for all of it.

    Source: handbook-season-8
    """
    week = week_of(site, structure, on)
    if week is None:
        return StormCheck(structure.key, gust, np.inf, np.inf, "", soaked, (), np.inf)
    now = limits_in(site, structure, on, soaked, broken=broken)
    moves: list[Move] = []
    best = now
    if gust > _CLOSE * now.limit and not broken:  # what is broken is repaired first
        moves, best = _moves(site, structure, on, soaked, now, _picked(now.growths, week))
    return StormCheck(
        structure.key,
        gust,
        now.limit,
        now.median,
        now.weakest,
        soaked,
        tuple(moves),
        max(best.limit, now.limit),
    )


def _moves(
    site: Site, structure: Structure, on: dt.date, soaked: bool, now: WeekLimits, crop: float
) -> tuple[list[Move], WeekLimits]:
    """Return what raises a limit, the most for a minute first, and the limits with all of it done; `crop` is
    the share of what hangs that is left once what is ripe is picked.
    """
    found: list[tuple[Move, Structure | None]] = []
    length = float(structure.options.get("length", 2.0)) if isinstance(structure.options, dict) else 2.0
    for row in tables.storm_moves().values():
        changed = _changed(structure, row)
        if changed is None:
            continue
        after = limits_in(site, changed, on, soaked)
        if after.limit >= now.limit + GAIN:
            minutes = row.minutes + row.per_m * length
            found.append((Move(row.key, minutes, after.limit, after.median), changed))
    if structure.covers:
        bare = structure.model_copy(update={"covers": ()})
        after = limits_in(site, bare, on, soaked)
        if after.limit >= now.limit + GAIN:
            row = tables.storm_moves()["cover-off"]
            minutes = row.minutes + row.per_m * length
            found.append((Move(row.key, minutes, after.limit, after.median), bare))
    if crop < 1.0:
        after = limits_in(site, structure, on, soaked, crop)
        minutes = 0.5 * sum(planting.count for planting in structure.plantings)
        found.append((Move(PICK, max(minutes, 5.0), after.limit, after.median), None))
    together = structure
    for _, changed in found:
        if changed is not None:
            own = {k: v for k, v in changed.options.items() if structure.options.get(k) != v}
            covers = together.covers if changed.covers else ()
            both = together.model_copy(update={"options": {**together.options, **own}, "covers": covers})
            together = both if _valid(both) else together
    best = limits_in(site, together, on, soaked, crop)
    moves = sorted((move for move, _ in found), key=lambda move: -(move.limit - now.limit) / move.minutes)
    return moves, best


def _valid(structure: Structure) -> bool:
    try:
        family_of(structure.family).options.model_validate(structure.options)
    except ValidationError:
        return False
    return True


def _changed(structure: Structure, row: rows.StormMove) -> Structure | None:
    """Return a structure with a move made; nothing where it has no such option, or is so already."""
    family = family_of(structure.family)
    if row.option not in family.options.model_fields:
        return None
    options: Typed = family.options.model_validate(structure.options)
    now = getattr(options, row.option)
    value: Any = row.value
    if value.startswith("+"):
        value = now + int(value)
    elif isinstance(now, bool):
        value = value == "yes"
    if value == now or not in_use(options, row.option):
        return None
    changed = structure.model_copy(update={"options": {**structure.options, row.option: value}})
    return changed if _valid(changed) else None


def _picked(growths: tuple[Growth, ...], week: int) -> float:
    """Return the share of what hangs that is left once what is ripe is picked."""
    hung = sum(float(np.ravel(g.plant_kg)[week]) * g.planting.count for g in growths)
    ripe = sum(
        float(np.ravel(g.fruit_kg)[week]) * g.planting.count * _RIPE
        for g in growths
        if not g.crop.one_pick and g.crop.yield_kg
    )
    return 1.0 - ripe / hung if hung > 0 else 1.0
