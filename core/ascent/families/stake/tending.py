"""Stake: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .options import StakeOptions


def tending(
    options: StakeOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return a tie at each step of the stem, and the props of what bears."""
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        if crop.training == "TIE":
            cares.append(Care("tie", number, first=14.0, step=options.tie_step, cap=10.0))
            cares += usual.pruned(number, crop, planting)
        else:
            cares += usual.trained(number, crop, planting)
    return tuple(cares)
