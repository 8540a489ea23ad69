"""Reading and writing quantities as people write them; SI inside, people's units at the edges.

Factors come from the units library; the small grammar in front of it covers what such libraries
misread: feet and inches with fractions, wire gauges by named standard, Beaufort numbers.
"""

from __future__ import annotations

import csv
import math
import re
from dataclasses import dataclass
from fractions import Fraction
from functools import cache
from pathlib import Path
from typing import Literal

import pint

from ..errors import UnreadableQuantity

System = Literal["metric", "imperial"]
Kind = Literal[
    "length",
    "mass",
    "force",
    "speed",
    "wire",
    "moment",
    "pressure",
    "stress",
    "line_load",
    "ratio",
    "count",
    "angle",
    "area",
    "volume",
    "bearing",
    "cooling",
    "temperature",
]


@dataclass(frozen=True)
class Style:
    """How one kind is written in one system: unit, decimals, and the unit a bare number means."""

    unit: str
    symbol: str
    decimals: int


STYLES: dict[str, dict[System, Style]] = {
    "length": {"metric": Style("metre", "m", 2), "imperial": Style("inch", "in", 0)},
    "mass": {"metric": Style("kilogram", "kg", 1), "imperial": Style("pound", "lb", 1)},
    "force": {"metric": Style("newton", "N", 0), "imperial": Style("force_pound", "lbf", 0)},
    "speed": {"metric": Style("metre / second", "m/s", 0), "imperial": Style("mile / hour", "mph", 0)},
    "moment": {
        "metric": Style("newton * metre", "N·m", 0),
        "imperial": Style("force_pound * foot", "lbf·ft", 0),
    },
    "pressure": {
        "metric": Style("pascal", "Pa", 0),
        "imperial": Style("force_pound / foot ** 2", "lbf/ft²", 2),
    },
    "stress": {
        "metric": Style("megapascal", "MPa", 0),
        "imperial": Style("kilopound_force_per_square_inch", "ksi", 1),
    },
    "line_load": {
        "metric": Style("newton / metre", "N/m", 1),
        "imperial": Style("force_pound / foot", "lbf/ft", 2),
    },
    "wire": {"metric": Style("millimetre", "mm", 2), "imperial": Style("inch", "in", 3)},
    "rain": {"metric": Style("millimetre", "mm", 0), "imperial": Style("inch", "in", 1)},
    "cooling": {"metric": Style("kelvin", "°C", 0), "imperial": Style("delta_degree_Fahrenheit", "°F", 0)},
    "volume": {"metric": Style("litre", "L", 0), "imperial": Style("gallon", "gal", 1)},
    "area": {"metric": Style("metre ** 2", "m²", 1), "imperial": Style("foot ** 2", "ft²", 0)},
}

_UNIT_WORDS: dict[str, dict[str, str]] = {
    "length": {
        "m": "metre",
        "meter": "metre",
        "meters": "metre",
        "metre": "metre",
        "metres": "metre",
        "cm": "centimetre",
        "mm": "millimetre",
        "km": "kilometre",
        "yd": "yard",
        "yard": "yard",
        "yards": "yard",
        "in": "inch",
        "inch": "inch",
        "inches": "inch",
        '"': "inch",
        "″": "inch",
        "ft": "foot",
        "foot": "foot",
        "feet": "foot",
        "'": "foot",
        "′": "foot",
    },
    "mass": {
        "kg": "kilogram",
        "g": "gram",
        "t": "metric_ton",
        "lb": "pound",
        "lbs": "pound",
        "pound": "pound",
        "pounds": "pound",
        "oz": "ounce",
        "ounce": "ounce",
        "ounces": "ounce",
    },
    "line_load": {
        "n/m": "newton / metre",
        "kn/m": "kilonewton / metre",
        "kg/m": "kilogram_force / metre",
        "lbf/ft": "force_pound / foot",
    },
    "force": {"n": "newton", "kn": "kilonewton", "lbf": "force_pound", "kgf": "force_kilogram"},
    "speed": {
        "m/s": "metre / second",
        "mps": "metre / second",
        "km/h": "kilometre / hour",
        "kmh": "kilometre / hour",
        "kph": "kilometre / hour",
        "mph": "mile / hour",
        "kn": "knot",
        "kt": "knot",
        "kts": "knot",
        "knot": "knot",
        "knots": "knot",
        "ft/s": "foot / second",
    },
    "wire": {"mm": "millimetre", "in": "inch", "inch": "inch", '"': "inch"},
    "volume": {
        "l": "litre",
        "litre": "litre",
        "litres": "litre",
        "liter": "litre",
        "liters": "litre",
        "m³": "metre ** 3",
        "m3": "metre ** 3",
        "gal": "gallon",
        "gallon": "gallon",
        "gallons": "gallon",
    },
}
_EXAMPLES = {
    "length": "write a length such as 1.2 m, 45 cm, 18 in, 6' 4 1/2\" or 5 ft",
    "mass": "write a mass such as 3.5 kg, 800 g, 12 lb or 6 oz",
    "line_load": "write a load per length such as 100 N/m, 10 kg/m or 7 lbf/ft",
    "force": "write a force such as 300 N, 0.3 kN, 35 lbf or 20 kgf",
    "speed": "write a speed such as 15 m/s, 54 km/h, 34 mph, 30 knots or Beaufort 7",
    "volume": "write a volume such as 40 L, 0.04 m³ or 10 gal",
    "wire": "write a diameter such as 2.5 mm or 0.1 in, "
    "or a gauge with its standard: 12.5 W&M, 14 AWG, 12 SWG",
}

BEAUFORT_TOP = (0.2, 1.5, 3.3, 5.4, 7.9, 10.7, 13.8, 17.1, 20.7, 24.4, 28.4, 32.6)
BEAUFORT_NAMES = (
    "calm",
    "a light air",
    "a light breeze",
    "a gentle breeze",
    "a moderate breeze",
    "a fresh breeze",
    "a strong breeze",
    "a near gale",
    "a gale",
    "a severe gale",
    "a storm",
    "a violent storm",
    "a hurricane",
)
_POINTS = ("N", "NNE", "NE", "ENE", "E", "ESE", "SE", "SSE", "S", "SSW", "SW", "WSW", "W", "WNW", "NW", "NNW")
_BARE = {"count": "{:.0f}", "ratio": "{:.2f}", "bearing": "{:.0f}°", "angle": "{:.0f}°"}
_NUMBER = r"[+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+)(?:[eE][+-]?\d+)?"
_VULGAR = {
    "½": "1/2",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
}


@cache
def _registry() -> pint.UnitRegistry[float]:
    registry: pint.UnitRegistry[float] = pint.UnitRegistry()
    registry.define("kilopound_force_per_square_inch = 1000 * force_pound / inch ** 2")
    return registry


@cache
def _gauges() -> dict[tuple[str, float], float]:
    """Return the diameter of each gauge of the standards that have a table, m."""
    with (Path(__file__).parent.parent / "data" / "gauges.csv").open(newline="", encoding="utf-8") as handle:
        return {
            (row["standard"], float(row["number"])): float(row["d_mm"]) / 1000.0
            for row in csv.DictReader(handle)
        }


@cache
def to_si(unit: str) -> float:
    """Return how many SI units one `unit` is (an SI base or derived unit of the same dimension)."""
    registry = _registry()
    return float(registry.Quantity(1.0, unit).to_base_units().magnitude)


def read(
    text: str, kind: str, system: System = "metric", low: float | None = None, high: float | None = None
) -> float:
    """Return the SI value of what a person wrote.

    Args:
        text: What was written, in any unit of the kind.
        kind: Kind of quantity, one of the keys of `STYLES`, or "count" or "ratio".
        system: Decides what a bare number means.
        low: Least value allowed. [SI]
        high: Greatest value allowed. [SI]

    Raises:
        UnreadableQuantity: The text is not such a quantity, or lies outside the bounds.
    """
    cleaned = _clean(text)
    if kind == "bearing" and cleaned.upper() in _POINTS:
        value = 22.5 * _POINTS.index(cleaned.upper())
    elif kind in ("count", "ratio", "angle", "bearing"):
        value = _plain(
            cleaned.removesuffix("°").strip(),
            text,
            "write a plain number" if kind != "count" else "write a whole number",
        )
        if kind == "count" and not value.is_integer():
            raise UnreadableQuantity(text, "write a whole number")
    elif kind == "temperature":
        value = _degrees(cleaned, text, system)
    elif kind not in _UNIT_WORDS:
        value = _in_shown_unit(cleaned, text, kind, system)
    else:
        value = _read_with_unit(cleaned, text, kind, system, low, high)
    if not math.isfinite(value):
        raise UnreadableQuantity(text, _EXAMPLES.get(kind, "write a finite number"))
    if (low is not None and value < low - 1e-9) or (high is not None and value > high + 1e-9):
        raise UnreadableQuantity(text, f"{between(low, high, kind, system)} is allowed")
    return value


def known_unit(unit: str, kind: str) -> bool:
    """Return whether a word is a unit of a kind; of what has no unit of its own (a bearing, a price) any word
    says what it is.
    """
    return not takes_unit(kind) or unit.strip().lower() in _UNIT_WORDS[kind]


def takes_unit(kind: str) -> bool:
    """Return whether a number of a kind may be followed by a unit."""
    return kind in _UNIT_WORDS


def between(low: float | None, high: float | None, kind: str, system: System) -> str:
    """Return the allowed range in words. [SI]"""
    if low is None:
        return f"up to {write(high or 0.0, kind, system)}"
    if high is None:
        return f"{write(low, kind, system)} or more"
    return f"{write(low, kind, system)} to {write(high, kind, system)}"


def _clean(text: str) -> str:
    for glyph, plain in _VULGAR.items():
        text = text.replace(glyph, f" {plain}")
    return " ".join(
        text.replace("−", "-").replace("’", "'").replace("”", '"').replace("''", '"').split()
    ).lower()


def _plain(cleaned: str, text: str, allowed: str) -> float:
    if not re.fullmatch(_NUMBER, cleaned):
        raise UnreadableQuantity(text, allowed)
    return _number(cleaned, text)


def _number(written: str, text: str) -> float:
    """Return a number written with a decimal point or comma; where a comma may part thousands as well, it
    asks.
    """
    if re.fullmatch(r"[+-]?[1-9]\d{0,2},\d{3}", written):
        point, whole = written.replace(",", "."), written.replace(",", "")
        raise UnreadableQuantity(text, f"‘{written}’ can be {whole} or {point}: write the one that is meant")
    return float(written.replace(",", "."))


def _degrees(cleaned: str, text: str, system: System) -> float:
    """Return a temperature. [degC]"""
    match = re.fullmatch(rf"({_NUMBER}) ?(?:° ?)?([cf])?", cleaned)
    if not match:
        raise UnreadableQuantity(text, "write a temperature such as 12 °C or 54 °F")
    value, unit = _number(match[1], text), match[2] or ("c" if system == "metric" else "f")
    return value if unit == "c" else (value - 32.0) / 1.8


def _in_shown_unit(cleaned: str, text: str, kind: str, system: System) -> float:
    """Return a quantity that is written in no other unit than those it is shown in."""
    for style in (STYLES[kind][system], *STYLES[kind].values()):
        if cleaned.endswith(style.symbol.lower()):
            number = cleaned.removesuffix(style.symbol.lower()).strip()
            return _plain(number, text, "write a plain number") * to_si(style.unit)
    return _plain(cleaned, text, "write a plain number") * to_si(STYLES[kind][system].unit)


def _read_with_unit(
    cleaned: str, text: str, kind: str, system: System, low: float | None, high: float | None
) -> float:
    if kind == "speed" and (number := beaufort_number(text)) is not None:
        return beaufort_mean(number, text)
    if kind == "wire" and (gauge := _read_gauge(cleaned, text)) is not None:
        return gauge
    # a sign is one of the whole, whatever it is made up of: −3 ft 6 in is less than −3 ft
    sign, rest = (-1.0, cleaned[1:].lstrip()) if cleaned.startswith("-") else (1.0, cleaned)
    if not rest:
        raise UnreadableQuantity(text, _EXAMPLES[kind])
    total = 0.0
    while rest:
        amount, unit, rest = _take_term(rest, text, kind)
        if amount < 0:
            raise UnreadableQuantity(text, _EXAMPLES[kind])
        if unit is None:
            if total or rest:
                raise UnreadableQuantity(text, _EXAMPLES[kind])
            unit = _bare_unit(sign * amount, text, kind, system, low, high)
        total += amount * to_si(unit)
    return sign * total


def _bare_unit(
    amount: float, text: str, kind: str, system: System, low: float | None, high: float | None
) -> str:
    """Return the unit of a number that was written without one: of a length in feet and inches the one of
    both that is allowed; where both are, it asks.
    """
    usual = STYLES[kind][system].unit
    if kind != "length" or system == "metric" or not amount:
        return usual
    may = [
        unit
        for unit in ("foot", "inch")
        if (low is None or amount * to_si(unit) >= low - 1e-9)
        and (high is None or amount * to_si(unit) <= high + 1e-9)
    ]
    if len(may) == 2:
        asked = f"‘{text.strip()}’ can be {amount:g} ft or {amount:g} in: write the one that is meant"
        raise UnreadableQuantity(text, asked)
    return may[0] if may else usual


def _take_term(rest: str, text: str, kind: str) -> tuple[float, str | None, str]:
    fraction = re.match(rf"(?:({_NUMBER})[ -])?(\d+)/(\d+)(?=[^\d.,/]|$)", rest)
    if fraction:
        try:
            amount = _number(fraction[1] or "0", text) + float(Fraction(int(fraction[2]), int(fraction[3])))
        except (ValueError, OverflowError, ZeroDivisionError) as error:  # thousands of digits, or none
            raise UnreadableQuantity(text, _EXAMPLES[kind]) from error
        end = fraction.end()
    else:
        simple = re.match(_NUMBER, rest)
        if not simple:
            raise UnreadableQuantity(text, _EXAMPLES[kind])
        amount, end = _number(simple[0], text), simple.end()
    rest = rest[end:].lstrip(" ")
    word = re.match(r"m[³3](?!\w)|[a-z/&°]+|[\"'′″]", rest)
    if not word:
        return amount, None, rest
    unit = _UNIT_WORDS[kind].get(word[0])
    if unit is None:
        raise UnreadableQuantity(text, f"‘{word[0]}’ is not a unit of {kind}; {_EXAMPLES[kind]}")
    return amount, unit, rest[word.end() :].lstrip(" ,-")


def _read_gauge(cleaned: str, text: str) -> float | None:
    match = re.fullmatch(
        rf"(?:no\.? ?|#)?({_NUMBER}) ?(ga\.?|gauge)? ?(w&m|wm|awg|swg|steel)?(?: ?(?:ga|gauge))?", cleaned
    )
    if not match or (match[2] is None and match[3] is None):
        return None
    number = _number(match[1], text)
    standard = (match[3] or "").replace("wm", "w&m").replace("steel", "w&m")
    if not standard:
        raise UnreadableQuantity(
            text, "name the gauge's standard: W&M for steel fence wire, AWG for copper, SWG for British wire"
        )
    return gauge_diameter(number, standard, text)


def gauge_diameter(number: float, standard: str, text: str = "") -> float:
    """Return the diameter of a wire gauge.

    Args:
        number: Gauge number.
        standard: "w&m" (steel wire gauge), "awg" or "swg".
        text: What was written, for the error.

    Returns:
        Diameter. [m]

    Raises:
        UnreadableQuantity: No such gauge in that standard.
    """
    if standard == "awg" and 0 <= number <= 40:
        return float(0.127e-3 * 92.0 ** ((36.0 - number) / 39.0))
    known = {n: d for (name, n), d in _gauges().items() if name == standard}
    if number not in known:
        have = ", ".join(f"{n:g}" for n in known) or "0 to 40"
        raise UnreadableQuantity(
            text or f"{number:g} {standard}", f"{standard.upper()} gauges known here: {have}"
        )
    return known[number]


def beaufort_number(text: str) -> int | None:
    """Return the number of a text such as ‘Beaufort 7’, or None when it is no such text."""
    match = re.fullmatch(r"(?:beaufort|bft|force|b) ?(\d{1,3})", _clean(text))
    return int(match[1]) if match else None


def beaufort_mean(number: int, text: str = "") -> float:
    """Return the mean wind speed of a Beaufort number, m/s at 10 m (WMO: v = 0.836 B^1.5). [m/s]

    Raises:
        UnreadableQuantity: Not 0 to 12.
    """
    if not 0 <= number <= 12:
        raise UnreadableQuantity(text or f"Beaufort {number}", "Beaufort numbers run from 0 to 12")
    return float(0.836 * number**1.5)


def beaufort(mean: float) -> int:
    """Return the Beaufort number of a mean wind speed at 10 m [m/s] (WMO class bounds)."""
    return sum(mean > top for top in BEAUFORT_TOP)


def write(value: float, kind: str, system: System = "metric") -> str:
    """Return an SI value as people of that system write it, with its unit. [SI]"""
    if math.isinf(value):
        return "beyond measure"
    written = _written(value, kind, system)
    # what is shown as nothing has no sign
    return written if re.search("[1-9]", written) else written.removeprefix("−")


def _written(value: float, kind: str, system: System) -> str:
    if kind in _BARE:
        return _BARE[kind].format(value).replace("-", "−")
    if kind == "length":
        return _write_length(value, system)
    if kind == "temperature":
        shown = value if system == "metric" else value * 1.8 + 32.0
        return f"{shown:.0f} °{'C' if system == 'metric' else 'F'}".replace("-", "−")
    style = STYLES[kind][system]
    shown = value / to_si(style.unit)
    decimals = style.decimals
    if kind == "force" and system == "metric" and round(abs(shown)) >= 1000:
        return f"{shown / 1000:.2f} kN".replace("-", "−")
    if kind in ("force", "moment", "pressure") and 0.05 <= round(abs(shown), 1) < 10:
        decimals = max(decimals, 1)
    return f"{shown:.{decimals}f} {style.symbol}".replace("-", "−")


def _write_length(value: float, system: System) -> str:
    sign = "−" if value < 0 else ""
    metres = abs(value)
    if system == "metric":
        if 0.0005 < metres < 0.0995:
            return f"{sign}{metres * 1000:.0f} mm"
        return f"{sign}{metres:.2f} m"
    sixteenths = round(metres / to_si("inch") * (16 if metres < 0.05 else 4)) * (1 if metres < 0.05 else 4)
    feet, left = divmod(sixteenths, 192)
    inches, part = divmod(left, 16)
    fraction = Fraction(part, 16)
    text = " ".join(
        p for p in (str(inches) if inches or not part else "", f"{fraction}" if part else "") if p
    )
    if not feet:
        return f"{sign}{text} in"
    return f"{sign}{feet} ft" + (f" {text} in" if inches or part else "")


_SIZED = re.compile(
    r"(\d+(?:\.\d+)?) (mm|cm|m|kg)(?![\w/])|(\d+(?:\.\d+)?) × (\d+(?:\.\d+)?)(?! (?:mm|cm|m)\b)"
)
_NOMINAL = 0.02  # of a size: what a name in half feet may differ
_FINE = 0.06  # of a size: rounding to a sixteenth of an inch that loses more is written with decimals


@cache
def with_sizes(name: str, system: System, exact: bool = False) -> str:
    """Return an item's name with the sizes in it, which tables write in metric units, as people of a system
    write them.

    Names are nominal: a post of 2.1 m is sold as one of 7 ft; common practice, no source. `exact` keeps a
    measure what it is.
    """
    if system == "metric":
        return name

    def written(match: re.Match[str]) -> str:
        if match[3]:
            return " × ".join(_size(float(each) / 1000.0, exact) for each in (match[3], match[4]))
        amount = float(match[1])
        return (
            _rounded_mass(amount)
            if match[2] == "kg"
            else _size(amount * to_si(_UNIT_WORDS["length"][match[2]]), exact)
        )

    return _SIZED.sub(written, name)


def _rounded_mass(kilograms: float) -> str:
    """Return the mass in a name as people of pounds say it: two figures, as it was chosen in kilograms."""
    pounds = kilograms / to_si("pound")
    return f"{round(pounds, -1 if pounds >= 100 else 0):.0f} lb"


def _size(metres: float, exact: bool) -> str:
    inches = metres / to_si("inch")
    half_feet = round(inches / 6)
    if not exact and half_feet >= 2 and abs(half_feet * 6 - inches) <= _NOMINAL * inches:
        return write(half_feet * to_si("foot") / 2, "length", "imperial")
    sixteenths = round(inches * 16)
    if metres < 0.05 and abs(sixteenths / 16 - inches) > _FINE * inches:
        return f"{inches:.3f} in"
    return write(metres, "length", "imperial")
