"""Bed frame: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants
from ...site import Site
from .geometry import FIRST_SCREW, OWN_BOARD, RIM
from .options import BedFrameOptions

_LEAST_BOARD = 0.12  # to take two rows of screws [m]


def proposed(need: Need, site: Site) -> Proposal:
    """Return a frame for a crop on a bed, every value with its reason."""
    bed, plant = site.bed, tables.crops()[need.crop]
    row = plants.sown(need, site, longest=12.0, shortest=0.4)
    boarded = bed.kind == "raised" and bed.board >= 0.03 and bed.raised_by + RIM >= _LEAST_BOARD
    height = round(min(max(plant.support_height_m, 0.6), 2.1) * 20) / 20
    spacing = round(min(max(row.plantings[0].spacing, 0.45), 1.2), 2)
    high = bed.raised_by + RIM if boarded else OWN_BOARD[1]
    gap = round(min(max(math.floor((high - 2 * FIRST_SCREW) * 100 + 1e-6) / 100, 0.05), 0.20), 2)
    fill = (
        "none"
        if plant.training in ("STALK", "STAKE", "TIE", "WEAVE", "CORRAL", "NONE")
        else "strings"
        if plant.habit == "twiner"
        else "mesh"
    )
    both = need.sides == "both"
    wood = "post_sw_stake_38" if height <= 1.6 else "post_lumber_38x89"
    options = BedFrameOptions(
        length=row.length,
        sides="both" if both else "one",
        post=wood,
        height=height,
        post_spacing=spacing,
        infill=fill,
        crossbar="top" if both else "none",
        boards="bed" if boarded else "own",
        screw_gap=gap,
        backing="stakes" if not boarded else "none",
    )
    reasons = {
        **row.reasons,
        "sides": Reason("sides_both" if both else "sides_one"),
        "post_age": Reason("post_age"),
        "post": Reason("frame_post", {"height": (height, "length")}, {"post": tables.posts()[wood].name}),
        "height": Reason(
            "stake_height", {"support": (plant.support_height_m, "length"), "height": (height, "length")}
        ),
        "post_spacing": Reason("upright_spacing", {"spacing": (spacing, "length")}),
        "infill": Reason(f"infill_{fill}", words={"crop": plant.name}),
        "stem_tie": Reason("stem_tie"),
        "boards": Reason("boards_bed" if boarded else "boards_own"),
        "screw": Reason("screw"),
        "screw_rows": Reason("screw_rows"),
        "screw_gap": Reason("screw_gap", {"gap": (gap, "length")}),
        "backing": Reason("backing" if boarded else "backing_own"),
        "brace": Reason("brace_short"),
        "set_late": Reason("frame_straddles"),
    }
    return Proposal(options, row.plantings, reasons)
