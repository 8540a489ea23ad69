"""Missed picks: more fruit hangs on a support, which adds load and wind area."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

import numpy as np

from ..analysis.design import design_of
from ..plan.structure import Structure
from ..site import Site
from .limits import limits_in, week_of

TRIPLED_BY, MOST = 3, 3.0  # picks missed that triple what hangs of fast fruit, season handbook 5


@dataclass(frozen=True)
class Missed:
    """So many picks missed: how many times as much hangs, and crop margin and limit gust before and after.
    [m/s]
    """

    picks: int
    hangs: float
    margin: float
    margin_after: float
    limit: float
    limit_after: float


def fruit_factor(picks: int) -> float:
    """Return how many times as much fruit hangs once so many picks are missed. [-]

    Source: handbook-season-5
    """
    return min(1.0 + (MOST - 1.0) * picks / TRIPLED_BY, MOST)


def missed(site: Site, structure: Structure, on: dt.date, picks: int) -> Missed | None:
    """Return what missed picks do to a structure in the week of a day; nothing out of its season, or where
    nothing hangs.

    Args:
        site: Where it stands.
        structure: As it stands.
        on: A day of the week.
        picks: Missed one after the other.

    Source: handbook-season-5
    """
    week = week_of(site, structure, on)
    if week is None:
        return None
    design = design_of(site, structure)
    fruit = shoot = 0.0
    for growth in design.growths:
        count = growth.planting.count
        shoot += count * float(np.ravel(growth.shoot_kg)[week])
        own = count * float(np.ravel(growth.fruit_kg)[week])
        fruit, shoot = (fruit, shoot + own) if growth.crop.one_pick else (fruit + own, shoot)
    if fruit <= 0.0:
        return None
    hangs = (shoot + fruit * fruit_factor(picks)) / (shoot + fruit)
    margin = min(float(factor[week]) for factor in design.crop_load_factors.values())

    before, after = (limits_in(site, structure, on, crop=factor).limit for factor in (1.0, hangs))
    return Missed(picks, fruit_factor(picks), margin, margin / hangs, before, after)
