"""Living support: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import LivingSupportOptions

_BESIDE = 0.10  # of a climber from its host [m], handbook-parts-3.13


def steps(
    options: LivingSupportOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: the host first, its climbers when it is up, strings before the storms."""
    apart = Hit("apart", (options.host_spacing, "length"), 0.05)
    return (
        *work.marked(),
        *work.setting(geometry, "sow-host", "stem", hits=(apart,), differs=("host_spacing",)),
        *work.grown(geometry, plantings, _BESIDE),
        *work.posts_set(work.of(geometry, "post"), "driven", options.depth, "the corner posts"),
        *work.capped(geometry),
        *work.setting(geometry, "backup", "run", differs=("backup_twine",)),
    )
