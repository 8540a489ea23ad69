"""The season over the API: the week, the year, marks, weather with every fault of the stand-in, the feed."""

from __future__ import annotations

import datetime as dt
import json
import re
import threading
import time
from functools import cached_property
from typing import Any
from unittest import mock

import vobject
from ascent.errors import InvalidPlan
from ascent.memory import forget_all
from ascent.season import tasks as tending
from django.contrib.auth.models import AnonymousUser
from django.db import connection
from django.test import Client, RequestFactory, SimpleTestCase, override_settings
from simulators.weather import NAME, Fault, Mast

from gardens.api.throttling import ALL, OWN, Turns, _who
from gardens.models import Change, Feed, Garden, Share, Thing, Weather
from gardens.services import background, feed, weather
from gardens.services import garden as lines_of
from gardens.services.access import Visitor
from gardens.services.asking import circuit_of
from gardens.services.feed import numbered
from gardens.services.state import place_of

from .support import ApiTestCase

DAY = dt.date(2026, 8, 11)
NOW = "2026-08-11T17:00:00Z"


def mast(case: SimpleTestCase, *faults: Fault, storm: tuple[float, int] | None = None) -> Mast:
    """Return an open weather service that is closed at the end of a test."""
    opened: Mast = Mast(faults=faults, today=DAY, storm=storm).opened()
    case.addCleanup(opened.server_close)
    case.addCleanup(opened.shutdown)
    return opened


class SeasonTestCase(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.at = f"gardens/{self.garden.pk}"
        day = override_settings(TODAY=DAY, WEATHER="")
        day.enable()
        self.addCleanup(day.disable)
        beside = mock.patch("gardens.services.weather.begin", lambda _key, do: do())
        beside.start()
        self.addCleanup(beside.stop)
        self.addCleanup(weather._problems.clear)

    def edit(self, edit: dict[str, Any], status: int = 200) -> Any:
        return self.call("post", f"{self.at}/edits", {"edits": [edit]}, status)

    def mark(self, status: int = 200, structure: str = "lantern-row", **marks: Any) -> Any:
        change = {"name": "Diary", "structure": structure, "marks": marks}
        return self.edit({"kind": "diary", "act": "add", "key": "d", "change": change}, status)

    def tasks(self, structure: str = "lantern-row") -> dict[str, dict[str, Any]]:
        report = self.call("get", f"{self.at}/week")["report"]
        days = [report["now"], *report["coming"]]
        return {
            task["key"]: task
            for day in days
            if day
            for visit in day["visits"]
            if visit["structure"] == structure
            for task in visit["tasks"]
        }


class WeekTest(SeasonTestCase):
    def test_tonight_in_walking_order_with_minutes(self):
        week = self.call("get", f"{self.at}/week")
        now = week["report"]["now"]
        self.assertEqual(now["on"], "2026-08-11")
        self.assertEqual(now["minutes"], sum(visit["minutes"] for visit in now["visits"]))
        named = {each["key"] for each in week["structures"]}
        for visit in now["visits"]:
            self.assertIn(visit["structure"], named)
            for task in visit["tasks"]:
                self.assertTrue(task["why"] and task["how"])

    def test_marks_of_two_people_join_and_one_can_be_taken_back(self):
        keys = sorted(self.tasks())[:2]
        self.mark(**{keys[0]: {"state": "done", "at": NOW, "who": "Wren"}})
        self.mark(**{keys[1]: {"state": "skipped", "at": NOW}})
        found = self.tasks()
        self.assertEqual([found[key]["state"] for key in keys], ["done", "skipped"])
        self.mark(**{keys[0]: None})
        self.assertIsNone(self.tasks()[keys[0]]["state"])
        self.assertEqual(Thing.objects.filter(kind="diary", document__structure="lantern-row").count(), 2)

    def test_what_is_wrong_in_a_mark_is_named(self):
        self.mark(422, **{"2026.p1.tie.1": {"state": "half", "at": NOW}})
        self.mark(422, p1={"state": "done", "at": NOW})
        self.mark(422, structure="nobody", **{"2026.p1.tie.1": {"state": "done", "at": NOW}})

    def test_a_diary_goes_with_its_structure(self):
        key = sorted(self.tasks())[0]
        self.mark(**{key: {"state": "done", "at": NOW}})
        self.edit({"kind": "structure", "act": "remove", "key": "lantern-row"})
        left = Thing.objects.filter(garden=self.garden, kind="diary", document__structure="lantern-row")
        self.assertFalse(left.exists())
        self.call("post", f"{self.at}/undo", {})
        self.assertEqual(self.tasks()[key]["state"], "done")

    def test_the_shed_door_sheet_is_a_page_of_pdf(self):
        for form in ("A4", "Letter"):
            answer = self.client.get(f"/api/{self.at}/week.pdf?form={form}")
            self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"))
            self.assertTrue(answer.content.startswith(b"%PDF"))
        self.assertEqual(self.client.get(f"/api/{self.at}/week.pdf?form=A0").status_code, 422)

    def test_missed_picks_are_calculated(self):
        words = self.call("get", f"structures/{self.structure.pk}/skipped")["words"]
        self.assertIn("miss 3 picks, 3.0 times as much fruit hangs", words)


class YearTest(SeasonTestCase):
    def test_a_planting_moved_is_drawn_and_then_kept(self):
        sheet = self.call("get", f"{self.at}/year")["report"]["mondays"]
        asked = {"structure": "lantern-row", "planting": "p1", "planted": "2026-06-10"}
        asked |= {"monday": sheet[0], "weeks": len(sheet)}
        row = self.call("post", f"{self.at}/year/draft", asked)
        self.assertEqual(row["growing"][0]["planted"], "2026-06-10")
        before = self.call("get", f"{self.at}/year")["report"]["rows"]
        self.assertNotIn(row, before)
        change = {"planted": {"p1": "2026-06-10"}}
        self.edit({"kind": "structure", "act": "change", "key": "lantern-row", "change": change})
        after = self.call("get", f"{self.at}/year")["report"]["rows"]
        self.assertIn(row["growing"], [each["growing"] for each in after])
        change = {"planted": {"p9": "2026-06-10"}}
        edit = {"kind": "structure", "act": "change", "key": "lantern-row", "change": change}
        self.assertIn("p9", json.dumps(self.edit(edit, 422)))
        self.refused("post", f"{self.at}/year/draft", {**asked, "planting": "p9"}, "planting")
        self.refused("post", f"{self.at}/year/draft", {**asked, "structure": "x"}, "structure")

    def test_a_season_closed_goes_into_the_past_and_can_be_undone(self):
        self.call("post", f"{self.at}/year/close", {"year": 2026})
        garden = Garden.objects.get(pk=self.garden.pk)
        self.assertEqual(place_of(garden).year, 2027)
        past = self.garden.things.get(kind="bed", key="long-plot-a").document["past"]
        self.assertEqual([(each["year"], each["crop"]) for each in past][-1], (2026, "tom-slicer"))
        turns = self.call("get", f"{self.at}/year")["report"]["turns"]
        row = next(turn for turn in turns if turn["bed"] == "long-plot-a")
        self.assertTrue(any("last year" in words for words in row["warnings"]))
        self.call("post", f"{self.at}/undo", {})
        self.assertEqual(place_of(Garden.objects.get(pk=self.garden.pk)).year, 2026)

    def test_one_structure_that_fails_is_said_and_the_rest_is_shown(self):
        real = tending.Tended.tasks.func

        def broken(tended: Any) -> Any:
            if tended.structure.key == "lantern-row":
                raise ZeroDivisionError
            return real(tended)

        spoilt = cached_property(broken)
        spoilt.__set_name__(tending.Tended, "tasks")
        forget_all()
        lines_of._line.cache_clear()
        self.addCleanup(forget_all)
        with (
            mock.patch.object(tending.Tended, "tasks", spoilt),
            mock.patch("gardens.services.garden.design_of", side_effect=ZeroDivisionError),
            self.assertLogs("ascent.errors", "ERROR"),
        ):
            week = self.call("get", f"{self.at}/week")["report"]
            year = self.call("get", f"{self.at}/year")["report"]
            lines = self.call("get", f"{self.at}/lines?keys=quay-fence")
            self.assertIn(b"BEGIN:VEVENT", self.client.get(f"/api/{self.at}/season.ics").content)
        for report in (week, year):
            self.assertEqual(len(report["left_out"]), 1)
            self.assertIn("Lantern Row is left out", report["left_out"][0])
        self.assertEqual(len(year["rows"]), 22)
        self.assertEqual((lines[0]["state"], lines[0]["key"]), (None, "quay-fence"))
        self.assertIn("cannot be calculated", lines[0]["words"])

    def test_a_season_is_closed_once_whoever_else_closes_it(self):
        self.call("post", f"{self.at}/year/close", {"year": 2026})
        self.refused("post", f"{self.at}/year/close", {"year": 2026}, "year")
        self.assertEqual(place_of(Garden.objects.get(pk=self.garden.pk)).year, 2027)

    def test_a_season_that_was_never_grown_leaves_no_past(self):
        self.call("post", f"{self.at}/year/close", {"year": 2026})
        closing = self.call("get", f"{self.at}/year")["report"]["closing"]
        self.assertEqual((closing["year"], closing["begun"]), (2027, False))
        self.call("post", f"{self.at}/year/close", {"year": 2027})
        for bed in self.garden.things.filter(kind="bed"):
            self.assertNotIn(2027, [each["year"] for each in bed.document.get("past", [])])

    def test_what_still_grows_and_stands_is_said_before_closing(self):
        """The demo's 11 August: nearly everything grows."""
        closing = self.call("get", f"{self.at}/year")["report"]["closing"]
        self.assertEqual((closing["year"], closing["begun"]), (2026, True))
        self.assertTrue(
            [
                each
                for each in closing["still"]
                if re.match("Lantern Row: .* tomato grows until ", each["words"])
            ]
        )
        self.assertIn("Bollard Fence still stands.", [each["words"] for each in closing["still"]])

    def test_what_is_not_cleared_stays_in_the_week_with_its_ticks(self):
        """The demo's 11 August: tomatoes grow, peas are cleared."""
        key = next(key for key in self.tasks() if key.startswith("2026.p1.") and "scout" in key)
        cleared = {"bollard-fence": ["p1"]}
        before = set(self.tasks())
        self.call("post", f"{self.at}/year/close", {"year": 2026, "cleared": cleared})
        self.assertEqual(place_of(Garden.objects.get(pk=self.garden.pk)).year, 2027)
        after = self.tasks()
        self.assertIn(key, after)
        self.assertFalse(
            {key for key in before if key.startswith("2026.p1.") and "scout" in key} - set(after)
        )
        document = self.structure_document("lantern-row")
        self.assertEqual(document["plantings"][0]["year"], 2026)
        self.assertIsNone(self.structure_document("bollard-fence")["plantings"][0]["year"])
        self.call("post", f"{self.at}/undo", {})
        self.assertIsNone(self.structure_document("lantern-row")["plantings"][0]["year"])

    def structure_document(self, key: str) -> dict[str, Any]:
        """Return what is stored of a structure."""
        return self.garden.things.get(kind="structure", key=key).document

    def test_a_garden_without_frost_and_one_in_the_south(self):
        for change in (
            {"last_frost": None, "first_frost": None, "latitude": 20.0},
            {"last_frost": "09-05", "first_frost": "06-10", "latitude": -37.8},
        ):
            self.edit({"kind": "place", "change": change})
            self.assertTrue(self.call("get", f"{self.at}/year")["report"]["rows"])
            self.call("get", f"{self.at}/week")
        self.assertIn("both", json.dumps(self.edit({"kind": "place", "change": {"last_frost": None}}, 422)))


class WeatherTest(SeasonTestCase):
    def test_a_storm_is_told_with_what_helps(self):
        sky = mast(self, storm=(26.0, 2))
        with override_settings(WEATHER=sky.address):
            out = self.call("get", f"{self.at}/weather")
            self.assertEqual(out["report"]["station"], NAME)
            self.assertEqual(out["report"]["storm"]["on"], "2026-08-13")
            rows = out["report"]["storm"]["rows"]
            self.assertTrue(any(row["moves"] for row in rows))
            asked = sky.asked
            self.call("get", f"{self.at}/weather")
            self.assertEqual(sky.asked, asked, "it is asked again within the hour")

    def test_what_passes_is_waited_for(self):
        for faults in (("busy", "busy"), ("cut",), ("slow",), ("gap",), ("late",)):
            with self.subTest(faults=faults):
                forecast, observed = weather.asked_of(
                    mast(self, *faults).address, place_of(self.garden), DAY, 40
                )
                self.assertEqual(len(forecast.days), 10)
                self.assertGreater(len(observed.days), 20)

    def test_what_does_not_pass_is_refused_in_words(self):
        for faults, named in (
            (("busy",) * 3, "answer 503"),
            (("cut",) * 3, "half an answer"),
            (("garbled",), "dais"),
            (("endless",), "an answer without end"),
            (("moved",), "answer 302"),
            (("foreign",), "version"),
        ):
            with self.subTest(faults=faults), self.assertRaisesRegex(InvalidPlan, named):
                weather.asked_of(mast(self, *faults).address, place_of(self.garden), DAY, 40)
        for address in ("", "file:///etc/hosts"):
            with self.assertRaisesRegex(InvalidPlan, "ASCENT_WEATHER"):
                weather.asked_of(address, place_of(self.garden), DAY, 40)

    def test_one_that_drips_is_cut_off_in_time(self):
        """Every byte comes soon enough after the one before; the whole never does."""
        address = mast(self, "drip", "drip", "drip").address
        began = time.monotonic()
        with (
            mock.patch("gardens.services.asking._WAIT", 0.8),
            self.assertRaisesRegex(InvalidPlan, "half an answer"),
        ):
            weather.asked_of(address, place_of(self.garden), DAY, 40)
        self.assertLess(time.monotonic() - began, 0.8 * 3 + 5.0)

    def test_one_that_fails_again_and_again_is_left_alone_and_tried_once_more(self):
        sky = mast(self, *(("busy",) * 9))
        place = place_of(self.garden)
        for _ in range(3):
            with self.assertRaisesRegex(InvalidPlan, "503"):
                weather.asked_of(sky.address, place, DAY, 40)
        asked = sky.asked
        with self.assertRaisesRegex(InvalidPlan, "for some minutes"):
            weather.asked_of(sky.address, place, DAY, 40)
        self.assertEqual(sky.asked, asked)
        with mock.patch("gardens.services.asking._REST", 0.0):
            self.assertEqual(circuit_of(sky.address).state, "half-open")
            weather.asked_of(sky.address, place, DAY, 40)
        self.assertEqual(circuit_of(sky.address).state, "closed")

    def test_a_question_under_way_holds_nobody_up(self):
        """The page is answered while the service is silent, and tells what has come later."""
        gate = threading.Event()
        with (
            mock.patch("gardens.services.weather.begin", background.begin),
            mock.patch("gardens.services.weather._refresh", lambda _pk: gate.wait(20)),
        ):
            began = time.monotonic()
            out = self.call("get", f"{self.at}/weather")
            self.assertEqual((out["report"], out["coming"]), (None, True))
            self.assertLess(time.monotonic() - began, 10.0)
            gate.set()

    def test_odd_answers_are_told_or_refused_before_they_are_kept(self):
        """A time without a zone, cloudbursts for weeks, days of no calendar."""
        self.edit({"kind": "place", "change": {"warmth": {"water": "near"}}})
        head = {"format": "ascent-weather", "version": 1, "station": "S"}
        days = [
            {"day": str(DAY - dt.timedelta(days=n)), "low": 9.0, "high": 19.0, "rain": 428.0}
            for n in range(30, 0, -1)
        ]
        forecast = {**head, "kind": "forecast", "issued": "2026-08-11T05:00:00", "days": []}
        observed = {**head, "kind": "observed", "days": days}
        pages = {"forecast": forecast, "observed": observed}
        sky = mast(self)
        with (
            override_settings(WEATHER=sky.address),
            mock.patch.object(Mast, "page", lambda _self, path, *_: pages[path.rsplit("/", 1)[1]]),
        ):
            out = self.call("get", f"{self.at}/weather")
            self.assertEqual((out["problem"], out["report"]["station"]), ("", "S"))
            self.call("post", f"{self.at}/weather/seen", {})
            pages["observed"] = {**observed, "days": [{"day": "9999-12-31", "low": 1.0}]}
            Weather.objects.update(day=DAY - dt.timedelta(days=1))
            out = self.call("get", f"{self.at}/weather")
        self.assertIn("days", out["problem"])
        self.assertEqual(out["report"]["station"], "S")

    def test_what_was_kept_and_can_no_longer_be_read_closes_no_page(self):
        Weather.objects.create(garden=self.garden, document={"forecast": {}}, day=DAY)
        self.assertIsNone(self.call("get", f"{self.at}/weather")["report"])

    def test_a_report_that_fails_is_said(self):
        with override_settings(WEATHER=mast(self).address):
            self.call("get", f"{self.at}/weather")
            with (
                mock.patch("gardens.services.weather.weather_report", side_effect=IndexError),
                self.assertLogs("ascent.errors", "ERROR"),
            ):
                out = self.call("get", f"{self.at}/weather")
        self.assertIn("program error", out["problem"])

    def test_one_that_is_out_leaves_what_was_said_last(self):
        with override_settings(WEATHER=mast(self).address):
            self.call("get", f"{self.at}/weather")
        Weather.objects.update(day=DAY - dt.timedelta(days=1))
        with override_settings(WEATHER=mast(self, *(("busy",) * 9)).address):
            out = self.call("get", f"{self.at}/weather")
        self.assertIn("503", out["problem"])
        self.assertEqual(out["report"]["station"], NAME)

    def test_a_value_that_cannot_be_sets_the_answer_aside(self):
        """A second fault for the second question: the first is spent on the forecast."""
        sky = mast(self, "late", "odd")
        with self.assertRaisesRegex(InvalidPlan, "low"):
            weather.asked_of(sky.address, place_of(self.garden), DAY, 40)

    def test_weeks_that_were_are_written_down_once(self):
        self.edit({"kind": "place", "change": {"warmth": {"water": "near"}}})
        with override_settings(WEATHER=mast(self).address):
            self.assertGreater(self.call("get", f"{self.at}/weather")["unseen"], 3)
            self.call("post", f"{self.at}/weather/seen", {})
            seen = place_of(Garden.objects.get(pk=self.garden.pk)).warmth.seen
            self.assertGreater(len(seen), 20)
            self.assertEqual(seen[-1].monday, dt.date(2026, 8, 3))
            self.assertEqual(self.call("get", f"{self.at}/weather")["unseen"], 0)
            changes = Change.objects.filter(garden=self.garden).count()
            self.call("post", f"{self.at}/weather/seen", {})
            self.assertEqual(Change.objects.filter(garden=self.garden).count(), changes)

    def test_a_record_of_one_s_own_takes_the_place_of_the_climate(self):
        lines = ["date,low °C,high °C"]
        for n in range(3 * 365):
            day = dt.date(2023, 1, 1) + dt.timedelta(days=n)
            swing = 12 if day.month in (6, 7, 8) else -4 if day.month in (12, 1, 2) else 4
            lines.append(f"{day},{swing},{swing + 10}")
        read = self.call("post", f"{self.at}/weather/record", {"text": "\n".join(lines)})
        self.assertEqual(read["years"], 3)
        place = place_of(Garden.objects.get(pk=self.garden.pk))
        self.assertEqual(place.warmth.normals[6].low, 12.0)
        self.assertEqual((place.last_frost, place.first_frost), ("02-28", "12-01"))
        before = place.model_dump()
        self.refused("post", f"{self.at}/weather/record", {"text": "date,low\n"}, "heads")
        self.assertEqual(place_of(Garden.objects.get(pk=self.garden.pk)).model_dump(), before)

    def test_how_it_was_found_after_a_storm_is_kept(self):
        change = {
            "name": "Lantern Row",
            "structure": "lantern-row",
            "storms": {"2026-08-09": {"found": "leans", "at": NOW}},
        }
        self.edit({"kind": "diary", "act": "add", "key": "d", "change": change})
        sky = Mast(today=DAY, storm=(26.0, -2)).opened()
        self.addCleanup(sky.server_close)
        self.addCleanup(sky.shutdown)
        with override_settings(WEATHER=sky.address):
            after = self.call("get", f"{self.at}/weather")["report"]["after"]
        self.assertEqual(after["on"], "2026-08-09")
        found = {row["structure"]: row["found"] for row in after["rows"]}
        self.assertEqual(found["lantern-row"], "leans")


class FeedTest(SeasonTestCase):
    def events(self, text: str) -> dict[str, Any]:
        calendar = next(vobject.readComponents(text))
        events = {event.uid.value: event for event in calendar.vevent_list}
        self.assertEqual(len(events), len(calendar.vevent_list), "an entry stands twice")
        return events

    @override_settings(TODAY=dt.date(2026, 6, 1))
    def test_a_feed_updates_cancels_and_never_doubles(self):
        address = self.call("post", f"{self.at}/feed", {})["address"].removeprefix("/api/")
        stranger = Client()

        def fetched() -> dict[str, Any]:
            answer = stranger.get(f"/api/{address}")
            self.assertEqual(answer.status_code, 200)
            self.assertIn("text/calendar", answer["Content-Type"])
            return self.events(answer.content.decode())

        self.call("post", f"{self.at}/feed/entries", {"each_task": True})
        first, again = fetched(), fetched()
        self.assertEqual(
            {k: e.sequence.value for k, e in first.items()}, {k: e.sequence.value for k, e in again.items()}
        )
        self.edit(
            {
                "kind": "structure",
                "act": "change",
                "key": "lantern-row",
                "change": {"planted": {"p1": "2026-06-20"}},
            }
        )
        second = fetched()
        plant = next(uid for uid in first if uid.startswith("lantern-row-") and ".plant." in uid)
        self.assertGreater(second[plant].dtstart.value, first[plant].dtstart.value)
        self.assertEqual((first[plant].sequence.value, second[plant].sequence.value), ("0", "1"))
        self.assertLessEqual(set(first), set(second))
        self.edit({"kind": "structure", "act": "remove", "key": "lantern-row"})
        third = fetched()
        self.assertEqual(third[plant].status.value, "CANCELLED")
        self.assertEqual(third[plant].sequence.value, "2")
        self.assertEqual(fetched()[plant].sequence.value, "2")

    @override_settings(TODAY=dt.date(2026, 6, 1))
    def test_a_day_is_one_entry_within_its_day(self):
        """Nobody is called at midnight, and two installations never share a name for an entry."""
        self.edit({"kind": "place", "change": {"visit_hour": 23, "timezone": "UTC"}})
        address = f"/api/{self.at}/season.ics"
        events = self.events(self.client.get(address).content.decode())
        visits = [event for event in events.values() if event.uid.value.startswith("day-")]
        self.assertEqual(len({event.dtstart.value.date() for event in visits}), len(visits))
        for event in visits:
            begins, ends = event.dtstart.value, event.dtend.value
            self.assertEqual(begins.date(), ends.date())
            self.assertGreater(ends, begins)
        self.edit({"kind": "place", "change": {"timezone": "Europe/Lisbon"}})
        moved = self.events(self.client.get(address).content.decode())
        one = visits[0].uid.value
        self.assertEqual(int(moved[one].sequence.value), int(events[one].sequence.value) + 1)
        here = one.rsplit("@", maxsplit=1)[1]
        with override_settings(SECRET_KEY="another installation"):
            self.assertNotIn(feed._site(), here)
        self.assertIn(feed._site(), here)

    def test_it_is_calculated_once_and_without_holding_anybody_up(self):
        address = self.call("post", f"{self.at}/feed", {})["address"]
        held: list[bool] = []
        real = feed.entries_of

        def looked(*args: Any, **more: Any) -> Any:
            held.append(connection.in_atomic_block and len(connection.savepoint_ids) > outer)
            return real(*args, **more)

        outer = len(connection.savepoint_ids)
        with mock.patch("gardens.services.feed.entries_of", looked):
            first = Client().get(address)
            again = Client().get(address)
            same = Client().get(address, headers={"If-None-Match": first["ETag"]})
        self.assertEqual((again.content, same.status_code, same.content), (first.content, 304, b""))
        self.assertEqual(held, [False])
        self.assertIn("private", first["Cache-Control"])
        self.edit({"kind": "place", "change": {"name": "Other Quay"}})
        changed = Client().get(address, headers={"If-None-Match": first["ETag"]})
        self.assertEqual(changed.status_code, 200)
        self.assertIn(b"Other Quay", changed.content)

    def test_many_calendars_at_once_are_all_answered(self):
        """Seven that poll and are signed in nowhere do not take one another's turn."""
        turns = Turns(OWN, ALL)
        requests = [RequestFactory().get(f"/api/feed/{n}.ics") for n in range(7)]
        for request in requests:
            request.auth = Visitor(AnonymousUser())
            request.session = Client().session
        names = {_who(request) for request in requests}
        self.assertEqual(len(names), 7)
        for name in list(names)[:ALL]:
            turns.take(name, "feed")

    def test_it_ends_with_the_rights_of_whoever_knows_it_and_the_owner_is_told(self):
        def ended(how: str) -> None:
            address = self.call("post", f"{self.at}/feed", {})["address"]
            self.call("put", f"{self.at}/people", {"name": self.other.get_username(), "may_edit": True})
            self.assertEqual(Client().get(address).status_code, 200)
            name = self.other.get_username()
            match how:
                case "looks":
                    self.call("put", f"{self.at}/people", {"name": name, "may_edit": False})
                case "taken back":
                    Share.objects.filter(garden=self.garden, person=self.other).delete()
                case "deleted":
                    self.other.delete()
            self.assertEqual(Client().get(address).status_code, 404, how)
            out = self.call("get", f"{self.at}/feed")
            self.assertIsNone(out["address"])
            self.assertIn(name, out["ended"])

        for how in ("looks", "taken back", "deleted"):
            with self.subTest(how):
                ended(how)

    def test_it_can_be_withdrawn_and_one_gets_another(self):
        one = self.call("post", f"{self.at}/feed", {})["address"]
        other = self.call("post", f"{self.at}/feed", {})["address"]
        self.assertNotEqual(one, other)
        self.assertEqual(Client().get(one).status_code, 404)
        self.assertEqual(Client().get(other).status_code, 200)
        self.assertIsNone(self.call("delete", f"{self.at}/feed")["address"])
        self.assertEqual(Client().get(other).status_code, 404)
        self.assertEqual(Client().get("/api/feed/.ics").status_code, 404)
        self.assertTrue(Feed.objects.filter(garden=self.garden).exists())

    def test_the_file_is_the_same_season(self):
        events = self.events(self.call("get", f"{self.at}/season.ics"))
        self.assertTrue(any("Sow" in event.description.value for event in events.values()))
        self.assertTrue(all(event.dtstamp.value.tzinfo for event in events.values()))

    def test_what_was_called_off_long_ago_is_forgotten(self):
        sent = {"day-2026-01-05": {"number": 2, "print": "", "on": "2026-01-05", "title": "x", "hour": 18}}
        self.assertEqual(numbered([], sent, DAY, "UTC"), ([], {}))
