"""What to buy: the pieces of structures rounded to the stock and packs they come out of, priced."""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

from ..path.geometry import Geometry
from ..tables.rows import Item, Mesh, Post, Tie, Twine, Wire
from .packs import cut_from, enough_of, least, sheets_in
from .pieces import JOINED, Piece, Way, lengths_of, pieces_of

_WASTE = 1.05  # of mesh and twine, source: handbook-parts-3.0
_WASTE_WIRE = 1.03  # source: handbook-parts-3.0
_SPARE = 1.10  # of ties and what comes in packs, source: handbook-parts-3.0
_NEAR_HEIGHT = 0.011  # mesh so much lower will do [m]
_EACH = 1e-6
_SOLD_AS = {"panel": "panel", "sheet": "sheet", "roll": "roll", "net": "roll"}

Kind = TypeVar("Kind", bound=Item)
K = TypeVar("K", bound=Hashable)


@dataclass(frozen=True)
class Part:
    """One line of the shopping list.

    count: pieces needed. length: of each piece [m], 0 where it has none.
    packs: what to buy: number of packs, rolls or pieces, and `pack` says what one is.
    price: of one pack.
    life: seasons it lasts, in soil where it stands in soil; 0 where no table says.
    price_key: what the gardener's own price of it is kept under: item and size of the pack.
    """

    key: str
    name: str
    use: str
    count: int
    length: float
    packs: int
    pack: str
    pack_size: float
    price: float
    life: float
    price_key: str

    @property
    def cost(self) -> float:
        """Return the price of all packs."""
        return self.packs * self.price


@dataclass(frozen=True)
class _Bought:
    """What some pieces of one item come to.

    price: of a pack, by the table.
    high: of mesh, a part of what the own price is kept under. [m]
    """

    item: Item
    use: str
    count: int
    length: float
    packs: int
    pack: str
    size: float
    price: float
    high: float = 0.0

    def priced(self, prices: Mapping[str, float]) -> Part:
        """Return the line of the list; the gardener's own price of its size comes first, then that of the
        item.
        """
        key = self.item.key
        bare = key if self.pack == "pack" or self.size == 1 else f"{key}@{self.size:g}"
        sized = f"{bare}x{self.high:g}" if self.high else bare
        own = next((prices[k] for k in (sized, bare, key) if k in prices), round(self.price, 2))
        return Part(
            key,
            self.item.name,
            self.use,
            self.count,
            self.length,
            self.packs,
            self.pack,
            self.size,
            own,
            self.item.life,
            sized,
        )


def shopping(geometry: Geometry | Sequence[Geometry], prices: Mapping[str, float]) -> tuple[Part, ...]:
    """Return the shopping list of a structure, or of several together with every pack rounded up once.

    Args:
        geometry: The structure laid out, or several.
        prices: The gardener's own price of one pack, by item and size or by item; it overrides the table.

    Source: handbook-parts-3.0
    """
    pieces = pieces_of([geometry] if isinstance(geometry, Geometry) else geometry)
    return tuple(bought.priced(prices) for bought in _bought(pieces))


def total(parts: tuple[Part, ...]) -> float:
    """Return the cost of all parts."""
    return sum(part.cost for part in parts)


def _bought(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    def of(way: Way) -> list[Piece]:
        return [piece for piece in pieces if piece.way == way]

    yield from _whole(of("whole"))
    yield from _joined(of("joined"))
    yield from _runs(of("run"))
    yield from _bent(of("bent"))
    yield from _round(of("round"))
    yield from _wires(of("drawn off"))
    yield from _twines(of("drawn off"))
    yield from _ties(of("counted"))
    yield from _counted(of("counted"))


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


def _whole(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    """Return posts by the length they are bought in."""
    for item, length, group in _grouped(Post, pieces, lambda piece: piece.length):
        count = len(group)
        yield _Bought(item, "post", count, length, count, "piece", length, item.price_m * length)


def _joined(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    """Return rails, struts and arms, cut from stock lengths or joined of them."""
    for use in JOINED:
        for item, group in _by_item(Post, [piece for piece in pieces if piece.use == use]):

            def cuts(stock: float, group: Sequence[Piece] = group) -> int:
                return cut_from([length for piece in group for length in lengths_of(piece, stock)], stock)

            stock, count = least(enough_of(item.lengths, max(piece.length for piece in group)), cuts)
            yield _Bought(item, use, count, stock, count, "piece", stock, item.price_m * stock)


def _runs(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    """Return the mesh of runs: those of one kind and height share their rolls; sheets are cut run by run."""
    first = {piece.run: piece for piece in reversed(pieces)}
    for item, high, group in _grouped(Mesh, pieces, lambda piece: round(first[piece.run].high, 3)):
        stock_high = min(enough_of(item.heights_m, high, _NEAR_HEIGHT))
        strips = math.ceil(high / stock_high - 0.01)
        bays: dict[int, list[float]] = {}
        for piece in group:
            bays.setdefault(piece.run, []).append(piece.length)
        if item.stiff:
            counts = {stock: sum(sheets_in(run, stock) for run in bays.values()) for stock in item.lengths}
            length = min(counts, key=lambda stock: (round(counts[stock] * stock, 3), counts[stock]))
            packs = counts[length] * strips
        else:
            needed = sum(piece.length for piece in group) * _WASTE * strips
            rolls = {stock: math.ceil(needed / stock - _EACH) for stock in item.lengths}
            length = min(rolls, key=lambda stock: (round(rolls[stock] * stock, 3), -stock))
            packs = rolls[length]
        price = item.price_m2 * length * stock_high
        use, sold = f"mesh, {stock_high:g} m high", _SOLD_AS[item.kind]
        yield _Bought(item, use, packs, length, packs, sold, length, price, stock_high)


def _bent(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    """Return bent panels, whole or cut in halves and thirds from the stock that leaves the least."""
    for item, length, group in _grouped(Mesh, pieces, lambda piece: round(piece.length, 3)):

        def cuts(stock: float, length: float = length, count: int = len(group)) -> int:
            return cut_from([min(length, stock)] * count, stock)

        stock, packs = least(enough_of(item.lengths, length), cuts)
        high = max(item.heights_m)
        price = item.price_m2 * stock * high
        yield _Bought(item, "bent panel", len(group), length, packs, "panel", stock, price, high)


def _round(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    """Return rolls for cages cut from mesh: as many whole cylinders as each roll gives."""
    for item, group in _by_item(Mesh, pieces):
        around, count = max(piece.length for piece in group), len(group)
        stock_high = min(enough_of(item.heights_m, max(piece.high for piece in group), _NEAR_HEIGHT))

        def rolls(stock: float, around: float = around, count: int = count) -> int:
            return math.ceil(count / max(math.floor(stock / around + _EACH), 1))

        stock, packs = least(enough_of(item.lengths, around), rolls)
        price = item.price_m2 * stock * stock_high
        use = f"cages, {stock_high:g} m high"
        yield _Bought(item, use, count, around, packs, "roll", stock, price, stock_high)


def _wires(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    for item, group in _by_item(Wire, pieces):
        yield _drawn_off(item, group, _WASTE_WIRE, "wire", "coil")


def _twines(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    for item, group in _by_item(Twine, pieces):
        yield _drawn_off(item, group, _WASTE, "string", "spool")


def _drawn_off(item: Wire | Twine, group: Sequence[Piece], waste: float, use: str, pack: str) -> _Bought:
    """Return wire or twine: every length of a kind together, with its waste, in the pack that leaves the
    least.
    """
    needed = sum(piece.count * piece.length for piece in group) * waste
    size = min(enough_of(item.lengths, needed))
    packs = math.ceil(needed / size - _EACH)
    return _Bought(item, use, packs, round(needed, 1), packs, pack, size, item.price_m * size)


def _ties(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    """Return ties with some to spare: by the pack, or off a spool by the length of each."""
    for item, use, group in _grouped(Tie, pieces, lambda piece: piece.use):
        count = sum(piece.count for piece in group)
        needed = math.ceil(count * _SPARE)
        if item.lengths:
            size = min(enough_of(item.lengths, needed * item.length_m))
            packs = math.ceil(needed * item.length_m / size - _EACH)
            yield _Bought(item, use, count, item.length_m, packs, "spool", size, item.price * size)
        else:
            packs = math.ceil(needed / item.pack)
            yield _Bought(item, use, count, 0.0, packs, "pack", item.pack, item.price * item.pack)


def _counted(pieces: Sequence[Piece]) -> Iterator[_Bought]:
    """Return what is bought by the piece: anchors, cages, fittings; the small ones by the pack, with some to
    spare.
    """
    for item, use, group in _grouped(Item, pieces, lambda piece: piece.use):
        if isinstance(item, Tie):
            continue
        count, pack_of = sum(piece.count for piece in group), item.pack_of
        packed = pack_of > 1
        packs = math.ceil(count * (_SPARE if packed else 1.0) / pack_of)
        price = (item.price_each or 0.0) * pack_of
        yield _Bought(item, use, count, 0.0, packs, "pack" if packed else "piece", pack_of, price)
