"""Results that were calculated before: one bounded memory, keyed by content and not by identity."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import lru_cache, wraps
from hashlib import blake2b
from typing import Any, ParamSpec, TypeVar

from pydantic import BaseModel

Arguments = ParamSpec("Arguments")
Result = TypeVar("Result")
_forget: list[Callable[[], None]] = []


class Same:
    """Some objects that nobody changes. Two of these are equal where each holds the very same objects.

    The objects are kept, so that a later object at the same address is never taken for an earlier one.
    """

    __slots__ = ("things",)

    def __init__(self, *things: Any) -> None:
        self.things = things

    def __hash__(self) -> int:
        return hash(tuple(map(id, self.things)))

    def __eq__(self, other: object) -> bool:
        return (
            isinstance(other, Same)
            and len(self.things) == len(other.things)
            and all(mine is its for mine, its in zip(self.things, other.things, strict=True))
        )


def text_of(thing: BaseModel, *without: str) -> str:
    """Return a frozen model as JSON, without some of its fields. Each object is written once."""
    return _text(Same(thing), without)


@lru_cache(maxsize=8192)
def _text(same: Same, without: tuple[str, ...]) -> str:
    (thing,) = same.things
    text: str = thing.model_dump_json(exclude=set(without))
    return text


class Said:
    """What a frozen model says without some of its fields: an argument that counts by that alone."""

    __slots__ = ("text", "thing")

    def __init__(self, thing: Any, *without: str) -> None:
        self.thing, self.text = thing, text_of(thing, *without)

    def __hash__(self) -> int:
        return hash(self.text)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Said) and self.text == other.text


def content_of(thing: BaseModel) -> bytes:
    """Return a digest of what a frozen model says: equal for equal models of one class."""
    return _content(Same(thing))


@lru_cache(maxsize=8192)
def _content(same: Same) -> bytes:
    (thing,) = same.things
    return blake2b(f"{type(thing).__name__} {text_of(thing)}".encode(), digest_size=16).digest()


class _Call:
    """The arguments of a call, equal to those of another call with the same content."""

    __slots__ = ("args", "key", "kwargs")

    def __init__(self, args: tuple[Any, ...], kwargs: dict[str, Any]) -> None:
        self.args, self.kwargs = args, kwargs
        self.key = (*map(_key, args), *((name, _key(value)) for name, value in kwargs.items()))

    def __hash__(self) -> int:
        return hash(self.key)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Call) and self.key == other.key


def _key(argument: Any) -> Hashable:
    if isinstance(argument, BaseModel):
        return content_of(argument)
    if isinstance(argument, tuple) and not hasattr(argument, "_fields"):
        return tuple(map(_key, argument))
    key: Hashable = argument
    return key


def remembered(most: int) -> Callable[[Callable[Arguments, Result]], Callable[Arguments, Result]]:
    """Return a decorator that keeps the latest results of a function without side effects.

    Models among the arguments count by what they say. All other arguments must be hashable.

    Args:
        most: Results kept; the one used longest ago goes first.
    """

    def decorator(function: Callable[Arguments, Result]) -> Callable[Arguments, Result]:
        @lru_cache(maxsize=most)
        def kept(call: _Call) -> Result:
            return function(*call.args, **call.kwargs)

        @wraps(function)
        def known(*args: Arguments.args, **kwargs: Arguments.kwargs) -> Result:
            return kept(_Call(args, kwargs))

        _forget.append(kept.cache_clear)
        return known

    return decorator


def forget_all() -> None:
    """Forget every result, as where a table of the core was changed by a test."""
    for clear in _forget:
        clear()
