"""Making, deleting and restoring whole gardens."""

from __future__ import annotations

import datetime as dt
import zoneinfo
from collections.abc import Callable

from ascent import plan as model
from ascent.errors import InvalidPlan, Problem
from django.db import transaction
from django.http import Http404
from django.utils import timezone

from .. import schemas
from ..models import Garden
from .access import MOST_GARDENS, Granted, Visitor
from .writing import once

KEPT_DELETED = dt.timedelta(days=30)
MOST_DELETED = 20  # of one account, so that deleting and making anew fills no disk


def room_for_another(visitor: Visitor) -> int:
    """Return the account that gets one more garden; refuse one too many, and any for a visitor without an
    account.

    Raises:
        Http404: Nobody is signed in.
        InvalidPlan: They have as many as one account may have.
    """
    if visitor.pk is None:
        raise Http404
    count = Garden.objects.filter(owner_id=visitor.pk).count()
    if count >= MOST_GARDENS:
        raise InvalidPlan([Problem("gardens", str(count), f"{MOST_GARDENS} of one account are allowed")])
    return visitor.pk


def new_garden(visitor: Visitor, sent: schemas.PlaceChange) -> Granted:
    """Make an empty garden for whoever is signed in; a time zone that only a browser knows is left out."""
    asked = sent.model_dump(mode="json", exclude_none=True)
    if asked.get("timezone") not in zoneinfo.available_timezones():
        asked.pop("timezone", None)
    place = model.Place.model_validate(
        {"name": "My garden", "year": timezone.localdate().year, "warmth": {}, **asked}
    )
    return made_once(
        visitor, lambda owner: Garden.objects.create(owner_id=owner, document=place.model_dump(mode="json"))
    )


def made_once(visitor: Visitor, make: Callable[[int], Garden]) -> Granted:
    """Make a garden for whoever is signed in, once for a mark.

    Raises:
        Http404: Nobody is signed in, or what was made for that mark is gone again.
        InvalidPlan: They have as many gardens as one account may have.
    """
    answer = once(visitor, lambda: {"garden": make(room_for_another(visitor)).pk})
    garden = Garden.objects.filter(pk=answer["garden"], owner_id=visitor.pk).select_related("owner").first()
    if garden is None:
        raise Http404
    return Granted(garden, "owner")


def delete_garden(garden: Garden) -> None:
    """Delete a garden with all that is in it. Its owner can restore it for a while."""
    garden.deleted_at = timezone.now()
    garden.save(update_fields=["deleted_at"])
    for old in (
        Garden.with_deleted.filter(owner_id=garden.owner_id)
        .order_by("-deleted_at", "-pk")
        .exclude(deleted_at=None)[MOST_DELETED:]
    ):
        old.delete()


def deleted_gardens(visitor: Visitor) -> list[schemas.DeletedGarden]:
    """Return the gardens that the visitor has deleted and can restore, the last deleted first."""
    rows = Garden.with_deleted.filter(owner_id=visitor.pk).exclude(deleted_at=None).order_by("-deleted_at")
    return [
        schemas.DeletedGarden(id=row.pk, name=str(row), until=(row.deleted_at + KEPT_DELETED).date())
        for row in rows
        if row.deleted_at and visitor.pk is not None
    ]


def restore_garden(visitor: Visitor, garden_id: int) -> Granted:
    """Restore a garden that the visitor has deleted; one that is not deleted stays as it is.

    Raises:
        Http404: There is no such garden of theirs.
        InvalidPlan: They have as many gardens as one account may have.
    """
    with transaction.atomic():
        rows = Garden.with_deleted.select_related("owner").prefetch_related("shares")
        garden = rows.filter(pk=garden_id, owner_id=visitor.pk).first()
        if garden is None or visitor.pk is None:
            raise Http404
        if garden.deleted_at:
            room_for_another(visitor)
            garden.deleted_at = None
            garden.save(update_fields=["deleted_at"])
    return Granted(garden, "owner")


def purge_deleted() -> int:
    """Delete for good what was deleted too long ago to be restored; return how many gardens."""
    old = Garden.with_deleted.filter(deleted_at__lt=timezone.now() - KEPT_DELETED)
    count = old.count()
    for garden in old:
        garden.delete()
    return count
