"""The life of one support: what became of it, what it bore beside what was forecast, what it cost."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Sequence

import numpy as np

from .. import tables
from ..buying.lists import shopping, total
from ..log.now import picked_of, whole_log
from ..plan.bed import Bed
from ..plan.entries import Entry
from ..plan.fields import Typed
from ..plan.garden import Garden
from ..plan.structure import Structure
from ..season.forecast import forecast_of
from ..season.harvest import Harvest, harvest_of
from ..season.kept import Kept, kept_of
from ..season.visits import Due
from ..wording import money, time_text
from ..words.quantities import System, write
from ..words.texts import template
from .log import Where, entry_words
from .season_parts import date_text
from .tasks import task_title

_WEEKS = 53
_TOLD = 300  # of what happened, the latest
_BUILT = ("build", "build-day", "plant", "sow", "clear", "take-down", "repair")  # jobs that are told


class LifeEvent(Typed):
    """One thing in the life of a support: its day, and what it says.

    key: of the entry of the log that says it, empty where something else does. photos: digests of its photos.
    """

    on: dt.date
    label: str
    words: str
    key: str = ""
    photos: tuple[str, ...] = ()


class LifeFigure(Typed):
    """A figure of a support's life: what it is called, and what it is."""

    label: str
    text: str


class LifeWeek(Typed):
    """A week of harvest: what was forecast before anything was picked, and what came, nothing where that is
    not known yet [kg]; what came as it is written.
    """

    monday: dt.date
    label: str
    meant: float
    came: float | None
    came_text: str


class LifePart(Typed):
    """An item that a support is made of and that wears: since when it is in it, and what it has left."""

    name: str
    words: str


class LifeReport(Typed):
    """The life of a support: its figures, its harvest by week, its parts that wear, all that happened to it,
    the latest first.

    most: of any week’s harvest [kg], and as it is written. earlier: how much more happened before that.
    """

    figures: tuple[LifeFigure, ...]
    weeks: tuple[LifeWeek, ...]
    most: float
    most_text: str
    parts: tuple[LifePart, ...]
    events: tuple[LifeEvent, ...]
    earlier: int


def life_report(
    garden: Garden, bed: Bed, structure: Structure, log: Sequence[Entry], where: Where, today: dt.date
) -> LifeReport:
    """Return the life of a support up to today.

    Args:
        garden: It stands in.
        bed: It stands on.
        structure: Itself.
        log: All that happened at it and its bed, whenever it was, and all that its season hangs on.
        where: What the keys of entries mean.
        today: Of the garden.
    """
    happened = whole_log(garden, log)
    own = [entry for entry in happened if entry.structure == structure.key]
    kept = kept_of(garden, bed, structure, happened)
    events = [*_entries(own, garden, where), *_record(garden, structure), *_tasks(kept, garden)]
    events += _planted(kept, today)
    shown = sorted((event for event in events if event.on <= today), key=lambda event: event.on, reverse=True)
    year, weeks = today.year, _weeks(kept, today, garden.units)
    most = max((max(week.meant, week.came or 0.0) for week in weeks), default=0.0)
    return LifeReport(
        figures=tuple(_figures(garden, kept, own, today)),
        weeks=weeks,
        most=most,
        most_text=write(most, "mass", garden.units),
        parts=tuple(_parts(garden, kept, own, today)),
        events=tuple(
            event.model_copy(update={"label": date_text(event.on, year)}) for event in shown[:_TOLD]
        ),
        earlier=max(len(shown) - _TOLD, 0),
    )


def _parts(garden: Garden, kept: Kept, own: Sequence[Entry], today: dt.date) -> Iterator[LifePart]:
    """Yield what of a support wears: it is in it since its first entry, or since a repair that names a part
    of it; what came from the shed was as old as it was there.
    """
    begun = [record.begun for record in garden.records if record.structure == kept.structure.key]
    built = [kept.structure.built.on] if kept.structure.built else []
    since = min([entry.on for entry in own] + begun + built, default=today).year
    stock = {each.key: each for each in garden.stock}
    taken = kept.structure.built.taken if kept.structure.built else kept.structure.taken
    ages = {stock[each.stock].item: stock[each.stock].age for each in taken or () if each.stock in stock}
    item_of = {member.key: member.item for member in kept.tended.geometry.members}
    told = set()
    for part in shopping(kept.tended.geometry, garden.prices):
        life = part.life * garden.times("life", part.key)
        if not life or part.key in told:
            continue
        told.add(part.key)
        renewed = [e.on.year for e in own if e.kind == "repair" and item_of.get(e.member) == part.key]
        first = max([since, *renewed])
        age = 0 if renewed else ages.get(part.key, 0)
        left = life - age - (today.year - first)
        words = {"since": first, "life": f"{life:.3g}", "left": f"{left:.2g}"}
        said = template("life.part-left" if left > 0.0 else "life.part-over").format(**words)
        if age:
            said += " " + template("life.part-shed").format(age=age)
        yield LifePart(name=part.name[:1].upper() + part.name[1:], words=said)


def _entries(own: Sequence[Entry], garden: Garden, where: Where) -> Iterator[LifeEvent]:
    for entry in own:
        words = entry_words(entry, garden.units, garden.currency, where)
        note = f" {entry.note}" if entry.note and entry.note != words else ""
        yield LifeEvent(on=entry.on, label="", words=words + note, key=entry.key, photos=entry.photos)


def _record(garden: Garden, structure: Structure) -> Iterator[LifeEvent]:
    record = next((each for each in garden.records if each.structure == structure.key), None)
    if record is None:
        return
    yield LifeEvent(on=record.begun, label="", words=template("life.begun"))
    if record.differs:
        day = max(each.at for each in record.differs.values()).date()
        words = template("life.differs").format(count=len(record.differs))
        yield LifeEvent(on=day, label="", words=words)
    for pull in record.pulls.values():
        yield LifeEvent(on=pull.at.date(), label="", words=template("life.pulled"))
    if record.stands:
        yield LifeEvent(on=record.stands, label="", words=template("life.built"))


def _tasks(kept: Kept, garden: Garden) -> Iterator[LifeEvent]:
    """Yield the work that was ticked and changes what stands or grows."""
    for due in _done(kept):
        if due.task.job in _BUILT and due.mark:
            yield LifeEvent(
                on=due.mark.at.date(),
                label="",
                words=task_title(kept.tended, due.task, garden.units) + template("life.done"),
            )


def _done(kept: Kept) -> list[Due]:
    return [due for visit in kept.visits for due in visit.due if due.mark and due.mark.state == "done"]


def _planted(kept: Kept, today: dt.date) -> Iterator[LifeEvent]:
    ticked = {due.task.planting for due in _done(kept) if due.task.job in ("plant", "sow")}
    for grown in kept.tended.grown:
        day = grown.date(grown.course.start)
        if grown.planting.key not in ticked and day <= today:
            words = template("life.planted-by-plan").format(
                crop=grown.crop.called, count=grown.planting.count
            )
            yield LifeEvent(on=day, label="", words=words)


def _weeks(kept: Kept, today: dt.date, system: System) -> tuple[LifeWeek, ...]:
    mondays, harvests = _harvests(kept)
    meant = sum((harvest.usual for _, harvest in harvests), np.zeros(len(mondays)))
    picked = [each for crop, _ in harvests for each in picked_of(kept.log, kept.structure.key, crop)]
    weeks = []
    for week, monday in enumerate(mondays):
        came = sum(kg for day, kg in picked if monday <= day < monday + dt.timedelta(days=7))
        if meant[week] > 0.005 or came:
            passed = monday <= today
            weeks.append(
                LifeWeek(
                    monday=monday,
                    label=date_text(monday),
                    meant=round(float(meant[week]), 3),
                    came=round(came, 3) if passed else None,
                    came_text=write(came, "mass", system),
                )
            )
    return tuple(weeks)


def _harvests(kept: Kept) -> tuple[tuple[dt.date, ...], list[tuple[str, Harvest]]]:
    first = min(grown.date(grown.course.start) for grown in kept.tended.grown)
    begins = first - dt.timedelta(days=first.weekday())
    mondays = tuple(begins + dt.timedelta(days=7 * n) for n in range(_WEEKS))
    return mondays, [(grown.planting.crop, harvest_of(grown, mondays)) for grown in kept.tended.grown]


def _figures(garden: Garden, kept: Kept, own: Sequence[Entry], today: dt.date) -> Iterator[LifeFigure]:
    mondays, harvests = _harvests(kept)
    kilos = 0.0
    for crop, harvest in dict(harvests).items():
        picked = picked_of(own, kept.structure.key, crop)
        came = sum(kg for day, kg in picked if day >= mondays[0])
        kilos += came
        least, usual, most = harvest.totals
        told = None if "harvest" in garden.ignores else forecast_of(harvest, mondays, picked, today)
        words = {
            "came": write(came, "mass", garden.units),
            "usual": write(usual, "mass", garden.units),
            "least": write(least, "mass", garden.units),
            "most": write(most, "mass", garden.units),
            "now": write(float(told.harvest.usual.sum()) if told else usual, "mass", garden.units),
        }
        key = "life.picked-forecast" if told else "life.forecast"
        yield LifeFigure(label=tables.crops()[crop].name, text=template(key).format(**words))
    parts = total(shopping(kept.tended.geometry, garden.prices))
    paid = sum(entry.cost or 0.0 for entry in own)
    cost = template("life.cost").format(
        parts=money(parts, garden.currency), paid=money(paid, garden.currency)
    )
    yield LifeFigure(label=template("life.cost-label"), text=cost)
    if kilos:
        each = money((parts + paid) / kilos, garden.currency)
        yield LifeFigure(label=template("life.per-kg-label"), text=template("life.per-kg").format(cost=each))
    hours = sum(entry.minutes or 0.0 for entry in own)
    ticked = sum(due.task.minutes for due in _done(kept))
    work = template("life.work").format(written=_work_text(hours), ticked=_work_text(ticked))
    yield LifeFigure(label=template("life.work-label"), text=work)
    failed = sum(entry.kind == "break" or entry.found in ("torn", "fell") for entry in own)
    if failed:
        still = template("life.not-mended") if kept.breaks else ""
        yield LifeFigure(
            label=template("life.failed-label"), text=template("life.failed").format(count=failed) + still
        )


def _work_text(minutes: float) -> str:
    return time_text(minutes) if minutes else template("life.no-work")
