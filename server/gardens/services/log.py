"""The log of a garden: what happened, page by page, and what a line says."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable

from ascent import plan as model
from ascent import tables
from ascent.analysis.design import geometry_of
from ascent.errors import InvalidPlan, Problem
from ascent.files.svg import sheet_svg
from ascent.log.harvest_table import harvest_csv, harvest_sheet
from ascent.log.line import read_entry
from ascent.log.now import Break, open_breaks, whole_log
from ascent.log.seasons import Grew, PickedWeek, picked_by_week
from ascent.plan.entries import Entry
from ascent.plan.structure import as_it_stands
from ascent.report.life import life_report
from ascent.report.log import Where, broken_words, entry_words, log_kinds, place_words, written_of
from ascent.report.season_parts import date_text
from ascent.report.years import years_report
from ascent.site import plain_site
from ascent.weather.course import turn_of
from django.db.models import Q
from django.http import Http404

from .. import schemas
from ..models import Garden, Thing
from .access import Granted, Visitor, by_link
from .clock import today
from .known import Known, known_of
from .state import held_from, log_of

PAGE = 60
_BEFORE = dt.timedelta(days=150)  # the day a garden’s year turns on that something of its season may happen
_OF_YEARS = ("harvest", "break", "repair", "storm", "hours", "cost", "water")
_LASTING = ("break", "repair", "storm")  # what is true until something else is written


def season_log(garden: Garden, place: model.Place) -> list[Entry]:
    """Return what happened in a garden that its present season hangs on."""
    return log_of(garden, Q(on__gte=turn_of(place) - _BEFORE) | Q(kind__in=_LASTING))


def log_out(granted: Granted, asked: schemas.LogAsked, visitor: Visitor) -> schemas.LogOut:
    """Return a page of a garden's log; who comes by a link is not told who wrote it.

    Raises:
        InvalidPlan: The mark that it is to go on from is none.
    """
    known = known_of(granted.garden)
    core, nameless = known.core, by_link(visitor, granted.garden)
    rows = granted.garden.entries.order_by("-on", "-pk")
    if asked.kind:
        rows = rows.filter(kind=asked.kind)
    if asked.about:
        rows = rows.filter(Q(structure=asked.about) | Q(bed=asked.about))
    if asked.before:
        day, number = _mark(asked.before)
        rows = rows.filter(Q(on__lt=day) | Q(on=day, pk__lt=number))
    found = list(rows.values_list("pk", "key", "document", "form", "revision")[: PAGE + 1])
    shown: list[tuple[Entry, int]] = []
    for _, key, document, form, revision in found[:PAGE]:
        held = held_from("entry", key, "", document, form)
        if not held.fault:
            entry = Entry.model_validate(held.document)
            shown.append((entry.model_copy(update={"who": ""}) if nameless else entry, revision))
    where = _where(core, [entry for entry, _ in shown])
    ids = {held.key: held.id for held in known.state.values() if held.kind == "structure"}
    last = found[PAGE - 1] if len(found) > PAGE else None
    return schemas.LogOut(
        id=granted.garden.pk,
        name=core.name,
        units=core.units,
        may_edit=granted.role != "read",
        today=today(core),
        kinds=log_kinds(),
        places=_places(core),
        crops=[(row.key, row.name) for row in tables.crops().values()],
        rows=[
            schemas.EntryRow(
                key=entry.key,
                revision=revision,
                name=tables.log_kinds()[entry.kind].name,
                label=_label(entry.on, core),
                words=entry_words(entry, core.units, core.currency, where),
                place=place_words(entry, where),
                structure=ids.get(entry.structure or ""),
                written=written_of(entry, core.units, where),
                fields=entry,
            )
            for entry, revision in shown
        ],
        next=f"{last[2]['on']}.{last[0]}" if last else "",
    )


def _mark(text: str) -> tuple[dt.date, int]:
    day, _, number = text.partition(".")
    try:
        return dt.date.fromisoformat(day), int(number)
    except ValueError as error:
        raise InvalidPlan([Problem("before", text, "the mark that a page ended with is allowed")]) from error


def _label(on: dt.date, core: model.Garden) -> str:
    return date_text(on, today(core).year)


def _places(core: model.Garden) -> list[schemas.LogPlace]:
    found = []
    for bed in core.beds:
        found += [
            schemas.LogPlace(
                key=each.key,
                name=each.name,
                support=True,
                crops=list(dict.fromkeys(planting.crop for planting in each.plantings)),
            )
            for each in bed.structures
        ]
        found.append(schemas.LogPlace(key=bed.key, name=bed.name, support=False, crops=[]))
    return found


def _where(core: model.Garden, entries: Iterable[Entry]) -> Where:
    """Return what the keys of entries mean in a garden."""
    named = {entry.structure for entry in entries if entry.member}
    names = {bed.key: bed.name for bed in core.beds}
    geometries = {}
    for bed in core.beds:
        for structure in bed.structures:
            names[structure.key] = structure.name
            if structure.key in named:
                geometries[structure.key] = geometry_of(bed, structure)
    return Where(names, geometries)


def line_read(granted: Granted, sent: schemas.LogLineIn) -> schemas.LogLineOut:
    """Return what a line says happened. Nothing is stored.

    Raises:
        InvalidPlan: It says something that cannot be.
    """
    known: Known = known_of(granted.garden)
    core = known.core
    entry = read_entry(sent.line, core, "line", dt.datetime.now(dt.UTC), today(core), sent.about)
    where = _where(core, [entry])
    return schemas.LogLineOut(
        name=tables.log_kinds()[entry.kind].name,
        label=_label(entry.on, core),
        words=entry_words(entry, core.units, core.currency, where),
        place=place_words(entry, where),
    )


def broken_in(known: Known) -> dict[str, str]:
    """Return what is broken and not mended, in words, by the keys of its supports; calculated once for a
    garden at one number.
    """
    return known.once("broken", lambda: _broken(known))


def _broken(known: Known) -> dict[str, str]:
    found = {}
    breaks = breaks_in(known)
    for bed in known.core.beds:
        site = plain_site(known.core, bed)
        for structure in bed.structures:
            if structure.key in breaks:
                standing = as_it_stands(structure)
                geometry = geometry_of(bed, standing)
                found[structure.key] = broken_words(breaks[structure.key], site, standing, geometry)
    return found


def breaks_in(known: Known) -> dict[str, list[Break]]:
    """Return what is broken and not mended, by the keys of its supports."""
    return known.once("breaks", lambda: _breaks(known))


def _breaks(known: Known) -> dict[str, list[Break]]:
    core = known.core
    happened = whole_log(core, log_of(known.garden, Q(kind__in=_LASTING)))
    diaries = {diary.structure: diary for diary in core.diaries}
    found = {}
    for bed in core.beds:
        for structure in bed.structures:
            breaks = open_breaks(core, structure.key, happened, diaries.get(structure.key))
            if breaks:
                found[structure.key] = breaks
    return found


def grew_of(garden: Garden) -> set[Grew]:
    """Return what was picked where in which year."""
    rows = garden.entries.filter(kind="harvest").exclude(structure="")
    return {
        (structure, crop, year)
        for structure, crop, year in rows.values_list("structure", "document__crop", "on__year").distinct()
        if crop in tables.crops()
    }


def years_out(granted: Granted) -> schemas.YearsOut:
    """Return a garden's years side by side."""
    core = known_of(granted.garden).core
    report = years_report(core, log_of(granted.garden, Q(kind__in=_OF_YEARS)), today(core))
    return schemas.YearsOut(id=granted.garden.pk, report=report)


def harvest_csv_of(granted: Granted) -> str:
    """Return what was picked in a garden by week and crop as CSV."""
    core, weeks = _picked_weeks(granted)
    return harvest_csv(weeks, core.units)


def harvest_svg_of(granted: Granted) -> str:
    """Return what was picked in a garden by week and crop as a drawing."""
    core, weeks = _picked_weeks(granted)
    return sheet_svg(harvest_sheet(weeks, core.name, core.units))


def _picked_weeks(granted: Granted) -> tuple[model.Garden, list[PickedWeek]]:
    core = known_of(granted.garden).core
    return core, picked_by_week(whole_log(core, log_of(granted.garden, Q(kind="harvest"))))


def life_out(row: Thing) -> schemas.LifeOut:
    """Return the life of a support.

    Raises:
        Http404: Its bed cannot be read.
    """
    core = known_of(row.garden).core
    for bed in core.beds:
        for structure in bed.structures:
            if structure.key == row.key:
                place = Q(structure=row.key) | Q(bed=bed.key, structure="") | Q(structure="", bed="")
                log = log_of(row.garden, place)
                report = life_report(core, bed, structure, log, _where(core, log), today(core))
                return schemas.LifeOut(
                    id=row.pk,
                    key=row.key,
                    name=structure.name,
                    garden=row.garden_id,
                    bed_name=bed.name,
                    report=report,
                )
    raise Http404
