"""An evaluation as people read it, in their units."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from typing import Literal

import numpy as np

from .. import tables
from ..buying.lists import Part, shopping, total
from ..drawing.solid import solid_of, sun_towards
from ..drawing.views import VIEWS, project, view_of
from ..errors import InvalidPlan, Problem
from ..families import family_of
from ..family.options import extra_of
from ..ground.shade import sun_at
from ..loads.cases import GUSTS
from ..mechanics import Array
from ..path.geometry import Geometry
from ..path.loadpath import Arrow, Check, Link
from ..plan.model import GREATEST_GUST, Site, Structure
from ..report.evaluation import Evaluation, asked_gust, at, evaluate, outline, state_of
from ..report.rests import sensitivity
from ..report.wording import (
    against_text,
    forecast,
    gust_text,
    money,
    option_text,
    seasons_text,
    speed_text,
    spread_text,
    written,
)
from ..sizing.curves import curve
from ..sizing.fixes import Fix, fixes_for, never, sized
from ..sizing.typical import WHOLE, Typical, typical
from ..words.quantities import STYLES, System, between, to_si, with_sizes, write
from ..words.texts import has, say, template
from .readout import (
    ArrowMark,
    CurvePoint,
    CurveReport,
    FixReport,
    Foliage,
    Headline,
    LinkFixes,
    LinkReport,
    PartReport,
    RemarkReport,
    Report,
    Rest,
    Rests,
    Sizing,
    SolidReport,
    Sun,
    WayReport,
    Week,
    WishReport,
    Working,
)

_PERSON = 1.70  # tall, who stands beside a structure for its size [m]
_SUN_LEAST = 3.0  # height of the sun from which shadows are drawn [deg]
_MOVES = 0.5  # m/s: an input that moves a limit gust by less is not listed
_SEEN = 0.2  # of an arrow, below which a view does not draw it


def report_of(site: Site, evaluation: Evaluation, system: System, week: int | None = None) -> Report:
    """Return the report of an evaluation, its workings at one week (the worst when none is named)."""
    e = evaluation
    chosen = e.worst_week if week is None else min(max(week, 0), e.season.weeks - 1)
    parts = shopping(e.geometry, site.garden.prices)

    def length(value: float) -> str:
        return write(value, "length", system)

    def label(option: str) -> str:
        return template(f"option.{option.rsplit('.', maxsplit=1)[-1]}")

    return Report(
        headline=_headline(site, e, system),
        links=tuple(_link(e, link, chosen, system) for link in e.links),
        weeks=tuple(_week(e, index, system) for index in range(e.season.weeks)),
        foliage=_foliage(e),
        design_gust=e.asked,
        working_wind=site.working_wind,
        winds=(speed_text(0.0, system), speed_text(site.working_wind, system), speed_text(e.asked, system)),
        speed_unit=STYLES["speed"][system].symbol,
        speed_scale=1.0 / to_si(STYLES["speed"][system].unit),
        remarks=_remarks(e, system),
        cautions=cautions_of(e.structure.family, e.geometry),
        parts=part_reports(parts, system),
        cost=total(parts),
        cost_text=money(total(parts), site.garden.currency),
        views=tuple(view_of(e.geometry, site.bed, name, length, label) for name in VIEWS),
        exaggeration=_exaggeration(e),
        written={
            **written(e.options, system),
            **{p.path("spacing"): write(p.spacing, "length", system) for p in e.structure.plantings},
        },
    )


def standing(site: Site, structure: Structure, system: System) -> tuple[Headline, list[tuple[float, float]]]:
    """Return how a structure stands in a list: its headline, and by week its limit gust and a rough week's
    gust. [m/s]
    """
    e = evaluate(site, structure)
    season = [
        (_finite(float(e.limit[0, week])), _finite(float(e.gusts["rare"][week])))
        for week in range(e.season.weeks)
    ]
    return _headline(site, e, system), season


def part_reports(parts: Iterable[Part], system: System) -> tuple[PartReport, ...]:
    """Return the lines of a shopping list in words."""
    return tuple(_part(part, system) for part in parts)


def cautions_of(family: str, geometry: Geometry) -> tuple[str, ...]:
    """Return what to take care of in building a structure."""
    return tuple(template(f"caution.{key}") for key in family_of(family).cautions(geometry))


def _headline(site: Site, e: Evaluation, system: System) -> Headline:
    week = e.worst_week
    key = e.weakest(week)
    limit = float(e.limit[0, week])
    link = next(link for link in e.links if link.key == key)
    margin = min(float(np.min(values)) for values in e.margin.values())
    first = min(e.margin, key=lambda k: float(np.min(e.margin[k])))
    state, often = e.state, e.chance.once_in()
    by = "by judgement" if any(check.certainty == "judgement" for check in link.checks) else ""
    spread = spread_text(*often[1:])
    holds, asked = against_text(limit, e.asked, system)
    label = e.season.label(week)
    goes = template(f"goes.{key}")
    opening = f"Holds to a gust of {holds} at the plant" if limit > 0 else "Falls short in still air"
    margin_text = (
        "over 20 ×" if margin > 20 else "none" if margin <= 0 else f"{np.floor(margin * 10) / 10:.1f} ×"
    )
    carries = (
        f"Carries {margin_text} the expected crop"
        if margin > 0
        else "Falls short in the working wind whatever the crop"
    )
    return Headline(
        state=state,
        words=template(f"state.{state}"),
        sentence=f"{opening} in its worst week, {label}. {goes}{', ' + by if by else ''}. {carries}"
        + (f"; {template('link.' + first).lower()} first." if 0 < margin <= 20 else "."),
        limit=_finite(limit),
        limit_text=holds,
        forecast_text=forecast(site, limit, system),
        saturated_text=gust_text(float(np.min(e.limit[1])), system),
        bare_text=gust_text(float(np.min(e.bare_limit[0])), system),
        stands=round(e.chance.whole, 4),
        once_text=seasons_text(often[0]),
        spread_text=spread,
        once_said=say(
            "headline.once" if spread else "headline.seldom",
            system,
            words={"once": seasons_text(often[0]), "spread": spread},
        ),
        asked_said=_asked_said(site, e, system),
        spare_text=" ".join(
            (speed_text(abs(limit - e.asked), system), "to spare" if limit >= e.asked else "short")
        ),
        margin_text=margin_text,
        weakest=key,
        weakest_text=goes,
        week=week,
        week_label=label,
        design_text=asked,
        by=by,
        beside=_beside(e, week, key, system),
    )


def _asked_said(site: Site, e: Evaluation, system: System) -> str:
    """Return why less is asked of a row than the gust of its place, nothing where it is the same from every
    side.
    """
    if e.asked >= site.design_gust:
        return ""
    return say("headline.asked", system, {"any": (site.design_gust, "speed"), "across": (e.asked, "speed")})


def _beside(e: Evaluation, week: int, weakest: str, system: System) -> str:
    """Return why the weakest link is not the most used one, where that is so."""
    most = max((link.key for link in e.links), key=lambda key: e.use_of(key, week))
    if most == weakest:
        return ""
    return say(
        "headline.beside",
        system,
        words={"most": template(f"link.{most}").lower(), "weakest": template(f"link.{weakest}").lower()},
    )


def _grid_week(values: Array, state: int, weeks: int) -> list[float]:
    row = np.broadcast_to(values[min(state, values.shape[0] - 1)], (weeks,))
    return [_finite(float(v)) for v in row]


def _finite(value: float, most: float = 99.0) -> float:
    return round(min(value, most), 3)


def _link(e: Evaluation, link: Link, week: int, system: System) -> LinkReport:
    weeks = e.season.weeks
    use = np.broadcast_to(link.use, np.broadcast_shapes(link.use.shape, (1, weeks, 3)))[0, :, 2]
    limit = float(e.limits[link.key][0, week])
    carries = at(link.carries, 0, week, 2)
    worst, often = max(link.checks, key=lambda check: at(check.use, 0, week, 2)), e.chance.once_in(link.key)
    return LinkReport(
        key=link.key,
        title=template(f"link.{link.key}"),
        item=with_sizes(tables.item(*link.item).name, system) if link.item else _ground_name(e),
        members=link.members,
        hands_to=link.hands_to,
        carries=_finite(carries, 1e6),
        carries_text=write(carries, "force", system),
        use=tuple(_finite(float(u)) for u in use),
        limit=tuple(_grid_week(e.limits[link.key], 0, weeks)),
        limit_text=gust_text(limit, system),
        states=tuple(state_of(float(u), e.chance.of(link.key)) for u in use),
        stands=round(e.chance.of(link.key), 4),
        once_text=seasons_text(often[0]),
        spread_text=spread_text(*often[1:]),
        certainty=worst.certainty,
        workings=tuple(
            _working(check, week, system)
            for check in sorted(link.checks, key=lambda c: -at(c.use, 0, week, 2))
        ),
        arrows=tuple(mark for arrow in link.arrows for mark in _arrow(arrow)),
    )


def _arrow(arrow: Arrow) -> list[ArrowMark]:
    """Return an arrow in each view that sees its direction."""
    x, y, z = arrow.towards
    size = math.sqrt(x * x + y * y + z * z)
    ways = {name: project(name, (x / size, y / size, z / size)) for name in VIEWS}
    return [
        ArrowMark(view=name, at=project(name, arrow.at), towards=way)
        for name, way in ways.items()
        if math.hypot(*way) > _SEEN
    ]


def _ground_name(e: Evaluation) -> str:
    return tables.soils()[e.site.bed.soil].name


def _working(check: Check, week: int, system: System) -> Working:
    values = {name: (at(value, 0, week, 2), kind) for name, (value, kind) in check.terms.items()}
    values["allowed"] = (at(check.allowed, 0, week, 2), check.quantity)
    values["median"] = (at(check.median, 0, week, 2), check.quantity)
    expected = at(check.demand if check.expected is None else check.expected, 0, week, 2)
    source = tables.sources()[check.source]
    compare = f"check.{check.key}.compare"
    return Working(
        title=template(f"check.{check.key}.title"),
        words=template(f"check.{check.key}.words"),
        formula=template(f"check.{check.key}.formula"),
        numbers=say(f"check.{check.key}.numbers", system, values),
        expects=say(
            "working.median", system, {"median": values["median"], "expected": (expected, check.quantity)}
        ),
        compare=say(compare, system, values) if has(compare) else "",
        use=_finite(at(check.use, 0, week, 2)),
        source=f"{source.title}, {source.where}"
        + ("" if source.checked == "read" else f" ({source.checked})"),
        certainty=check.certainty,
    )


def _week(e: Evaluation, index: int, system: System) -> Week:
    date = e.season.date(index)
    lean = e.service[0].amount
    return Week(
        date=f"{date:%m-%d}",
        label=e.season.label(index),
        short=f"{date.day} {date:%b}",
        limit=_finite(float(e.limit[0, index])),
        limit_text=speed_text(float(e.limit[0, index]), system),
        saturated=_finite(float(e.limit[1, index])),
        bare=_finite(float(e.bare_limit[0, index])),
        weakest=e.weakest(index),
        usual=_finite(float(e.gusts["usual"][index])),
        rare=_finite(float(e.gusts["rare"][index])),
        lean=_of_winds(lean, index),
        sag=_of_winds(next((service.amount for service in e.service if service.key == "sag"), 0.0), index),
    )


def _of_winds(amount: Array | float, week: int) -> tuple[float, float, float]:
    """Return a movement in still air, working wind and design gust of a week. [m]"""
    still, working, design = (_finite(at(amount, 0, week, wind), 3.0) for wind in range(3))
    return still, working, design


def _foliage(e: Evaluation) -> tuple[Foliage, ...]:
    foliages = []
    for growth in e.growths:
        crop = growth.crop
        foliages.append(
            Foliage(
                crop=crop.key,
                name=crop.name,
                habit=crop.habit,
                top=tuple(_finite(float(v)) for v in growth.top),
                bottom=growth.bottom,
                cover=tuple(_finite(float(v)) for v in growth.cover),
                depth=crop.depth_m,
                fruit_kg=tuple(_finite(float(v)) for v in growth.fruit_kg),
                fruit_size=crop.fruit_max or 0.01,
            )
        )
    return tuple(foliages)


def _remarks(e: Evaluation, system: System) -> tuple[RemarkReport, ...]:
    remark_reports = [
        RemarkReport(
            key=r.key,
            level=r.level,
            text=_capital(say(f"remark.{r.key}", system, r.values, r.words)),
            source=tables.sources()[r.source].title,
            levers=r.levers,
        )
        for r in e.remarks
    ]
    for service in e.service:
        amount = float(
            np.max(
                np.broadcast_to(service.amount, np.broadcast_shapes(service.amount.shape, (1, 1, 3)))[0, :, 1]
            )
        )
        values = {"amount": (amount, "length"), "limit": (service.limit, "length")}
        level: Literal["fine", "watch"] = "watch" if amount > service.limit else "fine"
        remark_reports.append(
            RemarkReport(
                key=service.key,
                level=level,
                text=say(f"remark.{service.key}", system, values),
                source=tables.sources()[service.source].title,
                levers=service.levers,
            )
        )
    order = {"wrong": 0, "watch": 1, "fine": 2}
    return tuple(sorted(remark_reports, key=lambda remark: order[remark.level]))


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _part(part: Part, system: System) -> PartReport:
    long = part.pack in ("panel", "sheet", "roll", "coil", "spool") or (part.pack == "piece" and part.length)
    size = write(part.pack_size, "length", system) if long else ""
    of = f" of {part.pack_size:g}" if part.pack == "pack" else f" of {size}" if size else ""
    plural = "" if part.packs == 1 else "s"
    cut = f", cut to {write(part.length, 'length', system)}" if part.pack == "spool" else ""
    return PartReport(
        key=part.key,
        price_key=part.price_key,
        name=with_sizes(part.name, system),
        use=with_sizes(part.use, system, exact=True),
        count=part.count,
        buy=f"{part.packs} {part.pack}{plural}{of}{cut}",
        price=part.price,
        cost=round(part.cost, 2),
        lasts=f"{part.life:g} season{'' if part.life == 1 else 's'}" if part.life else "",
    )


def _exaggeration(e: Evaluation) -> float:
    """Return how many times bending is drawn larger, so that the working wind's lean can be seen."""
    lean = max(float(np.max(np.asarray(e.service[0].amount)[..., 1])), 1e-6)
    wanted = 0.06 * e.geometry.top / lean
    return float(min((n for n in (1, 2, 5, 10, 20) if n >= wanted), default=20))


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
        limit=_finite(fix.limit),
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


def full_report(site: Site, structure: Structure, system: System, week: int | None = None) -> Report:
    """Return the report of a structure at a site."""
    return report_of(site, evaluate(site, structure), system, week)


def rests_on(site: Site, structure: Structure, system: System) -> Rests:
    """Return the inputs that move the limit gust at all, the most first, in words."""
    tried = typical(site, structure)
    moving = [each for each in sensitivity(tried.site, tried.structure) if abs(each[2] - each[1]) >= _MOVES]
    rests = tuple(
        Rest(
            name=row.name,
            low_text=gust_text(low, system),
            high_text=gust_text(high, system),
            spread=_finite(abs(high - low)),
            certainty=row.certainty,
        )
        for row, low, high in moving
    )
    return Rests(rests=rests, said=tried.said(system))


def curve_report(site: Site, structure: Structure, option: str, system: System) -> CurveReport:
    """Return what one option moves, in words: the limit gust and the cost over its range.

    Raises:
        InvalidPlan: The family has no such option.
    """
    tried = Typical(site, structure) if option in WHOLE else typical(site, structure)
    drawn, asked = curve(tried.site, tried.structure, option), asked_gust(site, structure)
    options = family_of(structure.family).options
    extra = extra_of(options, option)
    points = tuple(
        CurvePoint(
            value=value,
            text=option_text(value, extra, system),
            limit=_finite(float(limit), GREATEST_GUST),
            limit_text=gust_text(float(limit), system),
            cost=round(cost / tried.share, 2),
            cost_text=money(cost / tried.share, site.garden.currency),
            goes=template(f"link.{first}"),
            holds=bool(limit >= asked),
        )
        for value, limit, cost, first in zip(
            drawn.values, drawn.limits, drawn.costs, drawn.first, strict=True
        )
    )
    best = max(points, key=lambda point: point.limit)
    now = points[drawn.present]
    words = {"now": now.text, "gust": now.limit_text, "best": best.text, "most": best.limit_text}
    moves = best.limit > now.limit + 0.3
    return CurveReport(
        option=option,
        label=template(f"option.{option}"),
        ordered=extra["kind"] not in ("item", "choice"),
        points=points,
        present=drawn.present,
        design_gust=asked,
        says=" ".join(
            filter(
                None, (say("curve.moves" if moves else "curve.best", system, words=words), tried.said(system))
            )
        ),
    )


def solid_report(site: Site, structure: Structure, system: System, week: int | None = None) -> SolidReport:
    """Return a structure in three dimensions: as it stands in one week (the worst when none is named), with
    that day's sun, and in words.
    """
    e = evaluate(site, structure)
    chosen = e.worst_week if week is None else min(max(week, 0), e.season.weeks - 1)
    day = e.season.date(chosen).timetuple().tm_yday
    hours = np.arange(4.0, 21.0)
    heights, azimuths = sun_at(site.garden.latitude, day, hours)
    bearing = site.bed.bearing + structure.turn
    suns = tuple(
        Sun(
            hour=int(hour),
            text=f"{int(hour)} o’clock",
            towards=sun_towards(float(height), float(azimuth), bearing),
        )
        for hour, height, azimuth in zip(hours, heights, azimuths, strict=True)
        if height > _SUN_LEAST
    )
    return SolidReport(
        solid=solid_of(e.geometry, site.bed),
        week=chosen,
        suns=suns,
        says=_in_words(e, chosen, system),
        person=_PERSON,
        person_text=write(_PERSON, "length", system),
    )


def _in_words(e: Evaluation, week: int, system: System) -> str:
    """Return what stands there, for those who do not see it."""
    geometry, bed = e.geometry, e.site.bed
    upright = len(geometry.by_role("post"))
    values = {
        "length": (geometry.length, "length"),
        "top": (geometry.top, "length"),
        "depth": (geometry.depth, "length"),
        "posts": (upright, "count"),
    }
    noun = template(f"family.{e.structure.family}.noun")
    said = [say("solid.stands", system, values, {"name": e.structure.name, "noun": noun, "bed": bed.name})]
    if upright:
        said.append(say("solid.posts", system, values))
    if geometry.depth > 0.02:
        said.append(
            say(
                "solid.depth",
                system,
                values,
                {"soil": tables.soils()[bed.fill if bed.kind == "container" else bed.soil].name},
            )
        )
    for growth in e.growths[: len(e.structure.plantings)]:
        grown = {
            "count": (growth.planting.count, "count"),
            "top": (float(growth.top[week]), "length"),
            "cover": (100 * float(growth.cover[week]), "count"),
        }
        said.append(
            say(
                "solid.grown", system, grown, {"crop": growth.crop.name.lower(), "week": e.season.label(week)}
            )
        )
    said.append(
        say(
            "solid.weakest",
            system,
            words={
                "goes": template(f"goes.{e.weakest(week)}"),
                "gust": gust_text(float(e.limit[0, week]), system),
            },
        )
    )
    return " ".join(said)


def ways_to(
    site: Site, structure: Structure, key: str, wanted: Mapping[str, float], system: System
) -> WishReport:
    """Return the ways to a wish, in words.

    Args:
        site: Where the structure stands.
        structure: As it is.
        key: The wish, one of its family's.
        wanted: The numbers of the wish, SI.
        system: The reader's units.

    Raises:
        InvalidPlan: No such wish, or a number of it missing or out of its bounds.
    """
    family = family_of(structure.family)
    wish = next((each for each in family.wishes if each.key == key), None)
    if wish is None:
        allowed = ", ".join(each.key for each in family.wishes)
        raise InvalidPlan(
            [
                Problem(
                    "wish",
                    key,
                    f"one of {allowed} is allowed" if allowed else "no wish is known for this kind",
                )
            ]
        )
    problems = []
    for ask in wish.asks:
        value = wanted.get(ask.name)
        if value is None or not ask.low <= value <= ask.high:
            allowed = f"{between(ask.low, ask.high, ask.kind, system)} is allowed"
            problems.append(
                Problem(
                    f"wanted.{ask.name}",
                    "nothing" if value is None else write(value, ask.kind, system),
                    allowed,
                )
            )
    if problems:
        raise InvalidPlan(problems)
    ways = wish.ways(wanted, family.options.model_validate(structure.options), structure, site)
    return WishReport(
        written={ask.name: write(wanted[ask.name], ask.kind, system) for ask in wish.asks},
        ways=tuple(
            WayReport(
                text=" ".join(say(f"way.{key}.{each}", system, way.values) for each in way.says),
                reaches=way.reaches,
                changes=dict(way.changes),
            )
            for way in ways
        ),
    )
