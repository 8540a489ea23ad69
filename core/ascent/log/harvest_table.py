"""What was picked by week and crop, as CSV and as a drawing."""

from __future__ import annotations

import csv
import datetime as dt
import io
from collections.abc import Iterable, Sequence

from .. import tables
from ..drawing.sheet import Ink, Layer, Line, Sheet, Words
from ..words.quantities import STYLES, System, to_si, write
from ..words.texts import template
from .seasons import PickedWeek

_INKS: tuple[Ink, ...] = (
    "leaf", "wood", "water", "metal", "pale", "cane", "bed", "ink", "soil", "path", "wall"
)  # fmt: skip
_WEEK, _GAP = 0.3, 0.05  # width of a week and of the room beside its bar [m on the sheet]
_HIGH, _ROW = 5.0, 0.55  # height of a year’s bars and of a line of its key [m on the sheet]
_LETTER = 0.24  # [m on the sheet]
_KEY = 2.6  # width that a crop has in the key [m on the sheet]
_TO_A_ROW = 4


def harvest_csv(weeks: Iterable[PickedWeek], system: System) -> str:
    """Return what was picked by week and crop as CSV, figures to six places in the reader’s units."""
    handle = io.StringIO()
    writer = csv.writer(handle)
    style = STYLES["mass"][system]
    writer.writerow(["week of", "crop", f"picked ({style.symbol})"])
    for week in weeks:
        mass = week.mass / to_si(style.unit)
        writer.writerow([week.monday.isoformat(), tables.crops()[week.crop].name, f"{mass:.6g}"])
    return handle.getvalue()


def harvest_sheet(weeks: Sequence[PickedWeek], name: str, system: System) -> Sheet:
    """Return what was picked by week as a drawing: a row of bars for each year, each crop in its ink.

    Args:
        weeks: Of a garden, the oldest first.
        name: The garden’s.
        system: The reader’s units.
    """
    crops = list(dict.fromkeys(week.crop for week in sorted(weeks, key=lambda week: week.crop)))
    years = sorted({week.monday.year for week in weeks}, reverse=True)
    tops: dict[dt.date, float] = {}
    for week in weeks:
        tops[week.monday] = tops.get(week.monday, 0.0) + week.mass
    most = max(tops.values(), default=1.0)
    layers = []
    for number, year in enumerate(years):
        foot = -number * (_HIGH + 1.2)
        layers.append(Layer(f"year-{year}", tuple(_year(weeks, crops, year, foot, most, system))))
    keys_at = -len(years) * (_HIGH + 1.2) + _HIGH - 0.4
    key: list[Line | Words] = []
    for number, crop in enumerate(crops):
        x, y = (number % _TO_A_ROW) * _KEY * 1.55, keys_at - (number // _TO_A_ROW) * _ROW
        key.append(_bar(x, x + 0.3, y, y + 0.3, _ink(crops, crop)))
        key.append(Words((x + 0.45, y + 0.03), tables.crops()[crop].called, "start"))
    layers.append(Layer("key", tuple(key)))
    rows = (len(crops) + _TO_A_ROW - 1) // _TO_A_ROW
    low, high = (-0.8, keys_at - rows * _ROW - 0.3), (53 * _WEEK + 0.8, _HIGH + 0.8)
    return Sheet(template("years.picked-by-week").format(name=name), low, high, _LETTER, tuple(layers))


def _ink(crops: Sequence[str], crop: str) -> Ink:
    return _INKS[crops.index(crop) % len(_INKS)]


def _bar(left: float, right: float, low: float, high: float, ink: Ink) -> Line:
    return Line(((left, low), (right, low), (right, high), (left, high)), 0.01, "ink", closed=True, fill=ink)


def _year(
    weeks: Sequence[PickedWeek], crops: Sequence[str], year: int, foot: float, most: float, system: System
) -> Iterable[Line | Words]:
    first = dt.date(year, 1, 1)
    total = sum(week.mass for week in weeks if week.monday.year == year)
    yield Line(((0.0, foot), (53 * _WEEK, foot)))
    said = template("years.picked-in").format(
        year=year, came=write(total, "mass", system), most=write(most, "mass", system)
    )
    yield Words((0.0, foot + _HIGH + 0.15), said, "start")
    yield Line(((0.0, foot + _HIGH), (53 * _WEEK, foot + _HIGH)), 0.005, "pale")
    for month in range(1, 13):
        x = (dt.date(year, month, 1) - first).days / 7 * _WEEK
        yield Line(((x, foot), (x, foot - 0.12)), 0.01)
        yield Words((x + 0.06, foot - 0.36), f"{dt.date(year, month, 1):%b}", "start")
    stacked: dict[dt.date, float] = {}
    for week in weeks:
        if week.monday.year != year:
            continue
        low = foot + stacked.get(week.monday, 0.0) / most * _HIGH
        stacked[week.monday] = stacked.get(week.monday, 0.0) + week.mass
        x = (week.monday - first).days / 7 * _WEEK
        high = foot + stacked[week.monday] / most * _HIGH
        yield _bar(x + _GAP, x + _WEEK - _GAP, low, high, _ink(crops, week.crop))
