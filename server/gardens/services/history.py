"""A garden's history: what was changed, how it was after any change, and back to there."""

from __future__ import annotations

from dataclasses import replace

from ascent import model
from ascent.plot import plot_of
from ascent.quantities import System
from django.db import transaction
from django.http import Http404

from .. import schemas
from ..models import Change, Garden
from .access import Granted, Visitor
from .edits import CannotUndo, reverted
from .garden import garden_out
from .state import State, commit, state_of, whole, words_of

PAGE = 50
_MOST_SAID = 60


def _units(garden: Garden) -> System:
    return model.Place.model_validate(garden.document).units


def _entry(change: Change, units: System) -> schemas.ChangeOut:
    words = words_of(change.edits, units)
    prefix = {"undo": "Undone: ", "redo": "Done again: ", "restore": f"Back to {change.about}: ", "import": "Taken in: "}.get(
        change.way, ""
    )
    who = change.who.get_username() if change.who else "an account that is gone"
    return schemas.ChangeOut(number=change.number, when=change.when, who=who, way=change.way, words=prefix + words)


def history(granted: Granted, before: int | None) -> list[schemas.ChangeOut]:
    """Return the latest changes, or those before a number."""
    rows = Change.objects.filter(garden=granted.garden).select_related("who")
    if before is not None:
        rows = rows.filter(number__lt=before)
    units = _units(granted.garden)
    return [_entry(change, units) for change in rows[:PAGE]]


def _state_at(garden: Garden, number: int) -> State:
    """Return a garden's things as they were after a change; after change 0 as they were first kept.

    Raises:
        Http404: No such change yet.
    """
    if number > garden.changes:
        raise Http404
    state = state_of(garden)
    try:
        for change in Change.objects.filter(garden=garden, number__gt=number).order_by("-number"):
            state = reverted(state, change)
    except CannotUndo as error:
        raise Http404 from error
    return state


def past(granted: Granted, number: int) -> schemas.Past:
    """Return the plan as it was after a change, and what has become of it since."""
    garden = granted.garden
    units = _units(garden)
    core = whole(_state_at(garden, number))
    change = Change.objects.filter(garden=garden, number=number).select_related("who").first()
    entry = _entry(change, units) if change else None
    later = Change.objects.filter(garden=garden, number__gt=number).order_by("number")[:_MOST_SAID]
    return schemas.Past(
        number=number, when=entry.when if entry else None, who=entry.who if entry else "", words=entry.words if entry else "as it began",
        plot=plot_of(core), since=[words_of(each.edits, units) for each in later],
    )  # fmt: skip


@transaction.atomic
def restore(granted: Granted, number: int, visitor: Visitor) -> schemas.GardenOut:
    """Make a garden as it was after a change; that is a change itself and can be undone."""
    garden = Garden.objects.get(pk=granted.garden.pk)
    commit(garden, state_of(garden), _state_at(garden, number), visitor.pk, "restore", number)
    return garden_out(replace(granted, garden=garden), visitor)
