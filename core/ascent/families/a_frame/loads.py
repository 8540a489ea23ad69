"""A-frame: the loads of one pair of legs and its stretch of face."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...loads import face
from ...loads.cases import by_week
from ...loads.crop import Growth, planting_on_face
from ...mechanics import Array, raked_legs, wind
from ...patterns.stand import Bays
from ...tables import rows
from .geometry import height_of
from .options import MESHES, AFrameOptions

_GUY = math.radians(60.0)  # of a foot's anchor from the ground


class Loads(Bays[AFrameOptions]):
    """What comes on one pair of legs and its stretch of face, worked out once for its cases."""

    spaced_by = "rail_spacing"

    @cached_property
    def height(self) -> float:
        return height_of(self.options)

    @cached_property
    def half(self) -> float:
        return self.options.spread / 2

    @cached_property
    def angle(self) -> float:
        return raked_legs.slope(self.half, self.height)

    @cached_property
    def wood(self) -> rows.Post:
        return tables.posts()[self.options.frame_wood]

    @cached_property
    def mesh(self) -> rows.Mesh:
        return tables.meshes()[self.options.mesh]

    @cached_property
    def several(self) -> float:
        """Return how many faces there are."""
        return 2.0 if self.options.faces == "two" else 1.0

    @cached_property
    def solidity(self) -> float:
        if self.options.filled in MESHES:
            return float(wind.mesh_solidity(self.mesh.wire, self.mesh.along, self.mesh.up))
        return min(tables.posts()[self.options.bar].soil_width / self.options.bar_step, 0.9)

    def _side(self, side: str) -> face.FaceWind:
        """Return the wind on one face, with the leaves of the plants on its side."""
        grown: list[Growth] = []
        for index, planting in enumerate(self.structure.plantings):
            if self.options.faces == "one" or planting.side in (side, "both"):
                line = (
                    planting if self.options.faces == "one" else planting.model_copy(update={"side": "right"})
                )
                grown.append(planting_on_face(line, self.season, index, self.geometry.climb))
        if not grown:
            bare = self.growths[0]
            grown = [replace(bare, cover=np.zeros_like(bare.cover), top=np.full_like(bare.top, 0.0))]
        return face.wind_on_face(tuple(grown), self.solidity, 0.0, self.height, self.cases)

    @cached_property
    def sides(self) -> tuple[face.FaceWind, face.FaceWind]:
        return self._side("left"), self._side("right")

    def _merged(self) -> face.FaceWind:
        """Return the wind on both faces as one, their leaves and meshes overlapping, where less than half
        their height is between them.
        """
        solid = float(wind.mixed_solidity(self.solidity, self.solidity))
        lines = tuple(
            planting_on_face(p, self.season, i, self.geometry.climb)
            for i, p in enumerate(self.structure.plantings)
        )
        return face.wind_on_face(lines, solid, 0.0, self.height, self.cases)

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind on one pair's stretch and where it acts, [N] and [m]: the face behind takes two
        fifths more, or near ones act as one.
        """
        left, right = self.sides
        lever = np.where(left.force >= right.force, left.height, right.height)
        force = np.maximum(left.force, right.force)
        if self.options.faces == "two":
            near = self.options.spread / 2 < self.height / 2
            force = (
                self._merged().force
                if near
                else force + tables.constant("follower") * np.minimum(left.force, right.force)
            )
        force = force * self.carried
        frame = (
            tables.constant("pole_drag")
            * wind.gust_pressure(self.cases.gust)
            * self.wood.soil_width
            * self.height
            * self.framed
        )
        total = force + frame
        return np.asarray(total), np.asarray(
            (force * np.minimum(lever, self.height) + (frame + 1e-12) * self.height / 2) / (total + 1e-12)
        )

    @cached_property
    def framed(self) -> float:
        """Return how many rails a pair has that the wind finds: none where the mesh stands alone."""
        return 0.0 if self.options.filled == "bent" else 2.0

    @cached_property
    def face_kg(self) -> float:
        """Return the mass of a square metre of face. [kg/m²]"""
        if self.options.filled in MESHES:
            return self.mesh.kg_m2
        return tables.posts()[self.options.bar].kg_m / self.options.bar_step

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of one pair of legs and its stretch of face. [N]"""
        wood = (
            self.wood.kg_m * (2 * self.options.leg + 2 * self.several * self.carried) if self.framed else 0.0
        )
        return (wood + self.several * self.face_kg * self.options.leg * self.carried) * tables.constant(
            "gravity"
        )

    @cached_property
    def hanging(self) -> Array:
        """Return the weight of crop on one pair's stretch. [N]"""
        lying = self.lying * self.carried * self.options.spread
        return np.asarray(self.crop_weight(self.xs, self.bay / 2, self.carried * self.several) + lying)

    @cached_property
    def resting(self) -> Array:
        """Return the weight that is always there: the frame, and half the usual shoots. [N]"""
        share = self.carried / self.options.length
        shoots = sum(
            (s.shoot_kg * s.planting.count * share for s in self.growths), np.zeros(self.season.weeks)
        )
        return np.asarray(self.bare_weight + 0.5 * tables.constant("gravity") * by_week(shoots))

    @cached_property
    def arm(self) -> float:
        """Return the arm of the weight: half the spread, and of one face alone only a quarter when the wind
        comes from behind it.
        """
        return self.half if self.options.faces == "two" else self.half / 2

    @cached_property
    def lifted(self) -> Array:
        """Return what lifts the windward foot of a pair. [N]"""
        force, lever = self.blown
        return np.asarray(np.maximum(force * lever - self.resting * self.arm, 0.0) / self.options.spread)

    @cached_property
    def spreading(self) -> Array:
        """Return how hard each foot pushes outward under the crop, which hangs along the faces and not at the
        ridge. [N]
        """
        return raked_legs.spread_thrust(self.hanging + self.bare_weight, 2, self.angle)

    @cached_property
    def pushed(self) -> Array:
        """Return what a foot pushes along the ground: half the wind, and the spreading that no tie takes.
        [N]
        """
        return np.asarray(self.blown[0] / 2 + (self.spreading if self.options.foot_tie == "none" else 0.0))

    @cached_property
    def laid_on(self) -> tuple[Array, ...]:
        """Return the weights on one pair that its feet may slide under: bare, with half the usual shoots, and
        with all its crop. [N]
        """
        return self.nothing + self.bare_weight, self.resting, np.asarray(self.hanging + self.bare_weight)

    @cached_property
    def apex(self) -> Array:
        force, lever = self.blown
        return np.asarray(force * lever / self.height)
