"""What the log teaches, over the API: shown, used, undone."""

from __future__ import annotations

from gardens.models import Garden, Thing

from .support import ApiTestCase, demo_garden


class LessonsTest(ApiTestCase):
    @classmethod
    def setUpTestData(cls) -> None:
        super().setUpTestData()
        cls.lived = demo_garden(cls.owner, log=True)

    def lessons(self) -> dict:
        out = self.call("get", f"gardens/{self.lived.pk}/lessons")
        return {lesson["report"]["key"]: lesson for lesson in out["lessons"]}

    def place(self, change: dict) -> None:
        edit = {"kind": "place", "change": change}
        self.call("post", f"gardens/{self.lived.pk}/edits", {"edits": [edit]})

    def limit(self, key: str) -> dict:
        row = Thing.objects.get(garden=self.lived, key=key, kind="structure")
        path = f"structures/{row.pk}"
        draft = self.call("get", path)["draft"]
        return self.call("post", f"{path}/report", {"draft": draft})["headline"]

    def test_a_lesson_is_used_moves_the_verdict_as_it_said_and_is_undone(self):
        before = self.limit("cove-fence")
        self.assertEqual(before["taught_said"], "")
        storms = self.lessons()["storms"]
        self.assertFalse(storms["report"]["used"])
        moved = next(move for move in storms["report"]["moves"] if "Cove Fence" in move)
        self.place({"taught": storms["use"]})
        after = self.limit("cove-fence")
        self.assertIn(before["limit_text"], moved)
        self.assertIn(after["limit_text"], moved)
        self.assertLess(after["limit"], before["limit"])
        self.assertIn("Strength of the soil", after["taught_said"])
        again = self.lessons()["storms"]
        self.assertTrue(again["report"]["used"])
        self.place({"taught": again["stop"]})
        self.assertEqual(self.limit("cove-fence"), before)
        self.call("post", f"gardens/{self.lived.pk}/undo", {})
        self.assertEqual(self.limit("cove-fence"), after)

    def test_the_history_says_what_was_accepted(self):
        lesson = self.lessons()["yield.tom-cherry"]
        self.place({"taught": lesson["use"]})
        entries = self.call("get", f"gardens/{self.lived.pk}/history")
        self.assertIn("Harvest of cherry tomato: 17 % less", entries[0]["words"])

    def test_a_support_chosen_next_starts_from_it_and_says_so(self):
        self.place({"taught": self.lessons()["yield.tom-cherry"]["use"]})
        bed = self.lived.things.get(kind="bed", key="twine-bed")
        sent = {"crop": "tom-cherry", "count": 6}
        out = self.call("post", f"gardens/{self.lived.pk}/beds/{bed.key}/supports", sent)
        self.assertIn("Harvest of cherry tomato: 17 % less", out["taught_said"])

    def test_a_garden_without_a_log_is_taught_nothing(self):
        self.assertEqual(self.call("get", f"gardens/{self.garden.pk}/lessons")["lessons"], [])

    def test_what_cannot_be_is_refused(self):
        known = Garden.objects.get(pk=self.lived.pk).changes
        edit = {
            "kind": "place",
            "change": {"taught": [{"key": "soil", "factor": 80, "spread": 0.1, "on": "2026-08-11"}]},
        }
        answer = self.call("post", f"gardens/{self.lived.pk}/edits", {"edits": [edit]}, 422)
        self.assertIn("factor", str(answer))
        self.assertEqual(Garden.objects.get(pk=self.lived.pk).changes, known)
