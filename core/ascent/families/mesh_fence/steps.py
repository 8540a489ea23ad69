"""Mesh fence: how it is built, step by step."""

from __future__ import annotations

from ... import tables
from ...family.steps import Hit, Step
from ...path.geometry import Geometry
from ...patterns import work
from ...plan.fields import Joining
from ...plan.structure import Planting
from ...site import Site
from .options import MeshFenceOptions

_BELLY = 0.03  # of mesh in one metre [m], handbook-parts-3.2


def steps(
    options: MeshFenceOptions,
    geometry: Geometry,
    plantings: tuple[Planting, ...],
    site: Site,
    joining: Joining,
) -> tuple[Step, ...]:
    """Return the work in order: posts, water, ends, top line, mesh, ties, plants."""
    stands = work.of(geometry, "post")
    stiff = tables.meshes()[options.mesh].stiff
    hung = (work.gauge("gap", options.bottom_gap), Hit("belly", (_BELLY, "length")))
    return (
        *work.marked(),
        *work.posts_set(stands, options.setting, options.depth, differs=("depth", "post", "post_spacing")),
        *work.capped(geometry),
        *work.watered(),
        *work.ends_held(geometry),
        *work.setting(geometry, "backs", "back", "back-eye", differs=("back_height",)),
        *work.setting(geometry, "top-line", "top-line"),
        *work.setting(
            geometry,
            "mesh-panel" if stiff else "mesh-roll",
            "mesh",
            hits=hung,
            differs=("mesh", "mesh_height", "bottom_gap"),
        ),
        *work.setting(geometry, "mesh-tie", "tie", differs=("tie", "ties_per_post")),
        *work.setting(geometry, "lace", "lace"),
        *work.setting(geometry, "runs", "run", differs=("run_step", "twine")),
        *work.grown(geometry, plantings),
    )
