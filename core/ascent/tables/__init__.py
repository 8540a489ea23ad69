"""The data tables: one CSV a table, one frozen row class each, every cell checked when read.

A new post, mesh, tie, soil or crop is a new row; nothing else changes. Columns carry their unit in
the name and are turned into SI here.
"""

from __future__ import annotations

import csv
import difflib
from collections.abc import Callable, Iterator, Mapping
from dataclasses import MISSING, fields
from functools import cache
from pathlib import Path
from typing import Any, Literal, TypeVar, get_args, get_origin, get_type_hints

import numpy as np

from ..errors import BrokenTable, UnknownItem
from ..mechanics import Array
from . import own
from .rows import (
    Anchor,
    Cage,
    Calendar,
    Climate,
    Constant,
    Cover,
    Crop,
    Divide,
    DragPoint,
    Exposure,
    FaceCap,
    FeatureKind,
    Fitting,
    FrostClass,
    Host,
    Item,
    Job,
    Joint,
    JointStroke,
    LogKind,
    Material,
    Measure,
    Mesh,
    MeshMaterial,
    Post,
    Rain,
    RemarkRow,
    Row,
    Scout,
    Section,
    Soil,
    Source,
    StepText,
    StormMove,
    Suit,
    Tie,
    Tool,
    Trait,
    Twine,
    Uncertainty,
    Water,
    Wire,
    Work,
)

DATA = Path(__file__).parent.parent / "data"
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

Row_co = TypeVar("Row_co", bound=Row, covariant=True)


class Table(Mapping[str, Row_co]):
    """Rows by key, in the order of the file; a key of something of one's own is known besides, see `own`."""

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
        """Return the row that a key of something of one's own stands for."""
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


def _load(name: str, row: type[Row_co]) -> Table[Row_co]:
    path = DATA / f"{name}.csv"
    rows: dict[str, Row_co] = {}
    with path.open(newline="", encoding="utf-8") as handle:
        for line, record in enumerate(csv.DictReader(handle), start=2):
            values = _values(path, line, record, row)
            if values["key"] in rows:
                raise BrokenTable(f"{path.name} line {line}: key ‘{values['key']}’ stands twice")
            rows[values["key"]] = row(**values)
    return Table(name, rows)


def _values(path: Path, line: int, record: dict[str, str], row: type[Row]) -> dict[str, Any]:
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


@cache
def sources() -> Table[Source]:
    path = DATA / "sources.csv"
    with path.open(newline="", encoding="utf-8") as handle:
        rows = {
            r["key"]: Source(r["key"], r["key"], "certain", r["title"], r["where"], r["checked"])
            for r in csv.DictReader(handle)
        }
    return Table("sources", rows)


@cache
def materials() -> Table[Material]:
    return _load("materials", Material)


@cache
def sections() -> Table[Section]:
    return _load("sections", Section)


@cache
def posts() -> Table[Post]:
    return _load("posts", Post)


@cache
def mesh_materials() -> Table[MeshMaterial]:
    return _load("mesh_materials", MeshMaterial)


@cache
def meshes() -> Table[Mesh]:
    return _load("meshes", Mesh)


@cache
def ties() -> Table[Tie]:
    return _load("ties", Tie)


@cache
def wires() -> Table[Wire]:
    return _load("wires", Wire)


@cache
def anchors() -> Table[Anchor]:
    return _load("anchors", Anchor)


@cache
def twines() -> Table[Twine]:
    return _load("twines", Twine)


@cache
def fittings() -> Table[Fitting]:
    return _load("fittings", Fitting)


@cache
def cages() -> Table[Cage]:
    return _load("cages", Cage)


@cache
def hosts() -> Table[Host]:
    return _load("hosts", Host)


@cache
def covers() -> Table[Cover]:
    return _load("covers", Cover)


@cache
def uncertainties() -> Table[Uncertainty]:
    return _load("uncertainties", Uncertainty)


@cache
def suits() -> Table[Suit]:
    path = DATA / "suits.csv"
    with path.open(newline="", encoding="utf-8") as handle:
        rows = {}
        for r in csv.DictReader(handle):
            key, source, _ = r.pop("key"), r.pop("source"), r.pop("certainty")
            rows[key] = Suit(key, source, "judgement", {family: int(score) for family, score in r.items()})
    return Table("suits", rows)


@cache
def arches() -> tuple[Array, Array, dict[str, Array]]:
    """Return the table of bent panels: holds (m,), openings (n,), and each figure over both, (m, n).

    All of a strip of unit length and stiffness; made by tools/arch_table.py.
    """
    with (DATA / "arches.csv").open(newline="", encoding="utf-8") as handle:
        rows = [
            {name: float(value) for name, value in r.items() if name not in ("source", "certainty")}
            for r in csv.DictReader(handle)
        ]
    holds, openings = sorted({r["hold"] for r in rows}), sorted({r["opening"] for r in rows})
    names = [name for name in rows[0] if name not in ("hold", "opening")]
    cells = {(r["hold"], r["opening"]): r for r in rows}
    grids = {name: np.array([[cells[h, o][name] for o in openings] for h in holds]) for name in names}
    return np.array(holds), np.array(openings), grids


@cache
def clamped_arches() -> tuple[Array, dict[str, Array]]:
    """Return the table of panels bent between upright ends: openings (n,), and each figure over them, (n,).

    All of a strip of unit length and stiffness; made by tools/arch_table.py.
    """
    with (DATA / "clamped_arches.csv").open(newline="", encoding="utf-8") as handle:
        rows = [
            {name: float(value) for name, value in r.items() if name not in ("source", "certainty")}
            for r in csv.DictReader(handle)
        ]
    return np.array([r["opening"] for r in rows]), {
        name: np.array([r[name] for r in rows]) for name in rows[0]
    }


@cache
def soils() -> Table[Soil]:
    return _load("soils", Soil)


@cache
def exposures() -> Table[Exposure]:
    return _load("exposures", Exposure)


@cache
def crops() -> Table[Crop]:
    return _load("crops", Crop)


@cache
def face_caps() -> Table[FaceCap]:
    return _load("face_caps", FaceCap)


@cache
def drag_points() -> tuple[DragPoint, ...]:
    path = DATA / "drag.csv"
    with path.open(newline="", encoding="utf-8") as handle:
        return tuple(
            DragPoint(r["solidity"], r["source"], "published", float(r["solidity"]), float(r["drag"]))
            for r in csv.DictReader(handle)
        )


@cache
def climates() -> Table[Climate]:
    path = DATA / "climates.csv"
    with path.open(newline="", encoding="utf-8") as handle:
        rows = {}
        for r in csv.DictReader(handle):
            months = tuple(
                float(r[m])
                for m in ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"]
            )
            rows[r["key"]] = Climate(r["key"], r["source"], "judgement", r["name"], months)
    return Table("climates", rows)


@cache
def waters() -> Table[Water]:
    return _load("waters", Water)


@cache
def rains() -> Table[Rain]:
    return _load("rains", Rain)


@cache
def frost_classes() -> Table[FrostClass]:
    return _load("frost_classes", FrostClass)


@cache
def calendars() -> Table[Calendar]:
    return _load("calendars", Calendar)


@cache
def jobs() -> Table[Job]:
    return _load("jobs", Job)


@cache
def log_kinds() -> Table[LogKind]:
    return _load("log_kinds", LogKind)


@cache
def storm_moves() -> Table[StormMove]:
    return _load("storm_moves", StormMove)


@cache
def measures() -> Table[Measure]:
    return _load("measures", Measure)


@cache
def scouts() -> Table[Scout]:
    return _load("scouts", Scout)


@cache
def features() -> Table[FeatureKind]:
    return _load("features", FeatureKind)


@cache
def work() -> Table[Work]:
    return _load("work", Work)


@cache
def joints() -> Table[Joint]:
    return _load("joints", Joint)


@cache
def joint_strokes() -> Table[JointStroke]:
    return _load("joint_strokes", JointStroke)


@cache
def steps() -> Table[StepText]:
    return _load("steps", StepText)


@cache
def traits() -> Table[Trait]:
    return _load("traits", Trait)


@cache
def tools() -> Table[Tool]:
    """Return the tools that not everybody has."""
    return _load("tools", Tool)


@cache
def remarks() -> Table[RemarkRow]:
    """Return what each remark that is not merely fine weighs in a comparison."""
    return _load("remarks", RemarkRow)


@cache
def divides() -> Table[Divide]:
    path = DATA / "divides.csv"
    with path.open(newline="", encoding="utf-8") as handle:
        rows = {
            r["key"]: Divide(
                r["key"],
                r["source"],
                "judgement",
                _cell(r["by"], get_type_hints(Divide)["by"], 1.0),
                tuple(r["families"].split()),
                r["option"],
                r["table"],
                tuple(r["one"].split()),
                tuple(r["other"].split()),
            )
            for r in csv.DictReader(handle)
        }
    return Table("divides", rows)


@cache
def _constants() -> Table[Constant]:
    return _load("factors", Constant)


@cache
def constant(key: str) -> float:
    """Return a factor or limit by key, in the SI unit its row names."""
    return _constants()[key].value


ITEM_TABLES: dict[str, Callable[[], Table[Item]]] = {
    "posts": posts,
    "meshes": meshes,
    "ties": ties,
    "wires": wires,
    "anchors": anchors,
    "twines": twines,
    "fittings": fittings,
    "cages": cages,
    "hosts": hosts,
    "covers": covers,
}


def item(table: str, key: str) -> Item:
    """Return an item by its table and key.

    Raises:
        UnknownItem: No such row.
    """
    return ITEM_TABLES[table]()[key]


def load_all() -> None:
    """Read every table and check every cited source.

    Raises:
        BrokenTable: A row, a cell or a source key is wrong.
    """
    known = sources()
    tables: list[Mapping[str, Row]] = [
        materials(),
        sections(),
        posts(),
        mesh_materials(),
        meshes(),
        ties(),
        wires(),
        anchors(),
        soils(),
        exposures(),
        crops(),
        face_caps(),
        climates(),
        waters(),
        rains(),
        frost_classes(),
        calendars(),
        jobs(),
        log_kinds(),
        scouts(),
        measures(),
        storm_moves(),
        features(),
        _constants(),
        work(),
        joints(),
        joint_strokes(),
        steps(),
        traits(),
        remarks(),
        tools(),
        divides(),
        twines(),
        fittings(),
        cages(),
        hosts(),
        covers(),
        suits(),
        uncertainties(),
    ]
    for table in tables:
        for row in table.values():
            if row.source not in known:
                raise BrokenTable(
                    f"{type(row).__name__} ‘{row.key}’ cites ‘{row.source}’, which is not in sources.csv"
                )
    for post in posts().values():
        if post.material not in materials():
            raise BrokenTable(f"posts.csv ‘{post.key}’: no material ‘{post.material}’")
    if missing := set(crops()) ^ set(suits()):
        raise BrokenTable(f"suits.csv and crops.csv differ: {', '.join(sorted(missing))}")
    for mesh in meshes().values():
        if mesh.material not in mesh_materials():
            raise BrokenTable(f"meshes.csv ‘{mesh.key}’: no material ‘{mesh.material}’")
