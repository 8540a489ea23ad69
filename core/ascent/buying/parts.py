"""What to buy: counts and lengths from the geometry, rounded to stock and packs, priced."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from .. import tables
from ..path.geometry import Geometry, Member, Supply
from ..tables import rows

_WASTE = {"mesh": 1.05, "wires": 1.03, "twines": 1.05, "tie": 1.10}
_BINDING = "tie_wire_16_double"  # of a joint
_BY_PIECE = ("anchors", "cages", "hosts")


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
    supplies = [*(supply for each in all_ for supply in each.supplies), *_joints(members)]
    parts = [
        *_posts(members, prices),
        *_meshes(all_, prices),
        *_panels(members, prices),
        *_cylinders(members, prices),
    ]
    for table, pack in (("wires", "coil"), ("twines", "spool")):
        parts += _by_length(table, pack, members, supplies, prices)
    return (*parts, *_ties(members, supplies, prices), *_pieces(members, supplies, prices))


def total(parts: tuple[Part, ...]) -> float:
    """Return the cost of all parts."""
    return sum(part.cost for part in parts)


def _part(
    key: str,
    name: str,
    use: str,
    count: int,
    length: float,
    packs: int,
    pack: str,
    size: float,
    price: float,
    prices: Mapping[str, float],
) -> Part:
    sized = f"{key}@{size:g}" if pack != "pack" and size != 1 else key
    own = prices.get(sized, prices.get(key, round(price, 2)))
    return Part(key, name, use, count, length, packs, pack, size, own, _life(key), sized)


def _life(key: str) -> float:
    for table in tables.ITEM_TABLES.values():
        if key in table():
            row: Any = table()[key]
            return float(row.life_wet if isinstance(row, rows.Post) else getattr(row, "life_dry", 0.0))
    return 0.0


def _posts(members: Sequence[Member], prices: Mapping[str, float]) -> list[Part]:
    """Return posts by the length they are bought in; rails, struts and arms cut from stock lengths, or joined
    of them.
    """
    parts = []
    bought = Counter((m.item, m.buy_length) for m in members if m.role == "post" and m.table == "posts")
    for (key, length), count in bought.items():
        row = tables.posts()[key]
        parts.append(
            _part(key, row.name, "post", count, length, count, "piece", length, row.price_m * length, prices)
        )
    for role in ("rail", "strut", "arm"):
        for key in dict.fromkeys(m.item for m in members if m.role == role and m.table == "posts"):
            row = tables.posts()[key]
            own = [m for m in members if m.role == role and m.item == key]
            enough = [long for long in row.lengths_m if long >= max(m.buy_length for m in own) - 1e-6] or [
                max(row.lengths_m)
            ]
            cuts = {stock: _cut([need for m in own for need in _joined(m, stock)], stock) for stock in enough}
            stock = min(cuts, key=lambda long: (cuts[long] * long, long))
            pieces = cuts[stock]
            parts.append(
                _part(key, row.name, role, pieces, stock, pieces, "piece", stock, row.price_m * stock, prices)
            )
    return parts


def _joined(member: Member, stock: float) -> list[float]:
    """Return the lengths that make a member: itself, or whole stock lengths and a rest, each over the next by
    a lap. [m]
    """
    lap = tables.constant("joint_lap")
    whole = member.pieces(stock, lap) - 1
    return [stock] * whole + [member.buy_length - whole * (stock - lap)]


def _joints(members: Sequence[Member]) -> list[Supply]:
    """Return the bindings of joints: two to each.

    Source: handbook-parts-3.5
    """
    longest = {key: max(row.lengths_m) for key, row in tables.posts().items()}
    lap = tables.constant("joint_lap")
    joints = sum(
        m.pieces(longest[m.item], lap) - 1
        for m in members
        if m.table == "posts" and m.role in ("rail", "strut", "arm")
    )
    return [Supply("joint", "ties", _BINDING, 2 * joints)] if joints else []


def _cut(needs: Sequence[float], stock: float) -> int:
    """Return how many stock lengths some pieces are cut from, the longest first, each from the first that has
    room.
    """
    left: list[float] = []
    for need in sorted(needs, reverse=True):
        place = next((i for i, room in enumerate(left) if room >= need - 1e-6), None)
        if place is None:
            left.append(max(stock - need, 0.0))
        else:
            left[place] -= need
    return len(left)


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


def _mesh(
    row: rows.Mesh, height: float, runs: Sequence[tuple[Member, ...]], prices: Mapping[str, float]
) -> Part:
    stock_height = min((h for h in row.heights_m if h >= height - 0.011), default=max(row.heights_m))
    strips = math.ceil(height / stock_height - 0.01)
    if row.kind in ("panel", "sheet"):
        counts = {stock: sum(_sheets(bays, stock) for bays in runs) for stock in row.lengths_m}
        length = min(row.lengths_m, key=lambda stock: (round(counts[stock] * stock, 3), counts[stock]))
        packs = counts[length] * strips
    else:
        run = sum(bay.buy_length for bays in runs for bay in bays) * _WASTE["mesh"] * strips
        length = min(
            row.lengths_m, key=lambda stock: (round(math.ceil(run / stock - 1e-6) * stock, 3), -stock)
        )
        packs = math.ceil(run / length - 1e-6)
    price = row.price_m2 * length * stock_height
    kind = {"panel": "panel", "sheet": "sheet", "roll": "roll", "net": "roll"}[row.kind]
    part = _part(
        row.key, row.name, f"mesh, {stock_height:g} m high", packs, length, packs, kind, length, price, prices
    )
    sized = f"{part.price_key}x{stock_height:g}"
    return replace(part, price=prices.get(sized, part.price), price_key=sized)


def _panels(members: Sequence[Member], prices: Mapping[str, float]) -> list[Part]:
    """Return bent panels, whole or cut in halves and thirds from the stock that leaves the least."""
    parts = []
    for key, length in dict.fromkeys((m.item, round(m.buy_length, 3)) for m in members if m.role == "panel"):
        row = tables.meshes()[key]
        count = sum(m.role == "panel" and m.item == key and round(m.buy_length, 3) == length for m in members)
        enough = [long for long in row.lengths_m if long >= length - 1e-6] or [max(row.lengths_m)]
        cuts = {long: _cut([min(length, long)] * count, long) for long in enough}
        stock, height = min(cuts, key=lambda long: (cuts[long] * long, long)), max(row.heights_m)
        part = _part(
            key,
            row.name,
            "bent panel",
            count,
            length,
            cuts[stock],
            "panel",
            stock,
            row.price_m2 * stock * height,
            prices,
        )
        sized = f"{part.price_key}x{height:g}"
        parts.append(replace(part, price=prices.get(sized, part.price), price_key=sized))
    return parts


def _cylinders(members: Sequence[Member], prices: Mapping[str, float]) -> list[Part]:
    """Return rolls for cages cut from mesh: as many whole cylinders as each roll gives."""
    parts = []
    for key in dict.fromkeys(m.item for m in members if m.role == "ring" and m.table == "meshes"):
        row = tables.meshes()[key]
        rings = [m for m in members if m.role == "ring" and m.item == key]
        around, height = max(m.buy_length for m in rings), max(m.points[1][2] for m in rings)
        stock_height = min((h for h in row.heights_m if h >= height - 0.011), default=max(row.heights_m))
        packs = {
            long: math.ceil(len(rings) / max(math.floor(long / around + 1e-6), 1))
            for long in row.lengths_m
            if long >= around
        }
        long = min(packs, key=lambda stock: (packs[stock] * stock, stock), default=max(row.lengths_m))
        count = packs.get(long, len(rings))
        part = _part(
            row.key,
            row.name,
            f"cages, {stock_height:g} m high",
            len(rings),
            around,
            count,
            "roll",
            long,
            row.price_m2 * long * stock_height,
            prices,
        )
        sized = f"{part.price_key}x{stock_height:g}"
        parts.append(replace(part, price=prices.get(sized, part.price), price_key=sized))
    return parts


def _sheets(bays: tuple[Member, ...], stock: float) -> int:
    """Return how many sheets a run takes when every joint must meet a post, or a cut one spans a long bay."""
    near = 0.02 * max(bay.buy_length for bay in bays)
    if any(bay.buy_length > stock + near for bay in bays):
        return math.ceil(sum(bay.buy_length for bay in bays) / stock - 1e-6)
    sheets, left = 0, 0.0
    for bay in bays:
        if bay.buy_length > left + near:
            sheets, left = sheets + 1, stock
        left -= bay.buy_length
    return sheets


def _by_length(
    table: str, pack: str, members: Sequence[Member], supplies: Sequence[Supply], prices: Mapping[str, float]
) -> list[Part]:
    """Return wire or twine: every length of a kind together, with its waste, in the pack that leaves the
    least.
    """
    needs: dict[str, float] = {}
    for member in members:
        if member.table == table:
            needs[member.item] = needs.get(member.item, 0.0) + member.buy_length
    for supply in supplies:
        if supply.table == table:
            needs[supply.item] = needs.get(supply.item, 0.0) + supply.count * supply.length
    parts = []
    for key, bare in needs.items():
        row: Any = tables.ITEM_TABLES[table]()[key]
        need = bare * _WASTE[table]
        size = _stock(row.packs_m, need)
        packs = math.ceil(need / size - 1e-6)
        use = "wire" if table == "wires" else "string"
        parts.append(
            _part(key, row.name, use, packs, round(need, 1), packs, pack, size, row.price_m * size, prices)
        )
    return parts


def _pieces(members: Sequence[Member], supplies: Sequence[Supply], prices: Mapping[str, float]) -> list[Part]:
    """Return what is bought by the piece: anchors, cages, fittings; the small ones by the pack."""
    counts: Counter[tuple[str, str, str]] = Counter(
        (m.table, m.item, m.role) for m in members if m.table in (*_BY_PIECE, "fittings")
    )
    for supply in supplies:
        if supply.table in (*_BY_PIECE, "fittings"):
            counts[(supply.table, supply.item, supply.key.replace("-", " "))] += supply.count
    parts = []
    for (table, key, use), count in counts.items():
        row: Any = tables.ITEM_TABLES[table]()[key]
        pack = getattr(row, "pack", 1)
        packs = math.ceil(count * (_WASTE["tie"] if pack > 1 else 1.0) / pack)
        price = getattr(row, "price", 0.0) * pack
        parts.append(
            _part(key, row.name, use, count, 0.0, packs, "pack" if pack > 1 else "piece", pack, price, prices)
        )
    return parts


def _ties(members: Sequence[Member], supplies: Sequence[Supply], prices: Mapping[str, float]) -> list[Part]:
    parts = []
    counts = Counter(m.item for m in members if m.table == "ties")
    wanted = [(key, "mesh tie", count) for key, count in counts.items()]
    stems: Counter[str] = Counter()
    for supply in supplies:
        if supply.table == "ties":
            stems[supply.item] += supply.count
    wanted += [(key, "stem tie", count) for key, count in stems.items()]
    for key, use, count in wanted:
        row = tables.ties()[key]
        need = math.ceil(count * _WASTE["tie"])
        if row.packs_m:
            spool = _stock(row.packs_m, need * row.length_m)
            packs = math.ceil(need * row.length_m / spool - 1e-6)
            parts.append(
                _part(
                    key, row.name, use, count, row.length_m, packs, "spool", spool, row.price * spool, prices
                )
            )
        else:
            packs = math.ceil(need / row.pack)
            parts.append(
                _part(key, row.name, use, count, 0.0, packs, "pack", row.pack, row.price * row.pack, prices)
            )
    return parts
