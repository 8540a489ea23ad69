"""Wire trellis: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import WireTrellisOptions

_STRAIN = 0.2  # share that the pretension may differ, handbook-parts-3.9
_SLACK = 0.03  # of a safety wire [m], handbook-parts-3.9


def steps(
    options: WireTrellisOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: ends with all that holds them, posts between, arms, wires, strings."""
    stands = work.of(geometry, "post")
    outer = {min(m.points[-1][0] for m in stands), max(m.points[-1][0] for m in stands)}
    ends = [m for m in stands if m.points[-1][0] in outer]
    between = [m for m in stands if m not in ends]
    leaning = options.ends == "lean"
    strained = [Hit("strain", (options.pretension, "force"), _STRAIN * options.pretension)]
    if options.safety_wire:
        strained.append(Hit("slack", (_SLACK, "length"), 0.01))
    return (
        *work.marked(),
        *work.posts_set(
            ends,
            "concrete" if options.ends == "concrete" else options.setting,
            options.end_depth,
            "the end posts",
            key="end-posts",
            differs=("end_depth", "end_post", "lean") if leaning else ("end_depth", "end_post"),
            supplies=tuple(s.key for s in geometry.supplies if s.key == "foot-stone"),
            row="posts-lean" if leaning else "",
            more=(work.lean(options.lean),) if leaning else (),
        ),
        *work.ends_held(geometry),
        *work.posts_set(between or ends[:0], options.setting, options.depth, "the posts between"),
        *work.capped(geometry),
        *work.watered(),
        *work.setting(geometry, "arms", "arm", "knee", supplies=("knee-bolt",), differs=("arm", "knee")),
        *work.setting(
            geometry,
            "wires",
            "wire",
            supplies=("tensioner",),
            hits=(work.gauge("wire-height", options.top_height, 0.03), *strained),
            differs=("wire", "top_height", "pretension", "tensioner"),
        ),
        *work.setting(geometry, "seats", "seat", differs=("seat",)),
        *work.setting(geometry, "props", "prop"),
        *work.setting(geometry, "starters", "starter"),
        *work.setting(geometry, "strings", "string", differs=("string",)),
        *work.setting(geometry, "strings-foot", supplies=("string-peg",), differs=("base",)),
        *work.grown(geometry, plantings),
    )
