"""Cage: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending, embedment, footings, strings, tipping
from ...loads import face
from ...loads.cases import by_week
from ...mechanics import Array, section, wind
from ...path.geometry import keys
from ...path.loadpath import Arrow, Check, Link, Service, Strength
from ...patterns import posts, pots
from ...patterns.stand import Stand
from ...tables import rows
from .geometry import cage_of
from .options import CageOptions

_BRANCHES = 4.0  # that lie on a ring
_LEGGED = 0.002  # wire from which a cage stands on its own legs; finer netting is held by canes [m]
_FIXED = 0.10  # below the soil at which a thin leg in dug earth is fixed, at most [m], judgement


class Caged(Stand[CageOptions]):
    """Everything the checks of a cage need, worked out once for its cases."""

    @cached_property
    def cage(self) -> rows.Cage:
        return cage_of(self.options)

    @cached_property
    def stood(self) -> float:
        """Return the height of the cage above ground. [m]"""
        return self.cage.height_m - self.cage.leg_m

    @cached_property
    def stake(self) -> rows.Post:
        return tables.posts()[self.options.stake]

    @cached_property
    def deep(self) -> int:
        """Return how many cages stand one behind another as one stiff raft, whichever way the wind blows."""
        if self.options.link != "diagonal" or self.options.rows < 2:
            return 1
        per_row = max(math.ceil(len(self.geometry.plants) / self.options.rows), 1)
        return min(self.options.rows, per_row)

    @cached_property
    def apart(self) -> float:
        return min(self.options.row_spacing, max(p.spacing for p in self.structure.plantings))

    @cached_property
    def wind(self) -> face.FaceWind:
        mesh = wind.mesh_solidity(self.cage.wire, self.cage.along, self.cage.up)
        return face.wind_on_face(self.growths, mesh, 0.0, self.stood, self.cases, "round")

    @cached_property
    def force(self) -> Array:
        """Return the wind on one cage: a round body as wide as the cage or the plant that has outgrown it.
        [N]
        """
        wide = max(*(min(s.planting.spacing, s.crop.depth_m) for s in self.growths), self.cage.diameter_m)
        return np.asarray(self.wind.force * wide)

    @cached_property
    def pressing(self) -> Array:
        """Return the mass of a usual plant that always lies on its cage, (1, W, 1). [kg]"""
        total = np.zeros(self.season.weeks)
        for growth in self.growths:
            shoot = growth.shoot_kg / max(growth.crop.carried_share, 0.05) * tables.constant("shoot_on_rings")
            total = np.maximum(total, shoot + growth.fruit_kg * tables.constant("fruit_on_rings"))
        return by_week(total)

    @cached_property
    def weight(self) -> Strength:
        """Return the weight that keeps one cage down: its own and half of what lies on it, or all of that as
        one expects. [N]
        """
        on = tables.constant("gravity") * self.pressing
        own = tables.constant("gravity") * self.cage.kg
        return Strength(np.asarray(own + 0.5 * on), np.asarray(own + on))

    @cached_property
    def leaning(self) -> Array:
        """Return the moment of a plant that leans on its cage. [N·m]"""
        top = by_week(np.minimum(np.max([s.top for s in self.growths], axis=0), self.stood + 0.3))
        return np.asarray(
            self.pressing
            * self.cases.crop
            * tables.constant("gravity")
            * tables.constant("static_lean")
            * top
            / 2
        )

    @cached_property
    def column(self) -> Array:
        """Return the overturning moment of one column of cages. [N·m]"""
        behind = 1.0 + tables.constant("follower") * (self.deep - 1)
        return np.asarray(behind * self.force * self.wind.height + self.deep * self.leaning)

    @cached_property
    def leg(self) -> tuple[float, float]:
        """Return the moment that one leg may be bent with, and the one it is expected to bear. [N·m]"""
        modulus = section.round_bar(self.cage.wire).Z
        return 0.6 * self.cage.yield_ * modulus, self.cage.median * modulus

    @cached_property
    def wired(self) -> bool:
        """Return whether its legs are the cage's own wires, pushed into the soil."""
        return self.cage.legs > 0 and self.cage.wire >= _LEGGED

    @cached_property
    def arm(self) -> float:
        """Return the distance from the middle of a column to its leeward edge. [m]"""
        return ((self.deep - 1) * self.apart + self.cage.diameter_m) / 2

    @cached_property
    def resting(self) -> Strength:
        """Return the moment that a column holds by weight, by its legs in the soil and by the roots of its
        plants. [N·m]

        Legs hold by friction as they are pulled out, or each as a little post as it is pushed aside,
        whichever is more.
        """
        each = tables.constant("wire_legs") * math.pi * self.cage.wire * self.cage.leg_m
        soil, height = tables.soils()[self.site.bed.soil], np.maximum(self.wind.height, 0.1)
        pulled = each * self.cage.legs / 2 * self.cage.diameter_m * self.cases.soil_strength(soil)
        stood = Strength(self.nothing, self.nothing)
        if self.wired:
            held = embedment.strength(
                self.ground, footings.wire_post(self.cage.wire), self.cage.leg_m, height, self.cases
            )
            bears = self.leg
            stood = Strength(
                np.asarray(self.cage.legs * np.minimum(held.allowable * height, bears[0])),
                np.asarray(self.cage.legs * np.minimum(held.median * height, bears[1])),
            )
        still, arm, deep = tables.constant("dead_weight"), self.arm, self.deep
        return Strength(
            np.asarray(
                deep
                * (
                    self.weight.allowable * arm / still
                    + np.maximum(pulled / still, stood.allowable)
                    + self.rooted.allowable
                )
            ),
            np.asarray(
                deep * (self.weight.median * arm + np.maximum(pulled, stood.median) + self.rooted.median)
            ),
        )

    @cached_property
    def tied_at(self) -> float:
        return max(tables.constant("cage_stake_tie") * self.stood, 0.2)

    @cached_property
    def staked(self) -> Strength:
        """Return the moment that the stakes of a column hold. [N·m]"""
        if not self.options.stakes:
            return Strength(self.nothing, self.nothing)
        height, count = np.full((1, 1, 1), self.tied_at), self.options.stakes * self.deep
        bears, soil = (
            bending.moments(self.stake),
            embedment.strength(self.ground, self.stake, self.options.depth, height, self.cases),
        )
        return Strength(
            np.asarray(np.minimum(soil.allowable * height, bears.allowable) * count),
            np.asarray(np.minimum(soil.median * height, bears.median) * count),
        )

    @cached_property
    def sheared(self) -> Strength:
        """Return the wind that pushes one cage over above its lowest ring, as designed for and as expected:
        less what stem and roots take. [N]
        """
        height = np.maximum(self.wind.height, 0.1)
        return Strength(*(np.asarray(np.maximum(self.force - each / height, 0.0)) for each in self.rooted))

    def _racks(self) -> Check:
        """Return the check of the legs below the lowest ring, which lean over together."""
        free = self.cage.up + min(self.cage.leg_m / 2, _FIXED)
        soil = embedment.strength(
            self.ground,
            footings.wire_post(self.cage.wire),
            self.cage.leg_m,
            np.full((1, 1, 1), free),
            self.cases,
        )
        on = self.pressing * self.cases.crop * tables.constant("gravity")
        return tipping.racks(
            self.cage, self.sheared, self.leg, Strength(soil.allowable * free, soil.median * free), free, on
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        rings, first = keys(self.geometry.by_role("ring")), self.geometry.by_role("ring")[0].points[0]
        branch = (
            self.pressing
            * self.cases.crop
            * tables.constant("gravity")
            / (self.cage.legs or 6)
            / 2
            * tables.constant("tie_uneven")
        )
        ringed = (
            tipping.ring(self.cage, branch, min(self.cage.along, 0.4)),
            *((self._racks(),) if self.wired and not self.options.stakes else ()),
        )
        hold = Strength(
            self.resting.allowable + self.staked.allowable, self.resting.median + self.staked.median
        )
        below = (
            "tipping",
            *(("link",) if self.deep > 1 else ()),
            *(("stake",) if self.options.stakes else ()),
        )
        edge = (first[0], first[1] + self.cage.diameter_m / 2, 0.0)
        centre = (first[0], first[1], float(self.stood) * tables.constant("cage_centre"))
        table = ("cages", self.cage.key) if self.options.made == "bought" else ("meshes", self.options.mesh)
        levers = ("stakes", "link", "depth", "stake", "diameter", "height", "cage")
        links = [
            Link("ring", rings, table, below, ("cage", "mesh"), branch * _BRANCHES, ringed),
            Link(
                "tipping",
                rings,
                None,
                ("pot",) if self.site.bed.kind == "container" else (),
                levers,
                self.force,
                (
                    tipping.cage(
                        self.column,
                        self.weight.allowable,
                        self.arm,
                        hold,
                        self.resting.allowable,
                        self.staked.allowable,
                        self.deep,
                    ),
                ),
                (Arrow(centre, (0.0, 1.0, 0.0)), Arrow(edge, (0.0, 0.0, 1.0))),
            ),
        ]
        if self.deep > 1:
            links.append(self._link())
        if self.options.stakes:
            links += self._stake()
        return (
            *links,
            *pots.link(
                self.site.bed,
                self.force * len(self.geometry.plants),
                np.asarray(self.wind.height),
                ("depth",),
            ),
        )

    def _link(self) -> Link:
        twine = tables.twines()[self.options.link_twine]
        passed = self.force * (self.deep - 1) / self.deep

        def linked(twine: rows.Twine) -> tuple[Check, ...]:
            tied = strings.twine_strength(twine, self.tied_on)
            return (tipping.linked(Strength(2.0 * tied.allowable, 2.0 * tied.median), passed),)

        return Link.of(
            "link", keys(self.geometry.by_role("run")), twine, ("tipping",), ("link_twine",), passed, linked
        )

    def _stake(self) -> list[Link]:
        """Return the stakes: what a column does not hold by itself, its stakes take at the height of their
        ties.
        """
        count = self.options.stakes * self.deep
        taken, usual = (np.maximum(self.column - each, 0.0) / count / self.tied_at for each in self.resting)
        height = np.full((1, 1, 1), self.tied_at)
        members = keys(self.geometry.by_role("post"))
        bent = bending.post_across(self.stake, taken, height, np.ones((1, 1, 1)))
        grip = self.soil_grip(self.stake, self.options.depth, taken, height, ("depth", "stakes", "stake"))
        return [
            Link(
                "stake",
                members,
                ("posts", self.stake.key),
                ("soil",),
                ("stake", "stakes"),
                taken,
                (replace(bent, expected=usual * self.tied_at),),
            ),
            replace(grip, checks=tuple(replace(check, expected=usual) for check in grip.checks)),
        ]

    def service(self) -> tuple[Service, ...]:
        """Return the lean of the cage's top: nothing until it tips, or what its stake gives."""
        lean = self.nothing + 0.0 * self.force
        if self.options.stakes:
            resting = self.weight.allowable * self.cage.diameter_m / 2
            taken = (
                np.maximum(self.force * self.wind.height + self.leaning - resting, 0.0)
                / self.tied_at
                / self.options.stakes
            )
            give = posts.lean_per_force(
                self.stake,
                self.ground,
                self.options.depth,
                np.full((1, 1, 1), self.tied_at),
                np.full((1, 1, 1), 0.01),
                self.stood,
                self.cases,
            )
            lean = np.minimum(taken * give, self.stood)
        return (
            Service(
                "lean",
                lean,
                self.stood / tables.constant("sway_limit") * 3,
                "handbook-10.2",
                ("stakes", "stake", "depth"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the moment of wind and lean on all cages of a column, and what the link that keeps it from
        tipping is asked for. [N·m]
        """
        behind = 1.0 + tables.constant("follower") * (self.deep - 1)
        tips = next(link for link in self.path() if link.key == "tipping")
        return behind * self.force * self.wind.height + self.deep * self.leaning, tips.checks[0].demand
