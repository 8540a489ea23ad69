"""The grid a structure is sized on: which options, which values of each, which rows of the tables."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping, Sequence, Set
from dataclasses import dataclass
from itertools import product
from typing import Any, get_args

from .. import tables
from ..checks import bending
from ..families import family_of
from ..family.options import extra_of, goes_with, in_use
from ..plan.fields import Typed
from ..plan.structure import Structure
from ..site import Site
from ..tables.rows import Anchor, Cage, Fitting, Item, Mesh, Post, Tie, Twine, Wire
from ..words.quantities import System

Level = Mapping[str, Any]  # of an axis: options and the values it gives them

_INCH, _POUND = 0.0254, 4.4482216
_ROUND: dict[tuple[str, System], tuple[float, ...]] = {
    ("length", "metric"): (0.01, 0.02, 0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.5, 1.0),
    ("length", "imperial"): tuple(_INCH * n for n in (0.5, 1, 2, 3, 4, 6, 12, 24, 36)),
    ("force", "metric"): (5.0, 10.0, 20.0, 50.0, 100.0, 200.0),
    ("force", "imperial"): tuple(_POUND * n for n in (1, 2, 5, 10, 25, 50)),
}
_PLAIN = (1.0, 2.0, 5.0, 10.0, 15.0, 30.0)
_NEAR = 1e-6
_ALIKE = 0.03  # share by which a round value may differ from the present one and stand for it


@dataclass(frozen=True)
class Extent:
    """How fine a grid is: rows of a table and values of a measure that are evaluated by themselves, and of
    those that are only in use with some choice.
    """

    rows: int
    values: int
    rows_beside: int
    values_beside: int


FINE = Extent(12, 7, 4, 4)
COARSE = Extent(6, 4, 2, 2)
QUICK = Extent(4, 3, 1, 1)
LEAST = Extent(2, 2, 1, 1)


@dataclass(frozen=True)
class Axis:
    """Options that are decided together, and everything they may be together.

    A choice goes with the options that are only in use with it.

    strengths: of each level, where it is a row of a table and nothing else; only their ratios mean anything.
    """

    options: tuple[str, ...]
    levels: tuple[Level, ...]
    strengths: tuple[float, ...] = ()


@dataclass(frozen=True)
class Grid:
    """Everything that is looked through: the product of its axes. What is not on it stays as it is."""

    axes: tuple[Axis, ...]

    @property
    def size(self) -> int:
        """Return how many ways of building it holds."""
        return math.prod(len(axis.levels) for axis in self.axes)

    def at(self, indices: Sequence[int]) -> dict[str, Any]:
        """Return the options of one of its ways, by the level of each axis."""
        return {
            option: value
            for axis, index in zip(self.axes, indices, strict=True)
            for option, value in axis.levels[index].items()
        }


def grid_of(
    site: Site,
    structure: Structure,
    system: System,
    extent: Extent = FINE,
    locked: Set[str] = frozenset(),
    freed: Set[str] = frozenset(),
) -> Grid:
    """Return the grid of a structure.

    On it are the options that are not a gardener's own choice. Of a table those rows that no other of it
    beats in price, strength, life and reach at once, thinned evenly by price; of a measure round values of
    the reader's units near what it is; of a spacing one for each number of bays. What the structure has now
    is always among them.

    Args:
        site: Where it stands.
        structure: What is sized.
        system: Whose round numbers.
        extent: How fine.
        locked: Options to leave as they are.
        freed: Options to decide although they are a gardener's own.
    """
    kind: type[Typed] = family_of(structure.family).options
    now = kind.model_validate(structure.options)
    free = [
        name
        for name in kind.model_fields
        if name in freed or not (extra_of(now, name).get("own_choice") or name in locked)
    ]
    maker = _Maker(now, free, site, system, extent)
    return Grid(tuple(axis for axis in maker.axes() if len(axis.levels) > 1))


@dataclass(frozen=True)
class _Maker:
    now: Typed
    free: Sequence[str]
    site: Site
    system: System
    extent: Extent

    def axes(self) -> Iterable[Axis]:
        """Yield an axis for each free option that depends on no other free one."""
        for name in self.free:
            if self._ruled_by(name) not in self.free and in_use(self.now, name):
                levels = self._levels(name, self.extent.rows, self.extent.values)
                options = tuple(dict.fromkeys(o for level in levels for o in level))
                yield Axis(options, tuple(levels), self._strengths(options, levels))

    def _strengths(self, options: Sequence[str], levels: Sequence[Level]) -> tuple[float, ...]:
        extra = extra_of(self.now, options[0])
        if len(options) > 1 or extra["kind"] != "item":
            return ()
        rows = (tables.item(extra["table"], level[options[0]]) for level in levels)
        strengths = tuple(_marks(row, self.site)[1] for row in rows)
        return strengths if all(strength > 0 for strength in strengths) else ()

    def _ruled_by(self, name: str) -> str:
        return str(extra_of(self.now, name).get("when", {}).get("option", ""))

    def _levels(self, name: str, rows: int, most: int) -> list[Level]:
        """Return what an option may be, with what is in use then."""
        beside = self.extent.rows_beside, self.extent.values_beside
        levels: list[Level] = []
        for value in self._values(name, rows, most):
            ruled = [o for o in self.free if self._ruled_by(o) == name and goes_with(self.now, o, value)]
            levels += [
                {name: value} | {k: v for level in group for k, v in level.items()}
                for group in product(*(self._levels(o, *beside) for o in ruled))
            ]
        return levels

    def _values(self, name: str, rows: int, most: int) -> list[Any]:
        extra, now = extra_of(self.now, name), getattr(self.now, name)
        field = type(self.now).model_fields[name]
        if extra["kind"] == "choice":
            return [False, True] if field.annotation is bool else list(get_args(field.annotation))
        if extra["kind"] == "item":
            table, role = extra["table"], extra.get("role", "")
            return worth_trying(table, role, now, self.site, rows) if rows > 1 else [now]
        tries = extra.get("tries", ())
        if not tries or most < 2:
            return [now]
        low, high = (
            float(next(getattr(m, side) for m in field.metadata if hasattr(m, side))) for side in ("ge", "le")
        )
        if tries == "bays":
            length = float(getattr(self.now, "length", self.site.bed.length))
            values = _bays(length, now, low, high, self._steps("length"), most)
            bays = math.ceil(length / now - _NEAR)
            return sorted({*(v for v in values if math.ceil(length / v - _NEAR) != bays), now})
        reach = max(abs(step) for step in tries)
        low, high = max(low, now - reach), min(high, now + reach)
        if extra["kind"] == "count":
            return sorted({*_thinned(range(math.ceil(low), math.floor(high) + 1), most), now})
        values = round_values(low, high, self._steps(extra["kind"]), most)
        return sorted({*(v for v in values if not math.isclose(v, now, rel_tol=_ALIKE)), now})

    def _steps(self, kind: str) -> tuple[float, ...]:
        return _ROUND.get((kind, self.system), _PLAIN)


def round_values(low: float, high: float, steps: Sequence[float], most: int) -> list[float]:
    """Return the multiples of the finest of some steps that gives no more values between two bounds than
    are wanted. [the unit of the bounds]
    """
    for step in steps:
        first, last = math.ceil(low / step - _NEAR), math.floor(high / step + _NEAR)
        if last - first < most:
            break
    return [round(min(max(n * step, low), high), 4) for n in range(first, last + 1)]


def _bays(
    length: float, now: float, low: float, high: float, steps: Sequence[float], most: int
) -> list[float]:
    """Return for each number of bays near that of now the roundest spacing that gives it."""
    present = max(math.ceil(length / now - _NEAR), 1)
    first = max(present - most // 2, 1)
    spacings = []
    for bays in range(first, first + most):
        least, widest = length / bays, length / (bays - 1) if bays > 1 else math.inf
        least, widest = max(least, low), min(widest, high)
        if least > widest + _NEAR or math.ceil(length / least - _NEAR) != bays:
            continue
        spacings.append(_roundest(least, widest, length, bays, steps))
    return spacings


def _roundest(low: float, high: float, length: float, bays: int, steps: Sequence[float]) -> float:
    """Return the multiple of the coarsest step from `low` to `high` that makes so many bays; `low` itself, a
    little up, where none does.
    """
    for step in reversed(steps):
        value = round(math.ceil(low / step - _NEAR) * step, 4)
        if value <= high + _NEAR and math.ceil(length / value - _NEAR) == bays:
            return value
    return min(math.ceil(low * 1e4 - _NEAR) / 1e4, high)


def _thinned(values: Sequence[Any], most: int) -> list[Any]:
    """Return so many of some values at most, spread evenly, the first and last among them."""
    if len(values) <= most or most < 2:
        return list(values[:most])
    return [values[round(n * (len(values) - 1) / (most - 1))] for n in range(most)]


def worth_trying(table: str, role: str, now: str, site: Site, most: int) -> list[str]:
    """Return the rows of a table that are worth trying in a role, cheapest first, the present one among them
    and what may be had from the shed.

    Those that no other beats in price, strength, life and reach at once; what is stiff is not replaced by
    what hangs, and what fits one kind of post by what fits another.
    """
    present = tables.item(table, now)
    serving = [
        row
        for row in tables.ITEM_TABLES[table]().values()
        if not row.reclaimed and _serves(row, role, present)
    ]
    marks = {row.key: _marks(row, site) for row in serving}
    pareto_optimal = [
        row
        for row in serving
        if not any(_beats(marks[other.key], marks[row.key]) for other in serving if other is not row)
    ]
    pareto_optimal.sort(key=lambda row: (-marks[row.key][0], row.key))
    kept = [row.key for row in _thinned(pareto_optimal, most)]
    return list(dict.fromkeys((*kept, now, *_had(table, role, present, site, max(most // 2, 1)))))


def _had(table: str, role: str, now: Item, site: Site, most: int) -> list[str]:
    """Return what the shed has for a role that is worth trying: what nothing else there beats in strength,
    life, reach and how much of it there is.
    """
    rows = ((tables.item(table, each.item), each.amount) for each in site.spare if each.table == table)
    marks = {row.key: (*_marks(row, site)[1:], amount) for row, amount in rows if _serves(row, role, now)}
    pareto_optimal = [
        key for key in marks if not any(_beats(marks[other], marks[key]) for other in marks if other != key)
    ]
    return _thinned(sorted(pareto_optimal, key=lambda key: (-marks[key][0], key)), most)


def _serves(row: Item, role: str, now: Item) -> bool:
    """Return whether a row may be evaluated in a role where another is now."""
    return (not role or role in row.serves) and stands_in(row, now) and _fits(row, now)


def stands_in(row: Item, now: Item) -> bool:
    """Return whether a row may take the place of another: what is stiff is not replaced by what hangs."""
    return not (isinstance(now, Mesh) and isinstance(row, Mesh) and now.stiff and not row.stiff)


def _fits(row: Item, now: Item) -> bool:
    """Return whether a tie fits what another does."""
    return not (isinstance(now, Tie) and isinstance(row, Tie)) or row.fits in ("any", now.fits)


def _beats(one: Sequence[float], other: Sequence[float]) -> bool:
    return all(a >= b for a, b in zip(one, other, strict=True)) and tuple(one) != tuple(other)


def _marks(row: Item, site: Site) -> tuple[float, ...]:
    """Return what speaks for a row: cheapness, strength, life, reach."""
    price, strength, reach = _MARKS[type(row)](row, site) if type(row) in _MARKS else (0.0, 0.0, 0.0)
    return (-price, strength, row.life, reach)


def _of_post(row: Post, _site: Site) -> tuple[float, float, float]:
    moment = bending.moments(row)
    return row.price_m, min(moment.allowable, moment.lasting * 3), max(row.lengths_m)


def _of_mesh(row: Mesh, _site: Site) -> tuple[float, float, float]:
    return row.price_m2, row.wire, max(row.heights_m)


def _of_tie(row: Tie, _site: Site) -> tuple[float, float, float]:
    return row.price, row.break_N * row.strands * row.knot * row.season_end / row.factor, 0.0


def _of_wire(row: Wire, _site: Site) -> tuple[float, float, float]:
    return row.price_m, row.break_ * row.d**2 / row.factor, row.ductility


def _of_twine(row: Twine, _site: Site) -> tuple[float, float, float]:
    return row.price_m, row.break_N * row.season_end, 0.0


def _of_anchor(row: Anchor, site: Site) -> tuple[float, float, float]:
    worth: float = getattr(row, f"{tables.soils()[site.bed.soil].anchor}_N")
    return row.price, worth / row.factor, row.mass_kg


def _of_fitting(row: Fitting, _site: Site) -> tuple[float, float, float]:
    return row.price, row.working_N, 0.0


def _of_cage(row: Cage, _site: Site) -> tuple[float, float, float]:
    return row.price, row.wire * row.yield_, row.height_m


_MARKS: dict[type[Item], Callable[[Any, Site], tuple[float, float, float]]] = {
    Post: _of_post,
    Mesh: _of_mesh,
    Tie: _of_tie,
    Wire: _of_wire,
    Twine: _of_twine,
    Anchor: _of_anchor,
    Fitting: _of_fitting,
    Cage: _of_cage,
}
