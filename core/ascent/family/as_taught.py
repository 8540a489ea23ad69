"""A family with what the log of a garden taught: loads and strengths so many times what the tables say."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from .. import tables
from ..loads.cases import Cases
from ..loads.crop import Growth
from ..mechanics import Array
from ..path.geometry import Geometry
from ..path.loadpath import Link, Service
from ..plan.structure import Structure
from ..site import Site
from .protocol import Family, Loaded


@dataclass(frozen=True)
class TaughtLoads:
    """A structure under loads whose strengths are so many times what they would be, as one designs to and as
    one expects, {row of uncertainties.csv: factors}.
    """

    untaught: Loaded
    strengths: Mapping[str, tuple[float, float]]

    @property
    def growths(self) -> tuple[Growth, ...]:
        """Return the course of everything that grows on it."""
        return self.untaught.growths

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground, as strong as was learnt."""
        return tuple(link.times(self.strengths) for link in self.untaught.path())

    def service(self) -> tuple[Service, ...]:
        """Return how far things move."""
        return self.untaught.service()

    def balance(self) -> tuple[Array, Array]:
        """Return the horizontal load across the row, and the reaction of the feet to it. [N]"""
        return self.untaught.balance()


def as_taught(family: Family[Any]) -> Family[Any]:
    """Return a family that counts with what a garden’s log taught; where nothing was, as it is.

    What proved weaker, or a load that proved heavier, counts as it is expected to be. What proved stronger or
    lighter is designed to only as far as three in four of what it may be go.
    """

    def loaded(options: Any, geometry: Geometry, structure: Structure, site: Site, cases: Cases) -> Loaded:
        if not site.garden.taught:
            return family.loaded(options, geometry, structure, site, cases)
        strengths = {}
        for row in tables.uncertainties().values():
            learnt = site.learnt(row.key)
            if learnt is None:
                continue
            if row.acts == "load":
                cases = cases.scaled(row.key, learnt.careful_load)
            else:
                strengths[row.key] = (learnt.careful_strength, learnt.factor)
        return TaughtLoads(family.loaded(options, geometry, structure, site, cases), strengths)

    return replace(family, loaded=loaded)
