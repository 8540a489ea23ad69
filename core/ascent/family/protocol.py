"""The protocol of a support family: what it must provide."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Generic, Protocol, TypeVar

from ..loads.cases import Cases
from ..loads.crop import Growth
from ..mechanics import Array
from ..path.geometry import Geometry
from ..path.loadpath import Link, Remark, Service
from ..plan.fields import Joining, Side, Training, Typed
from ..plan.structure import Planting, Structure
from ..site import Site
from .care import Care
from .steps import Joined, Step
from .wishes import Wish


@dataclass(frozen=True)
class Reason:
    """Why an option starts where it does: a text key with its numbers and words."""

    key: str
    values: Mapping[str, tuple[float, str]] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Need:
    """What a gardener asks for: a crop on one side of a bed, and others on the same support.

    count: plants, or nothing for as many as fit. others: what grows beside it or further along the row; it
        asks less of the support than what leads. alike: beds or pots alike, among which the plants are shared
        out and which get one each. headroom: clear height that whoever walks under it needs; 0 where nobody
        does. [m] pulled: whether somebody may pull on it.
    """

    crop: str
    count: int | None
    side: Side
    training: Training
    others: tuple[Need, ...] = ()
    alike: int = 1
    headroom: float = 0.0
    pulled: bool = False

    @property
    def crops(self) -> tuple[Need, ...]:
        """Return every crop of it, what leads first."""
        return (self, *self.others)

    @property
    def sides(self) -> Side:
        """Return which sides anything grows on."""
        sides = {need.side for need in self.crops}
        return sides.pop() if len(sides) == 1 else "both"


@dataclass(frozen=True)
class Proposal:
    """A structure with every value filled in, and the reason for each.

    given: options that are as they were asked for, which no rounding may move.
    """

    options: Typed
    plantings: tuple[Planting, ...]
    reasons: Mapping[str, Reason]
    given: frozenset[str] = frozenset()


OptionsT = TypeVar("OptionsT", bound=Typed)


class Loaded(Protocol):
    """A structure under the loads of its cases."""

    @property
    def growths(self) -> tuple[Growth, ...]:
        """Return the course of everything that grows on it, by planting; living supports come last."""
        ...

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        ...

    def service(self) -> tuple[Service, ...]:
        """Return how far things move; the first is the lean of the top."""
        ...

    def balance(self) -> tuple[Array, Array]:
        """Return the horizontal load across the row, and the reaction of the feet to it, over cases. [N]"""
        ...


@dataclass(frozen=True)
class Family(Generic[OptionsT]):
    """One kind of trellis: pure functions from options to geometry, load path and words of caution.

    propose: the structure it starts with for a need, each value with its reason.
    geometry: members, plants and measures.
    loaded: the structure under the loads of some cases.
    remarks: what fits and what does not, apart from strength.
    cautions: text keys of the cautions of building it.
    wishes: what may be wished of it, with the ways to it.
    moves: what each of its options moves.
    steps: how it is built, step by step, joined as is usual or the other way.
    tending: what its crops ask of whoever tends it.
    joined: where it is usually joined, where that can be chosen.
    round: whether the wind finds it alike from every side, rather than as a face along its row.
    """

    key: str
    options: type[OptionsT]
    propose: Callable[[Need, Site], Proposal]
    geometry: Callable[[OptionsT, tuple[Planting, ...], Site], Geometry]
    loaded: Callable[[OptionsT, Geometry, Structure, Site, Cases], Loaded]
    remarks: Callable[[OptionsT, Geometry, Structure, Site], tuple[Remark, ...]]
    cautions: Callable[[Geometry], tuple[str, ...]]
    moves: Mapping[str, frozenset[str]]
    steps: Callable[[OptionsT, Geometry, tuple[Planting, ...], Site, Joining], tuple[Step, ...]]
    tending: Callable[[OptionsT, Geometry, tuple[Planting, ...], Site], tuple[Care, ...]]
    joined: Joined | None = None
    wishes: tuple[Wish, ...] = ()
    round: bool = False
