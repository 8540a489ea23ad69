"""JSON documents from outside: how long, how deep and how wide they are is looked at before what they say."""

from __future__ import annotations

import json
from collections.abc import Iterable, Sequence
from typing import Any

from ..errors import InvalidPlan, Problem

MOST_PROBLEMS = 50  # that are said of one document
MOST_VALUES = 150_000  # in one document; the largest garden has about 90,000
MOST_WIDE = 1000  # entries of one list or one object
MOST_DEEP = 20
_SHOWN, _FEW = 60, 8  # letters, and entries of a list, that are shown of a value


def parsed(text: str | bytes, what: str = "plan", most: int = MOST_VALUES) -> Any:
    """Return the document that a text holds, not larger than a garden can be.

    Args:
        text: JSON, or its bytes in UTF-8.
        what: What it is called in a refusal.
        most: How many values it may hold.

    Raises:
        InvalidPlan: It is no JSON, or it is too deep, too wide or too long.
    """
    try:
        document = json.loads(text)
    except json.JSONDecodeError as error:
        raise InvalidPlan(
            [Problem(what, f"line {error.lineno}", f"a JSON document is allowed ({error.msg})")]
        ) from error
    except UnicodeDecodeError as error:
        raise InvalidPlan([Problem(what, f"byte {error.start}", "text in UTF-8 is allowed")]) from error
    except RecursionError as error:
        raise InvalidPlan(
            [Problem(what, "lists in lists without end", f"{MOST_DEEP} levels are allowed")]
        ) from error
    except ValueError as error:
        raise InvalidPlan(
            [Problem(what, "a number of thousands of digits", "numbers of up to 300 digits are allowed")]
        ) from error
    bounded(document, what, most)
    return document


def bounded(document: Any, what: str = "plan", most: int = MOST_VALUES) -> None:
    """Refuse a document that is too deep, too wide or too long, or holds text that cannot be stored.

    Raises:
        InvalidPlan: The first place where it is so.
    """
    count, waiting = 0, [(document, 0)]
    while waiting:
        value, deep = waiting.pop()
        count += 1
        if count > most:
            raise InvalidPlan([Problem(what, f"more than {most} values", f"up to {most} values are allowed")])
        if isinstance(value, str):
            _storable(value, what)
        if not isinstance(value, dict | list):
            continue
        if deep >= MOST_DEEP:
            raise InvalidPlan(
                [Problem(what, "lists in lists without end", f"{MOST_DEEP} levels are allowed")]
            )
        if len(value) > MOST_WIDE:
            raise InvalidPlan(
                [Problem(what, f"{len(value)} entries side by side", f"up to {MOST_WIDE} are allowed")]
            )
        if isinstance(value, dict):
            for key in value:
                _storable(key, what)
        waiting += [(each, deep + 1) for each in (value.values() if isinstance(value, dict) else value)]


def _storable(text: str, what: str) -> None:
    """Refuse half a character, which no file and no database can hold."""
    if text.isascii():
        return
    try:
        text.encode()
    except UnicodeEncodeError as error:
        raise InvalidPlan(
            [
                Problem(
                    what,
                    text.encode("ascii", "backslashreplace").decode()[:_SHOWN],
                    "whole characters are allowed",
                )
            ]
        ) from error


def short(value: Any) -> str:
    """Return a value as it was given, cut to what one reads; no more of it is written than is shown."""
    if isinstance(value, dict | list | tuple):
        parts = list(value.values()) if isinstance(value, dict) else list(value[: _FEW + 1])
        if len(parts) > _FEW or any(
            isinstance(part, dict | list | tuple) or len(str(part)) > _SHOWN for part in parts
        ):
            return f"{len(value)} entries"
    text = json.dumps(
        value if not isinstance(value, str) else value[: _SHOWN + 1], ensure_ascii=False, default=_unknown
    )
    return text if len(text) <= _SHOWN else f"{text[: _SHOWN - 3]}…"


def _unknown(value: Any) -> str:
    return str(value)[:_SHOWN]


def first_of(problems: Iterable[Problem]) -> list[Problem]:
    """Return as many problems as are said of one document; when there are more, the last says so."""
    firsts: list[Problem] = []
    for problem in problems:
        if len(firsts) == MOST_PROBLEMS:
            return [
                *firsts[:-1],
                Problem(
                    "and more",
                    "other fields",
                    f"the first {MOST_PROBLEMS - 1} are named; put these right first",
                ),
            ]
        firsts.append(problem)
    return firsts


def path_of(loc: Sequence[str | int]) -> str:
    """Return a field's path as people read it: ‘garden.beds[0].length’."""
    return "".join(f"[{part}]" if isinstance(part, int) else f".{part[:_SHOWN]}" for part in loc).lstrip(".")
