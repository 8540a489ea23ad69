"""What the API gives of a garden's season."""

from __future__ import annotations

import datetime as dt

from ascent.plan.fields import Key, SeasonYear, Typed
from ascent.report.season_readout import WeekReport, YearReport
from ascent.report.storm_readout import WeatherReport
from ascent.words.quantities import System
from pydantic import Field


class Standing(Typed):
    """A structure as pages of the season name it: its number, name and bed."""

    id: int
    key: Key
    name: str
    bed: str


class WeekOut(Typed):
    """The days in a garden about today."""

    id: int
    name: str
    units: System
    may_edit: bool
    structures: list[Standing]
    report: WeekReport


class YearOut(Typed):
    """A garden's year on one sheet."""

    id: int
    name: str
    units: System
    may_edit: bool
    structures: list[Standing]
    report: YearReport


class WeatherOut(Typed):
    """The weather of a garden; what is wrong with the service that tells it, if anything.

    unseen: weeks that are over and not written down yet. coming: whether it is being asked for just now.
    """

    problem: str
    report: WeatherReport | None
    unseen: int
    coming: bool


class SkippedOut(Typed):
    """What missed picks do to a structure, in words."""

    words: str


class FeedEntriesIn(Typed):
    """Whether each task is an entry of a calendar; else each day of visits is."""

    each_task: bool


class FeedOut(Typed):
    """The address of a garden's calendar feed, if it has one; why it was withdrawn, if that was not asked
    for; whether each task is an entry of its calendar.
    """

    address: str | None
    ended: str
    each_task: bool


class RecordIn(Typed):
    """A garden's own daily record, as CSV, or the means of twelve months."""

    text: str = Field(max_length=4_000_000)


class RecordRead(Typed):
    """What a record was read as; no days where it was the means of twelve months."""

    days: int
    years: int
    last: str
    first: str


class CloseIn(Typed):
    """A season to be closed, by its year; cleared: plantings that are, by the keys of their structures."""

    year: SeasonYear
    cleared: dict[Key, tuple[Key, ...]] = Field(default_factory=dict, max_length=500)


class SownIn(Typed):
    """A planting as it would be planted on another day, over the weeks of a sheet; nothing is stored."""

    structure: Key
    planting: Key
    planted: dt.date
    monday: dt.date = Field(description="of the sheet’s first week")
    weeks: int = Field(ge=1, le=90)
