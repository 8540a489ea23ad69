"""Straight beams and cantilevers under transverse load."""

from __future__ import annotations

from . import Number


def cantilever_tip(force: Number, low: Number, high: Number, length: float, stiffness: float) -> Number:
    """Return the tip deflection of a cantilever under a force spread evenly over part of its length.

    With w = F/(z2 − z1): g(z2) − g(z1), g(z) = w/(6 EI) (L z³ − z⁴/4).

    Args:
        force: Transverse force. [N]
        low: Where it begins, from the fixed end. [m]
        high: Where it ends, above its beginning and at most the length. [m]
        length: Length of the cantilever. [m]
        stiffness: Bending stiffness EI. [N·m²]

    Returns:
        Deflection of the tip. [m]

    Source: timoshenko-beams
    """

    def up_to(z: Number) -> Number:
        return length * z**3 - z**4 / 4

    return force / (high - low) * (up_to(high) - up_to(low)) / (6 * stiffness)


def span_moment(load: Number, span: float) -> Number:
    """Return the greatest moment of a simple span under a uniform load.

    Args:
        load: Load per length. [N/m]
        span: Distance between supports. [m]

    Returns:
        Moment at mid-span. [N·m]

    Source: timoshenko-beams
    """
    return load * span**2 / 8


def span_sag(load: Number, span: float, stiffness: float) -> Number:
    """Return the deflection at the middle of a simple span under a uniform load.

    Args:
        load: Load per length. [N/m]
        span: Distance between supports. [m]
        stiffness: Bending stiffness EI. [N·m²]

    Returns:
        Deflection at mid-span. [m]

    Source: timoshenko-beams
    """
    return 5 * load * span**4 / (384 * stiffness)


def propped_give(arm: float, prop: float, stiffness: float) -> float:
    """Return the movement per force of a beam hinged at its foot and at a prop, from its bending alone.

    Between foot and prop a²b²/(3 EI L); past the prop c²(L + c)/(3 EI).

    Args:
        arm: Distance of the force from the foot. [m]
        prop: Distance of the prop from the foot. [m]
        stiffness: Bending stiffness EI. [N·m²]

    Returns:
        Movement where the force acts. [m/N]

    Source: timoshenko-beams
    """
    past = arm - prop
    if past > 0:
        return past**2 * arm / (3 * stiffness)
    return arm**2 * past**2 / (3 * stiffness * prop)
