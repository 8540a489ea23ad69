"""Stake: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending, ties
from ...loads import face
from ...loads.cases import by_week
from ...mechanics import Array, column
from ...path.geometry import keys
from ...path.loadpath import Arrow, Link, Service
from ...patterns import posts, pots
from ...patterns.stand import Stand
from ...shapes import wear
from ...tables import rows
from .geometry import ties_on_stem, winds
from .options import StakeOptions


class Staked(Stand[StakeOptions]):
    """Everything the checks of a stake need, worked out once for its cases."""

    @cached_property
    def stake(self) -> rows.Post:
        return wear.after(tables.posts()[self.options.stake], self.options.post_age)

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(self.growths, 0.0, 0.0, self.options.height, self.cases, "round")

    @cached_property
    def width(self) -> float:
        """Return how wide the wind finds the largest plant: as wide as it grows, no wider than its neighbours
        let it. [m]
        """
        return max(min(s.planting.spacing, s.crop.depth_m) for s in self.growths)

    @cached_property
    def force(self) -> Array:
        """Return the wind on one plant that comes on its stake: an upright plant holds half of itself. [N]"""
        return np.asarray(self.borne * self.wind.force * self.width)

    @cached_property
    def weight(self) -> Array:
        """Return what a good plant hangs on its stake. [N]"""
        return self.plant_weight(self.growths)

    @cached_property
    def amplified(self) -> Array:
        critical = column.euler_load(bending.stiffness(self.stake), self.options.height, 2.1)
        return column.amplification(self.weight, critical)

    @cached_property
    def one_side(self) -> Array:
        """Return the moment of a plant that hangs beside its stake and leans; a bar shares it with the
        neighbours. [N·m]
        """
        top = by_week(np.minimum(np.max([s.top for s in self.growths], axis=0), self.options.height + 0.3))
        share = 0.5 if self.options.bar == "bar" else 1.0
        return np.asarray(
            self.borne
            * share
            * self.weight
            * (min(self.options.offset, 0.15) + 0.25 * tables.constant("static_lean") * top)
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        tie, tall = tables.ties()[self.options.stem_tie], np.max([s.tallest for s in self.growths], axis=0)
        count = by_week(ties_on_stem(self.options, tall))
        members, below = (
            keys(self.geometry.by_role("post")),
            ("pot",) if self.site.bed.kind == "container" else (),
        )
        height = np.asarray(self.wind.height)
        first = self.geometry.by_role("post")[0].points[1]
        side = (Arrow((first[0], first[1], min(self.options.height, 1.0)), (0.0, 1.0, 0.0)),)
        levers = ("stake", "depth", "height")
        hung = self.weight if self.borne == 1.0 else self.held_up(self.weight)
        links = (
            []
            if winds(self.options)
            else [
                Link.of(
                    "stem-tie",
                    (),
                    tie,
                    ("stake",),
                    ("stem_tie", "tie_step"),
                    np.hypot(hung, self.force),
                    lambda item: (ties.stem_tie(item, hung, self.force, count, self.tied_on),),
                )
            ]
        )
        links += [
            Link(
                "stake",
                members,
                ("posts", self.stake.key),
                ("soil",),
                levers,
                self.force,
                (
                    bending.post_across(self.stake, self.force, height, self.amplified),
                    bending.lasting(self.stake, self.one_side),
                ),
                side,
            ),
            self.soil_grip(
                self.stake,
                self.options.depth,
                self.force,
                height * self.amplified,
                ("depth", "stake", "height", "setting"),
                arrows=side,
                below=below,
            ),
        ]
        if self.options.bar == "bar":
            links.insert(1, self._bar())
        plants_ = len(self.geometry.plants)
        return (*links, *pots.link(self.site.bed, self.force * plants_, height, ("depth",)))

    def _bar(self) -> Link:
        """Return the bar: it carries half of what one plant's stake should, if that stake is loose."""
        wood = tables.posts()[self.options.bar_wood]
        gap = max(s.planting.spacing for s in self.growths)
        return Link(
            "bar",
            keys(self.geometry.by_role("rail")),
            ("posts", wood.key),
            ("stake",),
            ("bar_wood",),
            self.force / 2,
            (bending.rail(wood, np.zeros((1, 1, 1)), self.force / 2 / gap, gap),),
        )

    def service(self) -> tuple[Service, ...]:
        """Return the lean of the stake's top."""
        lean = self.force * posts.lean_per_force(
            self.stake,
            self.ground,
            self.options.depth,
            self.wind.height,
            self.wind.leaf_height / 2,
            self.options.height,
            self.cases,
        )
        return (
            Service(
                "lean",
                np.minimum(lean, self.options.height),
                self.options.height / tables.constant("sway_limit"),
                "handbook-4.2",
                ("stake", "depth"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the share of the wind across all plants that they do not hold themselves, and what bends
        their stakes. [N]
        """
        bent = next(link for link in self.path() if link.key == "stake").checks[0]
        each, _ = bent.terms["force"]
        return self.borne * self.wind.force * self.width * len(self.geometry.plants), np.asarray(
            each * len(self.geometry.by_role("post"))
        )
