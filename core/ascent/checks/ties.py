"""Ties: of mesh to posts, and of stems to the mesh."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..loads.cases import by_week
from ..mechanics import Array
from ..path.loadpath import Check, Strength
from ..tables import rows


def strength(tie: rows.Tie, days: Array) -> Strength:
    """Return what a tie may carry and is expected to carry as the season wears it, (1, W, 1).

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
    least = by_week(tie.break_N * tie.strands * tie.knot * share)
    return Strength(np.asarray(least / tie.factor), np.asarray(least * tie.median))


def mesh_tie(
    tie: rows.Tie, wind: Array, weight: Array, count: int, days: Array, stiff: bool = False
) -> Check:
    """Return the check of the most loaded tie of an inner post: its share of the bay's weight and of the
    wind.

    A limp net hangs from its top tie. The verticals of welded mesh are stiff beside a tie that slips by
    millimetres before it bites, so the weight is shared by most of a post's ties; the worst still takes half
    as much again as its share.

    Args:
        tie: The tie.
        wind: On the bay. [N]
        weight: That hangs on the post. [N]
        count: Ties on it.
        days: Since they were put on, (W,). [d]
        stiff: Whether the mesh is stiff up and down.

    Source: handbook-12; sharing of ductile fasteners, en-1993-1-8
    """
    uneven = tables.constant("tie_uneven")
    sharing = max(tables.constant("ties_sharing") * count, 1.0) if stiff else 1.0
    each, down = wind / count * uneven, weight / sharing * uneven
    demand, held = np.hypot(each, down), strength(tie, days)
    return Check(
        "mesh-tie",
        demand,
        held.allowable,
        held.median,
        "force",
        tie.source,
        tie.certainty,
        {
            "wind": (wind, "force"),
            "count": (float(count), "count"),
            "each": (each, "force"),
            "sharing": (sharing, "count"),
            "weight": (weight, "force"),
            "down": (down, "force"),
            "demand": (demand, "force"),
        },
        "twine",
        np.asarray(demand / uneven),
    )


def stem_tie(
    tie: rows.Tie, weight: Array, wind: Array, count: Array | int, days: Array, usual: Array | None = None
) -> Check:
    """Return the check of the ties that hold one plant to its support.

    Args:
        tie: The tie.
        weight: Of a good plant. [N]
        wind: On it. [N]
        count: Ties on its stem, as high as it comes to grow.
        days: Since they were put on, (W,). [d]
        usual: Weight of a usual plant. [N]

    Source: handbook-10.5
    """
    demand, held = np.hypot(weight, wind) / count * tables.constant("tie_uneven"), strength(tie, days)
    return Check(
        "stem-tie",
        demand,
        held.allowable,
        held.median,
        "force",
        tie.source,
        tie.certainty,
        {
            "weight": (weight, "force"),
            "wind": (wind, "force"),
            "count": (np.asarray(count, dtype=float), "count"),
            "demand": (demand, "force"),
        },
        "twine",
        np.asarray(np.hypot(weight if usual is None else usual, wind) / count),
    )
