"""What each family buys, counted and measured against the parts handbook's formulas and examples."""

from __future__ import annotations

import math

from ascent import tables
from ascent.buying.lists import shopping
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.plan.bed import Bed
from ascent.plan.structure import Planting

from tests.support import NearTestCase, site


def planting(crop: str, count: int, spacing: float, side: str = "right") -> Planting:
    return Planting(
        key="p1", crop=crop, count=count, spacing=spacing, side=side, training="pruned", planted="05-04"
    )


class Laid(NearTestCase):
    """Lays out a structure of the family in `family`, with some options and plantings."""

    family = ""

    def lay(self, *plantings: Planting, bed: Bed | None = None, **options):
        family = FAMILIES[self.family]
        where = site() if bed is None else type(site())(garden=site().garden, bed=bed)
        crop = plantings[0].crop if plantings else "tom-slicer"
        proposed = family.propose(Need(crop, None, "right", "pruned"), where)
        chosen = family.options.model_validate({**proposed.options.model_dump(), **options})
        return family.geometry(chosen, plantings or proposed.plantings, where)

    def parts(self, geometry):
        return {(part.key, part.use): part for part in shopping(geometry, {})}


class PanelArchPartsTest(Laid):
    """Parts handbook 3.1."""

    family = "panel-arch"

    def test_two_panels(self):
        """Lap ties (N − 1) · 10, every 0.6 m of 4.88; 8 posts for two panels (common practice, no source);
        ties 2 per post.
        """
        arch = self.lay(planting("bean-pole", 8, 0.3, "both"), panels=2, overlap=0.2, ties_per_post=2)
        ties = [m.key for m in arch.by_role("tie")]
        self.assertEqual(sum(key.startswith("lap") for key in ties), 10)
        self.assertEqual(len(arch.by_role("post")), 8)
        self.assertEqual(sum(key.startswith("tie") for key in ties), 16)
        self.assertNear(arch.length, 2.34, 1e-9)  # N·width − (N − 1)·overlap

    def test_three_panels_lap_twice(self):
        arch = self.lay(planting("bean-pole", 8, 0.3, "both"), panels=3)
        self.assertEqual(sum(m.key.startswith("lap") for m in arch.by_role("tie")), 20)
        self.assertEqual(self.parts(arch)[("panel_large", "bent panel")].packs, 3)

    def test_slings_for_heavy_fruit_only(self):
        """Fruit over the threshold, and a tenth more."""
        self.assertFalse([s for s in self.lay(planting("bean-pole", 8, 0.3)).supplies if s.key == "sling"])
        (slings,) = [s for s in self.lay(planting("butternut", 8, 0.6)).supplies if s.key == "sling"]
        self.assertGreaterEqual(slings.count, 8)

    def test_panel_stands_inside_its_posts_and_posts_on_its_wires_edge(self):
        """Posts at y = ±(S/2 + half a post), set in from the panel's edge."""
        arch = self.lay(planting("bean-pole", 8, 0.3), panels=1, span=1.22, inset=0.125, panel_side="inside")
        for post in arch.by_role("post"):
            x, y, _ = post.points[0]
            self.assertGreater(abs(y), 0.61)
            self.assertAlmostEqual(min(x, arch.length - x), 0.125, places=6)
        outside = self.lay(planting("bean-pole", 8, 0.3), panels=1, span=1.22, panel_side="outside")
        self.assertTrue(all(abs(post.points[0][1]) < 0.61 for post in outside.by_role("post")))

    def test_a_pair_of_tubes(self):
        """3.1: a bought pair clad to 2 m, lines over the top; half a circle on legs: 1.22 wide and 2.2 high
        is 5.10 m of tube.
        """
        pair = self.lay(
            planting("bean-pole", 8, 0.3, "both"), frame="tubes", arches=2, span=1.22, tube_rise=2.2, clad=2.0
        )
        tubes = pair.by_role("arm")
        self.assertEqual(len(tubes), 2)
        self.assertNear(tubes[0].buy_length, 2 * (2.2 - 0.61) + math.pi * 0.61, 2e-3)
        self.assertEqual(self.parts(pair)[("tube_arch_16", "arm")].packs, 2)
        self.assertEqual(len(pair.by_role("mesh")), 2)
        self.assertTrue(
            all(line.points[0][2] > 1.9 for line in pair.by_role("wire")),
            "lines run over the top, above the mesh",
        )


class StakePartsTest(Laid):
    """Parts handbook 3.6."""

    family = "stake"

    def test_one_stake_a_plant(self):
        row = self.lay(planting("tom-slicer", 7, 0.6), length=3.9)
        self.assertEqual(len(row.by_role("post")), 7)

    def test_ties_as_it_grows(self):
        """(h − first) ÷ step + 1 per stem, × stems, and a fifth more over the season."""
        for stems, step in ((1, 0.25), (2, 0.25), (1, 0.20)):
            row = self.lay(planting("tom-slicer", 5, 0.6), length=3.0, height=1.5, tie_step=step, stems=stems)
            (ties,) = [s for s in row.supplies if s.table == "ties"]
            each = (1.5 - 0.25) / step + 1
            self.assertEqual(ties.count, math.ceil(round(5 * stems * math.floor(each) * 1.2, 6)))

    def test_a_bar_joins_neighbours(self):
        row = self.lay(planting("tom-slicer", 5, 0.6), length=3.0, bar="bar")
        self.assertTrue(row.by_role("rail"))
        self.assertNear(sum(m.buy_length for m in row.by_role("rail")), 2.4, 0.2)


class CagePartsTest(Laid):
    """Parts handbook 3.7: 20 plants as 4 × 5: 31 links between neighbours, 12 diagonals, one per cell."""

    family = "cage"

    def raft(self, link: str):
        lines = [planting("tom-det", 5, 0.6, side) for side in ("left", "right")]
        bed = Bed(key="b", name="b", length=4.0, width=3.0)
        return self.lay(*lines, bed=bed, rows=2, row_spacing=0.6, link=link, length=3.0, stakes=0)

    def test_links(self):
        """a · (b − 1) + b · (a − 1) between neighbours of a grid of a by b, (a − 1)(b − 1) across its cells;
        0.35 m of twine, twice round.
        """
        for link, count in (("none", 0), ("row", 2 * 4), ("grid", 2 * 4 + 5), ("diagonal", 2 * 4 + 5 + 4)):
            links = self.raft(link).by_role("run")
            self.assertEqual(len(links), count, link)
            self.assertTrue(all(0.70 <= m.buy_length < 0.90 for m in links), "longer only across the cells")

    def test_a_cylinder_from_the_roll(self):
        """Cut length π D and a lap: 0.48 m across takes 1.51 m and its lap."""
        cage = self.lay(planting("tom-det", 1, 0.6), made="cut", diameter=0.48, length=0.6)
        (ring,) = {round(m.buy_length, 3) for m in cage.by_role("ring")}
        self.assertGreaterEqual(ring, math.pi * 0.48)
        self.assertLessEqual(ring, math.pi * 0.48 + 0.35)


class DropStringsPartsTest(Laid):
    """Parts handbook 3.8: a string at 2.10 m takes 2.45 m, with 3.0 m to let down 5.45; 13 strings 32 m and
    71 m, and a twentieth.
    """

    family = "drop-strings"

    def strings(self, **options):
        bed = Bed(key="b", name="b", length=7.0, width=1.2)
        laid = self.lay(planting("tom-slicer", 13, 0.45), bed=bed, length=6.0, top_height=2.10, **options)
        return laid, laid.by_role("string")

    def test_lengths(self):
        _, strings = self.strings(lower=False)
        self.assertEqual(len(strings), 13)
        self.assertNear(strings[0].buy_length, 2.45, 0.005)
        self.assertNear(sum(s.buy_length for s in strings), 32, 0.01)

    def test_spare_to_let_down(self):
        """A stem of 5.1 m on a 2.10 m string has 3.0 m lying."""
        laid, strings = self.strings(lower=True, stem_length=5.05)
        self.assertNear(strings[0].buy_length, 5.45, 0.01)
        found = next(part for (key, _), part in self.parts(laid).items() if key == strings[0].item)
        self.assertGreaterEqual(found.packs * found.pack_size, 71 * 1.05 - 0.5)

    def test_a_peg_a_plant_and_none_where_the_string_is_tied_to_the_stem(self):
        pegged, _ = self.strings(foot_held="peg")
        self.assertEqual(sum(s.count for s in pegged.supplies if s.key == "string-peg"), 13)
        looped, _ = self.strings(foot_held="loop")
        self.assertFalse([s for s in looped.supplies if s.key == "string-peg"])


class WireTrellisPartsTest(Laid):
    """Parts handbook 3.9: wire per line 1.01 L and two ends round their posts, × 1.03; 12 m, one wire: 14.2
    m; 3 posts between at 3.0 m.
    """

    family = "wire-trellis"

    def test_twelve_metres(self):
        bed = Bed(key="b", name="b", length=14.0, width=1.2)
        row = self.lay(
            planting("tom-slicer", 20, 0.6),
            bed=bed,
            length=12.0,
            post_spacing=3.0,
            wires=1,
            ends="plain",
            safety_wire=False,
        )
        safe = self.lay(
            planting("tom-slicer", 20, 0.6),
            bed=bed,
            length=12.0,
            post_spacing=3.0,
            wires=1,
            ends="plain",
            safety_wire=True,
        )
        self.assertNear(safe.by_role("wire")[0].buy_length - row.by_role("wire")[0].buy_length, 1.2, 1e-6)
        (wire,) = [m for m in row.by_role("wire") if m.key.startswith("wire")]
        self.assertNear(wire.buy_length * 1.03, 14.2, 0.03)
        self.assertEqual(len(row.by_role("post")), 3 + 2)

    def test_more_wires_take_as_much_each(self):
        bed = Bed(key="b", name="b", length=14.0, width=1.2)
        one, three = (
            sum(
                m.buy_length
                for m in self.lay(bed=bed, length=12.0, wires=n, wire_step=0.4, crop_on="wires").by_role(
                    "wire"
                )
            )
            for n in (1, 3)
        )
        self.assertNear(three, 3 * one, 0.05)


class WeavePartsTest(Laid):
    """Parts handbook 3.10: 6 m, 10 plants, 6 posts of 38 mm, 5 runs: 79 m with a twentieth of waste."""

    family = "weave"

    def test_six_metres(self):
        bed = Bed(key="b", name="b", length=8.0, width=1.2)
        row = self.lay(
            planting("tom-det", 10, 0.6),
            bed=bed,
            length=6.0,
            post="post_hw_stake_38",
            post_spacing=1.2,
            first_run=0.25,
            run_step=0.2,
            top_run=1.05,
            style="basket",
            ends="plain",
        )
        self.assertEqual(len({m.points[0][0] for m in row.by_role("post")}), 6)
        twine = sum(m.buy_length for m in row.by_role("run"))
        self.assertNear(twine * 1.05, 79, 0.03)

    def test_more_runs_take_more_twine(self):
        wide, close = (
            sum(m.buy_length for m in self.lay(run_step=step).by_role("run")) for step in (0.3, 0.15)
        )
        self.assertGreater(close, 1.4 * wide)


class LivingSupportPartsTest(Laid):
    """Parts handbook 3.13: nothing to buy but seed, unless strings are drawn round the block."""

    family = "living-support"

    def test_nothing_to_buy(self):
        found = self.parts(self.lay(planting("bean-pole", 10, 0.6), backup="none"))
        self.assertEqual({use for _, use in found}, {"stem"})
        self.assertEqual(sum(part.cost for part in found.values()), 0.0)

    def test_strings_round_it(self):
        round_it = self.parts(self.lay(planting("bean-pole", 10, 0.6), backup="strings"))
        self.assertTrue({use for _, use in round_it} >= {"post", "string"})


class TripodPartsTest(Laid):
    """Parts handbook 3.4 and 3.0: crossing heights, lashings, rings."""

    family = "tripod"

    def test_where_the_poles_meet(self):
        """2.4 m, radius 0.5: 1.83 m; 1.83 m long to the tie, radius 0.2: 1.82; 3.0 m, radius 0.6: 2.43 less
        feet and tails.
        """
        for long, radius, high in (
            (2.4, 0.5, math.sqrt(1.9**2 - 0.25)),
            (3.0, 0.6, math.sqrt(2.5**2 - 0.36)),
        ):
            laid = self.lay(
                planting("bean-pole", 8, 0.3),
                sets=1,
                pole="cane_20",
                pole_length=long,
                radius=radius,
                in_soil=0.3,
                tail=0.2,
            )
            self.assertNear(laid.climb, high, 1e-3)
        self.assertNear(math.sqrt(1.9**2 - 0.25), 1.83, 3e-3)

    def test_lashings(self):
        """5 (2 n d + π d) + 0.6: three canes of 20 mm 1.5 m, six of 16 mm 1.8 m."""
        for legs, pole, long in ((3, "cane_20", 1.5), (6, "cane_16", 1.8)):
            laid = self.lay(planting("bean-pole", 6, 0.3), sets=1, legs=legs, pole=pole)
            (knot,) = [m for m in laid.members if m.key.startswith("lashing")]
            self.assertNear(knot.buy_length, long, 0.02)

    def test_poles_of_several_sets_and_spares(self):
        self.assertEqual(len(self.lay(planting("bean-pole", 8, 0.3), sets=3, legs=4).by_role("post")), 12)
        self.assertEqual(
            len(
                self.lay(planting("bean-pole", 8, 0.3), sets=2, legs=4, laced="panels", spare=2).by_role(
                    "post"
                )
            ),
            12,
        )


class CrossedPolesPartsTest(Laid):
    """Parts handbook 3.5: 3.0 m at 0.30: 11 pairs, 22 poles, 8 m of twine; crossing at 1.88 m; the ridge 114
    mm over it.
    """

    family = "crossed-poles"

    def row(self, **options):
        return self.lay(
            planting("bean-runner", 22, 0.3, "both"),
            length=3.0,
            pair_spacing=0.30,
            spread=0.60,
            pole="cane_16",
            pole_length=2.4,
            in_soil=0.3,
            tail=0.2,
            ridge="pole",
            ridge_pole="cane_20",
            **options,
        )

    def test_eleven_pairs(self):
        self.assertEqual(len(self.row().by_role("post")), 22)

    def test_twine_of_the_lashings(self):
        """0.72 m a crossing of 16 and 16 mm: 11 of them 7.9 m."""
        knots = [m for m in self.row().members if m.key.startswith("lashing")]
        self.assertNear(knots[0].buy_length, 0.72, 1e-6)
        self.assertNear(sum(m.buy_length for m in knots), 8, 0.02)

    def test_where_they_cross_and_where_the_ridge_lies(self):
        row = self.row()
        self.assertNear(row.climb, 1.88, 3e-3)
        (ridge,) = row.by_role("rail")
        self.assertNear(ridge.points[0][2] - row.climb, 0.114, 0.01)

    def test_ridge_in_lapped_lengths(self):
        """Pieces of 3.0 m lapped 0.3 m: 3.4 m of ridge takes one, and 0.7 m of the shortest sold."""
        row = self.row()
        ridge = [part for part in shopping(row, {}) if part.use == "rail"]
        self.assertEqual(sum(part.packs for part in ridge), 2)
        self.assertEqual([part.length for part in ridge], [min(tables.posts()["cane_20"].lengths), 3.0])


class AFramePartsTest(Laid):
    """Parts handbook 3.3: heights of the ridge, rails, bars, hinges."""

    family = "a-frame"

    def test_height_of_the_ridge(self):
        """Leg 2.10 over 1.20: 2.01 m; 1.83 over 1.20: 1.73; 2.44 over 1.50: 2.32; 1.27 over 0.90: 1.19."""
        for leg, spread, high in (
            (2.10, 1.20, 2.01),
            (1.83, 1.20, 1.73),
            (2.44, 1.50, 2.32),
            (1.27, 0.90, 1.19),
        ):
            self.assertNear(self.lay(planting("melon", 4, 0.6), leg=leg, spread=spread).top, high, 4e-3)

    def test_rails_hinges_and_bars(self):
        frame = self.lay(
            planting("melon", 4, 0.6), length=1.2, rail_spacing=1.2, filled="rungs", bar_step=0.18
        )
        self.assertEqual(len(frame.by_role("post")), 4)
        self.assertEqual(len([m for m in frame.members if m.key.startswith("hinge")]), 2)
        bars = [m for m in frame.members if m.key.startswith("bar")]
        self.assertEqual(len(bars) // 2, math.floor((2.10 - 0.05) / 0.18 - 1e-9))


class BedFramePartsTest(Laid):
    """Parts handbook 3.11: two screws in line to each upright, two at each end of a bar."""

    family = "bed-frame"

    def test_screws(self):
        bed = Bed(key="b", name="b", kind="raised", length=2.4, width=1.2, fill_depth=0.28)
        frame = self.lay(
            planting("zucchini", 4, 0.9, "both"),
            bed=bed,
            length=2.1,
            post_spacing=0.9,
            sides="both",
            crossbar="top",
            screw_rows=2,
        )
        uprights = len(frame.by_role("post"))
        (screws,) = [s for s in frame.supplies if s.key == "board-screws"]
        self.assertEqual(uprights, 6)
        self.assertEqual(screws.count, 2 * uprights + 4 * uprights // 2)

    def test_uprights_stand_outside_the_boards(self):
        bed = Bed(key="b", name="b", kind="raised", length=2.4, width=1.2, fill_depth=0.28)
        frame = self.lay(planting("zucchini", 4, 0.9, "both"), bed=bed, sides="both")
        self.assertTrue(all(abs(post.points[0][1]) > 0.6 for post in frame.by_role("post")))


class HoopsPartsTest(Laid):
    """Parts handbook 3.12: hoops at both ends and between, two rods each, ties two at the ends and one
    between.
    """

    family = "hoops"

    def test_counts(self):
        row = self.lay(
            planting("pea-snap", 20, 0.05),
            length=3.6,
            hoop_spacing=0.9,
            hoop_of="pipe",
            pipe="pipe_pvc_20",
            arc=3.05,
            ridge="wire",
        )
        self.assertEqual(len(row.by_role("arm")), 5)
        self.assertEqual(len(row.by_role("post")), 10)
        self.assertEqual(len(row.by_role("tie")), 3 + 2 * 2)
        self.assertEqual(self.parts(row)[("pipe_pvc_20", "arm")].packs, 5)


class ExistingPartsTest(Laid):
    """Parts handbook 3.14: (ceil(L ÷ spacing) + 1) · wires eyes; L and 0.15 m at each end, × 1.03 of wire."""

    family = "existing"

    def test_six_metres_of_seven_wires(self):
        bed = Bed(key="b", name="b", length=8.0, width=0.6)
        wall = self.lay(
            planting("tom-cherry", 8, 0.75), bed=bed, length=6.0, wires=7, fix_spacing=1.5, height=2.1
        )
        eyes = [m for m in wall.members if m.key.startswith("eye")]
        self.assertEqual(len(eyes), (math.ceil(6.0 / 1.5) + 1) * 7)
        wires = wall.by_role("wire")
        self.assertNear(sum(m.buy_length for m in wires), 7 * (6.0 + 2 * 0.15), 1e-6)
        self.assertNear(min(m.points[0][2] for m in wires), 0.30, 1e-6)

    def test_nothing_that_stands_already_is_bought(self):
        fence = self.parts(
            self.lay(planting("bean-hyacinth", 6, 0.45), fixed_to="fence", eye="eye_screw_wood")
        )
        self.assertNotIn("post", {use for _, use in fence})


class BrushwoodPartsTest(Laid):
    """Parts handbook 3.15: 4 m at 0.20: 42 sticks; 1.2 m sticks lean 8.5°; string 2 · 1.02 · L and 0.6 m."""

    family = "brushwood"

    def test_sticks_and_string(self):
        bed = Bed(key="b", name="b", length=6.0, width=0.9)
        row = self.lay(
            planting("pea-snap", 77, 0.05),
            bed=bed,
            length=4.0,
            stick_spacing=0.20,
            pattern="crossed",
            stick_length=1.2,
            in_soil=0.25,
            tied="string",
        )
        sticks = row.by_role("post")
        self.assertEqual(len(sticks), 42)
        self.assertNear(sum(m.buy_length for m in row.by_role("run")), 2 * 1.02 * 4.0 + 0.6, 1e-3)
        foot, head = sticks[0].lines[0]
        self.assertNear(math.degrees(math.atan2(abs(head[1] - 0.12), head[2])), 8.5, 0.01)
        self.assertTrue(foot)
