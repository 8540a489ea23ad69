"""Building a structure: its steps, and what goes out of it as files."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router

from .. import schemas
from ..services import access
from ..services import building as work
from ..services.scale import scale_out
from .gardens import file_answer
from .throttling import heavy
from .visitor import REFUSED, answer, visitor_of

router = Router()


@router.get("/structures/{structure_id}/building", response={200: schemas.BuildOut, **REFUSED})
@heavy
def building(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return how a support is built, and what is done of it."""
    return answer(work.building_of(*access.structure_for(visitor_of(request), structure_id)))


@router.get("/structures/{structure_id}/round", response={200: schemas.SolidReport, **REFUSED})
@heavy
def as_built_round(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return a support in three dimensions, as it is being built."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return answer(work.round_of(row))


@router.get("/structures/{structure_id}/build.pdf", response={200: str, **REFUSED})
@heavy
def build_pdf(request: HttpRequest, structure_id: int, form: Literal["A4", "Letter"] = "A4") -> HttpResponse:
    """Return the build sheet as a PDF."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return file_answer(work.build_pdf(row, form), "application/pdf", f"build-{row.pk}.pdf")


@router.get("/structures/{structure_id}/views.dxf", response={200: str, **REFUSED})
@heavy
def views_dxf(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return the views of a support as DXF, in millimetres."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return file_answer(work.views_dxf(row), "image/vnd.dxf", f"views-{row.pk}.dxf")


@router.get("/structures/{structure_id}/round.glb", response={200: str, **REFUSED})
@heavy
def round_glb(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return a support in three dimensions as binary glTF, in metres."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return file_answer(work.round_glb(row), "model/gltf-binary", f"round-{row.pk}.glb")


@router.get("/structures/{structure_id}/stakes.csv", response={200: str, **REFUSED})
@heavy
def stakes_csv(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return the place of each post, foot and anchor as CSV."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return file_answer(work.stakes_csv(row), "text/csv; charset=utf-8", f"stakes-{row.pk}.csv")


@router.post("/gardens/{garden_id}/scale", response={200: schemas.ScaleOut, **REFUSED})
@heavy
def scale(request: HttpRequest, garden_id: int) -> schemas.ScaleOut:
    """Read the scale once it is at rest. Nothing is stored."""
    return scale_out(access.garden_for(visitor_of(request), garden_id, "edit"))
