"""Edits of a garden's plan: applied in memory, looked at or saved, undone and done again."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Collection, Mapping
from dataclasses import replace
from typing import Any

from ascent import plan as model
from ascent import tables
from ascent.analysis.design import geometry_of
from ascent.building.asbuilt import as_read, being_built, check_differs
from ascent.errors import InvalidPlan, Problem
from ascent.files.plan import problems_of
from ascent.loads.season import dated
from ascent.log.line import read_entry
from ascent.log.members import key_called
from ascent.plan.garden import FORMAT_VERSION
from ascent.plan.upgrades import free_key
from ascent.report.changes import differences
from ascent.site import Site
from ascent.words.quantities import System
from ascent.words.texts import template
from django.utils.text import slugify
from pydantic import ValidationError

from .. import schemas
from ..models import Change, Garden
from . import photos
from .access import Granted, Visitor
from .clock import today
from .garden import changed_by, garden_out, last_change, next_redo, plot_out
from .known import known_of
from .state import (
    MODELS,
    PLACE,
    PLAIN,
    Held,
    Ref,
    State,
    entries_in,
    place_of,
    places_logged,
    side_of,
    validated,
    whole,
    words_of_edit,
)
from .writing import Wanted, change_garden

_JOINED = ("ticks", "differs", "pulls", "marks", "storms")  # of a record or a diary: written in one by one
Photos = Mapping[str, tuple[str, ...]]  # their digests, by the entries they were sent with
_KEPT = ("record", "diary")  # of a structure, one each, whoever begins it


class Stale(Exception):
    """Someone else saved in between; `answer` is what the person is shown."""

    def __init__(self, answer: schemas.Conflict | schemas.StructureConflict) -> None:
        super().__init__("stale")
        self.answer = answer


class CannotUndo(Exception):
    """Nothing to undo, or someone else has changed it since."""


def new_key(state: State, kind: str, wanted: str, logged: Collection[str] = ()) -> str:
    """Return a key that nothing in a garden has, nor had when its log was written, made from a name.

    logged: keys of places that its log tells of.
    """
    return free_key(stem_of(wanted, kind), {key for _, key in state}.union(logged))


def stem_of(wanted: str, kind: str) -> str:
    """Return the key that a name makes, whether it is free or not; the kind where a name makes none."""
    return slugify(wanted)[:48].strip("-_").replace("_", "-") or kind


class _Applying:
    """Edits put on a state one by one; what is stale or wrong is gathered."""

    def __init__(self, state: State, system: System, photos: Photos, logged: Collection[str] = ()) -> None:
        self.state: State = dict(state)
        self.system = system
        self.photos, self.logged = photos, logged
        self.made: list[str] = []
        self.stale: list[schemas.ThingConflict] = []
        self.problems: list[Problem] = []
        self._renamed: dict[tuple[str, str], str] = {}

    def put(self, index: int, edit: Any) -> None:
        """Apply one edit."""
        change = edit.change.model_dump(mode="json", exclude_unset=True)
        if change.pop("pictures", None) and edit.kind == "entry":
            change["photos"] = self.photos.get(edit.key, ())
        act = "change" if edit.kind == "place" else edit.act
        try:
            if edit.kind == "entry" and act == "add":
                self._log(index, edit, change)
            elif act == "add":
                self._add(index, edit, change)
            else:
                self._change(index, edit, change, act)
        except InvalidPlan as error:
            self.problems += error.problems

    def _add(self, index: int, edit: Any, change: dict[str, Any]) -> None:
        copied = self.state.get((edit.kind, edit.copy_of or ""))
        of = change.get("structure") or (copied.document.get("structure") if copied else None)
        if edit.kind in _KEPT and (begun := self._kept_of(edit.kind, of)):
            # two who begin at once write in one
            more = {name: value for name, value in change.items() if name not in ("name", "begun")}
            self._change(index, edit.model_copy(update={"key": begun.key}), more, "change")
            return
        source = self.state.get((edit.kind, self._key(edit.kind, edit.copy_of))) if edit.copy_of else None
        if edit.copy_of and source is None:
            raise InvalidPlan(
                [
                    Problem(
                        f"edits[{index}].{edit.kind}.copy_of",
                        edit.copy_of,
                        f"the key of a {edit.kind} of this garden is allowed",
                    )
                ]
            )
        if source and source.fault:
            raise InvalidPlan(
                [
                    Problem(
                        f"edits[{index}].{edit.kind}.copy_of",
                        source.name,
                        f"what can be read is allowed: {source.fault}",
                    )
                ]
            )
        if edit.kind == "structure" and source is None:
            raise InvalidPlan(
                [
                    Problem(
                        f"edits[{index}].{edit.kind}.copy_of",
                        "nothing",
                        "the key of a structure to copy is allowed",
                    )
                ]
            )
        document = _anew(source.document) if source else {}
        if source and change.get("planted"):
            change["plantings"] = self._planted(index, document["plantings"], change.pop("planted"))
        name = change.get("name") or (f"{document['name'][:118]} 2" if source else edit.key)
        key = new_key(self.state, edit.kind, name if source or "name" in change else edit.key, self.logged)
        self._renamed[edit.kind, edit.key] = key
        home = self._asked_home(edit, change) or (source.home if source else "")
        held = Held(
            edit.kind,
            key,
            self._home(index, edit.kind, home),
            _merged(document, {**change, "name": name, "key": key}),
        )
        made = validated(held, ("edits", index, edit.kind, "change"))
        self.state[held.ref] = self._fitting(index, made)
        self.made.append(key)
        if edit.kind == "bed" and source:
            for guest in [
                h
                for h in self.state.values()
                if h.kind == "structure" and h.home == source.key and not h.fault
            ]:
                own = new_key(self.state, "structure", guest.document["name"], self.logged)
                self.state["structure", own] = replace(
                    guest,
                    key=own,
                    home=key,
                    id=None,
                    revision=0,
                    document={**_anew(guest.document), "key": own},
                )

    def _log(self, index: int, edit: Any, change: dict[str, Any]) -> None:
        """Write an entry in the log, from its fields or from a line; its key is its sender’s own."""
        line, who = change.pop("line", None), change.get("who", "")
        if ("entry", edit.key) in self.state:
            allowed = "a key of its own for each entry is allowed"
            raise InvalidPlan([Problem(f"edits[{index}].entry.key", edit.key, allowed)])
        place = whole(self.state)
        if line:
            at = dt.datetime.fromisoformat(change["at"]) if change.get("at") else dt.datetime.now(dt.UTC)
            on = dt.date.fromisoformat(change["on"]) if change.get("on") else today(place)
            found = read_entry(
                line, place, edit.key, at, on, change.get("structure") or change.get("bed") or "", who
            )
            own = tables.log_kinds()[found.kind].fields
            if change.get("member") and not found.member and "member" in own:
                found = found.model_copy(update={"member": change["member"]})
            document = found.model_dump(mode="json") | {"photos": change.get("photos", ())}
        else:
            self._part_called(index, change, change.get("structure"))
            document = self._still_there(
                {"at": dt.datetime.now(dt.UTC).isoformat(), "on": today(place), **change}
            )
        held = Held("entry", edit.key, "", {**document, "key": edit.key})
        made = validated(held, ("edits", index, "entry", "change"))
        self.state[made.ref] = made
        self.made.append(edit.key)

    def _part_called(self, index: int, change: dict[str, Any], structure: str | None) -> None:
        """Put the key of a part in the place of what it is called: ‘post 3’.

        Raises:
            InvalidPlan: Its support has no such part.
        """
        called, of = change.get("member") or "", self.state.get(("structure", structure or ""))
        if " " not in called or of is None or of.fault:
            return
        bed = model.BareBed.model_validate(self.state["bed", of.home].document)
        try:
            change["member"] = key_called(
                geometry_of(bed, model.Structure.model_validate(of.document)), called
            )
        except InvalidPlan as error:
            where = f"edits[{index}].entry.change.member"
            raise InvalidPlan(
                [Problem(where, each.given, each.allowed) for each in error.problems]
            ) from error

    def _still_there(self, document: dict[str, Any]) -> dict[str, Any]:
        """Return an entry of a place that is gone as one of the garden, with what it was at in its note:
        what was written without a line is not lost because somebody took a bed away meanwhile.
        """
        gone = [
            name
            for name, kind in (("structure", "structure"), ("bed", "bed"))
            if document.get(name) and (kind, document[name]) not in self.state
        ]
        if not gone or (tables.log_kinds()[document["kind"]].about == "structure" and "structure" in gone):
            return document
        said = template("log.was-at").format(key=", ".join(document[name] for name in gone))
        note = f"{document.get('note', '')} {said}".strip()[:400]
        return {**document, **dict.fromkeys(gone), "note": note}

    def _change(self, index: int, edit: Any, change: dict[str, Any], act: str) -> None:
        key = "place" if edit.kind == "place" else self._key(edit.kind, edit.key)
        held = self.state.get((edit.kind, key))
        if held is None or (edit.revision is not None and edit.revision != held.revision):
            self.stale.append(self._conflict(edit, held, change, act))
            return
        if act == "remove":
            del self.state[held.ref]
            if held.kind == "bed":
                self.state = {ref: h for ref, h in self.state.items() if not _of_bed(h, key)}
            if held.kind in ("bed", "structure"):
                self.state = with_no_lost(self.state)
            return
        if held.fault and edit.kind == "place":
            held = replace(
                held, document=PLAIN, form=FORMAT_VERSION, fault=""
            )  # what it was stays in the history
        if held.fault:
            raise InvalidPlan(
                [
                    Problem(
                        f"edits[{index}].{edit.kind}",
                        held.name,
                        f"it cannot be read and can only be removed: {held.fault}",
                    )
                ]
            )
        if held.kind == "structure" and change.get("planted"):
            change["plantings"] = self._planted(index, held.document["plantings"], change.pop("planted"))
        if held.kind == "structure" and held.document.get("built") and change.get("built"):
            del change["built"]  # it stands as it was begun until somebody says that it no longer does
        if held.kind == "entry":
            self._part_called(index, change, change.get("structure", held.document.get("structure")))
        if held.kind == "entry" and "photos" in change:
            change["photos"] = [*held.document["photos"], *change["photos"]]
        home = self._home(index, edit.kind, self._asked_home(edit, change) or held.home)
        changed = validated(
            replace(held, home=home, document=_merged(held.document, change)),
            ("edits", index, edit.kind, "change"),
        )
        self.state[held.ref] = self._fitting(index, changed)

    def _fitting(self, index: int, held: Held) -> Held:
        """Return a record with what was written in it read, a diary of a structure that is there; else
        as it is.

        Raises:
            InvalidPlan: It is of no structure, or says what cannot be of it.
        """
        if held.kind not in _KEPT:
            return held
        where = f"edits[{index}].{held.kind}.change"
        of = self.state.get(("structure", held.document["structure"]))
        if of is None or of.fault:
            allowed = "the key of a structure of this garden is allowed"
            raise InvalidPlan([Problem(f"{where}.structure", held.document["structure"], allowed)])
        if held.kind == "diary":
            return held
        record = model.Record.model_validate(held.document)
        site = Site(
            garden=model.Place.model_validate(self.state[PLACE].document),
            bed=model.BareBed.model_validate(self.state["bed", of.home].document),
        )
        structure = being_built(model.Structure.model_validate(of.document))
        try:
            record = as_read(structure, record, self.system)
            check_differs(structure, site, record)
        except InvalidPlan as error:
            told = [Problem(f"{where}.{each.path}", each.given, each.allowed) for each in error.problems]
            raise InvalidPlan(told) from error
        return replace(held, document=record.model_dump(mode="json"))

    def _kept_of(self, kind: str, structure: Any) -> Held | None:
        """Return the record or the diary of a structure, where one has begun."""
        return next(
            (
                held
                for held in self.state.values()
                if held.kind == kind and not held.fault and held.document["structure"] == structure
            ),
            None,
        )

    def _key(self, kind: str, key: str) -> str:
        """Return the key of a thing that these edits may have added under another."""
        return self._renamed.get((kind, key), key)

    def _asked_home(self, edit: Any, change: dict[str, Any]) -> str:
        """Return the bed that an edit of a structure names; it is no field of its own."""
        return str(change.pop("bed", None) or "") if edit.kind == "structure" else ""

    def _home(self, index: int, kind: str, home: str) -> str:
        if kind != "structure":
            return ""
        key = self._key("bed", home)
        if ("bed", key) not in self.state:
            raise InvalidPlan(
                [
                    Problem(
                        f"edits[{index}].structure.change.bed",
                        home,
                        "the key of a bed of this garden is allowed",
                    )
                ]
            )
        return key

    def _planted(
        self, index: int, plantings: list[dict[str, Any]], days: dict[str, str]
    ) -> list[dict[str, Any]]:
        """Return plantings with the dates on which they are planted, by their keys."""
        keys = [planting["key"] for planting in plantings]
        if unknown := next((key for key in days if key not in keys), ""):
            allowed = f"one of {', '.join(keys)} is allowed"
            raise InvalidPlan([Problem(f"edits[{index}].structure.change.planted", unknown, allowed)])
        place = model.Place.model_validate(self.state[PLACE].document)
        moved = []
        for each in plantings:
            if each["key"] in days:
                date = dt.date.fromisoformat(days[each["key"]])
                planting = dated(place, model.Planting.model_validate(each), date)
                moved.append(planting.model_dump(mode="json"))
            else:
                moved.append(each)
        return moved

    def _conflict(
        self, edit: Any, held: Held | None, change: dict[str, Any], act: str
    ) -> schemas.ThingConflict:
        key = getattr(edit, "key", "place")
        if held is None:
            return schemas.ThingConflict(
                kind=edit.kind, key=key, name=str(change.get("name") or key), revision=None, differences=[]
            )
        if held.fault:
            return schemas.ThingConflict(
                kind=edit.kind, key=key, name=held.name, revision=held.revision, differences=[]
            )
        mine = {k: v for k, v in change.items() if k != "bed"} if act == "change" else {}
        try:
            differing = differences(
                held.typed, MODELS[held.kind].model_validate(_merged(held.document, mine)), self.system
            )
        except ValidationError as error:
            raise InvalidPlan(problems_of(error, ("change",))) from error
        return schemas.ThingConflict(
            kind=edit.kind, key=key, name=held.name, revision=held.revision, differences=list(differing)
        )


def _of_bed(held: Held, bed: str) -> bool:
    """Return whether a thing goes with a bed: it stands on it, or is wanted there."""
    home = held.document.get("bed") if held.kind == "need" else held.home
    return held.kind in ("structure", "need") and home == bed


def _anew(document: dict[str, Any]) -> dict[str, Any]:
    """Return the document of a copy: nobody has built it yet."""
    return {**document, "built": None} if "built" in document else dict(document)


def with_no_lost(state: State, gone: Ref | None = None) -> State:
    """Return a state without a thing, and without what was kept of structures that are no longer there."""
    left = {ref: held for ref, held in state.items() if ref != gone}
    return {
        ref: held
        for ref, held in left.items()
        if held.kind not in _KEPT or ("structure", held.document.get("structure")) in left
    }


def _merged(document: dict[str, Any], change: dict[str, Any]) -> dict[str, Any]:
    """Return a document with what changes of it; single options and prices join those that are there, and so
    does what is written in a record, where null goes.
    """
    merged = {**document, **change}
    for name in ("options", "prices", *_JOINED):
        if isinstance(change.get(name), dict):
            joined = {**document.get(name, {}), **change[name]}
            gone = name in _JOINED
            merged[name] = {key: value for key, value in joined.items() if not gone or value is not None}
    return merged


def _applied(
    state: State, edits: Any, system: System, photos: Photos | None = None, logged: Collection[str] = ()
) -> _Applying:
    applying = _Applying(state, system, photos or {}, logged)
    for index, edit in enumerate(edits):
        applying.put(index, edit)
    return applying


def draft(granted: Granted, sent: schemas.DraftEditsIn) -> schemas.PlotOut:
    """Return the plan with edits that are not stored; what cannot be done is said and left out."""
    stored = known_of(granted.garden)
    system: System = stored.core.units
    wanted = [edit.model_copy(update={"revision": None}) for edit in sent.edits]
    applying = _applied(stored.state, wanted, system)
    return plot_out(
        whole(applying.state), stored, sent.about, tuple(str(problem) for problem in applying.problems)
    )


def save(granted: Granted, sent: schemas.EditsIn, visitor: Visitor) -> schemas.EditsOut:
    """Save edits, all or none.

    Raises:
        Stale: Someone else changed one of the things since the revision named.
        InvalidPlan: Every wrong field, with its path.
    """

    written = [edit.key for edit in sent.edits if edit.kind == "entry"]
    kept = {
        edit.key: photos.keep(granted.garden, edit.change.pictures, f"edits[{index}].entry.pictures")
        for index, edit in enumerate(sent.edits)
        if edit.kind == "entry" and edit.change.pictures
    }

    def make(garden: Garden, known: State) -> Wanted:
        before = {**known, **entries_in(garden, written)} if written else known
        adds = any(
            isinstance(edit, schemas.BedEdit | schemas.StructureEdit) and edit.act == "add"
            for edit in sent.edits
        )
        logged = places_logged(garden) if adds else ()
        applying = _applied(before, sent.edits, place_of(garden).units, kept, logged)
        if applying.problems:
            raise InvalidPlan(applying.problems)
        if applying.stale:
            raise Stale(
                schemas.Conflict(
                    garden=garden_out(replace(granted, garden=garden), visitor), things=applying.stale
                )
            )
        return Wanted(applying.state, answer={"made": applying.made}, before=before)

    done = change_garden(granted.garden.pk, visitor, make)
    made, revisions = done.answer.get("made", []), done.answer.get("revisions", {})
    changed = changed_by(done.before, replace(granted, garden=done.garden), visitor)
    return schemas.EditsOut.model_construct(changed=changed, made=made, revisions=revisions)


def undo(granted: Granted, visitor: Visitor) -> schemas.GardenOut:
    """Undo the person's last change that still stands.

    Raises:
        CannotUndo: There is none, or someone else has changed the same things since.
    """
    return _step(granted, visitor, last_change, "undo")


def redo(granted: Granted, visitor: Visitor) -> schemas.GardenOut:
    """Do again what was undone last, or raise CannotUndo."""
    return _step(granted, visitor, next_redo, "redo")


def _step(
    granted: Granted, visitor: Visitor, which: Callable[[Garden, Visitor], Change | None], way: str
) -> schemas.GardenOut:
    def make(garden: Garden, before: State) -> Wanted:
        change = which(garden, visitor)
        if change is None:
            raise CannotUndo(f"nothing to {way}")
        fate = "undone" if way == "undo" else "stands"
        logged = entries_in(garden, [edit["key"] for edit in change.edits if edit["kind"] == "entry"])
        known = {**before, **logged}
        after = reverted(known, change, way == "redo")
        return Wanted(after, way, change.number, {change.number: fate}, before=known)

    done = change_garden(granted.garden.pk, visitor, make)
    return garden_out(replace(granted, garden=done.garden), visitor)


def reverted(state: State, change: Change, forward: bool = False, log: bool = True) -> State:
    """Return a state with a logged change taken back, or done again; what is compared is what documents mean,
    not how they were stored. Without its log, what happened stays: it did, whatever becomes of the plan.

    Raises:
        CannotUndo: A thing is no longer what the change made of it.
    """
    source, target = ("before", "after") if forward else ("after", "before")
    back = dict(state)
    for edit in change.edits:
        if edit["kind"] == "entry" and not log:
            continue
        ref = (edit["kind"], edit["key"])
        now, was, then = (
            back.get(ref),
            side_of(edit, source, change.form),
            side_of(edit, target, change.form),
        )
        if (now.document if now else None) != (was.document if was else None) or (
            now and was and now.home != was.home
        ):
            units = whole({PLACE: state[PLACE]}).units
            raise CannotUndo(f"it has been changed again since: {words_of_edit(edit, change.form, units)}")
        if then is None:
            back.pop(ref, None)
        else:
            back[ref] = replace(then, id=now.id, revision=now.revision) if now else then
    orphans = [
        ref for ref, held in back.items() if held.kind == "structure" and ("bed", held.home) not in back
    ]
    if orphans:
        raise CannotUndo("something stands on that bed now")
    taken = [key for kind, key in back if kind != "entry"]
    if len(set(taken)) != len(taken):
        raise CannotUndo("something else has its key now")
    return back
