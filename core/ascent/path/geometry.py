"""Where everything of a structure stands, in metres: x along the row, y across it, z up from the soil."""

from __future__ import annotations

import math
import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

import numpy as np

from .. import tables
from ..mechanics import Array
from ..memory import remembered

_NEAR = 0.05  # a piece so much too short will do [m]
Point = tuple[float, float, float]
Role = Literal[
    "post",
    "mesh",
    "rail",
    "wire",
    "tie",
    "guy",
    "strut",
    "anchor",
    "cap",
    "grip",
    "arm",
    "string",
    "run",
    "panel",
    "ring",
    "stem",
    "fitting",
    "host",
]
Shape = Literal["line", "panel", "point", "wires"]


@dataclass(frozen=True)
class Member:
    """A physical piece: two ends, a panel by its corners, or a point; a ‘grip’ is the soil that holds a post.

    buy_length is what must be bought or cut for it [m]; thickness is as seen from the side [m]; `lines` are
    drawn where one line does not say it: the wires of a bent panel, the rings of a cage; one that `sags`
    hangs between its points as deep as the week's load pulls it.
    """

    key: str
    role: Role
    table: str
    item: str
    points: tuple[Point, ...]
    buy_length: float = 0.0
    thickness: float = 0.0
    shape: Shape = "line"
    grid: tuple[float, float] | None = None
    lines: tuple[tuple[Point, ...], ...] = ()
    sags: bool = False

    def called(self, key: str) -> Member:
        """Return the member by another key."""
        # `dataclasses.replace` takes five times as long, and a garden has many thousands
        return Member(
            key,
            self.role,
            self.table,
            self.item,
            self.points,
            self.buy_length,
            self.thickness,
            self.shape,
            self.grid,
            self.lines,
            self.sags,
        )


def depth_of(member: Member) -> float:
    """Return how far below the soil a piece that is bought reaches; nothing of what stands on it. [m]"""
    if member.table == "anchors":
        return tables.anchors()[member.item].deep_m
    if member.table not in tables.ITEM_TABLES:
        return 0.0
    points = [*member.points, *(point for line in member.lines for point in line)]
    return max(-min(point[2] for point in points), 0.0)


_RUNNING = re.compile(r"-\d+(?![a-z])")


@remembered(4096)
def _part_of(key: str) -> tuple[str, int]:
    """Return a key without its running numbers, and how many there were."""
    return _RUNNING.subn("", key)


def located(members: Iterable[Member]) -> tuple[Member, ...]:
    """Return members keyed by what part each is and where it stands along the row: ‘post@120’, at 1.20 m.

    The running numbers they were made with go, so that a key stays what it is when there are more or fewer of
    a part; of several at one station those after the first are counted: ‘wire@0’, ‘wire@0,2’. What was made
    without a number is one of a kind.
    """
    at: Counter[str] = Counter()
    keyed = []
    for member in members:
        part, numbered = _part_of(member.key)
        if not numbered:
            keyed.append(member)
            continue
        key = f"{part}@{round(100 * member.points[0][0])}"
        at[key] += 1
        keyed.append(member.called(key if at[key] == 1 else f"{key},{at[key]}"))
    return tuple(keyed)


@dataclass(frozen=True)
class Plant:
    """A plant's place, which planting it belongs to, and the way it climbs: straight up where no way is
    given.

    station: how far along its row it stands where the row is not straight. [m]
    """

    at: Point
    planting: int
    way: tuple[Point, ...] = ()
    station: float | None = None

    @property
    def along(self) -> float:
        """Return how far along its row it stands, the row laid straight. [m]"""
        return self.at[0] if self.station is None else self.station


@dataclass(frozen=True)
class Dimension:
    """A measure between two points that an option decides; `view` is where it is edited."""

    option: str
    view: Literal["elevation", "end", "plan"]
    start: Point
    end: Point
    value: float
    offset: float


@dataclass(frozen=True)
class Supply:
    """Something bought by count that has no place of its own, such as ties on stems; length is of each piece
    [m].
    """

    key: str
    table: str
    item: str
    count: int
    length: float = 0.0


@dataclass(frozen=True)
class RowBays:
    """The bays of a row, the row laid straight.

    stations: where its uprights stand along it. [m]
    bay: the longest distance from one to the next. [m]
    carried: the length of row that one upright answers for. [m]
    """

    stations: tuple[float, ...]
    bay: float
    carried: float


@dataclass(frozen=True)
class Geometry:
    """A structure laid out: members, plants, measures.

    top: where it ends. [m]
    climb: what a plant can climb. [m]
    unit: how far along the row its first piece reaches that belongs together, as it is seen from the end. [m]
    gap: width of the path that it stands over, with a bed on either side. [m]
    bays: of a row whose uprights do not stand evenly by one of its options.
    """

    members: tuple[Member, ...]
    plants: tuple[Plant, ...]
    dimensions: tuple[Dimension, ...]
    supplies: tuple[Supply, ...]
    length: float
    top: float
    depth: float
    climb: float
    unit: float = 0.0
    gap: float = 0.0
    bays: RowBays | None = None

    def reach(self, width: float) -> float:
        """Return how far the ground of beds of some width reaches from the row to either side. [m]"""
        return self.gap / 2 + width if self.gap else width / 2

    def by_role(self, role: Role) -> tuple[Member, ...]:
        """Return the members of one role, in order."""
        return tuple(member for member in self.members if member.role == role)


def stock_in(length: float, stock: float, lap: float) -> int:
    """Return of how many stock lengths a length is joined, each over the next by a lap. [m]

    Source: handbook-parts-3.5
    """
    if length <= stock + _NEAR:
        return 1
    return max(math.ceil((length - lap) / (stock - lap) - 1e-6), 1)


def tributary(xs: Array, plants: Array, half: float) -> int:
    """Return the most plants within half a bay of any of the stations xs. [m]"""
    if not len(plants):
        return 0
    return int(np.max(np.sum(np.abs(plants[None, :] - xs[:, None]) <= half + 1e-9, axis=1)))


def keys(members: tuple[Member, ...]) -> tuple[str, ...]:
    """Return the members' keys."""
    return tuple(member.key for member in members)
