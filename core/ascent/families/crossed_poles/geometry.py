"""Crossed poles: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math

from ... import tables
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, located
from ...patterns import plants, posts, raked
from ...patterns import strings as hung
from ...patterns.end_assembly import EndAssembly
from ...plan.structure import Planting
from ...shapes import earth, wear
from ...site import Site
from .options import CrossedPolesOptions

_OUTSIDE = 0.05  # of a plant from its pole [m], parts handbook 3.5
_LASH = 10.0  # lengths of twine per width of both poles of a square lashing, parts handbook 3.0
_LASH_ENDS = 0.4  # of twine at its ends [m], parts handbook 3.0
_OVERHANG = 0.2  # of the ridge past the end pairs [m], parts handbook 3.5
_END_LEVERS = {
    "guy": ("brace_wire", "brace"),
    "strut": ("pole", "brace"),
    "post": ("brace", "pole", "pair_spacing"),
    "soil": ("in_soil", "brace", "footing"),
    "prop": ("anchor", "pair_spacing"),
    "lift": ("in_soil", "brace"),
}


def laid_out(options: CrossedPolesOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return pairs, ridge, braces, any strings, and plants in metres."""
    post, height, half = tables.posts()[options.pole], height_of(options), options.spread / 2
    xs, members = posts.stations(options.length, options.pair_spacing), []
    for n, x in enumerate(map(float, xs)):
        for k, side in enumerate((1.0, -1.0)):
            at = x + side * post.soil_width / 2
            members += raked.pole(
                post,
                2 * n + k + 1,
                (at, side * half, 0.0),
                (at, 0.0, height),
                options.in_soil,
                options.pole_length,
            )
        lash = _LASH_ENDS + _LASH * 2 * post.soil_width
        knot: tuple[Point, ...] = ((x - post.soil_width, 0.0, height), (x + post.soil_width, 0.0, height))
        members.append(raked.knot(n + 1, options.crossing, options.binding, knot, lash))
    members += _ridge_of(options, height)
    grown = plants.along(plantings, options.length, half + _OUTSIDE)
    supplies = list(plants.stem_ties(plantings, options.stem_tie, height, tables.constant("stripped_pruned")))
    if options.between == "strings":
        at_ = dict.fromkeys(range(len(grown)), 0.0)
        members += hung.members(options.string, grown, at_, height)
        if options.hung_by == "hook":
            supplies.append(Supply("string-hook", "fittings", options.hook, len(grown)))
        supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
    if options.footing == "concrete":
        supplies += posts.concrete([options.in_soil] * 2 * len(xs))
    grown = tuple(Plant(p.at, p.planting, (p.at, (p.at[0], 0.0, height))) for p in grown)
    members += _braces(options, height)
    members += ends_of(options, site).members(options.length) if options.brace == "guy" else []
    end, bay = float(xs[-1]), float(xs[1])
    top = max(z for m in members if m.role == "post" for _, _, z in m.points)
    dimensions = (
        Dimension(
            "options.length", "elevation", (0, 0, -options.in_soil), (end, 0, -options.in_soil), end, -0.6
        ),
        Dimension("options.pair_spacing", "elevation", (0, 0, top), (bay, 0, top), bay, 0.4),
        Dimension("options.in_soil", "elevation", (0, 0, -options.in_soil), (0, 0, 0), options.in_soil, -0.8),
        Dimension(
            "options.spread",
            "end",
            (0, -half, -options.in_soil),
            (0, half, -options.in_soil),
            options.spread,
            -0.5,
        ),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    return Geometry(
        located(members),
        grown,
        dimensions,
        tuple(supplies),
        options.length,
        top,
        options.in_soil,
        climb=height,
        unit=2 * post.soil_width,
    )


def height_of(options: CrossedPolesOptions) -> float:
    """Return the height at which the poles cross. [m]"""
    long = options.pole_length - options.in_soil - options.tail
    return math.sqrt(max(long**2 - (options.spread / 2) ** 2, 0.16))


def run_of(options: CrossedPolesOptions) -> float:
    """Return the distance along the row of a diagonal: to the next pair but one, a metre or so. [m]"""
    return min(max(2 * options.pair_spacing, 1.0), options.length)


def ground_of(options: CrossedPolesOptions, site: Site) -> earth.PostGround:
    """Return the ground as its poles are set in it."""
    return earth.ground_of(site.bed, options.setting)


def ends_of(options: CrossedPolesOptions, site: Site) -> EndAssembly:
    """Return the ends of the row: plain, or with a guy."""
    wire = options.brace_wire if options.brace == "guy" else "wire_soft_14"
    return EndAssembly(
        "guy" if options.brace == "guy" else "plain",
        wear.after(tables.posts()[options.pole], options.post_age),
        ground_of(options, site),
        options.in_soil,
        height_of(options),
        tables.wires()[wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.pole],
        _END_LEVERS,
    )


def _ridge_of(options: CrossedPolesOptions, height: float) -> list[Member]:
    """Return the ridge, resting in the V that the tails make, in lapped lengths; or a wire through the
    crossings.
    """
    post = tables.posts()[options.pole]
    if options.ridge == "pole":
        row = tables.posts()[options.ridge_pole]
        slope = math.asin(min(options.spread / 2 / math.hypot(options.spread / 2, height), 0.9))
        z = height + (post.soil_width + row.soil_width) / (2 * math.sin(slope))
        line = ((-_OVERHANG, 0.0, z), (options.length + _OVERHANG, 0.0, z))
        long = options.length + 2 * _OVERHANG
        return [Member("ridge", "rail", "posts", row.key, line, long, row.soil_width)]
    if options.ridge == "wire":
        row_ = tables.wires()[options.ridge_wire]
        line = ((0.0, 0.0, height), (options.length, 0.0, height))
        return [Member("ridge", "wire", "wires", row_.key, line, options.length + 1.3, row_.d)]
    return []


def _braces(options: CrossedPolesOptions, height: float) -> list[Member]:
    """Return a diagonal in the plane of each row at each end."""
    if options.brace != "diagonal":
        return []
    row, run, half, end = (
        tables.wires()[options.brace_wire],
        run_of(options),
        options.spread / 2,
        options.length,
    )
    members = []
    for name, foot, top in (("first", 0.0, run), ("last", end, end - run)):
        for side, y in (("left", half), ("right", -half)):
            line: tuple[Point, ...] = ((foot, y, 0.02), (top, 0.0, height))
            members.append(
                Member(f"brace-{name}-{side}", "guy", "wires", row.key, line, math.dist(*line) + 0.6, row.d)
            )
    return members
