"""What may be wished of a structure, and the ways to it."""

from __future__ import annotations

from collections.abc import Mapping

from ..errors import InvalidPlan, Problem
from ..families import family_of
from ..plan.structure import Structure
from ..site import Site
from ..words.quantities import System, between, write
from ..words.texts import say
from .readout import WayReport, WishReport


def ways_to(
    site: Site, structure: Structure, key: str, wanted: Mapping[str, float], system: System
) -> WishReport:
    """Return the ways to a wish, in words. [SI]

    Args:
        site: Where the structure stands.
        structure: As it is.
        key: The wish, one of its family's.
        wanted: The numbers of the wish, SI.
        system: The reader's units.

    Raises:
        InvalidPlan: No such wish, or a number of it missing or out of its bounds.
    """
    family = family_of(structure.family)
    wish = next((wish for wish in family.wishes if wish.key == key), None)
    if wish is None:
        allowed = ", ".join(wish.key for wish in family.wishes)
        raise InvalidPlan(
            [
                Problem(
                    "wish",
                    key,
                    f"one of {allowed} is allowed" if allowed else "no wish is known for this kind",
                )
            ]
        )
    problems = []
    for ask in wish.asks:
        value = wanted.get(ask.name)
        if value is None or not ask.low <= value <= ask.high:
            allowed = f"{between(ask.low, ask.high, ask.kind, system)} is allowed"
            problems.append(
                Problem(
                    f"wanted.{ask.name}",
                    "nothing" if value is None else write(value, ask.kind, system),
                    allowed,
                )
            )
    if problems:
        raise InvalidPlan(problems)
    ways = wish.ways(wanted, family.options.model_validate(structure.options), structure, site)
    return WishReport(
        written={ask.name: write(wanted[ask.name], ask.kind, system) for ask in wish.asks},
        ways=tuple(
            WayReport(
                text=" ".join(say(f"way.{key}.{part}", system, way.values) for part in way.says),
                reaches=way.reaches,
                changes=dict(way.changes),
            )
            for way in ways
        ),
    )
