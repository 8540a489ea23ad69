"""A place: frost dates, wind, units, days and currency, and what its log taught."""

from __future__ import annotations

import datetime as dt
import math
import zoneinfo
from typing import Annotated, Literal

from pydantic import AfterValidator, Field, ValidationInfo, field_validator

from ..words.quantities import System
from .climate import Warmth
from .fields import (
    ClimateKey,
    Currency,
    ExposureKey,
    MonthDay,
    Name,
    PlantGust,
    SeasonYear,
    Typed,
    counted_first,
    written,
)

MOST_TAUGHT = 200
LEAST_TAUGHT, MOST_TAUGHT_TIMES, WIDEST_TAUGHT = 0.1, 10.0, 2.0  # times, times, spread of its logarithm
_QUARTILE = 0.6745  # standard deviations
NO_CURRENCY = "¤"  # of a garden that never named its money
Weekday = Annotated[int, Field(ge=0, le=6)]


def _some_day(days: tuple[int, ...]) -> tuple[int, ...]:
    if not days:
        raise ValueError("one day of the week or more, Monday 0 to Sunday 6, is allowed")
    return days


VisitDays = Annotated[tuple[Weekday, ...], AfterValidator(_some_day), counted_first(7)]
Careful = Literal["cautious", "usual", "bold"]


def _zone(name: str) -> str:
    try:
        zoneinfo.ZoneInfo(name)
    except (ValueError, OSError, zoneinfo.ZoneInfoNotFoundError) as error:
        raise ValueError("a time zone such as Europe/Lisbon or UTC is allowed") from error
    return name


TaughtKey = Annotated[str, Field(pattern=r"^[a-z]+$", max_length=24)]


class Taught(Typed):
    """What the log taught of something that is not well known, and somebody accepted.

    key: a row of uncertainties.csv, ‘site’ for how gusty the place is, ‘yield’ of a crop, ‘minutes’ of work.
    about: the crop, or of the ground ‘bed/’ or ‘soil/’ and its key; empty for the whole garden. factor: so
    many times what the tables say. spread: standard deviation of its logarithm. says: on what evidence.
    """

    key: TaughtKey
    about: Annotated[str, Field(max_length=80)] = ""
    factor: float = Field(ge=LEAST_TAUGHT, le=MOST_TAUGHT_TIMES)
    spread: float = Field(ge=0.0, le=WIDEST_TAUGHT)
    on: dt.date
    says: Annotated[str, Field(max_length=300), AfterValidator(written)] = ""

    @property
    def careful_strength(self) -> float:
        """Return the factor on a strength one designs to: where it proved stronger, its lower quartile."""
        return min(self.factor, max(1.0, self.factor * math.exp(-_QUARTILE * self.spread)))

    @property
    def careful_load(self) -> float:
        """Return the factor on a load: where it proved lighter, its upper quartile."""
        return max(self.factor, min(1.0, self.factor * math.exp(_QUARTILE * self.spread)))


Heeded = Literal["break", "harvest", "treatment"]


class Place(Typed):
    """A place: frost dates, warmth, wind, people's units, days and currency; a garden's own fields.

    A place without frost has neither date. year: of the season that is planned, that of the day its year
    turns on: its last frost, or in a place without frost the first of January, south of the equator the first
    of July.
    """

    name: Name
    latitude: float = Field(51.0, ge=-66.0, le=66.0)
    last_frost: MonthDay | None = "04-24"
    first_frost: MonthDay | None = Field("10-27", validate_default=True)
    frost_spread: float = Field(
        10.0, ge=2.0, le=40.0, description="standard deviation of the yearly date of a frost, days"
    )
    careful: Careful = Field("usual", description="how much risk of frost a tender crop is planted out with")
    warmth: Warmth | None = None
    visits: VisitDays = (1, 3, 5)
    people: int = Field(1, ge=1, le=500, description="who share the work")
    visit_hour: int = Field(18, ge=0, le=23, description="at which people come, in calendars")
    timezone: Annotated[str, Field(max_length=64), AfterValidator(_zone)] = "UTC"
    year: SeasonYear = Field(2026, description="of the season that is planned: that of its last frost")
    exposure: ExposureKey = "ordinary"
    climate: ClimateKey = "even"
    design_gust: PlantGust | None = Field(None, description="own once-in-ten-seasons gust at the plant, m/s")
    units: System = "metric"
    currency: Currency = NO_CURRENCY
    prices: dict[str, Annotated[float, Field(ge=0.0, le=1e6)]] = Field(default_factory=dict, max_length=500)
    hour: float | None = Field(None, ge=0.0, le=1e4, description="what an hour of work is counted at")
    path_width: float = Field(0.6, ge=0.3, le=3.0, description="the least width of a path here, m")
    taught: Annotated[tuple[Taught, ...], counted_first(MOST_TAUGHT)] = ()
    ignores: tuple[Heeded, ...] = Field(
        (), max_length=3, description="kinds of entries of the log that change nothing by themselves here"
    )

    @field_validator("first_frost")
    @classmethod
    def _both_frosts(cls, first: str | None, others: ValidationInfo) -> str | None:
        if "last_frost" in others.data and (others.data["last_frost"] is None) != (first is None):
            raise ValueError(
                "a day where last_frost has one, none where it has none: both or neither is allowed"
            )
        return first

    def learnt(self, key: str, about: str = "") -> Taught | None:
        """Return what the log taught of something, nothing where it did not or nobody accepted it."""
        return next((each for each in self.taught if each.key == key and each.about == about), None)

    def times(self, key: str, about: str = "") -> float:
        """Return how many times what the tables say something is here: 1 where nothing was learnt."""
        found = self.learnt(key, about)
        return found.factor if found else 1.0

    @property
    def turns(self) -> MonthDay:
        """Return the day that its growing years are counted by."""
        return self.last_frost or ("01-01" if self.latitude >= 0 else "07-01")
