"""Panel arch: how bought tubes clad with mesh carry."""

from __future__ import annotations

from functools import cached_property

import numpy as np

from ... import tables
from ...checks import arches, embedment, tension, ties
from ...mechanics import Array
from ...path.geometry import keys
from ...path.loadpath import Arrow, Check, Link, Service
from ...patterns import tube_arch
from ...tables import rows
from .geometry import shape_of
from .sprung_links import Arch

_STIFF = 0.3  # of a post beside a leg, from which it keeps the leg upright [m]


class TubeArch(Arch):
    """Tube arches as they are bought, joined by mesh up their sides and lines over their tops."""

    @cached_property
    def tube(self) -> rows.Post:
        return tables.posts()[self.options.tube]

    @cached_property
    def width(self) -> float:
        return self.options.arch_spacing * (1.0 if self.options.arches > 2 else 0.5)

    @cached_property
    def arc(self) -> float:
        return tube_arch.arc_length(shape_of(self.options, self.site))

    @cached_property
    def legs(self) -> int:
        return 1

    @cached_property
    def rise(self) -> float:
        return self.options.tube_rise

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of one arch and its mesh. [N]"""
        mesh = self.mesh.kg_m2 * self.width * 2 * min(self.options.clad, self.arc / 2)
        return (self.tube.kg_m * self.arc + mesh) * tables.constant("gravity")

    @cached_property
    def push(self) -> Array:
        """Return how all the fruit at the crown spreads the legs. [N]"""
        return arches.spread(self.hanging + self.bare_weight)

    @cached_property
    def foot_push(self) -> Array:
        return self.nothing

    @cached_property
    def stiff(self) -> float:
        """Return the height up to which posts keep the legs upright. [m]"""
        return self.hold if self.options.foot == "posts" and self.hold > _STIFF else 0.0

    @cached_property
    def lever(self) -> Array:
        """Return the height at which the legs bend their posts: they bend both ways above them, turning half
        way up. [m]
        """
        return np.asarray(
            self.stiff + np.maximum(self.wind.height - self.stiff, 0.1) / (2 if self.stiff else 1)
        )

    def carried(self, first: str) -> list[Link]:
        """Return mesh, lines and tube."""
        tie, wire = tables.ties()[self.options.clad_tie], tables.wires()[self.options.over_wire]
        count = tube_arch.ties_per_tube(self.options.clad)
        clads = tuple(m.key for m in self.geometry.by_role("tie") if m.key.startswith("clad"))
        crown = (self.geometry.length / 2, 0.0, self.rise)
        weight = self.hanging + self.bare_weight
        tube = Link(
            "tube",
            keys(self.geometry.by_role("arm")),
            ("posts", self.tube.key),
            (first,),
            ("tube", "arch_spacing", "hold_height"),
            weight,
            (
                arches.tube(
                    self.tube, self.across, self.wind.height, weight, self.options.span, self.rise, self.stiff
                ),
                arches.tube_sway(self.tube, weight, self.rise, self.stiff),
            ),
            (Arrow(crown, (0.0, 1.0, 0.0)),),
        )
        checks = [ties.mesh_tie(tie, self.across, self.hanging / count, count, self.tied_on)]
        if over := keys(self.geometry.by_role("wire")):
            bay = self.options.arch_spacing
            down = self.hanging * tables.constant("crown_share") / self.width / len(over)
            checks.append(tension.main_wire(wire, down, 0.0 * down, bay, arches.over_pull(down, bay)))
        levers = ("clad_tie", "over_wire", "arch_spacing")
        return [
            Link("clad", (*clads, *over), ("ties", tie.key), ("tube",), levers, self.across, tuple(checks)),
            tube,
        ]

    def buried(self, force: Array) -> tuple[Check, ...]:
        """Return the checks of the legs in the soil: what pushes them aside, and what lifts them."""
        height = np.full((1, 1, 1), 0.05)
        strength = self.cases.soil_strength(self.ground.native)
        return (
            embedment.grip(
                "soil-grip", self.ground, self.tube, self.options.buried, force, height, self.cases
            ),
            tension.uplift(self.tube, self.ground, self.options.buried, self.feet.lift, strength),
        )

    def service(self) -> tuple[Service, ...]:
        """Return the sway of the crown in the wind."""
        lean = self.give + self.across * arches.tube_sway_per_force(
            self.tube, self.wind.height, self.rise, self.stiff
        )
        return (
            Service(
                "arch-lean",
                np.asarray(lean),
                self.rise / tables.constant("sway_limit"),
                "handbook-9.5",
                ("tube", "arch_spacing"),
            ),
        )
