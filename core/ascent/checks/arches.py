"""A panel bent to an arch: its figures, when it sways away, how sharply its wires bend, what its feet must
take.
"""

from __future__ import annotations

import math

import numpy as np

from .. import tables
from ..mechanics import Array, cable, column, section
from ..path.loadpath import Check, Strength
from ..shapes.sprung import SprungFigures
from ..tables import rows
from . import bending, ties

_POPS = 1.6  # of the least radius, at which welds are expected to hold still, judgement


def sway(figures: SprungFigures, weight: Array) -> Check:
    """Return the check that an arch under its crop keeps its shape.

    Args:
        figures: Of the bent panel.
        weight: Of the crop, over the width of the panel. [N/m]

    Source: handbook-8.5
    """
    return Check(
        "arch-sway",
        weight,
        figures.sway / tables.constant("sway"),
        figures.sway,
        "line_load",
        "handbook-8.5",
        "judgement",
        {
            "weight": (weight, "line_load"),
            "critical": (figures.sway, "line_load"),
            "rise": (figures.rise, "length"),
        },
        "sway",
    )


def crown(figures: SprungFigures, bare: float, fruit: Array, length: float) -> Check:
    """Return the check that an arch keeps its shape with two fifths of its fruit in the crown third.

    Args:
        figures: The bent panel.
        bare: Its own weight. [N]
        fruit: What hangs on it. [N]
        length: Of the panel. [m]

    Source: handbook-0.4, worked out with the rod: weight in the crown third counts nearly double
    """
    more = (tables.constant("crown_share") - 1 / 3) * (1.0 / tables.constant("crown_all") - 1.0)
    weight = np.asarray((bare + fruit * (1.0 + more)) / length)
    return Check(
        "arch-crown",
        weight,
        figures.sway / tables.constant("sway"),
        figures.sway,
        "line_load",
        "handbook-0.4",
        "judgement",
        {
            "weight": (weight, "line_load"),
            "critical": (figures.sway, "line_load"),
            "rise": (figures.rise, "length"),
        },
        "sway",
    )


def blown(
    mesh_moment: Strength,
    wind: Array,
    lever: Array,
    hinges: float,
    weight: Array,
    figures: SprungFigures,
    key: str = "arch-blown",
) -> Check:
    """Return the check of a sprung arch that the wind across it bends in its own plane until it folds over.

    Its spring is in balance with itself and takes nothing from what it bears once it yields: F z = m M, m
    hinges, the weight leaning with it as it sways.

    Args:
        mesh_moment: Moment that all its wires bear together. [N·m]
        wind: Across one arch. [N]
        lever: From where its legs are held to where the wind acts. [m]
        hinges: That must form: four with legs held upright, two with feet that turn.
        weight: Of arch and crop, per metre of it. [N/m]
        figures: The bent panel.
        key: Of its texts.

    Source: limit-analysis
    """
    amplified = column.amplification(weight, figures.sway)
    demand = np.asarray(wind * lever * amplified)
    return Check(
        key,
        demand,
        hinges * mesh_moment.allowable,
        hinges * mesh_moment.median,
        "moment",
        "limit-analysis",
        "judgement",
        {
            "wind": (wind, "force"),
            "lever": (lever, "length"),
            "amplified": (amplified, "ratio"),
            "hinges": (hinges, "count"),
            "demand": (demand, "moment"),
        },
        "sway",
    )


def wires_bear(mesh: rows.Mesh, width: float) -> Strength:
    """Return the moment that a panel's wires along its length bear together. [N·m]

    Args:
        mesh: The mesh.
        width: Of the panel. [m]

    Source: aisc-360-f
    """
    wires, modulus = max(math.floor(width / mesh.up + 1e-6), 2), section.round_bar(mesh.wire).Z
    material = tables.mesh_materials()[mesh.material]
    return Strength(
        np.asarray(0.6 * wires * modulus * material.yield_),
        np.asarray(wires * modulus * material.median_yield),
    )


def bend(figures: SprungFigures, mesh: rows.Mesh) -> Check:
    """Return the check that a panel's wires are not bent so sharply that their welds pop.

    Source: handbook-8.4
    """
    least = np.full((1, 1, 1), tables.constant("bend_least") * mesh.wire)
    return Check(
        "arch-bend",
        least,
        figures.radius,
        _POPS * figures.radius,
        "length",
        "handbook-8.4",
        "judgement",
        {"radius": (figures.radius, "length"), "least": (least, "length"), "wire": (mesh.wire, "wire")},
    )


def hoop_bend(figures: SprungFigures, post: rows.Post) -> Check:
    """Return the check of how sharply a hoop is bent: plastic by its strain, steel tube and drawn rod by
    their width.

    Source: handbook-9.6
    """
    if post.material == "pvc":
        least = post.a / (2 * tables.constant("pvc_strain"))
    else:
        least = post.a * tables.constant("tube_bend" if post.shape == "tube" else "bend_least")
    needed = np.full((1, 1, 1), least)
    return Check(
        "hoop-bend",
        needed,
        figures.radius,
        _POPS * figures.radius,
        "length",
        "handbook-9.6",
        "judgement",
        {"radius": (figures.radius, "length"), "least": (needed, "length"), "width": (post.a, "length")},
    )


def tied(tie: rows.Tie, push: Array, wind: Array, count: int, bears: bool, days: Array) -> Check:
    """Return the check of the ties of one post: a post outside the panel bears the push, one inside only
    holds by its ties.

    Args:
        tie: The tie.
        push: Outward push of the panel on the post, inward negative. [N]
        wind: On the post. [N]
        count: Ties on the post.
        bears: Whether the post stands outside the panel.
        days: Since the ties were put on, (W,). [d]

    Source: handbook-8.7
    """
    pulled = np.where(bears & (push > 0), np.maximum(wind - push, 0.0), np.abs(push) + wind)
    demand = pulled * tables.constant("tie_uneven") / count
    return Check(
        "arch-tie",
        demand,
        *ties.strength(tie, days),
        "force",
        "handbook-8.7",
        tie.certainty,
        {
            "push": (push, "force"),
            "wind": (wind, "force"),
            "pulled": (pulled, "force"),
            "count": (float(count), "count"),
            "demand": (demand, "force"),
        },
        "twine",
        np.asarray(pulled / count),
    )


def joined(tie: rows.Tie, pull: Array, days: Array) -> Check:
    """Return the check of the tie that joins one hoop to the line along the crowns.

    Args:
        tie: The tie.
        pull: Along the crowns. [N]
        days: In use, by week, (W,). [d]

    Source: handbook-9.6
    """
    demand = pull * tables.constant("tie_uneven")
    return Check(
        "hoop-joined",
        demand,
        *ties.strength(tie, days),
        "force",
        "handbook-9.6",
        tie.certainty,
        {"pull": (pull, "force"), "demand": (demand, "force")},
        "twine",
        pull,
    )


def lap(tie: rows.Tie, wind: Array, count: int, days: Array) -> Check:
    """Return the check of the ties that join two panels at their lap.

    Args:
        tie: The tie.
        wind: Force of the wind. [N]
        count: How many share it. [-]
        days: In use, by week, (W,). [d]

    Source: handbook-8.7
    """
    demand = wind * tables.constant("lap_share") / count * tables.constant("tie_uneven")
    return Check(
        "arch-lap",
        demand,
        *ties.strength(tie, days),
        "force",
        "handbook-8.7",
        "judgement",
        {"wind": (wind, "force"), "count": (float(count), "count"), "demand": (demand, "force")},
        "twine",
        np.asarray(demand / tables.constant("tie_uneven")),
    )


def lifted(wind: Array, height: Array, weight: float, span: float) -> Array:
    """Return what lifts the windward feet of an arch: the wind's moment less its bare weight's. [N]

    Args:
        wind: Force of the wind. [N]
        height: Where the force acts, above the ground. [m]
        weight: Bare, of one arch. [N]
        span: From foot to foot. [m]

    Source: handbook-8.7
    """
    return np.asarray(np.maximum(wind * height - weight * span / 2, 0.0) / span)


def sling(row: rows.Fitting, fruit: float, count: int, angle: float, crop_factor: Array) -> Check:
    """Return the check of the sling of the heaviest fruit: it swings, and its cloth is wet; that factor is
    taken once, on the fruit.

    The row says what the sling carries by two legs at 60° from the horizontal, as it is tied; a leg pulls
    W/(n sin β), so fewer or flatter legs pull harder.

    Args:
        row: The sling.
        fruit: Its mass. [kg]
        count, angle: How many legs it hangs by, and their slope from the horizontal. [rad]
        crop_factor: On the crop, of the cases.

    Source: handbook-13
    """
    hung = (
        np.asarray(tables.constant("gravity") * fruit * np.ones_like(crop_factor))
        * _USUAL_LEGS
        / (count * math.sin(angle))
    )
    demand, breaks = tables.constant("sling_demand") * hung, row.working_N * row.median
    return Check(
        "sling",
        demand,
        breaks,
        breaks,
        "force",
        row.source,
        row.certainty,
        {
            "fruit": (fruit, "mass"),
            "legs": (float(count), "count"),
            "angle": (math.degrees(angle), "angle"),
            "leg": (demand / _USUAL_LEGS, "force"),
            "demand": (demand, "force"),
        },
        "twine",
        hung * tables.constant("sling_swing"),
    )


_USUAL_LEGS = 2 * math.sin(math.radians(60))  # of a sling: pull of a leg = weight over this
_CROWN = (
    0.5 - 1.0 / math.pi
) / 2  # crown moment of a two-hinged half circle under a weight there, per weight and span
_OVER_SAG = 0.05  # of their bay, that lines over the top hang down


def spread(weight: Array) -> Array:
    """Return the outward push at each foot of a half circle with a weight at its crown. [N]

    Args:
        weight: At its crown. [N]

    Source: roark, two-hinged circular arch: H = P/π
    """
    return np.asarray(weight / math.pi)


def tube_critical(row: rows.Post, rise: float, stiff: float) -> float:
    """Return the weight under which a tube arch sways away. [N]

    Its legs are stiff at the crown; at the soil they are hinged, or kept upright by posts as high as `stiff`.

    Args:
        row: The tube.
        rise: From the soil to the crown. [m]
        stiff: Height of the posts that keep its legs upright; 0 where they are hinged. [m]

    Source: handbook-9.5
    """
    return 2.0 * column.euler_load(bending.stiffness(row), max(rise - stiff, 0.1), 1.0 if stiff else 2.0)


def tube(
    row: rows.Post, wind: Array, height: Array, weight: Array, span: float, rise: float, stiff: float
) -> Check:
    """Return the check of a tube arch bent by the wind across it and by the crop at its crown.

    Args:
        row: The tube.
        wind: Across one arch. [N]
        height: At which it acts. [m]
        weight: Of arch and crop. [N]
        span: From foot to foot. [m]
        rise: Of the crown. [m]
        stiff: Height up to which posts keep the legs upright; above them they bend both ways. [m]

    Source: handbook-9.5 for the wind, roark for the crown
    """
    bears = bending.moments(row)
    amplified = column.amplification(weight, tube_critical(row, rise, stiff))
    lever = np.maximum(height - stiff, 0.1) / (2.0 if stiff else 1.0)
    hung = weight * span * _CROWN
    demand = np.asarray(wind / 2 * lever * amplified + hung)
    return Check(
        "arch-tube",
        demand,
        bears.allowable,
        bears.median,
        "moment",
        "handbook-9.5",
        tables.materials()[row.material].certainty,
        {
            "wind": (wind, "force"),
            "lever": (lever, "length"),
            "amplified": (amplified, "ratio"),
            "weight": (weight, "force"),
            "span": (span, "length"),
            "hung": (hung, "moment"),
            "demand": (demand, "moment"),
        },
        bending.stuff_of(row),
    )


def tube_sway(row: rows.Post, weight: Array, rise: float, stiff: float) -> Check:
    """Return the check that a tube arch keeps its shape under its crop.

    Args:
        row: The tube.
        weight: On one arch. [N]
        rise: From the soil to the crown. [m]
        stiff: Height of the posts that keep its legs upright; 0 where they are hinged. [m]

    Source: handbook-9.5
    """
    critical = tube_critical(row, rise, stiff)
    return Check(
        "arch-tube-sway",
        weight,
        critical / tables.constant("sway"),
        critical,
        "force",
        "handbook-9.5",
        "judgement",
        {"weight": (weight, "force"), "critical": (critical, "force"), "rise": (rise, "length")},
        bending.stuff_of(row),
    )


def tube_sway_per_force(row: rows.Post, height: Array, rise: float, stiff: float) -> Array:
    """Return how far the crown of a tube arch moves over per force across it. [m/N]

    Args:
        row: The tube.
        height: Of the crown above the soil. [m]
        rise: From the soil to the crown. [m]
        stiff: Height of the posts that keep its legs upright; 0 where they are hinged. [m]

    Source: handbook-9.5
    """
    free = max(rise - stiff, 0.1)
    return np.asarray(
        np.maximum(height - stiff, 0.1) * free**2 / ((24.0 if stiff else 6.0) * bending.stiffness(row))
    )


def over_pull(load: Array, bay: float) -> Array:
    """Return the pull of a line over the top that hangs down by a twentieth of its bay. [N]

    Args:
        load: On it, over its length. [N/m]
        bay: Distance between supports. [m]

    Source: handbook-6.2
    """
    return np.asarray(cable.sag_pull(load, bay, _OVER_SAG * bay))
