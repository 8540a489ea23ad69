"""A frame: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

import numpy as np

from ... import tables
from ...mechanics import Array
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, located
from ...patterns import mesh_face, plants, posts
from ...plan.structure import Planting
from ...site import Site
from .options import MESHES, AFrameOptions

_AWAY = 0.10  # of a plant from the foot of its face [m], parts handbook 3.3
_STAKE_UP = 0.15  # of a foot stake above the soil [m]
_TIE_Z = 0.30  # height of the foot tie [m], parts handbook 3.3


def laid_out(options: AFrameOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return faces with their rails, hinges and feet, and plants, in metres."""
    height, half = height_of(options), options.spread / 2
    xs = posts.stations(options.length, options.rail_spacing)
    members = _frame(options, xs, height) if options.filled != "bent" else []
    members += _filling(options, xs, height)
    members += _held(options, xs, height)
    out = half + (_AWAY if options.hang == "outside" else -min(_AWAY, half / 2))
    grown = plants.along(plantings, options.length, out)
    grown = tuple(
        Plant(p.at, p.planting, (p.at, (p.at[0], math.copysign(half, p.at[1]), 0.02), (p.at[0], 0.0, height)))
        for p in grown
    )
    if options.faces == "one":
        grown = tuple(_to_face(plant, half, height) for plant in grown)
    supplies = [*plants.stem_ties(plantings, options.stem_tie, height, tables.constant("stripped_pruned"))]
    supplies += plants.slings(plantings, options.sling)
    end = options.length
    deep = options.in_soil if options.foot == "stake" else 0.0
    dimensions = (
        Dimension("options.length", "elevation", (0, 0, -deep), (end, 0, -deep), end, -0.5),
        Dimension("options.leg", "end", (0, 0, height), (0, half, 0), options.leg, 0.45),
        Dimension("options.spread", "end", (0, -half, -deep), (0, half, -deep), options.spread, -0.4),
        *((Dimension("options.in_soil", "elevation", (0, 0, -deep), (0, 0, 0), deep, -0.7),) if deep else ()),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    return Geometry(located(members), grown, dimensions, tuple(supplies), end, height, deep, climb=height)


def height_of(options: AFrameOptions) -> float:
    """Return the height of the ridge. [m]"""
    return math.sqrt(max(options.leg**2 - (options.spread / 2) ** 2, 0.04))


def _slopes(options: AFrameOptions) -> tuple[tuple[str, float], ...]:
    """Return the faces there are, and on which side."""
    return (("left", 1.0), ("right", -1.0)) if options.faces == "two" else (("right", -1.0),)


def _on(x: float, side: float, share: float, half: float, height: float) -> Point:
    """Return a place on a slope, a share of the way from its foot to the ridge."""
    return x, side * half * (1 - share), share * height


def _frame(options: AFrameOptions, xs: Array, height: float) -> list[Member]:
    """Return the rails up both slopes, the rails across them, the hinges and any diagonal."""
    wood, half, end = tables.posts()[options.frame_wood], options.spread / 2, options.length
    members: list[Member] = []
    for side in (1.0, -1.0):
        for x in map(float, xs):
            line = (_on(x, side, 0.0, half, height), _on(x, side, 1.0, half, height))
            members.append(
                Member(
                    f"post-{len(members) + 1}",
                    "post",
                    "posts",
                    wood.key,
                    line,
                    posts.stock_length(wood, options.leg),
                    wood.soil_width,
                )
            )
    for name, side in _slopes(options):
        for place, share in (("foot", 0.06), ("ridge", 0.98)):
            line = (_on(0.0, side, share, half, height), _on(end, side, share, half, height))
            members.append(
                Member(f"across-{name}-{place}", "rail", "posts", wood.key, line, end, wood.soil_width)
            )
        if options.brace == "diagonal":
            wire, bay = tables.wires()[options.brace_wire], float(xs[1])
            line = (_on(0.0, side, 0.06, half, height), _on(bay, side, 0.98, half, height))
            members.append(
                Member(f"brace-{name}", "guy", "wires", wire.key, line, math.dist(*line) + 0.6, wire.d)
            )
    members += [
        Member(
            f"hinge-{n + 1}", "fitting", "fittings", options.hinge, ((float(x), 0.0, height),), shape="point"
        )
        for n, x in enumerate(xs)
    ]
    return members


def _filling(options: AFrameOptions, xs: Array, height: float) -> list[Member]:
    """Return what the faces are filled with: mesh and its ties, or bars."""
    half, end, members = options.spread / 2, options.length, []
    for name, side in _slopes(options):
        if options.filled in MESHES:
            mesh = tables.meshes()[options.mesh]
            corners = (
                _on(0.0, side, 0.0, half, height),
                _on(end, side, 0.0, half, height),
                _on(end, side, 1.0, half, height),
                _on(0.0, side, 1.0, half, height),
            )
            up = np.arange(0.0, end + 1e-6, max(mesh.along, 0.05)).tolist()
            level = np.arange(0.0, options.leg + 1e-6, max(mesh.up, 0.05)) / options.leg
            lines = [(_on(x, side, 0.0, half, height), _on(x, side, 1.0, half, height)) for x in up]
            lines += [
                (_on(0.0, side, s, half, height), _on(end, side, s, half, height)) for s in level.tolist()
            ]
            flat = (
                (0.0, corners[0][1], 0.0),
                (end, corners[0][1], 0.0),
                (end, corners[0][1], options.leg),
                (0.0, corners[0][1], options.leg),
            )
            members.append(
                Member(
                    f"mesh-{name}",
                    "mesh",
                    "meshes",
                    mesh.key,
                    flat,
                    end,
                    mesh.wire,
                    "wires",
                    lines=tuple(lines),
                )
            )
            if options.filled == "mesh":
                for n, x in enumerate(map(float, xs)):
                    count = mesh_face.tie_count(options.leg)
                    members += [
                        Member(
                            f"tie-{name}-{n + 1}-{m + 1}",
                            "tie",
                            "ties",
                            options.tie,
                            (_on(x, side, s, half, height),),
                            shape="point",
                        )
                        for m, s in enumerate(np.linspace(0.04, 0.96, count).tolist())
                    ]
            continue
        bar = tables.posts()[options.bar]
        if options.filled == "rungs":
            shares = np.arange(options.bar_step, options.leg - 0.05, options.bar_step) / options.leg
            ends = [
                (_on(0.0, side, s, half, height), _on(end, side, s, half, height)) for s in shares.tolist()
            ]
        else:
            places = np.linspace(0.0, end, max(math.ceil(end / options.bar_step), 1) + 1)[1:-1]
            ends = [
                (_on(x, side, 0.0, half, height), _on(x, side, 1.0, half, height)) for x in places.tolist()
            ]
        members += [
            Member(f"bar-{name}-{n + 1}", "arm", "posts", bar.key, line, math.dist(*line), bar.soil_width)
            for n, line in enumerate(ends)
        ]
    return members


def _held(options: AFrameOptions, xs: Array, height: float) -> list[Member]:
    """Return what ties the feet together and holds them down."""
    half, members = options.spread / 2, []
    for n, x in enumerate(map(float, xs)):
        share = min(_TIE_Z / height, 0.5)
        line = (_on(x, 1.0, share, half, height), _on(x, -1.0, share, half, height))
        if options.foot_tie == "bar":
            wood = tables.posts()[options.frame_wood]
            members.append(
                Member(
                    f"foot-tie-{n + 1}",
                    "arm",
                    "posts",
                    wood.key,
                    line,
                    math.dist(*line) + 0.1,
                    wood.soil_width,
                )
            )
        elif options.foot_tie == "cord":
            members.append(
                Member(
                    f"foot-tie-{n + 1}", "run", "twines", options.cord, line, math.dist(*line) + 0.6, 0.004
                )
            )
        for k, side in enumerate((1.0, -1.0)):
            y, number = side * half, 2 * n + k + 1
            if options.foot == "stake":
                stake = tables.posts()[options.stake]
                low, top = (x, y + side * 0.03, -options.in_soil), (x, y + side * 0.03, _STAKE_UP)
                members.append(
                    Member(
                        f"stake-{number}",
                        "strut",
                        "posts",
                        stake.key,
                        (low, top),
                        options.in_soil + _STAKE_UP,
                        stake.soil_width,
                    )
                )
                members.append(
                    Member(
                        f"grip-{number}",
                        "grip",
                        "",
                        "",
                        (low, (x, low[1], 0.0)),
                        thickness=3.0 * stake.soil_width,
                    )
                )
            elif options.foot == "cleat":
                members.append(
                    Member(
                        f"cleat-{number}",
                        "fitting",
                        "fittings",
                        options.cleat,
                        ((x, y, 0.03),),
                        shape="point",
                    )
                )
            elif options.foot == "anchor":
                members.append(
                    Member(
                        f"anchor-{number}",
                        "anchor",
                        "anchors",
                        options.anchor,
                        ((x, y + side * 0.1, 0.0),),
                        shape="point",
                    )
                )
    return members


def _to_face(plant: Plant, half: float, height: float) -> Plant:
    """Return a plant brought to the one face that there is."""
    x, y, z = plant.at
    at = (x, -abs(y), z)
    return Plant(at, plant.planting, (at, (x, -half, 0.02), (x, 0.0, height)))
