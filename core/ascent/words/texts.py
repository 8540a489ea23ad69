"""Sentences by key, with numbers written in the reader's units."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from pathlib import Path
from typing import Any

from ..errors import BrokenTable
from .quantities import System, write

_CORE = Path(__file__).parent.parent


@cache
def catalogue() -> dict[str, Any]:
    """Return all texts: those of data/texts.toml, and what each family has beside it."""
    texts: dict[str, Any] = {}
    for path in (_CORE / "data" / "texts.toml", *sorted(_CORE.glob("families/*/texts.toml"))):
        _gather(texts, tomllib.loads(path.read_text(encoding="utf-8")), path)
    return texts


def _gather(texts: dict[str, Any], more: Mapping[str, Any], path: Path) -> None:
    for key, entry in more.items():
        if isinstance(entry, dict):
            _gather(texts.setdefault(key, {}), entry, path)
        elif key in texts:
            raise BrokenTable(f"{path}: the text ‘{key}’ stands in another file, too")
        else:
            texts[key] = entry


def template(path: str) -> str:
    """Return the sentence at a dotted path such as ‘check.guy.words’.

    Raises:
        KeyError: No such text.
    """
    entry: Any = catalogue()
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
    """Return the sentence at a path with its numbers and words put in. Values are in SI. [SI]"""
    written = {name: write(value, kind, system) for name, (value, kind) in (values or {}).items()}
    return template(path).format(**written, **(words or {}))
