"""What measures teach: a lean under a known pull of the ground, a sag of the wire’s tension."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..analysis.design import design_of
from ..building.pull_test import Compared, compared
from ..errors import InvalidPlan
from ..families import family_of
from ..loads.cases import Cases
from ..loads.season import season_of
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.record import PullTest, Reading
from ..plan.structure import Structure, as_it_stands
from ..site import Site, plain_site

_TIGHT = "pretension"
_STEPS = 40


@dataclass(frozen=True)
class GroundLesson:
    """A lean under a known pull as a pull test: of a bed, by which entry."""

    bed: str
    entry: Entry
    compared: Compared


@dataclass(frozen=True)
class TensionLesson:
    """A sag as what the wire was drawn to: of a support, by which entry; planned and by the sag [N], and how
    far it sags as planned. [m]
    """

    structure: str
    entry: Entry
    planned: float
    found: float
    sag: float


def grounds_of(garden: Garden, log: Sequence[Entry]) -> list[GroundLesson]:
    """Return what the latest lean under a known pull says of the ground of each bed.

    Source: handbook-5.5
    """
    found: dict[str, GroundLesson] = {}
    for bed in garden.beds:
        for structure in bed.structures:
            standing, site = as_it_stands(structure), plain_site(garden, bed)
            for entry in log:
                if entry.kind != "lean" or entry.structure != structure.key:
                    continue
                if not (entry.pull and entry.moved and entry.height and entry.member):
                    continue
                readings = (Reading(pull=0.0, moved=0.0), Reading(pull=entry.pull, moved=entry.moved))
                test = PullTest(member=entry.member, height=entry.height, readings=readings, at=entry.at)
                try:
                    found[bed.key] = GroundLesson(bed.key, entry, compared(site, standing, test))
                except InvalidPlan:
                    continue  # no such post any more, or one too limber to tell
    return list(found.values())


def tensions_of(garden: Garden, log: Sequence[Entry]) -> list[TensionLesson]:
    """Return what the latest sag of each support with wires says of what they are drawn to.

    The tension is looked for at which the wires, under the crop of that week in still air, sag as was
    measured.

    Source: handbook-6.4
    """
    found: dict[str, TensionLesson] = {}
    for bed in garden.beds:
        for structure in bed.structures:
            standing, site = as_it_stands(structure), plain_site(garden, bed)
            if _TIGHT not in family_of(standing.family).options.model_fields:
                continue
            for entry in log:
                if entry.kind == "sag" and entry.structure == structure.key and entry.moved:
                    lesson = _tension(site, standing, entry)
                    if lesson:
                        found[structure.key] = lesson
    return list(found.values())


def _tension(site: Site, structure: Structure, entry: Entry) -> TensionLesson | None:
    season = season_of(site.garden, structure.plantings, structure.covers)
    week = season.week_in_any_year(entry.on)
    assert entry.moved is not None  # noqa: S101 - asked before
    if week is None:
        return None
    field = family_of(structure.family).options.model_json_schema()["properties"][_TIGHT]
    low, high = float(field["minimum"]), float(field["maximum"])
    planned = float(structure.options.get(_TIGHT, field["default"]))
    if sag_at(site, structure, week, low) < entry.moved:
        tight = low
    elif sag_at(site, structure, week, high) > entry.moved:
        tight = high
    else:
        for _ in range(_STEPS):
            middle = (low * high) ** 0.5
            low, high = (
                (middle, high) if sag_at(site, structure, week, middle) > entry.moved else (low, middle)
            )
        tight = (low * high) ** 0.5
    return TensionLesson(structure.key, entry, planned, tight, sag_at(site, structure, week, planned))


def sag_at(site: Site, structure: Structure, week: int, tight: float) -> float:
    """Return how far wires sag in still air in a week, drawn so tight. [m]

    Args:
        site: Where.
        structure: With an option ‘pretension’.
        week: Of its season.
        tight: What they are drawn to. [N]
    """
    still = Cases(np.full((1, 1, 1), 0.01), np.ones((1, 1, 1)), np.zeros((1, 1, 1)))
    for service in design_of(site, structure).with_({_TIGHT: tight}).under(still).service():
        if service.key == "sag":
            amount = np.asarray(service.amount)
            while amount.ndim < 3:
                amount = amount[None]
            return float(amount[0, min(week, amount.shape[1] - 1), 0])
    return 0.0
