"""Repairs: each break becomes the first task at its support."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from .. import tables
from ..log.members import name_of
from ..log.now import Break
from ..words.texts import template
from .tasks import Task, Tended

_WITHIN = 2  # days


def what_broke(tended: Tended, broken: Break) -> str:
    """Return what is to be mended, as it is called: ‘post 3’, or the support as a whole."""
    member = broken.entry.member
    return name_of(tended.geometry, member) if member else tended.structure.name


def repairs_of(tended: Tended, breaks: Sequence[Break]) -> tuple[Task, ...]:
    """Return the task that mends each break, due from the day on which it was found."""
    row = tables.jobs()["repair"]
    return tuple(
        Task(
            broken.task,
            row.key,
            tended.structure.key,
            None,
            broken.entry.on,
            broken.entry.on + dt.timedelta(days=_WITHIN),
            row.minutes,
            words={
                "what": what_broke(tended, broken),
                "happened": template(f"log.happened-{broken.entry.found or 'broke'}").format(
                    what=what_broke(tended, broken)
                ),
                "on": f"{broken.entry.on.day} {broken.entry.on:%B}",
            },
        )
        for broken in breaks
    )
