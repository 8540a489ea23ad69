"""Wire trellis: how it starts for a need."""

from __future__ import annotations

import math

from ... import tables
from ...family.protocol import Need, Proposal, Reason
from ...patterns import plants, pots
from ...site import Site
from .geometry import ends_of
from .options import WireTrellisOptions

_LINE_POSTS = ("post_round_75", "post_round_100")  # the second where the first is not sold long enough
_LEAST_STRUNG = 1.2  # below this a crop is tied to the wires rather than strung from the top one [m]


def proposed(need: Need, site: Site) -> Proposal:
    """Return a row of wire for a crop on a bed, every value with its reason."""
    row = plants.sown(need, site, longest=60.0, shortest=2.0)
    crop, fill = row.crop, site.bed.raised_by
    low = (
        crop.support_height_m < _LEAST_STRUNG
        or crop.training in ("CORRAL", "FRONT")
        or crop.cap_group == "bramble"
    )
    height = round(min(max(crop.support_height_m, 0.9), tables.constant("reach"), 2.5) * 20) / 20
    wires = 1 if not low else 3
    depth = pots.room(site.bed, min(max(0.60, math.ceil((fill + 0.50) * 20) / 20), 1.2), 0.3)
    end_depth = pots.room(site.bed, min(max(0.80, math.ceil((fill + 0.70) * 20) / 20), 1.2), 0.3)
    post = next(
        (key for key in _LINE_POSTS if max(tables.posts()[key].lengths_m) >= depth + height - 0.03),
        _LINE_POSTS[-1],
    )
    options = WireTrellisOptions(
        length=row.length,
        post=post,
        lines="tee" if need.sides == "both" and not low else "single",
        top_height=height,
        wires=wires,
        wire_step=round(max((height - 0.3) / max(wires, 2), 0.2), 2),
        crop_on="wires" if low else "strings",
        depth=depth,
        end_depth=end_depth,
        post_spacing=3.0,
        ends="lean",
        stem_tie="twine_jute_3_loop" if low else "clip_spring_small",
    )
    room = {"room": (ends_of(options, site).reach(), "length")}
    reasons = {
        **row.reasons,
        "lines": Reason("lines_tee" if options.lines == "tee" else "lines"),
        "top_height": Reason(
            "top_height", {"support": (crop.support_height_m, "length"), "height": (height, "length")}
        ),
        "wires": Reason("wires_low" if low else "wires"),
        "wire": Reason("wire"),
        "pretension": Reason("pretension", {"pull": (options.pretension, "force")}),
        "tensioner": Reason("tensioner"),
        "safety_wire": Reason("safety_wire"),
        "starter": Reason("starter"),
        "crop_on": Reason("crop_on_wires" if low else "crop_on_strings", words={"crop": crop.name}),
        "stem_tie": Reason("stem_tie" if low else "stem_clip"),
        "post_age": Reason("post_age"),
        "post": Reason("line_post"),
        "post_spacing": Reason("post_spacing_wire", {"spacing": (3.0, "length")}),
        "depth": Reason(
            "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
        ),
        "setting": Reason("setting_dug"),
        "seat": Reason("seat"),
        "props": Reason("props"),
        "ends": Reason("ends_lean", room),
        "end_post": Reason("end_post"),
        "end_depth": Reason("end_depth", {"depth": (end_depth, "length")}),
    }
    return Proposal(options, row.plantings, reasons)
