"""The steps of building: every piece of the parts list in one of them, whatever the options."""

from __future__ import annotations

import ast
from collections import Counter
from dataclasses import replace
from unittest.mock import patch

from ascent import tables
from ascent.analysis.design import design_of, geometry_of
from ascent.building.work import taking_down, work_of
from ascent.buying.pieces import pieces_of
from ascent.buying.work import labour_of
from ascent.drawing.joints import joint_sheet
from ascent.drawing.sheet import Line
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.plan.bed import Bed
from ascent.plan.structure import Structure
from ascent.report import complete
from ascent.report.complete import missing_families, missing_texts
from ascent.sizing.offer import start_of
from ascent.words.texts import has
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import ROOT, NearTestCase, demo, fence, site
from tests.test_any_family import places, plantings, wanted


class EveryPieceTest(NearTestCase):
    @settings(max_examples=120, deadline=None, derandomize=True)
    @given(
        wanted(),
        places(),
        st.lists(plantings(), min_size=1, max_size=2, unique_by=lambda planting: planting.key),
        st.sampled_from(["usual", "other"]),
    )
    def test_is_used_in_one_step_and_no_step_has_another(self, chosen, place, grown, joining):
        key, options = chosen
        grown = [planting.model_copy(update={"count": min(planting.count, 40)}) for planting in grown]
        structure = Structure(key="x", name="x", family=key, options=options, plantings=tuple(grown))
        geometry = FAMILIES[key].geometry(
            FAMILIES[key].options.model_validate(options), structure.plantings, place
        )
        work = work_of(place, structure, geometry, joining)
        wanted_ = Counter(pieces_of([geometry]))
        used = Counter(piece for step in work for piece in step.pieces)
        self.assertEqual(used, wanted_, f"{key}: {list((wanted_ - used) | (used - wanted_))[:3]}")
        keys = [step.key for step in work]
        self.assertEqual(len(set(keys)), len(keys), f"{key}: {keys}")
        bought = {m.key for m in geometry.members if m.table in tables.ITEM_TABLES}
        set_in = Counter(member.key for step in work for member in step.members)
        self.assertEqual(set(set_in), bought, key)
        self.assertLessEqual(max(set_in.values(), default=1), 1)
        fields = set(FAMILIES[key].options.model_fields)
        self.assertLessEqual({option for step in work for option in step.step.differs}, fields)


class OrderTest(NearTestCase):
    """Common practice, no source: what is done before what."""

    def everyone(self):
        garden = demo()
        for bed in garden.beds:
            for structure in bed.structures:
                place = site().model_copy(update={"garden": garden, "bed": bed})
                geometry = geometry_of(bed, structure)
                for joining in ("usual", "other"):
                    yield structure, geometry, work_of(place, structure, geometry, joining)

    def test_a_post_is_as_long_as_it_goes_in_and_stands_out(self):
        """What is bought longer is sawn to that: both measures of its step are met, or neither is."""
        sawn = 0
        for structure, _, work in self.everyone():
            for step in work:
                said = {hit.key: hit.value[0] for hit in step.step.hits}
                if not {"depth", "top"} <= set(said):
                    continue
                for member in step.members:
                    long = said.get("sawn", member.buy_length)
                    if member.points[-1][2] == said["top"]:
                        with self.subTest(structure=structure.key, step=step.key):
                            self.assertLessEqual(abs(long - said["depth"] - said["top"]), 0.03)
                sawn += "sawn" in said
        self.assertGreater(sawn, 0)

    def test_poles_on_a_rim_have_a_tie_each(self):
        pot = Bed(key="p", name="P", kind="container", length=0.4, width=0.4, fill_depth=0.35)
        place = site().model_copy(update={"bed": pot})
        structure = start_of(place, "tripod", Need("tom-cherry", 1, "right", "pruned"), "metric").structure
        (stand,) = [
            step
            for step in work_of(place, structure, geometry_of(pot, structure), "usual")
            if step.step.row == "pole-stands"
        ]
        ties = [used.count for used in stand.used if used.item.key == structure.options["binding"]]
        self.assertEqual(ties, [structure.options["legs"]])

    def test_what_is_marked_comes_first_and_plants_after_what_is_driven(self):
        for structure, _, work in self.everyone():
            rows = [step.step.row for step in work]
            with self.subTest(structure.key):
                self.assertTrue(rows[0].startswith(("mark", "cut-sticks")))
                driven = [n for n, row in enumerate(rows) if row.startswith("posts-")]
                if structure.family != "living-support":
                    self.assertLess(max(driven, default=-1), rows.index("plant"))
                if "mesh-tie" in rows:
                    self.assertLess(max(driven), rows.index("mesh-tie"))
                if "wires" in rows:
                    self.assertLess(rows.index("guys"), rows.index("wires"))

    def test_minutes_are_those_of_the_whole(self):
        garden = demo()
        for bed, structure in [(each, one) for each in garden.beds for one in each.structures]:
            place = site().model_copy(update={"garden": garden, "bed": bed})
            geometry = geometry_of(bed, structure)
            work = work_of(place, structure, geometry)
            options = FAMILIES[structure.family].options.model_validate(structure.options)
            whole = labour_of(structure, options, geometry, place)
            self.assertNear(sum(step.minutes for step in work), whole.minutes, 1e-6)
            self.assertNear(sum(step.minutes * step.people for step in work), whole.hands, 1e-6)

    def test_taking_down_is_the_other_way_round_and_says_what_springs(self):
        for structure, _, work in self.everyone():
            keys = [step.key for step in work]
            down = [keys.index(step.key) for step in taking_down(work)]
            self.assertEqual(down, sorted(down, reverse=True))
            if structure.family == "panel-arch":
                bent = next(step for step in taking_down(work) if step.key == "bend")
                self.assertIn("spring", bent.row.springs)
                self.assertEqual(bent.people, 4 if "lapped" in bent.step.words["what"] else 2)

    def test_what_can_be_joined_otherwise_comes_in_another_order(self):
        changed = set()
        seen = {}
        for structure, _, work in self.everyone():
            rows = [step.step.row for step in work]
            if seen.setdefault(structure.key, rows) != rows:
                changed.add(structure.family)
        self.assertGreaterEqual(changed, {"crossed-poles", "drop-strings", "bed-frame"})
        self.assertLessEqual(changed, {key for key, family in FAMILIES.items() if family.joined})


class JointTest(NearTestCase):
    def test_every_joint_and_caution_of_a_step_is_known(self):
        for row in tables.steps().values():
            self.assertIn(row.joint, {None, "*", *tables.joints()}, row.key)
        drawn = {row.joint for row in tables.joint_strokes().values()}
        self.assertEqual(drawn, set(tables.joints()))
        for key in tables.joints():
            for mark in joint_sheet(key).layers[0].marks:
                points = mark.points if isinstance(mark, Line) else (mark.at,)
                self.assertLessEqual(max(abs(v) for point in points for v in point), 0.11, key)
        for item in (*tables.ties().values(), *tables.fittings().values()):
            self.assertIn(item.joint, {None, *tables.joints()}, item.key)


class SprungTest(NearTestCase):
    """Common practice, no source: a bent panel is held at one foot before it is bent, and by both before the
    next is touched.
    """

    def arches(self):
        for panels, foot in ((1, "posts"), (3, "posts"), (2, "board"), (2, "block"), (2, "buried")):
            options = {"panels": panels, "foot": foot}
            structure = Structure(
                key="x", name="x", family="panel-arch", options=options, plantings=fence().plantings
            )
            place = site()
            geometry = geometry_of(place.bed, structure)
            yield panels, foot, geometry, work_of(place, structure, geometry)

    def test_no_panel_is_loose_once_its_step_is_done(self):
        for panels, foot, geometry, work in self.arches():
            done: set[str] = set()
            bent = 0
            for step in work:
                done |= {member.key for member in step.members}
                mine = [member for member in step.members if member.role == "panel"]
                self.assertLessEqual(len(mine), 1, (foot, step.key))
                for panel in mine:
                    bent += 1
                    xs = [x for x, _, _ in panel.points]
                    own = [
                        tie
                        for tie in geometry.by_role("tie")
                        if tie.key.startswith("tie") and min(xs) < tie.points[0][0] < max(xs)
                    ]
                    held = [tie for tie in own if tie.key in done]
                    self.assertEqual({tie.points[0][1] > 0 for tie in held}, {True, False} if own else set())
                    stops = [m for m in geometry.members if m.key.startswith(("cleat", "block"))]
                    self.assertLessEqual({m.key for m in stops}, done, foot)
                    self.assertEqual(step.people, 2)
                    self.assertIn("spring", step.row.cautions)
            self.assertEqual(bent, panels, foot)

    def test_a_mesh_bent_over_its_ridge_is_held_as_it_is_bent(self):
        held_by = {"stake": "strut", "cleat": "fitting", "anchor": "anchor", "none": "run"}
        for foot, role in held_by.items():
            options = {"filled": "bent", "foot": foot}
            structure = Structure(
                key="x", name="x", family="a-frame", options=options, plantings=fence().plantings
            )
            geometry = geometry_of(site().bed, structure)
            work = work_of(site(), structure, geometry)
            (at,) = (n for n, step in enumerate(work) if step.key == "bend")
            done = {member.key for step in work[: at + 1] for member in step.members}
            holding = {member.key for member in geometry.by_role(role)}
            self.assertTrue(holding, foot)
            self.assertLessEqual(holding, done, foot)
            self.assertGreaterEqual(work[at].people, 2)
            self.assertIn("spring", work[at].row.cautions)
            self.assertNotIn("open", [step.key for step in work], "it does not fold")

    def test_the_words_hold_one_foot_before_the_bend(self):
        for key, first, bend, second in (
            ("bend", "tie that foot at once", "walks the other end in", "ties that foot"),
            ("bend-stops", "standing on it", "walks the free end in", "a hand on both ends"),
            ("bend-buried", "ram the soil back", "walks the other end in", "rams that slot full"),
            ("bend-fixed", "fix that foot to the ground", "walks the other edge in", "fixes that foot"),
            ("bend-tied", "stands on one edge", "walks the free edge in", "ties the feet together"),
            ("hoops", "hold it there", "Bend the hoop over", "both ends are down"),
            ("hoops-pushed", "hold it there", "Bend the hoop over", "both ends are down"),
        ):
            do = tables.steps()[key].do
            places = [do.index(words) for words in (first, bend, second)]
            self.assertEqual(places, sorted(places), key)

    def test_lapped_panels_are_bent_as_one_by_four(self):
        structure = Structure(
            key="x", name="x", family="panel-arch", options={"panels": 2}, plantings=fence().plantings
        )
        geometry = geometry_of(site().bed, structure)
        (bend,) = (s for s in work_of(site(), structure, geometry, "other") if s.key.startswith("bend"))
        self.assertEqual(bend.people, 4)
        self.assertEqual(sum(member.role == "panel" for member in bend.members), 2)

    def test_what_springs_is_said_where_it_is_unrolled(self):
        for key in ("mesh-roll", "rings-cut"):
            self.assertIn("roll-springs", tables.steps()[key].cautions)


class TextsTest(NearTestCase):
    def test_every_text_asked_for_is_there(self):
        self.assertEqual(missing_texts(), ())

    def test_a_family_is_its_folder(self):
        """A folder that is forgotten in the list of families, in its traits or by the layers, is found."""
        self.assertEqual(missing_families(), ())
        with patch.object(complete, "FAMILIES", {key: FAMILIES[key] for key in FAMILIES if key != "hoops"}):
            self.assertEqual(missing_families(), ("families/__init__.py does not name ‘hoops’",))
        traits = {key: row for key, row in tables.traits().items() if key != "weave"}
        with patch.object(complete.tables, "traits", return_value=traits):
            self.assertEqual(missing_families(), ("the folder of ‘weave’ has no traits.csv",))
        layers = (ROOT / ".importlinter").read_text(encoding="utf-8")
        for key in FAMILIES:
            self.assertIn(f"    ascent.families.{key.replace('-', '_')}\n", layers)

    def test_a_step_with_a_caution_of_no_text_is_found(self):
        known = tables.steps()
        row = replace(known["bend"], caution="spring; lifts")
        with patch.object(complete.tables, "steps", return_value={"bend": row}):
            self.assertEqual(missing_texts(), ("caution.lifts",))

    def test_every_key_written_in_the_source_has_its_text(self):
        """Remarks, measures to hit, reasons and cautions name their texts by a literal."""
        prefixes = {"Remark": "remark", "Reason": "reason", "Hit": "hit"}
        looked = 0
        for path in (ROOT / "core" / "ascent").rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.args:
                    first = node.args[0]
                    if not (isinstance(first, ast.Constant) and isinstance(first.value, str)):
                        continue
                    if node.func.id in prefixes:
                        key = f"{prefixes[node.func.id]}.{first.value}"
                    elif node.func.id in ("template", "say"):
                        key = first.value
                    else:
                        continue
                    looked += 1
                    self.assertTrue(has(key), f"{path.name}: {key}")
                if isinstance(node, ast.FunctionDef) and node.name == "cautions" and "families" in path.parts:
                    for part in ast.walk(node):
                        if isinstance(part, ast.Tuple | ast.List):
                            for each in part.elts:
                                if isinstance(each, ast.Constant) and isinstance(each.value, str):
                                    self.assertTrue(has(f"caution.{each.value}"), f"{path}: {each.value}")
        self.assertGreater(looked, 300)


class FrameTest(NearTestCase):
    """Parts handbook 4.10, and common practice, no source."""

    def frame(self, **options):
        place = site(kind="raised", fill_depth=0.3, board=0.038, length=3.0)
        structure = Structure(
            key="x",
            name="x",
            family="bed-frame",
            options={"length": 2.4, **options},
            plantings=fence().plantings,
        )
        return place, structure, geometry_of(place.bed, structure)

    def test_a_screw_longer_than_the_wood_is_wrong(self):
        for screw, post, wrong in (
            ("screw_100", "post_sw_stake_38", True),
            ("screw_64", "post_sw_stake_38", False),
        ):
            place, structure, _geometry = self.frame(screw=screw, post=post)
            keys = {r.key for r in design_of(place, structure).remarks if r.level == "wrong"}
            self.assertEqual("screw-through" in keys, wrong, (screw, keys))

    def test_a_tie_across_ends_at_two_boards(self):
        for boards, sides, tied in (("bed", "one", True), ("own", "both", True), ("own", "one", False)):
            place, structure, geometry = self.frame(boards=boards, sides=sides, backing="ties")
            ties = [m for m in geometry.members if m.key.startswith("backing")]
            self.assertEqual(bool(ties), tied)
            keys = {r.key for r in design_of(place, structure).remarks if r.level == "wrong"}
            self.assertEqual("tie-to-nothing" in keys, not tied)

    def test_its_steps_speak_of_no_panel(self):
        for boards in ("bed", "own"):
            place, structure, geometry = self.frame(boards=boards, backing="ties")
            for step in work_of(place, structure, geometry):
                self.assertNotIn("panel", step.row.do.lower(), step.key)
