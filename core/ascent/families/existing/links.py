"""Existing: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

from functools import cached_property

import numpy as np

from ... import tables
from ...checks import embedment, existing, tension
from ...loads import face
from ...mechanics import Array
from ...path.geometry import keys
from ...path.loadpath import Arrow, Link, Service
from ...patterns import posts
from ...patterns import strings as hung
from ...patterns.stand import Bays
from .geometry import GUY_ANGLE, GUYED_AT, PEGS
from .options import ExistingOptions

_UNEVEN = 1.5  # of a crop among several wires


_COLUMN = 0.50  # width of what climbs a pole [m], structures handbook 14.18


class Host(Bays[ExistingOptions]):
    """Everything the checks of something existing need, worked out once for its cases."""

    spaced_by = "fix_spacing"

    @cached_property
    def share(self) -> float:
        """Return the share of its strength that is left of what stands already."""
        return tables.constant(f"state_{self.options.state}")

    @cached_property
    def solid(self) -> float:
        return tables.constant(f"fence_{self.options.boards}") if self.options.fixed_to == "fence" else 0.0

    @cached_property
    def wind(self) -> face.FaceWind:
        top = {
            "wall": self.options.height,
            "fence": self.options.fence_height,
            "pole": self.options.pole_top,
        }[self.options.fixed_to]
        return face.wind_on_face(self.growths, self.solid, 0.0, top, self.cases)

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
        if self.options.fixed_to == "pole":
            return self._pole()
        first = self.stem_ties(self.options.stem_tie, self.leaves.pressure, self.leaves.leaf_height, "wire")
        if self.options.infill == "strings":
            twine, peg = tables.twines()[self.options.string], tables.fittings()[self.options.base]
            stem = tables.ties()[self.options.stem_tie]
            first = hung.string_links(
                self, self.leaves.pressure, self.leaves.leaf_height, twine, stem, None, peg, "wire"
            )
        return (*first, *self._wired(), *(self._fence() if self.options.fixed_to == "fence" else ()))

    def _wired(self) -> list[Link]:
        wire, row = tables.wires()[self.options.wire], tables.fittings()[self.options.eye]
        down, side = self.on_wire
        pull = self._pull(np.hypot(down, side))
        to = ("fence-post",) if self.options.fixed_to == "fence" else ()
        inner = np.hypot(down, side) * self.bay
        check = existing.weakened(
            existing.eye(row, np.maximum(pull, inner), 0.5 * down * self.bay, self.options.offset), self.share
        )
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
            Link(
                "eye",
                eyes,
                ("fittings", row.key),
                to,
                ("eye", "fix_spacing", "wires"),
                np.maximum(pull, inner),
                (check,),
            ),
        ]

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
        ground = embedment.beside(self.ground)
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

    @cached_property
    def column(self) -> tuple[Array, Array]:
        """Return the wind on what climbs a pole and where it acts, [N] and [m]."""
        wide = max(_COLUMN, *(s.crop.depth_m for s in self.growths))
        return np.asarray(self.wind.pressure * self.wind.leaf_height * wide), np.asarray(
            min(s.bottom for s in self.growths) + self.wind.leaf_height / 2
        )

    def _pole(self) -> tuple[Link, ...]:
        """Return strings, pole, its guys and its concrete."""
        post, (force, height) = tables.posts()[self.options.pole], self.column
        twine, peg = tables.twines()[self.options.string], tables.fittings()[self.options.base]
        plants_ = max(sum(p.count for p in self.structure.plantings), 1)
        per_string = np.asarray(
            force
            / plants_
            / np.maximum(self.wind.leaf_height * max(s.planting.spacing for s in self.growths), 1e-9)
        )
        strung = hung.string_links(
            self,
            per_string,
            self.wind.leaf_height,
            twine,
            tables.ties()[self.options.stem_tie],
            None,
            peg,
            "pole",
        )
        guyed = GUYED_AT * self.options.pole_top if self.options.guyed else 0.0
        ground = embedment.ground_of(self.site.bed, "concrete")
        low = np.asarray(np.where(guyed > 0, 0.05, height))
        onto = np.asarray(force * np.maximum(1.0 - height / guyed, 0.25)) if guyed else force
        grip = embedment.grip("soil-grip", ground, post, self.options.pole_depth, onto, low, self.cases)
        side = (Arrow((PEGS, 0.0, self.options.pole_top / 2), (0.0, 1.0, 0.0)),)
        to = ("pole-soil", "guy") if guyed else ("pole-soil",)
        links = [
            Link(
                "pole",
                keys(self.geometry.by_role("post")),
                ("posts", post.key),
                to,
                ("pole", "guyed", "pole_top"),
                force,
                (existing.pole(post, force, height, guyed),),
                side,
            ),
            Link(
                "pole-soil",
                keys(self.geometry.by_role("grip")),
                None,
                (),
                ("pole_depth", "guyed", "pole_top"),
                onto,
                (grip,),
            ),
        ]
        if guyed:
            wire, anchor = tables.wires()[self.options.guy_wire], tables.anchors()[self.options.anchor]
            tight = existing.guy_pull(force, height, guyed, GUY_ANGLE)
            held = tension.anchor(anchor, self.ground.native, tight, GUY_ANGLE, self.cases)
            links += [
                Link(
                    "guy",
                    keys(self.geometry.by_role("guy")),
                    ("wires", wire.key),
                    ("anchor",),
                    ("guy_wire",),
                    tight,
                    (tension.guy(wire, tight, GUY_ANGLE),),
                ),
                Link(
                    "anchor",
                    keys(self.geometry.by_role("anchor")),
                    ("anchors", anchor.key),
                    (),
                    ("anchor", "pole_top"),
                    tight,
                    held,
                ),
            ]
        return (*strung, *links)

    def service(self) -> tuple[Service, ...]:
        """Return how far a pole or a fence leans, and how far the wires sag."""
        top = self.geometry.top
        if self.options.fixed_to == "pole":
            post, (force, height) = tables.posts()[self.options.pole], self.column
            moved = force * posts.lean_per_force(
                post, embedment.beside(self.ground), self.options.pole_depth, height, height, top, self.cases
            )
            return (
                Service(
                    "lean",
                    np.minimum(moved * (0.1 if self.options.guyed else 1.0), top),
                    top / 10,
                    "handbook-4.2",
                    ("pole", "guyed"),
                ),
            )
        down, side = self.on_wire
        sag = tension.wire_sag(self._pull(np.hypot(down, side)), down, self.bay)
        sagging = Service(
            "sag",
            np.asarray(sag),
            self.bay / tables.constant("belly_limit"),
            "handbook-6.4",
            ("wire", "fix_spacing", "wires"),
        )
        if self.options.fixed_to == "wall":
            return (
                Service("host-still", 0.0 * side, top / tables.constant("sway_limit"), "handbook-4.2", ()),
                sagging,
            )
        post = tables.posts()[self.options.fence_post]
        moved = (
            self.wind.force
            * self.options.fence_spacing
            * posts.lean_per_force(
                post,
                embedment.beside(self.ground),
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
            sagging,
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind on what grows there, and what wires or pole take of it. [N]"""
        if self.options.fixed_to == "pole":
            force, _ = self.column
            return force, force
        uneven = 1.0 if self.options.wires == 1 else _UNEVEN
        return self.leaves.force * self.options.length, self.on_wire[1] / uneven * self.options.wires * float(
            self.xs[-1]
        )
