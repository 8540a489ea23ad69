"""Counts, stock and packs: the parts handbook's rules and examples."""

from __future__ import annotations

import math

from ascent.families import FAMILIES
from ascent.model import Garden
from ascent.parts import shopping, total
from ascent.plot import geometry_of
from ascent.sheets import read_table, write_table

from tests.support import NearTestCase, fence, site


def parts_of(**changes):
    """Return the shopping list of a fence by item key."""
    structure = fence(**changes)
    family = FAMILIES["mesh-fence"]
    geometry = family.geometry(family.options(**structure.options), structure.plantings, site())
    return {part.key: part for part in shopping(geometry, {})}


class MeshFencePartsTest(NearTestCase):
    def test_six_panel_bays(self):
        """Parts handbook 3.2: 6 × panel bays of 1.2 m: 7 posts, 30 ties."""
        found = parts_of(length=7.2, mesh="panel_large", mesh_height=1.27, post_spacing=1.22, tie="tie_wire_16_double", ties_per_post=4)
        self.assertEqual(found["tpost_2.1"].count, 7)
        self.assertEqual(found["tie_wire_16_double"].count, 30)

    def test_panels_join_at_posts(self):
        """Parts handbook 3.2: a bay of a quarter panel lets every panel end meet a post: 6 bays of 1.2 m take two panels."""
        found = parts_of(length=7.2, mesh="panel_large", mesh_height=1.27, post_spacing=1.22)
        self.assertEqual(found["panel_large"].packs, 2)

    def test_ties_have_a_tenth_to_spare_and_come_in_packs(self):
        """Parts handbook 3.0: clips and ties 10 %, rounded up to the pack."""
        found = parts_of(length=7.2, post_spacing=1.2, tie="clip_tpost", ties_per_post=4)["clip_tpost"]
        self.assertEqual((found.count, found.packs), (30, math.ceil(math.ceil(30 * 1.1) / 25)))

    def test_post_length_is_depth_and_height_rounded_up_to_stock(self):
        """Parts handbook 3.0: 0.60 + 1.80 = 2.40."""
        found = parts_of(mesh="weld_50x100_125", mesh_height=1.8, bottom_gap=0.0, depth=0.6, post="post_round_50")
        self.assertEqual(found["post_round_50"].length, 2.4)

    def test_roll_is_bought_whole_with_a_twentieth_of_waste(self):
        """Parts handbook 3.0: mesh 5 %: 7.4 m of run needs more than a 7.6 m roll."""
        self.assertEqual(parts_of(length=7.2, mesh="weld_50x100_16", post_spacing=1.2)["weld_50x100_16"].packs, 1)
        found = parts_of(length=7.4, mesh="weld_50x100_16", post_spacing=1.25)["weld_50x100_16"]
        self.assertGreater(found.packs * found.length, 7.4 * 1.05)

    def test_twine_is_bought_by_the_spool_and_cut(self):
        """Parts handbook 2.5: jute comes in 50 and 100 m; 8 plants tied five or six times in 0.4 m lengths need one of 50."""
        found = parts_of()["twine_jute_3_loop"]
        self.assertEqual((found.packs, found.pack, found.pack_size, found.length), (1, "spool", 50.0, 0.4))
        self.assertLessEqual(found.count * 1.1 * 0.4, 50.0)
        self.assertGreaterEqual(found.count, 8 * 4)

    def test_lives(self):
        """Parts handbook 2.1 and 2.2: T-post 12 seasons in wet soil, light sheet 12 dry."""
        found = parts_of()
        self.assertEqual((found["tpost_2.1"].life, found["mesh_conc_150_5"].life), (12, 12))

    def test_stem_ties_for_crops_that_hold_on_to_nothing(self):
        self.assertIn("twine_jute_3_loop", parts_of())
        self.assertNotIn("twine_jute_3_loop", parts_of(crop="cuc-slice"))

    def test_steel_tops_below_two_metres_are_capped(self):
        """Parts handbook 7: cap every top below 2.0 m."""
        self.assertEqual(parts_of()["cap"].count, 4)

    def test_guys_and_anchors(self):
        found = parts_of(ends="guy", top="wire")
        self.assertEqual(found["anchor_screw_30x4"].count, 2)
        self.assertIn("wire_soft_125", found)

    def test_a_gardeners_own_price_is_used(self):
        family, structure = FAMILIES["mesh-fence"], fence()
        geometry = family.geometry(family.options(**structure.options), structure.plantings, site())
        dear, plain = shopping(geometry, {"tpost_2.1": 100.0}), shopping(geometry, {})
        self.assertAlmostEqual(total(dear) - total(plain), 4 * (100.0 - round(2.13 * 5.63, 2)), places=6)


class OwnPriceTest(NearTestCase):
    """An own price belongs to an item in one size; one kept for the item alone still counts."""

    def test_one_size_s_price_is_not_another_s(self):
        home = site("firm_loam")
        low, high = (geometry_of(home.bed, fence(mesh="weld_50x100_14", mesh_height=height)) for height in (0.9, 1.5))
        parts = [part for part in shopping([low, high], {}) if part.key == "weld_50x100_14"]
        self.assertEqual(len({part.price_key for part in parts}), 2)
        own = {parts[0].price_key: 99.0}
        found = {part.price_key: part.price for part in shopping([low, high], own)}
        self.assertEqual(found[parts[0].price_key], 99.0)
        self.assertEqual(found[parts[1].price_key], parts[1].price)

    def test_a_price_kept_for_the_item_alone_counts_for_every_size(self):
        found = shopping(geometry_of(site("firm_loam").bed, fence()), {"tpost_2.1": 7.5})
        self.assertEqual(next(part.price for part in found if part.key == "tpost_2.1"), 7.5)

    def test_own_prices_out_and_in_as_a_table(self):
        garden = Garden(name="g", prices={"weld_50x100_14@7.6x1.5": 21.0, "tpost_2.1": 7.5})
        again = read_table(garden, "materials", write_table(garden, "materials", "metric"), "metric", take_away=True)
        self.assertEqual(again.prices, garden.prices)
