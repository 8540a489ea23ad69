"""Top wires, guys, anchors and struts."""

from __future__ import annotations

import math

import numpy as np

from .. import rows, tables
from ..loadpath import Check
from ..mechanics import Array, cable, column
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


def guy(wire: rows.Wire, tension: Array, pull: Array, angle: float) -> Check:
    """Return the check of a guy against its break.

    Source: handbook-7.1
    """
    return Check(
        "guy", tension, wire_area(wire) * wire.break_, wire.factor, "force", "handbook-7.1", wire.certainty,
        {"pull": (pull, "force"), "angle": (math.degrees(angle), "angle"), "tension": (tension, "force")},
    )  # fmt: skip


def anchor_working(anchor: rows.Anchor, soil: rows.Soil) -> float:
    """Return the working pull of an anchor in a class of soil. [N]

    Source: handbook-7.6
    """
    return {"loose": anchor.loose_N, "loam": anchor.loam_N, "clay": anchor.clay_N, "gravel": anchor.gravel_N}[soil.anchor]


def anchor(row: rows.Anchor, soil: rows.Soil, tension: Array, strength: Array) -> Check:
    """Return the check of a guy's anchor pulled in line with it.

    Source: handbook-7.6
    """
    ultimate = anchor_working(row, soil) * row.factor * strength
    return Check(
        "anchor", tension, ultimate, row.factor, "force", row.source, row.certainty, {"tension": (tension, "force")}, "anchor",
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


def uplift(post: rows.Post, ground: Ground, depth: float, lift: Array, strength: Array) -> Check:
    """Return the check of an end post that its strut tries to pull out of the ground.

    Source: handbook-5.7
    """
    gripping = max(depth - max(tables.constant("ignored_tilled"), ground.fill_depth), 0.0)
    ultimate = ground.native.skin * perimeter(post) * gripping * strength * ground.setting
    return Check(
        "uplift", lift, ultimate, tables.constant("skin_friction"), "force", "handbook-5.7", "judgement",
        {"lift": (lift, "force"), "depth": (gripping, "length"), "ultimate": (ultimate, "force")}, "skin",
    )  # fmt: skip
