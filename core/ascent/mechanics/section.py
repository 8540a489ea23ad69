"""Properties of cross-sections about the axis through the centroid."""

from __future__ import annotations

import math
from typing import NamedTuple


class SectionProperties(NamedTuple):
    """Area [m²]; second moment [m⁴], elastic and plastic section modulus [m³] one way, and the other way."""

    A: float
    I: float
    S: float
    Z: float
    I_other: float
    S_other: float
    Z_other: float


def round_bar(d: float) -> SectionProperties:
    """Return the properties of a solid round bar.

    Args:
        d: Diameter. [m]

    Returns:
        The properties, the same both ways.

    Source: roark
    """
    one = math.pi * d**4 / 64, math.pi * d**3 / 32, d**3 / 6
    return SectionProperties(math.pi * d**2 / 4, *one, *one)


def tube(d: float, wall: float) -> SectionProperties:
    """Return the properties of a round tube.

    Args:
        d: Outside diameter. [m]
        wall: Wall thickness. [m]

    Returns:
        The properties, the same both ways.

    Source: roark
    """
    inner = d - 2 * wall
    second = math.pi * (d**4 - inner**4) / 64
    one = second, 2 * second / d, (d**3 - inner**3) / 6
    return SectionProperties(math.pi * (d**2 - inner**2) / 4, *one, *one)


def rectangle(width: float, depth: float) -> SectionProperties:
    """Return the properties of a rectangle bent in the plane of its depth.

    Args:
        width: Side across the bending. [m]
        depth: Side along the bending. [m]

    Returns:
        The properties, first as laid, then the other way.

    Source: roark
    """
    return SectionProperties(
        width * depth,
        width * depth**3 / 12,
        width * depth**2 / 6,
        width * depth**2 / 4,
        depth * width**3 / 12,
        depth * width**2 / 6,
        depth * width**2 / 4,
    )


def tee(side: float, thickness: float) -> SectionProperties:
    """Return the properties of an equal-leg tee bent in the plane of its stem, stem tip governing.

    Args:
        side: Flange width and overall depth. [m]
        thickness: Thickness of flange and stem. [m]

    Returns:
        The properties, first in the stem's plane, then in the flange's.

    Source: roark
    """
    flange, web = side * thickness, side - thickness
    stem = web * thickness
    area = flange + stem
    centroid = (flange * thickness / 2 + stem * (side + thickness) / 2) / area
    second = (
        side * thickness**3 / 12
        + flange * (centroid - thickness / 2) ** 2
        + thickness * web**3 / 12
        + stem * ((side + thickness) / 2 - centroid) ** 2
    )
    half = area / 2 / side  # the axis of equal areas lies in the flange, as the flange is the larger half
    plastic = side * half**2 / 2 + side * (thickness - half) ** 2 / 2 + stem * ((side + thickness) / 2 - half)
    second_other = thickness * side**3 / 12 + web * thickness**3 / 12
    plastic_other = thickness * side**2 / 4 + web * thickness**2 / 4
    return SectionProperties(
        area,
        second,
        second / (side - centroid),
        plastic,
        second_other,
        2 * second_other / side,
        plastic_other,
    )
