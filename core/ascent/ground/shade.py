"""Shadows of what grows on the structures, and the hours of sun they take from each bed."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely
from astral import Observer
from astral.sun import azimuth as sun_azimuth
from astral.sun import elevation as sun_elevation
from astral.sun import noon as sun_noon

from .. import tables
from ..loads.crop import planting_on_face
from ..loads.season import season_of
from ..mechanics import Array
from ..plan.bed import Bed
from ..plan.fields import MonthDay, Typed, day_of_year
from ..plan.garden import Garden
from .plot import Flat, Laid, bed_frame, spots

_YEAR = (
    2025  # a year without a leap day; the sun's place differs by a few tenths of a degree from year to year
)
_STEP = 0.25  # of an hour between looks at the sun
_ACROSS, _ALONG = 5, 9  # points of a bed that are looked at


class Shadow(Typed):
    """The shadow of one structure's leaves: its outline, and the share of the sun it takes."""

    structure: str
    outline: tuple[Flat, ...]
    cover: float


class BedSun(Typed):
    """Hours of sun of a bed on one day: under an open sky, and taken by the structures."""

    bed: str
    open: float
    lost: float


class Shade(Typed):
    """The sun at one hour of one day, the shadows then, and what the day takes from each bed.

    Angles in degrees, azimuth from north clockwise; hours of sun time, 12 when the sun is highest.
    """

    altitude: float
    azimuth: float
    rises: float
    sets: float
    shadows: tuple[Shadow, ...]
    beds: tuple[BedSun, ...]


@dataclass(frozen=True)
class Canopy:
    """Leaves of a planting as an upright sheet: corners (4, 3) on the plan and above it, and its cover."""

    structure: str
    corners: Array
    cover: float


def sun_at(latitude: float, day: int, hours: Array) -> tuple[Array, Array]:
    """Return the sun's height and azimuth.

    Args:
        latitude: Of the place, north positive. [deg]
        day: Day of a year without a leap day, from 1.
        hours: Hours of sun time, 12 when the sun is highest, (N,).

    Returns:
        Height above the horizon without refraction, and azimuth from north clockwise, (N,) each. [deg]

    Source: handbook-season-12
    """
    date = dt.date(_YEAR, 1, 1) + dt.timedelta(days=day - 1)
    observer = Observer(latitude, 0.0)
    noon = sun_noon(observer, date)
    times = [noon + dt.timedelta(hours=float(hour) - 12.0) for hour in np.atleast_1d(hours)]
    heights = np.array([sun_elevation(observer, time, with_refraction=False) for time in times])
    return heights, np.array([sun_azimuth(observer, time) for time in times])


def canopies(garden: Garden, laid: Sequence[Laid], day: int) -> list[Canopy]:
    """Return the leaves that stand on a day of the year."""
    crowns = []
    for standing in laid:
        season = season_of(garden, standing.structure.plantings)
        week = season.week_of(day)
        if week is None:
            continue
        for index, planting in enumerate(standing.structure.plantings):
            growth = planting_on_face(planting, season, index, standing.geometry.climb)
            places = np.array([plant.at[:2] for plant in standing.geometry.plants if plant.planting == index])
            top, cover = float(growth.top[week]), float(growth.cover[week])
            if not len(places) or cover < 0.02 or top <= growth.bottom:
                continue
            half = planting.spacing / 2
            ends = np.array([[places[:, 0].min() - half, 0.0], [places[:, 0].max() + half, 0.0]])
            flat = standing.frame.out(ends)
            rise = standing.bed.raised_by
            corners = np.array(
                [[*flat[0], growth.bottom], [*flat[1], growth.bottom], [*flat[1], top], [*flat[0], top]]
            )
            corners[:, 2] += rise
            crowns.append(Canopy(standing.structure.key, corners, cover))
    return crowns


def shadows_of(leaves: Sequence[Canopy], altitude: float, azimuth: float, ground: float = 0.0) -> Any:
    """Return the shadow of each sheet of leaves on level ground, as an array of shapes.

    Args:
        leaves: The sheets.
        altitude: Height of the sun, above 0. [deg]
        azimuth: Of the sun, from north clockwise. [deg]
        ground: Height of the ground the shadow falls on. [m]

    Source: handbook-season-12
    """
    away = -np.array([math.sin(math.radians(azimuth)), math.cos(math.radians(azimuth))]) / math.tan(
        math.radians(altitude)
    )
    if not leaves:
        return np.array([], dtype=object)
    corners = np.array([c.corners for c in leaves])
    cast = corners[:, :, :2] + np.maximum(corners[:, :, 2:] - ground, 0.0) * away
    which = np.repeat(np.arange(len(leaves)), corners.shape[1])
    return shapely.convex_hull(shapely.multipoints(cast.reshape(-1, 2), indices=which))


def day_hours(latitude: float, day: int) -> tuple[Array, Array, Array]:
    """Return the hours of a day at which the sun is looked at, with its height and azimuth, (N,) each. [h
    and °]
    """
    hours = np.arange(_STEP / 2, 24.0, _STEP)
    heights, azimuths = sun_at(latitude, day, hours)
    up = heights > tables.constant("low_sun")
    return hours[up], heights[up], azimuths[up]


def hours_of_sun(garden: Garden, leaves: Sequence[Canopy], day: int) -> tuple[BedSun, ...]:
    """Return for each bed the hours the sun stands above 5° and the hours the leaves take of them, mean over
    the bed.
    """
    hours, heights, azimuths = day_hours(garden.latitude, day)
    open_hours = len(hours) * _STEP
    if not garden.beds:
        return ()
    points = np.concatenate([_points(bed) for bed in garden.beds])
    rises = np.repeat([bed.raised_by for bed in garden.beds], _ACROSS * _ALONG)
    lost = np.zeros(len(points))
    covers = np.array([leaf.cover for leaf in leaves])
    for level in np.unique(rises) if leaves else ():
        here = np.flatnonzero(rises == level)
        looked: Any = shapely.points(points[here])
        tree = shapely.STRtree(looked)
        for height, azimuth in zip(heights, azimuths, strict=True):
            sun = np.ones(len(here))
            which, inside = tree.query(
                shadows_of(leaves, height, azimuth, float(level)), predicate="intersects"
            )
            np.multiply.at(sun, inside, 1.0 - covers[which])
            lost[here] += (1.0 - sun) * _STEP
    means = lost.reshape(len(garden.beds), -1).mean(axis=1)
    return tuple(
        BedSun(bed=bed.key, open=open_hours, lost=float(mean))
        for bed, mean in zip(garden.beds, means, strict=True)
    )


def _points(bed: Bed) -> Array:
    along = (np.arange(_ALONG) + 0.5) / _ALONG * bed.length
    across = ((np.arange(_ACROSS) + 0.5) / _ACROSS - 0.5) * bed.width
    return bed_frame(bed).out(np.stack(np.meshgrid(along, across), axis=-1).reshape(-1, 2))


def shade_of(garden: Garden, laid: Sequence[Laid], date: MonthDay, hour: float) -> Shade:
    """Return shadows at an hour of a day and the hours of sun of each bed on it. [h]"""
    day = day_of_year(date)
    leaves = canopies(garden, laid, day)
    (altitude,), (azimuth,) = sun_at(garden.latitude, day, np.array([hour]))
    shapes = shadows_of(leaves, float(altitude), float(azimuth)) if altitude > 1.0 else []
    shadows = tuple(
        Shadow(
            structure=leaf.structure, outline=tuple(spots(shapely.get_coordinates(shape))), cover=leaf.cover
        )
        for leaf, shape in zip(leaves, shapes, strict=False)
        if shape.geom_type == "Polygon"
    )
    hours, _, _ = day_hours(garden.latitude, day)
    low, high = (float(hours[0]), float(hours[-1])) if len(hours) else (12.0, 12.0)
    return Shade(
        altitude=round(float(altitude), 2),
        azimuth=round(float(azimuth), 2),
        rises=low,
        sets=high,
        shadows=shadows,
        beds=hours_of_sun(garden, leaves, day),
    )
