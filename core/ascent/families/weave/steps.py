"""Weave: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import WeaveOptions

_GIVE = 0.05  # of a run at mid-bay under 30 N [m], handbook-parts-3.10


def steps(
    options: WeaveOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site, joining: Joining
) -> tuple[Step, ...]:
    """Return the work in order: posts, ends, plants, and the runs as they grow."""
    grown = work.grown(geometry, plantings)
    first = (work.gauge("first-run", options.first_run, 0.03), Hit("give", (_GIVE, "length")))
    return (
        *work.marked(),
        *work.posts_set(work.of(geometry, "post"), options.setting, options.depth),
        *work.capped(geometry),
        *work.watered(),
        *work.ends_held(geometry),
        *work.setting(geometry, "extensions", "extension"),
        *work.setting(geometry, "rungs", "rung", "tie", differs=("cane", "rung_tie", "run_step")),
        *grown,
        *work.setting(
            geometry, "runs", "run", hits=first, differs=("first_run", "run_step", "top_run", "twine")
        ),
    )
