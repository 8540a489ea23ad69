"""Posts tied back across their row: to a wall, a fence, a post, or a second pot."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, Protocol

import numpy as np

from .. import tables
from ..checks import strings, tension
from ..mechanics import Array
from ..path.geometry import Member, Point
from ..path.loadpath import Check, Link, Strength
from ..plan.bed import BareBed
from . import pots

How = Literal["none", "cord", "batten"]
To = Literal["wall", "fence", "post", "pot"]
_EYES = {"wall": "vine_eye_80", "fence": "eye_screw_wood", "post": "eye_screw_wood"}
_OF_A_FENCE = 0.5  # of what its eye may hold: a fence has its own wind to carry, structures handbook 7.6
_BATTEN, _SCREWS = "post_sw_stake_25", "screws_76_pair"
_ENDS = 0.4  # of a cord for its knots [m], parts handbook 3.0


class BackOptions(Protocol):
    """What the options of a row decide about tying it back."""

    @property
    def tie_back(self) -> How: ...
    @property
    def back_to(self) -> To: ...
    @property
    def back_height(self) -> float: ...
    @property
    def back_reach(self) -> float: ...
    @property
    def back_cord(self) -> str: ...


@dataclass(frozen=True)
class TieBack:
    """Wind across the row on a post that is tied back.

    pull: of the tie. [N]
    foot: that the soil still takes, at the soil. [N]
    bent: moment between soil and tie, or above it. [N·m]
    free: share of the wind that the post takes alone when it blows toward what it is tied to.
    """

    pull: Array
    foot: Array
    bent: Array
    free: float


def held(options: BackOptions, force: Array, height: Array) -> TieBack:
    """Return what becomes of the wind on a post that stands on the soil and is held at a height: a beam on
    two supports.

    A cord holds only what blows away from what it is tied to. What blows toward it finds the row in the lee
    of a wall or a fence, but not of a post or a pot; a batten holds both ways.

    Args:
        options: What was decided.
        force: Wind on the post. [N]
        height: At which it acts. [m]

    Source: timoshenko-beams; handbook-1.6 for what stands behind
    """
    at = options.back_height
    pull = force * height / at
    bent = force * np.where(height < at, height * (at - height) / at, height - at)
    sheltered = tables.constant("follower") if options.back_to in ("wall", "fence") else 1.0
    return TieBack(
        np.asarray(pull),
        np.asarray(np.abs(force - pull)),
        np.asarray(bent),
        0.0 if options.tie_back == "batten" else sheltered,
    )


def members(options: BackOptions, places: list[Point], away: float) -> list[Member]:
    """Return the ties of posts that stand at some places, on the side of the row that is given by its sign.
    [m]
    """
    if options.tie_back == "none":
        return []
    members = []
    for n, (x, y, _) in enumerate(places):
        ends: tuple[Point, Point] = (
            (x, y, options.back_height),
            (x, y + away * options.back_reach, options.back_height),
        )
        if options.tie_back == "cord":
            members.append(
                Member(
                    f"back-{n + 1}",
                    "run",
                    "twines",
                    options.back_cord,
                    ends,
                    2 * options.back_reach + _ENDS,
                    0.004,
                )
            )
        else:
            wood = tables.posts()[_BATTEN]
            members.append(
                Member(f"back-{n + 1}", "strut", "posts", wood.key, ends, options.back_reach, wood.soil_width)
            )
        if options.back_to in _EYES and options.tie_back == "cord":
            members.append(
                Member(
                    f"back-eye-{n + 1}",
                    "fitting",
                    "fittings",
                    _EYES[options.back_to],
                    (ends[1],),
                    shape="point",
                )
            )
    return members


def links(options: BackOptions, bed: BareBed, pull: Array, days: Array) -> list[Link]:
    """Return the links from the ties of posts to what holds them.

    Args:
        options: What was decided.
        bed: The bed; a second pot is taken to be like it.
        pull: Of one tie. [N]
        days: Since it was tied, (W,). [d]
    """
    if options.tie_back == "none":
        return []
    ties: tuple[Check, ...]
    if options.tie_back == "cord":
        twine = tables.twines()[options.back_cord]
        item, ties = ("twines", twine.key), (strings.cord(twine, pull / 2, days),)
    else:
        wood = tables.posts()[_BATTEN]
        item, ties = ("posts", wood.key), (tension.buckling("strut", wood, pull, options.back_reach),)
    levers = ("tie_back", "back_cord", "back_height")
    return [
        Link("tie-back", (), item, ("back-hold",), levers, pull, ties),
        Link("back-hold", (), None, (), ("back_to", "back_height"), pull, (_hold(options, bed, pull),)),
    ]


def _hold(options: BackOptions, bed: BareBed, pull: Array) -> Check:
    if options.back_to == "pot":
        weight = pots.dry_mass(bed) * tables.constant("gravity")
        hold = tables.constant("pot_friction") * weight
        return Check(
            "second-pot",
            pull,
            hold / tables.constant("dead_weight"),
            hold * tables.constant("friction_median"),
            "force",
            "handbook-7.6",
            "judgement",
            {"pull": (pull, "force"), "weight": (weight, "force"), "hold": (hold, "force")},
            "weight",
        )
    row = tables.fittings()[_SCREWS if options.tie_back == "batten" else _EYES[options.back_to]]
    share = _OF_A_FENCE if options.back_to == "fence" else 1.0
    held_ = Strength(np.asarray(share * row.working_N), np.asarray(share * row.working_N * row.median))
    return Check(
        "back-eye",
        pull,
        held_.allowable,
        held_.median,
        "force",
        row.source,
        "judgement",
        {"pull": (pull, "force"), "share": (share, "ratio")},
        "screws",
    )
