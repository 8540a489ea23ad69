"""Bed frame: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import BedFrameOptions

_SQUARE = 0.005  # between the diagonals of a frame [m], handbook-parts-3.11


def steps(
    options: BedFrameOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: frames made flat and lifted over the bed, screwed on, railed; or upright by
    upright in place.
    """
    crossbars = work.of(geometry, "crossbar")
    grounded = joining == "usual" and bool(crossbars)
    screwed = work.posts_set(
        work.of(geometry, "post"),
        "driven",
        0.0,
        "the uprights",
        row="posts-screwed",
        supplies=("board-screws",),
        differs=("screw_rows", "screw_gap", "screw", "height"),
        more=(work.gauge("rows-apart", options.screw_gap),) if options.screw_rows > 1 else (),
    )
    frames = work.setting(
        geometry,
        "frames-ground" if grounded else "crossbars",
        "crossbar",
        hits=(Hit("square", (_SQUARE, "length")),),
    )
    return (
        *work.marked("mark-boards"),
        *work.setting(geometry, "own-boards", "board"),
        *work.setting(
            geometry,
            "backing-ties" if options.backing == "ties" else "backing",
            "backing",
            differs=("backing_step",),
        ),
        *work.watered(),
        *((*frames, Step("straddle")) if grounded else ()),
        *screwed,
        *(() if grounded else frames),
        *work.setting(geometry, "rails", "rail"),
        *work.setting(geometry, "braces", "brace", hits=(work.swaying(),)),
        *work.setting(geometry, "fill-face", "mesh", "tie"),
        *work.setting(geometry, "strings", "string"),
        *work.grown(geometry, plantings),
    )
