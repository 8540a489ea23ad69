"""The shed: what of it is still fit to build with, what is free, and what of it some pieces can be."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from .. import tables
from ..plan.shed import Spare, Stock, Taken
from ..plan.structure import Structure
from ..tables import own
from ..tables.rows import Item, Mesh, Post, Twine, Wire
from .cuts import StockLength

_NEAR = 1e-6
_LASTS = {"good": 2.0, "fair": 1.5, "poor": 1.0}  # lives that it lasts that still looks so, judgement


def row_of(stock: Stock) -> Item:
    """Return the row of the tables that something in the shed is, with what it has of its own."""
    like = tables.item(stock.table, stock.item)
    return tables.item(stock.table, own.key_of(like, **stock.measures, strength=strength_of(stock)))


def strength_of(stock: Stock) -> float:
    """Return the share of a new one's strength that something in the shed is taken to have. [-]

    What it is said to bear, less where that is only seen or guessed; less by its state; and what rot, rust or
    light took of it so far: evenly over its life, down to what is left when it should be replaced.

    Source: handbook-3.4
    """
    like = tables.item(stock.table, stock.item)
    share = stock.strength
    if stock.sure != "known":
        share *= tables.constant(f"stock_{stock.sure}")
    if stock.condition != "good":
        share *= tables.constant(f"stock_{stock.condition}")
    stuff = tables.materials()[like.material].stuff if isinstance(like, Post) else "metal"
    least = tables.constant(f"{stuff}_least")
    aged = 1.0 - (1.0 - least) * min(stock.age / like.life, 1.0) if like.life else 1.0
    return float(f"{max(share * aged, own.STRENGTH.low):.2g}")


def life_of(stock: Stock) -> float:
    """Return the seasons something in the shed has left; 0 where no table says how long it lasts. What was
    looked at and is better than its age has one more. [seasons]
    """
    life = tables.item(stock.table, stock.item).life
    return max(life - stock.age, 0.0 if worn(stock) or not life else 1.0)


def worn(stock: Stock) -> bool:
    """Return whether something is too old to be planned with: by its years, and where somebody looked at it
    by what it looks like.

    Source: handbook-3.4
    """
    life = tables.item(stock.table, stock.item).life
    looked = _LASTS[stock.condition] if stock.sure == "seen" else 1.0
    return bool(life) and stock.age >= life * looked


def by_metre(item: Item) -> bool:
    """Return whether it is cut off a roll or a coil, so that metres of it are counted and not pieces."""
    return isinstance(item, Wire | Twine) or (isinstance(item, Mesh) and not item.stiff)


def less(spare: Iterable[Spare], taken: Iterable[Taken]) -> tuple[Spare, ...]:
    """Return what is left of what is free when some of it is taken."""
    gone = {each.stock: each.amount for each in taken}
    left = (each.model_copy(update={"amount": each.amount - gone.get(each.stock, 0.0)}) for each in spare)
    return tuple(each for each in left if each.amount > 0)


def amount_of(stock: Stock) -> float:
    """Return how much there is of something: pieces, or metres of what is cut off a roll or coil. [pieces
    or m]
    """
    return stock.count * (stock.length or 0.0) if by_metre(row_of(stock)) else float(stock.count)


def taken_of(structures: Iterable[Structure]) -> dict[str, float]:
    """Return how much some structures have of everything in the shed, by its key. [pieces or m]"""
    amounts: dict[str, float] = {}
    for structure in structures:
        for taken in structure.taken:
            amounts[taken.stock] = amounts.get(taken.stock, 0.0) + taken.amount
    return amounts


def spare_of(shed: Sequence[Stock], others: Iterable[Structure]) -> tuple[Spare, ...]:
    """Return what of a shed is free to build with: neither worn, nor in use for something else, nor taken."""
    taken = taken_of(others)
    free = (
        (stock, amount_of(stock) - taken.get(stock.key, 0.0))
        for stock in shed
        if not stock.in_use and not worn(stock)
    )
    return tuple(_spare(stock, amount) for stock, amount in free if amount > _NEAR)


def had_by(shed: Sequence[Stock], having: Sequence[Taken]) -> tuple[Spare, ...]:
    """Return what is had of a shed; of what is no longer there nothing."""
    known = {stock.key: stock for stock in shed}
    return tuple(
        _spare(known[taken.stock], min(taken.amount, amount_of(known[taken.stock])))
        for taken in having
        if taken.stock in known and amount_of(known[taken.stock]) > _NEAR
    )


def _spare(stock: Stock, amount: float) -> Spare:
    return Spare(
        stock=stock.key,
        name=stock.name,
        table=stock.table,
        item=row_of(stock).key,
        amount=amount,
        length=stock.length or 0.0,
        life=life_of(stock),
    )


@dataclass(frozen=True)
class Had:
    """How much of something from the shed some pieces are: pieces, or metres of what is cut off."""

    spare: Spare
    amount: float


@dataclass
class _Entry:
    spare: Spare
    left: float

    @property
    def pieces(self) -> int:
        """Return how many whole pieces are left."""
        return math.floor(self.left + _NEAR)

    def take(self, amount: float) -> Had:
        """Take some of it."""
        self.left -= amount
        return Had(self.spare, float(amount))


class Ledger:
    """What of the shed is left while pieces are found in it; the shortest that will do goes first."""

    def __init__(self, spare: Sequence[Spare]) -> None:
        ordered = sorted(spare, key=lambda each: (each.length, each.life, each.stock))
        self._entries = [_Entry(each, each.amount) for each in ordered]

    def _like(self, item: Item) -> list[_Entry]:
        """Return what is left of an item, of whatever length."""
        if not self._entries:
            return []
        key = own.but_for_length(item.key)
        return [
            entry
            for entry in self._entries
            if entry.left > _NEAR
            and entry.spare.table == item.table
            and own.but_for_length(entry.spare.item) == key
        ]

    def pieces(self, item: Item, count: int, length: float = 0.0) -> list[Had]:
        """Take so many pieces at most that are so long at least. [m]"""
        had = []
        for entry in self._like(item):
            some = min(count, entry.pieces)
            if some > 0 and entry.spare.length >= length * (1.0 - own.AS_LONG):
                had.append(entry.take(some))
                count -= some
        return had

    def metres(self, item: Item, length: float) -> list[Had]:
        """Take so many metres at most."""
        had = []
        for entry in self._like(item):
            some = min(length, entry.left)
            if some > _NEAR:
                had.append(entry.take(some))
                length -= some
        return had

    def to_cut(self, item: Item) -> list[StockLength]:
        """Return the pieces there are of an item, to be cut from at no price."""
        return [StockLength(entry.spare.length, 0.0, entry.pieces) for entry in self._like(item)]

    def cut_from(self, item: Item, used: Sequence[int]) -> list[Had]:
        """Take the pieces that are cut from: how many of each that `to_cut` named."""
        entries = self._like(item)
        return [entry.take(count) for entry, count in zip(entries, used, strict=True) if count]


def can_be_bought(item: Item) -> bool:
    """Return whether more of an item can be bought: not of what is like no other."""
    return own.MARK not in own.but_for_length(item.key)
