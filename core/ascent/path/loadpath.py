"""The load path: links from fruit to ground, each with the ways it can fail."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, Literal, NamedTuple, TypeVar

import numpy as np

from ..mechanics import Array
from ..tables.rows import Certainty, Item

Term = tuple[Array | float, str]
Level = Literal["fine", "watch", "wrong"]
ItemT = TypeVar("ItemT", bound=Item)
AmountT = TypeVar("AmountT", Array, "Array | float")


@dataclass(frozen=True)
class Winds:
    """Some of the winds of arrays over so many of them, (..., G)."""

    of: int
    which: slice

    def only(self, amounts: AmountT) -> AmountT:
        """Return amounts in these winds alone; what is the same in every wind stays as it is."""
        if isinstance(amounts, np.ndarray) and amounts.ndim and amounts.shape[-1] == self.of:
            return amounts[..., self.which]
        return amounts


class Strength(NamedTuple):
    """What one designs to, the factor of a code or ours inside, and what one expects; arrays over cases,
    never mixed.
    """

    allowable: Array
    median: Array


@dataclass(frozen=True)
class Check:
    """One way a link can fail, over cases.

    key: names the texts of the check.
    demand: what one designs for, an array over cases in the SI unit of `quantity`.
    allowable: what one designs to, the factor of a code or ours inside.
    median: what one expects it to carry: half of such pieces carry more.
    source: row of sources.csv.
    terms: numbers of the working, each an array over cases with its kind of quantity.
    material_group: row of uncertainties.csv that its strength stands or falls with; its spread is the
        strength's.
    expected: what one expects to come on it, where that is less than what one designs for.
    """

    key: str
    demand: Array
    allowable: Array | float
    median: Array | float
    quantity: str
    source: str
    certainty: Certainty
    terms: Mapping[str, Term] = field(default_factory=dict)
    material_group: str = "steel"
    expected: Array | None = None

    @cached_property
    def utilisation(self) -> Array:
        """Return demand over allowable; infinite where nothing is left to carry it."""
        return _over(self.demand, self.allowable)

    @cached_property
    def median_utilisation(self) -> Array:
        """Return what is expected to come over what it is expected to carry: at 1 it would as soon fail as
        stand.
        """
        return _over(self.demand if self.expected is None else self.expected, self.median)

    def times(self, strengths: Mapping[str, tuple[float, float]]) -> Check:
        """Return the check with what its strength rests on so many times as strong, as one designs to and as
        one expects.
        """
        if self.material_group not in strengths:
            return self
        return self.scaled(*strengths[self.material_group])

    def scaled(self, allowable: float, median: float) -> Check:
        """Return the check so many times as strong, as one designs to and as one expects."""
        return replace(self, allowable=self.allowable * allowable, median=self.median * median)

    def within(self, winds: Winds) -> Check:
        """Return the check in some of its winds."""
        return replace(
            self,
            demand=winds.only(self.demand),
            allowable=winds.only(self.allowable),
            median=winds.only(self.median),
            terms={name: (winds.only(amount), kind) for name, (amount, kind) in self.terms.items()},
            expected=None if self.expected is None else winds.only(self.expected),
        )


def _over(demand: Array, strength: Array | float) -> Array:
    """Return demand over strength, nothing of no demand; infinite where there is no strength."""
    with np.errstate(divide="ignore", invalid="ignore"):
        ratio = np.where(np.greater(strength, 0.0), np.divide(demand, strength), np.inf)
    return np.where(np.less_equal(demand, 1e-12), 0.0, ratio)


@dataclass(frozen=True)
class Arrow:
    """A place on the structure and the direction of a force there; x along the row, y across, z up."""

    at: tuple[float, float, float]
    towards: tuple[float, float, float]


@dataclass(frozen=True)
class Link:
    """One thing on the load path.

    members: keys of the geometry's members it covers.
    item: table and key of what it is made of, if it was chosen from a table.
    hands_to: keys of the links that take its load.
    levers: options that can strengthen it.
    carries: force through it, over cases [N].
    arrows: where its force is drawn, and which way it goes.
    made_of: its checks if it were of another item of that table, all else as it is; nothing where the item's
        stiffness, weight or width changes what comes on it or on another link.
    """

    key: str
    members: tuple[str, ...]
    item: tuple[str, str] | None
    hands_to: tuple[str, ...]
    levers: tuple[str, ...]
    carries: Array
    checks: tuple[Check, ...]
    arrows: tuple[Arrow, ...] = ()
    made_of: Callable[[Any], tuple[Check, ...]] | None = field(default=None, compare=False, repr=False)

    @classmethod
    def of(
        cls,
        key: str,
        members: tuple[str, ...],
        item: ItemT,
        hands_to: tuple[str, ...],
        levers: tuple[str, ...],
        carries: Array,
        made_of: Callable[[ItemT], tuple[Check, ...]],
        arrows: tuple[Arrow, ...] = (),
    ) -> Link:
        """Return a link that can be made of another item: only its own strength changes with it."""
        made = (item.table, item.key)
        return cls(key, members, made, hands_to, levers, carries, made_of(item), arrows, made_of)

    def made_with(self, item: Item) -> Link | None:
        """Return the link made of another item, with the same loads; nothing where the item changes more
        than the strength of the link, so that the whole must be calculated.
        """
        if self.made_of is None or self.item is None or self.item[0] != item.table:
            return None
        return replace(self, item=(item.table, item.key), checks=self.made_of(item))

    def without(self, broken: Collection[str]) -> Link:
        """Return the link with some of its members broken. The two beside one carry half its share each, the
        only one left all of it; where none is left, nothing is carried. An empty key stands for all of it.

        It is how wind and crop on a row are shared by width; members further off, that help, are left out.
        """
        gone = len(self.members) if "" in broken else sum(member in broken for member in self.members)
        if not gone:
            return self
        left = len(self.members) - gone
        share = 1.0 / (1.0 + gone / min(left, 2)) if left else 0.0
        return replace(self, checks=tuple(check.scaled(share, share) for check in self.checks), made_of=None)

    def times(self, strengths: Mapping[str, tuple[float, float]]) -> Link:
        """Return the link with what its strengths rest on so many times as strong."""
        made_of = self.made_of
        return replace(
            self,
            checks=tuple(check.times(strengths) for check in self.checks),
            made_of=made_of and (lambda item: tuple(check.times(strengths) for check in made_of(item))),
        )

    def within(self, winds: Winds) -> Link:
        """Return the link in some of its winds."""
        made_of = self.made_of
        return replace(
            self,
            carries=winds.only(self.carries),
            checks=tuple(check.within(winds) for check in self.checks),
            made_of=made_of and (lambda item: tuple(check.within(winds) for check in made_of(item))),
        )

    @cached_property
    def utilisation(self) -> Array:
        """Return the greatest use of its checks."""
        return _greatest([check.utilisation for check in self.checks])

    @cached_property
    def median_utilisation(self) -> Array:
        """Return the greatest use by median strengths: at 1 it would as soon fail as stand."""
        return _greatest([check.median_utilisation for check in self.checks])


@dataclass(frozen=True)
class Remark:
    """Something a gardener should know that is not a matter of strength; a text key with its numbers."""

    key: str
    level: Level
    values: Mapping[str, tuple[float, str]] = field(default_factory=dict)
    words: Mapping[str, str] = field(default_factory=dict)
    source: str = "handbook-parts-4.1"
    levers: tuple[str, ...] = ()


@dataclass(frozen=True)
class Service:
    """A movement that is judged in the serviceability wind, not as strength: amount over cases against a
    limit. [m]
    """

    key: str
    amount: Array
    limit: float
    source: str
    levers: tuple[str, ...]

    def within(self, winds: Winds) -> Service:
        """Return the movement in some of its winds."""
        return replace(self, amount=winds.only(self.amount))


def _greatest(uses: list[Array]) -> Array:
    result = uses[0]
    for use in uses[1:]:
        result = np.maximum(result, use)
    return result
