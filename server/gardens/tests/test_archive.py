"""A garden with its photos as one zip: out, in, and what is wrong with one."""

from __future__ import annotations

import base64
import io
import json
import zipfile
from typing import Any

from PIL import Image

from gardens.models import LogEntry, Photo

from .support import ApiTestCase
from .test_log import AT, picture


def zipped(**files: bytes | str) -> bytes:
    """Return a zip of files, by their names."""
    handle = io.BytesIO()
    with zipfile.ZipFile(handle, "w") as archive:
        for name, content in files.items():
            archive.writestr(name, content)
    return handle.getvalue()


ABOUT = json.dumps({"format": "ascent-archive", "layout": 1})


class ArchiveTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        change = {"at": AT, "line": "2 kg tomatoes from Lantern Row", "pictures": [picture()]}
        edit = {"kind": "entry", "act": "add", "key": "log-1", "change": change}
        self.call("post", f"gardens/{self.garden.pk}/edits/photos", {"edits": [edit]})

    def out(self) -> bytes:
        answer = self.client.get(f"/api/gardens/{self.garden.pk}/archive.zip")
        self.assertEqual(answer.status_code, 200)
        return b"".join(answer.streaming_content)

    def send(self, content: bytes, garden: int | None = None, kind: str = "application/zip") -> Any:
        return self.client.post(
            f"/api/gardens/{garden or self.garden.pk}/archive", content, content_type=kind
        )

    def wrong(self, content: bytes, allowed: str) -> None:
        before = Photo.objects.count()
        answer = self.send(content)
        self.assertEqual(answer.status_code, 422, answer.content[:300])
        self.assertIn(allowed, answer.content.decode())
        self.assertEqual(Photo.objects.count(), before)

    def test_a_garden_and_its_photos_come_back_as_they_were(self):
        content = self.out()
        (photo,) = Photo.objects.filter(garden=self.garden)
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            self.assertEqual(archive.namelist(), ["archive.json", "plan.json", f"photos/{photo.sha}.jpg"])
            self.assertEqual(archive.read(f"photos/{photo.sha}.jpg"), bytes(photo.large))
        self.client.force_login(self.other)
        text = self.send(content, self.theirs.pk).json()["text"]
        sent = {"what": "plan", "text": text, "take_away": False}
        number = self.call("post", f"gardens/{self.theirs.pk}/import/preview", sent)["number"]
        self.call("post", f"gardens/{self.theirs.pk}/import", {**sent, "number": number})
        (row,) = self.call("get", f"gardens/{self.theirs.pk}/log")["rows"]
        self.assertEqual(row["fields"]["photos"], [photo.sha])
        self.assertEqual(
            self.client.get(f"/api/gardens/{self.theirs.pk}/photos/{photo.sha}").status_code, 200
        )
        self.send(content, self.theirs.pk)
        self.assertEqual(Photo.objects.filter(garden=self.theirs).count(), 1)

    def test_a_photo_of_somebody_elses_making_is_freed_of_its_place_and_named_anew(self):
        taken = base64.b64decode(picture())
        plan = json.loads(zipfile.ZipFile(io.BytesIO(self.out())).read("plan.json"))
        plan["log"][0]["photos"] = ["a" * 64]
        name = f"photos/{'a' * 64}.jpg"
        text = self.send(zipped(**{"archive.json": ABOUT, "plan.json": json.dumps(plan), name: taken})).json()
        (sha,) = json.loads(text["text"])["log"][0]["photos"]
        self.assertNotEqual(sha, "a" * 64)
        image = Image.open(io.BytesIO(bytes(Photo.objects.get(garden=self.garden, sha=sha).large)))
        self.assertEqual(dict(image.getexif()), {})

    def test_what_no_entry_shows_is_not_kept(self):
        plan = zipfile.ZipFile(io.BytesIO(self.out())).read("plan.json")
        taken = base64.b64decode(picture())
        files = {"archive.json": ABOUT, "plan.json": plan, f"photos/{'b' * 64}.jpg": taken}
        self.assertEqual(self.send(zipped(**files)).status_code, 200)
        self.assertEqual(Photo.objects.filter(garden=self.garden).count(), 1)

    def test_what_is_no_archive_is_refused_and_keeps_nothing(self):
        plan = zipfile.ZipFile(io.BytesIO(self.out())).read("plan.json").decode()
        sha = json.loads(plan)["log"][0]["photos"][0]
        self.wrong(b"PK\x03\x04 no zip", "a zip that Ascent wrote")
        self.wrong(zipped(**{"archive.json": ABOUT}), "a zip that Ascent wrote")
        self.wrong(zipped(**{"archive.json": "{}", "plan.json": plan}), "layout 1")
        self.wrong(zipped(**{"archive.json": ABOUT, "plan.json": "{"}), "a zip that Ascent wrote")
        self.wrong(zipped(**{"archive.json": ABOUT, "plan.json": "[" * 200_000}), "a zip that Ascent wrote")
        files = {"archive.json": ABOUT, "plan.json": plan}
        self.wrong(zipped(**files, **{f"photos/{sha}.jpg": b"<svg/>"}), "JPEG")
        large = io.BytesIO()
        with zipfile.ZipFile(large, "w", zipfile.ZIP_DEFLATED) as archive:
            for name, content in {**files, f"photos/{sha}.jpg": bytes(9_000_000)}.items():
                archive.writestr(name, content)
        self.wrong(large.getvalue(), "up to 3000000 bytes")

    def test_it_is_bounded_and_for_those_who_may_write(self):
        self.assertEqual(self.send(b"{}", kind="application/json").status_code, 415)
        answer = self.client.post(
            f"/api/gardens/{self.garden.pk}/archive",
            b"",
            content_type="application/zip",
            CONTENT_LENGTH="32000001",
        )
        self.assertEqual(answer.status_code, 413)
        self.assertEqual(self.send(self.out(), self.theirs.pk).status_code, 404)
        self.assertEqual(LogEntry.objects.filter(garden=self.theirs).count(), 0)
