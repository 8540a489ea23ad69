"""A design: a structure at a site, and everything that follows from the two."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Literal

import numpy as np

from .. import tables
from ..families import family_of
from ..family.protocol import Family, Loaded
from ..loads import cases as case_sets
from ..loads.cases import Cases
from ..loads.crop import Growth
from ..loads.season import Season, season_of, weekly_gusts
from ..mechanics import Array
from ..memory import Said, remembered
from ..path.geometry import Geometry
from ..path.loadpath import Link, Remark, Service
from ..plan.bed import BareBed
from ..plan.fields import Typed
from ..plan.place import Place
from ..plan.structure import Structure
from ..site import Site
from .crossings import crossings, least, limit_gusts
from .fitness import Unfit, remarks_of
from .reliability import Reliability, reliability_of

State = Literal["adequate", "marginal", "inadequate"]
_BEYOND = 1e3  # utilisation past which one link is as hopeless as another
_LEVELS = {"wrong": 0, "watch": 1, "fine": 2}
_LIKELY = 0.9  # probability from which a structure that has used up its margin is expected to stand
# what each derived value depends on; `with_` keeps those values whose causes did not change
_CAUSES: Mapping[str, tuple[str, ...]] = {
    "family": ("kind",),
    "options": ("kind", "chosen"),
    "geometry": ("kind", "chosen", "plantings", "bed"),
    "season": ("plantings", "covers", "garden"),
    "required_gust": ("kind", "bed", "garden"),
    "weekly_gusts": ("kind", "plantings", "covers", "bed", "garden"),
    "remarks": ("kind", "chosen", "plantings", "bed", "garden"),
}


def state_of(use: float, probability: float) -> State:
    """Return what a utilisation and a probability of standing the season mean together. Both are shares.
    [-]
    """
    return "adequate" if use <= 1.0 else "marginal" if probability >= _LIKELY else "inadequate"


@dataclass(frozen=True, eq=False)
class Design:
    """A structure at a site. What follows from the two is calculated once, when it is first read.

    Arrays have the axes (soil state S, week W, gust G). Where cases carry samples of what is not well known,
    a sample axis N stands before them, and no value here sums or takes extremes over it.
    """

    site: Site
    structure: Structure

    def with_(
        self,
        options: Mapping[str, Any] | None = None,
        *,
        site: Site | None = None,
        structure: Structure | None = None,
    ) -> Design:
        """Return a variation of the design. Values that do not depend on the change are kept.

        Args:
            options: Values of options that replace those of the structure.
            site: Another site.
            structure: Another structure.
        """
        changed = structure or self.structure
        if options is not None:
            changed = changed.model_copy(update={"options": {**changed.options, **options}})
        varied = Design(site or self.site, changed)
        before, after = self._causes(), varied._causes()
        same = {cause for cause in before if before[cause] == after[cause]}
        for name, causes in _CAUSES.items():
            if name in self.__dict__ and same.issuperset(causes):
                varied.__dict__[name] = self.__dict__[name]
        return varied

    def _causes(self) -> dict[str, Any]:
        structure, site = self.structure, self.site
        return {
            "kind": structure.family,
            "chosen": structure.options,
            "plantings": structure.plantings,
            "covers": structure.covers,
            "bed": site.bed,
            "garden": site.garden,
        }

    @cached_property
    def family(self) -> Family[Typed]:
        """Return the family of the structure."""
        return family_of(self.structure.family)

    @cached_property
    def options(self) -> Typed:
        """Return the options of the structure, typed.

        Raises:
            ValidationError: One of them is outside what the family allows.
        """
        return self.family.options.model_validate(self.structure.options)

    @cached_property
    def geometry(self) -> Geometry:
        """Return where its members and plants stand."""
        return self.family.geometry(self.options, self.structure.plantings, self.site)

    @cached_property
    def season(self) -> Season:
        """Return the weeks from the first planting to the last clearing."""
        return season_of(self.site.garden, self.structure.plantings, self.structure.covers)

    @cached_property
    def required_gust(self) -> float:
        """Return the gust that it needs to hold: the once-in-ten-seasons gust at the plant, less where the
        wind rarely meets its face squarely. [m/s]

        Source: asce-7-direction
        """
        directed = 1.0 if self.family.round else float(np.sqrt(tables.constant("face_direction")))
        return self.site.design_gust * directed

    @cached_property
    def weekly_gusts(self) -> dict[str, Array]:
        """Return the strongest gusts of its weeks by name, {name: (W,)}. [m/s]"""
        return weekly_gusts(self.site, self.season, self.required_gust)

    @cached_property
    def remarks(self) -> tuple[Remark, ...]:
        """Return the remarks on what fits, apart from strength."""
        return remarks_of(self.family, self.options, self.geometry, self.structure, self.site)

    @cached_property
    def unfit(self) -> Unfit:
        """Return which remarks say that something does not fit."""
        return Unfit.of(self.remarks)

    def under(self, cases: Cases) -> Loaded:
        """Return the structure under the loads of some cases."""
        return self.family.loaded(self.options, self.geometry, self.structure, self.site, cases)

    def limits_under(
        self, cases: Cases, grid: Array, *, broken: Collection[str] = (), median: bool = False
    ) -> dict[str, Array]:
        """Return the limit gust of each link under cases with rising gusts, {key: (N, S, W) or (S, W)}. [m/s]

        Args:
            cases: Their gusts are the grid.
            grid: The gusts, (G,). [m/s]
            broken: Keys of members that broke; an empty key stands for all of the structure.
            median: Whether by median demands and strengths, rather than by design values.
        """
        links = (link.without(broken) for link in self.under(cases).path())
        return limit_gusts(links, cases.shape(self.season.weeks), grid, median=median)

    def moist_limits(
        self, grid: Array = case_sets.MOIST_GUSTS, broken: Collection[str] = ()
    ) -> dict[str, Array]:
        """Return the limit gust of each link in moist soil, {key: (1, W)}, on a coarse grid unless another is
        given. [m/s]
        """
        return self.limits_under(case_sets.moist_gusts(grid), grid, broken=broken)

    def moist_limit(self, grid: Array = case_sets.MOIST_GUSTS, broken: Collection[str] = ()) -> float:
        """Return the least limit gust of its links and weeks in moist soil. [m/s]"""
        return least(self.moist_limits(grid, broken))

    @cached_property
    def loaded(self) -> Loaded:
        """Return the structure under rising gusts and, after them, the winds of the site."""
        return self.under(case_sets.gusts_and_winds(self.site, self.required_gust))

    @cached_property
    def path(self) -> tuple[Link, ...]:
        """Return the load path under rising gusts and the winds of the site."""
        return self.loaded.path()

    @cached_property
    def links(self) -> tuple[Link, ...]:
        """Return the load path in no wind, the weekly wind and the required gust."""
        return tuple(link.within(case_sets.HERE) for link in self.path)

    @cached_property
    def limits(self) -> dict[str, Array]:
        """Return the limit gust of each link by design values, {key: (S, W)}. [m/s]"""
        uses = {link.key: case_sets.RISING.only(link.utilisation) for link in self.path}
        return crossings(uses, (2, self.season.weeks), case_sets.GUSTS)

    @cached_property
    def median_limits(self) -> dict[str, Array]:
        """Return the limit gust of each link by median demands and strengths, {key: (S, W)}. [m/s]"""
        medians = {link.key: case_sets.RISING.only(link.median_utilisation) for link in self.path}
        return crossings(medians, (2, self.season.weeks), case_sets.GUSTS)

    @cached_property
    def reliability(self) -> Reliability:
        """Return how likely it is to stand its season."""
        uses = [
            (link.key, check.material_group, case_sets.RISING.only(check.median_utilisation)[0])
            for link in self.path
            for check in link.checks
        ]
        learnt = {
            row.key: found.spread
            for row in tables.uncertainties().values()
            if (found := self.site.learnt(row.key))
        }
        gusts = self.weekly_gusts["rough"]
        return reliability_of(uses, case_sets.GUSTS, self.season.weeks, gusts, learnt)

    @cached_property
    def used(self) -> dict[str, Array]:
        """Return the utilisation of each link in the required gust, moist soil, by week, {key: (W,)}."""
        weeks = (self.season.weeks,)
        here = {link.key: case_sets.HERE.only(link.utilisation) for link in self.path}
        return {key: np.broadcast_to(use[0, :, -1], weeks) for key, use in here.items()}

    @cached_property
    def crop_load_factors(self) -> dict[str, Array]:
        """Return how many times the expected crop each link carries, by week, {key: (W,)}."""
        cases = case_sets.rising_crop(self.site)
        uses = {link.key: link.utilisation for link in self.under(cases).path()}
        found = crossings(uses, (1, self.season.weeks), case_sets.CROP_FACTORS)
        return {key: factor[0] for key, factor in found.items()}

    @cached_property
    def service(self) -> tuple[Service, ...]:
        """Return the movements in no wind, the weekly wind and the required gust."""
        return tuple(service.within(case_sets.HERE) for service in self.loaded.service())

    @cached_property
    def findings(self) -> tuple[Remark, ...]:
        """Return every remark: on what fits, on movements in the weekly wind, on wet soil. The worst come
        first.
        """
        moved = (_moved(service) for service in self.service)
        return tuple(sorted((*self.remarks, *moved, *self._after_rain()), key=lambda r: _LEVELS[r.level]))

    def _after_rain(self) -> tuple[Remark, ...]:
        """Return a remark where it fails in the weekly wind once the soil is wet, and not before: wrong where
        it does so by median strengths, too.
        """
        dry, wet = (float(np.min(limit)) for limit in self.limit)
        wind = self.site.serviceability_wind
        if wet >= min(wind, dry):
            return ()
        level: Literal["wrong", "watch"] = "wrong" if float(np.min(self.median_limit[1])) < wind else "watch"
        values = {"wet": (wet, "speed"), "wind": (wind, "speed")}
        return (Remark("after-rain", level, values, source="handbook-5.2"),)

    @property
    def growths(self) -> tuple[Growth, ...]:
        """Return the course of each planting."""
        return self.loaded.growths

    @cached_property
    def limit(self) -> Array:
        """Return the limit gust of the whole, (S, W). [m/s]

        Wet soil lets the ends give, which can relieve them. Since soil gets wet by degrees, the lesser of
        moist and wet is taken for wet soil.
        """
        return np.minimum.accumulate(np.minimum.reduce(list(self.limits.values())), axis=-2)

    @cached_property
    def median_limit(self) -> Array:
        """Return the gust at which about half of such structures fail, (S, W). [m/s]"""
        return np.asarray(np.minimum.reduce(list(self.median_limits.values())))

    @property
    def worst_week(self) -> int:
        """Return the week of least limit gust in moist soil; where no gust is too much, the week of greatest
        utilisation.
        """
        if np.isfinite(self.limit[0]).any():
            return int(np.argmin(self.limit[0]))
        return int(np.argmax(np.maximum.reduce(list(self.used.values()))))

    @cached_property
    def _weakest(self) -> list[str]:
        """Return the link of least limit gust in each week of moist soil; of equals the most used."""
        keys = list(self.used)
        limits = np.array([self.limits[key][0] for key in keys])
        # of links that cannot stand at all, the first on the path is named
        uses = np.minimum(list(self.used.values()), _BEYOND)
        first = np.lexsort((-uses, limits), axis=0)[0]
        return [keys[index] for index in first]

    def weakest(self, week: int) -> str:
        """Return the key of the governing link in a week."""
        return self._weakest[week]

    def utilisation_of(self, key: str, week: int) -> float:
        """Return the utilisation of a link in the required gust in a week, moist soil."""
        return float(self.used[key][week])

    @property
    def greatest_utilisation(self) -> float:
        """Return the greatest utilisation in the required gust, moist soil, over all weeks and links."""
        return max(float(np.max(use)) for use in self.used.values())

    @property
    def state(self) -> State:
        """Return whether it is adequate, marginal or inadequate."""
        return state_of(self.greatest_utilisation, self.reliability.whole)

    def calculate(self, pause: Callable[[], None]) -> Design:
        """Calculate step by step what a report reads first, and return the design itself.

        Args:
            pause: Called after each step of some milliseconds, so that other requests can run.
        """
        for name in ("loaded", "path", "limits", "reliability", "remarks"):
            getattr(self, name)
            pause()
        return self


def _moved(service: Service) -> Remark:
    """Return the remark on a movement in the weekly wind: to watch where it is more than its limit."""
    shape = np.broadcast_shapes(service.amount.shape, (1, 1, 3))
    amount = float(np.max(np.broadcast_to(service.amount, shape)[0, :, 1]))
    values = {"amount": (amount, "length"), "limit": (service.limit, "length")}
    level: Literal["fine", "watch"] = "watch" if amount > service.limit else "fine"
    return Remark(service.key, level, values, source=service.source, levers=service.levers)


def geometry_of(bed: BareBed, structure: Structure) -> Geometry:
    """Return where the members and plants of a structure stand in its bed. The place of bed and structure on
    the garden plan does not matter to it, so that a move recalculates nothing.
    """
    return _geometry(Said(bed, "structures", "x", "y"), Said(structure, "along", "across", "turn", "built"))


@remembered(1024)
def _geometry(bed: Said, structure: Said) -> Geometry:
    home = BareBed.model_validate({name: getattr(bed.thing, name) for name in BareBed.model_fields})
    return Design(Site(garden=Place(name="-"), bed=home), structure.thing).geometry


@remembered(48)
def design_of(site: Site, structure: Structure) -> Design:
    """Return the design of a structure at a site. The latest designs are kept with what they calculated."""
    return Design(site, structure)
