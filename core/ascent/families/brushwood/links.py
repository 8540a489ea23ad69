"""Brushwood: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending, strings
from ...loads import face
from ...loads.cases import by_week
from ...mechanics import Array
from ...path.geometry import keys
from ...path.loadpath import Arrow, Link, Service
from ...patterns import posts, pots
from ...patterns.stand import Stand
from ...tables import rows
from .geometry import height_of
from .options import BrushwoodOptions


class Thicket(Stand[BrushwoodOptions]):
    """Everything the checks of brushwood need, worked out once for its cases."""

    @cached_property
    def stick(self) -> rows.Post:
        return tables.posts()[self.options.stick]

    @cached_property
    def height(self) -> float:
        return height_of(self.options)

    @cached_property
    def left(self) -> float:
        """Return the share of its strength that a stick keeps: a quarter goes with each season in the
        soil.
        """
        return max(1.0 - tables.constant("brush_ages") * (self.options.season - 1), 0.5)

    @cached_property
    def lines(self) -> float:
        """Return how many sticks stand at each place along the row."""
        return 2.0 if self.options.pattern == "crossed" else 1.0

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(
            self.growths, tables.constant("brush_solidity"), 0.0, self.height, self.cases
        )

    @cached_property
    def broad(self) -> float:
        """Return the length of face that stands on one stick. [m]"""
        if self.options.pattern == "starter":
            return min(max(p.spacing for p in self.structure.plantings), 0.3)
        return self.options.stick_spacing / self.lines

    @cached_property
    def uneven(self) -> float:
        """Return how much more the worst stick takes than the mean: strings or a cane along the row share it
        out.
        """
        return 1.0 if self.tied_along else tables.constant("tie_uneven")

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind on one stick and where it acts, [N] and [m]."""
        return np.asarray(self.wind.force * self.broad), np.asarray(np.minimum(self.wind.height, self.height))

    @cached_property
    def leaning(self) -> Array:
        """Return the moment of the vines that lean on one stick. [N·m]"""
        total = self.nothing
        for growth in self.growths:
            lines = 2.0 if growth.planting.side == "both" else 1.0
            per_metre = growth.plant_kg * lines / growth.planting.spacing
            total = total + by_week(per_metre * np.minimum(growth.top, self.height) / 2) * self.cases.crop
        return np.asarray(
            total
            * tables.constant("gravity")
            * math.sin(math.radians(tables.constant("lean_angle")))
            * self.broad
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from tendril to ground."""
        force, height = self.blown
        moment = (force * height + self.leaning) * self.uneven
        onto = np.asarray(moment / np.maximum(height, 0.05))
        side = (Arrow((0.0, 0.0, self.height / 2), (0.0, 1.0, 0.0)),)
        sticks = keys(self.geometry.by_role("post"))
        pot = pots.link(self.site.bed, self.wind.force * self.options.length, height, ("in_soil",))
        check = bending.aged(
            bending.post_across(self.stick, onto, np.maximum(height, 0.05), np.ones((1, 1, 1))), self.left
        )
        to = ("soil", *(("along",) if self.tied_along else ()))
        links = [
            Link(
                "stick",
                sticks,
                ("posts", self.stick.key),
                to,
                ("stick", "stick_spacing", "tied", "stick_length", "pattern"),
                force,
                (check,),
                side,
            ),
            self.soil_grip(
                self.stick,
                self.options.in_soil,
                onto,
                np.maximum(height, 0.05),
                ("in_soil", "stick_spacing", "tied"),
                below=("pot",) if pot else (),
            ),
        ]
        return (*links, *(self._runs() if self.tied_along else ()), *pot)

    @cached_property
    def tied_along(self) -> bool:
        return self.options.tied != "none" and self.options.pattern in ("upright", "crossed")

    def _runs(self) -> list[Link]:
        """Return the string or cane along the row: what one stick takes too much it hands to its
        neighbours.
        """
        pull = np.asarray((tables.constant("tie_uneven") - 1.0) * self.blown[0])
        members = tuple(m.key for m in self.geometry.members if m.key.startswith("along"))
        if self.options.tied == "string":
            twine = tables.twines()[self.options.twine]
            return [
                Link.of(
                    "along",
                    members,
                    twine,
                    ("soil",),
                    ("twine", "tied"),
                    pull,
                    lambda item: (strings.cord(item, pull, self.tied_on),),
                )
            ]
        cane = tables.posts()[self.options.cane]
        span = 2 * self.options.stick_spacing
        check = bending.rail(cane, self.nothing, pull / span, span)
        return [Link("along", members, ("posts", cane.key), ("soil",), ("cane", "tied"), pull, (check,))]

    def service(self) -> tuple[Service, ...]:
        """Return how far the tops of the sticks lean."""
        force, height = self.blown
        half = np.maximum(height, 0.05)
        moved = (
            self.uneven
            * force
            * posts.lean_per_force(
                self.stick, self.ground, self.options.in_soil, half, half, self.height, self.cases
            )
        )
        return (
            Service(
                "stick-lean",
                np.minimum(moved, self.height),
                self.height / 4,
                "handbook-parts-3.15",
                ("tied", "in_soil", "stick_spacing"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the moment of wind and lean about the ground, and what the sticks take of it. [N·m]"""
        _, height = self.blown
        sticks = (
            self.options.length / self.options.stick_spacing * self.lines
            if self.options.pattern != "starter"
            else len(self.geometry.plants)
        )
        whole = self.wind.force * self.broad * sticks * height + self.leaning * sticks
        bent = next(link for link in self.path() if link.key == "stick").checks[0]
        return whole, np.asarray(bent.demand / self.uneven * sticks)
