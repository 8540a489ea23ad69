"""What a link can be mended with, and a structure sized until it holds."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ..buying.lists import shopping, total
from ..errors import InvalidPlan, Problem
from ..families import family_of
from ..family.options import extra_of
from ..loads.cases import GUSTS
from ..plan.model import Site, Structure
from ..report.evaluation import Evaluation, asked_gust, evaluate, outline
from ..report.wording import gust_text, money, option_text, written
from ..sizing.fixes import Fix, fixes_for, never, sized
from ..sizing.typical import typical
from ..words.quantities import System
from ..words.texts import say, template
from .figures import finite
from .readout import FixReport, LinkFixes, Sizing


def link_fixes(site: Site, structure: Structure, key: str, system: System) -> LinkFixes:
    """Return the fixes of a link in words, with new limit gust and cost.

    Raises:
        InvalidPlan: The structure has no such link.
    """
    tried = typical(site, structure)
    e = evaluate(tried.site, tried.structure)
    known = [link.key for link in e.links]
    if key not in known:
        raise InvalidPlan([Problem("link", key, f"one of {', '.join(known)} is allowed")])
    fixes = (replace(fix, cost=fix.cost / tried.share) for fix in fixes_for(e, key))
    return LinkFixes(link=key, fixes=tuple(_fix(e, fix, system) for fix in fixes), said=tried.said(system))


def _fix(e: Evaluation, fix: Fix, system: System) -> FixReport:
    name = template(f"option.{fix.option}")
    value = option_text(fix.value, extra_of(e.options, fix.option), system)
    sign = "+" if fix.cost >= 0.005 else ""
    return FixReport(
        option=fix.option,
        value=fix.value,
        words=f"{name}: {value}",
        limit=finite(fix.limit),
        limit_text=gust_text(fix.limit, system),
        link_limit_text=gust_text(fix.link_limit, system),
        holds=fix.holds,
        cost=round(fix.cost, 2),
        cost_text=sign + money(fix.cost, e.site.garden.currency),
    )


def sizing(site: Site, structure: Structure, system: System, enough: Callable[[], bool] = never) -> Sizing:
    """Return the cheapest changes, one after another, that make a structure hold, in words; stopped when it
    is enough.
    """
    family = family_of(structure.family)
    after, changed = sized(site, structure, enough=enough)
    options = family.options.model_validate(after.options)
    before_cost, after_cost = (
        total(
            shopping(
                family.geometry(family.options.model_validate(s.options), s.plantings, site),
                site.garden.prices,
            )
        )
        for s in (structure, after)
    )
    limit = outline(site, after, GUSTS).limit
    texts = written(options, system)
    added = after_cost - before_cost
    holds = limit >= asked_gust(site, structure)
    stopped = say("typical.stopped", system) if enough() and not holds else ""
    return Sizing(
        changes={name: after.options[name] for name in changed},
        words=tuple(f"{template(f'option.{name}')}: {texts[name]}" for name in changed),
        limit_text=gust_text(limit, system),
        holds=holds,
        cost_text=("+" if added >= 0.005 else "") + money(added, site.garden.currency),
        said=" ".join(filter(None, (typical(site, structure).said(system), stopped))),
    )
