"""A calendar of the season in the open form of RFC 5545, which every calendar program reads."""

from __future__ import annotations

import datetime as dt
import zoneinfo
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from icalendar import Alarm, Calendar, Event

MAKER = "-//Ascent//season//EN"
_LEAST = 5  # of anything with an hour [min]
_EARLIEST, _LATEST = 6 * 60, 24 * 60 - 1  # of a day [min]
_BEFORE = dt.timedelta(minutes=30)  # that an alarm comes before a visit
_AGAIN = dt.timedelta(hours=6)  # after which a feed is to be asked again


@dataclass(frozen=True)
class CalendarEntry:
    """Something in a calendar.

    key: its own, the same however its date moves. on: its day. hour: at which it begins, where it is no whole
    day. minutes: how long it takes. sequence: how often it has changed since it was first sent out.
    """

    key: str
    on: dt.date
    title: str
    text: str
    hour: int | None = None
    minutes: float = 0.0
    sequence: int = 0
    state: Literal["stands", "cancelled"] = "stands"
    sort: str = ""


def write_calendar(
    name: str, entries: Iterable[CalendarEntry], zone: str, of: str, stamp: dt.datetime, site: str = "ascent"
) -> bytes:
    """Return entries as a calendar.

    Args:
        name: What the calendar is called.
        entries: What is in it.
        zone: Time zone that hours are of.
        of: What its entries are of, unlike all else: the same key of it stays the same entry.
        stamp: When it is written.
        site: Whose entries they are.

    Source: rfc-5545
    """
    calendar = Calendar()
    for key, value in (("prodid", MAKER), ("version", "2.0"), ("method", "PUBLISH"), ("x-wr-calname", name)):
        calendar.add(key, value)
    calendar.add("x-wr-timezone", zone)
    calendar.add("refresh-interval", _AGAIN, parameters={"VALUE": "DURATION"})
    for entry in entries:
        calendar.add_component(_event(entry, zone, of, stamp, site))
    calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def _event(entry: CalendarEntry, zone: str, of: str, stamp: dt.datetime, site: str) -> Event:
    event = Event()
    event.add("uid", f"{entry.key}@{of}.{site}")
    event.add("dtstamp", stamp.astimezone(dt.UTC))
    event.add("sequence", entry.sequence)
    event.add("summary", entry.title)
    if entry.text:
        event.add("description", entry.text)
    if entry.sort:
        event.add("categories", [entry.sort])
    event.add("status", "CANCELLED" if entry.state == "cancelled" else "CONFIRMED")
    if entry.hour is None:
        event.add("dtstart", entry.on)
        event.add("dtend", entry.on + dt.timedelta(days=1))
        event.add("transp", "TRANSPARENT")
        return event
    begins, ends = _within_day(entry.hour, entry.minutes)
    midnight = dt.datetime.combine(entry.on, dt.time(), zoneinfo.ZoneInfo(zone))
    event.add("dtstart", midnight + dt.timedelta(minutes=begins))
    event.add("dtend", midnight + dt.timedelta(minutes=ends))
    if entry.state == "stands":
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", entry.title)
        alarm.add("trigger", -_BEFORE)
        event.add_component(alarm)
    return event


def _within_day(hour: int, minutes: float) -> tuple[int, int]:
    """Return from when to when something lasts within its day: what would last past midnight begins earlier,
    though not before early morning. [min]
    """
    lasts = min(max(round(minutes), _LEAST), _LATEST - _EARLIEST)
    begins = min(60 * hour, _LATEST - lasts)
    return begins, begins + lasts
