"""What holds a guy in the ground: buried weights, screws, weights on top, driven stakes."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from . import Array, Number

_BREAKOUT = ((25.0, 0.03, 3.0), (30.0, 0.05, 4.0), (35.0, 0.10, 5.0), (40.0, 0.15, 7.0), (45.0, 0.25, 9.0))


class Held(NamedTuple):
    """What a buried weight holds upward and along. [N]"""

    up: float
    along: float


def deadman(mass: float, top: float, height: float, width: float, length: float, phi: float, gamma: float, spread: float = 0.0) -> Held:
    """Return what a buried weight holds before it lifts or ploughs through the soil.

    Up: its weight and the earth that comes up with it, a frustum that widens from its top by `spread` on all sides,
    γ top (A + A' + √(A A'))/3. Along: (Kp − Ka) γ width ((top + height)² − top²)/2.

    Args:
        mass: Mass of the stones or log. [kg]
        top: Depth of its top. [m]
        height: Its height. [m]
        width: Its width, square to the guy. [m]
        length: Its length, along the guy. [m]
        phi: Friction angle of the soil rammed back. [rad]
        gamma: Unit weight of that soil. [N/m³]
        spread: Angle from upright at which the earth breaks out. [rad]

    Returns:
        Upward and horizontal hold. [N]

    Source: handbook-7.6
    """
    passive = math.tan(math.pi / 4 + phi / 2) ** 2
    wider = 2 * top * math.tan(spread)
    low, high = width * length, (width + wider) * (length + wider)
    up = mass * 9.81 + gamma * top * (low + high + math.sqrt(low * high)) / 3
    along = (passive - 1 / passive) * gamma * width * ((top + height) ** 2 - top**2) / 2
    return Held(up, along)


def helix_clay(cu: Number, diameter: float, depth: float) -> Number:
    """Return the ultimate pull of a screw anchor in clay, A cu Nc with Nc = min(9, 1.2 H/D).

    Args:
        cu: Undrained shear strength. [Pa]
        diameter: Of the plate. [m]
        depth: Of the plate. [m]

    Returns:
        Ultimate pull along the shaft. [N]

    Source: das-anchors
    """
    return math.pi * diameter**2 / 4 * cu * min(9.0, 1.2 * depth / diameter)


def helix_sand(phi: float, gamma: float, diameter: float, depth: float) -> float:
    """Return the ultimate pull of a screw anchor in sand, Fq γ A H with Fq = 1 + 2 (1 + m r) r Ku tan φ.

    m and the greatest r = H/D stand in a table of the friction angle; Ku = 0.95.

    Args:
        phi: Friction angle, 25 to 45 degrees. [rad]
        gamma: Unit weight. [N/m³]
        diameter: Of the plate. [m]
        depth: Of the plate. [m]

    Returns:
        Ultimate pull along the shaft. [N]

    Source: meyerhof-adams-1968
    """
    angles, ms, most = zip(*_BREAKOUT, strict=True)
    degrees = math.degrees(phi)
    m, ratio = float(np.interp(degrees, angles, ms)), min(depth / diameter, float(np.interp(degrees, angles, most)))
    factor = 1.0 + 2.0 * (1.0 + m * ratio) * ratio * 0.95 * math.tan(phi)
    return factor * gamma * math.pi * diameter**2 / 4 * depth


def weight_on_ground(weight: Number, friction: float, angle: float) -> tuple[Number, Number]:
    """Return the pulls at which a weight lying on the ground slides, and lifts.

    Args:
        weight: Its weight. [N]
        friction: Between it and the ground.
        angle: Of the guy from the ground. [rad]

    Returns:
        Pull at which it slides, and at which it lifts. [N]

    Source: handbook-7.6
    """
    slides = friction * weight / (math.cos(angle) + math.sin(angle) * friction)
    return slides, weight / math.sin(angle) if angle > 0 else np.inf * weight


def driven_stake(across: Number, along: Number, angle: float, lean: float) -> Array:
    """Return the pull of a guy at ground level that a driven stake holds, 1/(sin δ/H + max(0, cos δ)/Q).

    δ = 90° − β + lean is the angle between the guy and the stake.

    Args:
        across: Ultimate lateral load of the stake at the ground, H. [N]
        along: Ultimate pull-out of the stake by friction, Q. [N]
        angle: Of the guy from the ground, β. [rad]
        lean: Of the stake away from the pull, from upright. [rad]

    Returns:
        Ultimate tension of the guy. [N]

    Source: handbook-7.6
    """
    delta = math.pi / 2 - angle + lean
    return np.asarray(1.0 / (math.sin(delta) / across + max(0.0, math.cos(delta)) / along))
