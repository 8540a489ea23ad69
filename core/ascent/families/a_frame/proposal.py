"""A frame: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants
from ...site import Site
from .options import AFrameOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return an A-frame for a crop on a bed, every value with its reason."""
    bed, plant = site.bed, tables.crops()[need.crop]
    row = plants.sown(need, site, longest=2.4)
    tall = plant.support_height_m >= 1.4
    leg = 2.10 if tall else 1.27
    boarded = bed.kind == "raised" and bed.board >= 0.03 and 0.5 <= bed.width <= 1.6
    spread = round(min(max(bed.width if boarded else min(bed.width, 1.2), 0.5 * leg), 2.0), 2)
    bays = max(math.ceil(row.length / 1.2 - 1e-6), 1)
    spacing = round(min(max(row.length / bays + 0.004, 0.3), 2.4), 2)
    options = AFrameOptions(
        length=row.length, leg=leg, spread=spread, rail_spacing=spacing, foot="cleat" if boarded else "stake"
    )
    reasons = {
        **row.reasons,
        "leg": Reason("leg", {"support": (plant.support_height_m, "length"), "leg": (leg, "length")}),
        "spread": Reason("spread_boards" if boarded else "spread_frame", {"spread": (spread, "length")}),
        "faces": Reason("faces"),
        "filled": Reason("filled"),
        "rail_spacing": Reason("rail_spacing", {"spacing": (spacing, "length")}),
        "hang": Reason("hang"),
        "sling": Reason("sling", {"fruit": (plant.fruit_heaviest_kg, "mass")}),
        "sling_legs": Reason("sling_legs"),
        "sling_angle": Reason("sling_angle"),
        "stem_tie": Reason("stem_tie"),
        "foot_tie": Reason("foot_tie"),
        "foot": Reason("foot_cleat" if boarded else "foot_stake"),
        "brace": Reason("brace_face"),
    }
    return Proposal(options, row.plantings, reasons)
