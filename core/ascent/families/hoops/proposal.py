"""Hoops: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...shapes import sprung
from ...site import Site
from .options import HoopsOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return hoops for a crop on a bed, every value with its reason."""
    bed, plant = site.bed, tables.crops()[need.crop]
    row = plants.sown(need, site, longest=20.0, shortest=0.3)
    span = round(min(max(bed.width, 0.5), 1.2), 2)
    wanted = min(max(plant.support_height_m, 0.5), 1.2)
    arcs = [long for long in (1.52, 1.83, 2.4, 3.05, 3.7) if sprung.fits(long, span, 0.25)]
    rises = {long: float(sprung.figures(long, span, 0.25, 1.0).rise) - 0.25 for long in arcs}
    arc = min(rises, key=lambda long: (rises[long] < wanted - 0.15, abs(rises[long] - wanted)))
    push_in = pots.room(bed, 0.25, 0.1)
    bays = max(math.ceil(row.length / 0.9 - 1e-6), 1)
    spacing = round(min(max(row.length / bays + 0.004, 0.2), 1.5), 2)
    options = HoopsOptions(length=row.length, arc=arc, span=span, hoop_spacing=spacing, push_in=push_in)
    reasons = {
        **row.reasons,
        "hoop_of": Reason("made_hoops"),
        "arc": Reason("arc", {"arc": (arc, "length"), "rise": (rises[arc], "length")}),
        "held": Reason("held_soil"),
        "span": Reason("span_bed", {"span": (span, "length")}),
        "hoop_spacing": Reason("hoop_spacing", {"spacing": (spacing, "length")}),
        "net": Reason("net"),
        "stem_tie": Reason("stem_tie"),
        "ridge": Reason("ridge_hoops"),
        "brace": Reason("brace_hoops"),
    }
    return Proposal(options, row.plantings, reasons)
