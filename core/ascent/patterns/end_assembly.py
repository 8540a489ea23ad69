"""The end post of a row that pulls along itself: plain, guyed, leaning, strutted, braced, in concrete, or railed."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal, NamedTuple

import numpy as np

from .. import rows, tables
from ..checks import bending, embedment, tension
from ..checks.embedment import Ground
from ..geometry import Member, Point
from ..loadpath import Arrow, Check, Link
from ..loads.cases import Cases
from ..mechanics import Array, beam, ends
from .posts import give_along

Kind = Literal["plain", "guy", "lean", "strut", "brace", "concrete"]
GUY_ANGLE = math.radians(45.0)
UPRIGHT = math.pi / 2
COLLAR = 0.28  # diameter of a concrete collar [m], parts handbook 2.8
_LAP = 1.1  # of guy wire for both its ends [m]


class _Held(NamedTuple):
    """What a pull along the row becomes: bending and push of the post, push and lift at its foot, pull of guy or brace."""

    bent: Array
    pushed: Array
    foot: Array
    lifted: Array
    tight: Array


@dataclass(frozen=True)
class EndAssembly:
    """What holds the end posts against the row's own pull.

    posts, grips: keys of the two end posts and of the soil that holds them.
    hold: where guy, strut, rail or brace meets the post. [m]
    lean: of the post from the ground, its top away from the row; guy_angle of the guy from the ground. [rad]
    run: distance of a brace post from the end post. [m]
    pad: area of a stone under the foot. [m²]
    levers: options that strengthen post, soil, guy, strut, prop (the anchor) and lift (a strut's foot).
    """

    posts: tuple[str, str]
    grips: tuple[str, str]
    kind: Kind
    post: rows.Post
    ground: Ground
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

    @property
    def propped(self) -> bool:
        """Return whether the post is held above the ground."""
        return self.railed or self.kind not in ("plain", "concrete")

    @cached_property
    def footing(self) -> tuple[rows.Post, Ground]:
        """Return what stands in the soil, and the soil: a collar of concrete is wide and grips from the top."""
        if self.kind == "concrete":
            return replace(self.post, soil_width=COLLAR, plate_m2=0.0), replace(self.ground, ignored=0.0)
        return self.post, self.ground

    def stiffness(self, height: float, cases: Cases) -> Array:
        """Return how stiffly the end stands against a pull at a height, (S, 1, 1). [N/m]

        A propped post is a beam from its foot in the soil to the prop; foot, prop and post each give.

        Source: handbook-6.5
        """
        post, ground = self.footing
        if not self.propped:
            return np.asarray(1.0 / give_along(post, ground, self.depth, height, cases))
        share = height / self.hold
        foot, _ = embedment.movement(ground, self.depth, 0.0, cases)
        bent = beam.propped_give(height, self.hold, bending.stiffness(self.post, other_way=True))
        at_foot = 1.0 if self.kind == "brace" else (1.0 - share) ** 2
        return np.asarray(1.0 / (foot * at_foot + share**2 / (self._prop_stiffness() * cases.stiffness) + bent))

    def _prop_stiffness(self) -> float:
        prop = tables.constant("top_brace") if self.railed or self.kind == "brace" else 0.0
        if self.kind in ("guy", "lean"):
            slope = math.sin(self.guy_angle)
            wire = self.guy_wire.E * tension.wire_area(self.guy_wire) / (self.hold / slope)
            soil = tension.anchor_working(self.anchor, self.ground.native, self.guy_angle) / tables.constant("anchor_give")
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
        found = []
        for name, x, outward in (("first", 0.0, -1.0), ("last", length, 1.0)):
            top = self.top_of(x, outward)
            if self.kind in ("guy", "lean"):
                foot = (x + outward * self.reach(), 0.0, 0.0)
                run = math.hypot(self.hold / math.tan(self.guy_angle), self.hold) + _LAP
                found.append(Member(f"guy-{name}", "guy", "wires", self.guy_wire.key, (top, foot), run, self.guy_wire.d))
                found.append(Member(f"anchor-{name}", "anchor", "anchors", self.anchor.key, (foot,), shape="point"))
            elif self.kind == "strut":
                reach = tables.constant("strut_run") * self.hold
                foot = (x - outward * reach, 0.0, 0.0)
                found.append(
                    Member(
                        f"strut-{name}", "strut", "posts", self.strut.key, (top, foot), math.hypot(reach, self.hold), self.strut.soil_width
                    )
                )
            elif self.kind == "brace":
                inner, own = (x - outward * self.run, 0.0, self.hold), (x, 0.0, self.hold)
                found.append(Member(f"strut-{name}", "strut", "posts", self.strut.key, (own, inner), self.run, self.strut.soil_width))
                wire, back = math.hypot(self.run, self.hold) + _LAP, (inner, (x, 0.0, 0.05))
                found.append(Member(f"guy-{name}", "guy", "wires", self.guy_wire.key, back, wire, self.guy_wire.d))
        return found

    def _along(self, pull: Array, height: Array, weight: Array) -> _Held:
        """Return what a pull along the row at a height becomes at the end."""
        none = np.zeros((1, 1, 1))
        if not self.propped:
            return _Held(pull * height, weight, pull, none, none)
        held = pull * height / self.hold
        bent = pull * height * np.maximum(self.hold - height, 0.0) / self.hold
        foot = pull * np.maximum(1.0 - height / self.hold, 0.0)
        match self.kind:
            case "guy":
                tight, pushed, _ = ends.guy_forces(held, self.hold, self.hold, self.guy_angle)
                return _Held(bent, np.asarray(pushed + weight), foot, none, np.asarray(tight))
            case "lean":
                tight, _, _ = ends.leaning_forces(held, 0.0, self.lean, self.guy_angle)
                pushed = (tight * math.sin(self.guy_angle) + weight) / math.sin(self.lean)
                return _Held(bent, pushed, foot + pushed * math.cos(self.lean), none, np.asarray(tight))
            case "strut":
                tight, lifted, _ = ends.strut_forces(held, self.hold, self.hold, tables.constant("strut_run") * self.hold)
                return _Held(bent, weight, foot, np.asarray(lifted), np.asarray(tight))
            case "brace":
                _, tight, lifted = ends.brace_forces(held, self.hold, self.hold, self.run)
                return _Held(bent, weight, pull, np.asarray(lifted), np.asarray(tight))
        return _Held(bent, weight, foot, none, none)

    def links(
        self, pull: Array, pull_height: Array, across: Array, across_height: Array, lasting: Array, lasting_height: float, cases: Cases,
        weight: Array | None = None,
    ) -> tuple[Link, ...]:  # fmt: skip
        """Return the links from an end post to the ground.

        Args:
            pull: Pull of the row along itself. [N]
            pull_height: Height of that pull. [m]
            across: Wind across the row on the end post. [N]
            across_height: Height of that wind. [m]
            lasting: Pull along the row that stays all season, in still air. [N]
            lasting_height: Height of the lasting pull. [m]
            cases: The cases.
            weight: Crop that hangs on the end post. [N]

        Returns:
            The end post, its grip, and guy and anchor, strut or brace where there are any.

        Source: handbook-7.1
        """
        weight = np.zeros((1, 1, 1)) if weight is None else weight
        held = self._along(pull, pull_height, weight)
        across_moment = across * across_height
        foot = np.hypot(across, held.foot)
        foot_moment = np.hypot(across_moment, 0.0 if self.propped else held.bent)
        bent = [bending.both_ways(self.post, across_moment, held.bent)]
        gripped = [self._grip("end-soil-grip", foot, foot_moment / np.maximum(foot, 1e-9), cases, "soil_gust")]
        if np.any(lasting > 0):
            still = self._along(lasting, np.full((1, 1, 1), lasting_height), np.zeros((1, 1, 1)))
            bent.append(bending.lasting(self.post, still.bent))
            height = np.full((1, 1, 1), 0.0 if self.propped else lasting_height)
            gripped.append(self._grip("end-soil-lasting", still.foot, height, cases, "soil_sustained"))
        if self.kind in ("guy", "lean"):
            bent.append(bending.pushed(self.post, held.pushed, self.hold / math.sin(self.lean), across_moment))
            gripped.append(embedment.bearing(*self.footing, self.depth, held.pushed, cases, self.pad))
        first = (0.0, 0.0, self.hold)
        found = [
            Link("end-post", self.posts, ("posts", self.post.key), ("end-soil", *self._prop_keys()), self.levers["post"],
                 np.hypot(across, pull), tuple(bent), (Arrow(self.top_of(0.0, -1.0), (1.0, 0.0, 0.0)),)),
            Link("end-soil", self.grips, None, (), self.levers["soil"], foot, tuple(gripped), (Arrow((0.0, 0.0, 0.0), (1.0, 0.0, 0.0)),)),
        ]  # fmt: skip
        if self.kind in ("guy", "lean"):
            found += self._guy_links(held, cases)
        elif self.kind in ("strut", "brace"):
            found += self._strut_links(held, pull * pull_height / self.hold, first, cases)
        return tuple(found)

    def _grip(self, key: str, force: Array, height: Array, cases: Cases, factor: str) -> Check:
        post, ground = self.footing
        return embedment.grip(key, ground, post, self.depth, force, height, cases, tables.constant(factor))

    def _prop_keys(self) -> tuple[str, ...]:
        return {"guy": ("guy",), "lean": ("guy",), "strut": ("strut",), "brace": ("strut",)}.get(self.kind, ())

    def _guy_links(self, held: _Held, cases: Cases) -> list[Link]:
        top, slope = self.top_of(0.0, -1.0), (-math.cos(self.guy_angle), 0.0, -math.sin(self.guy_angle))
        foot = (-self.reach(), 0.0, 0.0)
        return [
            Link("guy", ("guy-first", "guy-last"), ("wires", self.guy_wire.key), ("anchor",), self.levers["guy"], held.tight,
                 (tension.guy(self.guy_wire, held.tight, self.guy_angle),), (Arrow(top, slope),)),
            Link("anchor", ("anchor-first", "anchor-last"), ("anchors", self.anchor.key), (), self.levers["prop"], held.tight,
                 tension.anchor(self.anchor, self.ground.native, held.tight, self.guy_angle, cases), (Arrow(foot, (-slope[0], 0.0, -slope[2])),)),
        ]  # fmt: skip

    def _strut_links(self, held: _Held, pushed: Array, top: Point, cases: Cases) -> list[Link]:
        strength = cases.soil_strength(self.ground.native)
        checks: tuple[Check, ...]
        members: tuple[str, ...]
        if self.kind == "brace":
            checks = (tension.strut(self.strut, pushed, self.run), tension.brace_wire(self.guy_wire, held.tight, pushed))
            members = ("strut-first", "strut-last", "guy-first", "guy-last")
            arrow = Arrow(top, (1.0, 0.0, 0.0))
        else:
            reach = tables.constant("strut_run") * self.hold
            checks = (tension.strut(self.strut, held.tight, math.hypot(reach, self.hold)),)
            members, arrow = ("strut-first", "strut-last"), Arrow(top, (reach, 0.0, -self.hold))
        carried = pushed if self.kind == "brace" else held.tight
        return [
            Link("strut", members, ("posts", self.strut.key), ("strut-foot",), self.levers["strut"], carried, checks, (arrow,)),
            Link("strut-foot", self.grips, None, (), self.levers["lift"], held.lifted,
                 (tension.uplift(self.post, self.ground, self.depth, held.lifted, strength),), (Arrow((0.0, 0.0, 0.0), (0.0, 0.0, 1.0)),)),
        ]  # fmt: skip
