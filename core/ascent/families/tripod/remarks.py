"""Tripod: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

import math

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import height_of, spares
from .options import KEY, TripodOptions

_STEEP = 10.0  # from upright, below which the base is narrow [degrees], parts handbook 3.4


def remarked(
    options: TripodOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: poles long enough, a base wide enough, a lashing that does not
    slide.
    """
    row = tables.posts()[options.pole]
    remarks = fits.of_ground(site.bed, geometry.length, ("sets",))
    remarks += fits.of_stock(row, options.pole_length, ("pole", "pole_length"))
    lean = math.degrees(math.atan2(options.radius, height_of(options)))
    if lean < _STEEP:
        values = {"lean": (lean, "angle"), "radius": (options.radius, "length")}
        remarks.append(
            Remark(
                "poles-steep", "watch", values, source="handbook-parts-3.4", levers=("radius", "pole_length")
            )
        )
    if 2 * options.radius > site.bed.width + 1e-6:
        wide = {"wide": (2 * options.radius, "length"), "bed": (site.bed.width, "length")}
        remarks.append(
            Remark("poles-past-bed", "watch", wide, source="handbook-parts-3.4", levers=("radius",))
        )
    if options.sets > 1 and options.set_spacing < 2 * options.radius:
        apart = {"apart": (options.set_spacing, "length"), "wide": (2 * options.radius, "length")}
        remarks.append(
            Remark(
                "sets-overlap", "wrong", apart, source="handbook-parts-3.4", levers=("set_spacing", "radius")
            )
        )
    remarks += fits.of_lashing(row, options.crossing)
    if options.held == "rim" and site.bed.kind != "container":
        remarks.append(Remark("no-rim", "wrong", source="handbook-parts-4.9", levers=("held",)))
    if site.bed.kind == "container":
        remarks.append(Remark("pot-watered", "watch", source="handbook-parts-4.9", levers=("radius",)))
    per_pole = sum(p.count for p in structure.plantings) / (options.sets * (options.legs + spares(options)))
    if per_pole > 2.01 and options.laced == "none":
        remarks.append(
            Remark(
                "poles-crowded",
                "watch",
                {"count": (per_pole, "ratio")},
                source="handbook-parts-3.4",
                levers=("legs", "laced"),
            )
        )
    for planting in structure.plantings:
        remarks += [
            *fits.of_suit(planting, KEY),
            *fits.of_height(planting, geometry.climb, ("pole_length",)),
            *fits.of_tying(planting),
        ]
    remarks += fits.of_age(tables.posts()[options.pole], options.post_age, ("post_age", "pole"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of setting up poles."""
    cautions = ["services", "poles-eyes"]
    if geometry.by_role("cap"):
        cautions.append("caps")
    return (*cautions, "climb", "judgement")
