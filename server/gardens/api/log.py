"""The log of a garden."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from .. import schemas
from ..services import access, learning, log, photos
from .gardens import file_answer
from .throttling import brisk, heavy, live
from .visitor import REFUSED, answer, visitor_of

router = Router()


@router.get("/gardens/{garden_id}/log", response={200: schemas.LogOut, **REFUSED})
def log_page(request: HttpRequest, garden_id: int, asked: Query[schemas.LogAsked]) -> schemas.LogOut:
    """Return what happened in a garden, the latest first, a page at a time."""
    visitor = visitor_of(request)
    return log.log_out(access.garden_for(visitor, garden_id), asked, visitor)


@router.get("/gardens/{garden_id}/lessons", response={200: schemas.LessonsOut, **REFUSED})
@heavy
def lessons(request: HttpRequest, garden_id: int) -> schemas.LessonsOut:
    """Return what the log of a garden teaches, and how far it would move the verdicts."""
    return learning.lessons_out(access.garden_for(visitor_of(request), garden_id))


@router.get("/gardens/{garden_id}/years", response={200: schemas.YearsOut, **REFUSED})
@brisk
def years(request: HttpRequest, garden_id: int) -> schemas.YearsOut:
    """Return a garden's years side by side: what grew where, what it bore, what failed."""
    return log.years_out(access.garden_for(visitor_of(request), garden_id))


@router.get("/gardens/{garden_id}/harvest.csv", response={200: str, **REFUSED})
def harvest_table(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return what was picked by week and crop as CSV."""
    text = log.harvest_csv_of(access.garden_for(visitor_of(request), garden_id))
    return file_answer(text, "text/csv; charset=utf-8", f"garden-{garden_id}-harvest.csv")


@router.get("/gardens/{garden_id}/harvest.svg", response={200: str, **REFUSED})
def harvest_drawing(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return what was picked by week and crop as a drawing."""
    text = log.harvest_svg_of(access.garden_for(visitor_of(request), garden_id))
    return file_answer(text, "image/svg+xml", f"garden-{garden_id}-harvest.svg")


@router.post("/gardens/{garden_id}/log/read", response={200: schemas.LogLineOut, **REFUSED})
@live
def log_line(request: HttpRequest, garden_id: int, sent: schemas.LogLineIn) -> schemas.LogLineOut:
    """Return what a typed line says happened. Nothing is stored."""
    return log.line_read(access.garden_for(visitor_of(request), garden_id), sent)


@router.get("/gardens/{garden_id}/photos/{sha}", response={200: str, **REFUSED})
def photo(request: HttpRequest, garden_id: int, sha: str, small: bool = False) -> HttpResponse:
    """Return a photo of the log."""
    granted = access.garden_for(visitor_of(request), garden_id)
    found = HttpResponse(photos.photo(granted.garden, sha, small), content_type="image/jpeg")
    found["Cache-Control"] = "private, max-age=31536000, immutable"
    found["X-Content-Type-Options"] = "nosniff"
    return found


@router.get("/structures/{structure_id}/life", response={200: schemas.LifeOut, **REFUSED})
@heavy
def life(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return the life of a support: what happened to it, what it bore, what it cost."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return answer(log.life_out(row))
