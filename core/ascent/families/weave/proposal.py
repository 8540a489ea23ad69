"""Weave: how it starts for a need."""

from __future__ import annotations

import math

from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...site import Site
from .options import WeaveOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return a weave for a crop on a bed, every value with its reason."""
    row = plants.sown(need, site, longest=60.0)
    crop, fill = row.crop, site.bed.raised_by
    style = {"CORRAL": "corral", "FRONT": "front-back"}.get(crop.training, "basket")
    apart = row.plantings[0].spacing
    bay = min(max(round(2 * apart if apart >= 0.3 else 1.2, 2), 0.6), 2.0)
    top = round(min(max(0.9 * min(crop.support_height_m, 1.8), 0.25), 1.65) * 20) / 20
    first = min(0.25, top)
    depth = pots.room(site.bed, min(max(0.45, math.ceil((fill + 0.35) * 20) / 20), 1.2), 0.15)
    options = WeaveOptions(
        length=row.length, style=style, post_spacing=bay, top_run=top, first_run=first, depth=depth
    )
    reasons = {
        **row.reasons,
        "style": Reason(f"style_{style.replace('-', '_')}", words={"crop": crop.name}),
        "first_run": Reason("first_run", {"height": (first, "length")}),
        "run_step": Reason("run_step", {"step": (options.run_step, "length")}),
        "top_run": Reason("top_run", {"height": (top, "length")}),
        "post_age": Reason("post_age"),
        "post": Reason("weave_post"),
        "post_spacing": Reason(
            "post_spacing_weave" if apart >= 0.3 else "post_spacing_row", {"spacing": (bay, "length")}
        ),
        "depth": Reason(
            "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
        ),
        "setting": Reason("setting"),
        "ends": Reason("ends_double"),
        "extension": Reason("extension"),
        "twine": Reason("twine"),
    }
    return Proposal(options, row.plantings, reasons)
