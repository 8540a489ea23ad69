"""Who may see a garden."""

from __future__ import annotations

from django.http import Http404, HttpRequest
from limits.tries import address_of, allow, count
from ninja import Router

from .. import schemas
from ..services import access
from .visitor import REFUSED, Passing, remember, visitor_of

router = Router()


@router.get("/gardens/{garden_id}/people", response={200: schemas.People, **REFUSED})
def people(request: HttpRequest, garden_id: int) -> schemas.People:
    """Return who may see the garden. Only its owner may ask."""
    return access.people(access.garden_for(visitor_of(request), garden_id, "owner").garden)


@router.put("/gardens/{garden_id}/people", response={200: schemas.People, **REFUSED})
def share(request: HttpRequest, garden_id: int, sent: schemas.ShareIn) -> schemas.People:
    """Share the garden with a named account, to read or to change."""
    return access.share(access.garden_for(visitor_of(request), garden_id, "owner").garden, sent)


@router.delete("/gardens/{garden_id}/people/{name}", response={200: schemas.People, **REFUSED})
def unshare(request: HttpRequest, garden_id: int, name: str) -> schemas.People:
    """Stop sharing the garden with an account."""
    return access.unshare(access.garden_for(visitor_of(request), garden_id, "owner").garden, name)


@router.delete("/gardens/{garden_id}/share", response={200: schemas.Nothing, **REFUSED})
def leave(request: HttpRequest, garden_id: int) -> schemas.Nothing:
    """Leave a garden that was shared with the visitor."""
    visitor = visitor_of(request)
    access.leave(access.garden_for(visitor, garden_id), visitor)
    return schemas.Nothing()


@router.post("/gardens/{garden_id}/link", response={200: schemas.People, **REFUSED})
def make_link(request: HttpRequest, garden_id: int) -> schemas.People:
    """Make a read-only link. It replaces an older one."""
    return access.make_link(access.garden_for(visitor_of(request), garden_id, "owner").garden)


@router.delete("/gardens/{garden_id}/link", response={200: schemas.People, **REFUSED})
def withdraw_link(request: HttpRequest, garden_id: int) -> schemas.People:
    """Withdraw the read-only link."""
    return access.withdraw_link(access.garden_for(visitor_of(request), garden_id, "owner").garden)


@router.post("/look", response={200: schemas.GardenName, **REFUSED}, auth=Passing())
def look(request: HttpRequest, sent: schemas.LookIn) -> schemas.GardenName:
    """Open a read-only link: this session may read its garden until the link is withdrawn."""
    here = address_of(request)
    allow("look from", here)
    try:
        garden = access.garden_of_link(sent.token)
    except Http404:
        count("look from", here)
        raise
    remember(request, sent.token)
    return schemas.GardenName(id=garden.pk, name=str(garden), role="read", owner=garden.owner.get_username())
