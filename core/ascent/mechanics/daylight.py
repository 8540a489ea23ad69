"""Daylight: how long the sun is up."""

from __future__ import annotations

import numpy as np

from . import Array, Number

_TILT = 23.45  # of the earth's axis [deg]
_YEAR = 365
_HORIZON = -0.833  # of the sun's middle when its rim is at the horizon, with refraction [deg]


def day_length(latitude: float, day: Number) -> Array:
    """Return how long the sun is up. [h]

    Args:
        latitude: North positive, outside of the polar circles. [deg]
        day: Of the year, 1 for the first of January. [d]

    Returns:
        Hours from sunrise to sunset. [h]

    Source: handbook-season-12
    """
    tilt = np.radians(_TILT) * np.sin(2 * np.pi * (284 + np.asarray(day, dtype=float)) / _YEAR)
    north, low = np.radians(latitude), np.radians(_HORIZON)
    turn = (np.sin(low) - np.sin(north) * np.sin(tilt)) / (np.cos(north) * np.cos(tilt))
    return np.asarray(24 / np.pi * np.arccos(np.clip(turn, -1.0, 1.0)))
