"""Wire trellis: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

from functools import cached_property

import numpy as np

from ... import tables
from ...checks import arms, bending, strings, tension
from ...loads import face
from ...mechanics import Array, cable
from ...path.geometry import keys
from ...path.loadpath import Link, Service
from ...patterns import posts
from ...patterns import strings as hung
from ...patterns.end_assembly import EndAssembly, EndLine, loaded_line
from ...patterns.stand import PostRow
from ...tables import rows
from .geometry import ends_of, heights_of
from .options import WireTrellisOptions


class WireRow(PostRow[WireTrellisOptions]):
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
        return ends_of(self.options, self.site).standing(self.geometry)

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
        return Link.of(
            "seat",
            keys(self.geometry.by_role("fitting")),
            row,
            ("post",),
            ("seat", "post_spacing"),
            demand,
            lambda item: (strings.fitting("seat", item, demand),),
        )

    def _tensioner(self) -> Link:
        row = tables.fittings()[self.options.tensioner]
        pull = np.maximum(self.pull, self.cold_pull)
        return Link.of(
            "tensioner",
            keys(self.geometry.by_role("wire")),
            row,
            ("end-post",),
            ("tensioner", "post_spacing"),
            pull,
            lambda item: (strings.fitting("tensioner", item, pull),),
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

    def _lines(self) -> list[EndLine]:
        """Return the wires that pull the ends in: those that carry, each at its height; idle ones have only
        the pull they were given.
        """
        load, still, bays = (
            self._span(self.down, self.side),
            self._span(self.down, self.nothing),
            (len(self.xs) - 1) / 2,
        )
        heights = heights_of(self.options)
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
