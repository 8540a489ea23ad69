"""Lateral grip of a post in the bed's soil: Broms with garden strengths, the building code beside it."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..loads.cases import Cases
from ..mechanics import Array, soil
from ..model import BareBed
from . import sections


@dataclass(frozen=True)
class Ground:
    """The soil a post stands in: native soil, any bed fill over it, how the post was set, and the top that is not counted."""

    native: rows.Soil
    fill: rows.Soil
    fill_depth: float
    tamped: bool
    ignored: float

    @property
    def setting(self) -> float:
        """Return the share of strength left by how the post was set."""
        return tables.constant("dug_soil") if self.tamped else 1.0


def ground_of(bed: BareBed, setting: str) -> Ground:
    """Return the ground of a bed for posts set in that way; a container has nothing but its mix to hold a post."""
    native = bed.fill if bed.kind == "container" else bed.soil
    return Ground(tables.soils()[native], tables.soils()[bed.fill], bed.raised_by, setting == "tamped", tables.constant("ignored_tilled"))


def beside(ground: Ground) -> Ground:
    """Return the ground beside a raised bed, where there is no fill."""
    return replace(ground, fill_depth=0.0)


def topmost(ground: Ground, depth: float) -> Ground:
    """Return the ground as something sees it that goes no deeper than that: the fill alone, where it is as deep."""
    return replace(ground, native=ground.fill, fill_depth=0.0) if ground.fill_depth >= 0.6 * depth else ground


def lateral_ultimate(ground: Ground, post: rows.Post, depth: float, height: Array, cases: Cases) -> Array:
    """Return the ultimate lateral load of a post at a height.

    Args:
        ground: What it stands in.
        post: The post, with its anchor plate if it has one.
        depth: Embedded length. [m]
        height: Height of the load above the soil. [m]
        cases: The cases; their soil state scales the strength.

    Returns:
        Ultimate lateral load, (S, W, G). [N]

    Source: handbook-5.3
    """
    ignored = ground.ignored
    native = ground.native
    width = post.soil_width
    if ground.fill_depth > 0.02:
        load = soil.two_layer(
            _pressure(ground.fill), _pressure(native, ground), ground.fill_depth, width, depth, height, ignored
        )  # fmt: skip
        strength = cases.soil_strength(native if depth > 1.2 * ground.fill_depth else ground.fill)
    else:
        strength = cases.soil_strength(native)
        if native.model == "clay":
            load = soil.broms_clay(native.cu, width, depth, height, ignored)
        else:
            load = soil.broms_sand(math.radians(native.phi_deg), native.gamma, width, depth, height, ignored)
    if post.plate_m2:
        load = load + soil.plate_grip(_plate_pressure(ground, depth / 2), post.plate_m2, depth, height)
    return np.asarray(load * strength * ground.setting)


def _pressure(layer: rows.Soil, ground: Ground | None = None) -> tuple[float, float]:
    if layer.model == "clay":
        return 9.0 * layer.cu, 0.0
    slope = 3.0 * math.tan(math.pi / 4 + math.radians(layer.phi_deg) / 2) ** 2
    above = (ground.fill.gamma - layer.gamma) * ground.fill_depth if ground else 0.0
    return slope * above, slope * layer.gamma


def _plate_pressure(ground: Ground, at: float) -> float:
    layer = ground.fill if at < ground.fill_depth else ground.native
    if layer.model == "clay":
        return 4.0 * layer.cu
    return 1.5 * math.tan(math.pi / 4 + math.radians(layer.phi_deg) / 2) ** 2 * layer.gamma * at


def code_allowable(ground: Ground, post: rows.Post, depth: float, height: Array) -> Array:
    """Return what the building code would allow, as a comparison (for lasting structures). [N]

    Source: ibc-1807
    """
    return soil.ibc_pole(ground.native.S, post.soil_width, max(depth - ground.fill_depth, 0.0), height + ground.fill_depth)


def grip(key: str, ground: Ground, post: rows.Post, depth: float, force: Array, height: Array, cases: Cases, factor: float) -> Check:
    """Return the check of a post's grip under a horizontal force at a height.

    Source: handbook-5.2
    """
    ultimate = lateral_ultimate(ground, post, depth, height, cases)
    return Check(
        key, force, ultimate, factor, "force", "broms-1964a" if ground.native.model == "clay" else "broms-1964b", "judgement",
        {
            "force": (force, "force"), "height": (height, "length"), "depth": (depth, "length"), "ultimate": (ultimate, "force"),
            "width": (post.soil_width, "length"), "factor": (factor, "ratio"), "allowed": (ultimate / factor, "force"),
            "code": (code_allowable(ground, post, depth, height), "force"),
        },
        "soil",
    )  # fmt: skip


def bearing(post: rows.Post, ground: Ground, depth: float, push: Array, cases: Cases, pad: float = 0.0) -> Check:
    """Return the check that a post pushed down does not sink: friction on its side, the soil under its foot, plate or pad [m²].

    Source: handbook-5.7
    """
    native = ground.native
    collared = post.soil_width > 2.0 * post.a
    area = (math.pi * post.soil_width**2 / 4 if collared else max(sections.of_post(post).A, pad)) + post.plate_m2
    gripping = max(depth - max(ground.ignored, ground.fill_depth), 0.0)
    tip = 9.0 * native.cu * area if native.model == "clay" else 40.0 * native.gamma * depth * area
    ultimate = (native.skin * sections.perimeter(post) * gripping + tip) * cases.soil_strength(native) * ground.setting
    return Check(
        "end-bearing", push, ultimate, tables.constant("skin_friction"), "force", "handbook-5.7", "judgement",
        {"push": (push, "force"), "depth": (gripping, "length"), "ultimate": (ultimate, "force")}, "skin",
    )  # fmt: skip


def movement(ground: Ground, depth: float, height: Array | float, cases: Cases) -> tuple[Array, Array]:
    """Return movement at ground [m/N] and rotation [rad/N] of a post per lateral force at a height.

    Source: handbook-6.5
    """
    own = ground.native
    modulus = cases.soil_modulus(own)
    rule = soil.clay_movement if own.model == "clay" else soil.sand_movement
    ground_move, turn = rule(modulus, max(depth - ground.fill_depth, 0.05), height + ground.fill_depth)
    return np.asarray(ground_move + turn * ground.fill_depth), np.asarray(turn)
