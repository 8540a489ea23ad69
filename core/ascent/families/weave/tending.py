"""Weave: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .geometry import heights
from .options import WeaveOptions

_JOBS = {"basket": "weave", "corral": "corral", "eight": "weave-eight", "front-back": "weave-both"}


def tending(
    options: WeaveOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return the runs as the plants pass them, where it has runs."""
    if options.style == "ladder":
        return usual.rounds(plantings, usual.trained)
    runs = heights(options)
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        if number == tallest(plantings):
            cares += usual.woven(number, runs, _JOBS[options.style])
        cares += usual.pruned(number, crop, planting)
        if options.extension == "canes":
            cares += usual.passed(number, crop, options.top_run)
    return tuple(cares)


def tallest(plantings: tuple[Planting, ...]) -> int:
    """Return which planting grows tallest: the runs go on as it passes them."""
    return max(range(len(plantings)), key=lambda n: tables.crops()[plantings[n].crop].height_m)
