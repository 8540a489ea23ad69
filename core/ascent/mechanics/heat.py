"""Heat: degree days, the warmth of soil behind that of the air, the chance of frost after a day."""

from __future__ import annotations

from statistics import NormalDist

import numpy as np

from . import Array, Number

_NORMAL = NormalDist()
_phi = np.vectorize(_NORMAL.cdf, otypes=[float])


def degree_days(low: Number, high: Number, base: float, upper: float) -> Array:
    """Return degree days by the mean of a day's least and greatest temperature, each held between base and
    upper.

    Args:
        low: Least temperature of the day. [degC]
        high: Greatest temperature of the day. [degC]
        base: Below which nothing grows. [degC]
        upper: Beyond which it grows no faster. [degC]

    Returns:
        Degree days. [K d]

    Source: handbook-season-2
    """
    cold = np.clip(np.asarray(low, dtype=float), base, upper)
    warm = np.clip(np.asarray(high, dtype=float), base, upper)
    return np.asarray((cold + warm) / 2 - base)


def _above(low: Array, high: Array, base: float) -> Array:
    """Return the area of a day's sine above a temperature. [K d]"""
    mean, half = (high + low) / 2, np.maximum((high - low) / 2, 1e-9)
    angle = np.arcsin(np.clip((base - mean) / half, -1.0, 1.0))
    return np.asarray(((mean - base) * (np.pi / 2 - angle) + half * np.cos(angle)) / np.pi)


def sine_degree_days(low: Number, high: Number, base: float, upper: float) -> Array:
    """Return degree days of a day whose temperature is one sine, cut off level at the upper temperature.

    Args:
        low: Least temperature of the day. [degC]
        high: Greatest temperature of the day. [degC]
        base: Below which nothing grows. [degC]
        upper: Beyond which it grows no faster. [degC]

    Returns:
        Degree days: the area of the sine between the two. [K d]

    Source: baskerville-emin-1969
    """
    cold, warm = np.asarray(low, dtype=float), np.asarray(high, dtype=float)
    return np.asarray(_above(cold, warm, base) - _above(cold, warm, upper))


def soil_temperature(air: Array, offset: float = 0.0, days: float = 8.0) -> Array:
    """Return the temperature of soil 50 to 100 mm deep: the air's daily mean, smoothed as by a leaky store.

    Args:
        air: Daily means, one after the other, (N,). [degC]
        offset: Of bare, raised, covered or shaded ground. [K]
        days: Time constant. [d]

    Returns:
        Soil temperature by day, (N,). [degC]

    Source: handbook-season-2
    """
    keep = float(np.exp(-1.0 / days))
    means = np.asarray(air, dtype=float)
    soil = np.empty_like(means)
    now = float(np.mean(means[: max(int(days), 1)]))
    for index, mean in enumerate(means):
        now = keep * now + (1.0 - keep) * float(mean)
        soil[index] = now
    return soil + offset


def frost_chance_after(days: Number, spread: float) -> Array:
    """Return the chance that a frost still comes after a day, dates of the last frost being normal.

    Args:
        days: From the median last frost. [d]
        spread: Standard deviation of the date. [d]

    Returns:
        Chance, 0 to 1.

    Source: handbook-season-1
    """
    return np.asarray(1.0 - _phi(np.asarray(days, dtype=float) / spread))


def frost_shift(risk: float, spread: float) -> float:
    """Return how long after the median last frost a risk of frost is left, dates being normal. [d]

    Args:
        risk: Chance that one still comes.
        spread: Standard deviation of the date. [d]

    Returns:
        Days after the median; as many before the median first frost.

    Source: handbook-season-1
    """
    return spread * _NORMAL.inv_cdf(1.0 - risk)


def cold_days(low: Array, spread: Array | float, clump: float) -> Array:
    """Return how many bouts of frost each day brings on the mean, where its least temperature is normal.

    Args:
        low: Mean least temperature of each day, (N,). [degC]
        spread: Its standard deviation from day to day. [K]
        clump: Days that frost comes in at once. [d]

    Returns:
        Bouts a day, (N,): their sum over days is the λ of a Poisson law.

    Source: leadbetter-1983
    """
    return np.asarray(_phi(-np.asarray(low, dtype=float) / spread) / clump)
