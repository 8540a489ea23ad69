"""Structures on the bench."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from .. import schemas
from ..services import access, structures
from .gardens import file_answer
from .throttling import brisk, heavy, live, until_enough
from .visitor import REFUSED, answer, visitor_of

router = Router()


@router.post("/gardens/{garden_id}/beds/{bed}/supports", response={200: schemas.SupportsOut, **REFUSED})
@heavy
def supports(request: HttpRequest, garden_id: int, bed: str, sent: schemas.WantedIn) -> schemas.SupportsOut:
    """Return every kind of support as it would stand on a bed. Nothing is stored."""
    return structures.supports(access.garden_for(visitor_of(request), garden_id, "edit"), bed, sent)


@router.post("/gardens/{garden_id}/beds/{bed}/ways/{family}", response={200: schemas.KindReport, **REFUSED})
@heavy
def way(
    request: HttpRequest, garden_id: int, bed: str, family: str, sent: schemas.ChooseIn
) -> schemas.KindReport:
    """Size one kind of support for a need, and return its figures. Nothing is stored."""
    granted = access.garden_for(visitor_of(request), garden_id, "edit")
    return structures.way(granted, bed, family, sent, until_enough())


@router.post("/gardens/{garden_id}/beds/{bed}/divides", response={200: schemas.DividesOut, **REFUSED})
@heavy
def divides(request: HttpRequest, garden_id: int, bed: str, sent: schemas.DividesIn) -> schemas.DividesOut:
    """Return the choices that growers disagree on, for one candidate. Nothing is stored."""
    granted = access.garden_for(visitor_of(request), garden_id, "edit")
    return structures.divides(granted, bed, sent, until_enough())


@router.post("/gardens/{garden_id}/order", response={200: schemas.OrderOut, **REFUSED})
def order(request: HttpRequest, garden_id: int, sent: schemas.OrderIn) -> schemas.OrderOut:
    """Rank candidates, each with its reason. Nothing is stored."""
    return structures.order(access.garden_for(visitor_of(request), garden_id, "edit"), sent)


@router.post("/gardens/{garden_id}/beds/{bed}/proposal", response={200: schemas.ProposalOut, **REFUSED})
@heavy
def propose(request: HttpRequest, garden_id: int, bed: str, sent: schemas.NeedIn) -> schemas.ProposalOut:
    """Propose a support for a need, each value with its reason. Nothing is stored."""
    return structures.proposal(
        access.garden_for(visitor_of(request), garden_id, "edit"), bed, sent, until_enough()
    )


@router.post("/gardens/{garden_id}/beds/{bed}/structures", response={200: schemas.StructureOut, **REFUSED})
@brisk
def build(request: HttpRequest, garden_id: int, bed: str, sent: schemas.NeedIn) -> schemas.StructureOut:
    """Add the proposed support to the bed."""
    visitor = visitor_of(request)
    return structures.build(access.garden_for(visitor, garden_id, "edit"), bed, sent, visitor, until_enough())


@router.get("/structures/{structure_id}", response={200: schemas.StructureOut, **REFUSED})
def structure(request: HttpRequest, structure_id: int) -> schemas.StructureOut:
    """Return a support with all that its design page needs."""
    return structures.structure_out(*access.structure_for(visitor_of(request), structure_id))


@router.put(
    "/structures/{structure_id}",
    response={200: schemas.StructureOut, 409: schemas.StructureConflict, **REFUSED},
)
def save(request: HttpRequest, structure_id: int, sent: schemas.SaveIn) -> schemas.StructureOut:
    """Save a draft. Returns 409 with the saved version and the differences when someone else saved first."""
    visitor = visitor_of(request)
    return structures.save(*access.structure_for(visitor, structure_id, "edit"), sent, visitor)


@router.delete("/structures/{structure_id}", response={200: schemas.Nothing, **REFUSED})
def remove(request: HttpRequest, structure_id: int) -> schemas.Nothing:
    """Remove a support from its bed."""
    visitor = visitor_of(request)
    structures.remove(*access.structure_for(visitor, structure_id, "edit"), visitor)
    return schemas.Nothing()


@router.post("/structures/{structure_id}/report", response={200: schemas.Report, **REFUSED})
@live
def report(request: HttpRequest, structure_id: int, sent: schemas.DraftIn) -> HttpResponse:
    """Evaluate a draft. Nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    told = structures.report_of(row, sent.draft, sent.day)
    return answer(told)


@router.post("/structures/{structure_id}/fixes", response={200: schemas.LinkFixes, **REFUSED})
@heavy
def fixes(request: HttpRequest, structure_id: int, sent: schemas.FixesIn) -> schemas.LinkFixes:
    """Return the changes that strengthen one link of a draft."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.fixes_of(row, sent.draft, sent.link)


@router.post("/structures/{structure_id}/sensitivity", response={200: schemas.SensitivityReport, **REFUSED})
@heavy
def sensitivity(
    request: HttpRequest, structure_id: int, sent: schemas.SensitivityIn
) -> schemas.SensitivityReport:
    """Return the inputs to which the limit gust of a draft is most sensitive."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.sensitivity_of(row, sent.draft)


@router.post("/structures/{structure_id}/curve", response={200: schemas.CurveReport, **REFUSED})
@heavy
def curve(request: HttpRequest, structure_id: int, sent: schemas.CurveIn) -> schemas.CurveReport:
    """Return the limit gust and the cost of a draft over the range of one option. Nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.curve_of(row, sent)


@router.post("/structures/{structure_id}/solid", response={200: schemas.SolidReport, **REFUSED})
@heavy
def solid(request: HttpRequest, structure_id: int, sent: schemas.SolidIn) -> HttpResponse:
    """Return a draft in three dimensions, with the day's sun and in words. Nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return answer(structures.solid_of(row, sent))


@router.post("/structures/{structure_id}/ways", response={200: schemas.WishReport, **REFUSED})
@heavy
def ways(request: HttpRequest, structure_id: int, sent: schemas.WishIn) -> schemas.WishReport:
    """Return the changes that bring a draft to a wish. Nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.ways_of(row, sent)


@router.post("/structures/{structure_id}/sizing", response={200: schemas.Sizing, **REFUSED})
@heavy
def sizing(request: HttpRequest, structure_id: int, sent: schemas.SizingIn) -> schemas.Sizing:
    """Size a draft for an aim: what changes, why, and what prevents it. Nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.sizing_of(row, sent, until_enough())


@router.get("/structures/{structure_id}/cuts.csv", response={200: str, **REFUSED})
def cuts_csv(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return the cut list as CSV."""
    row, granted = access.structure_for(visitor_of(request), structure_id)
    return file_answer(structures.cuts_table(row, granted), "text/csv; charset=utf-8", f"cuts-{row.pk}.csv")


@router.get("/structures/{structure_id}/parts.csv", response={200: str, **REFUSED})
def parts_csv(request: HttpRequest, structure_id: int) -> HttpResponse:
    """Return the shopping list as CSV."""
    row, granted = access.structure_for(visitor_of(request), structure_id)
    return file_answer(structures.parts_csv(row, granted), "text/csv; charset=utf-8", f"parts-{row.pk}.csv")
