"""Rows of soils, wind, climate and what stands in a garden."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .base import Row


@dataclass(frozen=True)
class Soil(Row):
    name: str
    also: str
    model: Literal["clay", "sand"]
    cu: float
    phi_deg: float
    gamma: float
    median: float
    dry: float
    moist: float
    saturated: float
    modulus: float
    modulus_saturated: float
    S: float
    skin: float
    bearing: float
    anchor: str
    hatch: Literal["clay", "loam", "sand", "gravel", "crumb"]


@dataclass(frozen=True)
class Exposure(Row):
    name: str
    design_gust_m_s: float
    forecast_ratio: float
    where: str


@dataclass(frozen=True)
class WindClimate(Row):
    name: str
    months: tuple[float, ...]


@dataclass(frozen=True)
class Water(Row):
    """How near a sea is, and what that does to a year's temperatures."""

    name: str
    warmer_K: float
    swing_per_deg_K: float
    warmest_d: float
    day_swing_K: float
    spread_K: float


@dataclass(frozen=True)
class Rain(Row):
    """When in the year it rains: by how much more in its warm half than on the mean, how sharply the year
    peaks in its summer, and whether rain cools that half as a monsoon does.
    """

    name: str
    lean: float
    peak: float
    monsoon: bool


@dataclass(frozen=True)
class Monsoon(Row):
    """The course of a year whose summer rain cools, near the equator or far from it: share of the swing from
    the coldest to the warmest month, by month.
    """

    months: tuple[float, ...]


@dataclass(frozen=True)
class FrostClass(Row):
    """What cold a crop bears: what kills it, below what it sulks, and how long after the first frost of
    autumn it still stands. [degC], [d]
    """

    name: str
    kills_C: float
    chilled_C: float | None
    first_d: float


@dataclass(frozen=True)
class DragPoint(Row):
    solidity: float
    drag: float


@dataclass(frozen=True)
class FeatureKind(Row):
    """What else is on a plan: how wide it is drawn, how long it starts (0: as the plan is long), and how far
    driven things keep off. [m]
    """

    name: str
    group: Literal["path", "barrier", "buried", "tie-off"]
    width: float
    length: float
    keep: float
