"""Brushwood: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import height_of
from .options import KEY, BrushwoodOptions


def remarked(
    options: BrushwoodOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: sticks long enough and new enough, tied or not, and what a
    starter leads to.
    """
    row, height = tables.posts()[options.stick], height_of(options)
    remarks = [
        *fits.of_ground(site.bed, options.length),
        *fits.of_stock(row, options.stick_length, ("stick_length",)),
    ]
    if options.season > row.life_dry:
        remarks.append(
            Remark(
                "sticks-old",
                "wrong",
                {"season": (options.season, "count"), "life": (row.life_dry, "count")},
                source="handbook-parts-2.1",
                levers=("season",),
            )
        )
    elif options.season > 1:
        remarks.append(
            Remark(
                "sticks-second",
                "watch",
                {"share": ((1 - tables.constant("brush_ages")) * 100, "count")},
                source="handbook-3.4",
                levers=("season",),
            )
        )
    if options.in_soil < 0.2 * options.stick_length - 0.011:
        remarks.append(
            Remark(
                "sticks-shallow",
                "watch",
                {"depth": (0.2 * options.stick_length, "length")},
                source="handbook-parts-3.15",
                levers=("in_soil",),
            )
        )
    if options.tied == "none" and options.pattern in ("upright", "crossed"):
        remarks.append(Remark("sticks-topple", "watch", source="handbook-parts-3.15", levers=("tied",)))
    if options.pattern == "starter":
        remarks.append(
            Remark(
                "starter-leads",
                "watch",
                {"height": (height, "length")},
                source="handbook-parts-3.15",
                levers=("pattern",),
            )
        )
    remarks.append(Remark("sticks-dry", "fine", source="handbook-parts-3.15"))
    for planting in structure.plantings:
        crop = tables.crops()[planting.crop]
        remarks += [
            *fits.of_suit(planting, KEY),
            *fits.of_row(planting, options.length),
            *fits.of_tying(planting),
        ]
        if options.pattern != "starter":
            remarks += fits.of_low(planting, height, ("stick_length",))
        if options.pattern != "starter" and crop.height_m > height + 0.35:
            values = {
                "vine": (crop.height_m, "length"),
                "top": (height, "length"),
                "over": (crop.height_m - height, "length"),
            }
            remarks.append(
                Remark(
                    "sticks-outgrown",
                    "watch",
                    values,
                    {"crop": crop.name},
                    "handbook-parts-3.15",
                    ("stick_length",),
                )
            )
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of setting sticks."""
    return ("sticks-eyes", "judgement")
