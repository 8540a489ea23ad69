"""One way of building a structure tried: what its links have to spare, what it costs and by what, what will not
do.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..buying.lists import Part, shopping
from ..families import family_of
from ..family.protocol import Family
from ..loads.cases import moist_gusts
from ..path.geometry import Geometry
from ..path.loadpath import Link
from ..plan.model import Site, Structure, Typed
from ..report.evaluation import asked_gust, unfit

MOST = 1e6  # a margin past which one is as good as another, and its inverse past which one is as hopeless


@dataclass(frozen=True)
class Share:
    """What one group of a structure's parts comes to.

    cost: their price. kinds: lines of the shopping list. life: seasons of the shortest-lived of them.
    """

    cost: float = 0.0
    kinds: int = 0
    life: float = np.inf


@dataclass(frozen=True)
class Trial:
    """What comes of one way of building a structure.

    margins: of each link, how many times it could take what comes on it in the gust asked, in moist soil and
        its worst week.
    shares: its parts by group: what they are used for.
    wrong: keys of remarks that say it does not do.
    """

    margins: dict[str, float]
    shares: dict[str, Share]
    wrong: frozenset[str]

    @property
    def cost(self) -> float:
        """Return the price of all parts."""
        return sum(share.cost for share in self.shares.values())

    @property
    def margin(self) -> float:
        """Return the least margin of its links; from 1 on it holds."""
        return min(self.margins.values())


@dataclass(frozen=True)
class Laid:
    """A structure laid out with some options, before anything comes on it."""

    options: Typed
    geometry: Geometry


def laid(site: Site, structure: Structure) -> Laid:
    """Return a structure laid out.

    Raises:
        ValidationError: One of its options is outside what its family allows.
    """
    family: Family[Typed] = family_of(structure.family)
    options = family.options.model_validate(structure.options)
    return Laid(options, family.geometry(options, structure.plantings, site))


def tried(site: Site, structure: Structure) -> Trial:
    """Return what comes of a structure as it is.

    Raises:
        ValidationError: One of its options is outside what its family allows.
    """
    way = laid(site, structure)
    return Trial(
        {link.key: margin_of(link) for link in loaded(site, structure, way)},
        shares_of(shopping(way.geometry, site.garden.prices)),
        unfit(way.options, way.geometry, structure, site),
    )


def loaded(site: Site, structure: Structure, way: Laid) -> tuple[Link, ...]:
    """Return the links of a structure in the gust asked of it, moist soil."""
    family: Family[Typed] = family_of(structure.family)
    cases = moist_gusts(np.array([asked_gust(site, structure)]))
    return family.loaded(way.options, way.geometry, structure, site, cases).path()


def margin_of(link: Link) -> float:
    """Return how many times a link could take what comes on it."""
    return 1.0 / min(max(float(np.max(link.use)), 1.0 / MOST), MOST)


def shares_of(parts: tuple[Part, ...]) -> dict[str, Share]:
    """Return a shopping list by what its parts are used for; no pack is shared between two groups."""
    groups: dict[str, list[Part]] = {}
    for part in parts:
        groups.setdefault(part.use.split(",")[0], []).append(part)
    return {
        use: Share(
            sum(part.cost for part in group),
            len(group),
            min((part.life for part in group if part.life), default=np.inf),
        )
        for use, group in groups.items()
    }
