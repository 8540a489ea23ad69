"""The choices that divide growers, decided by computing where that can be done: which side wins here."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from .. import tables
from ..analysis.design import Design, design_of
from ..families import family_of
from ..family.options import extra_of, in_use
from ..loads.cases import GUSTS
from ..plan.fields import Typed
from ..plan.needs import First
from ..plan.structure import Structure
from ..site import Site
from ..tables.rows import Divide
from .choose import Figures, goodness
from .evaluations import Evaluation, evaluated
from .grid import worth_trying

_ROWS = 8  # of a table that are evaluated for one side
_SAME = 0.005  # of money
_SIDES = ("one", "other")


@dataclass(frozen=True)
class Side:
    """One side of a choice as it would be here.

    what: a kind of support, or what an option would be. holds: whether it holds. cost: what it costs to buy;
    of kinds, in a season. limit: gust it holds to. [m/s]
    """

    what: Any
    holds: bool
    cost: float
    limit: float


@dataclass(frozen=True)
class Divided:
    """A choice and both its sides here; `won` is the side that does better, nothing where neither does.

    chosen: the side that the structure takes. turns: what comes first where the other side would win.
    """

    key: str
    option: str
    one: Side
    other: Side
    won: str
    chosen: str
    turns: tuple[First, ...] = ()


def divided(
    site: Site, structure: Structure, figures: Mapping[str, Figures], first: First
) -> Iterator[Divided]:
    """Yield the choices that concern a structure and can be decided by computing.

    Args:
        site: Where it would stand.
        structure: As it is sized.
        figures: Of each kind of support that will do, among which kinds are compared.
        first: What comes first.
    """
    for row in tables.divides().values():
        if row.families and structure.family not in row.families:
            continue
        found = (
            _of_kinds(row, structure.family, figures, first)
            if row.by == "kinds"
            else _of_option(row, site, structure)
            if row.by != "none"
            else None
        )
        if found:
            yield found


def _of_kinds(row: Divide, family: str, figures: Mapping[str, Figures], first: First) -> Divided | None:
    """Return the best kinds of both sides, those that suit the crop; nothing where the structure's kind is on
    neither side, or a side has none that does.
    """
    sides = {"one": row.one, "other": row.other}
    chosen = next((name for name, kinds in sides.items() if family in kinds), "")
    able = {name: [kind for kind in kinds if kind in figures] for name, kinds in sides.items()}
    if not chosen or not all(able.values()):
        return None

    def best(name: str, of: First) -> str:
        return max(able[name], key=lambda kind: (figures[kind].score >= 2, goodness(figures[kind])[of]))

    def winner(of: First) -> str:
        marks = {name: goodness(figures[best(name, of)])[of] for name in _SIDES}
        return "" if marks["one"] == marks["other"] else max(marks, key=lambda name: marks[name])

    won = winner(first)
    shown = {name: best(name, first) for name in _SIDES}
    one, other = (
        Side(kind, True, figures[kind].yearly, figures[kind].limit) for kind in (shown["one"], shown["other"])
    )
    measures: tuple[First, ...] = ("per-season", "cost", "strength", "work", "life")
    turns = tuple(of for of in measures if of != first and winner(of) not in ("", won))
    return Divided(row.key, "", one, other, won, chosen, turns)


def _of_option(row: Divide, site: Site, structure: Structure) -> Divided | None:
    """Return what both sides of an option come to, all else as it is; nothing where the structure has no such
    option in use, or a side cannot be.
    """
    kind: type[Typed] = family_of(structure.family).options
    now = kind.model_validate(structure.options)
    for option in kind.model_fields:
        extra = extra_of(kind, option)
        if (row.option and option != row.option) or (row.table and extra.get("table") != row.table):
            continue
        if not in_use(now, option):
            continue
        sides = {name: _best(row, site, structure, option, getattr(row, name)) for name in _SIDES}
        one, other = sides["one"], sides["other"]
        if one and other and one.what != other.what:
            return Divided(row.key, option, one, other, _won(one, other), _chosen(row, getattr(now, option)))
        return None
    return None


def _chosen(row: Divide, value: Any) -> str:
    def takes(side: Sequence[str]) -> bool:
        if row.by == "item":
            return any(str(value).startswith(prefix) for prefix in side)
        if row.by == "measure":
            near = min((*row.one, *row.other), key=lambda each: abs(float(each) - float(value)))
            return near in side
        return str(value) in side

    return next((name for name in _SIDES if takes(getattr(row, name))), "")


def _best(row: Divide, site: Site, structure: Structure, option: str, side: Sequence[str]) -> Side | None:
    """Return the best that an option can be on one side: the cheapest that holds, else the strongest."""
    design = design_of(site, structure)
    found: list[tuple[Any, Design, Evaluation]] = []
    for value in _values(row, site, structure, option, side):
        changed = design.with_({option: value})
        try:
            found.append((value, changed, evaluated(changed)[0]))
        except (ValidationError, ValueError):
            continue
    if not found:
        return None
    holding = [each for each in found if each[2].margin >= 1.0 and each[2].to_be_had]
    value, changed, evaluation = (
        min(holding, key=lambda each: each[2].cost)
        if holding
        else max(found, key=lambda each: each[2].margin)
    )
    limit = changed.moist_limit(GUSTS)
    return Side(value, evaluation.margin >= 1.0, evaluation.cost, limit)


def _values(row: Divide, site: Site, structure: Structure, option: str, side: Sequence[str]) -> Sequence[Any]:
    if row.by == "measure":
        return [float(each) for each in side]
    if row.by == "value":
        return list(side)
    extra, now = extra_of(family_of(structure.family).options, option), structure.options[option]
    keys = worth_trying(extra["table"], extra.get("role", ""), now, site, 10**3)
    serving = [
        key
        for key, item in tables.ITEM_TABLES[extra["table"]]().items()
        if not item.reclaimed and (not extra.get("role") or extra["role"] in item.serves)
    ]
    ours = [key for key in (*keys, *serving) if any(key.startswith(prefix) for prefix in side)]
    ours = list(dict.fromkeys(ours))
    return ours[:: math.ceil(len(ours) / _ROWS)] if ours else []


def _won(one: Side, other: Side) -> str:
    """Return which side does better: the one that holds, then the cheaper, then the stronger."""
    if one.holds != other.holds:
        return "one" if one.holds else "other"
    if abs(one.cost - other.cost) > _SAME and one.holds:
        return "one" if one.cost < other.cost else "other"
    if one.limit == other.limit:
        return ""
    return "one" if one.limit > other.limit else "other"
