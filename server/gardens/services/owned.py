"""Making and deleting whole gardens."""

from __future__ import annotations

from ascent import model
from ascent.errors import InvalidPlan, Problem
from django.db import transaction
from django.http import Http404

from .. import schemas
from ..models import Garden
from .access import MOST_GARDENS, Granted, Visitor


def room_for_another(visitor: Visitor) -> int:
    """Return the account that gets one more garden; refuse one too many, and any for a visitor without an account.

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


@transaction.atomic
def new_garden(visitor: Visitor, sent: schemas.PlaceChange) -> Granted:
    """Make an empty garden for whoever is signed in."""
    owner = room_for_another(visitor)
    place = model.Place.model_validate({"name": "My garden", **sent.model_dump(mode="json", exclude_none=True)})
    return Granted(Garden.objects.create(owner_id=owner, document=place.model_dump(mode="json")), "owner")


def remove_garden(garden: Garden) -> None:
    """Delete a garden with all that is in it."""
    garden.delete()
