"""Every kind of support for a need: sized, measured by what people want of one, put in order."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field

from .. import tables
from ..analysis.design import Design, design_of
from ..analysis.fitness import is_drawback, is_serious
from ..buying.lists import shopping, total
from ..buying.shed import by_metre
from ..buying.work import Labour, labour_of
from ..family.protocol import Need
from ..plan.fields import Typed
from ..plan.needs import First, Wants
from ..plan.shed import Spare
from ..site import Site
from ..words.quantities import System
from .evaluations import PartsGroup
from .offer import GOOD, Start, fitting, for_each, start_of, suiting
from .search import never
from .size import YEARS, Aim, Sized

RejectionReason = Literal[
    "unsuited",
    "host",
    "few",
    "unfit",
    "short",
    "money",
    "minutes",
    "people",
    "stays",
    "digging",
    "reach",
    "faces",
    "heads",
]
_ABOVE = 0.1  # one reaches over one's reach to the uppermost tie [m]
_PULLED = "not-to-lean-on"
_DRAWBACK = 0.1  # by which each makes costs and work count for more, judgement
_ALIKE = 0.1  # by which gusts are alike, judgement
_OTHERWISE: First = "per-season"  # of what is alike by what comes first
_NEARLY = 0.02  # share within which two figures are the same
_SELDOM = 1000.0  # seasons between two failures, past which nobody can tell the difference


Amount = Annotated[float, Field(ge=0, le=1e9)]


class Figures(Typed):
    """What a way of building is measured by.

    cost: of all parts. tools: of the tools that are not at hand. yearly: in a season over the years wanted.
    minutes: of work. limit: gust it holds to [m/s]. once: once in how many seasons it goes. margin: how many
        times the crop it carries.
    life: seasons of the part that goes first; 0 where no table tells. own: share of its worth that the shed
        has. looks: from 1, of wire and steel, to 3, of the garden. score: how well it suits the crop, 0 to 3.
    plants: that grow on it. holds: whether it holds the gust it needs, rather than probably.
    serious, drawbacks: how many remarks on it weigh so much.
    """

    cost: Amount
    tools: Amount
    yearly: Amount
    minutes: Amount
    people: Annotated[int, Field(ge=1, le=20)]
    limit: Amount
    once: Amount
    margin: Amount
    life: Amount
    own: Amount
    looks: Annotated[int, Field(ge=1, le=3)]
    score: Annotated[int, Field(ge=0, le=3)]
    plants: Annotated[int, Field(ge=1, le=100_000)]
    holds: bool
    serious: Annotated[int, Field(ge=0, le=100)]
    drawbacks: Annotated[int, Field(ge=0, le=100)]


@dataclass(frozen=True)
class Candidate:
    """One kind of support for a need, sized; `against` is what speaks against it, if anything does.

    each: beds or pots that get one; costs and work are of them all. missing: keys of the tools to be bought
        for it.
    """

    family: str
    start: Start
    sized: Sized
    design: Design
    labour: Labour
    figures: Figures
    against: tuple[RejectionReason, ...]
    each: int = 1
    missing: tuple[str, ...] = ()


def way_of(
    site: Site,
    family_key: str,
    need: Need,
    wants: Wants,
    system: System,
    enough: Callable[[], bool] = never,
    *,
    closely: bool = True,
) -> Candidate:
    """Return one kind of support for a need: the way of it that holds and is best by what comes first, where
    that can be counted part by part, else that costs least in a season.

    Args:
        site: Where it is to stand.
        family_key: Which kind.
        need: What is to grow.
        wants: What matters.
        system: Whose round numbers.
        enough: ClimateInputs before each evaluation whether to stop there.
        closely: Whether to look on until nothing better can be hoped for, or only a moment.

    Raises:
        InvalidPlan: No such crop.
        UnknownItem: No such family.
    """
    trait = tables.traits()[family_key]
    site, need, each = for_each(site.asking(wants.gust), family_key, need)
    need = replace(need, pulled=wants.pulled, headroom=(wants.headroom or 0.0) if wants.heads_pass else 0.0)
    site = site.model_copy(update={"spare": _share_of(site.spare, each) if wants.shed else ()})
    start = start_of(site, family_key, need, system)
    budget = np.inf if wants.money is None else wants.money / each
    sized = fitting(
        site, start, system, aim_of(wants, closely=closely), wants.years, budget, enough, closely=closely
    )
    found = design_of(site, sized.structure)
    labour = labour_of(sized.structure, found.options, found.geometry, site)
    parts = PartsGroup(shopping(found.geometry, site.garden.prices, site.spare))
    missing = tools_missing(labour, found, wants)
    worth = total(shopping(found.geometry, site.garden.prices)) if site.spare else 0.0
    hours = labour.hours(trait, wants.years) * (site.garden.hour or 0.0)
    figures = Figures(
        cost=each * parts.cost,
        tools=sum(tables.tools()[tool].price for tool in missing),
        yearly=each * (parts.yearly(wants.years) + hours),
        minutes=each * labour.minutes,
        people=trait.people,
        limit=float(min(np.min(found.limit[0]), 1e3)),
        once=found.reliability.return_period()[0],
        margin=float(min([1e3, *(np.min(m) for m in found.crop_load_factors.values())])),
        own=max(1.0 - parts.cost / worth, 0.0) if worth else 0.0,
        life=parts.life if np.isfinite(parts.life) else 0.0,
        looks=trait.looks,
        score=suiting(need, family_key),
        plants=each * sum(planting.count for planting in sized.structure.plantings),
        holds=found.state == "adequate",
        serious=sum(map(is_serious, found.findings)),
        drawbacks=len(drawbacks_of(found, wants)),
    )
    return Candidate(
        family_key,
        start,
        sized,
        found,
        labour,
        figures,
        tuple(_against(site, found, sized, labour, figures, wants)),
        each,
        missing,
    )


def drawbacks_of(found: Design, wants: Wants) -> tuple[str, ...]:
    """Return the keys of the remarks that count against a way, among them that nobody calculated a pull on it
    where somebody may pull.
    """
    said = [remark.key for remark in found.findings if is_drawback(remark)]
    if wants.pulled and not getattr(found.options, "leaned_on", False):
        said.append(_PULLED)
    return tuple(dict.fromkeys(said))


def tools_missing(labour: Labour, found: Design, wants: Wants) -> tuple[str, ...]:
    """Return the keys of the tools that a way takes and that are not at hand; none where nothing is said of
    tools.
    """
    if wants.tools is None:
        return ()
    bent = {"bender"} if any(remark.key == "tube-bender" for remark in found.remarks) else set()
    return tuple(sorted((labour.tools | bent) - set(wants.tools)))


_AIMS: Mapping[First, Aim] = {"cost": "cheapest", "life": "longest-lived", "own": "own"}
SIZED_BY: tuple[First, ...] = (*_AIMS, "strength")


def aim_of(wants: Wants, *, closely: bool = True) -> Aim:
    """Return what a kind is sized for, by what comes first: what no part can be counted for is only ordered
    by it; what takes several searches is left for a close look.
    """
    if wants.first == "life" and not closely:
        return "per-season"
    if wants.first == "strength" and wants.money is not None:
        return "strongest"
    return _AIMS.get(wants.first, "per-season")


def _share_of(spare: Sequence[Spare], each: int) -> tuple[Spare, ...]:
    """Return what each of several may have of a shed: whole pieces, or its part of what is cut."""
    parts = (
        (one, one.amount / each if by_metre(tables.item(one.table, one.item)) else one.amount // each)
        for one in spare
    )
    return tuple(one.model_copy(update={"amount": amount}) for one, amount in parts if amount > 0)


def _against(
    site: Site, found: Design, sized: Sized, labour: Labour, figures: Figures, wants: Wants
) -> Sequence[RejectionReason]:
    """Return what speaks against a way, the weightiest first."""
    trait = tables.traits()[found.structure.family]
    speaks: Mapping[RejectionReason, bool] = {
        "unsuited": figures.score == 0,
        "host": trait.faces == "one" and not (wants.wall or site.host),
        "unfit": any(remark.level == "wrong" for remark in found.findings),
        "money": wants.money is not None and figures.cost + figures.tools > wants.money,
        "few": not sized.evaluation.to_be_had,
        "short": found.state == "inadequate",
        "minutes": wants.minutes is not None and figures.minutes > wants.minutes,
        "people": wants.people is not None and trait.people > wants.people,
        "stays": wants.moves and trait.moves == "no",
        "digging": wants.no_digging and labour.digs,
        "reach": wants.reach is not None and found.geometry.climb > wants.reach + _ABOVE,
        "faces": wants.both_faces and trait.faces == "one",
        "heads": wants.heads_pass and not trait.walked_under,
    }
    return [key for key, does in speaks.items() if does]


@dataclass(frozen=True)
class Rank:
    """Where a way stands among those that will do, and what it is the best at; `pareto_optimal` where no
    other costs less in a season and fails less often at once.
    """

    family: str
    rank: int
    best_at: tuple[First, ...]
    pareto_optimal: bool


def ranked(ways: Mapping[str, Figures], first: First) -> tuple[Rank, ...]:
    """Return ways that will do in order: those that suit the crop well before those that are possible with
    work, those that hold and of which nothing serious is to be said before others, and of each the best by
    what comes first, then by what they cost in a season; drawbacks count.
    """
    good = {key: goodness(figures) for key, figures in ways.items()}

    def place(key: str) -> tuple[Any, ...]:
        figures = ways[key]
        weighed = (-_weighed(of, good[key][of], figures.drawbacks) for of in (first, _OTHERWISE))
        return (not _suits(figures), figures.serious > 0 or not figures.holds, *weighed, key)

    order = sorted(ways, key=place)

    def leads(key: str, of: First) -> bool:
        """Return whether it does better than all others that suit the crop as well."""
        rivals = [good[o][of] for o in ways if o != key and _suits(ways[o]) == _suits(ways[key])]
        return all(good[key][of] > rival + abs(rival) * _NEARLY for rival in rivals)

    return tuple(
        Rank(
            key,
            number,
            tuple(of for of in _MEASURES if leads(key, of)),
            not any(_beats(ways[other], ways[key]) for other in ways if other != key),
        )
        for number, key in enumerate(order, start=1)
    )


_MEASURES: tuple[First, ...] = ("per-season", "cost", "strength", "work", "life", "own", "looks")


def _weighed(of: First, good: float, drawbacks: int) -> float:
    """Return a figure of which more is better, as it counts in the order: each drawback makes costs and work
    count for more, and gusts are alike that are less than a tenth apart.
    """
    if of == "strength":
        return math.floor(math.log(max(good, 0.1)) / math.log1p(_ALIKE))
    return good * (1.0 + _DRAWBACK * drawbacks) if good < 0.0 else good


def _suits(figures: Figures) -> bool:
    """Return whether a kind suits the crop, rather than being possible with work."""
    return figures.score >= GOOD


def goodness(figures: Figures) -> dict[First, float]:
    """Return the figures so that more is better; costs and work for each plant, since kinds differ in how
    many grow on them. [each its own unit]
    """
    return {
        "per-season": -(figures.yearly + figures.tools / YEARS) / figures.plants,
        "cost": -(figures.cost + figures.tools) / figures.plants,
        "strength": figures.limit,
        "work": -figures.minutes * figures.people / figures.plants,
        "life": figures.life,
        "own": figures.own,
        "looks": figures.looks,
    }


def _beats(one: Figures, other: Figures) -> bool:
    """Return whether a candidate costs no more per season and fails no more often, and is better in one of
    the two.
    """
    this, that = ((f.yearly / f.plants, -min(f.once, _SELDOM)) for f in (one, other))
    return this[0] <= that[0] and this[1] <= that[1] and this != that
