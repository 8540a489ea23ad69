"""A structure standing under the loads of its cases: what the checks of every family start from."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Generic, TypeVar

import numpy as np

from .. import tables
from ..checks import embedment
from ..family import tributary
from ..geometry import Geometry
from ..loads import crop
from ..loads.cases import Cases
from ..loads.season import Season, season_of
from ..mechanics import Array
from ..model import Site, Structure, Typed

OptionsT = TypeVar("OptionsT", bound=Typed)


@dataclass(frozen=True)
class Stand(Generic[OptionsT]):
    """What a family is given to work its links out from, and the courses they share."""

    options: OptionsT
    geometry: Geometry
    structure: Structure
    site: Site
    cases: Cases

    @cached_property
    def season(self) -> Season:
        """Return the weeks from the first planting to the last clearing."""
        return season_of(self.site.garden, self.structure.plantings)

    @cached_property
    def standings(self) -> tuple[crop.Standing, ...]:
        """Return the course of each planting, up to what the structure lets it climb."""
        return tuple(
            crop.planting_on_face(planting, self.season, index, self.geometry.climb)
            for index, planting in enumerate(self.structure.plantings)
        )

    @cached_property
    def ground(self) -> embedment.Ground:
        """Return the soil that posts stand in, as they are set."""
        return embedment.ground_of(self.site.bed, getattr(self.options, "setting", "driven"))

    @cached_property
    def tied_on(self) -> Array:
        """Return days the ties have been up in each week, (W,): they go on with the first planting."""
        return np.asarray(self.season.days - self.season.days[0] + 3.5)

    @cached_property
    def nothing(self) -> Array:
        """Return no load at all, (1, 1, 1)."""
        return np.zeros((1, 1, 1))

    def places(self, planting: int) -> Array:
        """Return the stations of a planting's plants along the row, (N,). [m]"""
        return np.array([plant.at[0] for plant in self.geometry.plants if plant.planting == planting])

    def crop_weight(self, stations: Array, reach: float, run: float) -> Array:
        """Return the weight of crop at the fullest of some stations: one good plant, the rest typical, capped by light.

        Args:
            stations: Where the members stand that carry it, (n,). [m]
            reach: How far along the row each answers for to either side. [m]
            run: Length of row whose light feeds it. [m]

        Returns:
            Weight, (S, W, G). [N]

        Source: crops-5.5
        """
        total = self.nothing
        for index, standing in enumerate(self.standings):
            count = tributary(stations, self.places(index), reach)
            area = run * max(float(np.max(standing.top)) - standing.bottom, 0.1)
            total = total + crop.group_weight(standing, count, area, self.cases.crop)
        return np.asarray(total)

    def plant_weight(self, standing: crop.Standing) -> Array:
        """Return what one good plant hangs on its own string, tie or stake, (1, W, G). [N]"""
        return np.asarray(tables.constant("gravity") * standing.high_kg[None, :, None] * self.cases.crop)
