"""Lines that pull their ends in because a belly is longer than its chord: a forced movement, which relieves
itself as the ends give.
"""

from __future__ import annotations

import numpy as np

from . import Array, Number


def tied_bays(bays: int) -> float:
    """Return over how many bays' shortening an end post comes in, where a line is tied to every post of a
    row.

    As the end yields the next post takes up the difference, so the pull grows from bay to bay, H, 2H, 3H …,
    and the shortening falls with its square: ½ for a single bay between two ends, Σ 1/i² over half the bays
    for more, at most π²/6.

    Args:
        bays: Number of bays. [-]

    Returns:
        Bays.

    Source: limit-analysis
    """
    half = bays // 2
    return float(sum(1.0 / i**2 for i in range(1, half + 1)) + (0.5 / (half + 1) ** 2 if bays % 2 else 0.0))


def with_ends(axial: float, end_stiffness: Number, span: float, bays: float) -> Array:
    """Return the axial stiffness of a line together with an end that comes in for so many bays, 1/(1/EA +
    1/(k n L)).

    Args:
        axial: Axial stiffness EA of the line. [N]
        end_stiffness: Stiffness of an end. [N/m]
        span: Of a bay. [m]
        bays: Bays whose shortening one end takes. [-]

    Returns:
        Stiffness EA of a rigidly held line that behaves alike. [N]

    Source: handbook-6.4
    """
    return np.asarray(1.0 / (1.0 / axial + 1.0 / (np.asarray(end_stiffness, dtype=float) * span * bays)))


def belly_after(give: Number, span: float, bays: float, stretch: float = 0.0) -> Array:
    """Return the belly of a line whose end has come in so far, √(3/8 L (g/n + ε L)): its arc is 8/3 f²/L
    longer than its chord.

    Args:
        give: How far one end has come in. [m]
        span: Of a bay. [m]
        bays: Bays whose shortening that end takes. [-]
        stretch: Lengthening of the line itself, over its length. [-]

    Returns:
        Belly. [m]

    Source: irvine-1981
    """
    return np.asarray(np.sqrt(0.375 * span * (np.asarray(give, dtype=float) / bays + stretch * span)))


def pull_at(load: Number, span: float, belly: Number, beam: Number = 0.0) -> Array:
    """Return the pull of a line that hangs with a given belly under a load of which it carries a part by
    bending, (w − w_b) L²/(8 f).

    Args:
        load: Per length. [N/m]
        span: Of a bay. [m]
        belly: At the middle of the bay. [m]
        beam: Load it carries by bending at that belly. [N/m]

    Returns:
        Pull, none where bending carries all. [N]

    Source: irvine-1981
    """
    return np.asarray(
        np.maximum(np.asarray(load, dtype=float) - beam, 0.0) * span**2 / (8.0 * np.maximum(belly, 1e-9))
    )


def yielded_belly(load: Number, span: float, pull: Number, bending: float) -> Array:
    """Return the belly at which bending and a pull that grows no more carry a load, w/(384 EI/(5 L⁴) + 8
    H/L²).

    Args:
        load: Per length. [N/m]
        span: Of a bay. [m]
        pull: At which the ends yield. [N]
        bending: Bending stiffness EI. [N·m²]

    Returns:
        Belly. [m]

    Source: irvine-1981
    """
    return np.asarray(
        load / (384.0 * bending / (5.0 * span**4) + 8.0 * np.asarray(pull, dtype=float) / span**2 + 1e-12)
    )
