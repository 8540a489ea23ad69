"""Brushwood: how it starts for a need."""

from __future__ import annotations

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...site import Site
from .options import BrushwoodOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return sticks for a crop on a bed, every value with its reason."""
    bed, plant = site.bed, tables.crops()[need.crop]
    row = plants.sown(need, site, longest=20.0, shortest=0.2)
    potted = bed.kind == "container"
    usual = max(0.25, 0.2 * min(plant.support_height_m, 1.5), min(bed.raised_by + 0.1, 0.45))
    depth = pots.room(bed, round(min(usual, 0.6), 2), 0.05)
    wanted = min(plant.support_height_m, 1.5) + depth
    lengths = tables.posts()["brush_12"].lengths_m
    long = min((length for length in lengths if length >= wanted - 0.15), default=max(lengths))
    starter = plant.support_height_m > 1.8 and not potted
    pattern = "ring" if potted else "starter" if starter else "crossed"
    long = 0.6 if starter else long
    options = BrushwoodOptions(
        length=row.length,
        stick="brush_15" if long > 1.2 else "brush_12",
        pattern=pattern,
        stick_length=long,
        in_soil=min(depth, 0.2) if starter else depth,
        tied="none" if potted or starter else "string",
    )
    reasons = {
        **row.reasons,
        "pattern": Reason(f"pattern_{pattern}", words={"crop": plant.name}),
        "stick": Reason("stick"),
        "stick_length": Reason(
            "stick_length", {"length": (long, "length"), "depth": (options.in_soil, "length")}
        ),
        "in_soil": Reason("depth_stick", {"depth": (options.in_soil, "length")}),
        "stick_spacing": Reason("stick_spacing", {"spacing": (options.stick_spacing, "length")}),
        "season": Reason("stick_season"),
        "tied": Reason("tied_none" if options.tied == "none" else "tied_string"),
    }
    return Proposal(options, row.plantings, reasons)
