"""Existing: strings from a tall pole, laid out."""

from __future__ import annotations

import math

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, located
from ...patterns import plants, posts
from ...plan.structure import Planting
from .options import ExistingOptions

PEGS = 1.0  # radius of the string pegs round a pole [m], parts handbook 3.14
GUYED_AT = 0.7  # of a pole's height
_GUYS = 3
GUY_ANGLE = math.radians(55.0)


def pole(options: ExistingOptions, plantings: tuple[Planting, ...]) -> Geometry:
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
