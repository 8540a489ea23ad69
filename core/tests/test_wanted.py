"""What is wanted of more than one: several crops on a support, beds alike, the path between two, a wall."""

from __future__ import annotations

import unittest
from itertools import pairwise

from ascent import tables
from ascent.buying.work import Labour
from ascent.errors import InvalidPlan
from ascent.families import FAMILIES, family_of
from ascent.family.protocol import Need
from ascent.ground.clashes import clashes
from ascent.ground.plot import laid_out
from ascent.ground.wanted import likely_beds, likely_hosts, site_for, stood
from ascent.patterns import plants
from ascent.plan.bed import Bed
from ascent.plan.features import Feature
from ascent.plan.garden import Garden
from ascent.plan.needs import Wants
from ascent.report.choosing import way_report
from ascent.report.lists import cost_report
from ascent.sizing.choose import aim_of, way_of
from ascent.sizing.offer import for_each, leading, named, start_of, suiting

from tests.support import site

PEAS = Need("pea-snap", 20, "left", "pruned")
TOMATOES = Need("tom-slicer", 3, "left", "pruned")


def bed(key: str, x: float = 0.0, y: float = 0.0, **changed: object) -> Bed:
    plain = {"key": key, "name": key.title(), "length": 3.6, "width": 0.9, "x": x, "y": y}
    return Bed.model_validate({**plain, **changed})


def wall(points: tuple[tuple[float, float], ...], **changed: object) -> Feature:
    plain = {"key": "wall", "name": "Wall", "kind": "wall", "points": points, "width": 0.2}
    return Feature.model_validate({**plain, **changed})


def garden(*beds: Bed, features: tuple[Feature, ...] = ()) -> Garden:
    return Garden(name="G", beds=beds, features=features)


class SeveralCropsTest(unittest.TestCase):
    def places(self, need: Need, where=None) -> list[tuple[str, float, float]]:
        row = plants.sown(need, where or site(length=6.0), longest=30.0)
        grown = plants.along(row.plantings, row.length)
        return sorted((row.plantings[p.planting].crop, p.at[0], p.at[1]) for p in grown)

    def test_crops_of_one_side_stand_one_after_the_other_between_their_own_spacings(self):
        """Neighbours of two crops stand half of either's spacing apart: common practice, no source."""
        grown = self.places(Need("tom-slicer", 3, "left", "pruned", (PEAS,)))
        peas = sorted(x for crop, x, _ in grown if crop == "pea-snap")
        tomatoes = sorted(x for crop, x, _ in grown if crop == "tom-slicer")
        crops = tables.crops()
        apart = (crops["pea-snap"].spacing_m + crops["tom-slicer"].spacing_m) / 2
        self.assertAlmostEqual(peas[0] - tomatoes[-1], apart, delta=0.002)
        self.assertEqual(len({y for _, _, y in grown}), 1)

    def test_the_row_is_as_long_as_all_of_it_and_both_ends_are_alike(self):
        need = Need("tom-slicer", 3, "left", "pruned", (PEAS,))
        row = plants.sown(need, site(length=6.0), longest=30.0)
        xs = [x for _, x, _ in self.places(need)]
        self.assertAlmostEqual(xs[0] and min(xs), row.length - max(xs), delta=0.03)
        self.assertGreaterEqual(min(xs), tables.constant("row_end_clear") - 0.03)

    def test_crops_of_two_sides_stand_beside_one_another_each_in_the_middle(self):
        need = Need("tom-slicer", 4, "left", "pruned", (Need("pea-snap", 10, "right", "pruned"),))
        row = plants.sown(need, site(length=6.0), longest=30.0)
        self.assertEqual([planting.along for planting in row.plantings], [0.0, 0.0])
        self.assertEqual(need.sides, "both")

    def test_what_has_no_number_gets_what_the_others_leave(self):
        """All of a bed of 6 m: 20 peas every 60 mm or so on one end, tomatoes on the rest."""
        need = Need("tom-slicer", None, "left", "pruned", (PEAS,))
        alone = plants.sown(Need("tom-slicer", None, "left", "pruned"), site(length=6.0), 30.0)
        row = plants.sown(need, site(length=6.0), 30.0)
        taken = 19 * tables.crops()["pea-snap"].spacing_m + row.plantings[0].spacing / 2
        fewer = alone.plantings[0].count - row.plantings[0].count
        self.assertAlmostEqual(fewer, taken / row.plantings[0].spacing, delta=1.0)
        xs = [x for _, x, _ in self.places(need)]
        self.assertGreaterEqual(min(xs), 0.0)
        self.assertLessEqual(max(xs), row.length)

    def test_the_tallest_leads_and_the_worst_suited_decides(self):
        need = leading(Need("pea-dwarf", 10, "left", "pruned", (TOMATOES,)))
        self.assertEqual([each.crop for each in need.crops], ["tom-slicer", "pea-dwarf"])
        self.assertEqual(named(need), "Tomato and Garden pea")
        self.assertEqual(
            suiting(need, "brushwood"),
            min(tables.suits()[c].scores["brushwood"] for c in ("tom-slicer", "pea-dwarf")),
        )

    def test_every_family_carries_all_of_them_in_what_is_asked(self):
        need = Need("bean-pole", 6, "both", "free", (Need("pea-snap", 8, "both", "pruned"),))
        where = site(length=6.0)
        for key in FAMILIES:
            with self.subTest(key):
                structure = start_of(where, key, need, "metric").structure
                self.assertEqual(
                    {(p.crop, p.count) for p in structure.plantings}, {("bean-pole", 6), ("pea-snap", 8)}
                )
                family = family_of(key)
                options = family.options.model_validate(structure.options)
                geometry = family.geometry(options, structure.plantings, where)
                owners = [plant.planting for plant in geometry.plants]
                self.assertEqual((owners.count(0), owners.count(1)), (6, 8))


class BedsAlikeTest(unittest.TestCase):
    def test_the_path_between_two_beds_is_seen_and_others_are_not(self):
        """Two beds of 0.9 m, their middles 1.5 m apart, leave 0.6 m to walk; end to end there is no path."""
        first, across, beyond = bed("a"), bed("b", y=-1.5), bed("c", x=5.0)
        of = {each.key: path for each, path in likely_beds(garden(first, across, beyond), first)}
        self.assertAlmostEqual(of["b"] or 0.0, 0.6, delta=1e-6)
        self.assertIsNone(of["c"])
        turned = bed("d", y=-1.5, bearing=270.0)
        self.assertEqual([path for _, path in likely_beds(garden(first, turned), first)], [0.6])

    def test_beds_of_other_soil_size_or_kind_are_refused_by_name(self):
        for changed in ({"soil": "loose_tilled"}, {"width": 1.2}, {"kind": "raised", "fill_depth": 0.3}):
            with self.subTest(changed), self.assertRaises(InvalidPlan) as caught:
                site_for(garden(bed("a"), bed("b", y=-1.5, **changed)), bed("a"), ["b"])
            self.assertIn("like A in kind, size and soil", str(caught.exception))
        with self.assertRaises(InvalidPlan):
            site_for(garden(bed("a")), bed("a"), ["nothing"])

    def test_of_several_beds_the_windiest_counts(self):
        open_bed = bed(
            "b",
            y=-3.0,
            exposure="coastal"
            if "coastal" in tables.exposures()
            else max(tables.exposures(), key=lambda key: tables.exposures()[key].design_gust_m_s),
        )
        home = bed("a", exposure="sheltered")
        self.assertEqual(site_for(garden(home, open_bed), home, ["b"]).exposure.key, open_bed.exposure)

    def test_an_arch_stands_over_the_path_with_a_foot_in_either_bed(self):
        first, across = bed("a"), bed("b", y=-1.5)
        plan = garden(first, across)
        where, need, each = for_each(
            site_for(plan, first, ["b"]), "panel-arch", Need("butternut", 6, "both", "pruned", alike=2)
        )
        structure = start_of(where, "panel-arch", need, "metric").structure
        ((home, placed),) = stood(plan, first, structure.model_copy(update={"key": "arch"}), ["b"])
        self.assertEqual((each, home.key, sum(p.count for p in placed.plantings)), (1, "a", 6))
        self.assertAlmostEqual(placed.across, -0.75 if placed.across < 0 else 0.75, delta=1e-6)
        stands = first.model_copy(update={"structures": (placed,)})
        (laid,) = laid_out(garden(stands, across))
        posts = [y for member, ends in laid.lines if member.role == "post" for _, y in ends]
        for y in posts:  # the beds are from 0.45 to -0.45 and from -1.05 to -1.95
            self.assertTrue(-0.45 <= y <= 0.45 or -1.95 <= y <= -1.05, y)
        self.assertTrue(any(y > -0.5 for y in posts) and any(y < -1.0 for y in posts))
        keys = {clash.key for clash in clashes(garden(stands, across), laid_out(garden(stands, across)))}
        self.assertNotIn("past-bed", keys)
        self.assertNotIn("closed-off", keys)

    def test_others_are_built_once_on_each_bed_with_their_share_of_the_plants(self):
        first, second = bed("a"), bed("b", x=6.0)
        plan = garden(first, second)
        one = way_of(
            site_for(plan, first),
            "stake",
            Need("tom-slicer", 3, "right", "pruned"),
            Wants(),
            "metric",
            closely=False,
        )
        two = way_of(
            site_for(plan, first, ["b"]),
            "stake",
            Need("tom-slicer", 6, "right", "pruned", alike=2),
            Wants(),
            "metric",
            closely=False,
        )
        self.assertEqual(two.each, 2)
        for name in ("cost", "yearly", "minutes"):
            self.assertAlmostEqual(getattr(two.figures, name), 2 * getattr(one.figures, name), delta=1e-6)
        made = stood(plan, first, two.sized.structure, ["b"])
        self.assertEqual(
            [(home.key, structure.plantings[0].count) for home, structure in made], [("a", 3), ("b", 3)]
        )

    def test_money_is_for_all_of_them(self):
        plan, first = garden(bed("a"), bed("b", x=6.0)), bed("a")
        need = Need("tom-slicer", 6, "right", "pruned", alike=2)
        where = site_for(plan, first, ["b"])
        free = way_of(where, "cage", need, Wants(), "metric", closely=False)
        short = way_of(where, "cage", need, Wants(money=0.6 * free.figures.cost), "metric", closely=False)
        self.assertIn("money", short.against)


class HostTest(unittest.TestCase):
    def test_a_wall_along_the_bed_is_seen_with_its_side_and_what_runs_along_it(self):
        """A bed from -1.8 to 1.8 along a wall that starts at its middle: 1.8 m of it; the north is left of
        one that runs to the east.
        """
        home, north = bed("a"), wall(((0.0, 0.7), (9.0, 0.7)), height=1.2)
        host = site_for(garden(home, features=(north,)), home, host="wall").host
        assert host
        self.assertEqual((host.kind, host.side, host.height), ("wall", "left", 1.2))
        self.assertAlmostEqual(host.length, 1.8, delta=1e-6)

    def test_what_is_out_of_reach_across_or_no_wall_is_refused(self):
        home = bed("a")
        for feature in (
            wall(((-2.0, 1.8), (2.0, 1.8))),
            wall(((0.0, 0.6), (0.0, 5.0))),
            wall(((-2.0, 0.7), (2.0, 0.7)), kind="path"),
        ):
            with self.subTest(feature.points), self.assertRaises(InvalidPlan) as caught:
                site_for(garden(home, features=(feature,)), home, host="wall")
            self.assertIn("host", str(caught.exception))
            self.assertEqual(likely_hosts(garden(home, features=(feature,)), home), [])
        far = wall(((-2.0, 1.8), (2.0, 1.8)))
        feet = garden(home, features=(far,)).model_copy(update={"units": "imperial"})
        with self.assertRaises(InvalidPlan) as caught:
            site_for(feet, home, host="wall")
        self.assertIn("2 ft", str(caught.exception))

    def test_wires_stand_off_its_face_on_the_side_of_the_bed_no_higher_than_it(self):
        """The wall is 0.2 m thick, its middle at 0.7: its face at 0.6, the wires 80 mm before it (parts
        handbook, 3.14, a vine eye’s length), the plants further off it still.
        """
        home, north = bed("a"), wall(((-5.0, 0.7), (5.0, 0.7)), height=1.2)
        plan = garden(home, features=(north,))
        where = site_for(plan, home, host="wall")
        structure = start_of(where, "existing", Need("cuc-slice", None, "left", "pruned"), "metric").structure
        ((_, placed),) = stood(plan, home, structure.model_copy(update={"key": "s"}), (), "wall")
        self.assertAlmostEqual(placed.across, 0.6 - 0.08, delta=1e-6)
        self.assertEqual(placed.plantings[0].side, "right")
        self.assertLessEqual(placed.options["height"], 1.2)
        self.assertEqual(placed.options["fixed_to"], "wall")
        stands = garden(home.model_copy(update={"structures": (placed,)}), features=(north,))
        self.assertNotIn("past-bed", {clash.key for clash in clashes(stands, laid_out(stands))})

    def test_only_then_does_what_is_fixed_to_one_do(self):
        home, north = bed("a"), wall(((-5.0, 0.7), (5.0, 0.7)))
        plan = garden(home, features=(north,))
        need = Need("cuc-slice", 5, "right", "pruned")
        without = way_of(site_for(plan, home), "existing", need, Wants(), "metric", closely=False)
        told = way_report(
            site_for(plan, home, host="wall"), "existing", need, Wants(), "metric", closely=False
        )
        self.assertEqual((without.against, told.against), (("host",), ()))
        self.assertEqual(told.told.where, "on the wall")


class HoursTest(unittest.TestCase):
    def test_what_moves_is_set_up_each_season_and_what_stays_once(self):
        """Three hours at 12: 36 a season for a tripod, 3.60 over ten seasons for a wire."""
        work, traits = Labour(180.0, 180.0, False, frozenset()), tables.traits()
        self.assertAlmostEqual(12.0 * work.hours(traits["tripod"], 10), 36.0, delta=1e-9)
        self.assertAlmostEqual(12.0 * work.hours(traits["wire-trellis"], 10), 3.6, delta=1e-9)

    def test_hours_are_in_what_a_season_costs_and_said(self):
        plain = way_of(site(), "tripod", PEAS, Wants(), "metric", closely=False)
        where = site()
        paid = where.model_copy(update={"garden": where.garden.model_copy(update={"hour": 20.0})})
        dear = way_of(paid, "tripod", PEAS, Wants(), "metric", closely=False)
        self.assertAlmostEqual(
            dear.figures.yearly - plain.figures.yearly, 20.0 * dear.figures.minutes / 60, delta=0.01
        )
        told = cost_report((), plain.sized.structure.plantings, "€", "metric", hours=1.5, hour=20.0)
        self.assertIn("30", told.season)
        self.assertIn("20.00 € an hour", told.said)


class FirstTest(unittest.TestCase):
    def test_kinds_are_sized_for_what_comes_first(self):
        self.assertEqual(aim_of(Wants(first="cost")), "cheapest")
        self.assertEqual(aim_of(Wants(first="strength", money=80.0)), "strongest")
        self.assertEqual(aim_of(Wants(first="strength")), "per-season")
        self.assertEqual(aim_of(Wants(first="looks")), "per-season")

    def test_for_a_sum_more_is_held_than_for_the_least(self):
        need = Need("tom-slicer", 5, "right", "pruned")
        least = way_of(site(), "stake", need, Wants(first="cost"), "metric", closely=False).figures
        most = way_of(
            site(), "stake", need, Wants(first="strength", money=3 * least.cost + 10), "metric", closely=False
        ).figures
        self.assertGreater(most.limit, least.limit)
        self.assertLessEqual(most.cost, 3 * least.cost + 10)


class OverlapTest(unittest.TestCase):
    def test_no_two_plants_of_a_row_share_a_place(self):
        """Three crops of one side and one of both: nobody stands on another’s feet, in whatever order."""
        crops = [
            Need("pea-snap", 9, "left", "pruned"),
            Need("tom-slicer", 2, "left", "pruned"),
            Need("cuc-slice", 4, "both", "pruned"),
        ]
        for turn in range(3):
            first, *others = crops[turn:] + crops[:turn]
            need = Need(first.crop, first.count, first.side, first.training, tuple(others))
            row = plants.sown(need, site(length=9.0), longest=30.0)
            for side in (1, -1):
                xs = sorted(p.at[0] for p in plants.along(row.plantings, row.length) if p.at[1] * side > 0)
                self.assertGreater(min(b - a for a, b in pairwise(xs)), 0.03, (turn, side))


if __name__ == "__main__":
    unittest.main()
