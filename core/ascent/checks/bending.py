"""Bending of posts and rails."""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from .. import tables
from ..mechanics import Array, beam, column
from ..memory import remembered
from ..path.loadpath import Check
from ..tables import rows
from . import sections


class Moments(NamedTuple):
    """What a post may be bent with in a gust and all season, and what it is expected to bear of either.
    [N·m]
    """

    allowable: float
    lasting: float
    median: float
    median_lasting: float


_PLASTIC = 1.6  # of the yield moment, the most that a whole yielded section counts, AISC 360 F9 and F11


@remembered(512)
def moments(post: rows.Post, other_way: bool = False) -> Moments:
    """Return the moments of a post.

    Compact steel bends until its whole section yields, Fy Z ≤ 1.6 Fy S over 1.67; a tee whose stem is pressed
    is designed to its first yield, since the wind comes from either side. Wood and cane break at their edge.
    Under a lasting load the median falls as the allowable does.

    Args:
        post: The post.
        other_way: Bent the other way than usual.

    Source: aisc-360-f
    """
    material, section = tables.materials()[post.material], sections.of_post(post)
    edge, whole = (section.S_other, section.Z_other) if other_way else (section.S, section.Z)
    yielded = min(whole, _PLASTIC * edge) if material.yields else edge
    designed = edge if post.shape == "tee" and not other_way else yielded
    lasts = material.allow_sustained / material.allow_gust
    designed, yielded = designed * post.sound, yielded * post.sound
    return Moments(
        designed * material.allow_gust,
        designed * material.allow_sustained,
        yielded * material.median,
        yielded * material.median * lasts,
    )


def aged(check: Check, share: float) -> Check:
    """Return a check of something that has kept that share of its strength.

    Args:
        check: Of the piece as new.
        share: Share of the strength that is left. [-]

    Source: handbook-3.4
    """
    return replace(
        check, allowable=np.asarray(check.allowable) * share, median=np.asarray(check.median) * share
    )


def stuff_of(post: rows.Post) -> str:
    """Return the row of uncertainties.csv that a post's strength stands or falls with."""
    stuff = tables.materials()[post.material].stuff
    return "steel" if stuff == "metal" else stuff


def stiffness(post: rows.Post, other_way: bool = False) -> float:
    """Return EI of a post [N·m²].

    Source: handbook-3.2
    """
    properties = sections.of_post(post)
    return tables.materials()[post.material].E * (properties.I_other if other_way else properties.I)


def post_across(post: rows.Post, force: Array, height: Array, amplified: Array) -> Check:
    """Return the check of a post bending at the soil line under wind across the row.

    Args:
        post: The post, pole or beam.
        force: Wind on it. [N]
        height: Where the force acts, above the ground. [m]
        amplified: Factor on the moment from the weight at the top. [-]

    Source: handbook-3.2
    """
    bears = moments(post)
    material = tables.materials()[post.material]
    moment = force * height * amplified
    return Check(
        "post-bending-across",
        moment,
        bears.allowable,
        bears.median,
        "moment",
        material.source,
        material.certainty,
        {
            "force": (force, "force"),
            "height": (height, "length"),
            "amplified": (amplified, "ratio"),
            "moment": (moment, "moment"),
        },
        stuff_of(post),
    )


def post_held(moment: Array, free: Check) -> Check:
    """Return the check of a post that is tied back: it bends between soil and tie, or by itself as far as the
    tie does not hold it.

    Args:
        moment: The greater of both. [N·m]
        free: Its check without the tie.

    Source: timoshenko-beams
    """
    return replace(free, key="post-held", demand=moment, terms={"moment": (moment, "moment")})


def post_along(post: rows.Post, force: Array, height: Array, posts: int) -> Check:
    """Return the check of a post bending in wind along the row, shared by all posts, in its other way.

    Args:
        post: The post, pole or beam.
        force: Wind on it. [N]
        height: Where the force acts, above the ground. [m]
        posts: How many share it. [-]

    Source: handbook-1.6
    """
    bears = moments(post, other_way=True)
    material = tables.materials()[post.material]
    moment = force / posts * height
    return Check(
        "post-bending-along",
        moment,
        bears.allowable,
        bears.median,
        "moment",
        material.source,
        material.certainty,
        {
            "force": (force, "force"),
            "height": (height, "length"),
            "posts": (float(posts), "count"),
            "moment": (moment, "moment"),
        },
        stuff_of(post),
    )


def both_ways(post: rows.Post, across: Array, along: Array, expected: Array | None = None) -> Check:
    """Return the check of an end post bent across the row and along it at once.

    Args:
        post: The post.
        across: Moment across the row. [N·m]
        along: Moment along it, as designed for. [N·m]
        expected: Moment along it that is expected, where that is less. [N·m]

    A square of wood breaks at a corner, where both bends add; a round section has none, whichever way it is
    bent; a section that yields as a whole bears what lies within an ellipse.

    Source: aisc-360-h
    """
    bears, other = moments(post), moments(post, other_way=True)
    material = tables.materials()[post.material]
    joined = np.hypot if material.yields or post.shape in ("round", "cane") else np.add
    demand = joined(across, along * bears.allowable / other.allowable)
    return Check(
        "end-post-bending",
        demand,
        bears.allowable,
        bears.median,
        "moment",
        material.source,
        material.certainty,
        {
            "across": (across, "moment"),
            "along": (along, "moment"),
            "other": (other.allowable, "moment"),
            "moment": (demand, "moment"),
        },
        stuff_of(post),
        joined(across, (along if expected is None else expected) * bears.median / other.median),
    )


def lasting(post: rows.Post, moment: Array) -> Check:
    """Return the check of an end post that a pull along the row bends all season.

    Args:
        post: The post, pole or beam.
        moment: From the pull along the row, all season. [N·m]

    Source: handbook-0.3
    """
    bears, material = moments(post, other_way=True), tables.materials()[post.material]
    return Check(
        "end-post-lasting",
        moment,
        bears.lasting,
        bears.median_lasting,
        "moment",
        material.source,
        material.certainty,
        {"moment": (moment, "moment")},
        stuff_of(post),
    )


def pushed(post: rows.Post, push: Array, length: float, across: Array) -> Check:
    """Return the check of an end post that its guy pushes down on while the wind bends it.

    Args:
        post: The post, pole or beam.
        push: Along it, in compression. [N]
        length: Between its ends. [m]
        across: Moment from the wind across the row. [N·m]

    Source: timoshenko-gere
    """
    weak = min(stiffness(post), stiffness(post, other_way=True))
    critical = column.euler_load(weak, length)
    bears = moments(post)
    demand = push * tables.constant("column") / critical + across / bears.allowable
    return Check(
        "end-post-pushed",
        demand,
        1.0,
        1.0,
        "ratio",
        "timoshenko-gere",
        "judgement",
        {
            "push": (push, "force"),
            "length": (length, "length"),
            "critical": (critical, "force"),
            "across": (across, "moment"),
            "demand": (demand, "ratio"),
        },
        stuff_of(post),
        np.asarray(push / critical + across / bears.median),
    )


def person_pull(post: rows.Post, top: float) -> Check:
    """Return the check of a post that a person pulls at hand height in still air.

    Args:
        post: The post, pole or beam.
        top: Height of the post above the ground. [m]

    Source: handbook-0.4
    """
    bears = moments(post)
    pull, height = tables.constant("person_pull"), min(tables.constant("hand_height"), top)
    moment = np.full((1, 1, 1), pull * height)
    return Check(
        "person-pull-bending",
        moment,
        bears.allowable,
        bears.median,
        "moment",
        "handbook-0.4",
        "judgement",
        {"force": (pull, "force"), "height": (height, "length"), "moment": (moment, "moment")},
        stuff_of(post),
    )


def rail(post: rows.Post, down: Array, side: Array, span: float) -> Check:
    """Return the check of a top rail between posts, loaded down and sideways.

    Args:
        post: The post, pole or beam.
        down: What hangs on it, over its length. [N/m]
        side: Wind on it across, over its length. [N/m]
        span: Distance between supports. [m]

    Source: timoshenko-beams
    """
    bears = moments(post, other_way=True)
    load = np.hypot(down, side)
    moment = np.asarray(beam.span_moment(load, span))
    return Check(
        "rail-bending",
        moment,
        bears.allowable,
        bears.median,
        "moment",
        "timoshenko-beams",
        tables.materials()[post.material].certainty,
        {"load": (load, "line_load"), "span": (span, "length"), "moment": (moment, "moment")},
        stuff_of(post),
    )


def rail_sag(post: rows.Post, down: Array, span: float) -> Array:
    """Return how far a top rail sags between posts under a lasting load, creep included. [m]

    Args:
        post: The post, pole or beam.
        down: What hangs on it, over its length. [N/m]
        span: Distance between supports. [m]

    Source: timoshenko-beams
    """
    creep = tables.materials()[post.material].creep
    return np.asarray(creep * beam.span_sag(down, span, stiffness(post, other_way=True)))


def beam_in_gust(post: rows.Post, down: Array, side: Array, span: float) -> Check:
    """Return the check of a beam laid on edge: crop bends it down while the wind on the strings bends it
    flat.

    Args:
        post: The post, pole or beam.
        down: What hangs on it, over its length. [N/m]
        side: Wind on it across, over its length. [N/m]
        span: Distance between supports. [m]

    Source: timoshenko-beams
    """
    strong, weak = moments(post), moments(post, other_way=True)
    upright, level = beam.span_moment(down, span), beam.span_moment(side, span)
    demand = np.asarray(upright + level * strong.allowable / weak.allowable)
    return Check(
        "beam-gust",
        demand,
        strong.allowable,
        strong.median,
        "moment",
        "timoshenko-beams",
        tables.materials()[post.material].certainty,
        {
            "down": (down, "line_load"),
            "side": (side, "line_load"),
            "span": (span, "length"),
            "upright": (upright, "moment"),
            "level": (level, "moment"),
            "moment": (demand, "moment"),
        },
        stuff_of(post),
    )


def beam_lasting(post: rows.Post, down: Array, span: float) -> Check:
    """Return the check of a beam on edge under what hangs on it all season.

    Args:
        post: The post, pole or beam.
        down: What hangs on it, over its length. [N/m]
        span: Distance between supports. [m]

    Source: timoshenko-beams
    """
    bears, material = moments(post), tables.materials()[post.material]
    moment = np.asarray(beam.span_moment(down, span))
    return Check(
        "beam-lasting",
        moment,
        bears.lasting,
        bears.median_lasting,
        "moment",
        material.source,
        material.certainty,
        {"down": (down, "line_load"), "span": (span, "length"), "moment": (moment, "moment")},
        stuff_of(post),
    )


def beam_sag(post: rows.Post, down: Array, span: float) -> Array:
    """Return how far a beam on edge sags under a lasting load, creep included. [m]

    Args:
        post: The post, pole or beam.
        down: What hangs on it, over its length. [N/m]
        span: Distance between supports. [m]

    Source: timoshenko-beams
    """
    return np.asarray(tables.materials()[post.material].creep * beam.span_sag(down, span, stiffness(post)))


def screwed(row: rows.Fitting, moment: Array, gap: float) -> Check:
    """Return the check of two rows of screws that hold an upright on a board as a couple.

    Args:
        row: The pair of screws.
        moment: On it. [N·m]
        gap: Between the two rows. [m]

    Source: handbook-13
    """
    each = moment / gap
    return Check(
        "screwed",
        each,
        row.working_N,
        row.working_N * row.median,
        "force",
        row.source,
        row.certainty,
        {"moment": (moment, "moment"), "gap": (gap, "length"), "each": (each, "force")},
        "screws",
    )


def racking(post: rows.Post, force: Array, height: float, posts: int, weight: Array) -> Check:
    """Return the check of a frame without a brace in its own plane: its posts bend their other way, and lean
    under the crop.

    Args:
        post: The post, pole or beam.
        force: Wind on it. [N]
        height: Where the force acts, above the ground. [m]
        posts: How many share it. [-]
        weight: On one post. [N]

    Source: handbook-9.5
    """
    bears = moments(post, other_way=True)
    critical = column.euler_load(stiffness(post, other_way=True), height, 2.1)
    amplified = column.amplification(weight, critical)
    moment = np.asarray(force * height / posts * amplified)
    material = tables.materials()[post.material]
    return Check(
        "racking",
        moment,
        bears.allowable,
        bears.median,
        "moment",
        "handbook-9.5",
        material.certainty,
        {
            "force": (force, "force"),
            "posts": (float(posts), "count"),
            "height": (height, "length"),
            "amplified": (amplified, "ratio"),
            "moment": (moment, "moment"),
        },
        stuff_of(post),
    )
