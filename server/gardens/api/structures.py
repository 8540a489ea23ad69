"""Structures on the bench."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from .. import schemas
from ..services import access, structures
from .gardens import file_answer
from .turns import brisk, heavy, live, until_enough
from .visitor import REFUSED, answer, visitor_of

router = Router()


@router.post("/gardens/{garden_id}/beds/{bed}/supports", response={200: schemas.SupportsOut, **REFUSED})
@heavy
def supports(request: HttpRequest, garden_id: int, bed: str, sent: schemas.WantedIn) -> schemas.SupportsOut:
    """Every kind of support as it would stand on a bed; nothing is stored."""
    return structures.supports(access.garden_for(visitor_of(request), garden_id, "edit"), bed, sent)


@router.post("/gardens/{garden_id}/beds/{bed}/ways/{family}", response={200: schemas.KindReport, **REFUSED})
@heavy
def way(
    request: HttpRequest, garden_id: int, bed: str, family: str, sent: schemas.ChooseIn
) -> schemas.KindReport:
    """One kind of support for a need, sized and measured by what matters; nothing is stored."""
    granted = access.garden_for(visitor_of(request), garden_id, "edit")
    return structures.way(granted, bed, family, sent, until_enough())


@router.post("/gardens/{garden_id}/beds/{bed}/divides", response={200: schemas.DividesOut, **REFUSED})
@heavy
def divides(request: HttpRequest, garden_id: int, bed: str, sent: schemas.DividesIn) -> schemas.DividesOut:
    """The choices that divide growers, as they come out for a way of building; nothing is stored."""
    granted = access.garden_for(visitor_of(request), garden_id, "edit")
    return structures.divides(granted, bed, sent, until_enough())


@router.post("/gardens/{garden_id}/order", response={200: schemas.OrderOut, **REFUSED})
def order(request: HttpRequest, garden_id: int, sent: schemas.OrderIn) -> schemas.OrderOut:
    """Ways of building in order, each with why; nothing is stored."""
    return structures.order(access.garden_for(visitor_of(request), garden_id, "edit"), sent)


@router.post("/gardens/{garden_id}/beds/{bed}/proposal", response={200: schemas.ProposalOut, **REFUSED})
@heavy
def propose(request: HttpRequest, garden_id: int, bed: str, sent: schemas.NeedIn) -> schemas.ProposalOut:
    """A structure for a need, everything filled in with its reason; nothing is stored."""
    return structures.proposal(
        access.garden_for(visitor_of(request), garden_id, "edit"), bed, sent, until_enough()
    )


@router.post("/gardens/{garden_id}/beds/{bed}/structures", response={200: schemas.StructureOut, **REFUSED})
@brisk
def build(request: HttpRequest, garden_id: int, bed: str, sent: schemas.NeedIn) -> schemas.StructureOut:
    """Put the proposed structure on the bed."""
    visitor = visitor_of(request)
    return structures.build(access.garden_for(visitor, garden_id, "edit"), bed, sent, visitor, until_enough())


@router.get("/structures/{structure_id}", response={200: schemas.StructureOut, **REFUSED})
def structure(request: HttpRequest, structure_id: int) -> schemas.StructureOut:
    """A structure as the bench takes it up."""
    return structures.structure_out(*access.structure_for(visitor_of(request), structure_id))


@router.put(
    "/structures/{structure_id}",
    response={200: schemas.StructureOut, 409: schemas.StructureConflict, **REFUSED},
)
def save(request: HttpRequest, structure_id: int, sent: schemas.SaveIn) -> schemas.StructureOut:
    """Save a draft; 409 with what is saved, and where it differs, when someone else was first."""
    visitor = visitor_of(request)
    return structures.save(*access.structure_for(visitor, structure_id, "edit"), sent, visitor)


@router.delete("/structures/{structure_id}", response={200: schemas.Nothing, **REFUSED})
def remove(request: HttpRequest, structure_id: int) -> schemas.Nothing:
    """Take a structure off its bed."""
    visitor = visitor_of(request)
    structures.remove(*access.structure_for(visitor, structure_id, "edit"), visitor)
    return schemas.Nothing()


@router.post("/structures/{structure_id}/report", response={200: schemas.Report, **REFUSED})
@live
def report(request: HttpRequest, structure_id: int, sent: schemas.DraftIn) -> HttpResponse:
    """Evaluate a draft; nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    told = structures.report_of(row, sent.draft, sent.day)
    return answer(told)


@router.post("/structures/{structure_id}/fixes", response={200: schemas.LinkFixes, **REFUSED})
@heavy
def fixes(request: HttpRequest, structure_id: int, sent: schemas.FixesIn) -> schemas.LinkFixes:
    """The fixes of one link of a draft."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.fixes_of(row, sent.draft, sent.link)


@router.post("/structures/{structure_id}/rests", response={200: schemas.Rests, **REFUSED})
@heavy
def rests(request: HttpRequest, structure_id: int, sent: schemas.RestsIn) -> schemas.Rests:
    """What the limit gust of a draft rests on most."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.rests_of(row, sent.draft)


@router.post("/structures/{structure_id}/curve", response={200: schemas.CurveReport, **REFUSED})
@heavy
def curve(request: HttpRequest, structure_id: int, sent: schemas.CurveIn) -> schemas.CurveReport:
    """The limit gust and the cost of a draft against one of its options, over all it may be; nothing is
    stored.
    """
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.curve_of(row, sent)


@router.post("/structures/{structure_id}/solid", response={200: schemas.SolidReport, **REFUSED})
@heavy
def solid(request: HttpRequest, structure_id: int, sent: schemas.SolidIn) -> HttpResponse:
    """A draft in three dimensions, with the day's sun and in words; nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return answer(structures.solid_of(row, sent))


@router.post("/structures/{structure_id}/ways", response={200: schemas.WishReport, **REFUSED})
@heavy
def ways(request: HttpRequest, structure_id: int, sent: schemas.WishIn) -> schemas.WishReport:
    """The ways from a draft to what is wished of it; nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.ways_of(row, sent)


@router.post("/structures/{structure_id}/sizing", response={200: schemas.Sizing, **REFUSED})
@heavy
def sizing(request: HttpRequest, structure_id: int, sent: schemas.SizingIn) -> schemas.Sizing:
    """A draft sized for an aim: what changes, what for, what stops it; nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.sizing_of(row, sent, until_enough())


@router.get("/structures/{structure_id}/cuts.csv", response={200: str, **REFUSED})
def cuts_csv(request: HttpRequest, structure_id: int) -> HttpResponse:
    """The cut list as CSV."""
    row, granted = access.structure_for(visitor_of(request), structure_id)
    return file_answer(structures.cuts_table(row, granted), "text/csv; charset=utf-8", f"cuts-{row.pk}.csv")


@router.get("/structures/{structure_id}/parts.csv", response={200: str, **REFUSED})
def parts_csv(request: HttpRequest, structure_id: int) -> HttpResponse:
    """The shopping list as CSV."""
    row, granted = access.structure_for(visitor_of(request), structure_id)
    return file_answer(structures.parts_csv(row, granted), "text/csv; charset=utf-8", f"parts-{row.pk}.csv")
