"""Hoops: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...mechanics import Array
from ...path.geometry import Dimension, Geometry, Member, Plant, located
from ...patterns import bent_panel, plants, posts
from ...plan.structure import Planting
from ...shapes import sprung
from ...site import Site
from ...tables import rows
from .options import HoopsOptions

INSIDE = 0.30  # of a rod up inside its pipe [m], parts handbook 3.12
_FROM_FOOT = 0.10  # of a plant inside the foot of a hoop [m]
LEAST_RISE = 0.2  # that is worth drawing [m]
CROWN = 0.9  # of its rise, where an end stake is tied


def laid_out(options: HoopsOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return hoops with their feet, the line along their crowns, what braces them, any net, and plants,
    in metres.
    """
    row, shape = hoop(options), _shape(options)
    rise = max(*(z for _, z in shape), LEAST_RISE)
    xs, half, members = posts.stations(options.length, options.hoop_spacing), options.span / 2, []
    for n, x in enumerate(map(float, xs)):
        line = tuple((x, y, z) for y, z in shape)
        lines = (line, *(_rungs(row, line, x) if options.hoop_of == "ladder-mesh" else ()))
        members.append(
            Member(
                f"hoop-{n + 1}",
                "arm",
                "posts",
                row.key,
                (line[0], line[-1]),
                options.arc,
                row.a,
                "wires",
                lines=lines,
            )
        )
        for k, side in enumerate((1.0, -1.0)):
            members += _foot(options, 2 * n + k + 1, x, side * half)
    members += _along(options, xs, rise)
    if options.net == "net":
        members.append(_netted(options, shape))
    grown = []
    for plant in plants.along(plantings, options.length, max(half - _FROM_FOOT, 0.05)):
        x, y, _ = plant.at
        way = bent_panel.way_up(shape, x, 1.0 if y > 0 else -1.0, plant.at)
        grown.append(
            Plant(
                plant.at,
                plant.planting,
                tuple((px, math.copysign(abs(py), y), max(pz, 0.0)) for px, py, pz in way),
            )
        )
    ties = plants.stem_ties(plantings, options.stem_tie, rise, tables.constant("stripped_pruned"))
    end, bay = float(xs[-1]), float(xs[1])
    deep = options.in_soil if options.hoop_of == "pipe" else options.push_in
    dimensions = (
        Dimension("options.length", "elevation", (0, 0, -deep), (end, 0, -deep), end, -0.5),
        Dimension("options.hoop_spacing", "elevation", (0, 0, rise), (bay, 0, rise), bay, 0.4),
        Dimension("options.span", "end", (0, -half, -deep), (0, half, -deep), options.span, -0.4),
        *plants.spacing_dimension(plantings, tuple(grown), site.bed.width / 2),
    )
    return Geometry(located(members), tuple(grown), dimensions, ties, end, rise, deep, climb=rise)


def hoop(options: HoopsOptions) -> rows.Post:
    """Return what a hoop is made of."""
    return tables.posts()[options.ladder if options.hoop_of == "ladder-mesh" else options.pipe]


def hold(options: HoopsOptions) -> float:
    """Return the height up to which a hoop's ends are held upright: in the soil, or by a rod inside. [m]"""
    return options.push_in if options.hoop_of == "ladder-mesh" else INSIDE


def _shape(options: HoopsOptions) -> bent_panel.Curve:
    """Return a hoop from soil to soil: across, and up; half an ellipse where none can be bent so. [m]"""
    sunk = options.push_in if options.hoop_of == "ladder-mesh" else 0.0
    if bool(sprung.fits(options.arc, options.span, hold(options))):
        return tuple((y, z - sunk) for y, z in bent_panel.curve(options.arc, options.span, hold(options)))
    angles = np.linspace(math.pi, 0.0, 31)
    rise = max(float(sprung.figures(options.arc, options.span, hold(options), 1.0).rise) - sunk, LEAST_RISE)
    return tuple((options.span / 2 * math.cos(a), rise * math.sin(a)) for a in angles.tolist())


def _rungs(
    row: rows.Post, line: tuple[tuple[float, float, float], ...], x: float
) -> list[tuple[tuple[float, float, float], ...]]:
    """Return the second rod of a ladder and its rungs."""
    other = tuple((x + row.b, y, z) for _, y, z in line)
    return [other, *(((x, y, z), (x + row.b, y, z)) for _, y, z in line[:: max(len(line) // 8, 1)])]


def _foot(options: HoopsOptions, number: int, x: float, y: float) -> list[Member]:
    """Return one foot: the soil that grips a ladder's end, or a driven rod."""
    if options.hoop_of == "ladder-mesh":
        line = ((x, y, -options.push_in), (x, y, 0.0))
        members = [Member(f"grip-{number}", "grip", "", "", line, thickness=0.08)]
        if options.held == "stakes":
            stake, out = tables.posts()[options.foot_stake], math.copysign(0.03, y)
            way = ((x, y + out, -options.foot_depth), (x, y + out, 0.1))
            members.append(
                Member(
                    f"foot-stake-{number}",
                    "strut",
                    "posts",
                    stake.key,
                    way,
                    options.foot_depth + 0.1,
                    stake.soil_width,
                )
            )
        return members
    rod = tables.posts()[options.rod]
    low, top = (x, y, -options.in_soil), (x, y, INSIDE)
    return [
        Member(
            f"post-{number}",
            "post",
            "posts",
            rod.key,
            (low, top),
            posts.stock_length(rod, options.in_soil + INSIDE),
            rod.soil_width,
        ),
        Member(f"grip-{number}", "grip", "", "", (low, (x, y, 0.0)), thickness=3.0 * rod.soil_width),
    ]


def _along(options: HoopsOptions, xs: Array, rise: float) -> list[Member]:
    """Return the line along the crowns with its ties, and what braces the ends."""
    members: list[Member] = []
    end, line = options.length, ((0.0, 0.0, rise), (options.length, 0.0, rise))
    if options.ridge == "wire":
        wire = tables.wires()[options.ridge_wire]
        members.append(Member("ridge", "wire", "wires", wire.key, line, end + 0.6, wire.d))
    elif options.ridge == "pole":
        pole = tables.posts()[options.ridge_pole]
        members.append(Member("ridge", "rail", "posts", pole.key, line, end, pole.soil_width))
    if options.ridge != "none":
        for n, x in enumerate(map(float, xs)):
            both = 2 if n in (0, len(xs) - 1) else 1
            members += [
                Member(f"tie-{n + 1}-{k + 1}", "tie", "ties", options.tie, ((x, 0.0, rise),), shape="point")
                for k in range(both)
            ]
    if options.brace == "diagonal":
        row, run, half = tables.wires()[options.brace_wire], float(xs[min(2, len(xs) - 1)]), options.span / 2
        for name, foot, crown in (("first", 0.0, run), ("last", end, end - run)):
            way = ((foot, -half, 0.02), (crown, 0.0, rise))
            members.append(
                Member(f"brace-{name}", "guy", "wires", row.key, way, math.dist(*way) + 0.6, row.d)
            )
    elif options.brace == "stake":
        stake = tables.posts()[options.stake]
        for name, x in (("first", -0.03), ("last", end + 0.03)):
            way = ((x, 0.0, -options.stake_depth), (x, 0.0, CROWN * rise))
            members.append(
                Member(
                    f"stake-{name}",
                    "strut",
                    "posts",
                    stake.key,
                    way,
                    options.stake_depth + CROWN * rise,
                    stake.soil_width,
                )
            )
    return members


def _netted(options: HoopsOptions, shape: bent_panel.Curve) -> Member:
    """Return a net laid over all hoops."""
    mesh, end = tables.meshes()[options.mesh], options.length
    step = max(mesh.along, 0.1)
    lines = [tuple((x, y, z) for y, z in shape) for x in np.arange(0.0, end + 1e-6, step).tolist()]
    lines += [((0.0, y, z), (end, y, z)) for y, z in shape[:: max(len(shape) // 18, 1)]]
    y = -options.span / 2
    flat = ((0.0, y, 0.0), (end, y, 0.0), (end, y, options.arc), (0.0, y, options.arc))
    return Member("net", "mesh", "meshes", mesh.key, flat, end, mesh.wire, "wires", lines=tuple(lines))
