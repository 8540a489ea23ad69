"""Feet that are no posts: boards with cleats, blocks by their weight, ends buried in the soil."""

from __future__ import annotations

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..loads.cases import Cases
from ..mechanics import Array, soil
from . import bending, sections
from .embedment import Ground

STAKES_APART = 1.2  # backing stakes of a loose board [m], parts handbook 4.10


def cleats(row: rows.Fitting, push: Array, lift: Array, count: int) -> Check:
    """Return the check of the cleats that hold a panel's foot on its board.

    Source: handbook-parts-2.7
    """
    demand = np.hypot(push, lift) / count
    return Check(
        "cleats", demand, row.working_N * row.factor, row.factor, "force", row.source, row.certainty,
        {"push": (push, "force"), "lift": (lift, "force"), "count": (float(count), "count"), "demand": (demand, "force")}, "screws",
    )  # fmt: skip


def board(post: rows.Post, push: Array, width: float, free: float) -> Check:
    """Return the check of a board that a panel's feet push outward all season, between its corners or stakes.

    Source: timoshenko-beams
    """
    material = tables.materials()[post.material]
    modulus = min(sections.of_post(post).S, sections.of_post(post).S_other)
    moment = push / 4 * (free - min(width, free) / 2)
    return Check(
        "board", moment, modulus * material.allow_sustained * material.factor_sustained, material.factor_sustained, "moment",
        material.source, material.certainty,
        {"push": (push, "force"), "free": (free, "length"), "moment": (moment, "moment")}, bending.stuff_of(post),
    )  # fmt: skip


def slides(push: Array, weight: Array | float, friction: str = "block_friction", key: str = "slides") -> Check:
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
        key, push, hold, tables.constant("dead_weight"), "force", "handbook-7.6", "judgement",
        {"push": (push, "force"), "weight": (weight, "force"), "hold": (hold, "force")}, "weight",
    )  # fmt: skip


def lifts(lift: Array, weight: float) -> Check:
    """Return the check that a weight on the ground is not lifted.

    Source: handbook-7.6
    """
    return Check(
        "lifts", lift, weight, tables.constant("dead_weight"), "force", "handbook-7.6", "certain",
        {"lift": (lift, "force"), "weight": (weight, "force")}, "weight",
    )  # fmt: skip


def buried(ground: Ground, wire: float, wires: int, depth: float, push: Array, lift: Array, cases: Cases) -> tuple[Check, ...]:
    """Return the checks of ends pushed into the soil: each wire [m] a little post, and its friction.

    Source: handbook-5.3
    """
    native, strength = ground.native, cases.soil_strength(ground.native)
    ignored = min(ground.ignored, 0.05)
    if native.model == "clay":
        each = soil.broms_clay(native.cu, wire, depth, 0.0, ignored)
    else:
        each = soil.broms_sand(np.radians(native.phi_deg), native.gamma, wire, depth, 0.0, ignored)
    hold = each * wires * strength
    friction = native.skin * np.pi * wire * (depth - ignored) * wires * strength
    return (
        Check("buried-grip", push, hold, tables.constant("soil_gust"), "force", "handbook-5.3", "judgement",
              {"push": (push, "force"), "wires": (float(wires), "count"), "depth": (depth, "length"), "hold": (hold, "force")}, "soil"),
        Check("buried-lift", lift, friction, tables.constant("skin_friction"), "force", "handbook-5.7", "judgement",
              {"lift": (lift, "force"), "depth": (depth, "length"), "hold": (friction, "force")}, "skin"),
    )  # fmt: skip
