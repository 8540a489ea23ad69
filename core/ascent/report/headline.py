"""What is said first of a structure: whether it holds, up to which gust, how often it goes."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..analysis.design import Design
from ..plan.fields import GREATEST_GUST
from ..site import Site
from ..wording import (
    MOST_TIMES,
    against_text,
    forecast,
    gust_text,
    return_period_range,
    seasons_text,
    speed_text,
    times_text,
)
from ..words.quantities import System
from ..words.texts import say, template
from .figures import finite
from .readout import Brief, Headline
from .taught import counted_with


def season_of_limits(e: Design) -> list[tuple[float, float]]:
    """Return by week the limit gust of a structure and a rough week's gust. [m/s]"""
    return [
        (finite(float(e.limit[0, week])), finite(float(e.weekly_gusts["rare"][week])))
        for week in range(e.season.weeks)
    ]


def brief(site: Site, e: Design, system: System) -> Brief:
    """Return how a structure stands, as a list says it."""
    week = e.worst_week
    key = e.weakest(week)
    limit = float(e.limit[0, week])
    holds, asked = against_text(limit, e.required_gust, system)
    return Brief(
        state=e.state,
        words=template(f"state.{e.state}"),
        limit_text=holds,
        forecast_text=forecast(site, limit, system),
        required_text=asked,
        return_period_text=seasons_text(e.reliability.return_period()[0]),
        weakest=key,
        weakest_text=template(f"fails.{key}"),
        week=week,
        week_label=e.season.label(week),
    )


def headline(site: Site, e: Design, system: System) -> Headline:
    """Return what is said first of a design, in words."""
    said = brief(site, e, system)
    limit = float(e.limit[0, said.week])
    link = next(link for link in e.links if link.key == said.weakest)
    margin = min(float(np.min(values)) for values in e.crop_load_factors.values())
    first = min(e.crop_load_factors, key=lambda k: float(np.min(e.crop_load_factors[k])))
    estimated = any(check.certainty == "judgement" for check in link.checks)
    spread = return_period_range(*e.reliability.return_period()[1:])
    words = {"limit": said.limit_text, "week": said.week_label}
    holds = "nothing" if limit <= 0 else "over" if limit > GREATEST_GUST else "holds"
    sentences = [say(f"headline.{holds}", system, words=words), said.weakest_text]
    if estimated:
        sentences.append(template("headline.estimate"))
    sentences.append(_carries(margin, first, system))
    return Headline(
        **said.model_dump(),
        sentence=" ".join(sentences),
        limit=finite(limit),
        saturated_text=gust_text(float(np.min(e.limit[1])), system),
        median_text=gust_text(float(np.min(e.median_limit[0])), system),
        probability=round(e.reliability.whole, 4),
        return_period_range=spread,
        return_period_said=say(
            "headline.once" if spread else "headline.seldom",
            system,
            words={"once": said.return_period_text, "spread": spread},
        ),
        required_said=_required_said(site, e, system),
        taught_said=counted_with(site, [planting.crop for planting in e.structure.plantings]),
        spare_text=" ".join(
            (
                speed_text(abs(limit - e.required_gust), system),
                "to spare" if limit >= e.required_gust else "short",
            )
        ),
        crop_load_factor_text=times_text(margin),
        by=template("headline.by") if estimated else "",
        beside=_beside(e, said.week, said.weakest, system),
    )


def _carries(margin: float, first: str, system: System) -> str:
    """Return how much of the expected crop a structure carries, and what fails first with more."""
    key = "carries_none" if margin <= 0 else "carries_much" if margin > MOST_TIMES else "carries"
    words = {"times": times_text(margin), "link": template(f"link.{first}")}
    return say(f"headline.{key}", system, words=words)


def _required_said(site: Site, e: Design, system: System) -> str:
    """Return why less is asked of a row than the gust of its place, nothing where it is the same from every
    side.
    """
    if e.required_gust >= site.design_gust:
        return ""
    return say(
        "headline.asked", system, {"any": (site.design_gust, "speed"), "across": (e.required_gust, "speed")}
    )


def _beside(e: Design, week: int, weakest: str, system: System) -> str:
    """Return why the weakest link is not the most used one, where that is so."""
    most = max((link.key for link in e.links), key=lambda key: e.utilisation_of(key, week))
    if most == weakest:
        return ""
    return say(
        "headline.beside",
        system,
        words={"most": template(f"link.{most}"), "weakest": template(f"link.{weakest}")},
    )


def in_words(e: Design, week: int, system: System) -> str:
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
            say("solid.grown", system, grown, {"crop": growth.crop.name, "week": e.season.label(week)})
        )
    said.append(
        say(
            "solid.weakest",
            system,
            words={
                "goes": template(f"fails.{e.weakest(week)}"),
                "gust": gust_text(float(e.limit[0, week]), system),
            },
        )
    )
    return " ".join(said)
