"""What each option of a family moves, found by trial: one option of random structures changed at a time."""

from __future__ import annotations

import random
from collections import defaultdict
from typing import Any, get_args

from ascent import tables
from ascent.analysis.design import Design
from ascent.families import FAMILIES
from ascent.family.options import extra_of
from ascent.family.protocol import Family, Need
from ascent.plan.fields import Typed
from ascent.plan.structure import Planting, Structure
from ascent.site import Site
from ascent.sizing.evaluations import evaluated
from pydantic import ValidationError

from tests.support import site

_DRAWN_ANEW = (
    0.35  # share of a proposal's options that are drawn anew, so that it is evaluated where it is strange
)


def moved(key: str, times: int, seed: int) -> dict[str, set[str]]:
    """Return which options moved what of a family: {what: options}, each option changed so many times."""
    family, found = FAMILIES[key], defaultdict[str, set[str]](set)
    for name in family.options.model_fields:
        chance = random.Random(f"{key} {name} {seed}")
        for _ in range(times):
            for what in _changed(family, name, chance):
                found[what].add(name)
    return found


def _changed(family: Family[Any], name: str, chance: random.Random) -> set[str]:
    """Return what is moved by one option of one random structure."""
    where, plantings, options = _some(family, chance)
    _use(family, options, name, chance)
    new = any_value(family.options, name, chance)
    try:
        first, second = (
            evaluated(
                Design(where, Structure(key="x", name="x", family=family.key, options=o, plantings=plantings))
            )[0]
            for o in (options, {**options, name: new})
        )
    except ValidationError:
        return set()
    links = {
        f"link {key}"
        for key in first.margins.keys() | second.margins.keys()
        if not _same(first.margins.get(key, 0.0), second.margins.get(key, 0.0))
    }
    parts = {
        f"parts {key}"
        for key in first.shares.keys() | second.shares.keys()
        if first.shares.get(key) != second.shares.get(key)
    }
    return links | parts | {f"wrong {key}" for key in first.unfit.keys ^ second.unfit.keys}


def _same(a: float, b: float) -> bool:
    return abs(a - b) <= 1e-9 * max(a, b)


def any_value(options: type[Typed], name: str, chance: random.Random) -> Any:
    """Return any value an option may have."""
    extra, field = extra_of(options, name), options.model_fields[name]
    if extra["kind"] == "item":
        rows = tables.ITEM_TABLES[extra["table"]]().values()
        return chance.choice([row.key for row in rows if not extra["role"] or extra["role"] in row.serves])
    if extra["kind"] == "choice":
        return chance.choice([False, True] if field.annotation is bool else list(get_args(field.annotation)))
    low, high = (next(getattr(m, side) for m in field.metadata if hasattr(m, side)) for side in ("ge", "le"))
    return (
        chance.randint(int(low), int(high))
        if extra["kind"] == "count"
        else round(chance.uniform(low, high), 2)
    )


def _some(family: Family[Any], chance: random.Random) -> tuple[Site, tuple[Planting, ...], dict[str, Any]]:
    raised = chance.random() < 0.3
    where = site(
        chance.choice(list(tables.soils())),
        chance.choice(list(tables.exposures())),
        length=chance.choice([1.2, 2.4, 4.0]),
        width=chance.choice([0.6, 1.0, 1.2]),
        kind="raised" if raised else "in-ground",
        fill_depth=0.3 if raised else 0.0,
    )
    need = Need(
        chance.choice(list(tables.crops())),
        None,
        chance.choice(["left", "both"]),
        chance.choice(["pruned", "free"]),
    )
    proposed = family.propose(need, where)
    options = proposed.options.model_dump()
    for name in options:
        if chance.random() < _DRAWN_ANEW:
            options[name] = any_value(family.options, name, chance)
    return where, proposed.plantings, options


def _use(family: Family[Any], options: dict[str, Any], name: str, chance: random.Random) -> None:
    """Set what an option depends on so that it is in use."""
    when = extra_of(family.options, name).get("when")
    if not when:
        return
    kind, value = family.options.model_fields[when["option"]].annotation, chance.choice(when["is"])
    options[when["option"]] = value == "true" if kind is bool else int(value) if kind is int else value
    _use(family, options, when["option"], chance)
