"""From load path to what a gardener asks: how strong a gust, which link, which week, how much crop."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from .families import family_of
from .family import Family
from .geometry import Geometry
from .loadpath import Link, Remark, Service
from .loads import cases as case_sets
from .loads.season import Season, season_of, weekly_gusts
from .mechanics import Array
from .model import Site, Structure, Typed

HOLDS, CLOSE = 0.85, 1.0


@dataclass(frozen=True)
class Evaluation:
    """What a structure does at a site over its season.

    limits, bare: limit gust of each link, with factors and with all factors 1, {key: (S, W)}. [m/s]
    links: the load path in still air, working wind and design gust.
    margin: crop margin of each link by week, {key: (W,)}.
    """

    site: Site
    structure: Structure
    options: Typed
    geometry: Geometry
    season: Season
    gusts: dict[str, Array]
    links: tuple[Link, ...]
    limits: dict[str, Array]
    bare: dict[str, Array]
    margin: dict[str, Array]
    service: tuple[Service, ...]
    remarks: tuple[Remark, ...]

    @cached_property
    def limit(self) -> Array:
        """Return the limit gust of the whole, (S, W). [m/s]"""
        return np.asarray(np.minimum.reduce(list(self.limits.values())))

    @cached_property
    def bare_limit(self) -> Array:
        """Return the gust at which it would be expected to fail, (S, W). [m/s]"""
        return np.asarray(np.minimum.reduce(list(self.bare.values())))

    @property
    def worst_week(self) -> int:
        """Return the week of least limit gust, moist soil."""
        return int(np.argmin(self.limit[0]))

    def weakest(self, week: int, state: int = 0) -> str:
        """Return the key of the weakest link in a week."""
        return min(self.limits, key=lambda key: (float(self.limits[key][state, week]), -self.use_of(key, week)))

    def use_of(self, key: str, week: int, wind: int = 2, state: int = 0) -> float:
        """Return a link's use in one case; winds are still, working, design."""
        use = next(link.use for link in self.links if link.key == key)
        return float(at(use, state, week, wind))

    @property
    def greatest_use(self) -> float:
        """Return the greatest use in the design gust, moist soil, over all weeks and links."""
        return max(float(np.max(_whole(link.use)[0, :, 2])) for link in self.links)

    @property
    def state(self) -> str:
        """Return whether it holds, is close, or falls short at the design gust."""
        return "holds" if self.greatest_use <= HOLDS else "close" if self.greatest_use <= CLOSE else "short"


def at(array: Array | float, state: int, week: int, wind: int) -> float:
    """Return one case of an array over cases."""
    a = np.asarray(array, dtype=float)
    while a.ndim < 3:
        a = a[None]
    s, w, g = (min(i, n - 1) for i, n in zip((state, week, wind), a.shape, strict=True))
    return float(a[s, w, g])


def _whole(use: Array) -> Array:
    shape = np.broadcast_shapes(use.shape, (1, 1, 3))
    return np.broadcast_to(use, shape)


def first_crossing(uses: Array, xs: Array) -> Array:
    """Return where use first reaches 1 along the last axis, linear in ln(use) against ln(x).

    Args:
        uses: Non-decreasing uses, (..., G).
        xs: The grid, (G,).

    Returns:
        The crossing, (...); 0 where the use is at least 1 from the start, infinite where it never is.

    Source: handbook-0.5
    """
    over = uses >= 1.0
    index = np.argmax(over, axis=-1)
    never = ~np.any(over, axis=-1)
    high = np.maximum(index, 1)
    u1 = np.take_along_axis(uses, high[..., None], -1)[..., 0]
    u0 = np.take_along_axis(uses, high[..., None] - 1, -1)[..., 0]
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.log(1.0 / np.maximum(u0, 1e-12)) / (np.log(np.minimum(u1, 1e12)) - np.log(np.maximum(u0, 1e-12)))
    found = np.exp(np.log(xs[high - 1]) + np.clip(share, 0.0, 1.0) * (np.log(xs[high]) - np.log(xs[high - 1])))
    return np.where(never, np.inf, np.where(index == 0, 0.0, found))


def _by_gust(use: Array, weeks: int) -> Array:
    grid = case_sets.GUSTS
    return first_crossing(np.broadcast_to(use, (2, weeks, len(grid))), grid)


@dataclass(frozen=True)
class Outline:
    """The part of an evaluation that fixes compare: limits, geometry and remarks."""

    geometry: Geometry
    limits: dict[str, Array]
    remarks: tuple[Remark, ...]

    @property
    def limit(self) -> float:
        """Return the least limit gust of the season in moist soil. [m/s]"""
        return float(min(np.min(limits[0]) for limits in self.limits.values()))


def outline(site: Site, structure: Structure, grid: Array = case_sets.MOIST_GUSTS) -> Outline:
    """Return the limits of a structure without the rest of its evaluation, on a coarse grid unless asked."""
    family: Family[Typed] = family_of(structure.family)
    options = family.options.model_validate(structure.options)
    geometry = family.geometry(options, structure.plantings, site)
    weeks = season_of(site.garden, structure.plantings).weeks
    links = family.load_path(options, geometry, structure, site, case_sets.moist_gusts(grid))
    limits = {link.key: first_crossing(np.broadcast_to(link.use, (1, weeks, len(grid))), grid) for link in links}
    return Outline(geometry, limits, family.remarks(options, geometry, structure, site))


def evaluate(site: Site, structure: Structure) -> Evaluation:
    """Return everything about a structure at a site: one call over arrays of cases."""
    family: Family[Typed] = family_of(structure.family)
    options = family.options.model_validate(structure.options)
    geometry = family.geometry(options, structure.plantings, site)
    season = season_of(site.garden, structure.plantings)
    rising = family.load_path(options, geometry, structure, site, case_sets.rising_gusts())
    crop = family.load_path(options, geometry, structure, site, case_sets.rising_crop(site))
    winds = case_sets.site_winds(site)
    factors = case_sets.CROP_FACTORS
    return Evaluation(
        site, structure, options, geometry, season, weekly_gusts(site, season),
        family.load_path(options, geometry, structure, site, winds),
        {link.key: _by_gust(link.use, season.weeks) for link in rising},
        {link.key: _by_gust(link.bare_use, season.weeks) for link in rising},
        {link.key: first_crossing(np.broadcast_to(link.use, (1, season.weeks, len(factors))), factors)[0] for link in crop},
        family.service(options, geometry, structure, site, winds),
        family.remarks(options, geometry, structure, site),
    )  # fmt: skip
