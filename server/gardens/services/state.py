"""A garden's things in memory, and the one way they are saved: the difference of two states, all or nothing, in the log."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from ascent import model
from ascent.changes import sentence
from ascent.errors import InvalidPlan, Problem
from ascent.families import family_of
from ascent.plan import check_structure, problems_of
from ascent.quantities import System
from django.db import transaction
from pydantic import ValidationError

from ..models import Change, Garden, Thing

Document = dict[str, Any]
Ref = tuple[str, str]
PLACE: Ref = ("place", "place")
MODELS: dict[str, type[model.Typed]] = {
    "place": model.Place, "bed": model.BareBed, "feature": model.Feature, "structure": model.Structure,
}  # fmt: skip
_MOST = {"bed": 400, "feature": 400, "structure": 600}
_SAID = 2  # things named in the words of one change


@dataclass(frozen=True)
class Held:
    """One thing: its kind and key, the key of a structure's bed, its document, and the row it is stored in."""

    kind: str
    key: str
    home: str
    document: Document
    id: int | None = None
    revision: int = 0

    @property
    def ref(self) -> Ref:
        """Return kind and key."""
        return self.kind, self.key

    @property
    def typed(self) -> model.Typed:
        """Return the document as the core's own type."""
        return MODELS[self.kind].model_validate(self.document)


State = dict[Ref, Held]


def state_of(garden: Garden) -> State:
    """Return a garden's things as they are stored."""
    state: State = {PLACE: Held("place", "place", "", garden.document, garden.pk, garden.revision)}
    for row in garden.things.all():
        state[row.kind, row.key] = Held(row.kind, row.key, row.home, row.document, row.pk, row.revision)
    return state


def whole(state: State) -> model.Garden:
    """Return a state as the core's garden."""
    things: dict[str, list[Held]] = {"place": [], "bed": [], "feature": [], "structure": []}
    for held in state.values():
        things[held.kind].append(held)
    standing: dict[str, list[Document]] = {}
    for held in things["structure"]:
        standing.setdefault(held.home, []).append(held.document)
    beds = [{**held.document, "structures": standing.get(held.key, [])} for held in things["bed"]]
    return model.Garden.model_validate({**state[PLACE].document, "beds": beds, "features": [held.document for held in things["feature"]]})


def from_core(garden: model.Garden, state: State | None = None) -> State:
    """Return the core's garden as a state; things that an older state knows keep their rows."""
    known = state or {}
    found: State = {}

    def hold(kind: str, key: str, home: str, document: Document) -> None:
        old = known.get((kind, key))
        found[kind, key] = Held(kind, key, home, document, old.id if old else None, old.revision if old else 0)

    hold("place", "place", "", garden.model_dump(mode="json", exclude={"beds", "features"}))
    for bed in garden.beds:
        hold("bed", bed.key, "", bed.model_dump(mode="json", exclude={"structures"}))
        for structure in bed.structures:
            hold("structure", structure.key, bed.key, checked(structure).model_dump(mode="json"))
    for feature in garden.features:
        hold("feature", feature.key, "", feature.model_dump(mode="json"))
    return found


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
    return replace(held, document=typed.model_dump(mode="json"))


def within_limits(state: State) -> None:
    """Refuse a state with more things than a garden may hold.

    Raises:
        InvalidPlan: Too many of a kind.
    """
    for kind, most in _MOST.items():
        count = sum(1 for held in state.values() if held.kind == kind)
        if count > most:
            raise InvalidPlan([Problem(f"{kind}s", str(count), f"{most} in one garden are allowed")])


@transaction.atomic
def commit(garden: Garden, before: State, after: State, who: int | None, way: str = "do", about: int | None = None) -> Change | None:
    """Save the difference of two states and log it; None when nothing differs.

    Args:
        garden: The row, read in this transaction.
        before: Its things as stored.
        after: Its things as wanted.
        who: The account.
        way: What kind of change it is.
        about: Number of the change that is undone, redone or restored.
    """
    within_limits(after)
    edits = []
    for ref in _ordered({**before, **after}):
        old, new = before.get(ref), after.get(ref)
        if old and new and (old.document, old.home) == (new.document, new.home):
            continue
        edits.append(_entry(old, _store(garden, old, new)))
    if not edits:
        return None
    garden.changes += 1
    garden.save(update_fields=["changes", "document", "revision"])
    if way not in ("undo", "redo"):
        Change.objects.filter(garden=garden, who_id=who, fate="undone").update(fate="gone")
    return Change.objects.create(garden=garden, number=garden.changes, who_id=who, way=way, about=about, edits=edits)


def _ordered(state: State) -> list[Ref]:
    """Return beds before what stands on them."""
    order = {"place": 0, "bed": 1, "feature": 2, "structure": 3}
    return sorted(state, key=lambda ref: order[ref[0]])


def _store(garden: Garden, old: Held | None, new: Held | None) -> Held | None:
    """Write one thing and return it as stored."""
    if new is None:
        Thing.objects.filter(pk=_row(old)).delete()
        return None
    if new.kind == "place":
        garden.document, garden.revision = new.document, garden.revision + 1
        return replace(new, revision=garden.revision)
    if old is None:
        row = Thing.objects.create(
            pk=new.id, garden=garden, kind=new.kind, key=new.key, home=new.home, document=new.document, revision=new.revision + 1
        )
        return replace(new, id=row.pk, revision=row.revision)
    Thing.objects.filter(pk=_row(old)).update(document=new.document, home=new.home, revision=old.revision + 1)
    return replace(new, id=old.id, revision=old.revision + 1)


def _row(held: Held | None) -> int:
    assert held is not None and held.id is not None  # noqa: S101 - what is changed or taken away was stored
    return held.id


def _entry(old: Held | None, new: Held | None) -> Document:
    held = new or old
    assert held is not None  # noqa: S101 - one of the two is there
    return {
        "kind": held.kind, "key": held.key, "id": held.id, "revision": held.revision,
        "before": old.document if old else None, "after": new.document if new else None,
        "home_before": old.home if old else "", "home_after": new.home if new else "",
    }  # fmt: skip


def words_of(edits: list[Document], system: System) -> str:
    """Return the words of a logged change: the first things in full, the rest as a number."""
    said = [_said(edit, system) for edit in edits]
    more = f"; and {len(said) - _SAID} more" if len(said) > _SAID else ""
    return "; ".join(said[:_SAID]) + more


def _said(edit: Document, system: System) -> str:
    kind = MODELS[edit["kind"]]
    before, after = (kind.model_validate(edit[side]) if edit[side] else None for side in ("before", "after"))
    if edit["home_before"] != edit["home_after"] and before and after:
        return f"{getattr(after, 'name', '')}: to another bed"
    return sentence(before, after, system)


def load_plan(owner: Any, plan: model.Plan) -> Garden:
    """Store a plan's garden for an owner."""
    with transaction.atomic():
        garden = Garden.objects.create(owner_id=owner.pk, document=plan.garden.model_dump(mode="json", exclude={"beds", "features"}))
        things = [held for held in from_core(plan.garden).values() if held.kind != "place"]
        Thing.objects.bulk_create(
            Thing(garden=garden, kind=held.kind, key=held.key, home=held.home, document=held.document) for held in things
        )
    return garden
