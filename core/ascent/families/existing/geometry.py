"""Existing: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, located
from ...patterns import plants, posts
from ...patterns import strings as hung
from ...plan.model import Planting, Site
from .options import ExistingOptions

OUT = 0.30  # of a plant from a wall, out of its dry foot [m], parts handbook 3.14


LOWEST = 0.30  # wire above the soil [m], parts handbook 3.14


_WIRE_END = 0.15  # of wire past each end eye [m], parts handbook 3.14


PEGS = 1.0  # radius of the string pegs round a pole [m], parts handbook 3.14


GUYED_AT = 0.7  # of a pole's height


_GUYS = 3


GUY_ANGLE = math.radians(55.0)


_COURSES = 0.25  # between the lines a wall is drawn with [m]


def laid_out(options: ExistingOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return what stands there, what is fixed to it, and plants, in metres."""
    return (
        _pole_geometry(options, plantings)
        if options.fixed_to == "pole"
        else _wired_geometry(options, plantings, site)
    )


def _heights(options: ExistingOptions) -> list[float]:
    """Return the heights of the wires, the top one first named by the height. [m]"""
    if options.wires == 1:
        return [options.height]
    return [float(z) for z in np.linspace(min(LOWEST, options.height / 2), options.height, options.wires)]


def _wired_geometry(options: ExistingOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
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


def _pole_geometry(options: ExistingOptions, plantings: tuple[Planting, ...]) -> Geometry:
    """Return a tall pole in its concrete with a ring of strings, its guys, and plants."""
    row, top = tables.posts()[options.pole], options.pole_top
    middle = PEGS
    foot, head = (middle, 0.0, -options.pole_depth), (middle, 0.0, top)
    members = [
        Member(
            "post-1",
            "post",
            "posts",
            row.key,
            (foot, head),
            max(row.lengths_m) if top + options.pole_depth > min(row.lengths_m) else min(row.lengths_m),
            row.a,
        ),
        Member("grip-1", "grip", "", "", (foot, (middle, 0.0, 0.0)), thickness=tables.constant("collar")),
    ]
    owners = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    way, grown = (1.0 if plantings[0].side == "left" else -1.0), []
    for n, index in enumerate(owners):
        angle = way * math.tau * (n + 0.5) / len(owners)
        at: Point = (middle + PEGS * math.cos(angle), PEGS * math.sin(angle), 0.0)
        grown.append(Plant(at, index, (at, head)))
        length = math.dist(at, head) + 0.5
        members.append(
            Member(
                f"string-{n + 1}",
                "string",
                "twines",
                options.string,
                (head, (at[0], at[1], 0.05)),
                round(length, 3),
                0.004,
            )
        )
    if options.guyed:
        high = GUYED_AT * top
        for n in range(_GUYS):
            angle = math.tau * n / _GUYS + math.pi / 6
            reach = high / math.tan(GUY_ANGLE)
            low = (middle + reach * math.cos(angle), reach * math.sin(angle), 0.0)
            members.append(
                Member(
                    f"guy-{n + 1}",
                    "guy",
                    "wires",
                    options.guy_wire,
                    ((middle, 0.0, high), low),
                    math.hypot(high, reach) + 1.1,
                    0.004,
                )
            )
            members.append(
                Member(f"anchor-{n + 1}", "anchor", "anchors", options.anchor, (low,), shape="point")
            )
    ties = list(plants.stem_ties(plantings, options.stem_tie, top, tables.constant("stripped_pruned")))
    supplies = (
        Supply("string-peg", "fittings", options.base, len(owners)),
        *ties,
        *posts.concrete([options.pole_depth]),
    )
    dimensions = (
        Dimension("options.pole_top", "elevation", (middle, 0, 0), (middle, 0, top), top, 1.3),
        Dimension(
            "options.pole_depth",
            "elevation",
            (middle, 0, -options.pole_depth),
            (middle, 0, 0),
            options.pole_depth,
            -0.8,
        ),
    )
    return Geometry(
        located(members),
        tuple(grown),
        dimensions,
        supplies,
        2 * PEGS,
        top,
        options.pole_depth,
        climb=top,
        unit=2 * PEGS,
    )
