"""A frame: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import arches, bending, embedment, footings, legs, strings, tension, tipping
from ...checks import mesh as mesh_checks
from ...mechanics import Array, raked_legs, relaxation
from ...path.geometry import keys
from ...path.loadpath import Arrow, Check, Link, Service
from ...patterns import plants
from ...shapes import earth
from ...tables import rows
from .loads import Loads

_GUY = math.radians(60.0)  # of a foot's anchor from the ground


class Leaning(Loads):
    """The links of an A-frame, worked out once for its cases."""

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        first = "face" if self.options.filled != "bent" else "bent"
        links = [
            *self._slings(first),
            *self.stem_ties(self.options.stem_tie, self.sides[0].pressure, self.sides[0].leaf_height, first),
        ]
        return (*links, *self._faces(), *self._racks(), *self._tied(), *self._feet())

    @cached_property
    def below(self) -> tuple[str, ...]:
        tied = ("foot-tie",) if self.options.foot_tie != "none" else ()
        return (*tied, "foot")

    def _slings(self, to: str) -> list[Link]:
        heaviest = max(tables.crops()[p.crop].fruit_heaviest_kg for p in self.structure.plantings)
        if heaviest <= plants.HEAVY:
            return []
        row = tables.fittings()[self.options.sling]
        count, angle = self.options.sling_legs, math.radians(self.options.sling_angle)

        def slung(sling: rows.Fitting) -> tuple[Check, ...]:
            return (arches.sling(sling, heaviest, count, angle, self.cases.crop),)

        levers = ("sling", "sling_legs", "sling_angle")
        return [Link.of("sling", (), row, (to,), levers, slung(row)[0].demand, slung)]

    @cached_property
    def across(self) -> tuple[Array, Array]:
        """Return the crop across one face's slope, and the wind across it, of one pair's stretch. [N]"""
        crop = self.hanging / self.several * math.cos(self.angle)
        return np.asarray(crop), np.asarray(
            np.maximum(self.sides[0].force, self.sides[1].force) * self.carried * math.sin(self.angle)
        )

    def _faces(self) -> list[Link]:
        """Return the face, its rails and the hinge they meet in; bent mesh is all three."""
        crop, blown = self.across
        area = self.options.leg * self.carried
        if self.options.filled == "bent":
            check = mesh_checks.slope_wires(self.mesh, (crop + blown) / area, self.options.leg)
            return [
                Link(
                    "bent",
                    keys(self.geometry.by_role("mesh")),
                    ("meshes", self.mesh.key),
                    self.below,
                    ("mesh", "leg", "spread"),
                    crop + blown,
                    (check,),
                )
            ]
        push = raked_legs.leg_push(
            (self.hanging + self.bare_weight) * tables.constant("hung_along"), self.apex, 2, self.angle
        )
        rail = (
            legs.leg(self.wood, push, self.options.leg, crop + blown),
            bending.lasting(self.wood, np.asarray(crop * self.options.leg / 8)),
        )
        pin = raked_legs.leg_push((self.hanging + self.bare_weight) / 2, self.apex, 2, self.angle)
        hinge = tables.fittings()[self.options.hinge]
        rails, pins = (
            keys(self.geometry.by_role("post")),
            tuple(m.key for m in self.geometry.members if m.key.startswith("hinge")),
        )
        foot = self.geometry.by_role("post")[0].points[0]
        racks = ("brace",) if self.options.brace == "diagonal" else ()
        checks = (
            rail
            if racks
            else (
                *rail,
                bending.racking(self.wood, self._along, self.height, 2 * len(self.xs), self.hanging / 2),
            )
        )
        return [
            self._face(crop, blown, area),
            Link(
                "rail-leg",
                rails,
                ("posts", self.wood.key),
                ("hinge", *self.below, *racks),
                ("frame_wood", "rail_spacing", "brace", "spread"),
                push,
                checks,
                (Arrow((foot[0], foot[1] / 2, self.height / 2), (0.0, 1.0, 0.0)),),
            ),
            Link.of(
                "hinge",
                pins,
                hinge,
                ("foot",),
                ("hinge", "rail_spacing"),
                pin,
                lambda item: (strings.fitting("hinge", item, pin),),
            ),
        ]

    def _face(self, crop: Array, blown: Array, area: float) -> Link:
        """Return what fills a face: mesh between its rails, or bars."""
        if self.options.filled == "mesh":
            stiff = 48.0 * bending.stiffness(self.wood) / self.options.leg**3
            bays = relaxation.tied_bays(len(self.xs) - 1)
            state = mesh_checks.in_wind(
                self.mesh, (crop + blown) / area, self.bay, self.options.leg, np.full((1, 1, 1), stiff), bays
            )
            checks: list[Check] = [mesh_checks.wire_tension(self.mesh, state, self.nothing, self.bay)]
            return Link(
                "face",
                keys(self.geometry.by_role("mesh")),
                ("meshes", self.mesh.key),
                ("rail-leg",),
                ("mesh", "rail_spacing"),
                crop + blown,
                tuple(checks),
            )
        bar = tables.posts()[self.options.bar]
        span = self.bay if self.options.filled == "rungs" else self.options.leg
        width = self.options.leg if self.options.filled == "rungs" else self.bay
        each = (crop + blown) / area * self.options.bar_step
        lone = (
            self.plant_weight(self.growths) * math.cos(self.angle) / max(span, 0.1)
            if self.options.filled == "rungs"
            else self.nothing
        )
        return Link(
            "face",
            tuple(m.key for m in self.geometry.by_role("arm") if m.key.startswith("bar")),
            ("posts", bar.key),
            ("rail-leg",),
            ("bar", "rail_spacing"),
            each * width,
            (bending.rail(bar, np.maximum(each, lone), self.nothing, span),),
        )

    @cached_property
    def _along(self) -> Array:
        """Return the wind along the row, brought to the ridge. [N]"""
        left, right = self.sides
        end = np.maximum(left.end, right.end) + (left.skin + right.skin) * self.options.length
        return np.asarray(end / 2)

    def _racks(self) -> list[Link]:
        if self.options.brace == "none" or self.options.filled == "bent":
            return []
        wire, run = tables.wires()[self.options.brace_wire], min(self.bay, self.options.length)
        tight = self._along / self.several * math.hypot(run, self.options.leg) / run
        check = tension.brace_wire(wire, tight, self._along / self.several)
        return [
            Link(
                "brace",
                keys(self.geometry.by_role("guy")),
                ("wires", wire.key),
                ("foot",),
                ("brace_wire",),
                tight,
                (check,),
            )
        ]

    def _tied(self) -> list[Link]:
        """Return the tie across the feet."""
        if self.options.foot_tie == "none":
            return []
        members = tuple(m.key for m in self.geometry.members if m.key.startswith("foot-tie"))
        if self.options.foot_tie == "bar":
            row = tables.fittings()["screws_76_pair"]
            return [
                Link.of(
                    "foot-tie",
                    members,
                    row,
                    (),
                    ("foot_tie", "spread"),
                    self.spreading,
                    lambda item: (strings.fitting("foot-tie", item, self.spreading),),
                )
            ]
        twine = tables.twines()[self.options.cord]
        return [
            Link.of(
                "foot-tie",
                members,
                twine,
                (),
                ("foot_tie", "cord", "spread"),
                self.spreading,
                lambda item: (strings.cord(item, self.spreading, self.tied_on),),
            )
        ]

    def _slides(self) -> Check:
        """Return the check of feet that only stand on the ground.

        Each weight thrusts and presses at once. All of it slides when the wind is more than the friction of
        the whole; the leeward foot alone when the thrust and its half of a three-hinged frame's push, F z/2h,
        are more than the friction under it, on which the wind presses besides.
        """
        free, (force, lever) = self.options.foot_tie == "none", self.blown
        tilt, out = force * lever / self.options.spread, force * lever / (2 * self.height)
        uses = []
        for weight in self.laid_on:
            thrust = raked_legs.spread_thrust(weight, 2, self.angle) if free else 0.0
            alone = (thrust + out) / (weight / 2 + tilt) if free else 0.0
            uses.append(np.maximum(force / weight, alone))
        ratios = np.stack(np.broadcast_arrays(*uses))
        least = np.asarray(self.laid_on[0])
        check = footings.slides(np.max(ratios, axis=0) * least, least, "timber_friction", "frame-slides")
        return replace(check, expected=ratios[-1] * least)

    def _feet(self) -> list[Link]:
        """Return what keeps the feet down and in place: stakes, cleats, anchors, or weight alone."""
        levers = ("foot", "spread", "rail_spacing", "in_soil", "stake", "anchor", "cleat", "leg")
        force, lever = self.blown
        foot = (float(self.xs[0]), -self.half, 0.0)
        arrows = (Arrow(foot, (0.0, 0.0, 1.0)),)
        grips = keys(self.geometry.by_role("grip"))
        if self.options.foot == "none":
            checks: tuple[Check, ...] = (
                tipping.frame(
                    force * lever, self.resting, self.arm, np.asarray(self.hanging + self.bare_weight)
                ),
                self._slides(),
            )
            return [
                Link("foot", keys(self.geometry.by_role("post")), None, (), levers, force, checks, arrows)
            ]
        if self.options.foot == "cleat":
            row = tables.fittings()[self.options.cleat]
            return [
                Link.of(
                    "foot",
                    (),
                    row,
                    (),
                    levers,
                    force,
                    lambda cleat: (footings.cleats(cleat, self.pushed, self.lifted, 1),),
                    arrows,
                )
            ]
        if self.options.foot == "anchor":
            row_ = tables.anchors()[self.options.anchor]
            tight = np.hypot(self.lifted, self.pushed)
            held = tension.anchor(row_, self.ground.native, tight, _GUY, self.cases)
            return [
                Link(
                    "foot",
                    keys(self.geometry.by_role("anchor")),
                    ("anchors", row_.key),
                    (),
                    levers,
                    tight,
                    held,
                    arrows,
                )
            ]
        stake, ground = tables.posts()[self.options.stake], self.outside
        low = np.full((1, 1, 1), 0.05)
        strength = self.cases.soil_strength(ground.native)
        checks = (
            tension.uplift(stake, ground, self.options.in_soil, self.lifted, strength),
            embedment.grip("foot-grip", ground, stake, self.options.in_soil, self.pushed, low, self.cases),
        )
        return [
            Link(
                "foot",
                grips,
                ("posts", stake.key),
                (),
                levers,
                np.hypot(self.lifted, self.pushed),
                checks,
                arrows,
            )
        ]

    @cached_property
    def outside(self) -> earth.PostGround:
        """Return the soil that foot stakes stand in: beside a bed that the frame stands over there is no
        fill.
        """
        over = self.options.spread >= self.site.bed.width - 1e-6
        return earth.beside(self.ground) if over else self.ground

    def service(self) -> tuple[Service, ...]:
        """Return how far the ridge moves over as the feet give."""
        axial = raked_legs.leg_push(0.0, self.apex, 2, self.angle)
        give = axial / (tables.constant("pole_foot") * self.cases.stiffness) / math.cos(self.angle)
        limit = self.height / tables.constant("sway_limit")
        return (
            Service("lean-poles", np.minimum(give, self.height), limit, "handbook-4.2", ("spread", "foot")),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind's moment on all pairs, and what the up and down of their feet makes of it. [N·m]"""
        force, lever = self.blown
        pairs = max(len(self.xs) - 2, 0) + 1.0
        axial = raked_legs.leg_push(0.0, self.apex, 2, self.angle)
        return force * lever * pairs, axial * math.sin(self.angle) * 2 * self.half * pairs
