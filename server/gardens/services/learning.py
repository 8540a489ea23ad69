"""What the log of a garden teaches."""

from __future__ import annotations

from ascent.report.lesson_readout import LessonReport
from ascent.report.lesson_use import with_taught, without_taught
from ascent.report.lessons import lessons_report
from django.db.models import Q

from .. import schemas
from .access import Granted
from .clock import today
from .known import known_of
from .state import log_of

_TELLING = ("harvest", "lean", "sag", "slip", "break", "repair", "storm", "hours")


def lessons_out(granted: Granted) -> schemas.LessonsOut:
    """Return all that the log of a garden teaches, calculated once for a garden at one number and day."""
    known = known_of(granted.garden)
    core, day = known.core, today(known.core)

    def calculated() -> tuple[LessonReport, ...]:
        return lessons_report(core, log_of(granted.garden, Q(kind__in=_TELLING)), day)

    return schemas.LessonsOut(
        id=granted.garden.pk,
        may_edit=granted.role != "read",
        ignores=core.ignores,
        lessons=tuple(
            schemas.LessonOut(
                report=report,
                use=with_taught(core, report.taught).taught,
                stop=without_taught(core, report.taught).taught,
            )
            for report in known.once(f"lessons {day}", calculated)
        ),
    )
