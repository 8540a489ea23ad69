"""Legs that lean together: each pushed and bent, the lashing they meet in, their feet in or on the soil."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..loads.cases import Cases
from ..mechanics import Array, column
from ..path.loadpath import Check, Strength
from ..shapes.earth import PostGround
from ..tables import rows
from . import bending, embedment, strings, tension

_IN_SOIL = 0.8  # effective length of a leg whose foot stands in soil and whose head is tied, nds-column


def slim(post: rows.Post) -> float:
    """Return the factor on the load under which a pole bows out: bamboo is crooked and splits. [-]"""
    return tables.constant("column_cane" if tables.materials()[post.material].stuff == "cane" else "column")


def leg(
    post: rows.Post, push: Array, length: float, side: Array, end: Array | float = 0.0, held: bool = False
) -> Check:
    """Return the check of a leg pushed along itself while the wind bends it between its ends, N/Na + M/Ma ≤
    1.

    A foot in soil holds it upright nearly as a fixed end would, K = 0.8; one that only stands on the ground
    is a hinge.

    Args:
        post: The pole.
        push: Along it. [N]
        length: Between the soil and where the legs meet. [m]
        side: Wind on it, spread over its length. [N]
        end: Moment at its foot, where that is more. [N·m]
        held: Whether its foot stands in soil.

    Source: handbook-9.3; nds-column for the foot in soil
    """
    weak = min(bending.stiffness(post), bending.stiffness(post, other_way=True))
    critical = column.euler_load(weak, length, _IN_SOIL if held else 1.0)
    bears = bending.moments(post, other_way=True)
    moment = np.maximum(side * length / 8.0, end)
    demand = push * slim(post) / critical + moment / bears.allowable
    return Check(
        "leg",
        demand,
        1.0,
        1.0,
        "ratio",
        "handbook-9.3",
        tables.materials()[post.material].certainty,
        {
            "push": (push, "force"),
            "length": (length, "length"),
            "critical": (critical, "force"),
            "allowed_push": (critical / slim(post), "force"),
            "moment": (moment, "moment"),
            "allowed_moment": (bears.allowable, "moment"),
            "demand": (demand, "ratio"),
        },
        bending.stuff_of(post),
        np.asarray(push / critical + moment / bears.median),
    )


def smooth(post: rows.Post) -> bool:
    """Return whether a lashing slides along a pole: bamboo and steel are slick, wood is not."""
    return tables.materials()[post.material].stuff != "wood"


def lashing(post: rows.Post, twine: rows.Twine, slip: Array, notched: bool, days: Array) -> Check:
    """Return the check of a lashing that the legs pull through: its turns, or where it slides on a smooth
    pole.

    Args:
        post: The pole.
        twine: Of the lashing.
        slip: What it must hold along a pole. [N]
        notched: Whether it lies in a notch, over a node or on tape.
        days: Since it was tied, (W,). [d]

    Source: handbook-13
    """
    tied, turns = strings.twine_strength(twine, days), tables.constant("lashing_turns")
    hold, breaks = turns * tied.allowable, turns * tied.median
    if smooth(post) and not notched:
        slides = tables.constant("cane_slip")
        hold, breaks = (
            np.minimum(hold, slides),
            np.minimum(breaks, slides * tables.constant("cane_slip_median")),
        )
    return Check(
        "lashing",
        slip,
        hold,
        breaks,
        "force",
        "handbook-13",
        "judgement",
        {"slip": (slip, "force"), "hold": (hold, "force")},
        "twine",
    )


def feet(moment: Array, resting: Array, pulled: Strength, stood: Strength, staked: Strength) -> Check:
    """Return the check that legs pushed into the soil do not go over.

    Weight holds them, and the soil in two ways that yield without breaking and so add up: its friction on the
    legs that are lifted, and each leg standing as a short post of its own.

    Args:
        moment: Of the wind about the ground. [N·m]
        resting: That the weight always there holds. [N·m]
        pulled: That the friction of the lifted legs holds. [N·m]
        stood: That the soil holds as the legs stand in it, or that they bear. [N·m]
        staked: That a stake between them holds. [N·m]

    Source: handbook-9.2; bs-8004 for two yielding mechanisms
    """
    allowed = resting / tables.constant("dead_weight") + pulled.allowable + stood.allowable + staked.allowable
    return Check(
        "feet-hold",
        moment,
        allowed,
        resting + pulled.median + stood.median + staked.median,
        "moment",
        "handbook-9.2",
        "judgement",
        {
            "moment": (moment, "moment"),
            "resting": (resting, "moment"),
            "pulled": (pulled.allowable, "moment"),
            "stood": (stood.allowable, "moment"),
        },
        "soil",
    )


def stood(
    post: rows.Post, ground: PostGround, depth: float, height: Array, count: float, cases: Cases
) -> Strength:
    """Return the moment about the ground that so many legs hold as short posts: of the soil, or of the leg if
    that is less. [N·m]

    Args:
        post: The post, pole or beam.
        ground: The soil, as the post is set in it.
        depth: In the soil. [m]
        height: Where the force acts, above the ground. [m]
        count: Legs. [-]
        cases: Soil states, weeks and winds.

    Source: handbook-5.3
    """
    bears, held = (
        bending.moments(post, other_way=True),
        embedment.strength(ground, post, depth, height, cases),
    )
    return Strength(
        np.asarray(count * np.minimum(held.allowable * height, bears.allowable)),
        np.asarray(count * np.minimum(held.median * height, bears.median)),
    )


def pulled(post: rows.Post, ground: PostGround, depth: float, cases: Cases) -> Strength:
    """Return what the soil's friction holds of one leg that is pulled out. [N]

    Args:
        post: The post, pole or beam.
        ground: The soil, as the post is set in it.
        depth: In the soil. [m]
        cases: Soil states, weeks and winds.

    Source: handbook-5.7
    """
    return tension.friction(post, ground, depth, cases.soil_strength(ground.native))
