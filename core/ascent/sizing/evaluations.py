"""One way of building a structure evaluated: what its links have to spare, what it costs and by what, what
will not do.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..analysis.design import Design
from ..analysis.fitness import Unfit
from ..buying.lists import shopping
from ..buying.parts import Part
from ..loads.cases import moist_gusts
from ..path.loadpath import Link
from ..site import Site

MOST = 1e6  # a margin past which one is as good as another, and its inverse past which one is as hopeless


@dataclass(frozen=True)
class PartsGroup:
    """What one group of a structure's parts comes to: its lines of the shopping list."""

    lines: tuple[Part, ...] = ()

    @property
    def cost(self) -> float:
        """Return their price."""
        return sum(part.cost for part in self.lines)

    @property
    def missing(self) -> int:
        """Return how many pieces of it cannot be had."""
        return sum(part.packs for part in self.lines if part.missing)

    @property
    def step(self) -> float:
        """Return the price of the dearest pack, by which the cost may be more or less at once; what is bought
        by the piece comes to what is needed.
        """
        return max((part.price for part in self.lines if part.pack != "piece"), default=0.0)

    @property
    def life(self) -> float:
        """Return the seasons of the shortest-lived of them; of what no table tells, without end."""
        return min((part.life for part in self.lines if part.life), default=np.inf)

    def yearly(self, years: float) -> float:
        """Return what they cost in a season.

        Args:
            years: For how many seasons they will be used; what lasts longer is written off by then.

        Source: handbook-season-11
        """
        return sum(part.cost / seasons_of(part, years) for part in self.lines)

    def yearly_step(self, years: float) -> float:
        """Return what the dearest pack costs in a season."""
        packs = (part for part in self.lines if part.pack != "piece")
        return max((part.price / seasons_of(part, years) for part in packs), default=0.0)


def seasons_of(part: Part, years: float) -> float:
    """Return over how many seasons a part is written off: its life, or as long as it is used. [seasons]"""
    return min(part.life or years, years)


@dataclass(frozen=True)
class Evaluation:
    """What comes of one way of building a structure.

    margins: of each link, how many times it could take what comes on it in the required gust, in moist soil
        and its worst week.
    shares: its parts by group: what they are used for.
    unfit: keys of the remarks that say it does not do, or may not.
    """

    margins: dict[str, float]
    shares: dict[str, PartsGroup]
    unfit: Unfit

    @property
    def cost(self) -> float:
        """Return the price of all parts."""
        return sum(share.cost for share in self.shares.values())

    def yearly(self, years: float) -> float:
        """Return what all parts cost in a season."""
        return sum(share.yearly(years) for share in self.shares.values())

    @property
    def to_be_had(self) -> bool:
        """Return whether all its parts can be had."""
        return not any(share.missing for share in self.shares.values())

    @property
    def weakest(self) -> str:
        """Return the link of least margin."""
        return min(self.margins, key=lambda key: self.margins[key])

    @property
    def margin(self) -> float:
        """Return the least margin of its links; from 1 on it holds."""
        return min(self.margins.values())


def evaluated(design: Design) -> tuple[Evaluation, tuple[Link, ...]]:
    """Return what comes of a design, and its links in the required gust, moist soil.

    Raises:
        ValidationError: One of its options is outside what its family allows.
    """
    site, links = design.site, design.under(moist_gusts(np.array([design.required_gust]))).path()
    bought = shopping(design.geometry, site.garden.prices, site.spare)
    parts = tuple(_as_lasting(part, site) for part in bought)
    return Evaluation({link.key: margin_of(link) for link in links}, shares_of(parts), design.unfit), links


def _as_lasting(part: Part, site: Site) -> Part:
    """Return a part with the life that the log taught of its item."""
    return replace(part, life=part.life * site.garden.times("life", part.key))


def margin_of(link: Link) -> float:
    """Return how many times its present load a link can carry. [-]"""
    return 1.0 / min(max(float(np.max(link.utilisation)), 1.0 / MOST), MOST)


def shares_of(parts: tuple[Part, ...]) -> dict[str, PartsGroup]:
    """Return a shopping list by what its parts are used for; no pack is shared between two groups."""
    groups: dict[str, list[Part]] = {}
    for part in parts:
        groups.setdefault(part.use.split(",")[0], []).append(part)
    return {use: PartsGroup(tuple(lines)) for use, lines in groups.items()}
