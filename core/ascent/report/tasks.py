"""A task of the season in words: why, how, with what."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from itertools import count

from .. import tables
from ..building.asbuilt import coming_off
from ..buying.back import put_back
from ..plan.place import Place
from ..plan.structure import Planting
from ..season.kept import Kept
from ..season.tasks import GrownPlanting, Task, Tended
from ..season.visits import Due
from ..season.windows import fate_of
from ..weather.course import turn_of
from ..weather.frosts import frosts_of
from ..words.quantities import System, with_sizes, write
from ..words.texts import template
from .season_parts import date_text, waits_words
from .season_readout import TaskReport

_RIPE = {"sweet-potato": "other", "hops": "other", "bramble": "other"}
_NAMED = 5  # things that are named in a line

_HARDLY = 0.01  # chance that is said as next to none


def chance_text(chance: float) -> str:
    """Return a chance as people say it. [-]"""
    if chance < _HARDLY:
        return "next to none"
    return f"{round(100 * chance)} in 100"


def waiting_words(each: Kept, due: Due, today: dt.date) -> str:
    """Return why a task may not be done yet, nothing where it may."""
    if due.task.row.sort != "pick":
        return ""
    crop = next(grown.planting.crop for grown in each.tended.grown if grown.planting.key == due.task.planting)
    return waits_words(each, crop, max(due.on, today))


def task_report(tended: Tended, due: Due, today: dt.date, system: System, waits: str = "") -> TaskReport:
    """Return a task as it is read at the work; `waits` says why it may not be done yet."""
    task, row = due.task, due.task.row
    words = _words(tended, task, system)
    return TaskReport(
        key=task.key,
        job=task.job,
        sort=row.sort,
        title=_sentence(row.title, words, system),
        why=_sentence(row.why, words, system),
        how=_sentence(row.how, words, system),
        tools=row.tools,
        minutes=round(task.minutes),
        until=max(task.until, due.on),
        late=max(task.until, due.on) < today and due.open,
        state=due.mark.state if due.mark else None,
        note=due.mark.note if due.mark else "",
        waits=waits,
    )


def task_title(tended: Tended, task: Task, system: System) -> str:
    """Return what a task is called."""
    return _sentence(task.row.title, _words(tended, task, system), system)


def _sentence(text: str, words: Mapping[str, str], system: System) -> str:
    said = with_sizes(text, system).format_map(words)
    return said[:1].upper() + said[1:]


def _words(tended: Tended, task: Task, system: System) -> dict[str, str]:
    """Return what is put into the words of a task."""
    words = {name: write(value, kind, system) for name, (value, kind) in task.values.items()}
    words |= task.words
    for name in ("out", "end", "what"):
        if words.get(name, "").lstrip("-").isdigit():
            words[name] = date_text(turn_of(tended.site.garden) + dt.timedelta(days=int(words[name])))
    grown = next((each for each in tended.grown if each.planting.key == task.planting), tended.grown[0])
    words["crop"] = grown.crop.called
    if task.job in ("sow", "plant"):
        words["soil"] = _soil_words(tended.site.garden, grown.planting, system)
    elif task.job == "feed":
        words["feed"] = template("season.feed-first" if task.number == 1 else "season.feed")
    elif task.job == "pick":
        group = f"ripe.{_RIPE.get(grown.crop.cap_group, grown.crop.cap_group)}"
        words["pick"] = template(group if grown.crop.yield_kg else "ripe.leaf")
    elif task.job == "clear":
        words["gone"] = template(f"season.gone.{grown.course.ends}")
    elif task.job == "take-down":
        words["kept"] = _kept_words(tended)
    elif task.job == "scout":
        words |= {name: with_sizes(said, system) for name, said in _scouted(grown, task.on).items()}
    return words


def _kept_words(tended: Tended) -> str:
    """Return what goes back to the shed from a structure, a season older, and what is to be washed.

    Source: handbook-season-9
    """
    counts: dict[str, int] = {}
    numbers = count(1)
    stood, geometry = coming_off(tended.site, tended.structure)
    for stock in put_back((), stood, geometry, 1, lambda _: f"new-{next(numbers)}"):
        name = with_sizes(tables.item(stock.table, stock.item).name, tended.site.garden.units)
        counts[name] = counts.get(name, 0) + stock.count
    kept = ", ".join(f"{number} × {name}" for name, number in list(counts.items())[:_NAMED])
    said = template("season.kept").format(kept=kept) if kept else template("season.nothing-kept")
    sick = any(grown.crop.family == "Solanaceae" for grown in tended.grown)
    return said + (" " + template("season.wash") if sick else "")


def _scouted(grown: GrownPlanting, on: dt.date) -> dict[str, str]:
    """Return what to look for on a crop at its stage, and where: another thing each week where there are
    several.
    """
    day = (on - grown.pace.turns).days
    stage = (
        "early" if day < grown.course.first - 21 else "middle" if day < grown.course.first + 14 else "late"
    )
    own = [row for row in tables.scouts().values() if grown.crop.key in row.crops]
    fitting = [row for row in own if row.stage in (stage, "any")] or own
    row = fitting[(day // 7) % len(fitting)]
    return {"look": row.look, "where": row.where}


def _soil_words(place: Place, planting: Planting, system: System) -> str:
    calendar, fate = tables.calendars()[planting.crop], fate_of(place, planting)
    hardy = calendar.hardy
    words = {
        "least": write(calendar.soil_C, "temperature", system),
        "chance": chance_text(fate.frost),
        "kills": write(tables.frost_classes()[calendar.frost_class].kills_C, "temperature", system),
    }
    if hardy:
        return template("season.soil-hardy").format(**words)
    frosts = frosts_of(place)
    free = frosts is None or not frosts.usual
    if "soil" not in fate.values:
        return template("season.soil-free" if free else "season.soil-unknown").format(**words)
    words["soil"] = write(fate.values["soil"], "temperature", system)
    return template("season.soil-known-free" if free else "season.soil-known").format(**words)
