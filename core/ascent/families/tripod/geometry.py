"""Tripod: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, located
from ...patterns import plants, posts, raked
from ...plan.structure import Planting
from ...site import Site
from .options import TripodOptions

OUTSIDE = 0.05  # of a plant from its pole [m], parts handbook 3.4
_FIRST_RING = 0.3  # above the soil [m]
_TURN = 0.10  # of twine round a pole [m], parts handbook 3.4
RIM_TIES = "rim-ties"
_TO_TIE = 0.5  # of twine for rim and knot, beside two turns of a pole [m], common practice, no source
_LACE = 0.20  # between the turns of laced twine [m]


def laid_out(options: TripodOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return poles, lashings, strings and plants in metres."""
    post, height, radius = tables.posts()[options.pole], height_of(options), options.radius
    way = 1.0 if plantings[0].side == "left" else -1.0
    members: list[Member] = []
    spare = spares(options)
    for n in range(options.sets):
        middle = _middle(options, n)
        feet = _feet(options, middle, way)
        number = n * (options.legs + spare) + 1
        for k, (foot, apex) in enumerate(feet):
            members += raked.pole(post, number + k, foot, apex, options.in_soil, options.pole_length)
        for k in range(spare):
            angle = way * (math.pi / 2 + math.tau * (k + 0.5) / options.legs)
            foot = (middle + radius * math.cos(angle), radius * math.sin(angle), 0.0)
            members += raked.pole(
                post,
                number + options.legs + k,
                foot,
                (middle, 0.0, height),
                options.in_soil,
                options.pole_length,
            )
        lashing = _lashing(post.soil_width, options.legs + spare)
        knot = ((middle, 0.0, height - 0.04), (middle, 0.0, height + 0.04))
        members.append(raked.knot(n + 1, options.crossing, options.binding, knot, lashing))
        members += _strings(options, n, [foot for foot, _ in feet], (middle, 0.0, height))
        if options.centre == "stake":
            stake, tall = tables.posts()[options.stake], min(height, 1.5)
            long = posts.stock_length(stake, options.stake_depth + tall)
            low: Point = (middle, 0.0, -options.stake_depth)
            members.append(
                Member(
                    f"stake-{n + 1}",
                    "strut",
                    "posts",
                    stake.key,
                    (low, (middle, 0.0, long - options.stake_depth)),
                    long,
                    stake.soil_width,
                )
            )
    grown = _plants(options, plantings, way, height)
    first = _feet(options, _middle(options, 0), way)
    ties = plants.stem_ties(plantings, options.stem_tie, height, tables.constant("stripped_pruned"))
    end = 2 * radius + (options.sets - 1) * (options.set_spacing if options.sets > 1 else 0.0)
    dimensions = (
        Dimension(
            "options.radius",
            "elevation",
            (radius, 0, -options.in_soil),
            (2 * radius, 0, -options.in_soil),
            radius,
            -0.5,
        ),
        Dimension(
            "options.in_soil", "elevation", (end, 0, -options.in_soil), (end, 0, 0), options.in_soil, 0.7
        ),
        *(
            (
                Dimension(
                    "options.set_spacing",
                    "elevation",
                    (radius, 0, height),
                    (radius + options.set_spacing, 0, height),
                    options.set_spacing,
                    0.6,
                ),
            )
            if options.sets > 1
            else ()
        ),
    )
    poles = [m for m in members if m.role == "post"]
    if options.held == "rim":
        round_twice = 2 * math.pi * post.soil_width + _TO_TIE
        ties = (*ties, Supply(RIM_TIES, "twines", options.binding, len(poles), round(round_twice, 2)))
    top = max(z for m in poles for _, _, z in m.points)
    return Geometry(
        located(members),
        grown,
        dimensions,
        ties,
        end,
        top,
        options.in_soil,
        climb=height,
        unit=max(x for (x, _, _), _ in first) - min(x for (x, _, _), _ in first),
    )


def height_of(options: TripodOptions) -> float:
    """Return the height at which the poles meet. [m]"""
    long = options.pole_length - options.in_soil - options.tail
    return math.sqrt(max(long**2 - options.radius**2, 0.09))


def _middle(options: TripodOptions, number: int) -> float:
    return options.radius + number * options.set_spacing


def spares(options: TripodOptions) -> int:
    """Return the poles between the legs that carry twine alone."""
    return min(options.spare, options.legs) if options.laced == "panels" else 0


def _feet(options: TripodOptions, middle: float, way: float) -> list[tuple[Point, Point]]:
    """Return the foot of each leg, and where it passes the others at the lashing."""
    width = tables.posts()[options.pole].soil_width
    ring = width / (2 * math.sin(math.pi / options.legs))
    feet: list[tuple[Point, Point]] = []
    for k in range(options.legs):
        angle = way * (math.pi / 2 + math.tau * k / options.legs)
        past = angle + way * math.radians(110)
        foot = (middle + options.radius * math.cos(angle), options.radius * math.sin(angle), 0.0)
        feet.append((foot, (middle + ring * math.cos(past), ring * math.sin(past), height_of(options))))
    return feet


def _lashing(width: float, poles: int) -> float:
    """Return the twine of one lashing, 5 (2 n d + π d) + 0.6 (parts handbook 3.0). [m]"""
    return 5 * (2 * poles * width + math.pi * width) + 0.6


def _strings(options: TripodOptions, number: int, feet: list[Point], apex: Point) -> list[Member]:
    """Return the strings round a set, and the twine laced up between its legs."""
    members, height = [], apex[2]

    def at(foot: Point, z: float) -> Point:
        share = z / height
        return foot[0] + share * (apex[0] - foot[0]), foot[1] + share * (apex[1] - foot[1]), z

    for r in range(options.rings):
        z = _FIRST_RING + r * options.ring_step
        if z > height - 0.1:
            break
        ring = tuple(at(foot, z) for foot in (*feet, feet[0]))
        side = 2 * options.radius * (1 - z / height) * math.sin(math.pi / options.legs)
        long = options.legs * (side + _TURN) + 0.3
        members.append(
            Member(
                f"ring-{number + 1}-{r + 1}", "run", "twines", options.ring_twine, ring, round(long, 3), 0.003
            )
        )
    if options.laced == "panels":
        for k, foot in enumerate(feet):
            other, zs = feet[(k + 1) % len(feet)], np.arange(0.15, height - 0.2, _LACE).tolist()
            lace = tuple(at(foot if i % 2 == 0 else other, z) for i, z in enumerate(zs))
            if len(lace) > 1:
                long = sum(math.dist(a, b) for a, b in pairwise(lace)) + _TURN * len(lace)
                members.append(
                    Member(
                        f"lace-{number + 1}-{k + 1}",
                        "run",
                        "twines",
                        options.ring_twine,
                        lace,
                        round(long, 3),
                        0.003,
                    )
                )
    return members


def _plants(
    options: TripodOptions, plantings: tuple[Planting, ...], way: float, height: float
) -> tuple[Plant, ...]:
    """Return the plants, shared out over the sets, evenly round the feet of each, every one with its way
    up.
    """
    owners = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    grown = []
    for n in range(options.sets):
        mine = owners[n :: options.sets]
        middle, out = _middle(options, n), options.radius + OUTSIDE
        for k, index in enumerate(mine):
            angle = way * (math.pi / 2 + math.tau * k / len(mine))
            at = (middle + out * math.cos(angle), out * math.sin(angle), 0.0)
            foot = (middle + options.radius * math.cos(angle), options.radius * math.sin(angle), 0.02)
            grown.append(Plant(at, index, (at, foot, (middle, 0.0, height))))
    return tuple(grown)
