"""From older plan files to today's: one step a version, on the document as read."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

Document = dict[str, Any]
_BETWEEN = 0.75  # of ground left between beds that had no place of their own [m]


def upgraded(document: Document) -> Document:
    """Return a document brought up to the present version; one it cannot follow is returned as far as it came."""
    while isinstance(version := document.get("version"), int) and version in _STEPS:
        document = {**_STEPS[version](document), "version": version + 1}
    return document


def lay_out(beds: list[Any]) -> list[Any]:
    """Return beds that have no place laid one below the other, first at the top; others stay where they are."""
    found, level = [], 0.0
    for bed in beds:
        if not isinstance(bed, dict) or "x" in bed or "y" in bed:
            found.append(bed)
            continue
        length, width, bearing = (_number(bed.get(name), usual) for name, usual in (("length", 1.0), ("width", 1.0), ("bearing", 90.0)))
        angle = math.radians(bearing)
        wide = abs(length * math.sin(angle)) + abs(width * math.cos(angle))
        tall = abs(length * math.cos(angle)) + abs(width * math.sin(angle))
        found.append({**bed, "x": round(wide / 2, 3), "y": round(level - tall / 2, 3)})
        level -= tall + _BETWEEN
    return found


def _number(value: Any, usual: float) -> float:
    good = isinstance(value, int | float) and not isinstance(value, bool) and abs(value) < 1000
    return float(value) if good else usual


def _from_1(document: Document) -> Document:
    """Version 2 gives beds a place on the plan; a garden gets features and a least path width, which have defaults."""
    garden = document.get("garden")
    if not isinstance(garden, dict) or not isinstance(garden.get("beds"), list):
        return document
    return {**document, "garden": {**garden, "beds": lay_out(garden["beds"])}}


_STEPS: dict[int, Callable[[Document], Document]] = {1: _from_1}
