"""What is told of a lesson: typed, in the reader’s words."""

from __future__ import annotations

from ..plan.bed import Tested
from ..plan.fields import Typed
from ..plan.place import Taught


class LessonLine(Typed):
    """One thing that a lesson is about: what the tables say, what is counted with now, what the log says."""

    label: str
    before: str
    now: str
    after: str


class LessonReport(Typed):
    """Something that the log teaches.

    key: its own. title: in one sentence. evidence: on what. lines: what it changes. moves: how far it moves
    the verdicts. caution: what speaks against it. used: whether it is counted with. taught: what is kept of
    it when it is accepted. bed, tested: of the ground of a bed, kept with the bed. structure, option, value:
    of a support, kept as its option; what it was before is not kept, so undo takes it back.
    """

    key: str
    title: str
    evidence: str
    lines: tuple[LessonLine, ...]
    moves: tuple[str, ...]
    caution: str = ""
    used: bool = False
    taught: tuple[Taught, ...] = ()
    bed: str = ""
    tested: Tested | None = None
    structure: str = ""
    option: str = ""
    value: float | None = None
