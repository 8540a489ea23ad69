"""Legs that lean together and are tied where they meet: a pair across a row, or three and more round a
circle.
"""

from __future__ import annotations

import math

import numpy as np

from . import Array, Number


def lever(legs: int) -> float:
    """Return by how many radii the up and down at the feet take a side load: 2 for a pair, half the legs
    round a circle.

    Args:
        legs: Number of legs. [-]

    Returns:
        k of ΔV = moment/(k radius).

    Source: handbook-9.2
    """
    return 2.0 if legs == 2 else legs / 2.0


def slope(radius: float, height: float) -> float:
    """Return the angle of a leg from the ground.

    Args:
        radius: From the middle to a foot. [m]
        height: Of the place where the legs meet. [m]

    Returns:
        Angle. [rad]

    Source: handbook-9.1
    """
    return math.atan2(height, radius)


def leg_push(weight: Number, apex: Number, legs: int, angle: float) -> Array:
    """Return the push in the most pressed leg, W/(n sin a) + F/(k cos a).

    Args:
        weight: Carried by all legs. [N]
        apex: Side load, brought to where they meet. [N]
        legs: Number of legs. [-]
        angle: Of a leg from the ground. [rad]

    Returns:
        Push along the leg. [N]

    Source: handbook-9.2
    """
    return np.asarray(weight / (legs * math.sin(angle)) + apex / (lever(legs) * math.cos(angle)))


def leg_pull(weight: Number, apex: Number, legs: int, angle: float) -> Array:
    """Return the pull in the leg that is lifted, F/(k cos a) − W/(n sin a), none where the weight is enough.

    Args:
        weight: Carried by all legs. [N]
        apex: Side load, brought to where they meet. [N]
        legs: Number of legs. [-]
        angle: Of a leg from the ground. [rad]

    Returns:
        Pull along the leg. [N]

    Source: handbook-9.2
    """
    return np.asarray(
        np.maximum(apex / (lever(legs) * math.cos(angle)) - weight / (legs * math.sin(angle)), 0.0)
    )


def thrust(weight: Number, legs: int, angle: float) -> Array:
    """Return how hard each foot pushes outward under the weight, W/(n tan a).

    Args:
        weight: Carried by all legs. [N]
        legs: Number of legs. [-]
        angle: Of a leg from the ground. [rad]

    Returns:
        Outward push of a foot. [N]

    Source: handbook-9.2
    """
    return np.asarray(weight / (legs * math.tan(angle)))


def spread_thrust(weight: Number, legs: int, angle: float) -> Array:
    """Return how hard each foot pushes outward under a weight spread evenly along the legs, W/(2 n tan a):
    half of it stands on the feet.

    Args:
        weight: Carried by all legs. [N]
        legs: Number of legs. [-]
        angle: Of a leg from the ground. [rad]

    Returns:
        Outward push of a foot. [N]

    Source: handbook-9.1
    """
    return np.asarray(weight / (2 * legs * math.tan(angle)))


def tipping_arm(radius: float, legs: int) -> float:
    """Return how far the middle is from the edge over which legs tip: r cos(π/n), half the spread of a pair.

    Args:
        radius: From the middle to a foot. [m]
        legs: Number of legs. [-]

    Returns:
        Arm. [m]

    Source: handbook-9.2
    """
    return radius if legs == 2 else radius * math.cos(math.pi / legs)


def ring_width(radius: float, legs: int) -> float:
    """Return the mean width of a regular polygon seen from all sides: its perimeter over π (Cauchy).

    Args:
        radius: From the middle to a corner. [m]
        legs: Number of corners, three or more. [-]

    Returns:
        Mean width. [m]

    Source: cauchy-width
    """
    return 2.0 * legs * radius * math.sin(math.pi / legs) / math.pi


def tapered(wide: Number, added: Number, low: Number, high: Number, height: float) -> tuple[Array, Array]:
    """Return the area and the middle of a face that narrows to nothing at a height, with a margin all the way
    up.

    Its width at z is wide (1 − z/height) + added.

    Args:
        wide: At the ground. [m]
        added: Margin, the same at all heights. [m]
        low: Where the face begins. [m]
        high: Where it ends. [m]
        height: At which it would narrow to nothing. [m]

    Returns:
        Area [m²] and height of its middle [m].

    Source: handbook-1.6
    """
    low, high = (
        np.asarray(low, dtype=float),
        np.maximum(np.asarray(high, dtype=float), np.asarray(low, dtype=float)),
    )
    one, two, three = high - low, (high**2 - low**2) / 2, (high**3 - low**3) / 3
    area = (wide + added) * one - wide / height * two
    first = (wide + added) * two - wide / height * three
    return np.asarray(area), np.asarray(first / np.maximum(area, 1e-9))
