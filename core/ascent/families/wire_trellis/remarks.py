"""Wire trellis: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...patterns import starters
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import ends_of
from .options import GUYED, KEY, WireTrellisOptions


def remarked(
    options: WireTrellisOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: the room that guys take, reach, the safety wire, what climbs on
    what.
    """
    remarks = fits.of_ground(site.bed, options.length)
    assembly = ends_of(options, site)
    if options.ends in GUYED:
        remarks += fits.of_guys(site.bed, options.length, assembly.reach())
    if not options.safety_wire:
        remarks.append(Remark("no-safety-wire", "wrong", source="handbook-7.6", levers=("safety_wire",)))
    if options.starter == "brush":
        remarks.append(
            Remark(
                "starter-brush",
                "fine",
                {"height": (starters.height(), "length")},
                source="handbook-parts-3.15",
                levers=("starter",),
            )
        )
    if options.ends == "plain":
        remarks.append(Remark("ends-unbraced", "watch", source="handbook-7.5", levers=("ends",)))
    remarks += fits.of_setting(
        "concrete" if "concrete" in (options.ends, options.setting) else options.setting
    )
    if "barbed" in options.wire:
        remarks.append(Remark("barbed", "watch", source="handbook-parts-3.9", levers=("wire",)))
    for planting in structure.plantings:
        crop = tables.crops()[planting.crop]
        remarks += [
            *fits.of_height(planting, options.top_height, ("top_height",)),
            *fits.of_suit(planting, KEY),
        ]
        remarks += fits.of_row(planting, options.length)
        if options.crop_on == "wires" and crop.habit == "twiner":
            remarks.append(
                Remark(
                    "twiner-level", "wrong", words={"crop": crop.name}, source="crops-4", levers=("crop_on",)
                )
            )
        if options.crop_on == "strings" and crop.training == "TIE":
            remarks.append(Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4"))
    remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of building a wire trellis of these members."""
    cautions = ["services-ends", "strainers", "cut-ends"]
    if geometry.by_role("guy"):
        cautions.append("guys")
    if any(wire.item == "wire_barbed_125" for wire in geometry.by_role("wire")):
        cautions.append("barbed")
    if geometry.by_role("cap"):
        cautions.append("caps")
    return (*cautions, "climb", "judgement")
