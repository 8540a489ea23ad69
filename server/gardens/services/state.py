"""A garden's things in memory, and the one way they are saved: the difference of two states, all or nothing,
in the log.
"""

from __future__ import annotations

import json
from collections.abc import Collection
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from ascent import plan as model
from ascent.errors import InvalidPlan, Problem
from ascent.families import family_of
from ascent.files.plan import Plan, check_structure, problems_of
from ascent.memory import Same
from ascent.plan.entries import MOST_ENTRIES, Entry
from ascent.plan.upgrades import upgraded_thing
from ascent.report.changes import sentence
from ascent.words.quantities import System
from django.db import transaction
from django.db.models import Q, TextField
from django.db.models.functions import Cast
from pydantic import ValidationError

from ..models import Change, Garden, LogEntry, Thing

Document = dict[str, Any]
Ref = tuple[str, str]
PLACE: Ref = ("place", "place")
MODELS: dict[str, type[model.Typed]] = {
    "place": model.Place,
    "bed": model.BareBed,
    "feature": model.Feature,
    "structure": model.Structure,
    "stock": model.Stock,
    "need": model.KeptNeed,
    "record": model.Record,
    "diary": model.Diary,
    "entry": Entry,
}
LISTS = {
    "features": "feature",
    "stock": "stock",
    "needs": "need",
    "records": "record",
    "diaries": "diary",
}  # of a garden, besides beds
BELOW = {"beds", *LISTS}
PLAIN: Document = model.Place(name="A garden whose own fields cannot be read").model_dump(mode="json")
_MOST = {
    "bed": model.MOST_BEDS,
    "feature": model.MOST_FEATURES,
    "structure": model.MOST_STRUCTURES,
    "stock": model.MOST_STOCK,
    "need": model.MOST_NEEDS,
    "record": model.MOST_RECORDS,
    "diary": model.MOST_DIARIES,
}
_SAID = 2  # things named in the words of one change


@dataclass(frozen=True)
class Held:
    """One thing: its kind and key, the key of a structure's bed, its document, and the row it is stored in.

    A document is brought up to the present form and complete; one that nobody can read is kept as it was
    stored, with what is wrong as its `fault` and the `form` it was stored in.
    """

    kind: str
    key: str
    home: str
    document: Document
    id: int | None = None
    revision: int = 0
    form: int = model.FORMAT_VERSION
    fault: str = ""

    @property
    def ref(self) -> Ref:
        """Return kind and key."""
        return self.kind, self.key

    @property
    def name(self) -> str:
        """Return what it is called, also where it cannot be read."""
        return str(self.document.get("name") or self.key)

    @property
    def typed(self) -> model.Typed:
        """Return the document as the core's own type."""
        return MODELS[self.kind].model_validate(self.document)


State = dict[Ref, Held]


def held_from(
    kind: str, key: str, home: str, document: Document, form: int, id: int | None = None, revision: int = 0
) -> Held:
    """Return a thing as it was stored, brought up to the present form; or as it is, with its fault."""
    return _held(kind, key, home, json.dumps(document), form, id, revision)


def _held(kind: str, key: str, home: str, text: str, form: int, id: int | None, revision: int) -> Held:
    try:
        return Held(kind, key, home, _meant(kind, text, form), id, revision)
    except InvalidPlan as error:
        return Held(kind, key, home, json.loads(text), id, revision, form, str(error.problems[0]))


@lru_cache(maxsize=4096)
def _meant(kind: str, text: str, form: int) -> Document:
    """Return what a stored document means today: in the present form, with everything filled in. It is
    shared; do not change it.

    Raises:
        InvalidPlan: It cannot be read.
    """
    if form > model.FORMAT_VERSION:
        raise InvalidPlan(
            [Problem(kind, f"form {form}", f"form 1 to {model.FORMAT_VERSION} is read by this program")]
        )
    try:
        document = upgraded_thing(kind, json.loads(text), form)
        return validated(Held(kind, "", "", document)).document
    except InvalidPlan:
        raise
    except Exception as error:  # a step that stumbles over one document must not close its garden
        raise InvalidPlan(
            [Problem(kind, type(error).__name__, "a document that can be brought up to date is allowed")]
        ) from error


def state_of(garden: Garden, only: Q | None = None) -> State:
    """Return a garden's things as they are stored, or only those of a kind that is asked for."""
    state: State = {
        PLACE: held_from("place", "place", "", garden.document, garden.form, garden.pk, garden.revision)
    }
    things = garden.things.all() if only is None else garden.things.filter(only)
    rows = things.annotate(text=Cast("document", TextField())).values_list(
        "kind", "key", "home", "text", "form", "pk", "revision"
    )
    return state | {
        (row[0], row[1]): _held(*row) for row in rows
    }  # as text: what has been read before is not read again


def entries_in(garden: Garden, keys: Collection[str]) -> State:
    """Return entries of a garden’s log by their keys; a state holds only those that are asked for."""
    rows = garden.entries.filter(key__in=keys).values_list("key", "document", "form", "pk", "revision")
    return {
        ("entry", key): held_from("entry", key, "", document, form, pk, revision)
        for key, document, form, pk, revision in rows
    }


def places_logged(garden: Garden) -> set[str]:
    """Return the keys of all beds and supports, there or gone, that a garden’s log tells of."""
    rows = garden.entries.order_by().values_list("structure", "bed").distinct()
    return {key for row in rows for key in row if key}


def log_of(garden: Garden, only: Q | None = None) -> list[Entry]:
    """Return what happened in a garden in order of days, or what is asked for of it; what cannot be read is
    left out.
    """
    rows = garden.entries.all() if only is None else garden.entries.filter(only)
    texts = rows.annotate(text=Cast("document", TextField())).order_by("on", "pk")
    return [
        entry
        for text, form in texts.values_list("text", "form")
        if (entry := _entry_of(text, form)) is not None
    ]


@lru_cache(maxsize=32_768)
def _entry_of(text: str, form: int) -> Entry | None:
    """Return an entry from its text, nothing where it cannot be read."""
    held = held_from("entry", "", "", json.loads(text), form)
    return None if held.fault else Entry.model_validate(held.document)


def of_row(row: Thing) -> Held:
    """Return one stored thing."""
    return held_from(row.kind, row.key, row.home, row.document, row.form, row.pk, row.revision)


def place_of(garden: Garden) -> model.Place:
    """Return a garden's own fields; where they cannot be read, the usual ones under its name."""
    return _place(held_from("place", "place", "", garden.document, garden.form))


def _place(held: Held) -> model.Place:
    return model.Place.model_validate(held.document) if not held.fault else model.Place.model_validate(PLAIN)


def whole(state: State) -> model.Garden:
    """Return a state as the core's garden; what cannot be read is not in it."""
    beds = [_bed_of(bed, guests) for bed, guests in _beds(state)]
    lists = {
        name: [_lone(kind, Same(held.document)) for held in _read(state, kind)]
        for name, kind in LISTS.items()
    }
    return model.Garden.model_validate({**_place(state[PLACE]).model_dump(), "beds": beds, **lists})


def _bed_of(bed: Held, guests: list[Held]) -> model.Bed:
    return _bed_from(Same(bed.document, *(guest.document for guest in guests)))


@lru_cache(maxsize=2048)
def _bed_from(same: Same) -> model.Bed:
    """Return a bed from its document and those of what stands on it; read again only when one is another."""
    bed, *guests = same.things
    return model.Bed.model_validate({**bed, "structures": guests})


@lru_cache(maxsize=2048)
def _lone(kind: str, same: Same) -> model.Typed:
    """Return what stands for itself from its document."""
    (document,) = same.things
    return MODELS[kind].model_validate(document)


def _beds(state: State) -> list[tuple[Held, list[Held]]]:
    """Return the beds that can be read, each with what stands on it."""
    standing: dict[str, list[Held]] = {}
    for thing in state.values():
        if thing.kind == "structure" and not thing.fault:
            standing.setdefault(thing.home, []).append(thing)
    return [
        (thing, standing.get(thing.key, []))
        for thing in state.values()
        if thing.kind == "bed" and not thing.fault
    ]


def _read(state: State, kind: str) -> list[Held]:
    """Return the things of a kind that can be read."""
    return [thing for thing in state.values() if thing.kind == kind and not thing.fault]


def stock_in(state: State) -> list[model.Stock]:
    """Return what of a state is in the shed."""
    return [model.Stock.model_validate(held.document) for held in _read(state, "stock")]


def unreadable(state: State) -> list[Held]:
    """Return what of a garden cannot be shown: what nobody can read, and what stands on a bed that nobody can
    read.
    """
    lost = {thing.key for thing in state.values() if thing.kind == "bed" and thing.fault}
    on_lost = (
        replace(thing, fault="the bed it stands on cannot be read")
        for thing in state.values()
        if thing.home in lost and not thing.fault
    )
    return [*(thing for thing in state.values() if thing.fault), *on_lost]


def from_core(garden: model.Garden, state: State | None = None) -> State:
    """Return the core's garden as a state; things that an older state knows keep their rows."""
    known = state or {}
    things: State = {}

    def hold(kind: str, key: str, home: str, document: Document) -> None:
        old = known.get((kind, key))
        things[kind, key] = Held(
            kind, key, home, document, old.id if old else None, old.revision if old else 0
        )

    hold("place", "place", "", garden.model_dump(mode="json", exclude=BELOW))
    for bed in garden.beds:
        hold("bed", bed.key, "", bed.model_dump(mode="json", exclude={"structures"}))
        for structure in bed.structures:
            hold("structure", structure.key, bed.key, checked(structure).model_dump(mode="json"))
    for name, kind in LISTS.items():
        for thing in getattr(garden, name):
            hold(kind, thing.key, "", thing.model_dump(mode="json"))
    if state:
        things |= {thing.ref: thing for thing in unreadable(state)}
    return things


def checked(structure: model.Structure, prefix: tuple[str | int, ...] = ()) -> model.Structure:
    """Return a structure with all its options filled in.

    Raises:
        InvalidPlan: A wrong option, with its path.
    """
    problems = check_structure(structure, prefix)
    if problems:
        raise InvalidPlan(problems)
    options = family_of(structure.family).options.model_validate(structure.options)
    return structure.model_copy(update={"options": options.model_dump(mode="json")})


def validated(held: Held, prefix: tuple[str | int, ...] = ()) -> Held:
    """Return a thing whose document is complete and right.

    Raises:
        InvalidPlan: Every wrong field, with its path behind `prefix`.
    """
    try:
        typed = held.typed
    except ValidationError as error:
        raise InvalidPlan(problems_of(error, prefix)) from error
    if isinstance(typed, model.Structure):
        typed = checked(typed, prefix)
    return replace(held, document=typed.model_dump(mode="json"), form=model.FORMAT_VERSION, fault="")


def within_limits(state: State) -> None:
    """Refuse a state with more things than a garden may hold.

    Raises:
        InvalidPlan: Too many of a kind.
    """
    for kind, most in _MOST.items():
        count = sum(1 for held in state.values() if held.kind == kind)
        if count > most:
            raise InvalidPlan([Problem(f"{kind}s", str(count), f"{most} in one garden are allowed")])


def commit(
    garden: Garden, before: State, after: State, who: int | None, way: str = "do", about: int | None = None
) -> Change | None:
    """Save the difference of two states and log it; None when nothing differs. To be called in a transaction.

    Args:
        garden: The row, as nobody has changed it since.
        before: Its things as stored.
        after: Its things as wanted.
        who: The account.
        way: What kind of change it is.
        about: Number of the change that is undone, redone or restored.
    """
    within_limits(after)
    if (
        any(ref[0] == "entry" and ref not in before for ref in after)
        and garden.entries.count() >= MOST_ENTRIES
    ):
        allowed = f"{MOST_ENTRIES} in one garden are allowed; take older ones out as a file first"
        raise InvalidPlan([Problem("entries", str(MOST_ENTRIES), allowed)])
    edits = []
    for ref in _ordered({**before, **after}):
        old, new = before.get(ref), after.get(ref)
        if old and new and (old.document, old.home) == (new.document, new.home):
            continue
        edits.append(_entry(old, _store(garden, old, new)))
    if not edits:
        return None
    garden.changes += 1
    garden.save(update_fields=["changes", "document", "form", "revision"])
    if way not in ("undo", "redo"):
        Change.objects.filter(garden=garden, who_id=who, fate="undone").update(fate="gone")
    return Change.objects.create(
        garden=garden, number=garden.changes, who_id=who, way=way, about=about, edits=edits
    )


def _ordered(state: State) -> list[Ref]:
    """Return beds before what stands on them."""
    order = ["place", "bed", "feature", "stock", "need", "structure", "record", "diary", "entry"]
    return sorted(state, key=lambda ref: order.index(ref[0]))


def _store(garden: Garden, old: Held | None, new: Held | None) -> Held | None:
    """Write one thing and return it as stored."""
    if "entry" in (old.kind if old else "", new.kind if new else ""):
        return _store_entry(garden, old, new)
    if new is None:
        Thing.objects.filter(pk=_row(old)).delete()
        return None
    if new.kind == "place":
        garden.document, garden.form, garden.revision = new.document, new.form, garden.revision + 1
        return replace(new, revision=garden.revision)
    fields = {"document": new.document, "home": new.home, "form": new.form}
    if old is None:
        row = Thing.objects.create(
            pk=new.id, garden=garden, kind=new.kind, key=new.key, revision=new.revision + 1, **fields
        )
        return replace(new, id=row.pk, revision=row.revision)
    Thing.objects.filter(pk=_row(old)).update(revision=old.revision + 1, **fields)
    return replace(new, id=old.id, revision=old.revision + 1)


def _store_entry(garden: Garden, old: Held | None, new: Held | None) -> Held | None:
    """Write one entry of the log and return it as stored."""
    if new is None:
        LogEntry.objects.filter(pk=_row(old)).delete()
        return None
    fields = _columns(new.document) | {"form": new.form}
    if old is None:
        row = LogEntry.objects.create(
            pk=new.id, garden=garden, key=new.key, revision=new.revision + 1, **fields
        )
        return replace(new, id=row.pk, revision=row.revision)
    LogEntry.objects.filter(pk=_row(old)).update(revision=old.revision + 1, **fields)
    return replace(new, id=old.id, revision=old.revision + 1)


def _columns(document: Document) -> dict[str, Any]:
    return {
        "document": document,
        "on": document["on"],
        "kind": document["kind"],
        "structure": document["structure"] or "",
        "bed": document["bed"] or "",
    }


def _row(held: Held | None) -> int:
    assert held is not None and held.id is not None  # noqa: S101 - what is changed or taken away was stored
    return held.id


def _entry(old: Held | None, new: Held | None) -> Document:
    held = new or old
    assert held is not None  # noqa: S101 - one of the two is there
    return {
        "kind": held.kind,
        "key": held.key,
        "id": held.id,
        "revision": held.revision,
        "before": old.document if old else None,
        "after": new.document if new else None,
        "home_before": old.home if old else "",
        "home_after": new.home if new else "",
        **{
            f"form_{side}": thing.form
            for side, thing in (("before", old), ("after", new))
            if thing and thing.form != model.FORMAT_VERSION
        },
    }


def side_of(edit: Document, side: str, form: int) -> Held | None:
    """Return one side of a logged edit as a thing in the present form, None where it was not there."""
    if edit[side] is None:
        return None
    stored = edit.get(f"form_{side}", form)
    return held_from(
        edit["kind"], edit["key"], edit[f"home_{side}"], edit[side], stored, edit["id"], edit["revision"]
    )


def words_of(change: Change, system: System) -> str:
    """Return the words of a logged change: the first things in full, the rest as a number."""
    said = [words_of_edit(edit, change.form, system) for edit in change.edits[:_SAID]]
    more = f"; and {len(change.edits) - _SAID} more" if len(change.edits) > _SAID else ""
    return "; ".join(said) + more


def words_of_edit(edit: Document, form: int, system: System) -> str:
    """Return the words of one thing's change; where a side cannot be read, that there was one."""
    before, after = side_of(edit, "before", form), side_of(edit, "after", form)
    held = after or before
    assert held is not None  # noqa: S101 - one of the two is there
    if any(side and side.fault for side in (before, after)):
        done = "added" if not before else "removed" if not after else "changed"
        return f"{held.name} {done}, in a form that can no longer be read"
    if before and after and before.home != after.home:
        return f"{after.name}: to another bed"
    return sentence(before.typed if before else None, after.typed if after else None, system)


def load_plan(owner: Any, plan: Plan) -> Garden:
    """Store a plan's garden and its log for an owner."""
    things = [thing for thing in from_core(plan.garden).values() if thing.kind != "place"]
    with transaction.atomic():
        garden = Garden.objects.create(
            owner_id=owner.pk, document=plan.garden.model_dump(mode="json", exclude=BELOW)
        )
        Thing.objects.bulk_create(
            Thing(garden=garden, kind=thing.kind, key=thing.key, home=thing.home, document=thing.document)
            for thing in things
        )
        LogEntry.objects.bulk_create(
            LogEntry(garden=garden, key=entry.key, **_columns(entry.model_dump(mode="json")))
            for entry in plan.log
        )
    return garden
