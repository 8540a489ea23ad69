"""Stake: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...mechanics import Array, Number
from ...path.geometry import Dimension, Geometry, Member, Plant, Supply, located
from ...patterns import plants, posts
from ...plan.structure import Planting
from ...site import Site
from .options import StakeOptions

_FIRST_TIE = 0.25  # above the soil [m], parts handbook 3.6
_SPARE_TIES = 1.2  # ties used over a season over those that stand at its end, parts handbook 3.6


def laid_out(options: StakeOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return stakes, plants and any bar in metres."""
    row, grown = tables.posts()[options.stake], _plants(options, plantings)
    bought = posts.stock_length(row, options.depth + options.height)
    top, members = max(bought - options.depth, 0.1), []
    top = min(top, max(options.height, 0.1) + 0.3)
    for n, plant in enumerate(grown):
        side = -1.0 if plant.at[1] < 0 or plantings[plant.planting].side == "right" else 1.0
        x, y = plant.at[0], plant.at[1] + side * options.offset
        members += posts.standing(row, n + 1, (x, y, -options.depth), (x, y, top), bought)
    if options.bar == "bar":
        members += _bars(options, members)
    count = sum(
        math.ceil(
            int(ties_on_stem(options, tables.crops()[p.crop].height_m))
            * options.stems
            * p.count
            * _SPARE_TIES
        )
        for p in plantings
    )
    first = members[0].points[0]
    dimensions = (
        Dimension(
            "options.length",
            "elevation",
            (0, 0, -options.depth),
            (options.length, 0, -options.depth),
            options.length,
            -0.6,
        ),
        Dimension(
            "options.height",
            "elevation",
            (options.length, 0, 0),
            (options.length, 0, options.height),
            options.height,
            0.9,
        ),
        Dimension(
            "options.depth", "elevation", (first[0], 0, -options.depth), (first[0], 0, 0), options.depth, -0.9
        ),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    ties_ = () if winds(options) else (Supply("stem-ties", "ties", options.stem_tie, count),)
    return Geometry(
        located(members), grown, dimensions, ties_, options.length, top, options.depth, climb=options.height
    )


def _plants(options: StakeOptions, plantings: tuple[Planting, ...]) -> tuple[Plant, ...]:
    """Return the plants: one line under the row, or two lines as far apart as the plants of a line."""
    apart = max(p.spacing for p in plantings) / 2 if any(p.side == "both" for p in plantings) else 0.0
    return plants.along(plantings, options.length, max(apart, 0.0))


def winds(options: StakeOptions) -> bool:
    """Return whether the stem is wound up a spiral and takes no ties."""
    return "winds" in tables.posts()[options.stake].roles


def ties_on_stem(options: StakeOptions, tall: Number) -> Array:
    """Return the ties of one stem that has grown so tall (parts handbook 3.6). [m]"""
    steps = (np.minimum(tall, options.height) - _FIRST_TIE) / options.tie_step
    return np.maximum(np.floor(steps + 1e-6), 0.0) + 1.0


def _bars(options: StakeOptions, growth: list[Member]) -> list[Member]:
    """Return a bar along each line of stakes."""
    wood, members = tables.posts()[options.bar_wood], []
    lines = sorted({m.points[0][1] for m in growth if m.role == "post"})
    for n, y in enumerate(lines):
        xs = sorted(m.points[0][0] for m in growth if m.role == "post" and m.points[0][1] == y)
        if len(xs) > 1:
            line = ((xs[0] - 0.1, y, options.bar_height), (xs[-1] + 0.1, y, options.bar_height))
            members.append(
                Member(f"bar-{n + 1}", "rail", "posts", wood.key, line, xs[-1] - xs[0] + 0.2, wood.soil_width)
            )
    return members
