"""Lessons of harvests, tension, life of parts and work, in words."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterator, Sequence

from .. import tables
from ..learning.readings import tensions_of
from ..learning.wear import lives_of
from ..learning.work import work_of
from ..learning.yields import YieldLesson, yields_of
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..words.quantities import System, write
from ..words.texts import say, template
from .lesson_readout import LessonLine, LessonReport
from .lesson_use import NINE_IN_TEN, SAME, factor_now, is_used, moved_limits, taught_of, with_taught
from .season_parts import date_text
from .taught import factor_text


def yield_lessons(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
    """Yield what harvests teach of how much crops bear here."""
    for lesson in yields_of(garden, log, today):
        if abs(lesson.factor - 1.0) < SAME and not garden.learnt("yield", lesson.crop):
            continue
        crop = tables.crops()[lesson.crop]
        seasons = ", ".join(
            template("lesson.season").format(year=year, change=factor_text(ratio))
            for year, ratio in lesson.seasons
        )
        title = _yield_title(lesson)
        taught = taught_of(
            key="yield", about=lesson.crop, factor=lesson.factor, spread=lesson.spread, on=today, says=title
        )
        growing = {
            structure.key
            for bed in garden.beds
            for structure in bed.structures
            if any(planting.crop == lesson.crop for planting in structure.plantings)
        }
        after = with_taught(garden, [taught])
        yield LessonReport(
            key=f"yield.{lesson.crop}",
            title=title,
            evidence=template("lesson.yield-evidence").format(count=len(lesson.seasons), seasons=seasons),
            lines=(
                LessonLine(
                    label=template("lesson.yield-label").format(crop=crop.called),
                    before=factor_range(1.0, lesson.prior),
                    now=factor_now(garden, "yield", lesson.crop),
                    after=factor_range(lesson.factor, lesson.spread),
                ),
            ),
            moves=moved_limits(garden, after, growing),
            caution=template("lesson.yield-caution"),
            used=is_used(garden, [taught]),
            taught=(taught,),
        )


def _yield_title(lesson: YieldLesson) -> str:
    called = tables.crops()[lesson.crop].called
    words = {"crop": called[:1].upper() + called[1:], "count": len(lesson.seasons)}
    share = round(100 * (lesson.factor - 1))
    key = "yield-same" if not share else "yield-more" if share > 0 else "yield-less"
    return template(f"lesson.{key}" + ("-one" if words["count"] == 1 else "")).format(
        share=abs(share), **words
    )


def factor_range(factor: float, spread: float) -> str:
    """Return a factor with the range in which four in five of what it may be lie. [-]"""
    low, high = (factor * math.exp(sign * NINE_IN_TEN * spread) for sign in (-1, 1))
    return template("lesson.range").format(middle=factor_text(factor), low=f"{low:.2f}", high=f"{high:.2f}")


def tension_lessons(garden: Garden, log: Sequence[Entry]) -> Iterator[LessonReport]:
    """Yield what measured sags teach of how tight wires are."""
    system: System = garden.units
    names = {structure.key: structure for bed in garden.beds for structure in bed.structures}
    for lesson in tensions_of(garden, log):
        structure = names[lesson.structure]
        assert lesson.entry.moved is not None  # noqa: S101
        value = round(lesson.found / 10) * 10.0
        now = float(structure.options.get("pretension", lesson.planned))
        after = garden.model_copy(
            update={
                "beds": tuple(
                    bed.model_copy(
                        update={
                            "structures": tuple(
                                each.model_copy(
                                    update={"options": {**each.options, "pretension": value}, "built": None}
                                )
                                if each.key == lesson.structure
                                else each
                                for each in bed.structures
                            )
                        }
                    )
                    for bed in garden.beds
                )
            }
        )
        yield LessonReport(
            key=f"tension.{lesson.structure}",
            title=say("lesson.tension-title", system, {"found": (value, "force")}, {"name": structure.name}),
            evidence=say(
                "lesson.tension-evidence",
                system,
                {"moved": (lesson.entry.moved, "length"), "sag": (lesson.sag, "length")},
                {"on": date_text(lesson.entry.on)},
            ),
            lines=(
                LessonLine(
                    label=template("lesson.tension-label"),
                    before=write(lesson.planned, "force", system),
                    now=write(now, "force", system),
                    after=write(value, "force", system),
                ),
            ),
            moves=moved_limits(garden, after, {lesson.structure}),
            caution=template("lesson.tension-caution"),
            used=abs(now - value) < 1.0,
            structure=lesson.structure,
            option="pretension",
            value=value,
        )


def life_lessons(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
    """Yield what breaks by itself teaches of how long items last."""
    for lesson in lives_of(garden, log, today):
        item = tables.item(*lesson.item)
        factor = round(lesson.after / lesson.before, 3)
        if abs(factor - 1.0) < SAME:
            continue
        title = template("lesson.life-title").format(
            item=item.name[:1].upper() + item.name[1:],
            before=f"{lesson.before:.1f}",
            after=f"{lesson.after:.1f}",
        )
        taught = taught_of(key="life", about=item.key, factor=factor, spread=0.0, on=today, says=title)
        yield LessonReport(
            key=f"life.{item.key}",
            title=title,
            evidence=template("lesson.life-evidence").format(
                count=lesson.failed, seasons=f"{lesson.seasons:.0f}"
            ),
            lines=(
                LessonLine(
                    label=template("lesson.life-label").format(item=item.name),
                    before=template("lesson.seasons").format(count=f"{lesson.before:.1f}"),
                    now=template("lesson.seasons").format(
                        count=f"{lesson.before * garden.times('life', item.key):.1f}"
                    ),
                    after=template("lesson.seasons").format(count=f"{lesson.after:.1f}"),
                ),
            ),
            moves=(template("lesson.life-moves"),),
            used=is_used(garden, [taught]),
            taught=(taught,),
        )


def work_lessons(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
    """Yield what written hours teach of the minutes of tasks."""
    lesson = work_of(garden, log)
    if lesson is None:
        return
    title = template("lesson.minutes-title").format(change=factor_text(lesson.factor), days=len(lesson.days))
    taught = taught_of(key="minutes", factor=lesson.factor, spread=lesson.spread, on=today, says=title)
    yield LessonReport(
        key="minutes",
        title=title,
        evidence=template("lesson.minutes-evidence").format(
            days=len(lesson.days),
            written=f"{sum(written for written, _ in lesson.days):.0f}",
            due=f"{sum(due for _, due in lesson.days):.0f}",
        ),
        lines=(
            LessonLine(
                label=template("lesson.minutes-label"),
                before=factor_range(1.0, lesson.prior),
                now=factor_now(garden, "minutes", ""),
                after=factor_range(lesson.factor, lesson.spread),
            ),
        ),
        moves=(template("lesson.minutes-moves"),),
        used=is_used(garden, [taught]),
        taught=(taught,),
    )
