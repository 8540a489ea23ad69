"""Drop strings: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending, overhead, strings, tension
from ...loads import face
from ...mechanics import Array, cable
from ...path.geometry import keys
from ...path.loadpath import Arrow, Link, Service
from ...patterns import posts
from ...patterns import strings as hung
from ...patterns.end_assembly import EndAssembly, EndLine, loaded_line
from ...patterns.stand import PostRow
from .geometry import BRACE, BRACE_STAKE, brace_run, ends_of
from .options import DropStringsOptions

_TWISTED = 0.9  # of two wires twisted together, each keeps this, structures handbook 6.1


class Strung(PostRow[DropStringsOptions]):
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
        return ends_of(self.options, self.site).standing(self.geometry)

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
        return Link.of(
            "joint",
            keys(self.geometry.by_role("fitting")),
            row,
            ("post",),
            ("joint", "post_spacing"),
            demand,
            lambda item: (strings.fitting("joint", item, demand),),
        )

    def _braced(self) -> list[Link]:
        """Return what keeps the beam's posts from racking along the row: a wire down the first or the last
        bay, or back to a driven stake.

        It pulls down on the post it is tied to, which is pushed while the wind across bends it.
        """
        if self.options.brace == "none":
            return []
        wire, run, tall = tables.wires()[BRACE], brace_run(self.options, self.bay), self.options.top_height
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
            stake = tables.anchors()[BRACE_STAKE]
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
                Link.of(
                    "board",
                    members,
                    row,
                    (),
                    ("screws", "screw_gap", "post_spacing"),
                    self.across,
                    lambda item: (bending.screwed(item, moment, self.options.screw_gap),),
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

    def _brace_top(self, line: EndLine) -> tuple[Link, ...]:
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
