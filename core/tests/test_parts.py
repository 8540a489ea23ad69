"""Counts, stock and packs: the parts handbook's rules and examples."""

from __future__ import annotations

import math

from ascent import tables
from ascent.analysis.design import geometry_of
from ascent.buying.lists import Part, shopping, total
from ascent.families import FAMILIES
from ascent.files.csv_tables import read_table, write_table
from ascent.path.geometry import Geometry, Member, Supply
from ascent.plan.garden import Garden
from ascent.report.lists import sold_length

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
        found = parts_of(
            length=7.2,
            mesh="panel_large",
            mesh_height=1.27,
            post_spacing=1.22,
            tie="tie_wire_16_double",
            ties_per_post=4,
        )
        self.assertEqual(found["tpost_2.1"].count, 7)
        self.assertEqual(found["tie_wire_16_double"].count, 30)

    def test_panels_join_at_posts(self):
        """Parts handbook 3.2: a bay of a quarter panel lets every panel end meet a post: 6 bays of 1.2 m take
        two panels.
        """
        found = parts_of(length=7.2, mesh="panel_large", mesh_height=1.27, post_spacing=1.22)
        self.assertEqual(found["panel_large"].packs, 2)

    def test_ties_have_a_tenth_to_spare_and_come_in_packs(self):
        """Parts handbook 3.0: clips and ties 10 %, rounded up to the pack."""
        found = parts_of(length=7.2, post_spacing=1.2, tie="clip_tpost", ties_per_post=4)["clip_tpost"]
        self.assertEqual((found.count, found.packs), (30, math.ceil(math.ceil(30 * 1.1) / 25)))

    def test_post_length_is_depth_and_height_rounded_up_to_stock(self):
        """Parts handbook 3.0: 0.60 + 1.80 = 2.40."""
        found = parts_of(
            mesh="weld_50x100_125", mesh_height=1.8, bottom_gap=0.0, depth=0.6, post="post_round_50"
        )
        self.assertEqual(found["post_round_50"].length, 2.4)

    def test_roll_is_bought_whole_with_a_twentieth_of_waste(self):
        """Parts handbook 3.0: mesh 5 %: 7.4 m of run needs more than a 7.6 m roll."""
        self.assertEqual(
            parts_of(length=7.2, mesh="weld_50x100_16", post_spacing=1.2)["weld_50x100_16"].packs, 1
        )
        found = parts_of(length=7.4, mesh="weld_50x100_16", post_spacing=1.25)["weld_50x100_16"]
        self.assertGreater(found.packs * found.length, 7.4 * 1.05)

    def test_twine_is_bought_by_the_spool_and_cut(self):
        """Parts handbook 2.5: jute comes in 50 and 100 m; 8 plants tied five or six times in 0.4 m lengths
        need one of 50.
        """
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
        low, high = (
            geometry_of(home.bed, fence(mesh="weld_50x100_14", mesh_height=height)) for height in (0.9, 1.5)
        )
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
        again = read_table(
            garden, "materials", write_table(garden, "materials", "metric"), "metric", take_away=True
        )
        self.assertEqual(again.prices, garden.prices)


def member(role: str, table: str, item: str, length: float, high: float = 0.0, at: float = 0.0) -> Member:
    """A member of so much stock; a sheet of mesh as high as is said."""
    points = (
        ((at, 0.0, 0.0), (at + length, 0.0, 0.0), (at + length, 0.0, high), (at, 0.0, high))
        if role == "mesh"
        else ((0.0, 0.0, 0.0), (0.0, 0.0, high))
    )
    return Member(f"{role}-{at:g}", role, table, item, points, buy_length=length)


def bought(*members: Member, supplies: tuple[Supply, ...] = ()) -> dict[str, Part]:
    """The list of some loose members, by use."""
    built = Geometry(members, (), (), supplies, 4.0, 2.0, 0.6, 1.5)
    return {part.use: part for part in shopping(built, {})}


class CuttingTest(NearTestCase):
    """What is cut from what, laid out by hand. A 25 mm pole is sold in 2.4, 3.0 and 3.6 m (project parts
    handbook 2.1).
    """

    def rails(self, *lengths: float) -> tuple[int, float]:
        return self.mixed(*lengths)[0]

    def mixed(self, *lengths: float) -> list[tuple[int, float]]:
        """How many poles of each length are bought."""
        members = (member("rail", "posts", "cane_25", length, at=i) for i, length in enumerate(lengths))
        built = Geometry(tuple(members), (), (), (), 4.0, 2.0, 0.6, 1.5)
        return [(part.packs, part.length) for part in shopping(built, {}) if part.use == "rail"]

    def test_the_stock_that_leaves_the_least(self):
        self.assertEqual(self.rails(1.2, 1.2, 1.2), (1, 3.6))  # three of one pole: 3.6 m, and not two of 2.4
        self.assertEqual(self.rails(1.2, 1.2, 1.2, 1.2), (2, 2.4))  # 4.8 m, and not 6.0 or 7.2
        self.assertEqual(self.rails(1.5, 1.5), (1, 3.0))
        self.assertEqual(self.rails(2.0, 1.0, 0.6), (1, 3.6))

    def test_the_longest_first(self):
        """Two of 1.6 m and two of 2.0 m are two poles of 3.6 m; the short two taken of one pole would ask for
        a third.
        """
        self.assertEqual(self.rails(1.6, 1.6, 2.0, 2.0), (2, 3.6))

    def test_what_no_stock_reaches_is_joined_with_a_lap(self):
        """4.8 m of 3.6 m poles, 0.30 m over one another (project parts handbook 3.5): one and 1.5 m of
        another, for which the shortest pole does; two of them need two and the rests of a 3.0 m one; 7.0 m
        are two and 0.4 m of a third.
        """
        self.assertEqual(self.mixed(4.8), [(1, 2.4), (1, 3.6)])
        self.assertEqual(self.mixed(4.8, 4.8), [(1, 3.0), (2, 3.6)])
        self.assertEqual(self.mixed(6.9), [(2, 3.6)])
        self.assertEqual(self.mixed(7.0), [(1, 2.4), (2, 3.6)])
        joints = bought(
            member("rail", "posts", "cane_25", 7.0),
            member("strut", "posts", "cane_25", 4.8, at=1.0),
            member("arm", "posts", "cane_25", 3.6),
        )
        self.assertEqual(joints["joint"].count, 2 * (2 + 1))
        self.assertNotIn("stem tie", bought(member("rail", "posts", "cane_25", 3.6)))

    def test_bent_panels_whole_in_halves_and_in_thirds(self):
        """A panel of 4.88 m gives two of 2.44 m or three of 1.6 m."""
        for length, count, packs in ((4.88, 3, 3), (2.44, 3, 2), (1.6, 6, 2), (1.7, 3, 2)):
            panels = [member("panel", "meshes", "panel_large", length, at=i) for i in range(count)]
            self.assertEqual(
                (bought(*panels)["bent panel"].packs, bought(*panels)["bent panel"].count),
                (packs, count),
                length,
            )

    def test_panels_of_two_lengths_are_two_lines(self):
        members = [member("panel", "meshes", "panel_large", long, at=long) for long in (4.88, 2.44, 2.44)]
        built = Geometry(tuple(members), (), (), (), 4.0, 2.0, 0.6, 1.5)
        self.assertEqual(sorted((p.length, p.packs) for p in shopping(built, {})), [(2.44, 1), (4.88, 1)])

    def sheets(self, item: str, high: float, *bays: float) -> Part:
        at, members = 0.0, []
        for bay in bays:
            members.append(member("mesh", "meshes", item, bay, high, at))
            at += bay
        return next(iter(bought(*members).values()))

    def test_sheets_meet_at_posts(self):
        """Of a sheet of 4.88 m, four bays of 1.2 m; five want a second. Bays of 1.8 m: two of a sheet, and
        its rest is waste.
        """
        for bay, bays, sheets in (
            (1.2, 4, 1),
            (1.2, 5, 2),
            (1.8, 2, 1),
            (1.8, 3, 2),
            (2.44, 4, 2),
            (3.0, 2, 2),
            (4.9, 2, 2),
        ):
            self.assertEqual(self.sheets("panel_large", 1.27, *[bay] * bays).packs, sheets, (bay, bays))

    def test_a_sheet_over_a_bay_longer_than_it(self):
        """Two bays of 6 m of sheets of 4.88 m: 12 m, three sheets."""
        self.assertEqual(self.sheets("panel_large", 1.27, 6.0, 6.0).packs, 3)

    def test_the_sheet_that_leaves_the_least(self):
        """Concrete mesh of 5 mm comes in 1.8 and 2.4 m: one bay of 1.8 m is the short one; two of 1.2 m one
        long; three of 1.8 m three short.
        """
        for bays, packs, length in (
            ((1.8,), 1, 1.8),
            ((1.2, 1.2), 1, 2.4),
            ((1.8,) * 3, 3, 1.8),
            ((0.8,) * 6, 2, 2.4),
        ):
            part = self.sheets("mesh_conc_150_5", 1.2, *bays)
            self.assertEqual((part.packs, part.length), (packs, length), bays)

    def test_two_strips_one_over_the_other(self):
        """2.4 m of a panel 1.27 m high is two strips; 1.28 m is one, cut as it comes."""
        self.assertEqual(self.sheets("panel_large", 2.4, 2.4, 2.4).packs, 2)
        self.assertEqual(self.sheets("panel_large", 1.28, 2.4, 2.4).packs, 1)
        self.assertEqual(
            self.sheets("net_pp_50", 3.0, 9.0).packs, 2
        )  # two strips of 9 m and 5 %: two rolls of 10 m

    def test_the_height_that_is_just_enough_and_its_price(self):
        """Light welded roll in 0.6, 0.9 and 1.2 m: 0.8 m is cut of 0.9 m, and paid as that."""
        row = tables.meshes()["weld_50x100_16"]
        part = self.sheets("weld_50x100_16", 0.8, 3.0, 3.0)
        self.assertEqual((part.use, part.length, part.packs), ("mesh, 0.9 m high", 7.6, 1))
        self.assertAlmostEqual(part.price, row.price_m2 * 7.6 * 0.9, delta=0.005)

    def test_rolls_with_a_twentieth_of_waste(self):
        """7.2 m and 5 % is 7.56 m, of a roll of 7.6 m; 7.3 m wants 7.67 m: one of 15.2 m, and not two with a
        joint.
        """
        self.assertEqual(self.sheets("weld_50x100_16", 0.9, 3.6, 3.6).length, 7.6)
        part = self.sheets("weld_50x100_16", 0.9, 3.6, 3.7)
        self.assertEqual((part.length, part.packs), (15.2, 1))

    def test_cages_cut_from_a_roll_are_whole(self):
        """1.9 m round, of a roll of 15.2 m: eight; nine want a second. Common practice, no source."""
        for rings, packs in ((8, 1), (9, 2)):
            part = bought(
                *(member("ring", "meshes", "mesh_conc_roll", 1.9, 1.4, at=i) for i in range(rings))
            )["cages, 1.5 m high"]
            self.assertEqual((part.count, part.packs, part.length), (rings, packs, 1.9))
        self.assertAlmostEqual(
            part.price, tables.meshes()["mesh_conc_roll"].price_m2 * 15.2 * 1.5, delta=0.005
        )

    def test_wire_of_all_uses_is_one_line(self):
        """30 m of wire and six ties of 1.5 m, 3 % more: 40.2 m, a coil of 50; 60 m: 71 m, one of 100; 260 m:
        two of 200.
        """
        for run, size, coils in ((30.0, 50, 1), (60.0, 100, 1), (260.0, 200, 2)):
            part = bought(
                member("wire", "wires", "wire_soft_125", run),
                supplies=(Supply("lash", "wires", "wire_soft_125", 6, 1.5),),
            )["wire"]
            self.assertEqual((part.pack_size, part.packs), (size, coils))
            self.assertAlmostEqual(part.length, (run + 9.0) * 1.03, delta=0.06)

    def test_ties_by_the_pack_and_by_the_spool(self):
        """30 clips and a tenth: 33, two packs of 25. 40 doubled wires of 0.5 m and a tenth: 22 m, a spool of
        25 m at 0.06 a metre.
        """
        clips = bought(*(member("tie", "ties", "clip_tpost", 0.0, at=i) for i in range(30)))["mesh tie"]
        self.assertEqual((clips.count, clips.packs, clips.pack, clips.price), (30, 2, "pack", 25 * 0.25))
        wires = bought(*(member("tie", "ties", "tie_wire_16_double", 0.0, at=i) for i in range(40)))[
            "mesh tie"
        ]
        self.assertEqual((wires.count, wires.packs, wires.pack_size), (40, 1, 25))
        self.assertAlmostEqual(wires.price, 25 * 0.06, delta=0.005)


class SoldTest(NearTestCase):
    def test_readers_of_feet_buy_by_the_foot(self):
        """Common practice, no source: 1.8, 2.1, 2.4, 3.0 and 3.6 m are sold as 6, 7, 8, 10 and 12 ft."""
        lengths = (0.9, 1.2, 1.8, 2.1, 2.4, 3.0, 3.6, 4.88)
        said = [sold_length(length, "imperial") for length in lengths]
        self.assertEqual(said, ["3 ft", "4 ft", "6 ft", "7 ft", "8 ft", "10 ft", "12 ft", "16 ft"])
        self.assertEqual(sold_length(2.6, "imperial"), "8 ft 6 1/4 in")
        self.assertEqual(sold_length(2.1, "metric"), "2.10 m")
