"""What an account may be called."""

from __future__ import annotations

import re
import unicodedata

ALLOWED = "letters, digits, spaces and @ . + - _ ’ are allowed, with at least one letter or digit"
_MARKS = frozenset("@.+-_'’")
_LETTERS_AND_DIGITS = "LN"
_IN_WORDS = "LNM"  # what is written below or above a letter belongs to it


def tidied(name: str) -> str:
    """Return a name in one form, however it was typed: composed letters, single spaces, none at its ends."""
    return re.sub(r"\s+", " ", unicodedata.normalize("NFKC", name)).strip()


def nameable(name: str) -> bool:
    """Return whether an account may have a name. One without a letter or a digit (‘.’) is no part of an
    address: browsers take it for a folder.
    """
    kinds = [unicodedata.category(sign)[0] for sign in name]
    return any(kind in _LETTERS_AND_DIGITS for kind in kinds) and all(
        kind in _IN_WORDS or sign in _MARKS or sign == " " for kind, sign in zip(kinds, name, strict=True)
    )
