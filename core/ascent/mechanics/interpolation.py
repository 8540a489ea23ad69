"""Reading between the rows of a table made once."""

from __future__ import annotations

import numpy as np

from . import Array, Number


def between(rows: Array, columns: Array, values: Array, row: Number, column: Number) -> Array:
    """Return values of a grid between its points, linear both ways, held at its edges. [the units of the
    grid]

    Args:
        rows: What the rows stand for, rising, (m,).
        columns: What the columns stand for, rising, (n,).
        values: The grid, (m, n).
        row: Where to read, broadcast with `column`.
        column: Where to read.

    Returns:
        The values there.

    Source: handbook-8.2
    """
    r, c = np.broadcast_arrays(np.asarray(row, dtype=float), np.asarray(column, dtype=float))
    i = np.clip(np.searchsorted(rows, r) - 1, 0, len(rows) - 2)
    j = np.clip(np.searchsorted(columns, c) - 1, 0, len(columns) - 2)
    u = np.clip((r - rows[i]) / (rows[i + 1] - rows[i]), 0.0, 1.0)
    v = np.clip((c - columns[j]) / (columns[j + 1] - columns[j]), 0.0, 1.0)
    low = values[i, j] * (1 - v) + values[i, j + 1] * v
    high = values[i + 1, j] * (1 - v) + values[i + 1, j + 1] * v
    return np.asarray(low * (1 - u) + high * u)
