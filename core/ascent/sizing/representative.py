"""The representative segment of a long row: it stands for the whole while many designs are evaluated."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..analysis.design import Design, design_of
from ..families import family_of
from ..plan.structure import Structure
from ..site import Site
from ..words.quantities import System
from ..words.texts import say

WHOLE = ("length", "rows")  # options that say how long and wide it is: what they move is seen on the whole
MANY = 1500  # members, from which on a segment stands for the whole
_ENOUGH = 120  # plants of the segment
_LEAST_BED = 0.3  # [m]
_SAME = 0.01  # share within which two limit gusts are the same


@dataclass(frozen=True)
class Representative:
    """A structure, or its first segment: where it stands, what it is, and which share of the whole it is.

    length: of the segment where it is one, else 0. [m]
    """

    site: Site
    structure: Structure
    share: float = 1.0
    length: float = 0.0

    def said(self, system: System) -> str:
        """Return in words what was calculated with, nothing where it is the whole."""
        return (
            say("representative.segment", system, {"length": (self.length, "length")}) if self.length else ""
        )


def representative(site: Site, structure: Structure) -> Representative:
    """Return the first segment of a structure of very many members, its bed shortened alike; any other as it
    is.

    Loads, spacings and every option but the length are the structure's own. It stands for the whole only if
    each link of it holds to the same gust as that of the whole; what has something of its length in it (one
    foot, one long rail) is evaluated whole.
    """
    plants = sum(planting.count for planting in structure.plantings)
    if plants <= _ENOUGH:
        return Representative(site, structure)
    whole = design_of(site, structure)
    if len(whole.geometry.members) <= MANY:
        return Representative(site, structure)
    short = _shortened(site, structure, _ENOUGH / plants)
    return short if _alike(whole, design_of(short.site, short.structure)) else Representative(site, structure)


def _shortened(site: Site, structure: Structure, share: float) -> Representative:
    kind = family_of(structure.family).options
    options = kind.model_validate(structure.options).model_dump()
    long = float(options.get("length", site.bed.length))
    low = _LEAST_BED
    if "length" in options:
        low = next(float(m.ge) for m in kind.model_fields["length"].metadata if hasattr(m, "ge"))
    share = max(share, low / long)
    rows = int(options.get("rows", 1))
    plantings = tuple(
        p.model_copy(
            update={"count": min(p.count, math.ceil(p.count * share / rows) * rows), "along": p.along * share}
        )
        for p in structure.plantings
    )
    if "length" in options:
        options["length"] = round(long * share, 2)
    bed = site.bed.model_copy(update={"length": round(site.bed.length * share, 2)})
    short = structure.model_copy(update={"options": options, "plantings": plantings})
    spare = tuple(each.model_copy(update={"amount": each.amount * share}) for each in site.spare)
    return Representative(site.model_copy(update={"bed": bed, "spare": spare}), short, share, long * share)


def _alike(whole: Design, part: Design) -> bool:
    """Return whether every link of two structures has the same limit gust."""
    limits, others = whole.moist_limits(), part.moist_limits()
    if set(limits) != set(others):
        return False
    pairs = ((float(np.min(limits[key])), float(np.min(others[key]))) for key in limits)
    return all(math.isclose(a, b, rel_tol=_SAME) for a, b in pairs)
