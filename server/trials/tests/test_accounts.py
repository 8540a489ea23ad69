"""Accounts: signing in and out, making one, passwords, throttling, deleting; CSRF always, one form of
refusal.
"""

from __future__ import annotations

import json
import re
import shutil
from typing import Any

from axes.models import AccessAttempt, AccessFailureLog, AccessLog
from config.api import api
from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.cache import cache
from django.test import Client, TestCase, override_settings
from gardens.models import Change, Garden
from gardens.tests.support import demo_garden

PASSWORD = "tall-beans-9"


class AccountTestCase(TestCase):
    @classmethod
    def setUpTestData(cls) -> None:
        cls.mara = get_user_model().objects.create_user("mara", email="mara@example.org", password=PASSWORD)

    def setUp(self) -> None:
        cache.clear()  # tries are counted by address, and every test comes from one

    def send(self, path: str, body: Any, status: int = 200, method: str = "post", **headers: str) -> Any:
        answer = getattr(self.client, method)(
            f"/api/{path}", json.dumps(body), content_type="application/json", **headers
        )
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def sign_in(self, password: str = PASSWORD, status: int = 200) -> Any:
        return self.send("session", {"name": "mara", "password": password}, status)


class SessionTest(AccountTestCase):
    def test_in_and_out(self):
        self.assertIsNone(self.client.get("/api/session").json()["name"])
        self.assertEqual(
            self.sign_in(),
            {
                "name": "mara",
                "mail": "mara@example.org",
                "demo": False,
                "sign_up": True,
                "supplier": False,
                "scale": False,
            },
        )
        self.assertEqual(self.client.get("/api/gardens").status_code, 200)
        self.assertIsNone(self.client.delete("/api/session").json()["name"])
        self.assertEqual(self.client.get("/api/gardens").status_code, 401)

    def test_wrong_password_and_malformed(self):
        self.assertEqual(self.sign_in("guess", 401)["problems"][0]["path"], "password")
        for body in ({}, [], "x", {"name": "mara"}, {"name": "mara", "password": "x" * 500}):
            self.send("session", body, 422)

    def test_csrf_covers_every_write_of_the_api(self):
        """From the API's own document, so that a new endpoint is in it by itself."""
        self.client = Client(enforce_csrf_checks=True)
        self.client.force_login(self.mara)
        for path, verbs in api.get_openapi_schema(path_prefix="/api/")["paths"].items():
            for verb in set(verbs) - {"get"}:
                address = re.sub(r"\{\w+\}", "1", path)
                kind = "application/zip" if address.endswith("/archive") else "application/json"
                answer = getattr(self.client, verb)(address, b"{}", content_type=kind)
                self.assertEqual(answer.status_code, 403, (verb, path))
        self.client.get("/")
        token = self.client.cookies["csrftoken"].value
        self.send("session", {"name": "mara", "password": PASSWORD}, HTTP_X_CSRFTOKEN=token)

    def test_many_wrong_passwords_are_throttled_for_that_name_only(self):
        other = get_user_model().objects.create_user("tobin", password="tall-peas-9")
        for _ in range(settings.AXES_FAILURE_LIMIT - 1):
            self.sign_in("guess", 401)
        self.sign_in("guess", 429)
        self.assertIn("wait", self.sign_in(PASSWORD, 429)["problems"][0]["allowed"])
        self.send("session", {"name": other.username, "password": "tall-peas-9"})


class SignUpTest(AccountTestCase):
    def test_an_account_is_made_and_signed_in(self):
        out = self.send("account", {"name": "tobin", "mail": "tobin@example.org", "password": "tall-peas-9"})
        self.assertEqual(out["name"], "tobin")
        self.assertEqual(self.client.get("/api/gardens").json(), [])

    def test_every_wrong_field_is_named(self):
        out = self.send("account", {"name": "mara", "mail": "nowhere", "password": "12345"}, 422)
        self.assertEqual({p["path"] for p in out["problems"]}, {"name", "mail", "password"})
        self.assertEqual(get_user_model().objects.count(), 1)

    def test_a_name_is_taken_as_people_write_it_and_in_one_form(self):
        for written, kept in (
            ("Anna  Berg ", "Anna Berg"),
            ("Zoë O’Neill-Smith", "Zoë O’Neill-Smith"),
            ("Θάλεια Νερού", "Θάλεια Νερού"),
            ("मीरा देवी", "मीरा देवी"),
            ("港の庭", "港の庭"),
        ):
            with self.subTest(written=written):
                cache.clear()
                sent = {"name": written, "password": "tall-peas-9"}
                self.assertEqual(self.send("account", sent)["name"], kept)
                self.assertEqual(self.send("session", sent)["name"], kept)
        cache.clear()
        taken = self.send("account", {"name": "anna berg", "password": "tall-peas-9"}, 422)["problems"][0]
        self.assertIn("no other account", taken["allowed"])

    def test_a_name_that_no_address_can_hold_is_refused(self):
        for name in ("..", "a/b", "a\u0000b", "🌱", "right\u202eleft"):
            with self.subTest(name=name):
                cache.clear()
                problem = self.send("account", {"name": name, "password": "tall-peas-9"}, 422)["problems"][0]
                self.assertEqual(problem["path"], "name")

    @override_settings(SIGN_UP=False)
    def test_closed(self):
        self.assertFalse(self.client.get("/api/session").json()["sign_up"])
        self.send("account", {"name": "tobin", "password": "tall-peas-9"}, 422)


class PasswordTest(AccountTestCase):
    def test_changed_and_other_sessions_end(self):
        elsewhere = Client()
        elsewhere.force_login(self.mara)
        self.sign_in()
        self.send("account/password", {"old": PASSWORD, "new": "taller-beans-10"}, method="put")
        self.assertEqual(self.client.get("/api/gardens").status_code, 200)
        self.assertEqual(elsewhere.get("/api/gardens").status_code, 401)
        self.client.delete("/api/session")
        self.sign_in("taller-beans-10")

    def test_refused_with_the_wrong_old_one_or_a_weak_new_one(self):
        self.sign_in()
        self.assertEqual(
            self.send("account/password", {"old": "x", "new": "taller-beans-10"}, 422, "put")["problems"][0][
                "path"
            ],
            "old",
        )
        self.assertEqual(
            self.send("account/password", {"old": PASSWORD, "new": "mara"}, 422, "put")["problems"][0][
                "path"
            ],
            "new",
        )
        self.send("account/password", {"old": PASSWORD, "new": "y"}, 422, "put")

    @override_settings(EMAIL_BACKEND="accounts.letters.LetterBox", DEMO=True)
    def test_reset_by_a_letter_that_the_stand_in_writes(self):
        shutil.rmtree(settings.MAIL_FOLDER, ignore_errors=True)
        self.send("account/reset", {"mail": "mara@example.org"})
        self.send("account/reset", {"mail": "nobody@example.org"})
        (letter,) = self.client.get("/api/letters").json()
        self.assertEqual(letter["to"], "mara@example.org")
        who, token = re.search(r"/reset/([^/\s]+)/(\S+)", letter["text"]).groups()
        self.assertEqual(
            self.send("account/reset", {"who": who, "token": token, "password": "mara"}, 422, "put")[
                "problems"
            ][0]["path"],
            "new",
        )
        self.send("account/reset", {"who": who, "token": token, "password": "brand-new-peas-3"}, method="put")
        self.send("account/reset", {"who": who, "token": token, "password": "once-more-peas-3"}, 422, "put")
        self.sign_in("brand-new-peas-3")

    def test_a_link_that_is_none(self):
        for who in ("x", "MQ", "!!", "é"):
            self.send(
                "account/reset", {"who": who, "token": "a-b", "password": "brand-new-peas-3"}, 422, "put"
            )

    def test_letters_are_for_the_demo_only(self):
        self.assertEqual(self.client.get("/api/letters").status_code, 404)


class DeleteTest(AccountTestCase):
    def test_with_all_its_data_and_only_with_the_password(self):
        garden = demo_garden(self.mara)
        self.sign_in()
        path, edits = f"gardens/{garden.pk}/edits", [{"kind": "place", "change": {"name": "Quay"}}]
        self.send(path, {"edits": edits})
        self.send("account", {"password": "guess"}, 422, "delete")
        self.assertTrue(Garden.objects.exists())
        self.send("account", {"password": PASSWORD}, method="delete")
        self.assertEqual(
            (get_user_model().objects.count(), Garden.objects.count(), Change.objects.count()), (0, 0, 0)
        )
        self.assertIsNone(self.client.get("/api/session").json()["name"])

    def test_its_name_is_in_no_log_of_sign_ins(self):
        self.send("session", {"name": "mara", "password": "guess"}, 401)
        self.sign_in()
        self.assertTrue(AccessLog.objects.filter(username="mara").exists())
        self.send("account", {"password": PASSWORD}, method="delete")
        for log in (AccessAttempt, AccessFailureLog, AccessLog):
            self.assertFalse(log.objects.filter(username="mara").exists(), log.__name__)


class HostTest(AccountTestCase):
    def test_a_foreign_host_is_answered_and_writes_no_traceback(self):
        with self.assertNoLogs(level="ERROR"):
            answer = self.client.get("/api/session", headers={"Host": "elsewhere.example"})
        self.assertEqual(answer.status_code, 400)


@override_settings(DEMO=True, DEMO_USER="mara")
class DemoTest(AccountTestCase):
    def test_one_is_let_in_and_may_leave_and_come_back(self):
        self.assertEqual(self.client.get("/api/session").json()["name"], "mara")
        self.assertIsNone(self.send("session", {}, method="delete")["name"])
        self.assertIsNone(self.client.get("/api/session").json()["name"])
        self.assertEqual(self.send("session/demo", {})["name"], "mara")
