"""A backup written by an older program, brought up to date aside; backups that must not be taken in."""

from __future__ import annotations

import io
import json
import shutil
import sqlite3
import tempfile
import zipfile
from contextlib import closing
from pathlib import Path
from typing import Any
from unittest.mock import patch

from ascent.plan.garden import FORMAT_VERSION
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import Client, TransactionTestCase
from gardens.models import Change, Garden, Thing
from gardens.services import state

from backups import keeping

OLD = Path(__file__).parent / "old" / "backup-2.zip"
KEYLESS = OLD.with_name(
    "backup-3.zip"
)  # of the program before plantings had keys, with a change of a count in its log


SHEDLESS = OLD.with_name("backup-4.zip")  # of the program before gardens had a shed, its money never named


def copied(source: Path, target: Path) -> None:
    """Put the data of one file into another."""
    with closing(sqlite3.connect(source)) as old, closing(sqlite3.connect(target, timeout=30)) as new:
        old.backup(new)


class OldBackupTest(TransactionTestCase):
    """A backup written by the program before documents had a form, with two keys shared by two kinds, and a
    log about one of them.
    """

    def setUp(self) -> None:
        state._meant.cache_clear()
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.before = self.folder / "before.sqlite3"
        copied(keeping.data_file(), self.before)
        self.addCleanup(self.put_back)

    def put_back(self) -> None:
        connection.close()
        copied(self.before, keeping.data_file())
        for copy in keeping.data_file().parent.glob("*-before-restore-*.zip"):
            copy.unlink()

    def test_it_is_brought_up_aside_and_its_garden_opens_is_undone_and_restored(self):
        connection.close()
        call_command("restore", OLD, stdout=io.StringIO())
        connection.close()
        garden = Garden.objects.get()
        owner = get_user_model().objects.get(username="lantern-quay")
        self.assertEqual(
            {row.form for row in Thing.objects.all()} | {change.form for change in Change.objects.all()}, {2}
        )
        keys = [row.key for row in garden.things.all()]
        self.assertEqual(len(keys), len(set(keys)))
        client = Client()
        client.force_login(owner)
        path = f"/api/gardens/{garden.pk}"
        out = client.get(path).json()
        self.assertEqual(out["unreadable"], [])
        words = [change["words"] for change in client.get(f"{path}/history").json()]
        self.assertTrue(any("Store Wall South" in said for said in words), words)
        for number in range(len(words) + 1):
            self.assertEqual(client.get(f"{path}/history/{number}").status_code, 200, number)
        while client.get(path).json()["undo"]:
            answer = client.post(f"{path}/undo", content_type="application/json")
            self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(
            client.post(f"{path}/history/0/restore", content_type="application/json").status_code, 200
        )

    def test_plantings_of_the_program_before_are_keyed_in_the_garden_and_in_its_log(self):
        connection.close()
        call_command("restore", KEYLESS, stdout=io.StringIO())
        connection.close()
        garden = Garden.objects.get()
        client = Client()
        client.force_login(get_user_model().objects.get(username="lantern-quay"))
        path = f"/api/gardens/{garden.pk}"
        out = client.get(path).json()
        self.assertEqual(out["unreadable"], [])
        row = next(each["id"] for each in out["structures"] if each["key"] == "lantern-row")
        (planting,) = client.get(f"/api/structures/{row}").json()["draft"]["plantings"]
        self.assertEqual((planting["key"], planting["count"]), ("p1", 11))
        self.assertIn(
            "Lantern Row: Plants 13 → 11",
            [change["words"] for change in client.get(f"{path}/history").json()],
        )
        for _ in range(2):
            self.assertEqual(client.post(f"{path}/undo", content_type="application/json").status_code, 200)
        (planting,) = client.get(f"/api/structures/{row}").json()["draft"]["plantings"]
        self.assertEqual((planting["key"], planting["count"]), ("p1", 13))

    def test_a_garden_of_the_program_before_has_an_empty_shed_and_money_of_no_name(self):
        connection.close()
        call_command("restore", SHEDLESS, stdout=io.StringIO())
        connection.close()
        garden = Garden.objects.get()
        client = Client()
        client.force_login(get_user_model().objects.get(username="lantern-quay"))
        path = f"/api/gardens/{garden.pk}"
        self.assertEqual(client.get(f"{path}/shed").json()["rows"], [])
        out = client.get(path).json()
        self.assertEqual((out["place"]["fields"]["currency"], out["needs"], out["unreadable"]), ("¤", [], []))
        self.assertEqual(client.post(f"{path}/undo", content_type="application/json").status_code, 200)

    def test_two_wrong_restores_leave_the_first_data_where_it_was_kept(self):
        kept = []
        for _ in range(2):
            connection.close()
            kept.append(keeping.restore(OLD))
        self.assertEqual(len(set(kept)), 2)
        self.assertTrue(all(path.exists() for path in kept))

    def test_a_newer_one_and_a_stranger_s_file_are_refused_and_nothing_is_changed(self):
        connection.close()
        state_before, copies = keeping._digest(keeping.data_file()), self._copies()
        for name, spoil in (
            ("newer form", self._newer_form),
            ("newer steps", self._newer_steps),
            ("one table of ours", self._one_table),
            ("gigabytes of nothing", self._nothing),
        ):
            with self.subTest(name):
                file = self.folder / f"{name}.zip"
                spoil(file)
                with self.assertRaises(CommandError) as caught:
                    call_command("restore", file)
                self.assertIn("nothing was changed", str(caught.exception))
                said = (
                    "newer Ascent"
                    if "newer" in name
                    else "no data file"
                    if "nothing" in name
                    else "no sound data"
                )
                self.assertIn(said, str(caught.exception))
        connection.close()
        self.assertEqual(keeping._digest(keeping.data_file()), state_before)
        self.assertEqual(self._copies(), copies)

    def _copies(self) -> set[Path]:
        return set(keeping.data_file().parent.glob("*-before-restore-*.zip"))

    def _repack(self, file: Path, change: Any, **label: Any) -> None:
        with zipfile.ZipFile(OLD) as archive:
            archive.extractall(self.folder / "un")
        data = self.folder / "un" / "ascent.sqlite3"
        change(data)
        told = {"format": "ascent-backup", "version": 1, "sha256": keeping._digest(data), "bytes": 0, **label}
        with zipfile.ZipFile(file, "w") as archive:
            archive.write(data, "ascent.sqlite3")
            archive.writestr("manifest.json", json.dumps(told))
        shutil.rmtree(self.folder / "un")

    def _nothing(self, file: Path) -> None:
        """A stranger's file that unpacks to much: its first bytes tell, and no more of it is read."""
        with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as archive:
            archive.writestr(
                "manifest.json", json.dumps({"format": "ascent-backup", "version": 1, "sha256": ""})
            )
            with archive.open("ascent.sqlite3", "w", force_zip64=True) as data:
                for _ in range(64):
                    data.write(bytes(1 << 20))
        extracted = patch.object(zipfile.ZipFile, "extract", side_effect=AssertionError("it was unpacked"))
        extracted.start()
        self.addCleanup(extracted.stop)

    def _newer_form(self, file: Path) -> None:
        self._repack(file, lambda _data: None, version=FORMAT_VERSION + 1)

    def _newer_steps(self, file: Path) -> None:
        def change(data: Path) -> None:
            with closing(sqlite3.connect(data)) as found, found:
                found.execute(
                    "INSERT INTO django_migrations (app, name, applied) "
                    "VALUES ('gardens', '0099_later', '2030-01-01')"
                )

        self._repack(file, change)

    def _one_table(self, file: Path) -> None:
        def change(data: Path) -> None:
            data.unlink()
            with closing(sqlite3.connect(data)) as found, found:
                found.execute("CREATE TABLE gardens_garden (id INTEGER)")

        self._repack(file, change)
