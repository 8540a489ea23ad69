"""Panel arch: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

from ...loads.cases import Cases
from ...path.geometry import Geometry
from ...plan.structure import Structure
from ...site import Site
from .options import PanelArchOptions
from .sprung_links import Arch
from .tube_links import TubeArch


def loaded(
    options: PanelArchOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
) -> Arch:
    """Return the arch under the loads of the cases."""
    kind = Arch if options.frame == "sprung" else TubeArch
    return kind(options, geometry, structure, site, cases)
