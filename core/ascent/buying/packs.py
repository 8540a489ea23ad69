"""How much of what is sold some pieces take: whole cylinders, sheets that meet posts, lengths cut one after
another.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence

_NEAR = 1e-6


def cut_from(needs: Sequence[float], stock: float) -> int:
    """Return how many stock lengths some lengths are cut from, the longest first, each from the first that
    has room.

    Args:
        needs: None longer than the stock. [m]
        stock: [m]

    Source: none; common practice in cutting
    """
    left: list[float] = []
    for need in sorted(needs, reverse=True):
        place = next((i for i, room in enumerate(left) if room >= need - _NEAR), None)
        if place is None:
            left.append(max(stock - need, 0.0))
        else:
            left[place] -= need
    return len(left)


def enough_of(lengths: Iterable[float], needed: float, near: float = _NEAR) -> list[float]:
    """Return the lengths sold that suffice, or the longest where none does. [m]"""
    lengths = list(lengths)
    return [length for length in lengths if length >= needed - near] or [max(lengths)]


def least(stocks: Iterable[float], count: Callable[[float], int]) -> tuple[float, int]:
    """Return the stock length that leaves the least over, the shortest of such, and how many are needed."""
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
