"""The choices that divide growers, told: which side won here, by what, and what would turn it."""

from __future__ import annotations

from collections.abc import Mapping

from .. import tables
from ..families import family_of
from ..family.options import extra_of
from ..plan.fields import Typed
from ..plan.needs import First
from ..plan.structure import Structure
from ..site import Site
from ..sizing.choose import Figures
from ..sizing.divides import Divided, Side, divided
from ..wording import gust_text, money, option_text
from ..words.quantities import System
from ..words.texts import say, template

_SAME = 0.005  # of money


class DivideReport(Typed):
    """One choice: what it is about, which side won and by what, what would turn it, what each side is good
    for.
    """

    key: str
    topic: str
    won: str
    why: str
    turn: str
    gains: tuple[str, str]


def divide_reports(
    site: Site, structure: Structure, figures: Mapping[str, Figures], first: First, system: System
) -> tuple[DivideReport, ...]:
    """Return the choices that concern a structure and that computing decides, told."""
    return tuple(_told(each, site, structure, system) for each in divided(site, structure, figures, first))


def _told(each: Divided, site: Site, structure: Structure, system: System) -> DivideReport:
    sides = {"one": each.one, "other": each.other}
    whats = {name: _what(side, each, structure, system) for name, side in sides.items()}
    by_measure = tables.divides()[each.key].by == "measure"
    names = {name: whats[name] if by_measure else template(f"divide.{each.key}.{name}") for name in sides}
    told = {
        name: names[name][:1].upper() + names[name][1:] + ("" if by_measure else f" ({whats[name]})")
        for name in sides
    }
    lost = {"one": "other", "other": "one"}.get(each.won, "")
    return DivideReport(
        key=each.key,
        topic=template(f"divide.{each.key}.topic"),
        won=say("divides.won", system, words={"side": names[each.won]})
        if each.won
        else template("divides.even"),
        why=" ".join(_side(side, told[name], each, site, system) for name, side in sides.items()),
        turn=_turn(each, sides[each.won], sides[lost], names[lost], site, system) if each.won else "",
        gains=(
            f"{names['one']}: {template(f'divide.{each.key}.gain_one')}",
            f"{names['other']}: {template(f'divide.{each.key}.gain_other')}",
        ),
    )


def _what(side: Side, each: Divided, structure: Structure, system: System) -> str:
    """Return what a side would be here."""
    if not each.option:
        return template(f"family.{side.what}.noun")
    return option_text(side.what, extra_of(family_of(structure.family).options, each.option), system)


def _side(side: Side, name: str, each: Divided, site: Site, system: System) -> str:
    """Return one side in figures: the gust it holds to, what it costs."""
    key = "kind" if not each.option else "holds" if side.holds else "short" if side.limit > 0 else "never"
    words = {
        "name": name,
        "limit": gust_text(side.limit, system),
        "cost": money(side.cost, site.garden.currency),
    }
    return say(f"divides.side_{key}", system, words=words)


def _turn(each: Divided, won: Side, lost: Side, name: str, site: Site, system: System) -> str:
    """Return what would turn a choice."""
    words = {"name": name, "limit": gust_text(lost.limit, system), "holds": gust_text(won.limit, system)}
    if not each.option:
        firsts = ", ".join(template(f"divides.first.{of}") for of in each.turns)
        return say("divides.turn_first" if firsts else "divides.turn_never", system, words={"first": firsts})
    if not won.holds:
        return say("divides.turn_neither", system)
    if not lost.holds:
        return say("divides.turn_wind" if lost.limit > 0 else "divides.turn_not", system, words=words)
    if lost.cost - won.cost > _SAME:
        words["less"] = money(lost.cost - won.cost, site.garden.currency)
        key = "stronger" if lost.limit > won.limit else "price"
        return say(f"divides.turn_{key}", system, words=words)
    return say("divides.turn_habit", system)
