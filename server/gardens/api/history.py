"""A garden's history, and undoing."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field

from .. import schemas
from ..services import access, edits, history
from .visitor import REFUSED, answer, visitor_of

router = Router()
_Refused = {409: schemas.Problems, **REFUSED}
Number = Annotated[int, Field(ge=0, le=10**9)]


@router.post("/gardens/{garden_id}/undo", response={200: schemas.GardenOut, **_Refused})
def undo(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Undo the visitor's last change that is not undone yet."""
    visitor = visitor_of(request)
    return answer(edits.undo(access.garden_for(visitor, garden_id, "edit"), visitor))


@router.post("/gardens/{garden_id}/redo", response={200: schemas.GardenOut, **_Refused})
def redo(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Redo what was undone last."""
    visitor = visitor_of(request)
    return answer(edits.redo(access.garden_for(visitor, garden_id, "edit"), visitor))


@router.get("/gardens/{garden_id}/history", response={200: list[schemas.ChangeOut], **REFUSED})
def changes(request: HttpRequest, garden_id: int, before: Number | None = None) -> list[schemas.ChangeOut]:
    """Return the latest changes, or those before a number."""
    visitor = visitor_of(request)
    return history.history(access.garden_for(visitor, garden_id), visitor, before)


@router.get("/gardens/{garden_id}/history/{number}", response={200: schemas.Past, **REFUSED})
def past(request: HttpRequest, garden_id: int, number: Number) -> schemas.Past:
    """Return the plan as it was after a change; 0 is how it began."""
    visitor = visitor_of(request)
    return history.past(access.garden_for(visitor, garden_id), visitor, number)


@router.post("/gardens/{garden_id}/history/{number}/restore", response={200: schemas.GardenOut, **_Refused})
def restore(request: HttpRequest, garden_id: int, number: Number) -> schemas.GardenOut:
    """Restore the garden as it was after a change."""
    visitor = visitor_of(request)
    return history.restore(access.garden_for(visitor, garden_id, "edit"), number, visitor)
