"""What is due in a garden: each support with its tasks and visits through the year."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from ..analysis.design import geometry_of
from ..errors import guarded
from ..log.now import Break, open_breaks, whole_log
from ..memory import remembered
from ..plan.bed import Bed
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.record import Diary
from ..plan.structure import Structure, as_it_stands
from ..site import Site, plain_site
from .repairs import repairs_of
from .tasks import Tended
from .visits import Due, Visit, visits_of


@dataclass(frozen=True)
class Kept:
    """A structure with its site, its visits through the year, and how it grows.

    log: all that happened in the garden, in order of days. breaks: what is not mended.
    """

    bed: Bed
    structure: Structure
    tended: Tended
    visits: tuple[Visit, ...]
    log: tuple[Entry, ...] = ()
    breaks: tuple[Break, ...] = ()


@remembered(1024)
def tended_of(site: Site, structure: Structure, built: bool) -> Tended:
    """Return a structure with what it asks, calculated once."""
    return Tended(site, structure, geometry_of(site.bed, structure), built)


def kept_of(garden: Garden, bed: Bed, structure: Structure, log: Sequence[Entry] = ()) -> Kept:
    """Return a structure with its visits.

    Args:
        garden: It stands in.
        bed: It stands on.
        structure: Itself.
        log: All that happened in the garden, in order of days.
    """
    return next(_kept(garden, [(bed, structure)], tuple(log)))


def _kept(garden: Garden, wanted: Iterable[tuple[Bed, Structure]], log: tuple[Entry, ...]) -> Iterator[Kept]:
    diaries = {diary.structure: diary for diary in garden.diaries}
    stands = {record.structure for record in garden.records if record.stands}
    sites: dict[str, Site] = {}
    for bed, structure in wanted:
        if bed.key not in sites:
            sites[bed.key] = plain_site(garden, bed)
        still = as_it_stands(structure)
        tended = tended_of(sites[bed.key], still, structure.key in stands)
        diary = diaries.get(structure.key)
        breaks = tuple(open_breaks(garden, structure.key, log, diary))
        visits = _visits(tended, garden.visits, diary, breaks)
        yield Kept(bed, structure, tended, visits, log, breaks)


def _visits(
    tended: Tended, weekdays: Sequence[int], diary: Diary | None, breaks: Sequence[Break]
) -> tuple[Visit, ...]:
    planted = {grown.planting.key: grown.date(grown.course.start) for grown in tended.grown}
    return visits_of((*tended.tasks, *repairs_of(tended, breaks)), weekdays, diary, planted)


def everything(garden: Garden, log: Iterable[Entry] = ()) -> list[Kept]:
    """Return every structure of a garden with its visits, but those whose season cannot be calculated."""
    happened = whole_log(garden, log)
    return [
        kept
        for bed in garden.beds
        for structure in bed.structures
        if (
            kept := guarded(
                f"the season of {structure.key}", partial(kept_of, garden, bed, structure, happened), None
            )
        )
    ]


def visited_on(garden: Garden, today: dt.date) -> dt.date:
    """Return today, or the last day that people came on."""
    return next(
        today - dt.timedelta(days=n)
        for n in range(7)
        if (today - dt.timedelta(days=n)).weekday() in garden.visits
    )


def not_again(left: list[Due], visits: tuple[Visit, ...], now: dt.date) -> list[Due]:
    """Return what was left undone and does not come round again on the day itself."""
    again = {(due.task.planting, due.task.job) for visit in visits if visit.on == now for due in visit.due}
    last = {(due.task.planting, due.task.job): due for due in left}
    return [due for key, due in last.items() if key not in again]
