"""Bed frame: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending, boards, embedment, tension
from ...checks import mesh as mesh_checks
from ...loads import face
from ...mechanics import Array, beam, relaxation, wind
from ...path.geometry import keys
from ...path.loadpath import Arrow, Check, Link, Service, Strength
from ...patterns import strings as hung
from ...patterns.stand import PostRow
from ...shapes import earth
from .geometry import BACKING_DEPTH, RIM, board_of, edge_of
from .options import BedFrameOptions

_BESIDE = 0.10  # of a plant's weight from its upright [m]


class Framed(PostRow[BedFrameOptions]):
    """Everything the checks of a bed frame need, worked out once for its cases."""

    @cached_property
    def board(self) -> tuple[float, float]:
        """Return thickness and height of the boards. [m]"""
        return board_of(self.options, self.site.bed)

    @cached_property
    def joined(self) -> bool:
        """Return whether two uprights stand together over the bed."""
        return self.options.sides == "both" and self.options.crossbar != "none"

    @cached_property
    def wind(self) -> face.FaceWind:
        solid = 0.0
        if self.options.infill == "mesh":
            mesh = tables.meshes()[self.options.mesh]
            solid = float(wind.mesh_solidity(mesh.wire, mesh.along, mesh.up))
        return face.wind_on_face(self.growths, solid, 0.0, self.options.height, self.cases)

    @cached_property
    def broad(self) -> float:
        """Return the width of leaf that an upright answers for: a whole bay where something fills it, else
        its own plant. [m]
        """
        if self.options.infill != "none":
            return self.bay
        return min(
            self.bay,
            max(s.crop.depth_m for s in self.growths)
            * max(1.0, self.bay / max(s.planting.spacing for s in self.growths)),
        )

    @cached_property
    def onto(self) -> Array:
        """Return the wind on one upright: the one behind shares with it where a bar joins them over the bed.
        [N]
        """
        shared = (1.0 + tables.constant("follower")) / 2 if self.joined else 1.0
        return np.asarray(self.wind.force * self.broad * shared)

    @cached_property
    def weight(self) -> Array:
        """Return what hangs on one upright: a good plant. [N]"""
        return self.crop_weight(self.xs, self.bay / 2, self.bay)

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind that bends one upright over its board and where it acts, [N] and [m]: a bar over
        the bed halves it.
        """
        return np.asarray(self.onto * (0.5 if self.joined else 1.0)), np.asarray(
            np.maximum(self.wind.height - RIM, 0.05)
        )

    @cached_property
    def moment(self) -> Array:
        """Return the moment of an upright at its board: wind, and a plant that hangs beside it. [N·m]"""
        force, lever = self.blown
        return np.asarray(force * lever * self.amplified + self.beside)

    @cached_property
    def amplified(self) -> Array:
        return self.amplified_by(self.weight, self.options.height)

    @cached_property
    def beside(self) -> Array:
        """Return the moment of a plant that hangs beside its upright. [N·m]"""
        return np.asarray(self.weight * _BESIDE)

    @cached_property
    def on_board(self) -> Array:
        """Return the moment of all uprights on one board about its foot. [N·m]"""
        return np.asarray((self.moment + self.onto * self.board[1] / 2) * len(self.xs))

    @cached_property
    def backed(self) -> Strength:
        """Return the moment that stakes or ties behind a board hold. [N·m]"""
        count = max(math.floor(self.options.length / self.options.backing_step + 1e-6), 1)
        high = self.board[1]
        if self.options.backing == "ties":
            screws = tables.fittings()["screws_76_pair"]
            working = np.full((1, 1, 1), count * screws.working_N * high)
            return Strength(working, working * screws.median)
        if self.options.backing == "stakes":
            stake, at = tables.posts()[self.options.stake], np.full((1, 1, 1), 0.8 * high)
            held, bears = (
                embedment.strength(earth.beside(self.ground), stake, BACKING_DEPTH, at, self.cases),
                bending.moments(stake),
            )
            return Strength(
                np.asarray((count + 1) * np.minimum(held.allowable * at, bears.allowable)),
                np.asarray((count + 1) * np.minimum(held.median * at, bears.median)),
            )
        return Strength(self.nothing, self.nothing)

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        side = (
            Arrow(
                (float(self.xs[0]), edge_of(self.options, self.site.bed), min(self.options.height, 1.0)),
                (0.0, 1.0, 0.0),
            ),
        )
        high = self.board[1]
        free = (
            self.options.length
            if self.options.backing == "none"
            else min(self.options.backing_step, self.options.length)
        )
        gap = self.options.screw_gap * (self.options.screw_rows - 1)
        screw = tables.fittings()[self.options.screw]
        bent: list[Check] = [
            bending.post_across(self.post, *self.blown, self.amplified),
            bending.lasting(self.post, self.beside),
        ]
        braced = self.options.brace == "diagonal"
        if not braced:
            bent.append(
                bending.racking(self.post, self._along, self.options.height, self._count, self.weight)
            )
        turned = [boards.pushed(self.board[0], high, self.onto / self.bay, free)]
        turned.append(boards.turned(tables.fittings()["screw_76"], self.on_board, high, self.backed))
        links = [
            Link(
                "upright",
                keys(self.geometry.by_role("post")),
                ("posts", self.post.key),
                ("screws", *(("brace",) if braced else ())),
                ("post", "crossbar", "post_spacing", "brace"),
                self.onto,
                tuple(bent),
                side,
            ),
            Link.of(
                "screws",
                keys(self.geometry.by_role("fitting")),
                screw,
                ("board",),
                ("screw_gap", "screw_rows", "screw", "crossbar", "post_spacing"),
                self.moment / gap,
                lambda item: (bending.screwed(item, self.moment, gap),),
            ),
            Link(
                "board",
                keys(self.geometry.by_role("grip")),
                None,
                ("bed",) if self.options.boards == "bed" else (),
                ("backing", "backing_step", "crossbar", "post_spacing"),
                self.onto,
                tuple(turned),
            ),
        ]
        return (*self._vines(), *links, *self._bed(), *(self._brace() if braced else ()))

    @cached_property
    def _count(self) -> int:
        return len(self.xs) * (2 if self.options.sides == "both" else 1)

    @cached_property
    def _along(self) -> Array:
        """Return the wind along the bed. [N]"""
        return np.asarray(
            (self.wind.end + self.wind.skin * self.options.length)
            / 2
            * (2 if self.options.sides == "both" else 1)
        )

    def _vines(self) -> list[Link]:
        """Return the links above the uprights: stem ties, strings with their rail, or mesh."""
        if self.options.infill == "strings":
            twine, rail = tables.twines()[self.options.string], tables.posts()[self.options.rail]
            strung = hung.string_links(
                self,
                self.wind.pressure,
                self.wind.leaf_height,
                twine,
                tables.ties()[self.options.stem_tie],
                None,
                None,
                "top-line",
            )
            down, across = self.weight / self.bay, tables.constant("string_share") * self.wind.force
            return [
                *strung,
                Link(
                    "top-line",
                    keys(self.geometry.by_role("rail")),
                    ("posts", rail.key),
                    ("upright",),
                    ("rail", "post_spacing"),
                    np.hypot(down, across) * self.bay,
                    (bending.rail(rail, down, across, self.bay),),
                ),
            ]
        if self.options.infill == "mesh":
            mesh = tables.meshes()[self.options.mesh]
            stiff = np.full((1, 1, 1), 3 * bending.stiffness(self.post) / (self.options.height / 2) ** 3)
            state = mesh_checks.in_wind(
                mesh,
                self.wind.pressure,
                self.bay,
                self.options.height,
                stiff,
                relaxation.tied_bays(max(len(self.xs) - 1, 1)),
            )
            checks: list[Check] = [mesh_checks.wire_tension(mesh, state, self.nothing, self.bay)]
            stems = self.stem_ties(self.options.stem_tie, self.wind.pressure, self.wind.leaf_height, "mesh")
            return [
                *stems,
                Link(
                    "mesh",
                    keys(self.geometry.by_role("mesh")),
                    ("meshes", mesh.key),
                    ("upright",),
                    ("mesh", "post_spacing"),
                    self.wind.force * self.bay,
                    tuple(checks),
                ),
            ]
        return self.stem_ties(
            self.options.stem_tie,
            self.wind.pressure,
            self.wind.leaf_height,
            "upright",
            ("TIE", "STAKE", "STALK", "WEAVE"),
        )

    def _bed(self) -> list[Link]:
        """Return the bed that the frame stands on by its weight."""
        if self.options.boards == "own":
            return []
        bed = self.site.bed
        fill = tables.soils()[bed.fill].gamma * bed.length * bed.width * max(bed.raised_by, 0.02)
        boards_ = 2 if self.options.sides == "both" else 1
        return [
            Link(
                "bed",
                (),
                None,
                (),
                ("post_spacing", "height"),
                self.onto * self._count,
                (boards.bed_tips(self.on_board * boards_, fill, bed.width),),
            )
        ]

    def _brace(self) -> list[Link]:
        wire, run = tables.wires()[self.options.brace_wire], max(min(self.bay * 2, self.options.length), 0.3)
        each = self._along / (2 if self.options.sides == "both" else 1)
        tight = each * math.hypot(run, self.options.height) / run
        return [
            Link(
                "brace",
                keys(self.geometry.by_role("guy")),
                ("wires", wire.key),
                ("board",),
                ("brace_wire",),
                tight,
                (
                    tension.brace_wire(wire, tight, each),
                    bending.pushed(
                        self.post,
                        each * self.options.height / run + self.weight,
                        self.options.height,
                        self.moment,
                    ),
                ),
            )
        ]

    def service(self) -> tuple[Service, ...]:
        """Return the lean of an upright's top: it bends over its board, and less where a bar joins two."""
        top = self.options.height
        height = np.maximum(self.wind.height, 0.1)
        bent = self.onto * beam.cantilever_tip(
            1.0, np.zeros((1, 1, 1)), np.minimum(2 * height, top), top, bending.stiffness(self.post)
        )
        play = self.moment / tables.constant("board_turn")
        return (self.lean_of(bent * (0.5 if self.joined else 1.0) + play * top, top),)

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across the uprights of both sides, and what their screws take of it. [N]"""
        several = 1.0 if self.options.sides == "one" else 1.0 + tables.constant("follower")
        put_on = (
            self.wind.force
            * self.broad
            * len(self.xs)
            * (several if self.joined else 1.0 if self.options.sides == "one" else 2.0)
        )
        return put_on, self.onto * self._count
