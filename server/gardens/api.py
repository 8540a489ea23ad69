"""The API of gardens, beds and structures: every function finds what is the person's own, then asks a service."""

from __future__ import annotations

from ascent.readout import Report, Sizing
from django.http import HttpRequest, HttpResponse
from ninja import Router

from . import schemas, services
from .catalogue import catalogue as everything

router = Router()
_REFUSED = {401: schemas.Problems, 404: schemas.Problems, 422: schemas.Problems}


@router.get("/empty", response=schemas.Nothing)
def empty(request: HttpRequest) -> schemas.Nothing:
    """Answer nothing, typed: what a round trip costs by itself."""
    return schemas.Nothing()


@router.get("/catalogue", response={200: schemas.Catalogue, 401: schemas.Problems})
def catalogue(request: HttpRequest) -> schemas.Catalogue:
    """Everything a picker lists."""
    return everything()


@router.post("/quantities/read", response={200: schemas.QuantityOut, 422: schemas.Problems})
def read_quantity(request: HttpRequest, sent: schemas.QuantityIn) -> schemas.QuantityOut:
    """Read what a person wrote."""
    return services.read_quantity(sent)


@router.get("/gardens", response={200: list[schemas.GardenName], 401: schemas.Problems})
def gardens(request: HttpRequest) -> list[schemas.GardenName]:
    """The person's gardens."""
    return [schemas.GardenName(id=g.pk, name=str(g)) for g in services.gardens_of(request.user)]


@router.get("/gardens/{garden_id}", response={200: schemas.GardenOut, **_REFUSED})
def garden(request: HttpRequest, garden_id: int) -> schemas.GardenOut:
    """One garden with its beds and structures."""
    return services.garden_out(services.own_garden(request.user, garden_id))


@router.patch("/gardens/{garden_id}", response={200: schemas.GardenOut, **_REFUSED})
def change_garden(request: HttpRequest, garden_id: int, sent: schemas.GardenChange) -> schemas.GardenOut:
    """Change a garden's units, exposure, currency or prices."""
    return services.change_garden(services.own_garden(request.user, garden_id), sent)


@router.post("/gardens/{garden_id}/beds", response={200: schemas.GardenOut, **_REFUSED})
def add_bed(request: HttpRequest, garden_id: int, sent: schemas.BedIn) -> schemas.GardenOut:
    """Add a bed."""
    return services.add_bed(services.own_garden(request.user, garden_id), sent)


@router.post("/beds/{bed_id}/proposal", response={200: schemas.ProposalOut, **_REFUSED})
def propose(request: HttpRequest, bed_id: int, sent: schemas.NeedIn) -> schemas.ProposalOut:
    """A structure for a need, everything filled in with its reason; nothing is stored."""
    return services.proposal(services.own_bed(request.user, bed_id), sent)


@router.post("/beds/{bed_id}/structures", response={200: schemas.StructureOut, **_REFUSED})
def build(request: HttpRequest, bed_id: int, sent: schemas.NeedIn) -> schemas.StructureOut:
    """Put the proposed structure on the bed."""
    return services.build(services.own_bed(request.user, bed_id), sent)


@router.get("/structures/{structure_id}", response={200: schemas.StructureOut, **_REFUSED})
def structure(request: HttpRequest, structure_id: int) -> schemas.StructureOut:
    """A structure as the bench takes it up."""
    return services.structure_out(services.own_structure(request.user, structure_id))


@router.put("/structures/{structure_id}", response={200: schemas.StructureOut, 409: schemas.StructureOut, **_REFUSED})
def save(request: HttpRequest, structure_id: int, sent: schemas.SaveIn) -> schemas.StructureOut:
    """Save a draft; 409 with what is saved when someone else was first."""
    return services.save(services.own_structure(request.user, structure_id), sent)


@router.delete("/structures/{structure_id}", response={200: schemas.Nothing, **_REFUSED})
def remove(request: HttpRequest, structure_id: int) -> schemas.Nothing:
    """Take a structure off its bed."""
    services.own_structure(request.user, structure_id).delete()
    return schemas.Nothing()


@router.post("/structures/{structure_id}/report", response={200: Report, **_REFUSED})
def report(request: HttpRequest, structure_id: int, sent: schemas.DraftIn) -> HttpResponse:
    """Evaluate a draft; nothing is stored."""
    found = services.report_of(services.own_structure(request.user, structure_id), sent.draft, sent.week)
    return HttpResponse(found.model_dump_json(), content_type="application/json")  # a second validation would cost a third of a live edit


@router.post("/structures/{structure_id}/fixes", response={200: schemas.FixesOut, **_REFUSED})
def fixes(request: HttpRequest, structure_id: int, sent: schemas.FixesIn) -> schemas.FixesOut:
    """The fixes of one link of a draft."""
    return services.fixes_of(services.own_structure(request.user, structure_id), sent.draft, sent.link)


@router.post("/structures/{structure_id}/sizing", response={200: Sizing, **_REFUSED})
def sizing(request: HttpRequest, structure_id: int, sent: schemas.SizingIn) -> Sizing:
    """The changes that together make a draft hold; nothing is stored."""
    return services.sizing_of(services.own_structure(request.user, structure_id), sent.draft)


@router.get("/structures/{structure_id}/parts.csv")
def parts_csv(request: HttpRequest, structure_id: int) -> HttpResponse:
    """The shopping list as CSV."""
    row = services.own_structure(request.user, structure_id)
    answer = HttpResponse(services.parts_csv(row), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="parts-{row.pk}.csv"'
    return answer
