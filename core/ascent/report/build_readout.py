"""What is told of building a structure: typed, in the reader's words."""

from __future__ import annotations

import datetime as dt
from typing import Any, Literal

from ..analysis.design import State
from ..drawing.views import View
from ..plan.bed import Tested
from ..plan.fields import Joining, Typed
from .readout import FixReport


class JointStrokeMark(Typed):
    """A stroke of a joint's drawing: through points, or a dot of half its width; metres from the middle."""

    ink: str
    wide: float
    closed: bool
    points: tuple[tuple[float, float], ...]


class JointReport(Typed):
    """How two things are joined, and that drawn."""

    key: str
    name: str
    how: str
    strokes: tuple[JointStrokeMark, ...]


class MayDiffer(Typed):
    """Something of a step that may come out otherwise: an option, and what was planned.

    choices: what it may be instead, keys and names; nothing of a measure or a count, which is written.
    members: where it may differ by itself, with how each is called; nothing where it is of the whole.
    """

    option: str
    label: str
    planned: str
    choices: tuple[tuple[str, str], ...]
    members: tuple[tuple[str, str], ...]


class DiffersReport(Typed):
    """Something that went in otherwise, in words."""

    key: str
    option: str
    member: str
    text: str
    note: str
    value: Any


class StepReport(Typed):
    """A step as it is read at the work."""

    key: str
    title: str
    do: str
    check: str
    hits: tuple[str, ...]
    joint: JointReport | None
    uses: tuple[str, ...]
    tools: tuple[str, ...]
    people: int
    minutes: float
    time: str
    caution: str
    members: tuple[str, ...]
    may_differ: tuple[MayDiffer, ...]
    differs: tuple[DiffersReport, ...]


class DownReport(Typed):
    """A step of taking down."""

    key: str
    title: str
    undo: str
    springs: str
    people: int


class BeforeLine(Typed):
    """Something to know before anything is driven; `wrong` where it must not be done so."""

    text: str
    wrong: bool = False


class ClearWay(Typed):
    """A change after which nothing is too near anything buried, as an edit of the structure."""

    text: str
    along: float
    across: float
    options: dict[str, float]


class BeforeReport(Typed):
    """What the bench warns of, what to look for in the ground and around, whom to ask, what to carry."""

    remarks: tuple[BeforeLine, ...]
    services: tuple[BeforeLine, ...]
    ways: tuple[ClearWay, ...]
    around: tuple[BeforeLine, ...]
    ask: tuple[str, ...]
    soil: str
    tools: tuple[str, ...]
    carry: tuple[str, ...]
    gear: tuple[str, ...]
    people: int
    clock: str
    work: str
    cautions: tuple[str, ...]


class CornerReport(Typed):
    """A corner to measure from: its letter, what it is, and where it lies on the plan. [m]"""

    letter: str
    text: str
    at: tuple[float, float]


class MarkReport(Typed):
    """A place to mark: its name, the two tapes, the running distance, and where it lies on the plan. [m]"""

    name: str
    member: str
    what: str
    tapes: str
    running: str
    peg: str
    at: tuple[float, float]


class StakeReport(Typed):
    """A stake-out in words."""

    corners: tuple[CornerReport, ...]
    marks: tuple[MarkReport, ...]
    lines: tuple[str, ...]
    squares: tuple[str, ...]
    edge: str


class StoodReport(Typed):
    """How what was built stands against its plan; where it falls short, what would still help, the best
    first.
    """

    state: State
    text: str
    like: str
    fixes: tuple[FixReport, ...]


class PullReport(Typed):
    """A pull test in words, and what would be kept of it for the bed."""

    key: str
    post: str
    words: str
    readings: tuple[tuple[str, str], ...]
    stiffness: str
    grip: str
    tested: Tested | None
    wrong: str


class PullsReport(Typed):
    """The pull tests of a structure: which posts can be pulled, what was found, and what the bed uses."""

    posts: tuple[tuple[str, str], ...]
    done: tuple[PullReport, ...]
    used: str


class JoinedReport(Typed):
    """Where it is joined, and why; the other way, and why one would."""

    now: Literal["ground", "place"]
    joining: Joining
    why: str
    other: Literal["ground", "place"]
    other_why: str


class BuildReport(Typed):
    """Everything of building a structure. `unprinted` warns of letters that paper cannot show."""

    name: str
    unprinted: str
    family: str
    bed: str
    fingerprint: str
    begun: dt.date | None
    plan_changed: str
    before: BeforeReport
    stake: StakeReport
    joined: JoinedReport | None
    steps: tuple[StepReport, ...]
    down: tuple[DownReport, ...]
    stood: StoodReport
    pulls: PullsReport
    views: tuple[View, ...]
    judgement: str
