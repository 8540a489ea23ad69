"""All tables by name, what their columns refer to, and the check of both at start."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any, get_args

from ..errors import BrokenTable
from . import reading
from .reading import Record, Row_co, Table
from .rows import Certainty, Row

ANY = "*"  # in a column that refers to another table: any row of it, or that of the item


@dataclass(frozen=True)
class Registered:
    """A table of the registry.

    read: Reads it, once.
    refers: Columns with keys of other tables, {column: table}.
    """

    name: str
    read: Callable[[], Table[Any]]
    refers: Mapping[str, str]


TABLES: dict[str, Registered] = {}
FIGURES: list[str] = []  # files of figures without rows of their own


def table(
    name: str,
    row: type[Row_co],
    *,
    prepare: Callable[[Record], Record] | None = None,
    of_families: bool = False,
    **refers: str,
) -> Callable[[], Table[Row_co]]:
    """Register a table, and return the function that reads it once.

    Args:
        name: Of the table and of its file.
        row: Class of its rows.
        prepare: Makes of a line as it is written one with the columns of the class.
        of_families: Whether families have files of that name in their folders, too.
        refers: Columns with keys of other tables.
    """

    @cache
    def read() -> Table[Row_co]:
        paths = [reading.DATA / f"{name}.csv"]
        paths = [path for path in paths if path.exists() or not of_families]
        paths += sorted(reading.FAMILIES.glob(f"*/{name}.csv")) if of_families else []
        rows = [each for path in paths for each in reading.read_rows(path, row, prepare)]
        return reading.table_of(name, rows)

    TABLES[name] = Registered(name, read, refers)
    return read


def figures(name: str) -> list[dict[str, float]]:
    """Return the lines of a file of figures, {column: figure}; source and certainty are checked at start.
    [each its own unit]
    """
    return [
        {head: float(cell) for head, cell in record.items() if head not in ("source", "certainty")}
        for _, record in reading.records(reading.DATA / f"{name}.csv")
    ]


def forget() -> None:
    """Read every table anew when it is asked for next."""
    for each in TABLES.values():
        each.read.cache_clear()  # type: ignore[attr-defined]


def load_all() -> None:
    """Read every table, and check every source and every key of another table.

    Raises:
        BrokenTable: A row, a cell, a source or a reference is wrong.
    """
    loaded = {name: each.read() for name, each in TABLES.items()}
    known = loaded["sources"]
    for name, each in TABLES.items():
        for row in loaded[name].values():
            _cited(f"{name}.csv", row.key, row.source, known)
            for column, other in each.refers.items():
                _referred(name, row, column, loaded[other])
    for name in FIGURES:
        for line, record in reading.records(reading.DATA / f"{name}.csv"):
            _cited(f"{name}.csv", f"line {line}", record["source"], known)
            if record["certainty"] not in get_args(Certainty):
                raise BrokenTable(f"{name}.csv line {line}: certainty ‘{record['certainty']}’")


def _cited(file: str, key: str, source: str, known: Mapping[str, Row]) -> None:
    if source not in known:
        raise BrokenTable(f"{file} ‘{key}’ cites ‘{source}’, which is not in sources.csv")


def _referred(name: str, row: Row, column: str, other: Table[Row]) -> None:
    value = getattr(row, column)
    keys: Iterable[str] = (value,) if isinstance(value, str) else value or ()
    for key in keys:
        if key and key != ANY and key not in other:
            raise BrokenTable(
                f"{name}.csv ‘{row.key}’: no row ‘{key}’ in {column}, which names rows of {other.name}"
            )
