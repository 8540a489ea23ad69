"""A structure in the round, with the sun of an hour."""

from __future__ import annotations

import datetime as dt

import numpy as np

from ..analysis.design import design_of
from ..drawing.solid import solid_of, sun_towards
from ..ground.shade import sun_at
from ..plan.structure import Structure
from ..site import Site
from ..words.quantities import System, write
from .headline import in_words
from .readout import SolidReport, Sun

_PERSON = 1.70  # tall, who stands beside a structure for its size [m]
_SUN_LEAST = 3.0  # height of the sun from which shadows are drawn [deg]


def solid_report(site: Site, structure: Structure, system: System, on: dt.date | None = None) -> SolidReport:
    """Return a structure in three dimensions: as it stands in the week of a day, or in its worst, with
    the sun of its first day, and in words.
    """
    e = design_of(site, structure)
    chosen = e.worst_week if on is None else e.season.nearest_week(on)
    day = e.season.date(chosen).timetuple().tm_yday
    hours = np.arange(4.0, 21.0)
    heights, azimuths = sun_at(site.garden.latitude, day, hours)
    bearing = site.bed.bearing + structure.turn
    suns = tuple(
        Sun(
            hour=int(hour),
            text=f"{int(hour)} o’clock",
            towards=sun_towards(float(height), float(azimuth), bearing),
        )
        for hour, height, azimuth in zip(hours, heights, azimuths, strict=True)
        if height > _SUN_LEAST
    )
    return SolidReport(
        solid=solid_of(e.geometry, site.bed),
        week=chosen,
        suns=suns,
        says=in_words(e, chosen, system),
        person=_PERSON,
        person_text=write(_PERSON, "length", system),
    )
