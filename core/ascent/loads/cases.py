"""The cases a structure is checked in, as arrays that broadcast to (soil state, week, wind)."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from .. import tables
from ..errors import UnknownItem
from ..mechanics import Array
from ..path.loadpath import Winds
from ..plan.fields import GREATEST_GUST
from ..site import Site
from ..tables import rows

_CALM = (
    0.01,
    1.0,
    2.0,
    3.0,
)  # a fence that cannot stand in a breeze is told from one that cannot stand at all
_KINK = (8.0,)  # leaves begin to stream here, so the law of the loads changes
GUSTS: Array = np.unique(np.concatenate((_CALM, np.geomspace(4.0, GREATEST_GUST, 44), _KINK)))
MOIST_GUSTS: Array = np.unique(np.concatenate((_CALM, np.geomspace(4.0, GREATEST_GUST, 24), _KINK)))
CROP_FACTORS: Array = np.geomspace(0.1, 20.0, 40)
# of `gusts_and_winds`: the grid, and the three winds after it
RISING = Winds(len(GUSTS) + 3, slice(len(GUSTS)))
HERE = Winds(len(GUSTS) + 3, slice(len(GUSTS), None))


@dataclass(frozen=True)
class Cases:
    """Arrays over cases.

    gust: gust at the plant, (1, 1, G). [m/s]
    crop: factor on the expected shoot and fruit mass, (1, 1, G).
    saturated: soil is soaked, (S, 1, 1).
    leaf: factor on the wind's pull at leaves.
    stiffness: factor on how stiffly soil, ends and props stand.
    late: by how much everything that grows is behind its usual course. [d]
    cloth: solid share of what is spread over the structure in each week, (W,), where anything ever is.

    What is not well known may be many samples of it at once: factors (N, 1, 1, 1), lateness (N, 1). All that
    hangs on it is then over (sample, soil state, week, wind).
    """

    gust: Array
    crop: Array
    saturated: Array
    leaf: Array | float = 1.0
    stiffness: Array | float = 1.0
    late: Array | float = 0.0
    cloth: Array | None = None

    def shape(self, weeks: int) -> tuple[int, ...]:
        """Return the shape of the cases without their winds: (S, W), or (N, S, W) where they are samples."""
        arrays = (self.leaf, self.stiffness, self.crop, self.saturated)
        return (*np.broadcast_shapes(*map(np.shape, arrays), (*np.shape(self.late), 1, 1))[:-2], weeks)

    def scaled(self, uncertainty: str, factor: Array | float) -> Cases:
        """Return the cases with one thing that acts on loads so many times what is expected.

        Args:
            uncertainty: Its row of uncertainties.csv.
            factor: One, or a sample of them, (N, 1, 1, 1).

        Raises:
            UnknownItem: No such row, or one that a strength rests on.
        """
        uncertain = tables.uncertainties()
        if uncertain[uncertainty].acts != "load":
            known = ", ".join(key for key, row in uncertain.items() if row.acts == "load")
            raise UnknownItem("uncertainties", uncertainty, f"one of {known} is allowed")
        return replace(self, **{uncertainty: getattr(self, uncertainty) * factor})

    def soil_strength(self, soil: rows.Soil) -> Array:
        """Return the share of its moist strength a soil has, (S, 1, 1)."""
        return np.where(self.saturated > 0, soil.saturated, soil.moist)

    def soil_modulus(self, soil: rows.Soil) -> Array:
        """Return the modulus of lateral reaction, (S, 1, 1): N/m² for clay-type, N/m³ for sand-type."""
        return self.stiffness * np.where(self.saturated > 0, soil.modulus_saturated, soil.modulus)


def by_week(values: Array) -> Array:
    """Return figures by week laid over the cases: (..., W) as (..., 1, W, 1). [the unit of the figures]

    Args:
        values: By week, (..., W).
    """
    return np.asarray(values, dtype=float)[..., None, :, None]


def _along_wind(values: Array) -> Array:
    return np.asarray(values, dtype=float).reshape(1, 1, -1)


def rising_gusts() -> Cases:
    """Return the grid on which limit gusts are found: both soil states, gusts from next to nothing to 45
    m/s.
    """
    return Cases(_along_wind(GUSTS), np.ones((1, 1, 1)), np.array([0.0, 1.0]).reshape(2, 1, 1))


def moist_gusts(grid: Array = MOIST_GUSTS) -> Cases:
    """Return a grid in moist soil alone, on a coarse grid unless another is given.

    Args:
        grid: Rising gusts, (G,). [m/s]
    """
    return Cases(_along_wind(grid), np.ones((1, 1, 1)), np.zeros((1, 1, 1)))


def site_winds(site: Site, required_gust: float) -> Cases:
    """Return no wind, serviceability wind and the required gust of a support, in both soil
    states.

    Args:
        site: Where it stands.
        required_gust: Gust that the support needs to hold. [m/s]
    """
    return Cases(
        _along_wind(np.array([0.0, site.serviceability_wind, required_gust])),
        np.ones((1, 1, 1)),
        np.array([0.0, 1.0]).reshape(2, 1, 1),
    )


def gusts_and_winds(site: Site, required_gust: float) -> Cases:
    """Return the grid on which limit gusts are found and, after it, the winds of the site: one calculation
    for both.

    Args:
        site: Where it stands.
        required_gust: Gust that the support needs to hold. [m/s]
    """
    rising, winds = rising_gusts(), site_winds(site, required_gust)
    return replace(rising, gust=np.concatenate((rising.gust, winds.gust), axis=-1))


def rising_crop(site: Site) -> Cases:
    """Return the grid on which crop margins are found: serviceability wind, moist soil, more and more
    crop.
    """
    return Cases(np.full((1, 1, 1), site.serviceability_wind), _along_wind(CROP_FACTORS), np.zeros((1, 1, 1)))
