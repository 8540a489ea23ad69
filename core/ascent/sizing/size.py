"""A structure sized for an aim: what changed, what for, and what stopped it."""

from __future__ import annotations

import math
from collections.abc import Callable, Set
from dataclasses import dataclass
from typing import Any, Literal

from ..analysis.design import design_of
from ..plan.structure import Structure
from ..site import Site
from ..words.quantities import System
from .elimination import Indices, TooLarge
from .evaluations import Evaluation, PartsGroup
from .grid import COARSE, FINE, LEAST, QUICK, Extent, grid_of
from .representative import representative
from .search import Best, Laid, Search, cost_of, never

Aim = Literal["cheapest", "per-season", "strongest", "fewest-kinds", "longest-lived", "own"]
YEARS = 10.0  # a structure is used, handbook-parts-5.2
_HUGE = 10**10  # ways past which a grid is too fine to look through well in a few hundred evaluations
_MANY_KINDS = 1e4  # cost that weighs as much as one more kind of part
_SAME = 1e-6


@dataclass(frozen=True)
class OptionChange:
    """One thing that is otherwise, and what for.

    options: what it changes, {option: value}.
    link: the link that would not hold without it; nothing where all would.
    costs: what it adds to the price; less than nothing where it saves.
    """

    options: dict[str, Any]
    link: str
    costs: float


@dataclass(frozen=True)
class Sized:
    """A structure sized.

    structure: with what is changed. first, evaluation: before and after, of a representative segment where
        that stands for it.
    holds: whether it does what was wanted. stopped: the link that stops it from it, nothing where none does.
    least: what the cheapest costs that holds, where that is more than may be spent.
    share: of the whole that was evaluated. proven: whether nothing better is hoped for on the grid; that is
        an estimate.
    evaluated, size: ways evaluated and ways on the grid.
    """

    structure: Structure
    changes: tuple[OptionChange, ...]
    first: Evaluation
    evaluation: Evaluation
    holds: bool
    stopped: str
    least: float
    share: float
    proven: bool
    evaluated: int
    size: int


def size(
    site: Site,
    structure: Structure,
    system: System,
    aim: Aim = "cheapest",
    *,
    budget: float = math.inf,
    years: float = YEARS,
    locked: Set[str] = frozenset(),
    freed: Set[str] = frozenset(),
    extent: Extent = FINE,
    most: int = 200,
    enough: Callable[[], bool] = never,
    strictly: bool = False,
) -> Sized:
    """Return a structure changed so that it holds the required gust, the best of its grid for an aim; where
    nothing on it holds, or not for the money, the one with most margin. [money and seasons]

    Args:
        site: Where it stands.
        structure: Where to start.
        system: Whose round numbers its grid has.
        aim: Cheapest that holds, now or in a season over the years; strongest for the budget; of fewest kinds
            of part; of the longest-lived parts; with as few kinds to buy as the shed allows.
        budget: What its parts may cost.
        years: Seasons it will be used.
        locked: Options that stay.
        freed: A gardener's own choices that may be changed all the same.
        extent: How fine its grid is, at the most.
        most: Evaluations at the most.
        enough: ClimateInputs before each evaluation whether to stop.
        strictly: Whether nothing of it may be wrong, and what is too dear is the cheapest that holds; else
            nothing is wrong that is not so now, and what is too dear the best for the money.
    """
    for fine in dict.fromkeys((extent, COARSE, QUICK)):
        try:
            return _sized(
                site, structure, system, aim, budget, years, locked, freed, fine, most, enough, strictly
            )
        except TooLarge:
            continue
    return _sized(site, structure, system, aim, budget, years, locked, freed, LEAST, most, enough, strictly)


def _sized(
    site: Site,
    structure: Structure,
    system: System,
    aim: Aim,
    budget: float,
    years: float,
    locked: Set[str],
    freed: Set[str],
    extent: Extent,
    most: int,
    enough: Callable[[], bool],
    strictly: bool,
) -> Sized:
    segment = representative(site, structure)
    grid = grid_of(segment.site, segment.structure, system, extent, locked, freed)
    if grid.size > _HUGE and extent not in (QUICK, LEAST):
        raise TooLarge

    design = design_of(segment.site, segment.structure)
    laid: dict[Indices, Laid] = {}  # what one search has laid out the next need not

    def searched(least_life: float = 0.0) -> Search:
        amount = _amount(aim, years)
        return Search(design, grid, enough, most, amount, least_life, strictly, laid=laid)

    able = budget * segment.share
    search = searched()
    best = search.strongest(able) if aim == "strongest" else search.cheapest()
    if aim == "longest-lived" and best:
        search, best = _longest(search, best, searched)
    least, proven = 0.0, bool(best and best.proven) or (best is None and not search.stopped())
    if best and best.evaluation.cost > able + _SAME:
        least = best.evaluation.cost / segment.share
        best = best if strictly else None
    if best is None:
        best = search.strongest(able)
    return _told(structure, search, best, least, segment.share, proven)


def _longest(search: Search, best: Best, searched: Callable[[float], Search]) -> tuple[Search, Best]:
    """Return the best whose shortest-lived part lasts longest."""
    while True:
        life = min(share.life for share in best.evaluation.shares.values())
        longer = searched(life + _SAME)
        found = longer.cheapest()
        if found is None:
            return search, best
        search, best = longer, found


def _amount(aim: Aim, years: float) -> Callable[[PartsGroup], tuple[float, float]]:
    """Return how a search for an aim counts what is spent."""
    if aim == "per-season":
        return lambda share: (share.yearly(years), share.yearly_step(years))
    if aim in ("fewest-kinds", "own"):
        return lambda share: (_kinds(share, bought=aim == "own") + share.cost / _MANY_KINDS, 1.0)
    return cost_of


def _kinds(share: PartsGroup, bought: bool) -> int:
    """Return how many kinds of part it comes to, or how many that are not had of the shed."""
    return sum(not (bought and part.own) for part in share.lines)


def _told(
    structure: Structure, search: Search, best: Best, least: float, share: float, proven: bool
) -> Sized:
    margin = min(1.0, best.evaluation.margin)
    pick = _without_idle(search, best.pick, margin)
    evaluation = search.evaluations[pick]
    changes = []
    for number, (start, now) in enumerate(zip(search.start, pick, strict=True)):
        if start != now:
            before, after = (search.grid.axes[number].levels[level] for level in (start, now))
            without = search.attempt((*pick[:number], start, *pick[number + 1 :]))
            changes.append(
                OptionChange(
                    {o: v for o, v in after.items() if before.get(o, structure.options.get(o)) != v},
                    "" if without.margin >= margin else without.weakest,
                    (evaluation.cost - without.cost) / share,
                )
            )
    options = {**structure.options, **{o: v for change in changes for o, v in change.options.items()}}
    return Sized(
        structure.model_copy(update={"options": options}),
        tuple(changes),
        search.first,
        evaluation,
        search.does(evaluation) and not least,
        "" if evaluation.margin >= 1.0 else evaluation.weakest,
        least,
        share,
        proven,
        len(search.evaluations),
        search.grid.size,
    )


def _without_idle(search: Search, pick: Indices, margin: float) -> Indices:
    """Return a way without those changes that neither make it hold nor save anything."""
    for number, start in enumerate(search.start):
        if pick[number] != start:
            other = (*pick[:number], start, *pick[number + 1 :])
            without = search.attempt(other)
            if (
                search.does(without, margin)
                and search.spent(without) <= search.spent(search.evaluations[pick]) + _SAME
            ):
                pick = other
    return pick
