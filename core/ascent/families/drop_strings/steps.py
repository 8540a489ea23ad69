"""Drop strings: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import DropStringsOptions

_PITCH = 0.01  # that a string may hang beside its mark [m], handbook-parts-3.8


def steps(
    options: DropStringsOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: posts, what is across them, strings on what carries them, and that up; or the
    strings last, in place.
    """
    bed = options.footing == "bed"
    hung = work.setting(
        geometry,
        "strings" if joining == "other" or options.top != "beam" else "strings-ground",
        "string",
        supplies=("string-hook",),
        hits=(Hit("pitch", (_PITCH, "length")),),
        differs=("string",),
    )
    top = work.setting(
        geometry,
        "beam",
        "beam",
        "joint",
        hits=(work.gauge("beam-height", options.top_height), work.level()),
        differs=("beam", "top_height", "joint"),
    )
    before = joining == "usual" and options.top == "beam"
    return (
        *work.marked(),
        *work.posts_set(
            work.of(geometry, "post"),
            options.setting if not bed else "driven",
            0.0 if bed else options.depth,
            "the posts",
            differs=("screws", "screw_gap", "post") if bed else ("depth", "post"),
            supplies=("post-screws",) if any(s.key == "post-screws" for s in geometry.supplies) else (),
            row="posts-screwed" if bed else "",
        ),
        *work.capped(geometry),
        *work.watered(),
        *work.setting(geometry, "crossbars", "crossbar", "top-brace"),
        *work.setting(geometry, "knees", "knee", supplies=("knee-screws",)),
        *work.ends_held(geometry),
        *(hung if before else ()),
        *top,
        *work.setting(geometry, "top-wire", "wire", differs=("wire", "top_height", "pretension")),
        *work.setting(geometry, "braces", "brace", hits=(work.swaying(),)),
        *work.setting(geometry, "props", "prop"),
        *(() if before else hung),
        *work.setting(geometry, "strings-foot", supplies=("string-peg",), differs=("base",)),
        *work.grown(geometry, plantings),
    )
