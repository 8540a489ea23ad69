"""Things known again because they are the very same, where comparing what they say would take longer."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from pydantic import BaseModel


class Same:
    """Some objects that nobody changes; alike are two where each holds the very same objects.

    It keeps them, so that what is known of one is never taken for what is known of a later one.
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
    """Return a frozen model as JSON, without some of its fields; the same model is written once."""
    return _text(Same(thing), without)


@lru_cache(maxsize=8192)
def _text(same: Same, without: tuple[str, ...]) -> str:
    (thing,) = same.things
    text: str = thing.model_dump_json(exclude=set(without))
    return text
