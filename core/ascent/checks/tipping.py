"""Things that stand by their weight: cages, rafts of cages, pots."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..mechanics import Array, column, section
from ..path.loadpath import Check, Strength
from ..tables import rows

_STEEL = 200e9  # modulus of steel [Pa]


def cage(
    moment: Array, weight: Array, arm: float, hold: Strength, resting: Array, staked: Array, deep: int
) -> Check:
    """Return the check that a cage, or a raft of cages tied together, does not tip over.

    Args:
        moment: Of wind and lean about the leeward edge, for one column of cages. [N·m]
        weight: Of one cage with what always presses on it. [N]
        arm: From the middle of the raft to its leeward edge. [m]
        hold: Moment that holds it: weight, legs, roots and stakes. [N·m]
        resting: Of that what one counts on without stakes. [N·m]
        staked: Of that what one counts on of the stakes. [N·m]
        deep: Cages one behind another that are tied stiffly together.

    Source: handbook-10.3
    """
    return Check(
        "cage-tips",
        moment,
        hold.allowable,
        hold.median,
        "moment",
        "handbook-10.3",
        "judgement",
        {
            "moment": (moment, "moment"),
            "weight": (weight, "force"),
            "arm": (arm, "length"),
            "rows": (float(deep), "count"),
            "resting": (resting, "moment"),
            "staked": (staked, "moment"),
        },
        "leaf",
    )


def racks(
    row: rows.Cage, force: Strength, leg: tuple[float, float], soil: Strength, free: float, weight: Array
) -> Check:
    """Return the check that the legs of a cage below its lowest ring do not lean over together.

    Each leg yields at the ring and at the soil, or the soil yields round it: V = n (M + min(M, Ms))/h. The
    plant that lies on the rings leans with them.

    Args:
        row: The cage.
        force: Wind on it that its legs must take, as designed for and as expected. [N]
        leg: Moment that a leg may be bent with, and that it bears. [N·m]
        soil: Moment that the soil holds of one leg. [N·m]
        free: From where a leg is fixed in the soil to the lowest ring. [m]
        weight: That lies on the rings. [N]

    Source: limit-analysis
    """
    sideways = row.legs * 12.0 * _STEEL * section.round_bar(row.wire).I / free**2
    amplified = column.amplification(weight, sideways)
    allowed = row.legs * (leg[0] + np.minimum(leg[0], soil.allowable)) / free
    median = row.legs * (leg[1] + np.minimum(leg[1], soil.median)) / free
    demand = np.asarray(force.allowable * amplified)
    return Check(
        "cage-racks",
        demand,
        allowed,
        median,
        "force",
        "limit-analysis",
        "judgement",
        {
            "force": (force.allowable, "force"),
            "legs": (float(row.legs), "count"),
            "wire": (row.wire, "wire"),
            "free": (free, "length"),
            "amplified": (amplified, "ratio"),
            "demand": (demand, "force"),
        },
        "steel",
        np.asarray(force.median * amplified),
    )


def frame(moment: Array, weight: Array, arm: float, usual: Array) -> Check:
    """Return the check that a frame standing on the ground by its weight alone does not go over.

    Args:
        moment: Of the wind about the ground. [N·m]
        weight: That is always there. [N]
        arm: From its middle of weight to the feet it tips over. [m]
        usual: Weight that is expected. [N]

    Source: handbook-9.1
    """
    hold = weight * arm
    return Check(
        "frame-tips",
        moment,
        hold / tables.constant("dead_weight"),
        usual * arm,
        "moment",
        "handbook-9.1",
        "judgement",
        {
            "moment": (moment, "moment"),
            "weight": (weight, "force"),
            "arm": (arm, "length"),
            "hold": (hold, "moment"),
        },
        "weight",
    )


def ring(row: rows.Cage, load: Array, gap: float) -> Check:
    """Return the check of one ring wire that branches lie on, between two uprights.

    Args:
        row: The cage.
        load: Of the branches on it. [N]
        gap: Between two uprights. [m]

    Source: handbook-10.1
    """
    moment, modulus = load * gap / 8, section.round_bar(row.wire).Z
    return Check(
        "cage-ring",
        moment,
        0.6 * modulus * row.yield_,
        modulus * row.median,
        "moment",
        "handbook-10.1",
        "judgement",
        {
            "load": (load, "force"),
            "gap": (gap, "length"),
            "wire": (row.wire, "wire"),
            "moment": (moment, "moment"),
        },
    )


def linked(held: Strength, force: Array) -> Check:
    """Return the check of the tie between two cages of a raft.

    Args:
        held: Strength of the tie. [N]
        force: From one cage to the next. [N]

    Source: handbook-10.3
    """
    return Check(
        "cage-link",
        force,
        held.allowable,
        held.median,
        "force",
        "handbook-10.3",
        "judgement",
        {"force": (force, "force")},
        "twine",
    )


def pot(force: Array, height: Array, mass: float, base: float, tall: float) -> Check:
    """Return the check that a pot before its watering does not go over with what stands in it.

    Args:
        force: Wind on it. [N]
        height: Where the force acts, above the ground. [m]
        mass: Of pot and soil before watering. [kg]
        base: Half of the width on which it tips. [m]
        tall: Height of the pot. [m]

    Source: handbook-10.4
    """
    weight = mass * tables.constant("gravity")
    moment = force * (tall + height)
    hold = weight * base / 2
    return Check(
        "pot-tips",
        moment,
        hold / tables.constant("dead_weight"),
        hold,
        "moment",
        "handbook-10.4",
        "judgement",
        {
            "force": (force, "force"),
            "height": (tall + height, "length"),
            "mass": (mass, "mass"),
            "base": (base, "length"),
            "moment": (moment, "moment"),
        },
        "weight",
    )
