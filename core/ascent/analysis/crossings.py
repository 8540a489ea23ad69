"""Where a rising utilisation reaches 1: limit gusts and crop load factors."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

import numpy as np

from ..mechanics import Array
from ..path.loadpath import Link


def first_crossing(uses: Array, xs: Array) -> Array:
    """Return where utilisation first reaches 1 along the last axis, linear in ln(utilisation) against
    ln(x). [the unit of the grid]

    Args:
        uses: Non-decreasing utilisations, (..., G).
        xs: The grid, (G,).

    Returns:
        The crossing, (...), in the unit of the grid; 0 where the utilisation is at least 1 from the start,
        infinite where it never is.

    Source: handbook-0.5
    """
    over = uses >= 1.0
    index = np.argmax(over, axis=-1)
    never = ~np.any(over, axis=-1)
    high = np.maximum(index, 1)
    u1 = np.take_along_axis(uses, high[..., None], -1)[..., 0]
    u0 = np.take_along_axis(uses, high[..., None] - 1, -1)[..., 0]
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.log(1.0 / np.maximum(u0, 1e-12)) / (
            np.log(np.minimum(u1, 1e12)) - np.log(np.maximum(u0, 1e-12))
        )
    crossing = np.exp(
        np.log(xs[high - 1]) + np.clip(share, 0.0, 1.0) * (np.log(xs[high]) - np.log(xs[high - 1]))
    )
    return np.where(never, np.inf, np.where(index == 0, 0.0, crossing))


def stacked(arrays: Sequence[Array], shape: tuple[int, ...]) -> Array:
    """Return arrays over one another, each spread over the same cases, (len(arrays), *shape). [the unit of
    the arrays]
    """
    together = np.empty((len(arrays), *shape))
    for row, array in zip(together, arrays, strict=True):
        row[:] = array
    return together


def crossings(uses: Mapping[str, Array], shape: tuple[int, ...], grid: Array) -> dict[str, Array]:
    """Return where the utilisation of each link reaches 1 along a grid.

    Args:
        uses: Of each link, broadcasting to (*shape, G).
        shape: Of the cases without the grid: (W,), (S, W) or (N, S, W).
        grid: Rising gusts [m/s] or factors, (G,).

    Returns:
        The crossing of each link, shape, in the unit of the grid.
    """
    together = stacked(list(uses.values()), (*shape, len(grid)))
    return dict(zip(uses, first_crossing(together, grid), strict=True))


def limit_gusts(
    links: Iterable[Link], shape: tuple[int, ...], grid: Array, *, median: bool = False
) -> dict[str, Array]:
    """Return the limit gust of each link, {key: shape}. [m/s]

    Args:
        links: A load path under the gusts of the grid.
        shape: Of the cases without the gusts.
        grid: The gusts, (G,). [m/s]
        median: Whether by median demands and strengths, rather than by design values.
    """
    uses = {link.key: link.median_utilisation if median else link.utilisation for link in links}
    return crossings(uses, shape, grid)


def least(limits: Mapping[str, Array]) -> float:
    """Return the least of the limits of all links in all cases. [m/s]"""
    return float(min(np.min(limit) for limit in limits.values()))


def at(array: Array | float, state: int, week: int, wind: int) -> float:
    """Return one case of an array that broadcasts to (soil state, week, wind). [the unit of the array]"""
    a = np.asarray(array, dtype=float)
    while a.ndim < 3:
        a = a[None]
    s, w, g = (min(i, n - 1) for i, n in zip((state, week, wind), a.shape, strict=True))
    return float(a[s, w, g])
