"""From older documents to today's: one step a version, for a single thing as it is stored and for a whole
plan file.
"""

from __future__ import annotations

import math
import unicodedata
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any

Document = dict[str, Any]
UNWRITTEN = ("Cc", "Cs", "Zl", "Zp")  # kinds of characters that no drawing and no table may hold
_BETWEEN = 0.75  # of ground left between beds that had no place of their own [m]


def _same(document: Document) -> Document:
    return document


def _same_thing(_kind: str, document: Document) -> Document:
    return document


@dataclass(frozen=True)
class UpgradeStep:
    """What a version changed.

    thing: of one document by itself: its kind (place, bed, feature, structure) and what was stored, to what
    is stored now.
    garden: of a whole garden, its things brought up to date already; what no thing can know by itself.
    """

    thing: Callable[[str, Document], Document] = _same_thing
    garden: Callable[[Document], Document] = _same


def upgraded(document: Document) -> Document:
    """Return a plan file brought up to the present version; one it cannot follow is returned as far as it
    came.
    """
    while isinstance(version := document.get("version"), int) and version in STEPS:
        garden = document.get("garden")
        if isinstance(garden, dict):
            garden = STEPS[version].garden(_each(garden, partial(_changed, STEPS[version].thing)))
        document = {
            **document,
            "version": version + 1,
            **({"garden": garden} if "garden" in document else {}),
        }
    return document


def upgraded_thing(kind: str, document: Document, version: int) -> Document:
    """Return one stored document brought up to the present version.

    Args:
        kind: place, bed, feature or structure.
        document: As it was stored; it is not changed.
        version: Of the plan file's form at that time.
    """
    while version in STEPS:
        document = _changed(STEPS[version].thing, kind, document)
        version += 1
    return document


def _changed(do: Callable[[str, Document], Document], kind: str, document: Document) -> Document:
    """Return a thing changed, and what it holds of itself as it was built changed alike."""
    new = do(kind, document)
    built = new.get("built") if kind == "structure" else None
    return {**new, "built": do(kind, built)} if isinstance(built, dict) else new


def _each(garden: Document, do: Callable[[str, Document], Document]) -> Document:
    """Return a garden with each of its things changed; what is no thing stays, to be refused with its
    place.
    """

    def bed(document: Document) -> Document:
        standing = document.get("structures", ())
        bare = do("bed", {name: value for name, value in document.items() if name != "structures"})
        return {
            **bare,
            **({"structures": _all("structure", standing, do)} if "structures" in document else {}),
        }

    place = do("place", {name: value for name, value in garden.items() if name not in ("beds", *_LISTS)})
    beds = garden.get("beds")
    return {
        **place,
        **(
            {
                "beds": [bed(each) if isinstance(each, dict) else each for each in beds]
                if isinstance(beds, list)
                else beds
            }
            if "beds" in garden
            else {}
        ),
        **{name: _all(kind, garden[name], do) for name, kind in _LISTS.items() if name in garden},
    }


_LISTS = {
    "features": "feature",
    "stock": "stock",
    "needs": "need",
    "records": "record",
    "diaries": "diary",
}  # of a garden, besides beds


def _all(kind: str, things: Any, do: Callable[[str, Document], Document]) -> Any:
    if not isinstance(things, list):
        return things
    return [do(kind, thing) if isinstance(thing, dict) else thing for thing in things]


def lay_out(beds: list[Any]) -> list[Any]:
    """Return beds that have no place laid one below the other, first at the top; others stay where they
    are.
    """
    placed, level = [], 0.0
    for bed in beds:
        if not isinstance(bed, dict) or "x" in bed or "y" in bed:
            placed.append(bed)
            continue
        length, width, bearing = (
            _number(bed.get(name), usual)
            for name, usual in (("length", 1.0), ("width", 1.0), ("bearing", 90.0))
        )
        angle = math.radians(bearing)
        wide = abs(length * math.sin(angle)) + abs(width * math.cos(angle))
        tall = abs(length * math.cos(angle)) + abs(width * math.sin(angle))
        placed.append({**bed, "x": round(wide / 2, 3), "y": round(level - tall / 2, 3)})
        level -= tall + _BETWEEN
    return placed


def _number(value: Any, usual: float) -> float:
    good = isinstance(value, int | float) and not isinstance(value, bool) and abs(value) < 1000
    return float(value) if good else usual


def _laid_out(garden: Document) -> Document:
    """Version 2 gives beds a place on the plan; a garden gets features and a least path width, which have
    defaults.
    """
    return {**garden, "beds": lay_out(garden["beds"])} if isinstance(garden.get("beds"), list) else garden


def free_key(wanted: str, taken: set[str]) -> str:
    """Return a key that is not taken, the wanted one or that with a number behind it; it is taken then."""
    key, number = wanted, 1
    while key in taken:
        number += 1
        key = f"{wanted[: 63 - len(str(number))]}-{number}"
    taken.add(key)
    return key


def keys_apart(things: list[Any], taken: set[str]) -> list[Any]:
    """Return things with keys that are not taken yet; whatever has no key to speak of stays as it is."""
    keyed, own = [], set()
    for thing in things:
        key = thing.get("key") if isinstance(thing, dict) else None
        if isinstance(key, str) and key in taken and key not in own:
            thing = {**thing, "key": free_key(key, taken)}  # noqa: PLW2901 - the thing with its new key
        elif isinstance(key, str):
            own.add(key)
        keyed.append(thing)
    taken |= own
    return keyed


def _apart(garden: Document) -> Document:
    """Version 3 gives a key to one thing only: a structure keyed like a bed, or a feature like either, gets a
    number.
    """
    beds, features = garden.get("beds"), garden.get("features")
    if not isinstance(beds, list):
        return garden
    taken: set[str] = set()
    beds = keys_apart(beds, taken)
    standing = keys_apart(
        [s for bed in beds if isinstance(bed, dict) for s in _list(bed.get("structures"))], taken
    )
    rest = iter(standing)
    beds = [
        {**bed, "structures": [next(rest) for _ in bed["structures"]]}
        if isinstance(bed, dict) and _list(bed.get("structures"))
        else bed
        for bed in beds
    ]
    return {
        **garden,
        "beds": beds,
        **({"features": keys_apart(features, taken)} if isinstance(features, list) else {}),
    }


def _one_line(_kind: str, document: Document) -> Document:
    """Version 3 keeps names and currencies on one line: what no drawing may hold becomes a space."""
    cleaned = dict(document)
    for field in ("name", "currency"):
        if isinstance(text := cleaned.get(field), str):
            clean = "".join(" " if unicodedata.category(letter) in UNWRITTEN else letter for letter in text)
            cleaned[field] = " ".join(clean.split()) or "-" if clean != text else text
    return cleaned


def _plantings_keyed(kind: str, document: Document) -> Document:
    """Version 4 gives a planting a key; those that have none are numbered."""
    if kind != "structure" or not isinstance(document.get("plantings"), list):
        return document
    numbered = enumerate(document["plantings"], start=1)
    return {
        **document,
        "plantings": [{"key": f"p{n}", **each} if isinstance(each, dict) else each for n, each in numbered],
    }


def _with_a_sign(kind: str, document: Document) -> Document:
    """Version 5 has a shed and what structures have of it, for which there are defaults; money that was never
    named gets the sign for any.
    """
    if kind == "place" and document.get("currency") in ("cu", None):
        return {**document, "currency": "¤"}
    return document


def _as_it_is(_kind: str, document: Document) -> Document:
    """Version 6 may say more of needs, plantings, walls and arches, for all of which there are defaults."""
    return document


def _list(value: Any) -> list[Any]:
    return value if isinstance(value, list) else []


STEPS: dict[int, UpgradeStep] = {
    1: UpgradeStep(garden=_laid_out),
    2: UpgradeStep(thing=_one_line, garden=_apart),
    3: UpgradeStep(thing=_plantings_keyed),
    4: UpgradeStep(thing=_with_a_sign),
    5: UpgradeStep(thing=_as_it_is),
    6: UpgradeStep(),  # records of what was done
    7: UpgradeStep(),  # warmth, places without frost, days for the garden, all with defaults
}
