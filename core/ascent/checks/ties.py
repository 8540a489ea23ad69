"""Ties: of mesh to posts, and of stems to the mesh."""

from __future__ import annotations

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..mechanics import Array


def strength(tie: rows.Tie, days: Array) -> Array:
    """Return the ultimate strength of a tie as the season wears it, (1, W, 1).

    Falls linearly from new to its end-of-season share over twenty weeks.

    Args:
        tie: The tie.
        days: Days since it was put on, (W,). [d]

    Returns:
        Strength. [N]

    Source: handbook-6.7
    """
    worn = np.clip(days / (7.0 * tables.constant("twine_season")), 0.0, 1.0)
    share = tie.season_new + (tie.season_end - tie.season_new) * worn
    return np.asarray((tie.break_N * tie.strands * tie.knot * share).reshape(1, -1, 1))


def mesh_tie(tie: rows.Tie, wind: Array, weight: Array, count: int, days: Array) -> Check:
    """Return the check of the top tie of an inner post: it takes the bay's weight and its share of wind.

    Source: handbook-12
    """
    uneven = tables.constant("tie_uneven")
    each = wind / count * uneven
    down = weight * uneven
    demand = np.hypot(each, down)
    return Check(
        "mesh-tie", demand, strength(tie, days), tie.factor, "force", tie.source, tie.certainty,
        {"wind": (wind, "force"), "count": (float(count), "count"), "each": (each, "force"), "down": (down, "force"),
         "demand": (demand, "force")}, "twine",
    )  # fmt: skip


def stem_tie(tie: rows.Tie, weight: Array, wind: Array, count: int, days: Array) -> Check:
    """Return the check of the ties that hold one good plant to the mesh.

    Source: handbook-10.5
    """
    uneven = tables.constant("tie_uneven")
    demand = np.hypot(weight, wind) / count * uneven
    return Check(
        "stem-tie", demand, strength(tie, days), tie.factor, "force", tie.source, tie.certainty,
        {"weight": (weight, "force"), "wind": (wind, "force"), "count": (float(count), "count"), "demand": (demand, "force")}, "twine",
    )  # fmt: skip
