"""Top wires, guys, anchors and struts."""

from __future__ import annotations

import math

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..loads.cases import Cases
from ..mechanics import Array, anchors, cable, column
from . import bending
from .embedment import Ground
from .sections import perimeter


def wire_area(wire: rows.Wire) -> float:
    """Return the cross-section of a wire. [m²]"""
    return math.pi * wire.d**2 / 4


def wire_pull(wire: rows.Wire, load: Array, span: float, end_stiffness: Array) -> Array:
    """Return the horizontal pull of a top wire, pulled up by hand, on its ends. [N]

    Source: irvine-1981
    """
    axial = cable.effective_stiffness(wire.E * wire_area(wire), end_stiffness, span)
    return cable.loaded_tension(load, span, tables.constant("wire_pretension"), axial)


def wire_sag(pull: Array, load: Array, span: float) -> Array:
    """Return the sag of a shallow wire under a uniform load. [m]

    Source: irvine-1981
    """
    return np.asarray(load * span**2 / (8.0 * np.maximum(pull, 1e-9)))


def top_wire(wire: rows.Wire, load: Array, span: float, pull: Array) -> Check:
    """Return the check of a wire along the top, pulled up by hand and loaded by crop and wind.

    Source: irvine-1981
    """
    pretension = tables.constant("wire_pretension")
    tension = np.hypot(pull, load * span / 2)
    return Check(
        "top-wire", tension, wire_area(wire) * wire.break_, wire.factor, "force", "irvine-1981", wire.certainty,
        {"load": (load, "line_load"), "span": (span, "length"), "pretension": (pretension, "force"), "pull": (pull, "force"),
         "sag": (wire_sag(pull, load, span), "length"), "tension": (tension, "force")},
    )  # fmt: skip


def guy(wire: rows.Wire, tension: Array, angle: float) -> Check:
    """Return the check of a guy against its break.

    Source: handbook-7.1
    """
    return Check(
        "guy", tension, wire_area(wire) * wire.break_, wire.factor, "force", "handbook-7.1", wire.certainty,
        {"angle": (math.degrees(angle), "angle"), "tension": (tension, "force")},
    )  # fmt: skip


def brace_wire(wire: rows.Wire, tension: Array, push: Array) -> Check:
    """Return the check of an H-brace's diagonal wire against its break.

    Source: handbook-7.3
    """
    return Check(
        "brace-wire", tension, wire_area(wire) * wire.break_, wire.factor, "force", "handbook-7.3", wire.certainty,
        {"push": (push, "force"), "tension": (tension, "force")},
    )  # fmt: skip


def _buried(anchor: rows.Anchor, soil: rows.Soil) -> anchors.Held:
    """Return what a buried weight holds in a soil; clay rammed back is taken as loose earth of 30°."""
    phi = math.radians(soil.phi_deg or tables.constant("rammed_phi"))
    return anchors.deadman(anchor.mass_kg, anchor.top_m, anchor.height_m, anchor.width_m, anchor.length_m, phi, soil.gamma)


def anchor_working(anchor: rows.Anchor, soil: rows.Soil, angle: float) -> float:
    """Return the working pull of an anchor in a class of soil, in line with a guy. [N]

    Source: handbook-7.6
    """
    if anchor.top_m:
        held = _buried(anchor, soil)
        return min(held.up / math.sin(angle), held.along / math.cos(angle)) / anchor.factor
    return {"loose": anchor.loose_N, "loam": anchor.loam_N, "clay": anchor.clay_N, "gravel": anchor.gravel_N}[soil.anchor]


def anchor(row: rows.Anchor, soil: rows.Soil, tension: Array, angle: float, cases: Cases) -> tuple[Check, ...]:
    """Return the checks of a guy's anchor: pulled in line with it, or lifted and ploughed through the soil.

    Source: handbook-7.6
    """
    strength = cases.soil_strength(soil)
    if not row.top_m:
        ultimate = anchor_working(row, soil, angle) * row.factor * strength
        return (
            Check("anchor", tension, ultimate, row.factor, "force", row.source, row.certainty, {"tension": (tension, "force")}, "anchor"),
        )
    held = _buried(row, soil)
    stones = row.mass_kg * tables.constant("gravity")
    up, along = stones + (held.up - stones) * strength, held.along * strength
    lifted, dragged = tension * math.sin(angle), tension * math.cos(angle)
    return (
        Check("deadman-lift", lifted, up, row.factor, "force", "handbook-7.6", "certain",
              {"lift": (lifted, "force"), "stones": (stones, "force"), "hold": (up, "force")}, "weight"),
        Check("deadman-drag", dragged, along, row.factor, "force", "handbook-7.6", "judgement",
              {"drag": (dragged, "force"), "hold": (along, "force")}, "soil"),
    )  # fmt: skip


def strut(post: rows.Post, compression: Array, length: float) -> Check:
    """Return the check of a strut against buckling.

    Source: timoshenko-gere
    """
    weak = min(bending.stiffness(post), bending.stiffness(post, other_way=True))
    critical = column.euler_load(weak, length)
    return Check(
        "strut", compression, critical, tables.constant("column"), "force", "timoshenko-gere", "judgement",
        {"length": (length, "length"), "critical": (critical, "force"), "compression": (compression, "force")},
        bending.stuff_of(post),
    )  # fmt: skip


def friction(post: rows.Post, ground: Ground, depth: float, strength: Array) -> Array:
    """Return the pull at which a post slides out of the ground, by the soil's friction on its sides. [N]

    Source: handbook-5.7
    """
    gripping = max(depth - max(tables.constant("ignored_tilled"), ground.fill_depth), 0.0)
    return np.asarray(ground.native.skin * perimeter(post) * gripping * strength * ground.setting)


def uplift(post: rows.Post, ground: Ground, depth: float, lift: Array, strength: Array) -> Check:
    """Return the check of an end post that its strut tries to pull out of the ground.

    Source: handbook-5.7
    """
    gripping = max(depth - max(tables.constant("ignored_tilled"), ground.fill_depth), 0.0)
    ultimate = friction(post, ground, depth, strength)
    return Check(
        "uplift", lift, ultimate, tables.constant("skin_friction"), "force", "handbook-5.7", "judgement",
        {"lift": (lift, "force"), "depth": (gripping, "length"), "ultimate": (ultimate, "force")}, "skin",
    )  # fmt: skip


def main_wire(wire: rows.Wire, down: Array, side: Array, span: float, pull: Array) -> Check:
    """Return the check of a wire that carries a crop, and the wind on it, between its posts.

    Source: handbook-6.4
    """
    load = np.hypot(down, side)
    tension = np.hypot(pull, load * span / 2)
    return Check(
        "main-wire", tension, wire_area(wire) * wire.break_, wire.factor, "force", "handbook-6.4", wire.certainty,
        {"down": (down, "line_load"), "side": (side, "line_load"), "span": (span, "length"), "pull": (pull, "force"),
         "sag": (wire_sag(pull, down, span), "length"), "flat": (pull / np.maximum(load * span, 1e-9), "ratio"), "tension": (tension, "force")},
    )  # fmt: skip


def cold_wire(wire: rows.Wire, pull: Array, pretension: float) -> Check:
    """Return the check of a bare wire on the first cold night after it was tightened.

    Source: handbook-6.6
    """
    return Check(
        "cold-wire", pull, wire_area(wire) * wire.break_, wire.factor, "force", "handbook-6.6", wire.certainty,
        {"pretension": (pretension, "force"), "colder": (tables.constant("cold"), "cooling"), "pull": (pull, "force")},
    )  # fmt: skip


def prop(post: rows.Post, push: Array, length: float) -> Check:
    """Return the check of a prop under the middle of a bay against buckling.

    Source: timoshenko-gere
    """
    weak = min(bending.stiffness(post), bending.stiffness(post, other_way=True))
    critical = column.euler_load(weak, length)
    return Check(
        "prop", push, critical, tables.constant("column"), "force", "timoshenko-gere", "judgement",
        {"push": (push, "force"), "length": (length, "length"), "critical": (critical, "force")}, bending.stuff_of(post),
    )  # fmt: skip
