"""What was learnt from the log and accepted, in words."""

from __future__ import annotations

from collections.abc import Iterable

from .. import tables
from ..learning.storms import SITE
from ..plan.garden import Garden
from ..plan.place import Place, Taught
from ..site import Site
from ..words.texts import template

_NOT_CALCULATED = ("minutes", "life")  # what no load path hangs on


def factor_text(factor: float) -> str:
    """Return a factor as people say it: so many in a hundred more or less. [-]"""
    share = round(100 * (factor - 1.0))
    if not share:
        return template("lesson.as-tables")
    return template("lesson.more" if share > 0 else "lesson.less").format(share=abs(share))


def taught_text(taught: Taught, place: Place | None = None) -> str:
    """Return what was learnt and accepted, in one line."""
    return f"{called(taught.key, taught.about, place)}: {factor_text(taught.factor)}"


def counted_with(site: Site, crops: Iterable[str]) -> str:
    """Return what of a garden’s log a support is calculated with, in a sentence; empty where nothing is.

    Args:
        site: Where it stands.
        crops: What grows on it.
    """
    ground = (f"bed/{site.bed.key}", f"soil/{site.bed.soil}")
    own = {f"yield {crop}" for crop in crops}
    said = [
        taught_text(each)
        for each in site.garden.taught
        if each.key not in _NOT_CALCULATED
        and (not each.about or each.about in ground or f"{each.key} {each.about}" in own)
        and (each.about != ground[1] or not site.garden.learnt(each.key, ground[0]))
    ]
    return template("lesson.counted-with").format(taught="; ".join(said)) if said else ""


def called(key: str, about: str, garden: Place | None = None) -> str:
    """Return what something is called that a log can teach of."""
    if key == "yield":
        return template("lesson.yield-label").format(crop=tables.crops()[about].called)
    if key == "minutes":
        return template("lesson.minutes-label")
    if key == "life":
        return template("lesson.life-label").format(item=about)
    name = "site-label" if key == SITE else "of-soil-strength" if key == "soil" else f"of-{key}"
    return template(f"lesson.{name}") + _where(about, garden)


def _where(about: str, garden: Place | None) -> str:
    kind, _, key = about.partition("/")
    if kind == "soil" and key in tables.soils():
        return template("lesson.of-soil").format(soil=tables.soils()[key].name.lower())
    if kind == "bed":
        beds = {bed.key: bed.name for bed in garden.beds} if isinstance(garden, Garden) else {}
        return template("lesson.of-bed").format(bed=beds.get(key, key.replace("-", " ").title()))
    return ""
