"""What is told of the season: typed, in the reader's words."""

from __future__ import annotations

import datetime as dt

from ..loads.outlook import Verdict
from ..plan.fields import Typed
from ..plan.record import MarkState


class TaskReport(Typed):
    """A task as it is read at the work: why, how and with what, in two lines; what became of it.

    until: last day that it is in time. late: whether that day has passed. waits: why it may not be done yet.
    """

    key: str
    job: str
    sort: str
    title: str
    why: str
    how: str
    tools: str
    minutes: int
    until: dt.date
    late: bool
    state: MarkState | None
    note: str
    waits: str = ""


class VisitReport(Typed):
    """What is to do at one structure on one day; minutes are of what is still to do."""

    structure: str
    on: dt.date
    minutes: int
    tasks: tuple[TaskReport, ...]


class DayReport(Typed):
    """A day in the garden: its visits in the order in which one walks."""

    on: dt.date
    label: str
    minutes: int
    visits: tuple[VisitReport, ...]


class GrowingReport(Typed):
    """A planting through a year: its dates, and whether they are good ones.

    share: how far it has grown in each week of the year, 0 to 1. windows: when it can be planted.
    window_words: the same, and why each is over.
    """

    planting: str
    crop: str
    name: str
    sown: dt.date | None
    planted: dt.date
    first: dt.date
    gone: dt.date
    verdict: Verdict
    words: str
    instead: str
    frost: str
    windows: tuple[tuple[dt.date, dt.date], ...]
    window_words: tuple[str, ...]
    share: tuple[float, ...]


class YearRow(Typed):
    """One structure through the year: what grows on it, and how many minutes of visits each week brings."""

    structure: str
    growing: tuple[GrowingReport, ...]
    minutes: tuple[int, ...]


class ClashReport(Typed):
    """What is between two crops that follow one another on a structure, and the ways out of it."""

    structure: str
    first: str
    second: str
    words: str
    ways: tuple[str, ...]


class TurnReport(Typed):
    """A bed through the years: what grew on it and when, what came back too soon, what may come next."""

    bed: str
    name: str
    past: tuple[str, ...]
    now: str
    warnings: tuple[str, ...]
    next: tuple[str, ...]


class HarvestWeek(Typed):
    """What a week brings in, in people’s measures, with its spread; what it is a glut or a gap of."""

    monday: dt.date
    label: str
    words: str
    kg: float
    low: float
    high: float
    crops: tuple[str, ...]
    mark: str


class HarvestRow(Typed):
    """What a structure brings in: in all, and by week [kg]; what came so far, and what that changes."""

    structure: str
    words: str
    weeks: tuple[float, ...]
    came: str = ""


class HarvestReport(Typed):
    """A garden’s harvest by week and by structure."""

    total: str
    weeks: tuple[HarvestWeek, ...]
    rows: tuple[HarvestRow, ...]


class RescueReport(Typed):
    """A support that is not built though its plants stand: what can still be done, best first."""

    structure: str
    words: str
    ways: tuple[str, ...]


class StillReport(Typed):
    """What still grows or stands when a season is closed, in a sentence.

    planting: its key where it is one that was planted and may be cleared by now. cleared: whether it is
    likely to be.
    """

    structure: str
    planting: str
    words: str
    cleared: bool


class ClosingReport(Typed):
    """What closing a season comes to: its year, whether anything of it has begun to grow, and what still
    grows, stands, or is to be planted.
    """

    year: int
    begun: bool
    still: tuple[StillReport, ...]


class HoursReport(Typed):
    """The hours of work that a year asks, and lighter ways, in words."""

    words: str
    ways: tuple[str, ...]


class YearReport(Typed):
    """A garden's year: its weeks, its frosts in words, a row for each structure, and what closing it comes
    to.

    left_out: what is said of structures whose season cannot be calculated.
    """

    label: str
    closing: ClosingReport
    today: dt.date
    mondays: tuple[dt.date, ...]
    last_frost: dt.date | None
    first_frost: dt.date | None
    frost_words: str
    warmth_words: str
    rows: tuple[YearRow, ...]
    clashes: tuple[ClashReport, ...]
    turns: tuple[TurnReport, ...]
    harvest: HarvestReport
    hours: HoursReport
    left_out: tuple[str, ...]


class WeekReport(Typed):
    """The days in the garden about a day: what is due today or on the last day that people came, and the days
    to come.

    overdue: tasks of earlier days that are still to do and not too late to be worth it. left_out: as for the
    year.
    """

    today: dt.date
    season: int
    label: str
    now: DayReport | None
    overdue: tuple[VisitReport, ...]
    rescues: tuple[RescueReport, ...]
    coming: tuple[DayReport, ...]
    left_out: tuple[str, ...]
