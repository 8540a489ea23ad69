"""Existing: wires along a wall or a fence, laid out."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, located
from ...patterns import plants, posts
from ...patterns import strings as hung
from ...plan.structure import Planting
from ...site import Site
from .options import ExistingOptions

OUT = 0.30  # of a plant from a wall, out of its dry foot [m], parts handbook 3.14
LOWEST = 0.30  # wire above the soil [m], parts handbook 3.14
_WIRE_END = 0.15  # of wire past each end eye [m], parts handbook 3.14
_COURSES = 0.25  # between the lines a wall is drawn with [m]


def wired(options: ExistingOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return a wall or a fence with its wires, eyes, strings and plants."""
    way = 1.0 if plantings[0].side == "left" else -1.0
    end, xs = options.length, posts.stations(options.length, options.fix_spacing)
    back, members = -way * options.offset, _host_drawn(options, -way * options.offset)
    wire = tables.wires()[options.wire]
    for n, z in enumerate(_heights(options)):
        bought = end + 2 * _WIRE_END
        members.append(
            Member(
                f"wire-{n + 1}",
                "wire",
                "wires",
                wire.key,
                tuple((float(x), 0.0, z) for x in xs),
                bought,
                wire.d,
                sags=True,
            )
        )
        members += [
            Member(
                f"eye-{n + 1}-{i + 1}",
                "fitting",
                "fittings",
                options.eye,
                ((float(x), 0.0, z),),
                shape="point",
            )
            for i, x in enumerate(xs)
        ]
    out = OUT if options.fixed_to == "wall" else plants.OFFSET
    grown = plants.along(plantings, end, out)
    if options.fixed_to == "wall":
        grown = tuple(Plant((p.at[0], way * abs(p.at[1]), p.at[2]), p.planting) for p in grown)
    at = dict.fromkeys(range(len(grown)), 0.0)
    supplies = list(
        plants.stem_ties(plantings, options.stem_tie, options.height, tables.constant("stripped_pruned"))
    )
    if options.infill == "strings":
        members += hung.members(options.string, grown, at, options.height)
        supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
    grown = tuple(
        Plant(p.at, p.planting, (p.at, (p.at[0], 0.0, 0.2), (p.at[0], 0.0, options.height))) for p in grown
    )
    top = max(options.height, options.fence_height) if options.fixed_to == "fence" else options.height + 0.2
    dimensions = (
        Dimension("options.length", "elevation", (0, 0, 0), (end, 0, 0), end, -0.6),
        Dimension("options.height", "elevation", (end, 0, 0), (end, 0, options.height), options.height, 0.8),
        Dimension("options.fix_spacing", "elevation", (0, 0, top), (float(xs[1]), 0, top), float(xs[1]), 0.4),
        Dimension("options.offset", "end", (0, back, 0), (0, 0, 0), options.offset, -0.3),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    deep = options.fence_depth if options.fixed_to == "fence" else 0.0
    return Geometry(
        located(members), grown, dimensions, tuple(supplies), end, top, deep, climb=options.height
    )


def _heights(options: ExistingOptions) -> list[float]:
    """Return the heights of the wires, the top one first named by the height. [m]"""
    if options.wires == 1:
        return [options.height]
    return [float(z) for z in np.linspace(min(LOWEST, options.height / 2), options.height, options.wires)]


def _host_drawn(options: ExistingOptions, y: float) -> list[Member]:
    """Return the wall, or the fence with its posts, as it stands there: nothing of it is bought."""
    end = options.length
    if options.fixed_to == "wall":
        high = options.height + 0.2
        lines: list[tuple[Point, ...]] = [
            ((0.0, y, z), (end, y, z)) for z in np.arange(0.0, high + 1e-6, _COURSES).tolist()
        ]
        lines += [((x, y, 0.0), (x, y, high)) for x in (0.0, end)]
        corners = ((0.0, y, 0.0), (end, y, 0.0), (end, y, high), (0.0, y, high))
        return [Member("wall", "host", "existing", "", corners, 0.0, 0.004, "wires", lines=tuple(lines))]
    post, members = tables.posts()[options.fence_post], []
    high, behind = options.fence_height, y - math.copysign(post.a / 2, -y) if y else y
    boards = np.arange(
        0.05, high + 1e-6, {"closed": 0.12, "gaps": 0.20, "mesh": 0.15}[options.boards]
    ).tolist()
    rows_ = tuple(((0.0, y, z), (end, y, z)) for z in boards)
    corners = ((0.0, y, 0.0), (end, y, 0.0), (end, y, high), (0.0, y, high))
    members.append(Member("fence", "host", "existing", "", corners, 0.0, 0.006, "wires", lines=rows_))
    for n, x in enumerate(posts.stations(end, options.fence_spacing).tolist()):
        members.append(
            Member(
                f"post-{n + 1}",
                "post",
                "existing",
                "",
                ((x, behind, -options.fence_depth), (x, behind, high)),
                0.0,
                post.soil_width,
            )
        )
        members.append(
            Member(
                f"grip-{n + 1}",
                "grip",
                "",
                "",
                ((x, behind, -options.fence_depth), (x, behind, 0.0)),
                thickness=3 * post.soil_width,
            )
        )
    return members
