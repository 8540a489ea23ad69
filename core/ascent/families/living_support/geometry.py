"""Living support: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

from ... import tables
from ...mechanics import growth
from ...path.geometry import Dimension, Geometry, Member, Plant, located
from ...patterns import plants, posts
from ...plan.structure import Planting
from ...site import Site
from .options import LivingSupportOptions

BACKUP_HEIGHTS = (1.2, 0.6)  # of the strings round the block [m], parts handbook 3.13
EDGE = 0.15  # of the block from the row's ends [m]


def laid_out(options: LivingSupportOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return stems, climbers, and any strings round the block with their posts, in metres."""
    kinds = [options.host, options.second if options.mix == "alternate" else options.host]
    members, grown = [], list(_climbers(options, plantings))
    height = max(tables.crops()[kind].height_m for kind in kinds)
    for n, (x, y, row) in enumerate(grid(options)):
        kind = kinds[row % 2]
        tall = tables.crops()[kind].height_m
        members.append(
            Member(f"stem-{n + 1}", "stem", "hosts", kind, ((x, y, 0.0), (x, y, tall)), 0.0, 0.025)
        )
        grown.append(Plant((x, y, 0.0), len(plantings)))
    if options.backup == "strings":
        members += _fenced(options)
    half = half_of(options)
    dimensions = (
        Dimension("options.length", "plan", (0, -half, 0), (options.length, -half, 0), options.length, -0.5),
        Dimension(
            "options.host_spacing",
            "elevation",
            (EDGE, 0, height),
            (EDGE + options.host_spacing, 0, height),
            options.host_spacing,
            0.5,
        ),
        *(
            (
                Dimension(
                    "options.row_spacing",
                    "end",
                    (0, -half, 0),
                    (0, -half + options.row_spacing, 0),
                    options.row_spacing,
                    -0.5,
                ),
            )
            if options.rows > 1
            else ()
        ),
    )
    depth = options.depth if options.backup == "strings" else 0.0
    return Geometry(
        located(members), tuple(grown), dimensions, (), options.length, height, depth, climb=height
    )


def tall_of(host: str, days: int) -> float:
    """Return how tall a host stands so many days after it was sown. [m]"""
    row = tables.crops()[host]
    return row.height_m * min(1.0, float(growth.logistic(days, row.t50_d, row.t95_d)) / 0.5)


def half_of(options: LivingSupportOptions) -> float:
    """Return half the width of the block. [m]"""
    return (options.rows - 1) * options.row_spacing / 2


def grid(options: LivingSupportOptions) -> list[tuple[float, float, int]]:
    """Return where the hosts stand, and in which row. [m]"""
    count = max(math.floor((options.length - 2 * EDGE) / options.host_spacing + 1e-6) + 1, 1)
    start = (options.length - (count - 1) * options.host_spacing) / 2
    return [
        (start + i * options.host_spacing, row * options.row_spacing - half_of(options), row)
        for row in range(options.rows)
        for i in range(count)
    ]


def _climbers(options: LivingSupportOptions, plantings: tuple[Planting, ...]) -> list[Plant]:
    """Return the climbers, spread evenly over the hosts, each beside one and up its stem."""
    hosts, climbers = grid(options), []
    for index, planting in enumerate(plantings):
        sides = {"left": (1.0,), "right": (-1.0,), "both": (1.0, -1.0)}[planting.side]
        for n in range(planting.count):
            row = (
                int((n + 0.5) * len(hosts) / planting.count)
                if planting.count <= len(hosts)
                else n % len(hosts)
            )
            x, y, _ = hosts[row if planting.side != "left" else _opposite(row, hosts, options)]
            foot = (x, y + sides[n % len(sides)] * plants.OFFSET, 0.0)
            climbers.append(Plant(foot, index, (foot, (x, y, 0.3), (x, y, 10.0))))
    return climbers


def _opposite(number: int, hosts: list[tuple[float, float, int]], options: LivingSupportOptions) -> int:
    """Return the host across the block's middle line from another, so that left mirrors right."""
    count = len(hosts) // options.rows
    row, place = divmod(number, count)
    return (options.rows - 1 - row) * count + place


def _fenced(options: LivingSupportOptions) -> list[Member]:
    """Return posts along both sides of the block and strings round it."""
    post, twine = tables.posts()[options.post], tables.twines()[options.backup_twine]
    xs, y, top = (
        posts.stations(options.length, options.post_spacing),
        half_of(options) + 0.2,
        BACKUP_HEIGHTS[0] + 0.1,
    )
    bought = posts.stock_length(post, options.depth + top)
    members: list[Member] = []
    for side in (1.0, -1.0):
        for x in map(float, xs):
            members += posts.standing(
                post,
                len(members) + 1,
                (x, side * y, -options.depth),
                (x, side * y, bought - options.depth),
                bought,
            )
    around = 2 * (options.length + 2 * y) + 4 * 0.25 + len(xs) * 2 * 0.2
    for n, z in enumerate(BACKUP_HEIGHTS):
        loop = ((0.0, y, z), (options.length, y, z), (options.length, -y, z), (0.0, -y, z), (0.0, y, z))
        members.append(Member(f"run-{n + 1}", "run", "twines", twine.key, loop, around, twine.d))
    return members
