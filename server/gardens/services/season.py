"""The season of a garden: what is due in it, and its year."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace
from typing import Any

from ascent import plan as model
from ascent.errors import InvalidPlan, Problem
from ascent.loads.season import date_of, dated, in_next_season, season_year
from ascent.log.seasons import with_past
from ascent.report.season import skipped_words, week_report
from ascent.report.season_readout import YearRow
from ascent.report.shed_door import shed_door_sheet
from ascent.report.year import year_report, year_row
from ascent.season.kept import kept_of
from django.db.models import Q
from django.http import Http404

from .. import schemas
from ..models import Garden, Thing
from .access import Granted, Visitor
from .building import file_writer
from .clock import today
from .log import grew_of, season_log
from .state import PLACE, State, state_of, whole
from .weather import weather_out
from .writing import Wanted, change_garden


def week_out(granted: Granted) -> schemas.WeekOut:
    """Return the days in a garden about today."""
    head, garden = _head(granted)
    log = season_log(granted.garden, garden)
    return schemas.WeekOut(**head, report=week_report(garden, today(garden), log))


def shed_door_pdf(granted: Granted, form: str) -> bytes:
    """Return what is to do on the next days of visits as one page of PDF."""
    garden = whole(state_of(granted.garden))
    report = weather_out(granted).report
    said = [part.words for part in (report.storm, report.cold, report.heat) if part] if report else []
    paper = shed_door_sheet(garden, today(garden), season_log(granted.garden, garden), said)
    return bytes(file_writer("pdf").write_pdf(paper, form))


def year_out(granted: Granted) -> schemas.YearOut:
    """Return a garden's year."""
    head, garden = _head(granted)
    log = season_log(granted.garden, garden)
    return schemas.YearOut(
        **head, report=year_report(with_past(garden, grew_of(granted.garden)), today(garden), log)
    )


def _head(granted: Granted) -> tuple[dict[str, Any], model.Garden]:
    """Return what pages of the season say of a garden, and the garden."""
    state = state_of(granted.garden)
    garden = whole(state)
    head = {
        "id": granted.garden.pk,
        "name": garden.name,
        "units": garden.units,
        "may_edit": granted.role != "read",
        "structures": _standing(state, garden),
    }
    return head, garden


def sown(granted: Granted, sent: schemas.SownIn) -> YearRow:
    """Return a structure's year with a planting of it on another day.

    Raises:
        InvalidPlan: There is no such structure or planting.
    """
    state = state_of(granted.garden, Q(kind="bed") | Q(key=sent.structure))
    held = state.get(("structure", sent.structure))
    if held is None or held.fault or ("bed", held.home) not in state:
        allowed = "the key of a structure of this garden is allowed"
        raise InvalidPlan([Problem("structure", sent.structure, allowed)])
    garden = whole({ref: each for ref, each in state.items() if ref in (PLACE, ("bed", held.home), held.ref)})
    structure = _moved(garden, model.Structure.model_validate(held.document), sent)
    mondays = tuple(sent.monday + dt.timedelta(days=7 * n) for n in range(sent.weeks))
    kept = kept_of(garden, garden.beds[0], structure)
    return year_row(kept, mondays, today(garden), garden.units)


def skipped(row: Thing) -> schemas.SkippedOut:
    """Return what it does to a structure when its picks are missed now."""
    garden = whole(state_of(row.garden))
    for bed in garden.beds:
        for structure in bed.structures:
            if structure.key == row.key:
                return schemas.SkippedOut(words=skipped_words(garden, bed, structure, today(garden)))
    raise Http404


def close(granted: Granted, sent: schemas.CloseIn, visitor: Visitor) -> schemas.Nothing:
    """Close a season of a garden: what grew goes into the past of its beds, what is not cleared keeps its
    dates, and the next year is planned.

    Raises:
        InvalidPlan: It is not the season that is open; somebody else has closed it.
    """

    def make(_garden: Garden, before: State) -> Wanted:
        place = model.Place.model_validate(before[PLACE].document)
        if place.year != sent.year:
            allowed = f"{place.year} is open now, and only that can be closed"
            raise InvalidPlan([Problem("year", str(sent.year), allowed, "Look at the year again.")])
        day, after = today(place), dict(before)
        standing = {
            held.ref: model.Structure.model_validate(held.document)
            for held in before.values()
            if held.kind == "structure" and not held.fault and ("bed", held.home) in before
        }
        diaries = [held.document for held in before.values() if held.kind == "diary" and not held.fault]
        begun = any(
            date_of(place, planting) <= day and season_year(place, planting) == place.year
            for structure in standing.values()
            for planting in structure.plantings
        )
        for ref, structure in standing.items():
            held = before[ref]
            bed = after["bed", held.home]
            past = list(bed.document.get("past", []))
            past += [each for each in _grew(place, structure, past, day) if each not in past]
            after[bed.ref] = replace(bed, document={**bed.document, "past": past[-model.MOST_PAST :]})
            marks: dict[str, Any] = next(
                (each["marks"] for each in diaries if each["structure"] == structure.key), {}
            )
            cleared = {*sent.cleared.get(structure.key, ()), *_ticked(place, structure, marks)}
            goes_on = in_next_season(place, structure.plantings, cleared, day, begun=begun)
            plantings = [planting.model_dump(mode="json") for planting in goes_on]
            after[ref] = replace(held, document={**held.document, "plantings": plantings})
        document = {**before[PLACE].document, "year": min(place.year + 1, 2200)}
        after[PLACE] = replace(before[PLACE], document=document)
        return Wanted(after)

    change_garden(granted.garden.pk, visitor, make)
    return schemas.Nothing()


def _grew(
    place: model.Place, structure: model.Structure, past: list[dict[str, Any]], day: dt.date
) -> list[dict[str, Any]]:
    """Return what grew on a structure in the season that is closed; what went on from the one before it was
    kept then.
    """
    before = {(each["crop"], each.get("structure")) for each in past if each["year"] == place.year - 1}
    return [
        {"year": place.year, "crop": planting.crop, "structure": structure.name[:64], "fault": ""}
        for planting in structure.plantings
        if date_of(place, planting) <= day
        and not (planting.year and (planting.crop, structure.name[:64]) in before)
    ]


def _ticked(place: model.Place, structure: model.Structure, marks: dict[str, Any]) -> list[str]:
    """Return the keys of plantings that are ticked as cleared."""
    return [
        planting.key
        for planting in structure.plantings
        if f"{season_year(place, planting)}.{planting.key}.clear.1" in marks
    ]


def _moved(place: model.Place, structure: model.Structure, sent: schemas.SownIn) -> model.Structure:
    if sent.planting not in {planting.key for planting in structure.plantings}:
        raise InvalidPlan([Problem("planting", sent.planting, "the key of a planting of it is allowed")])
    return structure.model_copy(
        update={
            "plantings": tuple(
                dated(place, planting, sent.planted) if planting.key == sent.planting else planting
                for planting in structure.plantings
            )
        }
    )


def _standing(state: State, garden: model.Garden) -> list[schemas.Standing]:
    return [
        schemas.Standing(
            id=state["structure", structure.key].id or 0, key=structure.key, name=structure.name, bed=bed.name
        )
        for bed in garden.beds
        for structure in bed.structures
    ]
