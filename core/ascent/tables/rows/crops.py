"""Rows of crops: how they grow, bear, suit supports and are measured."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from .base import Row

_POUND = 0.45359237  # [kg]
_QUARTS = 32  # of a bushel


@dataclass(frozen=True)
class Score(Row):
    """How well a family of supports suits a crop, 0 to 3; the key is that of both."""

    family: str
    crop: str
    score: int


@dataclass(frozen=True)
class Suit:
    """How well each family suits a crop, {family: 0 to 3}."""

    key: str
    scores: Mapping[str, int]


@dataclass(frozen=True)
class HarvestMeasure(Row):
    """Measures that crops are sold by: what a bushel of them weighs, and a lug where there is one. [lb]"""

    crops: tuple[str, ...]
    bushel_lb: float
    lug_lb: float | None

    @property
    def sizes(self) -> dict[str, float]:
        """Return what each measure of them weighs, the largest first. [kg]"""
        pounds = {"bushel": self.bushel_lb, "lug": self.lug_lb, "quart": self.bushel_lb / _QUARTS}
        return {name: weight * _POUND for name, weight in pounds.items() if weight}


@dataclass(frozen=True)
class Scout(Row):
    """What to look for on a crop, at which stage of it, and where."""

    crops: tuple[str, ...]
    stage: Literal["early", "middle", "late", "any"]
    look: str
    where: str


@dataclass(frozen=True)
class CropCalendar(Row):
    """What dates a crop: from when its days are counted, the heat they were counted at, the soil it
    germinates in, how long it is raised indoors, and how often it is picked (0: once).

    nights_C: mean temperature of the night from which it goes out; where it is empty, that of its frost
        class. [degC]
    cold_C: mean day below which it bears no more. [degC]
    set_day_C, set_night_C: mean high and mean low at which half of its flowers set. [degC]
    warm_C: mean day at which a crop of the cool season bears half. [degC]
    young_C: warmest mean of the month after sowing for a crop of the cool season. [degC]
    flower_C, winter_C: frost that takes its flowers, and that a young plant outlives. [degC]
    flowers_below_h, flowers_above_h: length of the day that it flowers below, or above. [h]
    bears_d: how long it bears by its own age or the disease that is usual, in days of growth at its reference
        heat; empty where it bears until something else ends it. [d]
    pick_kg_h: what one person picks in an hour; empty where it is not weighed. [kg/h]
    worth: share of the best day's harvest from which on a day is offered.
    """

    counted_from: Literal["planting", "sowing", "shoots"]
    base_C: float
    upper_C: float
    reference_C: float
    soil_C: float
    frost_class: str
    indoors_low_wk: float
    indoors_high_wk: float
    pot_bound_d: float
    nights_C: float | None
    cold_C: float | None
    set_day_C: float | None
    set_night_C: float | None
    warm_C: float | None
    young_C: float | None
    flower_C: float | None
    winter_C: float | None
    flowers_below_h: float | None
    flowers_above_h: float | None
    bears_d: float | None
    worth: float
    pick_low_d: float
    pick_high_d: float
    pick_kg_h: float | None

    @property
    def cool(self) -> bool:
        """Return whether it is a crop of the cool season, which heat ends."""
        return self.reference_C < 18.0

    @property
    def hardy(self) -> bool:
        """Return whether frost does not end it."""
        return self.frost_class in ("H", "HH")

    @property
    def indoors_d(self) -> float:
        """Return days it is raised indoors for, where it is. [d]"""
        return 3.5 * (self.indoors_low_wk + self.indoors_high_wk)


@dataclass(frozen=True)
class Crop(Row):
    name: str
    called: str
    family: str
    habit: str
    height_m: float
    height_high_m: float
    support_height_m: float
    spacing_m: float
    free_spacing_low_m: float
    free_spacing_high_m: float
    strand_max: float | None
    opening_min: float | None
    fruit_min: float | None
    fruit_max: float | None
    fruit_kg: float
    fruit_heaviest_kg: float
    shoot_kg: float
    shoot_high_kg: float
    free_shoot_kg: float | None
    free_shoot_high_kg: float | None
    yield_kg: float
    yield_high_kg: float
    free_yield_kg: float | None
    free_yield_high_kg: float | None
    hanging_share: float
    carried_share: float
    depth_m: float
    cover: float
    t50_d: float
    t95_d: float
    extension_mm_d: float
    first_low_d: float
    first_high_d: float
    harvest_low_wk: float
    harvest_high_wk: float
    one_pick: bool
    set_to_pick_d: float
    rain_share: float
    plant_low_d: float
    plant_high_d: float
    training: str
    cap_group: str
    face_limit_m2: float | None

    @property
    def first_d(self) -> float:
        """Return days at its reference heat until its first pick, in the middle of its range. [d]"""
        return (self.first_low_d + self.first_high_d) / 2

    @property
    def harvest_d(self) -> float:
        """Return how long it is usually picked, in the middle of its range. [d]"""
        return 3.5 * (self.harvest_low_wk + self.harvest_high_wk)


@dataclass(frozen=True)
class FaceCap(Row):
    shoot_kg_m2: float
    shoot_high_kg_m2: float
    fruit_kg_m2: float
    fruit_high_kg_m2: float
