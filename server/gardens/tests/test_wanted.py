"""What is wanted of more than one bed or crop, over the API."""

from __future__ import annotations

import json
from typing import Any

from gardens.models import Thing

from .support import ApiTestCase


class WantedTest(ApiTestCase):
    def ask(self, bed: str, what: str, body: dict[str, Any], status: int = 200) -> Any:
        return self.call("post", f"gardens/{self.garden.pk}/beds/{bed}/{what}", body, status)

    def standing(self, home: str) -> list[Thing]:
        return list(Thing.objects.filter(garden=self.garden, kind=Thing.STRUCTURE, home=home))

    def test_pots_alike_and_the_path_between_beds_are_offered(self):
        pots = self.ask("barrel-1", "supports", {"crop": "pea-snap"})["beds"]
        self.assertEqual({each["key"] for each in pots}, {"barrel-2", "barrel-3", "barrel-4"})
        lofts = self.ask("loft-bed-1", "supports", {"crop": "pea-snap"})["beds"]
        self.assertIn("1.32 m", {each["key"]: each["path"] for each in lofts}["loft-bed-2"])
        hosts = self.ask("wall-bed", "supports", {"crop": "pea-snap"})["hosts"]
        self.assertEqual([each["key"] for each in hosts], ["store-wall-2"])

    def test_one_is_put_on_each_and_undone_at_once(self):
        need = {"family": "tripod", "crop": "pea-snap", "count": 16, "side": "both", "beds": ["barrel-4"]}
        before = len(self.standing("barrel-1")), len(self.standing("barrel-4"))
        made = self.ask("barrel-1", "structures", need)
        self.assertEqual(made["bed"], "barrel-1")
        self.assertEqual(made["draft"]["plantings"][0]["count"], 8)
        after = len(self.standing("barrel-1")), len(self.standing("barrel-4"))
        self.assertEqual(after, (before[0] + 1, before[1] + 1))
        self.call("post", f"gardens/{self.garden.pk}/undo", {})
        self.assertEqual((len(self.standing("barrel-1")), len(self.standing("barrel-4"))), before)

    def test_what_two_have_of_the_shed_is_no_more_than_there_is(self):
        need = {"family": "cage", "crop": "tom-slicer", "count": 6, "beds": ["barrel-4"]}
        self.ask("barrel-1", "structures", need)
        shed = self.call("get", f"gardens/{self.garden.pk}/shed")["rows"]
        self.assertEqual([row["state"] for row in shed if "more is taken" in row["state"]], [])

    def test_a_bed_unlike_it_and_a_wall_out_of_reach_are_refused_by_name(self):
        said = self.ask("barrel-1", "ways/stake", {"crop": "pea-snap", "beds": ["sand-strip"]}, 422)
        self.assertIn("Sand Strip", json.dumps(said))
        said = self.ask("barrel-1", "ways/existing", {"crop": "pea-snap", "host": "sea-wall"}, 422)
        self.assertIn("Sea wall", json.dumps(said))

    def test_several_crops_are_kept_as_a_need_and_told_in_its_history(self):
        change = {
            "name": "Two crops",
            "bed": "long-plot-a",
            "crop": "tom-slicer",
            "others": [{"crop": "pea-snap", "count": 12, "side": "left"}],
        }
        edits = {"edits": [{"kind": "need", "act": "add", "key": "need", "change": change}]}
        self.call("post", f"gardens/{self.garden.pk}/edits", edits)
        row = Thing.objects.get(garden=self.garden, kind=Thing.NEED, document__name="Two crops")
        self.assertEqual(row.document["others"][0]["count"], 12)
        gone = {"kind": "need", "act": "change", "key": row.key, "change": {"others": []}}
        self.call("post", f"gardens/{self.garden.pk}/edits", {"edits": [gone]})
        words = self.call("get", f"gardens/{self.garden.pk}/history")[0]["words"]
        self.assertIn("And with it Sugar snap", words)

    def test_an_hour_is_counted_and_a_negative_one_refused(self):
        edits = {"edits": [{"kind": "place", "change": {"hour": 15.0}}]}
        out = self.call("post", f"gardens/{self.garden.pk}/edits", edits)
        self.assertNotEqual(out, {})
        row = Thing.objects.get(garden=self.garden, document__name="Lantern Row")
        draft = self.call("get", f"structures/{row.pk}")["draft"]
        report = self.call("post", f"structures/{row.pk}/report", {"draft": draft})
        self.assertIn("15.00 € an hour", report["costs"]["said"])
        bad = {"edits": [{"kind": "place", "change": {"hour": -1}}]}
        self.assertIn("hour", json.dumps(self.call("post", f"gardens/{self.garden.pk}/edits", bad, 422)))
