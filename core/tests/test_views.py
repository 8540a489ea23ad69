"""The three views come from the one geometry."""

from __future__ import annotations

from ascent.drawing.views import VIEWS
from ascent.report.report import full_report

from tests.support import NearTestCase, fence, site


class ViewsTest(NearTestCase):
    def setUp(self):
        self.report = full_report(
            site("firm_loam", kind="raised", fill_depth=0.28), fence(top="wire", ends="guy"), "metric"
        )
        self.views = {view.name: view for view in self.report.views}

    def test_there_are_three_and_each_holds_all_its_marks(self):
        self.assertEqual(tuple(self.views), VIEWS)
        for view in self.views.values():
            for mark in view.marks:
                for u, v in mark.points:
                    self.assertTrue(view.low[0] - 1e-9 <= u <= view.high[0] + 1e-9)
                    self.assertTrue(view.low[1] - 1e-9 <= v <= view.high[1] + 1e-9)

    def test_posts_reach_below_ground_by_their_depth(self):
        posts = [m for m in self.views["elevation"].marks if m.role == "post"]
        self.assertEqual(len(posts), 4)
        self.assertTrue(all(post.points[0][1] == -0.45 for post in posts))

    def test_views_agree_on_heights_and_places(self):
        up = {m.member: m.points for m in self.views["elevation"].marks if m.role == "post"}
        plan = {m.member: m.points for m in self.views["plan"].marks if m.role == "post"}
        end = {m.member: m.points for m in self.views["end"].marks if m.role == "post"}
        self.assertEqual([p[0][0] for p in up.values()], [p[0][0] for p in plan.values()])
        self.assertEqual(end["post@0"][1][1], up["post@0"][1][1])

    def test_measures_name_what_they_edit_in_the_readers_units(self):
        texts = {m.option: m.text for view in self.views.values() for m in view.measures}
        self.assertEqual(texts["options.depth"], "0.45 m")
        imperial = full_report(site(), fence(), "imperial")
        self.assertIn("1 ft 5 3/4 in", {m.text for view in imperial.views for m in view.measures})

    def test_fill_is_shown(self):
        self.assertTrue(all(view.fill_depth == 0.28 for view in self.views.values()))
