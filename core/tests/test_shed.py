"""The shed: what things of one's own are, what they still bear, what of a structure they can be."""

from __future__ import annotations

import math

from ascent import tables
from ascent.analysis.design import geometry_of
from ascent.buying.back import put_back
from ascent.buying.lists import bill, shopping, total
from ascent.buying.shed import amount_of, had_by, life_of, row_of, spare_of, strength_of, worn
from ascent.checks import bending
from ascent.errors import UnknownItem
from ascent.files.plan import read_plan, write_plan
from ascent.path.geometry import Geometry, Member
from ascent.plan.garden import Garden
from ascent.plan.shed import Spare, Stock, Taken
from ascent.plan.structure import Structure
from ascent.site import Site
from ascent.sizing.grid import QUICK
from ascent.sizing.size import size
from ascent.tables import own
from pydantic import ValidationError

from tests.support import NearTestCase, demo


def stock(table: str = "posts", item: str = "post_hw_stake_38", **fields) -> Stock:
    return Stock(key="it", name="It", table=table, item=item, **{"length": 1.8, **fields})


def rail(length: float, item: str = "cane_25", role: str = "rail") -> Member:
    points = ((0.0, 0.0, 1.0), (length, 0.0, 1.0))
    return Member(f"{role}-{length}", role, "posts", item, points, length)


def laid(*members: Member) -> Geometry:
    return Geometry(members, (), (), (), 4.0, 2.0, 0.6, 1.5)


class OwnRowsTest(NearTestCase):
    def test_a_round_bar_bends_by_its_cube(self):
        """S of a round bar is π d³/32, of a board b h²/6 (Roark): a pole twice as thick bears eight times."""
        thin, thick = (tables.posts()[f"pole_hazel_25~a{d}"] for d in (16, 32))
        self.assertNear(bending.moments(thick).allowable / bending.moments(thin).allowable, 8.0, 1e-6)
        flat, deep = (tables.posts()[f"post_lumber_38x89~a{a}~b{b}"] for a, b in ((20, 45), (20, 90)))
        self.assertNear(bending.moments(deep).allowable / bending.moments(flat).allowable, 4.0, 1e-6)

    def test_a_share_of_the_strength_is_borne(self):
        whole, half = tables.posts()["post_hw_stake_38"], tables.posts()["post_hw_stake_38~s0.5"]
        self.assertNear(bending.moments(half).allowable, bending.moments(whole).allowable / 2, 1e-9)
        self.assertNear(tables.twines()["jute_3~s0.5"].break_N, tables.twines()["jute_3"].break_N / 2, 1e-9)
        mesh, rusty = tables.meshes()["panel_large"], tables.meshes()["panel_large~s0.64"]
        self.assertNear(rusty.wire**2 / mesh.wire**2, 0.64, 1e-9)

    def test_the_same_thing_has_one_key(self):
        like = tables.item("posts", "post_hw_stake_38")
        self.assertEqual(own.key_of(like, width=0.038, length=1.8, strength=1.0), like.key)
        key = own.key_of(like, width=0.045, length=2.05, strength=0.7)
        self.assertEqual(tables.item("posts", key).key, key)
        self.assertEqual(own.but_for_length(key), own.key_of(like, width=0.045, strength=0.7))

    def test_nonsense_is_no_row(self):
        for table, key in (
            ("posts", "tpost_1.8~a20"),  # a rolled section has no other width
            ("posts", "tube_emt_20~b15"),  # a tube without a hollow
            ("posts", "pole_hazel_25~a900"),
            ("posts", "pole_hazel_25~x3"),
            ("posts", "pole_hazel_25~a32~a32"),
            ("posts", "no_such~a32"),
            ("ties", "clip_tpost~a3"),
            ("meshes", "panel_large~s9"),
        ):
            with self.subTest(key), self.assertRaises(UnknownItem):
                tables.item(table, key)

    def test_what_had_another_use_is_only_built_with_where_it_is(self):
        old = [
            row
            for name in ("posts", "meshes", "cages", "fittings")
            for row in tables.ITEM_TABLES[name]().values()
            if row.reclaimed
        ]
        self.assertGreaterEqual(len(old), 12)


class StockTest(NearTestCase):
    def test_age_takes_of_its_strength_and_life(self):
        """Structures handbook 3.4: hardwood at the end of its life has half its strength, steel 0.8."""
        life = tables.posts()["post_hw_stake_38"].life_wet
        self.assertEqual(strength_of(stock(age=0)), 1.0)
        self.assertNear(strength_of(stock(age=int(life / 2))), 0.75, 0.01)
        self.assertNear(strength_of(stock(item="tpost_1.8", age=12)), 0.8, 0.01)
        self.assertEqual(life_of(stock(age=1)), life - 1)
        self.assertTrue(worn(stock(age=int(life))))
        # canes and stakes are judged by the eye, too: common practice, no source
        self.assertFalse(worn(stock(age=int(life), sure="seen")))
        self.assertEqual(life_of(stock(age=int(life), sure="seen")), 1.0)
        self.assertTrue(worn(stock(age=int(life), sure="seen", condition="poor")))
        self.assertFalse(worn(stock(age=int(life) - 1)))
        self.assertEqual(row_of(stock(item="tpost_1.8", age=2)).key, "tpost_1.8", "as good as new")

    def test_what_is_guessed_counts_for_less(self):
        seen, guessed = (strength_of(stock(sure=sure)) for sure in ("seen", "guessed"))
        self.assertTrue(guessed < seen < 1.0)
        self.assertLess(strength_of(stock(condition="poor")), strength_of(stock(condition="fair")))

    def test_a_wrong_one_is_refused_by_the_field(self):
        for fields, named in (
            ({"item": "no_such"}, "item"),
            ({"width": 0.9}, "width"),
            ({"item": "tpost_1.8", "width": 0.02}, "width"),
            ({"height": 1.0}, "height"),
            ({"length": None}, "length"),
            ({"count": -1}, "count"),
        ):
            with self.subTest(fields), self.assertRaisesRegex(ValidationError, named):
                stock(**fields)

    def test_rolls_are_counted_in_metres(self):
        self.assertEqual(amount_of(stock("meshes", "woven_field", length=12.0, count=2)), 24.0)
        self.assertEqual(amount_of(stock("posts", "tpost_1.8", length=1.8, count=6)), 6)


class FromTheShedTest(NearTestCase):
    def spare(self, item: str, amount: float, length: float, table: str = "posts") -> Spare:
        return Spare(
            stock="mine", name="Mine", table=table, item=item, amount=amount, length=length, life=3.0
        )

    def test_it_is_taken_off_what_is_bought(self):
        """Three of 1.2 m, and two poles of 2.6 m at hand: one gives two, the other the third."""
        poles = (self.spare("cane_25~l2.6", 2, 2.6),)
        geometry = laid(rail(1.2), rail(1.2001), rail(1.1999))
        parts, bars = bill(geometry, {}, poles)
        rails = [part for part in parts if part.use == "rail"]
        self.assertEqual([(part.own, part.count, part.cost) for part in rails], [("mine", 2, 0.0)])
        self.assertEqual(sorted(len(bar.cuts) for bar in bars), [1, 2])
        self.assertLess(total(parts), total(shopping(geometry, {})))

    def test_what_it_lacks_is_bought(self):
        poles = (self.spare("cane_25", 1, 2.4),)
        rails = [p for p in shopping(laid(rail(2.3), rail(2.2)), {}, poles) if p.use == "rail"]
        self.assertEqual([(bool(part.own), part.packs) for part in rails], [(True, 1), (False, 1)])
        self.assertFalse(any(part.missing for part in rails))

    def test_of_what_is_like_no_other_no_more_is_bought(self):
        thick = "pole_hazel_25~a40"
        parts = shopping(laid(rail(2.0, thick), rail(2.1, thick)), {}, (self.spare(thick, 1, 2.4),))
        self.assertEqual([part.missing for part in parts if not part.own], [True])

    def test_weaker_and_shorter_ones_do_not_do(self):
        for item, length in (("cane_25~s0.6", 2.4), ("cane_25", 2.0), ("cane_20", 2.4)):
            with self.subTest(item, length=length):
                parts = shopping(laid(rail(2.3)), {}, (self.spare(item, 3, length),))
                self.assertFalse(any(part.own for part in parts))

    def test_nothing_is_had_twice(self):
        shed = (stock(item="tpost_1.8", count=6),)
        one = Structure.model_validate(
            {**demo().beds[0].structures[0].model_dump(), "taken": [{"stock": "it", "amount": 4}]}
        )
        self.assertEqual([each.amount for each in spare_of(shed, [one])], [2.0])
        self.assertEqual([each.amount for each in had_by(shed, one.taken)], [4.0])
        self.assertEqual(spare_of((stock(in_use="the hen run"),), []), ())
        self.assertEqual(spare_of((stock(age=40),), []), ())

    def test_metres_are_left_on_the_roll(self):
        """A run of 3.6 m takes 3.6 × 1.05 m of netting (parts handbook 3.0: 5 % waste)."""
        points = ((0.0, 0.0, 0.0), (3.6, 0.0, 1.5))
        run = Member("mesh-0", "mesh", "meshes", "hex_50", points, 3.6, shape="panel")
        parts = shopping(laid(run), {}, (self.spare("hex_50", 10.0, 10.0, "meshes"),))
        self.assertEqual([(bool(part.own), part.length) for part in parts], [(True, 3.78)])
        short = shopping(laid(run), {}, (self.spare("hex_50", 2.0, 10.0, "meshes"),))
        self.assertEqual([bool(part.own) for part in short], [True, False])


class BackTest(NearTestCase):
    def down(self, shed: tuple[Stock, ...], seasons: int, **changed) -> tuple[Stock, ...]:
        """A shed after the demo's fence of panels is taken down."""
        bed = next(bed for bed in demo().beds if any(s.name == "Lantern Row" for s in bed.structures))
        row = next(s for s in bed.structures if s.name == "Lantern Row").model_copy(update=changed)
        keys = iter(f"new-{n}" for n in range(99))
        return put_back(shed, row, geometry_of(bed, row), seasons, lambda _name: next(keys))

    def test_what_was_bought_comes_back_older_and_whole(self):
        """5.7 m in five bays of 1.14 m: two panels of 4.88 m, six T-posts of 2.13 m; clips and twine are
        thrown away (season handbook 9).
        """
        back = {(s.item, s.count, s.age): s for s in self.down((), 2)}
        self.assertIn(("panel_large", 2, 2), back)
        self.assertIn(("tpost_2.1", 6, 2), back)
        self.assertNear(back["panel_large", 2, 2].length, 4.88, 1e-6)
        self.assertFalse([s for s in back.values() if s.table in ("ties", "twines")])

    def test_what_was_had_comes_back_as_what_it_was(self):
        mine = Stock(key="mine", name="Mine", table="meshes", item="panel_large", length=4.88, count=3, age=4)
        back = self.down((mine,), 1, taken=(Taken(stock="mine", amount=2),))
        panels = sorted((s.age, s.count) for s in back if s.item == "panel_large")
        self.assertEqual(panels, [(4, 1), (5, 2)])

    def test_what_is_worn_by_then_is_thrown_away(self):
        """A T-post lasts twelve seasons in wet soil (season handbook 10, the lower figure)."""
        self.assertTrue([s for s in self.down((), 11) if s.item == "tpost_2.1"])
        self.assertFalse([s for s in self.down((), 12) if s.item == "tpost_2.1"])

    def test_the_same_come_together(self):
        first = self.down((), 2)
        again = self.down(first, 2)
        self.assertEqual({s.count for s in again if s.item == "tpost_2.1"}, {12})


class SizedTest(NearTestCase):
    def test_what_is_in_the_shed_is_built_with_and_nothing_that_is_not(self):
        """The same need with and without a shed: what it has makes it cheaper, and more is never asked of it
        than it has.
        """
        garden = demo()
        bed = next(bed for bed in garden.beds if any(s.name == "Lantern Row" for s in bed.structures))
        row = next(s for s in bed.structures if s.name == "Lantern Row")
        shed = (
            Stock(
                key="oak",
                name="Oak",
                table="posts",
                item="post_hw_stake_38",
                width=0.07,
                depth=0.07,
                length=2.1,
                count=6,
            ),
            Stock(key="two", name="Pipe", table="posts", item="old_pipe_water_27", length=2.1, count=2),
        )
        site = Site(garden=garden, bed=bed)
        with_it = site.model_copy(update={"spare": spare_of(shed, ())})
        bare, had = (size(where, row, "metric", "own", extent=QUICK, most=60) for where in (site, with_it))
        self.assertTrue(bare.holds and had.holds)
        self.assertLess(had.evaluation.cost, bare.evaluation.cost)
        parts = shopping(geometry_of(bed, had.structure), {}, with_it.spare)
        self.assertTrue([part for part in parts if part.own])
        self.assertFalse(any(part.missing for part in parts))


class FileTest(NearTestCase):
    def test_a_shed_goes_out_and_comes_back(self):
        garden = demo()
        first = garden.beds[0].structures[0]
        taken = first.model_copy(update={"taken": (Taken(stock="poles", amount=3),)})
        bed = garden.beds[0].model_copy(update={"structures": (taken, *garden.beds[0].structures[1:])})
        own_ = Stock(
            key="poles", name="Hazel", table="posts", item="pole_hazel_25", length=2.6, count=8, age=1
        )
        whole = Garden.model_validate(
            {**garden.model_dump(), "beds": [bed, *garden.beds[1:]], "stock": [own_]}
        )
        self.assertEqual(read_plan(write_plan(whole)).garden, whole)
        self.assertTrue(math.isfinite(life_of(own_)))
