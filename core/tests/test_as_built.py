"""A structure as it really went in: checked again, post by post where posts differ."""

from __future__ import annotations

import datetime as dt

import numpy as np
from ascent.analysis.design import design_of
from ascent.building.asbuilt import as_built, being_built, check_differs, coming_off
from ascent.buying.back import put_back
from ascent.errors import InvalidPlan
from ascent.plan.record import Differs, Record, Tick
from ascent.plan.shed import MOST_STOCKED_ALIKE, Stock, Taken
from ascent.plan.structure import AsBuilt, Build

from tests.support import NearTestCase, fence, site

NOW = dt.datetime(2026, 4, 12, 10, 0, tzinfo=dt.UTC)


def record(*differs: Differs, **more: object) -> Record:
    """Return the record of a fence in which something differs."""
    keyed = {f"{each.option}{'@' + each.member if each.member else ''}": each for each in differs}
    return Record(key="r", name="Fence", structure="fence", begun=NOW.date(), differs=keyed, **more)


def went(option: str, value: object, member: str = "") -> Differs:
    """Return one thing that went in otherwise."""
    return Differs(option=option, value=value, member=member, at=NOW)


class AsBuiltTest(NearTestCase):
    def test_nothing_written_is_as_planned(self):
        found = as_built(site(), fence(), record())
        self.assertIs(found.whole, found.planned)
        self.assertEqual(found.parts, ())

    def test_a_post_on_a_stone_holds_to_no_more_than_a_fence_of_such_posts(self):
        """Common practice, no source: a post less deep leans first."""
        found = as_built(site(), fence(depth=0.6), record(went("depth", 0.4, "post@120")))
        (part,) = found.parts
        self.assertEqual(part.members, ("post@120",))
        shallow = design_of(site(), fence(depth=0.4))
        self.assertNear(part.design.limit.min(), float(shallow.limit.min()), 1e-9)
        self.assertLess(float(found.worst.limit.min()), float(found.planned.limit.min()))
        self.assertIs(found.worst, part.design)

    def test_posts_alike_are_calculated_together_and_others_apart(self):
        found = as_built(
            site(),
            fence(depth=0.6),
            record(
                went("depth", 0.4, "post@120"), went("depth", 0.4, "post@240"), went("depth", 0.5, "post@0")
            ),
        )
        self.assertEqual({part.members for part in found.parts}, {("post@120", "post@240"), ("post@0",)})
        limits = {part.members[0]: float(part.design.limit.min()) for part in found.parts}
        self.assertLess(limits["post@120"], limits["post@0"])

    def test_what_differs_all_over_is_under_each_post(self):
        both = record(went("mesh_height", 0.9), went("depth", 0.4, "post@120"))
        found = as_built(site(), fence(depth=0.6), both)
        self.assertEqual(found.parts[0].design.structure.options["mesh_height"], 0.9)
        self.assertTrue(np.all(found.whole.limit >= found.planned.limit - 1e-9), "less sail, no less strong")

    def test_the_plan_may_go_on_while_it_stands(self):
        plan = fence(depth=0.6)
        kept = {name: getattr(plan, name) for name in Build.model_fields}
        standing = plan.model_copy(update={"built": AsBuilt(on=NOW.date(), **kept)})
        changed = standing.model_copy(update={"options": {**plan.options, "depth": 0.3}})
        self.assertEqual(being_built(changed).options["depth"], 0.6)
        self.assertNear(
            as_built(site(), changed, None).planned.limit.min(), design_of(site(), plan).limit.min()
        )

    def test_what_cannot_be_is_refused_by_its_name(self):
        for differs, said in (
            (went("depth", 9.0, "post@120"), "depth"),
            (went("colour", "red"), "colour"),
            (went("depth", 0.4, "post@77"), "post@77"),
            (went("mesh", "no-such-mesh"), "mesh"),
        ):
            with self.assertRaises(InvalidPlan) as caught:
                check_differs(fence(), site(), record(differs))
            self.assertIn(said, str(caught.exception))
        with self.assertRaises(InvalidPlan):
            check_differs(fence(), site(), record(ticks={"fly": Tick(at=NOW)}))
        check_differs(
            fence(), site(), record(went("ties_per_post", 3, "post@120"), ticks={"posts": Tick(at=NOW)})
        )


class ComingOffTest(NearTestCase):
    """What is taken down is what was built: season handbook 9."""

    def built(self, **more: object):
        """A fence of four posts that was built; its plan has become another since."""
        stood = fence(length=3.6, post_spacing=1.2)
        kept = AsBuilt(on=NOW.date(), **stood.model_dump(include=set(Build.model_fields)), **more)
        plan = fence(length=3.6, post_spacing=0.6, post="tpost_1.8", mesh_height=1.2, depth=0.3)
        return plan.model_copy(update={"built": kept})

    def posts(self, geometry) -> list[str]:
        return [member.item for member in geometry.by_role("post")]

    def test_it_is_what_was_built_and_not_what_is_planned(self):
        stood, geometry = coming_off(site(), self.built())
        self.assertEqual(len(self.posts(geometry)), 4)
        self.assertNotIn("tpost_1.8", self.posts(geometry))
        self.assertEqual(stood.options["post_spacing"], 1.2)

    def test_what_went_in_otherwise_comes_off_as_it_is(self):
        differs = record(went("post", "tpost_2.4"), went("post", "tpost_1.8", "post@120"))
        _, geometry = coming_off(site(), self.built(), differs)
        self.assertEqual(sorted(self.posts(geometry)), ["tpost_1.8", *["tpost_2.4"] * 3])

    def test_what_it_had_of_the_shed_then_goes_back(self):
        """Four posts lent when it was built; the plan has another nine since."""
        taken = (Taken(stock="old", amount=4),)
        structure = self.built(taken=taken).model_copy(update={"taken": (Taken(stock="new", amount=9),)})
        post = self.posts(coming_off(site(), structure)[1])[0]
        like = {"table": "posts", "item": post, "length": 2.13}
        shed = (
            Stock(key="old", name="old", count=4, age=3, **like),
            Stock(key="new", name="new", count=9, age=1, **like),
        )
        ages = {stock.age: stock.count for stock in self.back(structure, shed) if stock.table == "posts"}
        self.assertEqual(ages, {4: 4, 1: 9})

    def test_concrete_and_buried_stones_stay(self):
        for options in ({"setting": "concrete"}, {"ends": "guy", "anchor": "deadman_stones_30"}):
            back = {stock.item for stock in self.back(fence(length=3.6, post_spacing=1.2, **options))}
            self.assertTrue(back, options)
            self.assertTrue(back.isdisjoint({"concrete_bag", "deadman_stones_30"}), options)

    def test_of_very_many_alike_a_shed_takes_what_it_can_tell(self):
        """A sling for each fruit of 600 squash: no row of a shed is more than a thousand."""
        planting = fence().plantings[0].model_copy(update={"crop": "butternut", "count": 600})
        frame = fence().model_copy(update={"family": "a-frame", "options": {}, "plantings": (planting,)})
        self.assertEqual(max(stock.count for stock in self.back(frame)), MOST_STOCKED_ALIKE)

    def back(self, structure, shed=()) -> tuple[Stock, ...]:
        """A shed after a structure is taken down that stood for one season."""
        keys = iter(f"k{n}" for n in range(99))
        return put_back(shed, *coming_off(site(), structure), 1, lambda _: next(keys))
