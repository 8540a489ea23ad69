"""A site: what the calculation of a structure reads of its place and bed."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from . import tables
from .plan.bed import BareBed, Bed
from .plan.fields import Typed
from .plan.garden import Garden
from .plan.place import Place, Taught
from .plan.shed import Spare
from .tables import rows

GROUND = ("soil", "skin", "anchor")  # of uncertainties.csv: what is of the ground, bed by bed


class HostWall(Typed):
    """A wall or fence that stands along a bed: how long and how high, and on which side of the row. [m]"""

    kind: Literal["wall", "fence"]
    length: float = Field(ge=0.3, le=60.0)
    height: float | None = Field(None, ge=0.3, le=6.0, description="unknown when null")
    side: Literal["left", "right"] = "left"


class Site(Typed):
    """What a structure needs to know of where it stands: its bed and garden, one of each, and what it may
    have of the shed.

    path: width of the path between its bed and one alike, where it may stand over it. [m] host: what it may
    be fixed to.
    """

    garden: Place
    bed: BareBed
    spare: tuple[Spare, ...] = ()
    path: float | None = None
    host: HostWall | None = None

    @property
    def exposure(self) -> rows.Exposure:
        """Return the wind exposure of the bed, its own or the garden's."""
        return tables.exposures()[self.bed.exposure or self.garden.exposure]

    @property
    def design_gust(self) -> float:
        """Return the gust at the plant met once in ten growing seasons, m/s.

        A garden's own figure belongs to its own exposure; a bed of another exposure scales it.
        """
        own = self.garden.design_gust
        if own is None:
            return self.exposure.design_gust_m_s * self.garden.times("site")
        return own * self.exposure.design_gust_m_s / tables.exposures()[self.garden.exposure].design_gust_m_s

    @property
    def forecast_ratio(self) -> float:
        """Return the gust at the plant over the one measured or forecast at 10 m over open ground."""
        return self.exposure.forecast_ratio * self.garden.times("site")

    def learnt(self, key: str) -> Taught | None:
        """Return what the log taught of a row of uncertainties.csv here: of the ground that of the bed, else
        that of its soil.
        """
        if key not in GROUND:
            return self.garden.learnt(key)
        return self.garden.learnt(key, f"bed/{self.bed.key}") or self.garden.learnt(
            key, f"soil/{self.bed.soil}"
        )

    def asking(self, gust: float | None) -> Site:
        """Return the site with another design gust; the site itself where none is given."""
        if gust is None:
            return self
        own = {"design_gust": gust, "exposure": self.bed.exposure or self.garden.exposure}
        return self.model_copy(update={"garden": self.garden.model_copy(update=own)})

    @property
    def serviceability_wind(self) -> float:
        """Return the gust that comes about every week, m/s."""
        return max(tables.constant("working_share") * self.design_gust, tables.constant("working_least"))


def plain_site(garden: Garden, bed: Bed) -> Site:
    """Return the site of a bed, with nothing of what else stands in the garden."""
    place = Place.model_validate({name: getattr(garden, name) for name in Place.model_fields})
    return Site(
        garden=place, bed=BareBed.model_validate({name: getattr(bed, name) for name in BareBed.model_fields})
    )


def untaught(site: Site, keep: str = "") -> Site:
    """Return a site without what a log taught, except for one key."""
    kept = tuple(each for each in site.garden.taught if each.key == keep)
    return site.model_copy(update={"garden": site.garden.model_copy(update={"taught": kept})})
