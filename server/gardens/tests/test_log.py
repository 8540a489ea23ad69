"""The log: written once by each sender, read by pages, and what the season makes of it."""

from __future__ import annotations

import base64
import datetime as dt
import hashlib
import io
import json
from typing import Any

from django.test import override_settings
from django.utils import timezone
from PIL import Image

from gardens.models import LogEntry, Photo, Sent
from gardens.services.photos import purge_unused

from .support import ApiTestCase

AT = "2026-07-06T17:00:00+00:00"


def picture() -> str:
    """Return a photo on its side, with a place written in it, in base64."""
    exif = Image.Exif()
    exif[0x0112] = 6  # turn a quarter clockwise
    exif.get_ifd(0x8825)[1] = "N"
    handle = io.BytesIO()
    Image.linear_gradient("L").resize((2000, 1000)).save(handle, "JPEG", exif=exif)
    return base64.b64encode(handle.getvalue()).decode()


class LogCase(ApiTestCase):
    def log(self, key: str, status: int = 200, **change: Any) -> Any:
        return self.edited(
            [{"kind": "entry", "act": "add", "key": key, "change": {"at": AT, **change}}], status
        )

    def page(self, **asked: str) -> Any:
        query = "&".join(f"{name}={value}" for name, value in asked.items())
        return self.call("get", f"gardens/{self.garden.pk}/log?{query}")


class LogTest(LogCase):
    def test_a_line_is_read_when_it_arrives(self):
        self.log("log-1", line="6 lb tomatoes from Lantern Row", on="2026-07-06", who="mara")
        row = self.page()["rows"][0]
        self.assertEqual(row["words"], "2.7 kg picked: slicing tomato")
        self.assertEqual((row["name"], row["place"], row["label"]), ("Harvest", "Lantern Row", "6 July"))
        self.assertAlmostEqual(row["fields"]["mass"], 6 * 0.45359237)
        self.assertEqual(row["structure"], self.structure.pk)

    def test_a_line_is_told_before_it_is_saved(self):
        sent = {"line": "post 3 leans 4 cm", "about": self.structure.key}
        told = self.call("post", f"gardens/{self.garden.pk}/log/read", sent)
        self.assertEqual((told["words"], told["place"]), ("Post 3 leans 4.0 cm", "Lantern Row"))
        self.assertEqual(LogEntry.objects.count(), 0)

    def test_a_line_that_cannot_be_is_refused_and_says_what_is_allowed(self):
        sent = {"line": "post 33 leans 4 cm", "about": self.structure.key}
        self.refused("post", f"gardens/{self.garden.pk}/log/read", sent, "line", "counted from the start")

    def test_each_entry_is_written_once_however_often_it_comes(self):
        edits = [
            {"kind": "entry", "act": "add", "key": "log-1", "change": {"at": AT, "line": "12 cucumbers"}}
        ]
        for _ in range(3):
            answer = self.client.post(
                f"/api/gardens/{self.garden.pk}/edits",
                {"edits": edits},
                content_type="application/json",
                headers={"Ascent-Mark": "one-write-1"},
            )
            self.assertEqual(answer.status_code, 200, answer.content[:300])
        self.assertEqual(LogEntry.objects.filter(garden=self.garden).count(), 1)
        self.assertEqual(Sent.objects.count(), 1)

    def test_a_key_is_one_entrys_alone(self):
        self.log("log-1", line="12 cucumbers")
        problems = self.log("log-1", 422, line="14 cucumbers")["problems"]
        self.assertEqual(problems[0]["path"], "edits[0].entry.key")

    def test_it_is_corrected_removed_and_undone(self):
        self.log("log-1", line="6 lb tomatoes from Lantern Row")
        edit = {"kind": "entry", "act": "change", "key": "log-1", "revision": 1, "change": {"mass": 3.0}}
        self.edited([edit])
        self.assertEqual(self.page()["rows"][0]["words"], "3.0 kg picked: slicing tomato")
        stale = self.edited([edit], 409)
        self.assertEqual(stale["things"][0]["kind"], "entry")
        self.edited([{"kind": "entry", "act": "remove", "key": "log-1", "revision": 2}])
        self.assertEqual(self.page()["rows"], [])
        self.call("post", f"gardens/{self.garden.pk}/undo")
        self.assertEqual(len(self.page()["rows"]), 1)
        self.call("post", f"gardens/{self.garden.pk}/undo")
        self.assertEqual(self.page()["rows"][0]["words"], "2.7 kg picked: slicing tomato")

    def test_going_back_in_the_history_keeps_what_happened(self):
        number = self.call("get", f"gardens/{self.garden.pk}")["number"]
        self.log("log-1", line="12 cucumbers")
        self.call("post", f"gardens/{self.garden.pk}/history/{number}/restore")
        self.assertEqual(len(self.page()["rows"]), 1)

    def test_what_was_written_at_a_place_that_is_gone_is_not_lost(self):
        self.log("log-1", kind="harvest", crop="tom-slicer", mass=2.0, structure="gone-row", on="2026-07-06")
        row = self.page()["rows"][0]
        self.assertIn("gone-row", row["fields"]["note"])
        problems = self.log("log-2", 422, kind="slip", structure=None)["problems"]
        self.assertIn("its key is needed", problems[0]["allowed"])

    def test_it_comes_by_pages_and_by_what_is_asked(self):
        edits = [
            {
                "kind": "entry",
                "act": "add",
                "key": f"log-{n}",
                "change": {"at": AT, "kind": "water", "volume": 0.01, "on": f"2026-06-{1 + n % 30:02d}"},
            }
            for n in range(130)
        ]
        self.edited(edits)
        self.log("log-a", line="6 lb tomatoes from Lantern Row", on="2026-06-10")
        seen, mark = [], ""
        for _ in range(3):
            page = self.page(before=mark)
            seen += [row["key"] for row in page["rows"]]
            mark = page["next"]
        self.assertEqual((len(seen), len(set(seen)), mark), (131, 131, ""))
        self.assertEqual([row["key"] for row in self.page(kind="harvest")["rows"]], ["log-a"])
        self.assertEqual([row["key"] for row in self.page(about="lantern-row")["rows"]], ["log-a"])
        self.refused("get", f"gardens/{self.garden.pk}/log?before=2026-99-99.1", None, "before")

    def test_files_carry_it_and_bring_it_once(self):
        self.log("log-1", line="6 lb tomatoes from Lantern Row")
        plan = self.call("get", f"gardens/{self.garden.pk}/plan.json")
        self.assertEqual([entry["key"] for entry in plan["log"]], ["log-1"])
        table = self.call("get", f"gardens/{self.garden.pk}/tables/log.csv")
        made = self.call("post", "gardens/import", {"what": "plan", "text": json.dumps(plan)})
        self.assertEqual(LogEntry.objects.filter(garden_id=made["id"], key="log-1").count(), 1)
        self.edited([{"kind": "entry", "act": "remove", "key": "log-1", "revision": 1}])
        self.assertEqual(self.page()["rows"], [])
        for sent in ({"what": "log", "text": table}, {"what": "plan", "text": json.dumps(plan)}):
            number = self.call("post", f"gardens/{self.garden.pk}/import/preview", sent)["number"]
            self.call("post", f"gardens/{self.garden.pk}/import", {**sent, "number": number})
            self.assertEqual([row["key"] for row in self.page()["rows"]], ["log-1"])
        self.call("post", f"gardens/{self.garden.pk}/undo")

    def test_a_part_that_was_pressed_is_meant(self):
        part = "post@114"
        self.log("log-1", line="leans 4 cm", structure="lantern-row", member=part)
        self.assertEqual(self.page()["rows"][0]["words"], "Post 2 leans 4.0 cm")

    def test_a_photo_is_kept_once_upright_small_and_tells_no_place(self):
        taken = picture()
        path = f"gardens/{self.garden.pk}/edits/photos"
        for n, line in enumerate(("2 kg tomatoes from Lantern Row", "post 3 of Lantern Row leans 4 cm")):
            change = {"at": AT, "line": line, "pictures": [taken]}
            edit = {"kind": "entry", "act": "add", "key": f"log-{n}", "change": change}
            self.call("post", path, {"edits": [edit]})
        (photo,) = Photo.objects.filter(garden=self.garden)
        self.assertEqual((photo.width, photo.height), (800, 1600))  # turned, and scaled from 2000 by 1000
        for row in self.page()["rows"]:
            self.assertEqual(row["fields"]["photos"], [photo.sha])
        address = f"/api/gardens/{self.garden.pk}/photos/{photo.sha}"
        content = self.client.get(address).content
        self.assertEqual(hashlib.sha256(content).hexdigest(), photo.sha)
        image = Image.open(io.BytesIO(content))
        self.assertEqual((image.format, dict(image.getexif()), image.info.get("exif")), ("JPEG", {}, None))
        small = Image.open(io.BytesIO(self.client.get(f"{address}?small=true").content))
        self.assertEqual(max(small.size), 320)
        theirs = self.client.get(f"/api/gardens/{self.theirs.pk}/photos/{photo.sha}")
        self.assertEqual(theirs.status_code, 404)

    def test_what_is_no_photo_is_refused_and_nothing_is_kept(self):
        for content in (b"<svg/>", b"GIF89a" + bytes(40), b"\xff\xd8\xff\xe0" + bytes(200), b""):
            change = {"at": AT, "line": "12 cucumbers", "pictures": [base64.b64encode(content).decode()]}
            edit = {"kind": "entry", "act": "add", "key": "log-1", "change": change}
            sent = {"edits": [edit]}
            path = f"gardens/{self.garden.pk}/edits/photos"
            self.refused("post", path, sent, "edits[0].entry.pictures[0]", "JPEG, PNG or WebP")
        self.assertEqual((LogEntry.objects.count(), Photo.objects.count()), (0, 0))

    def test_a_photo_that_no_entry_shows_is_purged_after_its_days(self):
        change = {"at": AT, "kind": "photo", "pictures": [picture()]}
        edit = {"kind": "entry", "act": "add", "key": "log-1", "change": change}
        self.call("post", f"gardens/{self.garden.pk}/edits/photos", {"edits": [edit]})
        Photo.objects.update(added=timezone.now() - dt.timedelta(days=31))
        self.assertEqual(purge_unused(), 0)
        LogEntry.objects.all().delete()
        self.assertEqual(purge_unused(), 1)

    def test_a_key_of_what_is_gone_is_given_to_nothing_else(self):
        self.log("log-1", line="2 kg tomatoes from Lantern Row")
        self.edited([{"kind": "structure", "act": "remove", "key": "lantern-row"}])
        copied = {"kind": "structure", "act": "add", "key": "new", "copy_of": "cove-fence"}
        self.edited([{**copied, "change": {"name": "Lantern Row", "bed": "long-plot-a"}}])
        made = self.garden.things.get(kind="structure", document__name="Lantern Row")
        self.assertNotEqual(made.key, "lantern-row")
        self.assertEqual(LogEntry.objects.get(garden=self.garden).structure, "lantern-row")

    def test_others_read_none_of_it(self):
        self.call("get", f"gardens/{self.theirs.pk}/log", status=404)


@override_settings(TODAY=dt.date(2026, 8, 11))
class ConsequencesTest(LogCase):
    """What the week and the year make of the log."""

    def week(self) -> Any:
        return self.call("get", f"gardens/{self.garden.pk}/week")

    def tasks(self, week: Any) -> list[Any]:
        days = [day for day in (week["report"]["now"], *week["report"]["coming"]) if day]
        visits = [visit for day in days for visit in day["visits"] if visit["structure"] == "lantern-row"]
        visits += [visit for visit in week["report"]["overdue"] if visit["structure"] == "lantern-row"]
        return [task for visit in visits for task in visit["tasks"]]

    def test_what_broke_is_to_be_repaired_and_is_not_picked_until_then(self):
        today = self.page()["today"]
        self.log("log-broke", line="post 3 of Lantern Row broke", on=today)
        tasks = self.tasks(self.week())
        repair = next(task for task in tasks if task["job"] == "repair")
        self.assertEqual(repair["title"], "Repair post 3")
        picks = [task for task in tasks if task["sort"] == "pick"]
        self.assertTrue(all("repair post 3 first" in task["waits"] for task in picks))
        self.log("log-mended", line="repaired post 3 of Lantern Row, 40 min", on=today)
        tasks = self.tasks(self.week())
        self.assertEqual([task for task in tasks if task["job"] == "repair" or task["waits"]], [])

    def test_what_broke_is_said_on_the_plan_and_on_the_bench(self):
        lines = f"gardens/{self.garden.pk}/lines?keys=lantern-row"
        self.assertEqual(self.call("get", lines)[0]["broken"], "")
        self.log("log-broke", line="post 3 of Lantern Row broke", on="2026-08-10")
        row = self.call("get", lines)[0]
        self.assertEqual(row["state"], "inadequate")
        self.assertIn("Broken since 10 August: post 3.", row["broken"])
        self.assertEqual(self.call("get", f"structures/{self.structure.pk}")["broken"], row["broken"])

    def test_a_life_is_told(self):
        self.log("log-1", line="2.4 kg tomatoes from Lantern Row", on="2026-08-10")
        self.log("log-2", line="paid 12 for twine at Lantern Row", on="2026-08-10")
        report = self.call("get", f"structures/{self.structure.pk}/life")["report"]
        self.assertEqual(report["events"][0]["label"], "10 August")
        figures = {each["label"]: each["text"] for each in report["figures"]}
        self.assertIn("2.4 kg picked so far", figures["Tomato, indeterminate, slicer"])
        self.assertIn("12.00", figures["Cost"])
        week = next(each for each in report["weeks"] if each["monday"] == "2026-08-10")
        self.assertEqual(week["came"], 2.4)

    def test_a_treatment_closes_picking_for_its_days(self):
        today = self.page()["today"]
        before = [task["waits"] for task in self.tasks(self.week()) if task["sort"] == "pick"]
        self.assertEqual(set(before) - {""}, set())
        self.log("log-1", line="sprayed tomatoes on Lantern Row with soap, wait 60 days", on=today)
        picks = [task for task in self.tasks(self.week()) if task["sort"] == "pick"]
        self.assertEqual(len(picks), len(before))
        self.assertTrue(all("soap, 60 days to wait" in task["waits"] for task in picks))

    def test_a_harvest_moves_the_forecast_of_the_rest(self):
        year = f"gardens/{self.garden.pk}/year"
        before = self.call("get", year)["report"]
        row = next(each for each in before["harvest"]["rows"] if each["structure"] == "lantern-row")
        self.assertEqual(row["came"], "")
        today = self.page()["today"]
        self.log("log-1", line="0.2 kg tomatoes from Lantern Row", on=today)
        after = self.call("get", year)["report"]
        row = next(each for each in after["harvest"]["rows"] if each["structure"] == "lantern-row")
        self.assertTrue(row["came"].startswith("0.2 kg so far"), row["came"])
