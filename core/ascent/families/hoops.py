"""Hoops: ladder mesh or pipe bent over a bed, pushed in or slipped over driven rods, joined along their
crowns.
"""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import arches, bending, embedment, footings, legs, tension
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import crop, face
from ..loads.cases import Cases
from ..mechanics import Array, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, keys, located, tributary
from ..path.loadpath import Arrow, Check, Link, Remark, Service, Strength
from ..patterns import bent_panel, plants, posts
from ..patterns.stand import Bays
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_INSIDE = 0.30  # of a rod up inside its pipe [m], parts handbook 3.12
_FROM_FOOT = 0.10  # of a plant inside the foot of a hoop [m]
_LEAST_RISE = 0.2  # that is worth drawing [m]
_BOARD = 0.019  # of wood that takes the push of a foot [m]
_BOARD_NEAR = 0.1  # between a hoop and the boards that it leans on, both sides together [m]
_STAKED = 0.05  # of the push along the row, that a stake takes at the least
_CROWN = 0.9  # of its rise, where an end stake is tied


class HoopsOptions(Typed):
    """What must be decided of hoops. Lengths in metres."""

    length: float = measure("row", "length", 3.6, 0.3, 20.0, 0.05, asked=True)
    hoop_of: Literal["ladder-mesh", "pipe"] = choice("hoop", "ladder-mesh", asked=True)
    ladder: Annotated[str, row_of("posts", "ladder")] = item(
        "hoop", "posts", "ladder_mesh_3", "ladder", when=("hoop_of", ("ladder-mesh",))
    )
    pipe: Annotated[str, row_of("posts", "hoop")] = item(
        "hoop", "posts", "pipe_pvc_20", "hoop", when=("hoop_of", ("pipe",))
    )
    arc: float = measure("hoop", "length", 3.05, 1.0, 6.1, 0.01, asked=True)
    span: float = measure("hoop", "length", 1.2, 0.4, 2.0, 0.01, asked=True)
    hoop_spacing: float = measure("hoop", "length", 0.90, 0.2, 1.5, 0.01, tries="bays")
    push_in: float = measure(
        "feet", "length", 0.25, 0.1, 0.6, 0.01, tries=(0.05, 0.1), when=("hoop_of", ("ladder-mesh",))
    )
    held: Literal["soil", "stakes"] = choice("feet", "soil", when=("hoop_of", ("ladder-mesh",)))
    foot_stake: Annotated[str, row_of("posts", "stake")] = item(
        "feet", "posts", "post_sw_stake_25", "stake", when=("held", ("stakes",))
    )
    foot_depth: float = measure(
        "feet", "length", 0.45, 0.2, 0.9, 0.01, tries=DEEPER, when=("held", ("stakes",))
    )
    rod: Annotated[str, row_of("posts", "rod")] = item(
        "feet", "posts", "rod_rebar_12", "rod", when=("hoop_of", ("pipe",))
    )
    in_soil: float = measure(
        "feet", "length", 0.40, 0.2, 0.9, 0.01, tries=DEEPER, when=("hoop_of", ("pipe",))
    )
    net: Literal["none", "net"] = choice("cover", "none", asked=True)
    mesh: Annotated[str, row_of("meshes")] = item("cover", "meshes", "net_pp_150", when=("net", ("net",)))
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("cover", "ties", "twine_jute_3_loop", "stem")
    ridge: Literal["none", "wire", "pole"] = choice("ridge", "wire")
    ridge_wire: Annotated[str, row_of("wires")] = item(
        "ridge", "wires", "wire_soft_14", when=("ridge", ("wire",))
    )
    ridge_pole: Annotated[str, row_of("posts", "rail")] = item(
        "ridge", "posts", "cane_20", "rail", when=("ridge", ("pole",))
    )
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "ridge", "ties", "tie_wire_16", "mesh", when=("ridge", ("wire", "pole"))
    )
    brace: Literal["none", "diagonal", "stake", "neighbour"] = choice("ends", "diagonal")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_14", when=("brace", ("diagonal",))
    )
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "ends", "posts", "post_sw_stake_38", "stake", when=("brace", ("stake",))
    )
    stake_depth: float = measure(
        "ends", "length", 0.45, 0.2, 0.9, 0.01, tries=DEEPER, when=("brace", ("stake",))
    )


class _Bent(Bays[HoopsOptions]):
    """Everything the checks of hoops need, worked out once for its cases: of one hoop."""

    spaced_by = "hoop_spacing"

    @cached_property
    def hoop(self) -> rows.Post:
        return _hoop(self.options)

    @cached_property
    def hold(self) -> float:
        """Return the height up to which the ends are held upright, above the end itself. [m]"""
        return _hold(self.options)

    @cached_property
    def sunk(self) -> float:
        return self.options.push_in if self.options.hoop_of == "ladder-mesh" else 0.0

    @cached_property
    def figures(self) -> arches.Figures:
        softer = tables.constant("pvc_creep") if self.hoop.material == "pvc" else 1.0
        return arches.figures(
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
        return max(float(self.figures.rise) - self.sunk, _LEAST_RISE)

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
        return np.asarray(total)

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
            arches.tube_sway(self.hoop, self.hanging + self.bare_weight, self.rise, _INSIDE)
        ]
        if self.sprung:
            heavy = arches.crown(self.figures, self.bare_weight, self.hanging, self.options.arc)
            bears = bending.moments(self.hoop)
            rod = Strength(np.asarray(bears.allowed), np.asarray(bears.median))
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
                    _INSIDE,
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
        return np.asarray(self.bare_weight + 0.5 * tables.constant("gravity") * shoots[None, :, None])

    def _buried(self) -> list[Link]:
        """Return the ends of a ladder in the soil: two rods a foot."""
        push = np.asarray(self.pushing + self.across / 2)
        ground = embedment.topmost(self.ground, self.options.push_in)
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
        low = np.full((1, 1, 1), min(self.rise / 2, _INSIDE))
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
            check = arches.joined(tie, demand, self.tied_on)
            to = {"diagonal": ("brace",), "stake": ("end-stake",)}.get(self.options.brace, ())
            links.append(
                Link(
                    "ridge-tie",
                    keys(self.geometry.by_role("tie")),
                    ("ties", tie.key),
                    to,
                    ("tie",),
                    demand,
                    (check,),
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
            stake, at = tables.posts()[self.options.stake], _CROWN * rise
            left, usual = (
                self.along * np.clip(1.0 - 1.0 / np.maximum(use, 1e-9), _STAKED, 1.0)
                for use in (own.use, own.median_use)
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
        each = legs.stood(rod, embedment.topmost(self.ground, depth), depth, crown, rods * 2, self.cases)
        weight = self.hanging + self.bare_weight
        leaning = weight * self.rise / 2 * math.sin(math.radians(tables.constant("lean_angle"))) * joined
        moment = self.along * crown + leaning
        return Check(
            "hoops-along",
            moment,
            each.allowed * joined,
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


class Hoops(Family[HoopsOptions]):
    """Hoops over a bed."""

    key: ClassVar[str] = "hoops"
    options = HoopsOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return hoops for a crop on a bed, every value with its reason."""
        bed, plant = site.bed, tables.crops()[need.crop]
        row = plants.sown(need, site, longest=20.0, shortest=0.3)
        span = round(min(max(bed.width, 0.5), 1.2), 2)
        wanted = min(max(plant.support_height_m, 0.5), 1.2)
        arcs = [each for each in (1.52, 1.83, 2.4, 3.05, 3.7) if arches.fits(each, span, 0.25)]
        rises = {each: float(arches.figures(each, span, 0.25, 1.0).rise) - 0.25 for each in arcs}
        arc = min(rises, key=lambda each: (rises[each] < wanted - 0.15, abs(rises[each] - wanted)))
        deepest = max(bed.raised_by - 0.02, 0.1) if bed.kind == "container" else 0.6
        push_in = round(min(0.25, deepest), 2)
        bays = max(math.ceil(row.length / 0.9 - 1e-6), 1)
        spacing = round(min(max(row.length / bays + 0.004, 0.2), 1.5), 2)
        options = HoopsOptions(length=row.length, arc=arc, span=span, hoop_spacing=spacing, push_in=push_in)
        reasons = {
            **row.reasons,
            "hoop_of": Reason("made_hoops"),
            "arc": Reason("arc", {"arc": (arc, "length"), "rise": (rises[arc], "length")}),
            "held": Reason("held_soil"),
            "span": Reason("span_bed", {"span": (span, "length")}),
            "hoop_spacing": Reason("hoop_spacing", {"spacing": (spacing, "length")}),
            "net": Reason("net"),
            "stem_tie": Reason("stem_tie"),
            "ridge": Reason("ridge_hoops"),
            "brace": Reason("brace_hoops"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: HoopsOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return hoops with their feet, the line along their crowns, what braces them, any net, and plants,
        in metres.
        """
        row, shape = _hoop(options), _shape(options)
        rise = max(*(z for _, z in shape), _LEAST_RISE)
        xs, half, members = posts.stations(options.length, options.hoop_spacing), options.span / 2, []
        for n, x in enumerate(map(float, xs)):
            line = tuple((x, y, z) for y, z in shape)
            lines = (line, *(_rungs(row, line, x) if options.hoop_of == "ladder-mesh" else ()))
            members.append(
                Member(
                    f"hoop-{n + 1}",
                    "arm",
                    "posts",
                    row.key,
                    (line[0], line[-1]),
                    options.arc,
                    row.a,
                    "wires",
                    lines=lines,
                )
            )
            for k, side in enumerate((1.0, -1.0)):
                members += _foot(options, 2 * n + k + 1, x, side * half)
        members += _along(options, xs, rise)
        if options.net == "net":
            members.append(_netted(options, shape))
        grown = []
        for plant in plants.along(plantings, options.length, max(half - _FROM_FOOT, 0.05)):
            x, y, _ = plant.at
            way = bent_panel.way_up(shape, x, 1.0 if y > 0 else -1.0, plant.at)
            grown.append(
                Plant(
                    plant.at,
                    plant.planting,
                    tuple((px, math.copysign(abs(py), y), max(pz, 0.0)) for px, py, pz in way),
                )
            )
        ties = plants.stem_ties(plantings, options.stem_tie, rise, tables.constant("stripped_pruned"))
        end, bay = float(xs[-1]), float(xs[1])
        deep = options.in_soil if options.hoop_of == "pipe" else options.push_in
        dimensions = (
            Dimension("options.length", "elevation", (0, 0, -deep), (end, 0, -deep), end, -0.5),
            Dimension("options.hoop_spacing", "elevation", (0, 0, rise), (bay, 0, rise), bay, 0.4),
            Dimension("options.span", "end", (0, -half, -deep), (0, half, -deep), options.span, -0.4),
            *plants.spacing_dimension(plantings, tuple(grown), site.bed.width / 2),
        )
        return Geometry(located(members), tuple(grown), dimensions, ties, end, rise, deep, climb=rise)

    def loaded(
        self, options: HoopsOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Bent:
        """Return the hoops under the loads of the cases."""
        return _Bent(options, geometry, structure, site, cases)

    def remarks(
        self, options: HoopsOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: a hoop that can be bent so, feet that hold, something to
        climb.
        """
        row = _hoop(options)
        deep = options.in_soil if options.hoop_of == "pipe" else options.push_in
        remarks = fits.of_ground(site.bed, options.length, deep, ("length", "push_in"))
        if not bool(arches.fits(options.arc, options.span, _hold(options))):
            values = {
                "length": (options.arc, "length"),
                "span": (options.span, "length"),
                "hold": (_hold(options), "length"),
            }
            remarks.append(
                Remark("hoop-impossible", "wrong", values, source="handbook-8.2", levers=("arc", "span"))
            )
        remarks += fits.of_stock(row, options.arc, ("arc",))
        remarks.append(
            Remark(
                "hoop-rise",
                "fine",
                {"rise": (geometry.top, "length")},
                source="handbook-parts-3.12",
                levers=("arc", "span"),
            )
        )
        if options.ridge == "none" or options.brace == "none":
            remarks.append(
                Remark("hoops-fall", "watch", source="handbook-parts-3.12", levers=("ridge", "brace"))
            )
        if options.brace == "neighbour":
            remarks.append(
                Remark("neighbour-stands", "watch", source="handbook-parts-3.12", levers=("brace",))
            )
        if options.hoop_of == "pipe" and row.material == "tube_steel":
            remarks.append(Remark("tube-bender", "watch", source="handbook-9.6", levers=("pipe",)))
        strain = _strain(options)
        if strain > tables.constant("pvc_gentle"):
            remarks.append(
                Remark(
                    "pipe-strained",
                    "watch",
                    {"radius": (row.a / 2 / strain, "length")},
                    {"pipe": row.name},
                    "handbook-9.6",
                    ("pipe", "arc"),
                )
            )
        if options.hoop_of == "pipe" and row.material == "pvc":
            remarks.append(Remark("pipe-sun", "watch", source="handbook-9.6", levers=("pipe", "hoop_of")))
        if options.hoop_of == "ladder-mesh" and site.bed.raised_by > 0.05:
            remarks.append(
                Remark(
                    "hoops-loose",
                    "watch",
                    {"fill": (site.bed.raised_by, "length")},
                    source="handbook-5.3",
                    levers=("push_in", "hoop_of"),
                )
            )
        for planting in structure.plantings:
            crop_ = tables.crops()[planting.crop]
            if (
                options.hoop_of == "pipe"
                and options.net == "none"
                and crop_.training in ("GUIDE", "FRONT", "TWINE")
            ):
                remarks.append(
                    Remark(
                        "pipe-slick",
                        "watch",
                        words={"crop": crop_.name},
                        source="handbook-parts-3.12",
                        levers=("net",),
                    )
                )
            if crop_.training == "LAY":
                remarks.append(Remark("laid-on", "fine", words={"crop": crop_.name}, source="crops-4"))
            remarks += [
                *fits.of_suit(planting, self.key),
                *fits.of_row(planting, options.length),
                *fits.of_tying(planting),
            ]
            remarks += fits.of_height(planting, geometry.top, ("arc", "span"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of setting hoops."""
        cautions = ["services", "hoop-spring"]
        if geometry.by_role("post"):
            cautions += ["driving", "caps"]
        return (*cautions, "judgement")


def _hoop(options: HoopsOptions) -> rows.Post:
    return tables.posts()[options.ladder if options.hoop_of == "ladder-mesh" else options.pipe]


def _hold(options: HoopsOptions) -> float:
    """Return the height up to which a hoop's ends are held upright: in the soil, or by a rod inside. [m]"""
    return options.push_in if options.hoop_of == "ladder-mesh" else _INSIDE


def _strain(options: HoopsOptions) -> float:
    """Return the strain of a plastic pipe where it is bent most sharply, nothing for what is not plastic."""
    row = _hoop(options)
    if options.hoop_of == "ladder-mesh" or row.material != "pvc":
        return 0.0
    return row.a / 2 / float(arches.figures(options.arc, options.span, _hold(options), 1.0).radius)


def _shape(options: HoopsOptions) -> bent_panel.Curve:
    """Return a hoop from soil to soil: across, and up; half an ellipse where none can be bent so. [m]"""
    sunk = options.push_in if options.hoop_of == "ladder-mesh" else 0.0
    if bool(arches.fits(options.arc, options.span, _hold(options))):
        return tuple((y, z - sunk) for y, z in bent_panel.curve(options.arc, options.span, _hold(options)))
    angles = np.linspace(math.pi, 0.0, 31)
    rise = max(float(arches.figures(options.arc, options.span, _hold(options), 1.0).rise) - sunk, _LEAST_RISE)
    return tuple((options.span / 2 * math.cos(a), rise * math.sin(a)) for a in angles.tolist())


def _rungs(
    row: rows.Post, line: tuple[tuple[float, float, float], ...], x: float
) -> list[tuple[tuple[float, float, float], ...]]:
    """Return the second rod of a ladder and its rungs."""
    other = tuple((x + row.b, y, z) for _, y, z in line)
    return [other, *(((x, y, z), (x + row.b, y, z)) for _, y, z in line[:: max(len(line) // 8, 1)])]


def _foot(options: HoopsOptions, number: int, x: float, y: float) -> list[Member]:
    """Return one foot: the soil that grips a ladder's end, or a driven rod."""
    if options.hoop_of == "ladder-mesh":
        line = ((x, y, -options.push_in), (x, y, 0.0))
        members = [Member(f"grip-{number}", "grip", "", "", line, thickness=0.08)]
        if options.held == "stakes":
            stake, out = tables.posts()[options.foot_stake], math.copysign(0.03, y)
            way = ((x, y + out, -options.foot_depth), (x, y + out, 0.1))
            members.append(
                Member(
                    f"foot-stake-{number}",
                    "strut",
                    "posts",
                    stake.key,
                    way,
                    options.foot_depth + 0.1,
                    stake.soil_width,
                )
            )
        return members
    rod = tables.posts()[options.rod]
    low, top = (x, y, -options.in_soil), (x, y, _INSIDE)
    return [
        Member(
            f"post-{number}",
            "post",
            "posts",
            rod.key,
            (low, top),
            posts.stock_length(rod, options.in_soil + _INSIDE),
            rod.soil_width,
        ),
        Member(f"grip-{number}", "grip", "", "", (low, (x, y, 0.0)), thickness=3.0 * rod.soil_width),
    ]


def _along(options: HoopsOptions, xs: Array, rise: float) -> list[Member]:
    """Return the line along the crowns with its ties, and what braces the ends."""
    members: list[Member] = []
    end, line = options.length, ((0.0, 0.0, rise), (options.length, 0.0, rise))
    if options.ridge == "wire":
        wire = tables.wires()[options.ridge_wire]
        members.append(Member("ridge", "wire", "wires", wire.key, line, end + 0.6, wire.d))
    elif options.ridge == "pole":
        pole = tables.posts()[options.ridge_pole]
        members.append(Member("ridge", "rail", "posts", pole.key, line, end, pole.soil_width))
    if options.ridge != "none":
        for n, x in enumerate(map(float, xs)):
            both = 2 if n in (0, len(xs) - 1) else 1
            members += [
                Member(f"tie-{n + 1}-{k + 1}", "tie", "ties", options.tie, ((x, 0.0, rise),), shape="point")
                for k in range(both)
            ]
    if options.brace == "diagonal":
        row, run, half = tables.wires()[options.brace_wire], float(xs[min(2, len(xs) - 1)]), options.span / 2
        for name, foot, crown in (("first", 0.0, run), ("last", end, end - run)):
            way = ((foot, -half, 0.02), (crown, 0.0, rise))
            members.append(
                Member(f"brace-{name}", "guy", "wires", row.key, way, math.dist(*way) + 0.6, row.d)
            )
    elif options.brace == "stake":
        stake = tables.posts()[options.stake]
        for name, x in (("first", -0.03), ("last", end + 0.03)):
            way = ((x, 0.0, -options.stake_depth), (x, 0.0, _CROWN * rise))
            members.append(
                Member(
                    f"stake-{name}",
                    "strut",
                    "posts",
                    stake.key,
                    way,
                    options.stake_depth + _CROWN * rise,
                    stake.soil_width,
                )
            )
    return members


def _netted(options: HoopsOptions, shape: bent_panel.Curve) -> Member:
    """Return a net laid over all hoops."""
    mesh, end = tables.meshes()[options.mesh], options.length
    step = max(mesh.along, 0.1)
    lines = [tuple((x, y, z) for y, z in shape) for x in np.arange(0.0, end + 1e-6, step).tolist()]
    lines += [((0.0, y, z), (end, y, z)) for y, z in shape[:: max(len(shape) // 18, 1)]]
    y = -options.span / 2
    flat = ((0.0, y, 0.0), (end, y, 0.0), (end, y, options.arc), (0.0, y, options.arc))
    return Member("net", "mesh", "meshes", mesh.key, flat, end, mesh.wire, "wires", lines=tuple(lines))
