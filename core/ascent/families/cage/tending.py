"""Cage: how its crops are tended."""

from __future__ import annotations

from ...family.care import Care
from ...path.geometry import Geometry
from ...plan.structure import Planting
from ...site import Site
from .options import CageOptions


def tending(
    options: CageOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site
) -> tuple[Care, ...]:
    """Return the tucking in of shoots that grow out between its wires."""
    return tuple(
        Care("tuck", n, first=21.0, step=0.25, cap=10.0, until="pods") for n in range(len(plantings))
    )
