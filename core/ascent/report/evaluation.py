"""From load path to what a gardener asks: how strong a gust, which link, which week, how much crop."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from .. import tables
from ..families import family_of
from ..family.protocol import Family, Loaded
from ..loads import cases as case_sets
from ..loads.crop import Growth
from ..loads.season import Season, season_of, weekly_gusts
from ..mechanics import Array
from ..path.geometry import Geometry
from ..path.loadpath import Link, Remark, Service
from ..plan.model import Site, Structure, Typed
from ..remarks import fits
from .chance import Chance, chance_of, stacked

State = Literal["holds", "stands", "short"]
_BEYOND = 1e3  # use past which one is as hopeless as another
_LEVELS = {"wrong": 0, "watch": 1, "fine": 2}
_LIKELY = 0.9  # chance a season from which something that has spent its margin is expected to stand


def state_of(use: float, chance: float) -> State:
    """Return what a use and a chance of standing the season mean: it holds, should stand, or falls short."""
    return "holds" if use <= 1.0 else "stands" if chance >= _LIKELY else "short"


def asked_gust(site: Site, structure: Structure) -> float:
    """Return the gust asked of a structure: that of once in ten seasons, from the side its face turns to it
    where it has one. [m/s]

    Source: asce-7-direction
    """
    directed = 1.0 if family_of(structure.family).round else float(np.sqrt(tables.constant("face_direction")))
    return site.design_gust * directed


@dataclass(frozen=True)
class Evaluation:
    """What a structure does at a site over its season.

    asked: gust asked of it. [m/s]
    loaded: the structure under rising gusts and the site's winds.
    path: the load path in all of them.
    limits: limit gust of each link by what one designs to, {key: (S, W)}. [m/s]
    chance: how likely it is to stand the season.
    """

    site: Site
    structure: Structure
    options: Typed
    geometry: Geometry
    season: Season
    asked: float
    gusts: dict[str, Array]
    loaded: Loaded
    path: tuple[Link, ...]
    limits: dict[str, Array]
    chance: Chance
    remarks: tuple[Remark, ...]

    @cached_property
    def links(self) -> tuple[Link, ...]:
        """Return the load path in still air, working wind and the gust asked."""
        return tuple(link.within(case_sets.HERE) for link in self.path)

    @cached_property
    def used(self) -> dict[str, Array]:
        """Return the use of each link in the gust asked, moist soil, by week, {key: (W,)}."""
        weeks = (self.season.weeks,)
        here = {link.key: case_sets.HERE.only(link.use) for link in self.path}
        return {key: np.broadcast_to(use[0, :, -1], weeks) for key, use in here.items()}

    @cached_property
    def bare(self) -> dict[str, Array]:
        """Return the limit gust of each link by median strengths, {key: (S, W)}. [m/s]"""
        medians = {link.key: case_sets.RISING.only(link.median_use) for link in self.path}
        return crossings(medians, (2, self.season.weeks), case_sets.GUSTS)

    @cached_property
    def margin(self) -> dict[str, Array]:
        """Return the crop margin of each link by week, {key: (W,)}."""
        family: Family[Typed] = family_of(self.structure.family)
        cases = case_sets.rising_crop(self.site)
        links = family.loaded(self.options, self.geometry, self.structure, self.site, cases).path()
        uses = {link.key: link.use for link in links}
        found = crossings(uses, (1, self.season.weeks), case_sets.CROP_FACTORS)
        return {key: margin[0] for key, margin in found.items()}

    @cached_property
    def service(self) -> tuple[Service, ...]:
        """Return what moves in still air, working wind and the gust asked."""
        return tuple(service.within(case_sets.HERE) for service in self.loaded.service())

    @cached_property
    def findings(self) -> tuple[Remark, ...]:
        """Return every remark: on what fits, on what moves in the working wind, on wet soil; what is wrong
        first.
        """
        moved = (_moved(service) for service in self.service)
        return tuple(sorted((*self.remarks, *moved, *self._after_rain()), key=lambda r: _LEVELS[r.level]))

    def _after_rain(self) -> tuple[Remark, ...]:
        """Return a remark where wet soil holds less than the wind of every week, and dry soil more: wrong
        where even median strengths do.
        """
        dry, wet = (float(np.min(limit)) for limit in self.limit)
        wind = self.site.working_wind
        if wet >= min(wind, dry):
            return ()
        level: Literal["wrong", "watch"] = "wrong" if float(np.min(self.bare_limit[1])) < wind else "watch"
        values = {"wet": (wet, "speed"), "wind": (wind, "speed")}
        return (Remark("after-rain", level, values, source="handbook-5.2"),)

    @property
    def growths(self) -> tuple[Growth, ...]:
        """Return the course of each planting."""
        return self.loaded.growths

    @cached_property
    def limit(self) -> Array:
        """Return the limit gust of the whole, (S, W). [m/s]

        Wet soil lets the ends give, which can relieve them; since the soil is wet by degrees, the lesser
        stands.
        """
        return np.minimum.accumulate(np.minimum.reduce(list(self.limits.values())), axis=0)

    @cached_property
    def bare_limit(self) -> Array:
        """Return the gust at which it would as soon fail as stand, (S, W). [m/s]"""
        return np.asarray(np.minimum.reduce(list(self.bare.values())))

    @property
    def worst_week(self) -> int:
        """Return the week of least limit gust, moist soil; where no gust is too much, the week in which most
        is used of a link.
        """
        if np.isfinite(self.limit[0]).any():
            return int(np.argmin(self.limit[0]))
        return int(np.argmax(np.maximum.reduce(list(self.used.values()))))

    @cached_property
    def _weakest(self) -> list[str]:
        """Return the link of least limit gust in each week of moist soil; of equals the most used."""
        keys = list(self.used)
        limits = np.array([self.limits[key][0] for key in keys])
        # of what cannot stand at all, the first on the path is to blame
        uses = np.minimum(list(self.used.values()), _BEYOND)
        first = np.lexsort((-uses, limits), axis=0)[0]
        return [keys[index] for index in first]

    def weakest(self, week: int) -> str:
        """Return the key of the weakest link in a week."""
        return self._weakest[week]

    def use_of(self, key: str, week: int) -> float:
        """Return a link's use in the gust asked in a week, moist soil."""
        return float(self.used[key][week])

    @property
    def greatest_use(self) -> float:
        """Return the greatest use in the gust asked, moist soil, over all weeks and links."""
        return max(float(np.max(use)) for use in self.used.values())

    @property
    def state(self) -> State:
        """Return whether it holds, should stand, or falls short."""
        return state_of(self.greatest_use, self.chance.whole)


def _moved(service: Service) -> Remark:
    """Return the remark on a movement in the working wind: to be watched past its limit."""
    shape = np.broadcast_shapes(service.amount.shape, (1, 1, 3))
    amount = float(np.max(np.broadcast_to(service.amount, shape)[0, :, 1]))
    values = {"amount": (amount, "length"), "limit": (service.limit, "length")}
    level: Literal["fine", "watch"] = "watch" if amount > service.limit else "fine"
    return Remark(service.key, level, values, source=service.source, levers=service.levers)


def at(array: Array | float, state: int, week: int, wind: int) -> float:
    """Return one case of an array over cases."""
    a = np.asarray(array, dtype=float)
    while a.ndim < 3:
        a = a[None]
    s, w, g = (min(i, n - 1) for i, n in zip((state, week, wind), a.shape, strict=True))
    return float(a[s, w, g])


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
        share = np.log(1.0 / np.maximum(u0, 1e-12)) / (
            np.log(np.minimum(u1, 1e12)) - np.log(np.maximum(u0, 1e-12))
        )
    crossing = np.exp(
        np.log(xs[high - 1]) + np.clip(share, 0.0, 1.0) * (np.log(xs[high]) - np.log(xs[high - 1]))
    )
    return np.where(never, np.inf, np.where(index == 0, 0.0, crossing))


def crossings(uses: dict[str, Array], shape: tuple[int, ...], grid: Array) -> dict[str, Array]:
    """Return where each link's use reaches 1 along a grid, all links at once, {key: shape}."""
    together = stacked(list(uses.values()), (*shape, len(grid)))
    return dict(zip(uses, first_crossing(together, grid), strict=True))


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


def outline(
    site: Site, structure: Structure, grid: Array = case_sets.MOIST_GUSTS, broken: Collection[str] = ()
) -> Outline:
    """Return the limits of a structure without the rest of its evaluation, on a coarse grid unless asked;
    broken: keys of members that broke, an empty one for all of it.
    """
    family: Family[Typed] = family_of(structure.family)
    options = family.options.model_validate(structure.options)
    geometry = family.geometry(options, structure.plantings, site)
    weeks = season_of(site.garden, structure.plantings, structure.covers).weeks
    links = family.loaded(options, geometry, structure, site, case_sets.moist_gusts(grid)).path()
    limits = crossings({link.key: link.without(broken).use for link in links}, (1, weeks), grid)
    return Outline(geometry, limits, _remarks(family, options, geometry, structure, site))


def _remarks(
    family: Family[Typed], options: Typed, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not of a family's own, and what holds of every one."""
    spans = season_of(site.garden, structure.plantings).spans
    late = [
        r
        for planting, (start, end) in zip(structure.plantings, spans, strict=True)
        for r in fits.of_season(planting, end - start)
    ]
    own = family.remarks(options, geometry, structure, site)
    said = {remark.key for remark in own}
    joints = (remark for remark in fits.of_joints(geometry) if remark.key not in said)
    return (*own, *joints, *fits.of_pot(site.bed, geometry, type(options).model_fields), *late)


@dataclass(frozen=True)
class Unfit:
    """Keys of remarks: what does not do, and what is serious."""

    wrong: frozenset[str]
    serious: frozenset[str]

    @property
    def keys(self) -> frozenset[str]:
        """Return both."""
        return self.wrong | self.serious


def unfit(options: Typed, geometry: Geometry, structure: Structure, site: Site) -> Unfit:
    """Return the keys of the remarks that say that something of a structure does not do, or may not."""
    said = _remarks(family_of(structure.family), options, geometry, structure, site)
    return Unfit(
        frozenset(remark.key for remark in said if remark.level == "wrong"),
        frozenset(remark.key for remark in said if is_serious(remark)),
    )


def is_serious(remark: Remark) -> bool:
    """Return whether a remark to be watched weighs so much that a kind of support without it comes first."""
    return remark.level == "watch" and tables.remarks()[remark.key].weight == "serious"


def is_drawback(remark: Remark) -> bool:
    """Return whether a remark to be watched counts where kinds of support are compared."""
    return remark.level == "watch" and tables.remarks()[remark.key].weight == "drawback"


def go_on() -> None:
    """Pause for nobody."""


def evaluate(site: Site, structure: Structure, pause: Callable[[], None] = go_on) -> Evaluation:
    """Return everything about a structure at a site: one call over arrays of cases.

    Args:
        site: Where it stands.
        structure: What stands there.
        pause: Called between the steps of it, each of some milliseconds, so that what is worked out by and by
            can let others go first.
    """
    family: Family[Typed] = family_of(structure.family)
    options = family.options.model_validate(structure.options)
    geometry = family.geometry(options, structure.plantings, site)
    season = season_of(site.garden, structure.plantings, structure.covers)
    asked = asked_gust(site, structure)
    weekly = weekly_gusts(site, season, asked)
    loaded = family.loaded(options, geometry, structure, site, case_sets.gusts_and_winds(site, asked))
    grid, weeks = case_sets.GUSTS, season.weeks
    pause()
    path = loaded.path()
    pause()
    limits = crossings({link.key: case_sets.RISING.only(link.use) for link in path}, (2, weeks), grid)
    pause()
    uses = [
        (link.key, check.rests_on, case_sets.RISING.only(check.median_use)[0])
        for link in path
        for check in link.checks
    ]
    spreads = {
        row.key: found.spread for row in tables.uncertainties().values() if (found := site.learnt(row.key))
    }
    chance = chance_of(uses, grid, weeks, weekly["rough"], spreads)
    pause()
    return Evaluation(
        site,
        structure,
        options,
        geometry,
        season,
        asked,
        weekly,
        loaded,
        path,
        limits,
        chance,
        _remarks(family, options, geometry, structure, site),
    )
