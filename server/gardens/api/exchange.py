"""Files in and out."""

from __future__ import annotations

import io

from django.http import FileResponse, HttpRequest, HttpResponse
from ninja import Router

from .. import schemas
from ..services import access, archive, exchange
from .gardens import file_answer
from .throttling import heavy
from .visitor import REFUSED, visitor_of

router = Router()


@router.get("/gardens/{garden_id}/plan.json", response={200: str, **REFUSED})
def plan(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return the whole garden as a garden file."""
    visitor = visitor_of(request)
    text = exchange.plan_text(access.garden_for(visitor, garden_id), visitor)
    return file_answer(text, "application/json", f"garden-{garden_id}.plan.json")


@router.get("/gardens/{garden_id}/archive.zip", response={200: str, **REFUSED})
@heavy
def archive_out(request: HttpRequest, garden_id: int) -> FileResponse:
    """Return the garden file and the photos of its log in one zip."""
    visitor = visitor_of(request)
    handle = archive.archive_of(access.garden_for(visitor, garden_id), visitor)
    return FileResponse(handle, as_attachment=True, filename=f"garden-{garden_id}.zip")


@router.post("/gardens/{garden_id}/archive", response={200: schemas.ArchiveOut, **REFUSED})
@heavy
def archive_in(request: HttpRequest, garden_id: int) -> schemas.ArchiveOut:
    """Keep the photos of a zip and return its garden file, to be previewed and imported as any other. Nothing
    else is stored; a photo that no entry comes to show is deleted after a month.
    """
    granted = access.garden_for(visitor_of(request), garden_id, "edit")
    return schemas.ArchiveOut(text=archive.taken_in(granted.garden, io.BytesIO(request.read())))


@router.get("/gardens/{garden_id}/tables/{what}.csv", response={200: str, **REFUSED})
def table(request: HttpRequest, garden_id: int, what: schemas.Table) -> HttpResponse:
    """Return beds, plantings, materials, the shed or the log as CSV."""
    visitor = visitor_of(request)
    text = exchange.table_text(access.garden_for(visitor, garden_id), what, visitor)
    return file_answer(text, "text/csv; charset=utf-8", f"garden-{garden_id}-{what}.csv")


@router.get("/gardens/{garden_id}/plot.svg", response={200: str, **REFUSED})
@heavy
def plot(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return the garden plan as SVG."""
    text = exchange.plot_svg(access.garden_for(visitor_of(request), garden_id))
    return file_answer(text, "image/svg+xml", f"garden-{garden_id}.svg")


@router.get("/structures/{structure_id}/views.svg", response={200: str, **REFUSED})
@heavy
def views(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return the views of a support as SVG."""
    row, granted = access.structure_for(visitor_of(request), structure_id)
    return file_answer(exchange.structure_svg(row, granted), "image/svg+xml", f"structure-{row.pk}.svg")


@router.post("/gardens/{garden_id}/import/preview", response={200: schemas.ImportOut, **REFUSED})
@heavy
def preview(request: HttpRequest, garden_id: int, sent: schemas.ImportIn) -> schemas.ImportOut:
    """Return what a file would add, change and remove. Nothing is stored."""
    return exchange.preview(access.garden_for(visitor_of(request), garden_id, "edit"), sent)


@router.post(
    "/gardens/{garden_id}/import", response={200: schemas.GardenOut, 409: schemas.Conflict, **REFUSED}
)
@heavy
def take_in(request: HttpRequest, garden_id: int, sent: schemas.ImportDo) -> schemas.GardenOut:
    """Import a file that was previewed. Returns 409 when the garden has changed since."""
    visitor = visitor_of(request)
    return exchange.take_in(access.garden_for(visitor, garden_id, "edit"), sent, visitor)


@router.post("/gardens/import", response={200: schemas.GardenOut, **REFUSED})
@heavy
def new_from_plan(request: HttpRequest, sent: schemas.ImportIn) -> schemas.GardenOut:
    """Make a garden from a garden file."""
    return exchange.new_from_plan(visitor_of(request), sent)
