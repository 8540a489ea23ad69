"""Long reckonings take turns: two of one visitor at once, a few of all, so that everybody else is served meanwhile."""

from __future__ import annotations

import functools
import inspect
import threading
import time
from collections import Counter
from collections.abc import Callable
from typing import Any, TypeVar

from django.http import HttpRequest

from .visitor import visitor_of

OWN, ALL = 2, 3  # at once
_WAIT = 3.0  # for one's turn [s]
LONGEST = 4.0  # that a search goes on before it says what it has found [s]
Answer = TypeVar("Answer")


class Full(Exception):
    """No turn came; `own`: because of the visitor's own."""

    def __init__(self, own: bool) -> None:
        self.own = own
        super().__init__("no turn")


class Turns:
    """Who is being reckoned for."""

    def __init__(self) -> None:
        self._free = threading.Condition()
        self._taken: Counter[str] = Counter()

    def take(self, who: str) -> None:
        """Wait for a turn, not long.

        Raises:
            Full: None came.
        """
        with self._free:
            if not self._free.wait_for(lambda: self._taken[who] < OWN and self._taken.total() < ALL, _WAIT):
                raise Full(self._taken[who] >= OWN)
            self._taken[who] += 1

    def give(self, who: str) -> None:
        """Give a turn back."""
        with self._free:
            self._taken[who] -= 1
            self._taken += Counter()
            self._free.notify_all()


_turns = Turns()


def heavy(view: Callable[..., Answer]) -> Callable[..., Answer]:
    """Return a view that waits for its turn."""

    @functools.wraps(view)
    def in_turn(request: HttpRequest, *args: Any, **kwargs: Any) -> Answer:
        visitor = visitor_of(request)
        who = str(visitor.pk) if visitor.pk is not None else f"link {visitor.tokens[-1:]}"
        _turns.take(who)
        try:
            return view(request, *args, **kwargs)
        finally:
            _turns.give(who)

    # the framework looks up what annotations name in the wrapper's own module, so they are resolved here
    in_turn.__signature__ = inspect.signature(view, eval_str=True)  # type: ignore[attr-defined]
    return in_turn


def until_enough() -> Callable[[], bool]:
    """Return what a search asks whether it has gone on for long enough."""
    end = time.monotonic() + LONGEST
    return lambda: time.monotonic() > end
