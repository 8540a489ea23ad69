"""What a link can be mended with, and a structure sized until it holds."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import replace

from ..analysis.design import Design, design_of, geometry_of
from ..buying.lists import shopping, taken_by
from ..errors import InvalidPlan, Problem
from ..families import family_of
from ..family.options import extra_of
from ..loads.cases import GUSTS
from ..plan.structure import Structure
from ..site import Site
from ..sizing.fixes import Fix, fixes_for
from ..sizing.representative import representative
from ..sizing.search import never
from ..sizing.size import OptionChange, Sized, size
from ..wording import gust_text, money, option_text, written
from ..words.quantities import System
from ..words.texts import say, template
from .figures import finite
from .readout import ChangeReport, FixReport, LinkFixes, Sizing, SizingWanted

_NOTHING = 0.005  # of money
_THOUSANDS = {10**9: " thousand million", 10**6: " million", 10**3: " thousand", 1: ""}


def link_fixes(site: Site, structure: Structure, key: str, system: System) -> LinkFixes:
    """Return the fixes of a link in words, with new limit gust and cost.

    Raises:
        InvalidPlan: The structure has no such link.
    """
    evaluated = representative(site, structure)
    e = design_of(evaluated.site, evaluated.structure)
    known = [link.key for link in e.links]
    if key not in known:
        raise InvalidPlan([Problem("link", key, f"one of {', '.join(known)} is allowed")])
    fixes = (replace(fix, cost=fix.cost / evaluated.share) for fix in fixes_for(e, key))
    told = tuple(fix_report(e, fix, system) for fix in fixes)
    return LinkFixes(link=key, fixes=told, said=evaluated.said(system))


def fix_report(e: Design, fix: Fix, system: System) -> FixReport:
    """Return a fix in words, with the limit gust and the cost it comes to."""
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


def sizing(
    site: Site, structure: Structure, system: System, wanted: SizingWanted, enough: Callable[[], bool] = never
) -> Sizing:
    """Return a structure sized for an aim, in words: what changes, what for, what it costs and what stops it.

    Args:
        site: Where it stands.
        structure: What is sized.
        system: The reader's units.
        wanted: For what.
        enough: ClimateInputs before each evaluation whether to stop.
    """
    if not wanted.shed:
        site = site.model_copy(update={"spare": ()})
    found = size(
        site,
        structure,
        system,
        wanted.aim,
        budget=math.inf if wanted.budget is None else wanted.budget,
        locked=frozenset(wanted.locked),
        enough=enough,
    )
    currency = site.garden.currency
    texts = written(family_of(structure.family).options.model_validate(found.structure.options), system)
    limit = design_of(site, found.structure).moist_limit(GUSTS)
    parts = shopping(geometry_of(site.bed, found.structure), site.garden.prices, site.spare)
    added = (found.evaluation.cost - found.first.cost) / found.share
    return Sizing(
        changes={o: v for change in found.changes for o, v in change.options.items()},
        words=tuple(_change(change, texts, system, currency, found.holds) for change in found.changes),
        limit_text=gust_text(limit, system),
        holds=found.holds,
        cost_text=_more(added, currency),
        stopped=_stopped(found, system, currency),
        looked=looked_text(found, system),
        said=representative(site, structure).said(system),
        taken=taken_by(parts),
    )


def looked_text(found: Sized, system: System) -> str:
    """Return in words through how many ways was looked."""
    key = "sizing.proven" if found.proven else "sizing.looked"
    return say(key, system, {"evaluated": (found.evaluated, "count")}, {"size": _many(found.size)})


def _change(
    change: OptionChange, texts: Mapping[str, str], system: System, currency: str, holds: bool
) -> ChangeReport:
    what = "; ".join(f"{template(f'option.{o}')}: {texts[o]}" for o in change.options if o in texts)
    why = (
        ("for_link" if holds else "nearer")
        if change.link
        else "saves"
        if change.costs < -_NOTHING
        else "same"
    )
    words = {"link": template(f"link.{change.link}")} if change.link else {}
    return ChangeReport(
        words=what, why=say(f"sizing.{why}", system, words=words), cost_text=_more(change.costs, currency)
    )


def _more(cost: float, currency: str) -> str:
    return ("+" if cost >= _NOTHING else "") + money(cost, currency)


def _stopped(found: Sized, system: System, currency: str) -> str:
    """Return in words what stops a structure from what was asked."""
    if found.least:
        return say("sizing.too_dear", system, words={"least": money(found.least, currency)})
    if found.stopped:
        words = {"link": template(f"link.{found.stopped}")}
        key = "sizing.stopped" if found.proven else "sizing.not_found"
        return say(key, system, {"times": (found.evaluation.margin, "ratio")}, words)
    return "" if found.changes else say("sizing.best_already", system)


def _many(count: int) -> str:
    """Return a large number as people say it."""
    step = next((step for step in (10**9, 10**6, 10**3) if count >= 2 * step), 1)
    return f"{count // step}{_THOUSANDS[step]}"
