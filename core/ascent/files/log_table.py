"""The log as CSV, out and in: one row an entry, figures with their units."""

from __future__ import annotations

import csv
import datetime as dt
import hashlib
import io
from collections.abc import Iterable
from typing import Any

from pydantic import ValidationError

from .. import tables
from ..errors import InvalidPlan, Problem
from ..plan.documents import first_of
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..words.quantities import STYLES, System, to_si
from .csv_tables import COLUMNS, plain_cell, read_rows
from .plan import problems_of


def write_log(log: Iterable[Entry], garden: Garden, system: System) -> str:
    """Return entries as CSV; places by their names, figures to six places in the reader’s units."""
    handle = io.StringIO()
    writer = csv.writer(handle)
    writer.writerow([column.head for column in COLUMNS["log"]])
    names = {key: name for name, (kind, key) in _places(garden).items() if kind}
    for entry in log:
        row = entry.model_dump()
        key = entry.structure or entry.bed
        row["place"] = names.get(key, key) if key else None
        writer.writerow([_cell(row[column.field], column.kind, system) for column in COLUMNS["log"]])
    return handle.getvalue()


def _places(garden: Garden) -> dict[str, tuple[str, str]]:
    """Return supports and beds by name: which field of an entry holds them, and their keys; a name that two
    have is the first one’s.
    """
    found: dict[str, tuple[str, str]] = {}
    for bed in garden.beds:
        for structure in bed.structures:
            found.setdefault(structure.name, ("structure", structure.key))
    for bed in garden.beds:
        found.setdefault(bed.name, ("bed", bed.key))
    return found


def _cell(value: Any, kind: str, system: System) -> str:
    if value is None:
        return ""
    if kind == "temperature":
        return f"{value:.6g} °C" if system == "metric" else f"{value * 1.8 + 32:.6g} °F"
    if kind in STYLES:
        style = STYLES[kind][system]
        return f"{float(value) / to_si(style.unit):.6g} {style.symbol}"
    return f"{value:g}" if isinstance(value, float) else plain_cell(str(value))


def read_log(text: str, garden: Garden, system: System, at: dt.datetime) -> list[Entry]:
    """Return the entries of a table.

    A row without a key gets one of what it says, so that the same table taken in twice adds nothing.

    Args:
        text: The CSV, in any of the habits that other tables are read in.
        garden: Decides which support or bed a place is.
        system: What a bare number means.
        at: When it is taken in.

    Raises:
        InvalidPlan: Every wrong cell, with its row and column.
    """
    places = _places(garden)
    by_key = {key: (kind, key) for kind, key in places.values()}
    found, problems = [], []
    for number, cells in read_rows("log", text, system):
        where = f"row {number}"
        row = dict(cells)
        place = row.pop("place", None)
        if place is not None:
            known = places.get(place) or by_key.get(place)
            if known is None:
                allowed = "the name of a support or bed of this garden is allowed"
                problems.append(Problem(f"{where}, place", place, allowed))
                continue
            row[known[0]] = known[1]
        row["kind"] = _kind_of(str(row["kind"]))
        if "crop" in row:
            row["crop"] = _crop_of(str(row["crop"]))
        said = repr(sorted(cells.items())).encode()
        row.setdefault("key", f"row-{hashlib.sha256(said).hexdigest()[:32]}")
        try:
            found.append(Entry.model_validate({"at": at, **row}))
        except ValidationError as error:
            problems += problems_of(error, (where,))
    if problems:
        raise InvalidPlan(first_of(problems))
    return found


def _kind_of(said: str) -> str:
    """Return the key of a kind that is named by its key or its name."""
    rows = tables.log_kinds().values()
    return next((row.key for row in rows if said.lower() in (row.key, row.name.lower())), said)


def _crop_of(said: str) -> str:
    """Return the key of a crop that is named by its key or either of its names."""
    rows = tables.crops().values()
    return next((r.key for r in rows if said.lower() in (r.key, r.name.lower(), r.called.lower())), said)
