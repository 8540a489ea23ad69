"""Slender members in compression."""

from __future__ import annotations

import math

import numpy as np

from . import Array, Number


def euler_load(stiffness: float, length: float, effective: float = 1.0) -> float:
    """Return the critical load of a slender column.

    Args:
        stiffness: Bending stiffness EI. [N·m²]
        length: Length. [m]
        effective: Effective-length factor K: 1 hinged, 2 cantilever.

    Returns:
        Critical load. [N]

    Source: timoshenko-gere
    """
    return math.pi**2 * stiffness / (effective * length) ** 2


def amplification(weight: Number, critical: Number) -> Array:
    """Return the factor by which a weight on top raises the moment from a side load.

    Args:
        weight: Weight at the top. [N]
        critical: Critical load of the column. [N]

    Returns:
        Factor, at least 1; 1e9 where the column cannot stand, so that any side load is too much.

    Source: timoshenko-gere
    """
    share = np.asarray(weight, dtype=float) / critical
    return np.where(share < 1.0, 1.0 / np.where(share < 1.0, 1.0 - share, 1.0), 1e9)
