"""What is said first of a structure: whether it holds, up to which gust, how often it goes."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..plan.model import Site
from ..report.evaluation import Evaluation
from ..report.wording import against_text, forecast, gust_text, seasons_text, speed_text, spread_text
from ..words.quantities import System
from ..words.texts import say, template
from .figures import finite
from .readout import Brief, Headline


def season_of_limits(e: Evaluation) -> list[tuple[float, float]]:
    """Return by week the limit gust of a structure and a rough week's gust. [m/s]"""
    return [
        (finite(float(e.limit[0, week])), finite(float(e.gusts["rare"][week])))
        for week in range(e.season.weeks)
    ]


def brief(site: Site, e: Evaluation, system: System) -> Brief:
    """Return how a structure stands, as a list says it."""
    week = e.worst_week
    key = e.weakest(week)
    limit = float(e.limit[0, week])
    holds, asked = against_text(limit, e.asked, system)
    return Brief(
        state=e.state,
        words=template(f"state.{e.state}"),
        limit_text=holds,
        forecast_text=forecast(site, limit, system),
        design_text=asked,
        once_text=seasons_text(e.chance.once_in()[0]),
        weakest=key,
        weakest_text=template(f"goes.{key}"),
        week=week,
        week_label=e.season.label(week),
    )


def headline(site: Site, e: Evaluation, system: System) -> Headline:
    said = brief(site, e, system)
    limit = float(e.limit[0, said.week])
    link = next(link for link in e.links if link.key == said.weakest)
    margin = min(float(np.min(values)) for values in e.margin.values())
    first = min(e.margin, key=lambda k: float(np.min(e.margin[k])))
    by = "by judgement" if any(check.certainty == "judgement" for check in link.checks) else ""
    spread = spread_text(*e.chance.once_in()[1:])
    opening = (
        f"Holds to a gust of {said.limit_text} at the plant" if limit > 0 else "Falls short in still air"
    )
    margin_text = (
        "over 20 ×" if margin > 20 else "none" if margin <= 0 else f"{np.floor(margin * 10) / 10:.1f} ×"
    )
    carries = (
        f"Carries {margin_text} the expected crop"
        if margin > 0
        else "Falls short in the working wind whatever the crop"
    )
    return Headline(
        **said.model_dump(),
        sentence=f"{opening} in its worst week, {said.week_label}. {said.weakest_text}"
        f"{', ' + by if by else ''}. {carries}"
        + (f"; {template('link.' + first).lower()} first." if 0 < margin <= 20 else "."),
        limit=finite(limit),
        saturated_text=gust_text(float(np.min(e.limit[1])), system),
        bare_text=gust_text(float(np.min(e.bare_limit[0])), system),
        stands=round(e.chance.whole, 4),
        spread_text=spread,
        once_said=say(
            "headline.once" if spread else "headline.seldom",
            system,
            words={"once": said.once_text, "spread": spread},
        ),
        asked_said=_asked_said(site, e, system),
        spare_text=" ".join(
            (speed_text(abs(limit - e.asked), system), "to spare" if limit >= e.asked else "short")
        ),
        margin_text=margin_text,
        by=by,
        beside=_beside(e, said.week, said.weakest, system),
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


def in_words(e: Evaluation, week: int, system: System) -> str:
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
