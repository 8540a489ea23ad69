"""Hoops: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import arches, bending, embedment, footings, legs, tension
from ...loads import crop, face
from ...loads.cases import by_week
from ...mechanics import Array, wind
from ...path.geometry import keys, tributary
from ...path.loadpath import Arrow, Check, Link, Service, Strength
from ...patterns.stand import Bays
from ...shapes import earth, sprung
from ...tables import rows
from .geometry import CROWN, INSIDE, LEAST_RISE, hold, hoop
from .options import HoopsOptions

_BOARD = 0.019  # of wood that takes the push of a foot [m]
_BOARD_NEAR = 0.1  # between a hoop and the boards that it leans on, both sides together [m]
_STAKED = 0.05  # of the push along the row, that a stake takes at the least


class BentHoops(Bays[HoopsOptions]):
    """Everything the checks of hoops need, worked out once for its cases: of one hoop."""

    spaced_by = "hoop_spacing"

    @cached_property
    def hoop(self) -> rows.Post:
        return hoop(self.options)

    @cached_property
    def hold(self) -> float:
        """Return the height up to which the ends are held upright, above the end itself. [m]"""
        return hold(self.options)

    @cached_property
    def sunk(self) -> float:
        return self.options.push_in if self.options.hoop_of == "ladder-mesh" else 0.0

    @cached_property
    def figures(self) -> sprung.SprungFigures:
        softer = tables.constant("pvc_creep") if self.hoop.material == "pvc" else 1.0
        return sprung.figures(
            self.options.arc, self.options.span, self.hold, bending.stiffness(self.hoop) / softer
        )

    @cached_property
    def sprung(self) -> bool:
        """Return whether a hoop is bent as it is set and pushes its feet out; steel tube is bent beforehand
        and stays so.
        """
        return self.hoop.material != "tube_steel"

    @cached_property
    def pushing(self) -> Array:
        """Return how hard a foot pushes outward in still air: by its spring, or under the crop alone. [N]"""
        if not self.sprung:
            return arches.spread(self.hanging + self.bare_weight)
        return np.asarray(np.maximum(np.abs(self.figures.tie), np.abs(self.figures.foot)))

    @cached_property
    def rise(self) -> float:
        return max(float(self.figures.rise) - self.sunk, LEAST_RISE)

    @cached_property
    def solidity(self) -> float:
        if self.options.net == "none":
            return 0.0
        mesh = tables.meshes()[self.options.mesh]
        return float(wind.mesh_solidity(mesh.wire, mesh.along, mesh.up))

    @cached_property
    def wind(self) -> face.FaceWind:
        one = tuple(
            crop.planting_on_face(p.model_copy(update={"side": "right"}), self.season, i, self.rise)
            for i, p in enumerate(self.structure.plantings)
        )
        low = tuple(replace(each, top=np.minimum(each.top, self.rise), bottom=0.0) for each in one)
        return face.wind_on_face(low, self.solidity, 0.0, self.rise, self.cases)

    @cached_property
    def across(self) -> Array:
        """Return the wind across one hoop. [N]"""
        bare = (
            tables.constant("pole_drag")
            * wind.gust_pressure(self.cases.gust)
            * self.hoop.soil_width
            * self.rise
        )
        return np.asarray(self.wind.force * self.carried + bare)

    @cached_property
    def lever(self) -> Array:
        return np.full((1, 1, 1), 0.55 * self.rise)

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of one hoop. [N]"""
        return self.hoop.kg_m * self.options.arc * tables.constant("gravity")

    @cached_property
    def hanging(self) -> Array:
        """Return the weight of crop on the fullest hoop. [N]"""
        total = self.nothing
        for index, growth in enumerate(self.growths):
            count = tributary(self.xs, self.places(index), self.bay / 2)
            total = total + crop.group_weight(growth, count, self.carried * self.options.arc, self.cases.crop)
        return np.asarray(total + self.lying * self.carried * self.options.span)

    @cached_property
    def along(self) -> Array:
        """Return the wind along the row, brought to the crowns. [N]"""
        depth = max(float(np.max([s.crop.depth_m for s in self.growths])), 0.05)
        end = self.wind.end * max(self.options.span / 2 / depth, 1.0)
        return np.asarray((end + 2 * self.wind.skin * self.options.length) * 0.55)

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to ground."""
        weight = (self.hanging + self.bare_weight) / self.options.arc
        checks: list[Check] = [
            arches.tube_sway(self.hoop, self.hanging + self.bare_weight, self.rise, INSIDE)
        ]
        if self.sprung:
            heavy = arches.crown(self.figures, self.bare_weight, self.hanging, self.options.arc)
            bears = bending.moments(self.hoop)
            rod = Strength(np.asarray(bears.allowable), np.asarray(bears.median))
            above = np.maximum(self.lever - max(self.hold - self.sunk, 0.0), 0.1)
            blown = arches.blown(
                rod, self.across, above, 4.0 if self.hold else 2.0, weight, self.figures, "hoop-blown"
            )
            checks = [
                arches.sway(self.figures, weight),
                heavy,
                arches.hoop_bend(self.figures, self.hoop),
                blown,
            ]
        if self.options.hoop_of == "pipe":
            checks.append(
                arches.tube(
                    self.hoop,
                    self.across,
                    self.lever,
                    self.hanging + self.bare_weight,
                    self.options.span,
                    self.rise,
                    INSIDE,
                )
            )
        below = ("rod",) if self.options.hoop_of == "pipe" else ("buried",)
        joined = ("ridge-tie",) if self.options.ridge != "none" else ()
        links = [
            *self.stem_ties(self.options.stem_tie, self.wind.pressure, self.wind.leaf_height, "hoop"),
            Link(
                "hoop",
                keys(self.geometry.by_role("arm")),
                ("posts", self.hoop.key),
                (*below, *joined),
                ("pipe", "ladder", "hoop_spacing", "push_in"),
                self.hanging + self.bare_weight,
                tuple(checks),
                (Arrow((0.0, 0.0, self.rise), (0.0, 0.0, -1.0)),),
            ),
        ]
        return (
            *links,
            *(self._rods() if self.options.hoop_of == "pipe" else self._buried()),
            *self._joined(),
        )

    @cached_property
    def boarded(self) -> bool:
        """Return whether the boards of its bed stand behind a hoop's feet and take their push."""
        bed = self.site.bed
        return bed.kind == "raised" and bed.board >= _BOARD and self.options.span >= bed.width - _BOARD_NEAR

    @cached_property
    def lifted(self) -> Array:
        """Return what lifts the windward foot of a hoop: half the usual vines lie on it and hold it down.
        [N]
        """
        return np.asarray(
            np.maximum(self.across * self.lever - self.resting * self.options.span / 2, 0.0)
            / self.options.span
        )

    @cached_property
    def resting(self) -> Array:
        """Return the weight that is always on one hoop. [N]"""
        share = self.carried / self.options.length
        shoots = sum(
            (s.shoot_kg * s.planting.count * share for s in self.growths), np.zeros(self.season.weeks)
        )
        return np.asarray(self.bare_weight + 0.5 * tables.constant("gravity") * by_week(shoots))

    def _buried(self) -> list[Link]:
        """Return the ends of a ladder in the soil: two rods a foot."""
        push = np.asarray(self.pushing + self.across / 2)
        ground = earth.topmost(self.ground, self.options.push_in)
        checks = footings.buried(ground, self.hoop.a, 2, self.options.push_in, push, self.lifted, self.cases)
        grip, lift = checks
        if self.options.held == "stakes":
            stake, strength = (
                tables.posts()[self.options.foot_stake],
                self.cases.soil_strength(self.ground.native),
            )
            lift = tension.uplift(stake, self.ground, self.options.foot_depth, self.lifted, strength)
        checks = (lift,) if self.boarded else (grip, lift)
        foot = (0.0, self.options.span / 2, 0.0)
        return [
            Link(
                "buried",
                keys(self.geometry.by_role("grip")),
                None,
                (),
                ("push_in", "held", "foot_depth", "foot_stake", "hoop_spacing"),
                push,
                checks,
                (Arrow(foot, (0.0, 1.0, 0.0)),),
            )
        ]

    def _rods(self) -> list[Link]:
        """Return the rods that pipes are slipped over, and the soil that holds them."""
        rod, height = tables.posts()[self.options.rod], np.full((1, 1, 1), self.rise / 2)
        push = np.asarray(self.pushing + self.across / 2)
        still = np.broadcast_to(self.pushing, np.broadcast_shapes(self.pushing.shape, (1, 1, 1)))
        low = np.full((1, 1, 1), min(self.rise / 2, INSIDE))
        levers = ("in_soil", "rod", "hoop_spacing")
        side = (Arrow((0.0, self.options.span / 2, self.rise / 2), (0.0, 1.0, 0.0)),)
        grip = self.soil_grip(rod, self.options.in_soil, push, height, levers)
        strength = self.cases.soil_strength(self.ground.native)
        lasting = embedment.grip(
            "soil-lasting", self.ground, rod, self.options.in_soil, still, low, self.cases, "soil_sustained"
        )
        return [
            Link(
                "rod",
                keys(self.geometry.by_role("post")),
                ("posts", rod.key),
                ("soil",),
                ("rod", "hoop_spacing"),
                push,
                (
                    bending.post_across(rod, push, height, np.ones((1, 1, 1))),
                    bending.lasting(rod, still * low),
                ),
                side,
            ),
            replace(
                grip,
                checks=(
                    *grip.checks,
                    lasting,
                    tension.uplift(rod, self.ground, self.options.in_soil, self.lifted, strength),
                ),
            ),
        ]

    def _joined(self) -> list[Link]:
        """Return what keeps the hoops from going down along the row."""
        links, rise = [], np.full((1, 1, 1), self.rise)
        if self.options.ridge != "none":
            tie = tables.ties()[self.options.tie]
            demand = self.along / max(len(self.xs) - 1, 1)
            to = {"diagonal": ("brace",), "stake": ("end-stake",)}.get(self.options.brace, ())
            links.append(
                Link.of(
                    "ridge-tie",
                    keys(self.geometry.by_role("tie")),
                    tie,
                    to,
                    ("tie",),
                    demand,
                    lambda tie: (arches.joined(tie, demand, self.tied_on),),
                )
            )
        if self.options.brace == "diagonal":
            wire, run = (
                tables.wires()[self.options.brace_wire],
                max(min(2 * self.bay, self.options.length), 0.3),
            )
            tight = self.along * math.hypot(run, self.rise) / run
            below = ("buried",) if self.options.hoop_of == "ladder-mesh" else ("soil",)
            links.append(
                Link(
                    "brace",
                    keys(self.geometry.by_role("guy")),
                    ("wires", wire.key),
                    below,
                    ("brace_wire",),
                    tight,
                    (tension.brace_wire(wire, tight, self.along),),
                )
            )
        own = self._along_own()
        if self.options.brace == "stake":
            # hoops bend without breaking, so they keep what they hold and the stake takes the rest
            stake, at = tables.posts()[self.options.stake], CROWN * rise
            left, usual = (
                self.along * np.clip(1.0 - 1.0 / np.maximum(use, 1e-9), _STAKED, 1.0)
                for use in (own.utilisation, own.median_utilisation)
            )
            checks = (
                replace(bending.post_along(stake, left, at, 1), expected=usual * at),
                embedment.grip(
                    "soil-grip",
                    self.ground,
                    stake,
                    self.options.stake_depth,
                    left,
                    at,
                    self.cases,
                    expected=usual,
                ),
            )
            members = tuple(m.key for m in self.geometry.members if m.key.startswith("stake-"))
            links.append(
                Link("end-stake", members, ("posts", stake.key), (), ("stake", "stake_depth"), left, checks)
            )
        elif self.options.brace == "none":
            item = self.options.rod if self.options.hoop_of == "pipe" else self.hoop.key
            links.append(
                Link(
                    "along",
                    keys(self.geometry.by_role("arm")),
                    ("posts", item),
                    (),
                    ("brace", "ridge"),
                    self.along,
                    (own,),
                )
            )
        return links

    def _along_own(self) -> Check:
        """Return the check of hoops that nothing braces along their row: each foot by its rods in the soil,
        under wind and leaning vines.

        A ladder's foot is two rods that bend singly below its lowest rung; a pipe's is its driven rod. All
        stand together where a line joins their crowns.
        """
        joined = len(self.xs) if self.options.ridge != "none" else 1
        if self.options.hoop_of == "pipe":
            rod, rods, depth = tables.posts()[self.options.rod], 1, self.options.in_soil
        else:
            rod, rods, depth = replace(self.hoop, shape="round", b=self.hoop.a), 2, self.options.push_in
        crown = np.full((1, 1, 1), self.rise)
        each = legs.stood(rod, earth.topmost(self.ground, depth), depth, crown, rods * 2, self.cases)
        weight = self.hanging + self.bare_weight
        leaning = weight * self.rise / 2 * math.sin(math.radians(tables.constant("lean_angle"))) * joined
        moment = self.along * crown + leaning
        return Check(
            "hoops-along",
            moment,
            each.allowable * joined,
            each.median * joined,
            "moment",
            "handbook-9.6",
            "judgement",
            {
                "along": (self.along, "force"),
                "rise": (self.rise, "length"),
                "leaning": (leaning, "moment"),
                "hoops": (float(joined), "count"),
                "moment": (moment, "moment"),
            },
            "soil",
        )

    def service(self) -> tuple[Service, ...]:
        """Return how far a crown moves over in the wind, and how far the crop brings it down."""
        stiff = bending.stiffness(self.hoop)
        moved = (
            self.across
            * np.maximum(self.lever - self.hold, 0.1)
            * (max(self.rise - self.hold, 0.1)) ** 2
            / (24.0 * stiff)
        )
        levers = ("hoop_spacing", "pipe", "ladder")
        load = self.hanging / self.options.arc
        return (
            Service("hoop-lean", np.minimum(moved, self.rise), self.rise / 5, "handbook-9.6", levers),
            Service(
                "crown-drop",
                np.asarray(np.clip(self.figures.drop * load, 0.0, self.rise)),
                self.rise / 5,
                "handbook-8.5",
                levers,
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across all hoops, and what their feet are pushed with besides the spring of the
        hoops. [N]
        """
        bare = (
            tables.constant("pole_drag")
            * wind.gust_pressure(self.cases.gust)
            * self.hoop.soil_width
            * self.rise
        )
        hoops = self.options.length / self.carried
        foot = next(link for link in self.path() if link.key in ("buried", "rod"))
        return self.wind.force * self.options.length + bare * hoops, 2 * (foot.carries - self.pushing) * hoops
