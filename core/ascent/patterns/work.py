"""Pieces of work that many supports share."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise

from .. import tables
from ..family.steps import Hit, Step
from ..path.geometry import Geometry, Member
from ..plan.structure import Planting
from ..tables import rows
from . import posts

_PLUMB, _PLUMB_STAKE = 1.0, 2.0  # [deg], handbook-parts-3.2, 3.6
_DEPTH = 0.03  # that a post may stand deeper or less deep [m], handbook-parts-3.1
_SAWN = 0.01  # that a post may be sawn longer or shorter [m], common practice, no source
_PLACE = 0.02  # that it may stand beside its mark [m], handbook-parts-3.2
_CLEAR_OF_WATER = 0.15  # of a drip tube from what is driven [m], handbook-parts-4.6
_LEAN = 2.0  # [deg], handbook-parts-3.9
_GAUGE = 0.01  # [m], handbook-parts-3.8
_LEVEL = 0.03  # of a ridge or rail [m], handbook-parts-3.5
_SWAY = 0.03  # along the row under a push of 50 N [m], handbook-parts-3.5
_CLEAR_OF_STEM = 0.05  # of a plant from its support [m], handbook-parts-3.4


def part_of(member: Member) -> str:
    """Return which part a member is: its key without its place."""
    return member.key.split("@")[0]


def is_part(member: Member, *parts: str) -> bool:
    """Return whether a member is one of some parts, or a part of one: ‘tie’ is ‘tie-left’ too."""
    own = part_of(member)
    return any(own == part or own.startswith(f"{part}-") for part in parts)


def of(geometry: Geometry, *parts: str) -> tuple[Member, ...]:
    """Return the members of some parts."""
    return tuple(member for member in geometry.members if is_part(member, *parts))


def keys_of(members: Iterable[Member]) -> tuple[str, ...]:
    """Return members' keys."""
    return tuple(member.key for member in members)


def setting(
    geometry: Geometry,
    row: str,
    *parts: str,
    hits: Sequence[Hit] = (),
    differs: Sequence[str] = (),
    supplies: Sequence[str] = (),
    hands: int = 0,
) -> list[Step]:
    """Return the step that sets some parts; none where there is nothing of them."""
    members, there = keys_of(of(geometry, *parts)), {supply.key for supply in geometry.supplies}
    used = tuple(key for key in supplies if key in there)
    if not members and not used:
        return []
    return [Step(row, members, used, tuple(hits), tuple(differs), hands=hands)]


def marked(row: str = "mark", spread: float = _PLACE) -> list[Step]:
    """Return the marking out, to within so much. [m]"""
    return [Step(row, hits=(Hit("place", (spread, "length")),))]


def posts_set(
    members: Sequence[Member],
    how: str,
    depth: float,
    words: str = "the posts",
    *,
    key: str = "posts",
    differs: Sequence[str] = ("depth", "post"),
    supplies: Sequence[str] = (),
    row: str = "",
    more: Sequence[Hit] = (),
) -> list[Step]:
    """Return the setting of some posts alike, to one depth below the ground. [m]"""
    if not members:
        return []
    post = tables.item(members[0].table, members[0].item)
    slim = isinstance(post, rows.Post) and posts.by_hand(post)
    way = row or f"posts-{how if how in ('tamped', 'concrete') else 'pushed' if slim else 'driven'}"
    up = max(point[2] for member in members for point in member.points)
    hits = [Hit("depth", (depth, "length"), _DEPTH)] if depth > _DEPTH else []
    if saw := max(map(_to_saw_off, members), default=0.0):
        hits.insert(0, Hit("sawn", (members[0].buy_length - saw, "length"), _SAWN))
    upright = all(
        abs(m.points[0][0] - m.points[-1][0]) + abs(m.points[0][1] - m.points[-1][1]) < 0.01 for m in members
    )
    if upright:
        hits += [
            Hit("top", (up, "length"), _DEPTH),
            Hit("plumb", (_PLUMB_STAKE if slim else _PLUMB, "angle")),
        ]
    there = ("collar",) if how == "concrete" else ()
    return [
        Step(way, keys_of(members), (*there, *supplies), (*hits, *more), tuple(differs), key, {"what": words})
    ]


def _to_saw_off(member: Member) -> float:
    """Return how much longer a post is bought than it stands, nothing where that is within its depth. [m]"""
    long = sum(math.dist(a, b) for a, b in pairwise(member.points))
    return member.buy_length - long if member.buy_length - long > _DEPTH else 0.0


def capped(geometry: Geometry) -> list[Step]:
    """Return the capping of tops."""
    return setting(geometry, "caps", "cap")


def watered() -> list[Step]:
    """Return the laying of the drip tube, once what is driven stands."""
    return [Step("water", hits=(Hit("tube", (_CLEAR_OF_WATER, "length")),))]


def ends_held(geometry: Geometry, wire: Sequence[str] = ("guy_wire",)) -> list[Step]:
    """Return what holds the ends of a row: struts, anchors of their kind, guys; `wire` is the option of their
    wire, where there is one.
    """
    return [
        *setting(geometry, "struts", "strut", differs=("strut",)),
        *anchored(geometry),
        *setting(geometry, "guys", "guy", differs=wire),
    ]


def anchored(geometry: Geometry) -> list[Step]:
    """Return the setting of the anchors, as their kind asks."""
    members = of(geometry, "anchor")
    if not members:
        return []
    anchor = tables.anchors()[members[0].item]
    if anchor.mass_kg:
        row = "anchor-deadman" if anchor.top_m > 0 else "anchor-weight"
    else:
        row = "anchor-screw" if "screw" in anchor.key else "anchor-driven"
    deep = (Hit("buried", (anchor.top_m, "length"), 0.05),) if row == "anchor-deadman" else ()
    return [Step(row, keys_of(members), hits=deep, differs=("anchor",))]


def swaying() -> Hit:
    """Return how far a braced row may move along itself when pushed."""
    return Hit("sway", (_SWAY, "length"))


def level() -> Hit:
    """Return how level what lies along the top should be."""
    return Hit("level", (_LEVEL, "length"))


def gauge(key: str, length: float, within: float = _GAUGE) -> Hit:
    """Return a length to measure between two things. [m]"""
    return Hit(key, (length, "length"), within)


def lean(angle: float) -> Hit:
    """Return the lean of an end post from the ground. [deg]"""
    return Hit("lean", (angle, "angle"), _LEAN)


def grown(geometry: Geometry, plantings: Sequence[Planting], clear: float = _CLEAR_OF_STEM) -> list[Step]:
    """Return the last look, planting, first ties and slings. [m]"""
    spacing = min(planting.spacing for planting in plantings)
    return [
        Step("check-all"),
        Step(
            "plant",
            hits=(Hit("apart", (spacing, "length"), 0.2 * spacing), Hit("clear", (clear, "length"), 0.02)),
        ),
        *setting(geometry, "first-tie", supplies=("stem-ties",), differs=("stem_tie",)),
        *setting(geometry, "slings", supplies=("sling",), differs=("sling",)),
    ]
