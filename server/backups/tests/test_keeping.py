"""Backup and restore while the application writes, and the doctor."""

from __future__ import annotations

import io
import json
import shutil
import sqlite3
import tempfile
import threading
import zipfile
from contextlib import closing
from pathlib import Path
from unittest import mock

from ascent.errors import BrokenTable
from django.contrib.auth import get_user_model
from django.core.management import CommandError, call_command
from django.db import connection, connections
from django.test import TransactionTestCase
from gardens.models import Thing
from gardens.tests.support import demo_garden

from backups import keeping


class KeepingTestCase(TransactionTestCase):
    def setUp(self) -> None:
        self.garden = demo_garden(get_user_model().objects.create_user("mara"))
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.file = self.folder / "b.zip"

    def rename(self, name: str) -> None:
        bed = Thing.objects.get(garden=self.garden, key="cove-bed")
        bed.document["name"] = name
        bed.save()

    def name(self) -> str:
        connection.close()
        return Thing.objects.get(garden=self.garden, key="cove-bed").document["name"]


class BackupTest(KeepingTestCase):
    def test_there_and_back(self):
        self.rename("Kept")
        call_command("backup", self.file, stdout=io.StringIO())
        self.rename("Changed since")
        out = io.StringIO()
        call_command("restore", self.file, stdout=out)
        self.assertEqual(self.name(), "Kept")
        kept = Path(out.getvalue().split(" is kept at ")[1].strip().rstrip("."))
        keeping.restore(kept)
        self.assertEqual(self.name(), "Changed since", "what was there before the restore is kept")

    def test_taken_while_others_write_it_is_one_whole_state(self):
        stop = threading.Event()

        def write() -> None:
            n = 0
            while not stop.is_set():
                n += 1
                with closing(sqlite3.connect(keeping.data_file(), timeout=20)) as own, own:
                    own.execute(
                        "UPDATE gardens_thing SET revision = ? WHERE garden_id = ?", (n, self.garden.pk)
                    )

        writer = threading.Thread(target=write)
        writer.start()
        try:
            for n in range(5):
                keeping.backup(self.folder / f"{n}.zip")
        finally:
            stop.set()
            writer.join()
        for n in range(5):
            with zipfile.ZipFile(self.folder / f"{n}.zip") as archive:
                archive.extract("ascent.sqlite3", self.folder / str(n))
            with closing(sqlite3.connect(self.folder / str(n) / "ascent.sqlite3")) as found:
                revisions = {row[0] for row in found.execute("SELECT revision FROM gardens_thing")}
                self.assertEqual(found.execute("PRAGMA integrity_check").fetchone()[0], "ok")
            self.assertEqual(len(revisions), 1, "all rows of one moment")

    def test_a_damaged_one_is_refused_and_nothing_is_changed(self):
        keeping.backup(self.file)
        whole = self.file.read_bytes()
        self.rename("Still here")
        with zipfile.ZipFile(self.file) as archive:
            data, label = archive.read("ascent.sqlite3"), json.loads(archive.read("manifest.json"))
        swapped = io.BytesIO()
        with zipfile.ZipFile(swapped, "w") as archive:
            archive.writestr("ascent.sqlite3", data[:5000] + b"x" + data[5001:])
            archive.writestr("manifest.json", json.dumps(label))
        for damaged in (
            whole[:-100],
            whole[:300] + b"\0" * 50 + whole[350:],
            b"",
            b"hello",
            swapped.getvalue(),
        ):
            self.file.write_bytes(damaged)
            with self.assertRaises(CommandError) as caught:
                call_command("restore", self.file)
            self.assertIn("nothing was changed", str(caught.exception))
        self.assertEqual(self.name(), "Still here")

    def test_something_else_in_a_zip_is_no_backup(self):
        with zipfile.ZipFile(self.file, "w") as archive:
            archive.writestr("manifest.json", "[]")
        with self.assertRaises(keeping.BadBackup):
            keeping.restore(self.file)
        with self.assertRaises(keeping.BadBackup):
            keeping.restore(self.folder / "nothing.zip")

    def test_where_nothing_can_be_written_it_says_so(self):
        with self.assertRaises(CommandError) as caught:
            call_command("backup", self.folder / "no" / "such" / "place.zip")
        self.assertIn("cannot be written", str(caught.exception))


class DoctorTest(KeepingTestCase):
    def examined(self) -> tuple[str, bool]:
        out = io.StringIO()
        try:
            call_command("doctor", stdout=out)
        except CommandError:
            return out.getvalue(), False
        return out.getvalue(), True

    def test_sound(self):
        keeping.data_file().parent.chmod(0o700)
        text, sound = self.examined()
        self.assertTrue(sound, text)
        self.assertEqual(text.count("sound "), 8)

    def test_a_broken_table_and_an_open_folder_are_named_with_what_to_do(self):
        folder = keeping.data_file().parent
        folder.chmod(0o755)
        self.addCleanup(folder.chmod, 0o700)
        with mock.patch("backups.keeping.tables.load_all", side_effect=BrokenTable("posts.csv line 3")):
            text, sound = self.examined()
        self.assertFalse(sound)
        self.assertIn("posts.csv line 3", text)
        self.assertIn(f"chmod 700 {folder}", text)

    def test_a_damaged_data_file_is_told_from_a_sound_one(self):
        broken = self.folder / "broken.sqlite3"
        connection.close()
        shutil.copy(keeping.data_file(), broken)
        content = broken.read_bytes()
        broken.write_bytes(content[:4096] + b"\xff" * 8192 + content[12288:])
        with mock.patch("backups.keeping.data_file", return_value=broken):
            finding = next(found for found in keeping.examine() if found.what == "data file")
        self.assertFalse(finding.sound)
        self.assertIn("restore", finding.do)
        connections.close_all()
