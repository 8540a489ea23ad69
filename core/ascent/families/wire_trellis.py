"""Wire trellis: one or several wires between end assemblies over line posts, on one line or on the two ends
of T-arms.
"""

from __future__ import annotations

import math
from functools import cached_property
from itertools import pairwise
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import arms, bending, embedment, strings, tension
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, cable
from ..path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, keys, located
from ..path.loadpath import Link, Remark, Service
from ..patterns import plants, posts, starters
from ..patterns import strings as hung
from ..patterns.end_assembly import EndAssembly, Kind, Line, loaded_line
from ..patterns.stand import PostRow
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_LINE_POSTS = ("post_round_75", "post_round_100")  # the second where the first is not sold long enough
_LEAST_STRUNG = 1.2  # below this a crop is tied to the wires rather than strung from the top one [m]
_GUYED = ("guy", "lean")
_SAFETY = 1.2  # of wire past a tensioner [m], parts handbook 3.9
_STONE = 0.0225  # of a flat stone under the foot of a guyed end post [m²], parts handbook 3.9
_PROP_FOOT = 0.30  # of a prop in its sleeve [m]


class WireTrellisOptions(Typed):
    """What must be decided of a wire trellis. Lengths in metres, forces in newtons, angles in degrees."""

    length: float = measure("row", "length", 12.0, 2.0, 60.0, 0.05, asked=True)
    lines: Literal["single", "tee"] = choice("row", "single", asked=True)
    arm: float = measure("row", "length", 0.9, 0.5, 1.2, 0.01, when=("lines", ("tee",)), asked=True)
    arm_wood: Annotated[str, row_of("posts", "strut")] = item(
        "row", "posts", "post_lumber_38x89", "strut", when=("lines", ("tee",))
    )
    knee: Annotated[str, row_of("fittings", "joint")] = item(
        "row", "fittings", "bolt_carriage_m8", "joint", when=("lines", ("tee",))
    )
    top_height: float = measure("wires", "length", 2.0, 0.6, 2.5, 0.01, tries=(-0.1, -0.2, -0.3), asked=True)
    wires: int = measure("wires", "count", 1, 1, 4, 1, asked=True)
    wire_step: float = measure(
        "wires", "length", 0.45, 0.2, 0.9, 0.01, when=("wires", ("2", "3", "4")), asked=True
    )
    wire: Annotated[str, row_of("wires")] = item("wires", "wires", "wire_ht_125")
    pretension: float = measure("wires", "force", 300.0, 50.0, 1000.0, 10.0, tries=(-100.0, -200.0))
    tensioner: Annotated[str, row_of("fittings", "tensioner")] = item(
        "wires", "fittings", "strainer_ratchet", "tensioner"
    )
    safety_wire: bool = choice("wires", True)
    crop_on: Literal["strings", "wires"] = choice("strings", "strings", asked=True)
    string: Annotated[str, row_of("twines", "string")] = item(
        "strings", "twines", "pp_greenhouse", "string", when=("crop_on", ("strings",))
    )
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("strings", "ties", "clip_spring_small", "stem")
    base: Annotated[str, row_of("fittings", "peg")] = item(
        "strings", "fittings", "peg_wire", "peg", when=("crop_on", ("strings",))
    )
    starter: Literal["none", "brush"] = choice("strings", "none", asked=True)
    post: Annotated[str, row_of("posts", "post")] = item("posts", "posts", "post_round_75", "post")
    post_spacing: float = measure("posts", "length", 3.0, 1.2, 6.0, 0.01, tries="bays")
    post_age: int = measure("posts", "count", 0, 0, 15, 1, asked=True)
    depth: float = measure("posts", "length", 0.60, 0.3, 1.2, 0.01, tries=DEEPER)
    setting: posts.Setting = choice("posts", "tamped")
    seat: Annotated[str, row_of("fittings", "seat")] = item("posts", "fittings", "nails_bent", "seat")
    props: bool = choice("posts", False)
    prop: Annotated[str, row_of("posts", "post")] = item(
        "posts", "posts", "tube_emt_25", "post", when=("props", ("true",))
    )
    ends: Kind = choice("ends", "lean")
    end_post: Annotated[str, row_of("posts", "post")] = item("ends", "posts", "post_round_100", "post")
    end_depth: float = measure("ends", "length", 0.80, 0.3, 1.2, 0.01, tries=DEEPER)
    lean: float = measure("ends", "angle", 70.0, 60.0, 85.0, 1.0, when=("ends", ("lean",)))
    guy_angle: float = measure(
        "ends", "angle", 45.0, 30.0, 60.0, 1.0, tries=(-5.0, -10.0), when=("ends", _GUYED)
    )
    guy_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_9", when=("ends", (*_GUYED, "brace"))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "deadman_stones_60", when=("ends", _GUYED)
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_round_75", "strut", when=("ends", ("strut", "brace"))
    )


class _Row(PostRow[WireTrellisOptions]):
    """Everything a wire trellis's checks need, worked out once for its cases."""

    @cached_property
    def wire(self) -> rows.Wire:
        return tables.wires()[self.options.wire]

    @property
    def strung(self) -> bool:
        return self.options.crop_on == "strings"

    @property
    def lines(self) -> int:
        return 2 if self.options.lines == "tee" else 1

    @cached_property
    def ends(self) -> EndAssembly:
        return _ends_of(self.options, self.site).standing(self.geometry)

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(self.growths, 0.0, 0.0, self.options.top_height, self.cases)

    @cached_property
    def bay_weight(self) -> Array:
        """Return what a bay carries: its crop and its wires. [N]"""
        steel = tables.constant("steel_density") * tension.wire_area(self.wire) * tables.constant("gravity")
        middles = (self.xs[1:] + self.xs[:-1]) / 2
        return np.asarray(
            self.crop_weight(middles, self.bay / 2, self.bay)
            + steel * self.bay * self.options.wires * self.lines
        )

    @cached_property
    def share(self) -> float:
        """Return the share of a bay that one wire carries: on strings the top one takes it all, several share
        unevenly.
        """
        if self.strung or self.options.wires == 1:
            return 1.0 / self.lines
        return min(tables.constant("wire_uneven") / self.options.wires, 1.0) / self.lines

    @cached_property
    def down(self) -> Array:
        """Return weight on a metre of the most loaded wire. [N/m]"""
        return np.asarray(self.bay_weight * self.share / self.bay)

    @cached_property
    def side(self) -> Array:
        """Return wind on a metre of that wire. [N/m]"""
        share = (
            tables.constant("string_share")
            if self.strung
            else min(tables.constant("wire_uneven") / self.options.wires, 1.0)
        )
        return np.asarray(self.wind.force * share / self.lines)

    def _span(self, down: Array, side: Array) -> Array:
        """Return the load that draws a wire as hard over a bay as weight between props and wind between posts
        do.
        """
        return np.hypot(down / 2, side) if self.options.props else np.hypot(down, side)

    @cached_property
    def end_stiffness(self) -> Array:
        """Return how stiffly each end stands for one of the wires that pull at it. [N/m]"""
        return np.asarray(self.ends.stiffness(self.options.top_height, self.cases) / self.pulling)

    def _pull(self, load: Array, slack: float = 0.0) -> Array:
        axial = self.wire.E * tension.wire_area(self.wire)
        return cable.elastic_tension(
            load, self.bay, self.options.pretension, axial, self.end_stiffness, len(self.xs) - 1, slack
        )

    @cached_property
    def pull(self) -> Array:
        """Return the pull of the most loaded wire. [N]"""
        return self._pull(self._span(self.down, self.side))

    @cached_property
    def still_pull(self) -> Array:
        """Return the same in still air: what lasts all season. [N]"""
        return self._pull(self._span(self.down, self.nothing))

    @cached_property
    def cold_pull(self) -> Array:
        """Return the pull of the bare wire in the first cold night. [N]"""
        return self._pull(
            self.nothing, cable.heat_slack(self.bay, -tables.constant("cold"), tables.constant("expansion"))
        )

    @cached_property
    def pulling(self) -> float:
        """Return how many wires' pull an end post takes; what idle ones were given has gone once the ends
        come in.
        """
        return float((1 if self.strung else self.options.wires) * self.lines)

    @cached_property
    def across(self) -> tuple[Array, Array]:
        """Return the wind across the row on a line post and where it acts, [N] and [m]."""
        if self.strung:
            return np.asarray(self.side * self.lines * self.bay), np.full((1, 1, 1), self.options.top_height)
        return np.asarray(self.wind.force * self.bay), self.wind.height

    @cached_property
    def amplified(self) -> Array:
        return self.amplified_by(self.bay_weight, self.options.top_height)

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        links: list[Link] = []
        onto = "arm" if self.lines == 2 else "wire"
        if self.strung:
            twine, tie, peg = (
                tables.twines()[self.options.string],
                tables.ties()[self.options.stem_tie],
                tables.fittings()[self.options.base],
            )
            links += hung.string_links(
                self, self.wind.pressure, self.wind.leaf_height, twine, tie, None, peg, "wire"
            )
        links.append(self._wire(("seat", "tensioner") if self.lines == 1 else (onto, "tensioner")))
        if self.lines == 2:
            links.append(self._arm())
        if self.options.props:
            links.append(self._prop())
        return (
            *links,
            *([] if self.lines == 2 else [self._seat()]),
            self._post(),
            self._soil(),
            self._tensioner(),
            *self._ends(),
        )

    def _wire(self, below: tuple[str, ...]) -> Link:
        checks = (
            tension.main_wire(self.wire, self.down, self.side, self.bay, self.pull),
            tension.cold_wire(self.wire, self.cold_pull, self.options.pretension),
        )
        below = (*below[:1], "prop", *below[1:]) if self.options.props else below
        levers = ("wire", "post_spacing", "props", "pretension")
        return Link(
            "wire",
            keys(self.geometry.by_role("wire")),
            ("wires", self.wire.key),
            below,
            levers,
            np.hypot(self.down, self.side) * self.bay,
            checks,
        )

    def _seat(self) -> Link:
        demand = np.asarray(self.side * self.bay)
        row = tables.fittings()[self.options.seat]
        return Link(
            "seat",
            keys(self.geometry.by_role("fitting")),
            ("fittings", row.key),
            ("post",),
            ("seat", "post_spacing"),
            demand,
            (strings.fitting("seat", row, demand),),
        )

    def _tensioner(self) -> Link:
        row = tables.fittings()[self.options.tensioner]
        pull = np.maximum(self.pull, self.cold_pull)
        return Link(
            "tensioner",
            keys(self.geometry.by_role("wire")),
            ("fittings", row.key),
            ("end-post",),
            ("tensioner", "post_spacing"),
            pull,
            (strings.fitting("tensioner", row, pull),),
        )

    def _arm(self) -> Link:
        wood, bolt = tables.posts()[self.options.arm_wood], tables.fittings()[self.options.knee]
        load, reach = np.asarray(self.down * self.bay), self.options.arm / 2
        return Link(
            "arm",
            keys(self.geometry.by_role("arm")),
            ("posts", wood.key),
            ("post",),
            ("arm_wood", "knee", "arm", "post_spacing"),
            load,
            (arms.arm(wood, load, reach), arms.knee(bolt, load, reach)),
        )

    def _prop(self) -> Link:
        row, push = tables.posts()[self.options.prop], np.asarray(self.down * self.lines * self.bay / 2)
        return Link(
            "prop",
            tuple(m.key for m in self.geometry.by_role("strut") if m.key.startswith("prop")),
            ("posts", row.key),
            (),
            ("prop",),
            push,
            (tension.buckling("prop", row, push, self.options.top_height),),
        )

    def _post(self) -> Link:
        force, height = self.across
        along = self.wind.end + self.wind.skin * self.options.length
        checks = [
            bending.post_across(self.post, force, height, self.amplified),
            bending.post_along(self.post, along, self.wind.height, len(self.xs)),
        ]
        if self.lines == 2:
            checks.append(arms.one_side(self.post, np.asarray(self.down * self.bay), self.options.arm / 2))
        return Link(
            "post",
            keys(self.geometry.by_role("post")),
            ("posts", self.post.key),
            ("soil",),
            ("post", "post_spacing", "top_height"),
            force,
            tuple(checks),
        )

    def _soil(self) -> Link:
        force, height = self.across
        levers = ("depth", "post_spacing", "post", "top_height", "setting")
        return self.soil_grip(self.post, self.options.depth, force, height * self.amplified, levers)

    def _ends(self) -> tuple[Link, ...]:
        force, height = self.across
        return self.ends.links(self._lines(), force / 2, height, self.cases, self.bay_weight / 2)

    def _lines(self) -> list[Line]:
        """Return the wires that pull the ends in: those that carry, each at its height; idle ones have only
        the pull they were given.
        """
        load, still, bays = (
            self._span(self.down, self.side),
            self._span(self.down, self.nothing),
            (len(self.xs) - 1) / 2,
        )
        heights = _heights(self.options)
        carrying = heights[:1] if self.strung else heights
        return [
            loaded_line(
                h,
                self.pull * self.lines,
                load,
                self.still_pull * self.lines,
                still,
                self.bay,
                bays,
                self.lines,
            )
            for h in carrying
        ]

    def service(self) -> tuple[Service, ...]:
        """Return the lean of the line posts, the sag of the wire, and how far the ends come in."""
        force, height = self.across
        half = self.wind.leaf_height / 2 if not self.strung else np.full((1, 1, 1), 0.01)
        lean = force * posts.lean_per_force(
            self.post, self.ground, self.options.depth, height, half, self.options.top_height, self.cases
        )
        span = self.bay / 2 if self.options.props else self.bay
        sag = tension.wire_sag(self.pull, self.down, span)
        come_in = (np.maximum(self.pull - self.options.pretension, 0.0)) / self.end_stiffness
        levers = ("post_spacing", "props", "pretension", "ends")
        return (
            self.lean_of(lean, self.options.top_height),
            Service("sag", sag, span / tables.constant("belly_limit"), "handbook-parts-3.9", levers),
            Service(
                "come-in",
                come_in,
                self.options.top_height / tables.constant("sway_limit"),
                "handbook-6.5",
                ("ends", "end_depth", "anchor"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind that comes to the wires, and what line posts and ends take of it. [N]"""
        share = tables.constant("string_share") if self.strung else 1.0
        force, _ = self.across
        inner = len(self.xs) - 2
        return share * self.wind.force * self.options.length, force * inner + 2 * force / 2


class WireTrellis(Family[WireTrellisOptions]):
    """Wires between end assemblies."""

    key: ClassVar[str] = "wire-trellis"
    options = WireTrellisOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return a row of wire for a crop on a bed, every value with its reason."""
        row = plants.sown(need, site, longest=60.0, shortest=2.0)
        crop, fill = row.crop, site.bed.raised_by
        low = (
            crop.support_height_m < _LEAST_STRUNG
            or crop.training in ("CORRAL", "FRONT")
            or crop.cap_group == "bramble"
        )
        height = round(min(max(crop.support_height_m, 0.9), tables.constant("reach"), 2.5) * 20) / 20
        wires = 1 if not low else 3
        depth = min(max(0.60, math.ceil((fill + 0.50) * 20) / 20), 1.2)
        end_depth = min(max(0.80, math.ceil((fill + 0.70) * 20) / 20), 1.2)
        post = next(
            (key for key in _LINE_POSTS if max(tables.posts()[key].lengths_m) >= depth + height - 0.03),
            _LINE_POSTS[-1],
        )
        options = WireTrellisOptions(
            length=row.length,
            post=post,
            lines="tee" if need.side == "both" and not low else "single",
            top_height=height,
            wires=wires,
            wire_step=round(max((height - 0.3) / max(wires, 2), 0.2), 2),
            crop_on="wires" if low else "strings",
            depth=depth,
            end_depth=end_depth,
            post_spacing=3.0,
            ends="lean",
            stem_tie="twine_jute_3_loop" if low else "clip_spring_small",
        )
        room = {"room": (_ends_of(options, site).reach(), "length")}
        reasons = {
            **row.reasons,
            "lines": Reason("lines_tee" if options.lines == "tee" else "lines"),
            "top_height": Reason(
                "top_height", {"support": (crop.support_height_m, "length"), "height": (height, "length")}
            ),
            "wires": Reason("wires_low" if low else "wires"),
            "wire": Reason("wire"),
            "pretension": Reason("pretension", {"pull": (options.pretension, "force")}),
            "tensioner": Reason("tensioner"),
            "safety_wire": Reason("safety_wire"),
            "starter": Reason("starter"),
            "crop_on": Reason("crop_on_wires" if low else "crop_on_strings", words={"crop": crop.name}),
            "stem_tie": Reason("stem_tie" if low else "stem_clip"),
            "post_age": Reason("post_age"),
            "post": Reason("line_post"),
            "post_spacing": Reason("post_spacing_wire", {"spacing": (3.0, "length")}),
            "depth": Reason(
                "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
            ),
            "setting": Reason("setting_dug"),
            "seat": Reason("seat"),
            "props": Reason("props"),
            "ends": Reason("ends_lean", room),
            "end_post": Reason("end_post"),
            "end_depth": Reason("end_depth", {"depth": (end_depth, "length")}),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: WireTrellisOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return posts, wires, arms, strings and ends in metres."""
        post, end = tables.posts()[options.post], tables.posts()[options.end_post]
        xs, tee, height = (
            posts.stations(options.length, options.post_spacing),
            options.lines == "tee",
            options.top_height,
        )
        assembly = _ends_of(options, site)
        members = posts.row(
            post, xs[1:-1], options.depth, height, posts.stock_length(post, options.depth + height), first=2
        )
        for number, x, outward in ((1, 0.0, -1.0), (len(xs), options.length, 1.0)):
            members += posts.end(end, number, (x, 0.0, -options.end_depth), assembly.top_of(x, outward))
        half = options.arm / 2 if tee else 0.0
        for line in (1.0, -1.0) if tee else (1.0,):
            members += _wires(options, assembly, xs, line * half)
        if tee:
            members += _arms(options, xs)
        else:
            members += [
                Member(
                    f"seat-{n + 1}",
                    "fitting",
                    "fittings",
                    options.seat,
                    ((float(x), 0.0, height),),
                    shape="point",
                )
                for n, x in enumerate(xs[1:-1])
            ]
        if options.props:
            prop = tables.posts()[options.prop]
            members += [
                Member(
                    f"prop-{n + 1}",
                    "strut",
                    "posts",
                    prop.key,
                    ((x, 0.0, -_PROP_FOOT), (x, 0.0, height)),
                    height + _PROP_FOOT,
                    prop.soil_width,
                )
                for n, x in enumerate((a + b) / 2 for a, b in pairwise(map(float, xs)))
            ]
        members += assembly.members(options.length)
        grown = (
            plants.along(plantings, options.length, half) if tee else plants.along(plantings, options.length)
        )
        if options.crop_on == "strings":
            at = {n: math.copysign(half, plant.at[1]) if tee else 0.0 for n, plant in enumerate(grown)}
            members += hung.members(options.string, grown, at, height)
            grown = hung.climbing(grown, at, height)
        if options.starter == "brush":
            members += starters.members(grown)
        bare = tables.constant("stripped_pruned")
        cast = [options.end_depth] * 2 if "concrete" in (options.ends, options.setting) else []
        cast += [options.depth] * (len(xs) - 2) if options.setting == "concrete" else []
        supplies = (
            *plants.stem_ties(plantings, options.stem_tie, height, bare),
            *_small(options, grown),
            *posts.concrete(cast),
        )
        dimensions = _dimensions(options, plantings, grown, xs, site.bed.width / 2)
        return Geometry(
            located(members), grown, dimensions, supplies, options.length, height, options.depth, climb=height
        )

    def loaded(
        self, options: WireTrellisOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Row:
        """Return the row under the loads of the cases."""
        return _Row(options, geometry, structure, site, cases)

    def remarks(
        self, options: WireTrellisOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: the room that guys take, reach, the safety wire, what climbs on
        what.
        """
        remarks = fits.of_ground(site.bed, options.length, options.depth)
        assembly = _ends_of(options, site)
        if options.ends in _GUYED:
            remarks += fits.of_guys(site.bed, options.length, assembly.reach())
        if not options.safety_wire:
            remarks.append(Remark("no-safety-wire", "wrong", source="handbook-7.6", levers=("safety_wire",)))
        if options.starter == "brush":
            remarks.append(
                Remark(
                    "starter-brush",
                    "fine",
                    {"height": (starters.height(), "length")},
                    source="handbook-parts-3.15",
                    levers=("starter",),
                )
            )
        if options.ends == "plain":
            remarks.append(Remark("ends-unbraced", "watch", source="handbook-7.5", levers=("ends",)))
        remarks += fits.of_setting(
            "concrete" if "concrete" in (options.ends, options.setting) else options.setting
        )
        if "barbed" in options.wire:
            remarks.append(Remark("barbed", "watch", source="handbook-parts-3.9", levers=("wire",)))
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            remarks += [
                *fits.of_height(planting, options.top_height, ("top_height",)),
                *fits.of_suit(planting, self.key),
            ]
            remarks += fits.of_row(planting, options.length)
            if options.crop_on == "wires" and crop.habit == "twiner":
                remarks.append(
                    Remark(
                        "twiner-level",
                        "wrong",
                        words={"crop": crop.name},
                        source="crops-4",
                        levers=("crop_on",),
                    )
                )
            if options.crop_on == "strings" and crop.training == "TIE":
                remarks.append(Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4"))
        remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of building a wire trellis of these members."""
        cautions = ["services-ends", "strainers", "cut-ends"]
        if geometry.by_role("guy"):
            cautions.append("guys")
        if any(wire.item == "wire_barbed_125" for wire in geometry.by_role("wire")):
            cautions.append("barbed")
        if geometry.by_role("cap"):
            cautions.append("caps")
        return (*cautions, "climb", "judgement")


_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "end_post", "post_spacing", "pretension", "lean"),
    "soil": ("end_depth", "ends", "end_post", "post_spacing", "pretension"),
    "prop": ("anchor", "post_spacing", "ends", "guy_angle", "pretension"),
    "lift": ("end_depth", "ends", "end_post", "post_spacing"),
}


def _ends_of(options: WireTrellisOptions, site: Site) -> EndAssembly:
    leaning = math.radians(options.lean if options.ends == "lean" else 90.0)
    return EndAssembly(
        options.ends,
        bending.after(tables.posts()[options.end_post], options.post_age),
        embedment.ground_of(site.bed, "concrete" if options.ends == "concrete" else options.setting),
        options.end_depth,
        options.top_height,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
        lean=leaning,
        guy_angle=math.radians(options.guy_angle),
        run=min(2.4, options.length / 2),
        pad=_STONE if options.ends in _GUYED else 0.0,
    )


def _heights(options: WireTrellisOptions) -> list[float]:
    """Return the heights of the wires, the top one first. [m]"""
    return [max(options.top_height - n * options.wire_step, 0.1) for n in range(options.wires)]


def _wires(options: WireTrellisOptions, assembly: EndAssembly, xs: Array, y: float) -> list[Member]:
    """Return the wires of one line, each bought with its ends and the safety wire past its tensioner."""
    row = tables.wires()[options.wire]
    around = 2 * (1.5 * 0.314 + 0.30) + 0.5 + (_SAFETY if options.safety_wire else 0.0)
    members = []
    for n, z in enumerate(_heights(options)):
        lean = z / math.tan(assembly.lean)
        line: tuple[Point, ...] = (
            (-lean, y, z),
            *((float(x), y, z) for x in xs[1:-1]),
            (options.length + lean, y, z),
        )
        name = f"wire-{n + 1}" if y >= 0 else f"wire-{n + 1}-right"
        bought = 1.01 * (options.length + 2 * lean) + around
        members.append(
            Member(
                name, "wire", "wires", row.key, line, bought, row.d, sags=n == 0 or options.crop_on == "wires"
            )
        )
    return members


def _arms(options: WireTrellisOptions, xs: Array) -> list[Member]:
    """Return the arms with their knees on every post."""
    wood, z, half = tables.posts()[options.arm_wood], options.top_height, options.arm / 2
    members = []
    for n, x in enumerate(map(float, xs)):
        members.append(
            Member(
                f"arm-{n + 1}", "arm", "posts", wood.key, ((x, -half, z), (x, half, z)), options.arm, 0.089
            )
        )
        for side, name in ((1.0, "left"), (-1.0, "right")):
            knee = ((x, side * half / 2, z), (x, 0.0, z - half / 2))
            members.append(
                Member(f"knee-{n + 1}-{name}", "arm", "posts", wood.key, knee, half / 2 * 1.6, 0.038)
            )
    return members


def _small(options: WireTrellisOptions, grown: tuple[Plant, ...]) -> tuple[Supply, ...]:
    """Return what has no place of its own: tensioners, pegs, bolts of the knees."""
    lines = 2 if options.lines == "tee" else 1
    supplies = [Supply("tensioner", "fittings", options.tensioner, options.wires * lines)]
    if options.crop_on == "strings":
        supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
    if options.ends in _GUYED:
        supplies.append(Supply("foot-stone", "fittings", "foot_stone", 2))
    if lines == 2:
        arms_ = len(posts.stations(options.length, options.post_spacing))
        supplies.append(Supply("knee-bolt", "fittings", options.knee, 4 * arms_))
    return tuple(supplies)


def _dimensions(
    options: WireTrellisOptions,
    plantings: tuple[Planting, ...],
    grown: tuple[Plant, ...],
    xs: Array,
    edge: float,
) -> tuple[Dimension, ...]:
    end, bay, height = float(xs[-1]), float(xs[1]), options.top_height
    dimensions = [
        Dimension("options.length", "elevation", (0, 0, -options.depth), (end, 0, -options.depth), end, -0.6),
        Dimension("options.post_spacing", "elevation", (0, 0, height), (bay, 0, height), bay, 0.6),
        Dimension("options.top_height", "elevation", (end, 0, 0), (end, 0, height), height, 1.6),
        Dimension(
            "options.end_depth", "elevation", (0, 0, -options.end_depth), (0, 0, 0), options.end_depth, -0.6
        ),
    ]
    if len(xs) > 2:
        dimensions.append(
            Dimension(
                "options.depth", "elevation", (bay, 0, -options.depth), (bay, 0, 0), options.depth, -0.5
            )
        )
    if options.lines == "tee":
        half = options.arm / 2
        dimensions.append(
            Dimension("options.arm", "end", (-half, 0, height), (half, 0, height), options.arm, 0.5)
        )
    return (*dimensions, *plants.spacing_dimension(plantings, grown, edge))
