"""Cage: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

import math

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import cage_of
from .options import KEY, CageOptions

_HEAVY_SHOOT = 1.2  # of a plant that bends light rings [kg], crops handbook 2
_LIGHT = 0.003  # wire of rings that such a plant bends [m], crops handbook 2
_NETTING = 0.0015  # wire that holds no such plant up, whatever its openings [m], judgement
_WIDE = 0.2  # openings past which a wire stands alone [m], crops handbook 2


def remarked(
    options: CageOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: light wire, an outgrown cage, links that only seem to hold."""
    row = cage_of(options)
    remarks = fits.of_ground(site.bed, options.length)
    if options.link in ("row", "grid"):
        remarks.append(Remark("link-racks", "watch", source="handbook-10.3", levers=("link",)))
    if options.link != "none" and options.rows == 1:
        remarks.append(Remark("link-one-row", "watch", source="handbook-10.3", levers=("stakes", "link")))
    if not options.stakes and options.link != "diagonal":
        remarks.append(Remark("cage-alone", "watch", source="handbook-10.1", levers=("stakes", "link")))
    for planting in structure.plantings:
        crop = tables.crops()[planting.crop]
        remarks += [*fits.of_suit(planting, KEY)]
        remarks += fits.of_low(planting, geometry.top, ("above", "height"))
        per_row = math.ceil(planting.count / options.rows)
        if per_row > 1 and planting.spacing < row.diameter_m - 0.02:
            values = {"spacing": (planting.spacing, "length"), "wide": (row.diameter_m, "length")}
            remarks.append(
                Remark(
                    "cages-touch",
                    "wrong",
                    values,
                    source="handbook-parts-3.7",
                    levers=(planting.path("spacing"), "diameter"),
                )
            )
        if (per_row - 1) * planting.spacing > options.length + 1e-6:
            values = {
                "count": (float(planting.count), "count"),
                "row": ((per_row - 1) * planting.spacing, "length"),
                "length": (options.length, "length"),
            }
            remarks.append(
                Remark(
                    "crowded-row",
                    "wrong",
                    values,
                    {"crop": crop.name},
                    "crops-3",
                    ("length", planting.path("count")),
                )
            )
        if crop.height_m > geometry.top + 0.3:
            values = {"vine": (crop.height_m, "length"), "top": (geometry.top, "length")}
            remarks.append(
                Remark(
                    "cage-outgrown",
                    "watch",
                    values,
                    {"crop": crop.name},
                    "handbook-parts-3.7",
                    ("above", "height"),
                )
            )
        netting = row.wire < _NETTING
        if crop.shoot_kg >= _HEAVY_SHOOT and (netting or (row.wire <= _LIGHT and row.along > _WIDE)):
            remarks.append(
                Remark(
                    "cage-light",
                    "wrong" if netting else "watch",
                    {"wire": (row.wire, "wire")},
                    {"crop": crop.name},
                    "crops-2",
                    ("cage",),
                )
            )
    if min(row.along, row.up) - row.wire < 0.1:
        remarks.append(
            Remark(
                "hand-no",
                "watch",
                {"clear": (min(row.along, row.up) - row.wire, "length")},
                source="crops-5.6",
                levers=("cage", "mesh"),
            )
        )
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of cages."""
    cautions = ["services", "driving"] if geometry.by_role("post") else []
    if geometry.by_role("cap"):
        cautions.append("caps")
    return (*cautions, "cut-ends", "judgement")
