"""A simulated weather service: a small local service that answers the protocol of docs/weather-protocol.md
with the weather of a climate made for it, with gaps, delays and faults. For trying, never for sailing.

Run as ``python -m simulators.weather --port N --faults slow,gap --today 2026-08-11 --storm 24``.
"""

from __future__ import annotations

import argparse
import datetime as dt
from collections.abc import Sequence
from typing import Any, get_args
from typing import Literal as Only

import numpy as np
from ascent import tables
from ascent.plan.climate import Warmth
from ascent.plan.place import Place
from ascent.weather.climate import Days, climate_of, years_of

from .faulty import Faulty, Query

Fault = Only[
    "slow",
    "silent",
    "busy",
    "cut",
    "garbled",
    "endless",
    "moved",
    "drip",
    "gap",
    "late",
    "odd",
    "foreign",
    "stale",
]
FAULTS: tuple[Fault, ...] = get_args(Fault)
NAME = "Harbour Mast (simulated)"
PATH = "/ascent-weather/1"
_AHEAD, _HOURS = 10, 60
_OPEN_GUST = 24.0  # at the mast once in ten seasons [m/s]
_BLUR = 0.45, 0.05  # of a forecast, more each day: [K], share of a gust
_LATE = 3  # days that observations are behind, where they come late


class Mast(Faulty):
    """The service, on a day that is set or on the present one.

    storm: strongest gust, and in how many days it comes. [m/s]
    """

    garbles = (b'"days"', b'"dais"')

    def __init__(
        self,
        port: int = 0,
        faults: Sequence[Fault] = (),
        today: dt.date | None = None,
        storm: tuple[float, int] | None = None,
        place: Place | None = None,
        seed: int = 7,
    ) -> None:
        super().__init__(port, faults)
        self.set_day, self.storm, self.seed = today, storm, seed
        self.place = place or Place(name="mast", warmth=Warmth(height=6.0, water="near"))

    @property
    def address(self) -> str:
        """Return where it listens."""
        return f"http://127.0.0.1:{self.server_port}{PATH}"

    @property
    def today(self) -> dt.date:
        """Return the day it is taken to be."""
        return self.set_day or dt.datetime.now(dt.UTC).date()

    def weather(self, first: dt.date, days: int) -> Days:
        """Return what the weather was or will be: one course of it, told from the year before."""
        climate = climate_of(self.place)
        assert climate is not None  # noqa: S101 - it has warmth
        begins = dt.date(first.year - 1, 1, 1)
        months = np.array(tables.climates()[self.place.climate].months)
        whole = years_of(climate, months, _OPEN_GUST, begins, (first - begins).days + days, self.seed)
        own = slice((first - begins).days, None)
        found = Days(first, whole.low[own], whole.high[own], whole.rain[own], whole.gust[own].copy())
        if self.storm:
            gust, ahead = self.storm
            at = (self.today + dt.timedelta(days=ahead) - first).days
            if 0 <= at < days:
                found.gust[at] = gust
                found.rain[at] = max(found.rain[at], 28.0)
        return found

    def page(self, path: str, query: Query, fault: str | None) -> dict[str, Any] | None:
        """Return days that were, or what is expected."""
        head = {"format": "ascent-weather", "version": 2 if fault == "foreign" else 1, "station": NAME}
        if path == f"{PATH}/observed":
            first, last = (dt.date.fromisoformat(query[name][0]) for name in ("from", "to"))
            until = self.today - dt.timedelta(days=_LATE if fault == "late" else 1)
            return {**head, "kind": "observed", "days": self._observed(first, min(last, until), fault)}
        if path == f"{PATH}/forecast":
            return {**head, "kind": "forecast", **self._forecast(fault)}
        return None

    def _observed(self, first: dt.date, last: dt.date, fault: str | None) -> list[dict[str, Any]]:
        count = (last - first).days + 1
        if count < 1:
            return []
        told = _told(self.weather(first, count))
        if fault == "odd":
            told[count // 2]["low"] = -273.0
        if fault == "gap":
            told = [day for n, day in enumerate(told) if n % 11 not in (3, 4, 5, 6)]
        return told

    def _forecast(self, fault: str | None) -> dict[str, Any]:
        true = self.weather(self.today, _AHEAD)
        chance = np.random.default_rng([self.seed, self.today.toordinal()])
        ahead = np.arange(_AHEAD)
        blur = _BLUR[0] * ahead * chance.standard_normal(_AHEAD)
        gust = true.gust * np.exp(_BLUR[1] * ahead * chance.standard_normal(_AHEAD))
        days = Days(true.first, true.low + blur, true.high + blur, true.rain, gust)
        issued = dt.datetime.combine(self.today, dt.time(5, 0), dt.UTC)
        if fault == "stale":
            issued -= dt.timedelta(days=5)
        return {"issued": issued.isoformat(), "days": _told(days), "hours": _hours(days)}


def _told(days: Days) -> list[dict[str, Any]]:
    return [
        {
            "day": (days.first + dt.timedelta(days=n)).isoformat(),
            "low": round(float(days.low[n]), 1),
            "high": round(float(days.high[n]), 1),
            "rain": round(float(days.rain[n]), 1),
            "gust": round(float(days.gust[n]), 1),
        }
        for n in range(len(days))
    ]


def _hours(days: Days) -> list[dict[str, Any]]:
    """Return the first hours: gusts strongest in the afternoon, rain in the morning."""
    told = []
    for hour in range(_HOURS):
        day, of_day = divmod(hour, 24)
        at = dt.datetime.combine(days.first, dt.time(), dt.UTC) + dt.timedelta(hours=hour)
        share = 0.55 + 0.45 * np.exp(-(((of_day - 15) / 4.0) ** 2))
        rain = float(days.rain[day]) / 6 if 5 <= of_day < 11 else 0.0
        told.append(
            {"at": at.isoformat(), "gust": round(float(days.gust[day] * share), 1), "rain": round(rain, 1)}
        )
    return told


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(prog="simulators.weather")
    parser.add_argument("--port", type=int, default=8766)
    parser.add_argument("--faults", default="", help=f"of {', '.join(FAULTS)}; each once, in that order")
    parser.add_argument("--today", type=dt.date.fromisoformat, help="the day it is taken to be")
    parser.add_argument("--storm", type=float, help="gust of a storm two days ahead, m/s")
    asked = parser.parse_args()
    faults = [fault for word in asked.faults.split(",") for fault in FAULTS if word == fault]
    mast = Mast(asked.port, faults, asked.today, (asked.storm, 2) if asked.storm else None)
    print(mast.address)
    mast.serve_forever()


if __name__ == "__main__":
    main()
