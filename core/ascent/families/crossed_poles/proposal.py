"""Crossed poles: how it starts for a need."""

from __future__ import annotations

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...site import Site
from .options import CrossedPolesOptions

_TALL = 1.9  # where poles cross and a hand still ties them [m], parts handbook 3.5


def proposed(need: Need, site: Site) -> Proposal:
    """Return crossed poles for a crop on a bed, every value with its reason."""
    bed, plant = site.bed, tables.crops()[need.crop]
    spread = round(min(max(bed.width - 0.1, 0.3), 0.6), 2)
    depth = pots.room(bed, round(min(0.30 + bed.raised_by, 0.9), 2), 0.1)
    wanted = min(plant.support_height_m, _TALL) + depth + 0.2
    long = min((each for each in (1.8, 2.1, 2.4, 3.0) if each >= wanted - 0.1), default=3.0)
    pole = "cane_16" if long <= 2.4 else "cane_20"
    row = plants.sown(need, site, longest=20.0, shortest=0.3)
    apart = row.plantings[0].spacing
    spacing = round(min(max(apart, 0.20), 0.60, max(row.length, 0.15)), 2)
    options = CrossedPolesOptions(
        length=row.length,
        pair_spacing=spacing,
        spread=spread,
        pole=pole,
        pole_length=long,
        in_soil=depth,
        ridge_pole="cane_20",
    )
    reasons = {
        **row.reasons,
        "pair_spacing": Reason("pair_spacing", {"spacing": (spacing, "length")}),
        "spread": Reason("spread", {"spread": (spread, "length")}),
        "post_age": Reason("post_age"),
        "pole": Reason("pole", {"length": (long, "length")}, {"pole": tables.posts()[pole].name}),
        "pole_length": Reason(
            "pole_length", {"support": (plant.support_height_m, "length"), "length": (long, "length")}
        ),
        "footing": Reason("footing_poles"),
        "in_soil": Reason("depth_poles", {"depth": (depth, "length")}),
        "tail": Reason("tail_v"),
        "crossing": Reason("notched"),
        "ridge": Reason("ridge"),
        "between": Reason("between"),
        "stem_tie": Reason("stem_tie"),
        "brace": Reason("brace_row"),
    }
    return Proposal(options, row.plantings, reasons)
