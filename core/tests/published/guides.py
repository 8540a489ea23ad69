"""What planting guides say of thirteen places, and the monthly means of these: both from memory.

The first three places, with their windows, picks and ends, are as an extension guide gives them; the others
are put together from state, national and society guides for gardens outdoors.
"""

from __future__ import annotations

import datetime as dt
from typing import NamedTuple

import numpy as np
from ascent.loads.outlook import outlook
from ascent.loads.season import course_of, planted_at
from ascent.plan.climate import Normal, Warmth
from ascent.plan.place import Place
from ascent.plan.structure import Planting
from ascent.weather.course import turn_of

NEAR, COVER, BEYOND = 14, 0.8, 14  # days off a date, share of a window offered, days offered beyond it


class Normals(NamedTuple):
    """A place: latitude, mean lows and highs of its months, median last and first frost. [deg], [degC]"""

    latitude: float
    lows: tuple[float, ...]
    highs: tuple[float, ...]
    frosts: tuple[str, str] | None


class Guide(NamedTuple):
    """What a guide says of a crop in a place: windows, first pick when planted in the middle of the first of
    them, end of the harvest then.
    """

    place: str
    crop: str
    windows: tuple[tuple[str, str], ...]
    first: tuple[str, str] | None = None
    end: str | None = None


PLACES = {
    "inland39": Normals(
        39.0,
        (-6, -3.7, 1.6, 7.3, 13.4, 18.7, 21, 20, 15, 8.6, 2, -4),
        (4, 6.9, 13, 18.7, 24, 29, 31.5, 31, 26.5, 20, 12, 5.7),
        ("04-12", "10-22"),
    ),
    "plateau40": Normals(
        40.4,
        (2.7, 3.7, 6.2, 7.7, 11.3, 16.1, 19, 18.8, 15.4, 10.7, 6.3, 3.6),
        (9.8, 12, 16.3, 18.2, 22.2, 28.2, 32.1, 31.3, 26.4, 19.4, 13.5, 10),
        ("03-18", "11-22"),
    ),
    "coast38S": Normals(
        -37.8,
        (14.5, 14.7, 13.3, 10.8, 8.7, 6.9, 6.1, 6.8, 8.2, 9.6, 11.2, 13),
        (26.2, 26, 24, 20.4, 16.9, 14.2, 13.6, 15.1, 17.4, 19.8, 22.2, 24.4),
        ("08-01", "07-01"),
    ),
    "london": Normals(
        51.5,
        (2.7, 2.7, 4.2, 5.9, 8.9, 11.8, 14, 13.7, 11.2, 8.3, 5.1, 3),
        (8.4, 9, 11.7, 15, 18.4, 21.6, 23.9, 23.4, 20.2, 15.8, 11.5, 8.8),
        ("04-18", "11-01"),
    ),
    "minneapolis": Normals(
        45.0,
        (-13.5, -11, -5, 2.5, 9, 15, 18, 16.8, 12, 5, -2.4, -9.6),
        (-4, -1.5, 5.5, 13.7, 21, 26.5, 28.9, 27.4, 22.7, 14.7, 5.7, -2),
        ("04-30", "10-06"),
    ),
    "phoenix": Normals(
        33.4,
        (7.6, 9.3, 12.5, 16.2, 21.1, 25.7, 29, 28.6, 25.1, 18.2, 11.7, 7.3),
        (19.7, 21.8, 25.6, 29.9, 35, 40, 41.3, 40.4, 37.7, 31.2, 24.5, 19),
        ("02-01", "12-15"),
    ),
    "miami": Normals(
        25.8,
        (15.7, 16.9, 18.5, 20.8, 23.1, 24.6, 25.2, 25.4, 24.8, 23.1, 20.1, 17.3),
        (24.6, 25.6, 26.9, 28.8, 30.7, 32, 32.7, 32.8, 31.8, 30, 27.5, 25.5),
        None,
    ),
    "houston": Normals(
        29.8,
        (6.9, 8.9, 12.3, 16, 20.4, 23.5, 24.4, 24.3, 21.7, 16.8, 11.4, 7.9),
        (17.4, 19.5, 23, 26.6, 30.3, 33.3, 34.5, 34.9, 32, 27.9, 22.4, 18.4),
        ("02-18", "12-01"),
    ),
    "seattle": Normals(
        47.6,
        (3, 2.9, 4.2, 5.8, 9, 11.6, 13.6, 13.9, 11.6, 8.2, 4.9, 2.8),
        (8.6, 9.9, 12.2, 14.9, 18.9, 21.3, 24.9, 24.9, 21.8, 15.7, 11.1, 8.1),
        ("03-25", "11-12"),
    ),
    "auckland": Normals(
        -36.9,
        (16, 16.5, 15.2, 13.1, 10.9, 8.6, 7.6, 8.1, 9.5, 10.9, 12.3, 14.4),
        (23.3, 23.9, 22.6, 20.2, 17.6, 15.2, 14.5, 15.1, 16.4, 17.9, 19.6, 21.7),
        None,
    ),
    "vienna": Normals(
        48.2,
        (-1.5, -0.6, 3, 6.8, 11.4, 14.9, 16.7, 16.4, 12.1, 7.4, 3.2, -0.5),
        (3.9, 6.5, 11.4, 17.2, 21.7, 25, 27.1, 26.6, 21.1, 15.1, 8.8, 4.2),
        ("04-15", "10-28"),
    ),
    "denver": Normals(
        39.7,
        (-8.2, -7.5, -3, 1.1, 6.7, 11.9, 15.4, 14.4, 9.3, 2.4, -3.8, -8.2),
        (7.6, 8.4, 13.3, 16.6, 21.9, 28.2, 32.1, 30.8, 26.2, 18.7, 12.2, 7.3),
        ("05-04", "10-06"),
    ),
    "atlanta": Normals(
        33.7,
        (1.7, 3.4, 6.7, 10.7, 15.5, 19.7, 21.6, 21.3, 18, 12, 6.4, 3),
        (11.6, 14, 18.5, 22.9, 26.9, 30.4, 31.8, 31.3, 28.2, 23, 17.3, 12.8),
        ("03-24", "11-12"),
    ),
}

GUIDES = (
    Guide("inland39", "tom-slicer", (("05-01", "06-15"),), ("07-08", "07-20"), "10-15"),
    Guide("inland39", "cuc-slice", (("05-05", "07-25"),)),
    Guide("inland39", "bean-pole", (("04-25", "07-15"),), None, "09-25"),
    Guide("inland39", "pea-snap", (("03-10", "04-15"),), ("05-25", "06-06")),
    Guide("inland39", "butternut", (("05-08", "06-20"),), ("08-20", "09-05"), "10-15"),
    Guide("inland39", "sweet-pea", (("03-10", "04-05"),)),
    Guide("plateau40", "tom-slicer", (("04-20", "06-05"),), ("07-05", "07-20"), "10-25"),
    Guide("plateau40", "pea-snap", (("11-01", "03-10"),), ("05-10", "05-28")),
    Guide("plateau40", "sweet-pea", (("10-10", "02-28"),), None, "06-10"),
    Guide("plateau40", "butternut", (), None, "10-31"),
    Guide("coast38S", "tom-slicer", (("10-10", "12-20"),), ("01-05", "01-22"), "05-05"),
    Guide("coast38S", "cuc-slice", (("10-15", "01-20"),), None, "03-31"),
    Guide("coast38S", "pea-snap", (("04-01", "09-15"),)),
    Guide("coast38S", "sweet-pea", (("03-10", "05-31"),), ("08-10", "09-05")),
    Guide("london", "tom-cherry", (("05-22", "06-20"),), ("07-25", "08-18"), "10-10"),
    Guide("london", "bean-runner", (("05-10", "06-30"),), ("07-28", "08-15"), "10-15"),
    Guide("london", "pea-snap", (("03-01", "06-15"),), ("06-20", "07-10")),
    Guide("london", "cuc-slice", (("05-20", "06-20"),), ("07-20", "08-05"), "09-25"),
    Guide("london", "zucchini", (("05-15", "06-25"),), ("07-10", "07-30"), "10-10"),
    Guide("london", "fava", (("02-15", "04-30"),), ("06-15", "07-05")),
    Guide("minneapolis", "tom-slicer", (("05-18", "06-12"),), ("07-28", "08-12"), "10-03"),
    Guide("minneapolis", "cuc-slice", (("05-18", "07-01"),), ("07-20", "08-05")),
    Guide("minneapolis", "bean-pole", (("05-12", "07-05"),), None, "09-25"),
    Guide("minneapolis", "pea-snap", (("04-10", "05-12"),), ("06-18", "07-01")),
    Guide("minneapolis", "butternut", (("05-18", "06-12"),), ("08-28", "09-15"), "10-01"),
    Guide("phoenix", "tom-slicer", (("02-10", "03-25"),), ("05-05", "05-25"), "07-01"),
    Guide("phoenix", "cuc-slice", (("02-20", "04-20"), ("08-01", "09-20")), None, "06-20"),
    Guide("phoenix", "pea-snap", (("09-20", "02-01"),)),
    Guide("phoenix", "bean-pole", (("03-01", "04-20"), ("07-25", "09-10")), None, "06-20"),
    Guide("phoenix", "sweet-pea", (("09-15", "12-31"),), None, "05-10"),
    Guide("miami", "tom-slicer", (("08-25", "02-28"),)),
    Guide("miami", "bean-pole", (("09-01", "04-01"),)),
    Guide("miami", "pea-snap", (("10-10", "02-10"),)),
    Guide("miami", "cuc-slice", (("09-01", "03-20"),)),
    Guide("houston", "tom-slicer", (("03-01", "04-15"), ("07-25", "09-05")), ("05-20", "06-05"), "07-10"),
    Guide("houston", "pea-snap", (("01-15", "03-01"), ("09-20", "11-10"))),
    Guide("houston", "cuc-slice", (("03-05", "05-01"), ("08-15", "09-20")), ("05-01", "05-15")),
    Guide("houston", "bean-pole", (("03-05", "05-01"), ("08-10", "09-20"))),
    Guide("seattle", "tom-cherry", (("05-10", "06-15"),), ("07-25", "08-12"), "10-15"),
    Guide("seattle", "pea-snap", (("02-20", "05-31"),), ("06-05", "06-25")),
    Guide("seattle", "bean-pole", (("05-10", "07-05"),), ("07-28", "08-12"), "10-01"),
    Guide("seattle", "cuc-slice", (("05-15", "06-30"),), ("07-25", "08-10"), "09-30"),
    Guide("auckland", "tom-slicer", (("10-01", "12-25"),), ("01-01", "01-20"), "05-01"),
    Guide("auckland", "bean-runner", (("09-25", "01-10"),)),
    Guide("auckland", "pea-snap", (("04-01", "10-01"),)),
    Guide("auckland", "sweet-pea", (("03-10", "06-10"),)),
    Guide("vienna", "tom-slicer", (("05-10", "06-12"),), ("07-22", "08-08"), "10-12"),
    Guide("vienna", "pea-snap", (("03-10", "05-10"),), ("06-08", "06-22")),
    Guide("vienna", "bean-pole", (("05-05", "07-05"),), None, "10-01"),
    Guide("vienna", "cuc-slice", (("05-12", "07-01"),), ("07-08", "07-25"), "09-25"),
    Guide("vienna", "butternut", (("05-12", "06-12"),), ("09-01", "09-18"), "10-15"),
    Guide("denver", "tom-slicer", (("05-15", "06-15"),), ("07-28", "08-12"), "10-04"),
    Guide("denver", "pea-snap", (("03-20", "05-01"),), ("06-08", "06-22")),
    Guide("denver", "bean-pole", (("05-12", "07-05"),), None, "09-25"),
    Guide("atlanta", "tom-slicer", (("04-10", "06-20"),), ("07-01", "07-16"), "11-01"),
    Guide("atlanta", "pea-snap", (("02-05", "03-20"),), ("05-01", "05-14")),
    Guide("atlanta", "cuc-slice", (("04-12", "08-05"),)),
    Guide("atlanta", "bean-pole", (("04-10", "08-01"),)),
    Guide("atlanta", "sweet-pea", (("10-01", "03-10"),)),
)


def garden(name: str) -> Place:
    """Return a garden at a place."""
    place = PLACES[name]
    normals = tuple(
        Normal(low=low, high=high, rain=60.0) for low, high in zip(place.lows, place.highs, strict=True)
    )
    last, first = place.frosts or (None, None)
    return Place(
        name=name, latitude=place.latitude, last_frost=last, first_frost=first, warmth=Warmth(normals=normals)
    )


def of_year(day: str) -> int:
    """Return a day of the year from 0."""
    return (dt.date(2001, *map(int, day.split("-"))) - dt.date(2001, 1, 1)).days


def between(first: str, last: str) -> np.ndarray:
    """Return which days of a year lie from one to another, (365,)."""
    days = np.zeros(365, dtype=bool)
    a, b = of_year(first), of_year(last)
    days[np.arange(a, (b if b >= a else b + 365) + 1) % 365] = True
    return days


def offered(guide: Guide) -> np.ndarray:
    """Return on which days of a year a crop is offered, (365,)."""
    place = garden(guide.place)
    seen, turns = outlook(place, guide.crop), turn_of(place)
    days = np.zeros(365, dtype=bool)
    year = (seen.days >= -182) & (seen.days < 183)
    for day in seen.days[seen.good & year]:
        days[min((turns + dt.timedelta(days=int(day))).timetuple().tm_yday - 1, 364)] = True
    return days


def window_fits(guide: Guide) -> tuple[float, int]:
    """Return the share of the guide's windows that is offered, and the days offered beyond them."""
    asked = np.logical_or.reduce([between(*window) for window in guide.windows])
    ours = offered(guide)
    return float(np.sum(asked & ours) / np.sum(asked)), int(np.sum(ours & ~asked))


def planted(guide: Guide) -> tuple[Place, Planting]:
    """Return a planting in the middle of the guide's first window."""
    place = garden(guide.place)
    a, b = map(of_year, guide.windows[0]) if guide.windows else (140, 140)
    middle = ((a + (b if b >= a else b + 365)) // 2) % 365
    turns = turn_of(place)
    day = (middle - of_year(f"{turns:%m-%d}") + 182) % 365 - 182
    return place, planted_at(
        place, Planting(key="p", crop=guide.crop, count=4, spacing=0.4, planted="05-01"), day
    )


def first_and_end(guide: Guide) -> tuple[dt.date, dt.date, str]:
    """Return the first pick and the end of a planting in the middle of the guide's first window."""
    place, planting = planted(guide)
    course, turns = course_of(place, planting), turn_of(place)
    return turns + dt.timedelta(days=course.first), turns + dt.timedelta(days=course.end), course.ends


def away(day: dt.date, first: str, last: str) -> int:
    """Return by how many days a date lies outside of a span of a year."""
    if between(first, last)[min(day.timetuple().tm_yday - 1, 364)]:
        return 0
    at = day.timetuple().tm_yday - 1
    return min((at - of_year(last)) % 365, (of_year(first) - at) % 365)
