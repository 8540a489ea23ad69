"""A-frame: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import AFrameOptions

_SQUARE = 0.005  # between the diagonals of a face [m], handbook-parts-3.3


def steps(
    options: AFrameOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site, joining: Joining
) -> tuple[Step, ...]:
    """Return the work in order: faces flat, filled, hinged, opened in place, held down; bent mesh is a
    spring, so its feet are held as it is bent.
    """
    spread = work.gauge("spread", options.spread, 0.03)
    stood = _bent(options, geometry, spread) if options.filled == "bent" else _framed(geometry, spread)
    return (
        *work.marked(spread=0.015),
        *stood,
        *work.setting(geometry, "braces", "brace", hits=(work.swaying(),)),
        *work.watered(),
        *work.grown(geometry, plantings, 0.10),
    )


def _framed(geometry: Geometry, spread: Hit) -> tuple[Step, ...]:
    """Return the standing up of framed faces."""
    return (
        *work.setting(
            geometry,
            "faces-ground",
            "post",
            "across",
            "bar",
            hits=(Hit("square", (_SQUARE, "length")),),
            differs=("leg", "frame_wood"),
        ),
        *work.setting(geometry, "fill-face", "mesh", "tie", differs=("tie",)),
        *work.setting(geometry, "hinge", "hinge", differs=("hinge",)),
        Step("open", hits=(spread, work.level()), differs=("spread",)),
        *work.setting(geometry, "foot-tie", "foot-tie"),
        *work.setting(geometry, "feet-held", "stake", "cleat", "anchor", differs=("in_soil", "stake")),
    )


def _bent(options: AFrameOptions, geometry: Geometry, spread: Hit) -> tuple[Step, ...]:
    """Return the bending of a mesh that is bent over its ridge: it ends with both its feet held.

    Source: handbook-parts-3.3
    """
    tied, fixed = work.of(geometry, "foot-tie"), work.of(geometry, "cleat", "anchor")
    staked = options.foot == "stake"
    row = "bend-stops" if staked else "bend-fixed" if fixed else "bend-tied" if tied else "bend-fold"
    held = () if staked else fixed or tied
    return (
        *work.setting(geometry, "feet-first", "stake", hits=(spread,), differs=("in_soil", "stake")),
        Step(
            row,
            work.keys_of((*work.of(geometry, "mesh"), *held)),
            hits=(spread, work.level()),
            differs=(*((options.foot,) if fixed else ()), "mesh", "spread"),
            key="bend",
            words={"what": "the mesh"},
        ),
        *(() if held == tied else work.setting(geometry, "foot-tie", "foot-tie")),
    )
