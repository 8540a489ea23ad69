"""Weave: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

import math

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...patterns import posts
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import ends_of
from .options import KEY, WeaveOptions


def remarked(
    options: WeaveOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: posts long enough, runs in time, how many plants stand between
    two posts.
    """
    remarks = [*fits.of_ground(site.bed, options.length), *fits.of_setting(options.setting)]
    if geometry.top < options.top_run:
        values = {"top": (options.top_run, "length"), "post": (geometry.top, "length")}
        remarks.append(
            Remark(
                "run-above-post",
                "wrong",
                values,
                source="handbook-parts-3.10",
                levers=("top_run", "depth", "post"),
            )
        )
    if options.ends == "guy":
        remarks += fits.of_guys(site.bed, options.length, ends_of(options, site).reach())
    if options.ends == "plain":
        remarks.append(Remark("ends-lean-in", "watch", source="handbook-parts-3.10", levers=("ends",)))
    if options.first_run > 0.30:
        remarks.append(
            Remark(
                "first-run-late",
                "watch",
                {"height": (options.first_run, "length")},
                source="handbook-parts-3.10",
                levers=("first_run",),
            )
        )
    gap = posts.stations(options.length, options.post_spacing)[1]
    for planting in structure.plantings:
        crop = tables.crops()[planting.crop]
        between = math.floor(float(gap) / planting.spacing + 0.01)
        if crop.training == "WEAVE" and between > 2:
            remarks.append(
                Remark(
                    "many-between",
                    "watch",
                    {"count": (between, "count")},
                    source="crops-4",
                    levers=("post_spacing",),
                )
            )
        remarks += [*fits.of_suit(planting, KEY), *fits.of_row(planting, options.length)]
        remarks += fits.of_low(planting, options.top_run, ("top_run", "extension"))
        if crop.height_m > options.top_run + 0.35:
            values = {
                "vine": (crop.height_m, "length"),
                "top": (options.top_run, "length"),
                "over": (crop.height_m - options.top_run, "length"),
            }
            remarks.append(
                Remark(
                    "tops-flop",
                    "watch",
                    values,
                    {"crop": crop.name},
                    "handbook-parts-3.10",
                    ("top_run", "extension"),
                )
            )
    remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of weaving."""
    cautions = ["services", "driving"]
    if geometry.by_role("guy"):
        cautions.append("guys")
    if geometry.by_role("cap"):
        cautions.append("caps")
    return (*cautions, "climb", "judgement")
