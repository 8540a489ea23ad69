"""An entry of the log as people write it in one line: ‘6 lb tomatoes from Lantern Row’."""

from __future__ import annotations

import datetime as dt
import re
from dataclasses import dataclass, field
from typing import Any

from .. import tables
from ..analysis.design import geometry_of
from ..errors import InvalidPlan, Problem, UnreadableQuantity
from ..plan.bed import Bed
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.structure import Structure
from ..words.quantities import System, read
from .members import CALLED, member_called

LONGEST = 200  # letters of a line
_NUMBER = r"(\d+(?:[.,]\d+)?)"
_READ = (  # the field it goes to, what it looks like, and the kind of quantity
    ("mass", rf"{_NUMBER}\s*(?:lbs?|pounds?)\s*{_NUMBER}\s*(?:oz|ounces?)\b", "mass"),
    ("mass", rf"{_NUMBER}\s*(?:kg|kilos?|g|grams?|lbs?|pounds?|oz|ounces?)\b", "mass"),
    ("pull", rf"\b(?:pull(?:ed)?|under|with)\s+(?:of\s+)?({_NUMBER}\s*(?:k?n|lbf|kgf)\b)", "force"),
    ("gust", rf"{_NUMBER}\s*(?:m/s|km/h|kmh|mph|knots?|kn|kt)\b", "speed"),
    ("volume", rf"{_NUMBER}\s*(?:l|litres?|liters?|gal|gallons?)\b", "volume"),
    ("minutes", rf"{_NUMBER}\s*(?:h|hrs?|hours?)(?:\s*{_NUMBER}\s*(?:min|minutes?))?\b", "hours"),
    ("minutes", rf"{_NUMBER}\s*(?:min|mins|minutes?)\b", "minutes"),
    ("waits", rf"\b(?:wait|waiting)\s+{_NUMBER}\s*days?\b|\b{_NUMBER}\s*days?\s*(?:wait|until|to)\b", "days"),
    ("height", r"\bat\s+(\d[\d.,]*\s*(?:m|cm|ft|feet|in|inches)\b(?:\s*\d+\s*in\b)?)", "length"),
    ("moved", r"(\d[\d.,]*\s*(?:mm|cm|m|ft|feet|in|inch|inches)\b)", "length"),
)
_STORM = {"storm", "gale"}
_DAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
_TEMPERATURE = re.compile(r"([-−]?\d+(?:[.,]\d+)?)\s*(?:°\s*)?(c|f)?\b")


@dataclass
class _Reading:
    """A line while it is read: what is left of it, and what was found."""

    left: str
    system: System
    placed: bool = False
    found: dict[str, Any] = field(default_factory=dict)

    def take(self, pattern: str) -> re.Match[str] | None:
        """Return what a pattern finds, and take it out of what is left."""
        match = re.search(pattern, self.left)
        if match:
            self.left = f"{self.left[: match.start()]} {self.left[match.end() :]}"
        return match


def read_entry(
    line: str, garden: Garden, key: str, at: dt.datetime, today: dt.date, about: str = "", who: str = ""
) -> Entry:
    """Return what a line says happened; a line that says nothing else is a note.

    Args:
        line: As it was typed or spoken.
        garden: Decides what names mean, and what a bare number is.
        key: Of the entry.
        at: When it was written.
        today: The garden's day then; ‘yesterday’ is the one before it.
        about: Key of the support or bed it was written at, where it names none.
        who: Wrote it.

    Raises:
        InvalidPlan: The line is empty or too long, or a figure in it cannot be.
    """
    if not line.strip() or len(line) > LONGEST:
        allowed = f"1 to {LONGEST} letters are allowed, such as ‘6 lb tomatoes from Lantern Row’"
        raise InvalidPlan([Problem("line", line[:LONGEST], allowed)])
    reading = _Reading(line.lower().replace("’", "'").replace("−", "-"), garden.units)
    fields: dict[str, Any] = {
        "key": key,
        "at": at,
        "who": who,
        "on": _day(reading, today),
        "said": line.strip(),
    }
    structure = _place(reading, garden, about, fields)
    crop = _crop(reading, garden, structure)
    if crop:
        structure = _grows_on(crop, garden, structure, reading, fields)
    if structure:
        _member(reading, garden, structure, fields)
    _measured(reading, crop)
    _quantities(line, reading)
    kind = _kind(line, reading, crop, structure)
    row = tables.log_kinds()[kind]
    own = {name: value for name, value in reading.found.items() if name in row.fields}
    here = {planting.crop for planting in structure.plantings} if structure else set()
    if kind == "harvest" and not crop and len(here) == 1:
        crop = next(iter(here))
    if "crop" in row.fields and crop:
        own["crop"] = crop
    _details(kind, reading, own)
    if "member" not in row.fields:
        fields.pop("member", None)
    if kind in ("sighting", "treatment"):
        own["what"] = _rest(reading) or row.name.lower()
    if kind == "note":
        fields["note"] = line.strip()
    try:
        return Entry.model_validate({**fields, **own, "kind": kind})
    except ValueError as error:
        raise InvalidPlan([Problem("line", line, _allowed(kind))]) from error


def _allowed(kind: str) -> str:
    row = tables.log_kinds()[kind]
    needs = ", ".join(_SAID.get(name, name) for name in row.needs) or "its support"
    return f"for {row.name.lower()}, {needs} is allowed and needed"


_SAID = {
    "moved": "how far it moved, such as 4 cm",
    "waits": "the days until picking that the label says, such as ‘wait 7 days’",
    "minutes": "a time, such as 40 min",
    "cost": "a sum",
}


def _day(reading: _Reading, today: dt.date) -> dt.date:
    """Return the day that a line names, today where it names none."""
    if written := reading.take(r"\b(\d{4})-(\d{2})-(\d{2})\b"):
        try:
            return dt.date(*(int(part) for part in written.groups()))
        except ValueError:
            return today
    if reading.take(r"\byesterday\b"):
        return today - dt.timedelta(days=1)
    if named := reading.take(rf"\b(?:on |last )({'|'.join(_DAYS)})\b"):
        return today - dt.timedelta(days=(today.weekday() - _DAYS.index(named[1])) % 7)
    reading.take(r"\btoday\b")
    return today


def _place(reading: _Reading, garden: Garden, about: str, fields: dict[str, Any]) -> Structure | None:
    """Find the support or bed that a line names, the longest name first; or that it was written at."""
    places: list[tuple[str, Bed, Structure | None]] = [(bed.name, bed, None) for bed in garden.beds]
    places += [(each.name, bed, each) for bed in garden.beds for each in bed.structures]
    longest = sorted(places, key=lambda place: (-len(place[0]), place[2] is None))
    named = next((place for place in longest if reading.take(_naming(place[0]))), None)
    reading.placed = named is not None
    at_hand = next((place for place in places if (place[2] or place[1]).key == about), None)
    if not (named or at_hand):
        return None
    _, bed, structure = named or at_hand or places[0]
    fields["bed"] = bed.key
    if structure:
        fields["structure"] = structure.key
    elif len(bed.structures) == 1:
        fields["structure"] = bed.structures[0].key
        structure = bed.structures[0]
    return structure


def _crop(reading: _Reading, garden: Garden, structure: Structure | None) -> str | None:
    """Return the crop that a line names, of those alike the one that grows there."""
    here = [planting.crop for planting in structure.plantings] if structure else []
    grown = [p.crop for bed in garden.beds for each in bed.structures for p in each.plantings]
    words = {_one(word) for word in re.findall(r"[a-z]+", reading.left)}
    scored = []
    for row in tables.crops().values():
        own = {_one(word) for word in re.findall(r"[a-z]+", f"{row.name} {row.called}".lower())}
        own -= _COMMON
        if hits := len(words & own):
            heads = _one(row.called.lower().split()[-1]) in words
            scored.append((row.key in here, heads, row.key in grown, hits, row.key, own))
    if not scored:
        return None
    best = max(scored, key=lambda each: each[:4])
    for word in best[5]:
        reading.take(rf"\b{word}(?:e?s)?\b")
    return best[4]


def _naming(name: str) -> str:
    """Return the pattern of a place’s name in a line."""
    said = re.escape(name.lower().replace("’", "'"))
    return rf"(?:\b(?:from|in|on|at|of)\s+)?(?:the\s+)?(?<!\w){said}(?!\w)"


def _grows_on(
    crop: str, garden: Garden, structure: Structure | None, reading: _Reading, fields: dict[str, Any]
) -> Structure | None:
    """Return the support that is meant: the one named; else the one at hand if the crop grows on it, or the
    only one on which it does.
    """
    if structure and any(planting.crop == crop for planting in structure.plantings):
        return structure
    grows = [
        (bed, each)
        for bed in garden.beds
        for each in bed.structures
        if any(planting.crop == crop for planting in each.plantings)
    ]
    if reading.placed or not grows:
        return structure
    fields.pop("bed", None)
    fields.pop("structure", None)
    if len(grows) > 1:
        return None
    bed, each = grows[0]
    fields.update(bed=bed.key, structure=each.key)
    return each


_COMMON = {"or", "and", "the", "of", "on", "in", "tall", "hot", "sweet", "string"}


def _one(word: str) -> str:
    """Return a word in the singular: tomatoes, beans, peas, squashes."""
    for ending, end in (("ies", "y"), ("oes", "o"), ("shes", "sh"), ("s", "")):
        if word.endswith(ending) and not word.endswith("ss") and len(word) > len(ending) + 1:
            return word[: -len(ending)] + end
    return word


def _member(reading: _Reading, garden: Garden, structure: Structure, fields: dict[str, Any]) -> None:
    """Find the part that a line names: ‘post 3’."""
    named = reading.take(rf"\b({'|'.join(CALLED)})s?\s+(?:no\.?\s*)?(\d+)\b")
    if not named:
        return
    bed = next(bed for bed in garden.beds if any(each.key == structure.key for each in bed.structures))
    member = member_called(geometry_of(bed, structure), named[1], int(named[2]))
    if member is None:
        allowed = f"a part that {structure.name} has is allowed, counted from the start of the row"
        raise InvalidPlan([Problem("line", f"{named[1]} {named[2]}", allowed)])
    fields["member"] = member.key


def _measured(reading: _Reading, crop: str | None) -> None:
    """Find a measure that a crop is sold by: quarts, bushels, lugs."""
    row = next((row for row in tables.measures().values() if crop in row.crops), None)
    if row is None:
        return
    match = reading.take(rf"(?:{_NUMBER}|\b(an?|half a))\s*({'|'.join(row.sizes)})s?\b")
    if match:
        count = _number(match[1]) if match[1] else 0.5 if match[2] == "half a" else 1.0
        reading.found["mass"] = count * row.sizes[match[3]]


def _quantities(line: str, reading: _Reading) -> None:
    for name, pattern, kind in _READ:
        if name not in reading.found and (match := reading.take(pattern)):
            reading.found[name] = _value(line, match, kind, reading.system)


def _value(line: str, match: re.Match[str], kind: str, system: System) -> float | int:
    groups = [group for group in match.groups() if group]
    if kind == "hours":
        return 60 * _number(groups[0]) + (_number(groups[1]) if len(groups) > 1 else 0.0)
    if kind == "minutes":
        return _number(groups[0])
    if kind == "days":
        return round(_number(groups[0]))
    try:
        if kind == "mass" and len(groups) > 1:
            return read(f"{groups[0]} lb", kind, system) + read(f"{groups[1]} oz", kind, system)
        said = groups[0] if kind in ("length", "force") else match.group(0)
        said = re.sub(r"\bkilos?\b", "kg", re.sub(r"\bgrams?\b", "g", said))
        return read(said, kind, system)
    except UnreadableQuantity as error:
        raise InvalidPlan([Problem("line", line, error.allowed)]) from error


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _kind(line: str, reading: _Reading, crop: str | None, structure: Structure | None) -> str:
    """Return the kind of entry that a line is by its words, else by what is measured in it."""
    words = set(re.findall(r"[a-z]+", reading.left))
    for row in tables.log_kinds().values():
        if words & set(row.words):
            if row.about == "structure" and not structure:
                allowed = "the name of its support is needed, such as ‘post 3 of Lantern Row leans 4 cm’"
                raise InvalidPlan([Problem("line", line, allowed)])
            return "storm" if row.key == "break" and words & _STORM else row.key
    if crop and ("mass" in reading.found or re.search(r"\b\d+\b", reading.left)):
        return "harvest"
    if "volume" in reading.found:
        return "water"
    return "hours" if "minutes" in reading.found and not words - {"of", "on", "at", "in"} else "note"


def _details(kind: str, reading: _Reading, own: dict[str, Any]) -> None:
    """Find what has no unit of its own: pieces, a lowest temperature, a sum, how it was found."""
    if kind == "harvest" and "mass" not in own and (match := reading.take(r"\b(\d{1,6})\b")):
        own["count"] = int(match[1])
    elif kind == "frost" and (match := re.search(_TEMPERATURE, reading.left)):
        degrees = _number(match[1])
        fahrenheit = match[2] == "f" or (not match[2] and reading.system == "imperial")
        own["low"] = (degrees - 32.0) / 1.8 if fahrenheit else degrees
    elif kind == "cost" and (match := reading.take(rf"[^\w\s]?\s*{_NUMBER}")):
        own["cost"] = _number(match[1])
        own["what"] = _rest(reading)
    elif kind == "storm":
        for word in re.findall(r"[a-z]+", reading.left):
            if word in _FOUND:
                own["found"] = _FOUND[word]


_FOUND = {
    "fell": "fell",
    "collapsed": "fell",
    "torn": "torn",
    "tore": "torn",
    "broke": "torn",
    "slack": "slack",
    "lean": "leans",
    "leans": "leans",
    "stood": "stood",
    "stands": "stood",
    "held": "stood",
}


def _rest(reading: _Reading) -> str:
    """Return the words of a line that nothing else was made of."""
    kinds = {word for key in ("cost", "treatment", "sighting") for word in _VERBS[key]}
    words = [word for word in re.findall(r"[^\s,;]+", reading.left) if word not in kinds | _SMALL]
    return " ".join(words)[:120].strip(" .:-")


_VERBS = {
    "cost": ("cost", "paid", "bought", "spent"),
    "treatment": ("treated", "treatment", "sprayed", "spray"),
    "sighting": ("pest", "disease", "saw", "seen", "spotted"),
}
_SMALL = {"with", "against", "from", "in", "on", "at", "of", "for", "the", "a", "and", "wait", "to"}
