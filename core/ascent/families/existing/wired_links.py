"""Existing: how a wall or a fence carries wires."""

from __future__ import annotations

from functools import cached_property

import numpy as np

from ... import tables
from ...checks import embedment, existing, tension
from ...loads import face
from ...mechanics import Array
from ...path.geometry import keys
from ...path.loadpath import Arrow, Check, Link, Service
from ...patterns import posts
from ...patterns import strings as hung
from ...patterns.stand import Bays
from ...shapes import earth
from ...tables import rows
from .options import ExistingOptions

_UNEVEN = 1.5  # of a crop among several wires


class Wired(Bays[ExistingOptions]):
    """Wires along what stands already, under the loads of the cases."""

    spaced_by = "fix_spacing"

    @cached_property
    def share(self) -> float:
        """Return the share of its strength that is left of what stands already."""
        return tables.constant(f"state_{self.options.state}")

    @cached_property
    def leaves(self) -> face.FaceWind:
        """Return the wind on the leaves and what they hang on, without the fence behind them."""
        return face.wind_on_face(self.growths, 0.0, 0.0, self.geometry.climb, self.cases)

    @cached_property
    def hanging(self) -> Array:
        """Return the crop on the wires of a bay between eyes. [N]"""
        return self.crop_weight((self.xs[1:] + self.xs[:-1]) / 2, self.bay / 2, self.bay)

    @cached_property
    def on_wire(self) -> tuple[Array, Array]:
        """Return the crop and the wind on a metre of the most loaded wire. [N/m]"""
        uneven = 1.0 if self.options.wires == 1 else _UNEVEN
        return np.asarray(self.hanging / self.bay / self.options.wires * uneven), np.asarray(
            self.leaves.force / self.options.wires * uneven
        )

    def _pull(self, load: Array) -> Array:
        eyes = np.full((1, 1, 1), tables.constant("eye_stiffness"))
        return tension.wire_pull(
            tables.wires()[self.options.wire], load, self.bay, eyes, (len(self.xs) - 1) / 2
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to what stood there before."""
        first = self.stem_ties(self.options.stem_tie, self.leaves.pressure, self.leaves.leaf_height, "wire")
        if self.options.infill == "strings":
            twine, peg = tables.twines()[self.options.string], tables.fittings()[self.options.base]
            stem = tables.ties()[self.options.stem_tie]
            first = hung.string_links(
                self, self.leaves.pressure, self.leaves.leaf_height, twine, stem, None, peg, "wire"
            )
        return (*first, *self._wired())

    def _wired(self) -> list[Link]:
        wire, row = tables.wires()[self.options.wire], tables.fittings()[self.options.eye]
        down, side = self.on_wire
        pull = self._pull(np.hypot(down, side))

        inner = np.hypot(down, side) * self.bay

        def held(eye: rows.Fitting) -> tuple[Check, ...]:
            check = existing.eye(eye, np.maximum(pull, inner), 0.5 * down * self.bay, self.options.offset)
            return (existing.weakened(check, self.share),)

        middle = (Arrow((self.bay / 2, 0.0, self.options.height), (0.0, 0.0, -1.0)),)
        wires, eyes = (
            keys(self.geometry.by_role("wire")),
            tuple(m.key for m in self.geometry.members if m.key.startswith("eye")),
        )
        return [
            Link(
                "wire",
                wires,
                ("wires", wire.key),
                ("eye",),
                ("wire", "wires", "fix_spacing"),
                np.hypot(down, side) * self.bay,
                (tension.main_wire(wire, down, side, self.bay, pull),),
                middle,
            ),
            Link.of(
                "eye", eyes, row, self.holds, ("eye", "fix_spacing", "wires"), np.maximum(pull, inner), held
            ),
        ]

    @property
    def holds(self) -> tuple[str, ...]:
        """Return the links that the eyes hand their load to."""
        return ()

    @property
    def sagging(self) -> Service:
        """Return how far the wires sag."""
        down, side = self.on_wire
        sag = tension.wire_sag(self._pull(np.hypot(down, side)), down, self.bay)
        return Service(
            "sag",
            np.asarray(sag),
            self.bay / tables.constant("belly_limit"),
            "handbook-6.4",
            ("wire", "fix_spacing", "wires"),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind on what grows there, and what the wires take of it. [N]"""
        uneven = 1.0 if self.options.wires == 1 else _UNEVEN
        return self.leaves.force * self.options.length, self.on_wire[1] / uneven * self.options.wires * float(
            self.xs[-1]
        )


class Wall(Wired):
    """A wall: it stands still, and nothing of it is checked but the eyes."""

    @cached_property
    def wind(self) -> face.FaceWind:
        """Return the wind on it and what grows on it."""
        return face.wind_on_face(self.growths, 0.0, 0.0, self.options.height, self.cases)

    def service(self) -> tuple[Service, ...]:
        """Return that the wall stands still, and how far the wires sag."""
        top, (_, side) = self.geometry.top, self.on_wire
        return (
            Service("host-still", 0.0 * side, top / tables.constant("sway_limit"), "handbook-4.2", ()),
            self.sagging,
        )


class WiredFence(Wired):
    """A fence: its posts and their soil carry the leaves beside its own sail."""

    @property
    def solid(self) -> float:
        """Return how closed its boards are."""
        return tables.constant(f"fence_{self.options.boards}")

    @cached_property
    def wind(self) -> face.FaceWind:
        """Return the wind on it and what grows on it."""
        return face.wind_on_face(self.growths, self.solid, 0.0, self.options.fence_height, self.cases)

    @property
    def holds(self) -> tuple[str, ...]:
        """Return the links that the eyes hand their load to."""
        return ("fence-post",)

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to the fence's soil."""
        return (*super().path(), *self._fence())

    def _fence(self) -> list[Link]:
        """Return the fence's posts and their soil, with the leaves added to its own sail."""
        post, span = tables.posts()[self.options.fence_post], self.options.fence_spacing
        force, height = np.asarray(self.wind.force * span), np.asarray(self.wind.height)
        bare = (
            face.leafy_pressure(self.cases.gust, self.solid, np.zeros((1, 1, 1)))
            * self.options.fence_height**2
            / 2
            * span
        )
        sail = existing.weakened(existing.added_sail(post, force, height, bare), self.share)
        ground = earth.beside(self.ground)
        grip = existing.weakened(
            embedment.grip("soil-grip", ground, post, self.options.fence_depth, force, height, self.cases),
            self.share,
        )
        side = (Arrow((0.0, 0.0, min(self.options.fence_height, 1.0)), (0.0, 1.0, 0.0)),)
        standing = keys(self.geometry.by_role("post"))
        return [
            Link(
                "fence-post",
                standing,
                ("posts", post.key),
                ("fence-soil",),
                ("height", "fixed_to"),
                force,
                (sail,),
                side,
            ),
            Link(
                "fence-soil",
                keys(self.geometry.by_role("grip")),
                None,
                (),
                ("height", "fixed_to"),
                force,
                (grip,),
            ),
        ]

    def service(self) -> tuple[Service, ...]:
        """Return how far the fence leans, and how far the wires sag."""
        top = self.geometry.top
        post = tables.posts()[self.options.fence_post]
        moved = (
            self.wind.force
            * self.options.fence_spacing
            * posts.lean_per_force(
                post,
                earth.beside(self.ground),
                self.options.fence_depth,
                np.asarray(self.wind.height),
                np.asarray(self.wind.height),
                top,
                self.cases,
            )
            / self.share
        )
        return (
            Service(
                "lean",
                np.minimum(moved, top),
                top / tables.constant("sway_limit"),
                "handbook-4.2",
                ("height",),
            ),
            self.sagging,
        )
