"""Legs that lean together: each pushed and bent, the lashing they meet in, their feet in or on the soil."""

from __future__ import annotations

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..loads.cases import Cases
from ..mechanics import Array, column
from . import bending, embedment, strings, tension
from .embedment import Ground


def slim(post: rows.Post) -> float:
    """Return the factor on the load under which a pole bows out: bamboo is crooked and splits."""
    return tables.constant("column_cane" if tables.materials()[post.material].stuff == "cane" else "column")


def leg(post: rows.Post, push: Array, length: float, side: Array, end: Array | float = 0.0) -> Check:
    """Return the check of a leg pushed along itself while the wind bends it between its ends, N/Na + M/Ma ≤ 1.

    Args:
        post: The pole.
        push: Along it. [N]
        length: Between the soil and where the legs meet. [m]
        side: Wind on it, spread over its length. [N]
        end: Moment at its foot, where that is more. [N·m]

    Source: handbook-9.3
    """
    critical = column.euler_load(min(bending.stiffness(post), bending.stiffness(post, other_way=True)), length)
    ultimate, factor = bending.gust_moment(post, other_way=True)
    moment = np.maximum(side * length / 8.0, end)
    demand = push * slim(post) / critical + moment * factor / ultimate
    return Check(
        "leg", demand, 1.0, 1.0, "ratio", "handbook-9.3", tables.materials()[post.material].certainty,
        {"push": (push, "force"), "length": (length, "length"), "critical": (critical, "force"), "allowed_push": (critical / slim(post), "force"),
         "moment": (moment, "moment"), "allowed_moment": (ultimate / factor, "moment"), "demand": (demand, "ratio")}, bending.stuff_of(post),
    )  # fmt: skip


def smooth(post: rows.Post) -> bool:
    """Return whether a lashing slides along a pole: bamboo and steel are slick, wood is not."""
    return tables.materials()[post.material].stuff != "wood"


def lashing(post: rows.Post, twine: rows.Twine, slip: Array, notched: bool, days: Array) -> Check:
    """Return the check of a lashing that the legs pull through: its turns, or where it slides on a smooth pole.

    Args:
        post: The pole.
        twine: Of the lashing.
        slip: What it must hold along a pole. [N]
        notched: Whether it lies in a notch, over a node or on tape.
        days: Since it was tied, (W,). [d]

    Source: handbook-13
    """
    factor = tables.constant("twine")
    hold = tables.constant("lashing_turns") * strings.twine_strength(twine, days)
    if smooth(post) and not notched:
        hold = np.minimum(hold, factor * tables.constant("cane_slip"))
    return Check(
        "lashing", slip, hold, factor, "force", "handbook-13", "judgement",
        {"slip": (slip, "force"), "hold": (hold, "force")}, "twine",
    )  # fmt: skip


def feet(
    moment: Array, resting: Array, pulled: Array, stood: Array, bent: Array,
) -> Check:  # fmt: skip
    """Return the check that legs pushed into the soil do not go over.

    Weight holds them, and the soil in one of two ways, whichever is more: its friction on the legs that are lifted,
    or each leg standing as a short post of its own.

    Args:
        moment: Of the wind about the ground. [N·m]
        resting: That the weight always there holds. [N·m]
        pulled: That the friction of the lifted legs holds, ultimate. [N·m]
        stood: That the soil holds as the legs stand in it, ultimate. [N·m]
        bent: That the legs bear at the soil line, allowed. [N·m]

    Source: handbook-9.2
    """
    still, skin, soil = tables.constant("dead_weight"), tables.constant("skin_friction"), tables.constant("soil_gust")
    allowed = resting / still + np.maximum(pulled / skin, np.minimum(stood / soil, bent))
    ultimate = resting + np.maximum(pulled, np.minimum(stood, bent * soil))
    return Check(
        "feet-hold", moment, ultimate, ultimate / allowed, "moment", "handbook-9.2", "judgement",
        {"moment": (moment, "moment"), "resting": (resting, "moment"), "pulled": (pulled, "moment"), "stood": (stood, "moment"),
         "bent": (bent, "moment")}, "soil",
    )  # fmt: skip


def stood(post: rows.Post, ground: Ground, depth: float, height: Array, count: float, cases: Cases) -> tuple[Array, float]:
    """Return the moment about the ground that so many legs hold as short posts, ultimate, and that they bear, allowed. [N·m]

    Source: handbook-5.3
    """
    ultimate, factor = bending.gust_moment(post, other_way=True)
    return np.asarray(count * embedment.lateral_ultimate(ground, post, depth, height, cases) * height), count * ultimate / factor


def pulled(post: rows.Post, ground: Ground, depth: float, cases: Cases) -> Array:
    """Return what the soil's friction holds of one leg that is pulled out, ultimate. [N]

    Source: handbook-5.7
    """
    return tension.friction(post, ground, depth, cases.soil_strength(ground.native))
