"""What grows on a face, week by week: mass that hangs, leaf that catches wind, height reached."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .. import tables
from ..mechanics import Array, growth
from ..plan.structure import Planting
from ..tables import rows
from .cases import by_week
from .season import Season

_HIGH_RAIN = 1.5  # wet leaves of a good year: 0.30 where a usual year has 0.20 (crops handbook 5.1)


@dataclass(frozen=True)
class Growth:
    """One planting over the weeks, each array (..., W): a course by week, or a sample of such courses.

    shoot_kg: wet shoot a typical plant hangs on its support. [kg]
    fruit_kg: fruit a typical plant hangs on it. [kg]
    high_kg: both, of a good plant in a good year. [kg]
    face_shoot_kg_m2, face_fruit_kg_m2: the most of each that light feeds on a square metre of face. [kg/m²]
    grown: share of its full shoot that it has grown to.
    cover: leaf cover of the face.
    top: height of the canopy. [m]
    bottom: height below which the stem is bare. [m]
    """

    planting: Planting
    crop: rows.Crop
    shoot_kg: Array
    fruit_kg: Array
    high_kg: Array
    face_shoot_kg_m2: Array
    face_fruit_kg_m2: Array
    grown: Array
    cover: Array
    top: Array
    bottom: float

    @property
    def plant_kg(self) -> Array:
        """Return what a typical wet plant hangs on its support, (..., W). [kg]"""
        return self.shoot_kg + self.fruit_kg

    @property
    def tallest(self) -> Array:
        """Return the greatest height of the season, (..., 1). [m]"""
        return np.asarray(np.max(self.top, axis=-1, keepdims=True))


def planting_on_face(planting: Planting, season: Season, index: int, face_top: float) -> Growth:
    """Return a planting's course on a face.

    Args:
        planting: What is planted.
        season: The structure's weeks.
        index: Which planting of the structure it is.
        face_top: Top of the face it climbs. [m]

    Returns:
        Mass, cover and height by week.

    Source: crops-5.1
    """
    crop = tables.crops()[planting.crop]
    free = planting.training == "free" and crop.free_shoot_kg is not None
    since = season.growing_days(index)
    day = season.grown[index] - season.late
    alive = (day >= 0) & (since <= season.spans[index][1] - season.spans[index][0] + 3.5)
    grown = growth.logistic(day, crop.t50_d, crop.t95_d) * alive
    fruit = (
        growth.hanging_fruit(day, crop.first_d, season.harvests[index], crop.set_to_pick_d, crop.one_pick)
        * alive
        * crop.hanging_share
    )
    shoot_kg, shoot_high = (
        _pick(free, crop.shoot_kg, crop.free_shoot_kg),
        _pick(free, crop.shoot_high_kg, crop.free_shoot_high_kg),
    )
    yield_kg, yield_high = (
        season.times(index) * _pick(free, crop.yield_kg, crop.free_yield_kg),
        season.times(index) * _pick(free, crop.yield_high_kg, crop.free_yield_high_kg),
    )
    carried = grown * crop.carried_share
    caps = tables.face_caps()[crop.cap_group]
    lines = 2.0 if planting.side == "both" else 1.0
    leaf_share = (shoot_kg / planting.spacing * lines) / (crop.shoot_kg / crop.spacing_m)
    overtop = tables.constant("overtop_free") if planting.training == "free" else 0.0
    height = min(crop.height_m, face_top + overtop)
    return Growth(
        planting,
        crop,
        shoot_kg * (1 + crop.rain_share) * carried,
        yield_kg * fruit,
        shoot_high * (1 + _HIGH_RAIN * crop.rain_share) * carried + yield_high * fruit,
        caps.shoot_kg_m2 * (1 + crop.rain_share) * carried,
        caps.fruit_kg_m2 * fruit / max(crop.hanging_share, 1e-9),
        grown,
        np.minimum(growth.canopy_cover(crop.cover, leaf_share) * grown, tables.constant("cover_most")),
        height * np.minimum(1.0, grown / 0.5),
        tables.constant(
            "stripped_pruned" if planting.training == "pruned" and crop.training == "TIE" else "stripped_free"
        ),
    )


def _pick(free: bool, pruned: float, unpruned: float | None) -> float:
    return unpruned if free and unpruned is not None else pruned


def several(growth: Growth, plants: float, area: Array | float) -> Array:
    """Return what several typical plants hang on a face: shoot and fruit, each capped by light, (..., W).
    [kg]

    Args:
        growth: The course of the crop.
        plants: How many. [-]
        area: Of the face that feeds them with light. [m²]

    Source: crops-5.5
    """
    shoot = np.minimum(plants * growth.shoot_kg, growth.face_shoot_kg_m2 * area)
    return np.asarray(shoot + np.minimum(plants * growth.fruit_kg, growth.face_fruit_kg_m2 * area))


def group_weight(growth: Growth, plants: float, area: Array | float, crop_factor: Array) -> Array:
    """Return the weight several plants hang on a member: one good plant, the rest typical, capped by light.

    Args:
        growth: The planting's course.
        plants: Number of plants on the member.
        area: Face they share, one or by sample, (N, 1). [m²]
        crop_factor: Factor on the expected mass, broadcast to (S, W, G).

    Returns:
        Weight, (S, W, G). [N]

    Source: crops-5.5
    """
    if plants <= 0:
        return np.zeros((1, len(growth.shoot_kg), 1))
    mass = several(growth, plants, area) + growth.high_kg - growth.plant_kg
    return tables.constant("gravity") * by_week(mass) * crop_factor
