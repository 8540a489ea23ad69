"""Shallow cables: tension and sag under a uniform load."""

from __future__ import annotations

import numpy as np

from . import Array, Number


def effective_stiffness(axial: float, end_stiffness: Number, span: float) -> Array:
    """Return the axial stiffness of a cable together with its two springy ends.

    Args:
        axial: Axial stiffness EA of the cable. [N]
        end_stiffness: Stiffness of each end. [N/m]
        span: Distance between supports. [m]

    Returns:
        Stiffness EA of a rigidly held cable that behaves alike. [N]

    Source: handbook-6.4
    """
    return np.asarray(1.0 / (1.0 / axial + 2.0 / (np.asarray(end_stiffness, dtype=float) * span)))


def loaded_tension(load: Number, span: float, pretension: Number, stiffness: Number) -> Array:
    """Return the horizontal tension of a shallow elastic cable, H²(H − T0) = EA w² L²/24.

    Args:
        load: Load per length of span. [N/m]
        span: Distance between supports. [m]
        pretension: Tension with no load. [N]
        stiffness: Axial stiffness EA, ends included. [N]

    Returns:
        Horizontal tension under the load. [N]

    Source: irvine-1981
    """
    right = np.asarray(stiffness * np.asarray(load, dtype=float) ** 2 * span**2 / 24.0)
    tension = np.maximum(np.cbrt(right), pretension) + 1e-12
    for _ in range(12):
        tension = tension - (tension**2 * (tension - pretension) - right) / (
            3 * tension**2 - 2 * pretension * tension + 1e-12
        )
    return np.asarray(tension)


def beam_cable(load: Number, span: float, bending: float, axial: Number) -> tuple[Array, Array, Array]:
    """Return how a wire between two posts shares a load between bending and hanging.

    Both carry the same mid-span deflection δ: w = 384 EI δ/(5 S⁴) + 64 EA δ³/(3 S⁴).

    Args:
        load: Load per length. [N/m]
        span: Distance between supports. [m]
        bending: Bending stiffness EI. [N·m²]
        axial: Axial stiffness EA, ends included. [N]

    Returns:
        Deflection [m], bending moment [N·m] and tension [N] at mid-span.

    Source: irvine-1981
    """
    w = np.asarray(load, dtype=float)
    a, c = 384.0 * bending / (5.0 * span**4), 64.0 * np.asarray(axial, dtype=float) / (3.0 * span**4)
    # Cardano for a δ + c δ³ = w, which has one real root for a, c > 0
    p, q = a / c, w / c
    root = np.sqrt((q / 2) ** 2 + (p / 3) ** 3)
    deflection = np.cbrt(q / 2 + root) + np.cbrt(q / 2 - root)
    return (
        np.asarray(deflection),
        a * deflection * span**2 / 8.0,
        axial * (8.0 / 3.0) * (deflection / span) ** 2,
    )


def sag_pull(load: Number, span: float, sag: Number) -> Number:
    """Return the horizontal tension of a shallow cable whose sag is given, w L²/(8 f).

    Args:
        load: Load per length of span. [N/m]
        span: Distance between supports. [m]
        sag: Drop at mid-span, at most an eighth of the span. [m]

    Returns:
        Horizontal tension. [N]

    Source: handbook-6.2
    """
    return load * span**2 / (8.0 * sag)


def heat_slack(span: float, change: float, expansion: float) -> float:
    """Return the extra length of a wire that is warmer than on the day it was tightened; negative when
    colder.

    Args:
        span: Distance between supports. [m]
        change: How much warmer. [K]
        expansion: Thermal expansion. [1/K]

    Returns:
        Extra length. [m]

    Source: handbook-6.6
    """
    return span * change * expansion


def elastic_tension(
    load: Number,
    span: float,
    pretension: Number,
    axial: float,
    end_stiffness: Number,
    spans: int = 1,
    slack: float = 0.0,
) -> Array:
    """Return the horizontal tension of an elastic wire that slides over its supports between two springy
    ends.

    With H the tension, u = w L/(2H): (½ (√(1+u²) + asinh(u)/u) − H/EA (1 + u²/3)) r = 1/(1 + T0/EA) +
    slack/L, r = 1 − 2 (H − T0)/(k n L): the length the load needs is what stretching, slack and the ends
    give. All cases at once by Newton's method in ln H, from the shallow cable's answer.

    Args:
        load: Load per length of span. [N/m]
        span: Distance between supports. [m]
        pretension: Tension with no load. [N]
        axial: Axial stiffness EA of the wire. [N]
        end_stiffness: Stiffness of each end. [N/m]
        spans: Number of equal spans.
        slack: Extra length in a span, from stretching or heat; negative when it is colder. [m]

    Returns:
        Horizontal tension. [N]

    Source: handbook-6.4
    """
    w, k = np.asarray(load, dtype=float), np.asarray(end_stiffness, dtype=float)
    start = loaded_tension(
        w,
        span,
        np.maximum(pretension - slack / span * axial, 1.0),
        effective_stiffness(axial, k, spans * span),
    )
    need = 1.0 / (1.0 + np.asarray(pretension) / axial) + slack / span
    log = np.log(np.maximum(start, 1e-3))
    for _ in range(9):
        pull = np.exp(log)
        u = np.maximum(w * span / (2.0 * pull), 1e-5)
        root = np.sqrt(1.0 + u**2)
        arc = np.arcsinh(u) / u
        give = 2.0 / (k * spans * span)
        left = 1.0 - give * (pull - pretension)
        length, strain = 0.5 * (root + arc), pull / axial
        error = (length - strain * (1.0 + u**2 / 3.0)) * left - need
        slope = (-0.5 * (root - arc) - strain * (1.0 - u**2 / 3.0)) * left - (
            length - strain * (1.0 + u**2 / 3.0)
        ) * give * pull
        log = log - np.clip(error / slope, -0.7, 0.7)
    return np.exp(log)
