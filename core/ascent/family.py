"""The protocol of a support family, and how its options describe themselves."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, ClassVar, Literal, Protocol, TypeVar

import numpy as np
from pydantic import AfterValidator, Field

from .errors import UnknownItem
from .geometry import Geometry, Member
from .loadpath import Link, Remark, Service
from .loads.cases import Cases
from .loads.crop import Standing
from .mechanics import Array
from .model import Planting, Site, Structure, Typed
from .quantities import Kind
from .tables import ITEM_TABLES


@dataclass(frozen=True)
class Reason:
    """Why an option starts where it does: a text key with its numbers and words."""

    key: str
    values: Mapping[str, tuple[float, str]] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Need:
    """What a gardener asks for: a crop on one side of a bed."""

    crop: str
    count: int | None
    side: str
    training: str


@dataclass(frozen=True)
class Proposal:
    """A structure with every value filled in, and the reason for each."""

    options: Typed
    plantings: tuple[Planting, ...]
    reasons: Mapping[str, Reason]


@dataclass(frozen=True)
class Ask:
    """One number of a wish, SI: what it is, where it starts and what is allowed."""

    name: str
    kind: Kind
    start: float
    low: float
    high: float
    step: float


@dataclass(frozen=True)
class Way:
    """One way towards a wish: the sentences that tell it, whether it gets there, the options to change, what comes of it."""

    says: tuple[str, ...]
    reaches: bool
    changes: Mapping[str, float]
    values: Mapping[str, tuple[float, str]]


@dataclass(frozen=True)
class Wish:
    """What a gardener may ask of a structure the other way round: the result given, the options sought.

    ways: from the numbers wanted, a family's options, the structure and its site to the ways there, the best first.
    """

    key: str
    asks: tuple[Ask, ...]
    ways: Callable[[Mapping[str, float], Any, Structure, Site], tuple[Way, ...]]


When = tuple[str, tuple[str, ...]]
DEEPER = (0.05, 0.10, 0.15, 0.25, 0.40)  # what fixes add to the depth of a post [m]


def _extra(group: str, kind: str, when: When | None, asked: bool, **more: Any) -> dict[str, Any]:
    """Return what an option says of itself; `asked` for what a gardener chose, which sizing leaves alone."""
    needed = {"when": {"option": when[0], "is": list(when[1])}} if when else {}
    return {"group": group, "kind": kind, **more, **needed, **({"asked": True} if asked else {})}


def measure(
    group: str, kind: Kind, default: float, low: float, high: float, step: float, *, tries: Sequence[float] | Literal["bays"] = (),
    when: When | None = None, asked: bool = False,
) -> Any:  # fmt: skip
    """Return an option that is a quantity with bounds and the step of its control, SI.

    Args:
        group: Its heading.
        kind: What it is a quantity of.
        default, low, high, step: In SI.
        tries: What fixes add to it, or ‘bays’ for a spacing that is closed up bay by bay.
        when: The option it depends on, and the values of that.
        asked: Whether it is the gardener's own choice.
    """
    more = {"step": step, **({"tries": tries if tries == "bays" else list(tries)} if tries else {})}
    return Field(default, ge=low, le=high, json_schema_extra=_extra(group, kind, when, asked, **more))


def item(group: str, table: str, default: str, role: str = "", *, when: When | None = None, asked: bool = False) -> Any:
    """Return an option chosen from a table; `role` narrows the rows, `when` the option it depends on."""
    return Field(default, json_schema_extra=_extra(group, "item", when, asked, table=table, role=role))


def row_of(table: str, role: str = "") -> AfterValidator:
    """Return the check that an option names a row of a table, one that serves in a role if one is given."""

    def check(key: str) -> str:
        try:
            found = ITEM_TABLES[table]()[key]
        except UnknownItem as error:
            raise ValueError(str(error)) from error
        roles = getattr(found, "roles", ()) or getattr(found, "use", ())
        if role and role not in roles:
            raise ValueError(f"a row of {table} that serves as {role} is allowed")
        return key

    return AfterValidator(check)


def choice(group: str, default: Any, *, when: When | None = None, asked: bool = False) -> Any:
    """Return an option with a few named values, or a yes and no."""
    return Field(default, json_schema_extra=_extra(group, "choice", when, asked))


OptionsT = TypeVar("OptionsT", bound=Typed)


class Loaded(Protocol):
    """A structure under the loads of its cases."""

    @property
    def standings(self) -> tuple[Standing, ...]:
        """Return the course of everything that grows on it, by planting; living supports come last."""
        ...

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        ...

    def service(self) -> tuple[Service, ...]:
        """Return how far things move; the first is the lean of the top."""
        ...

    def balance(self) -> tuple[Array, Array]:
        """Return what is put on the whole structure across its row, and what its feet are asked for of it, over cases."""
        ...


class Family(Protocol[OptionsT]):
    """One kind of trellis: pure functions from options to geometry, load path and words of caution.

    round: whether the wind finds it alike from every side, rather than as a face along its row.
    """

    key: ClassVar[str]
    options: type[OptionsT]
    wishes: ClassVar[tuple[Wish, ...]] = ()
    round: ClassVar[bool] = False

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return the structure this family starts with for a need, each value with its reason."""
        ...

    def geometry(self, options: OptionsT, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return the members, plants and measures."""
        ...

    def loaded(self, options: OptionsT, geometry: Geometry, structure: Structure, site: Site, cases: Cases) -> Loaded:
        """Return the structure under the loads of the cases."""
        ...

    def remarks(self, options: OptionsT, geometry: Geometry, structure: Structure, site: Site) -> tuple[Remark, ...]:
        """Return what fits and what does not, apart from strength."""
        ...

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return text keys of the cautions of building it."""
        ...


def extra_of(options: Typed | type[Typed], name: str) -> dict[str, Any]:
    """Return what an option says of itself."""
    kind = options if isinstance(options, type) else type(options)
    extra = kind.model_fields[name].json_schema_extra
    return extra if isinstance(extra, dict) else {}


def tributary(xs: Array, plants: Array, half: float) -> int:
    """Return the most plants within half a bay of any of the stations xs."""
    if not len(plants):
        return 0
    return int(np.max(np.sum(np.abs(plants[None, :] - xs[:, None]) <= half + 1e-9, axis=1)))


def keys(members: tuple[Member, ...]) -> tuple[str, ...]:
    """Return the members' keys."""
    return tuple(member.key for member in members)
