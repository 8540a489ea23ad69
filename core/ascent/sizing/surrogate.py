"""What evaluations teach of what was not evaluated: a figure over the options that move it."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Any

import numpy as np
import numpy.typing as npt

from ..mechanics import Array
from .elimination import LARGEST, Factor, Indices, TooLarge
from .grid import Axis

_OFTEN_WRONG = 1.5  # how many times as much as any prediction was found to be wrong by another may be
_TOLD = 1e-6  # length of what is new of a direction, from which it is told
_UNTOLD = 1e-6
_SAME = 1e-9
_PERHAPS = 0.1  # what is expected of an option that no evaluation tells of
_STRONGER = math.log(4.0)  # than a row is by itself, at most, as part of a structure


class Surrogate:
    """A figure over the options that move it, the more the better: known where it was evaluated, else
    predicted.

    It is taken as a sum of what each option adds (so of a margin or a cost the logarithm is entered), as well
    as the evaluations tell. How far predictions turn out too low widens what is hoped for.
    """

    def __init__(
        self, axes: Sequence[Axis], moved_by: frozenset[str], tolerance: float, by_strength: bool = False
    ) -> None:
        """Make a table.

        Args:
            axes: Of the grid.
            moved_by: Options that move the figure.
            tolerance: How much more than predicted may be hoped for at first; infinite of what is not
                predicted.
            by_strength: Whether it grows with the strength of the rows that move it.

        Raises:
            TooLarge: It would have too many entries.
        """
        self.moved_by = moved_by
        self.axes: list[int] = []
        self.known: dict[Indices, float] = {}
        self.told: dict[Indices, tuple[Indices, float]] = {}  # of an entry, by which way of building
        self.tolerance, self.by_strength = tolerance, by_strength
        # of each axis, the class of each level: alike are those that move it alike
        self._classes: list[npt.NDArray[np.intp]] = []
        names: dict[tuple[str, Any], int] = {}
        groups: list[list[list[int]]] = []
        for number, axis in enumerate(axes):
            own = [tuple((o, v) for o, v in level.items() if o in moved_by) for level in axis.levels]
            different = list(dict.fromkeys(own))
            if len(different) > 1:
                self.axes.append(number)
                self._classes.append(np.array([different.index(one) for one in own], dtype=np.intp))
                groups.append([[names.setdefault(o, len(names)) for o in one] for one in different])
        self._has = [np.zeros((len(classes), len(names))) for classes in groups]  # (class, option)
        for has, classes in zip(self._has, groups, strict=True):
            for number, options in enumerate(classes):
                has[number, options] = 1.0
        self._rows = np.vstack([*self._has, np.zeros((0, len(names)))])  # of all axes, one after the other
        self._other = self._rows  # what each class has otherwise than the first way of building
        # of each axis, the logarithm of how strong each class is by itself
        self._strong: list[Array | None] = [
            np.log(axes[number].strengths) if axes[number].strengths else None for number in self.axes
        ]
        self._shape = tuple(map(len, groups))
        if math.prod(self._shape) > LARGEST:
            raise TooLarge
        # of each axis, how far apart two entries lie that are next to each other along it
        self._steps = [math.prod(self._shape[place + 1 :]) for place in range(len(self._shape))]
        self._known_at: list[int] = []
        self._along = [
            tuple(-1 if p == place else 1 for p in range(len(groups))) for place in range(len(groups))
        ]
        self._normal, self._right = np.zeros((len(names), len(names))), np.zeros(len(names))
        self._told = np.zeros((len(names), 0))  # directions among the options that evaluations tell of
        self._apart: npt.NDArray[np.bool_] | None = None  # classes of which no evaluation tells all by itself
        self._predictions: dict[bool, Array] = {}  # with hope and without

    def entry(self, indices: Indices) -> Indices:
        """Return the entry of a way of building."""
        return tuple(
            int(classes[indices[axis]]) for axis, classes in zip(self.axes, self._classes, strict=True)
        )

    def otherwise(self, indices: Indices, value: float) -> Indices | None:
        """Return a way of building that should have the same figure and has another, if one was evaluated."""
        told = self.told.get(self.entry(indices))
        return told[0] if told and abs(told[1] - value) > _SAME else None

    def learn(self, indices: Indices, value: float) -> bool:
        """Enter a figure that was evaluated, and return whether it is new."""
        entry = self.entry(indices)
        if entry in self.known:
            return False
        if not self.known and self._has:
            firsts = [
                np.broadcast_to(has[level], has.shape) for has, level in zip(self._has, entry, strict=True)
            ]
            self._other = self._rows - np.vstack(firsts)
        hoped = self._predictions.get(True)
        if hoped is not None and math.isfinite(hoped[entry]):
            self.tolerance = max(self.tolerance, _OFTEN_WRONG * (value - float(hoped[entry])))
        row = sum(
            (has[level] for has, level in zip(self._has, entry, strict=True)), np.zeros_like(self._right)
        )
        self._normal += np.outer(row, row)
        rest = row - self._told @ (self._told.T @ row)
        long = float(np.linalg.norm(rest))
        if long > _TOLD:
            self._told = np.column_stack((self._told, rest / long))
            self._apart = None
        self._right += row * value
        self.known[entry] = value
        self._known_at.append(sum(at * step for at, step in zip(entry, self._steps, strict=True)))
        self.told[entry] = (indices, value)
        self._predictions = {}
        return True

    def believed(self, hope: float, hoped: Callable[[Array], Array] | None = None) -> Array:
        """Return the figure of every entry: as known, or predicted.

        Args:
            hope: How much of its tolerance is added to what is predicted. Of what no evaluation tells, a row
                is taken by its own strength, or several times that where there is hope; all else as the first
                was, and a little better, or without bound where there is hope.
            hoped: What more is hoped for of what is predicted.
        """
        if bool(hope) not in self._predictions:
            self._predictions[bool(hope)] = self._predicted(bool(hope))
        more = np.float32(hope * self.tolerance if hope else 0.0)
        figures: Array = (self._predictions[bool(hope)] + more).reshape(self._shape)
        if hoped and hope:
            figures = np.asarray(hoped(figures))
        if self._known_at:
            figures.reshape(-1)[self._known_at] = list(self.known.values())
        return figures

    def spread(self, figures: Array) -> Factor:
        """Return a figure of each entry as one of each level of its axes."""
        for place, classes in enumerate(self._classes):
            if len(classes) > figures.shape[place]:
                figures = np.take(figures, classes, axis=place)
        return tuple(self.axes), figures

    def _predicted(self, hope: bool) -> Array:
        if not self.known or not self.axes or math.isinf(self.tolerance):
            return np.full(self._shape, np.inf, dtype=np.float32)
        told, other = self._told, self._other
        if self._apart is None:
            self._apart = np.linalg.norm(other - other @ told @ told.T, axis=1) > _UNTOLD
        added = told @ np.linalg.solve(told.T @ self._normal @ told, told.T @ self._right)
        first, value = next(iter(self.known.items()))
        # what was evaluated only along with something else is expected of both
        unknown = self._apart if hope else self._rows @ (self._normal.diagonal() == 0.0) > 0.0
        effects = (other @ added).astype(np.float32)
        total: Array = np.full((1,) * len(self._shape), value, dtype=np.float32)
        start = 0
        for place, classes in enumerate(self._shape):
            of = slice(start, start + classes)
            start += classes
            effect = effects[of]
            if unknown[of].any():
                effect = np.where(unknown[of], self._untold(place, first[place], hope), effect)
            total = total + effect.astype(np.float32).reshape(self._along[place])
        return total

    def _untold(self, place: int, first: int, hope: bool) -> Array | float:
        """Return what is believed that each class of an axis adds to the first, before any evaluation
        tells.
        """
        strong = self._strong[place]
        if strong is None or not self.by_strength:
            return np.inf if hope else _PERHAPS
        return np.asarray(strong - strong[first] + (_STRONGER if hope else _PERHAPS))
