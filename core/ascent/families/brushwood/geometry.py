"""Brushwood: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, located
from ...patterns import plants, posts
from ...plan.structure import Planting
from ...site import Site
from .options import BrushwoodOptions

_LINE = 0.12  # of the feet of crossed sticks from the row's middle [m], parts handbook 3.15
_CROSS_AT = 0.85  # of its height, where a stick crosses the one across, parts handbook 3.15
_RUN_AT = 2 / 3  # of its height, where a string runs, parts handbook 3.15
_SLACK = 1.02  # of a string along a row, parts handbook 3.15
_FANS = (0.35, 0.55, 0.75)  # of its height, where a stick forks


def laid_out(options: BrushwoodOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return sticks, what ties them along the row, and plants, in metres."""
    row, height = tables.posts()[options.stick], height_of(options)
    grown = _plants(options, plantings, site.bed.width)
    members: list[Member] = []
    for n, (foot, head) in enumerate(_sticks(options, plantings, site.bed.width)):
        low = _below(foot, head, options.in_soil)
        fans = _fan(foot, head, options, n)
        bought = posts.stock_length(row, options.stick_length)
        members.append(
            Member(
                f"post-{n + 1}",
                "post",
                "posts",
                row.key,
                (low, head),
                bought,
                row.soil_width,
                "wires",
                lines=((low, head), *fans),
            )
        )
        members.append(Member(f"grip-{n + 1}", "grip", "", "", (low, foot), thickness=4.0 * row.soil_width))
    if options.tied != "none" and options.pattern in ("upright", "crossed"):
        members += _tied(options, height)
    end = options.length
    dimensions = (
        Dimension(
            "options.length", "elevation", (0, 0, -options.in_soil), (end, 0, -options.in_soil), end, -0.5
        ),
        Dimension("options.in_soil", "elevation", (0, 0, -options.in_soil), (0, 0, 0), options.in_soil, -0.7),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    unit = end if options.pattern == "ring" else 0.3
    return Geometry(
        located(members), grown, dimensions, (), end, height, options.in_soil, climb=height, unit=unit
    )


def height_of(options: BrushwoodOptions) -> float:
    """Return the height of the tops over the soil: crossed ones lean inward. [m]"""
    above = max(options.stick_length - options.in_soil, 0.1)
    return above * math.cos(_lean(options))


def _lean(options: BrushwoodOptions) -> float:
    """Return the lean of crossed sticks from upright, atan(0.12 ÷ (0.85 H)) (parts handbook 3.15). [rad]"""
    if options.pattern != "crossed":
        return 0.0
    return math.atan(_LINE / (_CROSS_AT * max(options.stick_length - options.in_soil, 0.1)))


def _sticks(
    options: BrushwoodOptions, plantings: tuple[Planting, ...], width: float
) -> list[tuple[Point, Point]]:
    """Return the foot and the head of each stick."""
    above, sticks = max(options.stick_length - options.in_soil, 0.1), []
    height = height_of(options)
    if options.pattern == "ring":
        radius = max(min(options.length, width) / 2 - 0.03, 0.05)
        count = max(math.ceil(math.tau * radius / options.stick_spacing), 3)
        for n in range(count):
            angle = math.tau * n / count
            foot = (options.length / 2 + radius * math.cos(angle), radius * math.sin(angle), 0.0)
            sticks.append(
                (
                    foot,
                    (
                        options.length / 2 + 0.6 * radius * math.cos(angle),
                        0.6 * radius * math.sin(angle),
                        height,
                    ),
                )
            )
        return sticks
    if options.pattern == "starter":
        for plant in plants.along(plantings, options.length):
            x, y, _ = plant.at
            sticks.append(((x, y + math.copysign(0.05, y), 0.0), (x, y * 0.2, above * 0.97)))
        return sticks
    count = math.floor(options.length / options.stick_spacing + 1e-6) + 1
    start = (options.length - (count - 1) * options.stick_spacing) / 2
    reach = math.sin(_lean(options)) * above
    for x in (start + n * options.stick_spacing for n in range(count)):
        if options.pattern == "upright":
            sticks.append(((x, 0.0, 0.0), (x, 0.0, height)))
        else:
            sticks += [((x, side * _LINE, 0.0), (x, side * (_LINE - reach), height)) for side in (1.0, -1.0)]
    return sticks


def _below(foot: Point, head: Point, depth: float) -> Point:
    """Return the lower end of a stick, in line with it in the soil."""
    (x, y, _), (hx, hy, hz) = foot, head
    share = depth / max(hz, 0.05)
    return x - (hx - x) * share, y - (hy - y) * share, -depth


def _fan(foot: Point, head: Point, options: BrushwoodOptions, number: int) -> list[tuple[Point, ...]]:
    """Return the twigs of a stick, fanned out along the row."""
    (x, y, _), (hx, hy, hz) = foot, head
    wide = min(0.15 + 0.12 * options.stick_length, 0.3)
    twigs: list[tuple[Point, ...]] = []
    for k, share in enumerate(_FANS):
        way = 1.0 if (k + number) % 2 == 0 else -1.0
        fork: Point = (x + share * (hx - x), y + share * (hy - y), share * hz)
        up = min(share + 0.25, 0.98)
        tip: Point = (x + up * (hx - x) + way * wide * (1 - share), y + up * (hy - y), up * hz)
        twigs.append((fork, tip))
    return twigs


def _tied(options: BrushwoodOptions, height: float) -> list[Member]:
    """Return the strings on both sides or the cane along the row, with a stake at each end."""
    at, end, members = _RUN_AT * height, options.length, []
    side = _LINE * (1 - _RUN_AT * 0.9) if options.pattern == "crossed" else 0.03
    if options.tied == "string":
        row = tables.twines()[options.twine]
        for name, y in (("left", side), ("right", -side)):
            members.append(
                Member(
                    f"along-{name}",
                    "run",
                    "twines",
                    row.key,
                    ((0.0, y, at), (end, y, at)),
                    round(_SLACK * end + 0.3, 3),
                    max(row.d, 0.002),
                )
            )
    else:
        cane = tables.posts()[options.cane]
        members.append(
            Member(
                "along",
                "arm",
                "posts",
                cane.key,
                ((0.0, 0.0, at), (end, 0.0, at)),
                min(end, max(cane.lengths_m)),
                cane.soil_width,
            )
        )
    stake = tables.posts()[options.end_stake]
    for name, x in (("first", 0.0), ("last", end)):
        line = ((x, 0.0, -options.end_depth), (x, 0.0, at + 0.05))
        members.append(
            Member(
                f"end-stake-{name}",
                "strut",
                "posts",
                stake.key,
                line,
                options.end_depth + at + 0.05,
                stake.soil_width,
            )
        )
    return members


def _plants(options: BrushwoodOptions, plantings: tuple[Planting, ...], width: float) -> tuple[Plant, ...]:
    """Return the plants: beside the sticks along the row, or inside the ring."""
    height = height_of(options)
    if options.pattern != "ring":
        offset = _LINE + 0.03 if options.pattern == "crossed" else 0.05
        grown = plants.along(plantings, options.length, offset)
        return tuple(Plant(p.at, p.planting, (p.at, (p.at[0], p.at[1] * 0.2, height))) for p in grown)
    radius = max(min(options.length, width) / 2 - 0.08, 0.03)
    owners = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    way, set_out = (1.0 if plantings[0].side == "left" else -1.0), []
    for n, index in enumerate(owners):
        angle = way * math.tau * (n + 0.5) / len(owners)
        at = (options.length / 2 + radius * math.cos(angle), radius * math.sin(angle), 0.0)
        set_out.append(Plant(at, index, (at, (at[0], at[1] * 0.7, height))))
    return tuple(set_out)
