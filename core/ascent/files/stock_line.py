"""A thing of the shed as people write it in one line: ‘20 bamboo canes 6 ft, two years old’."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import get_args

from .. import tables
from ..buying.shed import by_metre
from ..errors import InvalidPlan, Problem, UnreadableQuantity
from ..plan.shed import Condition, Stock, StockTable, Sure
from ..tables import own
from ..tables.rows import Item
from ..words.quantities import System, read

_NUMBERS = {"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7}
_NUMBERS |= {"eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12, "dozen": 12, "score": 20}
_COUNT = rf"\d+|{'|'.join(_NUMBERS)}"
_AGE = re.compile(rf"\b({_COUNT})[- ]*(?:years?|seasons?|yrs?|summers?)\b(?:[- ]old)?")
_LENGTH = re.compile(
    r"\d+(?:[.,]\d+)?\s*(?:ft|feet|foot|')\s*\d+(?:[.,]\d+)?\s*(?:in(?:ch(?:es)?)?\b|\")"
    r"|\d+(?:[.,]\d+)?\s*(?:m\b|cm\b|ft\b|feet\b|foot\b|in\b|inch(?:es)?\b|'|\")"
)
_ACROSS = re.compile(r"(\d+(?:\.\d+)?)\s*mm\b")
_LOOKS: dict[str, Condition] = {
    "good": "good",
    "sound": "good",
    "fair": "fair",
    "used": "fair",
    "old": "fair",
    "worn": "fair",
    "poor": "poor",
    "cracked": "poor",
    "bent": "poor",
    "rusty": "poor",
    "rusted": "poor",
}
# what people call a thing, and words of its name in the tables
_CALLED = {
    "cane": "bamboo cane",
    "bamboo": "bamboo cane",
    "tpost": "t-post",
    "t": "t-post",
    "rebar": "reinforcing bar",
    "conduit": "steel conduit",
    "emt": "steel conduit",
    "cattle": "large panel",
    "livestock": "large panel",
    "chicken": "hexagonal netting",
    "twine": "string",
}
_EXAMPLE = "a count, a part and a length, such as ‘20 bamboo canes 6 ft, 2 years old’"


def read_stock(line: str, system: System) -> Stock:
    """Return the thing of a shed that a line tells of.

    Args:
        line: What was written: how many, of what, how long each, how old, how it looks.
        system: Decides what a bare number means.

    Raises:
        InvalidPlan: Nothing that Ascent knows is named in it, or something in it cannot be.
    """
    left = line.lower().replace("’", "'").replace("t post", "t-post")
    age, left = _cut(_AGE, left)
    long = _LENGTH.search(left)
    left = left.replace(long.group(0), " ", 1) if long else left
    across = [float(found) / 1000 for found in _ACROSS.findall(left)]
    left = _ACROSS.sub(" ", left)
    count, left = _cut(re.compile(rf"^\s*(?:an?\s+(?=dozen|score))?({_COUNT})\b\s*[x×]?"), left)
    words = [word for word in re.findall(r"[a-z][a-z-]*", left) if len(word) > 1]
    metres = _metres(line, long.group(0), system) if long else None
    table, item = _item(line, words, across, metres)
    fields: dict[str, object] = {"key": "stock", "name": item.name, "table": table, "item": item.key}
    fields["count"] = 1 if by_metre(item) else (count or 1)
    if own.MEASURES.get(table):
        fields["length"] = metres or _usual_length(item)
    looks = next((_LOOKS[word] for word in words if word in _LOOKS), None)
    sure: Sure = "seen" if looks or age else "known"
    try:
        return Stock.model_validate({**fields, "age": age or 0, "condition": looks or "good", "sure": sure})
    except ValueError as error:
        raise InvalidPlan([Problem("line", line, f"{_EXAMPLE} is allowed")]) from error


def _cut(pattern: re.Pattern[str], text: str) -> tuple[int | None, str]:
    """Return the number that a pattern finds, and the text without it."""
    found = pattern.search(text)
    if not found:
        return None, text
    number = found.group(1)
    rest = f"{text[: found.start()]} {text[found.end() :]}"
    return (int(number) if number.isdigit() else _NUMBERS[number]), rest


def _metres(line: str, said: str, system: System) -> float:
    try:
        return read(said, "length", system)
    except UnreadableQuantity as error:
        raise InvalidPlan([Problem("line", line, error.allowed)]) from error


def _usual_length(item: Item) -> float:
    """Return how long a thing is sold, in the middle of its lengths. [m]"""
    sold = getattr(item, "lengths_m", None) or getattr(item, "packs_m", None) or (2.0,)
    return float(sold[len(sold) // 2])


def _item(line: str, words: list[str], across: list[float], long: float | None) -> tuple[StockTable, Item]:
    """Return the row that most words of a line name, of equals the one nearest in thickness and length.

    Raises:
        InvalidPlan: None is named.
    """
    meant = {part for word in words for part in _CALLED.get(_one(word), _one(word)).split()}
    named = [(len(meant & _words(row)), row, table) for table, row in _rows()]
    best = max(named, key=lambda each: each[0])[0]
    if not best:
        raise InvalidPlan([Problem("line", line, f"{_EXAMPLE} is allowed")])

    def fits(row: Item) -> tuple[float, int, float]:
        size = float(getattr(row, "a", 0.0) or getattr(row, "d", 0.0) or getattr(row, "wire", 0.0))
        off = min((abs(size - each) for each in across), default=0.0)
        sold = getattr(row, "lengths_m", ()) if long else ()
        unlike = min((abs(each - (long or each)) for each in sold), default=1.0 if long else 0.0)
        return off + unlike / 10, len(_words(row) - meant), getattr(row, "price_m", 0.0)

    _, row, table = min((each for each in named if each[0] == best), key=lambda each: fits(each[1]))
    return table, row


def _rows() -> Iterator[tuple[StockTable, Item]]:
    for table in get_args(StockTable):
        for row in tables.ITEM_TABLES[table]().values():
            yield table, row


def _words(row: Item) -> set[str]:
    return {_one(word) for word in re.findall(r"[a-z][a-z-]*", row.name.lower())} - {"mm", "of", "on", "the"}


def _one(word: str) -> str:
    """Return a word in the singular."""
    return word[:-1] if word.endswith("s") and not word.endswith("ss") and len(word) > 3 else word
