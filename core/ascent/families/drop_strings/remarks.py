"""Drop strings: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import ends_of
from .options import KEY, DropStringsOptions


def remarked(
    options: DropStringsOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: reach, the base of the string, the room that lowered stems
    want.
    """
    on_posts = options.top != "house"
    in_soil = on_posts and options.footing == "soil"
    remarks = fits.of_ground(site.bed, options.length)
    remarks += fits.of_setting(options.setting if in_soil else "none")
    if on_posts and options.footing == "bed" and site.bed.kind != "raised":
        remarks.append(Remark("no-board", "wrong", source="handbook-13", levers=("footing",)))
    if options.top == "wire" and options.ends == "guy":
        remarks += fits.of_guys(site.bed, options.length, ends_of(options, site).reach())
    if options.top == "wire" and options.ends == "plain":
        remarks.append(Remark("ends-unbraced", "watch", source="handbook-7.5", levers=("ends",)))
    if not on_posts:
        remarks.append(Remark("house-asked", "watch", source="handbook-parts-4.1"))
    if options.top == "beam" and options.brace == "none":
        remarks.append(Remark("unbraced-frame", "watch", source="handbook-9.5", levers=("brace",)))
    if options.foot_held == "loop":
        remarks.append(Remark("stem-loop", "watch", source="handbook-13", levers=("foot_held",)))
    if options.attach == "twist":
        remarks.append(Remark("wound-stems", "fine", source="crops-4"))
    if options.lower:
        room = max(options.stem_length - options.top_height, 0.0)
        values = {
            "stem": (options.stem_length, "length"),
            "room": (min(room, 1.2), "length"),
            "shift": (room, "length"),
        }
        remarks.append(Remark("lowered", "fine", values, source="crops-4"))
    for planting in structure.plantings:
        crop = tables.crops()[planting.crop]
        remarks += [*fits.of_suit(planting, KEY), *fits.of_row(planting, options.length)]
        remarks += (
            [] if options.lower else fits.of_height(planting, options.top_height, ("top_height", "lower"))
        )
        if crop.training == "TIE":
            remarks.append(Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4"))
    remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of building this."""
    cautions = ["services", "step"]
    if geometry.by_role("guy"):
        cautions.append("guys")
    return (*cautions, "climb", "judgement")
