"""Drop strings: how it starts for a need."""

from __future__ import annotations

import math

from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...site import Site
from .options import DropStringsOptions

_MOST_BEAM = 3.6  # a beam needs no anchors up to this span [m], parts handbook 3.8


def proposed(need: Need, site: Site) -> Proposal:
    """Return strings from a beam for a crop on a bed, every value with its reason."""
    row = plants.sown(need, site, longest=30.0)
    crop, fill = row.crop, site.bed.raised_by
    beam = row.length <= 2 * _MOST_BEAM
    height = round(min(max(crop.support_height_m, 1.2), 2.10) * 20) / 20
    boards = site.bed.kind == "raised" and site.bed.board >= 0.03
    depth = pots.room(site.bed, min(max(0.60, math.ceil((fill + 0.50) * 20) / 20), 1.2), 0.2)
    bays = math.ceil(row.length / 2.4 - 1e-6)
    options = DropStringsOptions(
        length=row.length,
        top="beam" if beam else "wire",
        top_height=height,
        depth=depth,
        post_spacing=round(max(row.length / bays, 0.6) + 0.004, 2),
        zigzag=0.46 if need.sides == "both" else 0.0,
        pretension=100.0,
    )
    reasons = {
        **row.reasons,
        "top": Reason("top_beam" if beam else "top_wire", {"span": (_MOST_BEAM, "length")}),
        "top_height": Reason(
            "top_height", {"support": (crop.support_height_m, "length"), "height": (height, "length")}
        ),
        "string": Reason("string"),
        "attach": Reason("attach"),
        "hung_by": Reason("hung_by"),
        "foot_held": Reason("foot_held"),
        "lower": Reason("lower"),
        "zigzag": Reason("zigzag_both" if need.sides == "both" else "zigzag"),
        "footing": Reason("footing_raised" if boards else "footing"),
    }
    return Proposal(options, row.plantings, reasons)
