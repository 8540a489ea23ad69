"""Files in and out: what an import would do is told first, and a damaged file changes nothing."""

from __future__ import annotations

import json

from ascent.files.plan import read_plan
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TransactionTestCase

from gardens.models import Change, Garden, Thing

from .support import ApiTestCase


class ImportTest(ApiTestCase):
    def path(self, rest: str = "") -> str:
        return f"gardens/{self.garden.pk}{rest}"

    def plan(self) -> str:
        return self.client.get(f"/api/{self.path('/plan.json')}").content.decode()

    def snapshot(self) -> str:
        return self.plan()

    def test_the_whole_garden_out_and_in_again_is_nothing_new(self):
        text = self.plan()
        self.assertEqual(len(read_plan(text).garden.beds), 21)
        self.assertEqual(self.call("post", self.path("/import/preview"), {"text": text})["lines"], [])

    def test_as_a_garden_of_its_own_it_is_the_same_garden(self):
        out = self.call("post", "gardens/import", {"text": self.plan()})
        self.assertNotEqual(out["id"], self.garden.pk)
        other = self.client.get(f"/api/gardens/{out['id']}/plan.json").content.decode()
        self.assertEqual(other, self.plan())

    def test_what_is_added_and_changed_is_told_then_done_as_one_change(self):
        document = json.loads(self.plan())
        beds = document["garden"]["beds"]
        beds[0]["name"] = "Gull Strip"
        beds.append({**beds[2], "key": "new-bed", "name": "New Bed", "structures": []})
        del beds[-2]
        sent = {"text": json.dumps(document)}
        told = self.call("post", self.path("/import/preview"), sent)
        self.assertEqual(
            [(line["act"], line["words"]) for line in told["lines"]],
            [("change", "bed Gull Strip: Name Sand Strip → Gull Strip"), ("add", "bed New Bed added")],
        )
        self.assertEqual(Change.objects.count(), 0, "nothing was stored")
        away = self.call("post", self.path("/import/preview"), {**sent, "take_away": True})["lines"]
        self.assertIn(("remove", "bed Fence Bed removed"), [(line["act"], line["words"]) for line in away])
        out = self.call("post", self.path("/import"), {**sent, "number": told["number"]})
        self.assertEqual(len(out["beds"]), 22, "what the file does not have stays unless asked")
        self.assertEqual(out["undo"], "Gull Strip: Name Sand Strip → Gull Strip; New Bed added")
        before = self.plan()
        self.call("post", self.path("/undo"))
        self.assertNotEqual(self.plan(), before)
        self.assertEqual(self.call("post", self.path("/import/preview"), sent)["lines"], told["lines"])

    def test_a_garden_changed_since_it_was_looked_at_is_not_overrun(self):
        sent = {"text": self.plan().replace("Cove Bed", "Mine"), "number": 0}
        self.call(
            "post",
            self.path("/edits"),
            {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"name": "Theirs"}}]},
        )
        self.call("post", self.path("/import"), sent, 409)
        self.assertIn("Theirs", self.plan())

    def test_a_damaged_file_names_every_wrong_path_and_changes_nothing(self):
        before = self.snapshot()
        bad = before.replace('"length": 24.0', '"length": -1').replace('"sandy"', '"sandi"', 1)
        for path in ("/import/preview", "/import"):
            found = self.call(
                "post",
                self.path(path),
                {"text": bad, "number": 0} if path == "/import" else {"text": bad},
                422,
            )
            self.assertEqual(
                {p["path"] for p in found["problems"]}, {"garden.beds[0].length", "garden.beds[0].soil"}
            )
        for text in ("", "{", "[]", "null", '{"format": "ascent-plan"}', "[" * 50_000, before[:-500]):
            self.call("post", self.path("/import"), {"text": text, "number": 0}, 422)
        self.assertEqual(self.snapshot(), before)

    def test_a_file_too_large_is_refused_before_it_is_read(self):
        self.refused("post", self.path("/import"), {"text": "x" * 6_000_001, "number": 0}, "text")

    def test_tables_out_and_in(self):
        for what in ("beds", "plantings", "materials"):
            text = self.call("get", self.path(f"/tables/{what}.csv"))
            self.assertEqual(
                self.call("post", self.path("/import/preview"), {"what": what, "text": text})["lines"],
                [],
                what,
            )
        told = self.call(
            "post",
            self.path("/import/preview"),
            {"what": "materials", "text": "item;price\ntpost_2.1;9,75\n"},
        )
        self.assertEqual(told["lines"][0]["words"], "garden Lantern Quay: Prices 0 own prices → 1 own prices")
        self.refused(
            "post",
            self.path("/import/preview"),
            {"what": "beds", "text": "name,length,width\nX,900,1\n"},
            "row 2, length",
            "60",
        )
        self.call("get", self.path("/tables/secrets.csv"), status=422)

    def test_drawings(self):
        for path in (self.path("/plot.svg"), f"structures/{self.structure.pk}/views.svg"):
            answer = self.client.get(f"/api/{path}")
            self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "image/svg+xml"))
            self.assertIn("attachment", answer["Content-Disposition"])
            self.assertTrue(answer.content.startswith(b"<svg"))


class MigrationTest(TransactionTestCase):
    def test_gardens_of_the_first_version_are_carried_over(self):
        executor = MigrationExecutor(connection)
        executor.migrate([("gardens", "0001_initial")])
        old = executor.loader.project_state([("gardens", "0001_initial")]).apps
        owner = old.get_model("auth", "User").objects.create(username="mara")
        garden = old.get_model("gardens", "Garden").objects.create(owner=owner, document={"name": "Old"})
        for key in ("one", "two"):
            bed = old.get_model("gardens", "Bed").objects.create(
                garden=garden, document={"key": key, "name": key, "length": 4.0, "width": 1.0}
            )
        fence = {"key": "f", "name": "F", "family": "mesh-fence", "options": {}, "plantings": []}
        structure = old.get_model("gardens", "Structure").objects.create(bed=bed, document=fence, revision=7)
        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())
        found = Thing.objects.get(garden__owner__username="mara", kind="structure")
        self.assertEqual((found.pk, found.home, found.revision), (structure.pk, "two", 7))
        ys = [thing.document["y"] for thing in Thing.objects.filter(garden_id=garden.pk, kind="bed")]
        self.assertEqual(ys, [-0.5, -2.25])
        self.assertEqual(Garden.objects.get(pk=garden.pk).changes, 0)
