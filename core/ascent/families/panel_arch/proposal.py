"""Panel arch: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...shapes import sprung
from ...site import Site
from .geometry import FOOT_IN_BED, total_of
from .options import PanelArchOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return an arch for a crop on a bed, every value with its reason."""
    panel = tables.meshes()["panel_large"]
    width, overlap = panel.heights_m[0], 0.20
    row = plants.sown(need, site, longest=6 * width)
    panels = max(min(math.ceil((row.length - overlap - 0.3) / (width - overlap)), 6), 1)
    while panels > 1 and panels * width - (panels - 1) * overlap > site.bed.length + 1e-6:
        panels -= 1
    over_bed = site.bed.raised_by > 0.1 and 0.8 <= site.bed.width <= 2.2
    span = round(site.bed.width - 0.02, 2) if over_bed else 1.22
    if site.path:
        span = min(max(round(site.path + 2 * FOOT_IN_BED, 2), 0.6), 2.6)
    fill = site.bed.raised_by
    depth = pots.room(site.bed, min(max(0.60, math.ceil((fill + 0.45) * 20) / 20), 1.2), 0.2)
    post = next(
        (
            key
            for key in ("tpost_light_1.5", "tpost_light_1.8", "tpost_2.1")
            if max(tables.posts()[key].lengths_m) >= depth + 0.91
        ),
        "tpost_2.4",
    )
    options = PanelArchOptions(
        panels=panels,
        span=span,
        depth=depth,
        post=post,
        over="path" if site.path else "one-bed",
        headroom=min(need.headroom or tables.constant("headroom_least"), 2.4),
    )
    total = total_of(options)
    lines = 2 if need.sides == "both" else 1
    apart = row.plantings[0].spacing
    room = max(math.floor((total - 2 * tables.constant("row_end_clear")) / apart + 1e-6) + 1, 1) * lines
    plantings = row.filled(need, room)
    planting = plantings[0]
    rise = float(sprung.figures(4.88, span, 0.91, sprung.bending_stiffness(panel, width)).rise)
    reasons = {
        **{name: reason for name, reason in row.reasons.items() if name != "length"},
        planting.path("count"): Reason(
            "count_asked" if need.count else "count", {"count": (planting.count, "count")}
        ),
        "panel": Reason("arch_panel", words={"crop": row.crop.name}),
        "frame": Reason("frame"),
        "panel_length": Reason("panel_length", {"rise": (rise, "length"), "span": (span, "length")}),
        "panel_width": Reason("panel_width"),
        "panels": Reason("panels", {"count": (panels, "count"), "length": (total, "length")}),
        "over": Reason("over_path" if site.path else "over_bed"),
        "span": Reason(
            "span_path" if site.path else "span_bed" if over_bed else "span", {"span": (span, "length")}
        ),
        "headroom": Reason("headroom_asked" if need.headroom else "headroom"),
        "hold": Reason("hold"),
        "foot": Reason("foot"),
        "cover": Reason("cover"),
        "strung": Reason("strung"),
        "sling": Reason("sling", {"fruit": (row.crop.fruit_heaviest_kg, "mass")}),
        "sling_legs": Reason("sling_legs"),
        "sling_angle": Reason("sling_angle"),
        "stem_tie": Reason("stem_tie"),
    }
    given = frozenset({"headroom"} if need.headroom else ())
    return Proposal(options, plantings, reasons, given)
