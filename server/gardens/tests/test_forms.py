"""Documents stored by older programs, by newer ones, and by nobody's: read, upgraded where they are read, or
shown as they are.
"""

from __future__ import annotations

import json
from typing import Any
from unittest import mock
from urllib.parse import quote

from ascent.plan import upgrades
from ascent.plan.garden import FORMAT_VERSION
from ascent.plan.upgrades import UpgradeStep
from django.db import IntegrityError
from django.test import Client
from pydantic import Field

from gardens.models import Change, Garden, Thing
from gardens.services import known, state

from .support import ApiTestCase


def stepped(thing: Any) -> Any:
    """Return a patch that makes the present form one newer, with a step for single things."""
    steps = mock.patch.dict(upgrades.STEPS, {FORMAT_VERSION: UpgradeStep(thing=thing)})
    version = mock.patch.object(state.model, "FORMAT_VERSION", FORMAT_VERSION + 1)
    return steps, version


class FormsTestCase(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        state._meant.cache_clear()
        self.addCleanup(state._meant.cache_clear)

    def path(self, rest: str = "") -> str:
        return f"gardens/{self.garden.pk}{rest}"

    def edit(self, *edits: dict[str, Any], status: int = 200) -> Any:
        return self.edited(edits, status)

    def store(self, key: str, **changes: Any) -> None:
        """Write into a document past the application, as an older program may have."""
        row = Thing.objects.get(garden=self.garden, key=key)
        row.document = {**row.document, **changes}
        row.save()
        known.forget()

    def everything(self) -> None:
        """Ask all that a page of the garden asks."""
        for path in (
            "",
            "/lines",
            "/parts",
            "/shade?date=08-10",
            "/history",
            "/history/0",
            "/plan.json",
            "/plot.svg",
            "/tables/beds.csv",
        ):
            self.call("get", self.path(path))
        self.call("post", self.path("/draft"), {"edits": []})


class RenamedTest(FormsTestCase):
    def test_an_option_that_is_called_otherwise_now_is_brought_up_where_it_is_read_and_undone(self):
        """As if ‘depth’ had been ‘set_in’ when these were stored: the log, both its sides, and the thing
        itself.
        """
        self.edit({"kind": "structure", "key": "lantern-row", "change": {"options": {"depth": 0.61}}})

        def older(document: dict[str, Any]) -> dict[str, Any]:
            options = dict(document["options"])
            return {
                **document,
                "options": {**{k: v for k, v in options.items() if k != "depth"}, "set_in": options["depth"]},
            }

        row = Thing.objects.get(garden=self.garden, key="lantern-row")
        row.document = older(row.document)
        row.save()
        change = Change.objects.get(garden=self.garden)
        change.edits = [
            {**edit, "before": older(edit["before"]), "after": older(edit["after"])} for edit in change.edits
        ]
        change.save()

        def newer(kind: str, document: dict[str, Any]) -> dict[str, Any]:
            options = dict(document.get("options", {}))
            if kind == "structure" and "set_in" in options:
                options["depth"] = options.pop("set_in")
                return {**document, "options": options}
            return document

        known.forget()
        self.assertEqual(
            [row["key"] for row in self.call("get", self.path())["unreadable"]],
            ["lantern-row"],
            "without the step",
        )
        state._meant.cache_clear()
        known.forget()
        steps, version = stepped(newer)
        with steps, version:
            self.everything()
            self.assertEqual(self.call("get", self.path())["unreadable"], [])
            self.assertIn("→ 0.61 m", self.call("get", self.path("/history"))[0]["words"])
            self.call("post", self.path("/undo"))
            self.assertNotEqual(
                self.call("get", f"structures/{self.structure.pk}")["draft"]["options"]["depth"], 0.61
            )
            self.assertNotIn("set_in", Thing.objects.get(pk=row.pk).document["options"])

    def test_a_field_that_came_later_stands_in_nobody_s_way(self):
        """Documents without a field that has a default mean what they meant: undo, history and restore work
        on.
        """
        self.edit({"kind": "bed", "key": "cove-bed", "change": {"x": 20.0}})
        for row in Thing.objects.filter(garden=self.garden):
            row.document.pop("exposure", None)
            row.document.pop("turn", None)
            row.save()
        change = Change.objects.get(garden=self.garden)
        for edit in change.edits:
            for side in ("before", "after"):
                edit[side].pop("board", None)
        change.save()
        self.everything()
        self.call("post", self.path("/undo"))
        self.call("post", self.path("/redo"))
        self.call("post", self.path("/history/0/restore"))


class UnreadableTest(FormsTestCase):
    def test_each_kind_that_nobody_can_read_is_shown_with_its_text_and_the_garden_works(self):
        for key, broken in (
            ("lantern-row", {"options": {"gone": 1}}),
            ("chandlers", {"length": "wide"}),
            ("sea-wall", {"points": []}),
        ):
            with self.subTest(key):
                self.store(key, **broken)
                out = self.call("get", self.path())
                (row,) = [row for row in out["unreadable"] if row["key"] == key]
                self.assertIn(
                    json.dumps(next(iter(broken.values()))).strip('{}[]"'), row["text"].replace("\n ", "")
                )
                self.assertTrue(row["why"])
                self.everything()
        kept = {
            key: Thing.objects.get(garden=self.garden, key=key).document
            for key in ("lantern-row", "chandlers", "sea-wall")
        }
        self.edit({"kind": "bed", "key": "cove-bed", "change": {"x": 20.0}})
        self.call("post", self.path("/undo"))
        self.call("post", self.path("/history/0/restore"))
        text = json.dumps(self.call("get", self.path("/plan.json")))
        number = self.call("get", self.path())["number"]
        self.call("post", self.path("/import"), {"text": text, "number": number, "take_away": True})
        self.assertEqual(
            {key: Thing.objects.get(garden=self.garden, key=key).document for key in kept},
            kept,
            "what cannot be read is never touched",
        )

    def test_it_can_be_taken_away_and_put_back_and_not_be_changed(self):
        self.store("lantern-row", options={"gone": 1})
        self.call("get", f"structures/{self.structure.pk}", status=422)
        edit = {"kind": "structure", "key": "lantern-row", "change": {"along": 0.2}}
        self.assertIn("cannot be read", self.edit(edit, status=422)["problems"][0]["allowed"])
        self.edit({"kind": "structure", "key": "lantern-row", "act": "remove"})
        self.assertEqual(self.call("get", self.path())["unreadable"], [])
        self.assertIn("can no longer be read", self.call("get", self.path("/history"))[0]["words"])
        self.call("post", self.path("/undo"))
        self.assertEqual([row["key"] for row in self.call("get", self.path())["unreadable"]], ["lantern-row"])
        self.assertEqual(
            Thing.objects.get(garden=self.garden, key="lantern-row").document["options"], {"gone": 1}
        )

    def test_what_stands_on_a_bed_that_cannot_be_read_is_told_too(self):
        self.store("long-plot-a", soil="mud")
        found = {row["key"]: row["why"] for row in self.call("get", self.path())["unreadable"]}
        self.assertIn("the bed it stands on", found["lantern-row"])
        self.everything()

    def test_a_garden_s_own_fields_that_cannot_be_read(self):
        Garden.objects.filter(pk=self.garden.pk).update(document={"name": "Quay", "units": "cubits"})
        out = self.call("get", self.path())
        self.assertEqual([row["kind"] for row in out["unreadable"]], ["place"])
        self.assertIn("cubits", out["unreadable"][0]["text"])
        self.everything()
        self.edit({"kind": "bed", "key": "cove-bed", "change": {"x": 20.0}})
        self.assertEqual(Garden.objects.get(pk=self.garden.pk).document["units"], "cubits", "untouched")
        out = self.edit({"kind": "place", "change": {"name": "Quay", "units": "imperial"}})["garden"]
        self.assertEqual((out["unreadable"], out["name"], out["units"]), ([], "Quay", "imperial"))
        self.call("post", self.path("/undo"))
        self.assertEqual(Garden.objects.get(pk=self.garden.pk).document["units"], "cubits")

    def test_a_bench_never_writes_over_a_bed_that_cannot_be_read(self):
        draft, revision = self.draft()
        self.store("long-plot-a", soil="mud")
        draft["options"]["depth"] = 0.7
        self.call("put", f"structures/{self.structure.pk}", {"draft": draft, "revision": revision}, 422)
        self.assertEqual(Thing.objects.get(garden=self.garden, key="long-plot-a").document["soil"], "mud")

    def test_one_of_a_newer_program_is_not_guessed_at(self):
        Thing.objects.filter(garden=self.garden, key="lantern-row").update(form=FORMAT_VERSION + 1)
        (row,) = self.call("get", self.path())["unreadable"]
        self.assertIn(f"form {FORMAT_VERSION + 1}", row["why"])

    def test_a_step_that_stumbles_closes_no_garden(self):
        steps, version = stepped(
            lambda kind, document: {**document, "x": document["never"]} if kind == "feature" else document
        )
        with steps, version:
            out = self.call("get", self.path())
            self.assertEqual({row["kind"] for row in out["unreadable"]}, {"feature"})
            self.everything()

    def test_a_new_field_that_must_be_given_needs_a_step(self):
        """What the tests of this module rest on: without a step such a document is unreadable, never an
        error.
        """

        class Wider(state.model.Feature):
            colour: str = Field()

        with mock.patch.dict(state.MODELS, {"feature": Wider}):
            self.assertEqual(
                {row["kind"] for row in self.call("get", self.path())["unreadable"]}, {"feature"}
            )


class KeysTest(FormsTestCase):
    def test_a_key_is_one_thing_s_alone_whatever_its_kind(self):
        bed = {
            "kind": "bed",
            "act": "add",
            "key": "a",
            "change": {"name": "Sea Wall", "length": 2, "width": 1},
        }
        post = {
            "kind": "feature",
            "act": "add",
            "key": "a",
            "change": {"name": "Cove Bed", "kind": "stump", "points": [[1, 1]]},
        }
        made = self.edit(bed, post)["made"]
        self.assertEqual(made, ["sea-wall-2", "cove-bed-2"])
        keys = [row.key for row in Thing.objects.filter(garden=self.garden)]
        self.assertEqual(len(keys), len(set(keys)))

    def test_what_the_same_request_has_added_can_be_copied_under_the_name_it_was_given(self):
        bed = {
            "kind": "bed",
            "act": "add",
            "key": "mine",
            "change": {"name": "Cove Bed", "length": 2.5, "width": 1},
        }
        copy = {"kind": "bed", "act": "add", "key": "other", "copy_of": "mine", "change": {"x": 5}}
        out = self.edit(bed, copy)
        fields = {b["key"]: b["fields"] for b in out["garden"]["beds"]}
        self.assertEqual([fields[key]["length"] for key in out["made"]], [2.5, 2.5])

    def test_a_file_that_names_two_things_alike_is_refused(self):
        plan = self.call("get", self.path("/plan.json"))
        plan["garden"]["features"][0]["key"] = plan["garden"]["beds"][0]["key"]
        self.refused(
            "post",
            self.path("/import/preview"),
            {"text": json.dumps(plan)},
            "garden.features[0].key",
            "nothing else has",
        )


class MarkTest(FormsTestCase):
    def send(self, method: str, path: str, body: Any, mark: str, status: int = 200) -> Any:
        answer = getattr(self.client, method)(
            f"/api/{path}", body, content_type="application/json", headers={"Ascent-Mark": mark}
        )
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json()

    def test_every_write_that_makes_or_moves_is_done_once_for_its_mark(self):
        bed = {
            "edits": [
                {
                    "kind": "bed",
                    "act": "add",
                    "key": "new",
                    "change": {"name": "Tide Bed", "length": 2, "width": 1},
                }
            ]
        }
        plan = self.client.get(f"/api/{self.path('/plan.json')}").content.decode()
        writes = [
            ("post", self.path("/edits"), bed),
            (
                "post",
                self.path(f"/beds/{self.bed.key}/structures"),
                {"family": "stake", "crop": "tom-slicer"},
            ),
            ("post", self.path("/undo"), {}),
            ("post", self.path("/redo"), {}),
            ("post", self.path("/history/0/restore"), {}),
            ("post", "gardens", {"name": "Second"}),
            ("post", "gardens/import", {"text": plan}),
        ]
        for number, (method, path, body) in enumerate(writes):
            with self.subTest(path):
                mark = f"mark-{number:04d}"
                first = self.send(method, path, body, mark)
                changes, gardens = Change.objects.count(), Garden.objects.count()
                again = self.send(method, path, body, mark)
                self.assertEqual(again.get("made"), first.get("made"))
                self.assertEqual((Change.objects.count(), Garden.objects.count()), (changes, gardens))

    def test_a_save_whose_answer_was_lost_is_no_conflict_with_itself(self):
        draft, revision = self.draft()
        draft["options"]["depth"] = 0.7
        sent = {"draft": draft, "revision": revision}
        first = self.send("put", f"structures/{self.structure.pk}", sent, "save-0001")
        again = self.send("put", f"structures/{self.structure.pk}", sent, "save-0001")
        self.assertEqual(again["revision"], first["revision"])
        edits = {"edits": [{"kind": "bed", "key": "cove-bed", "revision": 1, "change": {"x": 3.0}}]}
        self.assertEqual(
            self.send("post", self.path("/edits"), edits, "edit-0001")["revisions"], {"bed/cove-bed": 2}
        )
        self.assertEqual(
            self.send("post", self.path("/edits"), edits, "edit-0001")["revisions"], {"bed/cove-bed": 2}
        )

    def test_a_mark_is_its_sender_s_own(self):
        other = Client()
        other.force_login(self.other)
        edits = {"edits": [{"kind": "place", "change": {"name": "Theirs"}}]}
        self.send(
            "post",
            self.path("/edits"),
            {"edits": [{"kind": "place", "change": {"name": "Mine"}}]},
            "same-mark-1",
        )
        answer = other.post(
            f"/api/gardens/{self.theirs.pk}/edits",
            edits,
            content_type="application/json",
            headers={"Ascent-Mark": "same-mark-1"},
        )
        self.assertEqual(answer.json()["changed"]["name"], "Theirs")

    def test_what_was_refused_is_not_remembered(self):
        wrong = {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"length": 999}}]}
        self.send("post", self.path("/edits"), wrong, "wrong-001", 422)
        wrong["edits"][0]["change"]["length"] = 3.0
        self.send("post", self.path("/edits"), wrong, "wrong-001")
        self.assertEqual(Thing.objects.get(garden=self.garden, key="cove-bed").document["length"], 3.0)

    def test_a_mark_used_for_another_write_is_refused_with_words(self):
        """Another operation, another body, another garden: none is done, and none is taken for the first."""
        mine = {"edits": [{"kind": "place", "change": {"name": "Mine"}}]}
        self.send("post", self.path("/edits"), mine, "one-mark-1")
        second = self.send("post", "gardens", {"name": "Second"}, "second-1")
        for path, body in (
            (self.path("/undo"), {}),
            (self.path("/edits"), {"edits": [{"kind": "place", "change": {"name": "Other"}}]}),
            (f"gardens/{second['id']}/edits", mine),
            (self.path(f"/beds/{self.bed.key}/structures"), {"family": "stake", "crop": "tom-slicer"}),
        ):
            answer = self.send("post", path, body, "one-mark-1", 422)
            self.assertEqual(answer["problems"][0]["path"], "mark")
            self.assertIn("a mark of its own", answer["problems"][0]["allowed"])
        self.assertEqual(Garden.objects.get(pk=self.garden.pk).document["name"], "Mine")

    def test_a_write_says_whose_it_is_and_is_no_other_s(self):
        body = {"edits": [{"kind": "place", "change": {"name": "Theirs"}}]}
        for who, status in (("piet", 401), (quote(self.owner.get_username()), 200)):
            answer = self.client.post(
                f"/api/{self.path('/edits')}",
                body,
                content_type="application/json",
                headers={"Ascent-Mark": f"whose-{status}", "Ascent-Who": who},
            )
            self.assertEqual(answer.status_code, status)

    def test_what_a_database_refuses_is_a_fault_said_once(self):
        """A write that can never be stored is calculated once and answered as a fault, not busy for ever."""
        made = []

        def broken(*_args: Any, **_more: Any) -> None:
            made.append(1)
            raise IntegrityError("NOT NULL constraint failed")

        with mock.patch("gardens.services.writing.commit", broken), self.assertLogs("config.faults", "ERROR"):
            edit = {"kind": "place", "change": {"name": "Poison"}}
            self.send("post", self.path("/edits"), {"edits": [edit]}, "poison-01", 500)
        self.assertEqual(len(made), 1)
