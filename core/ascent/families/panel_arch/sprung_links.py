"""Panel arch: how a sprung panel carries."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import arches, footings
from ...checks import mesh as mesh_checks
from ...loads import crop, face
from ...mechanics import Array, wind
from ...path.geometry import keys, tributary
from ...path.loadpath import Arrow, Check, Link, Service
from ...patterns import arch_feet, bent_panel, plants
from ...patterns import strings as hung
from ...patterns.stand import Stand
from ...shapes import sprung
from ...tables import rows
from .geometry import clamped, lap_ties, middles_of, shape_of, total_of
from .options import PanelArchOptions

_LEGS = 2  # posts on each side of a panel


class Arch(Stand[PanelArchOptions]):
    """Everything a panel arch's checks need, worked out once for its cases."""

    @cached_property
    def mesh(self) -> rows.Mesh:
        return tables.meshes()[self.options.panel]

    @cached_property
    def hold(self) -> float:
        return arch_feet.held_at(self.options, self.site.bed)

    @cached_property
    def width(self) -> float:
        """Return the length of tunnel that one bent panel answers for. [m]"""
        return self.options.panel_width

    @cached_property
    def arc(self) -> float:
        """Return the length from foot to foot along it. [m]"""
        return self.options.panel_length

    @cached_property
    def legs(self) -> int:
        """Return the posts that hold one of them on each side."""
        return _LEGS

    @cached_property
    def figures(self) -> sprung.SprungFigures:
        stiffness = sprung.bending_stiffness(self.mesh, self.options.panel_width)
        return sprung.figures(
            self.options.panel_length, self.options.span, self.hold, stiffness, clamped(self.options)
        )

    @cached_property
    def rise(self) -> float:
        return float(self.figures.rise) - arch_feet.sunk(self.options)

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of one panel. [N]"""
        return self.mesh.kg_m2 * self.width * self.arc * tables.constant("gravity")

    @cached_property
    def hanging(self) -> Array:
        """Return the weight of crop on the fullest one. [N]"""
        middles = np.array(middles_of(self.options))
        total = self.nothing
        for index, growth in enumerate(self.growths):
            count = tributary(middles, self.places(index), self.width / 2)
            area = self.width * self.arc * (1.0 if growth.planting.side == "both" else 0.5)
            total = total + crop.group_weight(growth, count, area, self.cases.crop)
        return np.asarray(total + self.lying * self.width * self.options.span)

    @cached_property
    def upright(self) -> tuple[crop.Growth, ...]:
        """Return the plantings as the wind sees them: one side's leaves, as high as they have climbed."""
        shape, growths = shape_of(self.options, self.site), []
        for index, planting in enumerate(self.structure.plantings):
            one = planting.model_copy(update={"side": "right"})
            course = crop.planting_on_face(one, self.season, index, self.geometry.climb)
            growths.append(
                replace(course, top=np.minimum(bent_panel.height_at(shape, self.arc, course.top), self.rise))
            )
        return tuple(growths)

    @cached_property
    def wind(self) -> face.FaceWind:
        solidity = wind.mesh_solidity(self.mesh.wire, self.mesh.along, self.mesh.up)
        if self.options.cover != "none":
            solidity = float(wind.mixed_solidity(solidity, tables.covers()[self.options.cover].solidity))
        return face.wind_on_face(self.upright, solidity, 0.0, self.rise, self.cases)

    @cached_property
    def across(self) -> Array:
        """Return the wind across one of them. [N]"""
        return np.asarray(self.wind.force * self.width)

    @cached_property
    def push(self) -> Array:
        """Return the greatest outward push at one side's ties, one half loaded and the other bare. [N]"""
        one_side = self.figures.tie_gain * self.hanging / (self.options.panel_length / 2) / 2
        upright, loaded = self.figures.tie, self.figures.tie + one_side
        return np.asarray(np.where(np.abs(loaded) > np.abs(upright), loaded, upright))

    @cached_property
    def lever(self) -> Array:
        """Return the height at which one of them bends its posts. [m]"""
        return np.full((1, 1, 1), max(self.hold, 0.05))

    @cached_property
    def foot_push(self) -> Array:
        """Return the outward push of a foot itself, below its ties. [N]"""
        return self.figures.foot

    @cached_property
    def feet(self) -> arch_feet.ArchFeet:
        """Return what comes to the feet of one of them."""
        along = (self.wind.end + self.wind.skin * total_of(self.options)) * 2
        lift = arches.lifted(self.across, self.wind.height, self.bare_weight, self.options.span)
        return arch_feet.ArchFeet(
            self.hold, self.legs, self.width, self.push, self.foot_push, self.across, along, lift, self.lever
        )

    @cached_property
    def give(self) -> Array:
        """Return how far the crown moves over because the posts do. [m]"""
        return arch_feet.give(self, self.options, self.feet, self.rise)

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        feet = arch_feet.links(self, self.options, self.feet, self.buried)
        links = self.carried(feet[0].key)
        if self.options.strung == "inside":
            twine, stem = tables.twines()[self.options.string], tables.ties()[self.options.stem_tie]
            links = [
                *hung.string_links(
                    self, self.wind.pressure, self.wind.leaf_height, twine, stem, None, None, links[0].key
                ),
                *links,
            ]
        heaviest = max(tables.crops()[p.crop].fruit_heaviest_kg for p in self.structure.plantings)
        if heaviest > plants.HEAVY:
            row = tables.fittings()[self.options.sling]
            count, angle = self.options.sling_legs, math.radians(self.options.sling_angle)

            def slung(sling: rows.Fitting) -> tuple[Check, ...]:
                check = arches.sling(sling, heaviest, count, angle, self.cases.crop)
                return (check, mesh_checks.weld(self.mesh, check.demand))

            levers, demand = ("sling", "sling_legs", "sling_angle"), slung(row)[0].demand
            links.insert(0, Link.of("sling", (), row, (links[0].key,), levers, demand, slung))
        return (*links, *feet)

    def carried(self, first: str) -> list[Link]:
        """Return what carries the crop to its feet, of which the first link is named."""
        if self.options.panels == 1:
            return [self._panel((first,))]
        return [self._panel(("lap", first)), self._lap(first)]

    def _panel(self, below: tuple[str, ...]) -> Link:
        weight = (self.hanging + self.bare_weight) / self.options.panel_length
        heavy = arches.crown(self.figures, self.bare_weight, self.hanging, self.options.panel_length)
        above = np.maximum(self.wind.height - self.hold, 0.1)
        blown = arches.blown(
            arches.wires_bear(self.mesh, self.options.panel_width),
            self.across,
            above,
            4.0 if self.hold else 2.0,
            weight,
            self.figures,
        )
        checks = (arches.sway(self.figures, weight), heavy, arches.bend(self.figures, self.mesh), blown)
        crown = (self.options.panel_width / 2, 0.0, self.rise)
        return Link(
            "panel",
            keys(self.geometry.by_role("panel")),
            ("meshes", self.mesh.key),
            below,
            ("hold_height", "hold", "foot", "span"),
            self.hanging + self.bare_weight,
            checks,
            (Arrow(crown, (0.0, 0.0, -1.0)),),
        )

    def _lap(self, below: str) -> Link:
        tie, count = tables.ties()[self.options.lap_tie], lap_ties(self.options)
        return Link.of(
            "lap",
            tuple(m.key for m in self.geometry.by_role("tie") if m.key.startswith("lap")),
            tie,
            (below,),
            ("lap_tie",),
            self.across * tables.constant("lap_share"),
            lambda item: (arches.lap(item, self.across, count, self.tied_on),),
        )

    def buried(self, force: Array) -> tuple[Check, ...]:
        """Return the checks of the wires' ends in the soil, which push aside so much of it."""
        wires = max(math.floor(self.options.panel_width / self.mesh.up + 1e-6), 2)
        return footings.buried(
            self.ground, self.mesh.wire, wires, self.options.buried, force, self.feet.lift, self.cases
        )

    def service(self) -> tuple[Service, ...]:
        """Return the sway of the crown in the wind, how far it comes down, and how far it moves over when one
        side is bare.
        """
        load = self.hanging / self.options.panel_length
        levers = ("hold_height", "post", "depth")
        return (
            Service(
                "arch-lean", self.give, self.rise / tables.constant("sway_limit"), "handbook-4.2", levers
            ),
            Service(
                "crown-drop",
                np.asarray(np.maximum(self.figures.drop * load, 0.0)),
                self.options.span / tables.constant("rail_sag_limit") * 2,
                "handbook-8.5",
                levers,
            ),
            Service(
                "one-side-shift",
                np.asarray(np.abs(self.figures.shift * load)),
                self.rise / tables.constant("belly_limit"),
                "handbook-8.5",
                levers,
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across all panels, and what the feet of each take of it. [N]"""
        count = len(middles_of(self.options))
        return self.wind.force * self.width * count, self.feet.blown * (2 * self.legs * count)
