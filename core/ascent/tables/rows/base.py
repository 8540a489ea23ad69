"""What rows of several tables have in common."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Literal

Certainty = Literal["certain", "published", "judgement", "measured"]


@dataclass(frozen=True)
class Row:
    """What every row of every table has."""

    key: str
    source: str
    certainty: Certainty


@dataclass(frozen=True)
class Source(Row):
    title: str
    where: str
    checked: str


@dataclass(frozen=True)
class Item(Row):
    """What is chosen from a table, bought and built in. What one bears is the matter of the checks, each of
    which gives what one designs to and what one expects.

    serves: the roles it may have; of one that names none every role is allowed.
    lengths: that it is sold in; none of what comes by the piece. [m]
    life: seasons it lasts where it is used, in soil where it stands in soil; 0 where no table says.
    pack_of: pieces in a pack.
    price_each: of one piece that is sold as it is; nothing of what is sold by length or area.
    """

    table: ClassVar[str]
    name: str

    @property
    def reclaimed(self) -> bool:
        """Return whether it is a used thing that cannot be bought, only found in a shed."""
        return self.key.startswith("old_")

    @property
    def serves(self) -> tuple[str, ...]:
        return ()

    @property
    def lengths(self) -> tuple[float, ...]:
        return ()

    @property
    def life(self) -> float:
        return 0.0

    @property
    def pack_of(self) -> int:
        return 1

    @property
    def price_each(self) -> float | None:
        return None


@dataclass(frozen=True)
class _Serves(Item):
    """Has roles of its own."""

    roles: tuple[str, ...]

    @property
    def serves(self) -> tuple[str, ...]:
        return self.roles


@dataclass(frozen=True)
class _Lasts(Item):
    """Has a life in dry air and in wet soil."""

    life_dry: float
    life_wet: float

    @property
    def life(self) -> float:
        return self.life_dry


@dataclass(frozen=True)
class _DrawnOff(_Lasts):
    """Comes on coils or spools of so many metres, if it does."""

    packs_m: tuple[float, ...]

    @property
    def lengths(self) -> tuple[float, ...]:
        return self.packs_m


@dataclass(frozen=True)
class _Counted(Item):
    """Has a price for one of it."""

    price: float

    @property
    def price_each(self) -> float:
        return self.price


@dataclass(frozen=True)
class _Packed(_Counted):
    """Comes so many in a pack."""

    pack: int

    @property
    def pack_of(self) -> int:
        return self.pack


@dataclass(frozen=True)
class Constant(Row):
    value: float
    unit: str
    what: str
