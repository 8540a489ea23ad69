"""A-frame: two faces, or one, leaning together at a ridge: boards, tube, bars, bent mesh; it folds flat and
moves.
"""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import arches, bending, embedment, footings, legs, strings, tension, tipping
from ..checks import mesh as mesh_checks
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..loads.crop import Growth, planting_on_face
from ..mechanics import Array, relief, splay, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, Point, keys, located
from ..path.loadpath import Arrow, Check, Link, Remark, Service
from ..patterns import mesh_face, plants, posts
from ..patterns.stand import Bays
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_AWAY = 0.10  # of a plant from the foot of its face [m], parts handbook 3.3
_ONE_CARRIES = 25.0  # what one person lifts [kg], parts handbook 7
_STAKE_UP = 0.15  # of a foot stake above the soil [m]
_TIE_Z = 0.30  # height of the foot tie [m], parts handbook 3.3
_GUY = math.radians(60.0)  # of a foot's anchor from the ground
_BARS: tuple[str, ...] = ("rungs", "slats")
_MESHES: tuple[str, ...] = ("mesh", "bent")


class AFrameOptions(Typed):
    """What must be decided of an A-frame. Lengths in metres."""

    length: float = measure("row", "length", 1.2, 0.6, 4.8, 0.05, asked=True)
    leg: float = measure("frame", "length", 2.10, 0.6, 2.44, 0.01, tries=(-0.2, -0.4), asked=True)
    spread: float = measure("frame", "length", 1.20, 0.4, 2.0, 0.01, tries=(0.15, 0.3, 0.5))
    faces: Literal["two", "one"] = choice("frame", "two", asked=True)
    filled: Literal["mesh", "rungs", "slats", "bent"] = choice("frame", "mesh", asked=True)
    mesh: Annotated[str, row_of("meshes")] = item("frame", "meshes", "net_pp_150", when=("filled", _MESHES))
    bar: Annotated[str, row_of("posts", "rung")] = item(
        "frame", "posts", "cane_12", "rung", when=("filled", _BARS)
    )
    bar_step: float = measure("frame", "length", 0.18, 0.05, 0.5, 0.01, when=("filled", _BARS), asked=True)
    frame_wood: Annotated[str, row_of("posts", "frame")] = item(
        "frame", "posts", "post_sw_stake_38", "frame", when=("filled", ("mesh", *_BARS))
    )
    rail_spacing: float = measure("frame", "length", 1.2, 0.3, 2.4, 0.01, tries="bays")
    hang: Literal["outside", "inside"] = choice("crop", "outside", asked=True)
    sling: Annotated[str, row_of("fittings", "sling")] = item("crop", "fittings", "sling_knotted", "sling")
    sling_legs: int = measure("crop", "count", 2, 1, 4, 1, asked=True)
    sling_angle: float = measure("crop", "angle", 60.0, 20.0, 90.0, 5.0, asked=True)
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("crop", "ties", "twine_jute_3_loop", "stem")
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "crop", "ties", "twine_sisal_loop", "mesh", when=("filled", ("mesh",))
    )
    hinge: Annotated[str, row_of("fittings", "hinge")] = item(
        "frame", "fittings", "hinge_strap_150", "hinge", when=("filled", ("mesh", *_BARS))
    )
    foot_tie: Literal["none", "bar", "cord"] = choice("feet", "cord")
    cord: Annotated[str, row_of("twines", "run")] = item(
        "feet", "twines", "polyester_3", "run", when=("foot_tie", ("cord",))
    )
    foot: Literal["none", "stake", "cleat", "anchor"] = choice("feet", "stake")
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "feet", "posts", "post_sw_stake_38", "stake", when=("foot", ("stake",))
    )
    in_soil: float = measure("feet", "length", 0.45, 0.2, 1.0, 0.01, tries=DEEPER, when=("foot", ("stake",)))
    setting: Literal["driven", "tamped"] = choice("feet", "driven", when=("foot", ("stake",)))
    cleat: Annotated[str, row_of("fittings", "foot")] = item(
        "feet", "fittings", "cleat_wood", "foot", when=("foot", ("cleat",))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "feet", "anchors", "anchor_screw_15x3", when=("foot", ("anchor",))
    )
    brace: Literal["none", "diagonal"] = choice("feet", "diagonal")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "feet", "wires", "wire_soft_14", when=("brace", ("diagonal",))
    )


class _Leaning(Bays[AFrameOptions]):
    """Everything the checks of an A-frame need, worked out once for its cases: of one pair of legs and its
    stretch of face.
    """

    spaced_by = "rail_spacing"

    @cached_property
    def height(self) -> float:
        return _height(self.options)

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
        if self.options.filled in _MESHES:
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
        if self.options.filled in _MESHES:
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
        return np.asarray(self.bare_weight + 0.5 * tables.constant("gravity") * shoots[None, :, None])

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
        check = arches.sling(
            row, heaviest, self.options.sling_legs, math.radians(self.options.sling_angle), self.cases.crop
        )
        return [
            Link(
                "sling",
                (),
                ("fittings", row.key),
                (to,),
                ("sling", "sling_legs", "sling_angle"),
                check.demand,
                (check,),
            )
        ]

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
            Link(
                "hinge",
                pins,
                ("fittings", hinge.key),
                ("foot",),
                ("hinge", "rail_spacing"),
                pin,
                (strings.fitting("hinge", hinge, pin),),
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
        plant = max(self.growths, key=lambda s: float(np.max(s.high_kg)))
        lone = (
            self.plant_weight(plant) * math.cos(self.angle) / max(span, 0.1)
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
                Link(
                    "foot-tie",
                    members,
                    ("fittings", row.key),
                    (),
                    ("foot_tie", "spread"),
                    self.spreading,
                    (strings.fitting("foot-tie", row, self.spreading),),
                )
            ]
        twine = tables.twines()[self.options.cord]
        return [
            Link(
                "foot-tie",
                members,
                ("twines", twine.key),
                (),
                ("foot_tie", "cord", "spread"),
                self.spreading,
                (strings.cord(twine, self.spreading, self.tied_on),),
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
                Link(
                    "foot",
                    (),
                    ("fittings", row.key),
                    (),
                    levers,
                    force,
                    (footings.cleats(row, self.pushed, self.lifted, 1),),
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


class AFrame(Family[AFrameOptions]):
    """Two faces that lean together."""

    key: ClassVar[str] = "a-frame"
    options = AFrameOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return an A-frame for a crop on a bed, every value with its reason."""
        bed, plant = site.bed, tables.crops()[need.crop]
        row = plants.sown(need, site, longest=2.4)
        tall = plant.support_height_m >= 1.4
        leg = 2.10 if tall else 1.27
        boarded = bed.kind == "raised" and bed.board >= 0.03 and 0.5 <= bed.width <= 1.6
        spread = round(min(max(bed.width if boarded else min(bed.width, 1.2), 0.5 * leg), 2.0), 2)
        bays = max(math.ceil(row.length / 1.2 - 1e-6), 1)
        spacing = round(min(max(row.length / bays + 0.004, 0.3), 2.4), 2)
        options = AFrameOptions(
            length=row.length,
            leg=leg,
            spread=spread,
            rail_spacing=spacing,
            foot="cleat" if boarded else "stake",
        )
        reasons = {
            **row.reasons,
            "leg": Reason("leg", {"support": (plant.support_height_m, "length"), "leg": (leg, "length")}),
            "spread": Reason("spread_boards" if boarded else "spread_frame", {"spread": (spread, "length")}),
            "faces": Reason("faces"),
            "filled": Reason("filled"),
            "rail_spacing": Reason("rail_spacing", {"spacing": (spacing, "length")}),
            "hang": Reason("hang"),
            "sling": Reason("sling", {"fruit": (plant.fruit_heaviest_kg, "mass")}),
            "sling_legs": Reason("sling_legs"),
            "sling_angle": Reason("sling_angle"),
            "stem_tie": Reason("stem_tie"),
            "foot_tie": Reason("foot_tie"),
            "foot": Reason("foot_cleat" if boarded else "foot_stake"),
            "brace": Reason("brace_face"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: AFrameOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return faces with their rails, hinges and feet, and plants, in metres."""
        height, half = _height(options), options.spread / 2
        xs = posts.stations(options.length, options.rail_spacing)
        members = _frame(options, xs, height) if options.filled != "bent" else []
        members += _filling(options, xs, height)
        members += _held(options, xs, height)
        out = half + (_AWAY if options.hang == "outside" else -min(_AWAY, half / 2))
        grown = plants.along(plantings, options.length, out)
        grown = tuple(
            Plant(
                p.at,
                p.planting,
                (p.at, (p.at[0], math.copysign(half, p.at[1]), 0.02), (p.at[0], 0.0, height)),
            )
            for p in grown
        )
        if options.faces == "one":
            grown = tuple(_to_face(plant, half, height) for plant in grown)
        supplies = [
            *plants.stem_ties(plantings, options.stem_tie, height, tables.constant("stripped_pruned"))
        ]
        supplies += plants.slings(plantings, options.sling)
        end = options.length
        deep = options.in_soil if options.foot == "stake" else 0.0
        dimensions = (
            Dimension("options.length", "elevation", (0, 0, -deep), (end, 0, -deep), end, -0.5),
            Dimension("options.leg", "end", (0, 0, height), (0, half, 0), options.leg, 0.45),
            Dimension("options.spread", "end", (0, -half, -deep), (0, half, -deep), options.spread, -0.4),
            *(
                (Dimension("options.in_soil", "elevation", (0, 0, -deep), (0, 0, 0), deep, -0.7),)
                if deep
                else ()
            ),
            *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
        )
        return Geometry(located(members), grown, dimensions, tuple(supplies), end, height, deep, climb=height)

    def loaded(
        self, options: AFrameOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Leaning:
        """Return the frame under the loads of the cases."""
        return _Leaning(options, geometry, structure, site, cases)

    def remarks(
        self, options: AFrameOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: feet on firm ground, faces that can be carried, hands that
        reach in.
        """
        bed, height = site.bed, _height(options)
        remarks = fits.of_ground(bed, options.length, 0.0)
        if options.spread < 0.45 * options.leg:
            values = {"spread": (options.spread, "length"), "wanted": (0.5 * options.leg, "length")}
            remarks.append(
                Remark("frame-narrow", "watch", values, source="handbook-parts-3.3", levers=("spread",))
            )
        if bed.raised_by > 0.1 and options.spread < bed.width - 0.02:
            remarks.append(
                Remark("feet-on-fill", "watch", source="handbook-parts-3.3", levers=("spread", "foot"))
            )
        if options.foot == "cleat" and bed.kind != "raised":
            remarks.append(Remark("no-board", "wrong", source="handbook-13", levers=("foot",)))
        if options.foot == "none":
            remarks.append(Remark("frame-loose", "watch", source="handbook-9.1", levers=("foot",)))
        mass = _face_mass(options)
        key = "face-heavy" if mass > _ONE_CARRIES else "face-folds"
        if options.filled != "bent":
            remarks.append(
                Remark(
                    key,
                    "watch" if mass > _ONE_CARRIES else "fine",
                    {"mass": (mass, "mass")},
                    source="handbook-parts-4.8",
                )
            )
        remarks += _of_mesh(options, structure)
        if options.hang == "inside" and options.spread < 1.0:
            remarks.append(
                Remark(
                    "inside-tight",
                    "watch",
                    {"spread": (options.spread, "length")},
                    source="handbook-parts-3.3",
                    levers=("hang", "spread"),
                )
            )
        if options.faces == "one":
            remarks.append(Remark("wind-behind", "fine", source="handbook-9.1"))
        if options.filled != "bent" and options.brace == "none":
            remarks.append(Remark("unbraced-frame", "watch", source="handbook-9.5", levers=("brace",)))
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            if crop.fruit_heaviest_kg > plants.HEAVY:
                remarks.append(
                    Remark(
                        "slings",
                        "fine",
                        {"fruit": (crop.fruit_heaviest_kg, "mass")},
                        source="handbook-parts-4.5",
                    )
                )
            remarks += [
                *fits.of_suit(planting, self.key),
                *fits.of_row(planting, options.length),
                *fits.of_tying(planting),
            ]
            remarks += fits.of_height(planting, height, ("leg",))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of building and opening an A-frame."""
        cautions = ["services", "scissors", "hanging-fruit"]
        if geometry.by_role("grip"):
            cautions.append("driving")
        return (*cautions, "climb", "judgement")


def _of_mesh(options: AFrameOptions, structure: Structure) -> list[Remark]:
    """Return remarks on the mesh of the faces: hands, fruit, and whether it stands bent by itself."""
    if options.filled not in _MESHES:
        return []
    mesh = tables.meshes()[options.mesh]
    remarks = [remark for planting in structure.plantings for remark in fits.of_through(planting, mesh)]
    if options.filled == "bent" and mesh.wire < mesh_face.STIFF_WIRE:
        remarks.append(
            Remark(
                "bent-limp",
                "wrong",
                {"wire": (mesh.wire, "wire")},
                {"mesh": mesh.name},
                "handbook-12",
                ("mesh", "filled"),
            )
        )
    if options.filled == "bent" and max(mesh.lengths_m) < 2 * options.leg - 0.01:
        values = {"long": (max(mesh.lengths_m), "length"), "needed": (2 * options.leg, "length")}
        remarks.append(
            Remark("bent-short", "wrong", values, {"mesh": mesh.name}, "handbook-parts-3.3", ("mesh", "leg"))
        )
    return remarks


def _height(options: AFrameOptions) -> float:
    """Return the height of the ridge. [m]"""
    return math.sqrt(max(options.leg**2 - (options.spread / 2) ** 2, 0.04))


def _face_mass(options: AFrameOptions) -> float:
    """Return the mass of one face: what is lifted and folded. [kg]"""
    area = options.leg * options.length
    if options.filled in _MESHES:
        filled = tables.meshes()[options.mesh].kg_m2 * area
    else:
        filled = tables.posts()[options.bar].kg_m / options.bar_step * area
    rails = len(posts.stations(options.length, options.rail_spacing))
    return filled + tables.posts()[options.frame_wood].kg_m * (rails * options.leg + 2 * options.length)


def _slopes(options: AFrameOptions) -> tuple[tuple[str, float], ...]:
    """Return the faces there are, and on which side."""
    return (("left", 1.0), ("right", -1.0)) if options.faces == "two" else (("right", -1.0),)


def _on(x: float, side: float, share: float, half: float, height: float) -> Point:
    """Return a place on a slope, a share of the way from its foot to the ridge."""
    return x, side * half * (1 - share), share * height


def _frame(options: AFrameOptions, xs: Array, height: float) -> list[Member]:
    """Return the rails up both slopes, the rails across them, the hinges and any diagonal."""
    wood, half, end = tables.posts()[options.frame_wood], options.spread / 2, options.length
    members: list[Member] = []
    for side in (1.0, -1.0):
        for x in map(float, xs):
            line = (_on(x, side, 0.0, half, height), _on(x, side, 1.0, half, height))
            members.append(
                Member(
                    f"post-{len(members) + 1}",
                    "post",
                    "posts",
                    wood.key,
                    line,
                    posts.stock_length(wood, options.leg),
                    wood.soil_width,
                )
            )
    for name, side in _slopes(options):
        for place, share in (("foot", 0.06), ("ridge", 0.98)):
            line = (_on(0.0, side, share, half, height), _on(end, side, share, half, height))
            members.append(
                Member(f"across-{name}-{place}", "rail", "posts", wood.key, line, end, wood.soil_width)
            )
        if options.brace == "diagonal":
            wire, bay = tables.wires()[options.brace_wire], float(xs[1])
            line = (_on(0.0, side, 0.06, half, height), _on(bay, side, 0.98, half, height))
            members.append(
                Member(f"brace-{name}", "guy", "wires", wire.key, line, math.dist(*line) + 0.6, wire.d)
            )
    members += [
        Member(
            f"hinge-{n + 1}", "fitting", "fittings", options.hinge, ((float(x), 0.0, height),), shape="point"
        )
        for n, x in enumerate(xs)
    ]
    return members


def _filling(options: AFrameOptions, xs: Array, height: float) -> list[Member]:
    """Return what the faces are filled with: mesh and its ties, or bars."""
    half, end, members = options.spread / 2, options.length, []
    for name, side in _slopes(options):
        if options.filled in _MESHES:
            mesh = tables.meshes()[options.mesh]
            corners = (
                _on(0.0, side, 0.0, half, height),
                _on(end, side, 0.0, half, height),
                _on(end, side, 1.0, half, height),
                _on(0.0, side, 1.0, half, height),
            )
            up = np.arange(0.0, end + 1e-6, max(mesh.along, 0.05)).tolist()
            level = np.arange(0.0, options.leg + 1e-6, max(mesh.up, 0.05)) / options.leg
            lines = [(_on(x, side, 0.0, half, height), _on(x, side, 1.0, half, height)) for x in up]
            lines += [
                (_on(0.0, side, s, half, height), _on(end, side, s, half, height)) for s in level.tolist()
            ]
            flat = (
                (0.0, corners[0][1], 0.0),
                (end, corners[0][1], 0.0),
                (end, corners[0][1], options.leg),
                (0.0, corners[0][1], options.leg),
            )
            members.append(
                Member(
                    f"mesh-{name}",
                    "mesh",
                    "meshes",
                    mesh.key,
                    flat,
                    end,
                    mesh.wire,
                    "wires",
                    lines=tuple(lines),
                )
            )
            if options.filled == "mesh":
                for n, x in enumerate(map(float, xs)):
                    count = mesh_face.tie_count(options.leg)
                    members += [
                        Member(
                            f"tie-{name}-{n + 1}-{m + 1}",
                            "tie",
                            "ties",
                            options.tie,
                            (_on(x, side, s, half, height),),
                            shape="point",
                        )
                        for m, s in enumerate(np.linspace(0.04, 0.96, count).tolist())
                    ]
            continue
        bar = tables.posts()[options.bar]
        if options.filled == "rungs":
            shares = np.arange(options.bar_step, options.leg - 0.05, options.bar_step) / options.leg
            ends = [
                (_on(0.0, side, s, half, height), _on(end, side, s, half, height)) for s in shares.tolist()
            ]
        else:
            places = np.linspace(0.0, end, max(math.ceil(end / options.bar_step), 1) + 1)[1:-1]
            ends = [
                (_on(x, side, 0.0, half, height), _on(x, side, 1.0, half, height)) for x in places.tolist()
            ]
        members += [
            Member(f"bar-{name}-{n + 1}", "arm", "posts", bar.key, line, math.dist(*line), bar.soil_width)
            for n, line in enumerate(ends)
        ]
    return members


def _held(options: AFrameOptions, xs: Array, height: float) -> list[Member]:
    """Return what ties the feet together and holds them down."""
    half, members = options.spread / 2, []
    for n, x in enumerate(map(float, xs)):
        share = min(_TIE_Z / height, 0.5)
        line = (_on(x, 1.0, share, half, height), _on(x, -1.0, share, half, height))
        if options.foot_tie == "bar":
            wood = tables.posts()[options.frame_wood]
            members.append(
                Member(
                    f"foot-tie-{n + 1}",
                    "arm",
                    "posts",
                    wood.key,
                    line,
                    math.dist(*line) + 0.1,
                    wood.soil_width,
                )
            )
        elif options.foot_tie == "cord":
            members.append(
                Member(
                    f"foot-tie-{n + 1}", "run", "twines", options.cord, line, math.dist(*line) + 0.6, 0.004
                )
            )
        for k, side in enumerate((1.0, -1.0)):
            y, number = side * half, 2 * n + k + 1
            if options.foot == "stake":
                stake = tables.posts()[options.stake]
                low, top = (x, y + side * 0.03, -options.in_soil), (x, y + side * 0.03, _STAKE_UP)
                members.append(
                    Member(
                        f"stake-{number}",
                        "strut",
                        "posts",
                        stake.key,
                        (low, top),
                        options.in_soil + _STAKE_UP,
                        stake.soil_width,
                    )
                )
                members.append(
                    Member(
                        f"grip-{number}",
                        "grip",
                        "",
                        "",
                        (low, (x, low[1], 0.0)),
                        thickness=3.0 * stake.soil_width,
                    )
                )
            elif options.foot == "cleat":
                members.append(
                    Member(
                        f"cleat-{number}",
                        "fitting",
                        "fittings",
                        options.cleat,
                        ((x, y, 0.03),),
                        shape="point",
                    )
                )
            elif options.foot == "anchor":
                members.append(
                    Member(
                        f"anchor-{number}",
                        "anchor",
                        "anchors",
                        options.anchor,
                        ((x, y + side * 0.1, 0.0),),
                        shape="point",
                    )
                )
    return members


def _to_face(plant: Plant, half: float, height: float) -> Plant:
    """Return a plant brought to the one face that there is."""
    x, y, z = plant.at
    at = (x, -abs(y), z)
    return Plant(at, plant.planting, (at, (x, -half, 0.02), (x, 0.0, height)))
