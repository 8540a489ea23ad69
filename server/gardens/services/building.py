"""The building of a structure: what is told of it, what was done, and what goes out as files."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from importlib import import_module
from typing import Any

from ascent import plan as model
from ascent.analysis.design import geometry_of
from ascent.building.asbuilt import being_built, kept_of
from ascent.drawing.solid import solid_of
from ascent.drawing.views_sheet import views_sheet
from ascent.files.csv_tables import plain_cell
from ascent.report.build_readout import BuildReport
from ascent.report.building import build_report, paper_of
from ascent.report.readout import SolidReport
from ascent.report.solids import solid_report
from ascent.site import Site
from django.http import Http404

from .. import schemas
from ..models import Thing
from .access import Granted
from .clock import today
from .state import State, state_of, whole


@dataclass(frozen=True)
class _Found:
    """A structure in its garden, with its record where building has begun."""

    state: State
    garden: model.Garden
    bed: model.Bed
    structure: model.Structure
    record: model.Record | None

    @classmethod
    def of(cls, row: Thing) -> _Found:
        state = state_of(row.garden)
        garden = whole(state)
        for bed in garden.beds:
            for structure in bed.structures:
                if structure.key == row.key:
                    return cls(state, garden, bed, structure, record_of(garden, row.key))
        raise Http404

    @property
    def told(self) -> BuildReport:
        """Return how it is built."""
        return build_report(self.garden, self.bed, self.structure, self.record, self.garden.units)


def building_of(row: Thing, granted: Granted) -> schemas.BuildOut:
    """Return how a structure is built, and its record where building has begun."""
    found = _Found.of(row)
    return schemas.BuildOut(
        id=row.pk,
        key=row.key,
        garden=row.garden_id,
        bed=found.bed.key,
        units=found.garden.units,
        may_edit=granted.role != "read",
        record=_row(found.state, found.record) if found.record else None,
        kept=kept_of(found.structure, today(found.garden)),
        report=found.told,
    )


def build_pdf(row: Thing, form: str) -> bytes:
    """Return the build sheet of a structure as PDF."""
    found = _Found.of(row)
    day = today(found.garden)
    paper = paper_of(found.garden, found.bed, found.structure, found.record, found.garden.units, day)
    return bytes(file_writer("pdf").write_pdf(paper, form))


def views_dxf(row: Thing) -> str:
    """Return a structure's views as DXF."""
    found = _Found.of(row)
    sheet = views_sheet(found.told.views, found.structure.name, found.garden.units)
    return str(file_writer("dxf").sheet_dxf(sheet))


def round_of(row: Thing) -> SolidReport:
    """Return a structure in the round, as it is being built."""
    found = _Found.of(row)
    site = Site(garden=found.garden, bed=found.bed)
    return solid_report(site, being_built(found.structure), found.garden.units)


def round_glb(row: Thing) -> bytes:
    """Return a structure in the round as binary glTF."""
    found = _Found.of(row)
    structure = being_built(found.structure)
    solid = solid_of(geometry_of(found.bed, structure), found.bed)
    return bytes(file_writer("gltf").solid_gltf(solid, structure.name))


def file_writer(kind: str) -> Any:
    """Return the module that writes a kind of file: half a second to load, seldom asked for."""
    return import_module(f"ascent.files.{kind}")


def stakes_csv(row: Thing) -> str:
    """Return a stake-out as CSV: each place by its two tapes, along its line, and on the plan in metres."""
    stake = _Found.of(row).told.stake
    corners = "; ".join(f"{corner.letter}: {corner.text}" for corner in stake.corners)
    handle = io.StringIO()
    writer = csv.writer(handle)
    writer.writerow(["place", "what", "two tapes", "along its line", "east m", "north m", "corners"])
    for mark in stake.marks:
        east, north = mark.at
        cells = [mark.name, mark.what, mark.tapes, mark.running, f"{east:.3f}", f"{north:.3f}", corners]
        writer.writerow([plain_cell(cell) for cell in cells])
    return handle.getvalue()


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
