"""How growers build: counts, order, time. Parts handbook, check facts and 5.2; common practice, no source."""

from __future__ import annotations

from typing import Any

from ascent import tables
from ascent.analysis.design import geometry_of
from ascent.building.work import WorkStep, work_of
from ascent.families import FAMILIES
from ascent.plan.structure import Planting, Structure

from tests.support import NearTestCase, site

# clock hours of a practised pair of hands by typical size, parts handbook 5.2
HOURS = {
    "panel-arch": (1.5, "butternut", 4, 0.6, {}),
    "mesh-fence": (1.0, "tom-slicer", 8, 0.45, {"length": 3.6}),
    "a-frame": (1.5, "melon-slip", 4, 0.45, {"length": 1.2}),
    "tripod": (0.3, "bean-pole", 4, 0.3, {"legs": 4}),
    "crossed-poles": (1.3, "bean-runner", 22, 0.3, {"length": 3.0, "pair_spacing": 0.3}),
    "stake": (0.5, "pepper", 11, 0.45, {"length": 4.5}),
    "drop-strings": (1.8, "tom-cherry", 13, 0.45, {"length": 3.05}),
    "wire-trellis": (4.0, "tom-slicer", 27, 0.45, {"length": 12.0}),
    "weave": (0.5, "tom-determinate", 10, 0.6, {"length": 6.0}),
    "bed-frame": (1.0, "zucchini", 4, 0.6, {"length": 2.4}),
    "hoops": (0.7, "sweet-potato", 10, 0.3, {"length": 3.6}),
    "existing": (2.5, "tom-cherry", 8, 0.75, {"length": 6.0}),
}


def work(family: str, crop: str, count: int, spacing: float, options: dict[str, Any]) -> tuple[WorkStep, ...]:
    """Return the steps of a structure of a kind with its usual options."""
    place = site(length=14.0, kind="raised", fill_depth=0.28) if family == "bed-frame" else site(length=14.0)
    planting = Planting(key="p1", crop=crop, count=count, spacing=spacing, planted="05-04")
    given = FAMILIES[family].options.model_validate(options).model_dump(mode="json")
    structure = Structure(key="x", name="x", family=family, options=given, plantings=(planting,))
    return work_of(place, structure, geometry_of(place.bed, structure))


def crop_like(*words: str) -> str:
    """Return the key of the first crop that has one of some words in its key."""
    return next(key for word in words for key in tables.crops() if word in key)


def set_at(rows: list[str]) -> int:
    """Return when posts are first set."""
    return next(n for n, row in enumerate(rows) if row.startswith("posts-"))


class CountTest(NearTestCase):
    def test_a_fence_of_six_bays_takes_seven_posts(self):
        steps = {
            step.key: step
            for step in work("mesh-fence", "tom-slicer", 8, 0.45, {"length": 7.2, "post_spacing": 1.2})
        }
        self.assertEqual(len(steps["posts"].members), 7)

    def test_a_row_of_three_metres_takes_eleven_pairs(self):
        """Two at the ends first, by a string between them the rest."""
        steps = {
            step.key: step
            for step in work(
                "crossed-poles", crop_like("runner"), 22, 0.3, {"length": 3.0, "pair_spacing": 0.3}
            )
        }
        poles = {key: sum(m.role == "post" for m in steps[key].members) for key in ("pairs-ends", "pairs")}
        self.assertEqual(poles, {"pairs-ends": 4, "pairs": 18})

    def test_twelve_metres_of_wire_take_three_posts_between_two_ends(self):
        steps = {
            step.key: step
            for step in work("wire-trellis", "tom-slicer", 27, 0.45, {"length": 12.0, "post_spacing": 3.0})
        }
        self.assertEqual((len(steps["end-posts"].members), len(steps["posts"].members)), (2, 3))

    def test_two_bend_a_panel_and_four_posts_stand_before_it(self):
        steps = work("panel-arch", crop_like("butternut", "squash"), 4, 0.6, {})
        keys = [step.key for step in steps]
        self.assertEqual(len(steps[keys.index("posts")].members), 4)
        self.assertEqual(steps[keys.index("bend")].people, 2)
        self.assertLess(keys.index("posts"), keys.index("bend"))
        self.assertLess(keys.index("bend"), keys.index("plant"))


class OrderTest(NearTestCase):
    def test_stakes_stand_before_plants_and_cages_after(self):
        stakes = [step.step.row for step in work("stake", crop_like("pepper"), 8, 0.45, {})]
        self.assertLess(
            next(n for n, row in enumerate(stakes) if row.startswith("posts-")), stakes.index("plant")
        )
        cages = [step.step.row for step in work("cage", "tom-slicer", 6, 0.75, {})]
        self.assertLess(cages.index("plant"), cages.index("cages"))

    def test_the_first_run_of_a_weave_follows_the_plants_and_the_posts_go_before(self):
        rows = [step.step.row for step in work("weave", "tom-slicer", 10, 0.6, {"length": 6.0})]
        self.assertLess(rows.index("plant"), rows.index("runs"))
        self.assertLess(
            next(n for n, row in enumerate(rows) if row.startswith("posts-")), rows.index("plant")
        )

    def test_a_wire_is_strained_only_once_its_ends_are_held(self):
        rows = [step.step.row for step in work("wire-trellis", "tom-slicer", 27, 0.45, {"length": 12.0})]
        self.assertLess(rows.index("guys"), rows.index("wires"))

    def test_concrete_waits_three_days(self):
        steps = work("mesh-fence", "tom-slicer", 8, 0.45, {"setting": "concrete"})
        posts = next(step for step in steps if step.step.row == "posts-concrete")
        self.assertIn("three days", posts.row.do)


class TimeTest(NearTestCase):
    def test_takes_about_as_long_as_growers_say(self):
        """Within two and a half times either way: the handbook’s sizes are typical, ours the usual options.
        The start and the line are left out, and the runs of a weave, which are tied on visits.
        """
        for family, (hours, crop, count, spacing, options) in HOURS.items():
            with self.subTest(family):
                steps = work(family, crop_like(crop, crop.split("-", maxsplit=1)[0]), count, spacing, options)
                own = sum(step.minutes for step in steps if step.members and step.key != "runs") / 60
                self.assertLess(own, 2.5 * hours + 0.1, family)
                self.assertGreater(own + 25 / 60, hours / 2.5, family)
