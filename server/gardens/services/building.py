"""The building of a structure: what is told of it, and what was done."""

from __future__ import annotations

import datetime as dt

from ascent.plan import model
from ascent.telling.building import build_report, kept_of
from django.http import Http404

from .. import schemas
from ..models import Thing
from .access import Granted
from .state import State, state_of, whole


def building_of(row: Thing, granted: Granted) -> schemas.BuildOut:
    """Return how a structure is built, and its record where building has begun."""
    state = state_of(row.garden)
    garden = whole(state)
    found = next(((bed, each) for bed in garden.beds for each in bed.structures if each.key == row.key), None)
    if found is None:
        raise Http404
    bed, structure = found
    record = record_of(garden, row.key)
    return schemas.BuildOut(
        id=row.pk,
        key=row.key,
        garden=row.garden_id,
        units=garden.units,
        may_edit=granted.role != "read",
        record=_row(state, record) if record else None,
        kept=kept_of(structure, dt.date.today()),  # noqa: DTZ011 - the day where the server is
        report=build_report(garden, bed, structure, record, garden.units),
    )


def record_of(garden: model.Garden, structure: str) -> model.Record | None:
    """Return the record of a structure as it stands or is being built."""
    return next((record for record in garden.records if record.structure == structure), None)


def _row(state: State, record: model.Record) -> schemas.RecordRow:
    return schemas.RecordRow(
        key=record.key,
        revision=state["record", record.key].revision,
        begun=record.begun,
        joining=record.joining,
        ticks=record.ticks,
        stands=record.stands,
    )
