"""What to buy: counts and lengths from the geometry, rounded to stock and packs, priced."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from . import rows, tables
from .geometry import Geometry, Member, Supply

_CAP_PRICE = 0.8
_WASTE = {"mesh": 1.05, "wire": 1.03, "tie": 1.10}


@dataclass(frozen=True)
class Part:
    """One line of the shopping list.

    count: pieces needed. length: of each piece [m], 0 where it has none.
    packs: what to buy: number of packs, rolls or pieces, and `pack` says what one is.
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


def shopping(geometry: Geometry | Sequence[Geometry], prices: Mapping[str, float]) -> tuple[Part, ...]:
    """Return the shopping list of a structure, or of several together with every pack rounded up once.

    Args:
        geometry: The structure laid out, or several.
        prices: The gardener's own price of one pack, by item and size or by item; it overrides the table.

    Source: handbook-parts-3.0
    """
    all_ = [geometry] if isinstance(geometry, Geometry) else list(geometry)
    members = [member for each in all_ for member in each.members]
    found = [*_posts(members, prices), *_meshes(all_, prices), *_wires(members, prices)]
    found += _ties(members, [supply for each in all_ for supply in each.supplies], prices)
    for key, count in Counter(m.item for m in members if m.role == "anchor").items():
        row = tables.anchors()[key]
        found.append(_part(row.key, row.name, "anchor", count, 0.0, count, "piece", 1, row.price, prices))
    if caps := sum(m.role == "cap" for m in members):
        found.append(_part("cap", "post cap", "cap", caps, 0.0, caps, "piece", 1, _CAP_PRICE, prices))
    return tuple(found)


def total(parts: tuple[Part, ...]) -> float:
    """Return the cost of all parts."""
    return sum(part.cost for part in parts)


def _part(
    key: str, name: str, use: str, count: int, length: float, packs: int, pack: str, size: float, price: float,
    prices: Mapping[str, float],
) -> Part:  # fmt: skip
    sized = f"{key}@{size:g}" if pack != "pack" and size != 1 else key
    own = prices.get(sized, prices.get(key, round(price, 2)))
    return Part(key, name, use, count, length, packs, pack, size, own, _life(key), sized)


def _life(key: str) -> float:
    for table in (tables.posts(), tables.meshes(), tables.wires(), tables.ties()):
        if key in table:
            row: Any = table[key]
            return float(row.life_wet if isinstance(row, rows.Post) else row.life_dry)
    return 0.0


def _posts(members: Sequence[Member], prices: Mapping[str, float]) -> list[Part]:
    found = []
    bought = Counter((m.item, m.buy_length) for m in members if m.role == "post")
    for (key, length), count in bought.items():
        row = tables.posts()[key]
        found.append(_part(key, row.name, "post", count, length, count, "piece", length, row.price_m * length, prices))
    for role in ("rail", "strut"):
        for key in dict.fromkeys(m.item for m in members if m.role == role):
            row = tables.posts()[key]
            needs = [m.buy_length for m in members if m.role == role and m.item == key]
            stock = _stock(row.lengths_m, max(needs))
            pieces = math.ceil(sum(needs) / stock - 1e-6) if role == "rail" else len(needs)
            found.append(_part(key, row.name, role, pieces, stock, pieces, "piece", stock, row.price_m * stock, prices))
    return found


def _stock(lengths: tuple[float, ...], needed: float) -> float:
    return min((length for length in lengths if length >= needed - 1e-6), default=max(lengths))


def _meshes(geometries: Sequence[Geometry], prices: Mapping[str, float]) -> list[Part]:
    """Return the mesh to buy: runs of one kind and height share their rolls; sheets are cut run by run."""
    runs: dict[tuple[str, float], list[tuple[Member, ...]]] = {}
    for geometry in geometries:
        if bays := geometry.by_role("mesh"):
            height = round(bays[0].points[2][2] - bays[0].points[0][2], 3)
            runs.setdefault((bays[0].item, height), []).append(bays)
    return [_mesh(tables.meshes()[key], height, bays, prices) for (key, height), bays in runs.items()]


def _mesh(row: rows.Mesh, height: float, runs: Sequence[tuple[Member, ...]], prices: Mapping[str, float]) -> Part:
    stock_height = min((h for h in row.heights_m if h >= height - 0.011), default=max(row.heights_m))
    strips = math.ceil(height / stock_height - 0.01)
    if row.kind in ("panel", "sheet"):
        counts = {stock: sum(_sheets(bays, stock) for bays in runs) for stock in row.lengths_m}
        length = min(row.lengths_m, key=lambda stock: (counts[stock] * stock, stock))
        packs = counts[length] * strips
    else:
        run = sum(bay.buy_length for bays in runs for bay in bays) * _WASTE["mesh"] * strips
        length = min(row.lengths_m, key=lambda stock: (math.ceil(run / stock - 1e-6) * stock, stock))
        packs = math.ceil(run / length - 1e-6)
    price = row.price_m2 * length * stock_height
    kind = {"panel": "panel", "sheet": "sheet", "roll": "roll", "net": "roll"}[row.kind]
    part = _part(row.key, row.name, f"mesh, {stock_height:g} m high", packs, length, packs, kind, length, price, prices)
    sized = f"{part.price_key}x{stock_height:g}"
    return replace(part, price=prices.get(sized, part.price), price_key=sized)


def _sheets(bays: tuple[Member, ...], stock: float) -> int:
    """Return how many sheets a run takes when every joint must meet a post, or a cut one spans a long bay."""
    bay = bays[0].buy_length
    whole = math.floor(stock / bay + 0.02)
    if whole >= 1:
        return math.ceil(len(bays) / whole)
    return math.ceil(len(bays) * bay / stock - 1e-6)


def _wires(members: Sequence[Member], prices: Mapping[str, float]) -> list[Part]:
    found = []
    for key in dict.fromkeys(m.item for m in members if m.table == "wires"):
        row = tables.wires()[key]
        need = sum(m.buy_length for m in members if m.item == key) * _WASTE["wire"]
        pack = _stock(row.packs_m, need)
        packs = math.ceil(need / pack - 1e-6)
        found.append(_part(key, row.name, "wire", packs, round(need, 1), packs, "coil", pack, row.price_m * pack, prices))
    return found


def _ties(members: Sequence[Member], supplies: Sequence[Supply], prices: Mapping[str, float]) -> list[Part]:
    found = []
    counts = Counter(m.item for m in members if m.role == "tie")
    wanted = [(key, "mesh tie", count) for key, count in counts.items()]
    stems: Counter[str] = Counter()
    for supply in supplies:
        stems[supply.item] += supply.count
    wanted += [(key, "stem tie", count) for key, count in stems.items()]
    for key, use, count in wanted:
        row = tables.ties()[key]
        need = math.ceil(count * _WASTE["tie"])
        if row.packs_m:
            spool = _stock(row.packs_m, need * row.length_m)
            packs = math.ceil(need * row.length_m / spool - 1e-6)
            found.append(_part(key, row.name, use, count, row.length_m, packs, "spool", spool, row.price * spool, prices))
        else:
            packs = math.ceil(need / row.pack)
            found.append(_part(key, row.name, use, count, 0.0, packs, "pack", row.pack, row.price * row.pack, prices))
    return found
