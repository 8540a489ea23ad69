"""The lines of a shopping list, and what some pieces of one item come to before they have a price."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from .. import tables
from ..tables.rows import Cage, Item, Mesh, Post, Tie, Twine, Wire
from .shed import Had, can_be_bought

Shelf = Literal["wood", "canes", "steel", "mesh", "cages", "wire", "twine", "ties", "fixings"]
_OF_STUFF: dict[str, Shelf] = {"wood": "wood", "cane": "canes", "metal": "steel"}
_OF_KIND: dict[type[Item], Shelf] = {Mesh: "mesh", Cage: "cages", Wire: "wire", Twine: "twine", Tie: "ties"}


def shelf_of(item: Item) -> Shelf:
    """Return where a shop keeps an item."""
    if isinstance(item, Post):
        return _OF_STUFF[tables.materials()[item.material].stuff]
    return _OF_KIND.get(type(item), "fixings")


@dataclass(frozen=True)
class Part:
    """One line of the shopping list.

    count: pieces needed. length: of each piece [m], 0 where it has none.
    packs: what to buy: number of packs, rolls or pieces, and `pack` says what one is.
    price: of one pack.
    life: seasons it lasts, in soil where it stands in soil; 0 where no table says.
    price_key: what the gardener's own price of it is kept under: item and size of the pack.
    shelf: where a shop keeps it.
    own, had: what of the shed it is and how much of that, pieces or metres; nothing where it is bought.
    missing: whether no more of it can be bought, since it is like no other.
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
    shelf: Shelf
    own: str = ""
    had: float = 0.0
    missing: bool = False

    @property
    def cost(self) -> float:
        """Return the price of all packs."""
        return self.packs * self.price


@dataclass(frozen=True)
class Bought:
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
            shelf_of(self.item),
            missing=not can_be_bought(self.item),
        )


def part_had(item: Item, use: str, had: Had, metres: bool) -> Part:
    """Return the line of something that the shed has.

    Args:
        item: What it is.
        use: For what.
        had: Of what there, and how much.
        metres: Whether that is metres.
    """
    return Part(
        item.key,
        had.spare.name,
        use,
        1 if metres else round(had.amount),
        round(had.amount, 2) if metres else had.spare.length,
        1 if metres else round(had.amount),
        "shed",
        had.spare.length,
        0.0,
        had.spare.life,
        "",
        shelf_of(item),
        own=had.spare.stock,
        had=round(had.amount, 3),
    )
