"""Values in people's words and units: gusts, money, options."""

from __future__ import annotations

import datetime as dt
from typing import Any

import numpy as np

from . import tables
from .errors import UnreadableQuantity
from .plan.fields import GREATEST_GUST, Typed
from .site import Site
from .words.quantities import (
    BEAUFORT_NAMES,
    BEAUFORT_TOP,
    STYLES,
    System,
    beaufort,
    beaufort_mean,
    beaufort_number,
    between,
    read,
    to_si,
    with_sizes,
    write,
)
from .words.texts import template

MOST_TIMES = 20  # past which nobody asks how many times
_WHOLE_TIMES = 3
_EVERY, _NEVER = 1.5, 100  # seasons: more often than that is every one, more rarely is not told apart


def written(options: Typed, system: System) -> dict[str, str]:
    """Return every option's value in words."""
    fields = type(options).model_fields
    extras = {name: field.json_schema_extra for name, field in fields.items()}
    return {
        name: option_text(getattr(options, name), extra, system)
        for name, extra in extras.items()
        if isinstance(extra, dict)
    }


def day_text(month_day: str) -> str:
    """Return a day of the year as people say it: ‘4 May’."""
    date = dt.date(2001, *map(int, month_day.split("-")))
    return f"{date.day} {date:%B}"


_BEFORE = ("$", "£", "¥")


def money(amount: float, currency: str) -> str:
    """Return an amount in the garden's currency: the signs of a dollar, a pound and a yen stand before it,
    all else after; common practice, no source. [money]
    """
    sign, sum_of = "−" if amount < -0.004 else "", f"{abs(amount):.2f}"
    before = currency.endswith(_BEFORE)
    return f"{sign}{currency}{sum_of}" if before else f"{sign}{sum_of} {currency}"


def gust_text(speed: float, system: System) -> str:
    """Return a limit gust as a whole number with its unit; none in still air, ‘over’ past the grid. [m/s]"""
    if speed <= 0.0:
        return template("headline.no_wind")
    if speed > GREATEST_GUST:
        return f"over {write(GREATEST_GUST, 'speed', system)}"
    unit = to_si(STYLES["speed"][system].unit)
    return write(np.floor(speed / unit + 1e-9) * unit, "speed", system)


def against_text(limit: float, asked: float, system: System) -> tuple[str, str]:
    """Return a limit gust and the one that is asked, in tenths where whole numbers would say the opposite
    of what is so. [m/s]
    """
    unit, symbol = to_si(STYLES["speed"][system].unit), STYLES["speed"][system].symbol
    low, wanted = limit / unit + 1e-9, asked / unit
    if not 0.0 < limit <= GREATEST_GUST or (np.floor(low) >= round(wanted)) == (limit >= asked):
        return gust_text(limit, system), write(asked, "speed", system)
    tenths = np.floor(wanted * 10 + 1e-8) if limit >= asked else np.ceil(wanted * 10)
    return f"{np.floor(low * 10) / 10:.1f} {symbol}", f"{tenths / 10:.1f} {symbol}"


def times_text(margin: float) -> str:
    """Return how many times something is carried, never rounded up: whole numbers from three on, in tenths
    below. [-]
    """
    if margin > MOST_TIMES:
        return f"over {MOST_TIMES}"
    whole = np.floor(margin) if margin >= _WHOLE_TIMES else np.floor(max(margin, 0.0) * 10) / 10
    return f"{whole:g}"


def seasons_text(once_in: float) -> str:
    """Return once in how many seasons something goes, as people say it: no finer than what is known of it.
    [seasons]
    """
    if once_in < _EVERY:
        return "nearly every season"
    if once_in > _NEVER:
        return f"less than once in {_NEVER} seasons"
    return f"once in {once_in:.0f} seasons"


def return_period_range(weak: float, strong: float) -> str:
    """Return between which numbers of seasons that lies, from weak to strong of what it is made and stands
    in; nothing where both are alike. [seasons]
    """
    low, high = (
        str(round(n)) if n <= _NEVER else f"over {_NEVER}" for n in (max(weak, 1.0), max(strong, 1.0))
    )
    return "" if low == high else f"{low} to {high}"


def speed_text(speed: float, system: System) -> str:
    """Return a speed for a drawing, never rounded up: to a tenth below ten of its unit, else whole. [m/s]"""
    if speed > GREATEST_GUST:
        return gust_text(speed, system)
    style = STYLES["speed"][system]
    shown = speed / to_si(style.unit) + 1e-9
    return (
        f"{np.floor(shown * 10) / 10:.1f} {style.symbol}"
        if shown < 10
        else f"{np.floor(shown):.0f} {style.symbol}"
    )


def time_text(minutes: float) -> str:
    """Return a time as people say it: to five minutes, and from an hour on in hours and minutes. [min]"""
    rounded = max(round(minutes / 5) * 5, 5)
    hours, left = divmod(rounded, 60)
    return (
        f"{hours:.0f} h {left:.0f} min"
        if hours and left
        else f"{hours:.0f} h"
        if hours
        else f"{left:.0f} min"
    )


def forecast(site: Site, speed: float, system: System) -> str:
    """Return the forecast gust, at 10 m in the open, that a gust at the plant answers to. [m/s]"""
    if not 0.0 < speed <= GREATEST_GUST:
        return ""
    open_gust, over_mean = speed / site.forecast_ratio, tables.constant("gust_over_mean")
    if open_gust > over_mean * BEAUFORT_TOP[-1]:
        return "beyond a hurricane’s gusts"
    name = BEAUFORT_NAMES[beaufort(open_gust / over_mean)]
    return f"{write(open_gust, 'speed', system)}, {name}"


def read_gust(text: str, system: System, exposure: str, low: float, high: float) -> tuple[float, str]:
    """Return the gust at the plant that a person wrote, and what was assumed if it was a Beaufort number.

    A Beaufort number is a mean at 10 m in the open: its gust is half as strong again, and shelter takes its
    share.

    Args:
        text: What was written.
        system: Decides what a bare number means.
        exposure: Exposure of the place.
        low, high: What is allowed. [m/s]

    Raises:
        UnreadableQuantity: It is no speed, or outside what is allowed.

    Source: handbook-1.4
    """
    number = beaufort_number(text)
    if number is None:
        return read(text, "speed", system, low, high), ""
    forecast_gust = tables.constant("gust_over_mean") * beaufort_mean(number, text)
    gust = forecast_gust * tables.exposures()[exposure].forecast_ratio
    if not low <= gust <= high:
        raise UnreadableQuantity(
            text,
            f"{between(low, high, 'speed', system)} at the plant is allowed, "
            f"this is {write(gust, 'speed', system)}",
        )
    forecast, taken = write(forecast_gust, "speed", system), write(gust, "speed", system)
    said = f"Beaufort {number}: a forecast gust of {forecast}, taken as {taken} at the plant"
    return gust, said


def option_text(value: Any, extra: dict[str, Any], system: System) -> str:
    """Return an option's value in words."""
    if extra.get("kind") == "item":
        return with_sizes(tables.item(extra["table"], value).name, system)
    if isinstance(value, bool | str):
        return template(f"value.{str(value).lower()}")
    return write(float(value), extra.get("kind", "length"), system)
