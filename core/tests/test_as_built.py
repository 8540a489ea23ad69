"""A structure as it really went in: checked again, post by post where posts differ."""

from __future__ import annotations

import datetime as dt

import numpy as np
from ascent.building.asbuilt import as_built, being_built, check_differs
from ascent.errors import InvalidPlan
from ascent.plan.model import AsBuilt, Build, Differs, Record, Tick
from ascent.report.evaluation import evaluate

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
        shallow = evaluate(site(), fence(depth=0.4))
        self.assertNear(part.evaluation.limit.min(), float(shallow.limit.min()), 1e-9)
        self.assertLess(float(found.worst.limit.min()), float(found.planned.limit.min()))
        self.assertIs(found.worst, part.evaluation)

    def test_posts_alike_are_reckoned_together_and_others_apart(self):
        found = as_built(
            site(),
            fence(depth=0.6),
            record(
                went("depth", 0.4, "post@120"), went("depth", 0.4, "post@240"), went("depth", 0.5, "post@0")
            ),
        )
        self.assertEqual({part.members for part in found.parts}, {("post@120", "post@240"), ("post@0",)})
        limits = {part.members[0]: float(part.evaluation.limit.min()) for part in found.parts}
        self.assertLess(limits["post@120"], limits["post@0"])

    def test_what_differs_all_over_is_under_each_post(self):
        both = record(went("mesh_height", 0.9), went("depth", 0.4, "post@120"))
        found = as_built(site(), fence(depth=0.6), both)
        self.assertEqual(found.parts[0].evaluation.structure.options["mesh_height"], 0.9)
        self.assertTrue(np.all(found.whole.limit >= found.planned.limit - 1e-9), "less sail, no less strong")

    def test_the_plan_may_go_on_while_it_stands(self):
        plan = fence(depth=0.6)
        kept = {name: getattr(plan, name) for name in Build.model_fields}
        standing = plan.model_copy(update={"built": AsBuilt(on=NOW.date(), **kept)})
        changed = standing.model_copy(update={"options": {**plan.options, "depth": 0.3}})
        self.assertEqual(being_built(changed).options["depth"], 0.6)
        self.assertNear(
            as_built(site(), changed, None).planned.limit.min(), evaluate(site(), plan).limit.min()
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
