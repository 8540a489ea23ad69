"""Mesh fence: how it is laid out: members, plants and measures."""

from __future__ import annotations

import numpy as np

from ... import tables
from ...mechanics import Array, relaxation
from ...path.geometry import Dimension, Geometry, Member, Plant, RowBays, located
from ...patterns import backs, course, mesh_face, plants, posts
from ...patterns.end_assembly import EndAssembly
from ...plan.structure import Planting
from ...shapes import earth, wear
from ...site import Site
from .options import MeshFenceOptions

_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "top", "post_spacing", "post", "mesh", "mesh_height"),
    "soil": ("ends", "depth", "top", "post_spacing", "mesh", "mesh_height", "tie_back"),
    "prop": ("anchor", "ends", "post_spacing"),
    "lift": ("depth", "ends", "post_spacing"),
}


_RUN_OUT = 0.16  # of the runs from the posts, before the plants [m]


def laid_out(options: MeshFenceOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return posts, mesh bays, ties, top line and ends in metres."""
    post, product = tables.posts()[options.post], tables.meshes()[options.mesh]
    line, xs = course_of(options), stations(options)
    low, high = options.bottom_gap, options.bottom_gap + options.mesh_height
    bought = posts.stock_length(post, options.depth + high)
    top = max(bought - options.depth, 0.2)
    side = -1.0 if plantings[0].side == "right" else 1.0
    y = side * post.soil_width / 2
    members = posts.row(post, xs, options.depth, top, bought)
    members += mesh_face.members(
        product,
        options.tie,
        options.ties_per_post,
        xs,
        y,
        low,
        high,
        top,
        np.array([0.0, line.run]) if options.stood == "middle" else None,
    )
    if options.top != "none":
        z = min(high, top)
        members += mesh_face.lacing(options.tie, line.run, xs, y, z)
        members.append(mesh_face.top_line(options.top, options.wire, options.rail, line.run, y, z))
    members += backs.members(options, [(float(x), 0.0, 0.0) for x in xs], -side)
    if options.stood == "posted":
        members += ends_of(options, site, len(xs), top).members(line.run)
    grown = line.plants(plants.along(plantings, line.run))
    supplies = plants.stem_ties(plantings, options.stem_tie, high, tables.constant("stripped_pruned"))
    if options.woven == "front":
        members += _runs(options, xs, side)
        supplies = ()
    if options.setting == "concrete":
        supplies = (*supplies, *posts.concrete([options.depth] * len(xs)))
    dimensions = _dimensions(options, plantings, grown, site.bed.width / 2)
    return Geometry(
        located(line.members(members)),
        grown,
        dimensions,
        supplies,
        options.length,
        top,
        options.depth,
        climb=high,
        bays=_bays(options, xs, line.run),
    )


def _bays(options: MeshFenceOptions, xs: Array, run: float) -> RowBays:
    """Return the bays between posts; a fence on one post in its middle has one bay, its whole run."""
    bay = run if options.stood == "middle" else float(np.max(np.diff(xs)))
    return RowBays(tuple(map(float, xs)), bay, bay if len(xs) != 2 else bay / 2)


def ends_of(options: MeshFenceOptions, site: Site, posts_: int, top: float) -> EndAssembly:
    """Return the ends of the fence, by its number of posts and the height of its top. [m]"""
    railed, bays = options.top == "rail" and posts_ > 1, max(posts_ - 1, 1)
    return EndAssembly(
        options.ends,
        wear.after(tables.posts()[options.post], options.post_age),
        earth.ground_of(site.bed, options.setting),
        options.depth,
        top if railed else tables.constant("brace_height") * top,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
        railed,
        bows=relaxation.tied_bays(bays) * tables.constant("rail_bows") * options.length / bays,
    )


def course_of(options: MeshFenceOptions) -> course.RowCourse:
    """Return the course of the fence on the ground: straight, in swings, or with arms."""
    return course.RowCourse(options.plan, options.length, options.post_spacing, options.swing, options.arms)


def stations(options: MeshFenceOptions) -> Array:
    """Return where its posts stand as it is laid out straight, (n,). [m]"""
    line = course_of(options)
    return np.array([line.run / 2]) if options.stood == "middle" else line.stations


def _dimensions(
    options: MeshFenceOptions, plantings: tuple[Planting, ...], grown: tuple[Plant, ...], edge: float
) -> tuple[Dimension, ...]:
    end, bay = options.length, float(posts.stations(options.length, options.post_spacing)[1])
    low, high = options.bottom_gap, options.bottom_gap + options.mesh_height
    dimensions = (
        Dimension(
            "options.length", "elevation", (0, 0, -options.depth), (end, 0, -options.depth), end, -0.32
        ),
        Dimension("options.post_spacing", "elevation", (0, 0, high), (bay, 0, high), bay, 0.45),
        Dimension("options.depth", "elevation", (0, 0, -options.depth), (0, 0, 0), options.depth, -0.6),
        Dimension(
            "options.mesh_height", "elevation", (end, 0, low), (end, 0, high), options.mesh_height, 0.75
        ),
        Dimension("options.bottom_gap", "elevation", (end, 0, 0), (end, 0, low), low, 1.6),
    )
    return (*dimensions, *plants.spacing_dimension(plantings, grown, edge))


def run_heights(options: MeshFenceOptions) -> list[float]:
    """Return the heights of the runs before the mesh. [m]"""
    low, high = options.bottom_gap + options.run_step, options.bottom_gap + options.mesh_height
    return [float(z) for z in np.arange(low, max(high, low + 0.01), options.run_step)]


def _runs(options: MeshFenceOptions, xs: Array, side: float) -> list[Member]:
    """Return the runs of twine before the plants, a turn round each post."""
    row, members, end = tables.twines()[options.twine], [], course_of(options).run
    turns = len(xs) * (4 * tables.posts()[options.post].soil_width + 2 * _RUN_OUT)
    for n, z in enumerate(run_heights(options)):
        line = ((0.0, side * _RUN_OUT, z), (end, side * _RUN_OUT, z))
        members.append(
            Member(
                f"run-{n + 1}",
                "run",
                "twines",
                row.key,
                line,
                round(1.02 * end + turns + 0.6, 3),
                max(row.d, 0.002),
            )
        )
    return members
