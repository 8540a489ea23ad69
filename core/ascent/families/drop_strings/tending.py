"""Drop strings: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .options import DropStringsOptions


def tending(
    options: DropStringsOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return the winding or clipping of stems, and their letting down where they outgrow their strings."""
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        if crop.training == "TIE":
            make = usual.wound if options.attach == "twist" else usual.clipped
            cares += make(number, crop, planting)
        else:
            cares += usual.trained(number, crop, planting)
        if options.lower:
            cares += usual.let_down(number, options.top_height, options.stem_length - options.top_height)
    return tuple(cares)
