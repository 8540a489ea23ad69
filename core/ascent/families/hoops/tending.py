"""Hoops: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .options import HoopsOptions


def tending(
    options: HoopsOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return what climbs the net or lies over the hoops."""
    net = tables.meshes()[options.mesh].opening if options.net == "net" else None
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        cares += usual.trained(number, crop, planting)
        cares += usual.over(number, crop, geometry.top)
        cares += usual.trapped(number, crop, net) if net else []
    return tuple(cares)
