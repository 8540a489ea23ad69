"""Cage: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, located
from ...patterns import plants, posts
from ...plan.structure import Planting
from ...site import Site
from ...tables import rows
from .options import CageOptions

_LAP = 0.15  # of a cylinder's seam [m], parts handbook 3.7
_ROUND = 8  # sides a ring is drawn with
_LINK, _KNOTS = (
    0.70,
    0.16,
)  # of twine for a link that goes twice round, at the least, and for its knots [m], parts handbook 3.7


def laid_out(options: CageOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return cages, stakes, links and plants in metres."""
    row, stake = cage_of(options), tables.posts()[options.stake]
    grown, members = _grid(options, plantings), []
    stood = row.height_m - row.leg_m
    top = max(posts.stock_length(stake, options.depth + stood * 0.75) - options.depth, 0.1)
    for n, plant in enumerate(grown):
        members.append(_drawn(options, row, n + 1, plant.at))
        for k in range(options.stakes):
            angle = 2 * math.pi * k / options.stakes + math.pi / 2
            side = -1.0 if plantings[0].side == "right" else 1.0
            x, y = (
                plant.at[0] + 0.45 * row.diameter_m * math.cos(angle),
                plant.at[1] + side * 0.45 * row.diameter_m * math.sin(angle),
            )
            members += posts.standing(
                stake,
                n * options.stakes + k + 1,
                (x, y, -options.depth),
                (x, y, min(top, stood + 0.1)),
                top + options.depth,
            )
    members += _links(options, grown)
    first = grown[0].at
    dimensions = [
        Dimension("options.length", "elevation", (0, 0, 0), (options.length, 0, 0), options.length, -0.8),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    ]
    if options.made == "cut":
        half = options.diameter / 2
        dimensions.append(
            Dimension(
                "options.diameter",
                "elevation",
                (first[0] - half, 0, stood),
                (first[0] + half, 0, stood),
                options.diameter,
                0.5,
            )
        )
        dimensions.append(
            Dimension(
                "options.height",
                "elevation",
                (first[0] - half, 0, -options.leg),
                (first[0] - half, 0, stood),
                options.height,
                -0.6,
            )
        )
    if options.stakes:
        dimensions.append(
            Dimension(
                "options.depth",
                "elevation",
                (first[0], 0, -options.depth),
                (first[0], 0, 0),
                options.depth,
                -0.6,
            )
        )
    if options.rows > 1:
        edge = -(options.rows - 1) * options.row_spacing / 2
        dimensions.append(
            Dimension(
                "options.row_spacing",
                "end",
                (0, edge, 0),
                (0, edge + options.row_spacing, 0),
                options.row_spacing,
                -0.6,
            )
        )
    depth = max(options.depth if options.stakes else 0.0, row.leg_m)
    supplies = (
        (Supply("upper-weave", "twines", options.link_twine, 2, 2.1 * options.length),)
        if options.above == "weave"
        else ()
    )
    return Geometry(
        located(members), grown, tuple(dimensions), supplies, options.length, stood, depth, climb=stood + 0.1
    )


def cage_of(options: CageOptions) -> rows.Cage:
    """Return the cage that was bought, or what is cut from a roll."""
    if options.made == "bought":
        return tables.cages()[options.cage]
    mesh = tables.meshes()[options.mesh]
    around = math.pi * options.diameter + _LAP
    return rows.Cage(
        key=mesh.key,
        source=mesh.source,
        certainty=mesh.certainty,
        name=mesh.name,
        wire=mesh.wire,
        height_m=options.height,
        diameter_m=options.diameter,
        leg_m=options.leg,
        legs=max(round(math.pi * options.diameter / mesh.along), 3),
        along=mesh.along,
        up=mesh.up,
        kg=mesh.kg_m2 * around * options.height,
        yield_=tables.mesh_materials()[mesh.material].yield_,
        median=tables.mesh_materials()[mesh.material].median_yield,
        life_dry=mesh.life_dry,
        life_wet=mesh.life_wet,
        price=mesh.price_m2 * around * options.height,
    )


def _grid(options: CageOptions, plantings: tuple[Planting, ...]) -> tuple[Plant, ...]:
    """Return the plants in their rows, as evenly filled as they go, one planting after the other."""
    order = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    apart, per_row = max(planting.spacing for planting in plantings), math.ceil(len(order) / options.rows)
    side = -1.0 if plantings[0].side == "right" else 1.0
    start, places = (options.length - (per_row - 1) * apart) / 2, []
    for n, index in enumerate(order):
        row, place = divmod(n, per_row)
        y = side * (row * options.row_spacing - (options.rows - 1) * options.row_spacing / 2)
        places.append(Plant((start + place * apart, y, 0.0), index))
    return tuple(places)


def _drawn(options: CageOptions, row: rows.Cage, number: int, at: Point) -> Member:
    """Return a cage with its rings and uprights."""
    x, y, _ = at
    stood, half = row.height_m - row.leg_m, row.diameter_m / 2
    rings = max(min(round(stood / row.up), 8), 2)
    angles = np.linspace(0, 2 * math.pi, _ROUND + 1)
    lines: list[tuple[Point, ...]] = [
        tuple((x + half * math.cos(a), y + half * math.sin(a), z) for a in angles)
        for z in np.linspace(stood / rings, stood, rings).tolist()
    ]
    uprights = max(min(row.legs or 8, 10), 3)
    for a in np.linspace(0, 2 * math.pi, uprights, endpoint=False):
        px, py = x + half * math.cos(a), y + half * math.sin(a)
        lines.append(((px, py, -row.leg_m), (px, py, stood)))
    corners = ((x, y, 0.0), (x, y, stood))
    if options.made == "bought":
        return Member(
            f"cage-{number}", "ring", "cages", row.key, corners, 0.0, row.wire, "wires", lines=tuple(lines)
        )
    around = math.pi * options.diameter + _LAP
    return Member(
        f"cage-{number}",
        "ring",
        "meshes",
        options.mesh,
        corners,
        around,
        row.wire,
        "wires",
        lines=tuple(lines),
    )


def _links(options: CageOptions, grown: tuple[Plant, ...]) -> list[Member]:
    """Return the links of a raft: along the rows, between them, and across its cells."""
    if options.link == "none":
        return []
    per_row = math.ceil(len(grown) / options.rows)
    at = {divmod(n, per_row): plant.at for n, plant in enumerate(grown)}
    steps = (
        [(0, 1)]
        + ([(1, 0)] if options.link in ("grid", "diagonal") else [])
        + ([(1, 1)] if options.link == "diagonal" else [])
    )
    members: list[Member] = []
    wide = cage_of(options).diameter_m
    for (row, place), (x, y, _) in at.items():
        for down, along in steps:
            other = at.get((row + down, place + along))
            if other:
                ends = ((x, y, options.link_height), (other[0], other[1], options.link_height))
                members.append(
                    Member(
                        f"link-{len(members) + 1}",
                        "run",
                        "twines",
                        options.link_twine,
                        ends,
                        max(2 * (math.dist(*ends) - wide) + _KNOTS, _LINK),
                        0.003,
                    )
                )
    return members
