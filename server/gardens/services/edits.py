"""Edits of a garden's plan: applied in memory, looked at or saved, undone and done again."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from ascent import model
from ascent.changes import differences
from ascent.errors import InvalidPlan, Problem
from ascent.plan import problems_of
from ascent.quantities import System
from django.db import transaction
from django.utils.text import slugify
from pydantic import ValidationError

from .. import schemas
from ..models import Change, Garden
from .access import Granted, Visitor
from .garden import garden_out, last_change, next_redo, plot_out
from .state import MODELS, PLACE, Held, State, commit, state_of, validated, whole, words_of


class Stale(Exception):
    """Someone else saved in between; `answer` is what the person is shown."""

    def __init__(self, answer: schemas.Conflict | schemas.StructureConflict) -> None:
        super().__init__("stale")
        self.answer = answer


class CannotUndo(Exception):
    """Nothing to undo, or someone else has changed it since."""


def free_key(state: State, kind: str, wanted: str) -> str:
    """Return a key that no thing of a kind has, made from a name."""
    stem = slugify(wanted)[:48].strip("-_").replace("_", "-") or kind
    key, number = stem, 1
    while (kind, key) in state:
        number += 1
        key = f"{stem}-{number}"
    return key


class _Applying:
    """Edits put on a state one by one; what is stale or wrong is gathered."""

    def __init__(self, state: State, system: System) -> None:
        self.state: State = dict(state)
        self.system = system
        self.made: list[str] = []
        self.stale: list[schemas.ThingConflict] = []
        self.problems: list[Problem] = []
        self._renamed: dict[tuple[str, str], str] = {}

    def put(self, index: int, edit: Any) -> None:
        """Apply one edit."""
        change = edit.change.model_dump(mode="json", exclude_unset=True)
        act = "change" if edit.kind == "place" else edit.act
        try:
            if act == "add":
                self._add(index, edit, change)
            else:
                self._change(index, edit, change, act)
        except InvalidPlan as error:
            self.problems += error.problems

    def _add(self, index: int, edit: Any, change: dict[str, Any]) -> None:
        source = self.state.get((edit.kind, edit.copy_of)) if edit.copy_of else None
        if edit.copy_of and source is None:
            raise InvalidPlan(
                [Problem(f"edits[{index}].{edit.kind}.copy_of", edit.copy_of, f"the key of a {edit.kind} of this garden is allowed")]
            )
        if edit.kind == "structure" and source is None:
            raise InvalidPlan([Problem(f"edits[{index}].{edit.kind}.copy_of", "nothing", "the key of a structure to copy is allowed")])
        document = dict(source.document) if source else {}
        name = change.get("name") or (f"{document['name']} 2" if source else edit.key)
        key = free_key(self.state, edit.kind, name if source or "name" in change else edit.key)
        self._renamed[edit.kind, edit.key] = key
        home = change.pop("bed", None) or (source.home if source else "")
        held = Held(edit.kind, key, self._home(index, edit.kind, home), _merged(document, {**change, "name": name, "key": key}))
        self.state[held.ref] = validated(held, ("edits", index, edit.kind, "change"))
        self.made.append(key)
        if edit.kind == "bed" and source:
            for guest in [h for h in self.state.values() if h.kind == "structure" and h.home == source.key]:
                own = free_key(self.state, "structure", guest.document["name"])
                self.state["structure", own] = replace(
                    guest, key=own, home=key, id=None, revision=0, document={**guest.document, "key": own}
                )  # fmt: skip

    def _change(self, index: int, edit: Any, change: dict[str, Any], act: str) -> None:
        key = "place" if edit.kind == "place" else self._renamed.get((edit.kind, edit.key), edit.key)
        held = self.state.get((edit.kind, key))
        if held is None or (edit.revision is not None and edit.revision != held.revision):
            self.stale.append(self._conflict(edit, held, change, act))
            return
        if act == "remove":
            del self.state[held.ref]
            if held.kind == "bed":
                self.state = {ref: h for ref, h in self.state.items() if h.kind != "structure" or h.home != key}
            return
        home = self._home(index, edit.kind, change.pop("bed", held.home))
        self.state[held.ref] = validated(
            replace(held, home=home, document=_merged(held.document, change)), ("edits", index, edit.kind, "change")
        )

    def _home(self, index: int, kind: str, home: str) -> str:
        if kind != "structure":
            return ""
        key = self._renamed.get(("bed", home), home)
        if ("bed", key) not in self.state:
            raise InvalidPlan([Problem(f"edits[{index}].structure.change.bed", home, "the key of a bed of this garden is allowed")])
        return key

    def _conflict(self, edit: Any, held: Held | None, change: dict[str, Any], act: str) -> schemas.ThingConflict:
        key = getattr(edit, "key", "place")
        if held is None:
            return schemas.ThingConflict(kind=edit.kind, key=key, name=str(change.get("name") or key), revision=None, differences=[])
        mine = {k: v for k, v in change.items() if k != "bed"} if act == "change" else {}
        try:
            found = differences(held.typed, MODELS[held.kind].model_validate(_merged(held.document, mine)), self.system)
        except ValidationError as error:
            raise InvalidPlan(problems_of(error, ("change",))) from error
        name = str(held.document.get("name", key))
        return schemas.ThingConflict(kind=edit.kind, key=key, name=name, revision=held.revision, differences=list(found))


def _merged(document: dict[str, Any], change: dict[str, Any]) -> dict[str, Any]:
    """Return a document with what changes of it; single options and prices join those that are there."""
    merged = {**document, **change}
    for name in ("options", "prices"):
        if isinstance(change.get(name), dict):
            merged[name] = {**document.get(name, {}), **change[name]}
    return merged


def _applied(state: State, edits: Any, system: System) -> _Applying:
    applying = _Applying(state, system)
    for index, edit in enumerate(edits):
        applying.put(index, edit)
    return applying


def draft(granted: Granted, sent: schemas.DraftEditsIn) -> schemas.PlotOut:
    """Return the plan with edits that are not stored; what cannot be done is said and left out."""
    state = state_of(granted.garden)
    system: System = whole({PLACE: state[PLACE]}).units
    applying = _applied(state, [edit.model_copy(update={"revision": None}) for edit in sent.edits], system)
    return plot_out(whole(applying.state), sent.about, tuple(str(problem) for problem in applying.problems))


@transaction.atomic
def save(granted: Granted, sent: schemas.EditsIn, visitor: Visitor) -> schemas.EditsOut:
    """Save edits, all or none.

    Raises:
        Stale: Someone else changed one of the things since the revision named.
        InvalidPlan: Every wrong field, with its path.
    """
    garden = Garden.objects.get(pk=granted.garden.pk)
    before = state_of(garden)
    system: System = model.Place.model_validate(garden.document).units
    applying = _applied(before, sent.edits, system)
    if applying.problems:
        raise InvalidPlan(applying.problems)
    if applying.stale:
        raise Stale(schemas.Conflict(garden=garden_out(replace(granted, garden=garden), visitor), things=applying.stale))
    commit(garden, before, applying.state, visitor.pk)
    return schemas.EditsOut(garden=garden_out(replace(granted, garden=garden), visitor), made=applying.made)


@transaction.atomic
def undo(granted: Granted, visitor: Visitor) -> schemas.GardenOut:
    """Undo the person's last change that still stands.

    Raises:
        CannotUndo: There is none, or someone else has changed the same things since.
    """
    return _step(granted, visitor, last_change(granted.garden, visitor), "undo")


@transaction.atomic
def redo(granted: Granted, visitor: Visitor) -> schemas.GardenOut:
    """Do again what was undone last, or raise CannotUndo."""
    return _step(granted, visitor, next_redo(granted.garden, visitor), "redo")


def _step(granted: Granted, visitor: Visitor, change: Change | None, way: str) -> schemas.GardenOut:
    if change is None:
        raise CannotUndo(f"nothing to {way}")
    garden = Garden.objects.get(pk=granted.garden.pk)
    before = state_of(garden)
    after = reverted(before, change, way == "redo")
    commit(garden, before, after, visitor.pk, way, change.number)
    Change.objects.filter(pk=change.pk).update(fate="undone" if way == "undo" else "stands")
    return garden_out(replace(granted, garden=garden), visitor)


def reverted(state: State, change: Change, forward: bool = False) -> State:
    """Return a state with a logged change taken back, or done again.

    Raises:
        CannotUndo: A thing is no longer what the change made of it.
    """
    source, target = ("before", "after") if forward else ("after", "before")
    found = dict(state)
    for edit in change.edits:
        ref = (edit["kind"], edit["key"])
        held = found.get(ref)
        if (held.document if held else None) != edit[source] or (held is not None and held.home != edit[f"home_{source}"]):
            system: System = model.Place.model_validate(state[PLACE].document).units
            raise CannotUndo(f"it has been changed again since: {words_of([edit], system)}")
        if edit[target] is None:
            found.pop(ref, None)
        elif held is None:
            found[ref] = Held(*ref, edit[f"home_{target}"], edit[target], edit["id"], edit["revision"])
        else:
            found[ref] = replace(held, document=edit[target], home=edit[f"home_{target}"])
    orphans = [ref for ref, held in found.items() if held.kind == "structure" and ("bed", held.home) not in found]
    if orphans:
        raise CannotUndo("something stands on that bed now")
    return found
