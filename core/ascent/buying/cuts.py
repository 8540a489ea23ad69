"""Lengths cut from stock: which from which, what that costs, and how near it is to the least."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..mechanics import Array
from ..memory import remembered

_MM = 1000.0
_FEW = 3000  # ways of cutting one stock length that are all written down
_TIE = 1e-5  # of the least price: what the longest stock weighs where two ways cost the same
_NEAR = 1e-7
_ROUNDS = 200

Pattern = tuple[int, ...]  # how many of each length are cut from one stock length


@dataclass(frozen=True)
class StockLength:
    """What is cut from: its length [m], what one costs, how many there are; without end where no count is
    given.
    """

    length: float
    price: float
    count: int | None = None


@dataclass(frozen=True)
class CutStock:
    """One stock length and what is cut from it, the longest first. [m]"""

    stock: int
    cuts: tuple[float, ...]


@dataclass(frozen=True)
class Cutting:
    """How lengths are cut.

    bars: every stock length that is cut. cost: of all of them. least: nothing costs less than that.
    """

    bars: tuple[CutStock, ...]
    cost: float
    least: float

    @property
    def over(self) -> float:
        """Return the share by which it may cost more than the best there is; 0 where it is the best."""
        return max(self.cost / self.least - 1.0, 0.0) if self.least > _NEAR else float(self.cost > _NEAR)


class TooLong(ValueError):
    """A length is longer than all that it could be cut from, or there is not enough of that."""


@remembered(4096)
def cut(
    needs: tuple[float, ...],
    stocks: tuple[StockLength, ...],
    kerf: float = 0.0,
    short: float = 0.0,
    seconds: float = 2.0,
) -> Cutting:
    """Return how lengths are cut from stock for the least price; of equals from the shorter stock, which is
    easier carried home and sawn less.

    Where all ways of cutting a stock length can be written down an integer programme over them is solved;
    else ways are made one by one as they are worth it (column generation), and the integer programme is over
    those.

    Args:
        needs: [m]
        stocks: What they may be cut from; those of a count are the first to be used where they cost nothing.
        kerf: What a cut takes. [m]
        short: By how much each may be shorter than asked. [m]
        seconds: How long the solver may look.

    Raises:
        TooLong: There is nothing long enough, or not enough of it.

    Source: gilmore-gomory-1961
    """
    if not needs:
        return Cutting((), 0.0, 0.0)
    problem = _Problem.of(needs, stocks, kerf, short)
    quick = problem.by_hand()
    least = problem.material()
    if quick is None or problem.price(quick) > least * (1 + _NEAR):
        solved, bound = problem.solved(quick, seconds)
        least = max(least, bound)
        if solved is not None and (quick is None or problem.price(solved) < problem.price(quick)):
            quick = solved
    if quick is None:
        raise TooLong(f"{max(needs):g} m")
    bars = problem.bars(quick)
    cost = sum(stocks[bar.stock].price for bar in bars)
    over = problem.price(quick) / max(least, _NEAR) if least else 1.0
    return Cutting(bars, cost, cost if over <= 1.0 + 10 * _NEAR else cost / over)


@dataclass(frozen=True)
class _Problem:
    """Lengths and stock in whole millimetres, a cut counted with the piece before it.

    lengths: each different one, the longest first. wanted: how many of each. takes: millimetres that one
    takes with its cut. room: millimetres of each stock. prices: of each stock, that of the cheapest one, so
    that of equal ways the one of shorter stock is cheaper.
    """

    lengths: tuple[float, ...]
    wanted: tuple[int, ...]
    takes: tuple[int, ...]
    room: tuple[int, ...]
    prices: tuple[float, ...]
    counts: tuple[int | None, ...]

    @classmethod
    def of(cls, needs: Sequence[float], stocks: Sequence[StockLength], kerf: float, short: float) -> _Problem:
        count = Counter(needs)
        lengths = sorted(count, reverse=True)
        unit = min((stock.price for stock in stocks if stock.price > 0), default=1.0)
        longest = max(stock.length for stock in stocks)
        return cls(
            tuple(lengths),
            tuple(count[length] for length in lengths),
            tuple(max(round((length - short + kerf) * _MM), 1) for length in lengths),
            tuple(round((stock.length + kerf) * _MM) for stock in stocks),
            tuple(stock.price / unit + _TIE * (stock.length / longest) ** 2 for stock in stocks),
            tuple(stock.count for stock in stocks),
        )

    def material(self) -> float:
        """Return a price below which nothing is: all that is wanted end to end, of the stock cheapest by
        length; in whole pieces where there is one stock only.
        """
        total = sum(w * t for w, t in zip(self.wanted, self.takes, strict=True))
        if len(self.room) == 1:
            return self.prices[0] * math.ceil(total / self.room[0] - _NEAR)
        left, price = float(total), 0.0
        for rate, room, count in sorted(
            (p / r, r, c) for p, r, c in zip(self.prices, self.room, self._limits(), strict=True)
        ):
            part = min(left, room * count)
            price, left = price + rate * part, left - part
        return price

    def _limits(self) -> list[float]:
        return [math.inf if count is None else count for count in self.counts]

    def price(self, used: Sequence[tuple[int, Pattern]]) -> float:
        """Return what the stock of some patterns costs."""
        return sum(self.prices[stock] for stock, _ in used)

    def by_hand(self) -> list[tuple[int, Pattern]] | None:
        """Return the longest first, each from the first with room: what there is of a count first, then of
        that one stock which comes cheapest; nothing where that does not do.

        Source: none; common practice in cutting
        """
        endless = [i for i, count in enumerate(self.counts) if count is None]
        own = sorted((i for i, c in enumerate(self.counts) if c is not None), key=lambda i: self.room[i])
        ways = [way for stock in endless or [-1] if (way := self._first_fit(own, stock))]
        return min(ways, key=self.price, default=None)

    def _first_fit(self, own: Sequence[int], endless: int) -> list[tuple[int, Pattern]] | None:
        open_: list[tuple[int, list[int], int]] = []  # stock, pattern, room left
        waiting = [i for i in own for _ in range(self.counts[i] or 0)]
        for which, (take, wanted) in enumerate(zip(self.takes, self.wanted, strict=True)):
            for _ in range(wanted):
                place = next((n for n, (_, _, left) in enumerate(open_) if left >= take), None)
                if place is None:
                    fits = next((n for n, i in enumerate(waiting) if self.room[i] >= take), None)
                    stock = waiting.pop(fits) if fits is not None else endless
                    if stock < 0 or self.room[stock] < take:
                        return None
                    open_.append((stock, [0] * len(self.takes), self.room[stock]))
                    place = len(open_) - 1
                stock, pattern, left = open_[place]
                pattern[which] += 1
                open_[place] = (stock, pattern, left - take)
        return [(stock, tuple(pattern)) for stock, pattern, _ in open_]

    def solved(
        self, known: list[tuple[int, Pattern]] | None, seconds: float
    ) -> tuple[list[tuple[int, Pattern]] | None, float]:
        """Return the best way over all patterns, or over those worth making, and a price below which nothing
        is.
        """
        patterns: list[tuple[int, Pattern]] = []
        for stock in range(len(self.room)):
            every = self._every(stock, _FEW - len(patterns))
            if every is None:
                made, least = self._generated(known)
                solved, _ = self._chosen(made, seconds)
                return solved, least
            patterns += every
        return self._chosen(patterns, seconds)

    def _every(self, stock: int, most: int) -> list[tuple[int, Pattern]] | None:
        """Return every pattern of a stock to which nothing can be added; nothing where they are too many."""
        patterns: list[tuple[int, Pattern]] = []

        def add(which: int, left: int, so_far: tuple[int, ...]) -> bool:
            if which == len(self.takes):
                if any(so_far):
                    patterns.append((stock, so_far))
                return len(patterns) <= most
            greatest = min(left // self.takes[which], self.wanted[which])
            last = which == len(self.takes) - 1
            return all(
                add(which + 1, left - n * self.takes[which], (*so_far, n))
                for n in (range(greatest, greatest - 1, -1) if last else range(greatest, -1, -1))
            )

        return patterns if add(0, self.room[stock], ()) else None

    def _rows(self, patterns: Sequence[tuple[int, Pattern]]) -> tuple[Array, Array, Array]:
        """Return what patterns cut, (lengths, patterns), which limited stock they use, and their prices."""
        cuts = np.array([pattern for _, pattern in patterns], dtype=float).T
        limited = [i for i, count in enumerate(self.counts) if count is not None]
        uses = np.array([[float(stock == i) for stock, _ in patterns] for i in limited])
        return (
            cuts,
            uses.reshape(len(limited), len(patterns)),
            np.array([self.prices[s] for s, _ in patterns]),
        )

    def _chosen(
        self, patterns: Sequence[tuple[int, Pattern]], seconds: float
    ) -> tuple[list[tuple[int, Pattern]] | None, float]:
        """Return how often each pattern is cut so that the price is least, and the proven bound."""
        if not patterns:
            return None, 0.0
        from scipy.optimize import Bounds, LinearConstraint, milp  # noqa: PLC0415 - half a second, seldom asked

        cuts, uses, prices = self._rows(patterns)
        limits = [count for count in self.counts if count is not None]
        rules = [LinearConstraint(cuts, lb=self.wanted)]
        if limits:
            rules.append(LinearConstraint(uses, ub=limits))
        answer = milp(
            prices,
            constraints=rules,
            integrality=np.ones(len(patterns), dtype=np.int64),
            bounds=Bounds(0, np.inf),
            options={"time_limit": seconds, "mip_rel_gap": _NEAR / 10},
        )
        bound = float(answer.mip_dual_bound) if answer.mip_dual_bound is not None else 0.0
        if answer.x is None:
            return None, bound
        return [
            way for way, often in zip(patterns, np.rint(answer.x), strict=True) for _ in range(int(often))
        ], bound

    def _generated(self, known: list[tuple[int, Pattern]] | None) -> tuple[list[tuple[int, Pattern]], float]:
        """Return patterns made as they are worth it, and the price of the best mixture of any in parts of
        pieces, below which nothing is.
        """
        from scipy.optimize import linprog  # noqa: PLC0415 - as above

        patterns = list(dict.fromkeys(known or []))
        for stock, room in enumerate(self.room):
            for which, take in enumerate(self.takes):
                if take <= room:
                    alone = [0] * len(self.takes)
                    alone[which] = min(room // take, self.wanted[which])
                    patterns.append((stock, tuple(alone)))
        limits = np.array([count for count in self.counts if count is not None], dtype=float)
        of_limit = {i: n for n, i in enumerate(i for i, c in enumerate(self.counts) if c is not None)}
        for _ in range(_ROUNDS):
            cuts, uses, prices = self._rows(patterns)
            answer: Any = linprog(
                prices,
                A_ub=np.vstack((-cuts, uses)),
                b_ub=np.concatenate((-np.array(self.wanted, dtype=float), limits)),
            )
            if answer.x is None:
                return patterns, 0.0
            duals = -np.asarray(answer.ineqlin.marginals)
            worth, held = duals[: len(self.takes)], duals[len(self.takes) :]
            better = []
            for stock, room in enumerate(self.room):
                value, pattern = self._most_worth(worth, room)
                price = self.prices[stock] + (held[of_limit[stock]] if stock in of_limit else 0.0)
                if value > price + _NEAR * max(self.prices):
                    better.append((stock, pattern))
            if not better:
                return patterns, self._in_whole(float(answer.fun))
            patterns += better
        return patterns, 0.0

    def _in_whole(self, price: float) -> float:
        """Return a bound raised to whole pieces where all cost the same."""
        if len(self.prices) > 1:
            return price
        return self.prices[0] * math.ceil(price / self.prices[0] - 1e-6)

    def _most_worth(self, worth: Array, room: int) -> tuple[float, Pattern]:
        """Return what can be cut from a stock that is worth most: the bounded knapsack, by its room."""
        best = np.zeros(room + 1)
        taken: list[tuple[int, int, Any]] = []
        for which, (take, wanted) in enumerate(zip(self.takes, self.wanted, strict=True)):
            most, batch = min(wanted, room // take), 1
            while most > 0 and worth[which] > 0:
                some = min(batch, most)
                size = some * take
                if size <= room:
                    with_it = np.concatenate(
                        (np.full(size, -np.inf), best[: room + 1 - size] + some * worth[which])
                    )
                    better = with_it > best + 1e-12
                    best = np.where(better, with_it, best)
                    taken.append((which, some, better))
                most, batch = most - some, 2 * batch
        left, pattern = room, [0] * len(self.takes)
        for which, some, better in reversed(taken):
            if better[left]:
                pattern[which] += some
                left -= some * self.takes[which]
        return float(best[room]), tuple(pattern)

    def bars(self, used: Sequence[tuple[int, Pattern]]) -> tuple[CutStock, ...]:
        """Return what is cut from each piece of stock; of what some patterns give too many, none is cut."""
        left = list(self.wanted)
        bars = []
        for stock, pattern in used:
            cuts: list[float] = []
            for which, often in enumerate(pattern):
                some = min(often, left[which])
                left[which] -= some
                cuts += [self.lengths[which]] * some
            if cuts:
                bars.append(CutStock(stock, tuple(cuts)))
        return tuple(bars)
