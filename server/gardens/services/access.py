"""Who may do what: owners, people a garden is shared with, and visitors by a read-only link."""

from __future__ import annotations

import secrets
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from ascent.errors import InvalidPlan, Problem
from django.contrib.auth import get_user_model
from django.db import transaction
from django.db.models import Q
from django.http import Http404
from limits.names import tidied

from .. import schemas
from ..models import Garden, ReadLink, Share, Thing

_RANK = {"read": 0, "edit": 1, "owner": 2}
MOST_GARDENS = 50
MOST_SHARES = 100


@dataclass(frozen=True)
class Visitor:
    """Whoever asks: someone signed in, or nobody, the read-only links opened in this session, the mark of
    what is written, and a digest of it.
    """

    user: Any
    tokens: tuple[str, ...] = ()
    mark: str = ""
    what: str = ""

    @property
    def pk(self) -> int | None:
        """Return the number of the account, None of nobody."""
        return self.user.pk if self.user.is_authenticated else None


@dataclass(frozen=True)
class Granted:
    """A garden, and what the visitor is in it."""

    garden: Garden
    role: schemas.Role


def role_in(visitor: Visitor, garden: Garden) -> schemas.Role | None:
    """Return what a visitor is in a garden, None where they have no business."""
    if visitor.pk is not None:
        if garden.owner_id == visitor.pk:
            return "owner"
        share = next((s for s in garden.shares.all() if s.person_id == visitor.pk), None)
        if share:
            return "edit" if share.may_edit else "read"
    link = getattr(garden, "link", None)
    return "read" if link and link.token in visitor.tokens else None


def by_link(visitor: Visitor, garden: Garden) -> bool:
    """Return whether a visitor sees a garden by its link alone, and so is told nobody's account but its
    owner's.
    """
    return garden.owner_id != visitor.pk and not any(s.person_id == visitor.pk for s in garden.shares.all())


def gardens_of(visitor: Visitor) -> list[Granted]:
    """Return the gardens a visitor may see: their own first."""
    mine = (
        Q(owner_id=visitor.pk) | Q(shares__person_id=visitor.pk) if visitor.pk is not None else Q(pk__in=[])
    )
    rows = (
        Garden.objects.filter(mine | Q(link__token__in=visitor.tokens))
        .distinct()
        .select_related("owner", "link")
        .prefetch_related("shares")
    )
    grants = [Granted(row, role) for row in rows if (role := role_in(visitor, row))]
    return sorted(grants, key=lambda granted: (-_RANK[granted.role], granted.garden.pk))


def garden_for(visitor: Visitor, garden_id: int, need: schemas.Role = "read") -> Granted:
    """Return a garden that the visitor may read, change or own.

    Raises:
        Http404: No such garden, or not for this visitor.
    """
    garden = (
        Garden.objects.filter(pk=garden_id).select_related("owner", "link").prefetch_related("shares").first()
    )
    role = role_in(visitor, garden) if garden else None
    if garden is None or role is None or _RANK[role] < _RANK[need]:
        raise Http404
    return Granted(garden, role)


def structure_for(visitor: Visitor, structure_id: int, need: schemas.Role = "read") -> tuple[Thing, Granted]:
    """Return a structure of a garden that the visitor may read or change, or raise Http404."""
    row = Thing.objects.filter(pk=structure_id, kind=Thing.STRUCTURE).first()
    if row is None:
        raise Http404
    return row, garden_for(visitor, row.garden_id, need)


def people(garden: Garden) -> schemas.People:
    """Return who may see a garden."""
    shares = Share.objects.filter(garden=garden).select_related("person").order_by("person__username")
    link = ReadLink.objects.filter(garden=garden).first()
    return schemas.People(
        shares=[schemas.ShareOut(name=s.person.get_username(), may_edit=s.may_edit) for s in shares],
        link=link.token if link else None,
    )


def share(garden: Garden, sent: schemas.ShareIn) -> schemas.People:
    """Share a garden with a named account, or change what they may do.

    Raises:
        InvalidPlan: No such account, or the owner's own.
    """
    person = get_user_model().objects.filter(username=tidied(sent.name)).first()
    if person is None or person.pk == garden.owner_id:
        raise InvalidPlan([Problem("name", sent.name, "the name of somebody else’s account is allowed")])
    if garden.shares.exclude(person=person).count() >= MOST_SHARES:
        raise InvalidPlan([Problem("name", sent.name, f"{MOST_SHARES} people are allowed")])
    _if_there(
        garden,
        lambda: Share.objects.update_or_create(
            garden=garden, person=person, defaults={"may_edit": sent.may_edit}
        ),
    )
    return people(garden)


def _if_there(garden: Garden, do: Callable[[], Any]) -> None:
    """Do something with a garden that is still there, or raise Http404."""
    with transaction.atomic():
        if not Garden.objects.filter(pk=garden.pk).exists():
            raise Http404
        do()


def unshare(garden: Garden, name: str) -> schemas.People:
    """Take a share back."""
    Share.objects.filter(garden=garden, person__username=name).delete()
    return people(garden)


def leave(granted: Granted, visitor: Visitor) -> None:
    """Leave a garden that was shared with one; its owner cannot, and a link is simply closed.

    Raises:
        InvalidPlan: It is one's own.
        Http404: It was not shared with the visitor's account.
    """
    if granted.role == "owner":
        raise InvalidPlan(
            [
                Problem(
                    "garden",
                    str(granted.garden),
                    "a garden of somebody else can be left; one’s own can be deleted",
                )
            ]
        )
    gone, _ = Share.objects.filter(garden=granted.garden, person_id=visitor.pk).delete()
    if visitor.pk is None or not gone:
        raise Http404


def make_link(garden: Garden) -> schemas.People:
    """Make a read-only link with an address nobody can guess; an old one is withdrawn."""
    token = secrets.token_urlsafe(32)
    _if_there(garden, lambda: ReadLink.objects.update_or_create(garden=garden, defaults={"token": token}))
    return people(garden)


def withdraw_link(garden: Garden) -> schemas.People:
    """Withdraw the read-only link."""
    ReadLink.objects.filter(garden=garden).delete()
    return people(garden)


def garden_of_link(token: str) -> Garden:
    """Return the garden a read-only link leads to, or raise Http404."""
    link = ReadLink.objects.filter(token=token, garden__deleted_at=None).select_related("garden").first()
    if link is None:
        raise Http404
    return link.garden
