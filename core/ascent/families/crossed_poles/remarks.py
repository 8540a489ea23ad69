"""Crossed poles: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import ends_of, height_of
from .options import KEY, CrossedPolesOptions


def remarked(
    options: CrossedPolesOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: poles long enough, a ridge to hang on, a row that does not go
    down like cards.
    """
    row, height = tables.posts()[options.pole], height_of(options)
    remarks = fits.of_ground(site.bed, options.length)
    remarks += [
        *fits.of_stock(row, options.pole_length, ("pole", "pole_length")),
        *fits.of_lashing(row, options.crossing),
    ]
    if options.brace == "none":
        remarks.append(Remark("row-racks", "watch", source="handbook-9.4", levers=("brace",)))
    if options.brace == "guy":
        remarks += fits.of_guys(site.bed, options.length, ends_of(options, site).reach())
    if options.ridge == "wire" and options.brace != "guy":
        remarks.append(Remark("ridge-wire-ends", "wrong", source="handbook-7.5", levers=("brace",)))
    if options.between == "strings" and options.ridge == "none":
        remarks.append(Remark("strings-unhung", "wrong", source="handbook-parts-3.5", levers=("ridge",)))
    if options.spread > site.bed.width + 1e-6:
        wide = {"wide": (options.spread, "length"), "bed": (site.bed.width, "length")}
        remarks.append(
            Remark("poles-past-bed", "watch", wide, source="handbook-parts-3.5", levers=("spread",))
        )
    remarks += fits.of_setting(options.footing)
    if options.footing == "soil":
        remarks.append(Remark("feet-unsure", "watch", source="handbook-15", levers=("in_soil", "footing")))
    for planting in structure.plantings:
        remarks += [
            *fits.of_suit(planting, KEY),
            *fits.of_row(planting, options.length),
            *fits.of_tying(planting),
        ]
        remarks += fits.of_height(planting, height, ("pole_length",))
    remarks += fits.of_age(tables.posts()[options.pole], options.post_age, ("post_age", "pole"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of setting up poles."""
    cautions = ["services", "poles-eyes", "step"]
    if geometry.by_role("anchor"):
        cautions.append("guys")
    if geometry.by_role("cap"):
        cautions.append("caps")
    return (*cautions, "climb", "judgement")
