"""What wears out teaches: how many seasons an item lasts here against what the tables say."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from .. import tables
from ..analysis.design import geometry_of
from ..mechanics.bayes import gamma_posterior
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.structure import as_it_stands
from .storms import gusts_of, storm_about

_SURE = 3.0  # failures that the tables’ life counts for


@dataclass(frozen=True)
class WearLesson:
    """What an item’s failures teach: of its table and key, on how many supports it failed, in how many
    seasons of use together; its life before and after. [seasons]
    """

    item: tuple[str, str]
    failed: int
    seasons: float
    before: float
    after: float


def lives_of(garden: Garden, log: Sequence[Entry], today: dt.date) -> list[WearLesson]:
    """Return what broke by itself teaches of how long its item lasts, those that failed alone.

    Failures of an item come at a constant rate; the rate has a gamma prior that counts for three failures at
    the tables’ life. A support counts as one in each season, however many pieces of the item are in it, from
    its first entry in the log until now. What broke in a storm tells of the storm.

    Args:
        garden: With its supports.
        log: All that happened, in order of days.
        today: Of the garden.

    Source: gelman-2.6
    """
    gusts = gusts_of(log)
    failed: dict[tuple[str, str], int] = {}
    used: dict[tuple[str, str], float] = {}
    for bed in garden.beds:
        for structure in bed.structures:
            own = [entry for entry in log if entry.structure == structure.key]
            if not own:
                continue
            since = min([entry.on for entry in own] + _begun(garden, structure.key))
            seasons = max(today.year - since.year + 1, 1)
            members = {
                member.key: (member.table, member.item)
                for member in geometry_of(bed, as_it_stands(structure)).members
                if member.table and member.item
            }
            for item in set(members.values()):
                used[item] = used.get(item, 0.0) + seasons
            for item, _year in {
                (members[entry.member], entry.on.year)
                for entry in own
                if entry.kind == "break" and entry.member in members and storm_about(gusts, entry.on) is None
            }:
                failed[item] = failed.get(item, 0) + 1
    lessons = []
    for item, count in sorted(failed.items()):
        life = tables.item(*item).life
        if not life:
            continue
        shape, exposure = gamma_posterior(_SURE, _SURE * life, count, used[item])
        lessons.append(WearLesson(item, count, used[item], life, exposure / shape))
    return lessons


def _begun(garden: Garden, structure: str) -> list[dt.date]:
    return [record.begun for record in garden.records if record.structure == structure]
