"""A garden as it is at one number of its changes: read once, whoever asks."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from functools import cached_property
from typing import Any, TypeVar

from ascent import plan as model
from ascent.ground.plot import Laid, laid_out
from django.http import Http404

from ..models import Change, Garden
from .state import State, state_of, whole

_MOST = 24  # gardens, each at some numbers, that are kept
_TRIES = 3
Made = TypeVar("Made")


class Known:
    """A garden at one number: its things, and whatever is made of them, each once. Nobody changes any of it.

    print: what tells it from the garden at any other number, also of another past.
    """

    def __init__(self, print_: Hashable, garden: Garden, state: State) -> None:
        self.print, self.garden, self.state = print_, garden, state
        self.number = garden.changes
        self._lock = threading.RLock()
        self._made: dict[str, Any] = {}

    @cached_property
    def core(self) -> model.Garden:
        """Return the core's garden; what cannot be read is not in it."""
        return whole(self.state)

    @cached_property
    def laid(self) -> tuple[Laid, ...]:
        """Return every structure where it stands."""
        return laid_out(self.core)

    def once(self, name: str, make: Callable[[], Made]) -> Made:
        """Return something that is made of it the first time somebody asks."""
        with self._lock:
            if name not in self._made:
                self._made[name] = make()
            found: Made = self._made[name]
            return found

    def made(self, name: str) -> Any:
        """Return something that has been made of it, or nothing."""
        return self._made.get(name)


_known: OrderedDict[Hashable, Known] = OrderedDict()
_lock = threading.Lock()


def known_of(garden: Garden) -> Known:
    """Return a garden as it is stored; the same one as long as nothing of it has changed.

    Raises:
        Http404: It is gone.
    """
    for _ in range(_TRIES):
        found = _print_of(garden)
        with _lock:
            if found in _known:
                _known.move_to_end(found)
                return _known[found]
        fresh = Known(found, garden, state_of(garden))
        # what others stored while it was read would be kept under the wrong number
        row = Garden.objects.filter(pk=garden.pk).select_related("owner").first()
        if row is None:
            raise Http404
        if row.changes == garden.changes:
            with _lock:
                _known[found] = fresh
                while len(_known) > _MOST:
                    _known.popitem(last=False)
            return fresh
        garden = row
    return Known(_print_of(garden), garden, state_of(garden))


def before(garden_id: int, number: int) -> Known | None:
    """Return a garden at a number it has had, where that is still known."""
    with _lock:
        return next(
            (k for k in reversed(_known.values()) if k.garden.pk == garden_id and k.number == number), None
        )


def nearest(known: Known) -> Known | None:
    """Return the same garden at the number before that of which something has been made, if there is one."""
    with _lock:
        return next(
            (
                each
                for each in reversed(_known.values())
                if each.garden.pk == known.garden.pk and each is not known and each.made("drawn")
            ),
            None,
        )


def forget() -> None:
    """Forget every garden: what is stored may be of another past."""
    with _lock:
        _known.clear()


def _print_of(garden: Garden) -> Hashable:
    last = Change.objects.filter(garden=garden, number=garden.changes).values_list("pk", "when").first()
    return garden.pk, garden.changes, garden.revision, garden.owner_id, str(garden.document), last
