"""A structure in a container: how heavy the pot is when it is lightest, and whether it goes over."""

from __future__ import annotations

import math

from .. import tables
from ..checks import tipping
from ..mechanics import Array
from ..path.loadpath import Arrow, Link
from ..plan.bed import BareBed

_OVER_FLOOR = 0.02  # of a container, where what is pushed into it ends [m], common practice, no source


def room(bed: BareBed, usual: float, least: float) -> float:
    """Return how deep something goes in a bed: as is usual, in a container to just above its floor, but never
    less than its option allows. [m]
    """
    if bed.kind != "container":
        return usual
    return max(min(usual, math.floor((bed.raised_by - _OVER_FLOOR) * 100 + 1e-6) / 100), least)


def dry_mass(bed: BareBed) -> float:
    """Return the mass of a container before its watering, when it is lightest. [kg]"""
    return tables.constant("dry_mix") * bed.length * bed.width * max(bed.raised_by, 0.05)


def link(bed: BareBed, force: Array, height: Array, levers: tuple[str, ...]) -> list[Link]:
    """Return the link of a container that may tip, none for ground that cannot.

    Args:
        bed: The bed.
        force: Wind on everything in it. [N]
        height: Of that wind above the mix. [m]
        levers: The family's options that bring what stands in it lower.

    Source: handbook-10.4
    """
    if bed.kind != "container":
        return []
    mass = dry_mass(bed)
    base = tables.constant("pot_base") * min(bed.length, bed.width)
    edge = (0.0, base / 2, 0.0)
    return [
        Link(
            "pot",
            (),
            None,
            (),
            levers,
            force,
            (tipping.pot(force, height, mass, base, bed.raised_by),),
            (Arrow(edge, (0.0, 1.0, 0.0)),),
        )
    ]
