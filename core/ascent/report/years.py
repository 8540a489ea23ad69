"""Years side by side: what grew at each place, what it bore, what failed, what it cost."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from .. import tables
from ..log.now import DAMAGED, whole_log
from ..log.seasons import grew_in, with_past
from ..plan.bed import Bed
from ..plan.entries import Entry
from ..plan.fields import Typed
from ..plan.garden import Garden
from ..wording import money, time_text
from ..words.quantities import write
from ..words.texts import template

MOST_YEARS = 8
_SHORT = 90  # letters of a change that are told


class YearColumn(Typed):
    """A year: what came in all, and the strongest gust that was written."""

    year: int
    came: str
    gust: str


class YearCell(Typed):
    """A place in a year: its crops; in lines what it bore, what failed, what was changed, work and cost."""

    crops: str
    lines: tuple[str, ...]


class YearPlace(Typed):
    """A bed through the years, the latest first."""

    bed: str
    name: str
    cells: tuple[YearCell, ...]


class YearsReport(Typed):
    """A garden’s years side by side, the latest first; places of which nothing is known in any are left
    out.
    """

    columns: tuple[YearColumn, ...]
    places: tuple[YearPlace, ...]


def years_report(garden: Garden, log: Sequence[Entry], today: dt.date) -> YearsReport:
    """Return a garden’s years side by side.

    Args:
        garden: With its beds and what grew on them.
        log: All that happened in it.
        today: Of the garden.
    """
    happened = whole_log(garden, log)
    known = with_past(garden, grew_in(happened))
    years = {entry.on.year for entry in happened} | {past.year for bed in known.beds for past in bed.past}
    shown = sorted(
        (year for year in {*years, garden.year} if year <= max(today.year, garden.year)), reverse=True
    )
    shown = shown[:MOST_YEARS]
    homes = {structure.key: bed.key for bed in known.beds for structure in bed.structures}
    own: dict[tuple[str, int], list[Entry]] = {}
    for entry in happened:
        place = homes.get(entry.structure or "", entry.bed or "")
        own.setdefault((place, entry.on.year), []).append(entry)
    places = []
    for bed in known.beds:
        cells = tuple(_cell(garden, bed, own.get((bed.key, year), ()), year) for year in shown)
        if any(cell.crops or cell.lines for cell in cells):
            places.append(YearPlace(bed=bed.key, name=bed.name, cells=cells))
    return YearsReport(columns=tuple(_column(garden, happened, year) for year in shown), places=tuple(places))


def _column(garden: Garden, log: Sequence[Entry], year: int) -> YearColumn:
    came = sum(entry.kg or 0.0 for entry in log if entry.kind == "harvest" and entry.on.year == year)
    gusts = [entry.gust for entry in log if entry.kind == "storm" and entry.gust and entry.on.year == year]
    gust = write(max(gusts), "speed", garden.units) if gusts else ""
    return YearColumn(
        year=year,
        came=write(came, "mass", garden.units) if came else "",
        gust=template("years.gust").format(gust=gust) if gust else "",
    )


def _cell(garden: Garden, bed: Bed, entries: Sequence[Entry], year: int) -> YearCell:
    crops = dict.fromkeys(past.crop for past in bed.past if past.year == year)
    if year == garden.year:
        crops |= dict.fromkeys(
            planting.crop for structure in bed.structures for planting in structure.plantings
        )
    faults = [past.fault for past in bed.past if past.year == year and past.fault]
    lines = []
    came = sum(entry.kg or 0.0 for entry in entries if entry.kind == "harvest")
    if came:
        lines.append(template("years.came").format(came=write(came, "mass", garden.units)))
    failed = sum(entry.kind == "break" or entry.found in DAMAGED for entry in entries)
    if failed:
        lines.append(template("years.failed").format(count=failed))
    lines += [
        template("years.changed").format(what=entry.note[:_SHORT])
        for entry in entries
        if entry.kind == "repair" and entry.note
    ]
    lines += faults
    minutes = sum(entry.minutes or 0.0 for entry in entries)
    if minutes:
        lines.append(template("years.work").format(work=time_text(minutes)))
    paid = sum(entry.cost or 0.0 for entry in entries)
    if paid:
        lines.append(template("years.paid").format(paid=money(paid, garden.currency)))
    return YearCell(crops=", ".join(tables.crops()[crop].called for crop in crops), lines=tuple(lines))
