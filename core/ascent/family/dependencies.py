"""The dependency map of a family: which results each of its options changes."""

from __future__ import annotations

import csv
from collections.abc import Mapping
from pathlib import Path

from ..errors import BrokenTable

NAME = "dependencies.csv"  # beside the family


def dependencies_beside(module: str) -> Mapping[str, frozenset[str]]:
    """Return the dependency map in the file beside a module, {result: options that change it}.

    What is moved is ‘link’ and its key, ‘parts’ and what they are used for, or ‘wrong’ and the key of a
    remark. It was found by trial (tools/dependencies.py), not calculated; a search confirms what it finds.

    Raises:
        BrokenTable: There is no such file; without it a search would come to something else.
    """
    path = Path(module).with_name(NAME)
    if not path.exists():
        raise BrokenTable(f"{path} is missing; a new family begins with its line of heads: moved,by")
    with path.open(encoding="utf-8", newline="") as file:
        return {row["moved"]: frozenset(row["by"].split()) for row in csv.DictReader(file)}
