"""The steps of building: every piece of the parts list in one of them, whatever the options."""

from __future__ import annotations

from collections import Counter

from ascent import tables
from ascent.building.work import taking_down, work_of
from ascent.buying.pieces import pieces_of
from ascent.buying.work import labour_of, setting_of
from ascent.drawing.joints import joint_sheet
from ascent.drawing.sheet import Line
from ascent.families import FAMILIES
from ascent.ground.plot import geometry_of
from ascent.plan.model import Structure
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import NearTestCase, demo, site
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
        for structure, geometry, work in self.everyone():
            options = FAMILIES[structure.family].options.model_validate(structure.options)
            whole = labour_of(geometry, setting_of(options)).minutes
            own = sum(step.minutes for step in work if step.members) + tables.work()["site"].minutes
            self.assertNear(own, whole, 1e-6)

    def test_taking_down_is_the_other_way_round_and_says_what_springs(self):
        for structure, _, work in self.everyone():
            keys = [step.key for step in work]
            down = [keys.index(step.key) for step in taking_down(work)]
            self.assertEqual(down, sorted(down, reverse=True))
            if structure.family == "panel-arch":
                bent = next(step for step in taking_down(work) if step.key == "bend")
                self.assertIn("spring", bent.row.springs)
                self.assertEqual(bent.people, 2)

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
