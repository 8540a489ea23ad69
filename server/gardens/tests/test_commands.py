"""Demo, accounts, tables check and generated documents, from the command line."""

from __future__ import annotations

import io
import os
import subprocess
import sys
from unittest import mock

from ascent.errors import BrokenTable
from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.test import TestCase

from gardens.checks import tables_load
from gardens.models import Garden, Thing


class DemoTest(TestCase):
    def test_loads_once_keeps_what_was_entered_and_starts_over_when_asked(self):
        call_command("demo")
        structure = Thing.objects.filter(kind="structure").first()
        structure.document["name"] = "Renamed"
        structure.save()
        call_command("demo")
        self.assertEqual((Garden.objects.count(), Thing.objects.filter(kind="structure").count()), (1, 23))
        self.assertTrue(Thing.objects.filter(document__name="Renamed").exists())
        call_command("demo", fresh=True)
        self.assertEqual((Garden.objects.count(), Thing.objects.filter(kind="structure").count()), (1, 23))
        self.assertFalse(Thing.objects.filter(document__name="Renamed").exists())

    def test_nobody_can_sign_in_to_the_demo_with_a_password(self):
        call_command("demo")
        self.assertFalse(any(user.has_usable_password() for user in get_user_model().objects.all()))


class AccountTest(TestCase):
    def make(self, name: str, typed: str) -> str:
        out = io.StringIO()
        with mock.patch.object(sys, "stdin", io.StringIO(typed)):
            call_command("account", name, stdout=out)
        return out.getvalue()

    def test_makes_an_account_with_an_empty_garden(self):
        self.assertIn("mara", self.make("mara", "tall-beans-9\n"))
        self.assertTrue(get_user_model().objects.get().check_password("tall-beans-9"))
        garden = Garden.objects.get()
        self.assertEqual((garden.owner.get_username(), garden.things.count()), ("mara", 0))

    def test_refuses_a_weak_password_and_a_taken_name(self):
        with self.assertRaises(CommandError):
            self.make("mara", "mara\n")
        self.assertFalse(get_user_model().objects.exists())
        self.make("mara", "tall-beans-9\n")
        with self.assertRaises(CommandError) as caught:
            self.make("mara", "tall-beans-9\n")
        self.assertIn("already", str(caught.exception))


class ChecksTest(TestCase):
    def test_a_broken_table_stops_the_start(self):
        self.assertEqual(tables_load(), [])
        with mock.patch("gardens.checks.tables.load_all", side_effect=BrokenTable("posts.csv line 3")):
            (found,) = tables_load()
        self.assertIn("posts.csv line 3", found.msg)

    def test_generated_documents_are_current_and_a_stale_one_is_named(self):
        call_command("openapi", check=True)
        with (
            mock.patch("config.management.commands.openapi.plan_schema", return_value={}),
            self.assertRaises(CommandError) as caught,
        ):
            call_command("openapi", check=True)
        self.assertIn("docs/plan.schema.json", str(caught.exception))

    def test_clean_for_deployment_behind_https(self):
        """As it would be served: settings are read anew, so in a process of its own."""
        environment = {k: v for k, v in os.environ.items() if k != "DJANGO_ALLOW_ASYNC_UNSAFE"} | {
            "ASCENT_MODE": "serve",
            "ASCENT_HTTPS": "1",
        }
        words = [
            sys.executable,
            str(settings.ROOT / "server" / "manage.py"),
            "check",
            "--deploy",
            "--fail-level",
            "WARNING",
        ]
        done = subprocess.run(words, env=environment, capture_output=True, text=True, timeout=60, check=False)
        self.assertEqual(done.returncode, 0, done.stderr)
