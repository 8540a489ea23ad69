"""The shed over the API: edits of it, what a structure has of it, taking one down."""

from __future__ import annotations

import csv
import io
import json
from typing import Any

from gardens.models import Thing

from .support import ApiTestCase


class ShedTest(ApiTestCase):
    def ask(self, method: str, path: str, body: Any = None, status: int = 200) -> Any:
        return self.call(method, path.lstrip("/"), body, status)

    def edit(self, status: int = 200, **edit: Any) -> Any:
        body = {"edits": [{"kind": "stock", **edit}]}
        return self.ask("post", f"/gardens/{self.garden.pk}/edits", body, status)

    def rows(self) -> dict[str, Any]:
        return {
            row["fields"]["name"]: row for row in self.ask("get", f"/gardens/{self.garden.pk}/shed")["rows"]
        }

    def thing(self, name: str) -> Thing:
        return Thing.objects.get(garden=self.garden, document__name=name)

    def test_put_in_changed_undone(self):
        change = {"name": "Poles", "table": "posts", "item": "pole_hazel_25", "length": 2.7, "count": 5}
        self.edit(act="add", key="x", change=change)
        self.assertEqual(self.rows()["Poles"]["free"], 5)
        key = self.rows()["Poles"]["key"]
        self.edit(act="change", key=key, change={"in_use": "the tent"})
        self.assertFalse(self.rows()["Poles"]["planned"])
        words = self.ask("get", f"/gardens/{self.garden.pk}/history")[0]["words"]
        self.assertIn("In use for", words)
        self.ask("post", f"/gardens/{self.garden.pk}/undo", {})
        self.assertTrue(self.rows()["Poles"]["planned"])

    def test_a_wrong_one_is_refused_with_its_field(self):
        bad = {"name": "Poles", "table": "posts", "item": "nothing", "length": 2.7}
        answer = self.edit(422, act="add", key="x", change=bad)
        self.assertIn("no row", json.dumps(answer, ensure_ascii=False))
        self.assertNotIn("Poles", self.rows())

    def test_what_one_has_the_other_cannot_have(self):
        """Two panels: one structure has one of them, so another is offered one and no more."""
        self.assertEqual(self.rows()["Livestock panel, one end cut"]["free"], 1)
        row = self.thing("Lantern Row")
        draft = self.ask("get", f"/structures/{row.pk}")["draft"]
        taken = self.ask("post", f"/structures/{row.pk}/take", {"draft": draft})["taken"]
        self.assertEqual({each["stock"]: each["amount"] for each in taken}["shed-panel"], 1)

    def test_more_taken_than_there_is_is_said(self):
        row = self.thing("Cove Fence")
        key = self.rows()["Livestock panel, one end cut"]["key"]
        self.edit(act="change", key=key, change={"count": 0})
        told = self.rows()["Livestock panel, one end cut"]
        self.assertIn("1 more is taken than there is", told["state"])
        self.assertEqual((told["free"], told["used_by"]), (0, [row.document["name"]]))

    def test_taken_down_is_one_change_that_can_be_undone(self):
        row = self.thing("Cove Fence")
        before = self.rows()
        self.ask("post", f"/structures/{row.pk}/down", {"seasons": 3})
        after = self.rows()
        self.assertEqual(after["Livestock panel, one end cut"]["used_by"], [])
        out = self.ask("get", f"/gardens/{self.garden.pk}/shed")["rows"]
        fields = [row["fields"] for row in out if row["fields"]["item"] == "panel_large"]
        self.assertEqual(sorted(each["age"] for each in fields), [3, 6])
        self.assertFalse(Thing.objects.filter(pk=row.pk).exists())
        self.ask("post", f"/gardens/{self.garden.pk}/undo", {})
        free = [{name: row["free"] for name, row in rows.items()} for rows in (self.rows(), before)]
        self.assertEqual(*free)
        self.assertEqual(Thing.objects.get(pk=row.pk).document["name"], "Cove Fence")

    def test_the_list_counts_what_is_had(self):
        parts = self.ask("get", f"/gardens/{self.garden.pk}/parts")
        self.assertTrue([part for part in parts["together"] if part["own"]])
        self.assertTrue(all(part["cost"] == 0 for part in parts["together"] if part["own"]))
        self.assertEqual(set(parts["shelves"]) >= {part["shelf"] for part in parts["together"]}, True)

    def test_as_a_table_out_and_in(self):
        text = self.client.get(f"/api/gardens/{self.garden.pk}/tables/shed.csv").content.decode()
        body = {"what": "shed", "text": text, "take_away": True}
        self.assertEqual(self.ask("post", f"/gardens/{self.garden.pk}/import/preview", body)["lines"], [])
        text += "\r\n,Rails,posts,post_lumber_38x89,4,3 m,,,,,1,good,1,seen,\r\n"
        body = {"what": "shed", "text": text, "take_away": False}
        lines = self.ask("post", f"/gardens/{self.garden.pk}/import/preview", body)["lines"]
        self.assertEqual([line["words"] for line in lines], ["stock Rails added"])

    def test_the_cut_list_goes_out_as_a_table_of_what_the_page_shows(self):
        garden = f"/gardens/{self.garden.pk}"
        shown = self.ask("get", f"{garden}/parts")["cuts"]
        rows = list(csv.DictReader(io.StringIO(self.ask("get", f"{garden}/cuts.csv"))))
        self.assertEqual(
            [(row["length"], int(row["how many"]), row["cuts of each"].count("+") + 1) for row in rows],
            [(cut["length_text"], cut["bars"], len(cut["cuts"])) for cut in shown],
        )
        self.assertGreater(len(rows), 3)
        row = self.thing("Lantern Row")
        self.assertIn("cuts of each", self.ask("get", f"/structures/{row.pk}/cuts.csv").splitlines()[0])
