"""Weather from outside: the answers of a weather service, and a garden's own daily record as CSV."""

from __future__ import annotations

import csv
import datetime as dt
import io
import math
import re
from collections import defaultdict
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Annotated, Any, Literal, TypeVar

import numpy as np
from pydantic import AfterValidator, Field, ValidationError

from ..errors import InvalidPlan, Problem
from ..plan.climate import MOST_RAIN, Normal, SeenWeek, Warmth
from ..plan.documents import parsed
from ..plan.fields import Degrees, Name, Typed
from ..words.quantities import to_si
from .plan import problems_of

MOST_DAYS, MOST_HOURS = 800, 400
MOST_RECORD = 60_000  # days of a record: more than a hundred and fifty years
_FEW_DAYS = 5  # of a week that are enough for it
_FEW_YEARS = 1
_ROW = 30  # letters of a line that are shown
_TRUE_GUST = 100.0
_FIRST_DAY, _LAST_DAY = dt.date(1700, 1, 1), dt.date(2200, 12, 31)  # of any weather that is told

Rain = Annotated[float, Field(ge=0.0, le=600.0)]
Gust = Annotated[float, Field(ge=0.0, le=_TRUE_GUST)]


def _in_zone(time: dt.datetime) -> dt.datetime:
    if not _FIRST_DAY <= time.date() <= _LAST_DAY:
        raise ValueError(f"a time from {_FIRST_DAY} to {_LAST_DAY} is allowed")
    return time if time.tzinfo else time.replace(tzinfo=dt.UTC)


class Day(Typed):
    """A day as a weather service tells it: least and greatest temperature at 1.5 to 2 m [degC], rain [mm],
    strongest 3-second gust at 10 m over open ground [m/s]. What was not measured is left out.
    """

    day: Annotated[dt.date, Field(ge=_FIRST_DAY, le=_LAST_DAY)]
    low: Degrees | None = None
    high: Degrees | None = None
    rain: Rain | None = None
    gust: Gust | None = None


class Hour(Typed):
    """An hour of a forecast, from its beginning: strongest gust [m/s], rain [mm]."""

    at: dt.datetime
    gust: Gust | None = None
    rain: Rain | None = None


class Observed(Typed):
    """What a weather service has seen: days in their order, gaps left out."""

    format: Literal["ascent-weather"]
    version: Literal[1]
    kind: Literal["observed"]
    station: Name
    days: Annotated[tuple[Day, ...], Field(max_length=MOST_DAYS)]


class WindForecast(Typed):
    """What a weather service expects, as it was issued: days in their order, and the first hours. A time
    without a zone is one of UTC.
    """

    format: Literal["ascent-weather"]
    version: Literal[1]
    kind: Literal["forecast"]
    station: Name
    issued: Annotated[dt.datetime, AfterValidator(_in_zone)]
    days: Annotated[tuple[Day, ...], Field(max_length=40)]
    hours: Annotated[tuple[Hour, ...], Field(max_length=MOST_HOURS)] = ()


AnswerT = TypeVar("AnswerT", Observed, WindForecast)


def read_observed(text: str | bytes) -> Observed:
    """Return the days a weather service has answered with.

    Raises:
        InvalidPlan: Every wrong field, with its path.
    """
    return _read(Observed, text)


def read_forecast(text: str | bytes) -> WindForecast:
    """Return the forecast a weather service has answered with.

    Raises:
        InvalidPlan: Every wrong field, with its path.
    """
    return _read(WindForecast, text)


def _read(kind: type[AnswerT], text: str | bytes) -> AnswerT:
    try:
        answer = kind.model_validate(parsed(text, "weather"))
    except ValidationError as error:
        raise InvalidPlan(problems_of(error)) from error
    _in_order([day.day for day in answer.days])
    return answer


def _in_order(days: Sequence[dt.date]) -> None:
    for before, after in pairwise(days):
        if after <= before:
            raise InvalidPlan([Problem("days", str(after), "one of each day, in their order, is allowed")])


def weeks_of(days: Sequence[Day]) -> tuple[SeenWeek, ...]:
    """Return whole weeks of days that were seen; one of which too little is known is left out."""
    weeks: dict[dt.date, list[Day]] = defaultdict(list)
    for day in days:
        weeks[day.day - dt.timedelta(days=day.day.weekday())].append(day)
    seen = []
    for monday in sorted(weeks):
        own = weeks[monday]
        lows = [day.low for day in own if day.low is not None]
        highs = [day.high for day in own if day.high is not None]
        rains = [day.rain for day in own if day.rain is not None]
        gusts = [day.gust for day in own if day.gust is not None]
        if min(len(lows), len(highs)) < _FEW_DAYS:
            continue
        seen.append(
            SeenWeek(
                monday=monday,
                low=round(float(np.mean(lows)), 1),
                high=round(float(np.mean(highs)), 1),
                rain=min(round(float(np.mean(rains)) * 7, 1), MOST_RAIN) if rains else 0.0,
                gust=max(gusts) if gusts else None,
            )
        )
    return tuple(seen)


_HEADS: dict[str, tuple[str, ...]] = {
    "day": ("day", "date"),
    "low": ("low", "min", "tmin", "temp_min", "minimum", "least"),
    "high": ("high", "max", "tmax", "temp_max", "maximum", "greatest"),
    "rain": ("rain", "precipitation", "prcp", "rainfall"),
    "gust": ("gust", "gusts"),
}
_UNITS: dict[str, tuple[str, ...]] = {
    "low": ("", "°c", "c", "°f", "f"),
    "high": ("", "°c", "c", "°f", "f"),
    "rain": ("", "mm", "in"),
    "gust": ("", "m/s", "km/h", "mph", "kn"),
}
_PARTS = re.compile(r"[-./]")
_SHORT_YEAR = 2  # digits of a year of this century
_SPEEDS = {"km/h": "kilometre / hour", "mph": "mile / hour", "kn": "knot"}


def read_days(text: str) -> tuple[Day, ...]:
    """Return the days of a garden's own record: CSV with a line of heads, ‘date, low °C, high °C, rain mm,
    gust m/s’; rain and gust may be missing, and cells empty. Dates may be
    written as 2024-05-31, 31.05.2024, 31/05/2024 or 5/31/2024, numbers with a comma.

    Raises:
        InvalidPlan: A head or a cell that cannot be read, with its line.
    """
    try:
        return _days_in(text)
    except csv.Error as error:
        raise InvalidPlan([Problem("record", str(error)[:_ROW], "a table as CSV is allowed")]) from error


def _days_in(text: str) -> tuple[Day, ...]:
    rows = csv.reader(io.StringIO(text.lstrip("\ufeff")), delimiter=_delimiter(text))
    columns = _columns(next(rows, []))
    days: dict[dt.date, Day] = {}
    lines = list(rows)
    at = columns["day"][0]
    order = _order([row[at] for row in lines if at < len(row) and row[at].strip()])
    for line, row in enumerate(lines, start=2):
        if not any(cell.strip() for cell in row):
            continue
        if len(days) >= MOST_RECORD:
            raise InvalidPlan(
                [Problem("record", f"more than {MOST_RECORD} days", f"{MOST_RECORD} are allowed")]
            )
        day = _day(line, row, columns, order)
        if day.day in days:
            raise InvalidPlan([Problem(f"line {line}.date", str(day.day), "each day once is allowed")])
        days[day.day] = day
    if not days:
        raise InvalidPlan([Problem("record", "no days", "a line for each day is allowed")])
    return tuple(days[day] for day in sorted(days))


def _delimiter(text: str) -> str:
    first = text.split("\n", 1)[0]
    return max(",;\t", key=first.count)


def _columns(heads: Sequence[str]) -> dict[str, tuple[int, str]]:
    columns: dict[str, tuple[int, str]] = {}
    for at, head in enumerate(heads):
        words = head.strip().lower().replace("(", " ").replace(")", " ").split()
        if not words:
            continue
        name = next((name for name, known in _HEADS.items() if words[0] in known), "")
        unit = words[1] if len(words) > 1 else ""
        if not name:
            continue
        if unit not in _UNITS.get(name, ("",)):
            allowed = ", ".join(each for each in _UNITS[name] if each) if name in _UNITS else "no unit"
            raise InvalidPlan([Problem(f"heads.{name}", head[:_ROW], f"{allowed} is allowed")])
        columns[name] = (at, unit)
    if missing := [name for name in ("day", "low", "high") if name not in columns]:
        given = ", ".join(heads)[:_ROW]
        raise InvalidPlan(
            [Problem("heads", given, f"date, low and high are allowed; no {missing[0]} is there")]
        )
    return columns


def _day(line: int, row: Sequence[str], columns: Mapping[str, tuple[int, str]], order: str) -> Day:
    cells: dict[str, Any] = {}
    for name, (at, unit) in columns.items():
        cell = row[at].strip() if at < len(row) else ""
        if name == "day":
            cells[name] = _date(line, cell, order)
        elif cell:
            cells[name] = _number(line, name, cell, unit)
    try:
        return Day.model_validate(cells)
    except ValidationError as error:
        raise InvalidPlan(problems_of(error, (f"line {line}",))) from error


def _date(line: int, cell: str, order: str) -> dt.date:
    """Return a date written in an order of year (y), month (m) and day (d)."""
    parts = _PARTS.split(cell.strip())[:3]
    if order == "ymd" and len(parts) >= 3:
        parts[2] = parts[2][:2]  # a time of the day may follow
    try:
        year, month, day = (parts[order.index(which)] for which in "ymd")
        return dt.date(int(year) + (2000 if len(year) <= _SHORT_YEAR else 0), int(month), int(day))
    except (ValueError, IndexError) as error:
        allowed = "a date such as 2024-05-31, 31.05.2024 or 5/31/2024 is allowed"
        raise InvalidPlan([Problem(f"line {line}.date", cell[:_ROW], allowed)]) from error


def _order(cells: Sequence[str]) -> str:
    """Return in which order dates are written: the year first, the day first, or, as in America, the month;
    where both could be, the one in which days follow one another.
    """
    parts = [_PARTS.split(cell.strip())[:3] for cell in cells[:MOST_HOURS]]
    if not parts or len(parts[0][0]) > _SHORT_YEAR:
        return "ymd"
    numbers = [[int(each[:4]) for each in cell if each[:4].isdigit()] for cell in parts]
    dates = [cell for cell in numbers if len(cell) == 3]
    if any(cell[0] > 12 for cell in dates) or any("." in cell for cell in cells[:1]):
        return "dmy"
    if any(cell[1] > 12 for cell in dates):
        return "mdy"
    steps = {
        order: sum(
            after[order.index("d")] - before[order.index("d")] == 1 for before, after in pairwise(dates)
        )
        for order in ("dmy", "mdy")
    }
    return max(steps, key=lambda order: steps[order])


def _number(line: int, name: str, cell: str, unit: str) -> float:
    try:
        value = float(cell.replace(",", "."))
    except ValueError as error:
        raise InvalidPlan([Problem(f"line {line}.{name}", cell[:_ROW], "a number is allowed")]) from error
    if not math.isfinite(value):
        raise InvalidPlan([Problem(f"line {line}.{name}", cell[:_ROW], "a finite number is allowed")])
    if unit in ("°f", "f"):
        return round((value - 32.0) / 1.8, 3)
    if unit == "in":
        return value * 25.4
    return value * to_si(_SPEEDS[unit]) if unit in _SPEEDS else value


def recorded(
    days: Sequence[Day], warmth: Warmth, north: bool
) -> tuple[Warmth, str | None, str | None, float | None]:
    """Return what a garden's own record says of it: its warmth; its median last and first frost, as month
    and day, and the standard deviation of their dates in days, where one winter in two has any. Frosts of
    fewer winters are kept as a chance. [d, °C and mm]

    Args:
        days: Of the record, in order.
        warmth: What was said of it before.
        north: Whether it lies north of the equator.

    Raises:
        InvalidPlan: It does not hold a whole year.

    Source: handbook-season-1
    """
    months: dict[int, list[Day]] = defaultdict(list)
    for day in days:
        if day.low is not None and day.high is not None:
            months[day.day.month].append(day)
    if missing := [month for month in range(1, 13) if len(months[month]) < 20 * _FEW_YEARS]:
        name = dt.date(2001, missing[0], 1).strftime("%B")
        raise InvalidPlan([Problem("record", f"few days of {name}", "a whole year at least is allowed")])
    normals = tuple(_normal(months[month]) for month in range(1, 13))
    departs = [
        (day.low or 0.0) - normals[day.day.month - 1].low for month in months.values() for day in month
    ]
    lasts, firsts = frosts_in(days, north)
    years = max(round(len(days) / 365.25), 1)
    changed = warmth.model_copy(
        update={
            "normals": normals,
            "spread": round(min(max(float(np.std(departs)), 0.5), 10.0), 2),
            "lasts": tuple(f"{day:%m-%d}" for day in map(_no_leap, lasts)),
            "firsts": tuple(f"{day:%m-%d}" for day in map(_no_leap, firsts)),
            "years": min(years, 150),
        }
    )
    if 2 * min(len(lasts), len(firsts)) < years:
        return changed, None, None, None
    last, last_sd = _middle(lasts)
    first, first_sd = _middle(firsts)
    spreads = [sd for sd in (last_sd, first_sd) if sd is not None]
    spread = round(min(max(sum(spreads) / len(spreads), 2.0), 40.0), 1) if spreads else None
    return changed, last, first, spread


def _normal(days: Sequence[Day]) -> Normal:
    rains = [day.rain for day in days if day.rain is not None]
    return Normal(
        low=round(float(np.mean([day.low for day in days])), 2),
        high=round(float(np.mean([day.high for day in days])), 2),
        rain=min(round(float(np.mean(rains)) * 30.4, 1), MOST_RAIN) if rains else 0.0,
    )


def _no_leap(day: dt.date) -> dt.date:
    return day - dt.timedelta(days=1) if (day.month, day.day) == (2, 29) else day


def frosts_in(days: Sequence[Day], north: bool) -> tuple[list[dt.date], list[dt.date]]:
    """Return the last frost before and the first after each midsummer of a record; none of a half-year that
    it does not hold. A winter whose frosts all came before or after its middle has both dates all the same.

    Args:
        days: In order.
        north: Whether midsummer is in July, else in January.
    """
    froze = [day.day for day in days if day.low is not None and day.low < 0.0]
    held = {day.day for day in days}
    lasts, firsts = [], []
    if not days:
        return [], []
    half = dt.timedelta(days=182)
    for year in range(days[0].day.year - 1, days[-1].day.year + 2):
        middle = dt.date(year, 1, 15) if north else dt.date(year, 7, 15)
        halves = [_held(held, middle - half, middle), _held(held, middle, middle + half)]
        before = [day for day in froze if middle - half <= day < middle]
        after = [day for day in froze if middle <= day < middle + half]
        if halves[1] and (after or (before and halves[0])):
            lasts.append(max(after or before))
        if halves[0] and (before or (after and halves[1])):
            firsts.append(min(before or after))
    return lasts, firsts


def _held(held: set[dt.date], start: dt.date, end: dt.date) -> bool:
    count = (end - start).days
    return sum((start + dt.timedelta(days=n)) in held for n in range(count)) >= 0.9 * count


def _middle(days: Sequence[dt.date]) -> tuple[str | None, float | None]:
    """Return the median and the standard deviation of days of the year, round the year's end."""
    if not days:
        return None, None
    numbers = np.array([day.timetuple().tm_yday for day in days], dtype=float)
    turn = numbers[0]
    about = (numbers - turn + 182.5) % 365.25 - 182.5
    middle = dt.date(2001, 1, 1) + dt.timedelta(days=round(float(np.median(about)) + turn - 1) % 365)
    return f"{middle:%m-%d}", float(np.std(about, ddof=1)) if len(days) > 1 else None
