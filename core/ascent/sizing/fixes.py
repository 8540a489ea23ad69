"""Fixes: the next items and options that make a link hold, each with its new limit gust and its cost."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from pydantic import ValidationError

from .. import tables
from ..analysis.crossings import least
from ..analysis.design import Design
from ..buying.lists import shopping, total
from ..family.options import extra_of
from ..loads.cases import GUSTS
from ..path.loadpath import Link
from .grid import stands_in

_GAIN = 0.3  # m/s: less is not worth a gardener's work
_BAYS_MORE = (1, 2, 4)


@dataclass(frozen=True)
class Fix:
    """One change: option, its new value, limit gust of the whole and of the link after it [m/s], extra
    cost.
    """

    option: str
    value: Any
    limit: float
    link_limit: float
    holds: bool
    cost: float


def fixes_for(before: Design, key: str) -> tuple[Fix, ...]:
    """Return the changes that raise a link's limit gust, those that make it hold first, cheapest first.

    For each lever of the link the next values are evaluated; of each lever the first that makes the link
    hold at the design gust is kept, else the one that helps most.
    """
    link = next((link for link in before.links if link.key == key), None)
    if link is None:
        return ()
    base_cost = total(shopping(before.geometry, before.site.garden.prices, before.site.spare))
    wanted = before.required_gust
    fixes: list[Fix] = []
    for option in link.levers:
        evaluated = [
            fix
            for value in _next_values(before, option)
            if not _weaker(before, link, option, value)
            and (fix := _try(before, key, option, value, base_cost))
        ]
        helpful = [fix for fix in evaluated if fix.link_limit >= float(np.min(before.limits[key][0])) + _GAIN]
        holding = [fix for fix in helpful if fix.link_limit >= wanted]
        if holding:
            fixes.append(_exactly(before, key, min(holding, key=lambda fix: (fix.cost, fix.link_limit))))
        elif helpful:
            fixes.append(_exactly(before, key, max(helpful, key=lambda fix: fix.link_limit)))
    return tuple(sorted(fixes, key=lambda fix: (fix.link_limit < wanted, not fix.holds, fix.cost)))


def _next_values(before: Design, option: str) -> list[Any]:
    now = getattr(before.options, option)
    extra = extra_of(before.options, option)
    tries = extra.get("tries", ())
    if tries == "bays":
        length = before.geometry.length
        bays = max(round(length / now + 0.499), 1)
        return [round(length / (bays + more) + 0.004, 2) for more in _BAYS_MORE]
    if tries:
        return [round(now + step, 3) for step in tries]
    if extra.get("kind") == "item":
        return _other_items(extra["table"], extra.get("role", ""), now)
    annotation = type(before.options).model_fields[option].annotation
    values = getattr(annotation, "__args__", (True, False) if annotation is bool else ())
    return [value for value in values if value != now]


def _other_items(table: str, role: str, now: str) -> list[str]:
    items = tables.ITEM_TABLES[table]()
    return [
        key
        for key, item in items.items()
        if key != now
        and not item.reclaimed
        and (not role or role in item.serves)
        and stands_in(item, items[now])
    ]


def _weaker(before: Design, link: Link, option: str, value: Any) -> bool:
    """Return whether a link of another item is certainly no stronger, without a new geometry."""
    extra = extra_of(before.options, option)
    if extra.get("kind") != "item" or link.item != (extra["table"], getattr(before.options, option)):
        return False
    other = link.made_with(tables.item(extra["table"], value))
    return other is not None and bool(np.all(other.utilisation >= link.utilisation))


def _try(before: Design, key: str, option: str, value: Any, base_cost: float) -> Fix | None:
    after = before.with_({option: value})
    try:
        limits = after.moist_limits()
    except ValidationError:
        return None
    worse = {remark.key for remark in after.remarks if remark.level == "wrong"} - {
        r.key for r in before.remarks
    }
    limit = least(limits)
    if worse or limit + 0.05 < float(np.min(before.limit[0])) - 1e-6:
        return None
    link_limit = float(np.min(limits[key])) if key in limits else float("inf")
    cost = total(shopping(after.geometry, before.site.garden.prices, before.site.spare)) - base_cost
    return Fix(option, value, limit, link_limit, limit >= before.required_gust, cost)


def _exactly(before: Design, key: str, fix: Fix) -> Fix:
    """Return a fix with its limits found on the same grid as those of the structure it mends."""
    limits = before.with_({fix.option: fix.value}).moist_limits(GUSTS)
    link_limit = float(np.min(limits[key])) if key in limits else float("inf")
    return replace(
        fix, limit=least(limits), link_limit=link_limit, holds=least(limits) >= before.required_gust
    )
