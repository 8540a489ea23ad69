"""Building a structure: its steps told, ticked, and what went in otherwise."""

from __future__ import annotations

from typing import Any

from gardens.models import Thing

from .support import ApiTestCase

NOW = "2026-04-12T10:00:00Z"


class BuildingTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.edits = f"gardens/{self.garden.pk}/edits"

    def told(self) -> dict[str, Any]:
        return self.call("get", f"structures/{self.structure.pk}/building")

    def write(self, *more: dict[str, Any], status: int = 200, **change: Any) -> Any:
        edit = {
            "kind": "record",
            "act": "add",
            "key": "lantern-row-record",
            "change": {"name": "Lantern Row", "structure": "lantern-row", "begun": "2026-04-12", **change},
        }
        return self.call("post", self.edits, {"edits": [*more, edit]}, status)

    def begin(self) -> None:
        kept = self.told()["kept"]
        built = {"kind": "structure", "act": "change", "key": "lantern-row", "change": {"built": kept}}
        self.write(built)

    def test_every_step_is_told_and_none_is_begun(self):
        told = self.told()
        self.assertIsNone(told["record"])
        keys = [step["key"] for step in told["report"]["steps"]]
        self.assertEqual(keys[0], "mark")
        self.assertIn("posts", keys)
        members = {mark["member"] for view in told["report"]["views"] for mark in view["marks"]}
        for step in told["report"]["steps"]:
            self.assertLessEqual(set(step["members"]), members)

    def test_ticks_of_two_people_join_and_one_can_be_taken_back(self):
        self.begin()
        self.write(ticks={"mark": {"at": NOW, "who": "Wren"}})
        self.write(ticks={"posts": {"at": NOW, "note": "stone at P3"}})
        self.assertEqual(set(self.told()["record"]["ticks"]), {"mark", "posts"})
        self.write(ticks={"mark": None})
        self.assertEqual(self.told()["record"]["ticks"]["posts"]["note"], "stone at P3")
        self.assertNotIn("mark", self.told()["record"]["ticks"])
        records = Thing.objects.filter(garden=self.garden, kind="record", document__structure="lantern-row")
        self.assertEqual(records.count(), 1)

    def test_what_went_in_otherwise_is_read_checked_and_told(self):
        self.begin()
        differs = {"option": "depth", "value": "0.30 m", "member": "post@0", "step": "posts", "at": NOW}
        self.write(differs={"depth@post@0": differs})
        told = self.told()["report"]
        step = next(step for step in told["steps"] if step["key"] == "posts")
        self.assertIn("0.30 m instead of", step["differs"][0]["text"])
        self.assertTrue(step["differs"][0]["text"].startswith("P1"))
        self.assertIn("as designed", told["stood"]["text"])
        self.assertIn("P1", told["stood"]["like"])

    def test_a_change_of_the_plan_leaves_alone_what_stands(self):
        self.begin()
        deeper = {
            "kind": "structure",
            "act": "change",
            "key": "lantern-row",
            "change": {"options": {"depth": 0.9}},
        }
        self.call("post", self.edits, {"edits": [deeper]})
        told = self.told()["report"]
        posts = next(step for step in told["steps"] if step["key"] == "posts")
        self.assertFalse(any("0.90 m" in hit for hit in posts["hits"]))
        self.assertIn("0.90 m", told["plan_changed"])
        self.begin()
        self.assertIn("0.90 m", self.told()["report"]["plan_changed"], "nobody has said so")
        freed = {"kind": "structure", "act": "change", "key": "lantern-row", "change": {"built": None}}
        self.write(freed)
        self.assertEqual(self.told()["report"]["plan_changed"], "")

    def test_the_plan_says_how_far_it_is_built(self):
        def said() -> str:
            rows = self.call("get", f"gardens/{self.garden.pk}")["structures"]
            return next(row["built"] for row in rows if row["key"] == "lantern-row")

        self.assertEqual(said(), "")
        self.begin()
        self.write(ticks={"mark": {"at": NOW}})
        self.assertEqual(said(), "being built: 1 step done")
        self.write(stands="2026-04-12")
        self.assertEqual(said(), "stands since 2026-04-12")

    def test_what_cannot_be_is_refused_and_nothing_is_lost(self):
        self.begin()
        self.write(ticks={"mark": {"at": NOW}})
        for change, path in (
            ({"ticks": {"fly": {"at": NOW}}}, "ticks.fly"),
            ({"differs": {"x": {"option": "depth", "value": "nine miles", "at": NOW}}}, "differs.x"),
            ({"differs": {"x": {"option": "depth", "value": 9, "at": NOW}}}, "differs.depth"),
            (
                {"differs": {"x": {"option": "depth", "value": 0.4, "member": "post@7", "at": NOW}}},
                "differs.x.member",
            ),
        ):
            problems = self.write(status=422, **change)["problems"]
            self.assertIn(path, problems[0]["path"])
        self.assertEqual(set(self.told()["record"]["ticks"]), {"mark"})

    def test_the_list_says_how_it_stands_as_it_went_in(self):
        def line() -> dict[str, Any]:
            return self.call("get", f"gardens/{self.garden.pk}/lines?keys=lantern-row")[0]

        self.assertEqual((line()["state"], "went in" in line()["words"]), ("adequate", False))
        self.begin()
        short = {"option": "depth", "value": 0.2, "member": "post@0", "step": "posts", "at": NOW}
        self.write(differs={"depth@post@0": short})
        self.assertEqual(line()["state"], "inadequate")
        self.assertIn("as it went in", line()["words"])

    def test_a_copy_has_not_been_built(self):
        self.begin()
        self.write(ticks={"mark": {"at": NOW}})
        copy = {"kind": "structure", "act": "add", "key": "copy", "copy_of": "lantern-row", "change": {}}
        bed = {"kind": "bed", "act": "add", "key": "bed", "copy_of": self.bed.key, "change": {}}
        self.call("post", self.edits, {"edits": [copy, bed]})
        built = [
            thing.key
            for thing in Thing.objects.filter(garden=self.garden, kind="structure")
            if thing.document["built"] and "row" in thing.key
        ]
        self.assertEqual(built, ["lantern-row"])

    def test_a_record_goes_with_its_structure_and_comes_back_with_it(self):
        self.begin()
        records = Thing.objects.filter(garden=self.garden, kind="record", document__structure="lantern-row")
        self.call("delete", f"structures/{self.structure.pk}")
        self.assertEqual(records.count(), 0)
        self.call("post", f"gardens/{self.garden.pk}/undo", {})
        self.assertEqual(records.count(), 1)
