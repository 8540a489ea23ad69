"""Rows of the tasks of a season, of moves before a storm, of the kinds of log entries."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .base import Row


@dataclass(frozen=True)
class Job(Row):
    """A job of the season in words: why it is done and why then, how, and with what; its minutes, and those
    for each plant.
    """

    title: str
    why: str
    how: str
    tools: str
    minutes: float
    per_plant: float
    sort: Literal["build", "sow", "train", "prune", "fruit", "feed", "scout", "pick", "look", "clear"]


@dataclass(frozen=True)
class LogKind(Row):
    """A kind of entry in a garden’s log: what it is called, what one does to make it, the fields it has and
    which of them it needs, and the words by which it is known in a typed line.

    about: whether it is always of one structure.
    """

    name: str
    verb: str
    fields: tuple[str, ...]
    needs: tuple[str, ...]
    words: tuple[str, ...]
    about: Literal["structure", "any"]


@dataclass(frozen=True)
class StormMove(Row):
    """Something quick to do before a storm: an option and what it becomes (‘+1’: so many more), its minutes
    and those for each metre of row, in words.
    """

    option: str
    value: str
    minutes: float
    per_m: float
    title: str
    how: str
