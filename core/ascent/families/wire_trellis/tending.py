"""Wire trellis: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .options import WireTrellisOptions


def tending(
    options: WireTrellisOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return what a stem on its string or along the wires asks for."""
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        strung = crop.training == "TIE" and options.crop_on == "strings"
        cares += (usual.clipped if strung else usual.trained)(number, crop, planting)
        cares += usual.slung(number, crop)
    return tuple(cares)
