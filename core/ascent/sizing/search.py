"""The best of a grid: what is tried once teaches what holds of all that is moved by the same options.

Each link, group of parts and remark has a table over the options that move it. What was tried stands in it;
of what was not, something better than is to be expected is believed until it is tried. So the cheapest way
that may still hold is tried next, and once that is one that was tried and holds, nothing cheaper on the grid
does.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import reduce
from typing import Any

import numpy as np

from .. import tables
from ..buying.lists import shopping
from ..families import family_of
from ..family.options import extra_of
from ..mechanics import Array
from ..path.loadpath import Link
from ..plan.model import Site, Structure
from ..report.evaluation import unfit
from .fixes import never
from .grid import Axis, Grid
from .trials import MOST, Laid, Share, Trial, laid, loaded, margin_of, shares_of

Indices = tuple[int, ...]  # of the level of each axis

_TOLERANCES = {  # how much better than predicted what was not tried is believed to be, at least
    "link": math.log(1.15),
    "parts": math.log(1.5),
    "wrong": math.inf,
}
_OFTEN_WRONG = 1.5  # and how many times as much as any was found to be
_LITTLE = 0.5  # added to a cost before its logarithm is taken
_EVEN = 1e-4  # of two that cost the same the one with more to spare: weight of the logarithm of a margin
_ENOUGH = math.log(3.0)  # to spare
_LARGEST = 4_000_000  # entries of a table
_SMALL = 20_000  # entries of a table whose margins are told apart where all of them do
_MOST_SPENT = 50.0  # of the logarithm of what nothing tells the cost of, with the sign turned
_SAME = 1e-9
_FINE = 0.02  # step of the logarithm of a margin in which the strongest is found


class TooLarge(Exception):
    """A grid whose tables would be too large; a coarser one is needed."""


@dataclass(frozen=True)
class Best:
    """The best of a grid.

    options: of the best way, or of the strongest where none holds; those on the grid alone.
    holds: whether it holds. proven: whether nothing on the grid can be better; not so where it was stopped.
    tried: ways laid out one by one. size: ways on the grid.
    """

    options: dict[str, Any]
    trial: Trial
    holds: bool
    proven: bool
    tried: int
    size: int


Factor = tuple[tuple[int, ...], Array]  # axes, and a cost over them


class _Table:
    """A figure over the options that move it: known where it was tried, predicted where others tell.

    The logarithm of the figure is taken as a sum of what each option adds; what no trial tells is unknown.
    """

    def __init__(self, axes: Sequence[Axis], moved_by: frozenset[str], tolerance: float) -> None:
        self.over: list[int] = []
        self.classes: list[Array] = []  # of each axis, the class of each level
        self.features: list[list[list[int]]] = []  # of each axis and class
        self.tolerance = tolerance
        names: dict[tuple[str, Any], int] = {}
        for number, axis in enumerate(axes):
            own = [
                tuple(sorted((o, v) for o, v in level.items() if o in moved_by)) for level in axis.levels
            ]
            different = list(dict.fromkeys(own))
            if len(different) > 1:
                self.over.append(number)
                self.classes.append(np.array([different.index(each) for each in own]))
                self.features.append([[names.setdefault(o, len(names)) for o in each] for each in different])
        self.width = len(names)
        self.shape = tuple(len(each) for each in self.features)
        if math.prod(self.shape) > _LARGEST:
            raise TooLarge
        self.known: dict[Indices, float] = {}
        self._array: Array | None = None
        self._predictions: Array | None = None

    def at(self, indices: Indices) -> Indices:
        """Return the entry that a way of building has."""
        return tuple(
            int(classes[indices[number]]) for number, classes in zip(self.over, self.classes, strict=True)
        )

    def learn(self, indices: Indices, value: float) -> bool:
        """Enter a figure that was tried, and return whether it is new; of two that should be the same the worse
        stands.
        """
        entry = self.at(indices)
        if entry in self.known and self.known[entry] <= value + _SAME:
            return False
        if self._predictions is not None and math.isfinite(self._predictions[entry]):
            self.tolerance = max(self.tolerance, _OFTEN_WRONG * (value - self._predictions[entry]))
        self.known[entry] = value
        self._array = None
        return True

    def believed(self) -> Array:
        """Return the figure of every entry: as known, or predicted and better by as much as is to be expected,
        or without bound.
        """
        if self._array is None:
            self._predictions = self._predicted()
            self._array = np.array(self._predictions + self.tolerance).reshape(self.shape)
            for entry, value in self.known.items():
                self._array[entry] = value
        return self._array

    def spread(self, over_entries: Array) -> Factor:
        """Return a figure of each entry as one of each level of its axes."""
        return tuple(self.over), over_entries[np.ix_(*self.classes)] if self.over else over_entries

    def _predicted(self) -> Array:
        if not self.known or not self.over or math.isinf(self.tolerance):
            return np.full(self.shape, np.inf)
        design = np.zeros((len(self.known), self.width))
        for row, entry in enumerate(self.known):
            for axis, level in enumerate(entry):
                design[row, self.features[axis][level]] = 1.0
        values = np.array(list(self.known.values()))
        weights, turned = np.linalg.eigh(design.T @ design)
        told = turned[:, weights > 1e-8]
        added = told @ ((told.T @ (design.T @ values)) / weights[weights > 1e-8])
        first = next(iter(self.known))
        total: Array = np.full((1,) * len(self.shape), values[0])
        for axis, features in enumerate(self.features):
            own = np.zeros((len(features), self.width))
            for level, group in enumerate(features):
                own[level, group] += 1.0
            own -= own[first[axis]]
            untold = np.linalg.norm(own - own @ told @ told.T, axis=1) > 1e-6
            effect = np.where(untold, np.inf, own @ added)
            total = total + effect.reshape([-1 if a == axis else 1 for a in range(len(self.shape))])
        return np.array(np.broadcast_to(total, self.shape))


def least_of(factors: Sequence[Factor], sizes: Sequence[int]) -> tuple[float, Indices]:
    """Return the least sum of factors over all their axes, and where it is: one axis after another is decided
    for all that the others may be.

    Raises:
        TooLarge: A table on the way would be.

    Source: variable elimination; Dechter, Constraint Processing, 2003, chapter 4 (value from memory)
    """
    left, decided = list(factors), list[tuple[int, tuple[int, ...], Array]]()
    waiting = set(range(len(sizes)))
    while waiting:
        joined = {
            axis: tuple(sorted({a for axes, _ in left if axis in axes for a in axes} | {axis}))
            for axis in waiting
        }
        axis = min(waiting, key=lambda a: (math.prod(sizes[b] for b in joined[a]), a))
        over = joined[axis]
        if math.prod(sizes[a] for a in over) > _LARGEST:
            raise TooLarge
        mine = [factor for factor in left if axis in factor[0]]
        left = [factor for factor in left if axis not in factor[0]]
        total = reduce(np.add, (_along(factor, over) for factor in mine), np.zeros((1,) * len(over)))
        total = np.broadcast_to(total, [sizes[a] for a in over])
        place = over.index(axis)
        decided.append((axis, tuple(a for a in over if a != axis), np.argmin(total, axis=place)))
        left.append((tuple(a for a in over if a != axis), np.min(total, axis=place)))
        waiting.remove(axis)
    found: dict[int, int] = {}
    for axis, over, choice in reversed(decided):
        found[axis] = int(choice[tuple(found[a] for a in over)])
    return float(sum(float(total) for _, total in left)), tuple(found[a] for a in range(len(sizes)))


def _along(factor: Factor, over: tuple[int, ...]) -> Array:
    axes, values = factor
    return values.reshape([values.shape[axes.index(a)] if a in axes else 1 for a in over])


@dataclass
class Search:
    """What is known of a grid. Every search on it learns for the next.

    site, structure: What is sized, and where it stands.
    grid: What is looked through.
    enough: Asked before each trial whether to stop at what is found so far.
    """

    site: Site
    structure: Structure
    grid: Grid
    enough: Callable[[], bool] = never
    tried: int = 0
    _laid: dict[Indices, tuple[Laid, dict[str, Share]]] = field(default_factory=dict)
    _trials: dict[Indices, Trial] = field(default_factory=dict)
    _tables: dict[str, _Table] = field(default_factory=dict)
    _known: dict[tuple[str, float], Factor | None] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self._moves: Mapping[str, frozenset[str]] = family_of(self.structure.family).moves
        self._sizes = [len(axis.levels) for axis in self.grid.axes]
        self.start = tuple(self._present(axis) for axis in self.grid.axes)
        self.first = self._try(self.start)

    def cheapest(self, margin: float = 1.0) -> Best | None:
        """Return the cheapest way of the grid whose links all have a margin, nothing where none has.

        Of those that cost the same the one with most to spare, as far as was tried.
        """
        while True:
            if self.enough():
                return self._so_far(margin)
            cost, pick = least_of(self._factors(math.log(margin)), self._sizes)
            if not math.isfinite(cost):
                return None
            trial = self._trials.get(pick)
            if trial is not None and trial.margin >= margin and not self._worse(trial):
                return self._best(pick, margin, proven=True)
            if trial is None and self._links_known(pick) and not self._priced(pick):
                continue
            self._try(pick)

    def strongest(self, sum_of_money: float = math.inf) -> Best:
        """Return the way of most margin for a sum of money at most, to a step of 2 %; of all, the cheapest of
        those.
        """
        best = None
        low, high = math.log(self.first.margin) - _FINE, math.log(1e3)
        if self.first.cost > sum_of_money:
            low = math.log(1e-3)
        while high - low > _FINE and not self.enough():
            level = (low + high) / 2
            found = self.cheapest(math.exp(level))
            if found and found.trial.cost <= sum_of_money + _SAME:
                best, low = found, math.log(found.trial.margin)
            else:
                high = level
        return best or self._best(self.start, 1.0, proven=high - low <= _FINE)

    def _best(self, pick: Indices, margin: float, proven: bool) -> Best:
        trial = self._trials[pick]
        return Best(
            self.grid.at(pick), trial, trial.margin >= 1.0, proven, self.tried, self.grid.size
        )

    def _so_far(self, margin: float) -> Best | None:
        """Return the best of what was tried."""
        able = {
            pick: trial
            for pick, trial in self._trials.items()
            if trial.margin >= margin and not self._worse(trial)
        }
        if not able:
            return None
        return self._best(min(able, key=lambda pick: able[pick].cost), margin, proven=False)

    def _worse(self, trial: Trial) -> frozenset[str]:
        return trial.wrong - self.first.wrong

    def _present(self, axis: Axis) -> int:
        kind = family_of(self.structure.family).options
        now = kind.model_validate(self.structure.options)
        return next(
            number
            for number, level in enumerate(axis.levels)
            if all(getattr(now, option) == value for option, value in level.items())
        )

    def _factors(self, level: float) -> list[Factor]:
        """Return what is believed to be spent on each group of parts, and where something gives way or does not do;
        where nothing is known to, there is nothing to look at.
        """
        factors: list[Factor] = []
        for what, table in self._tables.items():
            key = (what, level if what.startswith("link ") else 0.0)
            if key not in self._known:
                self._known[key] = self._factor(what, table, level)
            factor = self._known[key]
            if factor is not None:
                factors.append(factor)
        return factors

    def _factor(self, what: str, table: _Table, level: float) -> Factor | None:
        believed = table.believed()
        if what.startswith("parts "):
            spent = np.maximum(np.exp(-np.minimum(believed, _MOST_SPENT)) - _LITTLE, 0.0)
            return table.spread(spent)
        fails = believed < (level - _SAME if what.startswith("link ") else 0.0)
        small = believed.size <= _SMALL and what.startswith("link ")
        if not fails.any() and not small:
            return None
        spare = (
            _EVEN * (_ENOUGH - np.minimum(believed, _ENOUGH)) if what.startswith("link ") else 0.0
        )
        return table.spread(np.where(fails, np.inf, spare))

    def _learn(self, what: str, pick: Indices, figure: float) -> None:
        """Enter a figure; of what nobody knows what moves it, all that is otherwise than at the start may."""
        if what not in self._tables:
            other = [a for a, s, p in zip(self.grid.axes, self.start, pick, strict=True) if s != p]
            moved_by = self._moves.get(what) or frozenset(
                o for axis in (other if self._moves else self.grid.axes) for o in axis.options
            )
            tolerance = _TOLERANCES[what.split()[0]]
            self._tables[what] = _Table(self.grid.axes, moved_by, tolerance)
        if self._tables[what].learn(pick, figure):
            for key in [key for key in self._known if key[0] == what]:
                del self._known[key]

    def _links_known(self, pick: Indices) -> bool:
        """Return whether every link of a way is known from others."""
        return all(
            table.at(pick) in table.known for what, table in self._tables.items() if what.startswith("link ")
        )

    def _structure(self, pick: Indices) -> Structure:
        options = {**self.structure.options, **self.grid.at(pick)}
        return self.structure.model_copy(update={"options": options})

    def _priced(self, pick: Indices) -> bool:
        """Lay a way out and learn what it costs; return whether that was known before."""
        if pick in self._laid:
            return True
        self.tried += 1
        structure = self._structure(pick)
        way = laid(self.site, structure)
        shares = shares_of(shopping(way.geometry, self.site.garden.prices))
        self._laid[pick] = (way, shares)
        for what in {f"parts {use}" for use in shares} | {w for w in self._tables if w.startswith("parts ")}:
            share = shares.get(what.removeprefix("parts "), Share())
            self._learn(what, pick, -math.log(share.cost + _LITTLE))
        return False

    def _try(self, pick: Indices) -> Trial:
        self._priced(pick)
        way, shares = self._laid[pick]
        structure = self._structure(pick)
        links = loaded(self.site, structure, way)
        wrong = unfit(way.options, way.geometry, structure, self.site)
        trial = Trial({link.key: margin_of(link) for link in links}, shares, wrong)
        self._trials[pick] = trial
        if len(self._trials) > 1:
            for what in {f"wrong {key}" for key in self._worse(trial)} | {
                w for w in self._tables if w.startswith("wrong ")
            }:
                said = what.removeprefix("wrong ") in wrong
                self._learn(what, pick, -1.0 if said else 1.0)
        for link in links:
            self._learn_link(pick, link)
        for what, table in self._tables.items():
            if what.startswith("link ") and what.removeprefix("link ") not in trial.margins:
                table.learn(pick, math.log(MOST))
        return trial

    def _learn_link(self, pick: Indices, link: Link) -> None:
        """Enter a link's margin, and those it has of other items that only change its own strength."""
        what = f"link {link.key}"
        self._learn(what, pick, math.log(margin_of(link)))
        if link.made_of is None or link.item is None:
            return
        for number, axis in enumerate(self.grid.axes):
            now = axis.levels[pick[number]]
            option = next(
                (
                    o
                    for o in link.levers
                    if o in now
                    and now[o] == link.item[1]
                    and extra_of(family_of(self.structure.family).options, o).get("table") == link.item[0]
                ),
                None,
            )
            if option is None:
                continue
            for other, level in enumerate(axis.levels):
                if level.keys() == now.keys() and all(now[o] == v for o, v in level.items() if o != option):
                    asked = link.asked_with(tables.item(link.item[0], level[option]))
                    if asked is not None:
                        there = (*pick[:number], other, *pick[number + 1 :])
                        self._learn(what, there, math.log(margin_of(asked)))
