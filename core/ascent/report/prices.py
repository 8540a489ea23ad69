"""What a supplier's price list would change, in words."""

from __future__ import annotations

import datetime as dt

from ..files.prices import PriceList, known
from ..plan.garden import Garden
from ..wording import money
from ..words.quantities import System, with_sizes, write
from ..words.texts import say
from .readout import PriceLine, PricesReport

_SAME = 0.005  # of money


def prices_report(garden: Garden, prices: PriceList, today: dt.date, system: System) -> PricesReport:
    """Return what of a garden's prices a list changes, and what should be known of it first.

    Args:
        garden: With its own prices.
        prices: The list.
        today: The day it is looked at.
        system: The reader's units.
    """
    lines, unknown, gone = [], [], []
    for row in prices.items:
        item = known(row.item)
        if item is None:
            unknown.append(row.item)
            continue
        size = f", {write(row.size, 'length', system)}" if row.size and item.lengths else ""
        pack = f", {row.size:g} of them" if row.size and not item.lengths else ""
        name = with_sizes(item.name, system) + size + pack
        if row.stock == 0:
            gone.append(name if row.days is None else f"{name} ({row.days} days)")
        before = garden.prices.get(row.key)
        if before is None or abs(before - row.price) > _SAME:
            was = money(before, garden.currency) if before is not None else ""
            lines.append(PriceLine(name=name, before=was, after=money(row.price, prices.currency)))
    warned = []
    if prices.currency != garden.currency:
        words = {"theirs": prices.currency, "ours": garden.currency}
        warned.append(say("prices.currency", system, words=words))
    if prices.until < today:
        warned.append(say("prices.old", system, words={"until": f"{prices.until:%d %B %Y}".lstrip("0")}))
    if unknown:
        warned.append(say("prices.unknown", system, words={"items": ", ".join(unknown)}))
    if gone:
        warned.append(say("prices.gone", system, words={"items": "; ".join(gone)}))
    return PricesReport(supplier=prices.supplier, lines=tuple(lines), warned=tuple(warned))
