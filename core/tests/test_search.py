"""The search over a grid against what needs no search: every way evaluated, and an independent solver."""

from __future__ import annotations

import itertools
import math
import random

import numpy as np
from ascent import tables
from ascent.analysis.design import Design, design_of
from ascent.families import FAMILIES
from ascent.family.options import extra_of
from ascent.family.protocol import Need
from ascent.plan.structure import Structure
from ascent.site import Site
from ascent.sizing.elimination import Factor, least_of
from ascent.sizing.evaluations import evaluated
from ascent.sizing.grid import COARSE, FINE, Axis, Grid, grid_of, round_values, worth_trying
from ascent.sizing.search import Search
from ascent.sizing.size import size
from scipy import optimize, sparse

from tests.moving import moved
from tests.support import NearTestCase, fence, share, site

_WAYS = 64  # of a grid that is evaluated whole


def started(key: str, crop: str, where: Site) -> Structure:
    proposed = FAMILIES[key].propose(Need(crop, None, "both", "pruned"), where)
    return Structure(
        key="x", name="x", family=key, options=proposed.options.model_dump(), plantings=proposed.plantings
    )


def part_of(grid: Grid, structure: Structure, chance: random.Random) -> Grid:
    """Return a few levels of a few axes, what the structure has now among them."""
    axes, ways = [], 1
    for axis in chance.sample(grid.axes, len(grid.axes)):
        kept = min(len(axis.levels), 4, _WAYS // ways)
        if kept > 1:
            now = next(
                level
                for level in axis.levels
                if all(structure.options[option] == value for option, value in level.items())
            )
            others = chance.sample([level for level in axis.levels if level is not now], kept - 1)
            axes.append(Axis(axis.options, (now, *others)))
            ways *= kept
    return Grid(tuple(axes))


class BestTest(NearTestCase):
    def test_it_is_the_best_of_every_way_tried_for_every_family(self):
        """The independent check: each way of a small grid laid out and calculated by itself."""
        for key in share(FAMILIES, 3):
            chance = random.Random(f"best {key}")
            where = site(chance.choice(["firm_loam", "sandy"]), chance.choice(["sheltered", "ordinary"]))
            structure = started(key, chance.choice(["tom-slicer", "pea-snap"]), where)
            grid = part_of(grid_of(where, structure, "metric", FINE), structure, chance)
            search = Search(Design(where, structure), grid)
            ways = {
                pick: evaluated(Design(where, structure).with_(grid.at(pick)))[0]
                for pick in itertools.product(*(range(len(axis.levels)) for axis in grid.axes))
            }
            with self.subTest(key, ways=len(ways)):
                able = [evaluation.cost for evaluation in ways.values() if search.does(evaluation)]
                found = search.cheapest()
                self.assertEqual(found is None, not able)
                if found:
                    self.assertTrue(found.proven)
                    self.assertAlmostEqual(found.evaluation.cost, min(able), 6)
                strongest = search.strongest()
                fit = [
                    evaluation.margin
                    for evaluation in ways.values()
                    if not evaluation.unfit.keys - search.first.unfit.keys
                ]
                self.assertGreater(strongest.evaluation.margin, max(fit) * 0.97)

    def test_two_changes_that_only_help_together_are_found(self):
        """Deeper alone leaves the post to bend, a stouter post alone the soil to give: it takes both."""
        where = site("loose_tilled", "ordinary")
        structure = fence(post="stake_coated_16", depth=0.3, post_spacing=1.22)
        post = Axis(("post",), ({"post": "stake_coated_16"}, {"post": "post_round_75"}))
        depth = Axis(("depth",), ({"depth": 0.3}, {"depth": 1.2}))
        spacing = Axis(("post_spacing",), ({"post_spacing": 1.22}, {"post_spacing": 0.6}))
        search = Search(Design(where, structure), Grid((post, depth, spacing)))
        margin = (
            min(evaluation.margin for evaluation in (search.attempt((1, 1, 0)), search.attempt((1, 1, 1))))
            * 0.99
        )
        for pick in ((0, 0, 0), (1, 0, 0), (0, 1, 0)):
            self.assertLess(search.attempt(pick).margin, margin)
        found = Search(Design(where, structure), Grid((post, depth, spacing))).cheapest(margin)
        assert found
        self.assertEqual(found.pick[:2], (1, 1))


class EliminationTest(NearTestCase):
    def any_factors(self, chance: random.Random, sizes: list[int]) -> list[Factor]:
        factors = []
        for _ in range(6):
            axes = tuple(sorted(chance.sample(range(len(sizes)), chance.randint(1, 3))))
            shape = [sizes[axis] for axis in axes]
            values = np.array([chance.uniform(0, 9) for _ in range(math.prod(shape))]).reshape(shape)
            values[values < 1.0] = np.inf
            factors.append((axes, values))
        return factors

    def test_the_least_sum_is_that_of_every_choice(self):
        for seed in range(30):
            chance = random.Random(seed)
            sizes = [chance.randint(1, 5) for _ in range(5)]
            factors = self.any_factors(chance, sizes)
            all_sums = {
                pick: sum(values[tuple(pick[axis] for axis in axes)] for axes, values in factors)
                for pick in itertools.product(*map(range, sizes))
            }
            least, pick = least_of(factors, sizes)
            with self.subTest(seed):
                self.assertEqual(math.isinf(least), math.isinf(min(all_sums.values())))
                if math.isfinite(least):
                    self.assertAlmostEqual(least, min(all_sums.values()), 9)
                    self.assertAlmostEqual(all_sums[pick], least, 9)

    def test_the_tables_of_a_fence_solved_by_an_independent_solver(self):
        """SciPy's MILP (HiGHS): one of each axis chosen, one entry of each table, that agrees with them."""
        where = site("firm_loam", "ordinary")
        structure = fence()
        grid = grid_of(where, structure, "metric", COARSE)
        grid = Grid(tuple(axis for axis in grid.axes if axis.options[0] != "ends"))
        search = Search(Design(where, structure), grid)
        search.cheapest()
        sizes = [len(axis.levels) for axis in grid.axes]
        factors = search._all_factors(0.0, 1.0)
        least, _ = least_of(factors, sizes)
        self.assertAlmostEqual(least, by_milp(factors, sizes), 3)


def by_milp(factors: list[Factor], sizes: list[int]) -> float:
    """Return the least sum of tables by mixed-integer programming: variables choose levels and entries."""
    starts = np.concatenate(([0], np.cumsum(sizes)))
    costs = [np.zeros(starts[-1])]
    rows: list[tuple[int, int, float]] = []
    right: list[float] = []
    for axis, count in enumerate(sizes):
        rows += [(len(right), starts[axis] + level, 1.0) for level in range(count)]
        right.append(1.0)
    width = int(starts[-1])
    for axes, values in factors:
        entries = [(index, value) for index, value in np.ndenumerate(values) if np.isfinite(value)]
        costs.append(np.array([value for _, value in entries]))
        for place, axis in enumerate(axes):  # the entry's level is the axis's
            for level in range(sizes[axis]):
                chosen = [n for n, (index, _) in enumerate(entries) if index[place] == level]
                rows += [(len(right), width + n, 1.0) for n in chosen]
                rows.append((len(right), starts[axis] + level, -1.0))
                right.append(0.0)
        width += len(entries)
    i, j, v = zip(*rows, strict=True)
    matrix = sparse.csr_matrix((v, (i, j)), shape=(len(right), width))
    whole = np.concatenate((np.ones(starts[-1]), np.zeros(width - starts[-1])))
    solved = optimize.milp(
        np.concatenate(costs),
        constraints=optimize.LinearConstraint(matrix, right, right),
        integrality=whole,
        bounds=optimize.Bounds(0.0, 1.0),
    )
    assert solved.success
    return float(solved.fun)


class MovesTest(NearTestCase):
    def test_what_is_moved_is_said_beside_each_family(self):
        for key, family in share(FAMILIES.items(), 3, 2):
            with self.subTest(key):
                for what, options in moved(key, 2, seed=4711).items():
                    self.assertLessEqual(options, family.moves.get(what, frozenset()), what)


class GridTest(NearTestCase):
    def test_values_are_round_in_the_reader_s_units(self):
        inch = 0.0254
        self.assertEqual(round_values(0.2, 1.0, (0.05, 0.1, 0.2), 6), [0.2, 0.4, 0.6, 0.8, 1.0])
        feet = round_values(0.2, 1.0, (inch, 2 * inch, 6 * inch), 6)
        self.assertEqual([round(v / inch, 1) for v in feet], [12, 18, 24, 30, 36])

    def test_feet_and_inches_where_a_reader_measures_in_them(self):
        where, structure = site(), fence()
        for axis in grid_of(where, structure, "imperial", FINE).axes:
            for level in axis.levels:
                for option, value in level.items():
                    extra = extra_of(FAMILIES["mesh-fence"].options, option)
                    if extra["kind"] == "length" and value != structure.options[option]:
                        halves = value / 0.0254 * 2
                        self.assertAlmostEqual(halves, round(halves), 1, f"{option} {value}")

    def test_a_row_that_another_beats_in_everything_is_not_tried(self):
        """A T-post bends no less for one's money and lasts longer than a soft stake as dear: common practice,
        no source.
        """
        rows = worth_trying("posts", "post", "tpost_2.1", site(), 40)
        self.assertIn("tpost_2.1", rows)
        self.assertLess(len(rows), len([r for r in tables.posts().values() if "post" in r.serves]))

    def test_what_is_locked_or_one_s_own_choice_stays(self):
        where, structure = site(), fence()
        on_it = {o for axis in grid_of(where, structure, "metric").axes for o in axis.options}
        self.assertNotIn("mesh", on_it)
        self.assertIn("post", on_it)
        locked = grid_of(where, structure, "metric", locked=frozenset({"post"}))
        self.assertNotIn("post", {o for axis in locked.axes for o in axis.options})
        freed = grid_of(where, structure, "metric", freed=frozenset({"mesh"}))
        self.assertIn("mesh", {o for axis in freed.axes for o in axis.options})


class SizeTest(NearTestCase):
    def test_what_it_finds_holds_by_the_full_evaluation_and_costs_what_it_says(self):
        where = site("firm_loam", "ordinary")
        for key in ("mesh-fence", "stake", "tripod", "brushwood"):
            structure = started(key, "tom-slicer", where)
            found = size(where, structure, "metric", "cheapest", extent=COARSE, most=150)
            with self.subTest(key):
                self.assertTrue(found.holds)
                self.assertEqual(design_of(where, found.structure).state, "adequate")
                self.assertLessEqual(
                    found.evaluation.cost, found.first.cost if found.first.margin >= 1 else np.inf
                )
                again = size(where, structure, "metric", "cheapest", extent=COARSE, most=150)
                self.assertEqual(again.structure, found.structure, "same input, same answer")

    def test_each_change_is_for_something(self):
        where = site("firm_loam", "open")
        structure = fence(depth=0.4)
        before = FAMILIES["mesh-fence"].options.model_validate(structure.options).model_dump()
        found = size(where, structure, "metric", extent=COARSE, most=200)
        self.assertTrue(found.holds)
        for change in found.changes:
            back = {**found.structure.options, **{o: before[o] for o in change.options}}
            without, _ = evaluated(Design(where, structure.model_copy(update={"options": back})))
            if change.link:
                self.assertLess(without.margins[change.link], 1.0)
            else:
                self.assertLess(found.evaluation.cost, without.cost)

    def test_too_little_money_says_what_the_cheapest_costs(self):
        where = site("firm_loam", "open")
        cheapest = size(where, fence(), "metric", extent=COARSE, most=200)
        less = size(where, fence(), "metric", extent=COARSE, most=200, budget=cheapest.evaluation.cost * 0.9)
        self.assertFalse(less.holds)
        self.assertAlmostEqual(less.least, cheapest.evaluation.cost, 6)
        self.assertLessEqual(less.evaluation.cost, cheapest.evaluation.cost * 0.9 + 1e-6)

    def test_other_aims(self):
        where = site("firm_loam", "ordinary")
        structure = started("stake", "tom-det", where)
        aims = {
            aim: size(where, structure, "metric", aim, extent=COARSE)
            for aim in ("cheapest", "per-season", "fewest-kinds", "longest-lived")
        }
        self.assertTrue(all(found.holds and found.proven for found in aims.values()))
        yearly = {aim: found.evaluation.yearly(10.0) for aim, found in aims.items()}
        self.assertEqual(min(yearly.values()), yearly["per-season"])
        kinds = {aim: sum(len(s.lines) for s in f.evaluation.shares.values()) for aim, f in aims.items()}
        self.assertEqual(min(kinds.values()), kinds["fewest-kinds"])
        lives = {aim: min(s.life for s in f.evaluation.shares.values()) for aim, f in aims.items()}
        self.assertEqual(max(lives.values()), lives["longest-lived"])
