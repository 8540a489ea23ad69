"""A simulated supplier: a small local service that answers the protocol of docs/supplier-protocol.md, with
delays, faults and things sold out. For trying, never for buying.

Run as ``python -m simulators.supplier --port N --faults slow,busy``.
"""

from __future__ import annotations

import argparse
import random
import time
from collections.abc import Sequence
from typing import Any, get_args
from typing import Literal as Only

from ascent import tables
from ascent.tables.rows import Item, Mesh, Post, Twine, Wire

from .faulty import Faulty, Query

Fault = Only["slow", "silent", "busy", "cut", "garbled", "endless", "foreign", "stale", "moved"]
FAULTS: tuple[Fault, ...] = get_args(Fault)
NAME = "The Chandlery (simulated)"
PATH = "/ascent-prices/1"
_PAGE = 60


class Stall(Faulty):
    """The service."""

    garbles = (b'"price"', b'"prise"')

    def __init__(self, port: int = 0, faults: Sequence[Fault] = (), seed: int = 1) -> None:
        super().__init__(port, faults)
        self.goods = _goods(random.Random(seed))  # noqa: S311 - a play shop

    @property
    def address(self) -> str:
        """Return where it listens."""
        return f"http://127.0.0.1:{self.server_port}{PATH}"

    def page(self, path: str, query: Query, fault: str | None) -> dict[str, Any] | None:
        """Return one page of the list."""
        if path != PATH:
            return None
        first = int(query.get("from", ["0"])[0])
        until = time.time() + (-3 if fault == "stale" else 30) * 86_400
        more = first + _PAGE < len(self.goods)
        return {
            "format": "ascent-prices",
            "version": 1,
            "supplier": NAME,
            "currency": "zł" if fault == "foreign" else "€",
            "until": time.strftime("%Y-%m-%d", time.gmtime(until)),
            "items": self.goods[first : first + _PAGE],
            "next": first + _PAGE if more else None,
        }


def _goods(chance: random.Random) -> list[dict[str, Any]]:
    """Return what it sells: rows of the tables at prices of its own, some sold out, some in other packs."""
    goods: list[dict[str, Any]] = []
    for table in ("posts", "meshes", "ties", "wires", "twines", "anchors", "fittings", "cages"):
        for item in tables.ITEM_TABLES[table]().values():
            if item.reclaimed or chance.random() < 0.25:
                continue
            goods += [_priced(item, size, chance) for size in (item.lengths or (None,))]
    return goods


def _priced(item: Item, size: float | None, chance: random.Random) -> dict[str, Any]:
    sold = {"item": item.key, "price": round(_usual(item, size) * chance.uniform(0.85, 1.25), 2)}
    if size is not None:
        sold["size"] = size
    if isinstance(item, Mesh):
        sold["high"] = max(item.heights_m)
    if chance.random() < 0.06:
        return {**sold, "stock": 0, "days": chance.randint(2, 20)}
    return {**sold, "stock": chance.randint(1, 80)}


def _usual(item: Item, size: float | None) -> float:
    match item:
        case Mesh():
            return item.price_m2 * (size or 1.0) * max(item.heights_m)
        case Post() | Wire() | Twine():
            return item.price_m * (size or 1.0)
        case _:
            return (item.price_each or 0.0) * (size or item.pack_of)


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(prog="simulators.supplier")
    parser.add_argument("--port", type=int, default=8765)
    parser.add_argument("--faults", default="", help=f"of {', '.join(FAULTS)}; each once, in that order")
    asked = parser.parse_args()
    faults = [fault for fault in FAULTS for word in asked.faults.split(",") if word == fault]
    stall = Stall(asked.port, faults)
    print(stall.address)
    stall.serve_forever()


if __name__ == "__main__":
    main()
