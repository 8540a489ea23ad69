"""What holds a guy in the ground: buried weights, screws, weights on top, driven stakes."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from . import Number

_BREAKOUT = ((25.0, 0.03, 3.0), (30.0, 0.05, 4.0), (35.0, 0.10, 5.0), (40.0, 0.15, 7.0), (45.0, 0.25, 9.0))


class AnchorHold(NamedTuple):
    """What a buried weight holds upward and along. [N]"""

    up: float
    along: float


def deadman(
    mass: float,
    top: float,
    height: float,
    width: float,
    length: float,
    phi: float,
    gamma: float,
    spread: float = 0.0,
) -> AnchorHold:
    """Return what a buried weight holds before it lifts or ploughs through the soil.

    Up: its weight and the earth that comes up with it, a frustum that widens from its top by `spread` on all
    sides, γ top (A + A' + √(A A'))/3. Along: (Kp − Ka) γ width ((top + height)² − top²)/2.

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
    return AnchorHold(up, along)


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
