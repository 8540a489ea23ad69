"""The pieces of structures found in the shed, cut from stock and rounded to packs, kind by kind."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Hashable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import TypeVar

from .. import tables
from ..tables.rows import Item, Mesh, Post, Tie, Twine, Wire
from .cuts import Cutting, StockLength, cut
from .packs import enough_of, least, sheets_in, whole_from
from .parts import Bought, Part, part_had
from .pieces import JOINED, Piece, Way, lengths_of
from .shed import Had, Ledger

_WASTE = 1.05  # of mesh and twine, source: handbook-parts-3.0
_WASTE_WIRE = 1.03  # source: handbook-parts-3.0
_SPARE = 1.10  # of ties and what comes in packs, source: handbook-parts-3.0
_NEAR_HEIGHT = 0.011  # mesh so much lower will do [m]
_EACH = 1e-6
_UNCUT = 0.01  # what is left of a piece that is used as it is sold [m]
_SOLD_AS = {"panel": "panel", "sheet": "sheet", "roll": "roll", "net": "roll"}

Kind = TypeVar("Kind", bound=Item)
K = TypeVar("K", bound=Hashable)


@dataclass(frozen=True)
class CutBar:
    """One length of stock and what is cut from it.

    item: Of what it is. use: For what. length: Of the stock. [m] cuts: What is cut, the longest first. [m]
    own: What of the shed it is; nothing where it is bought. over: By what share less might do; 0 where
    nothing does with less.
    """

    item: Item
    use: str
    length: float
    cuts: tuple[float, ...]
    own: str = ""
    over: float = 0.0

    @property
    def rest(self) -> float:
        """Return what is left of it, the cuts themselves not counted. [m]"""
        return max(self.length - sum(self.cuts), 0.0)


class Buyer:
    """Turns pieces into what is had from the shed, what is bought, and how it is cut; where they are
    `pooled`, rails, struts and arms of one kind are cut from the same stock.
    """

    def __init__(self, ledger: Ledger, pooled: bool = False) -> None:
        self._ledger = ledger
        self._pooled = pooled
        self.had: list[Part] = []
        self.bars: list[CutBar] = []

    def all_of(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield what of some pieces is bought."""

        def of(way: Way) -> list[Piece]:
            return [piece for piece in pieces if piece.way == way]

        yield from self._whole(of("whole"))
        yield from self._joined(of("joined"))
        yield from self._runs(of("run"))
        yield from self._bent(of("bent"))
        yield from self._round(of("round"))
        yield from self._wires(of("drawn off"))
        yield from self._twines(of("drawn off"))
        yield from self._ties(of("counted"))
        yield from self._counted(of("counted"))

    def _from_shed(self, item: Item, use: str, had: Iterable[Had], metres: bool = False) -> float:
        """Note what is had of the shed; return how much that is."""
        had = list(had)
        self.had += [part_had(item, use, each, metres) for each in had]
        return sum(each.amount for each in had)

    def _whole(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield posts by the length they are bought in; from the shed one that is longer is cut to it."""
        lengths = sorted(_grouped(Post, pieces, lambda piece: piece.length), key=lambda each: -each[1])
        left: dict[tuple[str, float], int] = {}
        for item, length, group in lengths:
            found = self._ledger.pieces(item, len(group), length)
            left[item.key, length] = len(group) - round(self._from_shed(item, "post", found))
            self.bars += [
                CutBar(item, "post", each.spare.length, (length,), each.spare.stock)
                for each in found
                if each.spare.length > length + _EACH
                for _ in range(round(each.amount))
            ]
        for item, length, _ in _grouped(Post, pieces, lambda piece: piece.length):
            if count := left[item.key, length]:
                yield Bought(item, "post", count, length, count, "piece", length, item.price_m * length)

    def _joined(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield rails, struts and arms, cut from stock lengths or joined of them; from the shed first."""
        for use, of in self._uses(pieces):
            for item, group in _by_item(Post, of):
                own = self._ledger.to_cut(item)
                cutting = _cutting(item, group, own)
                used = Counter(bar.stock for bar in cutting.bars)
                found = self._ledger.cut_from(item, [used[n] for n in range(len(own))])
                self._from_shed(item, use, found)
                keys = [each.spare.stock for each in found for _ in range(round(each.amount))]
                for bar in sorted(cutting.bars, key=lambda bar: (bar.stock >= len(own), bar.stock)):
                    stock = _stock_of(item, own)[bar.stock]
                    key = keys.pop(0) if bar.stock < len(own) else ""
                    if stock.length - sum(bar.cuts) > _UNCUT or len(bar.cuts) > 1:
                        self.bars.append(CutBar(item, use, stock.length, bar.cuts, key, cutting.over))
                for n, length in enumerate(sorted(item.lengths), start=len(own)):
                    if count := used[n]:
                        yield Bought(item, use, count, length, count, "piece", length, item.price_m * length)

    def _uses(self, pieces: Sequence[Piece]) -> Iterator[tuple[str, list[Piece]]]:
        """Yield pieces that are cut from the same stock, and what they are for."""
        if self._pooled:
            yield "cut to length", list(pieces)
            return
        for use in JOINED:
            yield use, [piece for piece in pieces if piece.use == use]

    def _runs(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield the mesh of runs: those of one kind and height share their rolls; sheets are cut run by
        run.
        """
        first = {piece.run: piece for piece in reversed(pieces)}
        for item, high, group in _grouped(Mesh, pieces, lambda piece: round(first[piece.run].high, 3)):
            stock_high = min(enough_of(item.heights_m, high, _NEAR_HEIGHT))
            strips = math.ceil(high / stock_high - 0.01)
            use = f"mesh, {stock_high:g} m high"
            bays: dict[int, list[float]] = {}
            for piece in group:
                bays.setdefault(piece.run, []).append(piece.length)
            if item.stiff:
                counts = {
                    stock: sum(sheets_in(run, stock) for run in bays.values()) for stock in item.lengths
                }
                length = min(counts, key=lambda stock: (round(counts[stock] * stock, 3), counts[stock]))
                packs = counts[length] * strips
                packs -= round(self._from_shed(item, use, self._ledger.pieces(item, packs, length)))
            else:
                needed = sum(piece.length for piece in group) * _WASTE * strips
                needed -= self._from_shed(item, use, self._ledger.metres(item, needed), metres=True)
                rolls = {stock: math.ceil(needed / stock - _EACH) for stock in item.lengths}
                length = min(rolls, key=lambda stock: (round(rolls[stock] * stock, 3), -stock))
                packs = rolls[length]
            price = item.price_m2 * length * stock_high
            if packs:
                sold = _SOLD_AS[item.kind]
                yield Bought(item, use, packs, length, packs, sold, length, price, stock_high)

    def _bent(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield bent panels, whole or cut in halves and thirds from the stock that leaves the least."""
        for item, length, group in _grouped(Mesh, pieces, lambda piece: round(piece.length, 3)):
            found = self._from_shed(
                item, "bent panel", self._ledger.pieces(item, len(group), min(length, max(item.lengths)))
            )
            count = len(group) - round(found)
            if not count:
                continue

            def cuts(stock: float, length: float = length, count: int = count) -> int:
                return whole_from(min(length, stock), count, stock)

            stock, packs = least(enough_of(item.lengths, length), cuts)
            if length < stock - _EACH:
                each = math.floor(stock / length + _EACH)
                self.bars += [
                    CutBar(item, "bent panel", stock, (length,) * min(each, count - n * each))
                    for n in range(packs)
                ]
            high = max(item.heights_m)
            price = item.price_m2 * stock * high
            yield Bought(item, "bent panel", count, length, packs, "panel", stock, price, high)

    def _round(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield rolls for cages cut from mesh: as many whole cylinders as each roll gives."""
        for item, group in _by_item(Mesh, pieces):
            around, count = max(piece.length for piece in group), len(group)
            stock_high = min(enough_of(item.heights_m, max(piece.high for piece in group), _NEAR_HEIGHT))
            use = f"cages, {stock_high:g} m high"
            found = self._ledger.metres(item, count * around)
            count -= math.floor(self._from_shed(item, use, found, metres=True) / around + _EACH)
            if not count:
                continue

            def rolls(stock: float, around: float = around, count: int = count) -> int:
                return whole_from(around, count, stock)

            stock, packs = least(enough_of(item.lengths, around), rolls)
            each = max(math.floor(stock / around + _EACH), 1)
            self.bars += [
                CutBar(item, use, stock, (around,) * min(each, count - n * each)) for n in range(packs)
            ]
            price = item.price_m2 * stock * stock_high
            yield Bought(item, use, count, around, packs, "roll", stock, price, stock_high)

    def _wires(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        for item, group in _by_item(Wire, pieces):
            yield from self._drawn_off(item, group, _WASTE_WIRE, "wire", "coil")

    def _twines(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        for item, group in _by_item(Twine, pieces):
            yield from self._drawn_off(item, group, _WASTE, "string", "spool")

    def _drawn_off(
        self, item: Wire | Twine, group: Sequence[Piece], waste: float, use: str, pack: str
    ) -> Iterator[Bought]:
        """Yield wire or twine: every length of a kind together, with its waste, in the pack that leaves the
        least.
        """
        needed = sum(piece.count * piece.length for piece in group) * waste
        needed -= self._from_shed(item, use, self._ledger.metres(item, needed), metres=True)
        if needed > _EACH:
            size = min(enough_of(item.lengths, needed))
            packs = math.ceil(needed / size - _EACH)
            yield Bought(item, use, packs, round(needed, 1), packs, pack, size, item.price_m * size)

    def _ties(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield ties with some to spare: by the pack, or off a spool by the length of each."""
        for item, use, group in _grouped(Tie, pieces, lambda piece: piece.use):
            count = sum(piece.count for piece in group)
            needed = math.ceil(count * _SPARE)
            found = round(self._from_shed(item, use, self._ledger.pieces(item, needed)))
            needed, count = needed - found, max(count - found, 0)
            if needed and item.lengths:
                size = min(enough_of(item.lengths, needed * item.length_m))
                packs = math.ceil(needed * item.length_m / size - _EACH)
                yield Bought(item, use, count, item.length_m, packs, "spool", size, item.price * size)
            elif needed:
                packs = math.ceil(needed / item.pack)
                yield Bought(item, use, count, 0.0, packs, "pack", item.pack, item.price * item.pack)

    def _counted(self, pieces: Sequence[Piece]) -> Iterator[Bought]:
        """Yield what is bought by the piece: anchors, cages, fittings; the small ones by the pack, with some
        to spare.
        """
        for item, use, group in _grouped(Item, pieces, lambda piece: piece.use):
            if isinstance(item, Tie):
                continue
            count, pack_of = sum(piece.count for piece in group), item.pack_of
            count -= round(self._from_shed(item, use, self._ledger.pieces(item, count)))
            if not count:
                continue
            packed = pack_of > 1
            packs = math.ceil(count * (_SPARE if packed else 1.0) / pack_of)
            price = (item.price_each or 0.0) * pack_of
            yield Bought(item, use, count, 0.0, packs, "pack" if packed else "piece", pack_of, price)


def _stock_of(item: Post, own: Sequence[StockLength]) -> tuple[StockLength, ...]:
    """Return what pieces of an item may be cut from: what the shed has, then each length it is sold in."""
    sold = (StockLength(length, max(item.price_m, _EACH) * length) for length in sorted(item.lengths))
    return (*own, *sold)


def _cutting(item: Post, group: Sequence[Piece], own: Sequence[StockLength]) -> Cutting:
    """Return how pieces are cut, those longer than any stock joined of several."""
    stocks = _stock_of(item, own)
    longest = max(item.lengths)
    needs = [min(length, longest) for piece in group for length in lengths_of(piece, longest)]
    kerf, short = tables.constant("saw_kerf"), tables.constant("cut_short")
    return cut(tuple(round(need, 4) for need in needs), stocks, kerf, short)


def _grouped(
    kind: type[Kind], pieces: Iterable[Piece], key: Callable[[Piece], K]
) -> Iterator[tuple[Kind, K, list[Piece]]]:
    """Return the pieces of one kind of item by item and a key of each, in the order they come."""
    groups: dict[tuple[str, K], tuple[Kind, list[Piece]]] = {}
    for piece in pieces:
        if isinstance(piece.item, kind):
            groups.setdefault((piece.item.key, key(piece)), (piece.item, []))[1].append(piece)
    for (_, own), (item, group) in groups.items():
        yield item, own, group


def _by_item(kind: type[Kind], pieces: Iterable[Piece]) -> Iterator[tuple[Kind, list[Piece]]]:
    for item, _, group in _grouped(kind, pieces, lambda _: 0):
        yield item, group
