"""How much of what is sold some pieces take: whole cylinders and panels, sheets that meet posts."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence

_NEAR = 1e-6


def whole_from(length: float, count: int, stock: float) -> int:
    """Return how many stock lengths some pieces of one length are cut from; one at least from each. [m]"""
    return math.ceil(count / max(math.floor(stock / length + _NEAR), 1))


def enough_of(lengths: Iterable[float], needed: float, near: float = _NEAR) -> list[float]:
    """Return the lengths sold that suffice, or the longest where none does. [m]"""
    lengths = list(lengths)
    return [length for length in lengths if length >= needed - near] or [max(lengths)]


def least(stocks: Iterable[float], count: Callable[[float], int]) -> tuple[float, int]:
    """Return the stock length that leaves the least over, the shortest of such, and how many are needed.
    [m]
    """
    counts = {stock: count(stock) for stock in stocks}
    stock = min(counts, key=lambda length: (counts[length] * length, length))
    return stock, counts[stock]


def sheets_in(bays: Sequence[float], stock: float) -> int:
    """Return how many sheets a run takes when every joint must meet a post, or a cut one spans a long bay.

    Args:
        bays: Lengths in order. [m]
        stock: Length of a sheet. [m]
    """
    near = 0.02 * max(bays)
    if any(bay > stock + near for bay in bays):
        return math.ceil(sum(bays) / stock - _NEAR)
    sheets, left = 0, 0.0
    for bay in bays:
        if bay > left + near:
            sheets, left = sheets + 1, stock
        left -= bay
    return sheets
