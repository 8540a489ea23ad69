"""The one way a garden is changed: calculated without holding anybody up, stored in a moment if nothing has
changed meanwhile, done once.
"""

from __future__ import annotations

from collections.abc import Callable
from copy import copy
from dataclasses import dataclass, field
from typing import Any

from ascent.errors import InvalidPlan, Problem
from django.db import IntegrityError, transaction
from django.http import Http404

from ..models import Change, Garden, Sent
from .access import Visitor
from .known import Known, known_of
from .state import State, commit

_TRIES = 6


class Busy(Exception):
    """Others have saved each time just before; again in a moment."""


@dataclass(frozen=True)
class Wanted:
    """What a write makes of a garden.

    after: Its things.
    before: Its things as they were, where more of them were read than a garden holds in memory.
    way, about: What kind of change that is, and the number of the one it is about.
    fates: What becomes of older changes, by their number.
    answer: What the sender is told, also when it asks once more.
    """

    after: State
    way: str = "do"
    about: int | None = None
    fates: dict[int, str] = field(default_factory=dict)
    answer: dict[str, Any] = field(default_factory=dict)
    before: State | None = None


@dataclass(frozen=True)
class Written:
    """A garden after a write, as it was before it, and what the sender is told."""

    garden: Garden
    before: Known
    answer: dict[str, Any]


def change_garden(garden_id: int, visitor: Visitor, make: Callable[[Garden, State], Wanted]) -> Written:
    """Change a garden: what is wanted is calculated first, then stored in a short transaction if the garden
    is still as it was read.

    Args:
        garden_id: Which.
        visitor: Whoever asks, with the mark of this write; one that was done already is answered as it was
        then.
        make: From the garden and its things to what is wanted; it may be asked again.

    Raises:
        Http404: The garden is gone.
        Busy: It was changed by others each time in between.
    """
    for _ in range(_TRIES):
        if (told := answered(visitor)) is not None:
            garden = _garden(garden_id)
            return Written(garden, known_of(garden), told)
        known = known_of(_garden(garden_id))
        before = known.state
        wanted = make(known.garden, before)
        try:
            with transaction.atomic():
                if _changes(garden_id) != known.number:
                    continue
                garden = copy(known.garden)
                change = commit(
                    garden, wanted.before or before, wanted.after, visitor.pk, wanted.way, wanted.about
                )
                for number, fate in wanted.fates.items():
                    Change.objects.filter(garden=garden, number=number).update(fate=fate)
                answer = {**wanted.answer, "revisions": _revisions(change)}
                remember(visitor, answer)
        except IntegrityError:
            # the same write has come twice at once, or others were faster; else it is a fault of ours
            if answered(visitor) is None and _changes(garden_id) == known.number:
                raise
            continue
        return Written(garden, known, answer)
    raise Busy


def _changes(garden_id: int) -> int | None:
    return Garden.objects.filter(pk=garden_id).values_list("changes", flat=True).first()


def once(visitor: Visitor, do: Callable[[], dict[str, Any]]) -> dict[str, Any]:
    """Do something that makes a garden, and remember its answer; done already, it is only answered."""
    if (known := answered(visitor)) is not None:
        return known
    try:
        with transaction.atomic():
            answer = do()
            remember(visitor, answer)
    except IntegrityError:
        if (known := answered(visitor)) is None:
            raise
        return known
    return answer


def answered(visitor: Visitor) -> dict[str, Any] | None:
    """Return what a write with the visitor's mark was answered, None where none was done.

    Raises:
        InvalidPlan: The mark was used for another write.
    """
    if not visitor.mark or visitor.pk is None:
        return None
    row = Sent.objects.filter(person_id=visitor.pk, mark=visitor.mark).values_list("answer", "what").first()
    if row is None:
        return None
    answer, what = row
    if what and what != visitor.what:
        allowed = "a mark of its own for each write is allowed; this one belongs to another"
        raise InvalidPlan([Problem("mark", visitor.mark, allowed)])
    return dict(answer)


def remember(visitor: Visitor, answer: dict[str, Any]) -> None:
    """Keep the answer to a write with a mark."""
    if visitor.mark and visitor.pk is not None:
        Sent.objects.create(person_id=visitor.pk, mark=visitor.mark, what=visitor.what, answer=answer)


def _garden(garden_id: int) -> Garden:
    garden = Garden.objects.filter(pk=garden_id).select_related("owner").first()
    if garden is None:
        raise Http404
    return garden


def _revisions(change: Change | None) -> dict[str, int]:
    """Return the revision of everything a change has touched, by kind and key."""
    return {f"{edit['kind']}/{edit['key']}": edit["revision"] for edit in change.edits} if change else {}
