"""Edits of the plan: all or none, stale ones shown in both versions, undone, done again, and kept in the
history.
"""

from __future__ import annotations

import json
from typing import Any

from django.test import Client

from gardens.models import Change, Thing
from gardens.services import known

from .support import ApiTestCase


class EditTestCase(ApiTestCase):
    def path(self, rest: str = "") -> str:
        return f"gardens/{self.garden.pk}{rest}"

    def edit(self, *edits: dict[str, Any], status: int = 200) -> Any:
        return self.edited(edits, status)

    def bed_fields(self, key: str, out: Any = None) -> dict[str, Any]:
        garden = out or self.call("get", self.path())
        return next(bed["fields"] for bed in garden["beds"] if bed["key"] == key)

    def move(self, x: float, **more: Any) -> Any:
        return self.edit({"kind": "bed", "key": "cove-bed", "change": {"x": x}, **more})["garden"]


class EditTest(EditTestCase):
    def test_move_turn_resize(self):
        out = self.edit(
            {"kind": "bed", "key": "cove-bed", "change": {"x": 20.0, "bearing": 45.0, "length": 4.2}}
        )["garden"]
        fields = self.bed_fields("cove-bed", out)
        self.assertEqual(
            (fields["x"], fields["bearing"], fields["length"], fields["name"]), (20.0, 45.0, 4.2, "Cove Bed")
        )
        self.assertEqual(next(b["revision"] for b in out["beds"] if b["key"] == "cove-bed"), 2)

    def test_add_bed_and_path_together_with_keys_of_their_names(self):
        bed = {
            "kind": "bed",
            "act": "add",
            "key": "new",
            "change": {"name": "Tide Bed", "length": 3.0, "width": 1.0},
        }
        walk = {
            "kind": "feature",
            "act": "add",
            "key": "new",
            "change": {"name": "Sea wall", "kind": "path", "points": [[0, 0], [4, 0]], "width": 0.9},
        }
        out = self.edit(bed, walk)
        self.assertEqual(out["made"], ["tide-bed", "sea-wall-2"], "a name that is taken gets a number")
        self.assertEqual(out["garden"]["features"][-1]["fields"]["kind"], "path")

    def test_a_bed_is_copied_with_what_stands_on_it(self):
        out = self.edit(
            {"kind": "bed", "act": "add", "key": "copy", "copy_of": "long-plot-a", "change": {"y": 30.0}}
        )
        self.assertEqual(out["made"], ["long-plot-a-2"])
        copies = [s for s in out["garden"]["structures"] if s["bed"] == "long-plot-a-2"]
        self.assertEqual([s["name"] for s in copies], ["Lantern Row"])
        self.assertNotEqual(copies[0]["id"], self.structure.pk)

    def test_a_structure_is_moved_stretched_copied_and_put_on_another_bed(self):
        out = self.edit(
            {
                "kind": "structure",
                "key": "lantern-row",
                "change": {"along": 0.1, "turn": 180.0, "options": {"length": 4.8}},
            }
        )["garden"]
        row = next(s for s in out["structures"] if s["key"] == "lantern-row")
        self.assertEqual((row["along"], row["turn"], row["length"]), (0.1, 180.0, 4.8))
        self.structure.refresh_from_db()
        self.assertEqual(self.structure.document["options"]["post"], "tpost_2.1", "other options stay")
        out = self.edit(
            {
                "kind": "structure",
                "act": "add",
                "key": "c",
                "copy_of": "lantern-row",
                "change": {"bed": "chandlers"},
            }
        )
        self.assertEqual(
            next(s for s in out["garden"]["structures"] if s["key"] == out["made"][0])["bed"], "chandlers"
        )
        self.edit({"kind": "structure", "key": "lantern-row", "change": {"bed": "nowhere"}}, status=422)

    def test_removing_a_bed_takes_what_stands_on_it_and_undo_brings_both_back(self):
        before = self.call("get", self.path())
        out = self.edit({"kind": "bed", "act": "remove", "key": "long-plot-a"})["garden"]
        self.assertNotIn("lantern-row", [s["key"] for s in out["structures"]])
        self.call("get", f"structures/{self.structure.pk}", status=404)
        back = self.call("post", self.path("/undo"))
        self.assertEqual(
            [b["fields"] for b in sorted(back["beds"], key=lambda b: b["key"])],
            [b["fields"] for b in sorted(before["beds"], key=lambda b: b["key"])],
        )
        self.assertEqual(
            self.call("get", f"structures/{self.structure.pk}")["key"],
            "lantern-row",
            "its address is the same",
        )

    def test_all_or_none(self):
        good = {"kind": "bed", "key": "cove-bed", "change": {"name": "Changed"}}
        bad = {
            "kind": "structure",
            "key": "lantern-row",
            "change": {"options": {"depth": 99, "post": "tpost_9"}},
        }
        found = {p["path"] for p in self.edit(good, bad, status=422)["problems"]}
        self.assertEqual(
            found, {"edits[1].structure.change.options.depth", "edits[1].structure.change.options.post"}
        )
        self.assertEqual(self.bed_fields("cove-bed")["name"], "Cove Bed")
        self.assertEqual(Change.objects.filter(garden=self.garden).count(), 0)

    def test_nothing_different_is_no_change(self):
        self.move(self.bed_fields("cove-bed")["x"])
        self.assertEqual(Change.objects.count(), 0)

    def test_the_impossible_is_refused(self):
        for change, field in (({"x": 1e9}, "x"), ({"length": 1e9}, "length"), ({"bearing": 400}, "bearing")):
            found = self.edit({"kind": "bed", "key": "cove-bed", "change": change}, status=422)["problems"]
            self.assertEqual(found[0]["path"], f"edits[0].bed.change.{field}")
        many = [
            {"kind": "bed", "act": "add", "key": "b", "change": {"name": "b", "length": 1, "width": 1}}
        ] * 390
        self.assertIn("400", self.edit(*many, status=422)["problems"][0]["allowed"])
        self.edit(*[many[0]] * 401, status=422)

    def test_a_draft_shows_warnings_and_distances_and_stores_nothing(self):
        edit = {"kind": "bed", "key": "loft-bed-2", "change": {"x": 6.4}}
        out = self.call("post", self.path("/draft"), {"edits": [edit], "about": "loft-bed-2"})
        self.assertTrue(any(w["key"] == "narrow-gap" and "Loft Bed 2" in w["text"] for w in out["warnings"]))
        self.assertEqual({gap["to"]: gap["text"] for gap in out["gaps"]}["loft-bed-1"], "0.52 m")
        self.assertEqual(self.bed_fields("loft-bed-2")["x"], 7.2)
        wrong = {"kind": "bed", "key": "loft-bed-2", "change": {"name": ""}}
        self.call("post", self.path("/draft"), {"edits": [wrong]}, 422)


class StaleTest(EditTestCase):
    def test_both_versions_field_by_field_and_nothing_saved(self):
        self.move(20.0, revision=1)
        edit = {"kind": "bed", "key": "cove-bed", "revision": 1, "change": {"x": 22.0, "name": "Mine"}}
        other = {"kind": "bed", "key": "chandlers", "revision": 1, "change": {"name": "Also mine"}}
        out = self.edit(edit, other, status=409)
        (thing,) = out["things"]
        self.assertEqual((thing["key"], thing["revision"]), ("cove-bed", 2))
        self.assertEqual(
            {d["path"]: (d["before"], d["after"]) for d in thing["differences"]},
            {"x": ("20.00 m", "22.00 m"), "name": ("Cove Bed", "Mine")},
        )
        self.assertEqual(self.bed_fields("chandlers", out["garden"])["name"], "Chandler’s")
        self.edit({**edit, "revision": 2}, other)

    def test_a_thing_that_is_gone(self):
        self.edit({"kind": "bed", "act": "remove", "key": "cove-bed"})
        out = self.edit(
            {"kind": "bed", "key": "cove-bed", "revision": 1, "change": {"name": "Mine"}}, status=409
        )
        self.assertIsNone(out["things"][0]["revision"])
        self.edit(
            {"kind": "bed", "key": "cove-bed", "change": {"name": None}}, status=409
        )  # found by random requests
        self.edit({"kind": "bed", "key": "chandlers", "change": {"name": None}}, status=422)


class UndoTest(EditTestCase):
    def test_back_and_forth(self):
        for x in (20.0, 21.0, 22.0):
            self.move(x)
        out = self.call("post", self.path("/undo"))
        self.assertEqual(
            (self.bed_fields("cove-bed", out)["x"], out["undo"], out["redo"]),
            (21.0, "Cove Bed: moved", "Cove Bed: moved"),
        )
        self.assertEqual(self.bed_fields("cove-bed", self.call("post", self.path("/undo")))["x"], 20.0)
        self.assertEqual(self.bed_fields("cove-bed", self.call("post", self.path("/redo")))["x"], 21.0)
        self.assertEqual(self.bed_fields("cove-bed", self.call("post", self.path("/redo")))["x"], 22.0)
        self.assertIn(
            "nothing to redo", self.call("post", self.path("/redo"), status=409)["problems"][0]["allowed"]
        )

    def test_a_new_change_ends_redoing(self):
        self.move(20.0)
        self.move(21.0)
        self.call("post", self.path("/undo"))
        self.move(23.0)
        self.call("post", self.path("/redo"), status=409)
        self.assertEqual(self.bed_fields("cove-bed", self.call("post", self.path("/undo")))["x"], 20.0)
        self.assertEqual(self.bed_fields("cove-bed", self.call("post", self.path("/undo")))["x"], 7.6)

    def test_one_undoes_one_s_own_and_not_over_somebody_elses(self):
        self.call("put", self.path("/people"), {"name": "tobin", "may_edit": True})
        tobin = Client()
        tobin.force_login(self.other)
        self.move(20.0)
        sent = {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"name": "Tobin’s"}}]}
        tobin.post(f"/api/{self.path('/edits')}", sent, content_type="application/json")
        self.assertIn(
            "changed again since", self.call("post", self.path("/undo"), status=409)["problems"][0]["allowed"]
        )
        self.assertEqual(
            tobin.post(f"/api/{self.path('/undo')}", content_type="application/json").status_code, 200
        )
        self.assertEqual(self.bed_fields("cove-bed", self.call("post", self.path("/undo")))["x"], 7.6)

    def test_what_the_bench_saved_is_undone_from_the_plan_too(self):
        draft, revision = self.draft()
        draft["options"]["depth"] = 0.75
        self.call("put", f"structures/{self.structure.pk}", {"draft": draft, "revision": revision})
        self.assertEqual(self.call("get", self.path())["undo"], "Lantern Row: Post depth 0.60 m → 0.75 m")
        self.call("post", self.path("/undo"))
        self.assertEqual(self.draft()[0]["options"]["depth"], 0.6)


class HistoryTest(EditTestCase):
    def test_who_when_and_what_looked_at_and_restored(self):
        self.move(20.0)
        self.edit({"kind": "bed", "act": "remove", "key": "long-plot-a"})
        self.edit({"kind": "place", "change": {"name": "Quay", "path_width": 0.9}})
        log = self.call("get", self.path("/history"))
        self.assertEqual([each["number"] for each in log], [3, 2, 1])
        self.assertEqual(log[0]["words"], "Quay: Name Lantern Quay → Quay, Least path 0.75 m → 0.90 m")
        self.assertEqual({each["who"] for each in log}, {"mara"})
        self.assertIn("Long Plot A removed", log[1]["words"])
        past = self.call("get", self.path("/history/1"))
        self.assertIn("lantern-row", [s["key"] for s in past["plot"]["structures"]])
        self.assertEqual(len(past["since"]), 2)
        out = self.call("post", self.path("/history/1/restore"))
        self.assertEqual(
            (out["name"], self.bed_fields("cove-bed", out)["x"], out["number"]), ("Lantern Quay", 20.0, 4)
        )
        self.assertIn("lantern-row", [s["key"] for s in out["structures"]])
        self.assertIn("Back to 1", self.call("get", self.path("/history"))[0]["words"])
        self.assertEqual(self.call("post", self.path("/undo"))["name"], "Quay", "restoring can be undone")

    def test_how_it_began_and_what_never_was(self):
        self.move(20.0)
        began = self.call("get", self.path("/history/0"))
        self.assertEqual(
            next(b["middle"] for b in began["plot"]["beds"] if b["key"] == "cove-bed"), [7.6, 8.3]
        )
        self.call("get", self.path("/history/2"), status=404)

    def test_long_histories_come_page_by_page(self):
        for n in range(55):
            self.move(10.0 + n)
        first = self.call("get", self.path("/history"))
        second = self.call("get", self.path(f"/history?before={first[-1]['number']}"))
        self.assertEqual((len(first), len(second), second[-1]["number"]), (50, 5, 1))

    def test_every_state_can_be_restored(self):
        """Whatever was done, the state after each change comes back as it was."""
        states = [self.call("get", self.path())["plot"]]
        edits = (
            {"kind": "bed", "key": "cove-bed", "change": {"x": 20.0}},
            {"kind": "bed", "act": "add", "key": "n", "copy_of": "cove-bed", "change": {"x": 25.0}},
            {"kind": "structure", "key": "lantern-row", "change": {"bed": "chandlers", "along": 1.0}},
            {"kind": "bed", "act": "remove", "key": "chandlers"},
            {"kind": "feature", "act": "remove", "key": "sea-wall"},
        )
        states += [self.edit(edit)["garden"]["plot"] for edit in edits]

        def by_key(plot):
            kinds = ("beds", "features", "structures")
            return {kind: sorted(plot[kind], key=lambda t: t["key"]) for kind in kinds}

        for number in (2, 5, 0, 3, 1, 4):
            self.assertEqual(
                by_key(self.call("post", self.path(f"/history/{number}/restore"))["plot"]),
                by_key(states[number]),
                number,
            )
        self.assertEqual(
            Thing.objects.filter(garden=self.garden, kind="structure").count(),
            22,
            "one bed copied, one gone with two",
        )


def merged(garden: dict[str, Any], change: dict[str, Any]) -> dict[str, Any]:
    """Return a garden with a difference laid over it, as the client does."""

    def over(before: list[Any], after: list[Any], gone: set[str]) -> list[Any]:
        fresh = {each["key"]: each for each in after}
        known_ = {each["key"] for each in before}
        return [
            *(fresh.get(each["key"], each) for each in before if each["key"] not in gone),
            *(each for each in after if each["key"] not in known_),
        ]

    out = {
        **garden,
        **{name: change[name] for name in ("number", "name", "units", "place", "room", "next_bed")},
    }
    out |= {name: change[name] for name in ("role", "undo", "redo")}
    out |= {name: change[name] for name in ("warnings", "unreadable") if change[name] is not None}
    for name in ("beds", "features", "structures", "needs"):
        out[name] = over(garden[name], change[name], set(change["gone"]))
        if change["order"]:
            out[name].sort(key=lambda row: change["order"].index(row["key"]))
    marks = {
        name: over(garden["plot"][name], change["plot"][name], set(change["undrawn"]))
        for name in ("beds", "features", "structures")
    }
    return {**out, "plot": {**change["plot"], **marks}}


class DifferenceTest(EditTestCase):
    EDITS = (
        {"kind": "bed", "key": "cove-bed", "change": {"x": 8.0, "bearing": 100.0}},
        {"kind": "bed", "key": "cove-bed", "change": {"name": "Bay Bed"}},
        {"kind": "place", "change": {"units": "metric", "path_width": 0.9}},
        {"kind": "bed", "act": "add", "key": "n", "copy_of": "long-plot-a", "change": {"y": 30.0}},
        {"kind": "structure", "key": "lantern-row", "change": {"bed": "chandlers", "along": 0.4}},
        {"kind": "feature", "act": "remove", "key": "sea-wall"},
        {"kind": "bed", "act": "remove", "key": "chandlers"},
        {"kind": "place", "change": {"name": "Quay", "exposure": "open"}},
    )

    def alike(self, one: dict[str, Any], other: dict[str, Any]) -> None:
        def plain(garden: dict[str, Any]) -> dict[str, Any]:
            marks = {
                name: sorted(garden["plot"][name], key=lambda mark: mark["key"])
                for name in ("beds", "features", "structures")
            }
            return {**garden, "plot": {**garden["plot"], **marks}}

        self.assertEqual(plain(one), plain(other))

    def test_a_difference_laid_over_a_garden_is_the_garden_after_it(self):
        now = self.call("get", self.path())
        for edit in self.EDITS:
            out = self.call("post", self.path("/edits"), {"edits": [edit]})
            self.assertEqual(out["changed"]["since"], now["number"])
            now = merged(now, out["changed"])
            known.forget()  # what is calculated from nothing is what was calculated round what moved
            self.alike(now, self.call("get", self.path()))

    def test_what_others_have_done_comes_as_a_difference_or_as_the_whole_of_it(self):
        seen = self.call("get", self.path())
        for edit in self.EDITS:
            self.call("post", self.path("/edits"), {"edits": [edit]})
        self.call("post", self.path("/undo"), {})
        out = self.call("get", self.path(f"/since/{seen['number']}"))
        self.assertIsNone(out["garden"])
        whole = self.call("get", self.path())
        self.alike(merged(seen, out["difference"]), whole)
        known.forget()
        out = self.call("get", self.path(f"/since/{seen['number']}"))
        self.assertIsNone(out["difference"])
        self.alike(out["garden"], whole)

    def test_an_edit_is_answered_with_no_more_than_what_it_changed(self):
        whole = len(json.dumps(self.call("get", self.path())))
        out = self.call("post", self.path("/edits"), {"edits": [self.EDITS[1]]})
        self.assertEqual([bed["key"] for bed in out["changed"]["beds"]], ["cove-bed"])
        self.assertEqual(out["changed"]["structures"], [])
        self.assertLess(len(json.dumps(out)), whole / 10)

    def test_a_garden_seen_already_is_not_sent_again(self):
        first = self.client.get(f"/api/{self.path()}")
        again = self.client.get(f"/api/{self.path()}", headers={"If-None-Match": first["ETag"]})
        self.assertEqual((again.status_code, again.content), (304, b""))
        self.move(7.0)
        changed = self.client.get(f"/api/{self.path()}", headers={"If-None-Match": first["ETag"]})
        self.assertEqual(changed.status_code, 200)
        self.assertNotEqual(changed["ETag"], first["ETag"])

    def test_another_past_is_not_taken_for_this_one(self):
        """As after a restored backup: the same number of changes, and other things."""
        self.move(7.0)
        self.call("get", self.path())
        Change.objects.filter(garden=self.garden).delete()
        Thing.objects.filter(garden=self.garden, key="cove-bed").update(
            document={**Thing.objects.get(garden=self.garden, key="cove-bed").document, "x": 9.0}
        )
        self.assertEqual(self.bed_fields("cove-bed")["x"], 9.0)
