"""The fields of a plan: keys, names, dates and measures with their bounds."""

from __future__ import annotations

import datetime as dt
import re
import unicodedata
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field

from .. import tables
from ..errors import UnknownItem
from .upgrades import UNWRITTEN

MAX_WEEKS = 56
MOST_PLANTS = 600
MOST_ALIKE = 12  # beds or pots that get the same at once
GREATEST_GUST = 45.0  # that is calculated with; beyond it is ‘over’ [m/s]


class Typed(BaseModel):
    """Unknown fields and numbers that are not finite are errors."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, frozen=True)


def _key_of(table: str) -> AfterValidator:
    def check(key: str) -> str:
        try:
            getattr(tables, table)()[key]
        except UnknownItem as error:
            raise ValueError(str(error)) from error
        return key

    return AfterValidator(check)


def counted_first(most: int) -> BeforeValidator:
    """Return the check of a list's length before its contents, so that a list of millions is refused as
    one.
    """

    def check(value: Any) -> Any:
        if isinstance(value, list | tuple) and len(value) > most:
            raise ValueError(f"up to {most} are allowed, not {len(value)}")
        return value

    return BeforeValidator(check)


def day_of_year(month_day: str) -> int:
    """Return the day number of a month-day such as ‘05-04’ in a year without a leap day."""
    month, day = month_day.split("-")
    return dt.date(2001, int(month), int(day)).timetuple().tm_yday


def month_day(day: int) -> str:
    """Return the month-day of a day number; numbers past the year's ends wrap round."""
    date = dt.date(2001, 1, 1) + dt.timedelta(days=(day - 1) % 365)
    return f"{date:%m-%d}"


def _real_date(text: str) -> str:
    if not re.fullmatch(r"\d\d-\d\d", text):
        raise ValueError("month and day such as 05-04 are allowed")
    try:
        day_of_year(text)
    except ValueError as error:
        raise ValueError(f"a day of the calendar such as 05-04 is allowed ({error})") from error
    return text


def written(text: str) -> str:
    """Refuse what cannot be written: control characters, which no drawing and no table may hold."""
    if any(unicodedata.category(letter) in UNWRITTEN or letter in "\ufffe\uffff" for letter in text):
        raise ValueError("letters, figures and signs on one line are allowed")
    return text


MonthDay = Annotated[str, Field(examples=["05-04"]), AfterValidator(_real_date)]
Name = Annotated[str, Field(min_length=1, max_length=120), AfterValidator(written)]
Currency = Annotated[str, Field(min_length=1, max_length=8), AfterValidator(written)]
Key = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$")]
CropKey = Annotated[str, _key_of("crops")]
ToolKey = Annotated[str, _key_of("tools")]
SoilKey = Annotated[str, _key_of("soils")]
ExposureKey = Annotated[str, _key_of("exposures")]
ClimateKey = Annotated[str, _key_of("climates")]
SeasonYear = Annotated[int, Field(ge=1970, le=2200)]
Side = Literal["left", "right", "both"]
Training = Literal["pruned", "free"]
PlantCount = Annotated[int, Field(ge=1, le=MOST_PLANTS)]
PlantSpacing = Annotated[float, Field(ge=0.03, le=3.0)]
PlantGust = Annotated[float, Field(ge=5.0, le=GREATEST_GUST)]
Degrees = Annotated[float, Field(ge=-60.0, le=60.0)]
Metres = Annotated[float, Field(ge=-500.0, le=500.0)]
Spot = tuple[Metres, Metres]
Points = Annotated[tuple[Spot, ...], Field(min_length=1, max_length=20), counted_first(20)]
Bearing = Annotated[float, Field(ge=0.0, lt=360.0)]


class Named(Typed):
    """What can be spoken of: a key of its own within a plan, and a name."""

    key: Key
    name: Name


Note = Annotated[str, Field(max_length=120), AfterValidator(written)]
StepKey = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$")]
Joining = Literal["usual", "other"]
Remark = Annotated[str, Field(max_length=400), AfterValidator(written)]
OptionName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{0,63}$")]
MemberKey = Annotated[str, Field(max_length=80, pattern=r"^[a-z0-9@,-]*$")]
