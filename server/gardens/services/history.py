"""A garden's history: what was changed, how it was after any change, and back to there."""

from __future__ import annotations

from dataclasses import replace

from ascent.ground.plot import plot_of
from ascent.words.quantities import System
from django.http import Http404

from .. import schemas
from ..models import Change, Garden
from .access import Granted, Visitor, by_link
from .edits import CannotUndo, reverted
from .garden import garden_out
from .state import State, place_of, state_of, whole, words_of
from .writing import Wanted, change_garden

PAGE = 50
_MOST_SAID = 60


def _entry(change: Change, units: System, nameless: bool) -> schemas.ChangeOut:
    words = words_of(change, units)
    prefix = {
        "undo": "Undone: ",
        "redo": "Done again: ",
        "restore": f"Back to {change.about}: ",
        "import": "Taken in: ",
    }.get(change.way, "")
    who = change.who.get_username() if change.who else "an account that is gone"
    if nameless and change.who_id != change.garden.owner_id:
        who = "somebody it is shared with"
    return schemas.ChangeOut(
        number=change.number, when=change.when, who=who, way=change.way, words=prefix + words
    )


def history(granted: Granted, visitor: Visitor, before: int | None) -> list[schemas.ChangeOut]:
    """Return the latest changes, or those before a number; who comes by a link is not told by whom."""
    rows = Change.objects.filter(garden=granted.garden).select_related("who", "garden")
    if before is not None:
        rows = rows.filter(number__lt=before)
    units = place_of(granted.garden).units
    return [_entry(change, units, by_link(visitor, granted.garden)) for change in rows[:PAGE]]


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
            state = reverted(state, change, log=False)
    except CannotUndo as error:
        raise Http404 from error
    return state


def past(granted: Granted, visitor: Visitor, number: int) -> schemas.Past:
    """Return the plan as it was after a change, and what has become of it since."""
    garden = granted.garden
    units = place_of(garden).units
    core = whole(_state_at(garden, number))
    change = Change.objects.filter(garden=garden, number=number).select_related("who", "garden").first()
    entry = _entry(change, units, by_link(visitor, garden)) if change else None
    later = Change.objects.filter(garden=garden, number__gt=number).order_by("number")[:_MOST_SAID]
    return schemas.Past(
        number=number,
        when=entry.when if entry else None,
        who=entry.who if entry else "",
        words=entry.words if entry else "as it began",
        plot=plot_of(core),
        since=[words_of(change, units) for change in later],
    )


def restore(granted: Granted, number: int, visitor: Visitor) -> schemas.GardenOut:
    """Make a garden as it was after a change; that is a change itself and can be undone."""
    done = change_garden(
        granted.garden.pk,
        visitor,
        lambda garden, _before: Wanted(_state_at(garden, number), "restore", number),
    )
    return garden_out(replace(granted, garden=done.garden), visitor)
