"""What follows what, what comes in, and what came too late, in words."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Mapping, Sequence

import numpy as np

from .. import tables
from ..log.now import closed, picked_of
from ..mechanics import Array
from ..plan.bed import Bed
from ..plan.garden import Garden
from ..season.forecast import HarvestForecast, forecast_of
from ..season.harvest import Harvest, gluts_and_gaps, harvest_of, measured
from ..season.kept import Kept
from ..season.repairs import what_broke
from ..season.rescue import Rescue, rescue_of
from ..season.rotation import next_on, too_soon
from ..season.succession import SuccessionConflict, WayOut, clashes_of
from ..season.tasks import Tended
from ..words.quantities import System, write
from ..words.texts import template
from .season_readout import ClashReport, HarvestReport, HarvestRow, HarvestWeek, RescueReport, TurnReport

_CRUMB = 0.05  # that is not worth saying [kg]
_NAMED = 3  # crops of a week that are named
_LONG_AGO = 50  # years


def date_text(day: dt.date, year: int | None = None) -> str:
    """Return a day in words: ‘4 May’, with its year where that is not the year of the page."""
    said = f"{day.day} {day:%B}"
    return said if year is None or day.year == year else f"{said} {day.year}"


def _name(crop: str) -> str:
    return tables.crops()[crop].name


def _short(crop: str) -> str:
    """Return a crop’s name as it stands in a sentence."""
    return tables.crops()[crop].called


# -- what happened


def waits_words(each: Kept, crop: str, on: dt.date) -> str:
    """Return why a crop may not be picked on a day, nothing where it may: its support is broken, or it was
    treated.
    """
    if each.breaks:
        return template("log.paused").format(what=what_broke(each.tended, each.breaks[0]))
    if "treatment" in each.tended.site.garden.ignores:
        return ""
    found = closed(each.log, each.bed.key, each.structure.key, crop, on)
    if found is None:
        return ""
    words = {"until": date_text(found.until), "what": found.entry.what, "days": str(found.entry.waits)}
    return template("log.closed").format(**words)


# -- one after the other


def clash_reports(tended: Tended) -> Iterator[ClashReport]:
    """Yield what is between crops that follow one another on a structure."""
    place, structure = tended.site.garden, tended.structure
    crops = {planting.key: _name(planting.crop) for planting in structure.plantings}
    starts = {grown.planting.key: grown.date(grown.course.start) for grown in tended.grown}
    for clash in clashes_of(place, structure):
        words = {"first": crops[clash.first], "second": crops[clash.second], "days": str(clash.days)}
        yield ClashReport(
            structure=structure.key,
            first=clash.first,
            second=clash.second,
            words=template(f"follows.{clash.kind}").format(**words),
            ways=tuple(_way(way, clash, words, starts) for way in clash.ways),
        )


def _way(way: WayOut, clash: SuccessionConflict, words: dict[str, str], starts: dict[str, dt.date]) -> str:
    later = starts[clash.second] + dt.timedelta(days=way.days)
    named = ", ".join(_name(crop) for crop in way.crops)
    return template(f"follows.way.{way.kind}").format(
        **{**words, "days": way.days}, date=date_text(later), crops=named
    )


# -- over the years


def turn_report(garden: Garden, bed: Bed) -> TurnReport:
    """Return a bed through the years, and what may come next year."""
    years: dict[int, list[str]] = {}
    for past in bed.past:
        fault = f" ({past.fault})" if past.fault else ""
        years.setdefault(past.year, []).append(_name(past.crop) + fault)
    now = sorted({_name(p.crop) for structure in bed.structures for p in structure.plantings})
    return TurnReport(
        bed=bed.key,
        name=bed.name,
        past=tuple(
            template("turn.grew").format(year=year, crops=", ".join(years[year]))
            for year in sorted(years, reverse=True)
        ),
        now=", ".join(now),
        warnings=tuple(
            template(f"turn.{turn.level}").format(
                family=_family(turn.family), ago=_ago(turn.years), year=garden.year - turn.years + 3
            )
            for turn in too_soon(bed, garden.year)
        ),
        next=tuple(
            template("turn.new" if each.years >= _LONG_AGO else "turn.next").format(
                family=_family(each.family),
                years=each.years,
                crops=", ".join(_short(crop) for crop in each.crops),
            )
            for each in next_on(garden, bed, garden.year + 1)[:_NAMED]
        ),
    )


def _family(family: str) -> str:
    said = template(f"family-name.{family}")
    return said[:1].upper() + said[1:]


def _ago(years: int) -> str:
    return template("turn.last-year" if years <= 1 else "turn.years-ago").format(years=years)


# -- what comes in


def _weight(kg: float, system: System, crop: str = "") -> str:
    """Return a weight as people say it; of one crop in the measure too that it is sold by."""
    said = write(kg, "mass", system)
    measure = measured(crop, kg) if crop and system == "imperial" else None
    if measure is None:
        return said
    count, name = measure
    return f"{said} ({count:.1f} {name}{'' if round(count, 1) == 1 else 's'})"


def harvest_report(
    garden: Garden, kept: Sequence[Kept], mondays: Sequence[dt.date], today: dt.date
) -> HarvestReport:
    """Return what a garden brings in by week, with its spread; which weeks are gluts and gaps. Past weeks are
    as they were where anything was weighed, and the rest follows from them.
    """
    forecasts = [
        (
            each,
            grown.planting.crop,
            _forecast(each, grown.planting.crop, harvest_of(grown, mondays), mondays, today),
        )
        for each in kept
        for grown in each.tended.grown
    ]
    found: list[tuple[Kept, str, Harvest]] = [
        (each, crop, told.harvest if isinstance(told, HarvestForecast) else told)
        for each, crop, told in forecasts
    ]
    came = {
        (each.structure.key, crop): told
        for each, crop, told in forecasts
        if isinstance(told, HarvestForecast)
    }
    none: Array = np.zeros(len(mondays))
    usual = sum((harvest.usual for _, _, harvest in found), none)
    low = sum((harvest.low for _, _, harvest in found), none)
    high = sum((harvest.high for _, _, harvest in found), none)
    gluts, gaps = gluts_and_gaps(usual)
    weeks = []
    for week, monday in enumerate(mondays):
        if usual[week] < _CRUMB and week not in gaps:
            continue
        by_crop: dict[str, float] = {}
        for _, crop, harvest in found:
            by_crop[crop] = by_crop.get(crop, 0.0) + float(harvest.usual[week])
        leading = sorted(
            (crop for crop in by_crop if by_crop[crop] > _CRUMB), key=lambda crop: -by_crop[crop]
        )
        weeks.append(
            HarvestWeek(
                monday=monday,
                label=date_text(monday),
                words=_spread(usual[week], low[week], high[week], garden.units),
                kg=round(float(usual[week]), 2),
                low=round(float(low[week]), 2),
                high=round(float(high[week]), 2),
                crops=tuple(
                    f"{_name(crop)} {_weight(by_crop[crop], garden.units, crop)}" for crop in leading[:_NAMED]
                ),
                mark="glut" if week in gluts else "gap" if week in gaps else "",
            )
        )
    sums = np.sum([harvest.totals for _, _, harvest in found] or [(0.0, 0.0, 0.0)], axis=0)
    least, total, most = (write(float(each), "mass", garden.units) for each in sums)
    return HarvestReport(
        total=template("harvest.total").format(total=total, low=least, high=most),
        weeks=tuple(weeks),
        rows=tuple(_harvest_row(each, found, came, garden.units) for each in kept),
    )


def _forecast(
    each: Kept, crop: str, harvest: Harvest, mondays: Sequence[dt.date], today: dt.date
) -> HarvestForecast | Harvest:
    """Return a harvest as it is forecast from what was picked, or as it was before where nothing was."""
    if "harvest" in each.tended.site.garden.ignores:
        return harvest
    return forecast_of(harvest, mondays, picked_of(each.log, each.structure.key, crop), today) or harvest


def _came_words(told: HarvestForecast, system: System) -> str:
    words = {"came": write(told.came, "mass", system), "meant": write(told.meant, "mass", system)}
    change = round(100 * (told.factor - 1))
    key = "log.came-as-meant" if not change else "log.came-less" if change < 0 else "log.came-more"
    return template(key).format(**words, percent=abs(change))


def _spread(usual: float, low: float, high: float, system: System) -> str:
    written = [write(float(each), "mass", system) for each in (usual, low, high)]
    return template("harvest.week").format(usual=written[0], low=written[1], high=written[2])


def _harvest_row(
    each: Kept,
    found: Sequence[tuple[Kept, str, Harvest]],
    came: Mapping[tuple[str, str], HarvestForecast],
    system: System,
) -> HarvestRow:
    own = [(crop, harvest) for of, crop, harvest in found if of is each]
    weeks = sum((harvest.usual for _, harvest in own), np.zeros(len(own[0][1].usual)))
    told = [
        f"{_name(crop)}: {_weight(float(np.sum(harvest.usual)), system, crop)}"
        for crop, harvest in own
        if np.sum(harvest.usual) > 0
    ]
    return HarvestRow(
        structure=each.structure.key,
        words="; ".join(told) or template("harvest.nothing"),
        came=" ".join(
            _came_words(came[each.structure.key, crop], system)
            for crop in dict.fromkeys(crop for crop, _ in own)
            if (each.structure.key, crop) in came
        ),
        weeks=tuple(round(float(kg), 2) for kg in weeks),
    )


# -- too late


def rescues(garden: Garden, kept: Sequence[Kept], today: dt.date) -> Iterator[RescueReport]:
    """Yield the supports that are not built although their plants have stood for a while."""
    begun = {record.structure for record in garden.records}
    begun |= {diary.structure for diary in garden.diaries if any(".build" in key for key in diary.marks)}
    for each in kept:
        if each.structure.key in begun or each.structure.built is not None:
            continue
        planted = min(grown.date(grown.course.start) for grown in each.tended.grown)
        gone = max(grown.date(grown.course.end) for grown in each.tended.grown)
        if not planted < today < gone:
            continue
        rescue = rescue_of(each.bed, each.tended.geometry, (today - planted).days)
        if rescue is not None:
            yield _rescue(each, rescue, garden.units)


def _rescue(each: Kept, rescue: Rescue, system: System) -> RescueReport:
    words = {
        "name": each.structure.name,
        "days": rescue.days,
        "roots": write(rescue.roots, "length", system),
        "inside": rescue.inside,
        "driven": rescue.driven,
    }
    return RescueReport(
        structure=each.structure.key,
        words=template("rescue.words" if rescue.inside else "rescue.clear").format(**words),
        ways=tuple(template(f"rescue.{way}").format(**words) for way in rescue.ways),
    )
