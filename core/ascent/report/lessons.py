"""What the log of a garden teaches, in words: before, after, on what evidence, how far verdicts move."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Sequence

from ..log.now import whole_log
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..words.texts import template
from .lesson_crops import life_lessons, tension_lessons, work_lessons, yield_lessons
from .lesson_ground import ground_lessons, storm_lessons
from .lesson_readout import LessonLine, LessonReport
from .lesson_use import moved_limits, without_taught
from .taught import called, factor_text


def lessons_report(garden: Garden, log: Sequence[Entry], today: dt.date) -> tuple[LessonReport, ...]:
    """Return all lessons of a garden's log. None is used until a person accepts it.

    Args:
        garden: Whole.
        log: All that happened in it.
        today: Of the garden.
    """
    happened = whole_log(garden, log)
    lessons = (
        *storm_lessons(garden, happened, today),
        *yield_lessons(garden, happened, today),
        *ground_lessons(garden, happened),
        *tension_lessons(garden, happened),
        *life_lessons(garden, happened, today),
        *work_lessons(garden, happened, today),
    )
    told = {(each.key, each.about) for lesson in lessons for each in lesson.taught}
    return (*lessons, *_left(garden, told))


def _left(garden: Garden, told: set[tuple[str, str]]) -> Iterator[LessonReport]:
    """Yield what is counted with though the log does not say it any more."""
    for each in garden.taught:
        if (each.key, each.about) not in told:
            label = called(each.key, each.about, garden)
            line = LessonLine(
                label=label,
                before=template("lesson.as-tables"),
                now=factor_text(each.factor),
                after=template("lesson.as-tables"),
            )
            yield LessonReport(
                key=f"left.{each.key}.{each.about}",
                title=template("lesson.left").format(label=label),
                evidence=each.says,
                lines=(line,),
                moves=moved_limits(garden, without_taught(garden, [each])),
                used=True,
                taught=(each,),
            )
