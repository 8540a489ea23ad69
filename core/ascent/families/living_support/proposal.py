"""Living support: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants
from ...site import Site
from .geometry import grid, tall_of
from .options import LivingSupportOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return a block of hosts for a climber on a bed, every value with its reason."""
    heavy = tables.crops()[need.crop].shoot_kg > 0.5
    host = tables.hosts()["sunflower" if heavy else "corn"]
    apart = max(tables.crops()[host.key].spacing_m, 0.15)
    usual = round((host.start_low_d + host.start_high_d) / 2)
    ahead = next((days for days in range(usual, 46) if tall_of(host.key, days) >= host.ready_low_m), 45)
    row_spacing = round(min(0.75, max((site.bed.width - 0.2) / 3, 0.25)), 2)
    rows_ = max(min(math.floor((site.bed.width - 0.2) / row_spacing + 1e-6) + 1, 4), 1)
    length = min(max(math.floor(min(site.bed.length, 12.0) * 20 + 1e-6) / 20, 0.6), 12.0)
    options = LivingSupportOptions(
        host=host.key,
        head_start=ahead,
        length=length,
        rows=rows_,
        row_spacing=row_spacing,
        host_spacing=apart,
    )
    hosts = len(grid(options))
    fitting = max(round(hosts / 2), 1)
    row = plants.sown(need, site, longest=12.0, spacing=min(max(2 * apart, 0.03), 3.0))
    plantings = row.filled(need, fitting)
    planting, count = plantings[0], plantings[0].count
    reasons = {
        **row.reasons,
        planting.path("count"): Reason(
            "count_asked" if need.count else "climbers",
            {"count": (count, "count"), "hosts": (hosts, "count")},
        ),
        planting.path("spacing"): Reason("climber_spacing"),
        "length": Reason("block_length"),
        "host": Reason("host_heavy" if heavy else "host", words={"crop": row.crop.name}),
        "mix": Reason("mix"),
        "head_start": Reason(
            "head_start",
            {
                "days": (options.head_start, "count"),
                "low": (host.ready_low_m, "length"),
                "high": (host.ready_high_m, "length"),
            },
        ),
        "rows": Reason("rows", {"rows": (rows_, "count"), "least": (host.least_rows, "count")}),
        "row_spacing": Reason("row_spacing", {"spacing": (row_spacing, "length")}),
        "host_spacing": Reason("host_spacing", {"spacing": (apart, "length")}),
        "below": Reason("below"),
        "backup": Reason("backup"),
    }
    return Proposal(options, plantings, reasons)
