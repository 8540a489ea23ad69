"""A stranger with changing names, addresses and headers; what is too large, too deep or no JSON; races; what
a full disk says.
"""

from __future__ import annotations

import errno
import io
import json
import os
import sqlite3
import stat
import tempfile
import threading
from functools import partial
from pathlib import Path
from typing import Any
from unittest import mock

from accounts import letters, services
from ascent.plan.documents import MOST_PROBLEMS
from config import bounds, faults, home
from config.api import api
from django.conf import settings
from django.contrib.auth import get_user_model
from django.contrib.sessions.models import Session
from django.core.cache import cache
from django.core.management import CommandError, call_command
from django.db import OperationalError, connection
from django.test import Client, SimpleTestCase, TestCase, TransactionTestCase, override_settings
from gardens.api.throttling import ALL, OWN, Full, Hand, Turns
from gardens.models import Garden, ReadLink, Sent, Thing
from gardens.services import garden, structures, writing
from gardens.services.state import MODELS
from gardens.tests.support import ApiTestCase, demo_garden
from limits import tries

PASSWORD = "tall-beans-9"


class StrangerTestCase(TestCase):
    @classmethod
    def setUpTestData(cls) -> None:
        cls.mara = get_user_model().objects.create_user("mara", email="mara@example.org", password=PASSWORD)

    def setUp(self) -> None:
        cache.clear()

    def ask(self, method: str, path: str, body: Any, address: str = "203.0.113.7", **headers: str) -> int:
        """Send one request as somebody new, from an address, with headers of their own choice; return its
        status.
        """
        sent = Client(REMOTE_ADDR=address)
        return getattr(sent, method)(
            f"/api/{path}", json.dumps(body), content_type="application/json", headers=headers
        ).status_code

    def until_refused(self, most: int, ask: Any) -> int:
        """Return how many requests of a kind are let through before the first 429, failing when there is
        none.
        """
        for n in range(most + 1):
            if ask(n) == 429:
                return n
        raise AssertionError(f"{most + 1} were let through")


class ThrottleTest(StrangerTestCase):
    def test_sign_in_from_one_address_with_changing_names_and_headers(self):
        most, _ = settings.TRIES["sign-in from"]

        def guess(n: int) -> int:
            return self.ask(
                "post",
                "session",
                {"name": f"name-{n}", "password": "guess"},
                **{"X-Forwarded-For": f"198.51.100.{n}", "Cookie": f"sessionid=x{n}"},
            )

        self.assertEqual(self.until_refused(most, guess), most)
        self.assertEqual(
            self.ask("post", "session", {"name": "mara", "password": PASSWORD}, "198.51.100.9"),
            200,
            "the owner is not locked out",
        )

    def test_one_name_from_changing_addresses(self):
        most, _ = settings.TRIES["sign-in to"]
        count = self.until_refused(
            most,
            lambda n: self.ask(
                "post", "session", {"name": "mara", "password": "guess"}, f"198.51.{n // 200}.{n % 200}"
            ),
        )
        self.assertEqual(count, most)

    def test_a_household_is_one_address_however_many_it_has(self):
        most, _ = settings.TRIES["sign-in from"]
        sent = {"password": "guess"}
        count = self.until_refused(
            most, lambda n: self.ask("post", "session", {"name": f"n{n}", **sent}, f"2001:db8:1:2::{n + 1:x}")
        )
        self.assertEqual(count, most)
        self.assertEqual(
            self.ask("post", "session", {"name": "mara", "password": PASSWORD}, "2001:db8:1:3::1"), 200
        )

    def test_accounts_and_letters_by_address_whatever_shows_who_asks(self):
        kinds = {
            "sign-up from": (
                "post",
                "account",
                lambda n: {"name": f"new-{n}", "password": f"tall-peas-{n}9"},
            ),
            "letter from": ("post", "account/reset", lambda n: {"mail": f"m{n}@example.org"}),
            "reset from": (
                "put",
                "account/reset",
                lambda n: {"who": "x", "token": f"{n}", "password": "tall-peas-9"},
            ),
            "look from": ("post", "look", lambda n: {"token": f"{n}"}),
        }

        def ask(what: str, n: int) -> int:
            method, path, body = kinds[what]
            return self.ask(method, path, body(n), Authorization=f"Bearer {n}", Cookie=f"sessionid=a{n}")

        for what in kinds:
            with self.subTest(what):
                most, _ = settings.TRIES[what]
                self.assertEqual(self.until_refused(most, partial(ask, what)), most)

    def test_letters_to_one_address_from_changing_ones(self):
        most, _ = settings.TRIES["letter to"]
        count = self.until_refused(
            most, lambda n: self.ask("post", "account/reset", {"mail": "Mara@example.org"}, f"198.51.100.{n}")
        )
        self.assertEqual(count, most)

    def test_a_password_is_not_guessed_by_changing_or_deleting(self):
        most, _ = settings.TRIES["password of"]
        self.client.force_login(self.mara)

        def guess(n: int) -> int:
            path, method, body = (
                ("account", "delete", {"password": "x"}),
                ("account/password", "put", {"old": "x", "new": "tall-peas-9"}),
            )[n % 2]
            return getattr(self.client, method)(
                f"/api/{path}", json.dumps(body), content_type="application/json"
            ).status_code

        self.assertEqual(self.until_refused(most, guess), most)
        self.assertTrue(get_user_model().objects.filter(username="mara").exists())

    def test_few_passwords_are_hashed_at_once(self):
        with mock.patch.object(tries, "_WAIT", 0.0), tries.hashing(), tries.hashing():
            answer = self.client.post(
                "/api/session", {"name": "mara", "password": PASSWORD}, content_type="application/json"
            )
        self.assertEqual((answer.status_code, answer["Retry-After"]), (503, "2"))

    def test_the_answer_says_how_long_to_wait(self):
        with mock.patch.dict(settings.TRIES, {"sign-in from": (0, 900)}):
            answer = self.client.post(
                "/api/session", {"name": "mara", "password": PASSWORD}, content_type="application/json"
            )
        self.assertRegex(answer.json()["problems"][0]["allowed"], r"^too many tries; wait \d+ minutes?$")
        self.assertLessEqual(int(answer["Retry-After"]), 900)

    @override_settings(LETTERS_AT_ONCE=False)
    def test_asking_for_a_letter_does_the_same_for_a_name_that_is_known_and_one_that_is_not(self):
        seen = []
        for mail in ("mara@example.org", "nobody@example.org"):
            with mock.patch.object(letters._clerk, "submit") as handed, self.assertNumQueries(0):
                self.assertEqual(self.ask("post", "account/reset", {"mail": mail}), 200)
            seen.append(handed.call_count)
        self.assertEqual(seen, [1, 1], "whether there is such an account is looked up after the answer")


class NamesTest(StrangerTestCase):
    def test_dots_are_no_name(self):
        for name in (".", "..", "..."):
            self.assertEqual(self.ask("post", "account", {"name": name, "password": "tall-peas-9"}), 422)
            with self.assertRaises(CommandError), mock.patch("sys.stdin", io.StringIO("tall-peas-9\n")):
                call_command("account", name)

    def test_one_name_signed_up_twice_at_once(self):
        with (
            mock.patch.object(services.NewAccount, "is_valid", lambda form: form.errors == {} or True),
            mock.patch.object(
                services.NewAccount, "save", lambda _form: get_user_model().objects.create_user("mara")
            ),
        ):
            answer = self.client.post(
                "/api/account", {"name": "mara", "password": "tall-peas-9"}, content_type="application/json"
            )
        self.assertEqual((answer.status_code, answer.json()["problems"][0]["path"]), (422, "name"))


class BodyTest(ApiTestCase):
    def send(self, path: str, body: bytes | str, kind: str = "application/json") -> Any:
        return self.client.post(f"/api/{path}", body, content_type=kind)

    def test_every_address_refuses_one_byte_too_many_before_reading_it(self):
        with mock.patch("config.api.parsed", side_effect=AssertionError("it was read")):
            for path, verbs in api.get_openapi_schema(path_prefix="/api/")["paths"].items():
                for verb in set(verbs) - {"get"}:
                    address = path.format(
                        garden_id=self.garden.pk,
                        structure_id=self.structure.pk,
                        bed="b",
                        number=0,
                        name="n",
                        family="stake",
                        what="beds",
                        sha="a" * 64,
                        token="t",
                    )
                    body = b" " * (bounds.most_bytes(address) + 1)
                    answer = getattr(self.client, verb)(address, body, content_type="application/json")
                    self.assertEqual(answer.status_code, 413, (verb, path))

    def test_the_worst_refusal_of_the_largest_body_is_short_everywhere(self):
        """Unknown keys, empty things and wide lists, as large as they may be: few problems, a short
        answer.
        """
        for path, verbs in api.get_openapi_schema(path_prefix="/api/")["paths"].items():
            address = path.format(
                garden_id=self.garden.pk,
                structure_id=self.structure.pk,
                bed=self.bed.key,
                number=0,
                name="n",
                family="stake",
                what="beds",
                sha="a" * 64,
                token="t",
            )
            for verb in set(verbs) - {"get"}:
                if "requestBody" not in verbs[verb]:
                    continue
                most = min(bounds.most_bytes(address), 200_000)
                count = most // 14
                for worst in (
                    {f"k{n}": 1 for n in range(min(count, 990))},
                    {
                        name: [{}] * min(most // 4 - 20, 990)
                        for name in ("edits", "plantings", "points", "wanted", "draft", "text")
                    },
                    {
                        "draft": {
                            "plantings": [{}] * 900,
                            "options": {f"k{n}": [] for n in range(900)},
                            "name": "x" * 1000,
                        }
                    },
                    [{}] * 900,
                ):
                    text = json.dumps(worst)
                    if len(text) > bounds.most_bytes(address):
                        continue
                    answer = getattr(self.client, verb)(address, text, content_type="application/json")
                    self.assertIn(answer.status_code, (400, 401, 403, 404, 422, 429), (verb, path))
                    self.assertLessEqual(len(answer.json()["problems"]), MOST_PROBLEMS, (verb, path))
                    self.assertLess(len(answer.content), 20_000, (verb, path))

    def test_what_is_no_json_or_no_number_or_half_a_character(self):
        path = f"gardens/{self.garden.pk}/edits"
        bed = '{"edits": [{"kind": "bed", "key": "cove-bed", "change": {%s}}]}'
        for body, status in (
            (b"\xff\xfe", 400),
            (b"[" * 5000, 400),
            (b"{", 400),
            (b"1" * 5000, 400),
            (bed % '"x": 1e400', 422),
            (bed % '"x": NaN', 422),
            (bed % '"name": "\\ud800"', 400),
            (bed % '"name": "a\\u0000b"', 422),
            (bed % '"name": "a\\u0007b"', 422),
            (bed % ('"x": ' + "9" * 4000), 422),
        ):
            answer = self.send(path, body)
            self.assertEqual(answer.status_code, status, (body[:60], answer.content[:200]))
            self.assertTrue(answer.json()["problems"][0]["allowed"])
        for kind in (
            "multipart/form-data; boundary=x",
            "text/plain",
            "application/x-www-form-urlencoded",
            "",
        ):
            self.assertEqual(self.send(path, b"--x\r\n\r\n--x--", kind).status_code, 415, kind)

    def test_counts_and_depths_that_cannot_be(self):
        draft, revision = self.draft()
        deep: Any = "x"
        for _ in range(900):
            deep = [deep]
        draft["options"]["length"] = deep
        self.call("put", f"structures/{self.structure.pk}", {"draft": draft, "revision": revision}, 400)
        for text in ("1e400", "9" * 50, "1/0", "1" * 60):
            self.call("post", "quantities/read", {"text": text, "kind": "count", "high": 10}, 422)
            self.call("post", "quantities/read", {"text": text, "kind": "length", "high": 10}, 422)
        digits = "9" * 5000
        for table in (
            f"name,length,width\nA,{digits},1\n",
            f"structure,crop,plants,spacing,planted\nlantern-row,tom-slicer,{digits},0.4,05-04\n",
        ):
            what = "beds" if table.startswith("name") else "plantings"
            self.call("post", f"gardens/{self.garden.pk}/import/preview", {"what": what, "text": table}, 422)
        for number in (10**18, 10**30, -1):
            self.assertIn(self.client.get(f"/api/gardens/{number}").status_code, (404, 422))
            self.assertIn(self.client.get(f"/api/structures/{number}").status_code, (404, 422))

    def test_a_name_with_a_control_character_never_gets_into_a_drawing(self):
        edit = {"kind": "bed", "key": "cove-bed", "change": {"name": "Cove\u0001Bed"}}
        self.refused(
            "post",
            f"gardens/{self.garden.pk}/edits",
            {"edits": [edit]},
            "edits[0].bed.change.name",
            "on one line",
        )

    def test_a_currency_is_no_formula(self):
        self.call(
            "post",
            f"gardens/{self.garden.pk}/edits",
            {"edits": [{"kind": "place", "change": {"currency": "=1+1"}}]},
        )
        for path in (
            f"gardens/{self.garden.pk}/parts.csv",
            f"gardens/{self.garden.pk}/parts.csv?by_structure=true",
            f"structures/{self.structure.pk}/parts.csv",
        ):
            text = self.call("get", path)
            self.assertIn(",'=1+1,", text)
            self.assertNotIn(",=1+1", text)

    def test_as_many_lines_are_answered_as_may_be_asked(self):
        path = f"gardens/{self.garden.pk}"
        copies = [
            {"kind": "structure", "act": "add", "key": f"c{n}", "copy_of": "lantern-row"} for n in range(40)
        ]
        out = self.edited(copies)
        keys = [row["key"] for row in out["garden"]["structures"]][:50]
        self.assertEqual(len(keys), 50)
        asked = f"{path}/lines?" + "&".join(f"keys={key}" for key in keys)
        counts = [
            len(self.call("get", asked)) for _ in range(12)
        ]  # some of them each time, until all are known
        self.assertEqual((counts, counts[-1]), (sorted(counts), 50))
        self.assertEqual(self.client.get(f"/api/{path}/lines?" + "keys=x&" * 51).status_code, 422)


class TurnsTest(SimpleTestCase):
    def test_two_of_one_visitor_and_a_few_of_all(self):
        turns = Turns(OWN, ALL)
        with mock.patch("gardens.api.throttling._WAIT", 0.01):
            for _ in range(OWN):
                turns.take("mara", "sensitivity")
            with self.assertRaises(Full) as caught:
                turns.take("mara", "fixes")
            self.assertTrue(caught.exception.own)
            for n in range(ALL - OWN):
                turns.take(f"other {n}", "sensitivity")
            with self.assertRaises(Full) as caught:
                turns.take("one more", "sensitivity")
            self.assertFalse(caught.exception.own)
            turns.give("mara")
            turns.take("one more", "sensitivity")

    def test_few_wait_and_the_rest_is_told_at_once(self):
        """Who waits takes a thread: a visitor who asks for twenty at once never holds more than four."""
        turns = Turns(OWN, ALL)
        statuses: list[str] = []

        def ask(n: int) -> None:
            try:
                turns.take("link", f"structure {n}")
                statuses.append("came")
            except Full:
                statuses.append("told")

        with mock.patch("gardens.api.throttling._WAIT", 0.4):
            threads = [threading.Thread(target=ask, args=[n]) for n in range(20)]
            for thread in threads:
                thread.start()
            threads[0].join(0.2)
            self.assertEqual(
                (statuses.count("came"), statuses.count("told")),
                (OWN, 20 - 2 * OWN),
                "before anybody's wait is over",
            )
            for thread in threads:
                thread.join()
        self.assertEqual(statuses.count("came"), OWN)

    def test_one_waits_for_a_turn_that_is_given_back(self):
        turns = Turns(OWN, ALL)
        for _ in range(OWN):
            turns.take("mara", "sensitivity")
        timer = threading.Timer(0.05, turns.give, ["mara"])
        timer.start()
        turns.take("mara", "sensitivity")
        timer.join()

    def test_who_asks_the_same_again_waits_no_more_for_the_former(self):
        """A quick hand asks for the same bench's fixes ten times within a second and reads the last only: it
        is never told to come again for that.
        """
        turns = Turns(OWN, ALL)
        for _ in range(OWN):
            turns.take("mara", "sizing")
        told: list[int] = []
        came: list[int] = []

        def ask(n: int) -> None:
            try:
                turns.take("mara", "fixes")
                came.append(n)
            except Full:
                told.append(n)

        threads = [threading.Thread(target=ask, args=[n]) for n in range(10)]
        for n, thread in enumerate(threads):
            thread.start()
            if n:
                threads[n - 1].join(2)
        self.assertEqual(told, list(range(9)))
        turns.give("mara")
        threads[-1].join(2)
        self.assertEqual(came, [9])


class HandTest(SimpleTestCase):
    def test_what_comes_by_and_by_goes_on_once_the_hand_is_answered(self):
        hand, order = Hand(), []

        def by_and_by() -> None:
            hand.let_go_first()
            order.append("by and by")

        behind = threading.Thread(target=by_and_by)
        with mock.patch("gardens.api.throttling._LET", 10.0), hand.moves():
            behind.start()
            behind.join(0.1)
            self.assertTrue(hand.busy())
            order.append("hand")
        behind.join(5)
        self.assertEqual(order, ["hand", "by and by"])

    def test_it_does_not_wait_for_ever(self):
        hand = Hand()
        with mock.patch("gardens.api.throttling._LET", 0.01), hand.moves():
            hand.let_go_first()
        hand.let_go_first()


class HeavyTest(ApiTestCase):
    def test_what_has_no_turn_is_told_to_come_again(self):
        with mock.patch("gardens.api.throttling._long.take", side_effect=Full(True)):
            answer = self.client.post(
                f"/api/structures/{self.structure.pk}/sizing",
                {"draft": self.draft()[0]},
                content_type="application/json",
            )
        self.assertEqual((answer.status_code, answer["Retry-After"]), (429, "1"))
        self.call("get", f"gardens/{self.garden.pk}")  # everything else is served

    def test_a_turn_is_given_back_whatever_comes_of_it(self):
        for _ in range(ALL + 1):
            self.call(
                "post",
                f"structures/{self.structure.pk}/fixes",
                {"draft": self.draft()[0], "link": "none"},
                422,
            )


class LargeTest(ApiTestCase):
    def test_lines_pause_for_a_hand_many_times_within_one_structure(self):
        path = f"gardens/{self.garden.pk}/lines?keys=lantern-row"
        garden._line.cache_clear()
        with mock.patch("gardens.api.gardens.hand.let_go_first") as pause:
            self.call("get", path)
            self.assertGreater(pause.call_count, 4)
            pause.reset_mock()
            self.call("get", path)
            pause.assert_not_called()  # what is known is known to everybody

    def test_lines_of_what_is_very_large_come_in_by_and_by(self):
        path = f"gardens/{self.garden.pk}/lines?" + "&".join(
            f"keys={row.key}" for row in self.garden.things.filter(kind="structure")[:5]
        )
        garden._line.cache_clear()
        with mock.patch("gardens.api.gardens.by_and_by", return_value=lambda: True):
            self.assertEqual(len(self.call("get", path)), 1, "never nothing")
        counts = [
            len(self.call("get", path)) for _ in range(5)
        ]  # what a moment allows depends on the machine
        self.assertEqual((sorted(counts), counts[-1]), (counts, 5))


class BusyTest(ApiTestCase):
    def test_nothing_is_calculated_while_the_database_is_held(self):
        """The core is only called outside of a transaction: for edits, a bench's save, building, an
        import.
        """
        held: list[bool] = []

        def look(*_args: Any, **_more: Any) -> None:
            held.append(len(connection.savepoint_ids) > self.depth)

        self.depth = len(connection.savepoint_ids)
        plan = self.client.get(f"/api/gardens/{self.garden.pk}/plan.json").content.decode()
        draft, revision = self.draft()
        draft["options"]["depth"] = 0.7
        with (
            mock.patch("gardens.services.state.MODELS", _Watched(look)),
            mock.patch("gardens.services.structures.offer", side_effect=_watched("offer", look)),
        ):
            self.call(
                "post",
                f"gardens/{self.garden.pk}/edits",
                {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"x": 3.0}}]},
            )
            self.call("put", f"structures/{self.structure.pk}", {"draft": draft, "revision": revision})
            self.call(
                "post",
                f"gardens/{self.garden.pk}/beds/{self.bed.key}/structures",
                {"family": "stake", "crop": "tom-slicer"},
            )
            number = Garden.objects.get(pk=self.garden.pk).changes
            self.call("post", f"gardens/{self.garden.pk}/import", {"text": plan, "number": number})
        self.assertGreater(len(held), 10)
        self.assertFalse(any(held))

    def test_whoever_is_overtaken_calculates_again_and_both_changes_stand(self):
        real, overtaken = writing.known_of, []

        def overtake(garden: Garden) -> Any:
            state = real(garden)
            if not overtaken:
                overtaken.append(1)
                self.call(
                    "post",
                    f"gardens/{self.garden.pk}/edits",
                    {"edits": [{"kind": "bed", "key": "chandlers", "change": {"name": "First"}}]},
                )
            return state

        with mock.patch("gardens.services.writing.known_of", side_effect=overtake):
            self.call(
                "post",
                f"gardens/{self.garden.pk}/edits",
                {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"name": "Second"}}]},
            )
        names = {
            bed["key"]: bed["fields"]["name"] for bed in self.call("get", f"gardens/{self.garden.pk}")["beds"]
        }
        self.assertEqual((names["chandlers"], names["cove-bed"]), ("First", "Second"))

    def test_a_busy_database_says_again_in_a_moment_and_a_full_or_closed_disk_says_so(self):
        edits = {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"x": 3.0}}]}
        for said, status, words in (
            ("database is locked", 503, "again in a moment"),
            ("database or disk is full", 507, "make room"),
            ("attempt to write a readonly database", 507, "let it write"),
            ("unable to open database file", 507, "let it write"),
            ("disk I/O error", 500, "a fault of ours"),
        ):
            with mock.patch("gardens.services.writing.commit", side_effect=OperationalError(said)):
                answer = self.client.post(
                    f"/api/gardens/{self.garden.pk}/edits", edits, content_type="application/json"
                )
            self.assertEqual(answer.status_code, status)
            told = answer.json()["problems"][0]
            self.assertIn(words, f"{told['given']}: {told['allowed']}")
            self.assertEqual("Retry-After" in answer, status in (503, 507))
        self.assertEqual(Thing.objects.get(garden=self.garden, key="cove-bed").revision, 1)

    def test_outside_the_api_a_page_says_it_in_words(self):
        self.client.raise_request_exception = False
        with mock.patch("config.spa.session_state", side_effect=OperationalError("database or disk is full")):
            answer = self.client.get("/")
        self.assertContains(answer, "the disk is full: nothing was changed", status_code=507)
        self.assertEqual(faults.told(OSError(errno.ENOSPC, "no space")).status, 507)
        self.assertEqual(faults.told(sqlite3.OperationalError("x")).status, 500)


def _watched(name: str, look: Any) -> Any:
    real = getattr(structures, name)

    def call(*args: Any, **more: Any) -> Any:
        look()
        return real(*args, **more)

    return call


class _Watched(dict):
    """The models of things, each look at which is told."""

    def __init__(self, look: Any) -> None:
        super().__init__(MODELS)
        self.look = look

    def __getitem__(self, kind: str) -> Any:
        self.look()
        return super().__getitem__(kind)


class RacesTest(TransactionTestCase):
    def setUp(self) -> None:
        self.mara = get_user_model().objects.create_user("mara")
        self.garden = demo_garden(self.mara)

    def both(self, ask: Any) -> list[int]:
        """Ask twice at once; return both statuses."""
        found: list[int] = []

        def go() -> None:
            client = Client()
            client.force_login(self.mara)
            found.append(ask(client).status_code)
            connection.close()

        threads = [threading.Thread(target=go) for _ in range(2)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        return sorted(found)

    def test_a_link_made_twice_at_once(self):
        for _ in range(4):
            self.assertEqual(
                self.both(
                    lambda client: client.post(
                        f"/api/gardens/{self.garden.pk}/link", content_type="application/json"
                    )
                ),
                [200, 200],
            )
        self.assertEqual(ReadLink.objects.count(), 1)

    def test_one_write_sent_twice_at_once_is_done_once(self):
        edits = {
            "edits": [
                {
                    "kind": "bed",
                    "act": "add",
                    "key": "new",
                    "change": {"name": "Tide Bed", "length": 2, "width": 1},
                }
            ]
        }
        mark = {"Ascent-Mark": "11111111-2222"}
        path = f"/api/gardens/{self.garden.pk}/edits"
        self.assertEqual(
            self.both(lambda client: client.post(path, edits, content_type="application/json", headers=mark)),
            [200, 200],
        )
        self.assertEqual(Thing.objects.filter(garden=self.garden, key__startswith="tide-bed").count(), 1)

    def test_an_edit_of_a_garden_that_is_being_deleted(self):
        edits = {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"x": 3.0}}]}
        client = Client()
        client.force_login(self.mara)
        real = writing.known_of

        def gone(garden: Garden) -> Any:
            state = real(garden)
            Garden.objects.filter(pk=self.garden.pk).delete()
            return state

        with mock.patch("gardens.services.writing.known_of", side_effect=gone):
            self.assertEqual(
                client.post(
                    f"/api/gardens/{self.garden.pk}/edits", edits, content_type="application/json"
                ).status_code,
                404,
            )


class HomeTest(SimpleTestCase):
    def test_an_empty_secret_is_made_anew_and_a_good_one_stays(self):
        with tempfile.TemporaryDirectory() as folder, mock.patch.dict(os.environ, {"ASCENT_HOME": folder}):
            (Path(folder) / "secret").touch()
            first = home.secret_key()
            self.assertGreaterEqual(len(first), 50)
            self.assertEqual(home.secret_key(), first)
            self.assertEqual(stat.S_IMODE((Path(folder) / "secret").stat().st_mode), 0o600)

    def test_where_nothing_can_be_written_it_says_what_to_do(self):
        with tempfile.TemporaryDirectory() as folder, mock.patch.dict(os.environ, {"ASCENT_HOME": folder}):
            with (
                mock.patch(
                    "config.home.write_whole", side_effect=OSError(errno.ENOSPC, "No space left on device")
                ),
                self.assertRaises(SystemExit) as caught,
            ):
                home.secret_key()
            self.assertIn("No space left on device", str(caught.exception))
            self.assertFalse((Path(folder) / "secret").exists())


class LettersTest(StrangerTestCase):
    def test_each_mode_has_a_folder_of_its_own_closed_to_others_whatever_stood_there(self):
        with tempfile.TemporaryDirectory() as folder:
            for mode in ("demo", "serve"):
                box = Path(folder) / "mail" / mode
                box.mkdir(parents=True, mode=0o777)
                box.chmod(0o777)
                (box / "old.eml").write_text("x")
                (box / "old.eml").chmod(0o644)
                with override_settings(MAIL_FOLDER=box, EMAIL_BACKEND="accounts.letters.LetterBox"):
                    self.assertEqual(self.ask("post", "account/reset", {"mail": "mara@example.org"}), 200)
                self.assertEqual(stat.S_IMODE(box.stat().st_mode), 0o700)
                self.assertEqual({stat.S_IMODE(path.stat().st_mode) for path in box.iterdir()}, {0o600})
                self.assertEqual(len(list(box.iterdir())), 2)

    def test_what_is_no_letter_is_passed_over(self):
        with tempfile.TemporaryDirectory() as folder:
            box = Path(folder) / "demo"
            with override_settings(MAIL_FOLDER=box, EMAIL_BACKEND="accounts.letters.LetterBox", DEMO=True):
                self.ask("post", "account/reset", {"mail": "mara@example.org"})
                (box / "29990101-000000-x.eml").touch()
                self.assertEqual(
                    [letter["to"] for letter in self.client.get("/api/letters").json()], ["mara@example.org"]
                )


class PurgeTest(StrangerTestCase):
    def test_what_has_served_its_time_is_forgotten_and_the_rest_kept(self):
        self.client.force_login(self.mara)
        Client().force_login(self.mara)
        Session.objects.exclude(pk=self.client.session.session_key).update(expire_date="2020-01-01T00:00Z")
        for mark, when in (("old-one-1", "2020-01-01T00:00Z"), ("new-one-1", None)):
            sent = Sent.objects.create(person=self.mara, mark=mark)
            if when:
                Sent.objects.filter(pk=sent.pk).update(when=when)
        call_command("purge")
        self.assertEqual([session.pk for session in Session.objects.all()], [self.client.session.session_key])
        self.assertEqual([sent.mark for sent in Sent.objects.all()], ["new-one-1"])
