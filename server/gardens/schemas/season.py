"""What the API gives of a garden's season."""

from __future__ import annotations

from ascent.plan.model import Key, MonthDay, Typed
from ascent.telling.season_readout import WeekReport, YearReport
from ascent.words.quantities import System


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


class SownIn(Typed):
    """A planting as it would be planted on another day; nothing is stored."""

    structure: Key
    planting: Key
    planted: MonthDay
