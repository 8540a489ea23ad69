"""What growers' A-frames, tripods, crossed poles, bed frames, hoops, fences and sticks do, with the
structures handbook's numbers (section 14).

Facts are common practice, no source; the numbers beside them are the handbook's reference calculation.
"""

from __future__ import annotations

import math

import numpy as np
from ascent import tables
from ascent.checks import bending, boards, embedment, existing, footings, legs, tipping
from ascent.loads import face
from ascent.mechanics import raked_legs, wind
from ascent.path.loadpath import Strength
from ascent.shapes import sprung
from ascent.tables.rows import Post

from tests.practice.test_other_families import GRID, at_fifteen, limit, pressure, proposed
from tests.support import NearTestCase, handbooks, site

LOAM = handbooks()


class AFrameTest(NearTestCase):
    """14.9: 2.44 × 2.4 m, spread 1.2, 35 kg, leaf 0.6, not pegged: blew over."""

    def setUp(self):
        self.force = pressure(0.6) * 2.44 * 2.4
        self.weight = np.full((1, 1, 1), 35 * 9.81)

    def test_wind_on_it(self):
        self.assertNear(at_fifteen(self.force), 606)

    def test_tips_in_a_fresh_breeze(self):
        """Ratio 3.7 at 15 m/s, tips at 6.9 without a factor."""
        check = tipping.frame(self.force * 1.25, self.weight, 0.6, self.weight)
        self.assertNear(at_fifteen(check.utilisation) / 1.5, 3.7, 0.02)
        self.assertNear(limit(check.median_utilisation), 6.9, 0.02)

    def test_slides_sooner(self):
        """Slides at 6.3 m/s, friction of timber 0.40."""
        check = footings.slides(self.force, self.weight, "timber_friction", "frame-slides")
        self.assertNear(limit(check.utilisation / 1.5), 6.3, 0.02)

    def test_pegs_or_not(self):
        """Peg uplift 689 N a windward side, its factor of 1.5 in it."""
        lifted = (at_fifteen(self.force) * 1.25 - 35 * 9.81 * 0.6) / 1.2
        self.assertNear(1.5 * lifted, 689)

    def test_low_and_wide_stands_in_calm_gardens(self):
        """1.15 m, spread 0.9, 1.3 m, 22 kg: tips at 15.4 m/s; 1.8 m, spread 1.5, 45 kg: 15.4 (sail and centre
        as half the slope).
        """
        for leg, spread, wide, mass in ((1.15, 0.9, 1.3, 22),):
            high = math.sqrt(leg**2 - (spread / 2) ** 2)
            weight = np.full((1, 1, 1), mass * 9.81)
            check = tipping.frame(pressure(0.6) * leg * wide * high / 2, weight, spread / 2, weight)
            self.assertNear(limit(check.median_utilisation), 15.4, 0.10)

    def test_held_at_its_feet_it_stands_longer(self):
        loose = proposed("a-frame", "melon", "both", foot="none")
        pegged = proposed("a-frame", "melon", "both", foot="stake")
        anchored = proposed("a-frame", "melon", "both", foot="anchor", anchor="anchor_screw_30x4")
        feet = [float(np.min(each.limits["foot"][0])) for each in (loose, pegged, anchored)]
        self.assertLess(feet[0], 8.0)
        self.assertEqual(feet, sorted(feet))

    def test_wind_from_behind_one_face(self):
        """One face alone hangs its weight to one side: it goes over sooner than two that lean on each
        other.
        """
        two, one = (proposed("a-frame", "melon", "both", foot="none", faces=n) for n in ("two", "one"))
        self.assertLess(float(np.min(one.limits["foot"][0])), float(np.min(two.limits["foot"][0])))


class TripodTest(NearTestCase):
    """14.10: three poles of 1.83 m, feet 0.45 m out, beans."""

    HEIGHT = math.sqrt(1.83**2 - 0.45**2)

    def test_tips_in_a_breeze_where_nothing_holds_it(self):
        """6 kg: 6.3 m/s, of a sail of 0.67 m² with its middle at 0.85 m. (The handbook's 9 kg at 7.0 does not
        follow from the same sail: it gives 7.7.)
        """
        for mass, gust in ((6, 6.3),):
            weight = np.full((1, 1, 1), mass * 9.81)
            check = tipping.frame(pressure(0.6) * 0.671 * 0.85, weight, 0.225, weight)
            self.assertNear(limit(check.median_utilisation), gust, 0.04)

    def test_sail_of_a_set(self):
        """69.4 N at 15 m/s: the outline of three poles with leaves 50 mm outside them; its middle is a little
        lower than the handbook's 0.85 m.
        """
        area, middle = raked_legs.tapered(raked_legs.ring_width(0.45, 3), 0.10, 0.2, self.HEIGHT, self.HEIGHT)
        self.assertNear(at_fifteen(pressure(0.6)) * float(area), 69.4, 0.03)
        self.assertNear(middle, 0.85, 0.10)

    def test_feet_pushed_in(self):
        """0.3 m in firm loam: friction 47 N a foot of a 20-mm pole against 68 N; as three short posts 3 ×
        28.2 N at 0.85 m.
        """
        pole, at = tables.posts()["cane_20"], np.full((1, 1, 1), 0.85)
        skin, stood = legs.pulled(pole, LOAM, 0.3, GRID), legs.stood(pole, LOAM, 0.3, at, 3, GRID)
        self.assertNear(skin.allowable.ravel()[0] * 2, 47, 0.01)
        self.assertNear((69.4 * 0.85 - 6 * 9.81 * 0.225) / (1.5 * 0.45), 68, 0.02)
        self.assertNear(
            stood.allowable.ravel()[0] * 1.5, 3 * 28.2 * 0.85, 0.15
        )  # ours counts the ground from 0.15 m down, as everywhere
        force, none = pressure(0.6) * 0.671, np.zeros((1, 1, 1))
        alone = legs.feet(force * 0.85, none, Strength(none, none), stood, Strength(none, none))
        self.assertGreater(at_fifteen(alone.utilisation), 1.0)
        self.assertLess(at_fifteen(alone.median_utilisation), 1.0, "by median strengths it stands")
        pulled = Strength(*(each * 1.5 * 0.45 for each in skin))
        both = legs.feet(force * 0.85, none, pulled, stood, Strength(none, none))
        self.assertNear(
            1 / at_fifteen(both.utilisation),
            1 / at_fifteen(alone.utilisation) + 47 / 2 * 1.5 * 0.45 / (at_fifteen(force) * 0.85),
            0.01,
        )

    def test_deeper_or_a_stake_in_the_middle_cures_it(self):
        shallow = proposed("tripod", "bean-pole", legs=3, radius=0.45, pole_length=2.3)
        deeper = proposed("tripod", "bean-pole", legs=3, radius=0.45, pole_length=2.4, in_soil=0.4)
        staked = proposed(
            "tripod", "bean-pole", legs=3, radius=0.45, pole_length=2.3, centre="stake", stake="tpost_1.8"
        )
        first, second, third = (float(np.min(each.limits["feet"][0])) for each in (shallow, deeper, staked))
        self.assertGreater(second, first + 0.8)
        self.assertGreater(third, first + 0.8)

    def test_in_a_pot_the_rim_holds_and_the_mix_does_not(self):
        """10.4 and parts handbook 4.9: put the frame on the rim, not in the mix."""
        pot = site(kind="container", length=0.6, width=0.6, fill="potting_mix", fill_depth=0.45)
        mix, rim = (
            proposed("tripod", "bean-pole", place=pot, held=held, crossing="notched")
            for held in ("soil", "rim")
        )
        self.assertLess(float(np.min(mix.limits["feet"][0])), 10.0)
        self.assertGreater(float(np.min(rim.limits["feet"][0])), 12.0)


class CrossedPolesTest(NearTestCase):
    """14.11: runner beans, 2 m, spread 0.6 m, pairs at 0.23 m, 16-mm feet pushed 0.3 m; such rows stand.
    Uncertain.

    The handbook's 9.1 m/s is of friction alone in head-height gusts; ours adds each foot standing as a short
    post, in the gust of its own height.
    """

    def row(self, **options):
        return proposed(
            "crossed-poles",
            "bean-runner",
            "both",
            pair_spacing=0.23,
            length=6.0,
            pole="cane_16",
            pole_length=2.4,
            crossing="notched",
            **options,
        )

    def test_feet(self):
        self.assertNear(float(np.min(self.row().limits["feet"][0])), 11.3, 0.02)

    def test_without_diagonals_the_row_goes_down_like_cards(self):
        braced, bare = self.row(), self.row(brace="none")
        self.assertLess(float(np.min(bare.limits["pole"][0])), float(np.min(braced.limits["pole"][0])) + 1e-9)

    def test_wider_feet_stand_longer(self):
        self.assertGreater(
            float(np.min(self.row(spread=0.9).limits["feet"][0])),
            float(np.min(self.row().limits["feet"][0])) + 0.4,
        )

    def test_a_permanent_one_of_tube(self):
        """Scaffold tube in concrete with a ridge of wire, strings on hooks and guys: nothing of it is near
        its limit but what holds its ends.
        """
        row = proposed(
            "crossed-poles",
            "bean-runner",
            "both",
            pole="tube_scaffold_48",
            pair_spacing=1.5,
            length=6.0,
            between="strings",
            ridge="wire",
            crossing="coupled",
            footing="concrete",
            in_soil=0.6,
            brace="guy",
            hung_by="hook",
            anchor="deadman_stones_60",
            brace_wire="wire_soft_9",
        )
        for key in ("pole", "lashing", "feet", "ridge", "hook"):
            self.assertGreater(float(np.min(row.limits[key][0])), 20.0, key)


class BedFrameTest(NearTestCase):
    def test_two_screws_on_a_board(self):
        """14.15: two no. 8 screws 100 mm apart: 281 N against 390; at 50 mm 563 N: they do not hold."""
        screw, moment = tables.fittings()["screw_64"], np.full((1, 1, 1), 28.1)
        self.assertNear(bending.screwed(screw, moment, 0.10).demand, 281)
        self.assertLess(float(np.max(bending.screwed(screw, moment, 0.10).utilisation)), 1.0)
        self.assertGreater(float(np.max(bending.screwed(screw, moment, 0.05).utilisation)), 1.0)

    def test_a_bar_over_the_bed_halves_what_an_upright_stands(self):
        """9.5: two posts hinged at the top share the wind; a portal is stiffer than two lone posts (parts
        handbook 3.11).
        """
        bed = site(kind="raised", fill_depth=0.28)
        joined, lone = (
            proposed("bed-frame", "tom-slicer", "both", place=bed, crossbar=bar) for bar in ("top", "none")
        )
        self.assertGreater(
            float(np.min(joined.limits["screws"][0])), 1.4 * float(np.min(lone.limits["screws"][0]))
        )

    def test_a_filled_bed_is_heavy(self):
        """Parts handbook 4.10: 0.3 m of fill is about 300 kg/m²: 2.4 × 1.2 m of it holds 8.5 kN × 0.6 m."""
        check = boards.bed_tips(np.full((1, 1, 1), 5085.0 / 1.5), 300 * 2.4 * 1.2 * 9.81, 1.2)
        self.assertNear(check.utilisation, 5085 / (300 * 2.4 * 1.2 * 9.81 * 0.6), 0.01)

    def test_backing_stakes_hold_a_board(self):
        bed = site(kind="raised", fill_depth=0.15)
        loose, backed = (
            proposed("bed-frame", "tom-slicer", "right", place=bed, backing=how) for how in ("none", "stakes")
        )
        self.assertGreater(
            float(np.min(backed.limits["board"][0])), float(np.min(loose.limits["board"][0])) + 0.5
        )


class HoopsTest(NearTestCase):
    def test_ladder_of_four_wires(self):
        """8.8: 2.44 m over 1.2 m, four 4.0-mm wires: EI 10.05, rise 0.915 m, thrust 22.6 N."""
        stiff = 2 * bending.stiffness(tables.posts()["ladder_mesh_3"])  # two ladders of two rods
        self.assertNear(stiff, 10.05)
        found = sprung.figures(2.44, 1.2, 0.0, stiff)
        self.assertNear(found.rise, 0.915)
        self.assertNear(found.foot, 22.6, 0.02)

    def test_rise_of_a_ladder_pushed_in(self):
        """Parts handbook 3.12: 3.05 m pushed 0.25 m in on both sides of 1.2 m: L 2.55 m, rise 0.96 m."""
        found = proposed("hoops", "sweet-potato", arc=3.05, span=1.2, push_in=0.25)
        self.assertNear(found.geometry.top, 0.96, 0.01)

    def test_a_pipe_bent_too_sharply(self):
        """9.6: ¾ in plastic at a radius of 0.6 m is strained 2.2 %, which is done and relaxes; 1.5 % wants 33
        widths.
        """
        pipe = tables.posts()["pipe_pvc_20"]
        self.assertNear(pipe.a / (2 * 0.6), 0.022, 0.02)
        self.assertNear(1 / (2 * tables.constant("pvc_gentle")), 33, 0.02)

    def test_hoops_fall_like_dominoes_unless_joined(self):
        joined = proposed(
            "hoops", "pea-snap", hoop_of="pipe", pipe="tube_emt_20", net="net", arc=3.05, brace="diagonal"
        )
        loose = proposed(
            "hoops",
            "pea-snap",
            hoop_of="pipe",
            pipe="tube_emt_20",
            net="net",
            arc=3.05,
            brace="none",
            ridge="none",
        )
        self.assertIn("along", {link.key for link in loose.links})
        self.assertLess(float(np.min(loose.limits["along"][0])), float(np.min(joined.limits["brace"][0])))

    def test_deep_enough_in_loose_soil(self):
        """Loose soil grips little: a stake at every foot of a ladder."""
        loose = site("loose_tilled")
        pushed, staked = (
            proposed("hoops", "sweet-potato", place=loose, held=held) for held in ("soil", "stakes")
        )
        self.assertGreater(
            float(np.min(staked.limits["buried"][0])), float(np.min(pushed.limits["buried"][0])) - 1e-9
        )


class ExistingTest(NearTestCase):
    """14.18: a telescoping pole 5.5 m up, hops 0.5 m wide, leaf 0.6: 776 N·m at 15 m/s."""

    def blown(self) -> np.ndarray:
        return pressure(0.6) * 5.5 * 0.5

    def pole(self, wide: float, wall: float) -> Post:
        row = tables.posts()["pole_tube_60"]
        return type(row)(**{**row.__dict__, "key": "x", "a": wide, "b": wall})

    def test_three_tubes(self):
        """60.3 × 2.9: use 0.79; 48.3 × 2.6: 1.40, limit 12.1; 42.2 × 2.4: 2.01, 9.7."""
        self.assertNear(at_fifteen(self.blown()) * 2.75, 776, 0.02)
        for wide, wall, use, gust in (
            (0.0603, 0.0029, 0.79, None),
            (0.0483, 0.0026, 1.40, 12.1),
            (0.0422, 0.0024, 2.01, 9.7),
        ):
            check = existing.pole(self.pole(wide, wall), self.blown(), np.full((1, 1, 1), 2.75), 0.0)
            ratio = (wide - 2 * wall) / wide  # it bears until it has yielded as a whole: Z/S of AISC 360 F8
            yielded = 16 / (3 * math.pi) * (1 - ratio**3) / (1 - ratio**4)
            self.assertNear(at_fifteen(check.utilisation), use / yielded, 0.025)
            if gust:
                self.assertNear(limit(check.utilisation * yielded), gust, 0.025)

    def test_ample_in_concrete(self):
        """1.8 m in the ground is ample: 0.14 of what the soil gives (the handbook's post stands 0.06 m wide;
        a collar only helps).
        """
        post = tables.posts()["pole_tube_60"]
        check = embedment.grip("soil-grip", LOAM, post, 1.8, self.blown(), np.full((1, 1, 1), 2.75), GRID)
        self.assertNear(at_fifteen(check.utilisation), 0.14, 0.25)

    def test_guys_take_the_pole_off_its_foot(self):
        free, guyed = (
            existing.pole(tables.posts()["pole_tube_48"], self.blown(), np.full((1, 1, 1), 2.75), at)
            for at in (0.0, 3.85)
        )
        self.assertGreater(at_fifteen(free.utilisation), 3 * at_fifteen(guyed.utilisation))

    def test_a_sail_on_an_old_fence(self):
        """Vines on a tired fence are refused by its posts (parts handbook 3.14): half its strength, a sail
        more.
        """
        sound, tired, rotten = (
            proposed(
                "existing",
                "bean-hyacinth",
                fixed_to="fence",
                eye="eye_screw_wood",
                boards="gaps",
                state=state,
            )
            for state in ("sound", "tired", "rotten")
        )
        gusts = [float(np.min(each.limits["fence-soil"][0])) for each in (sound, tired, rotten)]
        self.assertEqual(gusts, sorted(gusts, reverse=True))
        self.assertLess(gusts[1], 15.0)

    def test_leaves_close_what_a_fence_leaves_open(self):
        """1.5: half-open boards with leaf 0.6 make a face 0.8 closed."""
        self.assertNear(wind.mixed_solidity(tables.constant("fence_gaps"), 0.6), 0.8)
        bare, leafy = (
            face.leafy_pressure(np.full((1, 1, 1), 15.0), 0.5, np.full((1, 1, 1), leaf))
            for leaf in (0.0, 0.6)
        )
        self.assertGreater(float(np.max(leafy)), float(np.max(bare)))

    def test_wires_on_a_sound_wall_hold(self):
        wall = proposed("existing", "tom-cherry")
        self.assertGreater(float(np.min(wall.limit[0])), 15.0)


class BrushwoodTest(NearTestCase):
    def test_dwarf_peas_stand(self):
        """Hazel under dwarf peas stands through June: common practice, no source."""
        found = proposed("brushwood", "pea-dwarf")
        self.assertGreater(float(np.min(found.limit[0])), 15.0)

    def test_untied_the_worst_stick_goes_first(self):
        tied, loose = (proposed("brushwood", "pea-dwarf", tied=how) for how in ("string", "none"))
        self.assertGreater(
            float(np.min(tied.limits["stick"][0])), float(np.min(loose.limits["stick"][0])) + 1.0
        )

    def test_brittle_in_their_second_season(self):
        """3.4: bamboo and cut wood in the soil lose a quarter a season."""
        new, old = (proposed("brushwood", "pea-dwarf", season=n) for n in (1, 2))
        first, second = (
            float(next(link for link in each.links if link.key == "stick").utilisation[0, -1, 2])
            for each in (new, old)
        )
        self.assertNear(second / first, 1 / 0.75)

    def test_a_tall_crop_gets_a_starter(self):
        self.assertEqual(proposed("brushwood", "bean-pole").structure.options["pattern"], "starter")
        self.assertEqual(proposed("brushwood", "pea-dwarf").structure.options["pattern"], "crossed")


class CombinedTest(NearTestCase):
    """What growers make of two kinds of support is an option of one of them: common practice, no source."""

    def test_starter_brush_under_a_wire(self):
        with_, without = (proposed("wire-trellis", "bean-pole", starter=how) for how in ("brush", "none"))
        sticks = [m for m in with_.geometry.members if m.key.startswith("starter")]
        self.assertEqual(len(sticks), sum(p.count for p in with_.structure.plantings))
        self.assertEqual(float(np.min(with_.limit)), float(np.min(without.limit)), "it carries nothing")

    def test_runs_of_twine_on_a_fences_posts(self):
        """They take the place of ties on stems, and pull the ends."""
        woven, tied = (proposed("mesh-fence", "tom-slicer", woven=how) for how in ("front", "none"))
        self.assertIn("run", {link.key for link in woven.links})
        self.assertNotIn("stem-tie", {link.key for link in woven.links})
        self.assertLess(float(np.min(woven.limits["end-post"][0])), float(np.min(tied.limits["end-post"][0])))

    def test_strings_under_an_arch(self):
        strung = proposed("panel-arch", "bean-pole", "both", strung="inside")
        strings_ = strung.geometry.by_role("string")
        self.assertEqual(len(strings_), sum(p.count for p in strung.structure.plantings))
        half = strung.structure.options["span"] / 2
        self.assertTrue(all(abs(plant.at[1]) < half for plant in strung.geometry.plants))
        self.assertTrue(all(m.points[0][2] < strung.geometry.top for m in strings_))

    def test_a_stake_inside_a_cage(self):
        staked, alone = (proposed("cage", "tom-det", stakes=n, link="none") for n in (1, 0))
        self.assertGreater(
            float(np.min(staked.limits["tipping"][0])), float(np.min(alone.limits["tipping"][0])) + 2.0
        )
