"""Tripod: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, posts, pots
from ...site import Site
from .options import TripodOptions

_ROOM = 0.45  # to walk between two sets [m], parts handbook 4.1
_TALL = 1.9  # where poles meet and a hand still ties them [m], parts handbook 3.5


def proposed(need: Need, site: Site) -> Proposal:
    """Return tripods for a crop on a bed, every value with its reason."""
    bed, plant = site.bed, tables.crops()[need.crop]
    potted = bed.kind == "container"
    narrow = min(bed.width, bed.length) / 2
    radius = round(min(max(narrow - 0.05, 0.08), 0.5), 2)
    number = 3 if potted else 4
    depth = pots.room(bed, 0.25 if potted else min(0.30 + bed.raised_by, 0.9), 0.05)
    apart = round(max(2 * radius + _ROOM, 0.4), 2)
    most = min(max(math.floor((bed.length - 2 * radius) / apart + 1e-6) + 1, 1), 12)
    wanted = min(plant.support_height_m, _TALL) + depth + 0.2
    post = "cane_20" if wanted <= 3.0 else "cane_25"
    lengths = [long for long in tables.posts()[post].lengths_m if long <= posts.LONGEST_POST]
    long = min((length for length in lengths if length >= wanted - 0.25), default=max(lengths))
    chord = round(max(2 * radius * math.sin(math.pi / number), 0.05), 2)
    row = plants.sown(need, site, longest=30.0, spacing=chord)
    asked = need.count or need.others
    climbers = sum(planting.count for planting in row.plantings)
    sets = 1 if potted else min(most, math.ceil(climbers / (2 * number))) if asked else most
    plantings = row.filled(need, sets * number)
    planting, count = plantings[0], plantings[0].count
    options = TripodOptions(
        sets=sets,
        set_spacing=apart,
        legs=number,
        pole=post,
        pole_length=long,
        radius=radius,
        in_soil=depth,
        held="rim" if potted else "soil",
    )
    reasons = {
        **row.reasons,
        planting.path("count"): Reason(
            "count_asked" if need.count else "count_poles", {"count": (count, "count")}
        ),
        planting.path("spacing"): Reason("spacing_poles", {"spacing": (chord, "length")}),
        "sets": Reason("sets", {"sets": (sets, "count"), "apart": (apart, "length")}),
        "legs": Reason("legs_pot" if potted else "legs"),
        "post_age": Reason("post_age"),
        "pole": Reason("pole", {"length": (long, "length")}, {"pole": tables.posts()[post].name}),
        "pole_length": Reason(
            "pole_length", {"support": (plant.support_height_m, "length"), "length": (long, "length")}
        ),
        "radius": Reason("radius_pot" if potted else "radius", {"radius": (radius, "length")}),
        "in_soil": Reason("depth_pot" if potted else "depth_poles", {"depth": (depth, "length")}),
        "held": Reason("held_rim" if potted else "held_soil"),
        "tail": Reason("tail"),
        "crossing": Reason("notched"),
        "rings": Reason("rings"),
        "laced": Reason("laced"),
        "ring_twine": Reason("twine"),
        "stem_tie": Reason("stem_tie"),
        "centre": Reason("centre"),
    }
    reasons.pop("length")
    return Proposal(options, plantings, reasons)
