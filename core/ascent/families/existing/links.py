"""Existing: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

from ...loads.cases import Cases
from ...path.geometry import Geometry
from ...plan.structure import Structure
from ...site import Site
from .options import ExistingOptions
from .pole_links import Pole
from .wired_links import Wall, WiredFence


def loaded(
    options: ExistingOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
) -> Wall | WiredFence | Pole:
    """Return the wall, the fence or the pole under the loads of the cases."""
    kinds: dict[str, type[Wall | WiredFence | Pole]] = {"wall": Wall, "fence": WiredFence, "pole": Pole}
    return kinds[options.fixed_to](options, geometry, structure, site, cases)
