"""What to build, told: every kind of support for a need with its figures in words, in order, with reasons."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Any

from .. import tables
from ..analysis.design import Design, State
from ..analysis.fitness import is_serious
from ..buying.shed import spare_of
from ..drawing.sketch import Sketch, sketch_of
from ..families import FAMILIES
from ..family.protocol import Need
from ..files.need import NeedFile
from ..plan.fields import Typed
from ..plan.needs import First, Grown, Wants
from ..plan.structure import Planting
from ..site import Site
from ..sizing.choose import Candidate, Figures, RejectionReason, drawbacks_of, ranked, way_of
from ..sizing.offer import GOOD, values_of
from ..sizing.search import never
from ..wording import MOST_TIMES, against_text, gust_text, money, seasons_text, time_text, times_text
from ..words.quantities import System
from ..words.texts import say, template
from .figures import capital
from .lists import per_crop
from .sizes import looked_text

_SHARE = 0.005  # of its worth, from which on it is told


class Filled(Typed):
    """A value that was filled in, and why."""

    option: str
    label: str
    value: str
    reason: str


class ChoiceSummary(Typed):
    """The figures of a way of building in words."""

    cost: str
    yearly: str
    minutes: str
    people: str
    limit: str
    once: str
    needs: str
    carries: str
    weakest: str
    life: str
    moves: str
    faces: str
    plants: str
    own: str
    crop: str
    where: str
    minds: str
    tools: str


class KindReport(Typed):
    """One kind of support for a need: sized, drawn, measured; `against` says why it will not do."""

    family: str
    name: str
    title: str
    what: str
    state: State
    state_words: str
    score_text: str
    options: dict[str, Any]
    plantings: tuple[Planting, ...]
    values: tuple[Filled, ...]
    sketch: Sketch
    figures: Figures
    told: ChoiceSummary
    against: tuple[str, ...]
    size: int
    evaluated: int
    looked: str


class PlaceReport(Typed):
    """Where a way stands in the order, and why."""

    family: str
    rank: int
    reasons: tuple[str, ...]
    pareto_optimal: bool


def way_report(
    site: Site,
    family_key: str,
    need: Need,
    wants: Wants,
    system: System,
    enough: Callable[[], bool] = never,
    *,
    closely: bool = True,
) -> KindReport:
    """Return one kind of support for a need, told; looked at closely or only for a moment.

    Raises:
        InvalidPlan: No such crop.
        UnknownItem: No such family.
    """
    site = site.asking(wants.gust)
    way = way_of(site, family_key, need, wants, system, enough, closely=closely)
    geometry, structure = way.design.geometry, way.sized.structure
    return KindReport(
        family=family_key,
        name=template(f"family.{family_key}.name"),
        title=structure.name,
        what=template(f"family.{family_key}.what"),
        state=way.design.state,
        state_words=template(f"state.{way.design.state}"),
        score_text=template(f"suit.{way.figures.score}"),
        options=structure.options,
        plantings=structure.plantings,
        values=tuple(
            Filled(option=v.option, label=v.label, value=v.text, reason=v.reason)
            for v in values_of(way.start, way.sized, system)
        ),
        sketch=sketch_of(geometry, site.bed.length, 2 * geometry.reach(site.bed.width)),
        figures=way.figures,
        told=_told(site, way, wants, system),
        against=tuple(_against(site, way, key, need, wants, system) for key in way.against),
        size=way.sized.size,
        evaluated=way.sized.evaluated,
        looked=looked_text(way.sized, system),
    )


def _per_crop(way: Candidate, currency: str, system: System) -> str:
    """Return what it costs in a season for each plant and for each weight of the usual crop."""
    return "; ".join(per_crop(way.figures.yearly / way.each, way.sized.structure.plantings, currency, system))


def _where(site: Site, way: Candidate, system: System) -> str:
    """Return what is to be said of where it stands; nothing where it is one on its bed."""
    if way.design.geometry.gap:
        return say("choose.over_path", system, {"path": (way.design.geometry.gap, "length")})
    if way.each > 1:
        return say("choose.each", system, {"each": (way.each, "count")})
    host = site.host if tables.traits()[way.family].faces == "one" else None
    return template(f"choose.on_{host.kind}") if host else ""


def _told(site: Site, way: Candidate, wants: Wants, system: System) -> ChoiceSummary:
    figures, trait = way.figures, tables.traits()[way.family]
    limit, needs = against_text(figures.limit, way.design.required_gust, system)
    parts = [part for share in way.sized.evaluation.shares.values() for part in share.lines if part.life]
    first = min(parts, key=lambda part: part.life, default=None)
    return ChoiceSummary(
        cost=money(figures.cost, site.garden.currency),
        yearly=money(figures.yearly, site.garden.currency),
        minutes=time_text(figures.minutes),
        people=str(figures.people),
        limit=limit,
        once=seasons_text(figures.once),
        needs=say("choose.needs", system, words={"gust": needs}),
        carries=_carries(figures.margin, system),
        weakest=template(f"link.{way.design.weakest(way.design.worst_week)}"),
        life=say("choose.life", system, words={"part": first.name, "life": _seasons(first.life)})
        if first
        else template("choose.life_unknown"),
        moves=template(f"choose.moves_{trait.moves}"),
        faces=template(f"choose.faces_{trait.faces}"),
        plants=str(figures.plants),
        own=say("choose.own", system, {"share": (100 * figures.own, "count")})
        if figures.own > _SHARE
        else "",
        crop=_per_crop(way, site.garden.currency, system),
        where=_where(site, way, system),
        tools=say(
            "choose.tools",
            system,
            words={
                "tools": ", ".join(tables.tools()[tool].name for tool in way.missing),
                "cost": money(figures.tools, site.garden.currency),
            },
        )
        if way.missing
        else "",
        minds=_minds(way, wants, system),
    )


def _minds(way: Candidate, wants: Wants, system: System) -> str:
    """Return what to look out for with a way, in a few words each, the weightiest first."""
    serious = [remark.key for remark in way.design.findings if is_serious(remark)]
    said = dict.fromkeys((*serious, *drawbacks_of(way.design, wants)))
    briefly = "; ".join(dict.fromkeys(template(f"brief.{key}") for key in said))
    return say("choose.minds", system, words={"minds": briefly}) if said else ""


def _carries(margin: float, system: System) -> str:
    """Return how much of the expected crop a way carries, in words."""
    key = "carries_none" if margin <= 0 else "carries_much" if margin > MOST_TIMES else "carries"
    return say(f"choose.{key}", system, words={"times": times_text(margin)})


def _seasons(life: float) -> str:
    return "1 season" if life == 1 else f"{life:g} seasons"


def _against(
    site: Site, way: Candidate, key: RejectionReason, need: Need, wants: Wants, system: System
) -> str:
    found, weakest = way.design, way.design.weakest(way.design.worst_week)
    if key == "unfit":
        return " ".join(_unfit(found, system))
    climb = found.geometry.climb
    return say(
        f"choose.against.{key}",
        system,
        {
            "asked": (found.required_gust, "speed"),
            "count": (way.figures.people, "count"),
            "height": (climb, "length"),
            "over": (max(climb - (wants.reach or 0.0), 0.0), "length"),
        },
        {
            "crop": _worst(need, way.family),
            "weak": template(f"family.{way.family}.weak"),
            "suits": template(f"family.{way.family}.suits"),
            "limit": gust_text(way.figures.limit, system),
            "goes": template(f"fails.{weakest}"),
            "least": money(way.figures.cost, site.garden.currency),
            "minutes": time_text(way.figures.minutes),
        },
    )


def _unfit(found: Design, system: System) -> Iterator[str]:
    """Yield what is wrong with a way, each with its numbers, and what would make it do where that is no
    option of its own.
    """
    for remark in found.findings:
        if remark.level == "wrong":
            yield capital(say(f"remark.{remark.key}", system, remark.values, remark.words))
            if tables.remarks()[remark.key].remedy:
                yield template(f"remedy.{remark.key}")


def _worst(need: Need, family_key: str) -> str:
    """Return the name of the crop that a kind of support suits least."""
    crops = [each.crop for each in need.crops]
    return tables.crops()[min(crops, key=lambda crop: tables.suits()[crop].scores[family_key])].name


def order_of(
    ways: Mapping[str, Figures], first: First, currency: str, system: System
) -> tuple[PlaceReport, ...]:
    """Return ways that will do in order, each with what it is the best at.

    Args:
        ways: Figures by kind.
        first: What comes first.
        currency: The garden's.
        system: The reader's units.
    """
    places = []
    for place in ranked(ways, first):
        figures = ways[place.family]
        words = {
            "yearly": money(figures.yearly, currency),
            "cost": money(figures.cost, currency),
            "limit": gust_text(figures.limit, system),
            "minutes": time_text(figures.minutes),
            "once": seasons_text(figures.once),
            "own": f"{100 * figures.own:.0f} %",
            "looks": template(f"choose.looks_{figures.looks}"),
            "weak": template(f"family.{place.family}.weak"),
        }
        best = sorted(place.best_at, key=lambda of: of != first)
        told = [f"choose.best.{of}" for of in best][:2]
        if place.pareto_optimal:
            told.append("choose.best.pareto_optimal")
        if figures.score < GOOD:
            told = ["choose.best.work_needed", *told[:1]]
        if not told:
            told = ["choose.best.middle"]
        places.append(
            PlaceReport(
                family=place.family,
                rank=place.rank,
                reasons=tuple(say(key, system, words=words) for key in told[:3]),
                pareto_optimal=place.pareto_optimal,
            )
        )
    return tuple(places)


def need_of(first: Grown, others: Sequence[Grown], alike: int = 1) -> Need:
    """Return what is wanted as the families are asked for it."""
    rest = tuple(Need(each.crop, each.count, each.side, each.training) for each in others)
    return Need(first.crop, first.count, first.side, first.training, rest, alike)


def choose(
    asked: NeedFile, kinds: Sequence[str] = tuple(FAMILIES)
) -> tuple[tuple[KindReport, ...], tuple[PlaceReport, ...]]:
    """Return every kind of support for a need, told, and the order of those that will do.

    Args:
        asked: The need.
        kinds: Which kinds are looked at.

    Raises:
        InvalidPlan: No such crop.
    """
    site = Site(
        garden=asked.place, bed=asked.bed, spare=spare_of(asked.stock, ()), path=asked.path, host=asked.host
    )
    need = need_of(asked, asked.others, asked.alike)
    units = asked.place.units
    ways = tuple(way_report(site, family, need, asked.wants, units) for family in kinds)
    able = {way.family: way.figures for way in ways if not way.against}
    return ways, order_of(able, asked.wants.first, asked.place.currency, units)
