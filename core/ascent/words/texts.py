"""Sentences by key, with numbers written in the reader's units."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from pathlib import Path
from typing import Any

from .quantities import System, write


@cache
def _catalogue() -> dict[str, Any]:
    return tomllib.loads((Path(__file__).parent.parent / "data" / "texts.toml").read_text(encoding="utf-8"))


def template(path: str) -> str:
    """Return the sentence at a dotted path such as ‘check.guy.words’.

    Raises:
        KeyError: No such text.
    """
    entry: Any = _catalogue()
    for part in path.split("."):
        if not isinstance(entry, dict) or part not in entry:
            raise KeyError(path)
        entry = entry[part]
    return str(entry)


def has(path: str) -> bool:
    """Return whether a text exists."""
    try:
        template(path)
    except KeyError:
        return False
    return True


def say(
    path: str,
    system: System,
    values: Mapping[str, tuple[float, str]] | None = None,
    words: Mapping[str, str] | None = None,
) -> str:
    """Return the sentence at a path with its numbers and words put in."""
    written = {name: write(value, kind, system) for name, (value, kind) in (values or {}).items()}
    return template(path).format(**written, **(words or {}))
