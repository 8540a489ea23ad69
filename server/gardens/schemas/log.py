"""What the API takes and gives of a garden's log."""

from __future__ import annotations

import datetime as dt

from ascent.log.line import LONGEST
from ascent.plan.entries import Entry, EntryKind
from ascent.plan.fields import Typed
from ascent.plan.place import Heeded, Taught
from ascent.report.lesson_readout import LessonReport
from ascent.report.life import LifeReport
from ascent.report.log import LogKindReport
from ascent.report.years import YearsReport
from ascent.words.quantities import System
from pydantic import Field


class EntryRow(Typed):
    """An entry as it is read: what happened, where, who wrote it; its fields, and how its quantities are
    written, to be corrected.

    structure: number of its support, where that is still there.
    """

    key: str
    revision: int
    name: str
    label: str
    words: str
    place: str
    structure: int | None
    written: dict[str, str]
    fields: Entry


class LogPlace(Typed):
    """A support or bed that an entry can be of: its key and name, and the crops on it."""

    key: str
    name: str
    support: bool
    crops: list[str]


class LogAsked(Typed):
    """Which entries are asked for: of a kind, of a support or bed, before the mark a page ended with."""

    before: str = Field("", pattern=r"^([0-9]{4}-[0-9]{2}-[0-9]{2}\.[0-9]{1,12})?$")
    kind: EntryKind | None = None
    about: str = Field("", max_length=64)


class LogOut(Typed):
    """A page of a garden’s log, the latest first; what the next begins with, and what can be written."""

    id: int
    name: str
    units: System
    may_edit: bool
    today: dt.date
    kinds: tuple[LogKindReport, ...]
    places: list[LogPlace]
    crops: list[tuple[str, str]]
    rows: list[EntryRow]
    next: str


class LessonOut(Typed):
    """Something that the log teaches, and all that the garden counts with once it is used, or is not any
    more.
    """

    report: LessonReport
    use: tuple[Taught, ...]
    stop: tuple[Taught, ...]


class LessonsOut(Typed):
    """All that the log of a garden teaches."""

    id: int
    may_edit: bool
    ignores: tuple[Heeded, ...]
    lessons: tuple[LessonOut, ...]


class YearsOut(Typed):
    """A garden’s years side by side."""

    id: int
    report: YearsReport


class LogLineIn(Typed):
    """A line to be read, and the key of the support or bed at which it is written."""

    line: str = Field(max_length=LONGEST)
    about: str = Field("", max_length=64)


class LogLineOut(Typed):
    """What a line says, before it is saved."""

    name: str
    label: str
    words: str
    place: str


class LifeOut(Typed):
    """The life of a support on one page."""

    id: int
    key: str
    name: str
    garden: int
    bed_name: str
    report: LifeReport
