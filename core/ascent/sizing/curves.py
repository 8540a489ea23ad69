"""What moves it: the limit gust and the cost of a structure against one of its options, over all that option
may be.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, get_args

import numpy as np
from pydantic import ValidationError

from .. import tables
from ..analysis.crossings import first_crossing
from ..analysis.design import design_of
from ..buying.lists import shopping, total
from ..errors import InvalidPlan, Problem
from ..family.options import extra_of
from ..loads.cases import MOIST_GUSTS, moist_gusts
from ..mechanics import Array
from ..plan.fields import Typed
from ..plan.structure import Structure
from ..site import Site

_POINTS = 15  # along a measure's range


@dataclass(frozen=True)
class Curve:
    """What comes of each value of an option: the limit gust in its worst week [m/s], the link that goes
    first, the cost.

    present: which of the values the structure has now.
    """

    option: str
    values: tuple[Any, ...]
    limits: Array
    first: tuple[str, ...]
    costs: tuple[float, ...]
    present: int


def curve(site: Site, structure: Structure, option: str) -> Curve:
    """Return how one option moves a structure's limit gust in moist soil, and its cost, over the whole range
    of the option.

    Each value is laid out by itself; the uses of all values, links, weeks and gusts are then one array,
    crossed at once.

    Raises:
        InvalidPlan: The family has no such option.

    Source: handbook-0.5
    """
    design = design_of(site, structure)
    if option not in design.family.options.model_fields:
        known = ", ".join(design.family.options.model_fields)
        raise InvalidPlan([Problem("option", option, f"one of {known} is allowed")])
    cases, weeks = moist_gusts(), design.season.weeks
    values, limits, costs = [], [], []
    for value in _values(design.options, option):
        varied = design.with_({option: value})
        try:
            links = varied.under(cases).path()
        except ValidationError:
            continue
        limits.append({link.key: link.utilisation for link in links})
        values.append(value)
        costs.append(total(shopping(varied.geometry, site.garden.prices, site.spare)))
    keys = list(dict.fromkeys(key for uses in limits for key in uses))
    uses = np.zeros((len(values), len(keys), weeks, len(MOIST_GUSTS)))
    for v, each in enumerate(limits):
        for key, use in each.items():
            uses[v, keys.index(key)] = np.broadcast_to(use, (1, weeks, len(MOIST_GUSTS)))[0]
    crossed = np.min(first_crossing(uses, MOIST_GUSTS), axis=2)
    first = tuple(keys[k] for k in np.argmin(crossed, axis=1))
    return Curve(
        option,
        tuple(values),
        np.min(crossed, axis=1),
        first,
        tuple(costs),
        values.index(getattr(design.options, option)),
    )


def _values(now: Typed, option: str) -> list[Any]:
    """Return what an option may be: every row or choice, or values spread over its range with the present one
    among them.
    """
    present, extra = getattr(now, option), extra_of(now, option)
    field = type(now).model_fields[option]
    if extra["kind"] == "item":
        role = extra.get("role", "")
        return [
            key
            for key, item in tables.ITEM_TABLES[extra["table"]]().items()
            if key == present or (not item.reclaimed and (not role or role in item.serves))
        ]
    if extra["kind"] == "choice":
        return [False, True] if field.annotation is bool else list(get_args(field.annotation))
    low, high = (next(getattr(m, side) for m in field.metadata if hasattr(m, side)) for side in ("ge", "le"))
    if extra["kind"] == "count":
        step = max(int(high - low) // _POINTS, 1)
        return sorted({*range(int(low), int(high) + 1, step), present})
    spread = {round(float(v), 4) for v in np.linspace(low, high, _POINTS)}
    near = {v for v in spread if abs(v - present) < (high - low) / (4 * _POINTS)}
    return sorted({*(spread - near), present})
