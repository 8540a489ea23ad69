"""Bed frame: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...mechanics import Array
from ...path.geometry import Dimension, Geometry, Member, Plant, RowBays, Supply, located
from ...patterns import mesh_face, plants, posts
from ...patterns import strings as hung
from ...plan.bed import BareBed
from ...plan.structure import Planting
from ...site import Site
from .options import BedFrameOptions

RIM = 0.03  # of the boards over the soil in the bed [m], parts handbook 3.11
FIRST_SCREW = (
    0.025  # from the edge of a board [m], parts handbook 4.10: 0.09 apart at most on a board of 0.14
)


_FROM_BOARD = 0.25  # of a plant from its board [m], parts handbook 3.11
BACKING_DEPTH = 0.45  # of a backing stake [m]
OWN_BOARD = ("post_lumber_38x140", 0.280, 0.038)  # two boards high, of a frame that brings its own
_INSET = 0.15  # of the first upright from the end of the row [m]


def laid_out(options: BedFrameOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return uprights, bars, screws, what fills them, and plants in metres."""
    xs, edge = stations(options), edge_of(options, site.bed)
    sides = _sides(options, plantings)
    members = _uprights(options, site.bed, xs, sides)
    members += _across(options, xs, edge)
    for side in sides:
        members += _filling(options, xs, side * edge)
        if options.brace == "diagonal":
            wire, run = tables.wires()[options.brace_wire], float(xs[min(2, len(xs) - 1)])
            line = ((float(xs[0]), side * edge, 0.05), (run, side * edge, options.height))
            members.append(
                Member(
                    f"brace-{len(members)}", "guy", "wires", wire.key, line, math.dist(*line) + 0.6, wire.d
                )
            )
    grown = plants.along(plantings, options.length, max(site.bed.width / 2 - _FROM_BOARD, 0.05))
    if options.infill == "strings":
        at = {n: math.copysign(edge, plant.at[1]) for n, plant in enumerate(grown)}
        members += hung.members(options.string, grown, at, options.height)
        grown = hung.climbing(grown, at, options.height)
    elif options.infill == "mesh":
        grown = tuple(_up(p, (p.at[0], math.copysign(edge, p.at[1]), options.height)) for p in grown)
    else:
        grown = tuple(
            _up(
                p,
                (
                    float(xs[int(np.argmin(np.abs(xs - p.at[0])))]),
                    math.copysign(edge, p.at[1]),
                    options.height,
                ),
            )
            for p in grown
        )
    count = len(xs) * len(sides)
    screws = count * options.screw_rows + (
        4 * len(xs) if options.crossbar != "none" and len(sides) == 2 else 0
    )
    supplies = [Supply("board-screws", "fittings", options.screw, screws)]
    loops = sum(
        p.count * int(plants.ties_on_stem(min(tables.crops()[p.crop].height_m, options.height) - 0.3))
        for p in plantings
    )
    if options.infill == "none":
        supplies.append(Supply("stem-ties", "ties", options.stem_tie, loops))
    else:
        supplies += plants.stem_ties(
            plantings, options.stem_tie, options.height, tables.constant("stripped_pruned")
        )
    end = options.length
    bay = float(xs[1] - xs[0]) if len(xs) > 1 else 0.0
    dimensions = (
        Dimension("options.length", "elevation", (0, 0, 0), (end, 0, 0), end, -0.9),
        Dimension("options.height", "elevation", (end, 0, 0), (end, 0, options.height), options.height, 0.7),
        *(
            (
                Dimension(
                    "options.post_spacing",
                    "elevation",
                    (float(xs[0]), 0, options.height),
                    (float(xs[1]), 0, options.height),
                    bay,
                    0.5,
                ),
            )
            if bay
            else ()
        ),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    return Geometry(
        located(members),
        grown,
        dimensions,
        tuple(supplies),
        end,
        options.height,
        0.0,
        climb=options.height,
        bays=_bays(options),
    )


def _bays(options: BedFrameOptions) -> RowBays:
    xs = stations(options)
    bay = options.length if len(xs) < 2 else float(xs[1] - xs[0])
    return RowBays(tuple(map(float, xs)), bay, bay if len(xs) > 2 else bay / 2)


def stations(options: BedFrameOptions) -> Array:
    """Return where the uprights stand: from plant to plant, clear of the ends. [m]"""
    clear = max(options.length - 2 * _INSET, 0.0)
    bays = max(round(clear / options.post_spacing), 0)
    return np.linspace(_INSET, options.length - _INSET, bays + 1) if bays else np.array([options.length / 2])


def board_of(options: BedFrameOptions, bed: BareBed) -> tuple[float, float]:
    """Return thickness and height of the boards that carry the frame. [m]"""
    if options.boards == "own":
        return OWN_BOARD[2], OWN_BOARD[1]
    return max(bed.board, 0.005), max(bed.raised_by + RIM, 0.05)


def tied_across(options: BedFrameOptions, bed: BareBed) -> bool:
    """Return whether boards stand along both sides, for ties to run from one to the other."""
    return options.sides == "both" if options.boards == "own" else bed.kind == "raised"


def edge_of(options: BedFrameOptions, bed: BareBed) -> float:
    """Return how far from the middle the uprights stand, outside the boards. [m]"""
    return bed.width / 2 + tables.posts()[options.post].a / 2


def _sides(options: BedFrameOptions, plantings: tuple[Planting, ...]) -> tuple[float, ...]:
    if options.sides == "both":
        return (1.0, -1.0)
    return (1.0,) if plantings[0].side == "left" else (-1.0,)


def _uprights(options: BedFrameOptions, bed: BareBed, xs: Array, sides: tuple[float, ...]) -> list[Member]:
    """Return the uprights with their screws, and the boards and stakes that a frame of its own brings."""
    post, edge, (_, high) = tables.posts()[options.post], edge_of(options, bed), board_of(options, bed)
    low, members = RIM - high, []
    number = 0
    for side in sides:
        for x in map(float, xs):
            number += 1
            line = ((x, side * edge, low), (x, side * edge, options.height))
            members.append(
                Member(
                    f"post-{number}",
                    "post",
                    "posts",
                    post.key,
                    line,
                    posts.stock_length(post, options.height - low),
                    post.soil_width,
                )
            )
            for row in range(options.screw_rows):
                z = RIM - FIRST_SCREW - row * options.screw_gap
                members.append(
                    Member(
                        f"screw-{number}-{row + 1}", "fitting", "", "", ((x, side * edge, z),), shape="point"
                    )
                )
        if options.boards == "own":
            board, _, _ = OWN_BOARD
            y = side * bed.width / 2
            for up, z in enumerate((low + 0.07, low + 0.21)):
                line = ((0.0, y, z), (options.length, y, z))
                members.append(
                    Member(f"board-{number}-{up + 1}", "rail", "posts", board, line, options.length, 0.14)
                )
        if options.backing == "stakes":
            stake = tables.posts()[options.stake]
            count = max(math.floor(options.length / options.backing_step + 1e-6), 1) + 1
            for n, x in enumerate(np.linspace(0.05, options.length - 0.05, count).tolist()):
                line = ((x, side * edge, low - BACKING_DEPTH), (x, side * edge, low + 0.9 * high))
                members.append(
                    Member(
                        f"backing-{number}-{n + 1}",
                        "strut",
                        "posts",
                        stake.key,
                        line,
                        BACKING_DEPTH + high,
                        stake.soil_width,
                    )
                )
        elif options.backing == "ties" and side == sides[0] and tied_across(options, bed):
            count = max(math.floor(options.length / options.backing_step + 1e-6), 1)
            for n, x in enumerate(np.linspace(0, options.length, count + 2)[1:-1].tolist()):
                line = ((x, -bed.width / 2, -0.05), (x, bed.width / 2, -0.05))
                members.append(
                    Member(
                        f"backing-{number}-{n + 1}",
                        "strut",
                        "posts",
                        "post_sw_stake_38",
                        line,
                        bed.width,
                        0.038,
                    )
                )
    return members


def _across(options: BedFrameOptions, xs: Array, edge: float) -> list[Member]:
    """Return the bars over the bed that join two uprights."""
    if options.sides == "one" or options.crossbar == "none":
        return []
    post, members = tables.posts()[options.post], []
    heights = [options.height] if options.crossbar == "top" else [options.height, options.height / 2]
    for n, x in enumerate(map(float, xs)):
        for m, z in enumerate(heights):
            line = ((x, -edge, z - 0.03), (x, edge, z - 0.03))
            members.append(
                Member(f"crossbar-{n + 1}-{m + 1}", "arm", "posts", post.key, line, 2 * edge, post.soil_width)
            )
    return members


def _filling(options: BedFrameOptions, xs: Array, y: float) -> list[Member]:
    """Return the rail that strings hang from, or the mesh with its ties, along one side."""
    side = "left" if y > 0 else "right"
    if options.infill == "strings":
        rail = tables.posts()[options.rail]
        line = ((0.0, y, options.height), (options.length, y, options.height))
        return [Member(f"rail-{side}", "rail", "posts", rail.key, line, options.length, rail.soil_width)]
    if options.infill == "mesh" and len(xs) > 1:
        row = tables.meshes()[options.mesh]
        high = min(options.height - 0.10, max(row.heights_m))
        members = mesh_face.members(
            row, options.tie, mesh_face.tie_count(high), xs, y, 0.05, 0.05 + high, options.height
        )
        return [_named(member, side) for member in members]
    return []


def _named(member: Member, side: str) -> Member:
    return Member(
        f"{member.key}-{side}",
        member.role,
        member.table,
        member.item,
        member.points,
        member.buy_length,
        member.thickness,
        member.shape,
        member.grid,
        member.lines,
        member.sags,
    )


def _up(plant: Plant, top: tuple[float, float, float]) -> Plant:
    """Return a plant with its way: to its upright, and up it."""
    x, y, z = top
    return Plant(plant.at, plant.planting, (plant.at, (x, y, 0.25), (x, y, z)))
