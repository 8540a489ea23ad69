"""What was done: steps of building, differences, pull tests, tasks of the season, storms."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from .fields import Joining, Key, MemberKey, Named, OptionName, Remark, StepKey, Typed, counted_first, written

MOST_RECORDS = 600
MOST_STEPS, MOST_DIFFERING = 60, 300  # of a record
MOST_DIARIES, MOST_MARKS, MOST_STORMS = 600, 900, 200


class Tick(Typed):
    """A step that is done: when, by whom, and what there was to say."""

    at: dt.datetime
    who: Annotated[str, Field(max_length=80), AfterValidator(written)] = ""
    note: Remark = ""


class Differs(Typed):
    """What went in otherwise than planned: an option, all over or at one member, and what it came out at."""

    option: OptionName
    value: float | int | bool | Annotated[str, Field(max_length=80)]
    member: MemberKey = ""
    step: StepKey | None = None
    note: Remark = ""
    at: dt.datetime


class Reading(Typed):
    """A pull [N] and how far the post had moved at its height [m]."""

    pull: float = Field(ge=0.0, le=5000.0)
    moved: float = Field(ge=-0.1, le=1.0)


Readings = Annotated[tuple[Reading, ...], Field(min_length=2, max_length=60), counted_first(60)]


class PullTest(Typed):
    """A post pulled with a scale, up and perhaps back, in the order it was read.

    height: of the pull above the ground. [m] state: of the soil. moved_on: whether it crept on under the
    greatest pull.
    """

    member: MemberKey
    height: float = Field(ge=0.2, le=3.0)
    state: Literal["dry", "moist", "wet"] = "moist"
    readings: Readings
    moved_on: bool = False
    at: dt.datetime


Pulls = Annotated[dict[Annotated[str, Field(max_length=80)], PullTest], Field(max_length=40)]
Ticks = Annotated[dict[StepKey, Tick], Field(max_length=MOST_STEPS)]
Differing = Annotated[dict[Annotated[str, Field(max_length=160)], Differs], Field(max_length=MOST_DIFFERING)]


class Record(Named):
    """What was done of a structure: its steps as they are ticked, and what went in otherwise than planned.

    What it is built to is kept with the structure. stands: since when nothing is left to do.
    """

    structure: Key
    begun: dt.date
    joining: Joining = "usual"
    ticks: Ticks = Field(default_factory=dict)
    differs: Differing = Field(default_factory=dict)
    pulls: Pulls = Field(default_factory=dict)
    stands: dt.date | None = None


TaskKey = Annotated[str, Field(max_length=120, pattern=r"^[0-9]{4}\.[a-z0-9][a-z0-9.-]*$")]
MarkState = Literal["done", "skipped", "not-needed"]
Finding = Literal["stood", "leans", "slack", "torn", "fell"]
DayKey = Annotated[str, Field(pattern=r"^[0-9]{4}-[0-9]{2}-[0-9]{2}$")]


class Marked(Typed):
    """What became of a task: done, skipped, or not needed; when, by whom, what there was to say, and what was
    picked. [kg]
    """

    state: MarkState
    at: dt.datetime
    who: Annotated[str, Field(max_length=80), AfterValidator(written)] = ""
    note: Remark = ""
    picked: float | None = Field(None, ge=0.0, le=10_000.0)


class Found(Typed):
    """How a structure was found after a storm."""

    found: Finding
    at: dt.datetime
    who: Annotated[str, Field(max_length=80), AfterValidator(written)] = ""
    note: Remark = ""


Marks = Annotated[dict[TaskKey, Marked], Field(max_length=MOST_MARKS)]
AfterStorms = Annotated[dict[DayKey, Found], Field(max_length=MOST_STORMS)]


class Diary(Named):
    """What was done on a structure while it stood: its tasks as they were marked, and how it was found after
    each storm, by its day.
    """

    structure: Key
    marks: Marks = Field(default_factory=dict)
    storms: AfterStorms = Field(default_factory=dict)
