"""Strings, twine runs and the fittings they hang on."""

from __future__ import annotations

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..mechanics import Array


def twine_strength(twine: rows.Twine, days: Array) -> Array:
    """Return the ultimate strength of knotted twine as the season wears it, (1, W, 1).

    Break × knot × season; the season's share falls linearly from 1 over twenty weeks.

    Args:
        twine: The twine.
        days: Days since it was hung, (W,). [d]

    Returns:
        Strength. [N]

    Source: handbook-6.7
    """
    worn = np.clip(days / (7.0 * tables.constant("twine_season")), 0.0, 1.0)
    share = 1.0 + (twine.season_end - 1.0) * worn
    return np.asarray((twine.break_N * tables.constant("knot") * share).reshape(1, -1, 1))


def string(twine: rows.Twine, weight: Array, wind: Array, days: Array) -> Check:
    """Return the check of one string: a good plant's weight and the wind that its upper end takes.

    Source: handbook-6.7
    """
    demand = np.hypot(weight, wind)
    return Check(
        "string", demand, twine_strength(twine, days), tables.constant("twine"), "force", twine.source, "judgement",
        {"weight": (weight, "force"), "wind": (wind, "force"), "demand": (demand, "force")}, "twine",
    )  # fmt: skip


def cord(twine: rows.Twine, pull: Array, days: Array) -> Check:
    """Return the check of a cord that ties two things together all season.

    Source: handbook-6.7
    """
    return Check(
        "cord", pull, twine_strength(twine, days), tables.constant("twine"), "force", twine.source, "judgement", {"pull": (pull, "force")}, "twine",
    )  # fmt: skip


def fitting(key: str, row: rows.Fitting, demand: Array, count: float = 1.0) -> Check:
    """Return the check of a fitting that several may share.

    Source: handbook-13
    """
    return Check(
        key, demand, row.working_N * row.factor * count, row.factor, "force", row.source, row.certainty,
        {"demand": (demand, "force"), "count": (count, "count")}, "screws",
    )  # fmt: skip
