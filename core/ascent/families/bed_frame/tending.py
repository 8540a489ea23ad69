"""Bed frame: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .options import BedFrameOptions


def tending(
    options: BedFrameOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return ties to each upright, or what climbs its infill."""
    opening = tables.meshes()[options.mesh].opening if options.infill == "mesh" else None
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        strung = crop.training == "TIE" and options.infill == "strings"
        cares += (usual.clipped if strung else usual.trained)(number, crop, planting)
        cares += usual.trapped(number, crop, opening) if opening else []
        cares += usual.slung(number, crop)
    return tuple(cares)
