"""Lengths cut from stock: against every way of cutting, and against published families of problems."""

from __future__ import annotations

import itertools
import random
import unittest

from ascent.buying.cuts import Cutting, StockLength, TooLong, cut

METRE = StockLength(1.0, 1.0)


def cheapest(needs: list[float], stocks: list[StockLength], kerf: float) -> float:
    """Return the least price by trying every way of sharing needs over bars, and every stock for each bar."""
    best = float("inf")
    for places in itertools.product(range(len(needs)), repeat=len(needs)):
        if any(place > max(places[:n], default=-1) + 1 for n, place in enumerate(places)):
            continue  # the same with the bars named otherwise
        bars = [
            sum(need + kerf for need, p in zip(needs, places, strict=True) if p == bar) for bar in set(places)
        ]
        best = min(best, _priced(bars, stocks, kerf))
    return best


def _priced(bars: list[float], stocks: list[StockLength], kerf: float) -> float:
    """Return what bars of such needs cost at least; of limited stock there is one each."""
    endless = [stock for stock in stocks if stock.count is None]
    limited = [stock for stock in stocks if stock.count is not None]
    best = float("inf")
    for own in itertools.product([None, *limited], repeat=len(bars)):
        if any(stock and own.count(stock) > (stock.count or 0) for stock in limited):
            continue
        price = 0.0
        for bar, stock in zip(bars, own, strict=True):
            fits = [s.price for s in ([stock] if stock else endless) if s.length + kerf >= bar - 1e-9]
            price += min(fits, default=float("inf"))
        best = min(best, price)
    return best


class EveryWayTest(unittest.TestCase):
    def sound(self, cutting: Cutting, needs: list[float], stocks: list[StockLength], kerf: float) -> None:
        """Everything asked is cut, nothing is cut from what has no room, no more is used than there is."""
        self.assertEqual(sorted(c for bar in cutting.bars for c in bar.cuts), sorted(needs))
        for bar in cutting.bars:
            used = sum(bar.cuts) + kerf * (len(bar.cuts) - 1)
            self.assertLessEqual(used, stocks[bar.stock].length + 1e-9)
        for n, stock in enumerate(stocks):
            if stock.count is not None:
                self.assertLessEqual(sum(bar.stock == n for bar in cutting.bars), stock.count)

    def test_the_cheapest_of_every_way(self):
        chance = random.Random(11)
        for case in range(60):
            needs = [chance.randint(20, 160) / 100 for _ in range(chance.randint(1, 5))]
            stocks = [
                StockLength(1.8, 1.8 * chance.choice((1.0, 0.9))),
                StockLength(2.4, 2.4),
                StockLength(3.0, 3.0),
            ]
            if case % 2:
                stocks.append(StockLength(chance.randint(60, 200) / 100, 0.0, chance.randint(1, 2)))
            kerf = chance.choice((0.0, 0.003))
            with self.subTest(needs=needs, stocks=stocks, kerf=kerf):
                cutting = cut(tuple(needs), tuple(stocks), kerf)
                self.sound(cutting, needs, stocks, kerf)
                self.assertAlmostEqual(cutting.cost, cheapest(needs, stocks, kerf), 6)
                self.assertEqual(cutting.over, 0.0)

    def test_by_hand(self):
        """Common practice, no source: three of 0.8 m from 2.4 m; an offcut serves a short one; a saw takes
        three millimetres a cut, so that three of 0.8 m are then 6 mm too long unless each may be 3 mm short.
        """
        stocks = (StockLength(2.4, 1.0),)
        self.assertEqual(len(cut((0.8, 0.8, 0.8), stocks).bars), 1)
        self.assertEqual(len(cut((0.8, 0.8, 0.8), stocks, 0.003).bars), 2)
        self.assertEqual(len(cut((0.8, 0.8, 0.8), stocks, 0.003, 0.003).bars), 1)
        self.assertEqual(len(cut((1.5, 0.9, 1.5, 0.9), stocks).bars), 2)
        self.assertEqual(cut((), stocks).bars, ())

    def test_offcuts_first_and_the_shorter_of_equals(self):
        stocks = (StockLength(1.3, 0.0, 1), StockLength(2.4, 2.4), StockLength(3.6, 3.6))
        bars = cut((1.2, 1.2, 1.2), stocks).bars
        self.assertEqual(sorted(bar.stock for bar in bars), [0, 1])
        self.assertEqual([bar.stock for bar in cut((2.4, 1.2), stocks[1:]).bars], [1])

    def test_what_is_too_long_or_too_little_is_refused(self):
        with self.assertRaises(TooLong):
            cut((3.0,), (StockLength(2.4, 1.0),))
        with self.assertRaises(TooLong):
            cut((1.0, 1.0), (StockLength(1.0, 0.0, 1),))


class PublishedTest(unittest.TestCase):
    def test_triplets(self):
        """Falkenauer 1996, the class t60 (value from memory): triplets of sizes that fill bins of 1000
        exactly, the first from 380 to 490, the second from 250 to half the rest: n/3 bins, known beforehand.
        """
        for seed in range(3):
            chance, sizes = random.Random(seed), []
            for _ in range(20):
                first = chance.randint(380, 490)
                second = chance.randint(250, (1000 - first) // 2)
                sizes += [first, second, 1000 - first - second]
            chance.shuffle(sizes)
            with self.subTest(seed=seed):
                cutting = cut(tuple(size / 1000 for size in sizes), (METRE,), seconds=20.0)
                self.assertGreaterEqual(len(cutting.bars), 20)
                self.assertLessEqual(cutting.least, 20 + 1e-6)
                self.assertLessEqual(len(cutting.bars), 21)
                self.assertEqual(cutting.over == 0.0, len(cutting.bars) == 20)

    def test_drawn_as_a_published_generator_draws_them(self):
        """Gau & Wäscher 1995 (value from memory): stock of 1000, ten lengths from 1 to 800 or 200, ten of
        each on average. Their solutions need the bound of the continuous problem rounded up, or one more.
        """
        for high in (200, 800):
            chance = random.Random(high)
            needs = []
            for _ in range(10):
                needs += [chance.randint(1, high) / 1000] * chance.randint(1, 19)
            with self.subTest(high=high):
                cutting = cut(tuple(needs), (METRE,))
                bound = sum(needs)
                self.assertGreaterEqual(len(cutting.bars), bound)
                self.assertLessEqual(len(cutting.bars), cutting.least + 1 + 1e-6)
                self.assertEqual(sorted(c for bar in cutting.bars for c in bar.cuts), sorted(needs))
