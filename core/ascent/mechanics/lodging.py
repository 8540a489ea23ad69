"""Living stems that carry a climber: bending of the stem, hold of its roots, and how it gives way to the
wind.
"""

from __future__ import annotations

import numpy as np

from . import Array, Number


def root_anchorage(strength: Number, plate: float) -> Number:
    """Return the moment at which a stem's root plate turns over in the soil, 0.43 s d³.

    Args:
        strength: Shear strength of the soil. [Pa]
        plate: Diameter of the root plate. [m]

    Returns:
        Moment at the soil line. [N·m]

    Source: baker-1998
    """
    return 0.43 * strength * plate**3


def free_streamlining(speed: Number) -> Array:
    """Return the share of drag left to a plant that stands free and bends with the wind.

    Leaves and stem both give: drag grows with the first power of speed past 5 m/s (an exponent of −1).

    Args:
        speed: Gust at the plant. [m/s]

    Returns:
        1 up to 5 m/s, then 5/v.

    Source: vogel-1989
    """
    return np.asarray(5.0 / np.maximum(np.asarray(speed, dtype=float), 5.0))


def row_shelter(rows: int, follower: float) -> float:
    """Return the mean share of the wind on one row of a block, the first row taking all of it. [-]

    Args:
        rows: Rows one behind the other.
        follower: Share that a row behind another takes.

    Returns:
        (1 + follower (n − 1))/n.

    Source: handbook-1.6
    """
    return (1.0 + follower * (rows - 1)) / rows
