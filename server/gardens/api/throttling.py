"""Long calculations take turns: two of one visitor at once, a few of all, so that everybody else is served
meanwhile.
"""

from __future__ import annotations

import functools
import inspect
import math
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any, TypeVar

from django.conf import settings
from django.http import HttpRequest

from .visitor import visitor_of

OWN, ALL = 2, 3  # at once: of one visitor, and of everybody's long ones
_WAIT = 3.0  # for one's turn [s]
_MOST_WAITING = 3  # of everybody; who waits takes a thread, too
_STILL = 0.2  # after a hand has moved [s]
_LET = 0.5  # that what comes in by and by waits for it, again and again [s]
_SLICE = 0.4  # of what comes in by and by [s]
LONGEST = 4.0  # that a search goes on before it says what it has found [s]
Answer = TypeVar("Answer")


class Full(Exception):
    """No turn came; `own`: because of the visitor's own."""

    def __init__(self, own: bool) -> None:
        self.own = own
        super().__init__("no turn")


class Turns:
    """Who is being calculated for: at most `own` of one visitor and `most` of all at once, the next few
    waiting.
    """

    def __init__(self, own: int, most: int) -> None:
        self._own, self._most = own, most
        self._free = threading.Condition()
        self._taken: Counter[str] = Counter()
        self._waiting: dict[tuple[str, str], object] = {}  # who and what: the latest who asks it

    def take(self, who: str, what: str) -> None:
        """Wait for a turn, not long. Whoever asks the same again has left the former question: that waits no
        more.

        Raises:
            Full: None came, or as many wait already as may, or the same was asked again.
        """
        with self._free:
            if not self._open(who):
                own = sum(waits == who and asked != what for waits, asked in self._waiting)
                others = sum(waits != who for waits, _ in self._waiting)
                if own >= self._own or own + others >= _MOST_WAITING:
                    raise Full(self._taken[who] >= self._own)
                self._wait(who, what)
            self._taken[who] += 1

    def _wait(self, who: str, what: str) -> None:
        asked, mine = (who, what), object()
        self._waiting[asked] = mine
        self._free.notify_all()
        self._free.wait_for(lambda: self._waiting.get(asked) is not mine or self._open(who), _WAIT)
        if self._waiting.get(asked) is not mine:
            raise Full(own=True)
        del self._waiting[asked]
        if not self._open(who):
            raise Full(self._taken[who] >= self._own)

    def _open(self, who: str) -> bool:
        return self._taken[who] < self._own and self._taken.total() < self._most

    def give(self, who: str) -> None:
        """Give a turn back."""
        with self._free:
            self._taken[who] -= 1
            self._taken += Counter()
            self._free.notify_all()


_long = Turns(OWN, ALL)
_short = Turns(OWN, 10**6)
_live = Turns(OWN, 10**6)  # of a hand, which waits for nothing that comes in by and by


def heavy(view: Callable[..., Answer]) -> Callable[..., Answer]:
    """Return a view that may calculate for seconds: it waits for its turn among its visitor's own and
    everybody's.
    """
    return _in_turn(view, _long)


def brisk(view: Callable[..., Answer]) -> Callable[..., Answer]:
    """Return a view that is quick but for what is very large: it waits for its turn among its visitor's
    own.
    """
    return _in_turn(view, _short)


def _in_turn(view: Callable[..., Answer], turns: Turns) -> Callable[..., Answer]:
    @functools.wraps(view)
    def in_turn(request: HttpRequest, *args: Any, **kwargs: Any) -> Answer:
        who = _who(request)
        turns.take(who, request.get_full_path())
        try:
            return view(request, *args, **kwargs)
        finally:
            turns.give(who)

    # the framework looks up what annotations name in the wrapper's own module, so they are resolved here
    in_turn.__signature__ = inspect.signature(view, eval_str=True)  # type: ignore[attr-defined]
    return in_turn


def _who(request: HttpRequest) -> str:
    """Return whose turn it is: an account's; in the demo, which all share, and by a link a session's; of what
    knows neither, as a calendar that polls, that of its address.
    """
    visitor = visitor_of(request)
    if visitor.pk is None or settings.DEMO:
        return f"session {request.session.session_key or request.path}"
    return f"account {visitor.pk}"


class Hand:
    """Whether somebody moves something and waits to see it: what may come later makes way for that."""

    def __init__(self) -> None:
        self._last = -math.inf
        self._answering = 0
        self._answered = threading.Condition()

    @contextmanager
    def moves(self) -> Iterator[None]:
        """Note that it moves, and is being answered meanwhile."""
        with self._answered:
            self._answering += 1
        try:
            yield
        finally:
            with self._answered:
                self._answering -= 1
                self._last = time.monotonic()
                self._answered.notify_all()

    def busy(self) -> bool:
        """Return whether it has moved just now."""
        return self._answering > 0 or time.monotonic() - self._last < _STILL

    def let_go_first(self) -> None:
        """Wait until it is answered, not long."""
        with self._answered:
            self._answered.wait_for(lambda: not self._answering, _LET)


hand = Hand()


def live(view: Callable[..., Answer]) -> Callable[..., Answer]:
    """Return a view that answers to a moving hand: it waits for none but its visitor's own hand, and what may
    come later makes way.
    """

    @functools.wraps(view)
    def moved(request: HttpRequest, *args: Any, **kwargs: Any) -> Answer:
        with hand.moves():
            return view(request, *args, **kwargs)

    return _in_turn(moved, _live)


def until_enough(seconds: float = LONGEST) -> Callable[[], bool]:
    """Return what a search asks whether it has gone on for long enough."""
    end = time.monotonic() + seconds
    return lambda: time.monotonic() > end


def by_and_by() -> Callable[[], bool]:
    """Return the same for what comes in by and by: a moment is enough, and a hand that moves goes first."""
    enough = until_enough(_SLICE)
    return lambda: enough() or hand.busy()
