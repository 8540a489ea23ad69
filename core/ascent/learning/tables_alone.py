"""A structure and what it asks for as the tables have it, whatever was learnt before."""

from __future__ import annotations

from ..analysis.design import geometry_of
from ..plan.bed import Bed
from ..plan.garden import Garden
from ..plan.structure import Structure, as_it_stands
from ..season.tasks import Tended
from ..site import plain_site, untaught


def tended_by_tables(garden: Garden, bed: Bed, structure: Structure) -> Tended:
    """Return a structure as it stands with what it asks for, nothing of a log counted with."""
    standing = as_it_stands(structure)
    return Tended(untaught(plain_site(garden, bed)), standing, geometry_of(bed, standing))
