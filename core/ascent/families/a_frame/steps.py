"""A-frame: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.model import Joining, Planting, Site
from .options import AFrameOptions

_SQUARE = 0.005  # between the diagonals of a face [m], handbook-parts-3.3


def steps(
    options: AFrameOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site, joining: Joining
) -> tuple[Step, ...]:
    """Return the work in order: faces flat, filled, hinged, opened in place, held down."""
    spread = work.gauge("spread", options.spread, 0.03)
    fill = work.setting(geometry, "fill-face", "mesh", "tie", differs=("tie",))
    return (
        *work.marked(spread=0.015),
        *work.setting(
            geometry,
            "faces-ground",
            "post",
            "across",
            "bar",
            hits=(Hit("square", (_SQUARE, "length")),),
            differs=("leg", "frame_wood"),
        ),
        *fill,
        *work.setting(geometry, "hinge", "hinge", differs=("hinge",)),
        Step("open", hits=(spread, work.level()), differs=("spread",)),
        *work.setting(geometry, "foot-tie", "foot-tie"),
        *work.setting(geometry, "feet-held", "stake", "cleat", "anchor", differs=("in_soil", "stake")),
        *work.setting(geometry, "braces", "brace", hits=(work.swaying(),)),
        *work.watered(),
        *work.grown(geometry, plantings, 0.10),
    )
