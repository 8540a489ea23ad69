"""How a table is read: one CSV file, one frozen row class, every cell checked."""

from __future__ import annotations

import csv
import difflib
from collections.abc import Callable, Iterator, Mapping
from dataclasses import MISSING, fields
from pathlib import Path
from typing import Any, Literal, TypeVar, get_args, get_origin, get_type_hints

from ..errors import BrokenTable, UnknownItem
from . import own
from .rows import Row

DATA = Path(__file__).parent.parent / "data"
FAMILIES = Path(__file__).parent.parent / "families"
_SCALES = {
    "_mm": 1e-3,
    "_mm2": 1e-6,
    "_mm3": 1e-9,
    "_mm4": 1e-12,
    "_GPa": 1e9,
    "_MPa": 1e6,
    "_kPa": 1e3,
    "_MN": 1e6,
    "_kN_m3": 1e3,
    "_kPa_m": 1e3,
}
_MOST_OWN = 2048

Record = dict[str, str]
Row_co = TypeVar("Row_co", bound=Row, covariant=True)


class Table(Mapping[str, Row_co]):
    """Rows by key, in the order of the file. It also knows the keys of a gardener's own things, see `own`."""

    def __init__(self, name: str, rows: dict[str, Row_co]) -> None:
        self.name = name
        self._rows = rows
        self._made: dict[str, Row_co | None] = {}

    def __getitem__(self, key: str) -> Row_co:
        """Return the row of that key.

        Raises:
            UnknownItem: No such row; the nearest keys are suggested.
        """
        try:
            return self._rows[key]
        except KeyError:
            if own.MARK in key and (row := self._own(key)) is not None:
                return row
            near = difflib.get_close_matches(str(key), self._rows, 3, 0.3) or list(self._rows)[:3]
            raise UnknownItem(self.name, str(key), f"did you mean {', '.join(near)}?") from None

    def _own(self, key: str) -> Row_co | None:
        """Return the row that the key of a gardener's own thing stands for."""
        if key not in self._made:
            if len(self._made) > _MOST_OWN:
                self._made.clear()
            known: Callable[[str], Any] = self._rows.__getitem__
            base = key.split(own.MARK, maxsplit=1)[0]
            self._made[key] = own.row_of(self.name, key, known) if base in self._rows else None
        return self._made[key]

    def __contains__(self, key: object) -> bool:
        return key in self._rows

    def __iter__(self) -> Iterator[str]:
        return iter(self._rows)

    def __len__(self) -> int:
        return len(self._rows)


def records(path: Path) -> Iterator[tuple[int, Record]]:
    """Yield the lines of a file with their numbers; the first after the heading is line 2."""
    with path.open(newline="", encoding="utf-8") as handle:
        yield from enumerate(csv.DictReader(handle), start=2)


def read_rows(
    path: Path, row: type[Row_co], prepare: Callable[[Record], Record] | None = None
) -> list[Row_co]:
    """Return the rows of a file.

    Args:
        path: Of the file.
        row: Their class; a column with a unit in its name is turned into SI.
        prepare: Makes of a line as it is written one with the columns of the class; ‘folder’ is that of the
            file.

    Raises:
        BrokenTable: A column is missing, or a cell is not of its type.
    """
    found = []
    for line, record in records(path):
        values = _values(
            path, line, prepare(record | {"folder": path.parent.name}) if prepare else record, row
        )
        found.append(row(**values))
    return found


def table_of(name: str, rows: list[Row_co]) -> Table[Row_co]:
    """Return rows as a table.

    Raises:
        BrokenTable: Two rows have the same key.
    """
    by_key: dict[str, Row_co] = {}
    for row in rows:
        if row.key in by_key:
            raise BrokenTable(f"{name}.csv: key ‘{row.key}’ stands twice")
        by_key[row.key] = row
    return Table(name, by_key)


def _columns(row: type[Row]) -> dict[str, Any]:
    hints = get_type_hints(row)
    return {field.name: hints[field.name] for field in fields(row) if field.default is MISSING}


def _cell(text: str, kind: Any, scale: float) -> Any:
    if type(None) in get_args(kind):
        if not text:
            return None
        kind = next(arg for arg in get_args(kind) if arg is not type(None))
    if get_origin(kind) is Literal:
        if text not in get_args(kind):
            raise ValueError(f"one of {', '.join(get_args(kind))}")
        return text
    if get_origin(kind) is tuple:
        return tuple(_cell(part, get_args(kind)[0], scale) for part in text.split())
    if kind is bool:
        return {"yes": True, "no": False}[text]
    if kind is float:
        return float(text) * scale
    if kind is str and not text:
        raise ValueError("not empty")
    return kind(text)


def _values(path: Path, line: int, record: Record, row: type[Row]) -> dict[str, Any]:
    bare = {}
    for head in record:
        suffix = next((s for s in sorted(_SCALES, key=len, reverse=True) if head.endswith(s)), "")
        bare[head.removesuffix(suffix)] = (head, _SCALES.get(suffix, 1.0))
    values: dict[str, Any] = {}
    for name, kind in _columns(row).items():
        head, scale = bare.get(name) or bare.get(name.rstrip("_")) or (name, 1.0)
        if head not in record:
            raise BrokenTable(f"{path.name}: no column for ‘{name}’")
        try:
            values[name] = _cell(record[head], kind, scale)
        except (ValueError, KeyError, TypeError) as error:
            raise BrokenTable(
                f"{path.name} line {line}, column {head}: ‘{record[head]}’ ({error})"
            ) from error
    return values
