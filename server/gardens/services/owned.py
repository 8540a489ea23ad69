"""Making and deleting whole gardens."""

from __future__ import annotations

import zoneinfo
from collections.abc import Callable

from ascent.errors import InvalidPlan, Problem
from ascent.plan import model
from django.http import Http404
from django.utils import timezone

from .. import schemas
from ..models import Garden
from .access import MOST_GARDENS, Granted, Visitor
from .writing import once


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


def remove_garden(garden: Garden) -> None:
    """Delete a garden with all that is in it."""
    garden.delete()
