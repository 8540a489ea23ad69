"""A simulated supplier: a small local service that answers the protocol of docs/supplier-protocol.md, with
delays, faults and things sold out. For trying, never for buying.

Run as ``python -m standins.supplier --port N --faults slow,busy``.
"""

from __future__ import annotations

import argparse
import json
import random
import threading
import time
from collections.abc import Sequence
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any, get_args
from typing import Literal as Only
from urllib.parse import parse_qs, urlsplit

from ascent import tables
from ascent.tables.rows import Item, Mesh, Post, Twine, Wire

Fault = Only["slow", "silent", "busy", "cut", "garbled", "endless", "foreign", "stale", "moved"]
FAULTS: tuple[Fault, ...] = get_args(Fault)
NAME = "The Chandlery (simulated)"
PATH = "/ascent-prices/1"
_PAGE = 60
_SLOW, _SILENT = 0.6, 30.0  # [s]
_ENDLESS = 64 * 1024 * 1024


class Stall(ThreadingHTTPServer):
    """The service. Each fault happens as often as it is named: ‘busy,busy’ refuses two requests, then
    serves.
    """

    daemon_threads = True

    def __init__(self, port: int = 0, faults: Sequence[Fault] = (), seed: int = 1) -> None:
        super().__init__(("127.0.0.1", port), _Answer)
        self.faults = list(faults)
        self.goods = _goods(random.Random(seed))  # noqa: S311 - a play shop
        self.asked = 0

    @property
    def address(self) -> str:
        """Return where it listens."""
        return f"http://127.0.0.1:{self.server_port}{PATH}"

    def opened(self) -> Stall:
        """Serve in a thread until it is closed."""
        threading.Thread(target=self.serve_forever, daemon=True).start()
        return self

    def next_fault(self) -> Fault | None:
        """Return what goes wrong with this request, if anything."""
        self.asked += 1
        return self.faults.pop(0) if self.faults else None


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


class _Answer(BaseHTTPRequestHandler):
    server: Stall
    protocol_version = "HTTP/1.1"

    def log_message(self, format: str, *args: Any) -> None:
        """Say nothing."""

    def do_GET(self) -> None:
        """Answer one page of the list, or go wrong as told."""
        asked = urlsplit(self.path)
        if asked.path != PATH:
            self._send(404, b"{}")
            return
        fault = self.server.next_fault()
        if fault in ("slow", "silent"):
            time.sleep(_SLOW if fault == "slow" else _SILENT)
        if fault == "moved":  # to somewhere it was not asked to send anybody
            self.send_response(302)
            self.send_header("Location", f"{PATH}?from=0")
            self.send_header("Content-Length", "0")
            self.end_headers()
            return
        if fault == "busy":
            self.send_response(503)
            self.send_header("Retry-After", "0")
            self.send_header("Content-Length", "0")
            self.end_headers()
            return
        body = json.dumps(self._page(parse_qs(asked.query), fault), ensure_ascii=False).encode()
        if fault == "garbled":
            body = body.replace(b'"price"', b'"prise"')
        if fault == "endless":
            self._send(200, body + b" " * _ENDLESS)
        elif fault == "cut":
            self._send(200, body[: len(body) // 2], len(body))
        else:
            self._send(200, body)

    def _page(self, query: dict[str, list[str]], fault: Fault | None) -> dict[str, Any]:
        first = int(query.get("from", ["0"])[0])
        goods, until = self.server.goods, time.time() + (-3 if fault == "stale" else 30) * 86_400
        more = first + _PAGE < len(goods)
        return {
            "format": "ascent-prices",
            "version": 1,
            "supplier": NAME,
            "currency": "zł" if fault == "foreign" else "€",
            "until": time.strftime("%Y-%m-%d", time.gmtime(until)),
            "items": goods[first : first + _PAGE],
            "next": first + _PAGE if more else None,
        }

    def _send(self, status: int, body: bytes, says: int | None = None) -> None:
        self.send_response(status)
        self.send_header("Content-Type", "application/json; charset=utf-8")
        self.send_header("Content-Length", str(len(body) if says is None else says))
        self.end_headers()
        try:
            self.wfile.write(body)
        except OSError:
            self.close_connection = True
        if says is not None:
            self.close_connection = True


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(prog="standins.supplier")
    parser.add_argument("--port", type=int, default=8765)
    parser.add_argument("--faults", default="", help=f"of {', '.join(FAULTS)}; each once, in that order")
    asked = parser.parse_args()
    faults = [fault for fault in FAULTS for word in asked.faults.split(",") if word == fault]
    stall = Stall(asked.port, faults)
    print(stall.address)
    stall.serve_forever()


if __name__ == "__main__":
    main()
