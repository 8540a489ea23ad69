"""A structure taken down: what it was built of goes into the shed, older."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import get_args

from .. import tables
from ..path.geometry import Geometry
from ..plan.shed import MOST_STOCK, MOST_STOCKED_ALIKE, Stock, StockTable
from ..plan.structure import Structure
from ..tables import own
from ..tables.rows import Item, Mesh, Tie, Twine
from .lists import shopping
from .pieces import Piece, lengths_of, pieces_of
from .shed import Ledger, amount_of, by_metre, had_by, row_of, worn

_NEAR = 1e-6
_SCRAP = 0.25  # what is shorter is thrown away [m]


@dataclass(frozen=True)
class _Sound:
    """A length, or a piece, that comes off a structure: of what, how long, how many, how old it was."""

    item: Item
    length: float
    count: int
    before: Stock | None = None


def put_back(
    shed: Sequence[Stock],
    structure: Structure,
    geometry: Geometry,
    seasons: int,
    new_key: Callable[[str], str],
) -> tuple[Stock, ...]:
    """Return a shed with what a structure was built of back in it, so many seasons older.

    What was had of the shed comes back as what it was; what was bought comes as new as it then was. Ties and
    twine are thrown away, and so is what is worn out by then, or too short to be of use.

    Args:
        shed: As it is while the structure stands.
        structure: As it was built, with what it has of the shed.
        geometry: It laid out, without what stays where it is.
        seasons: For how many it stood.
        new_key: Gives a free key for a name.

    Source: handbook-season-9
    """
    stocks = {stock.key: stock for stock in _less(shed, structure)}
    for sound in _off(shed, structure, geometry):
        stock = _older(sound, structure.name, seasons)
        if stock is None or worn(stock):
            continue
        same = next((known for known in stocks.values() if _alike(known, stock)), None)
        if same:
            count = min(same.count + stock.count, MOST_STOCKED_ALIKE)
            stocks[same.key] = same.model_copy(update={"count": count})
        elif len(stocks) < MOST_STOCK:
            key = new_key(stock.name)
            stocks[key] = stock.model_copy(update={"key": key})
    return tuple(stocks.values())


def _less(shed: Sequence[Stock], structure: Structure) -> Iterator[Stock]:
    """Yield a shed without what a structure has of it."""
    taken = {each.stock: each.amount for each in structure.taken}
    for stock in shed:
        left = amount_of(stock) - taken.get(stock.key, 0.0)
        if stock.key not in taken:
            yield stock
        elif by_metre(row_of(stock)):
            if left >= _SCRAP:
                yield stock.model_copy(update={"count": 1, "length": round(min(left, own.LENGTH.high), 3)})
        elif left > _NEAR:
            yield stock.model_copy(update={"count": round(left)})


def _off(shed: Sequence[Stock], structure: Structure, geometry: Geometry) -> Iterator[_Sound]:
    """Yield what comes off a structure and is worth keeping, each with what of the shed it was."""
    spare = had_by(shed, structure.taken)
    ledger, known = Ledger(spare), {stock.key: stock for stock in shed}
    for part in shopping(geometry, {}, spare):  # sheets of a run are whole, whatever bays they cover
        item = tables.meshes().get(part.key) if part.use.startswith("mesh,") else None
        if item is not None and item.stiff:
            yield _Sound(item, part.pack_size, part.packs, known.get(part.own))
    for piece in pieces_of([geometry]):
        if isinstance(piece.item, Tie | Twine) or (piece.length and piece.length < _SCRAP):
            continue
        if piece.item.table not in get_args(StockTable):
            continue  # what grew is no stock
        if piece.way == "run" and not by_metre(piece.item):
            continue
        for length in _lengths(piece):
            if by_metre(piece.item):
                found = ledger.metres(piece.item, length * piece.count)
            else:
                found = ledger.pieces(piece.item, piece.count, length)
            had = 0
            for each in found:
                count = piece.count if by_metre(piece.item) else round(each.amount)
                count = min(count, piece.count - had)
                had += count
                if count:
                    yield _Sound(piece.item, length, count, known[each.spare.stock])
            if had < piece.count:
                yield _Sound(piece.item, length, piece.count - had)


def _lengths(piece: Piece) -> list[float]:
    """Return the lengths of a piece, of which it is joined if it is longer than any that is sold."""
    return lengths_of(piece, max(piece.item.lengths)) if piece.way == "joined" else [piece.length]


def _older(sound: _Sound, name: str, seasons: int) -> Stock | None:
    """Return what comes off as something in the shed; of very many alike, as many as a shed tells."""
    count = min(sound.count, MOST_STOCKED_ALIKE)
    if sound.before is not None:
        age = min(sound.before.age + seasons, 60)
        length = round(sound.length, 3) if sound.before.length else None
        return sound.before.model_copy(update={"age": age, "count": count, "length": length})
    base, *_ = sound.item.key.split(own.MARK)
    measured = sound.item.table in own.MEASURES
    height = max(sound.item.heights_m) if isinstance(sound.item, Mesh) else None
    return Stock(
        key="new",
        name=f"{sound.item.name}, of {name}"[:120],
        table=sound.item.table,
        item=base,
        height=height if height and own.HEIGHT.low <= height <= own.HEIGHT.high else None,
        length=round(sound.length, 3) if measured else None,
        count=count,
        age=min(seasons, 60),
    )


def _alike(one: Stock, other: Stock) -> bool:
    """Return whether two are the same but for how many, their names and keys."""
    apart = {"key", "name", "count"}
    return one.model_dump(exclude=apart) == other.model_dump(exclude=apart)
