"""Living support: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import half_of, tall_of
from .options import KEY, LivingSupportOptions


def remarked(
    options: LivingSupportOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: the timing above all, and how little is known."""
    host, first = tables.hosts()[options.host], structure.plantings[0]
    name = {"host": tables.hosts()[options.host].name, "crop": tables.crops()[first.crop].name}
    tall = tall_of(options.host, options.head_start)
    sizes = {
        "tall": (tall, "length"),
        "low": (host.ready_low_m, "length"),
        "high": (host.ready_high_m, "length"),
    }
    key, level = ("host-small", "wrong") if tall < 0.8 * host.ready_low_m else ("host-ready", "fine")
    if tall > 2.5 * host.ready_high_m:
        key, level = "host-tall", "watch"
    remarks = [Remark(key, level, sizes, name, "crops-10", ("head_start",))]  # type: ignore[arg-type]
    remarks += fits.of_ground(site.bed, options.length)
    if 2 * half_of(options) > site.bed.width + 1e-6:
        wide = {"wide": (2 * half_of(options), "length"), "bed": (site.bed.width, "length")}
        remarks.append(
            Remark("block-wide", "wrong", wide, source="handbook-parts-3.13", levers=("rows", "row_spacing"))
        )
    if options.rows < host.least_rows:
        values = {"rows": (float(options.rows), "count"), "least": (float(host.least_rows), "count")}
        remarks.append(Remark("block-not-row", "watch", values, name, "crops-10", ("rows",)))
    for planting in structure.plantings:
        crop_ = tables.crops()[planting.crop]
        remarks += fits.of_suit(planting, KEY)
        if crop_.habit == "twiner" and crop_.shoot_kg > 0.5 and options.host == "corn":
            remarks.append(
                Remark(
                    "host-overwhelmed",
                    "wrong",
                    words={**name, "crop": crop_.name},
                    source="crops-10",
                    levers=("host",),
                )
            )
        if crop_.height_m > geometry.climb + 0.6:
            tall_vine = {"vine": (crop_.height_m, "length"), "top": (geometry.climb, "length")}
            remarks.append(
                Remark(
                    "vine-tops-host", "watch", tall_vine, {**name, "crop": crop_.name}, "crops-10", ("host",)
                )
            )
    if options.below != "bare":
        remarks.append(Remark(f"below-{options.below}", "fine", source="handbook-parts-3.13"))
    remarks.append(Remark("host-unsure", "watch", words=name, source="crops-10"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of growing a living support."""
    cautions = ("services", "driving") if geometry.by_role("post") else ()
    return (*cautions, "lodged", "judgement")
