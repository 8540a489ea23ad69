"""Stake: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import StakeOptions


def steps(
    options: StakeOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site, joining: Joining
) -> tuple[Step, ...]:
    """Return the work in order: stakes before plants, the first tie."""
    return (
        *work.marked(),
        *work.posts_set(
            work.of(geometry, "post"),
            options.setting,
            options.depth,
            "the stakes",
            differs=("depth", "stake", "height"),
        ),
        *work.capped(geometry),
        *work.watered(),
        *work.setting(geometry, "bars", "bar", differs=("bar_height",)),
        *work.grown(geometry, plantings, options.offset),
    )
