"""Stake: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, posts, pots
from ...site import Site
from .options import StakeOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return stakes for a crop on a bed, every value with its reason."""
    row = plants.sown(need, site, longest=30.0, shortest=0.3)
    crop, fill = row.crop, site.bed.raised_by
    height = round(min(max(crop.support_height_m - 0.1, 0.5), tables.constant("reach")) * 20) / 20
    depth = pots.room(site.bed, min(max(0.45, math.ceil((fill + 0.30) * 20) / 20), 1.2), 0.15)
    wanted = ["post_hw_stake_25", "post_hw_stake_38", "tpost_2.1", "tpost_2.4"][int(crop.shoot_kg >= 1.2) :]
    stake = next(
        (key for key in wanted if max(tables.posts()[key].lengths_m) >= depth + height - 0.03), wanted[-1]
    )
    longest = max(length for length in tables.posts()[stake].lengths_m if length <= posts.LONGEST_POST)
    height = max(min(height, math.floor((longest - depth) * 20 + 1e-6) / 20), 0.3)
    options = StakeOptions(
        length=row.length,
        stake=stake,
        height=height,
        depth=depth,
        stems=1 if need.training == "pruned" else 3,
    )
    reasons = {
        **row.reasons,
        "post_age": Reason("post_age"),
        "stake": Reason(
            "stake_stout" if stake != "post_hw_stake_25" else "stake",
            {"needed": (depth + height, "length")},
            {"stake": tables.posts()[stake].name},
        ),
        "height": Reason(
            "stake_height", {"support": (crop.support_height_m, "length"), "height": (height, "length")}
        ),
        "depth": Reason(
            "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
        ),
        "setting": Reason("setting"),
        "offset": Reason("offset"),
        "set_late": Reason("set_late"),
        "stem_tie": Reason("stem_tie"),
        "tie_step": Reason("tie_step", {"step": (options.tie_step, "length")}),
        "stems": Reason("stems_pruned" if options.stems == 1 else "stems_free"),
        "bar": Reason("bar"),
    }
    return Proposal(options, row.plantings, reasons)
