"""The least sum of tables that share axes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import reduce

import numpy as np

from ..mechanics import Array

Indices = tuple[int, ...]  # a level of each axis
Factor = tuple[tuple[int, ...], Array]  # axes, and a cost over them; infinite where it cannot be

LARGEST = 2_000_000  # entries of a table
_JOINED = 200_000  # entries of tables taken together, past which they are decided apart


class TooLarge(Exception):
    """A grid whose tables would be too large; a coarser one is needed."""


def least_of(factors: Sequence[Factor], sizes: Sequence[int]) -> tuple[float, Indices]:
    """Return a sum that no choice of levels goes below, and a choice that comes near it. [the unit of the
    tables]

    One axis after another is decided for all that the others may be. The choice is the best and the sum its
    own unless tables would become too large together; then they are decided apart, each as is best for it.

    Source: bucket elimination and mini-buckets; Dechter, Constraint Processing, 2003, chapters 4 and 13
        (value from memory)
    """
    left, decided = list(factors), list[tuple[int, list[Factor]]]()
    waiting = set(range(len(sizes)))
    while waiting:
        size = {axis: _entries(_over(left, axis), sizes) for axis in waiting}
        axis = min(waiting, key=lambda a: (size[a], a))
        mine = [factor for factor in left if axis in factor[0]]
        left = [factor for factor in left if axis not in factor[0]]
        decided.append((axis, mine))
        left += [_without(group, axis, sizes) for group in _groups(mine, sizes)]
        waiting.remove(axis)
    found: dict[int, int] = {}
    for axis, mine in reversed(decided):
        total = sum((_given(factor, axis, found) for factor in mine), np.zeros(sizes[axis]))
        found[axis] = int(np.argmin(total))
    return float(sum(float(total) for _, total in left)), tuple(found[a] for a in range(len(sizes)))


def _over(factors: Sequence[Factor], axis: int) -> tuple[int, ...]:
    """Return the axes that tables with an axis have among them."""
    return tuple(sorted({axis}.union(*(axes for axes, _ in factors if axis in axes))))


def _entries(over: Sequence[int], sizes: Sequence[int]) -> int:
    return math.prod(sizes[axis] for axis in over)


def _groups(factors: Sequence[Factor], sizes: Sequence[int]) -> list[list[Factor]]:
    """Return tables in groups that are not too large together, the largest first."""
    groups: list[tuple[set[int], list[Factor]]] = []
    for factor in sorted(factors, key=lambda f: -f[1].size):
        place = next((g for g in groups if _entries(sorted(g[0].union(factor[0])), sizes) <= _JOINED), None)
        if place is None:
            groups.append((set(factor[0]), [factor]))
        else:
            place[0].update(factor[0])
            place[1].append(factor)
    return [group for _, group in groups]


def _without(group: Sequence[Factor], axis: int, sizes: Sequence[int]) -> Factor:
    """Return the least of tables over an axis, for all that their other axes may be."""
    over = _over(group, axis)
    total = reduce(np.add, (_along(factor, over) for factor in group))
    total = np.broadcast_to(total, [sizes[a] for a in over])
    return tuple(a for a in over if a != axis), np.min(total, axis=over.index(axis))


def _along(factor: Factor, over: tuple[int, ...]) -> Array:
    axes, values = factor
    return values.reshape([values.shape[axes.index(a)] if a in axes else 1 for a in over])


def _given(factor: Factor, axis: int, found: dict[int, int]) -> Array:
    """Return a table over one axis, the others decided."""
    axes, values = factor
    return values[tuple(slice(None) if a == axis else found[a] for a in axes)]
