"""A structure standing under the loads of its cases: what the checks of every family start from."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import ClassVar, Generic, Protocol, TypeVar

import numpy as np

from .. import tables
from ..checks import bending, embedment, ties
from ..loads import crop
from ..loads.cases import Cases, by_week
from ..loads.season import Season, season_of
from ..mechanics import Array, column
from ..path.geometry import Geometry, keys, tributary
from ..path.loadpath import Arrow, Check, Link, Service, Strength
from ..plan.structure import Structure
from ..shapes import earth, wear
from ..site import Site
from ..tables import rows
from .plants import ties_on_stem
from .posts import stations

OptionsT = TypeVar("OptionsT")
_STIFF = ("upright", "self", "stiff")  # habits that hold half of themselves, structures handbook 11
_STEMMED = (*_STIFF, "lax", "scrambler")  # habits with a stem of their own
_SWAYS = 2.1  # effective length of a post that stands in soil, structures handbook 4.2


class LongOptions(Protocol):
    """What the options of everything divided into bays have."""

    @property
    def length(self) -> float: ...


class RowOptions(LongOptions, Protocol):
    """What the options of every row of posts have."""

    @property
    def post(self) -> str: ...
    @property
    def post_spacing(self) -> float: ...
    @property
    def post_age(self) -> int: ...


LongT = TypeVar("LongT", bound=LongOptions)
RowT = TypeVar("RowT", bound=RowOptions)


@dataclass(frozen=True)
class Stand(Generic[OptionsT]):
    """What a family is given to work its links out from, and the courses they share."""

    options: OptionsT
    geometry: Geometry
    structure: Structure
    site: Site
    cases: Cases

    def __post_init__(self) -> None:
        """Spread over the structure what covers it in its weeks."""
        if self.structure.covers:
            object.__setattr__(self, "cases", replace(self.cases, cloth=self.season.cloth))

    @cached_property
    def season(self) -> Season:
        """Return the weeks from the first planting to the last clearing."""
        season = season_of(self.site.garden, self.structure.plantings, self.structure.covers)
        return replace(season, late=self.cases.late)

    @cached_property
    def lying(self) -> Array:
        """Return what lies on a roof of it: a cover, and snow where it may, (1, W, 1) or nothing. [N/m²]"""
        if self.season.cloth_kg_m2 is None:
            return self.nothing
        return np.asarray(tables.constant("gravity") * by_week(self.season.cloth_kg_m2))

    @cached_property
    def growths(self) -> tuple[crop.Growth, ...]:
        """Return the course of each planting, up to what the structure lets it climb."""
        return tuple(
            crop.planting_on_face(planting, self.season, index, self.geometry.climb)
            for index, planting in enumerate(self.structure.plantings)
        )

    @cached_property
    def ground(self) -> earth.PostGround:
        """Return the soil that posts stand in, as they are set."""
        return earth.ground_of(self.site.bed, getattr(self.options, "setting", "driven"))

    @cached_property
    def tied_on(self) -> Array:
        """Return days the ties have been up in each week, (W,): they go on with the first planting."""
        return np.asarray(self.season.days - self.season.days[0] + 3.5)

    @cached_property
    def nothing(self) -> Array:
        """Return no load at all, (1, 1, 1)."""
        return np.zeros((1, 1, 1))

    def places(self, planting: int) -> Array:
        """Return the stations of a planting's plants along the row, (N,). [m]"""
        return np.array([plant.along for plant in self.geometry.plants if plant.planting == planting])

    def crop_weight(self, stations: Array, reach: float, run: float) -> Array:
        """Return the weight of crop at the fullest of some stations: one good plant, the rest typical, capped
        by light.

        Args:
            stations: Where the members stand that carry it, (n,). [m]
            reach: How far along the row each answers for to either side. [m]
            run: Length of row whose light feeds it. [m]

        Returns:
            Weight, (S, W, G). [N]

        Source: crops-5.5
        """
        total = self.nothing
        for index, growth in enumerate(self.growths):
            count = tributary(stations, self.places(index), reach)
            area = run * np.maximum(growth.tallest - growth.bottom, 0.1)
            total = total + crop.group_weight(growth, count, area, self.cases.crop)
        return np.asarray(total)

    def plant_weight(self, growths: Sequence[crop.Growth]) -> Array:
        """Return what one good plant hangs on its own string, tie or stake, (..., 1, W, G): of several
        plantings the heaviest of each week. [N]
        """
        mass = by_week(np.max([growth.high_kg for growth in growths], axis=0))
        return np.asarray(tables.constant("gravity") * mass * self.cases.crop)

    def usual_weight(self, growths: Sequence[crop.Growth]) -> Array:
        """Return what a usual plant hangs on its own string, tie or stake, (..., 1, W, G): of several
        plantings the heaviest of each week. [N]
        """
        mass = by_week(np.max([growth.plant_kg for growth in growths], axis=0))
        return np.asarray(tables.constant("gravity") * mass * self.cases.crop)

    def held_up(self, weight: Array) -> Array:
        """Return what a plant that stands on its own stem leans on its ties in still air, F = W z tan δ/z_t
        with the tie at its middle. [N]

        Source: handbook-2
        """
        return np.asarray(weight * tables.constant("static_lean"))

    @cached_property
    def borne(self) -> float:
        """Return the share of lean and wind that is left to the support: an upright plant holds half of
        itself.
        """
        stiff = all(s.crop.habit in _STIFF for s in self.growths)
        return 1.0 - tables.constant("stands_itself") if stiff else 1.0

    @cached_property
    def rooted(self) -> Strength:
        """Return the moment that stem and roots of one plant hold as it grows, (1, W, 1): that of the least,
        none of a climber. [N·m]
        """
        share = np.min(
            [s.grown if s.crop.habit in _STEMMED else np.zeros_like(s.grown) for s in self.growths], axis=0
        )
        return Strength(
            *(by_week(tables.constant(key) * share) for key in ("stem_roots", "stem_roots_median"))
        )

    def stem_ties(
        self, key: str, pressure: Array, leafy: Array, to: str, tied_crops: tuple[str, ...] = ("TIE",)
    ) -> list[Link]:
        """Return the link of the ties that hold the heaviest and broadest of the plants that cannot
        hold on by themselves, none where all can.

        Args:
            key: Of the tie.
            pressure: Wind on the leafy face. [Pa]
            leafy: Height of the leafy band. [m]
            to: Key of the link they hand their load to.
            tied_crops: Kinds of training that take ties here.
        """
        indices = [n for n, growth in enumerate(self.growths) if growth.crop.training in tied_crops]
        if not indices:
            return []
        tied, row = [self.growths[n] for n in indices], tables.ties()[key]
        count = by_week(np.min([ties_on_stem(np.maximum(s.tallest - s.bottom, 0.3)) for s in tied], axis=0))
        weight, usual = (
            np.max([self.held_up(of([s])) if s.crop.habit in _STIFF else of([s]) for s in tied], axis=0)
            for of in (self.plant_weight, self.usual_weight)
        )
        blown = pressure * leafy * max(growth.planting.spacing for growth in tied)
        days = np.maximum(np.max([self.season.growing_days(n) for n in indices], axis=0), 0.0)

        def held(tie: rows.Tie) -> tuple[Check, ...]:
            return (ties.stem_tie(tie, weight, blown, count, days, usual),)

        return [Link.of("stem-tie", (), row, (to,), ("stem_tie",), np.hypot(weight, blown), held)]

    def soil_grip(
        self,
        post: rows.Post,
        depth: float,
        force: Array,
        height: Array,
        levers: tuple[str, ...],
        *,
        arrows: tuple[Arrow, ...] = (),
        below: tuple[str, ...] = (),
    ) -> Link:
        """Return the link of the soil that holds posts against the wind across the row.

        Args:
            post: The post.
            depth: In the soil. [m]
            force, height: On one post, and where it acts. [N] and [m]
            levers: Options that strengthen it.
            arrows: That show it.
            below: What it stands in, if not the ground.
        """
        check = embedment.grip("soil-grip", self.ground, post, depth, force, height, self.cases)
        return Link("soil", keys(self.geometry.by_role("grip")), None, below, levers, force, (check,), arrows)


class Bays(Stand[LongT]):
    """A row divided into bays: those of its geometry, else even ones by the option of that name."""

    spaced_by: ClassVar[str]

    @cached_property
    def xs(self) -> Array:
        """Return the stations between bays, (n,). [m]"""
        if self.geometry.bays:
            return np.array(self.geometry.bays.stations)
        return stations(self.options.length, getattr(self.options, self.spaced_by))

    @cached_property
    def bay(self) -> float:
        """Return the distance from station to station. [m]"""
        return self.geometry.bays.bay if self.geometry.bays else float(self.xs[1])

    @cached_property
    def carried(self) -> float:
        """Return the length of row a station answers for: a bay, or half of one where the row is a single
        bay. [m]
        """
        if self.geometry.bays:
            return self.geometry.bays.carried
        return self.bay if len(self.xs) > 2 else self.bay / 2


class PostRow(Bays[RowT]):
    """A row of posts at even bays, and what every such row works out."""

    spaced_by = "post_spacing"

    @cached_property
    def post(self) -> rows.Post:
        """Return the line post."""
        return wear.after(tables.posts()[self.options.post], self.options.post_age)

    def amplified_by(self, weight: Array, top: float) -> Array:
        """Return by how much a weight at the top of a post raises its moment from the wind."""
        return column.amplification(weight, column.euler_load(bending.stiffness(self.post), top, _SWAYS))

    def lean_of(self, moved: Array, top: float) -> Service:
        """Return how far the tops of the posts may move in the serviceability wind."""
        levers = ("depth", "post", "post_spacing")
        return Service(
            "lean", np.minimum(moved, top), top / tables.constant("sway_limit"), "handbook-4.2", levers
        )
