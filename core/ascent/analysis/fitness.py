"""What fits a structure and what does not, apart from its strength: remarks, and how much they weigh."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from .. import tables
from ..family.protocol import Family
from ..loads.season import course_of
from ..path.geometry import Geometry
from ..path.loadpath import Remark
from ..plan.fields import Typed
from ..plan.structure import Structure
from ..remarks import fits
from ..site import Site


def remarks_of(
    family: Family[Typed], options: Typed, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return the remarks of a family on a structure, and those that apply to every family."""
    late = [
        r
        for planting in structure.plantings
        for r in fits.of_season(planting, course_of(site.garden, planting))
    ]
    own = family.remarks(options, geometry, structure, site)
    said = {remark.key for remark in own}
    joints = (remark for remark in fits.of_joints(geometry) if remark.key not in said)
    return (*own, *joints, *fits.of_pot(site.bed, geometry, type(options).model_fields), *late)


@dataclass(frozen=True)
class Unfit:
    """Keys of the remarks that say that something does not fit.

    wrong: It cannot be built or used so.
    serious: It can, but any support without the remark comes first.
    """

    wrong: frozenset[str]
    serious: frozenset[str]

    @classmethod
    def of(cls, remarks: Iterable[Remark]) -> Unfit:
        """Return what does not fit by some remarks."""
        said = tuple(remarks)
        return cls(
            frozenset(remark.key for remark in said if remark.level == "wrong"),
            frozenset(remark.key for remark in said if is_serious(remark)),
        )

    @property
    def keys(self) -> frozenset[str]:
        """Return the keys of both kinds."""
        return self.wrong | self.serious


def is_serious(remark: Remark) -> bool:
    """Return whether a remark to watch is so serious that a support without it comes first."""
    return remark.level == "watch" and tables.remarks()[remark.key].weight == "serious"


def is_drawback(remark: Remark) -> bool:
    """Return whether a remark to watch counts against a support where kinds are compared."""
    return remark.level == "watch" and tables.remarks()[remark.key].weight == "drawback"
