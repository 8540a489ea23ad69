"""Beds, plantings, prices and the shed as CSV, out and in, with the quirks of spreadsheets: semicolons,
decimal commas, units in cells.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import count
from typing import Any, Literal, get_args

from pydantic import ValidationError

from .. import tables
from ..errors import InvalidPlan, Problem, UnreadableQuantity
from ..plan.bed import Bed, BedKind
from ..plan.documents import MOST_PROBLEMS, first_of, short
from ..plan.fields import Named, day_of_year
from ..plan.garden import MOST_BEDS, Garden
from ..plan.shed import MOST_STOCK, Stock
from ..plan.structure import Planting, Structure
from ..words.quantities import System, known_unit, read, takes_unit, to_si, with_sizes, write
from .plan import problems_of

What = Literal["beds", "plantings", "materials", "shed"]
Table = What | Literal["log"]
MOST_ROWS = 5000
_MONEY = re.compile(r"^[^\d.,+\-−]+|[^\d.,]+$")  # the sign of a currency before or after a sum
_FORMULA = ("=", "+", "-", "@", "\t", "\r")


@dataclass(frozen=True)
class Column:
    """A column: its heading, the model's field, and what kind of quantity its cells are (‘text’ for
    words).
    """

    head: str
    field: str
    kind: str = "text"
    needed: bool = False


COLUMNS: dict[str, tuple[Column, ...]] = {
    "beds": (
        Column("key", "key"),
        Column("name", "name", needed=True),
        Column("kind", "kind"),
        Column("length", "length", "length", True),
        Column("width", "width", "length", True),
        Column("bearing", "bearing", "bearing"),
        Column("east", "x", "length"),
        Column("north", "y", "length"),
        Column("soil", "soil"),
        Column("top", "top"),
        Column("fill", "fill"),
        Column("filled to", "fill_depth", "length"),
        Column("board", "board", "length"),
        Column("exposure", "exposure"),
    ),
    "plantings": (
        Column("structure", "structure", needed=True),
        Column("crop", "crop", needed=True),
        Column("plants", "count", "count", True),
        Column("spacing", "spacing", "length", True),
        Column("side", "side"),
        Column("training", "training"),
        Column("raised", "raised"),
        Column("planted", "planted", needed=True),
        Column("along", "along", "length"),
        Column("key", "key"),
    ),
    "materials": (
        Column("item", "item"),
        Column("name", "name"),
        Column("table", "table"),
        Column("price", "price", "money"),
        Column("own", "own"),
    ),
    "shed": (
        Column("key", "key"),
        Column("name", "name", needed=True),
        Column("table", "table", needed=True),
        Column("like", "item", needed=True),
        Column("count", "count", "count"),
        Column("length", "length", "length"),
        Column("width", "width", "length"),
        Column("depth", "depth", "length"),
        Column("thickness", "thickness", "length"),
        Column("height", "height", "length"),
        Column("age", "age", "count"),
        Column("condition", "condition"),
        Column("strength", "strength", "ratio"),
        Column("sure", "sure"),
        Column("in use", "in_use"),
    ),
    "log": (
        Column("key", "key"),
        Column("date", "on", needed=True),
        Column("kind", "kind", needed=True),
        Column("place", "place"),
        Column("crop", "crop"),
        Column("weight", "mass", "mass"),
        Column("pieces", "count", "count"),
        Column("part", "member"),
        Column("moved", "moved", "length"),
        Column("height", "height", "length"),
        Column("pull", "pull", "force"),
        Column("water", "volume", "volume"),
        Column("minutes", "minutes", "ratio"),
        Column("gust", "gust", "speed"),
        Column("lowest", "low", "temperature"),
        Column("found", "found"),
        Column("days until picking", "waits", "count"),
        Column("cost", "cost", "money"),
        Column("name", "what"),
        Column("mends", "mends"),
        Column("note", "note"),
        Column("written by", "who"),
    ),
}

# headings of which a table must have one
_ONE_OF: dict[str, tuple[tuple[str, ...], ...]] = {"materials": (("item", "name"), ("price",))}


def write_table(garden: Garden, what: What, system: System) -> str:
    """Return a table of a garden as CSV, lengths in the reader's units with the unit in the cell."""
    handle = io.StringIO()
    writer = csv.writer(handle)
    columns = COLUMNS[what]
    writer.writerow([column.head for column in columns])
    for row in _ROWS[what](garden):
        writer.writerow([_cell(row.get(column.field), column.kind, system) for column in columns])
    return handle.getvalue()


def _cell(value: Any, kind: str, system: System) -> str:
    if value is None:
        return ""
    if kind in ("ratio", "money"):
        return f"{value:.2f}"
    if kind == "length":
        unit, foot = ("m", 1.0) if system == "metric" else ("ft", to_si("foot"))
        return f"{round(float(value) / foot, 5):.10g} {unit}"
    if kind != "text":
        return write(float(value), kind, system)
    return plain_cell(str(value))


def plain_cell(text: str) -> str:
    """Return a person's text so that no spreadsheet takes it for a formula."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def _beds(garden: Garden) -> Iterable[dict[str, Any]]:
    return (bed.model_dump(exclude={"structures"}) for bed in garden.beds)


def _plantings(garden: Garden) -> Iterable[dict[str, Any]]:
    return (
        {**planting.model_dump(), "structure": structure.key}
        for bed in garden.beds
        for structure in bed.structures
        for planting in structure.plantings
    )


def _materials(garden: Garden) -> Iterable[dict[str, Any]]:
    for name, table in tables.ITEM_TABLES.items():
        for key, row in table().items():
            own = key in garden.prices
            price = garden.prices.get(key, row.price_each)
            yield {"item": key, "name": row.name, "table": name, "price": price, "own": "yes" if own else ""}
            sized = [own_key for own_key in garden.prices if own_key.startswith(f"{key}@")]
            yield from (
                {"item": k, "name": row.name, "table": name, "price": garden.prices[k], "own": "yes"}
                for k in sized
            )


_ROWS: dict[str, Callable[[Garden], Iterable[dict[str, Any]]]] = {
    "beds": _beds,
    "plantings": _plantings,
    "materials": _materials,
    "shed": lambda garden: (stock.model_dump() for stock in garden.stock),
}


def read_table(garden: Garden, what: What, text: str, system: System, take_away: bool = False) -> Garden:
    """Return a garden with a table taken in: rows add things or change those of the same key.

    Args:
        garden: The garden as it is.
        what: Which table.
        text: The CSV: commas, semicolons or tabs; cells with or without units; decimal points or commas.
        system: What a bare number means.
        take_away: Also take away beds, or own prices, that the table does not have.

    Raises:
        InvalidPlan: Every wrong cell, with its row and column.
    """
    rows = read_rows(what, text, system)
    return _TAKE[what](garden, rows, take_away)


def read_rows(what: Table, text: str, system: System) -> list[tuple[int, dict[str, Any]]]:
    """Return the rows of a table with their numbers as the spreadsheet counts them."""
    text = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n")
    first = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    try:
        lines = list(csv.reader(io.StringIO(text), delimiter=delimiter))
    except csv.Error as error:
        raise InvalidPlan(
            [Problem(what, "a table that cannot be read", f"rows of cells are allowed ({error})")]
        ) from error
    if not lines or len(lines) > MOST_ROWS:
        raise InvalidPlan(
            [Problem(what, f"{len(lines)} rows", f"a row of headings and 1 to {MOST_ROWS} rows are allowed")]
        )
    columns, units = _headings(what, lines[0])
    numbered, problems = [], []
    for number, line in enumerate(lines[1:], start=2):
        if not any(cell.strip() for cell in line):
            continue
        row: dict[str, Any] = {}
        bad = set()
        for column, unit, cell in zip(columns, units, line, strict=False):
            if column is None or not cell.strip():
                continue
            try:
                row[column.field] = _value(cell.strip(), column.kind, unit, system)
            except UnreadableQuantity as error:
                problems.append(Problem(f"row {number}, {column.head}", short(cell)[1:-1], error.allowed))
                bad.add(column.field)
        missing = [c for c in COLUMNS[what] if c.needed and c.field not in row and c.field not in bad]
        problems += [
            Problem(f"row {number}, {column.head}", "nothing", "a value is needed") for column in missing
        ]
        numbered.append((number, row))
        if len(problems) > MOST_PROBLEMS:
            break
    if problems:
        raise InvalidPlan(first_of(problems))
    return numbered


def _headings(what: Table, line: list[str]) -> tuple[list[Column | None], list[str]]:
    known = {re.sub(r"[^a-z]", "", column.head): column for column in COLUMNS[what]}
    columns, units = [], []
    for cell in line:
        match = re.match(r"\s*([^([]*)(?:[([]\s*([^)\]]*)[)\]])?", cell.lower())
        name, unit = (match[1], (match[2] or "").strip()) if match else ("", "")
        column = known.get(re.sub(r"[^a-z]", "", name))
        columns.append(column)
        units.append(unit)
        if column and unit and not known_unit(unit, column.kind):
            raise InvalidPlan(
                [
                    Problem(
                        f"{what}, headings",
                        short(cell)[1:-1],
                        f"‘{unit}’ is not a unit of {column.kind}; m, cm, mm, ft or in are",
                    )
                ]
            )
    missing = [column.head for column in COLUMNS[what] if column.needed and column not in columns]
    missing += [
        " or ".join(some)
        for some in _ONE_OF.get(what, ())
        if not any(column and column.head in some for column in columns)
    ]
    if missing:
        have = ", ".join(column.head for column in COLUMNS[what])
        raise InvalidPlan(
            [
                Problem(
                    f"{what}, headings",
                    ", ".join(line)[:60],
                    f"{', '.join(missing)} must be there; columns are {have}",
                )
            ]
        )
    return columns, units


def _value(cell: str, kind: str, unit: str, system: System) -> Any:
    if kind == "text":
        return cell[1:] if cell[:1] == "'" and cell[1:2] in _FORMULA else cell
    if kind == "money":
        return read(_MONEY.sub("", cell), "ratio", system)
    if kind == "count":
        whole = re.fullmatch(r"(\d+)(?:\.0+|,00?)", cell)
        return int(read(whole[1] if whole else cell, "count", system))
    if unit and takes_unit(kind) and re.fullmatch(r"[-+−\d.,/ ]+", cell):
        cell = f"{cell} {unit}"
    value = read(cell, kind, system)
    return round(value, 4) if kind == "length" else value


def _key_of_name(name: str, taken: set[str]) -> str:
    stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:50] or "bed"
    key, number = stem, 1
    while key in taken:
        number += 1
        key = f"{stem}-{number}"
    return key


def _take_beds(garden: Garden, rows: list[tuple[int, dict[str, Any]]], take_away: bool) -> Garden:
    other = {s.key for bed in garden.beds for s in bed.structures}
    other |= {thing.key for thing in (*garden.features, *garden.stock)}
    beds = _Keyed("beds", Bed, MOST_BEDS, {bed.key: bed for bed in garden.beds}, other, _BED_ROWS)
    return garden.model_copy(update={"beds": beds.taken(rows, take_away)})


def _take_shed(garden: Garden, rows: list[tuple[int, dict[str, Any]]], take_away: bool) -> Garden:
    other = {thing.key for thing in (*garden.beds, *garden.features)}
    other |= {s.key for bed in garden.beds for s in bed.structures}
    stock = _Keyed("shed", Stock, MOST_STOCK, {each.key: each for each in garden.stock}, other, _SHED_ROWS)
    return garden.model_copy(update={"stock": stock.taken(rows, take_away)})


_BED_ROWS = ("soil", "fill", "exposure", "kind")
_SHED_ROWS = ("condition", "sure", "table")


@dataclass(frozen=True)
class _Keyed:
    """Things of one kind that a table's rows add to or change.

    kind: What they are. most: How many there may be. known: Those that are there, by key. other: Keys of all
    else. named: Fields that people write by name as well as by key.
    """

    what: What
    kind: type[Named]
    most: int
    known: Mapping[str, Named]
    other: set[str]
    named: Sequence[str]

    def taken(self, rows: list[tuple[int, dict[str, Any]]], take_away: bool) -> tuple[Named, ...]:
        """Return the things with the rows taken in.

        Raises:
            InvalidPlan: Every wrong cell, or too many rows.
        """
        if len(rows) > self.most:
            allowed = f"{self.most} in one garden are allowed"
            raise InvalidPlan([Problem(self.what, f"{len(rows)} rows", allowed)])
        things, seen, problems = dict(self.known), set[str](), list[Problem]()
        for number, row in rows:
            key = str(
                row.get("key")
                or next((t.key for t in self.known.values() if t.name == row["name"]), "")
                or _key_of_name(row["name"], {*things, *seen, *self.other})
            )
            if key in seen or key in self.other:
                problems.append(Problem(f"row {number}, key", key, "a key that nothing else has is allowed"))
                continue
            seen.add(key)
            named = {name: _row_key(name, row[name]) for name in self.named if name in row}
            old = things[key].model_dump() if key in things else {}
            try:
                things[key] = self.kind.model_validate({**old, **row, **named, "key": key})
            except ValidationError as error:
                problems += _of_row(error, number, self.what)
        if problems:
            raise InvalidPlan(first_of(problems))
        return tuple(thing for key, thing in things.items() if key in seen or not take_away)


def _row_key(name: str, text: str) -> str:
    """Return the key of a row that was written by key or by name."""
    if name == "kind":
        word = text.strip().lower().replace(" ", "-")
        return next((kind for kind in get_args(BedKind) if word in (kind, f"{kind}s")), text)
    if name in _SHED_ROWS:
        return text.strip().lower()
    word = text.strip().lower()
    if name in ("soil", "fill"):
        soils = tables.soils().values()
        return next((soil.key for soil in soils if word in (soil.key, soil.name, soil.also)), text)
    exposures = tables.exposures().values()
    return next((each.key for each in exposures if word in (each.key, each.name.lower())), text)


def _of_row(error: ValidationError, number: int, what: What) -> list[Problem]:
    heads = {column.field: column.head for column in COLUMNS[what]}
    return [
        Problem(f"row {number}, {heads.get(p.path, p.path)}", p.given, p.allowed, p.suggestion)
        for p in problems_of(error)
    ]


def _take_plantings(garden: Garden, rows: list[tuple[int, dict[str, Any]]], take_away: bool) -> Garden:  # noqa: ARG001 - a structure always keeps a planting
    structures = {s.key: s for bed in garden.beds for s in bed.structures}
    names = {s.name.lower(): s.key for s in structures.values()}
    planted: dict[str, list[Planting]] = {}
    problems: list[Problem] = []
    for number, row in rows:
        key = row["structure"] if row["structure"] in structures else names.get(row["structure"].lower(), "")
        if not key:
            problems.append(
                Problem(
                    f"row {number}, structure",
                    row["structure"],
                    "the key or name of a structure of this garden is allowed",
                )
            )
            continue
        crop = next(
            (k for k, c in tables.crops().items() if row["crop"].lower() in (k, c.name.lower())), row["crop"]
        )
        before = planted.setdefault(key, [])
        own = row.get("key") or _planting_key(structures[key], before, crop)
        if own in {planting.key for planting in before}:
            problems.append(
                Problem(
                    f"row {number}, key", own, "a key of its own for each planting of a structure is allowed"
                )
            )
        planting = {**row, "key": own, "crop": crop, "planted": _date(row["planted"])}
        del planting["structure"]
        try:
            before.append(Planting.model_validate(planting))
        except ValidationError as error:
            problems += _of_row(error, number, "plantings")
    for key, entries in planted.items():
        if len(entries) > 4:
            problems.append(
                Problem(f"plantings of {key}", str(len(entries)), "4 plantings on one structure are allowed")
            )
    if problems:
        raise InvalidPlan(first_of(problems))
    beds = [
        bed.model_copy(
            update={
                "structures": tuple(
                    s.model_copy(update={"plantings": tuple(planted[s.key])}) if s.key in planted else s
                    for s in bed.structures
                )
            }
        )
        for bed in garden.beds
    ]
    return garden.model_copy(update={"beds": tuple(beds)})


def _planting_key(structure: Structure, before: Sequence[Planting], crop: str) -> str:
    """Return the key of a planting written without one: that of the same crop which stands there already,
    else a free one.
    """
    taken = {planting.key for planting in before}
    same = (
        planting.key
        for planting in structure.plantings
        if planting.crop == crop and planting.key not in taken
    )
    known = taken | {planting.key for planting in structure.plantings}
    return next(same, None) or next(key for key in (f"p{n}" for n in count(1)) if key not in known)


def _date(text: str) -> str:
    """Return a month-day of ‘05-04’, ‘2026-05-04’ or ‘4.5.’; anything else as it was written, to be refused
    with its reason.
    """
    if parts := re.fullmatch(r"(?:\d{4}-)?(\d\d)-(\d\d)", text):
        return f"{parts[1]}-{parts[2]}"
    if parts := re.fullmatch(r"(\d{1,2})\.\s?(\d{1,2})\.?(?:\s?\d{4})?", text):
        date = f"{int(parts[2]):02d}-{int(parts[1]):02d}"
        try:
            day_of_year(date)
        except ValueError:
            return text
        return date
    return text


def _take_materials(garden: Garden, rows: list[tuple[int, dict[str, Any]]], take_away: bool) -> Garden:
    prices: dict[str, float] = {} if take_away else dict(garden.prices)
    usual = {row["item"]: row["price"] for row in _materials(garden.model_copy(update={"prices": {}}))}
    problems: list[Problem] = []
    for number, row in rows:
        if "price" not in row:
            continue
        item, price = _priced_item(row), float(row["price"])
        if item is None:
            head = "item" if "item" in row else "name"
            allowed = "the key or the name of a material, as in the table that is exported, is allowed"
            problems.append(Problem(f"row {number}, {head}", str(row.get(head, "nothing")), allowed))
        elif not 0.0 <= price <= 1e6:
            problems.append(Problem(f"row {number}, price", f"{price:g}", "0 to 1000000 is allowed"))
        elif str(row.get("own", "")).lower() in ("yes", "true", "1", "x") or _differs(price, usual.get(item)):
            prices[item] = price
    if problems:
        raise InvalidPlan(first_of(problems))
    return garden.model_copy(update={"prices": prices})


def _priced_item(row: Mapping[str, Any]) -> str | None:
    """Return the key of what a row prices, by its key or its name and where two share that by its table; none
    where no table has it.
    """
    asked = str(row.get("item") or row.get("name") or "").strip()
    if asked.split("@")[0] in {key for table in tables.ITEM_TABLES.values() for key in table()}:
        return asked
    only = str(row.get("table", "")).strip().lower()
    return next(
        (
            key
            for name, table in tables.ITEM_TABLES.items()
            for key, item in table().items()
            if only in ("", name)
            and asked.lower() in {with_sizes(item.name, system).lower() for system in get_args(System)}
        ),
        None,
    )


def _differs(price: float, usual: float | None) -> bool:
    """Return whether a price is not the usual one, which is written to the hundredth."""
    return usual is None or abs(price - round(usual, 2)) > 0.001


_TAKE: dict[str, Callable[[Garden, list[tuple[int, dict[str, Any]]], bool], Garden]] = {
    "beds": _take_beds,
    "plantings": _take_plantings,
    "materials": _take_materials,
    "shed": _take_shed,
}
