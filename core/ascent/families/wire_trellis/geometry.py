"""Wire trellis: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math
from itertools import pairwise

from ... import tables
from ...mechanics import Array
from ...path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, located
from ...patterns import plants, posts, starters
from ...patterns import strings as hung
from ...patterns.end_assembly import EndAssembly
from ...plan.structure import Planting
from ...shapes import earth, wear
from ...site import Site
from .options import GUYED, WireTrellisOptions

_SAFETY = 1.2  # of wire past a tensioner [m], parts handbook 3.9
_STONE = 0.0225  # of a flat stone under the foot of a guyed end post [m²], parts handbook 3.9
_PROP_FOOT = 0.30  # of a prop in its sleeve [m]
_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "end_post", "post_spacing", "pretension", "lean"),
    "soil": ("end_depth", "ends", "end_post", "post_spacing", "pretension"),
    "prop": ("anchor", "post_spacing", "ends", "guy_angle", "pretension"),
    "lift": ("end_depth", "ends", "end_post", "post_spacing"),
}


def laid_out(options: WireTrellisOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return posts, wires, arms, strings and ends in metres."""
    post, end = tables.posts()[options.post], tables.posts()[options.end_post]
    xs, tee, height = (
        posts.stations(options.length, options.post_spacing),
        options.lines == "tee",
        options.top_height,
    )
    assembly = ends_of(options, site)
    members = posts.row(
        post, xs[1:-1], options.depth, height, posts.stock_length(post, options.depth + height), first=2
    )
    for number, x, outward in ((1, 0.0, -1.0), (len(xs), options.length, 1.0)):
        members += posts.end(end, number, (x, 0.0, -options.end_depth), assembly.top_of(x, outward))
    half = options.arm / 2 if tee else 0.0
    for line in (1.0, -1.0) if tee else (1.0,):
        members += _wires(options, assembly, xs, line * half)
    if tee:
        members += _arms(options, xs)
    else:
        members += [
            Member(
                f"seat-{n + 1}",
                "fitting",
                "fittings",
                options.seat,
                ((float(x), 0.0, height),),
                shape="point",
            )
            for n, x in enumerate(xs[1:-1])
        ]
    if options.props:
        prop = tables.posts()[options.prop]
        members += [
            Member(
                f"prop-{n + 1}",
                "strut",
                "posts",
                prop.key,
                ((x, 0.0, -_PROP_FOOT), (x, 0.0, height)),
                height + _PROP_FOOT,
                prop.soil_width,
            )
            for n, x in enumerate((a + b) / 2 for a, b in pairwise(map(float, xs)))
        ]
    members += assembly.members(options.length)
    grown = plants.along(plantings, options.length, half) if tee else plants.along(plantings, options.length)
    if options.crop_on == "strings":
        at = {n: math.copysign(half, plant.at[1]) if tee else 0.0 for n, plant in enumerate(grown)}
        members += hung.members(options.string, grown, at, height)
        grown = hung.climbing(grown, at, height)
    if options.starter == "brush":
        members += starters.members(grown)
    bare = tables.constant("stripped_pruned")
    cast = [options.end_depth] * 2 if "concrete" in (options.ends, options.setting) else []
    cast += [options.depth] * (len(xs) - 2) if options.setting == "concrete" else []
    supplies = (
        *plants.stem_ties(plantings, options.stem_tie, height, bare),
        *_small(options, grown),
        *posts.concrete(cast),
    )
    dimensions = _dimensions(options, plantings, grown, xs, site.bed.width / 2)
    return Geometry(
        located(members), grown, dimensions, supplies, options.length, height, options.depth, climb=height
    )


def ends_of(options: WireTrellisOptions, site: Site) -> EndAssembly:
    """Return the ends of the row that hold the wires."""
    leaning = math.radians(options.lean if options.ends == "lean" else 90.0)
    return EndAssembly(
        options.ends,
        wear.after(tables.posts()[options.end_post], options.post_age),
        earth.ground_of(site.bed, "concrete" if options.ends == "concrete" else options.setting),
        options.end_depth,
        options.top_height,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
        lean=leaning,
        guy_angle=math.radians(options.guy_angle),
        run=min(2.4, options.length / 2),
        pad=_STONE if options.ends in GUYED else 0.0,
    )


def heights_of(options: WireTrellisOptions) -> list[float]:
    """Return the heights of the wires, the top one first. [m]"""
    return [max(options.top_height - n * options.wire_step, 0.1) for n in range(options.wires)]


def _wires(options: WireTrellisOptions, assembly: EndAssembly, xs: Array, y: float) -> list[Member]:
    """Return the wires of one line, each bought with its ends and the safety wire past its tensioner."""
    row = tables.wires()[options.wire]
    around = 2 * (1.5 * 0.314 + 0.30) + 0.5 + (_SAFETY if options.safety_wire else 0.0)
    members = []
    for n, z in enumerate(heights_of(options)):
        lean = z / math.tan(assembly.lean)
        line: tuple[Point, ...] = (
            (-lean, y, z),
            *((float(x), y, z) for x in xs[1:-1]),
            (options.length + lean, y, z),
        )
        name = f"wire-{n + 1}" if y >= 0 else f"wire-{n + 1}-right"
        bought = 1.01 * (options.length + 2 * lean) + around
        members.append(
            Member(
                name, "wire", "wires", row.key, line, bought, row.d, sags=n == 0 or options.crop_on == "wires"
            )
        )
    return members


def _arms(options: WireTrellisOptions, xs: Array) -> list[Member]:
    """Return the arms with their knees on every post."""
    wood, z, half = tables.posts()[options.arm_wood], options.top_height, options.arm / 2
    members = []
    for n, x in enumerate(map(float, xs)):
        members.append(
            Member(
                f"arm-{n + 1}", "arm", "posts", wood.key, ((x, -half, z), (x, half, z)), options.arm, 0.089
            )
        )
        for side, name in ((1.0, "left"), (-1.0, "right")):
            knee = ((x, side * half / 2, z), (x, 0.0, z - half / 2))
            members.append(
                Member(f"knee-{n + 1}-{name}", "arm", "posts", wood.key, knee, half / 2 * 1.6, 0.038)
            )
    return members


def _small(options: WireTrellisOptions, grown: tuple[Plant, ...]) -> tuple[Supply, ...]:
    """Return what has no place of its own: tensioners, pegs, bolts of the knees."""
    lines = 2 if options.lines == "tee" else 1
    supplies = [Supply("tensioner", "fittings", options.tensioner, options.wires * lines)]
    if options.crop_on == "strings":
        supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
    if options.ends in GUYED:
        supplies.append(Supply("foot-stone", "fittings", "foot_stone", 2))
    if lines == 2:
        arms_ = len(posts.stations(options.length, options.post_spacing))
        supplies.append(Supply("knee-bolt", "fittings", options.knee, 4 * arms_))
    return tuple(supplies)


def _dimensions(
    options: WireTrellisOptions,
    plantings: tuple[Planting, ...],
    grown: tuple[Plant, ...],
    xs: Array,
    edge: float,
) -> tuple[Dimension, ...]:
    end, bay, height = float(xs[-1]), float(xs[1]), options.top_height
    dimensions = [
        Dimension("options.length", "elevation", (0, 0, -options.depth), (end, 0, -options.depth), end, -0.6),
        Dimension("options.post_spacing", "elevation", (0, 0, height), (bay, 0, height), bay, 0.6),
        Dimension("options.top_height", "elevation", (end, 0, 0), (end, 0, height), height, 1.6),
        Dimension(
            "options.end_depth", "elevation", (0, 0, -options.end_depth), (0, 0, 0), options.end_depth, -0.6
        ),
    ]
    if len(xs) > 2:
        dimensions.append(
            Dimension(
                "options.depth", "elevation", (bay, 0, -options.depth), (bay, 0, 0), options.depth, -0.5
            )
        )
    if options.lines == "tee":
        half = options.arm / 2
        dimensions.append(
            Dimension("options.arm", "end", (-half, 0, height), (half, 0, height), options.arm, 0.5)
        )
    return (*dimensions, *plants.spacing_dimension(plantings, grown, edge))
