"""The shed: what is in it, what a structure has of it, and taking one down."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from .. import schemas
from ..services import access, shed, structures, supplier
from .throttling import brisk, heavy
from .visitor import REFUSED, visitor_of

router = Router()


@router.get("/gardens/{garden_id}/shed", response={200: schemas.ShedOut, **REFUSED})
def one_shed(request: HttpRequest, garden_id: int) -> schemas.ShedOut:
    """Return what is in a garden's shed, what is reserved, and what is free."""
    return shed.shed_out(access.garden_for(visitor_of(request), garden_id))


@router.post("/gardens/{garden_id}/shed/line", response={200: schemas.StockChange, **REFUSED})
def line(request: HttpRequest, garden_id: int, sent: schemas.LineIn) -> schemas.StockChange:
    """Read stock that is written in one line. Nothing is stored."""
    return shed.line_read(access.garden_for(visitor_of(request), garden_id), sent)


@router.post("/structures/{structure_id}/take", response={200: schemas.TakenOut, **REFUSED})
@heavy
def take(request: HttpRequest, structure_id: int, sent: schemas.TakeIn) -> schemas.TakenOut:
    """Return what a draft can use from the shed. Nothing is stored."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return structures.taken_of(row, sent)


@router.post("/structures/{structure_id}/down", response={200: schemas.GardenOut, **REFUSED})
@heavy
def down(request: HttpRequest, structure_id: int, sent: schemas.DownIn) -> schemas.GardenOut:
    """Take a support down. Its usable parts go to the shed, one use older."""
    visitor = visitor_of(request)
    return shed.take_down(*access.structure_for(visitor, structure_id, "edit"), sent, visitor)


@router.get("/gardens/{garden_id}/supplier", response={200: schemas.SupplierOut, **REFUSED})
@brisk
def prices(request: HttpRequest, garden_id: int) -> schemas.SupplierOut:
    """Return a supplier's price list, and what it would change. Nothing is stored."""
    return supplier.supplier_out(access.garden_for(visitor_of(request), garden_id))
