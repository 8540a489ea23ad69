"""One crop after another on the same structure: whether they fit in time, on the ground, on the support."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from .. import tables
from ..loads.outlook import outlook
from ..loads.season import course_of, planted_at
from ..plan.place import Place
from ..plan.structure import Planting, Structure
from .windows import instead

CLEARING = 4  # days between the end of one and the next, handbook season 3
OVERLAPS = 28  # days at most that one may stand beside the next, handbook season 6
_THIN = 0.75  # leaf cover above which nothing starts below it
_HELD = (14, 21)  # days that a tomato or a squash can be held in a larger pot
_GOOD = 2  # of the suitability table

Kind = Literal["overlap", "too-long", "family", "support", "shade"]


@dataclass(frozen=True)
class WayOut:
    """A way out of a clash: the first sown so many days earlier, the second held in a pot or planted so many
    days later, or another crop in its place.
    """

    kind: Literal["earlier", "held", "later", "cut", "instead"]
    days: int = 0
    crops: tuple[str, ...] = ()


@dataclass(frozen=True)
class SuccessionConflict:
    """What is between two plantings of a structure: which, what it is, over how many days, the ways out."""

    first: str
    second: str
    kind: Kind
    days: int = 0
    ways: tuple[WayOut, ...] = ()


def clashes_of(place: Place, structure: Structure) -> tuple[SuccessionConflict, ...]:
    """Return what is between plantings that follow one another on the same ground of a structure.

    Source: handbook-season-6
    """
    found: list[SuccessionConflict] = []
    order = sorted(structure.plantings, key=lambda planting: course_of(place, planting).start)
    for first, second in pairwise(order):
        if not _same_ground(first, second):
            continue
        found += _in_time(place, structure, first, second)
        found += _of_kind(structure, first, second)
    return tuple(found)


def _same_ground(first: Planting, second: Planting) -> bool:
    """Return whether two plantings grow along the same stretch of the same side."""
    if "both" not in (first.side, second.side) and first.side != second.side:
        return False
    runs = [(p.along, p.count * p.spacing / (2 if p.side == "both" else 1) / 2) for p in (first, second)]
    apart = abs(runs[0][0] - runs[1][0])
    return apart < 0.8 * (runs[0][1] + runs[1][1])


def _in_time(
    place: Place, structure: Structure, first: Planting, second: Planting
) -> list[SuccessionConflict]:
    before, after = course_of(place, first), course_of(place, second)
    over = before.end + CLEARING - after.start
    if over <= 0:
        return []
    beside = after.end > before.end and before.start + CLEARING < after.start
    if not beside:
        return []  # they are meant to stand together
    crop = tables.crops()[first.crop]
    if over <= OVERLAPS and crop.cover <= _THIN:
        return [SuccessionConflict(first.key, second.key, "overlap", over, (WayOut("cut"),))]
    kind: Kind = "shade" if over <= OVERLAPS else "too-long"
    return [
        SuccessionConflict(first.key, second.key, kind, over, _ways(place, structure, first, second, over))
    ]


def _ways(
    place: Place, structure: Structure, first: Planting, second: Planting, over: int
) -> tuple[WayOut, ...]:
    before, after = course_of(place, first), course_of(place, second)
    ways: list[WayOut] = []
    early = outlook(place, first.crop, first.raised)
    if early.good[early.at(before.start - over)]:
        ways.append(WayOut("earlier", over))
    calendar = tables.calendars()[second.crop]
    late = outlook(place, second.crop, second.raised)
    in_time = bool(late.good[late.at(after.start + over)])
    if calendar.pot_bound_d and over <= _HELD[1] and in_time:
        ways.append(WayOut("held", over))
    if in_time:
        ways.append(WayOut("later", over))
    moved = planted_at(place, second, after.start + over)
    if others := instead(place, moved, structure.family):
        ways.append(WayOut("instead", over, others))
    return tuple(ways)


def _of_kind(structure: Structure, first: Planting, second: Planting) -> list[SuccessionConflict]:
    found = []
    one, other = tables.crops()[first.crop], tables.crops()[second.crop]
    if one.family == other.family and one.key != other.key:
        found.append(SuccessionConflict(first.key, second.key, "family"))
    if tables.suits()[second.crop].scores[structure.family] < _GOOD:
        found.append(SuccessionConflict(first.key, second.key, "support"))
    return found
