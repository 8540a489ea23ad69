"""Feet that are no posts: boards with cleats, blocks by their weight, ends buried in the soil."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from .. import tables
from ..loads.cases import Cases
from ..mechanics import Array, soil
from ..memory import remembered
from ..path.loadpath import Check
from ..shapes.earth import PostGround
from ..tables import rows
from . import bending

STAKES_APART = 1.2  # backing stakes of a loose board [m], parts handbook 4.10


def cleats(row: rows.Fitting, push: Array, lift: Array, count: int) -> Check:
    """Return the check of the cleats that hold a panel's foot on its board.

    Args:
        row: The cleat.
        push: Sideways. [N]
        lift: Upward. [N]
        count: How many share it. [-]

    Source: handbook-parts-2.7
    """
    demand = np.hypot(push, lift) / count
    return Check(
        "cleats",
        demand,
        row.working_N,
        row.working_N * row.median,
        "force",
        row.source,
        row.certainty,
        {
            "push": (push, "force"),
            "lift": (lift, "force"),
            "count": (float(count), "count"),
            "demand": (demand, "force"),
        },
        "screws",
    )


def board(post: rows.Post, push: Array, width: float, free: float) -> Check:
    """Return the check of a board that a panel's feet push outward all season, between its corners or stakes.

    Args:
        post: The board.
        push: Of one foot, outward, all season. [N]
        width: Over which a foot pushes. [m]
        free: Between its supports. [m]

    Source: timoshenko-beams
    """
    material = tables.materials()[post.material]
    bears = min(bending.moments(post), bending.moments(post, other_way=True))
    moment = push / 4 * (free - min(width, free) / 2)
    return Check(
        "board",
        moment,
        bears.lasting,
        bears.median_lasting,
        "moment",
        material.source,
        material.certainty,
        {"push": (push, "force"), "free": (free, "length"), "moment": (moment, "moment")},
        bending.stuff_of(post),
    )


def slides(
    push: Array, weight: Array | float, friction: str = "block_friction", key: str = "slides"
) -> Check:
    """Return the check that a weight on the ground is not pushed aside.

    Args:
        push: Along the ground. [N]
        weight: On it. [N]
        friction: Row of factors.csv.
        key: Of its texts.

    Source: handbook-7.6
    """
    hold = weight * tables.constant(friction)
    return Check(
        key,
        push,
        hold / tables.constant("dead_weight"),
        hold * tables.constant("friction_median"),
        "force",
        "handbook-7.6",
        "judgement",
        {"push": (push, "force"), "weight": (weight, "force"), "hold": (hold, "force")},
        "weight",
    )


def lifts(lift: Array, weight: float) -> Check:
    """Return the check that a weight on the ground is not lifted.

    Args:
        lift: Upward. [N]
        weight: On the ground. [N]

    Source: handbook-7.6
    """
    return Check(
        "lifts",
        lift,
        weight / tables.constant("dead_weight"),
        weight,
        "force",
        "handbook-7.6",
        "certain",
        {"lift": (lift, "force"), "weight": (weight, "force")},
        "weight",
    )


@remembered(512)
def wire_post(wire: float) -> rows.Post:
    """Return a wire pushed into the soil as a little post [m]; its steel and its price are asked of what it
    belongs to.

    Args:
        wire: Its diameter. [m]
    """
    return replace(
        tables.posts()["rod_rebar_10"], shape="round", a=wire, b=wire, soil_width=wire, plate_m2=0.0
    )


def buried(
    ground: PostGround, wire: float, wires: int, depth: float, push: Array, lift: Array, cases: Cases
) -> tuple[Check, ...]:
    """Return the checks of ends pushed into the soil: each wire [m] a little post, and its friction.

    Args:
        ground: The soil, as the post is set in it.
        wire: Diameter of a wire. [m]
        wires: How many wires. [-]
        depth: In the soil. [m]
        push: Sideways. [N]
        lift: Upward. [N]
        cases: Soil states, weeks and winds.

    Source: handbook-5.3
    """
    native, strength = ground.native, cases.soil_strength(ground.native)
    crumb = tables.constant("crumb")
    if native.model == "clay":
        each = soil.broms_clay(native.cu, wire, depth, 0.0, crumb)
    else:
        each = soil.broms_sand(np.radians(native.phi_deg), native.gamma, wire, depth, 0.0, crumb)
    hold = each * wires * strength
    friction = native.skin * np.pi * wire * (depth - crumb) * wires * strength
    return (
        Check(
            "buried-grip",
            push,
            hold / tables.constant("soil_gust"),
            hold * native.median,
            "force",
            "handbook-5.3",
            "judgement",
            {
                "push": (push, "force"),
                "wires": (float(wires), "count"),
                "depth": (depth, "length"),
                "hold": (hold, "force"),
            },
            "soil",
        ),
        Check(
            "buried-lift",
            lift,
            friction / tables.constant("skin_friction"),
            friction * tables.constant("skin_median"),
            "force",
            "handbook-5.7",
            "judgement",
            {"lift": (lift, "force"), "depth": (depth, "length"), "hold": (friction, "force")},
            "skin",
        ),
    )
