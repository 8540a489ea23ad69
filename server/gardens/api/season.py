"""The season of a garden: this week, and the year."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from .. import schemas
from ..services import access, season
from .turns import heavy, live
from .visitor import REFUSED, answer, visitor_of

router = Router()


@router.get("/gardens/{garden_id}/week", response={200: schemas.WeekOut, **REFUSED})
@heavy
def week(request: HttpRequest, garden_id: int) -> HttpResponse:
    """What is due in a garden today, what was left, and what comes."""
    return answer(season.week_out(access.garden_for(visitor_of(request), garden_id)))


@router.get("/gardens/{garden_id}/year", response={200: schemas.YearOut, **REFUSED})
@heavy
def year(request: HttpRequest, garden_id: int) -> HttpResponse:
    """A garden's year: every structure with what grows on it."""
    return answer(season.year_out(access.garden_for(visitor_of(request), garden_id)))


@router.post("/gardens/{garden_id}/year/draft", response={200: schemas.YearRow, **REFUSED})
@live
def sown(request: HttpRequest, garden_id: int, sent: schemas.SownIn) -> HttpResponse:
    """A structure's year while a hand moves one of its plantings; nothing is stored."""
    return answer(season.sown(access.garden_for(visitor_of(request), garden_id), sent))
