"""Cage: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...site import Site
from .options import CageOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return cages for a crop on a bed, every value with its reason."""
    crop = tables.crops()[need.crop]
    small = crop.shoot_kg < 1.0
    cage = "cage_ring_heavy" if small else "cage_mesh_conc_57"
    wide = math.ceil(tables.cages()[cage].diameter_m * 20) / 20
    apart = max(wide, *(tables.crops()[each.crop].spacing_m for each in need.crops))
    row = plants.sown(need, site, longest=30.0, shortest=0.3, spacing=apart)
    two = need.sides == "both" and site.bed.width >= 1.0
    depth = min(max(0.45, math.ceil((site.bed.raised_by + 0.30) * 20) / 20), 0.9)
    depth = pots.room(site.bed, depth, 0.15)
    options = CageOptions(
        cage=cage,
        length=row.length,
        rows=2 if two else 1,
        row_spacing=0.75,
        link="diagonal" if two else "none",
        stakes=0 if small else 1,
        depth=depth,
    )
    reasons = {
        **row.reasons,
        "made": Reason("made"),
        "cage": Reason("cage_small" if small else "cage", words={"crop": crop.name}),
        "rows": Reason("cage_rows", {"rows": (options.rows, "count")}),
        "row_spacing": Reason("row_spacing", {"spacing": (0.75, "length")}),
        "link": Reason("link_raft" if two else "link"),
        "stakes": Reason("no_stake" if small else "one_stake"),
        "above": Reason("above"),
    }
    return Proposal(options, row.plantings, reasons)
