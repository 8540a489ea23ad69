"""The limit gust of a support in one week, with any part of its crop on it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Collection
from dataclasses import dataclass, replace

import numpy as np

from ..analysis.crossings import limit_gusts
from ..analysis.design import design_of
from ..loads import cases as case_sets
from ..loads.crop import Growth
from ..loads.season import season_of
from ..mechanics import Array
from ..plan.structure import Structure
from ..site import Site

_SOFT: Array = np.array([0.0, 1.0]).reshape(2, 1, 1)


@dataclass(frozen=True)
class WeekLimits:
    """A structure in one week: its limit gust by what one designs to and by median strengths [m/s], the link
    that goes first, and what grows on it.
    """

    limit: float
    median: float
    weakest: str
    growths: tuple[Growth, ...]


def week_of(site: Site, structure: Structure, on: dt.date) -> int | None:
    """Return the week of a structure's season that a day is in; nothing where nothing grows on it then."""
    season = season_of(site.garden, structure.plantings, structure.covers)
    week = (on - season.date(0)).days // 7
    return week if 0 <= week < season.weeks else None


def limits_in(
    site: Site,
    structure: Structure,
    on: dt.date,
    soaked: bool = False,
    crop: float = 1.0,
    broken: Collection[str] = (),
) -> WeekLimits:
    """Return what a structure holds to in the week of a day; out of its season it stands as bare as in its
    first week. [m/s]

    Args:
        site: Where it stands.
        structure: As it stands.
        on: A day of the week.
        soaked: Whether the ground is soaked; the lesser of moist and soaked counts then.
        crop: How many times as much as expected hangs on it.
        broken: Keys of members that broke, an empty one for all of it.

    Source: handbook-0.5
    """
    design = design_of(site, structure)
    rising = case_sets.moist_gusts()
    rising = replace(rising, saturated=_SOFT) if soaked else rising
    cases = replace(rising, crop=rising.crop * crop)
    loaded, shape = design.under(cases), cases.shape(design.season.weeks)
    links = tuple(link.without(broken) for link in loaded.path())
    week = week_of(site, structure, on) or 0
    limits, medians = (
        limit_gusts(links, shape, case_sets.MOIST_GUSTS, median=median) for median in (False, True)
    )
    least = {key: float(np.min(limit[:, week])) for key, limit in limits.items()}
    weakest = min(least, key=lambda key: least[key])
    median = min(float(np.min(limit[:, week])) for limit in medians.values())
    return WeekLimits(least[weakest], median, weakest, loaded.growths)
