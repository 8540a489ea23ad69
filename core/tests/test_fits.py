"""Hand, fruit, reach, vine and posts: parts handbook 4.1–4.4 and structures handbook 12."""

from __future__ import annotations

from ascent import tables
from ascent.analysis.design import design_of
from ascent.remarks import fits
from ascent.sizing.representative import representative

from tests.support import NearTestCase, fence, site


def remarks(soil_site=None, **changes) -> set[str]:
    """Return the keys of a fence's remarks."""
    return {remark.key for remark in design_of(soil_site or site(), fence(**changes)).remarks}


class OpeningTest(NearTestCase):
    def test_hand(self):
        """Parts handbook 4.4: 125 mm and more passes, 100 to 125 tight, less no. Free opening is grid less
        wire.
        """
        self.assertIn("hand-free", remarks(mesh="mesh_conc_150_5"))
        self.assertIn("hand-no", remarks(mesh="weld_50x100_14"))
        self.assertIn("hand-tight", remarks(mesh="net_jute_150", top="wire"))

    def test_fruit(self):
        """Parts handbook 4.4: cucumber 45–65 mm on 150 mm passes free; slicer 60–80 on welded 50 × 100:
        watch; pods small.
        """
        self.assertIn("fruit-free", remarks(crop="cuc-slice", mesh="mesh_conc_150_5"))
        self.assertIn("fruit-trapped", remarks(mesh="weld_50x100_14"))
        self.assertIn(
            "fruit-trapped",
            remarks(crop="butternut", mesh="panel_large", mesh_height=1.27, count=4, spacing=0.6),
        )
        self.assertIn("fruit-outside", remarks(crop="melon", mesh="weld_50x100_14", count=4, spacing=0.6))

    def test_opening_is_the_shorter_side_less_the_wire(self):
        self.assertNear(fits.opening(tables.meshes()["panel_large"]), 0.152 - 0.005715, 1e-6)


class HeightTest(NearTestCase):
    def test_mesh_above_its_posts_flaps(self):
        """Structures handbook 12: a 2.13 m roll on posts that stand 1.68 m out is a fault the plan must
        show.
        """
        self.assertIn(
            "mesh-flaps",
            remarks(post="tpost_2.1", depth=0.45, mesh="weld_50x100_125", mesh_height=2.13, bottom_gap=0.0),
        )
        self.assertNotIn("mesh-flaps", remarks())

    def test_reach(self):
        """Parts handbook 4.1: highest reach from the ground 2.05 m."""
        self.assertIn(
            "out-of-reach",
            remarks(post="post_lumber_89", mesh="net_pp_150", top="rail", mesh_height=2.0, bottom_gap=0.2),
        )

    def test_vine_above_its_mesh(self):
        self.assertIn("vine-topped", remarks(training="pruned"))
        self.assertIn("vine-overtops", remarks(training="free"))


class FenceTest(NearTestCase):
    def test_a_net_needs_a_line(self):
        self.assertIn("net-unhung", remarks(mesh="net_pp_150", mesh_height=1.5))
        self.assertNotIn("net-unhung", remarks(mesh="net_pp_150", mesh_height=1.5, top="wire"))

    def test_clips_fit_their_posts(self):
        self.assertIn("clip-misfit", remarks(tie="clip_tpost", post="post_round_50"))
        self.assertNotIn("clip-misfit", remarks(tie="clip_tpost"))
        self.assertIn("clip-misfit", remarks(tie="staple_fence_30"))

    def test_longer_than_its_bed_or_crowded(self):
        self.assertIn("beyond-bed", remarks(length=13.0, post_spacing=1.3))
        self.assertIn("crowded-row", remarks(count=30))

    def test_guys_that_reach_past_the_bed(self):
        """Structures handbook 7.6, trip hazard: a guy near a path is flagged."""
        self.assertIn("guys-reach", remarks(site(length=3.8), ends="guy"))
        self.assertNotIn("guys-reach", remarks(site(length=12.0), ends="guy"))

    def test_not_to_lean_on(self):
        """Structures handbook 14.20: a T-post is not a handrail; 89 mm is."""
        self.assertIn("not-to-lean-on", remarks())
        self.assertNotIn("not-to-lean-on", remarks(post="post_lumber_89", tie="tie_wire_16_double"))


class SeasonTest(NearTestCase):
    def test_a_tomato_needs_its_days_before_the_frost(self):
        """A slicer is first picked some 62 days after planting (planting guides of `guides.py`), and is grown
        for two weeks of it at least: planted in May before a frost on 27 October it is, 68 or 47 days before
        it is not.
        """
        said = {}
        for planted in ("05-04", "08-20", "09-10"):
            grown = fence()
            late = grown.plantings[0].model_copy(update={"planted": planted})
            found = design_of(site(), grown.model_copy(update={"plantings": (late,)})).remarks
            said[planted] = {remark.key: remark.level for remark in found}.get("season-short")
        self.assertEqual(said, {"05-04": None, "08-20": "watch", "09-10": "wrong"})

    def test_what_is_calculated_whole_needs_no_words(self):
        tried = representative(site(), fence())
        self.assertEqual((tried.share, tried.said("metric")), (1.0, ""))
