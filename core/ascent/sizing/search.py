"""The best of a grid: what is evaluated once teaches what holds of all that is moved by the same options.

Each link, group of parts and remark has a table over the options that move it. What was evaluated stands in
it; of what was not, something better than is to be expected is hoped for until it is evaluated. So the
cheapest way that may still hold is evaluated next, and once that one was evaluated and holds, nothing
cheaper on the grid does.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Literal

import numpy as np

from .. import tables
from ..analysis.design import Design
from ..family.options import extra_of
from ..mechanics import Array
from ..path.loadpath import Link
from ..plan.fields import Typed
from .elimination import Factor, Indices, TooLarge, least_of
from .evaluations import MOST, Evaluation, PartsGroup, evaluated, margin_of
from .grid import Axis, Grid
from .surrogate import Surrogate

Laid = tuple[Evaluation, tuple[Link, ...]]
Sort = Literal["link", "parts", "wrong", "life"]
What = tuple[Sort, str]

_TOLERANCES = {"link": math.log(1.15), "parts": math.log(1.25), "wrong": math.inf, "life": math.inf}
_LITTLE = 0.5  # added to a cost before its logarithm is taken
_EVEN = 1e-4  # of two that cost the same the one with more to spare: weight of the logarithm of a margin
_ENOUGH = math.log(3.0)  # to spare
# what it weighs against the whole cost that a link is expected to give way, and more by how much
_GIVES_WAY = 0.5
_SMALL = 20_000  # entries of a table of margins that are told apart even where all of them do
_UNSEEN = np.float32(50.0)  # of the logarithm of a cost that nothing tells, with the sign turned
_SAME = 1e-6
_SAME_COST = 2e-3  # of sums of single precision, with what tells apart two that cost the same
_STEP = 0.02  # of the logarithm of a margin, in which the strongest is found
# how much better than predicted, in tolerances: what is expected, what may be, a second look
_HOPES = (0.0, 1.0, 2.5)


@dataclass(frozen=True)
class Best:
    """The best of a grid: which way, what comes of it, and whether it is proven that nothing on the grid is
    better; it is not where the search was stopped.
    """

    pick: Indices
    evaluation: Evaluation
    proven: bool


def never() -> bool:
    """Return False: the search has no time limit."""
    return False


_NOT_SOLD = 1e6


def cost_of(share: PartsGroup) -> tuple[float, float]:
    """Return what a share costs, and the price of its dearest pack. [money]"""
    return share.cost, share.step


@dataclass
class Search:
    """A search over a grid. Every evaluation improves the surrogate models for the next.

    design: What is sized.
    grid: What is looked through.
    enough: ClimateInputs before each evaluation whether to stop at what is found so far.
    most: Evaluations at most.
    amount: What is spent on a share of the parts, and by how much it may go up or down at once.
    least_life: Seasons that every part should last.
    strictly: Whether nothing may be wrong, rather than nothing that is not so now.
    laid: What came of ways that were laid out, by whichever search of the same grid.

    Raises:
        TooLarge: The grid is too fine for what moves what in it.
    """

    design: Design
    grid: Grid
    enough: Callable[[], bool] = never
    most: int = 1000
    amount: Callable[[PartsGroup], tuple[float, float]] = cost_of
    least_life: float = 0.0
    strictly: bool = False
    laid: dict[Indices, Laid] = field(default_factory=dict)
    evaluations: dict[Indices, Evaluation] = field(default_factory=dict)
    first: Evaluation = field(init=False)
    _by_sum: list[tuple[float, Indices]] = field(
        default_factory=list
    )  # ways evaluated and what is spent on each
    _steps: dict[str, float] = field(default_factory=dict)  # of groups of parts
    _learned: dict[What, Surrogate] = field(default_factory=dict)
    _factors: dict[tuple[What, float, float], Factor | None] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self._options: type[Typed] = self.design.family.options
        self._moves: Mapping[str, frozenset[str]] = self.design.family.moves
        self._sizes = [len(axis.levels) for axis in self.grid.axes]
        self.start = tuple(self._present(axis) for axis in self.grid.axes)
        self.attempt(self.start)

    def _counted(self, share: PartsGroup) -> tuple[float, float]:
        """Return what is spent on a group of parts, and its step; what cannot be had costs more than
        anything.
        """
        amount, step = self.amount(share)
        return amount + _NOT_SOLD * share.missing, step

    def _present(self, axis: Axis) -> int:
        now = self.design.options
        return next(
            number
            for number, level in enumerate(axis.levels)
            if all(getattr(now, option) == value for option, value in level.items())
        )

    def cheapest(self, margin: float = 1.0) -> Best | None:
        """Return the cheapest way of the grid whose links all have a margin and of which nothing is worse
        than now; nothing where there is none.

        First the way that is expected to be the cheapest is evaluated, again and again, which soon finds a
        good one; then the one that could be, which proves that there is no better. Of two that cost the same
        the one that is expected to have more to spare comes first.
        """
        best = self._best_tried(margin)
        hope = 0
        while not self.stopped():
            cost, pick = least_of(self._all_factors(math.log(margin), _HOPES[hope]), self._sizes)
            spent = self.spent(self.evaluations[best]) if best else math.inf
            if (
                not math.isfinite(cost)
                or (hope and cost >= spent - _SAME_COST)
                or (not hope and pick in self.evaluations)
            ):
                hope += 1
                if hope == len(_HOPES):
                    return self._told(best, proven=True)
            elif pick in self.evaluations:  # it costs more than its tables, decided apart, could tell
                return self._told(best, proven=pick == best)
            else:
                self.attempt(pick)
                if self._best_tried(margin) != best:
                    best, hope = self._best_tried(margin), 0
        return self._told(best, proven=False)

    def strongest(self, budget: float = math.inf) -> Best:
        """Return the way of most margin for a sum of money, to a step of 2 %; of all, the cheapest of those.

        Where even the cheapest costs more, the cheapest.
        """
        low = -math.log(MOST)
        best = self.cheapest(math.exp(low)) or Best(self.start, self.first, False)
        if best.evaluation.cost > budget + _SAME:
            return best
        high = math.log(MOST)
        while high - low > _STEP and not self.stopped():
            level = (low + high) / 2
            found = self.cheapest(math.exp(level))
            if found and found.evaluation.cost <= budget + _SAME:
                best, low = found, max(math.log(found.evaluation.margin), level)
            else:
                high = level
        return max(
            [best, *(Best(pick, evaluation, False) for pick, evaluation in self.evaluations.items())],
            key=lambda way: way.evaluation.margin if self._affords(way.evaluation, budget) else 0.0,
        )

    def _affords(self, evaluation: Evaluation, budget: float) -> bool:
        return evaluation.cost <= budget + _SAME and not self._worse(evaluation)

    def _told(self, pick: Indices | None, proven: bool) -> Best | None:
        if pick is None:
            return None
        return Best(pick, self.evaluations[pick], proven)

    def _best_tried(self, margin: float) -> Indices | None:
        return next(
            (pick for _, pick in sorted(self._by_sum) if self.does(self.evaluations[pick], margin)), None
        )

    def spent(self, evaluation: Evaluation) -> float:
        """Return what is spent on all parts, as this search counts it."""
        return sum(self._counted(share)[0] for share in evaluation.shares.values())

    def does(self, evaluation: Evaluation, margin: float = 1.0) -> bool:
        """Return whether a way has a margin, its parts can be had and last, and nothing is worse than now."""
        lasts = all(share.life >= self.least_life for share in evaluation.shares.values())
        return evaluation.margin >= margin and lasts and evaluation.to_be_had and not self._worse(evaluation)

    def stopped(self) -> bool:
        """Return whether the search has stopped."""
        return len(self.evaluations) >= self.most or self.enough()

    def _worse(self, evaluation: Evaluation) -> frozenset[str]:
        wrong = evaluation.unfit.wrong if self.strictly else evaluation.unfit.wrong - self.first.unfit.wrong
        return wrong | (evaluation.unfit.serious - self.first.unfit.keys)

    def _all_factors(self, level: float, hope: float) -> list[Factor]:
        """Return what is believed to be spent on each group of parts, and where a link gives way or something
        does not do; where nothing is known to, there is nothing to look at.
        """
        factors = []
        for what, surrogate in self._learned.items():
            key = (what, level if what[0] == "link" else 0.0, hope)
            if key not in self._factors:
                self._factors[key] = self._factor(what, surrogate, level, hope)
            factor = self._factors[key]
            if factor is not None:
                factors.append(factor)
        return factors

    def _factor(self, what: What, surrogate: Surrogate, level: float, hope: float) -> Factor | None:
        sort, name = what
        if sort == "parts":
            pack = np.float32(self._steps[name])

            def a_pack_less(figures: Array) -> Array:
                return -np.log(np.maximum(np.exp(-np.minimum(figures, _UNSEEN)) - pack, np.float32(_LITTLE)))

            figures = surrogate.believed(hope, a_pack_less)
            return surrogate.spread(np.maximum(np.exp(-figures) - np.float32(_LITTLE), np.float32(0.0)))
        figures = surrogate.believed(hope)
        if sort in ("wrong", "life"):
            wrong = figures < 0.0
            return (
                surrogate.spread(np.where(wrong, np.float32(np.inf), np.float32(0.0)))
                if wrong.any()
                else None
            )
        fails = figures < level - _SAME
        if not fails.any() and figures.size > _SMALL:
            return None
        cost = np.asarray(np.minimum(figures, np.float32(_ENOUGH)))
        np.subtract(np.float32(_ENOUGH), cost, out=cost)
        cost *= np.float32(_EVEN)
        # all in single precision: these tables are most of what a search takes
        short = np.float32(_GIVES_WAY + level) - figures[fails]
        cost[fails] = np.inf if hope else short * np.float32(1.0 + self.spent(self.first))
        return surrogate.spread(cost)

    def attempt(self, pick: Indices) -> Evaluation:
        """Return the evaluation of a point of the grid, and enter it into the surrogate models."""
        if pick in self.evaluations:
            return self.evaluations[pick]
        if pick not in self.laid:
            self.laid[pick] = evaluated(self.design.with_(self.grid.at(pick)))
        evaluation, links = self.laid[pick]
        self.evaluations[pick] = evaluation
        if len(self.evaluations) == 1:
            self.first = evaluation
        self._by_sum.append((self.spent(evaluation), pick))
        for use in evaluation.shares.keys() | self._named("parts"):
            share = evaluation.shares.get(use, PartsGroup())
            amount, step = self._counted(share)
            self._steps[use] = max(self._steps.get(use, 0.0), step)
            self._learn(("parts", use), pick, -math.log(amount + _LITTLE))
            if self.least_life:
                self._learn(("life", use), pick, 1.0 if share.life >= self.least_life else -1.0)
        for key in self._told_by(evaluation) | self._named("wrong"):
            self._learn(("wrong", key), pick, -1.0 if key in self._worse(evaluation) else 1.0)
        for link in links:
            self._learn(("link", link.key), pick, math.log(evaluation.margins[link.key]))
            self._ask_others(pick, link)
        for key in self._named("link") - evaluation.margins.keys():
            self._learn(("link", key), pick, math.log(MOST))
        return evaluation

    def _told_by(self, evaluation: Evaluation) -> frozenset[str]:
        """Return the remarks that are worse than at the start; at the start itself, those with known
        dependencies.
        """
        if len(self.evaluations) > 1:
            return self._worse(evaluation)
        return frozenset(
            key for key in evaluation.unfit.wrong if self.strictly and f"wrong {key}" in self._moves
        )

    def _named(self, sort: Sort) -> frozenset[str]:
        return frozenset(name for of, name in self._learned if of == sort)

    def _learn(self, what: What, pick: Indices, figure: float) -> None:
        """Enter a figure. Where its dependencies are unknown, every option that differs from the start is
        assumed to change it.
        """
        if what not in self._learned:
            sort, name = what
            moved_by = self._moves.get(f"{'parts' if sort == 'life' else sort} {name}") or frozenset(
                option
                for axis, start, now in zip(self.grid.axes, self.start, pick, strict=True)
                if start != now or not self._moves
                for option in axis.options
            )
            try:
                self._learned[what] = Surrogate(self.grid.axes, moved_by, _TOLERANCES[sort], sort == "link")
            except TooLarge:
                if sort == "wrong":
                    return  # where too much may have moved it, each way is judged when it is evaluated
                raise
        other = self._learned[what].otherwise(pick, figure)
        if other is not None:
            self._learned[what] = self._moved_by_more(self._learned[what], other, pick)
        if self._learned[what].learn(pick, figure) or other is not None:
            for key in [key for key in self._factors if key[0] == what]:
                del self._factors[key]

    def _moved_by_more(self, surrogate: Surrogate, one: Indices, other: Indices) -> Surrogate:
        """Return a table moved by all, too, in which two ways differ that have not the same figure."""
        more = {
            option
            for axis, a, b in zip(self.grid.axes, one, other, strict=True)
            for option in axis.levels[a].keys() | axis.levels[b].keys()
            if axis.levels[a].get(option) != axis.levels[b].get(option)
        }
        try:
            wider = Surrogate(
                self.grid.axes, surrogate.moved_by | more, surrogate.tolerance, surrogate.by_strength
            )
        except TooLarge:
            return surrogate
        for pick, figure in surrogate.told.values():
            wider.learn(pick, figure)
        return wider

    def _ask_others(self, pick: Indices, link: Link) -> None:
        """Enter the margins a link has of other items, where those change its own strength alone."""
        if link.made_of is None or link.item is None:
            return
        table, key = link.item
        for number, axis in enumerate(self.grid.axes):
            now = axis.levels[pick[number]]
            chosen = [
                o
                for o, value in now.items()
                if o in link.levers and value == key and extra_of(self._options, o).get("table") == table
            ]
            for other, level in enumerate(axis.levels):
                if chosen and level.keys() == now.keys():
                    changed = [o for o, value in level.items() if now[o] != value]
                    other_link = (
                        link.made_with(tables.item(table, level[chosen[0]])) if changed == chosen else None
                    )
                    if other_link:
                        there = (*pick[:number], other, *pick[number + 1 :])
                        self._learn(("link", link.key), there, math.log(margin_of(other_link)))
