"""Tripod: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .geometry import RIM_TIES
from .options import TripodOptions


def steps(
    options: TripodOptions, geometry: Geometry, plantings: tuple[Planting, ...], site: Site, joining: Joining
) -> tuple[Step, ...]:
    """Return the work in order: poles in and lashed in place; or lashed on the ground and raised."""
    rim = options.held == "rim"
    grounded = joining == "other" and not rim
    apart = work.gauge("radius", options.radius, 0.02)
    poles = work.posts_set(
        work.of(geometry, "post"),
        "driven",
        0.0 if rim else options.in_soil,
        "the poles",
        key="poles",
        row="pole-stands" if rim else "poles-raise" if grounded else "poles-in",
        more=(apart,),
        supplies=(RIM_TIES,) if rim else (),
        differs=("pole", "radius") if rim else ("in_soil", "pole", "radius"),
    )
    top = "couple-top" if options.crossing == "coupled" else "lash-top-ground" if grounded else "lash-top"
    lashed = work.setting(geometry, top, "lashing", differs=("crossing",))
    return (
        *work.marked("mark-ring"),
        *((*lashed, *poles) if grounded else (*poles, *lashed)),
        *work.capped(geometry),
        *work.setting(geometry, "centre-stake", "stake", differs=("stake_depth", "stake")),
        *work.setting(geometry, "rings", "ring", "lace", differs=("rings", "ring_twine")),
        *work.watered(),
        *work.grown(geometry, plantings),
    )
