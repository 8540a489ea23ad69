"""The weather of a garden: asked of a service over the protocol of docs/weather-protocol.md, and kept."""

from __future__ import annotations

import datetime as dt
import time
from dataclasses import dataclass, replace
from urllib.parse import urlencode, urlsplit

from ascent import plan as model
from ascent.errors import InvalidPlan, Problem, guarded
from ascent.files.normals import are_months, read_normals
from ascent.files.weather import (
    Observed,
    WindForecast,
    read_days,
    read_forecast,
    read_observed,
    recorded,
    weeks_of,
)
from ascent.log.now import parts_of
from ascent.plan.climate import Normal
from ascent.report.season_parts import date_text
from ascent.report.storms import weather_report
from ascent.weather.course import BEFORE, turn_of
from ascent.words.texts import template
from django.conf import settings
from django.utils import timezone
from pydantic import ValidationError

from .. import schemas
from ..models import Garden, Weather
from .access import Granted, Visitor
from .asking import NoAnswer, asked
from .background import begin, under_way
from .clock import today
from .known import known_of
from .log import breaks_in
from .state import PLACE, State, place_of, state_of, whole
from .writing import Wanted, change_garden

_ALL = 8.0  # for all answers with all tries [s]
_FRESH = dt.timedelta(hours=1)  # for which what came is not asked for again
_PAUSE = 120.0  # after an asking that brought nothing [s]
_BACK = 45  # days of which is asked what they were, each time


def _refused(what: str, allowed: str) -> InvalidPlan:
    return InvalidPlan([Problem("weather", what, allowed)])


def _query(place: model.Place, **more: str) -> str:
    height = place.warmth.height if place.warmth else 0.0
    return urlencode({"latitude": f"{place.latitude:.2f}", "height": f"{height:.0f}", **more})


def asked_of(address: str, place: model.Place, day: dt.date, back: int) -> tuple[WindForecast, Observed]:
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
        observed = asked(f"{address}/observed?{_query(place, **span)}", end, read_observed)
    except NoAnswer as error:
        raise _refused(str(error), "an answer of a weather service is allowed; it may be out") from error
    return forecast, observed


def weather_out(granted: Granted) -> schemas.WeatherOut:
    """Return the weather of a garden as it was known last; what is old is asked for beside, and comes later.

    What cannot be told of it is said, and no page fails by it.
    """
    garden = granted.garden
    core = whole(state_of(garden))
    day = today(core)
    kept = _kept(garden)
    old = kept is None or kept.day != day or timezone.now() - kept.at > _FRESH
    if old and not _failed(garden):
        begin(_key(garden), lambda: _refresh(garden.pk))
        kept = _kept(garden)
    coming = under_way(_key(garden))
    problem = "" if coming else _failed(garden)
    if kept is None:
        return schemas.WeatherOut(problem=problem, report=None, unseen=0, coming=coming)
    hour = dt.datetime.now(dt.UTC)
    if settings.TODAY:
        hour = dt.datetime.combine(settings.TODAY, hour.time(), dt.UTC)
    broken = {key: parts_of(breaks) for key, breaks in breaks_in(known_of(garden)).items()}
    report = guarded(
        "the weather of a garden",
        lambda: weather_report(core, day, kept.forecast, kept.observed.days, hour, broken),
        None,
    )
    return schemas.WeatherOut(
        problem=problem or ("" if report else template("weather.failed")),
        report=report,
        unseen=len(_unseen(core, kept.observed)),
        coming=coming,
    )


@dataclass(frozen=True)
class _Kept:
    """What a service has said last, when, and on which of the garden's days."""

    forecast: WindForecast
    observed: Observed
    day: dt.date
    at: dt.datetime


def _key(garden: Garden) -> str:
    return f"weather of {garden.pk}"


_problems: dict[int, tuple[float, str]] = {}  # when and why the last asking brought nothing, by garden


def _failed(garden: Garden) -> str:
    """Return why asking for a garden's weather brought nothing just now."""
    at, words = _problems.get(garden.pk, (-_PAUSE, ""))
    return words if time.monotonic() - at < _PAUSE else ""


def _kept(garden: Garden) -> _Kept | None:
    """Return what is kept of a garden's weather; nothing where it can no longer be read."""
    row = Weather.objects.filter(garden=garden).first()
    if row is None:
        return None
    try:
        return _Kept(
            WindForecast.model_validate(row.document["forecast"]),
            Observed.model_validate(row.document["observed"]),
            row.day,
            row.at,
        )
    except (ValidationError, KeyError):
        return None


def _refresh(garden_id: int) -> None:
    """Ask for a garden's weather, and keep it once it has been read and told."""
    garden = Garden.objects.filter(pk=garden_id).first()
    if garden is None:
        return
    core = whole(state_of(garden))
    day = today(core)
    try:
        forecast, observed = asked_of(settings.WEATHER, core, day, _back(core, day))
    except InvalidPlan as error:
        _problems[garden_id] = time.monotonic(), str(error.problems[0])
        return
    _problems.pop(garden_id, None)
    document = {"forecast": forecast.model_dump(mode="json"), "observed": observed.model_dump(mode="json")}
    Weather.objects.update_or_create(garden=garden, defaults={"document": document, "day": day})


def _back(place: model.Place, day: dt.date) -> int:
    """Return how many days back is asked: of a garden that grows by its warmth all of the season the first
    time.
    """
    if place.warmth is None or place.warmth.seen:
        return _BACK
    return max(min(BEFORE // 2 + (day - turn_of(place)).days, 700), _BACK)


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
    """Write the weeks that were, as far as they have been told, into a garden's record, so that its crops
    grow as warm as it was.

    Raises:
        InvalidPlan: Nothing of its weather is known.
    """
    place = place_of(granted.garden)
    if place.warmth is None:
        raise _refused("no warmth", "a garden whose crops grow as warm as it is there is allowed")
    kept = _kept(granted.garden)
    if kept is None:
        raise _refused("nothing", "weather that a service has told is allowed; look at the week again")

    def make(garden: Garden, before: State) -> Wanted:
        now = place_of(garden)
        return Wanted(_with_seen(before, now, _unseen(now, kept.observed)))

    change_garden(granted.garden.pk, visitor, make)
    return schemas.Nothing()


def take_record(granted: Granted, text: str, visitor: Visitor) -> schemas.RecordRead:
    """Take a garden's own daily record for its climate: means of its months, and its frosts. Means of twelve
    months may be told instead.

    Raises:
        InvalidPlan: It cannot be read, or holds less than a year.
    """
    place = place_of(granted.garden)
    if are_months(text):
        return _take_months(granted, place, read_normals(text), visitor)
    days = read_days(text)
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


def _take_months(
    granted: Granted, place: model.Place, normals: tuple[Normal, ...], visitor: Visitor
) -> schemas.RecordRead:
    """Take the means of twelve months for a garden's climate; its frosts stay as they are."""
    warmth = (place.warmth or model.Warmth()).model_copy(update={"normals": normals, "years": 0})

    def make(_garden: Garden, before: State) -> Wanted:
        held = before[PLACE]
        document = {**held.document, "warmth": warmth.model_dump(mode="json")}
        return Wanted({**before, PLACE: replace(held, document=document)})

    change_garden(granted.garden.pk, visitor, make)
    return schemas.RecordRead(days=0, years=0, last="", first="")


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
