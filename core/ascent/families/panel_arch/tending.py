"""Panel arch: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .options import PanelArchOptions


def tending(
    options: PanelArchOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return what climbs the panel, is laid over its crown, hangs through it and in slings below it."""
    panel = tables.meshes()[options.panel]
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        cares += usual.trained(number, crop, planting)
        cares += usual.over(number, crop, geometry.top)
        cares += usual.trapped(number, crop, panel.opening)
        cares += usual.slung(number, crop)
    return tuple(cares)
