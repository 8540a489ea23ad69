"""Things that stand by their weight: cages, rafts of cages, pots."""

from __future__ import annotations

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..mechanics import Array


def cage(moment: Array, weight: Array, arm: float, legs: Array, stakes: Array, staked_ultimate: Array, rows_: int) -> Check:
    """Return the check that a cage, or a raft of cages tied together, does not tip over.

    Args:
        moment: Of wind and lean about the leeward edge, for one column of cages. [N·m]
        weight: Of one cage with what always presses on it. [N]
        arm: From the middle of the raft to its leeward edge. [m]
        legs: Moment that the windward legs' friction holds. [N·m]
        stakes: Allowable moment of the stakes of the column. [N·m]
        staked_ultimate: Their ultimate moment. [N·m]
        rows_: Cages one behind another that are tied stiffly together.

    Source: handbook-10.3
    """
    resting = rows_ * weight * arm + legs
    allowed = resting / tables.constant("dead_weight") + stakes
    ultimate = resting + staked_ultimate
    return Check(
        "cage-tips", moment, ultimate, ultimate / allowed, "moment", "handbook-10.3", "judgement",
        {"moment": (moment, "moment"), "weight": (weight, "force"), "arm": (arm, "length"), "rows": (float(rows_), "count"),
         "resting": (resting, "moment"), "stakes": (staked_ultimate, "moment")}, "leaf",
    )  # fmt: skip


def frame(moment: Array, weight: Array, arm: float) -> Check:
    """Return the check that a frame standing on the ground by its weight alone does not go over.

    Args:
        moment: Of the wind about the ground. [N·m]
        weight: That is always there. [N]
        arm: From its middle of weight to the feet it tips over. [m]

    Source: handbook-9.1
    """
    hold = weight * arm
    return Check(
        "frame-tips", moment, hold, tables.constant("dead_weight"), "moment", "handbook-9.1", "judgement",
        {"moment": (moment, "moment"), "weight": (weight, "force"), "arm": (arm, "length"), "hold": (hold, "moment")}, "weight",
    )  # fmt: skip


def ring(row: rows.Cage, load: Array, gap: float) -> Check:
    """Return the check of one ring wire that branches lie on, between two uprights.

    Source: handbook-10.1
    """
    modulus = np.pi * row.wire**3 / 32
    moment = load * gap / 8
    return Check(
        "cage-ring", moment, modulus * row.yield_, 1 / 0.6, "moment", "handbook-10.1", "judgement",
        {"load": (load, "force"), "gap": (gap, "length"), "wire": (row.wire, "wire"), "moment": (moment, "moment")},
    )  # fmt: skip


def linked(strength: Array, factor: float, force: Array) -> Check:
    """Return the check of the tie between two cages of a raft.

    Source: handbook-10.3
    """
    return Check("cage-link", force, strength, factor, "force", "handbook-10.3", "judgement", {"force": (force, "force")}, "twine")


def pot(force: Array, height: Array, mass: float, base: float, tall: float) -> Check:
    """Return the check that a pot before its watering does not go over with what stands in it.

    Source: handbook-10.4
    """
    weight = mass * tables.constant("gravity")
    moment = force * (tall + height)
    hold = weight * base / 2
    return Check(
        "pot-tips", moment, hold, tables.constant("dead_weight"), "moment", "handbook-10.4", "judgement",
        {"force": (force, "force"), "height": (tall + height, "length"), "mass": (mass, "mass"), "base": (base, "length"),
         "moment": (moment, "moment")}, "weight",
    )  # fmt: skip
