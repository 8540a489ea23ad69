"""The weather of a garden: asked of a service over the protocol of docs/weather-protocol.md, and kept."""

from __future__ import annotations

import datetime as dt
import time
from dataclasses import replace
from urllib.parse import urlencode, urlsplit

from ascent.errors import InvalidPlan, Problem
from ascent.files.weather import (
    Forecast,
    Observed,
    read_days,
    read_forecast,
    read_observed,
    recorded,
    weeks_of,
)
from ascent.plan import model
from ascent.telling.season_parts import date_text
from ascent.telling.storms import weather_report
from ascent.weather.course import BEFORE, turn_of
from django.conf import settings
from django.utils import timezone

from .. import schemas
from ..models import Garden, Weather
from .access import Granted, Visitor
from .asking import NoAnswer, asked
from .clock import today
from .state import PLACE, State, place_of, state_of, whole
from .writing import Wanted, change_garden

_ALL = 5.0  # for one answer with all tries [s]
_FRESH = dt.timedelta(hours=1)  # for which what came is not asked for again
_BACK = 45  # days of which is asked what they were, each time


def _refused(what: str, allowed: str) -> InvalidPlan:
    return InvalidPlan([Problem("weather", what, allowed)])


def _query(place: model.Place, **more: str) -> str:
    height = place.warmth.height if place.warmth else 0.0
    return urlencode({"latitude": f"{place.latitude:.2f}", "height": f"{height:.0f}", **more})


def asked_of(address: str, place: model.Place, day: dt.date, back: int) -> tuple[Forecast, Observed]:
    """Return what a service expects and what it has seen of so many days before a day.

    Raises:
        InvalidPlan: None is set, it does not answer in time, or what it answers is no weather.
    """
    if urlsplit(address).scheme not in ("http", "https"):
        raise _refused("nothing", "the address of a weather service is allowed, in ASCENT_WEATHER")
    span = {"from": str(day - dt.timedelta(days=back)), "to": str(day - dt.timedelta(days=1))}
    try:
        end = time.monotonic() + _ALL
        forecast = asked(f"{address}/forecast?{_query(place)}", end, read_forecast)
        observed = asked(f"{address}/observed?{_query(place, **span)}", end + _ALL, read_observed)
    except NoAnswer as error:
        raise _refused(str(error), "an answer of a weather service is allowed; it may be out") from error
    return forecast, observed


def weather_out(granted: Granted) -> schemas.WeatherOut:
    """Return the weather of a garden, fresh where the service answers, else as it was known last."""
    garden = granted.garden
    state = state_of(garden)
    core = whole(state)
    day, problem = today(core), ""
    kept = Weather.objects.filter(garden=garden).first()
    if kept is None or kept.day != day or timezone.now() - kept.at > _FRESH:
        try:
            forecast, observed = asked_of(settings.WEATHER, place_of(garden), day, _BACK)
            kept = _keep(garden, day, forecast, observed)
        except InvalidPlan as error:
            problem = str(error.problems[0])
    if kept is None:
        return schemas.WeatherOut(problem=problem, report=None, unseen=0)
    forecast, observed = (
        Forecast.model_validate(kept.document["forecast"]),
        Observed.model_validate(kept.document["observed"]),
    )
    hour = dt.datetime.now(dt.UTC)
    if settings.TODAY:
        hour = dt.datetime.combine(settings.TODAY, hour.time(), dt.UTC)
    return schemas.WeatherOut(
        problem=problem,
        report=weather_report(core, day, forecast, observed.days, hour),
        unseen=len(_unseen(core, observed)),
    )


def _keep(garden: Garden, day: dt.date, forecast: Forecast, observed: Observed) -> Weather:
    document = {"forecast": forecast.model_dump(mode="json"), "observed": observed.model_dump(mode="json")}
    kept, _ = Weather.objects.update_or_create(garden=garden, defaults={"document": document, "day": day})
    return kept


def _unseen(place: model.Place, observed: Observed) -> tuple[model.SeenWeek, ...]:
    """Return the weeks that are over and not in a garden's record yet, where its crops grow by them."""
    if place.warmth is None:
        return ()
    known = {week.monday for week in place.warmth.seen}
    last = max((day.day for day in observed.days), default=None)
    return tuple(
        week
        for week in weeks_of(observed.days)
        if week.monday not in known and last and week.monday + dt.timedelta(days=6) <= last
    )


def take_in(granted: Granted, visitor: Visitor) -> schemas.Nothing:
    """Write the weeks that were into a garden's record, so that its crops grow as warm as it was.

    The first time, all that the service still knows of the season is asked for.

    Raises:
        InvalidPlan: The service does not answer as it should.
    """
    place = place_of(granted.garden)
    if place.warmth is None:
        raise _refused("no warmth", "a garden whose crops grow as warm as it is there is allowed")
    day = today(place)
    back = _BACK if place.warmth.seen else min(BEFORE // 2 + (day - turn_of(place)).days, 700)
    _, observed = asked_of(settings.WEATHER, place, day, max(back, _BACK))

    def make(garden: Garden, before: State) -> Wanted:
        now = place_of(garden)
        return Wanted(_with_seen(before, now, _unseen(now, observed)))

    change_garden(granted.garden.pk, visitor, make)
    return schemas.Nothing()


def take_record(granted: Granted, text: str, visitor: Visitor) -> schemas.RecordRead:
    """Take a garden's own daily record for its climate: means of its months, and its frosts.

    Raises:
        InvalidPlan: It cannot be read, or holds less than a year.
    """
    days = read_days(text)
    place = place_of(granted.garden)
    warmth, last, first, spread = recorded(days, place.warmth or model.Warmth(), place.latitude >= 0)
    change = {
        "warmth": warmth.model_dump(mode="json"),
        "last_frost": last if last and first else None,
        "first_frost": first if last and first else None,
        **({"frost_spread": spread} if spread else {}),
    }

    def make(_garden: Garden, before: State) -> Wanted:
        held = before[PLACE]
        document = model.Place.model_validate({**held.document, **change}).model_dump(mode="json")
        return Wanted({**before, PLACE: replace(held, document=document)})

    change_garden(granted.garden.pk, visitor, make)
    return schemas.RecordRead(
        days=len(days),
        years=warmth.years,
        last=date_text(_day_of(last)) if last else "",
        first=date_text(_day_of(first)) if first else "",
    )


def _day_of(month_day: str) -> dt.date:
    return dt.date.fromisoformat(f"2001-{month_day}")


def _with_seen(state: State, place: model.Place, weeks: tuple[model.SeenWeek, ...]) -> State:
    if place.warmth is None or not weeks:
        return state
    seen = sorted((*place.warmth.seen, *weeks), key=lambda week: week.monday)[-model.MOST_SEEN :]
    warmth = model.Warmth.model_validate({**place.warmth.model_dump(), "seen": seen})
    held = state[PLACE]
    document = {**held.document, "warmth": warmth.model_dump(mode="json")}
    return {**state, PLACE: replace(held, document=document)}
