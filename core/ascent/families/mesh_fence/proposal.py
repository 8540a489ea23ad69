"""Mesh fence: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import mesh_face, plants, posts, pots
from ...site import Site
from .options import MeshFenceOptions


def proposed(need: Need, site: Site) -> Proposal:
    """Return a fence for a crop on one side of a bed, every value with its reason."""
    row = plants.sown(need, site, longest=30.0)
    plant, length = row.crop, row.length
    product = mesh_face.mesh_for(plant)
    gap = 0.15 if product.stiff else 0.05
    wanted = min(plant.support_height_m, tables.constant("reach")) - gap
    height = max((h for h in product.heights_m if h <= wanted + 0.1), default=min(product.heights_m))
    fill = site.bed.raised_by
    longest = max(posts.driven_for(math.inf).lengths_m)
    depth = min(
        max(0.60, math.ceil((fill + 0.45) * 20) / 20), math.floor((longest - gap - height) * 20) / 20, 1.2
    )
    depth = pots.room(site.bed, depth, 0.15)
    post = posts.driven_for(depth + gap + height)
    bay = 1.22 if product.stiff else 1.0
    options = MeshFenceOptions(
        length=length,
        mesh=product.key,
        mesh_height=height,
        bottom_gap=gap,
        post=post.key,
        post_spacing=bay,
        depth=depth,
        tie="clip_tpost",
        ties_per_post=mesh_face.tie_count(height),
        top="wire" if product.kind == "net" else "none",
        ends="plain" if product.stiff or length <= 4.0 else "guy",
        leaned_on=need.pulled,
    )
    reasons = {
        **row.reasons,
        "mesh": Reason("mesh", words={"crop": plant.name, "mesh": product.name}),
        "mesh_height": Reason(
            "mesh_height", {"support": (plant.support_height_m, "length"), "height": (height, "length")}
        ),
        "bottom_gap": Reason("bottom_gap"),
        "post_age": Reason("post_age"),
        "post": Reason("post", {"needed": (depth + gap + height, "length")}, {"post": post.name}),
        "post_spacing": Reason(
            "post_spacing_panel" if bay > 1.1 else "post_spacing_roll", {"spacing": (bay, "length")}
        ),
        "depth": Reason(
            "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
        ),
        "setting": Reason("setting"),
        "tie": Reason("tie"),
        "ties_per_post": Reason(
            "ties_per_post", {"count": (mesh_face.tie_count(height), "count"), "height": (height, "length")}
        ),
        "plan": Reason("plan"),
        "stood": Reason("stood"),
        "stem_tie": Reason("stem_tie"),
        "woven": Reason("woven"),
        "top": Reason("top_net" if options.top == "wire" else "top"),
        "ends": Reason("ends_roll" if options.ends == "guy" else "ends"),
        "leaned_on": Reason("leaned_on_asked" if need.pulled else "leaned_on"),
        "tie_back": Reason("tie_back"),
    }
    return Proposal(options, row.plantings, reasons)
