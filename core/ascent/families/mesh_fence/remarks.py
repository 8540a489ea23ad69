"""Mesh fence: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...site import Site
from .geometry import course_of
from .options import MeshFenceOptions


def remarked(
    options: MeshFenceOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: hand, fruit, reach, vine, post, ground."""
    remarks = [*fits.of_ground(site.bed, options.length), *fits.of_setting(options.setting)]
    if options.ends == "guy" and options.plan == "straight" and options.stood == "posted":
        reach = max(m.points[0][0] for m in geometry.by_role("anchor")) - options.length
        remarks += fits.of_guys(site.bed, options.length, reach)
    for planting in structure.plantings:
        remarks += fits.of_planting(
            planting,
            tables.meshes()[options.mesh],
            options.bottom_gap + options.mesh_height,
            course_of(options).run,
        )
    remarks += _of_plan(options, site)
    remarks += fits.of_fence(
        options.mesh,
        options.mesh_height,
        options.bottom_gap,
        options.top,
        options.ends,
        options.tie,
        tables.posts()[options.post],
        geometry.top,
        options.leaned_on,
    )
    remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of building a fence of these members."""
    cautions = ["services", "driving", "cut-ends"]
    if any(tables.posts()[post.item].shape == "tee" for post in geometry.by_role("post")):
        cautions.append("studs")
    if geometry.by_role("guy"):
        cautions.append("guys")
    if geometry.by_role("cap"):
        cautions.append("caps")
    return (*cautions, "climb", "judgement")


def _of_plan(options: MeshFenceOptions, site: Site) -> list[Remark]:
    """Return what its line in plan asks for: a way in, a mesh that bends, room in the bed.

    Source: handbook-parts-3.2
    """
    remarks, product = [], tables.meshes()[options.mesh]
    if options.plan == "u" and options.length < tables.constant("path_wide"):
        values = {"inside": (options.length, "length"), "path": (tables.constant("path_wide"), "length")}
        remarks.append(Remark("u-narrow", "wrong", values, source="handbook-parts-3.2", levers=("length",)))
    if options.plan == "serpentine" and product.stiff:
        remarks.append(
            Remark(
                "panel-waves",
                "wrong",
                words={"mesh": product.name},
                source="handbook-parts-3.2",
                levers=("plan", "mesh"),
            )
        )
    deep = {"u": options.arms, "zigzag": 2 * options.swing, "serpentine": 2 * options.swing}.get(
        options.plan, 0.0
    )
    if deep > site.bed.width + 1e-6:
        values = {"deep": (deep, "length"), "bed": (site.bed.width, "length")}
        remarks.append(
            Remark(
                "fence-past-bed",
                "watch",
                values,
                source="handbook-parts-3.2",
                levers=("arms" if options.plan == "u" else "swing",),
            )
        )
    if options.stood == "middle" and options.length > tables.constant("lone_wide"):
        values = {"wide": (options.length, "length"), "most": (tables.constant("lone_wide"), "length")}
        remarks.append(
            Remark("lone-wide", "wrong", values, source="handbook-parts-3.2", levers=("stood", "length"))
        )
    return remarks
