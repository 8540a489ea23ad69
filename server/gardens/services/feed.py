"""A garden's calendar: as a file, and as a feed at an address nobody can guess, which can be withdrawn."""

from __future__ import annotations

import datetime as dt
import hashlib
import secrets
from dataclasses import dataclass, replace
from typing import Any

from ascent.files.calendar_file import CalendarEntry, write_calendar
from ascent.report.diary import TOLD_FOR, entries_of
from ascent.words.texts import template
from django.conf import settings
from django.db import transaction
from django.http import Http404

from .. import schemas
from ..models import Feed, Garden
from .clock import today
from .log import season_log
from .state import place_of, state_of, whole

_KEPT = TOLD_FOR  # that what was called off is still told
Sent = dict[str, dict[str, Any]]


def feed_of(garden: Garden, may_edit: bool = True) -> schemas.FeedOut:
    """Return whether a garden has a feed, and at which address; those who only read it are not told."""
    feed = Feed.objects.filter(garden=garden).first() if may_edit else None
    if feed is None:
        return schemas.FeedOut(address=None, ended="", each_task=False)
    ended = template("calendar.ended").format(who=feed.ended_with) if feed.ended_with else ""
    address = f"/api/feed/{feed.token}.ics" if feed.token else None
    return schemas.FeedOut(address=address, ended=ended, each_task=feed.each_task)


def open_feed(garden: Garden) -> schemas.FeedOut:
    """Open a feed at a new address; an old one is withdrawn."""
    fresh = {"token": secrets.token_urlsafe(32), "ended_with": ""}
    Feed.objects.update_or_create(garden=garden, defaults=fresh)
    return feed_of(garden)


def close_feed(garden: Garden) -> schemas.FeedOut:
    """Withdraw the feed."""
    Feed.objects.filter(garden=garden).update(token="", ended_with="")
    return feed_of(garden)


def set_entries(garden: Garden, each_task: bool) -> schemas.FeedOut:
    """Make each task an entry of a garden's calendar, or each day."""
    Feed.objects.update_or_create(garden=garden, defaults={"each_task": each_task, "made_of": ""})
    return feed_of(garden)


def end_with(garden_id: int, name: str) -> None:
    """Withdraw a feed whose address somebody knows who no longer may change the garden, and note why."""
    Feed.objects.filter(garden_id=garden_id).exclude(token="").update(token="", ended_with=name)


@dataclass(frozen=True)
class Calendar:
    """A calendar's text, and a mark that changes with it."""

    text: bytes
    mark: str


def calendar_at(token: str) -> Calendar:
    """Return the calendar of the garden that a feed leads to.

    Raises:
        Http404: There is none.
    """
    feed = (
        Feed.objects.exclude(token="")
        .filter(token=token, garden__deleted_at=None)
        .select_related("garden")
        .first()
    )
    if feed is None:
        raise Http404
    return calendar_of(feed.garden)


def calendar_of(garden: Garden) -> Calendar:
    """Return a garden's calendar. What was sent before keeps its entry: changed, it is told with a higher
    number; called off, it is told as cancelled.

    It is made once for a state of the garden and a day, without holding anybody up, and kept.
    """
    place = place_of(garden)
    day = today(place)
    made_of = hashlib.sha256(f"{garden.changes}|{garden.revision}|{day}|{place.name}".encode()).hexdigest()
    kept = Feed.objects.filter(garden=garden, made_of=made_of).values_list("text", flat=True).first()
    if kept:
        return Calendar(bytes(kept), made_of)
    core = whole(state_of(garden))
    each_task = Feed.objects.filter(garden=garden, each_task=True).exists()
    entries = entries_of(core, day, season_log(garden, core), each_task=each_task)
    stamp = dt.datetime.now(dt.UTC).replace(microsecond=0)
    with transaction.atomic():
        feed, _ = Feed.objects.select_for_update().get_or_create(garden=garden)
        told, sent = numbered(entries, feed.sent, day, core.timezone)
        text = write_calendar(core.name, told, core.timezone, f"garden-{garden.pk}", stamp, _site())
        feed.sent, feed.made_of, feed.text = sent, made_of, text
        feed.save(update_fields=["sent", "made_of", "text"])
    return Calendar(text, made_of)


def _site() -> str:
    """Return what tells this installation from every other, and nothing of its secret."""
    return f"{hashlib.sha256(f'calendar {settings.SECRET_KEY}'.encode()).hexdigest()[:12]}.ascent"


def numbered(
    entries: list[CalendarEntry], sent: Sent, day: dt.date, zone: str
) -> tuple[list[CalendarEntry], Sent]:
    """Return entries with how often each has changed, those called off with them, and what is known of all
    once they are sent.
    """
    out, known = [], {}
    for entry in entries:
        print_ = hashlib.sha256(
            f"{entry.on}|{entry.title}|{entry.text}|{entry.hour}|{entry.minutes:.0f}|{zone}".encode()
        ).hexdigest()[:16]
        before = sent.get(entry.key)
        number = 0 if before is None else before["number"] + (before["print"] != print_)
        out.append(replace(entry, sequence=number))
        known[entry.key] = {
            "number": number, "print": print_, "on": entry.on.isoformat(), "title": entry.title,
            "hour": entry.hour,
        }  # fmt: skip
    for key, before in sent.items():
        on = dt.date.fromisoformat(before["on"])
        if key in known or on + _KEPT < day:
            continue
        number = before["number"] + (before["print"] != "")
        out.append(
            CalendarEntry(key, on, before["title"], "", before["hour"], sequence=number, state="cancelled")
        )
        known[key] = {**before, "number": number, "print": ""}
    return out, known
