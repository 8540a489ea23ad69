"""The plan file: reading, checking, and its JSON Schema."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import ValidationError

from .errors import InvalidPlan, Problem
from .families import FAMILIES
from .model import FORMAT_VERSION, Garden, Plan, Structure
from .upgrades import upgraded

_ALLOWED = {
    "extra_forbidden": "no field of that name belongs here",
    "missing": "the field must be given",
    "finite_number": "a finite number is allowed",
    "json_invalid": "a JSON document is allowed",
}


def problems_of(error: ValidationError, prefix: tuple[str | int, ...] = ()) -> list[Problem]:
    """Return the problems of a validation error, each with the path of its field."""
    return described([{**each, "loc": (*prefix, *each["loc"])} for each in error.errors(include_url=False)])


def described(errors: Sequence[Mapping[str, Any]]) -> list[Problem]:
    """Return the validation library's errors as problems; one that only follows from another is left out."""
    places = [tuple(each["loc"]) for each in errors]
    found = []
    for each, loc in zip(errors, places, strict=True):
        kind = each["type"]
        if kind == "too_short" and any(place[: len(loc)] == loc and place != loc for place in places):
            continue
        given = "nothing" if kind == "missing" else _short(each["input"])
        found.append(Problem(path_of(loc) or "plan", given, _ALLOWED.get(kind) or _allowed(each["msg"])))
    return found


def path_of(loc: Sequence[str | int]) -> str:
    """Return a field's path as people read it: ‘garden.beds[0].length’."""
    return "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in loc).lstrip(".")


def _allowed(message: str) -> str:
    if message.startswith("Input should be "):
        return message.removeprefix("Input should be ").replace("'", "") + " is allowed"
    return message.removeprefix("Value error, ")


def _short(value: Any) -> str:
    text = json.dumps(value, ensure_ascii=False, default=str)
    return text if len(text) <= 60 else f"{text[:57]}…"


def check_structure(structure: Structure, prefix: tuple[str | int, ...] = ()) -> list[Problem]:
    """Return what is wrong with a structure's family and options."""
    family = FAMILIES.get(structure.family)
    if family is None:
        return [Problem(path_of((*prefix, "family")), structure.family, f"one of {', '.join(FAMILIES)} is allowed")]
    try:
        family.options.model_validate(structure.options)
    except ValidationError as error:
        return problems_of(error, (*prefix, "options"))
    return []


def read_plan(text: str | bytes) -> Plan:
    """Return the plan a document holds.

    Args:
        text: The document, or its bytes in UTF-8.

    Raises:
        InvalidPlan: Every wrong field is named with its path.
    """
    try:
        document = json.loads(text)
    except json.JSONDecodeError as error:
        raise InvalidPlan([Problem("plan", f"line {error.lineno}", f"a JSON document is allowed ({error.msg})")]) from error
    except UnicodeDecodeError as error:
        raise InvalidPlan([Problem("plan", f"byte {error.start}", "text in UTF-8 is allowed")]) from error
    except RecursionError as error:
        raise InvalidPlan([Problem("plan", "lists in lists without end", "a plan of beds and structures is allowed")]) from error
    if isinstance(document, dict):
        document = upgraded(document)
        if document.get("version") not in (None, FORMAT_VERSION):
            allowed = f"version 1 to {FORMAT_VERSION} is read by this program"
            raise InvalidPlan([Problem("version", _short(document["version"]), allowed)])
    try:
        plan = Plan.model_validate(document)
    except ValidationError as error:
        raise InvalidPlan(problems_of(error)) from error
    problems = [
        problem
        for i, bed in enumerate(plan.garden.beds)
        for j, structure in enumerate(bed.structures)
        for problem in check_structure(structure, ("garden", "beds", i, "structures", j))
    ]
    problems += _repeated(plan)
    if problems:
        raise InvalidPlan(problems)
    return plan


def _repeated(plan: Plan) -> list[Problem]:
    """Return the keys that stand for two beds or two structures."""
    found, seen = [], set()
    for i, feature in enumerate(plan.garden.features):
        if ("feature", feature.key) in seen:
            found.append(Problem(f"garden.features[{i}].key", feature.key, "a key that no other feature has is allowed"))
        seen.add(("feature", feature.key))
    for i, bed in enumerate(plan.garden.beds):
        keys = [("bed", bed.key, f"garden.beds[{i}].key")]
        keys += [("structure", s.key, f"garden.beds[{i}].structures[{j}].key") for j, s in enumerate(bed.structures)]
        for kind, key, path in keys:
            if (kind, key) in seen:
                found.append(Problem(path, key, f"a key that no other {kind} has is allowed"))
            seen.add((kind, key))
    return found


def write_plan(garden: Garden) -> str:
    """Return a garden as a plan file."""
    plan = Plan(format="ascent-plan", version=FORMAT_VERSION, garden=garden)
    return json.dumps(plan.model_dump(mode="json"), indent=1, ensure_ascii=False) + "\n"


def plan_schema() -> dict[str, Any]:
    """Return the JSON Schema of the plan file, each family's options included."""
    schema = Plan.model_json_schema()
    structure = schema["$defs"]["Structure"]
    structure["properties"]["family"] = {"enum": list(FAMILIES), "title": "Family"}
    rules = []
    for key, family in FAMILIES.items():
        name = family.options.__name__
        schema["$defs"][name] = family.options.model_json_schema()
        rules.append({"if": {"properties": {"family": {"const": key}}}, "then": {"properties": {"options": {"$ref": f"#/$defs/{name}"}}}})
    structure["allOf"] = rules
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Ascent plan", **schema}
