"""A gardener's own things as rows of the tables: like a known row, with their own measures and strength.

A key says all of it, so that a plan needs no table but those that ship: ‘pole_hazel_25~a32~l2.7~s0.7’ is
like hazel 25 mm, 32 mm thick, 2.7 m long, and bears 0.7 of what such a new one does.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any, TypeVar

from .rows import Item, Mesh, Post, Twine, Wire

MARK = "~"
_FULL = 0.95  # of the strength of a new one: from there on it is as good as new, within what is known of any
AS_LONG = 0.02  # share by which a length sold may differ from how it is called
_RESIZED = ("round", "square", "rect", "tube", "cane")  # posts whose section is calculated from its measures
ItemT = TypeVar("ItemT", bound=Item)


@dataclass(frozen=True)
class OwnMeasure:
    """A measure that a gardener's own thing may have.

    letter: in its key. name: in people's words. scale: of the key's unit, SI. low, high: bounds, SI.
    """

    letter: str
    name: str
    scale: float
    low: float
    high: float


WIDTH = OwnMeasure("a", "width", 1e-3, 0.004, 0.3)
DEPTH = OwnMeasure("b", "depth", 1e-3, 0.001, 0.3)
WIRE = OwnMeasure("d", "thickness", 1e-3, 0.0003, 0.03)
HEIGHT = OwnMeasure("h", "height", 1.0, 0.2, 3.0)
LENGTH = OwnMeasure("l", "length", 1.0, 0.2, 500.0)
STRENGTH = OwnMeasure("s", "strength", 1.0, 0.1, 1.5)

MEASURES: Mapping[str, tuple[OwnMeasure, ...]] = {
    "posts": (WIDTH, DEPTH, LENGTH, STRENGTH),
    "meshes": (WIRE, HEIGHT, LENGTH, STRENGTH),
    "wires": (WIRE, LENGTH, STRENGTH),
    "twines": (WIRE, LENGTH, STRENGTH),
}


def key_of(like: Item, **values: float | None) -> str:
    """Return the key of a thing like a row; the row's own where nothing differs. [m]

    Args:
        like: A row of the tables.
        values: By the name of the measure, SI; one as the row's, or a strength as good as new, says nothing.
    """
    measures, told = MEASURES.get(like.table, ()), ""
    for measure in measures:
        value = values.get(measure.name)
        if value is None or _alike(like, measure, value):
            continue
        told += f"{MARK}{measure.letter}{value / measure.scale:.4g}"
    return like.key + told


def _alike(like: Item, measure: OwnMeasure, value: float) -> bool:
    """Return whether a measure is the row's own."""
    match measure.letter:
        case "s":
            return _FULL <= value <= 1.0
        case "l":
            return not _as_long(like) or any(
                math.isclose(value, length, rel_tol=AS_LONG) for length in like.lengths
            )
        case "h":
            return isinstance(like, Mesh) and any(
                math.isclose(value, h, rel_tol=1e-3) for h in like.heights_m
            )
        case letter:
            own = {"a": "a", "b": "b", "d": "wire" if isinstance(like, Mesh) else "d"}[letter]
            return math.isclose(value, getattr(like, own), rel_tol=1e-3)


def _as_long(like: Item) -> bool:
    """Return whether how long one is decides what is built of it: not of what is cut off a roll or a coil."""
    return isinstance(like, Post) or (isinstance(like, Mesh) and like.stiff)


def but_for_length(key: str) -> str:
    """Return the key of what differs at most in length."""
    base, *parts = key.split(MARK)
    return MARK.join((base, *(part for part in parts if not part.startswith(LENGTH.letter))))


def row_of(table: str, key: str, known: Callable[[str], ItemT]) -> ItemT | None:
    """Return the row of a gardener's own thing by its key; nothing where the key is not one, or is malformed.

    Args:
        table: Name of the table.
        key: As `key_of` writes it.
        known: Gives the row it is like.
    """
    base, *parts = key.split(MARK)
    if not parts or table not in MEASURES or base == key:
        return None
    like = known(base)
    by_letter = {measure.letter: measure for measure in MEASURES[table]}
    values: dict[str, float] = {}
    for part in parts:
        measure = by_letter.get(part[:1])
        if measure is None or not re.fullmatch(r"\d{1,4}(\.\d{1,4})?", part[1:]):
            return None
        value = float(part[1:]) * measure.scale
        if not measure.low * 0.999 <= value <= measure.high * 1.001:
            return None
        values[measure.name] = value
    if key_of(like, **values) != key or not _may_be(like, values):
        return None
    return _made(like, key, values)


def _may_be(like: Item, values: Mapping[str, float]) -> bool:
    """Return whether a row can have such measures: of what is rolled to a shape only length and strength
    differ, and a tube has a hollow.
    """
    if not isinstance(like, Post) or not {"width", "depth"} & set(values):
        return True
    if like.shape not in _RESIZED:
        return False
    return like.shape != "tube" or values.get("depth", like.b) < 0.5 * values.get("width", like.a)


def _made(like: ItemT, key: str, values: Mapping[str, float]) -> ItemT:
    length, strength = values.get("length"), values.get("strength", 1.0)
    change: dict[str, Any] = {"key": key, "certainty": "judgement", "name": _name(like, values)}
    match like:
        case Post():
            a, b = values.get("width", like.a), values.get("depth", like.b)
            if "width" in values and "depth" not in values and like.shape != "tube" and like.a == like.b:
                b = a
            size = (_area(like.shape, a, b) / _area(like.shape, like.a, like.b)) if like.a else 1.0
            change |= {
                "a": a,
                "b": b,
                "kg_m": like.kg_m * size,
                "price_m": like.price_m * size,
                "soil_width": like.soil_width * (a / like.a if like.a else 1.0),
                "lengths_m": (length,) if length else like.lengths_m,
                "sound": strength,
            }
        case Mesh():
            wire = values.get("thickness", like.wire)
            change |= {
                "wire": wire * math.sqrt(strength),  # rust takes of its thickness
                "kg_m2": like.kg_m2 * (wire / like.wire) ** 2,
                "heights_m": (values["height"],) if "height" in values else like.heights_m,
                "lengths_m": (length,) if length else like.lengths_m,
            }
        case Wire():
            change |= {"d": values.get("thickness", like.d), "break_": like.break_ * strength}
            change |= {"median": like.median * strength, "packs_m": (length,) if length else like.packs_m}
        case Twine():
            d = values.get("thickness", like.d)
            change |= {"d": d, "break_N": like.break_N * strength * (d / like.d) ** 2}
            change |= {"packs_m": (length,) if length else like.packs_m}
    return replace(like, **change)


def _area(shape: str, a: float, b: float) -> float:
    return b * (a - b) if shape == "tube" else a * b


def _name(like: Item, values: Mapping[str, float]) -> str:
    """Return what it is called: as the row, with what differs."""
    told = []
    if "width" in values or "depth" in values:
        sizes = (values.get("width", getattr(like, "a", 0.0)), values.get("depth"))
        told.append(" × ".join(f"{size * 1e3:g}" for size in sizes if size) + " mm")
    if "thickness" in values:
        told.append(f"{values['thickness'] * 1e3:g} mm")
    if values.get("strength", 1.0) < 1.0:
        told.append(f"at {values['strength'] * 100:.0f} %")
    return f"{like.name}, own{': ' if told else ''}{', '.join(told)}"
