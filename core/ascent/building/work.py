"""The work of building a structure: its family's steps, each with the pieces it uses and its minutes."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from .. import tables
from ..buying.pieces import Piece, pieces_of, use_of_supply
from ..buying.work import people_of, setting_of, site_minutes, step_minutes
from ..families import family_of
from ..family.steps import Step
from ..path.geometry import Geometry, Member
from ..plan.fields import Joining
from ..plan.structure import Build
from ..site import Site
from ..tables import rows

_JOINT = "joint"


@dataclass(frozen=True)
class Used:
    """What a step uses of one item: so many pieces of a length [m], or so many metres."""

    item: rows.Item
    count: int
    length: float
    use: str


@dataclass(frozen=True)
class WorkStep:
    """A step of one structure.

    pieces: what it uses. minutes: of one practised adult. joint: the row of joints.csv it is joined by, if
    any.
    """

    step: Step
    members: tuple[Member, ...]
    pieces: tuple[Piece, ...]
    minutes: float
    joint: str | None

    @property
    def key(self) -> str:
        """Return its key within the structure."""
        return self.step.own_key

    @property
    def row(self) -> rows.StepText:
        """Return its words."""
        return tables.steps()[self.step.row]

    @property
    def people(self) -> int:
        """Return how many are needed for it."""
        return people_of(self.step)

    @cached_property
    def used(self) -> tuple[Used, ...]:
        """Return what it uses, alike pieces together."""
        alike: dict[tuple[str, float, str], list[Piece]] = {}
        for piece in self.pieces:
            alike.setdefault((piece.item.key, round(piece.length, 3), piece.use), []).append(piece)
        return tuple(
            Used(those[0].item, sum(piece.count for piece in those), length, use)
            for (_, length, use), those in alike.items()
        )


def work_of(site: Site, build: Build, geometry: Geometry, joining: Joining = "usual") -> tuple[WorkStep, ...]:
    """Return the steps of building a structure, in order.

    Every piece of the parts list is in one step, and no step has another.

    Args:
        site: Where it stands.
        build: The structure.
        geometry: It laid out.
        joining: Whether it is joined as is usual for its kind, or the other way.
    """
    family = family_of(build.family)
    options = family.options.model_validate(build.options)
    steps = family.steps(options, geometry, build.plantings, site, joining)
    members = {member.key: member for member in geometry.members}
    step_of = {key: step.own_key for step in steps for key in step.members}
    use_of: dict[str, str] = {}
    for step in steps:
        for key in step.supplies:
            use_of.setdefault(use_of_supply(key), step.own_key)
    pieces: dict[str, list[Piece]] = {}
    joined = ""
    for piece in pieces_of([geometry]):
        where = step_of.get(piece.member) if piece.member else use_of.get(piece.use)
        if piece.way == "joined" and not joined:
            joined = where or ""
        if piece.use == _JOINT:
            where = joined
        pieces.setdefault(where or "", []).append(piece)
    setting = setting_of(options)
    works = []
    for n, step in enumerate(steps):
        set_ = tuple(members[key] for key in step.members)
        minutes = step_minutes(step, set_, setting, len(geometry.plants)) + (
            site_minutes() if n == 0 else 0.0
        )
        own = tuple(pieces.get(step.own_key, ()))
        works.append(WorkStep(step, set_, own, minutes, _joint(tables.steps()[step.row], own)))
    return tuple(works)


def _joint(row: rows.StepText, pieces: tuple[Piece, ...]) -> str | None:
    """Return by which joint a step joins: its own, or that of the item it is made with."""
    if row.joint != "*":
        return row.joint
    made_with = (piece.item for piece in pieces if isinstance(piece.item, rows.Tie | rows.Fitting))
    return next((item.joint for item in made_with if item.joint), None)


def taking_down(work: tuple[WorkStep, ...]) -> tuple[WorkStep, ...]:
    """Return the steps of taking a structure down: those of building it in reverse order, as far as
    anything is to undo.
    """
    return tuple(step for step in reversed(work) if step.row.undo)
