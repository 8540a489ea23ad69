"""Rotation: botanical families over the years of a bed, and what may come next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from .. import tables
from ..loads.outlook import plantable
from ..plan.bed import Bed
from ..plan.place import Place

REST = 3  # years until a family may come back, crops handbook 9
_NEXT = 1
_NEVER = 99
_GOOD = 2  # of the suitability table
_MOST = 4  # crops that are named


@dataclass(frozen=True)
class Turn:
    """A family that grows on a bed again too soon: years since, and in which it did."""

    family: str
    crop: str
    years: int
    level: Literal["watch", "wrong"]


@dataclass(frozen=True)
class NextCrop:
    """A family that may come next: years since it was here, and crops of it that make it on what stands."""

    family: str
    years: int
    crops: tuple[str, ...]


def too_soon(bed: Bed, year: int) -> tuple[Turn, ...]:
    """Return the families of this year that were on the bed less than three years before.

    Source: crops-9
    """
    last = _last(bed, year)
    found = {}
    for structure in bed.structures:
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            years = year - last.get(crop.family, year - _NEVER)
            if years < REST:
                level: Literal["watch", "wrong"] = "wrong" if years <= _NEXT else "watch"
                found[crop.family] = Turn(crop.family, crop.key, years, level)
    return tuple(found.values())


def _last(bed: Bed, before: int) -> dict[str, int]:
    """Return the last year in which each family grew on a bed before a year."""
    last: dict[str, int] = {}
    for past in bed.past:
        family = tables.crops()[past.crop].family
        if past.year < before:
            last[family] = max(last.get(family, past.year), past.year)
    return last


def next_on(place: Place, bed: Bed, year: int) -> tuple[NextCrop, ...]:
    """Return the families that may grow on a bed in a year, the longest away first, with crops of each that
    suit what stands there and make it in the garden's season.

    Source: handbook-season-7
    """
    last = dict(_last(bed, year))
    for structure in bed.structures:
        for planting in structure.plantings:
            if year > place.year:
                last[tables.crops()[planting.crop].family] = place.year
    families: dict[str, list[str]] = {}
    supports = [structure.family for structure in bed.structures]
    makes_it = plantable(place)
    for key, crop in tables.crops().items():
        if key in makes_it and crop.yield_kg and _score(key, supports) >= _GOOD:
            families.setdefault(crop.family, []).append(key)
    found = [
        NextCrop(family, min(year - last.get(family, year - _NEVER), _NEVER), _best(crops, supports))
        for family, crops in families.items()
    ]
    rested = [each for each in found if each.years >= REST] or found
    return tuple(
        sorted(rested, key=lambda each: (-each.years, -_score(each.crops[0], supports), each.family))
    )


def _best(crops: Sequence[str], supports: Sequence[str]) -> tuple[str, ...]:
    return tuple(sorted(crops, key=lambda key: -_score(key, supports))[:_MOST])


def _score(crop: str, supports: Sequence[str]) -> int:
    """Return how well the best of some supports suits a crop; where nothing stands, anything may."""
    return max((tables.suits()[crop].scores[support] for support in supports), default=_GOOD)
