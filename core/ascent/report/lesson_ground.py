"""Lessons of storms and of the ground, in words."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Sequence

from ..analysis.design import geometry_of
from ..building.pull_test import how_sure
from ..learning.readings import grounds_of
from ..learning.storms import Posterior, StormLesson, lesson_of
from ..log.members import name_of
from ..plan.bed import Tested
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.structure import as_it_stands
from ..words.texts import say, template
from .lesson_crops import factor_range
from .lesson_readout import LessonLine, LessonReport
from .lesson_use import factor_now, is_used, moved_limits, taught_of, with_taught
from .season_parts import date_text
from .taught import called, factor_text

_MOVED = 0.25  # of its prior spread that a factor moves at least, or it is not told
_FEW = 60  # draws as an effective sample, below which it is said that they are few


def storm_lessons(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
    """Yield what storms teach of gusts, leaves and strengths."""
    lesson = lesson_of(garden, log)
    if lesson is None:
        return
    told = [each for each in lesson.told if _tells(each)]
    failed = [met for met in lesson.met if not met.stood]
    stood = [met for met in lesson.met if met.stood]
    evidence = say(
        "lesson.storms-evidence",
        garden.units,
        {"gust": (max(met.gust for met in lesson.met), "speed")},
        {
            "stood": str(len(stood)),
            "failed": str(len(failed)),
            "draws": str(lesson.draws),
            "effective": f"{lesson.effective:.0f}",
            "names": _names(lesson),
        },
    )
    taught = tuple(
        taught_of(
            key=each.thing[0],
            about=each.thing[1],
            factor=each.factor,
            spread=each.sd,
            on=today,
            says=template("lesson.storms-says").format(stood=len(stood), failed=len(failed)),
        )
        for each in told
    )
    yield LessonReport(
        key="storms",
        title=template("lesson.storms-title" if told else "lesson.storms-nothing").format(
            stood=len(stood), failed=len(failed)
        ),
        evidence=evidence,
        lines=tuple(
            LessonLine(
                label=called(*each.thing, garden),
                before=factor_range(1.0, each.prior),
                now=factor_now(garden, *each.thing),
                after=factor_range(each.factor, each.sd),
            )
            for each in told
        ),
        moves=moved_limits(garden, with_taught(garden, taught)) if told else (),
        caution=template("lesson.storms-few" if lesson.effective < _FEW else "lesson.storms-caution"),
        used=is_used(garden, taught),
        taught=taught,
    )


def _tells(told: Posterior) -> bool:
    return abs(told.mean) >= _MOVED * told.prior


def _names(lesson: StormLesson) -> str:
    names = dict.fromkeys(met.structure.name for met in lesson.met)
    return ", ".join(names)


def ground_lessons(garden: Garden, log: Sequence[Entry]) -> Iterator[LessonReport]:
    """Yield what measured leans teach of the ground of each bed."""
    beds = {bed.key: bed for bed in garden.beds}
    for lesson in grounds_of(garden, log):
        bed, found = beds[lesson.bed], lesson.compared
        tested = Tested(
            on=lesson.entry.on, grip=round(found.grip, 2), stiffness=round(found.stiffer or 1.0, 2)
        )
        structure = next(each for each in bed.structures if each.key == lesson.entry.structure)
        post = name_of(geometry_of(bed, as_it_stands(structure)), lesson.entry.member)
        assert lesson.entry.pull is not None and lesson.entry.moved is not None  # noqa: S101
        evidence = say(
            "lesson.ground-evidence",
            garden.units,
            {"pull": (lesson.entry.pull, "force"), "moved": (lesson.entry.moved, "length")},
            {
                "post": post[:1].upper() + post[1:],
                "name": structure.name,
                "on": date_text(lesson.entry.on),
                "sure": template(f"pull.sure-{how_sure(found.found)}"),
            },
        )
        now = bed.tested
        used = now is not None and (now.grip, now.stiffness) == (tested.grip, tested.stiffness)
        after = garden.model_copy(
            update={
                "beds": tuple(
                    each.model_copy(update={"tested": tested}) if each.key == bed.key else each
                    for each in garden.beds
                )
            }
        )
        yield LessonReport(
            key=f"ground.{bed.key}",
            title=template("lesson.ground-title").format(
                bed=bed.name, change=factor_text(found.stiffer or 1.0)
            ),
            evidence=evidence,
            lines=(
                LessonLine(
                    label=template("lesson.ground-stiffness"),
                    before=template("lesson.as-tables"),
                    now=factor_text(now.stiffness if now else 1.0),
                    after=factor_text(tested.stiffness),
                ),
                LessonLine(
                    label=template("lesson.ground-grip"),
                    before=template("lesson.as-tables"),
                    now=factor_text(now.grip if now else 1.0),
                    after=factor_text(tested.grip),
                ),
            ),
            moves=moved_limits(garden, after, {each.key for each in bed.structures}),
            caution=template("lesson.ground-caution"),
            used=used,
            bed=bed.key,
            tested=tested,
        )
