"""The arms of a T-post that carries two lines."""

from __future__ import annotations

from .. import rows, tables
from ..loadpath import Check
from ..mechanics import Array
from . import bending, sections


def arm(post: rows.Post, load: Array, reach: float) -> Check:
    """Return the check of one half of an arm that carries a line at its end, all season.

    Source: timoshenko-beams
    """
    material = tables.materials()[post.material]
    modulus = max(sections.of_post(post).S, sections.of_post(post).S_other)
    moment = load * reach
    return Check(
        "arm-bending", moment, modulus * material.allow_sustained * material.factor_sustained, material.factor_sustained, "moment",
        material.source, material.certainty,
        {"load": (load, "force"), "reach": (reach, "length"), "moment": (moment, "moment")}, bending.stuff_of(post),
    )  # fmt: skip


def knee(row: rows.Fitting, load: Array, reach: float) -> Check:
    """Return the check of the bolt of an arm's knee brace: one line carries its crop while the other is bare.

    The knee meets the arm halfway out at 45°, so it pushes with load × reach ÷ (reach ÷ 2 × sin 45°).

    Source: handbook-9.5
    """
    push = load * 2.0 / 0.7071
    return Check(
        "knee", push, row.working_N * row.factor, row.factor, "force", row.source, row.certainty,
        {"load": (load, "force"), "reach": (reach, "length"), "push": (push, "force")}, "screws",
    )  # fmt: skip


def one_side(post: rows.Post, load: Array, reach: float) -> Check:
    """Return the check of a post whose one line is full while the other is bare, all season.

    Source: handbook-0.4
    """
    material = tables.materials()[post.material]
    moment = load * reach
    return Check(
        "one-side", moment, sections.of_post(post).S * material.allow_sustained * material.factor_sustained, material.factor_sustained,
        "moment", material.source, material.certainty,
        {"load": (load, "force"), "reach": (reach, "length"), "moment": (moment, "moment")}, bending.stuff_of(post),
    )  # fmt: skip
