"""The arms of a T-post that carries two lines."""

from __future__ import annotations

from .. import tables
from ..mechanics import Array
from ..path.loadpath import Check
from ..tables import rows
from . import bending


def arm(post: rows.Post, load: Array, reach: float) -> Check:
    """Return the check of one half of an arm that carries a line at its end, all season.

    Args:
        post: The post, pole or beam.
        load: At its end, all season. [N]
        reach: From the post to the end of the arm. [m]

    Source: timoshenko-beams
    """
    material = tables.materials()[post.material]
    bears = max(bending.moments(post), bending.moments(post, other_way=True))
    moment = load * reach
    return Check(
        "arm-bending",
        moment,
        bears.lasting,
        bears.median_lasting,
        "moment",
        material.source,
        material.certainty,
        {"load": (load, "force"), "reach": (reach, "length"), "moment": (moment, "moment")},
        bending.stuff_of(post),
    )


def knee(row: rows.Fitting, load: Array, reach: float) -> Check:
    """Return the check of the bolt of an arm's knee brace: one line carries its crop while the other is bare.

    The knee meets the arm halfway out at 45°, so it pushes with load × reach ÷ (reach ÷ 2 × sin 45°).

    Args:
        row: The bolt.
        load: On one line. [N]
        reach: From the post to the line. [m]

    Source: handbook-9.5
    """
    push = load * 2.0 / 0.7071
    return Check(
        "knee",
        push,
        row.working_N,
        row.working_N * row.median,
        "force",
        row.source,
        row.certainty,
        {"load": (load, "force"), "reach": (reach, "length"), "push": (push, "force")},
        "screws",
    )


def one_side(post: rows.Post, load: Array, reach: float) -> Check:
    """Return the check of a post whose one line is full while the other is bare, all season.

    Args:
        post: The post, pole or beam.
        load: On one line. [N]
        reach: From the post to the line. [m]

    Source: handbook-0.4
    """
    material, bears = tables.materials()[post.material], bending.moments(post)
    moment = load * reach
    return Check(
        "one-side",
        moment,
        bears.lasting,
        bears.median_lasting,
        "moment",
        material.source,
        material.certainty,
        {"load": (load, "force"), "reach": (reach, "length"), "moment": (moment, "moment")},
        bending.stuff_of(post),
    )
