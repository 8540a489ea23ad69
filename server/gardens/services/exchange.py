"""Files in and out: the plan file, tables, drawings. An import is looked at before it is done."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from ascent.drawing.views_sheet import views_sheet
from ascent.errors import InvalidPlan, Problem
from ascent.files.csv_tables import Table, read_table, write_table
from ascent.files.log_table import read_log, write_log
from ascent.files.plan import read_plan, write_plan
from ascent.files.prices import priced, read_prices
from ascent.files.svg import sheet_svg
from ascent.ground.plan_sheet import plan_sheet
from ascent.ground.plot import plot_of
from ascent.plan.documents import first_of
from ascent.plan.entries import Entry
from ascent.report.changes import sentence

from .. import schemas
from ..models import Garden, Thing
from .access import Granted, Visitor, by_link
from .edits import Stale
from .garden import garden_out
from .owned import made_once
from .state import (
    PLACE,
    Held,
    State,
    entries_in,
    from_core,
    load_plan,
    log_of,
    state_of,
    whole,
    within_limits,
)
from .structures import report_of, structure_out
from .writing import Wanted, change_garden

_MOST_LINES = 300


def plan_text(granted: Granted, visitor: Visitor) -> str:
    """Return a garden as a plan file; who comes by a link is not told who did what."""
    text = write_plan(whole(state_of(granted.garden)), log_of(granted.garden))
    if not by_link(visitor, granted.garden):
        return text
    plan = json.loads(text, object_hook=lambda thing: {**thing, "who": ""} if "who" in thing else thing)
    return json.dumps(plan, indent=1, ensure_ascii=False) + "\n"


def table_text(granted: Granted, what: Table, visitor: Visitor) -> str:
    """Return a table of a garden, or its log, as CSV; who comes by a link is not told who wrote it."""
    core = whole(state_of(granted.garden))
    if what == "log":
        log = log_of(granted.garden)
        if by_link(visitor, granted.garden):
            log = [entry.model_copy(update={"who": ""}) for entry in log]
        return write_log(log, core, core.units)
    return write_table(core, what, core.units)


def plot_svg(granted: Granted) -> str:
    """Return a garden's plan as SVG."""
    core = whole(state_of(granted.garden))
    return sheet_svg(plan_sheet(plot_of(core), core.name, core.units))


def structure_svg(row: Thing, granted: Granted) -> str:
    """Return a saved structure's views as SVG."""
    out = structure_out(row, granted)
    return sheet_svg(views_sheet(report_of(row, out.draft, None).views, out.draft.name, out.units))


def _wanted(garden: Garden, sent: schemas.ImportIn) -> tuple[State, State]:
    """Return a garden's state, and the state with a file taken in.

    Raises:
        InvalidPlan: Every wrong place of the file.
    """
    before = state_of(garden)
    core = whole(before)
    if sent.what == "plan":
        plan = read_plan(sent.text)
        taken = from_core(plan.garden, before)
        after = taken if sent.take_away else _joined(before, taken)
        return _with_log(garden, before, after, plan.log)
    if sent.what == "log":
        entries = read_log(sent.text, core, core.units, dt.datetime.now(dt.UTC))
        return _with_log(garden, before, before, entries)
    if sent.what == "prices":
        after = from_core(priced(core, read_prices(sent.text)), before)
    else:
        read = read_table(core, sent.what, sent.text, core.units, sent.take_away)
        after = from_core(read, before)
    within_limits(after)
    return before, after


def _with_log(garden: Garden, before: State, after: State, log: Sequence[Entry]) -> tuple[State, State]:
    """Return both states with the entries of a file: what happened is added to or corrected, never removed.

    Raises:
        InvalidPlan: There is too much in the after-state.
    """
    within_limits(after)
    known = entries_in(garden, [entry.key for entry in log])
    new = {
        ("entry", entry.key): replace(
            known.get(("entry", entry.key)) or Held("entry", entry.key, "", {}),
            document=entry.model_dump(mode="json"),
        )
        for entry in log
    }
    return {**before, **known}, {**after, **known, **new}


def _joined(before: State, taken: State) -> State:
    """Return a state with another's things added; a structure named by both goes where the other has it."""
    joined = {**before, **taken}
    keys = [key for _, key in joined]
    problems = (
        Problem(f"{kind} {key}", key, "a key that nothing else in this garden has is allowed")
        for kind, key in taken
        if keys.count(key) > 1
    )
    if problem := first_of(problems):
        raise InvalidPlan(problem)
    return joined


def preview(granted: Granted, sent: schemas.ImportIn) -> schemas.ImportOut:
    """Return what an import would add, change and take away; nothing is stored."""
    before, after = _wanted(granted.garden, sent)
    units = whole({PLACE: after[PLACE]}).units
    lines = []
    for ref in dict.fromkeys([*before, *after]):
        old, new = before.get(ref), after.get(ref)
        if old and new and (old.document, old.home) == (new.document, new.home):
            continue
        act: Any = "change" if old and new else "add" if new else "remove"
        words = sentence(old.typed if old and not old.fault else None, new.typed if new else None, units)
        lines.append(
            schemas.ImportLine(act=act, words=f"{ref[0]} {words}" if ref[0] != "place" else f"garden {words}")
        )
    more = len(lines) - _MOST_LINES
    if more > 0:
        lines = [*lines[:_MOST_LINES], schemas.ImportLine(act="change", words=f"and {more} more")]
    return schemas.ImportOut(number=granted.garden.changes, lines=lines)


def take_in(granted: Granted, sent: schemas.ImportDo, visitor: Visitor) -> schemas.GardenOut:
    """Take a file in, all or nothing; it is one change, which undo takes back.

    Raises:
        Stale: The garden was changed since the import was looked at.
    """

    def make(garden: Garden, _before: State) -> Wanted:
        if garden.changes != sent.number:
            raise Stale(
                schemas.Conflict(garden=garden_out(replace(granted, garden=garden), visitor), things=[])
            )
        before, after = _wanted(garden, sent)
        return Wanted(after, "import", before=before)

    done = change_garden(granted.garden.pk, visitor, make)
    return garden_out(replace(granted, garden=done.garden), visitor)


def new_from_plan(visitor: Visitor, sent: schemas.ImportIn) -> schemas.GardenOut:
    """Make a garden of a plan file.

    Raises:
        InvalidPlan: Every wrong place of the file, or too many gardens.
    """
    plan = read_plan(sent.text)
    within_limits(from_core(plan.garden))
    return garden_out(made_once(visitor, lambda _owner: load_plan(visitor, plan)), visitor)
