"""A pull test of a post that stands: what it says of the bed's soil against what is assumed of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from .. import tables
from ..analysis.design import geometry_of
from ..checks import bending, embedment
from ..errors import InvalidPlan, Problem
from ..loads.cases import moist_gusts
from ..mechanics.pull import Pulled, pulled
from ..path.geometry import Member
from ..plan.record import PullTest
from ..plan.structure import Structure
from ..shapes import earth, wear
from ..site import Site
from ..tables.rows import Post

_LOWEST, _HIGHEST = 0.2, 5.0  # of what a test may make of an assumption


@dataclass(frozen=True)
class Compared:
    """What a pull test says beside what is assumed.

    assumed: modulus by the table, in the state of the test. capacity: at the pull's height by the table,
    cautious, in that state. [N] stiffer: how many times the assumed modulus; nothing where it cannot be told.
    grip: how many times the assumed grip at least, or where it moved on at most; 1 where the pull was too
    small to say more than the table.
    """

    test: PullTest
    found: Pulled
    assumed: float
    capacity: float
    stiffer: float | None
    grip: float
    moved_on: bool


def compared(site: Site, structure: Structure, test: PullTest) -> Compared:
    """Return a pull test of a post worked out.

    Raises:
        InvalidPlan: The post is not there, or the readings say nothing.
    """
    post, depth = post_of(site, structure, test.member)
    ground = earth.ground_of(site.bed.model_copy(update={"tested": None}), _setting(structure))
    soil = ground.native
    wet = test.state == "wet"
    try:
        found = pulled(
            [(reading.pull, reading.moved) for reading in test.readings],
            test.height,
            depth,
            bending.stiffness(post),
            soil.model,
        )
    except ValueError as error:
        given = f"{len(test.readings)} readings"
        raise InvalidPlan([Problem("readings", given, str(error))]) from error
    cases = moist_gusts()
    moist = float(
        embedment.lateral_ultimate(ground, post, depth, np.full((1, 1, 1), test.height), cases).max()
    )
    share = {"dry": soil.dry, "moist": soil.moist, "wet": soil.saturated}[test.state]
    capacity = moist / soil.moist * share
    assumed = soil.modulus_saturated if wet else soil.modulus
    moved_on = test.moved_on or found.moving_on
    ratio = found.held / capacity if capacity > 0 else 1.0
    grip = min(1.0, ratio) if moved_on else max(1.0, ratio)
    return Compared(
        test,
        found,
        assumed,
        capacity,
        _within(found.modulus / assumed) if found.modulus is not None else None,
        _within(grip),
        moved_on,
    )


def _within(ratio: float) -> float:
    return min(max(ratio, _LOWEST), _HIGHEST)


def _setting(structure: Structure) -> str:
    return str(structure.options.get("setting", "driven"))


def post_of(site: Site, structure: Structure, key: str) -> tuple[Post, float]:
    """Return the row and the depth of a post that stands, by its member's key. [m]

    Raises:
        InvalidPlan: There is no such post, or it does not stand in the soil.
    """
    members = {member.key: member for member in geometry_of(site.bed, structure).by_role("post")}
    member = members.get(key)
    if member is None or member.table != "posts" or not _depth(member):
        known = ", ".join(key for key, each in members.items() if _depth(each)) or "nothing"
        raise InvalidPlan([Problem("member", key, f"a post in the soil is allowed: {known}")])
    row = tables.posts()[member.item]
    return wear.after(row, int(structure.options.get("post_age", 0))), _depth(member)


def _depth(member: Member) -> float:
    return max(-min(point[2] for point in member.points), 0.0)


_WELL, _ROUGHLY = 1.35, 3.0  # of the greatest modulus that the readings allow to the least
Sure = Literal["well", "roughly", "hardly"]


def how_sure(found: Pulled) -> Sure:
    """Return how well a modulus is known: by the scatter of its readings."""
    if found.modulus is None or found.low is None or found.high is None:
        return "hardly"
    return (
        "well" if found.high < 1.35 * found.low else "roughly" if found.high < 3.0 * found.low else "hardly"
    )
