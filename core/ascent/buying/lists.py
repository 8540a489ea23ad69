"""What to buy: the pieces of structures less what the shed has, rounded to stock and packs, priced."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from ..path.geometry import Geometry
from ..plan.shed import Spare, Taken
from .buyer import Buyer, CutBar
from .parts import Part
from .pieces import pieces_of
from .shed import Ledger


def shopping(
    geometry: Geometry | Sequence[Geometry], prices: Mapping[str, float], spare: Sequence[Spare] = ()
) -> tuple[Part, ...]:
    """Return the shopping list of a structure, or of several together with every pack rounded up once; what
    the shed has of it stands first and costs nothing. Prices are in the garden’s currency. [money]

    Args:
        geometry: The structure laid out, or several.
        prices: The gardener's own price of one pack, by item and size or by item; it overrides the table.
        spare: What may be had from the shed.

    Source: handbook-parts-3.0
    """
    return bill(geometry, prices, spare)[0]


def bill(
    geometry: Geometry | Sequence[Geometry], prices: Mapping[str, float], spare: Sequence[Spare] = ()
) -> tuple[tuple[Part, ...], tuple[CutBar, ...]]:
    """Return the shopping list of a structure or several, see `shopping`, and how what is bought or had is
    cut; of several what is cut of one kind comes out of the same stock. Prices are in the garden’s
    currency. [money]
    """
    pieces = pieces_of([geometry] if isinstance(geometry, Geometry) else geometry)
    buyer = Buyer(Ledger(spare), pooled=not isinstance(geometry, Geometry))
    bought = [each.priced(prices) for each in buyer.all_of(pieces)]
    return (*buyer.had, *bought), tuple(buyer.bars)


def taken_by(parts: Iterable[Part]) -> tuple[Taken, ...]:
    """Return what the parts of a list are had of the shed."""
    amounts: dict[str, float] = {}
    for part in parts:
        if part.own:
            amounts[part.own] = round(amounts.get(part.own, 0.0) + part.had, 3)
    return tuple(Taken(stock=stock, amount=amount) for stock, amount in sorted(amounts.items()))


def total(parts: Iterable[Part]) -> float:
    """Return the cost of all parts. [money]"""
    return sum(part.cost for part in parts)
