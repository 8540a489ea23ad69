"""What is in the way of what on the plan: narrow paths, posts over buried lines, guys to trip on, ground
taken twice.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import Any, Literal

import numpy as np
import shapely
from shapely import ops

from ..errors import guarded
from ..memory import text_of
from ..plan.bed import Bed
from ..plan.features import Feature
from ..plan.fields import Typed
from ..plan.garden import Garden
from ..words.quantities import System, write
from ..words.texts import say, template
from .plot import Flat, Laid, bed_shape, lie_of
from .reach import closed_off
from .rules import before_doors, narrow_gaps, narrow_paths, over_buried, over_paths, past_bed, taken_twice
from .shapes import Clash, GardenShapes, flat, middle_of, shape_of

_FAR = 6.0  # beyond this no distance is shown [m]
_NEAREST = 4
_FARTHEST = 4.0  # that a rule looks for something: the widest path, the farthest that is kept off [m]
_MANY = 40  # things that differ, from which on the whole garden is looked at anew
_OF_WAYS = ("out-of-reach", "closed-off", "no-way-to")
_BROKEN = "not-looked-at"


class Warned(Typed):
    """A clash in words."""

    key: str
    level: Literal["watch", "wrong"]
    things: tuple[str, ...]
    at: Flat
    text: str


class Gap(Typed):
    """The distance from a thing to a neighbour, between their nearest points."""

    to: str
    start: Flat
    end: Flat
    text: str


def clashes(garden: Garden, laid: Sequence[Laid], ways: Sequence[Clash] | None = None) -> list[Clash]:
    """Return everything that is in the way of something, the worse first.

    Args:
        garden: The garden.
        laid: Its structures where they stand.
        ways: What is known of where nobody gets to, which asks for the whole ground; it is looked at anew
        where this is not given.
    """
    ground = GardenShapes(garden, laid)
    broken = [
        clash
        for key, rule in RULES.items()
        if ways is None or key != _WAYS
        for clash in _said(key, rule, ground)
    ]
    return _ordered((*broken, *(ways or ())))


@dataclass(frozen=True)
class Looked:
    """A garden that has been looked at: where its structures stand, and what is in the way."""

    garden: Garden
    laid: Sequence[Laid]
    found: Sequence[Clash]

    @cached_property
    def ground(self) -> GardenShapes:
        """Return its shapes."""
        return GardenShapes(self.garden, self.laid)


def clashes_since(
    before: Looked, garden: Garden, laid: Sequence[Laid], ways: Sequence[Clash] | None = None
) -> list[Clash]:
    """Return the same as `clashes`, looked at anew only round what differs from a garden that has been looked
    at already.

    Args:
        before: The garden as it was.
        garden: The garden.
        laid: Its structures where they stand.
        ways: As for `clashes`.
    """
    zone, changed = _changed(before, garden, laid)
    broken = any(clash.key == _BROKEN for clash in before.found)
    if broken or before.garden.path_width != garden.path_width or len(changed) > _MANY:
        return clashes(garden, laid, ways)
    found = GardenShapes(garden, laid)
    near = {*changed, *_within(before.ground, zone), *_within(found, zone)}
    about = _within(found, shapely.buffer(zone, _range(garden)))
    small = garden.model_copy(
        update={
            "beds": tuple(bed for bed in garden.beds if bed.key in about),
            "features": tuple(feature for feature in garden.features if feature.key in about),
        }
    )
    ground = GardenShapes(small, [standing for standing in laid if standing.structure.key in about])
    fresh = [
        clash
        for key, rule in RULES.items()
        if key != _WAYS
        for clash in _said(key, rule, ground)
        if clash.key == _BROKEN or not near.isdisjoint(clash.things)
    ]
    same = [clash for clash in before.found if clash.key not in _OF_WAYS and near.isdisjoint(clash.things)]
    if ways is None:
        ways = _said(_WAYS, RULES[_WAYS], found)
    return _ordered((*same, *fresh, *ways))


def _changed(before: Looked, garden: Garden, laid: Sequence[Laid]) -> tuple[Any, set[str]]:
    """Return the ground round everything that differs between two gardens, as it was and as it is, and the
    keys of that.
    """
    shapes: list[Any] = []
    keys: set[str] = set()
    was, now = (_things_of(each) for each in (before.garden, garden))
    for key in was.keys() | now.keys():
        old, new = was.get(key), now.get(key)
        if old is not new and not _bare_same(old, new):
            keys.add(key)
            shapes += [
                shape_of(each) if isinstance(each, Feature) else bed_shape(lie_of(each))
                for each in (old, new)
                if each is not None
            ]
    stood, stands = ({each.structure.key: each for each in those} for those in (before.laid, laid))
    for key in stood.keys() | stands.keys():
        once, then = stood.get(key), stands.get(key)
        if once is not then:
            keys.add(key)
            shapes += [shapely.union(each.reach, each.ground) for each in (once, then) if each is not None]
    return shapely.buffer(shapely.union_all(shapes), _range(before.garden, garden)), keys


def _things_of(garden: Garden) -> dict[str, Bed | Feature]:
    """Return the beds and features of a garden by their keys."""
    things: dict[str, Bed | Feature] = {bed.key: bed for bed in garden.beds}
    return things | {feature.key: feature for feature in garden.features}


def _bare_same(old: Any, new: Any) -> bool:
    """Return whether two things are the same but for what stands on them."""
    if old is None or new is None:
        return False
    return bool(text_of(old, "structures") == text_of(new, "structures"))


def _range(*gardens: Garden) -> float:
    """Return how far anything can be in the way of something else. [m]"""
    doors = [
        math.dist(a, b)
        for garden in gardens
        for feature in garden.features
        if feature.kind == "door"
        for a, b in pairwise(feature.points)
    ]
    return max(_FARTHEST, *doors) if doors else _FARTHEST


def _within(ground: GardenShapes, zone: Any) -> set[str]:
    """Return the keys of what a zone meets."""
    keys, shapes = ground.things
    if not keys or zone.is_empty:
        return set()
    shapely.prepare(zone)
    return {keys[i] for i in np.flatnonzero(shapely.intersects(zone, shapes))}


def _ordered(those: Iterable[Clash]) -> list[Clash]:
    return sorted(those, key=lambda clash: (clash.level != "wrong", clash.key, clash.things, clash.at))


def of_ways(those: Iterable[Clash]) -> list[Clash]:
    """Return the conflicts about ground that cannot be reached."""
    return [clash for clash in those if clash.key in _OF_WAYS]


def _said(key: str, rule: Callable[[GardenShapes], Iterable[Clash]], ground: GardenShapes) -> list[Clash]:
    """Return what a rule finds; one that fails is said to have failed and never stops the plan."""
    failed = Clash(_BROKEN, "watch", (), middle_of(ground), words={"rule": template(f"rule.{key}")})
    return guarded(f"the rule {key}", lambda: list(rule(ground)), [failed])


def warned(those: Iterable[Clash], system: System) -> tuple[Warned, ...]:
    """Return clashes in words and the reader's units."""
    return tuple(
        Warned(
            key=c.key,
            level=c.level,
            things=c.things,
            at=c.at,
            text=say(f"clash.{c.key}", system, c.values, c.words),
        )
        for c in those
    )


def gaps(garden: Garden, laid: Sequence[Laid], key: str, system: System) -> tuple[Gap, ...]:
    """Return the distances from one thing to its nearest neighbours, shortest first."""
    ground = GardenShapes(garden, laid)
    shapes = {bed.key: shape for bed, shape in ground.beds} | {
        feature.key: shape for feature, shape in ground.features
    }
    shapes |= {standing.structure.key: standing.ground for standing in laid}
    if key not in shapes:
        return ()
    own = shapes[key]
    home = next((standing.bed.key for standing in laid if standing.structure.key == key), "")
    guests = {standing.structure.key for standing in laid if standing.bed.key == key}
    others = {k: s for k, s in shapes.items() if k not in {key, home, *guests}}
    near = sorted(zip(shapely.distance(own, list(others.values())).tolist(), others, strict=True))
    narrow: list[Gap] = []
    for distance, other in near:
        if 0.0 < distance < _FAR and len(narrow) < _NEAREST:
            start, end = (flat(point) for point in ops.nearest_points(own, shapes[other]))
            narrow.append(Gap(to=other, start=start, end=end, text=write(distance, "length", system)))
    return tuple(narrow)


_WAYS = "closed-off"
RULES: dict[str, Callable[[GardenShapes], Iterable[Clash]]] = {
    "narrow-gaps": narrow_gaps,
    "narrow-paths": narrow_paths,
    "over-buried": over_buried,
    "over-paths": over_paths,
    "before-doors": before_doors,
    "taken-twice": taken_twice,
    "past-bed": past_bed,
    "closed-off": closed_off,
}
