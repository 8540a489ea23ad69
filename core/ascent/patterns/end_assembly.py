"""The end post of a row that pulls along itself: plain, guyed, leaning, strutted, braced, in concrete, or
railed.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

import numpy as np

from .. import tables
from ..checks import bending, embedment, tension
from ..loads.cases import Cases
from ..mechanics import Array, beam, ends, relaxation
from ..path.geometry import Geometry, Member, Point
from ..path.loadpath import Arrow, Check, Link
from ..shapes.earth import PostGround
from ..tables import rows
from .posts import give_along

Kind = Literal["plain", "guy", "lean", "strut", "brace", "concrete"]
GUY_ANGLE = math.radians(45.0)
UPRIGHT = math.pi / 2
_LAP = 1.1  # of guy wire for both its ends [m]


@dataclass(frozen=True)
class EndLine:
    """Something stretched along a row that pulls its ends in, at one height.

    A wire or mesh pulls because its belly is longer than its chord. That is a forced movement: when the end
    comes in by `give` no more than `needed(give)` is left of it. What is a load of its own, such as the wind
    along the row, is needed whatever gives.

    height: at which it pulls. [m]
    pull: in the gust, between ends as stiff as they are. [N]
    needed: from how far an end has come in at that height [m] to the pull that is left. [N]
    still, still_needed: the same in still air, all season.
    """

    height: float
    pull: Array
    needed: Callable[[Array | float], Array]
    still: Array
    still_needed: Callable[[Array | float], Array]

    def after(self, give: Array | float) -> Array:
        """Return the pull in the gust once an end has come in so far. [N]"""
        return np.asarray(np.minimum(self.pull, self.needed(give)))

    def lasting(self, give: Array | float) -> Array:
        """Return the pull in still air once an end has come in so far. [N]"""
        return np.asarray(np.minimum(self.still, self.still_needed(give)))


def loaded_line(
    height: float,
    pull: Array,
    load: Array,
    still: Array,
    still_load: Array,
    span: float,
    bays: float,
    count: float = 1.0,
) -> EndLine:
    """Return a number of equal lines that hang between posts, by their pulls together and the load on a metre
    of one of them.

    Args:
        height: Of the lines. [m]
        pull, still: Of all together, in the gust and in still air. [N]
        load, still_load: On a metre of one. [N/m]
        span: Of a bay. [m]
        bays: Bays whose shortening one end takes.
        count: How many lines.
    """

    def left(on: Array) -> Callable[[Array | float], Array]:
        return lambda give: count * relaxation.pull_at(on, span, relaxation.belly_after(give, span, bays))

    return EndLine(height, pull, left(load), still, left(still_load))


def pushed_along(height: float, force: Array) -> EndLine:
    """Return a load along the row, which no give of the ends relieves. [N]"""
    none = np.zeros((1, 1, 1))
    return EndLine(height, force, lambda _give: force, none, lambda _give: none)


class _Held(NamedTuple):
    """What the pulls along the row become: bending and push of the post, push and lift at its foot, pull of
    guy or brace, push of a rail.
    """

    bent: Array
    pushed: Array
    foot: Array
    lifted: Array
    tight: Array
    held: Array


@dataclass(frozen=True)
class EndAssembly:
    """What holds the end posts against the row's own pull.

    hold: where guy, strut, rail or brace meets the post. [m]
    lean: of the post from the ground, its top away from the row; guy_angle of the guy from the ground. [rad]
    run: distance of a brace post from the end post. [m]
    pad: area of a stone under the foot. [m²]
    bows: how far an end comes in once the rail between both has bowed out by a twentieth of its length. [m]
    posts, grips: keys of the two end posts and of the soil that holds them, where the row is laid out.
    in_soil: whether its foot stands in the soil at all, rather than on a board.
    levers: options that strengthen post, soil, guy, strut, prop (the anchor) and lift (a strut's foot).
    """

    kind: Kind
    post: rows.Post
    ground: PostGround
    depth: float
    hold: float
    guy_wire: rows.Wire
    anchor: rows.Anchor
    strut: rows.Post
    levers: Mapping[str, tuple[str, ...]]
    railed: bool = False
    lean: float = UPRIGHT
    guy_angle: float = GUY_ANGLE
    run: float = 2.4
    pad: float = 0.0
    bows: float = 0.0
    in_soil: bool = True
    posts: tuple[str, ...] = ()
    grips: tuple[str, ...] = ()

    def standing(self, geometry: Geometry) -> EndAssembly:
        """Return it with the first and the last post of a row, and the soil that holds them."""
        posts, grips = (
            tuple(member.key for member in (*row[:1], *row[-1:]))
            for row in (geometry.by_role("post"), geometry.by_role("grip"))
        )
        return replace(self, posts=posts, grips=grips)

    @property
    def propped(self) -> bool:
        """Return whether the post is held above the ground."""
        return self.railed or self.kind not in ("plain", "concrete")

    def give(self, height: float, down: bool = False) -> float:
        """Return how far the end may come in at a height in a gust, or by which it lets its row down. [m]

        A rail between both ends bows out as it is pushed together: it goes on carrying what buckles it.

        Source: handbook-4.2 for posts that lean, handbook-6.5 for props, timoshenko-gere for rails
        """
        leaned = tables.constant("lean_down" if down else "lean_given") * height
        if not self.propped:
            return leaned
        moved = (
            self.bows * (2.0 if down else 1.0)
            if self.railed
            else tables.constant("prop_down" if down else "prop_given")
        )
        return min(moved * height / self.hold, leaned)

    def yields(self, height: float, cases: Cases) -> Array:
        """Return the pull at a height at which the end is expected to give on without holding more. [N]

        A plain post by its soil, or by its steel; one that is propped by what holds the prop.

        Source: limit-analysis
        """
        at = np.full((1, 1, 1), height)
        if self.propped:
            guyed = self.kind in ("guy", "lean")
            anchored = tension.anchor_strength(
                self.anchor, self.ground.native, self.guy_angle
            ).median * math.cos(self.guy_angle)
            return np.asarray(anchored * self.hold / height if guyed else np.inf)
        soil = (
            embedment.strength(self.ground, self.post, self.depth, at, cases).median
            if self.in_soil
            else np.inf
        )
        bent = (
            bending.moments(self.post, other_way=True).median / height
            if tables.materials()[self.post.material].yields
            else np.inf
        )
        return np.minimum(soil, bent)

    def stiffness(self, height: float, cases: Cases) -> Array:
        """Return how stiffly the end stands against a pull at a height, (S, 1, 1). [N/m]

        A propped post is a beam from its foot in the soil to the prop; foot, prop and post each give.

        Source: handbook-6.5
        """
        if not self.propped:
            return np.asarray(1.0 / give_along(self.post, self.ground, self.depth, height, cases))
        share = height / self.hold
        foot, _ = embedment.movement(self.ground, self.depth, 0.0, cases)
        bent = beam.propped_give(height, self.hold, bending.stiffness(self.post, other_way=True))
        at_foot = 1.0 if self.kind == "brace" else (1.0 - share) ** 2
        return np.asarray(
            1.0 / (foot * at_foot + share**2 / (self._prop_stiffness() * cases.stiffness) + bent)
        )

    def _prop_stiffness(self) -> float:
        prop = tables.constant("top_brace") if self.railed or self.kind == "brace" else 0.0
        if self.kind in ("guy", "lean"):
            slope = math.sin(self.guy_angle)
            wire = self.guy_wire.E * tension.wire_area(self.guy_wire) / (self.hold / slope)
            soil = float(
                tension.anchor_strength(self.anchor, self.ground.native, self.guy_angle).allowable
            ) / tables.constant("anchor_give")
            lever = math.cos(self.guy_angle) + slope / math.tan(self.lean)
            prop += lever**2 / (1.0 / wire + 1.0 / soil)
        elif self.kind == "strut":
            prop += tables.constant("strut_foot")
        return prop

    def top_of(self, x: float, outward: float) -> Point:
        """Return where the top of an end post stands that has its foot at x. [m]"""
        return (x + outward * self.hold / math.tan(self.lean), 0.0, self.hold)

    def reach(self) -> float:
        """Return how far its guy or its leaning top stands out past the foot of the end post. [m]"""
        lean = self.hold / math.tan(self.lean)
        return lean + (self.hold / math.tan(self.guy_angle) if self.kind in ("guy", "lean") else 0.0)

    def members(self, length: float) -> list[Member]:
        """Return guys with anchors, struts or braces at both ends of a row."""
        members = []
        for name, x, outward in (("first", 0.0, -1.0), ("last", length, 1.0)):
            top = self.top_of(x, outward)
            if self.kind in ("guy", "lean"):
                foot = (x + outward * self.reach(), 0.0, 0.0)
                run = math.hypot(self.hold / math.tan(self.guy_angle), self.hold) + _LAP
                members.append(
                    Member(
                        f"guy-{name}", "guy", "wires", self.guy_wire.key, (top, foot), run, self.guy_wire.d
                    )
                )
                members.append(
                    Member(f"anchor-{name}", "anchor", "anchors", self.anchor.key, (foot,), shape="point")
                )
            elif self.kind == "strut":
                reach = tables.constant("strut_run") * self.hold
                foot = (x - outward * reach, 0.0, 0.0)
                members.append(
                    Member(
                        f"strut-{name}",
                        "strut",
                        "posts",
                        self.strut.key,
                        (top, foot),
                        math.hypot(reach, self.hold),
                        self.strut.soil_width,
                    )
                )
            elif self.kind == "brace":
                inner, own = (x - outward * self.run, 0.0, self.hold), (x, 0.0, self.hold)
                members.append(
                    Member(
                        f"strut-{name}",
                        "strut",
                        "posts",
                        self.strut.key,
                        (own, inner),
                        self.run,
                        self.strut.soil_width,
                    )
                )
                wire, back = math.hypot(self.run, self.hold) + _LAP, (inner, (x, 0.0, 0.05))
                members.append(
                    Member(f"guy-{name}", "guy", "wires", self.guy_wire.key, back, wire, self.guy_wire.d)
                )
        return members

    def _along(self, pulls: Sequence[tuple[float, Array]], weight: Array) -> _Held:
        """Return what pulls along the row become at the end, each at its own height. [m] and [N]"""
        none = np.zeros((1, 1, 1))
        total, moment = sum((p for _, p in pulls), none), sum((p * h for h, p in pulls), none)
        if not self.propped:
            return _Held(moment, weight, total, none, none, none)
        held = moment / self.hold
        between = sum((p * h * (self.hold - h) / self.hold for h, p in pulls if h < self.hold), none)
        above = sum((p * (h - self.hold) for h, p in pulls if h > self.hold), none)
        bent, foot = np.maximum(between, above), np.abs(total - held)
        match self.kind:
            case "guy":
                tight, pushed, _ = ends.guy_forces(held, self.hold, self.hold, self.guy_angle)
                return _Held(bent, np.asarray(pushed + weight), foot, none, np.asarray(tight), held)
            case "lean":
                tight, _, _ = ends.leaning_forces(held, 0.0, self.lean, self.guy_angle)
                pushed = (tight * math.sin(self.guy_angle) + weight) / math.sin(self.lean)
                return _Held(bent, pushed, foot + pushed * math.cos(self.lean), none, np.asarray(tight), held)
            case "strut":
                tight, lifted, _ = ends.strut_forces(
                    held, self.hold, self.hold, tables.constant("strut_run") * self.hold
                )
                return _Held(bent, weight, foot, np.asarray(lifted), np.asarray(tight), held)
            case "brace":
                _, tight, lifted = ends.brace_forces(held, self.hold, self.hold, self.run)
                return _Held(bent, weight, total, np.asarray(lifted), np.asarray(tight), held)
        return _Held(bent, weight, foot, none, none, held)

    def _brittle(self, lines: Sequence[EndLine], cases: Cases) -> list[tuple[float, Array]]:
        """Return what comes on a post that breaks before it yields: it is relieved only once its soil gives.
        [m] and [N]
        """
        none = np.zeros((1, 1, 1))
        if self.propped or not self.in_soil:
            return [(line.height, line.pull) for line in lines]
        total, moment = (
            sum((line.pull for line in lines), none),
            sum((line.pull * line.height for line in lines), none),
        )
        soil = embedment.strength(
            self.ground, self.post, self.depth, moment / np.maximum(total, 1e-9), cases
        ).median
        share = np.minimum(1.0, soil / np.maximum(total, 1e-9))
        return [
            (
                line.height,
                np.minimum(line.pull, np.maximum(line.pull * share, line.after(self.give(line.height)))),
            )
            for line in lines
        ]

    def links(
        self,
        lines: Sequence[EndLine],
        across: Array,
        across_height: Array,
        cases: Cases,
        weight: Array | None = None,
    ) -> tuple[Link, ...]:
        """Return the links from an end post to the ground.

        Args:
            lines: What pulls along the row.
            across: Wind across the row on the end post. [N]
            across_height: Height of that wind. [m]
            cases: The cases.
            weight: Crop that hangs on the end post. [N]

        Returns:
            The end post, its grip, and guy and anchor, strut or brace where there are any.

        Source: handbook-7.1; limit-analysis for the relief of what is a forced movement
        """
        weight = np.zeros((1, 1, 1)) if weight is None else weight
        given, down = (
            [(line.height, line.after(self.give(line.height, far))) for line in lines]
            for far in (False, True)
        )
        held, expected = self._along(given, weight), self._along(down, weight)
        yields = tables.materials()[self.post.material].yields
        bends = held if yields else self._along(self._brittle(lines, cases), weight)
        across_moment = across * across_height
        bent = [bending.both_ways(self.post, across_moment, bends.bent, expected.bent if yields else None)]
        gripped = [self._gripped("end-soil-grip", held, expected, across, across_moment, cases, "soil_gust")]
        still = [(line.height, line.lasting(self.give(line.height))) for line in lines]
        if any(np.any(pull > 0) for _, pull in still):
            lasts = self._along(still, np.zeros((1, 1, 1)))
            bent.append(bending.lasting(self.post, lasts.bent))
            none = np.zeros((1, 1, 1))
            gripped.append(
                self._gripped("end-soil-lasting", lasts, lasts, none, none, cases, "soil_sustained")
            )
        if self.kind in ("guy", "lean"):
            bent.append(
                bending.pushed(self.post, held.pushed, self.hold / math.sin(self.lean), across_moment)
            )
            gripped.append(
                embedment.bearing(self.post, self.ground, self.depth, held.pushed, cases, self.pad)
            )
        carries = np.hypot(across, sum((pull for _, pull in given), np.zeros((1, 1, 1))))
        below = ("end-soil",) if self.in_soil else ()
        links = [
            Link(
                "end-post",
                self.posts,
                ("posts", self.post.key),
                (*below, *self._prop_keys()),
                self.levers["post"],
                carries,
                tuple(bent),
                (Arrow(self.top_of(0.0, -1.0), (1.0, 0.0, 0.0)),),
            )
        ]
        if self.in_soil:
            foot = np.hypot(across, held.foot)
            links.append(
                Link(
                    "end-soil",
                    self.grips,
                    None,
                    (),
                    self.levers["soil"],
                    foot,
                    tuple(gripped),
                    (Arrow((0.0, 0.0, 0.0), (1.0, 0.0, 0.0)),),
                )
            )
        if self.kind in ("guy", "lean"):
            links += self._guy_links(held, expected, cases)
        elif self.kind in ("strut", "brace"):
            links += self._strut_links(held, expected, cases)
        return tuple(links)

    def _gripped(
        self,
        key: str,
        held: _Held,
        expected: _Held,
        across: Array,
        across_moment: Array,
        cases: Cases,
        factor: str,
    ) -> Check:
        """Return the check of the foot in its soil, pushed across the row and along it at once."""
        foot, usual = np.hypot(across, held.foot), np.hypot(across, expected.foot)
        height, at = (
            np.hypot(across_moment, 0.0 if self.propped else each.bent) / np.maximum(force, 1e-9)
            for each, force in ((held, foot), (expected, usual))
        )
        check = embedment.grip(key, self.ground, self.post, self.depth, foot, height, cases, factor)
        median = embedment.strength(self.ground, self.post, self.depth, at, cases, factor).median
        return replace(check, median=median, expected=usual)

    def _prop_keys(self) -> tuple[str, ...]:
        return {"guy": ("guy",), "lean": ("guy",), "strut": ("strut",), "brace": ("strut",)}.get(
            self.kind, ()
        )

    def _guy_links(self, held: _Held, expected: _Held, cases: Cases) -> list[Link]:
        top, slope = self.top_of(0.0, -1.0), (-math.cos(self.guy_angle), 0.0, -math.sin(self.guy_angle))
        foot = (-self.reach(), 0.0, 0.0)
        return [
            Link(
                "guy",
                ("guy-first", "guy-last"),
                ("wires", self.guy_wire.key),
                ("anchor",),
                self.levers["guy"],
                held.tight,
                (tension.guy(self.guy_wire, held.tight, self.guy_angle),),
                (Arrow(top, slope),),
            ),
            Link(
                "anchor",
                ("anchor-first", "anchor-last"),
                ("anchors", self.anchor.key),
                (),
                self.levers["prop"],
                held.tight,
                tension.anchor(
                    self.anchor, self.ground.native, held.tight, self.guy_angle, cases, expected.tight
                ),
                (Arrow(foot, (-slope[0], 0.0, -slope[2])),),
            ),
        ]

    def _strut_links(self, held: _Held, expected: _Held, cases: Cases) -> list[Link]:
        wet, top = cases.soil_strength(self.ground.native), (0.0, 0.0, self.hold)
        checks: tuple[Check, ...]
        members: tuple[str, ...]
        if self.kind == "brace":
            checks = (
                tension.buckling("strut", self.strut, held.held, self.run),
                tension.brace_wire(self.guy_wire, held.tight, held.held),
            )
            members = ("strut-first", "strut-last", "guy-first", "guy-last")
            carried, arrow = held.held, Arrow(top, (1.0, 0.0, 0.0))
        else:
            reach = tables.constant("strut_run") * self.hold
            checks = (tension.buckling("strut", self.strut, held.tight, math.hypot(reach, self.hold)),)
            members, carried, arrow = (
                ("strut-first", "strut-last"),
                held.tight,
                Arrow(top, (reach, 0.0, -self.hold)),
            )
        lifts = replace(
            tension.uplift(self.post, self.ground, self.depth, held.lifted, wet), expected=expected.lifted
        )
        return [
            Link(
                "strut",
                members,
                ("posts", self.strut.key),
                ("strut-foot",),
                self.levers["strut"],
                carried,
                checks,
                (arrow,),
            ),
            Link(
                "strut-foot",
                self.grips,
                None,
                (),
                self.levers["lift"],
                held.lifted,
                (lifts,),
                (Arrow((0.0, 0.0, 0.0), (0.0, 0.0, 1.0)),),
            ),
        ]
