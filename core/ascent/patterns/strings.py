"""Strings hung from above, one a plant: where they hang, what they are cut to, and the links down to them."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from .. import tables
from ..checks import strings
from ..mechanics import Array
from ..path.geometry import Member, Plant, keys
from ..path.loadpath import Link
from ..tables import rows
from .stand import OptionsT, Stand

FOOT = 0.05  # of a string above the soil [m]
_ENDS = 0.40  # of string for the knot at the top and the loop or peg at the base [m], parts handbook 3.0


def members(
    twine: str, plants: tuple[Plant, ...], at: dict[int, float], top: float, spare: float = 0.0
) -> list[Member]:
    """Return a string from above to each plant.

    Args:
        twine: Key of the twine.
        plants: The plants.
        at: Where across the row a plant's string hangs, by its number. [m]
        top: Height it hangs from. [m]
        spare: Length wound up at the top, to be let down. [m]
    """
    members = []
    for n, plant in enumerate(plants):
        x, y, _ = plant.at
        length = round(math.hypot(top - FOOT, at[n] - y) + spare + _ENDS, 3)
        members.append(
            Member(
                f"string-{n + 1}", "string", "twines", twine, ((x, at[n], top), (x, y, FOOT)), length, 0.002
            )
        )
    return members


def climbing(plants: tuple[Plant, ...], at: dict[int, float], top: float) -> tuple[Plant, ...]:
    """Return the plants with the way that each takes: up its string. [m]"""
    return tuple(replace(plant, way=(plant.at, (plant.at[0], at[n], top))) for n, plant in enumerate(plants))


def string_links(
    stand: Stand[OptionsT],
    pressure: Array,
    leafy: Array,
    twine: rows.Twine,
    stem: rows.Tie | None,
    hook: rows.Fitting | None,
    peg: rows.Fitting | None,
    to: str,
) -> list[Link]:
    """Return the links from a plant's stem to what its string hangs on, and to its base.

    Args:
        stand: The structure under its loads.
        pressure: Wind on the leafy face. [Pa]
        leafy: Height of the leafy band. [m]
        twine: The strings.
        stem: What holds a stem to its string, none where it is wound round it.
        hook: What the string hangs on, none where it is knotted to the line.
        peg: What holds its base, none where it is tied to the stem.
        to: Key of the link that carries the strings.

    Source: handbook-2
    """
    weight, usual = stand.plant_weight(stand.growths), stand.usual_weight(stand.growths)
    blown = pressure * leafy * max(growth.planting.spacing for growth in stand.growths)
    upper = tables.constant("string_share") * blown
    members_ = stand.geometry.by_role("string")
    below = (to, "base") if peg else (to,)
    links = [
        Link.of(
            "string",
            keys(members_),
            twine,
            below,
            ("string",),
            np.hypot(weight, upper),
            lambda item: (strings.string(item, weight, upper, stand.tied_on, usual),),
        )
    ]
    if stem:
        links = [*stand.stem_ties(stem.key, pressure, leafy, "string"), *links]
    if hook:
        hung, often = np.hypot(weight, upper), np.hypot(usual, upper)
        links[-1] = _onto(links[-1], "hook")
        links.append(
            Link.of(
                "hook",
                keys(stand.geometry.by_role("fitting")),
                hook,
                (to,),
                ("hook",),
                hung,
                lambda hook: (strings.fitting("hook", hook, hung, expected=often),),
            )
        )
    if peg:
        share = tables.constant("base_share")
        down, often_down = share * weight, share * usual
        links.append(
            Link.of(
                "base",
                (),
                peg,
                (),
                ("base",),
                down,
                lambda peg: (strings.fitting("base", peg, down, expected=often_down),),
            )
        )
    return links


def _onto(link: Link, key: str) -> Link:
    return Link(
        link.key,
        link.members,
        link.item,
        (key, *link.hands_to[1:]),
        link.levers,
        link.carries,
        link.checks,
        link.arrows,
    )
