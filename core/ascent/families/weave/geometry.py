"""Weave: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...mechanics import Array
from ...path.geometry import Dimension, Geometry, Member, Point, located
from ...patterns import plants, posts
from ...patterns.end_assembly import EndAssembly
from ...plan.structure import Planting
from ...shapes import earth, wear
from ...site import Site
from ...tables import rows
from .options import WeaveOptions

_SIDE = 0.03  # of a run from the row [m], parts handbook 3.10
_TURN = 0.04  # of twine for a turn round a post, besides its girth [m]
_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "post", "post_spacing", "twine"),
    "soil": ("depth", "ends", "post", "post_spacing"),
    "prop": ("anchor", "ends", "post_spacing"),
    "lift": ("depth", "ends", "post"),
}


def laid_out(options: WeaveOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return posts, runs or canes, and plants in metres."""
    post, xs = tables.posts()[options.post], posts.stations(options.length, options.post_spacing)
    above = options.top_run + 0.1
    bought = posts.stock_length(post, options.depth + above)
    top = max(min(bought - options.depth, above + 0.3), 0.2)
    members = posts.row(post, xs, options.depth, top, bought)
    if options.ends == "double":
        for n, x in enumerate((0.06, float(xs[-1]) - 0.06)):
            members += posts.standing(post, len(xs) + n + 1, (x, 0.0, -options.depth), (x, 0.0, top), bought)
    members += _runs(options, xs, post)
    if options.extension == "canes":
        members += [
            Member(
                f"extension-{n + 1}",
                "strut",
                "posts",
                "cane_12",
                ((float(x), 0.0, top - 0.3), (float(x), 0.0, top + 0.6)),
                0.9,
                0.012,
            )
            for n, x in enumerate(xs)
        ]
    members += ends_of(options, site).members(options.length)
    two = any(p.side == "both" for p in plantings)
    grown = plants.along(plantings, options.length, 0.12 if two else 0.0)
    end, bay = float(xs[-1]), float(xs[1])
    dimensions = (
        Dimension("options.length", "elevation", (0, 0, -options.depth), (end, 0, -options.depth), end, -0.5),
        Dimension("options.post_spacing", "elevation", (0, 0, top), (bay, 0, top), bay, 0.5),
        Dimension(
            "options.top_run", "elevation", (end, 0, 0), (end, 0, options.top_run), options.top_run, 0.9
        ),
        Dimension(
            "options.first_run", "elevation", (end, 0, 0), (end, 0, options.first_run), options.first_run, 1.8
        ),
        Dimension("options.depth", "elevation", (0, 0, -options.depth), (0, 0, 0), options.depth, -0.8),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    supplies = tuple(posts.concrete([options.depth] * len(xs))) if options.setting == "concrete" else ()
    return Geometry(
        located(members),
        grown,
        dimensions,
        supplies,
        options.length,
        top,
        options.depth,
        climb=options.top_run,
    )


def heights(options: WeaveOptions) -> list[float]:
    """Return the heights of the runs, from the first up. [m]"""
    top = max(options.top_run, options.first_run)
    count = max(math.ceil((top - options.first_run) / options.run_step - 1e-6), 0)
    return np.linspace(options.first_run, top, count + 1).tolist() if count else [top]


def ends_of(options: WeaveOptions, site: Site) -> EndAssembly:
    """Return the ends of the row that hold the runs."""
    above = options.top_run + 0.1
    return EndAssembly(
        "plain" if options.ends == "double" else options.ends,
        wear.after(tables.posts()[options.post], options.post_age),
        earth.ground_of(site.bed, options.setting),
        options.depth,
        tables.constant("brace_height") * above,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
    )


def _runs(options: WeaveOptions, xs: Array, post: rows.Post) -> list[Member]:
    """Return the runs on both sides of the row, or the canes of a ladder with their ties."""
    members, end = [], float(xs[-1])
    girth = 4 * post.soil_width + _TURN
    side = options.half_width if options.style == "corral" else _SIDE
    for n, z in enumerate(heights(options)):
        if options.style == "ladder":
            cane = tables.posts()[options.cane]
            members.append(
                Member(
                    f"rung-{n + 1}",
                    "rail",
                    "posts",
                    cane.key,
                    ((0.0, _SIDE, z), (end, _SIDE, z)),
                    end,
                    cane.soil_width,
                )
            )
            members += [
                Member(
                    f"tie-{n + 1}-{i + 1}",
                    "tie",
                    "ties",
                    options.rung_tie,
                    ((float(x), _SIDE, z),),
                    shape="point",
                )
                for i, x in enumerate(xs)
            ]
            continue
        there: list[Point] = [(float(x), side * _crossing(options, i), z) for i, x in enumerate(xs)]
        back: list[Point] = [(x, -y, z) for x, y, _ in reversed(there)]
        bought = 2 * 1.02 * end + 2 * len(xs) * girth + 0.6
        row = tables.twines()[options.twine]
        members.append(
            Member(
                f"run-{n + 1}", "run", "twines", row.key, (*there, *back, there[0]), bought, max(row.d, 0.002)
            )
        )
    return members


def _crossing(options: WeaveOptions, post: int) -> float:
    """Return on which side of a post a run passes: woven ones change sides."""
    return (-1.0) ** post if options.style in ("basket", "eight") else 1.0
