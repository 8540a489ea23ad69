"""Crossed poles: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import CrossedPolesOptions

_CROSSING = 0.02  # that a crossing may lie higher or lower [m], handbook-parts-3.5


def steps(
    options: CrossedPolesOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: end pairs first, the rest in place by a string between them; or every pair
    made on the ground.
    """
    poles, knots = work.of(geometry, "post"), work.of(geometry, "lashing")
    crossing = work.gauge("crossing", max((m.points[0][2] for m in knots), default=geometry.top), _CROSSING)
    last = max((m.points[0][0] for m in poles), default=0.0)
    outer = [m for m in poles if m.points[0][0] < 0.1 or m.points[0][0] > last - 0.1]
    ends = set(work.keys_of(outer))
    at_ends = {m.key for m in knots if m.points[0][0] < 0.1 or m.points[0][0] > last - 0.2}
    hits = (Hit("depth", (options.in_soil, "length"), 0.03), crossing)
    fixed = ("in_soil", "pole", "spread")
    all_ = (*work.keys_of(poles), *work.keys_of(knots))
    collar = ("collar",) if options.footing == "concrete" else ()
    if joining == "other":
        pairs = [Step("pairs-ground", all_, collar, hits, fixed)]
    else:
        pairs = [
            Step("pairs-ends", tuple(k for k in all_ if k in ends or k in at_ends), collar, hits, fixed),
            Step("pairs", tuple(k for k in all_ if k not in ends and k not in at_ends), (), hits, fixed),
        ]
    return (
        *work.marked(),
        *(pair for pair in pairs if pair.members),
        *work.capped(geometry),
        *work.setting(geometry, "ridge", "ridge", hits=(work.level(),), differs=("ridge",)),
        *work.setting(geometry, "braces", "brace", hits=(work.swaying(),), differs=("brace",)),
        *work.ends_held(geometry, ("brace_wire",)),
        *work.watered(),
        *work.setting(geometry, "strings", "string", supplies=("string-hook",), differs=("string",)),
        *work.setting(geometry, "strings-foot", supplies=("string-peg",)),
        *work.grown(geometry, plantings),
    )
