"""What the log of a garden teaches, in words: before, after, on what evidence, how far verdicts move."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterator, Sequence

from .. import tables
from ..analysis.design import design_of, geometry_of
from ..building.pull_test import how_sure
from ..learning.readings import grounds_of, tensions_of
from ..learning.storms import Posterior, StormLesson, lesson_of
from ..learning.wear import lives_of
from ..learning.work import work_of
from ..learning.yields import YieldLesson, yields_of
from ..log.members import name_of
from ..log.now import whole_log
from ..plan.bed import Tested
from ..plan.entries import Entry
from ..plan.fields import Typed
from ..plan.garden import Garden
from ..plan.place import LEAST_TAUGHT, MOST_TAUGHT_TIMES, WIDEST_TAUGHT, Taught
from ..plan.structure import as_it_stands
from ..site import plain_site
from ..wording import gust_text
from ..words.quantities import System, write
from ..words.texts import say, template
from .season_parts import date_text
from .taught import called, factor_text

NINE_IN_TEN = 1.2816  # standard deviations
_MOVED = 0.25  # of its prior spread that a factor moves at least, or it is not told
_FEW = 60  # draws as an effective sample, below which it is said that they are few
_NOTICED = 0.3  # by which a limit gust moves at least, to be told [m/s]
_TOLD = 6  # verdicts that are told one by one
_MOST = 60  # supports whose verdicts are looked at
_SAME = 0.02  # share by which two factors are the same


class LessonLine(Typed):
    """One thing that a lesson is about: what the tables say, what is counted with now, what the log says."""

    label: str
    before: str
    now: str
    after: str


class LessonReport(Typed):
    """Something that the log teaches.

    key: its own. title: in one sentence. evidence: on what. lines: what it changes. moves: how far it moves
    the verdicts. caution: what speaks against it. used: whether it is counted with. taught: what is kept of
    it when it is accepted. bed, tested: of the ground of a bed, kept with the bed. structure, option, value:
    of a support, kept as its option; what it was before is not kept, so undo takes it back.
    """

    key: str
    title: str
    evidence: str
    lines: tuple[LessonLine, ...]
    moves: tuple[str, ...]
    caution: str = ""
    used: bool = False
    taught: tuple[Taught, ...] = ()
    bed: str = ""
    tested: Tested | None = None
    structure: str = ""
    option: str = ""
    value: float | None = None


def lessons_report(garden: Garden, log: Sequence[Entry], today: dt.date) -> tuple[LessonReport, ...]:
    """Return all lessons of a garden's log. None is used until a person accepts it.

    Args:
        garden: Whole.
        log: All that happened in it.
        today: Of the garden.
    """
    happened = whole_log(garden, log)
    lessons = (
        *_storms(garden, happened, today),
        *_yields(garden, happened, today),
        *_grounds(garden, happened),
        *_tensions(garden, happened),
        *_lives(garden, happened, today),
        *_work(garden, happened, today),
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
                moves=_moves(garden, without_taught(garden, [each])),
                used=True,
                taught=(each,),
            )


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


def _used(garden: Garden, taught: Sequence[Taught]) -> bool:
    """Return whether a garden already uses these lessons, to within the digits shown."""
    return bool(taught) and all(
        abs(garden.times(each.key, each.about) / each.factor - 1.0) < _SAME
        and garden.learnt(each.key, each.about)
        for each in taught
    )


def _now(garden: Garden, key: str, about: str) -> str:
    return factor_text(garden.times(key, about))


def _taught(key: str, factor: float, on: dt.date, says: str, about: str = "", spread: float = 0.0) -> Taught:
    """Return what is kept of a lesson, within what a garden may be taught."""
    kept = min(max(round(factor, 3), LEAST_TAUGHT), MOST_TAUGHT_TIMES)
    return Taught(
        key=key, about=about, factor=kept, spread=min(round(spread, 3), WIDEST_TAUGHT), on=on, says=says
    )


def _moves(garden: Garden, after: Garden, only: set[str] | None = None) -> tuple[str, ...]:
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


def _yields(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
    for lesson in yields_of(garden, log, today):
        if abs(lesson.factor - 1.0) < _SAME and not garden.learnt("yield", lesson.crop):
            continue
        crop = tables.crops()[lesson.crop]
        seasons = ", ".join(
            template("lesson.season").format(year=year, change=factor_text(ratio))
            for year, ratio in lesson.seasons
        )
        title = _yield_title(lesson)
        taught = _taught(
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
                    before=_range(1.0, lesson.prior),
                    now=_now(garden, "yield", lesson.crop),
                    after=_range(lesson.factor, lesson.spread),
                ),
            ),
            moves=_moves(garden, after, growing),
            caution=template("lesson.yield-caution"),
            used=_used(garden, [taught]),
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


def _range(factor: float, spread: float) -> str:
    """Return a factor with the range in which four in five of what it may be lie."""
    low, high = (factor * math.exp(sign * NINE_IN_TEN * spread) for sign in (-1, 1))
    return template("lesson.range").format(middle=factor_text(factor), low=f"{low:.2f}", high=f"{high:.2f}")


def _storms(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
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
        _taught(
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
                before=_range(1.0, each.prior),
                now=_now(garden, *each.thing),
                after=_range(each.factor, each.sd),
            )
            for each in told
        ),
        moves=_moves(garden, with_taught(garden, taught)) if told else (),
        caution=template("lesson.storms-few" if lesson.effective < _FEW else "lesson.storms-caution"),
        used=_used(garden, taught),
        taught=taught,
    )


def _tells(told: Posterior) -> bool:
    return abs(told.mean) >= _MOVED * told.prior


def _names(lesson: StormLesson) -> str:
    names = dict.fromkeys(met.structure.name for met in lesson.met)
    return ", ".join(names)


def _grounds(garden: Garden, log: Sequence[Entry]) -> Iterator[LessonReport]:
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
            moves=_moves(garden, after, {each.key for each in bed.structures}),
            caution=template("lesson.ground-caution"),
            used=used,
            bed=bed.key,
            tested=tested,
        )


def _tensions(garden: Garden, log: Sequence[Entry]) -> Iterator[LessonReport]:
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
            moves=_moves(garden, after, {lesson.structure}),
            caution=template("lesson.tension-caution"),
            used=abs(now - value) < 1.0,
            structure=lesson.structure,
            option="pretension",
            value=value,
        )


def _lives(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
    for lesson in lives_of(garden, log, today):
        item = tables.item(*lesson.item)
        factor = round(lesson.after / lesson.before, 3)
        if abs(factor - 1.0) < _SAME:
            continue
        title = template("lesson.life-title").format(
            item=item.name[:1].upper() + item.name[1:],
            before=f"{lesson.before:.1f}",
            after=f"{lesson.after:.1f}",
        )
        taught = _taught(key="life", about=item.key, factor=factor, spread=0.0, on=today, says=title)
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
            used=_used(garden, [taught]),
            taught=(taught,),
        )


def _work(garden: Garden, log: Sequence[Entry], today: dt.date) -> Iterator[LessonReport]:
    lesson = work_of(garden, log)
    if lesson is None:
        return
    title = template("lesson.minutes-title").format(change=factor_text(lesson.factor), days=len(lesson.days))
    taught = _taught(key="minutes", factor=lesson.factor, spread=lesson.spread, on=today, says=title)
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
                before=_range(1.0, lesson.prior),
                now=_now(garden, "minutes", ""),
                after=_range(lesson.factor, lesson.spread),
            ),
        ),
        moves=(template("lesson.minutes-moves"),),
        used=_used(garden, [taught]),
        taught=(taught,),
    )
