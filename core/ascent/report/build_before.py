"""What to know before building: services, ways round, soil, tools, people and time."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from .. import tables
from ..analysis.design import Design
from ..building.before import BOARD, Near, Relocation, driven, in_board, in_the_way, to_ask, ways_clear
from ..building.work import Used, WorkStep
from ..buying.work import tools_of
from ..ground.clashes import warned
from ..ground.plot import Laid
from ..plan.bed import Bed
from ..plan.garden import Garden
from ..tables.rows import Post
from ..wording import time_text
from ..words.quantities import System, with_sizes, write
from ..words.texts import say, template
from .build_readout import BeforeLine, BeforeReport, ClearWay
from .figures import capital
from .remarks import cautions_of, remark_reports

_HARD = 70e3  # strength of a clay from which a post is not driven without a hole [Pa]
_NEAR_TOLD = 6
_GEAR = {  # what is worn, by what is done; source handbook-parts-7
    "driving": ("gloves", "ear protection", "eye protection"),
    "cut-ends": ("leather gloves", "goggles"),
    "strainers": ("gloves", "goggles"),
    "spring": ("leather gloves", "goggles"),
    "hoop-spring": ("gloves", "goggles"),
    "concrete": ("rubber gloves", "goggles"),
    "poles-eyes": ("eye protection",),
    "shared-wall": ("goggles",),
}

SERVICES = "services"


def unsafe_members(near: Sequence[Near]) -> frozenset[str]:
    """Return the keys of what must not be driven where it is marked."""
    return frozenset(each.member.key for each in near if each.too_near)


def before_report(
    laid: Laid,
    garden: Garden,
    near: Sequence[Near],
    work: Sequence[WorkStep],
    names: Mapping[str, str],
    remarks: tuple[BeforeLine, ...],
    system: System,
) -> BeforeReport:
    """Return what to know before building begins."""
    lines = [_near_line(each, names, system) for each in near[:_NEAR_TOLD]]
    if any(each.too_near for each in near):
        lines.append(BeforeLine(text=template("before.dig-by-hand")))
    against = in_board(laid)
    if against:
        what = ", ".join(names.get(key, template("before.posts-own")) for key in against)
        values = {"keep": (BOARD, "length")}
        lines.append(BeforeLine(text=say("before.board", system, values, {"what": what}), wrong=True))
    if not near and in_earth(laid.bed):
        lines.append(BeforeLine(text=say("before.clear", system, words={"what": laid.structure.name})))
    deep = bool(driven(laid))
    if deep and in_earth(laid.bed):
        lines.append(BeforeLine(text=template("before.unknown")))
    cautions = [caution for each in work for caution in each.row.cautions]
    left = [template("caution.judgement")]  # it stands at the end of the page
    if not in_earth(laid.bed):
        left.append(template(f"caution.{SERVICES}"))
    gear = dict.fromkeys(piece for caution in cautions for piece in _GEAR.get(caution, ()))
    minutes = sum(each.minutes for each in work)
    hands = sum(each.minutes * each.people for each in work)
    return BeforeReport(
        remarks=remarks,
        services=tuple(lines),
        ways=tuple(_way(way, laid, system) for way in ways_clear(laid, garden.features)),
        around=tuple(
            BeforeLine(text=told.text, wrong=told.level == "wrong")
            for told in warned(in_the_way(garden, laid), system)
        ),
        ask=tuple(
            say("before.ask", system, words={"what": feature.name})
            for feature in to_ask(laid, garden.features)
        ),
        soil=_soil(laid, deep, system),
        tools=tuple(dict.fromkeys(tool for each in work for tool in tools_of(each.step))),
        carry=tuple(used_words(used, system) for used in _together(work)),
        gear=tuple(gear),
        people=max((each.people for each in work), default=1),
        clock=time_text(minutes),
        work=time_text(hands) if hands > minutes else "",
        cautions=tuple(
            text for text in cautions_of(laid.structure.family, laid.geometry) if text not in left
        ),
    )


def in_earth(bed: Bed) -> bool:
    """Return whether the ground below a bed can be met by what is driven in it: a container has a floor."""
    return bed.kind != "container"


def warnings_of(e: Design, system: System) -> tuple[BeforeLine, ...]:
    """Return every remark of the bench that something does not do or wants watching, the worst first."""
    return tuple(
        BeforeLine(text=remark.text, wrong=remark.level == "wrong")
        for remark in remark_reports(e, system)
        if remark.level != "fine"
    )


def _near_line(near: Near, names: Mapping[str, str], system: System) -> BeforeLine:
    key = "near" if near.too_near else "near-shallow" if near.away < near.keep else "near-clear"
    values = {"away": (near.away, "length"), "keep": (near.keep, "length")}
    words = {"what": names.get(near.member.key, template("before.posts-own")), "line": near.feature.name}
    return BeforeLine(text=say(f"before.{key}", system, values, words), wrong=near.too_near)


def _way(way: Relocation, laid: Laid, system: System) -> ClearWay:
    structure = laid.structure
    values: dict[str, tuple[float, str]] = {
        "along": (way.along - structure.along, "length"),
        "across": (way.across - structure.across, "length"),
    }
    if way.key == "bays":
        values["spacing"] = (next(iter(way.options.values())), "length")
    if way.key == "shorter":
        values["less"] = (laid.geometry.length - way.options["length"], "length")
    return ClearWay(
        text=say(f"before.way-{way.key}", system, values),
        along=way.along,
        across=way.across,
        options=dict(way.options),
    )


def _soil(laid: Laid, deep: bool, system: System) -> str:
    if not (deep and in_earth(laid.bed)):
        return template("before.soil-none")
    soil = tables.soils()[laid.bed.fill if laid.bed.raised_by > 0.3 else laid.bed.soil]
    hard = soil.hatch == "gravel" or soil.cu >= _HARD
    kind = "hard" if hard else "loose" if soil.anchor == "loose" else "moist"
    return say(f"before.soil-{kind}", system, words={"soil": capital(soil.name)})


def _together(work: Sequence[WorkStep]) -> list[Used]:
    """Return everything that is used, alike together over all steps."""
    alike: dict[tuple[str, float], Used] = {}
    for used in (used for each in work for used in each.used):
        key = used.item.key, used.length
        count = alike[key].count if key in alike else 0
        alike[key] = Used(used.item, count + used.count, used.length, used.use)
    return list(alike.values())


def used_words(used: Used, system: System) -> str:
    """Return parts of one kind in words: how many, how long, and what they are used for."""
    name = with_sizes(used.item.name, system)
    # a post that is sold in one length has it in its name
    named = isinstance(used.item, Post) and used.item.lengths_m == (used.length,)
    long = f" of {write(used.length, 'length', system)}" if used.length and not named else ""
    return f"{used.count} × {name}{long}"
