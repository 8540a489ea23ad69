"""What an account may be called, besides what the framework says of it."""

from __future__ import annotations

import re

ALLOWED = "a name with a letter or a figure in it is allowed"


def speakable(name: str) -> bool:
    """Return whether a name can stand in an address: ‘.’ and ‘..’ cannot, browsers take them for folders."""
    return re.search(r"\w", name) is not None
