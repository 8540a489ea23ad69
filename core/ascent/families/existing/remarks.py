"""Existing: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .options import KEY, ExistingOptions
from .wired_geometry import OUT


def remarked(
    options: ExistingOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: whose it is, how sound it is, how dry its foot is."""
    remarks = fits.of_ground(site.bed, geometry.length)
    key, level = {
        "mine": ("", "fine"),
        "agreed": ("owner-agreed", "fine"),
        "not-asked": ("owner-ask", "wrong"),
    }[options.owner]
    if key:
        remarks.append(Remark(key, level, source="handbook-parts-4.6", levers=("owner",)))  # type: ignore[arg-type]
    if options.state != "sound":
        left = {"share": (tables.constant(f"state_{options.state}") * 100, "count")}
        remarks.append(Remark("host-tired", "watch", left, source="handbook-parts-3.14", levers=("state",)))
    elif options.fixed_to != "pole":
        remarks.append(
            Remark(
                "host-test",
                "watch",
                {"push": (100.0, "force"), "pull": (150.0, "force")},
                source="handbook-parts-3.14",
                levers=("state",),
            )
        )
    remarks += _of_pole(options) if options.fixed_to == "pole" else _of_wires(options)
    for planting in structure.plantings:
        remarks += [*fits.of_suit(planting, KEY), *fits.of_tying(planting)]
        if options.fixed_to != "pole":
            remarks += [
                *fits.of_row(planting, options.length),
                *fits.of_height(planting, options.height, ("height",)),
            ]
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of fixing to what stands already."""
    if geometry.by_role("grip") and geometry.top > 3.0:
        return ("services", "power-lines", "concrete", "guys", "climb", "judgement")
    return ("shared-wall", "drilling", "climb", "judgement")


def _of_wires(options: ExistingOptions) -> list[Remark]:
    """Return remarks on wires along a wall or a fence."""
    remarks = []
    if options.fixed_to == "wall":
        remarks.append(Remark("wall-dry", "watch", {"out": (OUT, "length")}, source="handbook-parts-3.14"))
        if options.eye == "eye_screw_wood":
            remarks.append(Remark("eye-misfit", "wrong", source="handbook-parts-2.7", levers=("eye",)))
    if options.fixed_to == "fence":
        if options.eye != "eye_screw_wood":
            remarks.append(Remark("eye-misfit", "wrong", source="handbook-parts-2.7", levers=("eye",)))
        if options.height > options.fence_height + 0.05:
            values = {"over": (options.height - options.fence_height, "length")}
            remarks.append(
                Remark("over-fence", "watch", values, source="handbook-parts-4.6", levers=("height",))
            )
        if options.fix_spacing < options.fence_spacing - 0.02:
            remarks.append(
                Remark(
                    "eyes-in-posts",
                    "watch",
                    {"spacing": (options.fence_spacing, "length")},
                    source="handbook-parts-3.14",
                    levers=("fix_spacing",),
                )
            )
    return remarks


def _of_pole(options: ExistingOptions) -> list[Remark]:
    """Return remarks on a tall pole: what it falls on, how it is lowered."""
    remarks = [
        Remark(
            "pole-falls",
            "watch",
            {"radius": (options.pole_top, "length")},
            source="handbook-15",
            levers=("pole_top",),
        )
    ]
    key = "pole-lowered" if options.lowered else "pole-stays"
    remarks.append(
        Remark(key, "fine" if options.lowered else "watch", source="handbook-parts-3.14", levers=("lowered",))
    )
    return [
        *remarks,
        *fits.of_stock(
            tables.posts()[options.pole], options.pole_top + options.pole_depth, ("pole_top", "pole_depth")
        ),
    ]
