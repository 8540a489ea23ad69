"""Boards of a raised bed as the footing of a frame: pushed, turned, and the whole bed tipped."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..mechanics import Array, beam
from ..path.loadpath import Check, Strength
from ..tables import rows

CORNER_SCREWS = 3  # that hold a board at each end, parts handbook 4.10


def pushed(thick: float, high: float, push: Array, free: float) -> Check:
    """Return the check of a board that uprights push sideways, between its corners or what backs it.

    Args:
        thick, high: Of the board. [m]
        push: On each metre of it. [N/m]
        free: Between what holds it. [m]

    Source: timoshenko-beams
    """
    material = tables.materials()["spf_graded_wide"]
    moment, modulus = np.asarray(beam.span_moment(push, free)), high * thick**2 / 6
    return Check(
        "board-pushed",
        moment,
        modulus * material.allow_gust,
        modulus * material.median,
        "moment",
        "timoshenko-beams",
        material.certainty,
        {"push": (push, "line_load"), "free": (free, "length"), "moment": (moment, "moment")},
        "wood",
    )


def turned(row: rows.Fitting, moment: Array, high: float, backed: Strength) -> Check:
    """Return the check that uprights do not turn their board about its foot: its corner screws hold it, and
    what backs it.

    Args:
        row: One corner screw.
        moment: Of all uprights on one board. [N·m]
        high: Of the board. [m]
        backed: Moment that stakes or ties behind it hold. [N·m]

    Source: handbook-parts-4.10
    """
    corners = 2 * CORNER_SCREWS * row.working_N * high / 2
    allowed = corners + backed.allowable
    return Check(
        "board-turned",
        moment,
        allowed,
        corners * row.median + backed.median,
        "moment",
        "handbook-parts-4.10",
        "judgement",
        {
            "moment": (moment, "moment"),
            "corners": (corners, "moment"),
            "backed": (backed.allowable, "moment"),
        },
        "screws",
    )


def bed_tips(moment: Array, weight: float, width: float) -> Check:
    """Return the check that a bed with a frame on it does not go over: its fill holds it down.

    Args:
        moment: On it. [N·m]
        weight: Of the fill. [N]
        width: Of the bed. [m]

    Source: handbook-parts-4.10
    """
    hold = weight * width / 2
    return Check(
        "bed-tips",
        moment,
        hold / tables.constant("dead_weight"),
        hold,
        "moment",
        "handbook-parts-4.10",
        "judgement",
        {
            "moment": (moment, "moment"),
            "weight": (weight, "force"),
            "width": (width, "length"),
            "hold": (hold, "moment"),
        },
        "weight",
    )
