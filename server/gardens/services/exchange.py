"""Files in and out: the plan file, tables, drawings. An import is looked at before it is done."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from ascent import model
from ascent.changes import sentence
from ascent.plan import read_plan, write_plan
from ascent.plot import plot_of
from ascent.sheets import What, read_table, write_table
from ascent.svg import plan_svg, views_svg
from django.db import transaction

from .. import schemas
from ..models import Garden, Thing
from .access import Granted, Visitor
from .edits import Stale
from .garden import garden_out
from .owned import room_for_another
from .state import PLACE, State, commit, from_core, load_plan, state_of, whole, within_limits
from .structures import report_of, structure_out

_MOST_LINES = 300


def plan_text(granted: Granted) -> str:
    """Return a garden as a plan file."""
    return write_plan(whole(state_of(granted.garden)))


def table_text(granted: Granted, what: What) -> str:
    """Return a table of a garden as CSV."""
    core = whole(state_of(granted.garden))
    return write_table(core, what, core.units)


def plot_svg(granted: Granted) -> str:
    """Return a garden's plan as SVG."""
    core = whole(state_of(granted.garden))
    return plan_svg(plot_of(core), core.name, core.units)


def structure_svg(row: Thing, granted: Granted) -> str:
    """Return a saved structure's views as SVG."""
    out = structure_out(row, granted)
    return views_svg(report_of(row, out.draft, None).views, out.draft.name, out.units)


def _wanted(garden: Garden, sent: schemas.ImportIn) -> tuple[State, State]:
    """Return a garden's state, and the state with a file taken in.

    Raises:
        InvalidPlan: Every wrong place of the file.
    """
    before = state_of(garden)
    core = whole(before)
    if sent.what == "plan":
        taken = from_core(read_plan(sent.text).garden, before)
        after = taken if sent.take_away else _joined(before, taken)
    else:
        found = read_table(core, sent.what, sent.text, core.units, sent.take_away)
        after = from_core(found, before)
    within_limits(after)
    return before, after


def _joined(before: State, taken: State) -> State:
    """Return a state with another's things added; a structure named by both goes where the other has it."""
    return {**before, **taken}


def preview(granted: Granted, sent: schemas.ImportIn) -> schemas.ImportOut:
    """Return what an import would add, change and take away; nothing is stored."""
    before, after = _wanted(granted.garden, sent)
    units = model.Place.model_validate(after[PLACE].document).units
    lines = []
    for ref in dict.fromkeys([*before, *after]):
        old, new = before.get(ref), after.get(ref)
        if old and new and (old.document, old.home) == (new.document, new.home):
            continue
        act: Any = "change" if old and new else "add" if new else "remove"
        words = sentence(old.typed if old else None, new.typed if new else None, units)
        lines.append(schemas.ImportLine(act=act, words=f"{ref[0]} {words}" if ref[0] != "place" else f"garden {words}"))
    more = len(lines) - _MOST_LINES
    if more > 0:
        lines = [*lines[:_MOST_LINES], schemas.ImportLine(act="change", words=f"and {more} more")]
    return schemas.ImportOut(number=granted.garden.changes, lines=lines)


@transaction.atomic
def take_in(granted: Granted, sent: schemas.ImportDo, visitor: Visitor) -> schemas.GardenOut:
    """Take a file in, all or nothing; it is one change, which undo takes back.

    Raises:
        Stale: The garden was changed since the import was looked at.
    """
    garden = Garden.objects.get(pk=granted.garden.pk)
    fresh = replace(granted, garden=garden)
    if garden.changes != sent.number:
        raise Stale(schemas.Conflict(garden=garden_out(fresh, visitor), things=[]))
    before, after = _wanted(garden, sent)
    commit(garden, before, after, visitor.pk, "import")
    return garden_out(fresh, visitor)


@transaction.atomic
def new_from_plan(visitor: Visitor, sent: schemas.ImportIn) -> schemas.GardenOut:
    """Make a garden of a plan file.

    Raises:
        InvalidPlan: Every wrong place of the file, or too many gardens.
    """
    room_for_another(visitor)
    plan = read_plan(sent.text)
    within_limits(from_core(plan.garden))
    return garden_out(Granted(load_plan(visitor, plan), "owner"), visitor)
