"""A whole report of a structure, as people read it, in their units."""

from __future__ import annotations

import datetime as dt

import numpy as np

from .. import tables
from ..analysis.design import Design, design_of
from ..buying.lists import bill, total
from ..buying.work import labour_of
from ..drawing.views import VIEWS, view_of
from ..plan.structure import Structure
from ..site import Site
from ..sizing.size import YEARS
from ..wording import money, speed_text, written
from ..words.quantities import STYLES, System, to_si, write
from .fates import planted_report
from .headline import headline
from .links import link_report
from .lists import cost_report, cut_reports, part_reports
from .readout import Report
from .remarks import cautions_of, remark_reports
from .weeks import foliage_of, week_report


def report_of(e: Design, system: System, day: dt.date | None = None) -> Report:
    """Return the report of a design, with its workings in the week of a day, or in the worst week."""
    site = e.site
    chosen = e.worst_week if day is None else e.season.nearest_week(day)
    parts, bars = bill(e.geometry, site.garden.prices, site.spare)

    return Report(
        headline=headline(site, e, system),
        links=tuple(link_report(e, link, chosen, system) for link in e.links),
        weeks=tuple(week_report(e, index, system) for index in range(e.season.weeks)),
        foliage=foliage_of(e),
        required_gust=e.required_gust,
        serviceability_wind=site.serviceability_wind,
        winds=(
            speed_text(0.0, system),
            speed_text(site.serviceability_wind, system),
            speed_text(e.required_gust, system),
        ),
        speed_unit=STYLES["speed"][system].symbol,
        speed_scale=1.0 / to_si(STYLES["speed"][system].unit),
        remarks=remark_reports(e, system),
        cautions=cautions_of(e.structure.family, e.geometry),
        parts=part_reports(parts, system),
        cuts=cut_reports(bars, system),
        costs=cost_report(
            parts,
            e.structure.plantings,
            site.garden.currency,
            system,
            hours=labour_of(e.structure, e.options, e.geometry, site).hours(
                tables.traits()[e.structure.family], YEARS
            ),
            hour=site.garden.hour or 0.0,
        ),
        cost=total(parts),
        cost_text=money(total(parts), site.garden.currency),
        views=tuple(view_of(e.geometry, site.bed, name, system) for name in VIEWS),
        exaggeration=_exaggeration(e),
        written={
            **written(e.options, system),
            **{p.path("spacing"): write(p.spacing, "length", system) for p in e.structure.plantings},
        },
        planted=tuple(
            planted_report(site.garden, planting, system)
            for planting in e.structure.plantings
            if tables.calendars()[planting.crop].counted_from != "shoots"
        ),
    )


def full_report(site: Site, structure: Structure, system: System, day: dt.date | None = None) -> Report:
    """Return the report of a structure at a site."""
    return report_of(design_of(site, structure), system, day)


def _exaggeration(e: Design) -> float:
    """Return how many times bending is drawn larger, so that the serviceability wind's lean can be seen."""
    lean = max(float(np.max(np.asarray(e.service[0].amount)[..., 1])), 1e-6)
    wanted = 0.06 * e.geometry.top / lean
    return float(min((n for n in (1, 2, 5, 10, 20) if n >= wanted), default=20))
