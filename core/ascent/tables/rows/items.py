"""Rows of what can be bought, found or grown for a support."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .base import Item, _Counted, _DrawnOff, _Lasts, _Packed, _Serves


@dataclass(frozen=True)
class Post(_Serves, _Lasts):
    """A post, pole, cane or bar; sound is what time has left of its strength."""

    table = "posts"
    shape: str
    a: float
    b: float
    material: str
    lengths_m: tuple[float, ...]
    kg_m: float
    soil_width: float
    plate_m2: float
    top_cap: bool
    price_m: float
    sound: float = 1.0

    @property
    def lengths(self) -> tuple[float, ...]:
        return self.lengths_m

    @property
    def life(self) -> float:
        return self.life_wet


@dataclass(frozen=True)
class Mesh(_Lasts):
    table = "meshes"
    kind: Literal["panel", "sheet", "roll", "net"]
    wire: float
    along: float
    up: float
    heights_m: tuple[float, ...]
    lengths_m: tuple[float, ...]
    kg_m2: float
    material: str
    hand: Literal["passes", "tight", "no"]
    price_m2: float

    @property
    def stiff(self) -> bool:
        """Return whether it comes flat and stands by itself."""
        return self.kind in ("panel", "sheet")

    @property
    def opening(self) -> float:
        """Return the lesser side of its openings, from middle to middle of the wires. [m]"""
        return min(self.along, self.up)

    @property
    def lengths(self) -> tuple[float, ...]:
        return self.lengths_m


@dataclass(frozen=True)
class Tie(_DrawnOff, _Packed):
    table = "ties"
    use: tuple[str, ...]
    break_N: float
    strands: int
    knot: float
    season_new: float
    season_end: float
    median: float
    factor: float
    length_m: float
    fits: str
    joint: str

    @property
    def serves(self) -> tuple[str, ...]:
        return self.use


@dataclass(frozen=True)
class Wire(_DrawnOff):
    table = "wires"
    d: float
    break_: float
    median: float
    ductility: float
    E: float
    factor: float
    price_m: float


@dataclass(frozen=True)
class Anchor(_Counted):
    """What holds a guy: by its working pull in a class of soil, as a weight buried `top` deep, or as one that
    only lies there.
    """

    table = "anchors"
    loose_N: float
    loam_N: float
    clay_N: float
    gravel_N: float
    factor: float
    median: float
    mass_kg: float
    deep_m: float
    top_m: float
    height_m: float
    width_m: float
    length_m: float
    friction: float


@dataclass(frozen=True)
class Twine(_Serves, _DrawnOff):
    table = "twines"
    d: float
    break_N: float
    stretch: float
    season_end: float
    price_m: float


@dataclass(frozen=True)
class Fitting(_Serves, _Lasts, _Packed):
    table = "fittings"
    working_N: float
    median: float
    kg: float
    long_m: float | None
    joint: str | None


@dataclass(frozen=True)
class Cage(_Lasts, _Counted):
    table = "cages"
    wire: float
    height_m: float
    diameter_m: float
    leg_m: float
    legs: int
    along: float
    up: float
    kg: float
    yield_: float
    median: float


@dataclass(frozen=True)
class Host(Item):
    table = "hosts"
    stem_Nm: float
    root_plate_m: float
    carries_kg: float
    start_low_d: float
    start_high_d: float
    ready_low_m: float
    ready_high_m: float
    least_rows: int
    fades_d: float


@dataclass(frozen=True)
class Cover(Item):
    table = "covers"
    solidity: float
    kg_m2: float
