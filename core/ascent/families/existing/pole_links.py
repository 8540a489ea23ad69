"""Existing: how a tall pole carries strings."""

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
from ...patterns.stand import Stand
from ...shapes import earth
from .options import ExistingOptions
from .pole_geometry import GUY_ANGLE, GUYED_AT, PEGS

_COLUMN = 0.50  # width of what climbs a pole [m], structures handbook 14.18


class Pole(Stand[ExistingOptions]):
    """A tall pole with a ring of strings, under the loads of the cases."""

    @cached_property
    def wind(self) -> face.FaceWind:
        """Return the wind on it and what grows on it."""
        return face.wind_on_face(self.growths, 0.0, 0.0, self.options.pole_top, self.cases)

    @cached_property
    def column(self) -> tuple[Array, Array]:
        """Return the wind on what climbs a pole and where it acts, [N] and [m]."""
        wide = max(_COLUMN, *(s.crop.depth_m for s in self.growths))
        return np.asarray(self.wind.pressure * self.wind.leaf_height * wide), np.asarray(
            min(s.bottom for s in self.growths) + self.wind.leaf_height / 2
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to ground: strings, pole, its guys and its concrete."""
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
        ground = earth.ground_of(self.site.bed, "concrete")
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
        """Return how far the pole leans."""
        top = self.geometry.top
        post, (force, height) = tables.posts()[self.options.pole], self.column
        moved = force * posts.lean_per_force(
            post, earth.beside(self.ground), self.options.pole_depth, height, height, top, self.cases
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

    def balance(self) -> tuple[Array, Array]:
        """Return the wind on what grows there, all of which the pole takes. [N]"""
        force, _ = self.column
        return force, force
