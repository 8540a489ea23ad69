"""The pieces that a structure is made of: which item, how long, and how each comes out of what is sold."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from .. import tables
from ..path.geometry import Geometry, Member, Supply, stock_in
from ..tables.rows import Item, Mesh, Post, Tie, Twine, Wire

BINDING = "tie_wire_16_double"  # of a joint
JOINED = ("rail", "strut", "arm")  # of wood and cane: cut from stock, or joined of it

Way = Literal["whole", "joined", "run", "bent", "round", "drawn off", "counted"]
_OF_MESH: dict[str, Way] = {"mesh": "run", "panel": "bent", "ring": "round"}


@dataclass(frozen=True)
class Piece:
    """An item cut to a length, or some of it as they are sold.

    way: How it comes out of what is sold: ‘whole’ stock, a stock length cut or several ‘joined’, a bay of a
        ‘run’ of mesh, a panel ‘bent’ whole or in parts, mesh cut off and made ‘round’, a length ‘drawn off’ a
        coil or spool, or ‘counted’.
    use: The role of what it is for, or what a supply is for.
    length: Of each; 0 where it has none. [m]
    high: Of mesh. [m]
    count: How many.
    member: Key of the member it is of; nothing where it has no place of its own.
    run: Which of several structures it belongs to.
    """

    item: Item
    way: Way
    use: str
    length: float = 0.0
    high: float = 0.0
    count: int = 1
    member: str = ""
    run: int = 0


def pieces_of(structures: Sequence[Geometry]) -> tuple[Piece, ...]:
    """Return the pieces of structures: of each member, of what is bought by count, and the bindings of
    joints, two to each.

    Source: handbook-parts-3.0; joints, handbook-parts-3.5
    """
    pieces = [
        piece
        for run, structure in enumerate(structures)
        for piece in (_of_member(member, run) for member in structure.members)
        if piece
    ]
    joints = sum(joint_count(piece) for piece in pieces)
    supplies = [supply for structure in structures for supply in structure.supplies]
    if joints:
        supplies.append(Supply("joint", "ties", BINDING, 2 * joints))
    return (*pieces, *_of_supplies(supplies))


def _of_member(member: Member, run: int) -> Piece | None:
    """Return the piece that a member is; soil that grips, and what stands already, is none."""
    if member.table not in tables.ITEM_TABLES:
        return None
    item = tables.item(member.table, member.item)
    way = way_of(item, member.role)
    if way is None:
        return None
    use = "mesh tie" if isinstance(item, Tie) else member.role
    foot = member.points[0][2] if way == "run" else 0.0
    high = max(point[2] for point in member.points) - foot if isinstance(item, Mesh) else 0.0
    return Piece(item, way, use, member.buy_length, high, 1, member.key, run)


def way_of(item: Item, role: str) -> Way | None:
    """Return how what an item becomes in a role comes out of what is sold; nothing where it is not bought."""
    match item:
        case Post():
            return "whole" if role == "post" else "joined" if role in JOINED else None
        case Mesh():
            return _OF_MESH.get(role)
        case Wire() | Twine():
            return "drawn off"
        case _:
            return "counted"


def use_of_supply(key: str) -> str:
    """Return what is said of what has no place of its own: of ‘stem-ties’ each is a ‘stem tie’."""
    return "stem tie" if key == "stem-ties" else key.replace("-", " ")


def _of_supplies(supplies: Iterable[Supply]) -> list[Piece]:
    return [
        Piece(item, way, use_of_supply(supply.key), supply.length, count=supply.count)
        for supply in supplies
        if (item := tables.item(supply.table, supply.item)) and (way := way_of(item, supply.key))
    ]


def joint_count(piece: Piece) -> int:
    """Return in how many places a piece is joined of the longest stock there is."""
    return len(lengths_of(piece, max(piece.item.lengths))) - 1 if piece.way == "joined" else 0


def lengths_of(piece: Piece, stock: float) -> list[float]:
    """Return the lengths that make a piece: itself, or whole stock lengths and a rest, each over the next by
    a lap. [m]
    """
    lap = tables.constant("joint_lap")
    whole = stock_in(piece.length, stock, lap) - 1
    return [stock] * whole + [piece.length - whole * (stock - lap)]
