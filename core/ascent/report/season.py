"""The season in words: the days in the garden, and the year of each structure."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from functools import partial
from itertools import count

import numpy as np

from .. import tables
from ..analysis.design import geometry_of
from ..building.asbuilt import coming_off
from ..buying.back import put_back
from ..errors import guarded
from ..ground.plot import bed_middle
from ..loads.cases import CROP_FACTORS
from ..log.now import Break, open_breaks, whole_log
from ..mechanics import Array, growth
from ..memory import remembered
from ..plan.bed import Bed
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.place import Place
from ..plan.record import Diary
from ..plan.structure import Planting, Structure, as_it_stands
from ..season.repairs import repairs_of
from ..season.skipped import TRIPLED_BY, missed
from ..season.tasks import GrownPlanting, Task, Tended
from ..season.visits import Due, Visit, visits_of, walk
from ..season.windows import Fate, fate_of, instead, opened
from ..site import Site, plain_site
from ..weather.course import turn_of
from ..weather.frosts import RISKS, frosts_of
from ..wording import gust_text
from ..words.quantities import System, with_sizes, write
from ..words.texts import template
from .season_parts import Kept, clash_reports, date_text, harvest_report, rescues, turn_report, waits_words
from .season_readout import (
    ClosingReport,
    DayReport,
    GrowingReport,
    TaskReport,
    VisitReport,
    WeekReport,
    YearReport,
    YearRow,
)

_AHEAD = 8  # days that are shown to come
_BEHIND = 10  # days back that what was left is still shown
_HARDLY = 0.01  # chance that is said as next to none
WEEKS = 53
_NAMED = 5  # things that are named in a line
_FAILS = ("late", "short", "hot")
_WAITS = ("early", "cold")


def chance_text(chance: float) -> str:
    """Return a chance as people say it."""
    if chance < _HARDLY:
        return "next to none"
    return f"{round(100 * chance)} in 100"


@remembered(1024)
def _tended(site: Site, structure: Structure, built: bool) -> Tended:
    return Tended(site, structure, geometry_of(site.bed, structure), built)


def kept_of(garden: Garden, bed: Bed, structure: Structure, log: Sequence[Entry] = ()) -> Kept:
    """Return a structure with its visits.

    Args:
        garden: It stands in.
        bed: It stands on.
        structure: Itself.
        log: All that happened in the garden, in order of days.
    """
    return next(_kept(garden, [(bed, structure)], tuple(log)))


def _kept(garden: Garden, wanted: Iterable[tuple[Bed, Structure]], log: tuple[Entry, ...]) -> Iterator[Kept]:
    diaries = {diary.structure: diary for diary in garden.diaries}
    stands = {record.structure for record in garden.records if record.stands}
    sites: dict[str, Site] = {}
    for bed, structure in wanted:
        if bed.key not in sites:
            sites[bed.key] = plain_site(garden, bed)
        still = as_it_stands(structure)
        tended = _tended(sites[bed.key], still, structure.key in stands)
        diary = diaries.get(structure.key)
        breaks = tuple(open_breaks(garden, structure.key, log, diary))
        visits = _visits(tended, garden.visits, diary, breaks)
        yield Kept(bed, structure, tended, visits, log, breaks)


def _visits(
    tended: Tended, weekdays: Sequence[int], diary: Diary | None, breaks: Sequence[Break]
) -> tuple[Visit, ...]:
    planted = {grown.planting.key: grown.date(grown.course.start) for grown in tended.grown}
    return visits_of((*tended.tasks, *repairs_of(tended, breaks)), weekdays, diary, planted)


def everything(garden: Garden, log: Iterable[Entry] = ()) -> list[Kept]:
    """Return every structure of a garden with its visits, but those whose season cannot be calculated."""
    happened = whole_log(garden, log)
    return [
        kept
        for bed in garden.beds
        for structure in bed.structures
        if (
            kept := guarded(
                f"the season of {structure.key}", partial(kept_of, garden, bed, structure, happened), None
            )
        )
    ]


def left_out(garden: Garden, kept: Iterable[Kept]) -> tuple[str, ...]:
    """Return what is said of each structure whose season cannot be calculated."""
    known = {each.structure.key for each in kept}
    standing = (structure for bed in garden.beds for structure in bed.structures)
    return tuple(
        template("season.left-out").format(name=each.name) for each in standing if each.key not in known
    )


# -- the week


def week_report(garden: Garden, today: dt.date, log: Iterable[Entry] = ()) -> WeekReport:
    """Return the days in the garden about a day, by its plan and by what happened."""
    kept = everything(garden, log)
    order = walk({each.structure.key: _middle(each.bed, each.structure) for each in kept})
    by_key = {each.structure.key: each for each in kept}
    days: dict[dt.date, list[VisitReport]] = {}
    overdue: list[VisitReport] = []
    now = _visited_on(garden, today)
    for key in order:
        each = by_key[key]
        left: list[Due] = []
        for visit in each.visits:
            if now <= visit.on <= today + dt.timedelta(days=_AHEAD):
                report = _visit(each, visit, visit.due, today, garden.units)
                days.setdefault(max(visit.on, now), []).append(report)
            elif today - dt.timedelta(days=_BEHIND) <= visit.on < now:
                left += [due for due in visit.due if due.open]
        fresh = _not_again(left, each.visits, now)
        if fresh:
            overdue.append(_visit(each, Visit(key, fresh[0].on, tuple(fresh)), fresh, today, garden.units))
    reports = [_day(day, today, days[day]) for day in sorted(days)]
    first = reports[0] if reports and reports[0].on == now else None
    return WeekReport(
        today=today,
        season=garden.year,
        label=f"{today:%A} {date_text(today)}",
        now=first,
        overdue=tuple(overdue),
        rescues=tuple(rescues(garden, kept, today)),
        coming=tuple(reports[1:] if first else reports),
        left_out=left_out(garden, kept),
    )


def _visited_on(garden: Garden, today: dt.date) -> dt.date:
    """Return today, or the last day that people came on."""
    return next(
        today - dt.timedelta(days=n)
        for n in range(7)
        if (today - dt.timedelta(days=n)).weekday() in garden.visits
    )


def _not_again(left: list[Due], visits: tuple[Visit, ...], now: dt.date) -> list[Due]:
    """Return what was left undone and does not come round again on the day itself."""
    again = {(due.task.planting, due.task.job) for visit in visits if visit.on == now for due in visit.due}
    last = {(due.task.planting, due.task.job): due for due in left}
    return [due for key, due in last.items() if key not in again]


def _middle(bed: Bed, structure: Structure) -> tuple[float, float]:
    at = bed_middle(bed).out(np.array([[structure.along, structure.across]]))[0]
    return float(at[0]), float(at[1])


def _day(on: dt.date, today: dt.date, visits: list[VisitReport]) -> DayReport:
    ahead = (on - today).days
    said = {0: "Today", 1: "Tomorrow"}.get(ahead, f"{on:%A}")
    return DayReport(
        on=on,
        label=f"{said}, {date_text(on)}",
        minutes=sum(visit.minutes for visit in visits),
        visits=tuple(visits),
    )


def _visit(each: Kept, visit: Visit, dues: Sequence[Due], today: dt.date, system: System) -> VisitReport:
    waits = [_waits(each, due, today) for due in dues]
    return VisitReport(
        structure=each.structure.key,
        on=visit.on,
        minutes=round(
            sum(due.task.minutes for due, why in zip(dues, waits, strict=True) if due.open and not why)
        ),
        tasks=tuple(
            task_report(each.tended, due, today, system, why) for due, why in zip(dues, waits, strict=True)
        ),
    )


def _waits(each: Kept, due: Due, today: dt.date) -> str:
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
        frosts = frosts_of(tended.site.garden)
        froze = frosts is not None and grown.course.end >= frosts.first - 1
        key = "gone-heat" if grown.course.heat else "gone-frost" if froze else "gone"
        words["gone"] = template(f"season.{key}")
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


_RIPE = {"sweet-potato": "other", "hops": "other", "bramble": "other"}


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
    hardy = calendar.frost_class in ("H", "HH")
    words = {
        "least": write(calendar.soil_C, "temperature", system),
        "chance": chance_text(fate.frost),
        "kills": write(tables.frost_classes()[calendar.frost_class].kills_C, "temperature", system),
    }
    if hardy:
        return template("season.soil-hardy").format(**words)
    free = frosts_of(place) is None
    if "soil" not in fate.values:
        return template("season.soil-free" if free else "season.soil-unknown").format(**words)
    words["soil"] = write(fate.values["soil"], "temperature", system)
    return template("season.soil-known-free" if free else "season.soil-known").format(**words)


def skipped_words(garden: Garden, bed: Bed, structure: Structure, today: dt.date) -> str:
    """Return what it does to a structure when its picks are missed, once and three times."""
    still = as_it_stands(structure)
    told = []
    for picks in (1, TRIPLED_BY):
        found = missed(plain_site(garden, bed), still, today, picks)
        if found is None:
            return template("skipped.none")
        told.append(
            template("skipped.words").format(
                picks=template("skipped.once" if picks == 1 else "skipped.often").format(picks=picks),
                hangs=f"{found.hangs:.1f}",
                before=_times(found.margin),
                after=_times(found.margin_after),
                limit=gust_text(found.limit, garden.units),
                limit_after=gust_text(found.limit_after, garden.units),
            )
        )
    return " ".join(told)


def _times(margin: float) -> str:
    """Return a crop margin as people say it, as far as it is looked at."""
    most = float(CROP_FACTORS[-1])
    return f"over {most:.0f} times" if margin >= most else f"{max(margin, 0.0):.1f} times"


# -- the year


def year_report(garden: Garden, today: dt.date, log: Iterable[Entry] = ()) -> YearReport:
    """Return a garden's year, by its plan and by what happened."""
    kept = everything(garden, log)
    mondays = _mondays(garden, kept)
    frosts, turns = frosts_of(garden), turn_of(garden)
    words = template("frosts.free")
    ends: tuple[dt.date | None, dt.date | None] = (None, None)
    if frosts:
        about = [frosts.last, frosts.first, frosts.last_with(0.1), frosts.first_with(0.1)]
        dates = [turns + dt.timedelta(days=round(day)) for day in about]
        last, first, late, early = (date_text(date) for date in dates)
        words = template("frosts.words").format(last=last, first=first, late=late, early=early)
        words += template("frosts.record").format(years=frosts.years) if frosts.years else ""
        ends = (dates[0], dates[1])
    return YearReport(
        label=_years(mondays[0].year, mondays[-1].year),
        closing=_closing(garden, kept, today),
        today=today,
        mondays=mondays,
        last_frost=ends[0],
        first_frost=ends[1],
        frost_words=words,
        warmth_words="" if garden.warmth else template("frosts.none"),
        rows=tuple(year_row(each, mondays, today, garden.units) for each in kept),
        clashes=tuple(clash for each in kept for clash in clash_reports(each.tended)),
        turns=tuple(turn_report(garden, bed) for bed in garden.beds),
        harvest=harvest_report(garden, kept, mondays, today),
        left_out=left_out(garden, kept),
    )


def _closing(garden: Garden, kept: Sequence[Kept], today: dt.date) -> ClosingReport:
    """Return what closing the season today comes to."""
    still = []
    grown_on = [(each, grown) for each in kept for grown in each.tended.grown]
    for each, grown in grown_on:
        if grown.date(grown.course.start) <= today < grown.date(grown.course.end):
            words = {
                "name": each.structure.name,
                "crop": grown.crop.called,
                "end": date_text(grown.date(grown.course.end)),
            }
            still.append(template("season.still-grows").format(**words))
    still += [
        template("season.still-stands").format(name=each.structure.name)
        for each in kept
        if each.tended.built or each.structure.built
    ]
    return ClosingReport(
        year=garden.year,
        begun=any(grown.date(grown.course.start) <= today for _, grown in grown_on),
        still=tuple(still),
    )


def _years(first: int, last: int) -> str:
    return str(first) if first == last else f"{first}/{last % 100:02d}"


def _mondays(garden: Garden, kept: Sequence[Kept]) -> tuple[dt.date, ...]:
    """Return the Mondays from the first to the last week in which anything is due or grows."""
    turns = turn_of(garden)
    days = [visit.on for each in kept for visit in each.visits]
    days += [grown.date(grown.course.end) for each in kept for grown in each.tended.grown]
    first = min(days, default=turns - dt.timedelta(days=60))
    last = max(days, default=turns + dt.timedelta(days=200))
    last = min(last, first + dt.timedelta(days=7 * WEEKS - 1))
    begins = first - dt.timedelta(days=first.weekday())
    return tuple(begins + dt.timedelta(days=7 * n) for n in range((last - begins).days // 7 + 1))


def year_row(each: Kept, mondays: Sequence[dt.date], today: dt.date, system: System) -> YearRow:
    """Return a structure's year, week by week."""
    minutes = [0.0] * len(mondays)
    for visit in each.visits:
        week = (visit.on - mondays[0]).days // 7
        if 0 <= week < len(mondays):
            minutes[week] += sum(due.task.minutes for due in visit.due)
    return YearRow(
        structure=each.structure.key,
        growing=tuple(_growing(each, grown, mondays, today, system) for grown in each.tended.grown),
        minutes=tuple(round(m) for m in minutes),
    )


def _growing(
    each: Kept, grown: GrownPlanting, mondays: Sequence[dt.date], today: dt.date, system: System
) -> GrowingReport:
    place, planting, course = each.tended.site.garden, grown.planting, grown.course
    fate = fate_of(place, planting)
    if fate.verdict in _WAITS and grown.date(course.start) < today:
        fate = replace(fate, verdict="good")  # it has come through
    calendar = grown.calendar
    sown = grown.date(course.start - calendar.indoors_d) if grown.potted and calendar.indoors_d else None
    offset = (mondays[0] - grown.pace.turns).days
    days: Array = offset + 3.5 + 7.0 * np.arange(len(mondays), dtype=np.float64)
    since = grown.pace.upto(days) - float(grown.pace.upto(course.start)) + course.ahead
    share = growth.logistic(since, grown.crop.t50_d, grown.crop.t95_d)
    share = np.where((days >= course.start) & (days < course.end), share, 0.0)
    others = instead(place, planting, each.structure.family) if fate.verdict in _FAILS else ()
    names = ", ".join(tables.crops()[key].name for key in others)
    return GrowingReport(
        planting=planting.key,
        crop=planting.crop,
        name=grown.crop.name,
        sown=sown,
        planted=grown.date(course.start),
        first=grown.date(course.first),
        gone=grown.date(course.end),
        verdict=fate.verdict,
        words=fate_words(place, planting, fate, system),
        instead=template("fate.instead").format(crops=names) if names else "",
        frost=chance_text(fate.frost) if frosts_of(place) else "",
        windows=tuple((grown.date(a), grown.date(b)) for a, b in fate.windows),
        share=tuple(round(float(value), 3) for value in share),
    )


def fate_words(place: Place, planting: Planting, fate: Fate, system: System) -> str:
    """Return what becomes of a planting, in a sentence or two."""
    calendar = tables.calendars()[planting.crop]
    turns = turn_of(place)

    def said(day: float) -> str:
        return date_text(turns + dt.timedelta(days=round(day)))

    frosts = frosts_of(place)
    window = opened(fate.windows, fate.course.start)
    words = {
        "frost": chance_text(fate.frost),
        "opens": said(window[0]) if window else "",
        "soil": write(fate.values.get("soil", 0.0), "temperature", system),
        "least": write(calendar.soil_C, "temperature", system),
        "days": str(fate.late),
        "last": said(fate.last) if fate.last is not None else "",
        "end": said(frosts.first_with(RISKS[place.careful])) if frosts else "",
        "stops": write(calendar.stops_C or 0.0, "temperature", system),
    }
    key: str = fate.verdict
    if fate.verdict == "late" and fate.last is None:
        key = "short"
    if fate.verdict == "cold" and not window:
        key = "cold-never"
    if fate.verdict == "early" and not window:
        key = "short"
    if fate.verdict == "hot" and calendar.cool:
        key = "hot-cool"
    sentence = template(f"fate.{key}").format(**words)
    if fate.verdict == "hot" and fate.windows:
        spans = " or ".join(f"{said(a)} to {said(b)}" for a, b in fate.windows)
        sentence += template("fate.hot-windows").format(windows=spans)
    return sentence
