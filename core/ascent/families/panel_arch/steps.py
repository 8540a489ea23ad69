"""Panel arch: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import PanelArchOptions

_RISE = 0.05  # that the crown may stand higher or lower [m], handbook-parts-3.1


def steps(
    options: PanelArchOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: feet to the gauge, panels bent one by one, laps, plants; where laps are tied
    on the ground, all panels are bent as one.
    """
    gauged = work.gauge("span", options.span, 0.02)
    crown = work.gauge("crown", geometry.top, _RISE)
    panels = work.of(geometry, "panel")
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
        *_bent(options, geometry, crown, together=grounded),
        *work.setting(geometry, "tubes", "tube", hits=(gauged, crown), differs=("tube",)),
        *(
            ()
            if panels
            else work.setting(geometry, "arch-tie", "tie", hits=(crown,), differs=("tie", "ties_per_post"))
        ),
        *(() if grounded else work.setting(geometry, "laps", "lap", differs=("lap_tie",))),
        *work.setting(geometry, "clad", "mesh", "clad", differs=("clad_tie",)),
        *work.setting(geometry, "over", "over"),
        *work.setting(geometry, "arch-strings", "string", differs=("string",)),
        *((Step("cover"),) if options.cover != "none" else ()),
        *work.grown(geometry, plantings, _FROM_PANEL),
    )


_FROM_PANEL = 0.10  # of a plant [m], handbook-parts-3.1
_TOGETHER = 4  # people who bend lapped panels as one, handbook-parts-3.1
_ROWS = {"posts": "bend", "board": "bend-stops", "block": "bend-stops", "buried": "bend-buried"}


def _bent(options: PanelArchOptions, geometry: Geometry, crown: Hit, *, together: bool) -> list[Step]:
    """Return the bending: a bent panel is a spring, so each is a step of its own that ends with both its feet
    held; lapped panels are bent as one.

    Source: handbook-parts-3.1
    """
    all_ = work.of(geometry, "panel")
    panels = [all_] if together and all_ else [(member,) for member in all_]
    ties = work.of(geometry, "tie")
    each = len(ties) // max(len(panels), 1)
    sunk = (Hit("depth", (options.buried, "length"), 0.03),) if options.foot == "buried" else ()
    steps = []
    for n, bent in enumerate(panels):
        what = "the panel" if len(panels) == 1 else f"panel {n + 1} of {len(panels)}"
        steps.append(
            Step(
                _ROWS[options.foot],
                work.keys_of((*bent, *ties[n * each : (n + 1) * each])),
                hits=(crown, *sunk),
                differs=("panel", "tie", "ties_per_post") if ties else ("panel",),
                key="bend" if n == 0 else f"bend-{n + 1}",
                words={"what": "the lapped panels" if len(bent) > 1 else what},
                hands=_TOGETHER if len(bent) > 1 else 0,
            )
        )
    return steps
