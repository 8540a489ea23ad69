"""Each verb: works, refused with the field named, not yours, stale."""

from __future__ import annotations

import csv
import io
import json

from ascent.analysis.design import design_of
from ascent.families import FAMILIES
from ascent.plan.structure import Structure
from tests.support import share

from gardens.models import Thing
from gardens.services import structures

from .support import ApiTestCase


class GardenTest(ApiTestCase):
    def path(self, rest: str = "") -> str:
        return f"gardens/{self.garden.pk}{rest}"

    def change(self, status: int = 200, **change):
        out = self.edited([{"kind": "place", "change": change}], status)
        return out["garden"] if status == 200 else out["problems"]

    def test_lines_say_gust_link_week_and_cost(self):
        self.assertEqual(self.call("get", self.path())["name"], "Lantern Quay")
        lines: dict = {}
        while len(lines) < 23:  # they come in by and by, and never fewer than before
            found = {line["key"]: line for line in self.call("get", self.path("/lines"))}
            self.assertGreater(len(found), len(lines))
            lines = found
        self.assertEqual({line["state"] for line in lines.values()}, {"adequate", "marginal", "inadequate"})
        for line in lines.values():
            self.assertRegex(line["limit"], r"\d+ m/s")
            self.assertRegex(line["weakest"], r"first.*\.$")
            self.assertIn("week of", line["week"])
            self.assertIn(" €", line["cost"])
        expected = design_of(structures.site_of(self.structure), Structure(**self.structure.document))
        self.assertAlmostEqual(
            min(limit for limit, _ in lines["lantern-row"]["season"]),
            float(expected.limit[0].min()),
            places=3,
        )
        self.assertEqual(
            [line["key"] for line in self.call("get", self.path("/lines?keys=lantern-row"))], ["lantern-row"]
        )

    def test_change_of_units_frost_wind_currency_and_prices_is_kept(self):
        self.change(prices={"tpost_2.1": 9.5})
        change = {
            "units": "imperial",
            "currency": "€",
            "exposure": "open",
            "climate": "even",
            "last_frost": "05-01",
            "name": "Quay",
        }
        out = self.change(**change, design_gust=22.0, prices={"clip_tpost": 4.0})["place"]
        self.assertEqual({key: out["fields"][key] for key in change}, change)
        self.assertEqual((out["design_gust"], out["fields"]["design_gust"]), (22.0, 22.0))
        self.garden.refresh_from_db()
        self.assertEqual(self.garden.document["prices"], {"tpost_2.1": 9.5, "clip_tpost": 4.0})
        self.assertIsNone(self.change(design_gust=None)["place"]["fields"]["design_gust"])

    def test_refusals_change_nothing(self):
        before = self.garden.document
        for change, field, allowed in (
            ({"exposure": "breezy"}, "exposure", "ordinary"),
            ({"last_frost": "02-31"}, "last_frost", "calendar"),
            ({"colour": "red"}, "colour", ""),
            ({"prices": {"clip_tpost": -1}}, "prices.clip_tpost", "0"),
            ({"design_gust": 1e9}, "design_gust", "45"),
            ({"name": None}, "name", "string"),
        ):
            found = {p["path"]: p["allowed"] for p in self.change(422, **change)}
            self.assertIn(allowed, found[f"edits[0].place.change.{field}"])
        self.garden.refresh_from_db()
        self.assertEqual(self.garden.document, before)

    def test_a_garden_is_made_and_deleted(self):
        out = self.call("post", "gardens", {"name": "New quay", "latitude": 40.0, "units": "imperial"})
        self.assertEqual(
            (out["name"], out["beds"], out["place"]["fields"]["latitude"]), ("New quay", [], 40.0)
        )
        self.assertEqual(len(self.call("get", "gardens")), 2)
        self.call("delete", f"gardens/{out['id']}")
        self.call("get", f"gardens/{out['id']}", status=404)

    def test_shade_tells_hours_and_refuses_no_day(self):
        out = self.call("get", self.path("/shade?date=08-10&hour=12"))
        self.assertIn("10 August, 12:00 sun time: the sun", out["words"])
        beds = {bed["bed"]: bed for bed in out["beds"]}
        self.assertRegex(beds["long-plot-a"]["text"], r"\d+\.\d of 13\.\d h of sun")
        self.assertGreater(beds["long-plot-a"]["lost"], 0.5)
        early = self.call("get", self.path("/shade?date=03-10&hour=12"))
        self.assertTrue(all(bed["lost"] == 0.0 for bed in early["beds"]), "nothing stands yet")
        self.refused("get", self.path("/shade?date=02-31"), None, "date", "08-15")
        self.assertEqual(
            self.call("get", self.path("/shade?date=08-10&hour=inf"), status=422)["problems"][0]["path"],
            "hour",
        )

    def test_the_whole_garden_s_parts_together_cost_less_than_apart(self):
        out = self.call("get", self.path("/parts"))
        self.assertEqual(len(out["structures"]), 23)
        self.assertAlmostEqual(sum(each["cost"] for each in out["structures"]), out["apart"], places=1)
        self.assertLess(out["cost"], out["apart"])
        together = list(csv.DictReader(io.StringIO(self.call("get", self.path("/parts.csv")))))
        self.assertAlmostEqual(sum(float(r["cost"]) for r in together[:-1]), out["cost"], places=1)
        apart = list(csv.DictReader(io.StringIO(self.call("get", self.path("/parts.csv?by_structure=true")))))
        self.assertEqual({r["structure"] for r in apart[:-1]}, {each["name"] for each in out["structures"]})

    def test_a_name_that_a_rangesheet_would_run_is_only_text(self):
        self.call(
            "post",
            self.path("/edits"),
            {"edits": [{"kind": "structure", "key": "lantern-row", "change": {"name": "=1+1"}}]},
        )
        self.assertIn("\n'=1+1,", self.call("get", self.path("/parts.csv?by_structure=true")))

    def test_how_it_calculates_is_a_page_without_raw_html(self):
        html = self.call("get", "method")["html"]
        self.assertIn("<h1>", html)
        self.assertNotIn("<script", html)


class ProposalTest(ApiTestCase):
    def test_everything_is_filled_in_with_its_reason(self):
        out = self.call(
            "post",
            f"gardens/{self.garden.pk}/beds/{self.bed.key}/proposal",
            {"family": "mesh-fence", "crop": "cuc-slice", "side": "left"},
        )
        self.assertEqual(len(out["values"]), len({row["option"] for row in out["values"]}))
        self.assertTrue(
            {"length", "mesh", "post", "post_spacing", "depth", "tie", "ends"}
            <= {row["option"] for row in out["values"]}
        )
        self.assertTrue(all(row["value"] and row["reason"].endswith(".") for row in out["values"]))
        self.assertEqual(out["report"]["headline"]["state"], "adequate")
        self.assertEqual(
            Thing.objects.filter(garden=self.garden, home=self.bed.key).count(), 1, "nothing is stored yet"
        )

    def test_build_puts_it_on_the_bed_with_a_key_of_its_own(self):
        made = [
            self.call(
                "post",
                f"gardens/{self.garden.pk}/beds/{self.bed.key}/structures",
                {"family": "mesh-fence", "crop": "bean-pole", "count": 12},
            )
            for _ in range(2)
        ]
        rows = [Thing.objects.get(pk=out["id"]) for out in made]
        self.assertEqual(len({row.document["key"] for row in rows}), 2)
        self.assertEqual(rows[0].document["plantings"][0]["count"], 12)

    def test_kinds_are_sized_put_in_order_and_built_as_they_were_shown(self):
        bed = f"gardens/{self.garden.pk}/beds/{self.bed.key}"
        need = {"crop": "tom-slicer", "wants": {"years": 5}}
        ways = {kind: self.call("post", f"{bed}/ways/{kind}", need) for kind in ("stake", "brushwood")}
        self.assertEqual(ways["stake"]["against"], [])
        self.assertIn("Not for", ways["brushwood"]["against"][0])
        asked = {"first": "cost", "ways": {"stake": ways["stake"]["figures"]}}
        (place,) = self.call("post", f"gardens/{self.garden.pk}/order", asked)["places"]
        self.assertEqual((place["family"], place["rank"]), ("stake", 1))
        shown = ways["stake"]
        chosen = {"name": "Row", "options": shown["options"], "plantings": shown["plantings"]}
        built = {"family": "stake", "crop": "tom-slicer", "chosen": chosen}
        report = self.call("post", f"{bed}/proposal", built)["report"]
        self.assertEqual(report["headline"]["limit_text"], shown["told"]["limit"])
        made = self.call("post", f"{bed}/structures", built)
        self.assertEqual(made["draft"]["options"], shown["options"])
        self.refused("post", f"{bed}/ways/hammock", need, "family", "stake")
        self.refused("post", f"{bed}/ways/stake", {"crop": "tom-beff"}, "crop", "tom-beef")
        wrong = {"crop": "tom-slicer", "wants": {"years": 0}}
        self.refused("post", f"{bed}/ways/stake", wrong, "wants.years")
        wrong = {**built, "chosen": {**chosen, "options": {**shown["options"], "depth": 9.0}}}
        self.refused("post", f"{bed}/structures", wrong, "options.depth")

    def test_every_kind_is_offered_as_a_picture_the_best_first(self):
        out = self.call(
            "post",
            f"gardens/{self.garden.pk}/beds/{self.bed.key}/supports",
            {"crop": "butternut", "side": "both"},
        )
        scores = [each["score"] for each in out["supports"]]
        suits = [score >= 2 for score in scores]
        self.assertEqual(suits, sorted(suits, reverse=True), "what suits the crop comes first")
        self.assertEqual({each["family"] for each in out["supports"]}, set(FAMILIES))
        for each in out["supports"]:
            self.assertTrue(
                each["sketch"]["strokes"] and each["name"] and each["what"].endswith("."), each["family"]
            )
        arch = next(each for each in out["supports"] if each["family"] == "panel-arch")
        self.assertEqual((arch["score"], arch["score_text"]), (3, "best for it"))

    def test_each_kind_can_be_built_and_opened(self):
        for family in share(FAMILIES, 3, 1):
            with self.subTest(family):
                need = {"family": family, "crop": "bean-pole", "side": "both"}
                made = self.call("post", f"gardens/{self.garden.pk}/beds/chandlers/structures", need)
                self.assertEqual(made["family"], family)
                report = self.call("post", f"structures/{made['id']}/report", {"draft": made["draft"]})
                self.assertTrue(report["links"] and report["parts"] is not None)
                rests = self.call("post", f"structures/{made['id']}/sensitivity", {"draft": made["draft"]})[
                    "inputs"
                ]
                ranges = [rest["range"] for rest in rests]
                self.assertEqual(ranges, sorted(ranges, reverse=True))
                self.assertTrue(
                    all(spread >= 0.5 for spread in ranges), "nothing is listed that hardly moves it"
                )

    def test_a_wish_is_read_backwards(self):
        need = {"family": "panel-arch", "crop": "bean-pole", "side": "both"}
        made = self.call("post", f"gardens/{self.garden.pk}/beds/chandlers/structures", need)
        catalogue = self.call("get", "catalogue")
        (wish,) = next(each["wishes"] for each in catalogue["families"] if each["key"] == "panel-arch")
        wanted = {ask["name"]: ask["start"] for ask in wish["asks"]}
        out = self.call(
            "post",
            f"structures/{made['id']}/ways",
            {"draft": made["draft"], "wish": wish["key"], "wanted": wanted},
        )
        self.assertEqual(out["written"]["clear"], "1.80 m")
        self.assertTrue(out["ways"][0]["reaches"])
        taken = {**made["draft"], "options": {**made["draft"]["options"], **out["ways"][0]["changes"]}}
        self.call("put", f"structures/{made['id']}", {"draft": taken, "revision": made["revision"]})
        wrong = {"draft": made["draft"], "wish": wish["key"], "wanted": {**wanted, "path": 30}}
        self.refused("post", f"structures/{made['id']}/ways", wrong, "wanted.path", "0.60 m to 2.40 m")

    def test_refusals(self):
        self.refused(
            "post",
            f"gardens/{self.garden.pk}/beds/{self.bed.key}/proposal",
            {"family": "hammock", "crop": "tom-beef"},
            "family",
            "mesh-fence",
        )
        self.refused(
            "post",
            f"gardens/{self.garden.pk}/beds/{self.bed.key}/supports",
            {"crop": "tom-beff"},
            "crop",
            "tom-beef",
        )
        self.refused(
            "post",
            f"gardens/{self.garden.pk}/beds/{self.bed.key}/proposal",
            {"family": "mesh-fence", "crop": "tom-beff"},
            "crop",
            "tom-beef",
        )
        self.refused(
            "post",
            f"gardens/{self.garden.pk}/beds/{self.bed.key}/structures",
            {"family": "mesh-fence", "crop": "tom-beef", "count": 10_000},
            "count",
            "600",
        )
        self.refused(
            "post",
            f"gardens/{self.garden.pk}/beds/{self.bed.key}/proposal",
            {"family": "mesh-fence", "crop": "tom-beef", "side": "top"},
            "side",
        )


class StructureTest(ApiTestCase):
    def path(self, rest: str = "") -> str:
        return f"structures/{self.structure.pk}{rest}"

    def test_save_grows_the_revision_and_is_read_back(self):
        draft, revision = self.draft()
        draft["options"]["depth"] = 0.75
        draft["soil"] = "gravelly"
        saved = self.call("put", self.path(), {"draft": draft, "revision": revision})
        self.assertEqual((saved["revision"], saved["draft"]["options"]["depth"]), (revision + 1, 0.75))
        self.assertEqual(self.draft()[0]["soil"], "gravelly")

    def test_a_stale_save_gets_409_with_what_is_saved_and_changes_nothing(self):
        draft, revision = self.draft()
        first = {**draft, "name": "First"}
        self.call("put", self.path(), {"draft": first, "revision": revision})
        answer = self.call(
            "put", self.path(), {"draft": {**draft, "name": "Second"}, "revision": revision}, 409
        )
        self.assertEqual(answer["saved"]["draft"]["name"], "First")
        self.assertEqual(
            answer["differences"], [{"path": "name", "label": "Name", "before": "First", "after": "Second"}]
        )
        self.assertEqual(self.draft()[0]["name"], "First")

    def test_a_refused_save_names_every_field_and_leaves_what_was_saved(self):
        draft, revision = self.draft()
        bad = {**draft, "options": {**draft["options"], "depth": 99, "post": "tpost_9"}}
        problems = self.call("put", self.path(), {"draft": bad, "revision": revision}, 422)["problems"]
        self.assertEqual({p["path"] for p in problems}, {"options.depth", "options.post"})
        self.assertEqual(self.draft(), (draft, revision))

    def test_report_follows_the_draft_and_stores_nothing(self):
        draft, revision = self.draft()
        weak = {**draft, "options": {**draft["options"], "post_spacing": 3.6}}
        strong = self.call("post", self.path("/report"), {"draft": draft})
        found = self.call("post", self.path("/report"), {"draft": weak, "day": "2026-05-20"})
        self.assertLess(found["headline"]["limit"], strong["headline"]["limit"])
        self.assertEqual(self.draft(), (draft, revision))

    def test_fixes_are_priced_and_say_what_comes_out(self):
        draft, _ = self.draft()
        weak = {**draft, "options": {**draft["options"], "post_spacing": 2.4}}
        fixes = self.call("post", self.path("/fixes"), {"draft": weak, "link": "post"})["fixes"]
        self.assertTrue(any(fix["option"] == "post_spacing" and fix["holds"] for fix in fixes))
        self.assertTrue(all("€" in fix["cost_text"] and "m/s" in fix["limit_text"] for fix in fixes))

    def test_changes_together_make_it_hold_and_do_what_they_say(self):
        draft, _ = self.draft()
        weak = {**draft, "options": {**draft["options"], "post_spacing": 3.0, "depth": 0.3}}
        found = self.call("post", self.path("/sizing"), {"draft": weak})
        self.assertTrue(found["holds"])
        self.assertTrue(found["words"])
        self.assertTrue(all(change["why"] and "€" in change["cost_text"] for change in found["words"]))
        self.assertEqual(set(found["changes"]) & {"mesh", "length"}, set(), "what was chosen stays")
        after = self.call(
            "post",
            self.path("/report"),
            {"draft": {**weak, "options": {**weak["options"], **found["changes"]}}},
        )
        self.assertEqual(after["headline"]["limit_text"], found["limit_text"])
        self.assertNotEqual(after["headline"]["state"], "inadequate")
        dear = {"aim": "cheapest", "budget": 1.0, "locked": ["post"]}
        poor = self.call("post", self.path("/sizing"), {"draft": weak, "wanted": dear})
        self.assertIn("cheapest that holds costs ", poor["stopped"])
        self.assertNotIn("post", poor["changes"])
        refused = {"draft": weak, "wanted": {"aim": "prettiest"}}
        self.refused("post", self.path("/sizing"), refused, "wanted.aim", "cheapest")

    def test_what_an_option_moves(self):
        draft, revision = self.draft()
        found = self.call("post", self.path("/curve"), {"draft": draft, "option": "depth"})
        self.assertEqual(found["points"][found["present"]]["value"], draft["options"]["depth"])
        self.assertGreater(found["points"][-1]["limit"], found["points"][0]["limit"])
        report = self.call("post", self.path("/report"), {"draft": draft})
        self.assertEqual(found["points"][found["present"]]["limit_text"], report["headline"]["limit_text"])
        self.refused("post", self.path("/curve"), {"draft": draft, "option": "moon"}, "option", "depth")
        self.assertEqual(self.draft(), (draft, revision), "nothing was stored")

    def test_in_the_round_with_the_days_sun_and_in_words(self):
        draft, _ = self.draft()
        weeks = self.call("post", self.path("/report"), {"draft": draft})["weeks"]
        found = self.call("post", self.path("/solid"), {"draft": draft, "day": weeks[18]["date"]})
        self.assertEqual(found["week"], 18)
        self.assertEqual(len(found["solid"]["climbers"]), draft["plantings"][0]["count"])
        self.assertTrue(any(bar["section"] == "square" for bar in found["solid"]["bars"]))
        noon = next(sun for sun in found["suns"] if sun["hour"] == 12)
        self.assertAlmostEqual(sum(v * v for v in noon["towards"]), 1.0, places=6)
        self.assertLess(
            noon["towards"][1], -0.3, "the row runs east: at noon the sun stands to its right, in the south"
        )
        self.assertIn("Plants of Tomato, indeterminate, slicer", found["says"])
        self.refused("post", self.path("/solid"), {"draft": draft, "day": "2026-02-31"}, "day")

    def test_the_impossible_is_refused_not_computed(self):
        draft, _ = self.draft()
        for option, value in (("length", 1e9), ("post_spacing", 1e-9), ("ties_per_post", 10**9)):
            bad = {"draft": {**draft, "options": {**draft["options"], option: value}}}
            self.refused("post", self.path("/report"), bad, f"options.{option}")
        crowd = [{**draft["plantings"][0], "count": 10_000}]
        self.refused(
            "post", self.path("/report"), {"draft": {**draft, "plantings": crowd}}, "draft.plantings[0].count"
        )

    def test_numbers_that_are_not_finite(self):
        draft, _ = self.draft()
        text = json.dumps({"draft": draft}).replace('"length": 5.7', '"length": Infinity')
        answer = self.client.post(f"/api/{self.path('/report')}", text, content_type="application/json")
        self.assertEqual(answer.status_code, 422)

    def test_malformed_json_has_the_same_form_of_error(self):
        answer = self.client.post(f"/api/{self.path('/report')}", "{", content_type="application/json")
        self.assertEqual(answer.status_code, 400)
        self.assertEqual(answer.json()["problems"][0]["path"], "request")

    def test_remove(self):
        self.call("delete", self.path())
        self.call("get", self.path(), status=404)

    def test_parts_as_csv_add_up(self):
        text = self.call("get", self.path("/parts.csv"))
        rows = list(csv.DictReader(io.StringIO(text)))
        self.assertEqual(rows[-1]["part"], "total")
        self.assertAlmostEqual(sum(float(r["cost"]) for r in rows[:-1]), float(rows[-1]["cost"]), places=2)
        self.assertIn("steel T-post 2.1 m", {r["part"] for r in rows})

    def test_a_name_that_a_rangesheet_would_run_is_only_text(self):
        """The CSV holds catalogue names and numbers: nothing a person typed, so no formula can ride in it."""
        draft, revision = self.draft()
        self.call("put", self.path(), {"draft": {**draft, "name": "=1+1"}, "revision": revision})
        self.assertNotIn("=1+1", self.call("get", self.path("/parts.csv")))


class QuantityTest(ApiTestCase):
    def test_read(self):
        sent = {"text": "4' 6\"", "kind": "length", "system": "metric", "low": 0.3, "high": 2.4}
        self.assertEqual(
            self.call("post", "quantities/read", sent), {"value": 1.3716, "text": "1.37 m", "said": ""}
        )

    def test_a_beaufort_number_says_which_gust_at_the_plant_was_assumed(self):
        """Structures handbook 1.4: near gale, forecast gust about 23 m/s, 14 m/s at the plant in a suburb."""
        sent = {"text": "Beaufort 7", "kind": "speed", "exposure": "ordinary", "low": 5, "high": 45}
        found = self.call("post", "quantities/read", sent)
        self.assertAlmostEqual(found["value"], 14, delta=0.5)
        self.assertIn("a forecast gust of 23 m/s, taken as 14 m/s at the plant", found["said"])
        self.refused(
            "post", "quantities/read", {**sent, "text": "Beaufort 1"}, "value", "5 m/s to 45 m/s at the plant"
        )

    def test_refused_with_what_is_allowed(self):
        self.refused(
            "post",
            "quantities/read",
            {"text": "4 m", "kind": "length", "low": 0.3, "high": 2.4},
            "value",
            "0.30 m to 2.40 m",
        )
        self.refused("post", "quantities/read", {"text": "tall", "kind": "length"}, "value", "such as")
        self.refused("post", "quantities/read", {"text": "4", "kind": "flavour"}, "kind")

    def test_catalogue_lists_what_a_picker_needs(self):
        out = self.call("get", "catalogue")
        self.assertGreaterEqual(len(out["crops"]), 12)
        self.assertGreaterEqual(len(out["tables"]["posts"]), 20)
        options = {field["name"]: field for field in out["families"][0]["options"]}
        self.assertEqual((options["depth"]["low"], options["depth"]["high"]), (0.15, 1.2))
        self.assertEqual(options["wire"]["when_is"], ["wire"])
        self.assertEqual(out["bounds"]["planting.count"], {"low": 1, "high": 600})
        self.assertLessEqual(
            {"planting.spacing", "bed.length", "bed.width", "bed.fill_depth", "garden.design_gust"},
            set(out["bounds"]),
        )

    def test_an_unknown_address_answers_in_the_same_form(self):
        self.assertEqual(self.call("get", "nowhere", status=404)["problems"][0]["path"], "address")


class RefusalTest(ApiTestCase):
    def test_a_refusal_names_the_field_the_value_and_what_is_allowed(self):
        edit = {
            "kind": "bed",
            "act": "add",
            "key": "x",
            "change": {"name": "x", "length": -4, "width": "wide"},
        }
        sent = {"edits": [edit]}
        problems = {
            p["path"]: p for p in self.call("post", f"gardens/{self.garden.pk}/edits", sent, 422)["problems"]
        }
        length = problems["edits[0].bed.change.length"]
        self.assertEqual(
            (length["given"], length["allowed"]), ("-4", "greater than or equal to 0.3 is allowed")
        )
        self.assertEqual(problems["edits[0].bed.change.width"]["given"], '"wide"')
