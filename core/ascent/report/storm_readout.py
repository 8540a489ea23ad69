"""What is told of the weather that comes and that was: typed, in the reader's words."""

from __future__ import annotations

import datetime as dt

from ..plan.fields import Typed
from ..plan.record import Finding
from ..season.storm import Outcome
from ..season.watch import ActKey, ColdOutcome


class DayAhead(Typed):
    """A day of a forecast as it is written."""

    on: dt.date
    label: str
    low: str
    high: str
    rain: str
    gust: str


class MoveReport(Typed):
    """Something to do before a storm, and what the structure holds to after it."""

    key: str
    title: str
    how: str
    minutes: int
    after: str


class StormRow(Typed):
    """A structure before a storm: what is expected of it, in words, and what helps, the most for a minute
    first.
    """

    structure: str
    outcome: Outcome
    brief: str
    words: str
    weakest: str
    moves: tuple[MoveReport, ...]
    together: str


class StormReport(Typed):
    """A storm that is forecast; the structures that want something done come first.

    hold, bare: how many hold, and on how many nothing grows by the plan. left_out: what is said of those
    that cannot be calculated.
    """

    on: dt.date
    label: str
    words: str
    general: tuple[str, ...]
    rows: tuple[StormRow, ...]
    hold: int
    bare: int
    left_out: tuple[str, ...]


class AfterRow(Typed):
    """A structure after a storm: where to look first, and what was found, if anybody has said."""

    structure: str
    look: str
    found: Finding | None
    note: str


class AfterReport(Typed):
    """A storm that was: structures in the order in which they are looked at."""

    on: dt.date
    words: str
    rows: tuple[AfterRow, ...]


class ActReport(Typed):
    """Something to do before a cold night, and what it saves."""

    key: ActKey
    title: str
    how: str
    minutes: int
    saves: str


class ColdRow(Typed):
    """A planting before a cold night, in words, and what helps, the most for a minute first."""

    structure: str
    planting: str
    outcome: ColdOutcome
    words: str
    acts: tuple[ActReport, ...]


class ColdReport(Typed):
    """A cold night that is forecast; what saves the most in a minute comes first."""

    on: dt.date
    words: str
    rows: tuple[ColdRow, ...]


class HeatReport(Typed):
    """Hot days that are forecast: what they do, a sentence for each crop, with where it grows."""

    on: dt.date
    words: str
    crops: tuple[str, ...]
    acts: tuple[str, ...]


class WeatherReport(Typed):
    """The weather of a garden: what is expected, a storm, a cold night or heat of it, a storm that was."""

    station: str
    age: str
    days: tuple[DayAhead, ...]
    storm: StormReport | None
    cold: ColdReport | None
    heat: HeatReport | None
    after: AfterReport | None
