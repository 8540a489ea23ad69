"""What is offered for a need: a structure sized until it holds where it stands, and the reason for every
value.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial

from .. import tables
from ..drawing.sketch import Sketch, sketch_of
from ..errors import InvalidPlan, Problem, UnknownItem, guarded
from ..families import FAMILIES, family_of
from ..family.protocol import Need, Proposal
from ..plan.fields import Typed
from ..plan.structure import Planting, Structure
from ..site import Site
from ..tables import rows
from ..wording import day_text, written
from ..words.quantities import System, write
from ..words.texts import say, template
from .grid import COARSE
from .rounding import rounded_for
from .search import never
from .size import YEARS, Aim, Sized, size


@dataclass(frozen=True)
class Value:
    """A value that was filled in: which, what it is called, how it is written, and why."""

    option: str
    label: str
    text: str
    reason: str


@dataclass(frozen=True)
class Offer:
    """A structure, and every value of it with its reason."""

    structure: Structure
    values: tuple[Value, ...]


class Support(Typed):
    """One kind of support as it would stand on a bed: in words, as a picture, and how well it suits the crop,
    0 to 3.
    """

    family: str
    name: str
    what: str
    suits: str
    weak: str
    score: int
    score_text: str
    sketch: Sketch


_TRIALS = 80  # of a search for what to offer
_GLANCE = 8  # evaluations of a first look
GOOD = 2  # of the marks of suits.csv
_SHOWN = 3.0  # of a long row in its picture [m]


def choices(site: Site, need: Need) -> tuple[list[Support], list[str]]:
    """Return every kind of support for a need, those that suit the crop first, then the simplest, each with
    a picture of its first metres; and the kinds that could not be calculated.

    Raises:
        InvalidPlan: No such crop.
    """
    need, traits = leading(need), tables.traits()
    bed = site.bed.model_copy(update={"length": min(site.bed.length, _SHOWN)})
    short = site.model_copy(update={"bed": bed, "spare": ()})
    found = {key: guarded(key, partial(_choice, short, need, key), None) for key in FAMILIES}
    supports = [support for support in found.values() if support]
    supports.sort(key=lambda s: (s.score < GOOD, traits[s.family].difficulty, -s.score))
    return supports, [key for key, support in found.items() if support is None]


def _choice(site: Site, need: Need, key: str) -> Support:
    family, (stands, each, _) = family_of(key), for_each(site, key, replace(need, count=None))
    proposed = family.propose(each, stands)
    geometry = family.geometry(proposed.options, proposed.plantings, stands)
    words = {name: template(f"family.{key}.{name}") for name in ("name", "what", "suits", "weak")}
    score = suiting(need, key)
    return Support(
        family=key,
        **words,
        score=score,
        score_text=template(f"suit.{score}"),
        sketch=sketch_of(geometry, site.bed.length, 2 * geometry.reach(site.bed.width)),
    )


def leading(need: Need) -> Need:
    """Return a need led by the crop that asks most of its support: the tallest, of equals the heaviest.

    Raises:
        InvalidPlan: No such crop.
    """
    crops = {each.crop: _crop(each) for each in need.crops}
    first, *others = sorted(
        (replace(each, others=()) for each in need.crops),
        key=lambda each: (-crops[each.crop].support_height_m, -crops[each.crop].shoot_kg),
    )
    return replace(first, others=tuple(others))


def suiting(need: Need, family_key: str) -> int:
    """Return how well a kind of support suits every crop of a need, 0 to 3."""
    return min(tables.suits()[each.crop].scores[family_key] for each in need.crops)


def for_each(site: Site, family_key: str, need: Need) -> tuple[Site, Need, int]:
    """Return where one of a kind of support stands for a need, what it gets of the plants, and how many are
    built: one over the path between two beds where it can stand so, else one on each bed or in each pot.
    """
    if tables.traits()[family_key].over_path and site.path:
        return site, replace(need, alike=1), 1

    def part(of: Need) -> Need:
        return replace(of, count=of.count and math.ceil(of.count / need.alike), others=(), alike=1)

    shared = replace(part(need), others=tuple(map(part, need.others)))
    return site.model_copy(update={"path": None}), shared, need.alike


def named(need: Need) -> str:
    """Return what grows, in words."""
    names = [re.sub(r" \([^)]*\)", "", _crop(each).name.split(",")[0]) for each in need.crops]
    return " and ".join(dict.fromkeys(names)) if len(names) < 3 else f"{names[0]} and others"


def _crop(need: Need) -> rows.Crop:
    try:
        return tables.crops()[need.crop]
    except UnknownItem as error:
        raise InvalidPlan([Problem("crop", need.crop, str(error))]) from error


@dataclass(frozen=True)
class Start:
    """What a family proposes for a need, as a structure: all filled in, each value with its reason."""

    structure: Structure
    proposal: Proposal


def start_of(site: Site, family_key: str, need: Need, system: System) -> Start:
    """Return the proposal of a family for a need, in round numbers of the reader's units.

    Raises:
        InvalidPlan: No such crop.
        UnknownItem: No such family.
    """
    need, family = leading(need), family_of(family_key)
    proposed = rounded_for(system, family_key, family.propose(need, site), site)
    return Start(
        Structure(
            key="new",
            name=f"{named(need)} {template(f'family.{family.key}.noun')}",
            family=family.key,
            options=proposed.options.model_dump(mode="json"),
            plantings=proposed.plantings,
        ),
        proposed,
    )


def fitting(
    site: Site,
    start: Start,
    system: System,
    aim: Aim = "per-season",
    years: float = YEARS,
    budget: float = math.inf,
    enough: Callable[[], bool] = never,
    *,
    closely: bool = True,
) -> Sized:
    """Return the proposal for a need, sized: the design that is adequate and best for an aim. [seasons and
    money]

    Args:
        site: Where it is to stand.
        start: What it starts with.
        system: Whose round numbers.
        aim: What it is to be the best of.
        years: Seasons it will be used.
        budget: What its parts may cost.
        enough: ClimateInputs before each evaluation whether to stop there.
        closely: Whether to look on until nothing better can be hoped for, or only a moment.
    """
    return size(
        site,
        start.structure,
        system,
        aim,
        budget=budget,
        years=years,
        extent=COARSE,
        most=_TRIALS if closely else _GLANCE,
        enough=enough,
        strictly=True,
    )


def offer(
    site: Site, family_key: str, need: Need, system: System, enough: Callable[[], bool] = never
) -> Offer:
    """Return the structure of a family that a need starts with, changed to the one that holds and costs least
    in a season, and the reason for every value.

    Args:
        site: Where it is to stand.
        family_key: Which family.
        need: What is to grow.
        system: The reader's units.
        enough: ClimateInputs before each evaluation whether to stop there.

    Raises:
        InvalidPlan: No such crop.
        UnknownItem: No such family.
    """
    site, need, _ = for_each(site, family_key, need)
    start = start_of(site, family_key, need, system)
    found = fitting(site, start, system, enough=enough)
    return Offer(found.structure, values_of(start, found, system))


def values_of(start: Start, found: Sized, system: System) -> tuple[Value, ...]:
    """Return what is filled in of a structure that was sized, each with its reason."""
    reasons = {
        name: say(f"reason.{r.key}", system, r.values, r.words) for name, r in start.proposal.reasons.items()
    }
    for change in found.changes:
        for option in change.options:
            reasons[option] = (
                say("reason.sized", system, words={"link": template(f"link.{change.link}")})
                if change.link
                else say("reason.cheaper", system)
            )
    structure = found.structure
    texts = {
        **_planted(structure.plantings, system),
        **written(family_of(structure.family).options.model_validate(structure.options), system),
    }
    return tuple(
        Value(name, template(f"option.{name.split('.')[-1]}"), text, reasons[name])
        for name, text in texts.items()
        if name in reasons
    )


def _planted(plantings: tuple[Planting, ...], system: System) -> dict[str, str]:
    """Return what is filled in of the plants, in words."""
    said = {}
    for planting in plantings:
        said[planting.path("count")] = str(planting.count)
        said[planting.path("spacing")] = write(planting.spacing, "length", system)
        said[planting.path("planted")] = day_text(planting.planted)
    return said
