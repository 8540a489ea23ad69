"""What stands already: its eyes, its posts with a sail added, a tall pole."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from .. import tables
from ..mechanics import Array
from ..path.loadpath import Check
from ..tables import rows
from . import bending


def weakened(check: Check, share: float) -> Check:
    """Return a check of something old, of which that share of its strength is left.

    Args:
        check: Of the piece as new.
        share: Share of the strength that is left. [-]

    Source: handbook-parts-3.14
    """
    return replace(
        bending.aged(check, share),
        certainty="judgement" if share < 1.0 else check.certainty,
        terms={**check.terms, "share": (share, "ratio")},
    )


def eye(row: rows.Fitting, pull: Array, down: Array, out: float) -> Check:
    """Return the check of an eye in a wall or post: pulled along, loaded down, and pried by standing off.

    Args:
        row: The eye.
        pull: Along it. [N]
        down: Across it. [N]
        out: How far it stands off, as a share of its length. [-]

    Source: handbook-parts-2.7
    """
    demand = np.hypot(pull, down) * (1.0 + out)
    return Check(
        "eye",
        demand,
        row.working_N,
        row.working_N * row.median,
        "force",
        row.source,
        row.certainty,
        {"pull": (pull, "force"), "down": (down, "force"), "demand": (demand, "force")},
        "screws",
    )


def added_sail(post: rows.Post, force: Array, height: Array, before: Array) -> Check:
    """Return the check of a fence post under the wind on its fence and on what now grows over it.

    Args:
        post: The fence's post.
        force, height: Wind on a bay with its leaves, and where it acts. [N] and [m]
        before: Moment of the bare fence. [N·m]

    Source: handbook-1.5
    """
    bears = bending.moments(post)
    material = tables.materials()[post.material]
    moment = np.asarray(force * height)
    return Check(
        "added-sail",
        moment,
        bears.allowable,
        bears.median,
        "moment",
        material.source,
        "judgement",
        {
            "force": (force, "force"),
            "height": (height, "length"),
            "moment": (moment, "moment"),
            "before": (before, "moment"),
        },
        bending.stuff_of(post),
    )


def pole(post: rows.Post, force: Array, height: Array, guyed: float) -> Check:
    """Return the check of a tall pole at the ground, or where its guys hold it.

    Args:
        post: The pole.
        force, height: Wind on what climbs it, and where it acts. [N] and [m]
        guyed: Height at which guys hold it, 0 without. [m]

    Source: handbook-4.4
    """
    bears = bending.moments(post)
    material = tables.materials()[post.material]
    moment = force * height
    if guyed:
        above = np.maximum(2 * height - guyed, 0.0)
        per_metre = force / np.maximum(2 * height, 1e-9)
        moment = np.maximum(per_metre * guyed**2 / 8, per_metre * above**2 / 2)
    return Check(
        "tall-pole",
        np.asarray(moment),
        bears.allowable,
        bears.median,
        "moment",
        material.source,
        material.certainty,
        {"force": (force, "force"), "height": (height, "length"), "moment": (np.asarray(moment), "moment")},
        bending.stuff_of(post),
    )


def guy_pull(force: Array, height: Array, guyed: float, angle: float) -> Array:
    """Return the pull of the one guy that faces the wind: the pole taken as hinged at the ground. [N]

    Args:
        force: Wind on it. [N]
        height: Where the force acts, above the ground. [m]
        guyed: Height at which the guy is fixed. [m]
        angle: From the ground. [rad]

    Source: handbook-4.4
    """
    return np.asarray(force * height / guyed / math.cos(angle))
