"""Lateral grip of a post in the bed's soil: Broms with garden strengths, the building code beside it."""

from __future__ import annotations

import math

import numpy as np

from .. import tables
from ..loads.cases import Cases
from ..mechanics import Array, soil
from ..path.loadpath import Check, Strength
from ..shapes.earth import NO_FILL, PostGround
from ..tables import rows
from . import sections


def strength(
    ground: PostGround, post: rows.Post, depth: float, height: Array, cases: Cases, factor: str = "soil_gust"
) -> Strength:
    """Return what a post holds against a force at a height: the ultimate load of cautious soil over a factor,
    and of usual soil.

    Args:
        ground: What it stands in.
        post: The post, with its anchor plate if it has one.
        depth: Embedded length. [m]
        height: Height of the load above the soil. [m]
        cases: The cases; their soil state scales the strength.
        factor: Row of factors.csv that makes it allowable.

    Returns:
        Lateral load, (S, W, G). [N]

    Source: handbook-5.3; the median of a soil is the middle of its class, bs-5930
    """
    ultimate = lateral_ultimate(ground, post, depth, height, cases)
    return Strength(ultimate / tables.constant(factor), ultimate * _holding(ground, depth).median)


def lateral_ultimate(ground: PostGround, post: rows.Post, depth: float, height: Array, cases: Cases) -> Array:
    """Return the ultimate lateral load of a post at a height, by the cautious strength of the soil.

    Args:
        ground: What it stands in.
        post: The post, with its anchor plate if it has one.
        depth: Embedded length. [m]
        height: Height of the load above the soil. [m]
        cases: The cases; their soil state scales the strength.

    Returns:
        Ultimate lateral load, (S, W, G). [N]

    Source: handbook-5.3; matlock-1970 for a collar, of which Broms would leave out the upper half
    """
    post = ground.cast(post)
    native, width = ground.native, post.soil_width
    bare = max(ground.dug, tables.constant("crumb"))
    if ground.fill_depth > NO_FILL:
        load = soil.two_layer(
            _pressure(ground.fill), _pressure(native, ground), ground.fill_depth, width, depth, height
        )
    elif native.model == "clay" and ground.collar:
        load = soil.wide_clay(native.cu, width, depth, height)
    elif native.model == "clay":
        load = soil.broms_clay(native.cu, width, depth, height, bare)
    else:
        load = soil.broms_sand(math.radians(native.phi_deg), native.gamma, width, depth, height, bare)
    if ground.dug:
        pivot = (soil.CLAY_PIVOT if native.model == "clay" else 1.0) * depth
        load = load + soil.loose_top(_pressure(ground.loose)[1], min(ground.dug, pivot), width, pivot, height)
    if post.plate_m2:
        load = load + soil.plate_grip(_plate_pressure(ground, depth / 2), post.plate_m2, depth, height)
    return np.asarray(load * cases.soil_strength(_holding(ground, depth)) * ground.setting)


def _holding(ground: PostGround, depth: float) -> rows.Soil:
    """Return the soil that holds the most of a post: the fill, where it reaches hardly through."""
    return ground.fill if ground.fill_depth > NO_FILL and depth <= 1.2 * ground.fill_depth else ground.native


def _pressure(layer: rows.Soil, ground: PostGround | None = None) -> tuple[float, float]:
    if layer.model == "clay":
        return 9.0 * layer.cu, 0.0
    slope = 3.0 * math.tan(math.pi / 4 + math.radians(layer.phi_deg) / 2) ** 2
    above = (ground.fill.gamma - layer.gamma) * ground.fill_depth if ground else 0.0
    return slope * above, slope * layer.gamma


def _plate_pressure(ground: PostGround, at: float) -> float:
    """Return the soil's pressure on a plate in the layer where it lies. [Pa]"""
    layer = ground.fill if at < ground.fill_depth else ground.loose if at < ground.dug else ground.native
    if layer.model == "clay":
        return 4.0 * layer.cu
    return 1.5 * math.tan(math.pi / 4 + math.radians(layer.phi_deg) / 2) ** 2 * layer.gamma * at


def code_allowable(ground: PostGround, post: rows.Post, depth: float, height: Array) -> Array:
    """Return what the building code would allow, as a comparison (for lasting structures): a square post by
    its diagonal. [N]

    Args:
        ground: The soil, as the post is set in it.
        post: Taken as square, by its diagonal.
        depth: In the soil. [m]
        height: Where the force acts, above the ground. [m]

    Source: ibc-1807
    """
    post = ground.cast(post)
    wide = post.soil_width * (math.sqrt(2.0) if post.shape == "square" else 1.0)
    return soil.ibc_pole(
        ground.native.S, wide, max(depth - ground.fill_depth, 0.0), height + ground.fill_depth
    )


def grip(
    key: str,
    ground: PostGround,
    post: rows.Post,
    depth: float,
    force: Array,
    height: Array,
    cases: Cases,
    factor: str = "soil_gust",
    expected: Array | None = None,
) -> Check:
    """Return the check of a post's grip under a horizontal force at a height.

    Args:
        key: Of the check.
        ground: The soil, as the post is set in it.
        post: The post, pole or beam.
        depth: In the soil. [m]
        force: Across it. [N]
        height: Where the force acts, above the ground. [m]
        cases: Soil states, weeks and winds.
        factor: Key of the factor of safety.
        expected: What is expected to come, where that is less than the demand. [N]

    Source: handbook-5.2
    """
    held, ultimate = (
        strength(ground, post, depth, height, cases, factor),
        lateral_ultimate(ground, post, depth, height, cases),
    )
    return Check(
        key,
        force,
        held.allowable,
        held.median,
        "force",
        "broms-1964a" if ground.native.model == "clay" else "broms-1964b",
        "judgement",
        {
            "force": (force, "force"),
            "height": (height, "length"),
            "depth": (depth, "length"),
            "ultimate": (ultimate, "force"),
            "width": (ground.cast(post).soil_width, "length"),
            "code": (code_allowable(ground, post, depth, height), "force"),
        },
        "soil",
        expected,
    )


def at_once(lift: Check, push: Check) -> Check:
    """Return the check of a post that is pulled out and pushed aside at once: the same soil does both, √(u² +
    v²) ≤ 1 of its uses.

    Source: bs-8004
    """
    both = np.hypot(lift.utilisation, push.utilisation)
    return Check(
        "pulled-and-pushed",
        both,
        1.0,
        1.0,
        "ratio",
        "bs-8004",
        "judgement",
        {"lift": (lift.utilisation, "ratio"), "push": (push.utilisation, "ratio"), "both": (both, "ratio")},
        "soil",
        np.hypot(lift.median_utilisation, push.median_utilisation),
    )


def bearing(
    post: rows.Post, ground: PostGround, depth: float, push: Array, cases: Cases, pad: float = 0.0
) -> Check:
    """Return the check that a post pushed down does not sink: friction on its side, the soil under its foot,
    plate or pad [m²].

    Args:
        post: The post, pole or beam.
        ground: The soil, as the post is set in it.
        depth: In the soil. [m]
        push: Downward. [N]
        cases: Soil states, weeks and winds.
        pad: Area of what it stands on; 0 where that is its own foot. [m²]

    Source: handbook-5.7
    """
    native, post = ground.native, ground.cast(post)
    area = max(sections.of_post(post).A, pad) + post.plate_m2
    gripping = max(depth - ground.skinless, 0.0)
    tip = 9.0 * native.cu * area if native.model == "clay" else 40.0 * native.gamma * depth * area
    ultimate = (
        (native.skin * sections.perimeter(post) * gripping + tip)
        * cases.soil_strength(native)
        * ground.setting
    )
    return Check(
        "end-bearing",
        push,
        ultimate / tables.constant("skin_friction"),
        ultimate * native.median,
        "force",
        "handbook-5.7",
        "judgement",
        {"push": (push, "force"), "depth": (gripping, "length"), "ultimate": (ultimate, "force")},
        "skin",
    )


def movement(ground: PostGround, depth: float, height: Array | float, cases: Cases) -> tuple[Array, Array]:
    """Return movement at ground [m/N] and rotation [rad/N] of a post per lateral force at a height.

    Args:
        ground: The soil, as the post is set in it.
        depth: In the soil. [m]
        height: Where the force acts, above the ground. [m]
        cases: Soil states, weeks and winds.

    Source: handbook-6.5
    """
    own = ground.native
    modulus = cases.soil_modulus(own)
    rule = soil.clay_movement if own.model == "clay" else soil.sand_movement
    ground_move, turn = rule(modulus, max(depth - ground.fill_depth, 0.05), height + ground.fill_depth)
    return np.asarray(ground_move + turn * ground.fill_depth), np.asarray(turn)
