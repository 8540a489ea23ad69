"""Wind: pressure, drag of porous faces, the bending away of leaves, the spread of gusts."""

from __future__ import annotations

import numpy as np

from . import Array, Number

AIR_DENSITY = 1.225
WEEKS = 20  # of a season in which the ten-season gust is met once in ten


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
    """Return the solid share of screens that overlap at random. [-]

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


def reconfiguration(speed: Number) -> Array:
    """Return the share of leaf drag left once leaves fold and stream in the wind.

    Args:
        speed: Gust at the plant. [m/s]

    Returns:
        1 up to 8 m/s, then (v/8)^−0.4, not below 0.5.

    Source: vogel-1989
    """
    v = np.maximum(np.asarray(speed, dtype=float), 8.0)
    return np.asarray(np.maximum((v / 8.0) ** -0.4, 0.5))


def _profile(z: Number, roughness: float) -> tuple[Array, Array]:
    """Return ∫ (L² + 7 L) dz and ∫ (L² + 7 L) z dz from the ground up to z, L = ln(z/z0); none below z0."""
    x = np.maximum(np.asarray(z, dtype=float) / roughness, 1.0)
    log = np.log(x)
    whole = x * (log**2 - 2 * log + 2) - 2 + 7 * (x * (log - 1) + 1)
    first = x**2 * (log**2 - log + 0.5) / 2 - 0.25 + 7 * (x**2 * (log - 0.5) / 2 + 0.25)
    return whole * roughness, first * roughness**2


def pressure_share(low: Number, high: Number, roughness: float, reference: float) -> tuple[Array, Array]:
    """Return the mean velocity pressure between two heights over that at a reference height, and where its
    resultant acts.

    The gust pressure grows with (1 + 7 Iv) vm², which with vm ~ L and Iv = 1/L, L = ln(z/z0), is L² + 7 L.
    The code keeps it constant below 2 m, for buildings; here it is followed down to the roughness.

    Args:
        low: Where the face begins. [m]
        high: Where it ends. [m]
        roughness: Roughness length of the ground z0. [m]
        reference: Height at which the gust is known. [m]

    Returns:
        Share of the reference pressure, and height of the resultant [m].

    Source: en-1991-1-4
    """
    low, high = np.asarray(low, dtype=float), np.asarray(high, dtype=float)
    high = np.maximum(high, low + 1e-6)
    (i0, m0), (i1, m1) = _profile(low, roughness), _profile(high, roughness)
    at = np.log(reference / roughness)
    total = np.maximum(i1 - i0, 1e-12)
    return np.asarray(total / (high - low) / (at**2 + 7 * at)), np.asarray(
        (m1 - m0 + 1e-12 * (low + high) / 2) / total
    )


def seasonal_share(probability: Number, weeks: float = 1.0) -> Array:
    """Return a gust not exceeded with a given probability, over the ten-season gust. [-]

    Args:
        probability: Probability of not being exceeded in one part of the season.
        weeks: How many such parts make a season: 1 for the season, n for one of n weeks.

    Returns:
        Share of the ten-season gust.

    Source: en-1991-1-4
    """
    p = np.asarray(probability, dtype=float) ** weeks
    return np.asarray(np.sqrt((1 - 0.2 * np.log(-np.log(p))) / (1 - 0.2 * np.log(-np.log(0.9)))))


def weekly_rate(share: Number) -> Array:
    """Return how often a week's strongest gust is expected to exceed a share of the ten-season gust, −ln of
    the chance that it does not. [per week]

    The same law as `seasonal_share` with 20 weeks a season, solved for the probability: exp(−(s² a −
    1)/0.2)/20.

    Args:
        share: Of the ten-season gust.

    Returns:
        Expected exceedances a week.

    Source: en-1991-1-4
    """
    return np.asarray(
        np.exp(-((np.asarray(share, dtype=float)) ** 2 * (1 - 0.2 * np.log(-np.log(0.9))) - 1) / 0.2) / WEEKS
    )
