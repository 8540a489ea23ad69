"""The season of a garden: this week, and the year."""

from __future__ import annotations

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router

from .. import schemas
from ..services import access, feed, season
from ..services import weather as sky
from .gardens import file_answer
from .throttling import heavy, live
from .visitor import REFUSED, Passing, answer, marked, visitor_of

router = Router()
_CALENDAR = "text/calendar; charset=utf-8"


@router.get("/gardens/{garden_id}/week", response={200: schemas.WeekOut, **REFUSED})
@heavy
def week(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return what is due in a garden today, what is overdue, and what comes next."""
    return answer(season.week_out(access.garden_for(visitor_of(request), garden_id)))


@router.get("/gardens/{garden_id}/week.pdf", response={200: str, **REFUSED})
@heavy
def shed_door(request: HttpRequest, garden_id: int, form: Literal["A4", "Letter"] = "A4") -> HttpResponse:
    """Return the shed-door sheet as a PDF: the next days of visits on one page."""
    granted = access.garden_for(visitor_of(request), garden_id)
    return file_answer(season.shed_door_pdf(granted, form), "application/pdf", f"to-do-{garden_id}.pdf")


@router.get("/gardens/{garden_id}/year", response={200: schemas.YearOut, **REFUSED})
@heavy
def year(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return a garden's year: every support with what grows on it."""
    return answer(season.year_out(access.garden_for(visitor_of(request), garden_id)))


@router.post("/gardens/{garden_id}/year/draft", response={200: schemas.YearRow, **REFUSED})
@live
def sown(request: HttpRequest, garden_id: int, sent: schemas.SownIn) -> HttpResponse:
    """Return a support's year with a planting on another day. Nothing is stored."""
    return answer(season.sown(access.garden_for(visitor_of(request), garden_id), sent))


@router.post("/gardens/{garden_id}/year/close", response={200: schemas.Nothing, **REFUSED})
def close(request: HttpRequest, garden_id: int, sent: schemas.CloseIn) -> schemas.Nothing:
    """Close a season: keep what grew for crop rotation, and plan the next year."""
    visitor = visitor_of(request)
    return season.close(access.garden_for(visitor, garden_id, "edit"), sent, visitor)


@router.get("/gardens/{garden_id}/weather", response={200: schemas.WeatherOut, **REFUSED})
@heavy
def weather(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return the forecast, and a storm in it."""
    return answer(sky.weather_out(access.garden_for(visitor_of(request), garden_id)))


@router.post("/gardens/{garden_id}/weather/seen", response={200: schemas.Nothing, **REFUSED})
@heavy
def seen(request: HttpRequest, garden_id: int) -> schemas.Nothing:
    """Record the weather of past weeks."""
    visitor = visitor_of(request)
    return sky.take_in(access.garden_for(visitor, garden_id, "edit"), visitor)


@router.post("/gardens/{garden_id}/weather/record", response={200: schemas.RecordRead, **REFUSED})
@heavy
def record(request: HttpRequest, garden_id: int, sent: schemas.RecordIn) -> schemas.RecordRead:
    """Use a garden's own daily record for its climate."""
    visitor = visitor_of(request)
    return sky.take_record(access.garden_for(visitor, garden_id, "edit"), sent.text, visitor)


@router.get("/gardens/{garden_id}/season.ics", response={200: str, **REFUSED})
@heavy
def calendar(request: HttpRequest, garden_id: int) -> HttpResponse:
    """Return the season as a calendar file."""
    granted = access.garden_for(visitor_of(request), garden_id)
    return file_answer(feed.calendar_of(granted.garden).text, _CALENDAR, f"season-{garden_id}.ics")


@router.get("/gardens/{garden_id}/feed", response={200: schemas.FeedOut, **REFUSED})
def calendar_feed(request: HttpRequest, garden_id: int) -> schemas.FeedOut:
    """Return the address of the calendar feed, if there is one."""
    granted = access.garden_for(visitor_of(request), garden_id)
    return feed.feed_of(granted.garden, granted.role != "read")


@router.post("/gardens/{garden_id}/feed", response={200: schemas.FeedOut, **REFUSED})
def open_feed(request: HttpRequest, garden_id: int) -> schemas.FeedOut:
    """Make a calendar feed. It replaces an older one."""
    return feed.open_feed(access.garden_for(visitor_of(request), garden_id, "edit").garden)


@router.post("/gardens/{garden_id}/feed/entries", response={200: schemas.FeedOut, **REFUSED})
def feed_entries(request: HttpRequest, garden_id: int, sent: schemas.FeedEntriesIn) -> schemas.FeedOut:
    """Make each task an entry of the calendar, or each day of visits."""
    garden = access.garden_for(visitor_of(request), garden_id, "edit").garden
    return feed.set_entries(garden, sent.each_task)


@router.delete("/gardens/{garden_id}/feed", response={200: schemas.FeedOut, **REFUSED})
def close_feed(request: HttpRequest, garden_id: int) -> schemas.FeedOut:
    """Withdraw the calendar feed."""
    return feed.close_feed(access.garden_for(visitor_of(request), garden_id, "edit").garden)


@router.get("/feed/{token}.ics", response={200: str, **REFUSED}, auth=Passing())
@heavy
def fed(request: HttpRequest, token: str) -> HttpResponse:
    """Return the calendar of a feed. Returns 304 when it has not changed."""
    found = feed.calendar_at(token)
    return marked(request, found.mark, lambda: HttpResponse(found.text, content_type=_CALENDAR))


@router.get("/structures/{structure_id}/skipped", response={200: schemas.SkippedOut, **REFUSED})
@heavy
def skipped(request: HttpRequest, structure_id: int) -> schemas.SkippedOut:
    """Return what missed picks do to a support."""
    row, _ = access.structure_for(visitor_of(request), structure_id)
    return season.skipped(row)
