"""What holds the feet of an arch: posts, the boards of a bed, blocks, or the soil that its ends are sunk
in.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal, Protocol

import numpy as np

from .. import tables
from ..checks import arches, bending, embedment, footings, tension
from ..mechanics import Array
from ..path.geometry import Member, keys
from ..path.loadpath import Arrow, Check, Link
from ..plan.bed import BareBed
from ..tables import rows
from . import posts
from .stand import OptionsT, Stand

_BLOCK = 0.19  # height of a hollow block [m], parts handbook 2.8
_LEAST_POST = 0.2  # of a post above the soil [m]

Foot = Literal["posts", "board", "block", "buried"]


class FeetOptions(Protocol):
    """What the options of an arch decide about its feet."""

    @property
    def foot(self) -> Foot: ...
    @property
    def hold(self) -> Literal["held", "clamped", "free"]: ...
    @property
    def hold_height(self) -> float: ...
    @property
    def span(self) -> float: ...
    @property
    def panel_side(self) -> Literal["inside", "outside"]: ...
    @property
    def post(self) -> str: ...
    @property
    def depth(self) -> float: ...
    @property
    def tie(self) -> str: ...
    @property
    def ties_per_post(self) -> int: ...
    @property
    def board(self) -> str: ...
    @property
    def cleat(self) -> str: ...
    @property
    def courses(self) -> int: ...
    @property
    def buried(self) -> float: ...


def held_at(options: FeetOptions, bed: BareBed) -> float:
    """Return the height at which an arch is held upright, above its own ends. [m]"""
    if options.foot == "buried":
        return options.buried
    if options.hold == "free":
        return 0.0
    if options.foot == "posts":
        return options.hold_height
    board = max(bed.raised_by, tables.posts()[options.board].b)
    return min(board, options.hold_height) if options.foot == "board" else _BLOCK * options.courses


def sunk(options: FeetOptions) -> float:
    """Return how much of each end is in the soil. [m]"""
    return options.buried if options.foot == "buried" else 0.0


def members(
    options: FeetOptions, number: int, edges: tuple[float, ...], ends: tuple[float, float], hold: float
) -> list[Member]:
    """Return what holds the feet of one arch on both sides.

    Args:
        options: What was decided.
        number: Of the arch, from 0.
        edges: Where along the tunnel it is held. [m]
        ends: From where to where boards run beside it. [m]
        hold: Height at which it is held upright. [m]
    """
    members: list[Member] = []
    for place, (name, side) in enumerate((("left", 1.0), ("right", -1.0))):
        y = side * options.span / 2
        if options.foot == "posts":
            first = (2 * number + place) * len(edges) + 1
            for n, x in enumerate(edges):
                members += _post(options, first + n, x, side, hold)
        elif options.foot == "board":
            board, out = tables.posts()[options.board], y + side * 0.02
            line = ((ends[0], out, 0.05), (ends[1], out, 0.05))
            members.append(
                Member(
                    f"board-{number + 1}-{name}", "rail", "posts", board.key, line, ends[1] - ends[0], board.b
                )
            )
            members += _points(f"cleat-{number + 1}-{name}", options.cleat, edges, y, 0.1)
        elif options.foot == "block":
            for n in range(options.courses):
                members += _points(
                    f"block-{number + 1}-{name}-{n + 1}",
                    "block_hollow",
                    edges,
                    y + side * 0.1,
                    _BLOCK * (n + 0.5),
                )
    return members


def _points(name: str, fitting: str, edges: tuple[float, ...], y: float, z: float) -> list[Member]:
    return [
        Member(f"{name}-{n + 1}", "fitting", "fittings", fitting, ((x, y, z),), shape="point")
        for n, x in enumerate(edges)
    ]


def _post(options: FeetOptions, number: int, x: float, side: float, hold: float) -> list[Member]:
    """Return a post beside an arch, the soil that grips it, and its ties."""
    row, up = tables.posts()[options.post], max(hold, _LEAST_POST)
    out = 1.0 if options.panel_side == "inside" else -1.0
    y = side * (options.span / 2 + out * row.soil_width / 2)
    foot, tied = (x, y, -options.depth), np.linspace(up, 0.05, options.ties_per_post).tolist()
    return [
        Member(
            f"post-{number}",
            "post",
            "posts",
            row.key,
            (foot, (x, y, up)),
            posts.stock_length(row, options.depth + up),
            row.soil_width,
        ),
        Member(f"grip-{number}", "grip", "", "", (foot, (x, y, 0.0)), thickness=3.0 * row.soil_width),
        *(
            Member(
                f"tie-{number}-{n + 1}",
                "tie",
                "ties",
                options.tie,
                ((x, side * options.span / 2, z),),
                shape="point",
            )
            for n, z in enumerate(tied)
        ),
    ]


@dataclass(frozen=True)
class ArchFeet:
    """The feet of one arch under its loads.

    hold: height at which it is held upright. [m]
    legs: posts on each side of it.
    width: length of tunnel it answers for. [m]
    push, foot_push: outward at one side's ties, and at one foot below them. [N]
    across: wind across it. [N]
    along: wind along the tunnel, on all feet together. [N]
    lift: of one side's feet. [N]
    lever: height at which it bends its posts. [m]
    """

    hold: float
    legs: int
    width: float
    push: Array
    foot_push: Array
    across: Array
    along: Array
    lift: Array
    lever: Array

    @property
    def blown(self) -> Array:
        """Return the wind on one post. [N]"""
        return np.asarray(self.across / (2 * self.legs))

    @property
    def thrust(self) -> Array:
        """Return the outward push of one foot and its ties together, wind included. [N]"""
        return np.asarray(np.abs(self.foot_push + self.push) + self.across / 2)


def links(
    stand: Stand[OptionsT], options: FeetOptions, feet: ArchFeet, buried: Callable[[Array], tuple[Check, ...]]
) -> list[Link]:
    """Return the links from the ties of an arch to the ground, the first of them what carries it.

    Args:
        stand: The arch under its loads.
        options: What was decided about its feet.
        feet: What comes to them.
        buried: Checks of ends sunk in the soil that push aside so much of it. [N]
    """
    if options.foot == "posts":
        return _onto_posts(stand, options, feet)
    if options.foot == "board":
        return _onto_board(stand, options, feet)
    if options.foot == "block":
        weight = 2 * options.courses * tables.constant("block_mass") * tables.constant("gravity")
        checks = (footings.slides(feet.thrust, weight), footings.lifts(feet.lift, weight))
        return [
            Link(
                "block",
                keys(stand.geometry.by_role("fitting")),
                None,
                (),
                ("foot", "span"),
                feet.thrust,
                checks,
            )
        ]
    force = np.asarray(np.maximum(np.abs(feet.push), np.abs(feet.foot_push)) + feet.across / 2)
    return [Link("buried", (), None, (), ("foot", "span"), force, buried(force))]


def _onto_posts(stand: Stand[OptionsT], options: FeetOptions, feet: ArchFeet) -> list[Link]:
    tie, post, ground = tables.ties()[options.tie], tables.posts()[options.post], stand.ground
    share, bears = feet.push / feet.legs, options.panel_side == "inside"

    def tied(tie: rows.Tie) -> tuple[Check, ...]:
        return (arches.tied(tie, share, feet.blown, options.ties_per_post, bears, stand.tied_on),)

    force, height = np.abs(share) + feet.blown, feet.lever
    still = np.broadcast_to(np.abs(share), np.broadcast_shapes(share.shape, (1, 1, 1)))
    standing, grips = keys(stand.geometry.by_role("post")), keys(stand.geometry.by_role("grip"))
    ties = tuple(m.key for m in stand.geometry.by_role("tie") if m.key.startswith("tie"))
    x, half = stand.geometry.by_role("grip")[0].points[0][0], options.span / 2
    outward, upward = (
        (Arrow((x, half, feet.hold), (0.0, 1.0, 0.0)),),
        (Arrow((x, -half, 0.0), (0.0, 0.0, 1.0)),),
    )
    lifted, strength = feet.lift / feet.legs, stand.cases.soil_strength(ground.native)
    lasting = embedment.grip(
        "soil-lasting", ground, post, options.depth, still, height, stand.cases, "soil_sustained"
    )
    grip = stand.soil_grip(
        post, options.depth, force, height, ("depth", "post", "hold_height", "setting"), arrows=outward
    )
    held_down = tension.uplift(post, ground, options.depth, lifted, strength)
    both = embedment.at_once(held_down, grip.checks[0])
    bent = (
        bending.post_across(post, force, height, np.ones((1, 1, 1))),
        bending.lasting(post, still * height),
        bending.post_along(post, feet.along, height, len(standing)),
    )
    return [
        Link.of(
            "tie",
            ties,
            tie,
            ("post", "hold-down"),
            ("tie", "ties_per_post", "panel_side", "hold_height"),
            force,
            tied,
            outward,
        ),
        Link(
            "post",
            standing,
            ("posts", post.key),
            ("soil",),
            ("post", "hold_height", "span"),
            force,
            bent,
            outward,
        ),
        replace(grip, checks=(*grip.checks, lasting)),
        Link("hold-down", grips, None, (), ("depth", "post"), lifted, (held_down, both), upward),
    ]


def _onto_board(stand: Stand[OptionsT], options: FeetOptions, feet: ArchFeet) -> list[Link]:
    cleat, board, bed = tables.fittings()[options.cleat], tables.posts()[options.board], stand.site.bed
    free = bed.length if bed.raised_by > 0.1 else footings.STAKES_APART
    pushed = footings.board(board, np.abs(feet.foot_push + feet.push), feet.width, free)
    fittings, rails = keys(stand.geometry.by_role("fitting")), keys(stand.geometry.by_role("rail"))
    return [
        Link.of(
            "cleat",
            fittings,
            cleat,
            ("board",),
            ("cleat", "span"),
            feet.thrust,
            lambda item: (footings.cleats(item, feet.thrust, feet.lift, 2),),
        ),
        Link("board", rails, ("posts", board.key), (), ("board", "span"), feet.thrust, (pushed,)),
    ]


def give(stand: Stand[OptionsT], options: FeetOptions, feet: ArchFeet, rise: float) -> Array:
    """Return how far the crown of an arch moves over because its posts do. [m]"""
    if options.foot != "posts" or feet.hold <= 0.05:
        return np.asarray(0.0 * feet.across)
    post, top = tables.posts()[options.post], max(feet.hold, _LEAST_POST)
    height, half = np.full((1, 1, 1), feet.hold), np.full((1, 1, 1), 0.01)
    bent = posts.lean_per_force(post, stand.ground, options.depth, height, half, top, stand.cases)
    return np.asarray(feet.blown * bent * rise / top)
