"""Twelve monthly means of a place, as people type or paste them."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence

from pydantic import ValidationError

from ..errors import InvalidPlan, Problem
from ..plan.climate import Normal
from .plan import problems_of

MONTHS = 12
_MOST_LINES, _MOST_COLUMNS = 40, 3
_ROW = 40  # letters of a line that are shown
_WARM_IN_C = 50.0  # a mean high above it is one of Fahrenheit [degC]
_NUMBER = re.compile(r"[-+−]?\d+(?:[.,]\d+)?")
_NAMES = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
_LOW, _HIGH, _RAIN = ("low", "min", "night", "least"), ("high", "max", "day", "greatest"), ("rain", "prec")
_ALLOWED = (
    "twelve lines such as ‘Jan 2.7 8.4 55’ (low, high, rain), or lines ‘low’ and ‘high’ of twelve numbers "
    "each, are allowed"
)


def are_months(text: str) -> bool:
    """Return whether a text holds monthly means, and not the days of a record."""
    lines = _lines(text)
    if len(lines) > _MOST_LINES:
        return False
    across = sum(len(_numbers(line)) == MONTHS for line in lines)
    return across >= 2 or _down(lines) is not None


def read_normals(text: str) -> tuple[Normal, ...]:
    """Return the means of twelve months: a line for each month, or a line for each of low, high and rain.

    A comma or a point stands before decimals. °F and in are read where they are named, and °F where a mean
    high is above 50.

    Raises:
        InvalidPlan: It does not hold twelve months, or a number is out of its range.
    """
    lines = _lines(text)
    low, high, rain = _down(lines) or _across(lines)
    named = text.lower()
    fahrenheit = "°f" in named or re.search(r"\bf\b", named) is not None or max(high) > _WARM_IN_C
    if fahrenheit:
        low, high = ([round((value - 32.0) / 1.8, 2) for value in each] for each in (low, high))
    if re.search(r"\b(in|inch|inches)\b", named):
        rain = [value * 25.4 for value in rain]
    found = []
    for month, (a, b, c) in enumerate(zip(low, high, rain, strict=True)):
        if a > b:
            given = f"{a:g} and {b:g}"
            raise InvalidPlan([Problem(_NAMES[month], given, "a low that is not above the high is allowed")])
        try:
            found.append(Normal(low=a, high=b, rain=c))
        except ValidationError as error:
            raise InvalidPlan(problems_of(error, (_NAMES[month],))) from error
    return tuple(found)


def _lines(text: str) -> list[str]:
    return [line for line in text.lstrip("\ufeff").splitlines() if line.strip()]


def _numbers(line: str) -> list[float]:
    """Return the numbers of a line. A comma between digits is a decimal one where the line has other
    separators too, and separates else.
    """
    sparse = re.sub(r"\d+,\d+", "", line)
    commas = "," in sparse or not re.search(r"[;\t ]", line.strip()) or re.search(r",\s", line) is not None
    text = line.replace(",", " ") if commas else line
    found = [match.group().replace("−", "-").replace(",", ".") for match in _NUMBER.finditer(text)]
    return [value for value in map(float, found) if math.isfinite(value)]


def _down(lines: Sequence[str]) -> tuple[list[float], list[float], list[float]] | None:
    """Return lows, highs and rain of twelve lines, each a month; nothing where there are no such lines."""
    named = [_numbers(line) for line in lines if _starts_a_month(line)]
    own = named if len(named) == MONTHS else [_numbers(line) for line in lines]
    own = [numbers for numbers in own if len(numbers) > 1]
    if len(own) != MONTHS or (len(named) != MONTHS and len(lines) > MONTHS + 1):
        return None
    if [numbers[0] for numbers in own] == list(range(1, MONTHS + 1)) and min(map(len, own)) > 2:
        own = [numbers[1:] for numbers in own]  # months by their numbers
    if max(map(len, own)) > _MOST_COLUMNS:
        return None
    return (
        [numbers[0] for numbers in own],
        [numbers[1] for numbers in own],
        [numbers[2] if len(numbers) > 2 else 0.0 for numbers in own],
    )


def _starts_a_month(line: str) -> bool:
    return line.strip().lower()[:3] in _NAMES


def _across(lines: Sequence[str]) -> tuple[list[float], list[float], list[float]]:
    """Return lows, highs and rain of lines of twelve numbers each, named or the colder first.

    Raises:
        InvalidPlan: There are no such lines.
    """
    rows = [(line.strip().lower(), _numbers(line)) for line in lines]
    rows = [(line, numbers) for line, numbers in rows if len(numbers) == MONTHS]
    if len(rows) < 2:
        shown = lines[0][:_ROW] if lines else "nothing"
        raise InvalidPlan([Problem("months", shown, _ALLOWED)])
    named = {
        name: numbers
        for line, numbers in rows
        for name, heads in (("low", _LOW), ("high", _HIGH), ("rain", _RAIN))
        if line.startswith(heads)
    }
    bare = [numbers for line, numbers in rows if numbers not in named.values()]
    if "low" not in named and "high" not in named and len(bare) >= 2:
        one, other = sorted(bare[:2], key=sum)
        named |= {"low": one, "high": other}
        bare = bare[2:]
    if "low" not in named or "high" not in named:
        raise InvalidPlan([Problem("months", rows[0][0][:_ROW], _ALLOWED)])
    return named["low"], named["high"], named.get("rain", bare[0] if bare else [0.0] * MONTHS)
