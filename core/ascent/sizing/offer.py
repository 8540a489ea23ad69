"""What is offered for a need: a structure sized until it holds where it stands, and the reason for every
value.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from .. import tables
from ..drawing.sketch import Sketch, sketch_of
from ..errors import InvalidPlan, Problem, UnknownItem
from ..families import FAMILIES, family_of
from ..family.protocol import Need, Proposal
from ..plan.model import Planting, Site, Structure, Typed
from ..report.wording import day_text, written
from ..tables import rows
from ..words.quantities import System, write
from ..words.texts import say, template
from .born import born_in
from .grid import COARSE
from .search import never
from .size import YEARS, Sized, size


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
_GLANCE = 12  # trials of a first look
GOOD = 2  # of the marks of suits.csv
_SHOWN = 3.0  # of a long row in its picture [m]


def choices(site: Site, need: Need) -> list[Support]:
    """Return every kind of support for a need, those that suit the crop first and of them the simplest, each
    as a picture of its first stretch.

    Raises:
        InvalidPlan: No such crop.
    """
    _crop(need)
    scores, traits = tables.suits()[need.crop].scores, tables.traits()
    bed = site.bed.model_copy(update={"length": min(site.bed.length, _SHOWN)})
    short = Site(garden=site.garden, bed=bed)
    supports = []
    for key, family in FAMILIES.items():
        proposed = family.propose(need, short)
        geometry = family.geometry(proposed.options, proposed.plantings, short)
        words = {name: template(f"family.{key}.{name}") for name in ("name", "what", "suits", "weak")}
        score = scores[key]
        supports.append(
            Support(
                family=key,
                **words,
                score=score,
                score_text=template(f"suit.{score}"),
                sketch=sketch_of(geometry, bed.length, bed.width),
            )
        )
    return sorted(supports, key=lambda s: (s.score < GOOD, traits[s.family].difficulty, -s.score))


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
    """Return the structure of a family that a need starts with, in round numbers of a reader's units.

    Raises:
        InvalidPlan: No such crop.
        UnknownItem: No such family.
    """
    crop, family = _crop(need), family_of(family_key)
    proposed = born_in(system, family_key, family.propose(need, site), site)
    short_name = crop.name.split(",")[0].split(" (")[0]
    return Start(
        Structure(
            key="new",
            name=f"{short_name} {template(f'family.{family.key}.noun')}",
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
    years: float = YEARS,
    budget: float = math.inf,
    enough: Callable[[], bool] = never,
    *,
    closely: bool = True,
) -> Sized:
    """Return what a need starts with, changed to the way that holds and costs least in a season.

    Args:
        site: Where it is to stand.
        start: What it starts with.
        system: Whose round numbers.
        years: Seasons it will be used.
        budget: What its parts may cost.
        enough: Asked before each trial whether to stop there.
        closely: Whether to look on until nothing better can be hoped for, or only a moment.
    """
    return size(
        site,
        start.structure,
        system,
        "per-season",
        budget=budget,
        years=years,
        extent=COARSE,
        most=_TRIALS if closely else _GLANCE,
        enough=enough,
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
        enough: Asked before each trial whether to stop there.

    Raises:
        InvalidPlan: No such crop.
        UnknownItem: No such family.
    """
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
                say("reason.sized", system, words={"link": template(f"link.{change.link}").lower()})
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
