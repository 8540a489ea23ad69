"""Gardens and their plans."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router
from pydantic import Field

from .. import schemas
from ..services import access, edits, garden, owned, structures
from ..services.catalogue import catalogue as everything
from ..services.cut_tables import cuts_csv
from .throttling import brisk, by_and_by, hand, heavy, live
from .visitor import REFUSED, answer, marked, visitor_of

router = Router()
_Conflict = {409: schemas.Conflict}
Hour = Annotated[float, Field(ge=0.0, le=24.0)]
Date = Annotated[str, Field(max_length=5)]


@router.get("/empty", response=schemas.Nothing)
def empty(request: HttpRequest) -> schemas.Nothing:
    """Return an empty answer, to measure a round trip."""
    return schemas.Nothing()


@router.get("/catalogue", response={200: schemas.Catalogue, 401: schemas.Problems, 422: schemas.Problems})
def catalogue(request: HttpRequest, units: schemas.System = "metric") -> schemas.Catalogue:
    """Return everything that forms offer to choose from."""
    return everything(units)


@router.get("/method", response={200: schemas.Method, 401: schemas.Problems})
def method(request: HttpRequest) -> schemas.Method:
    """Return how Ascent calculates, from docs/method.md."""
    return schemas.Method(html=garden.method_html())


@router.post(
    "/quantities/read", response={200: schemas.QuantityOut, 401: schemas.Problems, 422: schemas.Problems}
)
def read_quantity(request: HttpRequest, sent: schemas.QuantityIn) -> schemas.QuantityOut:
    """Read a quantity as a person writes it."""
    return structures.read_quantity(sent)


@router.get("/gardens", response={200: list[schemas.GardenName], 401: schemas.Problems})
def gardens(request: HttpRequest) -> list[schemas.GardenName]:
    """Return the gardens the visitor may see, their own first."""
    return [
        schemas.GardenName(
            id=g.garden.pk, name=str(g.garden), role=g.role, owner=g.garden.owner.get_username()
        )
        for g in access.gardens_of(visitor_of(request))
    ]


@router.post("/gardens", response={200: schemas.GardenOut, **REFUSED})
def new_garden(request: HttpRequest, sent: schemas.PlaceChange) -> schemas.GardenOut:
    """Make an empty garden."""
    visitor = visitor_of(request)
    return garden.garden_out(owned.new_garden(visitor, sent), visitor)


@router.get("/gardens/deleted", response={200: list[schemas.DeletedGarden], 401: schemas.Problems})
def deleted_gardens(request: HttpRequest) -> list[schemas.DeletedGarden]:
    """Return the gardens the visitor has deleted and can still restore."""
    return owned.deleted_gardens(visitor_of(request))


@router.get("/gardens/{garden_id}", response={200: schemas.GardenOut, **REFUSED})
def one_garden(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return one garden with its plan."""
    visitor = visitor_of(request)
    text, mark = garden.garden_text(access.garden_for(visitor, garden_id), visitor)
    return marked(request, mark, lambda: HttpResponse(text, content_type="application/json"))


@router.get("/gardens/{garden_id}/since/{number}", response={200: schemas.GardenSince, **REFUSED})
def garden_since(request: HttpRequest, garden_id: int, number: int) -> HttpResponse:
    """Return what has changed in a garden since one of its changes, by number."""
    visitor = visitor_of(request)
    return answer(garden.garden_since(access.garden_for(visitor, garden_id), number, visitor))


@router.delete("/gardens/{garden_id}", response={200: schemas.Nothing, **REFUSED})
def delete_garden(request: HttpRequest, garden_id: int) -> schemas.Nothing:
    """Delete a garden with all that is in it. Only its owner can, and can restore it for 30 days."""
    owned.delete_garden(access.garden_for(visitor_of(request), garden_id, "owner").garden)
    return schemas.Nothing()


@router.post("/gardens/{garden_id}/restore", response={200: schemas.GardenOut, **REFUSED})
def restore_garden(request: HttpRequest, garden_id: int) -> schemas.GardenOut:
    """Restore a garden that the visitor has deleted."""
    visitor = visitor_of(request)
    return garden.garden_out(owned.restore_garden(visitor, garden_id), visitor)


@router.post("/gardens/{garden_id}/edits", response={200: schemas.EditsOut, **_Conflict, **REFUSED})
def save_edits(request: HttpRequest, garden_id: int, sent: schemas.EditsIn) -> HttpResponse:
    """Save edits of the plan, all or none. Returns 409 with both versions when someone else saved first."""
    visitor = visitor_of(request)
    return answer(edits.save(access.garden_for(visitor, garden_id, "edit"), sent, visitor))


@router.post("/gardens/{garden_id}/edits/photos", response={200: schemas.EditsOut, **_Conflict, **REFUSED})
def save_edits_with_photos(request: HttpRequest, garden_id: int, sent: schemas.EditsIn) -> HttpResponse:
    """Save edits as above, entries of the log with photos among them: a request may be larger."""
    visitor = visitor_of(request)
    return answer(edits.save(access.garden_for(visitor, garden_id, "edit"), sent, visitor))


@router.post("/gardens/{garden_id}/draft", response={200: schemas.PlotOut, **REFUSED})
@live
def draft(request: HttpRequest, garden_id: int, sent: schemas.DraftEditsIn) -> HttpResponse:
    """Return the plan with edits that are not stored, while something is being dragged."""
    return answer(edits.draft(access.garden_for(visitor_of(request), garden_id), sent))


@router.get("/gardens/{garden_id}/lines", response={200: list[schemas.StructureLine], **REFUSED})
@brisk
def lines(
    request: HttpRequest, garden_id: int, asked: Query[schemas.LinesAsked]
) -> list[schemas.StructureLine]:
    """Return the state of supports, all or those named: as many as a short time allows."""
    return garden.lines(
        access.garden_for(visitor_of(request), garden_id), asked.keys, by_and_by(), hand.let_go_first
    )


@router.get("/gardens/{garden_id}/shade", response={200: schemas.ShadeOut, **REFUSED})
@heavy
def shade(request: HttpRequest, garden_id: int, date: Date, hour: Hour = 15.0) -> schemas.ShadeOut:
    """Return the shadows at an hour of a day, and each bed's hours of sun on that day."""
    return garden.shade_out(access.garden_for(visitor_of(request), garden_id), date, hour)


@router.get("/gardens/{garden_id}/parts", response={200: schemas.GardenParts, **REFUSED})
@heavy
def parts(request: HttpRequest, garden_id: int) -> schemas.GardenParts:
    """Return the shopping list of the whole garden."""
    return garden.parts_out(access.garden_for(visitor_of(request), garden_id))


@router.get("/gardens/{garden_id}/cuts.csv", response={200: str, **REFUSED})
@heavy
def cuts_table(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return the garden's cut list as CSV."""
    out = garden.parts_out(access.garden_for(visitor_of(request), garden_id))
    return file_answer(cuts_csv(out.cuts), "text/csv; charset=utf-8", f"cuts-garden-{garden_id}.csv")


@router.get("/gardens/{garden_id}/parts.csv", response={200: str, **REFUSED})
@heavy
def parts_csv(request: HttpRequest, garden_id: int, by_structure: bool = False) -> HttpResponse:
    """Return the garden's shopping list as CSV."""
    text = garden.parts_csv(access.garden_for(visitor_of(request), garden_id), by_structure)
    return file_answer(text, "text/csv; charset=utf-8", f"parts-garden-{garden_id}.csv")


def file_answer(text: str | bytes, kind: str, name: str) -> HttpResponse:
    """Return a text, or what no text holds, as a file to keep."""
    answer = HttpResponse(text, content_type=kind)
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer
