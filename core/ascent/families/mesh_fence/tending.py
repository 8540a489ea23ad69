"""Mesh fence: how its crops are tended."""

from __future__ import annotations

from ... import tables
from ...family.care import Care
from ...path.geometry import Geometry
from ...patterns import tending as usual
from ...plan.structure import Planting
from ...site import Site
from .geometry import run_heights
from .options import MeshFenceOptions


def tending(
    options: MeshFenceOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return the care of what climbs the mesh, of runs woven before it and of fruit in its openings."""
    mesh = tables.meshes()[options.mesh]
    cares: list[Care] = []
    for number, planting in enumerate(plantings):
        crop = tables.crops()[planting.crop]
        if options.woven == "front":
            cares += usual.woven(number, run_heights(options))
            cares += usual.pruned(number, crop, planting)
        else:
            cares += usual.trained(number, crop, planting)
        cares += usual.trapped(number, crop, mesh.opening)
        cares += usual.slung(number, crop)
        cares += usual.passed(number, crop, geometry.climb)
    return tuple(cares)
