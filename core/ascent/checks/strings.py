"""Strings, twine runs and the fittings they hang on."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..loads.cases import by_week
from ..mechanics import Array
from ..path.loadpath import Check, Strength
from ..tables import rows


def twine_strength(twine: rows.Twine, days: Array) -> Strength:
    """Return what knotted twine may carry and is expected to carry as the season wears it, (1, W, 1).

    Break × knot × season; the season's share falls linearly from 1 over twenty weeks.

    Args:
        twine: The twine.
        days: Days since it was hung, (W,). [d]

    Returns:
        Strength. [N]

    Source: handbook-6.7
    """
    worn = np.clip(days / (7.0 * tables.constant("twine_season")), 0.0, 1.0)
    left = by_week(twine.break_N * (1.0 + (twine.season_end - 1.0) * worn))
    return Strength(
        np.asarray(left * tables.constant("knot") / tables.constant("twine")),
        np.asarray(left * tables.constant("knot_median")),
    )


def string(twine: rows.Twine, weight: Array, wind: Array, days: Array, usual: Array | None = None) -> Check:
    """Return the check of one string: a good plant's weight and the wind that its upper end takes.

    Args:
        twine: The string.
        weight: Of a good plant. [N]
        wind: On its upper end. [N]
        days: Since it was hung, (W,). [d]
        usual: Weight of a usual plant. [N]

    Source: handbook-6.7
    """
    demand, held = np.hypot(weight, wind), twine_strength(twine, days)
    return Check(
        "string",
        demand,
        held.allowable,
        held.median,
        "force",
        twine.source,
        "judgement",
        {"weight": (weight, "force"), "wind": (wind, "force"), "demand": (demand, "force")},
        "twine",
        None if usual is None else np.hypot(usual, wind),
    )


def cord(twine: rows.Twine, pull: Array, days: Array) -> Check:
    """Return the check of a cord that ties two things together all season.

    Args:
        twine: The cord.
        pull: Along it. [N]
        days: In use, by week, (W,). [d]

    Source: handbook-6.7
    """
    held = twine_strength(twine, days)
    return Check(
        "cord",
        pull,
        held.allowable,
        held.median,
        "force",
        twine.source,
        "judgement",
        {"pull": (pull, "force")},
        "twine",
    )


def fitting(
    key: str, row: rows.Fitting, demand: Array, count: float = 1.0, expected: Array | None = None
) -> Check:
    """Return the check of a fitting that several may share.

    Args:
        key: Of the check.
        row: The fitting.
        demand: On all of them. [N]
        count: How many share it. [-]
        expected: What is expected to come, where that is less than the demand. [N]

    Source: handbook-13
    """
    working = row.working_N * count
    return Check(
        key,
        demand,
        working,
        working * row.median,
        "force",
        row.source,
        row.certainty,
        {"demand": (demand, "force"), "count": (count, "count")},
        "screws",
        expected,
    )
