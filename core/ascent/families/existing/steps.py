"""Existing support: how it is built, step by step."""

from __future__ import annotations

from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import ExistingOptions

_ROWS = 0.01  # that a row of eyes may be off level [m], handbook-parts-3.14


def steps(
    options: ExistingOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: ask and mark, eyes, wires, strings; or a tall pole in its sleeve."""
    if options.fixed_to == "pole":
        deep = (Hit("depth", (options.pole_depth, "length"), 0.03), work.gauge("top", options.pole_top))
        return (
            *work.marked(),
            *work.anchored(geometry),
            *work.setting(
                geometry,
                "tall-pole",
                "post",
                "cap",
                "guy",
                supplies=("collar",),
                hits=deep,
                differs=("pole_depth",),
            ),
            *work.watered(),
            *work.setting(geometry, "strings", "string"),
            *work.setting(geometry, "strings-foot", supplies=("string-peg",)),
            *work.grown(geometry, plantings),
        )
    return (
        *work.marked("mark-wall", _ROWS),
        *work.setting(
            geometry, "eyes", "eye", hits=(work.gauge("off-wall", options.offset),), differs=("eye",)
        ),
        *work.setting(geometry, "wall-wires", "wire", differs=("wire", "fix_spacing")),
        *work.watered(),
        *work.setting(geometry, "wall-strings", "string", differs=("string",)),
        *work.setting(geometry, "strings-foot", supplies=("string-peg",)),
        *work.grown(geometry, plantings, 0.30),
    )
