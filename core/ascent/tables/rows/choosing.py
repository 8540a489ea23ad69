"""Rows of what kinds of support are compared by."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .base import Row


@dataclass(frozen=True)
class Trait(Row):
    """What a family of support is to live with: people to build it, how hard that is from 1 to 5, whether it
    moves to another bed, from where its plants are reached, whether one walks under it and it can stand over
    a path between two beds; how it looks, from 1, a thing of wire and steel, to 3, of the garden.
    """

    people: int
    difficulty: int
    moves: Literal["yes", "half", "no"]
    faces: Literal["both", "one", "round", "outside"]
    walked_under: bool
    over_path: bool
    looks: int


@dataclass(frozen=True)
class RemarkRow(Row):
    """How much a remark of level watch weighs where kinds of support are compared.

    weight: serious: a kind without it comes first. drawback: it counts. care: nothing but care to be taken.
    remedy: whether there is a text that says what would make it do, where that is no option of its own.
    """

    weight: Literal["serious", "drawback", "care"]
    remedy: bool


@dataclass(frozen=True)
class Divide(Row):
    """A choice that divides growers: by what it is decided, and both its sides.

    by: kinds of support, the value of an option, an item of it, a measure of it [m], or nothing that can be
    computed. families: that it concerns; all where none is named. one, other: kinds, values, or the
    beginnings of the keys of items.
    """

    by: Literal["kinds", "value", "item", "measure", "none"]
    families: tuple[str, ...]
    option: str | None
    table: str | None
    one: tuple[str, ...]
    other: tuple[str, ...]
