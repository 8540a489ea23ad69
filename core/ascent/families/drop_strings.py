"""Drop strings: one string a plant from a beam, a wire or a house's own bar; wound or clipped, and let down
as the stem grows.
"""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from itertools import pairwise
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, embedment, overhead, strings, tension
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, cable
from ..path.geometry import Dimension, Geometry, Member, Plant, Supply, keys, located
from ..path.loadpath import Arrow, Link, Remark, Service
from ..patterns import plants, posts
from ..patterns import strings as hung
from ..patterns.end_assembly import EndAssembly, Line, loaded_line
from ..patterns.stand import PostRow
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits

_ON_POSTS = ("beam", "wire")
_MOST_BEAM = 3.6  # a beam needs no anchors up to this span [m], parts handbook 3.8
_BRACE, _BRACE_STAKE = "wire_soft_125", "stake_guy_rebar"  # of a beam's posts along their row
_TWISTED = 0.9  # of two wires twisted together, each keeps this, structures handbook 6.1


class DropStringsOptions(Typed):
    """What must be decided of drop strings. Lengths in metres, loads in newtons per metre."""

    length: float = measure("top", "length", 3.0, 0.6, 30.0, 0.05, asked=True)
    top: Literal["beam", "wire", "house"] = choice("top", "beam", asked=True)
    top_height: float = measure("top", "length", 2.10, 1.0, 3.2, 0.01, tries=(-0.1, -0.2), asked=True)
    beam: Annotated[str, row_of("posts", "rail")] = item(
        "top", "posts", "post_lumber_38x89", "rail", when=("top", ("beam",))
    )
    wire: Annotated[str, row_of("wires")] = item("top", "wires", "wire_soft_125", when=("top", ("wire",)))
    doubled: bool = choice("top", True, when=("top", ("wire",)))
    pretension: float = measure(
        "top", "force", 100.0, 20.0, 600.0, 10.0, tries=(-50.0,), when=("top", ("wire",))
    )
    purlin_load: float = measure(
        "top", "line_load", 100.0, 0.0, 2000.0, 10.0, when=("top", ("house",)), asked=True
    )
    string: Annotated[str, row_of("twines", "string")] = item("strings", "twines", "pp_greenhouse", "string")
    attach: Literal["clip", "twist"] = choice("strings", "clip")
    stem_tie: Annotated[str, row_of("ties", "stem")] = item(
        "strings", "ties", "clip_spring_small", "stem", when=("attach", ("clip",))
    )
    hung_by: Literal["knot", "hook"] = choice("strings", "knot")
    hook: Annotated[str, row_of("fittings", "string-top")] = item(
        "strings", "fittings", "hook_s_4", "string-top", when=("hung_by", ("hook",))
    )
    foot_held: Literal["peg", "loop"] = choice("strings", "peg")
    base: Annotated[str, row_of("fittings", "peg")] = item(
        "strings", "fittings", "peg_wire", "peg", when=("foot_held", ("peg",))
    )
    lower: bool = choice("strings", False, asked=True)
    stem_length: float = measure(
        "strings", "length", 3.5, 1.5, 10.0, 0.1, when=("lower", ("true",)), asked=True
    )
    zigzag: float = measure("strings", "length", 0.0, 0.0, 0.6, 0.01, asked=True)
    post: Annotated[str, row_of("posts", "post")] = item(
        "posts", "posts", "post_lumber_89", "post", when=("top", _ON_POSTS)
    )
    post_spacing: float = measure(
        "posts", "length", 2.4, 0.6, 4.0, 0.01, tries="bays", when=("top", _ON_POSTS)
    )
    footing: Literal["soil", "bed"] = choice("posts", "soil", when=("top", _ON_POSTS))
    post_age: int = measure("posts", "count", 0, 0, 15, 1, when=("top", _ON_POSTS), asked=True)
    depth: float = measure("posts", "length", 0.60, 0.2, 1.2, 0.01, tries=DEEPER, when=("footing", ("soil",)))
    setting: posts.Setting = choice("posts", "tamped", when=("footing", ("soil",)))
    screws: Annotated[str, row_of("fittings", "joint")] = item(
        "posts", "fittings", "screws_76_pair", "joint", when=("footing", ("bed",))
    )
    screw_gap: float = measure(
        "posts", "length", 0.15, 0.05, 0.4, 0.01, tries=(0.05, 0.1, 0.2), when=("footing", ("bed",))
    )
    uprights: Literal["alone", "pair", "knees"] = choice("posts", "alone", when=("footing", ("bed",)))
    joint: Annotated[str, row_of("fittings", "joint")] = item(
        "posts", "fittings", "bolt_carriage_m8", "joint", when=("top", ("beam",))
    )
    prop: bool = choice("posts", False, when=("top", _ON_POSTS))
    brace: Literal["none", "diagonal", "back-tie"] = choice("ends", "diagonal", when=("top", ("beam",)))
    ends: Literal["plain", "guy", "strut", "top-brace"] = choice("ends", "guy", when=("top", ("wire",)))
    guy_wire: Annotated[str, row_of("wires")] = item("ends", "wires", "wire_soft_9", when=("ends", ("guy",)))
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "deadman_stones_30", when=("ends", ("guy",))
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_sw_stake_38", "strut", when=("ends", ("strut", "top-brace"))
    )


class _Strung(PostRow[DropStringsOptions]):
    """Everything the checks of drop strings need, worked out once for its cases."""

    @property
    def span(self) -> float:
        """Return what the beam or wire spans: a bay, or half of one over a prop. [m]"""
        return self.bay / 2 if self.options.prop else self.bay

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(self.growths, 0.0, 0.0, self.options.top_height, self.cases)

    @cached_property
    def bay_weight(self) -> Array:
        """Return the crop that hangs in a bay. [N]"""
        return self.crop_weight((self.xs[1:] + self.xs[:-1]) / 2, self.bay / 2, self.bay)

    @cached_property
    def down(self) -> Array:
        """Return crop and the beam's own weight on a metre of it. [N/m]"""
        own = (
            tables.posts()[self.options.beam].kg_m * tables.constant("gravity")
            if self.options.top == "beam"
            else 0.0
        )
        return np.asarray(self.bay_weight / self.bay + own)

    @cached_property
    def side(self) -> Array:
        """Return the wind that the strings hand to a metre of beam. [N/m]"""
        return np.asarray(tables.constant("string_share") * self.wind.force)

    @cached_property
    def on_post(self) -> Array:
        """Return the crop that hangs on an inner post; the only bay hangs half on each. [N]"""
        return np.asarray(self.down * self.carried)

    @cached_property
    def across(self) -> Array:
        """Return the wind across the row on one post. [N]"""
        return np.asarray(self.side * self.carried)

    @cached_property
    def along(self) -> Array:
        """Return the wind along the row, the half of it that the strings hand upward. [N]"""
        return np.asarray(
            tables.constant("string_share") * (self.wind.end + self.wind.skin * self.options.length)
        )

    @cached_property
    def height(self) -> Array:
        return np.full((1, 1, 1), self.options.top_height)

    @cached_property
    def amplified(self) -> Array:
        return self.amplified_by(self.on_post / self.sharing, self.options.top_height)

    @cached_property
    def paired(self) -> bool:
        """Return whether two uprights stand at each place, one on either side of the bed, joined over it."""
        return self.options.footing == "bed" and self.options.uprights != "alone"

    @property
    def sharing(self) -> float:
        """Return how many uprights share what comes on one place of the row."""
        return 2.0 if self.paired else 1.0

    @cached_property
    def bends(self) -> tuple[Array, Array]:
        """Return the wind across the row on one upright and the lever with which it bends it: half the height
        where knees keep the corners square. [N] and [m]
        """
        lever = 0.5 if self.paired and self.options.uprights == "knees" else 1.0
        return np.asarray(self.across / self.sharing), np.asarray(self.height * lever)

    @cached_property
    def ends(self) -> EndAssembly:
        return _ends_of(self.options, self.site).standing(self.geometry)

    @cached_property
    def strands(self) -> float:
        return 2.0 if self.options.doubled else 1.0

    def _pull(self, load: Array) -> Array:
        wire = tables.wires()[self.options.wire]
        axial = self.strands * wire.E * tension.wire_area(wire)
        stiffness = self.ends.stiffness(self.options.top_height, self.cases)
        return cable.elastic_tension(
            load, self.bay, self.options.pretension, axial, stiffness, len(self.xs) - 1
        )

    def _load(self, side: Array) -> Array:
        return np.hypot(self.down / 2 if self.options.prop else self.down, side)

    @cached_property
    def pull(self) -> Array:
        """Return the pull of the wire. [N]"""
        return self._pull(self._load(self.side))

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        twine, peg = tables.twines()[self.options.string], tables.fittings()[self.options.base]
        stem = tables.ties()[self.options.stem_tie] if self.options.attach == "clip" else None
        hook = tables.fittings()[self.options.hook] if self.options.hung_by == "hook" else None
        to = {"beam": "beam", "wire": "wire", "house": "purlin"}[self.options.top]
        links = hung.string_links(
            self,
            self.wind.pressure,
            self.wind.leaf_height,
            twine,
            stem,
            hook,
            peg if self.options.foot_held == "peg" else None,
            to,
        )
        if self.options.top == "house":
            return (*links, self._purlin())
        top = (
            (self._beam(), self._joint(), *self._braced()) if self.options.top == "beam" else (self._wire(),)
        )
        return (
            *links,
            *top,
            self._post(),
            *self._footing(),
            *(self._ends() if self.options.top == "wire" else ()),
        )

    def _purlin(self) -> Link:
        load = np.hypot(self.bay_weight / self.bay, self.side)
        return Link(
            "purlin",
            (),
            None,
            (),
            ("purlin_load",),
            load * self.options.length,
            (overhead.purlin(load, self.options.purlin_load),),
        )

    def _beam(self) -> Link:
        beam = tables.posts()[self.options.beam]
        checks = (
            bending.beam_in_gust(beam, self.down, self.side, self.span),
            bending.beam_lasting(beam, self.down, self.span),
        )
        middle = (self.bay / 2, 0.0, self.options.top_height)
        return Link(
            "beam",
            keys(self.geometry.by_role("rail")),
            ("posts", beam.key),
            ("joint",),
            ("beam", "prop", "post_spacing"),
            np.hypot(self.down, self.side) * self.bay,
            checks,
            (Arrow(middle, (0.0, 0.0, -1.0)),),
        )

    def _joint(self) -> Link:
        row, demand = tables.fittings()[self.options.joint], np.hypot(self.on_post, self.across)
        return Link(
            "joint",
            keys(self.geometry.by_role("fitting")),
            ("fittings", row.key),
            ("post",),
            ("joint", "post_spacing"),
            demand,
            (strings.fitting("joint", row, demand),),
        )

    def _braced(self) -> list[Link]:
        """Return what keeps the beam's posts from racking along the row: a wire down the first or the last
        bay, or back to a driven stake.

        It pulls down on the post it is tied to, which is pushed while the wind across bends it.
        """
        if self.options.brace == "none":
            return []
        wire, run, tall = tables.wires()[_BRACE], _brace_run(self.options, self.bay), self.options.top_height
        tight, pushed = self.along * math.hypot(run, tall) / run, self.along * tall / run + self.on_post
        guys = keys(self.geometry.by_role("guy"))
        checks = (
            tension.brace_wire(wire, tight, self.along),
            bending.pushed(
                self.post, pushed, tall, np.asarray(self.across * self.height * self.amplified / self.sharing)
            ),
        )
        back = self.options.brace == "back-tie"
        links = [
            Link(
                "brace",
                guys,
                ("wires", wire.key),
                ("brace-anchor",) if back else (),
                ("brace", "post", "post_spacing"),
                tight,
                checks,
            )
        ]
        if back:
            stake = tables.anchors()[_BRACE_STAKE]
            held = tension.anchor(stake, self.ground.native, tight, math.atan2(tall, run), self.cases)
            links.append(
                Link(
                    "brace-anchor",
                    keys(self.geometry.by_role("anchor")),
                    ("anchors", stake.key),
                    (),
                    ("brace",),
                    tight,
                    held,
                )
            )
        return links

    def _wire(self) -> Link:
        wire = tables.wires()[self.options.wire]
        check = overhead.twisted(
            wire,
            self.strands,
            _TWISTED if self.options.doubled else 1.0,
            self._load(self.side),
            self.bay,
            self.pull,
        )
        return Link(
            "wire",
            keys(self.geometry.by_role("wire")),
            ("wires", wire.key),
            ("post", "end-post"),
            ("wire", "doubled", "post_spacing", "prop"),
            np.hypot(self.down, self.side) * self.bay,
            (check,),
        )

    def _post(self) -> Link:
        checks = [bending.post_across(self.post, *self.bends, self.amplified)]
        if self.options.top == "beam" and self.options.brace == "none":
            checks.append(
                bending.racking(self.post, self.along, self.options.top_height, len(self.xs), self.on_post)
            )
        below = "soil" if self.options.footing == "soil" else "board"
        return Link(
            "post",
            keys(self.geometry.by_role("post")),
            ("posts", self.post.key),
            (below,),
            ("post", "brace", "post_spacing", "top_height"),
            np.hypot(self.across, self.on_post),
            tuple(checks),
        )

    def _footing(self) -> tuple[Link, ...]:
        if self.options.footing == "bed":
            members = keys(self.geometry.by_role("grip"))
            force, lever = self.bends
            row, moment = tables.fittings()[self.options.screws], np.asarray(force * lever * self.amplified)
            return (
                Link(
                    "board",
                    members,
                    ("fittings", row.key),
                    (),
                    ("screws", "screw_gap", "post_spacing"),
                    self.across,
                    (bending.screwed(row, moment, self.options.screw_gap),),
                ),
            )
        levers = ("depth", "post_spacing", "post", "setting")
        return (
            self.soil_grip(self.post, self.options.depth, self.across, self.height * self.amplified, levers),
        )

    def _ends(self) -> tuple[Link, ...]:
        load, lasts = self._load(self.side), self._load(self.nothing)
        line = loaded_line(
            self.options.top_height,
            self.pull,
            load,
            self._pull(lasts),
            lasts,
            self.bay,
            (len(self.xs) - 1) / 2,
        )
        force, lever = self.bends
        links = self.ends.links([line], force / 2, lever, self.cases, self.on_post / 2)
        return (*links, *self._brace_top(line))

    def _brace_top(self, line: Line) -> tuple[Link, ...]:
        """Return the bar from post to post over the row, which the wire pushes together."""
        if self.options.ends != "top-brace":
            return ()
        row = tables.posts()[self.options.strut]
        push, usual = (line.after(self.ends.give(line.height, down)) for down in (False, True))
        check = replace(tension.buckling("strut", row, push, self.bay), expected=usual)
        return (
            Link(
                "top-brace",
                ("top-brace",),
                ("posts", row.key),
                (),
                ("strut", "post_spacing", "ends"),
                push,
                (check,),
            ),
        )

    def service(self) -> tuple[Service, ...]:
        """Return the lean of the posts and the sag of beam or wire."""
        if self.options.top == "house":
            return (
                Service(
                    "lean",
                    0.0 * self.side,
                    self.options.top_height / tables.constant("sway_limit"),
                    "handbook-4.2",
                    (),
                ),
            )
        lean = self.across * posts.lean_per_force(
            self.post,
            self.ground,
            max(self.options.depth, 0.3),
            self.height,
            np.full((1, 1, 1), 0.01),
            self.options.top_height,
            self.cases,
        )
        if self.options.top == "beam":
            sag, limit = (
                bending.beam_sag(tables.posts()[self.options.beam], self.down, self.span),
                self.span / tables.constant("beam_sag_limit"),
            )
        else:
            sag, limit = (
                tension.wire_sag(self.pull, self.down, self.span),
                self.span / tables.constant("belly_limit"),
            )
        return (
            self.lean_of(lean, self.options.top_height),
            Service("sag", sag, limit, "handbook-parts-3.9", ("prop", "post_spacing")),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across the row that strings hand upward, and what bends the posts that it stands
        on. [N]
        """
        put_on = self.side * self.options.length
        if self.options.top == "house":
            return put_on, put_on
        bent = next(link for link in self.path() if link.key == "post").checks[0]
        each, _ = bent.terms["force"]
        return put_on, np.asarray(each * self.sharing * self.options.length / self.carried)


class DropStrings(Family[DropStringsOptions]):
    """Strings from above."""

    key: ClassVar[str] = "drop-strings"
    options = DropStringsOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return strings from a beam for a crop on a bed, every value with its reason."""
        row = plants.sown(need, site, longest=30.0)
        crop, fill = row.crop, site.bed.raised_by
        beam = row.length <= 2 * _MOST_BEAM
        height = round(min(max(crop.support_height_m, 1.2), 2.10) * 20) / 20
        boards = site.bed.kind == "raised" and site.bed.board >= 0.03
        depth = min(max(0.60, math.ceil((fill + 0.50) * 20) / 20), 1.2)
        bays = math.ceil(row.length / 2.4 - 1e-6)
        options = DropStringsOptions(
            length=row.length,
            top="beam" if beam else "wire",
            top_height=height,
            depth=depth,
            post_spacing=round(max(row.length / bays, 0.6) + 0.004, 2),
            zigzag=0.46 if need.side == "both" else 0.0,
            pretension=100.0,
        )
        reasons = {
            **row.reasons,
            "top": Reason("top_beam" if beam else "top_wire", {"span": (_MOST_BEAM, "length")}),
            "top_height": Reason(
                "top_height", {"support": (crop.support_height_m, "length"), "height": (height, "length")}
            ),
            "string": Reason("string"),
            "attach": Reason("attach"),
            "hung_by": Reason("hung_by"),
            "foot_held": Reason("foot_held"),
            "lower": Reason("lower"),
            "zigzag": Reason("zigzag_both" if need.side == "both" else "zigzag"),
            "footing": Reason("footing_raised" if boards else "footing"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: DropStringsOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return posts, beam or wire, strings and plants in metres."""
        xs, height, post = (
            posts.stations(options.length, options.post_spacing),
            options.top_height,
            tables.posts()[options.post],
        )
        offset = options.zigzag / 2 if options.zigzag > 2 * plants.OFFSET else plants.OFFSET
        grown = plants.along(plantings, options.length, offset)
        at = dict.fromkeys(range(len(grown)), 0.0)
        members = hung.members(options.string, grown, at, height, _spare(options))
        grown = hung.climbing(grown, at, height)
        depth = options.depth if options.footing == "soil" else 0.0
        if options.top != "house":
            members += _uprights(options, site, xs, depth)
            members += _top(options, xs)
            if options.prop:
                members += [
                    Member(
                        f"prop-{n + 1}",
                        "strut",
                        "posts",
                        post.key,
                        ((x, 0.0, 0.0), (x, 0.0, height)),
                        height,
                        post.soil_width,
                    )
                    for n, x in enumerate((a + b) / 2 for a, b in pairwise(map(float, xs)))
                ]
        if options.top == "wire":
            members += _ends_of(options, site).members(options.length)
        bare = tables.constant("stripped_pruned")
        supplies = (
            []
            if options.attach == "twist"
            else list(plants.stem_ties(plantings, options.stem_tie, height, bare))
        )
        if options.hung_by == "hook":
            supplies.append(Supply("string-hook", "fittings", options.hook, len(grown)))
        if options.foot_held == "peg":
            supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
        if options.top != "house" and options.footing == "bed":
            count = len(xs) * (1 if options.uprights == "alone" else 2)
            supplies.append(Supply("post-screws", "fittings", options.screws, 2 * count))
            if options.uprights == "knees":
                supplies.append(Supply("knee-screws", "fittings", options.screws, 4 * len(xs)))
        if options.top != "house" and options.footing == "soil" and options.setting == "concrete":
            supplies += posts.concrete([options.depth] * len(xs))
        return Geometry(
            located(members),
            grown,
            _dimensions(options, plantings, grown, xs, site.bed.width / 2),
            tuple(supplies),
            options.length,
            height,
            depth if options.top != "house" else 0.0,
            climb=height,
        )

    def loaded(
        self, options: DropStringsOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Strung:
        """Return the strings under the loads of the cases."""
        return _Strung(options, geometry, structure, site, cases)

    def remarks(
        self, options: DropStringsOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: reach, the base of the string, the room that lowered stems
        want.
        """
        on_posts = options.top != "house"
        in_soil = on_posts and options.footing == "soil"
        remarks = fits.of_ground(site.bed, options.length, options.depth if in_soil else 0.0)
        remarks += fits.of_setting(options.setting if in_soil else "none")
        if on_posts and options.footing == "bed" and site.bed.kind != "raised":
            remarks.append(Remark("no-board", "wrong", source="handbook-13", levers=("footing",)))
        if options.top == "wire" and options.ends == "guy":
            remarks += fits.of_guys(site.bed, options.length, _ends_of(options, site).reach())
        if options.top == "wire" and options.ends == "plain":
            remarks.append(Remark("ends-unbraced", "watch", source="handbook-7.5", levers=("ends",)))
        if not on_posts:
            remarks.append(Remark("house-asked", "watch", source="handbook-parts-4.1"))
        if options.top == "beam" and options.brace == "none":
            remarks.append(Remark("unbraced-frame", "watch", source="handbook-9.5", levers=("brace",)))
        if options.foot_held == "loop":
            remarks.append(Remark("stem-loop", "watch", source="handbook-13", levers=("foot_held",)))
        if options.attach == "twist":
            remarks.append(Remark("wound-stems", "fine", source="crops-4"))
        if options.lower:
            room = max(options.stem_length - options.top_height, 0.0)
            values = {
                "stem": (options.stem_length, "length"),
                "room": (min(room, 1.2), "length"),
                "shift": (room, "length"),
            }
            remarks.append(Remark("lowered", "fine", values, source="crops-4"))
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            remarks += [*fits.of_suit(planting, self.key), *fits.of_row(planting, options.length)]
            remarks += (
                [] if options.lower else fits.of_height(planting, options.top_height, ("top_height", "lower"))
            )
            if crop.training == "TIE":
                remarks.append(Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4"))
        remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of building this."""
        cautions = ["services", "step"]
        if geometry.by_role("guy"):
            cautions.append("guys")
        return (*cautions, "climb", "judgement")


_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "post", "post_spacing"),
    "soil": ("depth", "ends", "post", "post_spacing"),
    "prop": ("anchor", "post_spacing", "pretension"),
    "lift": ("depth", "ends", "post"),
}


def _uprights(options: DropStringsOptions, site: Site, xs: Array, depth: float) -> list[Member]:
    """Return the posts; on a bed perhaps in pairs, one on either side of it, with a bar over it and knees in
    its corners.
    """
    post, height = tables.posts()[options.post], options.top_height
    bought = posts.stock_length(post, depth + height)
    if options.footing == "soil" or options.uprights == "alone":
        return posts.row(post, xs, max(depth, 0.02), height, bought)
    members, edge = [], site.bed.width / 2 + post.a / 2
    for n, x in enumerate(map(float, xs)):
        for k, y in enumerate((edge, -edge)):
            members += posts.standing(post, 2 * n + k + 1, (x, y, -0.02), (x, y, height), bought)
        members.append(
            Member(
                f"crossbar-{n + 1}",
                "arm",
                "posts",
                post.key,
                ((x, edge, height), (x, -edge, height)),
                2 * edge,
                post.soil_width,
            )
        )
        if options.uprights == "knees":
            knee = min(0.4, edge)
            members += [
                Member(
                    f"knee-{n + 1}-{k + 1}",
                    "strut",
                    "posts",
                    post.key,
                    ((x, y, height - knee), (x, y - math.copysign(knee, y), height)),
                    knee * math.sqrt(2.0),
                    post.soil_width,
                )
                for k, y in enumerate((edge, -edge))
            ]
    return members


def _brace_run(options: DropStringsOptions, bay: float) -> float:
    """Return how far along the row a brace's foot stands from its post: square to it when it goes back, in
    its bay when it goes in. [m]
    """
    return options.top_height if options.brace == "back-tie" else min(bay, options.top_height)


def _spare(options: DropStringsOptions) -> float:
    """Return the length of string wound up to be let down. [m]"""
    return max(options.stem_length - options.top_height, 0.0) if options.lower else 0.0


def _ends_of(options: DropStringsOptions, site: Site) -> EndAssembly:
    railed = options.ends == "top-brace"
    depth = options.depth if options.footing == "soil" else 0.30
    return EndAssembly(
        "plain" if options.ends == "top-brace" else options.ends,
        bending.after(tables.posts()[options.post], options.post_age),
        embedment.ground_of(site.bed, options.setting),
        depth,
        options.top_height,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
        railed,
        bows=tables.constant("rail_bows") * options.length / 2,
        in_soil=options.footing == "soil",
    )


def _top(options: DropStringsOptions, xs: Array) -> list[Member]:
    """Return the beam with its joints and brace, or the wire."""
    z, end = options.top_height, float(xs[-1])
    if options.top == "wire":
        row, strands = tables.wires()[options.wire], 2 if options.doubled else 1
        line = tuple((float(x), 0.0, z) for x in xs)
        members = [
            Member(
                "wire-1",
                "wire",
                "wires",
                row.key,
                line,
                strands * (options.length + 2 * 0.65) * 1.03,
                row.d * strands,
                sags=True,
            )
        ]
        if options.ends == "top-brace":
            brace = tables.posts()[options.strut]
            members.append(
                Member(
                    "top-brace",
                    "rail",
                    "posts",
                    brace.key,
                    ((0.0, 0.0, z + 0.05), (end, 0.0, z + 0.05)),
                    options.length,
                    brace.soil_width,
                )
            )
        return members
    beam = tables.posts()[options.beam]
    members = [
        Member(
            "beam",
            "rail",
            "posts",
            beam.key,
            tuple((float(x), 0.0, z) for x in xs),
            options.length,
            beam.b,
            sags=True,
        )
    ]
    members += [
        Member(f"joint-{n + 1}", "fitting", "fittings", options.joint, ((float(x), 0.0, z),), shape="point")
        for n, x in enumerate(xs)
    ]
    if options.brace != "none":
        bay, wire = float(xs[1]), tables.wires()[_BRACE]
        run, across = _brace_run(options, bay), options.brace == "diagonal"
        foot = (run, 0.0, 0.1) if across else (-run, 0.0, 0.0)
        members.append(
            Member(
                "brace-first",
                "guy",
                "wires",
                wire.key,
                ((0.0, 0.0, z), foot),
                math.hypot(run, z) + 1.0,
                wire.d,
            )
        )
        other = (end - run, 0.0, 0.1) if across else (end + run, 0.0, 0.0)
        members.append(
            Member(
                "brace-last",
                "guy",
                "wires",
                wire.key,
                ((end, 0.0, z), other),
                math.hypot(run, z) + 1.0,
                wire.d,
            )
        )
        if not across:
            for name, at in (("first", foot), ("last", other)):
                members.append(
                    Member(f"anchor-{name}", "anchor", "anchors", _BRACE_STAKE, (at,), shape="point")
                )
    return members


def _dimensions(
    options: DropStringsOptions,
    plantings: tuple[Planting, ...],
    grown: tuple[Plant, ...],
    xs: Array,
    edge: float,
) -> tuple[Dimension, ...]:
    end, bay, height = float(xs[-1]), float(xs[1]), options.top_height
    dimensions = [
        Dimension("options.length", "elevation", (0, 0, -0.3), (end, 0, -0.3), end, -0.6),
        Dimension("options.top_height", "elevation", (end, 0, 0), (end, 0, height), height, 0.9),
    ]
    if options.top != "house":
        dimensions.append(
            Dimension("options.post_spacing", "elevation", (0, 0, height), (bay, 0, height), bay, 0.6)
        )
        if options.footing == "soil":
            dimensions.append(
                Dimension(
                    "options.depth", "elevation", (0, 0, -options.depth), (0, 0, 0), options.depth, -0.6
                )
            )
    return (*dimensions, *plants.spacing_dimension(plantings, grown, edge))
