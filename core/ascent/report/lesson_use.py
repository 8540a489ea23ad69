"""A garden with and without a lesson, and how far a lesson moves its limit gusts."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from ..analysis.design import design_of
from ..plan.garden import Garden
from ..plan.place import LEAST_TAUGHT, MOST_TAUGHT_TIMES, WIDEST_TAUGHT, Taught
from ..plan.structure import as_it_stands
from ..site import plain_site
from ..wording import gust_text
from ..words.texts import template
from .taught import factor_text

NINE_IN_TEN = 1.2816  # standard deviations
SAME = 0.02  # share by which two factors are the same

_NOTICED = 0.3  # by which a limit gust moves at least, to be told [m/s]
_TOLD = 6  # verdicts that are told one by one
_MOST = 60  # supports whose verdicts are looked at


def with_taught(garden: Garden, taught: Sequence[Taught]) -> Garden:
    """Return a garden that counts with what was taught, in place of what it counted with of the same
    things.
    """
    return garden.model_copy(update={"taught": (*without_taught(garden, taught).taught, *taught)})


def without_taught(garden: Garden, taught: Sequence[Taught]) -> Garden:
    """Return a garden that does not count with what was taught of some things."""
    old = {(each.key, each.about) for each in taught}
    kept = tuple(each for each in garden.taught if (each.key, each.about) not in old)
    return garden.model_copy(update={"taught": kept})


def is_used(garden: Garden, taught: Sequence[Taught]) -> bool:
    """Return whether a garden already uses these lessons, to within the digits shown."""
    return bool(taught) and all(
        abs(garden.times(each.key, each.about) / each.factor - 1.0) < SAME
        and garden.learnt(each.key, each.about)
        for each in taught
    )


def factor_now(garden: Garden, key: str, about: str) -> str:
    """Return the factor that a garden uses now, in words."""
    return factor_text(garden.times(key, about))


def taught_of(
    key: str, factor: float, on: dt.date, says: str, about: str = "", spread: float = 0.0
) -> Taught:
    """Return what is kept of a lesson, within what a garden may be taught. [-]"""
    kept = min(max(round(factor, 3), LEAST_TAUGHT), MOST_TAUGHT_TIMES)
    return Taught(
        key=key, about=about, factor=kept, spread=min(round(spread, 3), WIDEST_TAUGHT), on=on, says=says
    )


def moved_limits(garden: Garden, after: Garden, only: set[str] | None = None) -> tuple[str, ...]:
    """Return how far the limit gusts of supports move from one state of a garden to another."""
    moved = []
    looked = 0
    system = garden.units
    for bed_now, bed_then in zip(garden.beds, after.beds, strict=True):
        for structure in bed_now.structures:
            if (only is not None and structure.key not in only) or looked >= _MOST:
                continue
            looked += 1
            standing = as_it_stands(structure)
            before, then = plain_site(garden, bed_now), plain_site(after, bed_then)
            design, taught = design_of(before, standing), design_of(then, standing)
            now, new = design.moist_limit(), taught.moist_limit()
            asked, asked_then = design.required_gust, taught.required_gust
            turns = (now >= asked) != (new >= asked_then)
            if turns or abs(new - now) >= _NOTICED or abs(asked - asked_then) >= _NOTICED:
                words = {
                    "name": structure.name,
                    "before": gust_text(now, system),
                    "after": gust_text(new, system),
                    "asked": gust_text(asked_then, system),
                }
                key = "moves-holds" if turns and new >= asked_then else "moves-fails" if turns else "moves"
                moved.append((turns, abs(new - now), template(f"lesson.{key}").format(**words)))
    moved.sort(key=lambda each: (-each[0], -each[1]))
    told = [words for _, _, words in moved[:_TOLD]]
    if len(moved) > _TOLD:
        told.append(template("lesson.moves-more").format(count=len(moved) - _TOLD))
    return tuple(told or [template("lesson.moves-none")])
