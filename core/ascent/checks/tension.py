"""Top wires, guys, anchors and struts."""

from __future__ import annotations

import math

import numpy as np

from .. import tables
from ..loads.cases import Cases
from ..mechanics import Array, anchors, cable, column, relaxation
from ..path.loadpath import Check, Strength
from ..shapes.earth import PostGround
from ..tables import rows
from . import bending
from .sections import perimeter


def wire_area(wire: rows.Wire) -> float:
    """Return the cross-section of a wire. [m²]"""
    return math.pi * wire.d**2 / 4


def breaks(wire: rows.Wire) -> Strength:
    """Return what a wire may carry and where it is expected to break. [N]

    Source: handbook-6.1; a wire of a class breaks about a tenth above its least, astm-a641
    """
    return Strength(
        np.asarray(wire_area(wire) * wire.break_ / wire.factor), np.asarray(wire_area(wire) * wire.median)
    )


def wire_pull(wire: rows.Wire, load: Array, span: float, end_stiffness: Array, bays: float) -> Array:
    """Return the horizontal pull of a top wire, pulled up by hand, on its ends. [N]

    Args:
        wire: The wire.
        load: On a metre of it. [N/m]
        span: Of a bay. [m]
        end_stiffness: Of an end. [N/m]
        bays: Bays whose shortening one end takes: half of all where it slides over the posts.

    Source: irvine-1981
    """
    axial = relaxation.with_ends(wire.E * wire_area(wire), end_stiffness, span, bays)
    return cable.loaded_tension(load, span, tables.constant("wire_pretension"), axial)


def drawn_out(wire: rows.Wire, pull: Array, load: Array, span: float) -> Array:
    """Return the pull of a wire that may have yielded: it lengthens, its sag deepens, and it pulls no harder
    than that sag needs. [N]

    Args:
        wire: The wire.
        pull: Along it. [N]
        load: On it, over its length. [N/m]
        span: Distance between supports. [m]

    Source: handbook-6.6; lengthening of soft and of hard wire, astm-a641
    """
    return np.asarray(
        np.minimum(
            pull, relaxation.pull_at(load, span, relaxation.belly_after(0.0, span, 1.0, wire.ductility))
        )
    )


def wire_sag(pull: Array, load: Array, span: float) -> Array:
    """Return the sag of a shallow wire under a uniform load. [m]

    Args:
        pull: Along it. [N]
        load: On it, over its length. [N/m]
        span: Distance between supports. [m]

    Source: irvine-1981
    """
    return np.asarray(load * span**2 / (8.0 * np.maximum(pull, 1e-9)))


def top_wire(wire: rows.Wire, load: Array, span: float, pull: Array) -> Check:
    """Return the check of a wire along the top, pulled up by hand and loaded by crop and wind.

    Args:
        wire: The wire.
        load: On it, over its length. [N/m]
        span: Distance between supports. [m]
        pull: Along it. [N]

    Source: irvine-1981
    """
    pretension, pull = tables.constant("wire_pretension"), drawn_out(wire, pull, load, span)
    tension = np.hypot(pull, load * span / 2)
    return Check(
        "top-wire",
        tension,
        *breaks(wire),
        "force",
        "irvine-1981",
        wire.certainty,
        {
            "load": (load, "line_load"),
            "span": (span, "length"),
            "pretension": (pretension, "force"),
            "pull": (pull, "force"),
            "sag": (wire_sag(pull, load, span), "length"),
            "tension": (tension, "force"),
        },
    )


def guy(wire: rows.Wire, tension: Array, angle: float) -> Check:
    """Return the check of a guy against its break.

    Args:
        wire: The wire.
        tension: In it. [N]
        angle: From the ground. [rad]

    Source: handbook-7.1
    """
    return Check(
        "guy",
        tension,
        *breaks(wire),
        "force",
        "handbook-7.1",
        wire.certainty,
        {"angle": (math.degrees(angle), "angle"), "tension": (tension, "force")},
    )


def brace_wire(wire: rows.Wire, tension: Array, push: Array) -> Check:
    """Return the check of an H-brace's diagonal wire against its break.

    Args:
        wire: The wire.
        tension: In it. [N]
        push: Of the brace. [N]

    Source: handbook-7.3
    """
    return Check(
        "brace-wire",
        tension,
        *breaks(wire),
        "force",
        "handbook-7.3",
        wire.certainty,
        {"push": (push, "force"), "tension": (tension, "force")},
    )


def _buried(anchor: rows.Anchor, soil: rows.Soil) -> anchors.AnchorHold:
    """Return what a buried weight holds in a soil; clay rammed back is taken as loose earth of 30°."""
    phi = math.radians(soil.phi_deg or tables.constant("rammed_phi"))
    spread = math.radians(tables.constant("cone"))
    return anchors.deadman(
        anchor.mass_kg,
        anchor.top_m,
        anchor.height_m,
        anchor.width_m,
        anchor.length_m,
        phi,
        soil.gamma,
        spread,
    )


def anchor_strength(anchor: rows.Anchor, soil: rows.Soil, angle: float) -> Strength:
    """Return the working and the expected pull of an anchor in a class of soil, in line with a guy. [N]

    Args:
        anchor: The anchor.
        soil: Of the ground.
        angle: From the ground. [rad]

    Source: handbook-7.6
    """
    if anchor.top_m:
        held = _buried(anchor, soil)
        ultimate = np.asarray(min(held.up / math.sin(angle), held.along / math.cos(angle)))
        return Strength(ultimate / anchor.factor, ultimate * anchor.median)
    if anchor.friction:
        ultimate = np.asarray(
            min(anchors.weight_on_ground(anchor.mass_kg * tables.constant("gravity"), anchor.friction, angle))
        )
        return Strength(ultimate / anchor.factor, ultimate * anchor.median)
    working = {
        "loose": anchor.loose_N,
        "loam": anchor.loam_N,
        "clay": anchor.clay_N,
        "gravel": anchor.gravel_N,
    }[soil.anchor]
    return Strength(np.asarray(working), np.asarray(working * anchor.median))


def anchor(
    row: rows.Anchor,
    soil: rows.Soil,
    tension: Array,
    angle: float,
    cases: Cases,
    expected: Array | None = None,
) -> tuple[Check, ...]:
    """Return the checks of a guy's anchor: pulled in line with it, or lifted and ploughed through the soil.

    Args:
        row: The anchor.
        soil: In which it is held.
        tension: Of the guy, as designed for. [N]
        angle: Of the guy from the ground. [rad]
        cases: The cases; their soil state scales the strength.
        expected: Tension that is expected, where that is less. [N]

    Source: handbook-7.6
    """
    wet = cases.soil_strength(soil)
    held = anchor_strength(row, soil, angle)
    if row.friction:
        weight = row.mass_kg * tables.constant("gravity")
        return (
            Check(
                "anchor-weight",
                tension,
                held.allowable,
                held.median,
                "force",
                row.source,
                row.certainty,
                {
                    "tension": (tension, "force"),
                    "weight": (weight, "force"),
                    "friction": (row.friction, "ratio"),
                },
                "weight",
                expected,
            ),
        )
    if not row.top_m:
        return (
            Check(
                "anchor",
                tension,
                held.allowable * wet,
                held.median * wet,
                "force",
                row.source,
                row.certainty,
                {"tension": (tension, "force")},
                "anchor",
                expected,
            ),
        )
    buried = _buried(row, soil)
    stones = row.mass_kg * tables.constant("gravity")
    up, along = stones + (buried.up - stones) * wet, buried.along * wet
    pulls = (tension, tension if expected is None else expected)
    (lifted, lifts), (dragged, drags) = (
        [pull * share for pull in pulls] for share in (math.sin(angle), math.cos(angle))
    )
    return (
        Check(
            "deadman-lift",
            lifted,
            up / row.factor,
            up,
            "force",
            "handbook-7.6",
            "certain",
            {"lift": (lifted, "force"), "stones": (stones, "force"), "hold": (up, "force")},
            "weight",
            lifts,
        ),
        Check(
            "deadman-drag",
            dragged,
            along / row.factor,
            along * soil.median,
            "force",
            "handbook-7.6",
            "judgement",
            {"drag": (dragged, "force"), "hold": (along, "force")},
            "soil",
            drags,
        ),
    )


def buckling(key: str, post: rows.Post, push: Array, length: float) -> Check:
    """Return the check of a slender strut or prop, hinged at both ends, against buckling.

    Args:
        key: Of the check.
        post: The post, pole or beam.
        push: Along it, in compression. [N]
        length: Between its ends. [m]

    Source: timoshenko-gere
    """
    critical = column.euler_load(
        min(bending.stiffness(post), bending.stiffness(post, other_way=True)), length
    )
    return Check(
        key,
        push,
        critical / tables.constant("column"),
        critical,
        "force",
        "timoshenko-gere",
        "judgement",
        {"length": (length, "length"), "critical": (critical, "force"), "push": (push, "force")},
        bending.stuff_of(post),
    )


def friction(post: rows.Post, ground: PostGround, depth: float, wet: Array) -> Strength:
    """Return the pull at which a post slides out of the ground, by the soil's friction on its sides. [N]

    Args:
        post: The post, pole or beam.
        ground: The soil, as the post is set in it.
        depth: In the soil. [m]
        wet: Share of its moist strength that the soil has. [-]

    Source: handbook-5.7; usual friction is nearer a third of a soil's strength, api-rp2a
    """
    gripping = max(depth - ground.skinless, 0.0)
    ultimate = np.asarray(ground.native.skin * perimeter(ground.cast(post)) * gripping * wet * ground.setting)
    return Strength(ultimate / tables.constant("skin_friction"), ultimate * tables.constant("skin_median"))


def uplift(post: rows.Post, ground: PostGround, depth: float, lift: Array, wet: Array) -> Check:
    """Return the check of an end post that its strut tries to pull out of the ground.

    Args:
        post: The post, pole or beam.
        ground: The soil, as the post is set in it.
        depth: In the soil. [m]
        lift: Of the strut. [N]
        wet: Share of its moist strength that the soil has. [-]

    Source: handbook-5.7
    """
    held = friction(post, ground, depth, wet)
    return Check(
        "uplift",
        lift,
        held.allowable,
        held.median,
        "force",
        "handbook-5.7",
        "judgement",
        {
            "lift": (lift, "force"),
            "depth": (max(depth - ground.skinless, 0.0), "length"),
            "ultimate": (held.allowable * tables.constant("skin_friction"), "force"),
        },
        "skin",
    )


def main_wire(wire: rows.Wire, down: Array, side: Array, span: float, pull: Array) -> Check:
    """Return the check of a wire that carries a crop, and the wind on it, between its posts.

    Args:
        wire: The wire.
        down: What hangs on it, over its length. [N/m]
        side: Wind on it across, over its length. [N/m]
        span: Distance between supports. [m]
        pull: Along it. [N]

    Source: handbook-6.4
    """
    load = np.hypot(down, side)
    sag, pull = wire_sag(pull, down, span), drawn_out(wire, pull, load, span)
    tension = np.hypot(pull, load * span / 2)
    return Check(
        "main-wire",
        tension,
        *breaks(wire),
        "force",
        "handbook-6.4",
        wire.certainty,
        {
            "down": (down, "line_load"),
            "side": (side, "line_load"),
            "span": (span, "length"),
            "pull": (pull, "force"),
            "sag": (sag, "length"),
            "flat": (pull / np.maximum(load * span, 1e-9), "ratio"),
            "tension": (tension, "force"),
        },
    )


def cold_wire(wire: rows.Wire, pull: Array, pretension: float) -> Check:
    """Return the check of a bare wire on the first cold night after it was tightened.

    Args:
        wire: The wire.
        pull: On a warm day. [N]
        pretension: With no load. [N]

    Source: handbook-6.6
    """
    return Check(
        "cold-wire",
        pull,
        *breaks(wire),
        "force",
        "handbook-6.6",
        wire.certainty,
        {
            "pretension": (pretension, "force"),
            "colder": (tables.constant("cold"), "cooling"),
            "pull": (pull, "force"),
        },
    )
