"""A row of driven posts: where they stand, how long they are bought, how they give."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import Literal

import numpy as np

from .. import tables
from ..checks import bending, embedment
from ..loads.cases import Cases
from ..mechanics import Array, beam
from ..path.geometry import Member, Point, Supply
from ..shapes.earth import PostGround
from ..tables import rows

Setting = Literal["driven", "tamped", "concrete"]

LONGEST_POST = 3.7
_SLIM = 0.021  # a stake so thick at most is pushed in by hand [m]
_EYES = 2.0  # tops below this are capped [m], parts handbook 7


def stations(length: float, spacing: float) -> Array:
    """Return the places of posts in equal bays no longer than the spacing, (n,). [m]

    Source: handbook-parts-3.0
    """
    bays = max(math.ceil(length / spacing - 1e-6), 1)
    return np.linspace(0.0, length, bays + 1)


def stock_length(post: rows.Post, needed: float) -> float:
    """Return the shortest stock length that reaches, else the longest there is. [m]"""
    usable = [length for length in post.lengths_m if length <= LONGEST_POST]
    return min((length for length in usable if length >= needed - 1e-6), default=max(usable))


def driven_for(needed: float) -> rows.Post:
    """Return the shortest steel T-post that reaches, else the longest: what a driven row starts with. [m]"""
    tees = [row for row in tables.posts().values() if row.shape == "tee" and "light" not in row.key]
    return min(
        (row for row in tees if max(row.lengths_m) >= needed - 0.02),
        key=lambda row: row.lengths_m,
        default=tees[-1],
    )


def by_hand(post: rows.Post) -> bool:
    """Return whether a post is pushed in by hand: a cane, or a stake as slim as one."""
    return post.soil_width < _SLIM or post.shape == "cane"


def concrete(depths: Iterable[float]) -> list[Supply]:
    """Return the bags of concrete that fill holes of these depths [m] round posts; what the posts displace is
    lost in mixing.

    Source: handbook-parts-2.8
    """
    filled = math.pi / 4 * tables.constant("collar") ** 2 * sum(depths)
    return (
        [
            Supply(
                "collar", "fittings", "concrete_bag", math.ceil(filled / tables.constant("bag_volume") - 1e-6)
            )
        ]
        if filled
        else []
    )


def row(post: rows.Post, xs: Array, depth: float, top: float, bought: float, first: int = 1) -> list[Member]:
    """Return the posts of a row with the soil that grips them, and caps where tops are in reach of eyes.
    [m]
    """
    members = []
    for number, x in enumerate(map(float, xs), start=first):
        members += standing(post, number, (x, 0.0, -depth), (x, 0.0, top), bought)
    return members


def end(post: rows.Post, number: int, foot: Point, head: Point) -> list[Member]:
    """Return an end post of its own, which may lean; it leans about the ground line."""
    lean = (head[0] - foot[0]) / max(head[2], 1e-9)
    foot = (foot[0] + lean * foot[2], foot[1], foot[2])
    long = math.dist(foot, head)
    return standing(post, number, foot, head, stock_length(post, long))


def standing(post: rows.Post, number: int, foot: Point, head: Point, bought: float) -> list[Member]:
    """Return one post from foot to head, the soil that grips it, and its cap where its top is in reach of
    eyes. [m]
    """
    share = -foot[2] / (head[2] - foot[2])
    ground = (foot[0] + share * (head[0] - foot[0]), foot[1] + share * (head[1] - foot[1]), 0.0)
    members = [
        Member(f"post-{number}", "post", "posts", post.key, (foot, head), bought, post.soil_width),
        Member(f"grip-{number}", "grip", "", "", (foot, ground), thickness=3.0 * post.soil_width),
    ]
    if post.top_cap and head[2] < _EYES:
        members.append(Member(f"cap-{number}", "cap", "fittings", "cap", (head,), shape="point"))
    return members


def lean_per_force(
    post: rows.Post, ground: PostGround, depth: float, height: Array, half: Array, top: float, cases: Cases
) -> Array:
    """Return the movement of a post's top per force across the row, soil included. [m/N]

    Args:
        post: The post.
        ground: What it stands in.
        depth: How deep. [m]
        height: Height of the force. [m]
        half: Half the height of the face it is spread over. [m]
        top: Height of the post. [m]
        cases: The cases.

    Source: handbook-6.5
    """
    move, turn = embedment.movement(ground, depth, height, cases)
    low = np.clip(height - half, 0.0, 0.98 * top)
    high = np.clip(height + half, low + 0.01 * top, top)
    return np.asarray(move + turn * top + beam.cantilever_tip(1.0, low, high, top, bending.stiffness(post)))


def give_along(post: rows.Post, ground: PostGround, depth: float, height: float, cases: Cases) -> Array:
    """Return how an unbraced post gives at a height per force along the row there. [m/N]

    Source: handbook-6.5
    """
    move, turn = embedment.movement(ground, depth, height, cases)
    return np.asarray(move + turn * height + height**3 / (3 * bending.stiffness(post, other_way=True)))
