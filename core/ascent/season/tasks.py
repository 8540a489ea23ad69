"""What is due on a structure and when: jobs dated by the growth that the load path calculates with."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from .. import tables
from ..buying.work import labour_of
from ..families import family_of
from ..family.care import Care
from ..loads.season import PlantingCourse, borne_by, course_of, cover_span, season_year
from ..mechanics import Array, growth
from ..path.geometry import Geometry
from ..plan.fields import Typed
from ..plan.place import Place
from ..plan.structure import Planting, Structure
from ..site import Site
from ..tables import rows
from ..weather.course import BEFORE, Pace, climate_inputs_of, days_of, pace_in_climate, turn_of
from .windows import HARDEN, POT_ON, Fate, fate_of

Quantity = tuple[float, str]
_QUIET = 7  # days after planting in which nothing is tied, handbook season 5
_RIPENS = 0.8  # of the days from set to pick, after which fruit colours indoors, handbook season 3
_STOPPED_AT_LEAST = 40  # days after planting before which no tip is stopped
_COOL, _WARM = 16.0, 24.0  # means at which visits come further apart or closer, handbook season 5 [degC]
_SLOWER, _FASTER = 1.5, 0.7
_WET_WEEK = 10.0  # rain of a week that counts [mm]
_BUILD_FROM = 21  # days before planting that posts may go in, handbook season 4
_FEED_FROM, _FEED_EVERY, _FEEDS = 21.0, 21, 3
_SCOUT_EVERY, _WATER_EVERY = 7, 7
_TENSION_FIRST, _TENSION_EVERY = 7, 21  # handbook season 8
_TENSION_MOST = 8
_DRY = (6, 10)  # days before clearing that water stops, and after it that dry vines come off
_DOWN = 14  # days after the last crop that a support is taken down
_LEAST_MINUTES = 2.0
_USUAL_SPACING = 0.3  # [m]
_WEEK = 7
_RUN, _BETWEEN_RUNS = "weave", 4  # days after a run that the next goes on, however fast the tips are
_STEMS = ("tie", "wind", "sucker", "strip", "lower")  # cares of a stem that grows on
_ENDING = {"cold": "it is too cold for it", "frost": "frost is likely", "heat": "it is too hot for it"}
_SHADED_FROM = 2.0  # below the heat at which half of its flowers drop [K]
_LONG_SEASON = 1.25  # times a usual harvest that a long season brings at most
_TAKES_DOWN = 0.45  # of the work of building that taking down is
_FLOWER_MINUTES = 0.3  # of one plant whose harvest is not weighed
_WIRE_MINUTES, _TWINE_MINUTES = 3.0, 0.4  # of one wire that is tightened, and one string that is felt
_SINCE = ("A week since it was built", "Three weeks since the last time")


@dataclass(frozen=True)
class Task:
    """Something due on a structure.

    key: its own within the structure, the same however its date moves. planting: key of the planting it is
    for, if of one. on: first day it can be done. until: last day that it is in time. minutes: of one person.
    number: which of its kind it is, from 1. values, words: put into its words.
    """

    key: str
    job: str
    structure: str
    planting: str | None
    on: dt.date
    until: dt.date
    minutes: float
    number: int = 1
    values: Mapping[str, Quantity] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)

    @property
    def row(self) -> rows.Job:
        """Return its words."""
        return tables.jobs()[self.job]


@dataclass(frozen=True)
class GrownPlanting:
    """One planting day by day from the day it is planted until it is gone: as the load path has it by week.

    height: of its canopy, (N,). [m] tip: by how much its tip grows each day, (N,). [m] mean: temperature of
    each day, not a number where nobody said how warm it is. [degC] rain: of each. [mm]
    """

    place: Place
    planting: Planting
    course: PlantingCourse
    pace: Pace
    height: Array
    tip: Array
    mean: Array
    rain: Array

    @property
    def crop(self) -> rows.Crop:
        """Return its crop."""
        return tables.crops()[self.planting.crop]

    @property
    def calendar(self) -> rows.CropCalendar:
        """Return what dates its crop."""
        return tables.calendars()[self.planting.crop]

    @cached_property
    def season(self) -> int:
        """Return the year of the garden's season that it is of."""
        return season_year(self.place, self.planting)

    @property
    def potted(self) -> bool:
        """Return whether it is raised in pots and planted out."""
        usual = self.planting.raised == "usual" and self.calendar.counted_from == "planting"
        return usual or self.planting.raised == "potted"

    @property
    def bears_kg(self) -> tuple[float, float]:
        """Return what its plants bring in a usual and a good year, season and garden counted. [kg]

        Source: crops-5.1
        """
        crop = self.crop
        free = self.planting.training == "free" and crop.free_yield_kg is not None
        usual = (crop.free_yield_kg if free else crop.yield_kg) or 0.0
        good = (crop.free_yield_high_kg if free else crop.yield_high_kg) or usual
        season = self.course.brings
        if not crop.one_pick:
            season = min(season / crop.harvest_d, _LONG_SEASON)
        plants = self.planting.count * self.place.times("yield", crop.key) * season
        return plants * usual, plants * good

    def borne(self, at: Array) -> Array:
        """Return the growth that bears up to each day; of a crop that is picked once all of its growth. [d]

        Args:
            at: From the turn of the garden's year, (N,). [d]
        """
        if self.crop.one_pick:
            return self.pace.upto(at)
        return borne_by(self.place, self.crop.key, at)

    def date(self, day: float) -> dt.date:
        """Return a day of the garden's year as a date."""
        return self.pace.turns + dt.timedelta(days=math.floor(day + 1e-9))

    def grown_on(self, days: float) -> int:
        """Return the day on which it has grown so many days of its table."""
        begun = float(self.pace.upto(self.course.start)) - self.course.ahead
        return max(round(self.pace.reached(begun + days, self.course.end + 60)), self.course.start)

    def tall_on(self, height: float) -> int | None:
        """Return the Monday of the week from which the load path has it so tall; nothing if it never is."""
        over = np.flatnonzero(self.height >= height - 1e-9)
        if not len(over):
            return None
        day = self.course.start + int(over[0])
        back = (self.date(day) - dt.timedelta(days=3)).weekday()  # the middle of a week is its Thursday
        return max(day - 3 - back + (7 if back else 0), self.course.start)

    @cached_property
    def fate(self) -> Fate:
        """Return whether it is well planted, and what comes of it."""
        return fate_of(self.place, self.planting)

    @property
    def tips(self) -> int:
        """Return the day from which its tip is stopped: what sets after it is not ripe by the end."""
        days = self.crop.set_to_pick_d * _RIPENS
        grown = float(self.pace.upto(self.course.end)) - days
        return round(self.pace.reached(grown, self.course.end))

    def ends(self, care: Care) -> int:
        """Return the day after which a care is done with."""
        end, first = self.course.end, self.course.first
        if care.until == "cover":
            return min(self.grown_on(self.crop.t95_d), end - 7)
        if care.until == "pods":
            return min(first + 14, end - 7)
        if care.until == "cool":
            return end - 21
        return first - 14 if self.crop.one_pick and care.job in _STEMS else end - 7


def grown_of(place: Place, planting: Planting, top: float) -> GrownPlanting:
    """Return a planting day by day on a face of a height. [m]

    Source: crops-5.1
    """
    course, crop = course_of(place, planting), tables.crops()[planting.crop]
    asked = climate_inputs_of(place)
    pace = pace_in_climate(turn_of(place), asked, tables.calendars()[planting.crop])
    days: Array = np.arange(course.start, course.end + 1, dtype=float)
    since = pace.upto(days + 0.5) - float(pace.upto(course.start)) + course.ahead
    shares = growth.logistic(since, crop.t50_d, crop.t95_d)
    overtop = tables.constant("overtop_free") if planting.training == "free" else 0.0
    height = min(crop.height_m, top + overtop) * np.minimum(1.0, shares / 0.5)
    at = np.clip(days.astype(int) + BEFORE, 0, None)
    if asked is None:
        mean, rain = np.full(len(days), np.nan), np.zeros(len(days))
    else:
        known = days_of(asked)
        at = np.minimum(at, len(known.low) - 1)
        mean, rain = (known.low[at] + known.high[at]) / 2, known.rain[at]
    tip = crop.extension_mm_d * 1e-3 * np.diff(pace.upto(np.append(days, days[-1] + 1)))
    return GrownPlanting(place, planting, course, pace, height, tip, mean, rain)


@dataclass(frozen=True)
class Tended:
    """A structure with what it asks of whoever tends it."""

    site: Site
    structure: Structure
    geometry: Geometry
    built: bool = False

    @cached_property
    def grown(self) -> tuple[GrownPlanting, ...]:
        """Return its plantings day by day."""
        return tuple(
            grown_of(self.site.garden, planting, self.geometry.climb) for planting in self.structure.plantings
        )

    @cached_property
    def cares(self) -> tuple[Care, ...]:
        """Return what its crops ask for on it."""
        family = family_of(self.structure.family)
        options: Typed = family.options.model_validate(self.structure.options)
        return family.tending(options, self.geometry, self.structure.plantings, self.site)

    @cached_property
    def tasks(self) -> tuple[Task, ...]:
        """Return all that is due on it over the garden's year, in order."""
        found: list[Task] = []
        runs: dict[tuple[int, str], float] = {}
        for number, grown in enumerate(self.grown):
            if grown.fate.hopeless:
                found += self._clearing(grown)
                continue
            found += self._raising(grown)
            found += self._beside(grown)
            found += self._picking(grown)
            found += self._clearing(grown)
            for care in self.cares:
                if care.planting == number:
                    due = list(self._tending(grown, care, runs.get((number, care.job), -math.inf)))
                    if due and care.job.startswith(_RUN):
                        runs[number, care.job] = (due[-1].on - grown.pace.turns).days + _BETWEEN_RUNS
                    found += due
        if self.built or not all(grown.fate.hopeless for grown in self.grown):
            found += self._standing()
        here = self.site.garden.times("minutes")
        timed = (task if here == 1.0 else replace(task, minutes=task.minutes * here) for task in found)
        return tuple(sorted(timed, key=lambda task: (task.on, task.until, task.key)))

    # -- one planting

    def _task(
        self,
        grown: GrownPlanting,
        job: str,
        day: float,
        until: float,
        number: int = 1,
        key: str = "",
        values: Mapping[str, Quantity] | None = None,
        words: Mapping[str, str] | None = None,
    ) -> Task:
        row = tables.jobs()[job]
        own = f"{grown.season}.{grown.planting.key}.{key or job}"
        return Task(
            f"{own}.{number}",
            job,
            self.structure.key,
            grown.planting.key,
            grown.date(day),
            grown.date(max(until, day)),
            max(row.minutes + row.per_plant * _as_plants(grown.planting), _LEAST_MINUTES),
            number,
            dict(values or {}),
            {"crop": grown.crop.name, **(words or {})},
        )

    def _raising(self, grown: GrownPlanting) -> Iterator[Task]:
        """Yield sowing, potting on, hardening off and planting out."""
        start, calendar = grown.course.start, grown.calendar
        if calendar.counted_from == "shoots":
            return
        if grown.potted and calendar.indoors_d:
            indoors = round(calendar.indoors_d)
            values = {"indoors": (float(indoors), "count")}
            words = {"out": f"{start}"}
            yield self._task(
                grown, "sow-pots", start - indoors, start - indoors + 7, values=values, words=words
            )
            if indoors > POT_ON + HARDEN + 7:
                yield self._task(grown, "pot-on", start - POT_ON, start - POT_ON + 7)
            yield self._task(grown, "harden", start - HARDEN, start - HARDEN + 2)
        yield self._task(grown, "plant" if grown.potted else "sow", start, start + 7)

    def _tending(self, grown: GrownPlanting, care: Care, earliest: float) -> Iterator[Task]:
        """Yield one care as often as it comes round, not before a day. [d]"""
        last, start = grown.ends(care), grown.course.start
        if care.job == "stop":
            yield from self._stopping(grown)
            return
        if care.heights and not care.cap:
            tallest = float(np.max(grown.height))
            for height in care.heights:
                from_ = grown.tall_on(min(height, tallest) if care.until == "top" else height)
                if from_ is not None and from_ < last:
                    on = max(from_, earliest)
                    yield self._task(grown, care.job, on, on + 6, 1, care.key, care.values, care.words)
            return
        begins = grown.tall_on(care.heights[0]) if care.heights else grown.grown_on(care.first)
        if begins is None:
            return
        day, number = float(max(begins + care.after, start + _QUIET)), 0
        while day <= last and (not care.times or number < care.times):
            number += 1
            due, tip = self._next(grown, care, day)
            values = {**care.values, "grown": (tip, "length")}
            if care.job == "lower":
                moved, string = care.values["moved"][0], care.values["string"][0]
                values["spare"] = (max(string - number * moved, 0.0), "length")
                values["total"] = (number * moved, "length")
            until = max(min(due - 1, day + 3), day)
            yield self._task(grown, care.job, day, until, number, care.key, values, care.words)
            day = due

    def _next(self, grown: GrownPlanting, care: Care, day: float) -> tuple[float, float]:
        """Return the day on which a care comes round again, and by how much the tip has grown then. [m]

        Source: crops-4
        """
        tip, at, most = 0.0, int(day), care.cap
        n = min(max(at - grown.course.start, 0), len(grown.mean) - 1)
        if not np.isnan(grown.mean[n]):
            week = float(np.sum(grown.rain[max(n - 6, 0) : n + 1]))
            if grown.mean[n] < _COOL:
                most *= _SLOWER
            elif grown.mean[n] > _WARM and week > _WET_WEEK:
                most *= _FASTER
        while at - day < most - 1e-9 and (not care.step or tip < care.step):
            tip += float(grown.tip[min(max(at - grown.course.start, 0), len(grown.tip) - 1)])
            at += 1
        return float(max(at, day + 1)), tip

    def _stopping(self, grown: GrownPlanting) -> Iterator[Task]:
        """Yield the stopping of tips so long before the end that what sets is ripe in time."""
        if grown.tips > grown.course.start + _STOPPED_AT_LEAST and grown.course.ends in _ENDING:
            end = {"end": f"{grown.course.end}"}
            what = {"what": _ENDING[grown.course.ends]}
            yield self._task(grown, "stop", grown.tips, grown.tips + 7, words={**end, **what})

    def _beside(self, grown: GrownPlanting) -> Iterator[Task]:
        """Yield feeding, water, the look over both faces."""
        first, end, start = grown.course.first, grown.course.end, grown.course.start
        if grown.calendar.counted_from == "shoots":
            return
        if grown.crop.family != "Fabaceae":
            day = float(grown.grown_on(_FEED_FROM))
            for number in range(1, _FEEDS + 1):
                if day < end - 21:
                    yield self._task(grown, "feed", day, day + 6, number)
                day += _FEED_EVERY
        yield from self._shading(grown)
        yield from self._weekly(grown, "scout", start + 14, end - 7, _SCOUT_EVERY)
        if grown.crop.yield_kg:
            fills = max(first - round(grown.crop.set_to_pick_d * 0.6), start + 14)
            yield from self._weekly(grown, "water", fills, end - 14, _WATER_EVERY)

    def _shading(self, grown: GrownPlanting) -> Iterator[Task]:
        """Yield the shading of a crop in the first week that is too hot for it.

        Source: handbook-season-12
        """
        asked, calendar = climate_inputs_of(grown.place), grown.calendar
        stops = calendar.set_day_C if calendar.warm_C is None else calendar.warm_C
        if asked is None or stops is None:
            return
        stops -= _SHADED_FROM
        begin, end = grown.course.start + _QUIET, grown.course.end - 2 * _WEEK
        known = days_of(asked)
        heat = known.high if calendar.warm_C is None else known.mean
        days = heat[begin + BEFORE : max(end, begin) + BEFORE]
        if len(days) < _WEEK:
            return
        mean = np.convolve(days, np.full(_WEEK, 1 / _WEEK), "valid")
        hot = np.flatnonzero(mean > stops)
        if len(hot):
            at = int(hot[0])
            values = {"hot": (float(mean[at]), "temperature"), "stops": (stops, "temperature")}
            yield self._task(grown, "shade", begin + at, begin + at + _WEEK - 1, values=values)

    def _weekly(self, grown: GrownPlanting, job: str, day: float, last: float, every: int) -> Iterator[Task]:
        number = 0
        while day < last:
            number += 1
            yield self._task(grown, job, day, day + every - 1, number)
            day += every

    def _picking(self, grown: GrownPlanting) -> Iterator[Task]:
        """Yield the picks, at the crop's own interval."""
        first, end = grown.course.first, grown.course.end
        if grown.crop.one_pick:
            if first < end and grown.crop.yield_kg:
                task = self._task(grown, "pick-once", first, max(end - 1, first), words={"what": f"{end}"})
                yield _picked(task, grown, grown.bears_kg[0])
            return
        if not grown.calendar.pick_low_d:
            return
        day, number = float(first), 0
        every = (grown.calendar.pick_low_d + grown.calendar.pick_high_d) / 2
        begins, ends = (float(each) for each in grown.borne(np.array([first, end], dtype=float)))
        kg_d = grown.bears_kg[0] / max(ends - begins, 1e-6)
        while day < end:
            number += 1
            task = self._task(grown, "pick", day, min(day + math.ceil(every) - 1, end), number)
            since = np.array([max(day - every, first), max(day, first + 1.0)])
            yield _picked(task, grown, kg_d * float(np.diff(grown.borne(since))[0]))
            n = min(max(int(day) - grown.course.start, 0), len(grown.mean) - 1)
            cool = not np.isnan(grown.mean[n]) and grown.mean[n] < _COOL
            day += every * (_SLOWER if cool else 1.0)

    def _clearing(self, grown: GrownPlanting) -> Iterator[Task]:
        end = grown.course.end
        if grown.calendar.counted_from == "shoots":
            return
        yield self._task(grown, "stop-water", max(end - _DRY[0], grown.course.start + 1), end)
        yield self._task(grown, "clear", end, end + _DRY[1])

    # -- the structure itself

    def _standing(self) -> Iterator[Task]:
        """Yield its building, its tightening and its taking down."""
        first = min(self.grown, key=lambda grown: grown.course.start)
        last = max(self.grown, key=lambda grown: grown.course.end)
        start = first.course.start
        tables_of = [member.table for member in self.geometry.members]
        wires, twines = tables_of.count("wires"), tables_of.count("twines")
        tensioned = wires + twines
        if not self.built:
            late = all(member.table in ("cages", "twines") for member in self.geometry.members)
            job, since = ("build-day", start) if late else ("build", start - _BUILD_FROM)
            yield self._own(first, job, since, start, minutes=self._labour)
        if tensioned:
            day = float(start + _TENSION_FIRST)
            for number in range(1, _TENSION_MOST + 1):
                if day >= last.course.end - 14:
                    break
                said = {"since": _SINCE[number > 1]}
                minutes = tables.jobs()["tension"].minutes + _WIRE_MINUTES * wires + _TWINE_MINUTES * twines
                yield self._own(first, "tension", day, day + 6, number, said, minutes)
                day += _TENSION_EVERY
        leafiest = max(self.grown, key=lambda grown: grown.crop.cover)
        for number, (days, words) in enumerate(
            (
                (leafiest.crop.t50_d, "Half the face is leaf"),
                (leafiest.crop.t95_d, "The face is full of leaf"),
            ),
            start=1,
        ):
            day = float(leafiest.grown_on(days))
            if day < leafiest.course.end - 14:
                yield self._own(leafiest, "look", day, day + 6, number, {"since": words})
        ends = [last.course.end]
        for number, cover in enumerate(self.structure.covers, start=1):
            on, off = cover_span(self.site.garden, cover)
            named = {"cover": tables.covers()[cover.cover].name}
            yield self._own(first, "cover-on", on, on + 3, number, named)
            yield self._own(first, "cover-off", off, off + 3, number, named)
            ends.append(off)
        if any(grown.calendar.counted_from == "shoots" for grown in self.grown):
            return
        down = max(ends) + _DRY[1]
        yield self._own(last, "take-down", down, down + _DOWN, minutes=_TAKES_DOWN * self._labour)

    @cached_property
    def _labour(self) -> float:
        """Return the minutes of everybody together that building takes, by the steps of its sheet. [min]"""
        family = family_of(self.structure.family)
        options: Typed = family.options.model_validate(self.structure.options)
        return labour_of(self.structure, options, self.geometry, self.site).hands

    def _own(
        self,
        grown: GrownPlanting,
        job: str,
        day: float,
        until: float,
        number: int = 1,
        words: Mapping[str, str] | None = None,
        minutes: float = 0.0,
    ) -> Task:
        task = self._task(grown, job, day, until, number, words=words)
        row = tables.jobs()[job]
        return replace(
            task,
            key=f"{grown.season}.{job}.{number}",
            planting=None,
            minutes=max(minutes or row.minutes, _LEAST_MINUTES),
        )


def _picked(task: Task, grown: GrownPlanting, kg: float) -> Task:
    """Return a pick with the minutes that so much takes. [kg]"""
    rate = grown.calendar.pick_kg_h
    if not rate:
        return replace(task, minutes=task.minutes + _FLOWER_MINUTES * _as_plants(grown.planting))
    return replace(task, minutes=task.minutes + 60.0 * kg / rate)


def _as_plants(planting: Planting) -> float:
    """Return how many plants of usual size a planting is as much work as: peas are many and small."""
    return planting.count * min(1.0, planting.spacing / _USUAL_SPACING)
