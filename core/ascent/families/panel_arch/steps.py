"""Panel arch: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.model import Joining, Planting, Site
from .options import PanelArchOptions

_RISE = 0.05  # that the crown may stand higher or lower [m], handbook-parts-3.1


def steps(
    options: PanelArchOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: feet to the gauge, panels bent in, laps, plants; laps before that where they
    are tied on the ground.
    """
    gauged = work.gauge("span", options.span, 0.02)
    crown = work.gauge("crown", geometry.top, _RISE)
    panels, ties = work.of(geometry, "panel"), ("tie", "tie_wire")
    grounded = joining == "other"
    return (
        *work.marked(),
        *work.posts_set(
            work.of(geometry, "post"),
            options.setting,
            options.depth,
            more=(gauged,),
            differs=("depth", "post", "span"),
        ),
        *work.capped(geometry),
        *work.setting(geometry, "cleats", "board", "cleat", hits=(gauged,), differs=("cleat",)),
        *work.setting(geometry, "blocks", "block", hits=(gauged,), differs=("courses",)),
        *work.watered(),
        *(work.setting(geometry, "laps-ground", "lap", differs=("lap_tie",)) if grounded else ()),
        *work.setting(geometry, "bend", "panel", hits=(crown,), differs=("panel",)),
        *work.setting(
            geometry, "tubes", "tube", hits=(gauged, crown) if not panels else (), differs=("tube",)
        ),
        *work.setting(geometry, "arch-tie", *ties[:1], hits=(crown,), differs=("tie", "ties_per_post")),
        *(() if grounded else work.setting(geometry, "laps", "lap", differs=("lap_tie",))),
        *work.setting(geometry, "clad", "mesh", "clad", differs=("clad_tie",)),
        *work.setting(geometry, "over", "over"),
        *work.setting(geometry, "arch-strings", "string", differs=("string",)),
        *((Step("cover"),) if options.cover != "none" else ()),
        *work.grown(geometry, plantings, _FROM_PANEL),
    )


_FROM_PANEL = 0.10  # of a plant [m], handbook-parts-3.1
