"""Random runs of edits: undone to the start, done again to the end, every state in between restored as it
was.
"""

from __future__ import annotations

import random
from typing import Any

from gardens.models import Change, Thing

from .support import ApiTestCase

NOW = "2026-04-12T10:00:00Z"


class RunsTest(ApiTestCase):
    def path(self, rest: str = "") -> str:
        return f"gardens/{self.garden.pk}{rest}"

    def state(self) -> dict[str, Any]:
        """Return everything of the garden by kind and key, with the address of each structure."""
        found: dict[str, Any] = {"place": self.garden.__class__.objects.get(pk=self.garden.pk).document}
        for thing in Thing.objects.filter(garden=self.garden):
            found[f"{thing.kind}/{thing.key}"] = (thing.document, thing.home, thing.pk)
        return found

    def some_edit(self, chance: random.Random) -> dict[str, Any]:
        """Return an edit of something that is there now."""
        things = list(Thing.objects.filter(garden=self.garden))
        thing = chance.choice(things)
        where = (
            {"x": round(chance.uniform(0, 30), 2)}
            if thing.kind == "bed"
            else {"count": chance.randint(1, 40)}
            if thing.kind == "stock"
            else {"ticks": {"mark": {"at": "2026-04-12T10:00:00Z", "note": f"{chance.randrange(1000)}"}}}
            if thing.kind == "record"
            else {"marks": {f"2026.tension.{chance.randrange(9)}": {"at": NOW, "state": "done"}}}
            if thing.kind == "diary"
            else {"across": round(chance.uniform(-0.4, 0.4), 2)}
        )
        change = (
            {"name": f"Name {chance.randrange(1000)}"}
            if thing.kind in ("feature", "need") or chance.random() < 0.4
            else where
        )
        edit = {"kind": thing.kind, "key": thing.key, "change": change}
        dice = chance.random()
        if dice < 0.15 and len(things) > 12:
            return {"kind": thing.kind, "key": thing.key, "act": "remove"}
        if dice < 0.35:
            return {**edit, "act": "add", "key": "copy", "copy_of": thing.key}
        if dice < 0.45:
            return {"kind": "place", "change": {"path_width": round(chance.uniform(0.4, 1.2), 2)}}
        if dice < 0.6 and thing.kind == "structure":
            home = chance.choice([each.key for each in things if each.kind == "bed"])
            deeper = (
                {"options": {"depth": round(chance.uniform(0.4, 0.8), 2)}}
                if "depth" in thing.document["options"]
                else {}
            )
            return {**edit, "change": {"bed": home, **deeper}}
        return edit

    def run_of(self, seed: int, count: int) -> list[dict[str, Any]]:
        """Make edits, one to three at a time, and return the states before, between and after."""
        chance = random.Random(seed)
        states = [self.state()]
        while len(states) <= count:
            edits = [self.some_edit(chance)]
            if chance.random() < 0.3 and edits[0].get("act") != "remove":
                edits.append({"kind": "place", "change": {"currency": chance.choice(["cu", "€", "kr"])}})
            number = self.call("get", self.path())["number"]
            if self.call("post", self.path("/edits"), {"edits": edits})["changed"]["number"] > number:
                states.append(self.state())
        return states

    def test_undone_to_the_start_and_done_again_to_the_end(self):
        for seed in range(6):
            with self.subTest(seed=seed):
                begun = Change.objects.filter(garden=self.garden).count()
                states = self.run_of(seed, 8)
                for state in reversed(states[:-1]):
                    self.call("post", self.path("/undo"))
                    self.assertEqual(self.state(), state)
                for state in states[1:]:
                    self.call("post", self.path("/redo"))
                    self.assertEqual(self.state(), state)
                self.call("post", self.path("/redo"), status=409)
                self.assertEqual(
                    Change.objects.filter(garden=self.garden).count(), begun + 3 * (len(states) - 1)
                )

    def test_every_state_is_restored_whatever_order(self):
        states = self.run_of(99, 9)
        for number in random.Random(5).sample(range(len(states)), len(states)):
            self.call("post", self.path(f"/history/{number}/restore"))
            self.assertEqual(self.state(), states[number], number)

    def test_numbers_run_without_a_gap_and_revisions_only_grow(self):
        self.run_of(7, 10)
        numbers = list(
            Change.objects.filter(garden=self.garden).order_by("number").values_list("number", flat=True)
        )
        self.assertEqual(numbers, list(range(1, len(numbers) + 1)))
        seen: dict[tuple[str, str], int] = {}
        for change in Change.objects.filter(garden=self.garden).order_by("number"):
            for edit in change.edits:
                ref = (edit["kind"], edit["key"])
                self.assertGreaterEqual(edit["revision"], seen.get(ref, 0))
                seen[ref] = edit["revision"]

    def test_the_plan_file_of_any_state_is_read_again(self):
        self.run_of(13, 10)
        text = self.client.get(f"/api/{self.path('/plan.json')}").content.decode()
        out = self.call("post", "gardens/import", {"text": text})
        self.assertEqual(self.client.get(f"/api/gardens/{out['id']}/plan.json").content.decode(), text)
        self.assertEqual(
            self.call("post", self.path("/import/preview"), {"text": text, "take_away": True})["lines"], []
        )
