"""Existing: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants
from ...plan.model import Site
from .options import ExistingOptions
from .pole_geometry import PEGS
from .wired_geometry import LOWEST


def proposed(need: Need, site: Site) -> Proposal:
    """Return wires on a wall for a crop along it, or a tall pole for one that climbs so high, every value
    with its reason.
    """
    plant = tables.crops()[need.crop]
    row = plants.sown(need, site, longest=20.0, shortest=0.3)
    tall = plant.support_height_m > 3.0 and site.bed.kind == "in-ground"
    planting = row.plantings[0]
    if tall:
        planting = planting.model_copy(
            update={"count": need.count or 6, "spacing": round(math.tau * PEGS / (need.count or 6), 2)}
        )
    height = round(min(max(plant.support_height_m, 0.6), 2.1) * 20) / 20
    wires = max(min(math.floor((height - LOWEST) / 0.30 + 1e-6) + 1, 10), 1)
    twines = plant.training in ("TWINE", "FRONT", "GUIDE")
    bays = max(math.ceil(row.length / 1.5 - 1e-6), 1)
    spacing = round(min(max(row.length / bays + 0.004, 0.4), 2.4), 2)
    options = ExistingOptions(
        fixed_to="pole" if tall else "wall",
        length=row.length,
        height=height,
        wires=wires,
        fix_spacing=spacing,
        infill="strings" if twines else "none",
        string="polyester_3" if tall else "sisal_2.5",
        pole_top=min(max(plant.support_height_m, 2.0), 7.0),
    )
    reasons = {
        **row.reasons,
        (count := planting.path("count")): Reason("count_asked") if need.count else row.reasons[count],
        "fixed_to": Reason("host_pole" if tall else "host_wall", words={"crop": plant.name}),
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
    return Proposal(options, (planting,), reasons)
