"""Bed frame: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import FIRST_SCREW, board_of, tied_across
from .options import KEY, BedFrameOptions

_TIP = 0.003  # of wood left over a screw's tip [m], common practice, no source


def remarked(
    options: BedFrameOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: boards to screw to, sound and high enough; plants that already
    stand there.
    """
    bed = site.bed
    thick, high = board_of(options, bed)
    remarks = fits.of_ground(bed, options.length)
    if bed.kind == "container":  # boards beside it hold nothing but themselves
        remarks.append(Remark("no-board", "wrong", source="handbook-parts-4.10"))
    elif options.boards == "bed" and (bed.kind != "raised" or thick < 0.019):
        remarks.append(Remark("no-board", "wrong", source="handbook-13", levers=("boards",)))
    needed = options.screw_gap * (options.screw_rows - 1) + 2 * FIRST_SCREW
    if needed > high + 1e-6:
        values = {"needed": (needed, "length"), "high": (high, "length")}
        remarks.append(
            Remark(
                "board-low", "wrong", values, source="handbook-parts-4.10", levers=("screw_gap", "screw_rows")
            )
        )
    if thick < 0.037:
        remarks.append(
            Remark(
                "board-thin",
                "watch",
                {"thick": (thick, "length")},
                source="handbook-parts-4.10",
                levers=("boards",),
            )
        )
    wood = thick + tables.posts()[options.post].a
    screw = tables.fittings()[options.screw]
    if (screw.long_m or 0.0) > wood - _TIP:
        values = {"screw": (screw.long_m or 0.0, "length"), "wood": (wood, "length")}
        remarks.append(
            Remark("screw-through", "wrong", values, source="handbook-parts-4.10", levers=("screw", "boards"))
        )
    if options.backing == "ties" and not tied_across(options, bed):
        remarks.append(
            Remark("tie-to-nothing", "wrong", source="handbook-parts-4.10", levers=("backing", "sides"))
        )
    remarks.append(Remark("board-sound", "watch", source="handbook-parts-4.10"))
    if options.set_late > 0:
        keep = min(0.10 + 0.0075 * options.set_late, 0.45)
        values = {"days": (options.set_late, "count"), "keep": (keep, "length")}
        key = "frame-spares-roots" if options.backing != "stakes" else "stakes-near-roots"
        remarks.append(
            Remark(
                key,
                "fine" if options.backing != "stakes" else "watch",
                values,
                source="handbook-parts-4.11",
                levers=("backing",),
            )
        )
    if (
        options.infill == "strings"
        and options.length > 0
        and tables.posts()[options.post].key.startswith("cane")
    ):
        remarks.append(
            Remark(
                "lashing-slides",
                "watch",
                {"slip": (tables.constant("cane_slip"), "force")},
                {"pole": tables.posts()[options.post].name},
                "handbook-13",
                ("post",),
            )
        )
    for planting in structure.plantings:
        remarks += [
            *fits.of_suit(planting, KEY),
            *fits.of_row(planting, options.length),
            *fits.of_tying(planting),
        ]
        remarks += fits.of_height(planting, options.height, ("height",))
        if options.infill == "mesh":
            remarks += fits.of_through(planting, tables.meshes()[options.mesh])
    remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of screwing a frame to a bed."""
    return ("screw-tips", "straddle", "climb", "judgement")
