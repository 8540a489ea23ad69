"""The data tables: one CSV file a table, one frozen row class each, every cell checked when it is read.

A new post, mesh, tie, soil or crop is a new row; nothing else changes. Columns carry their unit in the name
and are turned into SI here. What belongs to one family of supports lies in its folder and is gathered.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import cache

import numpy as np

from ..errors import BrokenTable
from ..mechanics import Array
from . import registry, rows
from .reading import DATA, Record, Table
from .registry import FIGURES, figures, forget, table
from .rows import Constant, Item, Suit

__all__ = ["DATA", "ITEM_TABLES", "Table", "constant", "forget", "item", "load_all"]

_MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")


def _source(record: Record) -> Record:
    return record | {"source": record["key"], "certainty": "certain"}


def _by_month(record: Record) -> Record:
    return record | {"months": " ".join(record[month] for month in _MONTHS)}


def _of_family(record: Record) -> Record:
    return record | {"key": record["folder"].replace("_", "-")}


def _score(record: Record) -> Record:
    family = record["folder"].replace("_", "-")
    return record | {"key": f"{family} {record['crop']}", "family": family}


sources = table("sources", rows.Source, prepare=_source)
uncertainties = table("uncertainties", rows.Uncertainty)
_constants = table("factors", Constant)

materials = table("materials", rows.Material, median_source="sources")
sections = table("sections", rows.Section)
mesh_materials = table("mesh_materials", rows.MeshMaterial)
posts = table("posts", rows.Post, material="materials")
meshes = table("meshes", rows.Mesh, material="mesh_materials")
ties = table("ties", rows.Tie, joint="joints")
wires = table("wires", rows.Wire)
anchors = table("anchors", rows.Anchor)
twines = table("twines", rows.Twine)
fittings = table("fittings", rows.Fitting, joint="joints")
cages = table("cages", rows.Cage)
hosts = table("hosts", rows.Host, key="crops")
covers = table("covers", rows.Cover)

soils = table("soils", rows.Soil)
exposures = table("exposures", rows.Exposure)
climates = table("climates", rows.WindClimate, prepare=_by_month)
waters = table("waters", rows.Water)
rains = table("rains", rows.Rain)
monsoons = table("monsoons", rows.Monsoon, prepare=_by_month)
frost_classes = table("frost_classes", rows.FrostClass)
features = table("features", rows.FeatureKind)
drag_points = table("drag", rows.DragPoint, prepare=lambda record: record | {"key": record["solidity"]})

crops = table("crops", rows.Crop, cap_group="face_caps", key="calendars")
calendars = table("calendars", rows.CropCalendar, frost_class="frost_classes", key="crops")
face_caps = table("face_caps", rows.FaceCap)
measures = table("measures", rows.HarvestMeasure, crops="crops")
scouts = table("scouts", rows.Scout, crops="crops")
scores = table("suits", rows.Score, prepare=_score, of_families=True, family="traits", crop="crops")

joints = table("joints", rows.Joint)
joint_strokes = table("joint_strokes", rows.JointStroke, joint="joints")
steps = table("steps", rows.StepText, of_families=True, joint="joints")
work = table("work", rows.WorkRate)
tools = table("tools", rows.Tool)

jobs = table("jobs", rows.Job)
storm_moves = table("storm_moves", rows.StormMove)
log_kinds = table("log_kinds", rows.LogKind)

traits = table("traits", rows.Trait, prepare=_of_family, of_families=True)
remarks = table("remarks", rows.RemarkRow, of_families=True)
divides = table("divides", rows.Divide, families="traits")

FIGURES += ["arches", "clamped_arches", "gauges"]


@cache
def suits() -> Mapping[str, Suit]:
    """Return how well each family suits each crop."""
    found: dict[str, dict[str, int]] = {key: {} for key in crops()}
    for score in scores().values():
        found.setdefault(score.crop, {})[score.family] = score.score
    return {key: Suit(key, by_family) for key, by_family in found.items()}


@cache
def arches() -> tuple[Array, Array, dict[str, Array]]:
    """Return the table of bent panels: holds (m,), openings (n,), and each figure over both, (m, n).

    All of a strip of unit length and stiffness; made by tools/arch_table.py.
    """
    lines = figures("arches")
    holds, openings = sorted({r["hold"] for r in lines}), sorted({r["opening"] for r in lines})
    names = [name for name in lines[0] if name not in ("hold", "opening")]
    cells = {(r["hold"], r["opening"]): r for r in lines}
    grids = {name: np.array([[cells[h, o][name] for o in openings] for h in holds]) for name in names}
    return np.array(holds), np.array(openings), grids


@cache
def clamped_arches() -> tuple[Array, dict[str, Array]]:
    """Return the table of panels bent between upright ends: openings (n,), and each figure over them, (n,).

    All of a strip of unit length and stiffness; made by tools/arch_table.py.
    """
    lines = figures("clamped_arches")
    openings = np.array([r["opening"] for r in lines])
    return openings, {name: np.array([r[name] for r in lines]) for name in lines[0]}


@cache
def constant(key: str) -> float:
    """Return a factor or limit by key, in the SI unit its row names.

    Raises:
        UnknownItem: No such row.
    """
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
    """Read every table, and check every source, every key of another table, and that each family says how
    well it suits each crop.

    Raises:
        BrokenTable: A row, a cell, a source or a reference is wrong.
    """
    registry.load_all()
    for family in traits():
        known = {score.crop for score in scores().values() if score.family == family}
        if missing := set(crops()) ^ known:
            raise BrokenTable(f"suits.csv of {family} and crops.csv differ: {', '.join(sorted(missing))}")
