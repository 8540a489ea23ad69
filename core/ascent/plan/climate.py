"""How warm and wet a garden is, and what was seen of its season."""

from __future__ import annotations

import datetime as dt
from typing import Annotated

from pydantic import Field, model_validator

from .fields import Degrees, MonthDay, Typed, _key_of, counted_first

MOST_SEEN = 120  # weeks
MOST_RAIN = 3000.0  # in a month or a week [mm]


class Normal(Typed):
    """A month of a garden's own record: mean least and greatest temperature of its days [degC], rain [mm]."""

    low: Degrees
    high: Degrees
    rain: float = Field(0.0, ge=0.0, le=MOST_RAIN)


class SeenWeek(Typed):
    """A week that was, from its Monday: mean least and greatest temperature [degC], rain [mm], strongest gust
    [m/s].
    """

    monday: dt.date
    low: Degrees
    high: Degrees
    rain: float = Field(0.0, ge=0.0, le=MOST_RAIN)
    gust: float | None = Field(None, ge=0.0, le=100.0)


class Warmth(Typed):
    """How warm a garden is: by where it lies, or by its own record; and what was seen of its season so far.

    height: above the sea. [m] coldest, warmest: means of its coldest and its warmest month, where they are
    known. rain_mm: in a year. spread: standard deviation of a day's temperatures about
    their means, where it is known. [K] normals: of twelve months, from its own record. lasts, firsts: last
    and first frost of each year of that record. years: of it.
    """

    height: float = Field(20.0, ge=-100.0, le=4500.0)
    water: Annotated[str, _key_of("waters")] = "near"
    rain: Annotated[str, _key_of("rains")] = "even"
    rain_mm: float = Field(700.0, ge=0.0, le=8000.0)
    coldest: Normal | None = None
    warmest: Normal | None = None
    spread: float | None = Field(None, ge=0.5, le=10.0)
    normals: Annotated[tuple[Normal, ...], counted_first(12)] = ()
    lasts: Annotated[tuple[MonthDay, ...], counted_first(150)] = ()
    firsts: Annotated[tuple[MonthDay, ...], counted_first(150)] = ()
    years: int = Field(0, ge=0, le=150)
    seen: Annotated[tuple[SeenWeek, ...], counted_first(MOST_SEEN)] = ()

    @model_validator(mode="after")
    def _of_two(self) -> Warmth:
        if (self.coldest is None) != (self.warmest is None):
            raise ValueError("warmest: a month where coldest has one, none where it has none, is allowed")
        if (
            self.coldest
            and self.warmest
            and self.coldest.low + self.coldest.high > (self.warmest.low + self.warmest.high)
        ):
            raise ValueError("warmest: a month that is not colder than the coldest is allowed")
        return self

    @model_validator(mode="after")
    def _of_twelve(self) -> Warmth:
        if self.normals and len(self.normals) != 12:
            raise ValueError(f"normals: twelve months are allowed, not {len(self.normals)}")
        mondays = [week.monday for week in self.seen]
        if any(day.weekday() for day in mondays):
            raise ValueError("seen: weeks from a Monday are allowed")
        if mondays != sorted(set(mondays)):
            raise ValueError("seen: one of each week, in their order, is allowed")
        return self
