"""The plan file: reading, checking, and its JSON Schema."""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping, Sequence
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from ..errors import InvalidPlan, Problem
from ..families import FAMILIES
from ..plan.bed import MOST_STANDING, Bed
from ..plan.documents import first_of, parsed, path_of, short
from ..plan.entries import MOST_ENTRIES, Entry
from ..plan.features import Feature
from ..plan.fields import Typed, counted_first
from ..plan.garden import FORMAT_VERSION, MOST_BEDS, MOST_FEATURES, Garden
from ..plan.needs import MOST_NEEDS, KeptNeed
from ..plan.record import MOST_DIARIES, MOST_RECORDS, Diary, Record
from ..plan.shed import MOST_STOCK, Stock
from ..plan.structure import Build, Structure
from ..plan.upgrades import upgraded


class Plan(Typed):
    """A whole plan file: a garden as it is planned and stands, and the log of what happened in it."""

    format: Literal["ascent-plan"]
    version: Literal[8]
    garden: Garden
    log: Annotated[tuple[Entry, ...], Field(max_length=MOST_ENTRIES), counted_first(MOST_ENTRIES)] = ()


_ALLOWED = {
    "extra_forbidden": "no field of that name belongs here",
    "missing": "the field must be given",
    "finite_number": "a finite number is allowed",
    "string_pattern_mismatch": (
        "small letters, figures and hyphens, a letter or figure first, 64 at most, are allowed"
    ),
    "json_invalid": "a JSON document is allowed",
}


def problems_of(error: ValidationError, prefix: tuple[str | int, ...] = ()) -> list[Problem]:
    """Return the problems of a validation error, each with the path of its field."""
    return described(
        [{**fault, "loc": (*prefix, *fault["loc"])} for fault in error.errors(include_url=False)]
    )


def described(errors: Sequence[Mapping[str, Any]]) -> list[Problem]:
    """Return the validation library's errors as problems, the first of them where there are many; one that
    only follows is left out.
    """
    followed = {tuple(error["loc"][:cut]) for error in errors for cut in range(len(error["loc"]))}
    return first_of(
        _described(fault)
        for fault in errors
        if not (fault["type"] == "too_short" and tuple(fault["loc"]) in followed)
    )


def _described(error: Mapping[str, Any]) -> Problem:
    kind = error["type"]
    given = "nothing" if kind == "missing" else short(error["input"])
    return Problem(path_of(error["loc"]) or "plan", given, _ALLOWED.get(kind) or _allowed(error["msg"]))


def _allowed(message: str) -> str:
    if message.startswith("Input should be "):
        return message.removeprefix("Input should be ").replace("'", "") + " is allowed"
    return message.removeprefix("Value error, ")


def check_structure(structure: Structure, prefix: tuple[str | int, ...] = ()) -> list[Problem]:
    """Return what is wrong with a structure's family and options, as planned and as built."""
    built = _check_build(structure.built, (*prefix, "built")) if structure.built else []
    return _check_build(structure, prefix) + built


def _check_build(build: Build, prefix: tuple[str | int, ...]) -> list[Problem]:
    family = FAMILIES.get(build.family)
    if family is None:
        return [
            Problem(path_of((*prefix, "family")), build.family, f"one of {', '.join(FAMILIES)} is allowed")
        ]
    try:
        family.options.model_validate(build.options)
    except ValidationError as error:
        return problems_of(error, (*prefix, "options"))
    return []


def read_plan(text: str | bytes) -> Plan:
    """Return the plan a document holds.

    How large it is is looked at before what it says, and it is read thing by thing, so that refusing it costs
    no more than reading it.

    Args:
        text: The document, or its bytes in UTF-8.

    Raises:
        InvalidPlan: Every wrong field is named with its path, the first of them when there are many.
    """
    document = parsed(text)
    if isinstance(document, dict):
        document = upgraded(document)
        if document.get("version") not in (None, FORMAT_VERSION):
            allowed = f"version 1 to {FORMAT_VERSION} is read by this program"
            raise InvalidPlan([Problem("version", short(document["version"]), allowed)])
    problems = first_of(_wrong(document))
    if problems:
        raise InvalidPlan(problems)
    plan = Plan.model_validate(document)
    problems = first_of(_repeated(plan))
    if problems:
        raise InvalidPlan(problems)
    return plan


def _wrong(document: Any) -> Iterator[Problem]:
    """Yield what is wrong with a plan, one thing after another; nothing further is looked at than is asked
    for.
    """
    garden = document.get("garden") if isinstance(document, dict) else None
    problems = garden if isinstance(garden, dict) else {}
    most = {
        "beds": MOST_BEDS,
        "features": MOST_FEATURES,
        "stock": MOST_STOCK,
        "needs": MOST_NEEDS,
        "records": MOST_RECORDS,
        "diaries": MOST_DIARIES,
    }
    few = {
        name: problems[name]
        for name in most
        if isinstance(problems.get(name), list) and len(problems[name]) <= most[name]
    }
    frame = {**document, "garden": {**problems, **dict.fromkeys(few, ())}} if few else document
    log = document.get("log") if isinstance(document, dict) else None
    entries = log if isinstance(log, list) and len(log) <= MOST_ENTRIES else []
    yield from _wrong_thing(Plan, {**frame, "log": ()} if entries else frame, ())
    for i, entry in enumerate(entries):
        yield from _wrong_thing(Entry, entry, ("log", i))
    for i, bed in enumerate(few.get("beds", ())):
        yield from _wrong_bed(bed, ("garden", "beds", i))
    for i, feature in enumerate(few.get("features", ())):
        yield from _wrong_thing(Feature, feature, ("garden", "features", i))
    for i, stock in enumerate(few.get("stock", ())):
        yield from _wrong_thing(Stock, stock, ("garden", "stock", i))
    for i, need in enumerate(few.get("needs", ())):
        yield from _wrong_thing(KeptNeed, need, ("garden", "needs", i))
    for i, record in enumerate(few.get("records", ())):
        yield from _wrong_thing(Record, record, ("garden", "records", i))
    for i, diary in enumerate(few.get("diaries", ())):
        yield from _wrong_thing(Diary, diary, ("garden", "diaries", i))


def _wrong_bed(bed: Any, path: tuple[str | int, ...]) -> Iterator[Problem]:
    standing = bed.get("structures") if isinstance(bed, dict) else None
    if not isinstance(standing, list) or len(standing) > MOST_STANDING:
        yield from _wrong_thing(Bed, bed, path)
        return
    yield from _wrong_thing(Bed, {**bed, "structures": ()}, path)
    for j, structure in enumerate(standing):
        where = (*path, "structures", j)
        wrong = _wrong_thing(Structure, structure, where)
        yield from wrong
        if not wrong:
            yield from check_structure(Structure.model_validate(structure), where)


def _wrong_thing(kind: type[Typed], document: Any, path: tuple[str | int, ...]) -> list[Problem]:
    try:
        kind.model_validate(document)
    except ValidationError as error:
        return problems_of(error, path)
    return []


def _repeated(plan: Plan) -> Iterator[Problem]:
    """Yield the keys that stand for two things."""
    keys = [(bed.key, f"garden.beds[{i}].key") for i, bed in enumerate(plan.garden.beds)]
    keys += [
        (s.key, f"garden.beds[{i}].structures[{j}].key")
        for i, bed in enumerate(plan.garden.beds)
        for j, s in enumerate(bed.structures)
    ]
    keys += [(feature.key, f"garden.features[{i}].key") for i, feature in enumerate(plan.garden.features)]
    keys += [(stock.key, f"garden.stock[{i}].key") for i, stock in enumerate(plan.garden.stock)]
    keys += [(need.key, f"garden.needs[{i}].key") for i, need in enumerate(plan.garden.needs)]
    keys += [(record.key, f"garden.records[{i}].key") for i, record in enumerate(plan.garden.records)]
    keys += [(diary.key, f"garden.diaries[{i}].key") for i, diary in enumerate(plan.garden.diaries)]
    yield from _twice(keys)
    yield from _twice([(entry.key, f"log[{i}].key") for i, entry in enumerate(plan.log)])


def _twice(keys: list[tuple[str, str]]) -> Iterator[Problem]:
    seen: dict[str, str] = {}
    for key, path in keys:
        if key in seen:
            yield Problem(path, key, f"a key that nothing else has is allowed; {seen[key]} has it")
        seen.setdefault(key, path)


def write_plan(garden: Garden, log: Sequence[Entry] = ()) -> str:
    """Return a garden as a plan file, with what happened in it: of an entry only what it says."""
    plan = Plan(format="ascent-plan", version=FORMAT_VERSION, garden=garden)
    written = plan.model_dump(mode="json")
    written["log"] = [entry.model_dump(mode="json", exclude_defaults=True) for entry in log]
    return json.dumps(written, indent=1, ensure_ascii=False) + "\n"


def plan_schema() -> dict[str, Any]:
    """Return the JSON Schema of the plan file, each family's options included."""
    schema = Plan.model_json_schema()
    structure = schema["$defs"]["Structure"]
    structure["properties"]["family"] = {"enum": list(FAMILIES), "title": "Family"}
    rules = []
    for key, family in FAMILIES.items():
        name = family.options.__name__
        schema["$defs"][name] = family.options.model_json_schema()
        rules.append(
            {
                "if": {"properties": {"family": {"const": key}}},
                "then": {"properties": {"options": {"$ref": f"#/$defs/{name}"}}},
            }
        )
    structure["allOf"] = rules
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Ascent plan", **schema}
