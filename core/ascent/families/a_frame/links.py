"""A frame: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import arches, bending, embedment, footings, legs, strings, tension, tipping
from ...checks import mesh as mesh_checks
from ...loads import face
from ...loads.cases import by_week
from ...loads.crop import Growth, planting_on_face
from ...mechanics import Array, relief, splay, wind
from ...path.geometry import keys
from ...path.loadpath import Arrow, Check, Link, Service
from ...patterns import plants
from ...patterns.stand import Bays
from ...tables import rows
from .geometry import height_of
from .options import MESHES, AFrameOptions

_GUY = math.radians(60.0)  # of a foot's anchor from the ground


class Leaning(Bays[AFrameOptions]):
    """Everything the checks of an A-frame need, worked out once for its cases: of one pair of legs and its
    stretch of face.
    """

    spaced_by = "rail_spacing"

    @cached_property
    def height(self) -> float:
        return height_of(self.options)

    @cached_property
    def half(self) -> float:
        return self.options.spread / 2

    @cached_property
    def angle(self) -> float:
        return splay.slope(self.half, self.height)

    @cached_property
    def wood(self) -> rows.Post:
        return tables.posts()[self.options.frame_wood]

    @cached_property
    def mesh(self) -> rows.Mesh:
        return tables.meshes()[self.options.mesh]

    @cached_property
    def several(self) -> float:
        """Return how many faces there are."""
        return 2.0 if self.options.faces == "two" else 1.0

    @cached_property
    def solidity(self) -> float:
        if self.options.filled in MESHES:
            return float(wind.mesh_solidity(self.mesh.wire, self.mesh.along, self.mesh.up))
        return min(tables.posts()[self.options.bar].soil_width / self.options.bar_step, 0.9)

    def _side(self, side: str) -> face.FaceWind:
        """Return the wind on one face, with the leaves of the plants on its side."""
        grown: list[Growth] = []
        for index, planting in enumerate(self.structure.plantings):
            if self.options.faces == "one" or planting.side in (side, "both"):
                line = (
                    planting if self.options.faces == "one" else planting.model_copy(update={"side": "right"})
                )
                grown.append(planting_on_face(line, self.season, index, self.geometry.climb))
        if not grown:
            bare = self.growths[0]
            grown = [replace(bare, cover=np.zeros_like(bare.cover), top=np.full_like(bare.top, 0.0))]
        return face.wind_on_face(tuple(grown), self.solidity, 0.0, self.height, self.cases)

    @cached_property
    def sides(self) -> tuple[face.FaceWind, face.FaceWind]:
        return self._side("left"), self._side("right")

    def _merged(self) -> face.FaceWind:
        """Return the wind on both faces as one, their leaves and meshes overlapping, where less than half
        their height is between them.
        """
        solid = float(wind.mixed_solidity(self.solidity, self.solidity))
        lines = tuple(
            planting_on_face(p, self.season, i, self.geometry.climb)
            for i, p in enumerate(self.structure.plantings)
        )
        return face.wind_on_face(lines, solid, 0.0, self.height, self.cases)

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind on one pair's stretch and where it acts, [N] and [m]: the face behind takes two
        fifths more, or near ones act as one.
        """
        left, right = self.sides
        lever = np.where(left.force >= right.force, left.height, right.height)
        force = np.maximum(left.force, right.force)
        if self.options.faces == "two":
            near = self.options.spread / 2 < self.height / 2
            force = (
                self._merged().force
                if near
                else force + tables.constant("follower") * np.minimum(left.force, right.force)
            )
        force = force * self.carried
        frame = (
            tables.constant("pole_drag")
            * wind.gust_pressure(self.cases.gust)
            * self.wood.soil_width
            * self.height
            * self.framed
        )
        total = force + frame
        return np.asarray(total), np.asarray(
            (force * np.minimum(lever, self.height) + (frame + 1e-12) * self.height / 2) / (total + 1e-12)
        )

    @cached_property
    def framed(self) -> float:
        """Return how many rails a pair has that the wind finds: none where the mesh stands alone."""
        return 0.0 if self.options.filled == "bent" else 2.0

    @cached_property
    def face_kg(self) -> float:
        """Return the mass of a square metre of face. [kg/m²]"""
        if self.options.filled in MESHES:
            return self.mesh.kg_m2
        return tables.posts()[self.options.bar].kg_m / self.options.bar_step

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of one pair of legs and its stretch of face. [N]"""
        wood = (
            self.wood.kg_m * (2 * self.options.leg + 2 * self.several * self.carried) if self.framed else 0.0
        )
        return (wood + self.several * self.face_kg * self.options.leg * self.carried) * tables.constant(
            "gravity"
        )

    @cached_property
    def hanging(self) -> Array:
        """Return the weight of crop on one pair's stretch. [N]"""
        return self.crop_weight(self.xs, self.bay / 2, self.carried * self.several)

    @cached_property
    def resting(self) -> Array:
        """Return the weight that is always there: the frame, and half the usual shoots. [N]"""
        share = self.carried / self.options.length
        shoots = sum(
            (s.shoot_kg * s.planting.count * share for s in self.growths), np.zeros(self.season.weeks)
        )
        return np.asarray(self.bare_weight + 0.5 * tables.constant("gravity") * by_week(shoots))

    @cached_property
    def arm(self) -> float:
        """Return the arm of the weight: half the spread, and of one face alone only a quarter when the wind
        comes from behind it.
        """
        return self.half if self.options.faces == "two" else self.half / 2

    @cached_property
    def lifted(self) -> Array:
        """Return what lifts the windward foot of a pair. [N]"""
        force, lever = self.blown
        return np.asarray(np.maximum(force * lever - self.resting * self.arm, 0.0) / self.options.spread)

    @cached_property
    def spreading(self) -> Array:
        """Return how hard each foot pushes outward under the crop, which hangs along the faces and not at the
        ridge. [N]
        """
        return splay.spread_thrust(self.hanging + self.bare_weight, 2, self.angle)

    @cached_property
    def pushed(self) -> Array:
        """Return what a foot pushes along the ground: half the wind, and the spreading that no tie takes.
        [N]
        """
        return np.asarray(self.blown[0] / 2 + (self.spreading if self.options.foot_tie == "none" else 0.0))

    @cached_property
    def laid_on(self) -> tuple[Array, ...]:
        """Return the weights on one pair that its feet may slide under: bare, with half the usual shoots, and
        with all its crop. [N]
        """
        return self.nothing + self.bare_weight, self.resting, np.asarray(self.hanging + self.bare_weight)

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
            thrust = splay.spread_thrust(weight, 2, self.angle) if free else 0.0
            alone = (thrust + out) / (weight / 2 + tilt) if free else 0.0
            uses.append(np.maximum(force / weight, alone))
        ratios = np.stack(np.broadcast_arrays(*uses))
        least = np.asarray(self.laid_on[0])
        check = footings.slides(np.max(ratios, axis=0) * least, least, "timber_friction", "frame-slides")
        return replace(check, expected=ratios[-1] * least)

    @cached_property
    def apex(self) -> Array:
        force, lever = self.blown
        return np.asarray(force * lever / self.height)

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
        push = splay.leg_push(
            (self.hanging + self.bare_weight) * tables.constant("hung_along"), self.apex, 2, self.angle
        )
        rail = (
            legs.leg(self.wood, push, self.options.leg, crop + blown),
            bending.lasting(self.wood, np.asarray(crop * self.options.leg / 8)),
        )
        pin = splay.leg_push((self.hanging + self.bare_weight) / 2, self.apex, 2, self.angle)
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
            bays = relief.tied_bays(len(self.xs) - 1)
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
    def outside(self) -> embedment.Ground:
        """Return the soil that foot stakes stand in: beside a bed that the frame stands over there is no
        fill.
        """
        over = self.options.spread >= self.site.bed.width - 1e-6
        return embedment.beside(self.ground) if over else self.ground

    def service(self) -> tuple[Service, ...]:
        """Return how far the ridge moves over as the feet give."""
        axial = splay.leg_push(0.0, self.apex, 2, self.angle)
        give = axial / (tables.constant("pole_foot") * self.cases.stiffness) / math.cos(self.angle)
        limit = self.height / tables.constant("sway_limit")
        return (
            Service("lean-poles", np.minimum(give, self.height), limit, "handbook-4.2", ("spread", "foot")),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind's moment on all pairs, and what the up and down of their feet makes of it. [N·m]"""
        force, lever = self.blown
        pairs = max(len(self.xs) - 2, 0) + 1.0
        axial = splay.leg_push(0.0, self.apex, 2, self.angle)
        return force * lever * pairs, axial * math.sin(self.angle) * 2 * self.half * pairs
