"""The end post of a row that pulls along itself: plain, guyed, strutted, or held by a top rail."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from .. import rows, tables
from ..checks import bending, embedment, tension
from ..checks.embedment import Ground
from ..geometry import Member
from ..loadpath import Check, Link
from ..loads.cases import Cases
from ..mechanics import Array, beam, ends
from .posts import give_along

GUY_ANGLE = math.radians(45.0)
STRUT_RUN = 1.5  # foot's distance over the height: a flat strut lifts its post less
_RAIL_STIFFNESS = 100e3  # a top brace from post to post [N/m], structures handbook 6.5
_STRUT_STIFFNESS = 50e3  # a strut's foot on a board in garden soil [N/m], judgement


@dataclass(frozen=True)
class EndAssembly:
    """What holds the end posts against the row's own pull."""

    posts: tuple[str, str]
    grips: tuple[str, str]
    kind: str
    post: rows.Post
    ground: Ground
    depth: float
    top: float
    railed: bool
    guy_wire: rows.Wire
    anchor: rows.Anchor
    strut: rows.Post

    @property
    def hold_height(self) -> float:
        """Return where guy, strut or rail meets the post. [m]"""
        return self.top if self.railed else tables.constant("brace_height") * self.top

    @property
    def propped(self) -> bool:
        """Return whether the post is held above the ground."""
        return self.railed or self.kind != "plain"

    def stiffness(self, height: float, cases: Cases) -> Array:
        """Return how stiffly the end stands against a pull at a height, (S, 1, 1). [N/m]

        A propped post is a beam from its foot in the soil to the prop; foot, prop and post each give.

        Source: handbook-6.5
        """
        if not self.propped:
            return np.asarray(1.0 / give_along(self.post, self.ground, self.depth, height, cases))
        share = height / self.hold_height
        foot, _ = embedment.movement(self.ground, self.depth, 0.0, cases)
        bent = beam.propped_give(height, self.hold_height, bending.stiffness(self.post, other_way=True))
        return np.asarray(1.0 / (foot * (1.0 - share) ** 2 + share**2 / self._prop_stiffness() + bent))

    def _prop_stiffness(self) -> float:
        prop = 0.0
        if self.kind == "guy":
            run = self.hold_height / math.sin(GUY_ANGLE)
            wire = self.guy_wire.E * tension.wire_area(self.guy_wire) * math.cos(GUY_ANGLE) ** 2 / run
            soil = tension.anchor_working(self.anchor, self.ground.native) / tables.constant("anchor_give")
            prop += 1.0 / (1.0 / wire + 1.0 / soil)
        elif self.kind == "strut":
            prop += _STRUT_STIFFNESS
        if self.railed:
            prop += _RAIL_STIFFNESS
        return prop

    def members(self, length: float) -> list[Member]:
        """Return guys with anchors, or struts, at both ends."""
        found = []
        reach, hold = self.hold_height / math.tan(GUY_ANGLE), self.hold_height
        for name, x, outward in (("first", 0.0, -1.0), ("last", length, 1.0)):
            if self.kind == "guy":
                foot = (x + outward * reach, 0.0, 0.0)
                run = math.hypot(reach, hold) + 1.1
                found.append(Member(f"guy-{name}", "guy", "wires", self.guy_wire.key, ((x, 0.0, hold), foot), run, self.guy_wire.d))
                found.append(Member(f"anchor-{name}", "anchor", "anchors", self.anchor.key, (foot,), shape="point"))
            elif self.kind == "strut":
                foot = (x - outward * STRUT_RUN * hold, 0.0, 0.0)
                run = math.hypot(STRUT_RUN * hold, hold)
                found.append(Member(f"strut-{name}", "strut", "posts", self.strut.key, ((x, 0.0, hold), foot), run, self.strut.soil_width))
        return found

    def _along(self, pull: Array, height: Array) -> tuple[Array, Array]:
        """Return how a pull along the row bends the post, and what of it is left at its foot."""
        if not self.propped:
            return np.asarray(pull * height), pull
        hold = self.hold_height
        bent = pull * height * np.maximum(hold - height, 0.0) / hold
        return np.asarray(bent), np.asarray(pull * np.maximum(1.0 - height / hold, 0.0))

    def links(
        self, pull: Array, pull_height: Array, across: Array, across_height: Array, lasting: Array, lasting_height: float, cases: Cases
    ) -> tuple[Link, ...]:
        """Return the links from an end post to the ground.

        Args:
            pull: Pull of the row along itself. [N]
            pull_height: Height of that pull. [m]
            across: Wind across the row on the end post. [N]
            across_height: Height of that wind. [m]
            lasting: Pull along the row that stays all season, in still air. [N]
            lasting_height: Height of the lasting pull. [m]
            cases: The cases.

        Returns:
            The end post, its grip, and guy and anchor or strut where there are any.

        Source: handbook-7.1
        """
        bent_along, foot_along = self._along(pull, pull_height)
        across_moment = across * across_height
        foot = np.hypot(across, foot_along)
        foot_moment = np.hypot(across_moment, 0.0 if self.propped else bent_along)
        foot_height = foot_moment / np.maximum(foot, 1e-9)
        posts = self.posts
        bent = [bending.both_ways(self.post, across_moment, bent_along)]
        held = [self._grip("end-soil-grip", foot, foot_height, cases, "soil_gust")]
        if np.any(lasting > 0):
            lasting_bent, lasting_foot = self._along(lasting, np.full((1, 1, 1), lasting_height))
            bent.append(bending.lasting(self.post, lasting_bent))
            height = 0.0 if self.propped else lasting_height
            held.append(self._grip("end-soil-lasting", lasting_foot, np.full((1, 1, 1), height), cases, "soil_sustained"))
        found = [
            Link("end-post", posts, ("posts", self.post.key), ("end-soil", *self._prop_keys()),
                 ("ends", "top", "post_spacing", "post", "mesh", "mesh_height"), np.hypot(across, pull),
                 tuple(bent)),
            Link("end-soil", self.grips, None, (), ("ends", "depth", "top", "post_spacing", "mesh", "mesh_height"), foot,
                 tuple(held)),
        ]  # fmt: skip
        if self.kind == "guy":
            found += self._guy_links(pull, pull_height, cases)
        elif self.kind == "strut":
            found += self._strut_links(pull, pull_height, cases)
        return tuple(found)

    def _grip(self, key: str, force: Array, height: Array, cases: Cases, factor: str) -> Check:
        return embedment.grip(key, self.ground, self.post, self.depth, force, height, cases, tables.constant(factor))

    def _prop_keys(self) -> tuple[str, ...]:
        return {"guy": ("guy",), "strut": ("strut",)}.get(self.kind, ())

    def _guy_links(self, pull: Array, pull_height: Array, cases: Cases) -> list[Link]:
        held = pull * pull_height / self.hold_height
        pulled, _, _ = ends.guy_forces(held, self.hold_height, self.hold_height, GUY_ANGLE)
        tight = np.asarray(pulled)
        strength = cases.soil_strength(self.ground.native)
        return [
            Link("guy", ("guy-first", "guy-last"), ("wires", self.guy_wire.key), ("anchor",), ("guy_wire", "ends"), tight,
                 (tension.guy(self.guy_wire, tight, held, GUY_ANGLE),)),
            Link("anchor", ("anchor-first", "anchor-last"), ("anchors", self.anchor.key), (), ("anchor", "ends", "post_spacing"), tight,
                 (tension.anchor(self.anchor, self.ground.native, tight, strength),)),
        ]  # fmt: skip

    def _strut_links(self, pull: Array, pull_height: Array, cases: Cases) -> list[Link]:
        reach = STRUT_RUN * self.hold_height
        held = pull * pull_height / self.hold_height
        compression, lift, _ = ends.strut_forces(held, self.hold_height, self.hold_height, reach)
        pushed, lifted = np.asarray(compression), np.asarray(lift)
        strength = cases.soil_strength(self.ground.native)
        return [
            Link("strut", ("strut-first", "strut-last"), ("posts", self.strut.key), ("strut-foot",), ("strut", "ends"), pushed,
                 (tension.strut(self.strut, pushed, math.hypot(reach, self.hold_height)),)),
            Link("strut-foot", self.grips, None, (), ("depth", "ends", "post_spacing"), lifted,
                 (tension.uplift(self.post, self.ground, self.depth, lifted, strength),)),
        ]  # fmt: skip
