"""Stake: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...patterns import posts
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import winds
from .options import KEY, StakeOptions


def remarked(
    options: StakeOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: stakes too short, set too late, too near living roots."""
    row = tables.posts()[options.stake]
    remarks = fits.of_ground(site.bed, options.length)
    longest = max(length for length in row.lengths_m if length <= posts.LONGEST_POST)
    if longest < options.depth + options.height - 0.05:
        values = {"long": (longest, "length"), "needed": (options.depth + options.height, "length")}
        remarks.append(
            Remark(
                "stake-short",
                "wrong",
                values,
                {"stake": row.name},
                "handbook-parts-2.1",
                ("stake", "height", "depth"),
            )
        )
    keep = min(0.10 + 0.0075 * options.set_late, 0.45)
    if options.set_late > 0 and options.offset < keep:
        values = {
            "keep": (keep, "length"),
            "days": (options.set_late, "count"),
            "offset": (options.offset, "length"),
        }
        remarks.append(
            Remark(
                "roots-cut",
                "wrong" if options.set_late > 14 else "watch",
                values,
                source="handbook-parts-4.11",
                levers=("offset", "set_late"),
            )
        )
    if site.bed.kind == "container":
        remarks.append(Remark("pot-rim", "watch", source="handbook-10.4", levers=("depth",)))
    for planting in structure.plantings:
        crop = tables.crops()[planting.crop]
        remarks += [*fits.of_suit(planting, KEY), *fits.of_row(planting, options.length)]
        remarks += fits.of_height(planting, options.height, ("height",))
        if winds(options):
            remarks.append(
                Remark(
                    "spiral-winds",
                    "watch",
                    words={"crop": crop.name},
                    source="handbook-parts-2.1",
                    levers=("stake",),
                )
            )
        elif crop.training in ("TIE", "STAKE", "STALK"):
            remarks.append(Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4"))
    if row.material == "bamboo" and any(tables.crops()[p.crop].shoot_kg >= 1.2 for p in structure.plantings):
        remarks.append(
            Remark(
                "cane-slips",
                "watch",
                words={"stake": row.name},
                source="handbook-parts-2.1",
                levers=("stake",),
            )
        )
    remarks += fits.of_age(tables.posts()[options.stake], options.post_age, ("post_age", "stake"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of staking."""
    cautions = ["services", "driving"]
    if geometry.by_role("cap"):
        cautions.append("caps")
    return (*cautions, "judgement")
