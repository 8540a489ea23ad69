"""Wind: pressure, drag of porous faces, the bending away of leaves, the spread of gusts."""

from __future__ import annotations

import numpy as np

from . import Array, Number

AIR_DENSITY = 1.225


def gust_pressure(speed: Number) -> Number:
    """Return the velocity pressure of a gust, ½ ρ v² with ρ = 1.225 kg/m³.

    Args:
        speed: 3-second gust at the plant. [m/s]

    Returns:
        Velocity pressure. [Pa]

    Source: asce-7-26
    """
    return 0.5 * AIR_DENSITY * speed**2


def mesh_solidity(wire: float, along: float, up: float) -> float:
    """Return the solid share of a rectangular mesh.

    Args:
        wire: Wire diameter. [m]
        along: Centre distance of the upright wires. [m]
        up: Centre distance of the level wires. [m]

    Returns:
        Projected solid area over gross area.

    Source: handbook-1.5
    """
    return 1.0 - (1.0 - wire / along) * (1.0 - wire / up)


def mixed_solidity(*shares: Number) -> Array:
    """Return the solid share of screens that overlap at random.

    Args:
        shares: Solid share of each.

    Returns:
        Solid share of all together.

    Source: handbook-1.5
    """
    clear: Array = np.asarray(1.0)
    for share in shares:
        clear = clear * (1.0 - np.asarray(share, dtype=float))
    return np.asarray(1.0 - clear)


def streamlining(speed: Number) -> Array:
    """Return the share of leaf drag left once leaves fold and stream in the wind.

    Args:
        speed: Gust at the plant. [m/s]

    Returns:
        1 up to 8 m/s, then (v/8)^−0.4, not below 0.5.

    Source: vogel-1989
    """
    v = np.maximum(np.asarray(speed, dtype=float), 8.0)
    return np.asarray(np.maximum((v / 8.0) ** -0.4, 0.5))


def seasonal_share(probability: Number, weeks: float = 1.0) -> Array:
    """Return a gust not exceeded with a given probability, over the ten-season gust.

    Args:
        probability: Probability of not being exceeded in one part of the season.
        weeks: How many such parts make a season: 1 for the season, n for one of n weeks.

    Returns:
        Share of the ten-season gust.

    Source: en-1991-1-4
    """
    p = np.asarray(probability, dtype=float) ** weeks
    return np.asarray(np.sqrt((1 - 0.2 * np.log(-np.log(p))) / (1 - 0.2 * np.log(-np.log(0.9)))))
