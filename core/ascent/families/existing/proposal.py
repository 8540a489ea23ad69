"""Existing: how it starts for a need."""

from __future__ import annotations

import math
from dataclasses import replace

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants
from ...plan.fields import Side
from ...site import Site
from .options import ExistingOptions
from .pole_geometry import PEGS
from .wired_geometry import LOWEST

_BELOW_TOP = 0.05  # of a wall or fence, the uppermost wire [m]


def proposed(need: Need, site: Site) -> Proposal:
    """Return wires on a wall for a crop along it, or a tall pole for one that climbs so high, every value
    with its reason.
    """
    plant, host = tables.crops()[need.crop], site.host
    if host:  # it grows away from what it is fixed to
        away: Side = "right" if host.side == "left" else "left"
        crops = [replace(each, side=away, others=()) for each in need.crops]
        need = replace(crops[0], others=tuple(crops[1:]))
    row = plants.sown(need, site, longest=min(host.length, 20.0) if host else 20.0, shortest=0.3)
    tall = plant.support_height_m > 3.0 and site.bed.kind == "in-ground" and not host
    plantings = row.plantings
    if tall:
        plantings = row.filled(need, 6)
        apart = round(math.tau * PEGS / max(sum(planting.count for planting in plantings), 1), 2)
        plantings = tuple(planting.model_copy(update={"spacing": apart}) for planting in plantings)
    planting = plantings[0]
    height = round(min(max(plant.support_height_m, 0.6), 2.1) * 20) / 20
    if host and host.height:
        height = max(min(height, math.floor((host.height - _BELOW_TOP) * 20 + 1e-6) / 20), 0.5)
    fence = min(max((host and host.height) or 1.8, height, 0.5), 2.4)
    wires = max(min(math.floor((height - LOWEST) / 0.30 + 1e-6) + 1, 10), 1)
    twines = plant.training in ("TWINE", "FRONT", "GUIDE")
    bays = max(math.ceil(row.length / 1.5 - 1e-6), 1)
    spacing = round(min(max(row.length / bays + 0.004, 0.4), 2.4), 2)
    options = ExistingOptions(
        fixed_to="pole" if tall else host.kind if host else "wall",
        length=row.length,
        height=height,
        wires=wires,
        fix_spacing=spacing,
        infill="strings" if twines else "none",
        string="polyester_3" if tall else "sisal_2.5",
        fence_height=round(fence, 2),
        pole_top=min(max(plant.support_height_m, 2.0), 7.0),
    )
    reasons = {
        **row.reasons,
        (count := planting.path("count")): Reason("count_asked") if need.count else row.reasons[count],
        "fixed_to": Reason(
            "host_pole" if tall else f"host_here_{host.kind}" if host else "host_wall",
            {"length": (host.length if host else 0.0, "length")},
            {"crop": plant.name},
        ),
        "owner": Reason("owner"),
        "state": Reason("state"),
        "height": Reason(
            "stake_height", {"support": (plant.support_height_m, "length"), "height": (height, "length")}
        ),
        "wires": Reason("wires_wall", {"wires": (wires, "count")}),
        "fix_spacing": Reason("fix_spacing", {"spacing": (spacing, "length")}),
        "infill": Reason("infill_strings" if twines else "infill_wires", words={"crop": plant.name}),
        "string": Reason("twine"),
        "base": Reason("foot_held"),
        "stem_tie": Reason("stem_tie"),
    }
    return Proposal(options, plantings, reasons)
