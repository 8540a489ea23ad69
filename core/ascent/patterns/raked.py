"""Poles that lean together and are tied where they meet: what each carries, what the lashing and the soil
must hold.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from .. import tables
from ..checks import legs, strings
from ..mechanics import Array, raked_legs
from ..path.geometry import Member, Point, keys
from ..path.loadpath import Arrow, Link, Service, Strength
from ..tables import rows
from . import posts
from .stand import OptionsT, Stand

Joint = Literal["lashed", "notched", "coupled"]
_COUPLER = "coupler_scaffold"
_NONE = Strength(np.zeros((1, 1, 1)), np.zeros((1, 1, 1)))
_STILL = 1e-12  # so that still air has a height too [N]


@dataclass(frozen=True)
class Splayed:
    """Legs that meet, under their loads.

    legs: two for a pair across the row, three and more round a circle.
    radius: from the middle to a foot. [m]
    height: where they meet. [m]
    post, depth: the poles, and how deep they are pushed in. [m]
    hung: weight of crop and poles. [N]
    resting: weight that is always there. [N]
    force, lever: wind on all of them, and where. [N] and [m]
    tied: what a foot's tie to a rim holds, beside the soil. [N]
    staked: moment about the ground that a stake between them holds. [N·m]
    """

    legs: int
    radius: float
    height: float
    post: rows.Post
    depth: float
    hung: Array
    resting: Array
    force: Array
    lever: Array
    tied: Strength = _NONE
    staked: Strength = _NONE

    @property
    def angle(self) -> float:
        """Return the angle of a leg from the ground. [rad]"""
        return raked_legs.slope(self.radius, self.height)

    @property
    def long(self) -> float:
        """Return the length of a leg from the soil to where they meet. [m]"""
        return math.hypot(self.radius, self.height)

    @property
    def apex(self) -> Array:
        """Return the wind brought to where they meet. [N]"""
        return np.asarray(self.force * self.lever / self.height)

    @property
    def axial(self) -> Array:
        """Return the push or pull along the worst leg from the wind alone. [N]"""
        return raked_legs.leg_push(0.0, self.apex, self.legs, self.angle)

    @property
    def taken(self) -> Array:
        """Return the moment about the ground that the feet's up and down make. [N·m]"""
        return np.asarray(self.axial * math.sin(self.angle) * raked_legs.lever(self.legs) * self.radius)


def ends(foot: Point, apex: Point, depth: float, tail: float) -> tuple[Point, Point]:
    """Return the lower and the upper end of a pole by its foot at the soil and the place where the poles
    meet. [m]
    """
    span = np.array(apex) - np.array(foot)
    unit = span / np.linalg.norm(span)
    low, high = np.array(foot) - unit * depth, np.array(apex) + unit * tail
    return (float(low[0]), float(low[1]), float(low[2])), (float(high[0]), float(high[1]), float(high[2]))


def pole(post: rows.Post, number: int, foot: Point, apex: Point, depth: float, long: float) -> list[Member]:
    """Return a pole of some length with the soil that grips it and its cap: it ends where its length does.
    [m]
    """
    low, high = ends(foot, apex, depth, long - depth - math.dist(foot, apex))
    return posts.standing(post, number, low, high, posts.stock_length(post, long))


def knot(number: int, joint: Joint, twine: str, at: tuple[Point, ...], length: float) -> Member:
    """Return what joins poles where they meet: a lashing of so much twine, or a coupler. [m]"""
    if joint == "coupled":
        return Member(f"lashing-{number}", "fitting", "fittings", _COUPLER, (at[0],), shape="point")
    return Member(f"lashing-{number}", "run", "twines", twine, at, length, 0.015)


def links(
    stand: Stand[OptionsT],
    poles: Splayed,
    binding: tuple[rows.Twine, Joint],
    levers: dict[str, tuple[str, ...]],
    below: tuple[str, ...] = (),
) -> list[Link]:
    """Return the links from the poles to the ground.

    Args:
        stand: The structure under its loads.
        poles: The legs of one set, or of one pair.
        binding: Twine of the lashing, and how the poles are joined.
        levers: Options that strengthen pole, lashing and feet.
        below: What the feet stand in, if not the ground.
    """
    post, angle = poles.post, poles.angle
    push = raked_legs.leg_push(poles.hung * tables.constant("hung_along"), poles.apex, poles.legs, angle)
    slip = raked_legs.leg_push(poles.hung / 2, poles.apex, poles.legs, angle)
    standing, grips = keys(stand.geometry.by_role("post")), keys(stand.geometry.by_role("grip"))
    first = stand.geometry.by_role("post")[0].points
    foot = stand.geometry.by_role("grip")[0].points[1]
    side = (Arrow((first[1][0], first[1][1], poles.height / 2), (0.0, 1.0, 0.0)),)
    resting = np.asarray(poles.resting * raked_legs.tipping_arm(poles.radius, poles.legs))
    ground = stand.ground
    skin, arm = (
        legs.pulled(post, ground, poles.depth, stand.cases),
        raked_legs.lever(poles.legs) * poles.radius,
    )
    pulled = Strength((skin.allowable + poles.tied.allowable) * arm, (skin.median + poles.tied.median) * arm)
    stood = legs.stood(post, ground, poles.depth, poles.lever, poles.legs, stand.cases)
    twine, joint = binding
    coupler = tables.fittings()[_COUPLER]
    knots = tuple(m.key for m in stand.geometry.members if m.key.startswith("lashing"))
    held = (
        Link.of(
            "lashing",
            knots,
            coupler,
            ("feet",),
            levers["lashing"],
            slip,
            lambda coupler: (strings.fitting("coupled", coupler, slip),),
        )
        if joint == "coupled"
        else Link(
            "lashing",
            knots,
            ("twines", twine.key),
            ("feet",),
            levers["lashing"],
            slip,
            (legs.lashing(post, twine, slip, joint == "notched", stand.tied_on),),
        )
    )
    return [
        Link(
            "pole",
            standing,
            ("posts", post.key),
            ("lashing", "feet"),
            levers["pole"],
            push,
            (legs.leg(post, push, poles.long, poles.force / poles.legs, held=poles.depth > 0.1),),
            side,
        ),
        held,
        Link(
            "feet",
            grips,
            None,
            below,
            levers["feet"],
            poles.force,
            (legs.feet(poles.force * poles.lever, resting, pulled, stood, poles.staked),),
            (Arrow(foot, (0.0, 0.0, 1.0)),),
        ),
    ]


def lean(stand: Stand[OptionsT], poles: Splayed, levers: tuple[str, ...]) -> Service:
    """Return how far the meeting place moves over as the feet give along their poles."""
    give = poles.axial / (tables.constant("pole_foot") * stand.cases.stiffness) / math.cos(poles.angle)
    limit = poles.height / tables.constant("sway_limit")
    return Service("lean-poles", np.minimum(give, poles.height), limit, "handbook-4.2", levers)


def blown(
    pressure: Array, leafy: tuple[Array | float, Array], wide: float, added: float, height: float, bare: Array
) -> tuple[Array, Array]:
    """Return the wind on leaning poles with their vines and where it acts, [N] and [m].

    Args:
        pressure: On the leafy face. [Pa]
        leafy: Where the leaves begin and end. [m]
        wide: Of the face at the ground; it narrows to nothing at the height. [m]
        added: Leaf beyond it, the same all the way up. [m]
        height: Where the poles meet. [m]
        bare: Wind on the bare poles. [N]
    """
    area, middle = raked_legs.tapered(wide, added, leafy[0], np.minimum(leafy[1], height), height)
    force = pressure * area
    total = force + bare
    return np.asarray(total), np.asarray((force * middle + (bare + _STILL) * height / 2) / (total + _STILL))
