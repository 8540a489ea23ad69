"""Brushwood: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import BrushwoodOptions

_IN = 0.02  # that a stick may stand deeper or less deep [m], handbook-parts-3.15


def steps(
    options: BrushwoodOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: cut, mark, sow, push in, tie."""
    deep = Hit("depth", (options.in_soil, "length"), _IN)
    return (
        Step("cut-sticks"),
        *work.marked(),
        *work.watered(),
        *work.grown(geometry, plantings),
        *work.setting(geometry, "sticks", "post", hits=(deep,), differs=("in_soil", "stick_spacing")),
        *work.setting(geometry, "end-stakes", "end-stake"),
        *work.setting(geometry, "stick-string", "along", differs=("twine",)),
    )
