"""Every error the core raises on purpose."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import TypeVar

_log = logging.getLogger(__name__)
Made = TypeVar("Made")
Else = TypeVar("Else")


class AscentError(Exception):
    """Something a person can put right."""


@dataclass(frozen=True)
class Problem:
    """One wrong field: where it stands, what was given, what is allowed, and a suggestion."""

    path: str
    given: str
    allowed: str
    suggestion: str = ""

    def __str__(self) -> str:
        hint = f" {self.suggestion}" if self.suggestion else ""
        return f"{self.path}: {self.given} is not accepted; {self.allowed}.{hint}"


class InvalidPlan(AscentError):
    """A plan with wrong fields; every one of them is named at once."""

    def __init__(self, problems: Iterable[Problem]) -> None:
        self.problems = tuple(problems)
        super().__init__("\n".join(str(problem) for problem in self.problems))


class UnreadableQuantity(AscentError):
    """Text that is not a quantity of the kind asked for, or lies outside what is allowed."""

    def __init__(self, text: str, allowed: str) -> None:
        self.text = text
        self.allowed = allowed
        super().__init__(f"‘{text}’ was not understood; {allowed}")


class BrokenTable(AscentError):
    """A data table with a row or a cell that cannot be used."""


class UnknownItem(AscentError):
    """A key that is in no row of its table."""

    def __init__(self, table: str, key: str, suggestion: str) -> None:
        self.table, self.key, self.suggestion = table, key, suggestion
        super().__init__(f"{table}: no row ‘{key}’; {suggestion}")


def guarded(part: str, make: Callable[[], Made], otherwise: Else) -> Made | Else:
    """Return one part of a report, or something else where making it fails by a program error: that is
    logged, and the rest of the report stands. What a person can put right is raised all the same.

    Args:
        part: What is made, for the log.
        make: Makes it.
        otherwise: Returned where it fails.

    Raises:
        AscentError: As `make` raises it.
    """
    try:
        return make()
    except AscentError:
        raise
    except Exception:
        _log.exception("%s failed", part)
        return otherwise
