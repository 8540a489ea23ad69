"""What the log says of things as they are now: what is broken, what may not be picked yet, what came in."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.place import Place
from ..plan.record import Diary, Marked

DAMAGED = ("torn", "fell")  # findings after a storm that are a break
_JOB = "repair"


@dataclass(frozen=True)
class Break:
    """Something that broke and is not mended: the entry that says so, the key of the task that mends it."""

    entry: Entry
    task: str


@dataclass(frozen=True)
class Closed:
    """A crop that may not be picked: until when, and the treatment that says so."""

    until: dt.date
    entry: Entry


def whole_log(garden: Garden, log: Iterable[Entry]) -> list[Entry]:
    """Return everything that happened, in order of its days: the log’s own entries, and what was written of a
    task or a storm in the week, as entries.
    """
    found = list(log)
    for diary in garden.diaries:
        planted = _crops_of(garden, diary)
        for key, mark in diary.marks.items():
            if mark.picked:
                found.append(_picked(diary, key, mark, planted))
        for day, storm in diary.storms.items():
            found.append(
                Entry(
                    key=f"storm-{day}-{diary.structure}"[:64].rstrip("-"),
                    kind="storm",
                    on=dt.date.fromisoformat(day),
                    at=storm.at,
                    who=storm.who,
                    structure=diary.structure,
                    found=storm.found,
                    note=storm.note,
                )
            )
    return sorted(found, key=lambda entry: (entry.on, entry.at, entry.key))


def _crops_of(garden: Garden, diary: Diary) -> dict[str, str]:
    return {
        planting.key: planting.crop
        for bed in garden.beds
        for structure in bed.structures
        if structure.key == diary.structure
        for planting in structure.plantings
    }


def _picked(diary: Diary, key: str, mark: Marked, planted: dict[str, str]) -> Entry:
    planting = key.split(".")[1]
    return Entry(
        key=f"picked-{key.replace('.', '-')}-{diary.structure}"[:64].rstrip("-"),
        kind="harvest",
        on=mark.at.date(),
        at=mark.at,
        who=mark.who,
        structure=diary.structure,
        crop=planted.get(planting, next(iter(planted.values()), None)),
        mass=mark.picked,
        note=mark.note,
    )


def open_breaks(garden: Place, structure: str, log: Sequence[Entry], diary: Diary | None) -> list[Break]:
    """Return what broke on a support and is not mended: by an entry that says so, or by its task done.

    Args:
        garden: Its tasks are keyed by its year; it may ignore what broke.
        structure: Key of the support.
        log: In order of days.
        diary: Of the support.
    """
    if "break" in garden.ignores:
        return []
    own = [entry for entry in log if entry.structure == structure]
    done = {key for key, mark in diary.marks.items() if mark.state != "skipped"} if diary else set()
    broken = []
    for at, entry in enumerate(own):
        if not (entry.kind == "break" or (entry.kind == "storm" and entry.found in DAMAGED)):
            continue
        mended = any(
            later.kind == "repair"
            and (later.mends == entry.key if later.mends else later.member in ("", entry.member))
            for later in own[at + 1 :]
        )
        task = f"{garden.year}.{_JOB}.{entry.key}"
        if not mended and task not in done:
            broken.append(Break(entry, task))
    return broken


def parts_of(breaks: Iterable[Break]) -> frozenset[str]:
    """Return the keys of the members that broke, an empty one where a support broke as a whole."""
    return frozenset(broken.entry.member for broken in breaks)


def closed(log: Iterable[Entry], bed: str, structure: str, crop: str, on: dt.date) -> Closed | None:
    """Return the treatment that keeps a crop from being picked on a day: the one that does so longest.

    A treatment of a bed closes all that grows on it, one of no place the whole garden; one that names a crop
    closes only that.
    """
    found = [
        Closed(entry.on + dt.timedelta(days=entry.waits or 0), entry)
        for entry in log
        if entry.kind == "treatment"
        and entry.on <= on
        and entry.crop in (None, crop)
        and (entry.structure == structure if entry.structure else entry.bed in (None, bed))
    ]
    still = [each for each in found if each.until > on]
    return max(still, key=lambda each: each.until, default=None)


def picked_of(log: Iterable[Entry], structure: str, crop: str) -> list[tuple[dt.date, float]]:
    """Return what was picked of a crop on a support, by days. [kg]"""
    return [
        (entry.on, kg)
        for entry in log
        if entry.kind == "harvest"
        and entry.structure == structure
        and entry.crop == crop
        and (kg := entry.kg)
    ]
