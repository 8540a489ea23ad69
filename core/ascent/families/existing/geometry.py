"""Existing: how it is laid out: members, plants and measures."""

from __future__ import annotations

from ...path.geometry import Geometry
from ...plan.structure import Planting
from ...site import Site
from .options import ExistingOptions
from .pole_geometry import pole
from .wired_geometry import wired


def laid_out(options: ExistingOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return what stands there, what is fixed to it, and plants, in metres."""
    return pole(options, plantings) if options.fixed_to == "pole" else wired(options, plantings, site)
