"""What growers' arches, wires, cages, weaves, strings and stakes do, with the structures handbook's numbers
(section 14).

Facts are common practice, no source; the numbers beside them are the handbook's reference calculation.
"""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
from ascent import tables
from ascent.analysis.crossings import first_crossing
from ascent.analysis.design import design_of
from ascent.checks import arches, bending, embedment, strings, tension, ties, tipping
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.loads import cases, face
from ascent.mechanics import beam, cable, ends
from ascent.path.loadpath import Strength
from ascent.patterns import runs
from ascent.plan.structure import Structure
from ascent.shapes import sprung

from tests.support import NearTestCase, handbooks, site

GRID = cases.rising_gusts()
V = GRID.gust[0, 0]


def pressure(leaf: float, mesh: float = 0.0) -> np.ndarray:
    """Return the wind on a leafy face over the grid of gusts, (1, 1, G). [Pa]"""
    return face.leafy_pressure(GRID.gust, mesh, np.full((1, 1, 1), leaf))


def at_fifteen(values) -> float:
    """Return a quantity at 15 m/s, moist."""
    return float(np.interp(15.0, V, np.broadcast_to(values, (2, 1, len(V)))[0, 0]))


def limit(use, state: int = 0) -> float:
    """Return the gust at which a use reaches 1."""
    return float(first_crossing(np.broadcast_to(use, (2, 1, len(V)))[state, 0][None], V)[0])


def proposed(family: str, crop: str, side: str = "right", place=None, **options):
    """Return what a family proposes for a crop, changed as asked, evaluated."""
    place = place or site()
    found = FAMILIES[family].propose(Need(crop, None, side, "pruned"), place)
    return design_of(
        place,
        Structure(
            key="x",
            name="x",
            family=family,
            options={**found.options.model_dump(), **options},
            plantings=found.plantings,
        ),
    )


class PanelArchTest(NearTestCase):
    """14.3 One 1.27 × 4.88 m panel, four 5-ft posts 2 ft in, tied top and bottom: holds (common practice, no
    source).
    """

    def setUp(self):
        self.post = replace(tables.posts()["tpost_1.8"], soil_width=0.035)
        self.ground = handbooks()
        self.face = pressure(0.6, 0.0646)

    def checks(self, span: float, rise: float):
        found = sprung.figures(4.877, span, 0.914, 83.78)
        force = self.face * 1.27 * rise
        each, height = np.abs(found.tie) / 2 + force / 4, np.full((1, 1, 1), 0.914)
        lift = arches.lifted(force, np.full((1, 1, 1), 0.55 * rise), 14.25 * 9.81, span) / 2
        return (
            found,
            force,
            bending.post_across(self.post, each, height, np.ones((1, 1, 1))),
            embedment.grip("soil-grip", self.ground, self.post, 0.61, each, height, GRID),
            tension.uplift(self.post, self.ground, 0.61, lift, np.ones((1, 1, 1))),
        )

    def test_uses_at_fifteen(self):
        for span, rise, wind, bent, soil, lifted in (
            (1.219, 2.108, 299, 0.61, 0.42, 0.67),
            (1.829, 1.953, 277, 0.35, 0.24, 0.29),
        ):
            _, force, post, grip, lift = self.checks(span, rise)
            with self.subTest(span=span):
                self.assertNear(at_fifteen(force), wind)
                self.assertAlmostEqual(at_fifteen(post.utilisation), bent, delta=0.015)
                self.assertAlmostEqual(at_fifteen(grip.utilisation), soil, delta=0.015)
                self.assertAlmostEqual(at_fifteen(lift.utilisation), lifted, delta=0.015)

    def test_limits(self):
        """Ties not governing: 18.2 m/s at 4 ft, 25.4 at 6 ft in moist firm loam."""
        for span, rise, expected in ((1.219, 2.108, 18.2), (1.829, 1.953, 25.4)):
            _, _, post, grip, lift = self.checks(span, rise)
            self.assertAlmostEqual(
                min(limit(check.utilisation) for check in (post, grip, lift)), expected, delta=0.5
            )

    def test_ties_where_posts_stand_inside_the_panel(self):
        """New 3.6 mm tie 1.27, aged 2.12, aged 7.6 mm 0.71, doubled 16 ga 0.35 at 4 ft (by a factor of 3; of
        2 0.23); none is asked of posts outside.
        """
        found, force, *_ = self.checks(1.219, 2.108)
        days = np.zeros(1)
        for key, expected in (
            ("tie_cable_3.6", 2.12),
            ("tie_cable_7.6_uv", 0.71),
            ("tie_wire_16_double", 0.35 * 2 / 3),
        ):
            check = arches.tied(
                tables.ties()[key], found.tie / 2 * np.ones((1, 1, 1)), force / 4, 2, False, days
            )
            self.assertNear(at_fifteen(check.utilisation), expected, 0.02)
        outside = arches.tied(
            tables.ties()["tie_cable_3.6"], found.tie / 2 * np.ones((1, 1, 1)), force / 4, 2, True, days
        )
        self.assertLess(at_fifteen(outside.utilisation), 0.01)

    def test_sway_with_eight_butternuts(self):
        """42 kg: 0.75 of the allowed at 4 ft, 0.62 at 6 ft; 78 kg: 1.23 and 1.02, which one more tie height
        cures (sway 5 % higher here; 1.9 of AISC 360 E in place of 2).
        """
        for span, typical, high in ((1.219, 0.75, 1.23), (1.829, 0.62, 1.02)):
            found = sprung.figures(4.877, span, 0.914, 83.78)
            for mass, expected in ((42, typical), (78, high)):
                check = arches.sway(found, np.full((1, 1, 1), (mass + 14.25) * 9.81 / 4.877))
                self.assertNear(check.utilisation, expected * 1.9 / 2.0, 0.065)

    def test_feet_against_stops_alone_cannot_stand(self):
        self.assertEqual(
            float(np.min(proposed("panel-arch", "cuc-slice", "both", hold="free").limit[0])), 0.0
        )

    def test_the_proposal_holds(self):
        for crop in ("butternut", "cuc-slice", "bean-pole"):
            self.assertNotEqual(proposed("panel-arch", crop, "both").state, "inadequate", crop)


class CableTest(NearTestCase):
    """14.4 Barbed wire at 1.5 m, 2-m posts 0.5 m in, 6 m apart, tomatoes on strings: the wire holds,
    crosswise wind is its weak side.
    """

    def test_the_wire(self):
        """As tight as the handbook finds it; yet no more counts than it needs once it has drawn out, which is
        what a forced movement comes to.
        """
        wire, deepest = (
            tables.wires()["wire_barbed_125"],
            6.0 * math.sqrt(0.375 * 0.01),
        )  # of hard wire that has drawn out by a hundredth
        for load, stiffness, use, sag in (
            (49.5, 1e12, 0.89, None),
            (49.5, 20e3, 0.34, 0.31),
            (88.8, 1e12, 1.28, None),
            (88.8, 20e3, 0.48, 0.40),
        ):
            down = np.full((1, 1, 1), load)
            pull = cable.elastic_tension(down, 6.0, 300.0, wire.E * tension.wire_area(wire), stiffness)
            check = tension.main_wire(wire, down, np.zeros((1, 1, 1)), 6.0, pull)
            self.assertNear(np.hypot(pull, load * 3.0) / (4230 / 2), use, 0.025)
            needed = np.hypot(load * 36 / (8 * deepest), load * 3.0) / (4230 / 2)
            self.assertNear(check.utilisation, min(use, float(needed)), 0.025)
            if sag:
                self.assertAlmostEqual(float(check.terms["sag"][0][0, 0, 0]), sag, delta=0.01)

    def test_the_end(self):
        """End post leaning 70°, guy 45°, H 920: guy 954, post 718, anchor uplift 675 N."""
        tight, push, _ = ends.leaning_forces(920.0, 0.0, math.radians(70), math.radians(45))
        self.assertNear(tight, 954)
        self.assertNear(push, 718)
        self.assertNear(tight * math.sin(math.radians(45)), 675)

    def test_a_line_post_crosswise(self):
        """Half of the canopy's wind at the wire, leaf 0.56: 75 mm pole 14.7 m/s in firm clay, 11.4 in loam;
        100 mm 18.8 and 13.7.
        """
        force = 0.5 * pressure(0.56) * 1.2 * 6.0
        height, one = np.full((1, 1, 1), 1.5), np.ones((1, 1, 1))
        for key, soil, expected in (
            ("post_round_75", "firm_clay", 14.7),
            ("post_round_75", "firm_loam", 11.4),
            ("post_round_100", "firm_clay", 18.8),
            ("post_round_100", "firm_loam", 13.7),
        ):
            post, ground = tables.posts()[key], handbooks(soil)
            checks = (
                bending.post_across(post, force, height, one),
                embedment.grip("soil-grip", ground, post, 0.5, force, height, GRID),
            )
            with self.subTest(post=key, soil=soil):
                self.assertAlmostEqual(
                    min(limit(check.utilisation) for check in checks), expected, delta=0.25
                )

    def test_an_upright_unbraced_end_fails(self):
        """7.5: H 920 N at 1.5 m on a 75 mm post: bending 3.8 of what it bears all season."""
        check = bending.lasting(tables.posts()["post_round_75"], np.full((1, 1, 1), 920 * 1.5))
        self.assertNear(check.utilisation, 3.8, 0.02)

    def test_unbraced_ends_are_what_fails(self):
        found = proposed("wire-trellis", "tom-slicer", ends="plain")
        self.assertIn(found.weakest(found.worst_week), ("end-post", "end-soil"))
        self.assertLess(found.limit[0].min(), proposed("wire-trellis", "tom-slicer").limit[0].min())


class TwinWireTest(NearTestCase):
    def test_anchors_of_a_tee_row(self):
        """14.19: two 12.5 gauge wires, 3 m bays, 65 N/m each: 980 N; guy at 45° 1386 N: one 30-inch screw
        anchor 2.77 in loam, 0.77 in clay.
        """
        each = float(cable.elastic_tension(65.0, 3.0, 300.0, 993.2e3, 20e3))
        self.assertNear(2 * each, 980)
        tight, _, _ = ends.guy_forces(2 * each, 1.8, 1.8, math.radians(45))
        for soil, use in (("firm_loam", 2.77), ("firm_clay", 0.77)):
            (check,) = tension.anchor(
                tables.anchors()["anchor_screw_30x4"],
                tables.soils()[soil],
                np.full((1, 1, 1), tight),
                math.pi / 4,
                GRID,
            )
            self.assertNear(check.utilisation, use, 0.02)


class CageTest(NearTestCase):
    """14.5 A lone cage under a tall tomato topples; staked or tied it stands (common practice, no source)."""

    def cage(
        self,
        diameter: float,
        height: float,
        kg: float,
        deep: int = 1,
        apart: float = 0.6,
        stake: tuple[str, float] | None = None,
    ):
        wind = 1 + 0.4 * (deep - 1)
        moment, none = pressure(0.6, 0.06) * diameter * height * 0.55 * height * wind, np.zeros((1, 1, 1))
        staked = Strength(none, none)
        if stake:
            row, at = tables.posts()[stake[0]], np.full((1, 1, 1), 0.9 * height)
            soil, bears = embedment.strength(handbooks(), row, stake[1], at, GRID), bending.moments(row)
            staked = Strength(
                *(np.minimum(soil[i] * at, (bears.allowable, bears.median)[i]) * deep for i in (0, 1))
            )
        arm = ((deep - 1) * apart + diameter) / 2
        weight = np.full((1, 1, 1), kg * 9.81)
        resting = deep * weight * arm
        hold = Strength(resting / 1.5 + staked.allowable, resting + staked.median)
        return tipping.cage(moment, weight, arm, hold, resting / 1.5, staked.allowable, deep)

    def test_alone(self):
        """Thin ring 6.5 m/s, mesh cylinder 6.9, heavy 12.5; they tip at 7.9, 8.5 and 16.0."""
        for diameter, height, kg, held, tips in (
            (0.30, 0.95, 3.9, 6.5, 7.9),
            (0.55, 1.5, 11, 6.9, 8.5),
            (0.45, 1.2, 20, 12.5, 16.0),
        ):
            check = self.cage(diameter, height, kg)
            self.assertAlmostEqual(limit(check.utilisation), held, delta=0.15)
            self.assertAlmostEqual(limit(check.median_utilisation), tips, delta=0.15)

    def test_staked(self):
        """10.2: a T-post 0.6 m deep 30.5 m/s; a 12.7 mm bar 0.45 m deep 13.1 by its first yield; ours of 12
        mm may yield as a whole (AISC 360 F11).
        """
        self.assertNear(limit(self.cage(0.55, 1.5, 11, stake=("tpost_1.8", 0.6)).utilisation), 30.5, 0.03)
        bar = limit(self.cage(0.55, 1.5, 11, stake=("rod_rebar_12", 0.45)).utilisation)
        self.assertTrue(12.5 < bar < 16.0, bar)

    def test_rafts(self):
        """10.3: 0.5 × 1.1 m, 4.4 kg, 0.6 m apart: 6.0, 11.2, 16.0, 20.2 m/s for one to four rows by weight
        alone.
        """
        for deep, expected in ((1, 6.0), (2, 11.2), (3, 16.0), (4, 20.2)):
            self.assertAlmostEqual(limit(self.cage(0.5, 1.1, 4.4, deep).utilisation), expected, delta=0.35)

    def test_in_the_product(self):
        alone, staked = (proposed("cage", "tom-det", stakes=n) for n in (0, 1))
        self.assertLess(
            alone.limit[0].min(), 18.0
        )  # 6.9 in the handbook: of a flat plate at head height, without the plant's own roots
        self.assertGreater(staked.limit[0].min(), 1.3 * alone.limit[0].min())
        tall = proposed("cage", "tom-slicer", stakes=0)
        self.assertNotEqual(tall.state, "adequate")
        self.assertLess(tall.reliability.return_period()[0], 15.0, "under a tall one it topples")
        raft = proposed("cage", "tom-det", "both", site(length=3.75, width=3.0), rows=4, stakes=0)
        self.assertGreater(
            raft.limit[0].min(), 1.5 * alone.limit[0].min()
        )  # 3.4 in the handbook, where no roots help the one alone
        racked = proposed(
            "cage", "tom-det", "both", site(length=3.75, width=3.0), rows=4, stakes=0, link="grid"
        )
        self.assertNear(racked.limit[0].min(), alone.limit[0].min(), 0.1)


class PotTest(NearTestCase):
    def test_a_pot_before_watering(self):
        """10.4: 38 L, base 0.30 m, 0.35 m high, canopy 0.4 × 1.2 m, leaf 0.6: 13.0 m/s at 30 + 8 kg; 15.9 at
        45 + 8 kg.
        """
        force = pressure(0.6) * 0.4 * 1.2
        for mass, expected in ((38, 13.0), (53, 15.9)):
            self.assertAlmostEqual(
                limit(tipping.pot(force, np.full((1, 1, 1), 0.6), mass, 0.30, 0.35).utilisation),
                expected,
                delta=0.15,
            )


class BeamTest(NearTestCase):
    """14.7 A box frame's bar without a middle support sags: 65 N/m, sustained; one span 2.4 m → two of 1.2
    m.
    """

    def test_uses_and_sags(self):
        for key, use, sag, half, low in (
            ("tube_emt_15", 1.52, 69.6, 0.38, 4.3),
            ("tube_toprail_35_17", 0.29, 6.8, None, None),
        ):
            for span, used, sagged in ((2.4, use, sag), (1.2, half, low)):
                if used is None:
                    continue
                load = np.full((1, 1, 1), 65.0)
                post = tables.posts()[key]
                ratio = (
                    post.a - 2 * post.b
                ) / post.a  # a tube bends until it has yielded as a whole: Z/S of AISC 360 F8
                yielded = 16 / (3 * math.pi) * (1 - ratio**3) / (1 - ratio**4)
                self.assertNear(bending.beam_lasting(post, load, span).utilisation, used / yielded, 0.02)
                self.assertNear(bending.beam_sag(tables.posts()[key], load, span) * 1e3, sagged, 0.02)

    def test_wood(self):
        """38 × 38 graded: 0.58, 18.6 mm before creep, twice that with it; ours is the ungraded stake: × 1/0.6
        and 1/0.86.
        """
        wood, load = tables.posts()["post_sw_stake_38"], np.full((1, 1, 1), 65.0)
        self.assertNear(bending.beam_lasting(wood, load, 2.4).utilisation * 0.6, 0.58, 0.02)
        self.assertNear(bending.beam_sag(wood, load, 2.4) * 1e3 * 7.45 / 8.69 / 2, 18.6, 0.02)

    def test_a_prop_cures_it(self):
        bare, propped = (
            proposed("drop-strings", "tom-slicer", place=site(length=3.05), beam="tube_emt_20", prop=prop)
            for prop in (False, True)
        )
        amounts = [
            float(np.max(next(s for s in e.service if s.key == "sag").amount)) for e in (bare, propped)
        ]
        self.assertGreater(amounts[0], 10 * amounts[1])


class StakeTest(NearTestCase):
    """14.8 A tall cane alone fails; a strong pole does not. 14.14 Zucchini on a stake."""

    def on_stake(
        self,
        key: str,
        depth: float,
        width: float,
        height: float,
        centre: float,
        leaf: float,
        soil: str = "firm_loam",
    ) -> float:
        post, ground = tables.posts()[key], handbooks(soil)
        force, at = pressure(leaf) * width * height, np.full((1, 1, 1), centre)
        checks = (
            bending.post_across(post, force, at, np.ones((1, 1, 1))),
            embedment.grip("soil-grip", ground, post, depth, force, at, GRID),
        )
        return min(limit(check.utilisation) for check in checks)

    def test_canes_and_poles(self):
        for key, expected in (
            ("cane_8", 2.7),
            ("cane_12", 4.9),
            ("cane_16", 7.5),
            ("cane_20", 11.3),
            ("cane_25", 17.2),
            ("post_round_50", 29.8),
        ):
            with self.subTest(key):
                self.assertNear(self.on_stake(key, 0.4, 0.35, 1.2, 0.8, 0.6), expected, 0.03)

    def test_zucchini(self):
        """Firm loam: 38 × 38 limit 27.0; in raised bed fill 7.5: fasten to the bed frame instead."""
        graded = self.on_stake("post_hw_stake_38", 0.4, 0.7, 0.6, 0.55, 0.7)
        self.assertNear(graded, 27.0, 0.12)
        self.assertNear(
            self.on_stake("post_hw_stake_38", 0.4, 0.7, 0.6, 0.55, 0.7, "raised_bed_mix"), 7.5, 0.05
        )

    def test_a_stake_in_a_pot_is_not_held_by_its_mix(self):
        pot = site(kind="container", fill="potting_mix", fill_depth=0.4, length=0.45, width=0.45)
        self.assertLess(proposed("stake", "tom-det", place=pot).limit[0].min(), 8.0)


class ScrewedTest(NearTestCase):
    def test_an_upright_on_a_board(self):
        """14.15: 46.9 N at 0.6 m on two screws 100 mm apart: 281 N against 390; at 50 mm it does not hold."""
        pair = replace(tables.fittings()["screws_76_pair"], working_N=390)
        for gap, use in ((0.10, 281 / 390), (0.05, 563 / 390)):
            self.assertNear(bending.screwed(pair, np.full((1, 1, 1), 46.9 * 0.6), gap).utilisation, use)


class WeaveTest(NearTestCase):
    """14.12 Weave on T-posts every two plants (1.2 m): holds; 2.4 m does not. 14.17 Broad-bean corral."""

    def test_worked_runs(self):
        """11: 5 kg, 2 plants a metre, centre 0.7 m, 10°, p 103.4 Pa to 1.3 m: runs 6.1 … 30.5 N/m; a 490 N
        twine over 1.2 m 67.5 N, 81 mm.
        """
        heights = np.arange(0.25, 1.3, 0.2)
        moment = 5 * 9.81 * 2 * 0.7 * math.sin(math.radians(10)) + 103.4 * 1.3**2 / 2
        loads = moment * heights / np.sum(heights**2)
        for load, expected in zip(loads, (6.1, 11.0, 15.8, 20.7, 25.6, 30.5), strict=True):
            self.assertNear(load, expected)
        twine = tables.twines()["pp_baler_20000"]
        for span, pull, belly in ((1.2, 67.5, 81), (1.8, 85.7, 144), (2.4, 101.7, 216)):
            found = float(
                cable.elastic_tension(np.array(30.5), span, 20.0, twine.break_N / twine.stretch, 1e12)
            )
            self.assertLess(
                float(runs.tension(twine, np.array(30.5), span, 1, 1e12)),
                found,
                "creep leaves half of what a hand drew tight",
            )
            self.assertNear(found, pull, 0.02)
            self.assertNear(30.5 * span**2 / 8 / found * 1e3, belly, 0.03)

    def test_two_plants_a_post_hold_more_than_four(self):
        found = {
            bay: proposed(
                "weave", "tom-det", post="tpost_1.8", twine="pp_baler_9600", post_spacing=bay, length=4.8
            )
            for bay in (1.2, 2.4)
        }
        self.assertEqual(found[1.2].state, "adequate")
        wide, close = (float(np.min(found[bay].limit[0])) for bay in (2.4, 1.2))
        self.assertLess(
            wide, 0.75 * close
        )  # the handbook's 1.41 at 2.4 m had the factor of 3 on knot and season twice, and head-height gusts

    def test_broad_beans(self):
        """Posts 2 m apart 0.3 m deep, beans of 1 m carry half themselves: 103 N at 15 m/s, soil 1.98, limit
        9.8 (low confidence).
        """
        force, height = 0.5 * pressure(0.6) * 1.0 * 2.0, np.full((1, 1, 1), 0.5)
        grip = embedment.grip(
            "soil-grip", handbooks(), tables.posts()["post_hw_stake_38"], 0.3, force, height, GRID
        )
        self.assertNear(at_fifteen(force), 103, 0.02)
        self.assertAlmostEqual(at_fifteen(grip.utilisation), 1.98, delta=0.05)
        self.assertAlmostEqual(limit(grip.utilisation), 9.8, delta=0.2)
        late = proposed("weave", "fava", post_spacing=2.0, depth=0.3, ends="guy")
        self.assertTrue(11.0 < float(np.min(late.limits["soil"][0])) < 15.0)


class StringTest(NearTestCase):
    def test_working_loads(self):
        """6.7: sisal 45, baler 9600 95, baler 7200 125, polyester 225 N after a season, by a factor of 3; of
        2, knot and season being in it already.
        """
        for key, expected in (
            ("sisal_2.5", 45),
            ("pp_baler_9600", 95),
            ("pp_baler_7200", 125),
            ("polyester_3", 225),
        ):
            self.assertNear(
                strings.twine_strength(tables.twines()[key], np.array([140.0])).allowable, expected * 1.5
            )

    def test_a_clip_holds_twenty_newtons(self):
        """13: a tomato clip works at 20 N, two in 0.6 m of stem."""
        self.assertNear(ties.strength(tables.ties()["clip_spring_small"], np.zeros(1)).allowable, 20)

    def test_one_string_carries_one_good_plant(self):
        """Crops handbook 6.1: 5.43 kg on one string; greenhouse twine works at 75 N after a season: it holds
        in still air with a third to spare.
        """
        found = proposed("drop-strings", "tom-slicer", place=site(length=3.05))
        check = next(link for link in found.links if link.key == "string").checks[0]
        self.assertNear(np.max(check.terms["weight"][0]), 5.43 * 9.81, 0.02)


class LivingTest(NearTestCase):
    def test_a_block_shelters_itself_and_a_row_does_not(self):
        block, row = proposed("living-support", "bean-pole"), proposed("living-support", "bean-pole", rows=1)
        self.assertGreater(block.limit[0].min(), row.limit[0].min())

    def test_one_bean_to_two_stems_is_the_rule(self):
        """Crops handbook 10: half a kilogram on a stalk of maize, one pole bean per one to two stalks: half
        of them is within the rule.
        """
        found = proposed("living-support", "bean-pole")
        use = next(c for link in found.links for c in link.checks if c.key == "host-carries").utilisation
        self.assertTrue(0.4 < float(np.max(use[..., -1])) < 0.7)

    def test_timing(self):
        """Host 0.15 to 0.30 m first, two to three weeks: 18 days are ready, 5 are not."""
        for days, key in ((18, "host-ready"), (5, "host-small"), (44, "host-tall")):
            self.assertIn(
                key,
                {remark.key for remark in proposed("living-support", "bean-pole", head_start=days).remarks},
            )

    def test_strings_round_the_block_help(self):
        bare, held = (proposed("living-support", "bean-pole", backup=b) for b in ("none", "strings"))
        self.assertGreater(float(np.min(held.limits["host"][0])), float(np.min(bare.limits["host"][0])))


class PortalTest(NearTestCase):
    def test_sway_of_a_hinged_portal(self):
        """9.5: 38 × 38, h 1.8, F 60, W 250: 60.6 N·m at each foot, Wcr 2299 for both, factor 1.122 (graded; K
        2.1 here makes Wcr a tenth less).
        """
        row = tables.posts()["post_sw_stake_38"]
        check = bending.racking(row, np.full((1, 1, 1), 60.0), 1.8, 2, np.full((1, 1, 1), 125.0))
        self.assertNear(check.terms["moment"][0], 60.6, 0.04)
        self.assertNear(beam.cantilever_tip(30.0, 1.79, 1.8, 1.8, 1510.0) * 1.122 * 1e3, 43.4, 0.02)
