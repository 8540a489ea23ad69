"""Lines of a hanging scale, after docs/scale-protocol.md."""

from __future__ import annotations

import re
from dataclasses import dataclass
from statistics import median

from ..words.quantities import to_si

LONGEST = 48  # of a line [bytes]
_MOST = 5000.0  # [N]
_NEEDED = 5  # readings in a row that agree
_NEAR, _SHARE = 1.0, 0.01  # how near they lie: [N], and of the reading
_READING = re.compile(r"^([SU]) ([+-]\d{1,6}\.\d) (N|kg|lb)$")
_FAULT = re.compile(r"^E ([1-4])$")
_IDENTITY = re.compile(r"^ID ascent-scale/1 ([\x20-\x7e]{1,24})$")
_UNITS = {"N": "newton", "kg": "force_kilogram", "lb": "force_pound"}
FAULTS = {1: "it is overloaded", 2: "its battery is empty", 3: "it is not levelled", 4: "it cannot read now"}


@dataclass(frozen=True)
class Weighed:
    """A pull [N], and whether the scale says that it is at rest."""

    force: float
    at_rest: bool


@dataclass(frozen=True)
class ScaleFault:
    """What a scale says is wrong with it."""

    number: int


def line_of(data: bytes) -> Weighed | ScaleFault | None:
    """Return what a line says; nothing of one that is none."""
    text = _text(data)
    if found := _FAULT.match(text):
        return ScaleFault(int(found[1]))
    found = _READING.match(text)
    if not found:
        return None
    force = float(found[2]) * to_si(_UNITS[found[3]])
    return Weighed(force, found[1] == "S") if abs(force) <= _MOST else None


def identity_of(data: bytes) -> str | None:
    """Return what a scale calls itself; nothing of what is no scale."""
    found = _IDENTITY.match(_text(data))
    return found[1].strip() if found else None


def settled(readings: list[Weighed], near: float = _NEAR) -> float | None:
    """Return the pull that the last readings agree on, to so many newtons or one in a hundred, or nothing
    where they do not yet. [N]
    """
    last = [reading.force for reading in readings[-_NEEDED:]]
    if len(last) < _NEEDED:
        return None
    middle = median(last)
    return middle if max(last) - min(last) <= max(2 * near, 2 * _SHARE * abs(middle)) else None


def _text(data: bytes) -> str:
    if len(data) > LONGEST or not data.isascii():
        return ""
    return data.decode("ascii").rstrip("\r\n")
