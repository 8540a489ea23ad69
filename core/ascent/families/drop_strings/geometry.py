"""Drop strings: how it is laid out: members, plants and measures."""

from __future__ import annotations

import math
from itertools import pairwise

from ... import tables
from ...mechanics import Array
from ...path.geometry import Dimension, Geometry, Member, Plant, Supply, located
from ...patterns import plants, posts
from ...patterns import strings as hung
from ...patterns.end_assembly import EndAssembly
from ...plan.structure import Planting
from ...shapes import earth, wear
from ...site import Site
from .options import DropStringsOptions

BRACE, BRACE_STAKE = "wire_soft_125", "stake_guy_rebar"  # of a beam's posts along their row
_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "post", "post_spacing"),
    "soil": ("depth", "ends", "post", "post_spacing"),
    "prop": ("anchor", "post_spacing", "pretension"),
    "lift": ("depth", "ends", "post"),
}


def laid_out(options: DropStringsOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return posts, beam or wire, strings and plants in metres."""
    xs, height, post = (
        posts.stations(options.length, options.post_spacing),
        options.top_height,
        tables.posts()[options.post],
    )
    offset = options.zigzag / 2 if options.zigzag > 2 * plants.OFFSET else plants.OFFSET
    grown = plants.along(plantings, options.length, offset)
    at = dict.fromkeys(range(len(grown)), 0.0)
    members = hung.members(options.string, grown, at, height, _spare(options))
    grown = hung.climbing(grown, at, height)
    depth = options.depth if options.footing == "soil" else 0.0
    if options.top != "house":
        members += _uprights(options, site, xs, depth)
        members += _top(options, xs)
        if options.prop:
            members += [
                Member(
                    f"prop-{n + 1}",
                    "strut",
                    "posts",
                    post.key,
                    ((x, 0.0, 0.0), (x, 0.0, height)),
                    height,
                    post.soil_width,
                )
                for n, x in enumerate((a + b) / 2 for a, b in pairwise(map(float, xs)))
            ]
    if options.top == "wire":
        members += ends_of(options, site).members(options.length)
    bare = tables.constant("stripped_pruned")
    supplies = (
        [] if options.attach == "twist" else list(plants.stem_ties(plantings, options.stem_tie, height, bare))
    )
    if options.hung_by == "hook":
        supplies.append(Supply("string-hook", "fittings", options.hook, len(grown)))
    if options.foot_held == "peg":
        supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
    if options.top != "house" and options.footing == "bed":
        count = len(xs) * (1 if options.uprights == "alone" else 2)
        supplies.append(Supply("post-screws", "fittings", options.screws, 2 * count))
        if options.uprights == "knees":
            supplies.append(Supply("knee-screws", "fittings", options.screws, 4 * len(xs)))
    if options.top != "house" and options.footing == "soil" and options.setting == "concrete":
        supplies += posts.concrete([options.depth] * len(xs))
    return Geometry(
        located(members),
        grown,
        _dimensions(options, plantings, grown, xs, site.bed.width / 2),
        tuple(supplies),
        options.length,
        height,
        depth if options.top != "house" else 0.0,
        climb=height,
    )


def _uprights(options: DropStringsOptions, site: Site, xs: Array, depth: float) -> list[Member]:
    """Return the posts; on a bed perhaps in pairs, one on either side of it, with a bar over it and knees in
    its corners.
    """
    post, height = tables.posts()[options.post], options.top_height
    bought = posts.stock_length(post, depth + height)
    if options.footing == "soil" or options.uprights == "alone":
        return posts.row(post, xs, max(depth, 0.02), height, bought)
    members, edge = [], site.bed.width / 2 + post.a / 2
    for n, x in enumerate(map(float, xs)):
        for k, y in enumerate((edge, -edge)):
            members += posts.standing(post, 2 * n + k + 1, (x, y, -0.02), (x, y, height), bought)
        members.append(
            Member(
                f"crossbar-{n + 1}",
                "arm",
                "posts",
                post.key,
                ((x, edge, height), (x, -edge, height)),
                2 * edge,
                post.soil_width,
            )
        )
        if options.uprights == "knees":
            knee = min(0.4, edge)
            members += [
                Member(
                    f"knee-{n + 1}-{k + 1}",
                    "strut",
                    "posts",
                    post.key,
                    ((x, y, height - knee), (x, y - math.copysign(knee, y), height)),
                    knee * math.sqrt(2.0),
                    post.soil_width,
                )
                for k, y in enumerate((edge, -edge))
            ]
    return members


def brace_run(options: DropStringsOptions, bay: float) -> float:
    """Return how far along the row a brace's foot stands from its post: square to it when it goes back, in
    its bay when it goes in. [m]
    """
    return options.top_height if options.brace == "back-tie" else min(bay, options.top_height)


def _spare(options: DropStringsOptions) -> float:
    """Return the length of string wound up to be let down. [m]"""
    return max(options.stem_length - options.top_height, 0.0) if options.lower else 0.0


def ends_of(options: DropStringsOptions, site: Site) -> EndAssembly:
    """Return the ends of the row that hold the top line."""
    railed = options.ends == "top-brace"
    depth = options.depth if options.footing == "soil" else 0.30
    return EndAssembly(
        "plain" if options.ends == "top-brace" else options.ends,
        wear.after(tables.posts()[options.post], options.post_age),
        earth.ground_of(site.bed, options.setting),
        depth,
        options.top_height,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
        railed,
        bows=tables.constant("rail_bows") * options.length / 2,
        in_soil=options.footing == "soil",
    )


def _top(options: DropStringsOptions, xs: Array) -> list[Member]:
    """Return the beam with its joints and brace, or the wire."""
    z, end = options.top_height, float(xs[-1])
    if options.top == "wire":
        row, strands = tables.wires()[options.wire], 2 if options.doubled else 1
        line = tuple((float(x), 0.0, z) for x in xs)
        members = [
            Member(
                "wire-1",
                "wire",
                "wires",
                row.key,
                line,
                strands * (options.length + 2 * 0.65) * 1.03,
                row.d * strands,
                sags=True,
            )
        ]
        if options.ends == "top-brace":
            brace = tables.posts()[options.strut]
            members.append(
                Member(
                    "top-brace",
                    "rail",
                    "posts",
                    brace.key,
                    ((0.0, 0.0, z + 0.05), (end, 0.0, z + 0.05)),
                    options.length,
                    brace.soil_width,
                )
            )
        return members
    beam = tables.posts()[options.beam]
    members = [
        Member(
            "beam",
            "rail",
            "posts",
            beam.key,
            tuple((float(x), 0.0, z) for x in xs),
            options.length,
            beam.b,
            sags=True,
        )
    ]
    members += [
        Member(f"joint-{n + 1}", "fitting", "fittings", options.joint, ((float(x), 0.0, z),), shape="point")
        for n, x in enumerate(xs)
    ]
    if options.brace != "none":
        bay, wire = float(xs[1]), tables.wires()[BRACE]
        run, across = brace_run(options, bay), options.brace == "diagonal"
        foot = (run, 0.0, 0.1) if across else (-run, 0.0, 0.0)
        members.append(
            Member(
                "brace-first",
                "guy",
                "wires",
                wire.key,
                ((0.0, 0.0, z), foot),
                math.hypot(run, z) + 1.0,
                wire.d,
            )
        )
        other = (end - run, 0.0, 0.1) if across else (end + run, 0.0, 0.0)
        members.append(
            Member(
                "brace-last",
                "guy",
                "wires",
                wire.key,
                ((end, 0.0, z), other),
                math.hypot(run, z) + 1.0,
                wire.d,
            )
        )
        if not across:
            for name, at in (("first", foot), ("last", other)):
                members.append(
                    Member(f"anchor-{name}", "anchor", "anchors", BRACE_STAKE, (at,), shape="point")
                )
    return members


def _dimensions(
    options: DropStringsOptions,
    plantings: tuple[Planting, ...],
    grown: tuple[Plant, ...],
    xs: Array,
    edge: float,
) -> tuple[Dimension, ...]:
    end, bay, height = float(xs[-1]), float(xs[1]), options.top_height
    dimensions = [
        Dimension("options.length", "elevation", (0, 0, -0.3), (end, 0, -0.3), end, -0.6),
        Dimension("options.top_height", "elevation", (end, 0, 0), (end, 0, height), height, 0.9),
    ]
    if options.top != "house":
        dimensions.append(
            Dimension("options.post_spacing", "elevation", (0, 0, height), (bay, 0, height), bay, 0.6)
        )
        if options.footing == "soil":
            dimensions.append(
                Dimension(
                    "options.depth", "elevation", (0, 0, -options.depth), (0, 0, 0), options.depth, -0.6
                )
            )
    return (*dimensions, *plants.spacing_dimension(plantings, grown, edge))
