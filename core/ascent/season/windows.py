"""What becomes of one planting on its day, and what could be planted in its place."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from .. import tables
from ..loads.outlook import Outlook, Verdict, Window, outlook
from ..loads.season import PlantingCourse, course_of, planted_on
from ..plan.place import Place
from ..plan.structure import Planting
from ..weather.course import BEFORE, days_of, usual_inputs_of
from ..weather.frosts import frosts_of

HARDEN, POT_ON = 7, 21  # days before it goes out, handbook season 3
_SOON = 21  # days within which another crop is to be planted in its place
_PERENNIAL = "shoots"
_HARDLY = 0.1  # of the best day's harvest below which a planting is not worth a visit


@dataclass(frozen=True)
class Fate:
    """What becomes of a planting: its course, whether it is well planted, and what else could be done.

    frost: chance that a frost still comes after it is planted. windows: when it can be planted. last: last
    useful day. late: days that it comes too late. share: of the best day's harvest that it brings. lives:
    chance that frost leaves it alive. potted: when it can be planted raised in pots, where it makes it only
    so.
    """

    course: PlantingCourse
    verdict: Verdict
    frost: float
    windows: tuple[Window, ...]
    last: int | None
    late: int
    share: float
    lives: float
    potted: Window | None = None
    values: Mapping[str, float] = field(default_factory=dict)

    @property
    def hopeless(self) -> bool:
        """Return whether next to nothing comes of it, so that it is worth no visit."""
        return self.verdict in ("late", "short", "hot", "winter") and self.share < _HARDLY


def fate_of(place: Place, planting: Planting) -> Fate:
    """Return what becomes of a planting.

    Source: handbook-season-3
    """
    seen, course, frosts = (
        outlook(place, planting.crop, planting.raised),
        course_of(place, planting),
        frosts_of(place),
    )
    at, windows = seen.at(course.start), seen.near(course.start)
    verdict = seen.verdict(at)
    last = max((window.last for window in windows if window.first <= course.start), default=None)
    late = course.start - last if last is not None and verdict not in ("good", "early") else 0
    values: dict[str, float] = {}
    asked = usual_inputs_of(place)
    if asked is not None:
        days = days_of(asked)
        index = min(max(course.start + BEFORE, 0), len(days.soil) - 1)
        values |= {"soil": float(days.soil[index]), "night": float(days.night[index])}
    return Fate(
        course,
        verdict,
        frosts.chance_after(course.start) if frosts else 0.0,
        windows,
        last,
        max(late, 0),
        float(seen.worth[at]) if seen.bears else 0.0,
        float(seen.found.lives[at]),
        _potted(place, planting, course.start) if verdict in ("short", "late") else None,
        values,
    )


def _potted(place: Place, planting: Planting, start: int) -> Window | None:
    """Return when a crop can be planted from pots that makes it no other way; nothing where it is planted so
    already, or does not make it either.
    """
    calendar = tables.calendars()[planting.crop]
    if planting.raised == "potted" or calendar.counted_from != "sowing" or not calendar.indoors_d:
        return None
    seen = outlook(place, planting.crop, "potted")
    return next((window for window in seen.near(start) if window.last >= start), None)


def instead(place: Place, planting: Planting, family: str, most: int = 3) -> tuple[str, ...]:
    """Return crops that would make it where one does not: planted then or soon after, on the same support,
    those of its own kind first.
    """
    start = planted_on(place, planting)
    own = tables.crops()[planting.crop]
    suits = tables.suits()
    ways: list[tuple[int, float, str]] = []
    for key, crop in tables.crops().items():
        if (
            key == planting.crop
            or suits[key].scores[family] < 2
            or tables.calendars()[key].counted_from == _PERENNIAL
        ):
            continue
        wait = _wait(outlook(place, key), start)
        if wait is not None:
            ways.append((0 if crop.cap_group == own.cap_group else 1, wait + crop.first_high_d, key))
    return tuple(key for _, _, key in sorted(ways)[:most])


def _wait(seen: Outlook, start: int) -> int | None:
    """Return the days until a crop can be planted, nothing where that is not soon."""
    window = next((window for window in seen.windows if window.last >= start), None)
    if window is None or window.first > start + _SOON:
        return None
    return max(window.first - start, 0)
