"""Lateral grip of short posts in soil."""

from __future__ import annotations

import math

import numpy as np

from . import Array, Number

CLAY_PIVOT = 0.70  # depth about which a post turns in clay-type soil over its depth, structures handbook 5.3


def broms_clay(cu: Number, width: float, depth: float, height: Number, ignored: float) -> Array:
    """Return the ultimate lateral load of a short free-headed post in clay-type soil.

    Nothing acts down to d0 = max(1.5 b, ignored), then 9 cu b. With f = H/(9 cu b) and
    g = L − d0 − f, H (e + d0 + f/2) = 2.25 b g² cu, a quadratic in f.

    Args:
        cu: Undrained shear strength. [Pa]
        width: Width of the post against the soil. [m]
        depth: Embedded length. [m]
        height: Height of the load above ground. [m]
        ignored: Top layer that is not counted. [m]

    Returns:
        Ultimate lateral load at that height. [N]

    Source: broms-1964a
    """
    d0 = max(1.5 * width, ignored)
    active = max(depth - d0, 0.0)
    b = 4.0 * (np.asarray(height, dtype=float) + d0) + 2.0 * active
    f = 0.5 * (np.sqrt(b**2 + 4.0 * active**2) - b)
    return np.asarray(9.0 * cu * width * f)


def wide_clay(cu: float, width: float, depth: float, height: Number) -> Array:
    """Return the ultimate lateral load of a short wide pier in clay-type soil, whose grip grows from the
    surface.

    A slim post soon reaches the 9 cu of soil that flows round it; before a pier as wide as half its depth a
    wedge breaks out upward, p = (3 + z/2b) cu ≤ 9 cu. It turns as a rigid body about the depth zr at which
    forces and moments balance.

    Args:
        cu: Undrained shear strength. [Pa]
        width: Width of the pier against the soil. [m]
        depth: Embedded length. [m]
        height: Height of the load above ground. [m]

    Returns:
        Ultimate lateral load at that height. [N]

    Source: matlock-1970
    """
    z = np.linspace(0.0, depth, 401)
    pressure = np.minimum(3.0 + 0.5 * z / width, 9.0) * cu * width
    force, moment = (
        np.concatenate([[0.0], np.cumsum((y[1:] + y[:-1]) / 2 * np.diff(z))])
        for y in (pressure, pressure * z)
    )
    held, turned = 2 * force - force[-1], moment[-1] - 2 * moment
    turning = np.flatnonzero((held > 1e-9) & (turned >= 0.0))  # pivots from low loads down to high ones
    levers = turned[turning] / held[turning]
    return np.asarray(np.interp(np.asarray(height, dtype=float), levers[::-1], held[turning][::-1]))


def broms_sand(phi: float, gamma: float, width: float, depth: float, height: Number, ignored: float) -> Array:
    """Return the ultimate lateral load of a short free-headed post in sand-type soil.

    Pressure 3 Kp γ z b, Kp = tan²(45° + φ/2); the ignored layer keeps its weight.

    Args:
        phi: Friction angle. [rad]
        gamma: Unit weight. [N/m³]
        width: Width of the post against the soil. [m]
        depth: Embedded length. [m]
        height: Height of the load above ground. [m]
        ignored: Top layer that is not counted. [m]

    Returns:
        Ultimate lateral load at that height. [N]

    Source: broms-1964b
    """
    passive = math.tan(math.pi / 4 + phi / 2) ** 2
    top = min(ignored, depth)
    lever = depth**3 / 6 - (depth * top**2 / 2 - top**3 / 3)
    return np.asarray(3.0 * passive * gamma * width * lever / (np.asarray(height, dtype=float) + depth))


def two_layer(
    upper: tuple[float, float],
    lower: tuple[float, float],
    interface: float,
    width: float,
    depth: float,
    height: Number,
) -> Array:
    """Return the ultimate lateral load of a short post through one layer into another.

    Hu = ∫ p(z)·|zr − z| dz / (e + zr), p = constant + slope·z of the layer at z; zr = 0.70 L when
    the lower layer is clay-type (a constant pressure), else L.

    Args:
        upper: Pressure per width of the upper layer: constant [Pa] and slope [Pa/m].
        lower: The same for the lower layer.
        interface: Depth of the boundary. [m]
        width: Width of the post against the soil. [m]
        depth: Embedded length. [m]
        height: Height of the load above ground. [m]

    Returns:
        Ultimate lateral load at that height. [N]

    Source: handbook-5.3
    """
    pivot = CLAY_PIVOT * depth if lower[0] > 0 else depth
    z = np.linspace(0.0, depth, 401)
    constant = np.where(z < interface, upper[0], lower[0])
    slope = np.where(z < interface, upper[1], lower[1])
    moment = np.trapezoid((constant + slope * z) * np.abs(pivot - z), z) * width
    return np.asarray(moment / (np.asarray(height, dtype=float) + pivot))


def loose_top(slope: float, thick: float, width: float, pivot: float, height: Number) -> Array:
    """Return what a loose top adds to a post's lateral load, ∫ slope z (zr − z) dz b/(e + zr) over its
    thickness.

    Args:
        slope: Growth of its pressure per width with depth. [Pa/m]
        thick: Its thickness, at most down to the pivot. [m]
        width: Width of the post against the soil. [m]
        pivot: Depth about which the post turns. [m]
        height: Height of the load above ground. [m]

    Returns:
        Added ultimate lateral load. [N]

    Source: handbook-5.3
    """
    return np.asarray(
        slope * width * (pivot * thick**2 / 2 - thick**3 / 3) / (np.asarray(height, dtype=float) + pivot)
    )


def plate_grip(pressure: float, area: float, depth: float, height: Number) -> Array:
    """Return what an anchor plate at half depth adds to a post's lateral load.

    Args:
        pressure: Soil pressure on the plate. [Pa]
        area: Net area of the plate. [m²]
        depth: Embedded length. [m]
        height: Height of the load above ground. [m]

    Returns:
        Added ultimate lateral load. [N]

    Source: handbook-5.3
    """
    pivot = 0.8 * depth
    return np.asarray(pressure * area * (pivot - depth / 2) / (np.asarray(height, dtype=float) + pivot))


def ibc_pole(
    pressure_gradient: float, width: float, depth: float, height: Number, tolerance: float = 2.0
) -> Array:
    """Return the lateral load the building code allows on an unconstrained pole.

    The closed inverse of d = 0.5 A (1 + √(1 + 4.36 h/A)), A = 2.34 P/(S1 b), S1 = f S d/3.

    Args:
        pressure_gradient: Allowable lateral bearing per depth S. [Pa/m]
        width: Diameter, or diagonal of a square post. [m]
        depth: Embedded length. [m]
        height: Height of the load above ground. [m]
        tolerance: 2 for isolated poles that may move 12 mm at the surface, else 1.

    Returns:
        Allowable lateral load at that height. [N]

    Source: ibc-1807
    """
    bearing = tolerance * pressure_gradient * depth / 3.0
    return np.asarray(bearing * width * depth**2 / (2.34 * (depth + 1.09 * np.asarray(height, dtype=float))))


def clay_movement(modulus: Number, depth: float, height: Number) -> tuple[Number, Number]:
    """Return how a rigid short post moves per force in soil of constant modulus.

    Args:
        modulus: Modulus of lateral reaction k. [N/m²]
        depth: Embedded length. [m]
        height: Height of the force above ground. [m]

    Returns:
        Movement at ground [m/N] and rotation [rad/N].

    Source: broms-1964a
    """
    return 4 * (1 + 1.5 * height / depth) / (modulus * depth), 6 * (1 + 2 * height / depth) / (
        modulus * depth**2
    )


def sand_movement(modulus: Number, depth: float, height: Number) -> tuple[Number, Number]:
    """Return how a rigid short post moves per force in soil whose modulus grows with depth.

    Args:
        modulus: Growth of the modulus with depth nh. [N/m³]
        depth: Embedded length. [m]
        height: Height of the force above ground. [m]

    Returns:
        Movement at ground [m/N] and rotation [rad/N].

    Source: terzaghi-1955
    """
    return (
        18 * (1 + 4 / 3 * height / depth) / (modulus * depth**2),
        24 * (1 + 1.5 * height / depth) / (modulus * depth**3),
    )
