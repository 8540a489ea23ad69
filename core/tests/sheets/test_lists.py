"""Shopping lists counted by hand: what each structure of the sheets is built of, in pieces or metres, in
packs, and what it costs.
"""

from __future__ import annotations

import math

from ascent.buying.lists import shopping, total

from tests.sheets import (
    test_arches,
    test_bed_frames,
    test_cages,
    test_fences,
    test_frames,
    test_hoops,
    test_others,
    test_poles,
    test_stakes,
    test_strings,
    test_weaves,
    test_wires,
)
from tests.support import NearTestCase

WIRE, TWINE, TIES, MESH = 1.03, 1.05, 1.10, 1.05  # waste, parts handbook 3.0


class ListsTest(NearTestCase):
    def bought(self, sheet, rows):
        """Compare a list: by item what is needed (pieces, or metres of wire and twine), packs, and the cost
        of all packs.
        """
        found = {}
        for part in shopping(sheet.stand().geometry, {}):
            need = part.length if part.use in ("wire", "string") else part.count
            before = found.get(part.key, (0, 0, 0.0))
            found[part.key] = (before[0] + need, before[1] + part.packs, before[2] + part.cost)
        self.assertEqual(sorted(found), sorted(rows))
        for key, (need, packs, cost) in rows.items():
            with self.subTest(sheet=sheet.__name__, item=key):
                self.assertAlmostEqual(found[key][0], need, delta=max(0.02 * need, 0.06))
                self.assertEqual(found[key][1], packs)
                self.assertAlmostEqual(found[key][2], cost, delta=0.04)

    def test_panel_fence(self):
        """3.6 m in three bays: a panel of 4.88 m joins at posts; four staples a post and one more at each
        end, a tenth spare; 0.6 + 1.42 m of post.
        """
        stems = math.ceil(8 * 5 * 1.0)  # five ties a plant
        self.bought(
            test_fences.PanelFence,
            {
                "post_round_75": (4, 4, 4 * 2.1 * 3.75),
                "panel_large": (1, 1, 4.88 * 1.27 * 6.45),
                "staple_fence_30": (4 * 4 + 2, 1, 100 * 0.02),
                "twine_jute_3_loop": (stems, 1, 50 * 0.05),
            },
        )

    def test_roll_fence(self):
        lacing = 16 - 1 - 2  # every 0.30 m along 4.8 m, but at posts
        hold = 0.8 * (2.13 - 0.6)
        self.bought(
            test_fences.RollFence,
            {
                "tpost_2.1": (4, 4, 4 * 2.13 * 5.63),
                "weld_50x100_14": (1, 1, 7.6 * 1.2 * 1.6),
                "wire_soft_125": ((4.8 + 2.0) * WIRE, 1, 50 * 0.25),
                "wire_soft_14": (2 * (hold * math.sqrt(2) + 1.1) * WIRE, 1, 50 * 0.15),
                "sisal_2.5": (2 * (1.02 * 4.8 + 4 * (4 * 0.035 + 2 * 0.16) + 0.6) * TWINE, 1, 100 * 0.04),
                "clip_tpost": (4 * 4 + 2 + lacing + 1, 2, 2 * 25 * 0.25),
                "cap": (4, 4, 4 * 0.8),
                "anchor_screw_30x4": (2, 2, 28),
            },
        )

    def test_wire_on_leaning_ends(self):
        lean = 1.9 / math.tan(math.radians(70))
        guys = 2 * (1.9 * math.sqrt(2) + 1.1)
        self.bought(
            test_wires.OneWireOnLeaningEnds,
            {
                "post_round_75": (1, 1, 2.4 * 3.75),
                "post_round_100": (2, 2, 2 * 3.0 * 5.7),
                "wire_ht_125": (
                    (1.01 * (6 + 2 * lean) + 2 * (1.5 * 0.314 + 0.30) + 0.5 + 1.2) * WIRE,
                    1,
                    200 * 0.3,
                ),
                "wire_soft_9": (guys * WIRE, 1, 50 * 0.5),
                "sisal_2.5": (30.8, 1, 100 * 0.04),
                "clip_spring_small": (13 * 7, 2, 2 * 100 * 0.08),
                "nails_bent": (1, 1, 50 * 0.1),
                "deadman_stones_60": (2, 2, 0),
                "strainer_ratchet": (1, 1, 5),
                "peg_wire": (13, 2, 2 * 10 * 0.1),
                "foot_stone": (2, 2, 0),
            },
        )

    def test_two_wires_on_arms(self):
        """Six knees and three arms out of two boards; all holes 0.28 m wide and 0.6 or 0.8 m deep, 12 L a
        bag.
        """
        concrete = math.pi / 4 * 0.28**2 * (0.6 + 2 * 0.8)
        self.bought(
            test_wires.TwoWiresOnArms,
            {
                "post_lumber_89_treated": (3, 3, 3 * 3.0 * 7.3),
                "tube_emt_25": (2, 2, 20.0),
                "post_round_75": (2, 2, 2 * 2.4 * 3.75),
                "post_lumber_38x89": (2, 2, (2.4 + 3.0) * 2.35),
                "wire_soft_9": (27.7, 1, 25),
                "pp_greenhouse": (61.4, 1, 20),
                "clip_spring_small": (26 * 7, 3, 24),
                "strainer_ratchet": (2, 2, 10),
                "peg_wire": (26, 3, 3),
                "bolt_carriage_m8": (4 * 3, 12, 12 * 1.2),
                "concrete_bag": (math.ceil(concrete / 0.012), 12, 12 * 4.5),
            },
        )

    def test_beam_with_a_diagonal(self):
        self.bought(
            test_strings.BeamWithADiagonal,
            {
                "post_lumber_89": (3, 3, 3 * 3.0 * 6.0),
                "post_lumber_38x89": (1, 1, 3.6 * 2.35),
                "wire_soft_125": (2 * (math.hypot(1.8, 2.0) + 1.0) * WIRE, 1, 12.5),
                "pp_greenhouse": (19.8, 1, 20),
                "clip_spring_small": (8 * 7, 1, 8),
                "bolt_carriage_m8": (3, 3, 3.6),
                "hook_s_4": (8, 8, 2.4),
                "peg_wire": (8, 1, 1),
            },
        )

    def test_weaves(self):
        """Six runs, each out on one side and back on the other with a turn round each of five posts."""
        each = 2 * 1.02 * 4.8 + 2 * 5 * (4 * 0.035 + 0.0) + 0.6
        self.assertNear(76.8 / TWINE, 6 * each, 0.06)
        self.bought(
            test_weaves.BasketWeave,
            {"tpost_1.8": (5, 5, 5 * 1.83 * 5.46), "sisal_2.5": (76.8, 1, 4), "cap": (5, 5, 4)},
        )
        # a ladder: five stakes and one more at each end; six canes of 4.8 m, each of two lengths of 3 m
        # lapped and bound twice; 30 loops and a tenth
        self.bought(
            test_weaves.LadderOfCanes,
            {
                "post_sw_stake_38": (7, 7, 7 * 1.8 * 1.67),
                "cane_20": (12, 12, 6 * (2.1 + 3.0) * 0.5),
                "twine_sisal_loop": (30, 1, 4),
                "tie_wire_16_double": (12, 1, 1.5),
            },
        )

    def test_cages(self):
        """A raft of three rows of four: nine links along, eight across and six across the cells; a link goes
        twice round between rims.
        """
        along, across = 0.75 - 0.45, 0.70 - 0.45
        cells = math.hypot(0.75, 0.70) - 0.45
        twine = 9 * (2 * along + 0.16) + 8 * 0.70 + 6 * (2 * cells + 0.16)
        self.assertLess(2 * across + 0.16, 0.70, "0.35 m twice round at the least")
        self.bought(
            test_cages.StakedRaft,
            {
                "post_sw_stake_25": (12, 12, 12 * 1.5 * 0.633),
                "sisal_2.5": (twine * TWINE, 1, 4),
                "cage_ring_heavy": (12, 12, 264),
            },
        )
        self.bought(test_cages.CutCylinder, {"mesh_conc_roll": (3, 1, 15.2 * 1.5 * 1.97)})

    def test_arches(self):
        """Four posts, two ties each; slings for a butternut's fruit above 0.5 kg; two half panels out of one
        whole.
        """
        self.bought(
            test_arches.ArchOnPosts,
            {
                "tpost_light_1.5": (4, 4, 4 * 1.52 * 5.26),
                "panel_large": (1, 1, 4.88 * 1.27 * 6.45),
                "tie_wire_16_double": (8, 1, 1.5),
                "sling_knotted": (14, 14, 28),
            },
        )
        self.bought(
            test_arches.ArchOnBlocks,
            {"panel_large": (1, 1, 39.97), "block_hollow": (2 * 2 * 2, 8, 24), "sling_knotted": (28, 28, 56)},
        )

    def test_frames(self):
        """Three pairs of legs, four rails of 2.4 m, six stakes of 0.60 m out of two lengths; six ties up each
        leg of a face.
        """
        self.bought(
            test_frames.NetFrame,
            {
                "post_sw_stake_38": (6 + 4 + 2, 12, (6 * 2.4 + 4 * 2.4 + 2 * 1.8) * 1.67),
                "net_pp_150": (1, 1, 15 * 2.0 * 0.4),
                "wire_soft_14": (2 * (math.hypot(1.2, 2.1) + 0.6) * WIRE * 0.95, 1, 7.5),
                "polyester_3": (5.1, 1, 4),
                "twine_sisal_loop": (2 * 3 * 6, 1, 4),
                "hinge_strap_150": (3, 3, 12),
            },
        )

    def test_bed_frame(self):
        self.bought(
            test_bed_frames.FrameWithStrings,
            {
                "post_sw_stake_38": (6 + 2 + 3, 11, (6 * 1.8 + 2 * 2.4 + 3 * 1.8) * 1.672),
                "pp_greenhouse": (19.7, 1, 20),
                "twine_jute_3_loop": (10 * 5, 1, 2.5),
                "screw_64": (6 * 2 * 2, 1, 8),
            },
        )

    def test_hoops(self):
        """Five hoops of 3.05 m, whole; a stake of 0.60 m for each foot, two to a length of 1.2 m; a rod for
        each foot.
        """
        self.bought(
            test_hoops.LadderAlone, {"post_sw_stake_25": (5, 5, 3.8), "ladder_mesh_3": (5, 5, 5 * 3.05 * 1.3)}
        )
        self.bought(
            test_hoops.SteelTubes,
            {
                "rod_rebar_12": (10, 10, 10 * 0.9 * 1.6),
                "cane_20": (1, 1, 1.5),
                "tube_emt_20": (5, 5, 5 * 3.05 * 1.97),
                "tie_wire_16": (5 + 2, 1, 1.5),
            },
        )

    def test_poles(self):
        self.bought(
            test_poles.Tripods,
            {"cane_20": (6, 6, 6 * 2.4 * 0.5), "sisal_2.5": (3.2, 1, 4), "jute_3": (11.2, 1, 2.5)},
        )
        concrete = math.ceil(6 * math.pi / 4 * 0.28**2 * 0.6 / 0.012)
        self.bought(
            test_poles.ScaffoldInConcrete,
            {
                "tube_scaffold_48": (6, 6, 6 * 3.0 * 6.0),
                "wire_soft_125": ((3.6 + 1.3) * WIRE, 1, 12.5),
                "wire_soft_14": (2 * (math.sqrt(2.2**2 - 0.4**2) * math.sqrt(2) + 1.1) * WIRE, 1, 7.5),
                "sisal_2.5": (53.8, 1, 4),
                "coupler_scaffold": (3, 3, 18),
                "deadman_stones_30": (2, 2, 0),
                "hook_s_4": (20, 20, 6),
                "peg_wire": (20, 3, 3),
                "concrete_bag": (concrete, concrete, concrete * 4.5),
            },
        )

    def test_stakes_and_brush(self):
        """Three ties to a stem of 1.4 m at 0.25 m … with a fifth spare over the season; two canes of 3 m
        along 3.1 m; 42 sticks for 3 m crossed.
        """
        self.bought(
            test_stakes.StakesWithABar,
            {
                "post_sw_stake_38": (6, 6, 6 * 2.4 * 1.67),
                "cane_20": (2, 2, (2.1 + 3.0) * 0.5),
                "twine_sisal_loop": (math.ceil(5 * 6 * 1.2), 1, 4),
                "tie_wire_16_double": (2, 1, 1.5),
            },
        )
        self.bought(
            test_others.CrossedBrush,
            # who has no hedge buys them: 0.24 each
            {"brush_12": (2 * 21, 42, 42 * 0.24), "post_sw_stake_25": (2, 2, 1.52), "cane_12": (1, 1, 0.5)},
        )
        self.bought(
            test_others.WiresOnAWall,
            {
                "wire_soft_14": (5 * (3.0 + 2 * 0.15) * WIRE, 1, 7.5),
                "twine_jute_3_loop": (6 * 7, 1, 2.5),
                "vine_eye_80": (5 * 3, 2, 20),
            },
        )

    def test_a_list_for_two_is_rounded_once(self):
        """Two fences together: spools and packs are shared, so together they cost no more, and wire is one
        coil.
        """
        one = test_fences.RollFence.stand().geometry
        alone, both = total(shopping(one, {})), total(shopping([one, one], {}))
        packs = {part.key: part.packs for part in shopping([one, one], {})}
        self.assertLess(both, 2 * alone)
        self.assertEqual(packs["wire_soft_125"], 1)
        self.assertEqual(packs["tpost_2.1"], 8)
        self.assertEqual(packs["clip_tpost"], math.ceil(2 * 32 * TIES / 25))

    def test_a_price_of_one_s_own_moves_the_total_by_what_it_is(self):
        one = test_fences.PanelFence.stand().geometry
        before, after = (total(shopping(one, prices)) for prices in ({}, {"post_round_75@2.1": 10.0}))
        self.assertNear(after - before, 4 * (10.0 - 2.1 * 3.75), 0.01)
