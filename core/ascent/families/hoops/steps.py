"""Hoops: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import HoopsOptions

_RISE = 0.03  # that a crown may stand higher or lower [m], handbook-parts-3.12


def steps(
    options: HoopsOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site, joining: Joining
) -> tuple[Step, ...]:
    """Return the work in order: rods or foot stakes, hoops one by one, ridge, ends, plants, net."""
    piped = options.hoop_of == "pipe"
    pushed = () if piped else (Hit("depth", (options.push_in, "length"), 0.03),)
    return (
        *work.marked(),
        *work.posts_set(
            work.of(geometry, "post" if piped else "foot-stake"),
            "driven",
            options.in_soil if piped else options.foot_depth,
            row="rods" if piped else "foot-stakes",
            differs=("in_soil", "rod") if piped else ("foot_depth", "foot_stake"),
        ),
        *work.setting(
            geometry,
            "hoops" if piped else "hoops-pushed",
            "hoop",
            hits=(work.gauge("crown", geometry.top, _RISE), *pushed),
            differs=("span",) if piped else ("push_in", "span"),
        ),
        *work.setting(geometry, "hoop-ridge", "ridge", "tie", differs=("tie",)),
        *work.setting(geometry, "braces", "brace", hits=(work.swaying(),)),
        *work.setting(geometry, "end-stakes", "stake", hits=(work.swaying(),), differs=("stake_depth",)),
        *work.watered(),
        *work.grown(geometry, plantings),
        *work.setting(geometry, "net", "net"),
    )
