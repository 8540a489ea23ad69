"""Where the members of each structure of the sheets stand, set out by hand as with a tape: [m], x along the
row, y to its left, z up.
"""

from __future__ import annotations

import math
import re

import numpy as np

from tests.sheets import (
    hand,
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

TEE = 0.035 / 2  # half the width over the flange of a light or heavy T-post
LOW = 0.05  # what starts at the ground is tied a hand's breadth up


def _part(key: str) -> str:
    """Return what kind of piece a member is, as its key begins."""
    return re.split("[-@]", key)[0]


class TubesOnBoards(test_arches.TubeArches):
    """The tubes of the sheet, each between two short boards instead of posts."""

    test_sheet = None
    options = {
        **test_arches.TubeArches.options,
        "foot": "board",
        "board": "post_lumber_38x140",
        "cleat": "cleat_wood",
    }


class LayoutTest(NearTestCase):
    def stands(self, sheet, rows, plants=()):
        """Compare the ends of members, the number of their like, and the first plants."""
        geometry = sheet.stand().geometry
        by_key = {member.key: member for member in geometry.members}
        for key, (count, *points) in rows.items():
            with self.subTest(sheet=sheet.__name__, member=key):
                like = _part(key)
                self.assertEqual(sum(1 for each in by_key if _part(each) == like), count)
                for found, wanted in zip(by_key[key].points, points, strict=False):
                    for a, b in zip(found, wanted, strict=True):
                        self.assertAlmostEqual(a, b, delta=0.002)
        for found, wanted in zip(geometry.plants, plants, strict=False):
            with self.subTest(sheet=sheet.__name__, plant=wanted):
                for a, b in zip(found.at, (*wanted, 0.0), strict=True):
                    self.assertAlmostEqual(a, b, delta=0.002)

    def test_arches_on_posts(self):
        """Posts stand outside the legs, an eighth of a metre in from the panel's edges; plants 0.10 m
        outside, centred on its width.
        """
        first = (
            1.27 / 2 - 0.6 / 2
        )  # two plants a side at 0.6 m, the sides set by a quarter of that against each other
        for sheet in (test_arches.ArchOnPosts, test_arches.ClampedArch):
            self.stands(
                sheet,
                {
                    "post@12": (4, (0.125, 0.61 + TEE, -0.6), (0.125, 0.61 + TEE, 0.91)),
                    "post@114,2": (4, (1.27 - 0.125, -0.61 - TEE, -0.6), (1.27 - 0.125, -0.61 - TEE, 0.91)),
                    "tie@12": (8, (0.125, 0.61, 0.91)),
                    "tie@12,2": (8, (0.125, 0.61, LOW)),
                },
                [(first - 0.15, 0.71), (first + 0.45, 0.71), (first + 0.15, -0.71)],
            )

    def test_arch_on_boards(self):
        """Two panels lap by 0.20 m; boards of 40 mm outside the soil; strings from 0.30 m inside the
        plants.
        """
        long = 2 * 1.27 - 0.20
        self.stands(
            test_arches.ArchOnBoards,
            {
                "panel@107": (2, (1.27 - 0.2, -0.6, 0), (long, -0.6, 0)),
                "board-right@107": (4, (1.07, -0.62, 0.05), (long, -0.62, 0.05)),
                "cleat-left@12": (8, (0.125, 0.6, 0.1)),
                "cleat-right@222": (8, (long - 0.125, -0.6, 0.1)),
                "lap@117,10": (10, (1.27 - 0.1, 0.6, 0)),
                "string@12": (8, (long / 2 - 1.05, 0.18, 2.017), (long / 2 - 1.05, 0.48, LOW)),
            },
            [(long / 2 - 1.05, 0.48), (long / 2 - 0.45, 0.48)],
        )

    def test_arches_on_blocks_and_in_the_ground(self):
        """Blocks of 0.2 × 0.19 m lie outside the legs, one on the other: their centres at 0.095 and 0.285
        m.
        """
        self.stands(
            test_arches.ArchOnBlocks,
            {
                "block-left@12": (8, (0.125, 0.7, 0.095)),
                "block-right@114,2": (8, (1.27 - 0.125, -0.7, 0.285)),
            },
        )
        self.stands(
            test_arches.BuriedArch,
            {"panel@0": (1, (0, -0.7, -0.3), (1.27, -0.7, -0.3))},
            [(0.635 - 1.05, 0.8)],
        )

    def test_tube_arches(self):
        """Arches a metre apart; five lines over the crown, 0.20 m apart along the bow."""
        self.stands(
            test_arches.TubeArches,
            {
                "tube@200": (3, (2, -0.75, 0), (2, 0.75, 0)),
                "post@0": (6, (0, 0.75 + TEE, -0.6), (0, 0.75 + TEE, 0.5)),
                "over@0": (5, (0, -0.397, 2.086), (2, -0.397, 2.086)),
                "over@0,3": (5, (0, 0, 2.2), (2, 0, 2.2)),
                "tie@0": (12, (0, 0.75, 0.5)),
                "mesh-left": (2, (0, -0.75, 0), (2, -0.75, 0)),
            },
            [(1 - 0.9 - 0.15, 0.85)],
        )

    def test_tubes_between_boards(self):
        """A piece of board 0.30 m long stands outside each foot of a tube, its middle at the tube."""
        self.stands(
            TubesOnBoards,
            {
                "board-left@-15": (6, (-0.15, 0.77, 0.05), (0.15, 0.77, 0.05)),
                "board-right@185": (6, (1.85, -0.77, 0.05), (2.15, -0.77, 0.05)),
                "cleat-left@100": (6, (1.0, 0.75, 0.1)),
            },
        )

    def test_bed_frames(self):
        """Posts of 38 mm on the outside of boards 1.2 m apart, 0.15 m from the bed's ends; two screws 5 and
        145 mm down a board.
        """
        y = 0.6 + 0.038 / 2
        first = 1.2 - 4.5 * 0.45
        self.stands(
            test_bed_frames.FrameWithStrings,
            {
                "post@15": (6, (0.15, y, -0.3), (0.15, y, 1.5)),
                "post@120": (6, (1.2, y, -0.3), (1.2, y, 1.5)),
                "post@225,2": (6, (2.25, -y, -0.3), (2.25, -y, 1.5)),
                "screw@15": (12, (0.15, y, 0.005)),
                "screw@225,4": (12, (2.25, -y, -0.145)),
                "crossbar@15": (3, (0.15, -y, 1.47), (0.15, y, 1.47)),
                "rail-left": (2, (0, y, 1.5), (2.4, y, 1.5)),
                "string@19": (10, (1.2 - 2.25 * 0.45, y, 1.5), (1.2 - 2.25 * 0.45, 0.35, LOW)),
            },
            [(1.2 - 2.25 * 0.45, 0.35)],
        )
        self.stands(
            test_bed_frames.FrameWithMesh,
            {
                "post@225": (3, (2.25, y, -0.25), (2.25, y, 1.5)),
                "board@0": (2, (0, 0.6, -0.18), (2.4, 0.6, -0.18)),
                "board@0,2": (2, (0, 0.6, -0.04), (2.4, 0.6, -0.04)),
                "mesh-left@15": (2, (0.15, y, LOW), (1.2, y, LOW), (1.2, y, LOW + 1.27)),
                "tie-left@15": (14, (0.15, y, LOW)),
                "brace@15": (1, (0.15, y, 0.05), (2.25, y, 1.5)),
            },
            [(first, 0.35)],
        )
        self.stands(
            test_bed_frames.FrameBehindStakes,
            {
                "post@15": (10, (0.15, y, -0.3), (0.15, y, 1.5)),
                "backing@5": (6, (0.05, y, -0.75)),
                "backing@235,2": (6, (2.35, -y, -0.75)),
            },
        )
        self.stands(
            test_bed_frames.FrameTiedBack,
            {
                "backing@80": (2, (0.8, -0.6, -0.05), (0.8, 0.6, -0.05)),
                "backing@160": (2, (1.6, -0.6, -0.05)),
            },
        )

    def test_cages(self):
        """Four places centred on a row of 3 m; stakes touch the cage from outside."""
        self.stands(
            test_cages.LoneCages,
            {"cage@38": (4, (0.375, 0, 0), (0.375, 0, 1.22)), "cage@262": (4, (3 - 0.375, 0, 0))},
            [(0.375, 0)],
        )
        self.stands(
            test_cages.StakedRaft,
            {
                "cage@38": (12, (0.375, -0.7, 0), (0.375, -0.7, 1.22)),
                "cage@262,3": (12, (2.625, 0.7, 0)),
                "post@38": (12, (0.375, -0.7 + 0.2025, -0.4), (0.375, -0.7 + 0.2025, 1.1)),
                "link@38": (
                    23,
                    (0.375, -0.7, 0.9),
                    (1.125, -0.7, 0.9),
                ),  # 3 × 3 along, 2 × 4 across, one diagonal of 2 × 3 cells
            },
            [(0.375, -0.7), (1.125, -0.7)],
        )
        self.stands(
            test_cages.CutCylinder, {"cage@225": (3, (1.5 - 0.15 + 0.9, 0, 0), (2.25, 0, 1.35))}, [(0.45, 0)]
        )

    def test_fences(self):
        """A mesh hangs on the side of its posts where the plants are, the panel 0.15 m up; twine runs stand
        off by 0.16 m.
        """
        self.stands(
            test_fences.PanelFence,
            {
                "post@360": (4, (3.6, 0, -0.6), (3.6, 0, 1.5)),
                "mesh@240": (3, (2.4, 0.075 / 2, 0.15), (3.6, 0.075 / 2, 0.15)),
                "tie@0": (18, (0, 0.0375, 0.15)),
                "tie@360,5": (18, (3.6, 0.0375, 0.15 + 4 * 0.304)),
            },
            [(1.8 - 3.5 * 0.45, 0.1), (1.8 - 2.5 * 0.45, 0.1)],
        )
        self.stands(
            test_fences.RollFence,
            {
                "post@160": (4, (1.6, 0, -0.6), (1.6, 0, 1.53)),
                "mesh@160": (3, (1.6, TEE, LOW), (3.2, TEE, LOW), (3.2, TEE, LOW + 1.2)),
                "lace@30": (14, (0.3, TEE, 1.25)),
                "lace@450": (14, (4.5, TEE, 1.25)),
                "top-line": (1, (0, TEE, 1.25), (4.8, TEE, 1.25)),
                "guy-first": (2, (0, 0, 0.8 * 1.53), (-0.8 * 1.53, 0, 0)),
                "guy-last": (2, (4.8, 0, 0.8 * 1.53), (4.8 + 0.8 * 1.53, 0, 0)),
                "run@0,2": (2, (0, 0.16, 0.85), (4.8, 0.16, 0.85)),
            },
            [(0.15, 0.1)],
        )

    def test_hinged_frames(self):
        """Legs of 2.1 m of 38 mm timber at a foot spread of 1.2 m; rails a leg's face in; feet staked 30 mm
        outside.
        """
        high = math.sqrt(2.1**2 - 0.6**2)
        cos, sin = 0.6 / 2.1, high / 2.1

        def at(way: float) -> tuple[float, float]:
            return 0.6 - way * cos, way * sin

        foot, ridge, tie = at(0.126), at(2.1 - 0.042), at(0.3 / sin)
        for sheet in (test_frames.NetFrame, test_frames.CleatedFrame, test_frames.LooseFrame):
            self.stands(
                sheet,
                {
                    "post@0": (6, (0, 0.6, 0), (0, 0, high)),
                    "post@240,2": (6, (2.4, -0.6, 0), (2.4, 0, high)),
                    "across-left-foot": (4, (0, *foot), (2.4, *foot)),
                    "across-right-ridge": (4, (0, -ridge[0], ridge[1])),
                    "brace-left": (2, (0, *foot), (1.2, *ridge)),
                    "hinge@120": (3, (1.2, 0, high)),
                    "mesh-left": (2, (0, 0.6, 0), (2.4, 0.6, 0)),
                },
                [(0.375, 0.7), (0.675, 0.7)],
            )
        self.stands(
            test_frames.NetFrame,
            {
                "foot-tie@0": (3, (0, tie[0], 0.3), (0, -tie[0], 0.3)),
                "stake@0": (6, (0, 0.63, -0.45), (0, 0.63, 0.15)),
                "stake@240,2": (6, (2.4, -0.63, -0.45)),
            },
        )
        self.stands(
            test_frames.RungFrame,
            {
                "bar-left@0": (22, (0, *at(0.18)), (2.4, *at(0.18))),
                "bar-left@0,2": (22, (0, *at(0.36))),
                "anchor@240,2": (6, (2.4, -0.7, 0)),
            },
        )
        self.stands(test_frames.CleatedFrame, {"cleat@240,2": (6, (2.4, -0.6, 0.03))})

    def test_hoops(self):
        """Five hoops 0.75 m apart along 3 m; what is held by rods starts at the ground."""
        self.stands(
            test_hoops.LadderHoops,
            {
                "hoop@75": (5, (0.75, -0.45, -0.25), (0.75, 0.45, -0.25)),
                "ridge": (1, (0, 0, 1.026), (3, 0, 1.026)),
                "brace-first": (2, (0, -0.45, 0.02), (1.5, 0, 1.026)),
                "tie@0": (7, (0, 0, 1.026)),
            },
            [(0.32, 0.35), (0.4, 0.35)],
        )
        self.stands(
            test_hoops.LadderAlone,
            {"foot-stake@0": (10, (0, 0.48, -0.45), (0, 0.48, 0.1)), "hoop@300": (5, (3, -0.45, -0.25))},
        )
        self.stands(
            test_hoops.PipeOnRods,
            {
                "post@0": (10, (0, 0.45, -0.4), (0, 0.45, 0.3)),
                "stake-first": (2, (-0.03, 0, -0.45), (-0.03, 0, 0.9 * 1.279)),
                "hoop@0": (5, (0, -0.45, 0)),
            },
        )
        self.stands(
            test_hoops.SteelTubes,
            {"post@300,2": (10, (3, -0.6, -0.4), (3, -0.6, 0.3)), "ridge": (1, (0, 0, 1.215), (3, 0, 1.215))},
        )

    def test_a_hoop_too_short_to_spring_is_drawn_as_half_an_ellipse(self):
        """Widest at the soil, highest in the middle: y²/a² + z²/h² = 1 all along."""

        class Pinched(test_hoops.PipeOnRods):
            options = {**test_hoops.PipeOnRods.options, "arc": 1.5, "span": 1.5}

        geometry = Pinched.stand().geometry
        hoop = next(member for member in geometry.members if member.key == "hoop@0")
        half = 0.75
        (curve,) = hoop.lines
        high = max(z for _, _, z in curve)
        self.assertAlmostEqual(high, geometry.top, delta=0.03)
        for _, y, z in curve:
            self.assertAlmostEqual((y / half) ** 2 + (z / high) ** 2, 1.0, delta=0.01)

    def test_brushwood_and_what_stands_there(self):
        """Sticks at 0.15 m; what ties them at two thirds; end stakes 0.4 m deep and 50 mm above the tie."""
        self.stands(
            test_others.UprightBrush,
            {
                "post@15": (21, (0.15, 0, -0.25), (0.15, 0, 0.95)),
                "along-left": (2, (0, 0.03, 0.95 * 2 / 3), (3, 0.03, 0.95 * 2 / 3)),
                "end-stake-first": (2, (0, 0, -0.4), (0, 0, 0.95 * 2 / 3 + 0.05)),
            },
            [(1.5 - 14.76 * 0.05, 0.05), (1.5 - 13.76 * 0.05, 0.05)],
        )
        # two rows 0.24 m apart whose sticks of 0.95 m lean over one another at two thirds of their height
        high = math.sqrt(0.95**2 - 0.139**2)
        self.stands(test_others.CrossedBrush, {"along": (1, (0, 0, 0.94 * 2 / 3), (3, 0, 0.94 * 2 / 3))})
        self.assertLess(abs(high - test_others.CrossedBrush.stand().geometry.top), 0.01)
        # what stands in the soil is in line with what stands over it
        for stick in test_others.CrossedBrush.stand().geometry.by_role("post"):
            (_, y0, z0), (_, y1, z1) = stick.points[0], stick.points[-1]
            at_soil = y0 + (y1 - y0) * -z0 / (z1 - z0)
            self.assertAlmostEqual(abs(at_soil), 0.12, delta=0.002)
            self.assertGreater(abs(y0), abs(at_soil))
        self.stands(
            test_others.WiresOnAWall,
            {
                "wall": (1, (0, -0.08, 0), (3, -0.08, 0), (3, -0.08, 2.2)),
                "wire@0,2": (5, (0, 0, 0.3 + 1.7 / 4), (1.5, 0, 0.3 + 1.7 / 4)),
                "eye@150": (15, (1.5, 0, 0.3)),
            },
            [(1.5 - 2.5 * 0.45, 0.3)],
        )
        back = 0.08 + 0.0875 / 2  # the fence's boards, and the half of its post
        self.stands(
            test_others.WiresOnATiredFence,
            {
                "post@150": (3, (1.5, -back, -0.6), (1.5, -back, 1.8)),
                "wire@0,5": (5, (0, 0, 2.0), (1.5, 0, 2.0)),
            },
        )

    def test_a_ring_of_brush_and_a_beam_on_props(self):
        """Sticks 30 mm inside the edge of a round 1.2 m wide, leaning in to six tenths; plants 50 mm further
        in, between them; a prop half way along each bay.
        """

        class Ring(test_others.UprightBrush):
            options = {**test_others.UprightBrush.options, "pattern": "ring", "length": 1.2}
            count, side = 20, "left"

        r, inner, up = 0.57, 0.52, 0.95
        turn, half = (
            2 * math.pi / 24,
            math.pi / 20,
        )  # 24 sticks of 0.15 m on 3.58 m; 20 plants, the first half a step on
        found = Ring.stand().geometry.by_role("post")
        self.assertEqual(len(found), 24)
        for stick, n in ((found[0], 0), (found[1], 1), (found[7], 7)):
            foot, head = sorted(stick.points, key=lambda p: p[2])
            self.assertAlmostEqual(head[0], 0.6 + 0.6 * r * math.cos(n * turn), delta=0.003)
            self.assertAlmostEqual(head[1], 0.6 * r * math.sin(n * turn), delta=0.003)
            self.assertAlmostEqual(head[2], up, delta=0.03)
            self.assertLess(math.hypot(foot[0] - 0.6, foot[1]), r + 0.15)
        self.stands(
            Ring,
            {},
            [
                (0.6 + inner * math.cos(half), inner * math.sin(half)),
                (0.6 + inner * math.cos(3 * half), inner * math.sin(3 * half)),
            ],
        )

        class Propped(test_strings.BeamWithADiagonal):
            options = {**test_strings.BeamWithADiagonal.options, "prop": True}

        self.stands(
            Propped, {"prop@90": (2, (0.9, 0, 0), (0.9, 0, 2)), "prop@270": (2, (2.7, 0, 0), (2.7, 0, 2))}
        )

    def test_pole_and_stems(self):
        """Strings run to pegs a metre round the pole; guys at 0.7 of its height, three ways, anchored as far
        out as that is high by 35°.
        """
        out = 3.5 * math.tan(math.radians(35))
        a = math.sqrt(0.5)
        self.stands(
            test_others.HopsOnAPole,
            {
                "post@100": (1, (1, 0, -1.2), (1, 0, 5)),
                "string@100": (4, (1, 0, 5), (1 + a, a, LOW)),
                "guy@100": (3, (1, 0, 3.5), (1 + out * math.cos(math.pi / 6), out / 2, 0)),
                "guy@100,3": (3, (1, 0, 3.5), (1, -out, 0)),
            },
            [(1 + a, a), (1 - a, a)],
        )
        self.stands(
            test_others.BeansOnSunflowers,
            {
                "stem@15": (24, (0.15, -0.4, 0), (0.15, -0.4, 3)),
                "stem@225,3": (24, (2.25, 0.4, 0)),
                "post@0": (6, (0, 0.6, -0.6), (0, 0.6, 1.23)),
                "run@0,2": (2, (0, 0.6, 0.6), (2.4, 0.6, 0.6)),
            },
            [(0.45, 0.5), (1.35, 0.5)],
        )

    def test_tripods(self):
        """Three legs on a circle, 120° apart, from the left; crossing 0.2 m below their tips; 0.3 m in along
        the leg.
        """
        sheet = test_poles.Tripods
        climb = sheet.stand().geometry.climb
        leg = 2.4 - 0.3 - 0.2
        self.assertAlmostEqual(climb, math.sqrt(leg**2 - 0.4**2), delta=0.003)
        lean = 0.3 / leg
        b = 0.4 * math.cos(math.radians(30))
        self.stands(
            sheet,
            {
                "post@40": (6, (0.4 + 0.4 * 0.004, 0.4 * (1 + lean), -climb * lean)),
                "ring@40": (
                    6,
                    (0.4, 0.4 * (1 - 0.3 / climb), 0.3),
                    (0.4 - b * (1 - 0.3 / climb), -0.2 * (1 - 0.3 / climb), 0.3),
                ),
                "ring@190,3": (6, (1.9, 0.4 * (1 - 1.3 / climb), 1.3)),
                "lashing@40": (2, (0.4, 0, climb - 0.04), (0.4, 0, climb + 0.04)),
            },
            [(0.4, 0.45), (0.4 - 0.45 * math.cos(math.radians(30)), -0.225)],
        )
        self.stands(
            test_poles.StakedTripodInAPot,
            {"stake@25": (1, (0.25, 0, -0.35), (0.25, 0, 1.45))},
            [(0.25, 0.3), (-0.05, 0), (0.25, -0.3)],
        )

    def test_crossed_poles(self):
        """Pairs 0.6 m apart at the foot and crossing 0.2 m from the tips; the ridge lies in the fork, 0.2 m
        longer at each end.
        """
        high = math.sqrt((2.4 - 0.3 - 0.2) ** 2 - 0.3**2)
        self.stands(
            test_poles.CrossedCanes,
            {
                "post@1": (18, (0.008, 0.3 * (1 + 0.3 / 1.9), -high * 0.3 / 1.9)),
                "lashing@-2": (9, (-0.016, 0, high), (0.016, 0, high)),
                "ridge": (1, (-0.2, 0, 1.99), (2.6, 0, 1.99)),
                "brace-first-left": (4, (0, 0.3, 0.02), (1, 0, high)),
            },
            [(1.2 - 4.75 * 0.25, 0.35), (1.2 - 3.75 * 0.25, 0.35)],
        )
        high = math.sqrt((3.0 - 0.6 - 0.2) ** 2 - 0.4**2)
        self.stands(
            test_poles.ScaffoldInConcrete,
            {
                "post@2": (6, (0.024, 0.4 * (1 + 0.6 / 2.2), -high * 0.6 / 2.2)),
                "ridge": (1, (0, 0, high), (3.6, 0, high)),
                "guy-first": (2, (0, 0, high), (-high, 0, 0)),
                "string@61": (20, (1.8 - 4.75 * 0.25, 0, high), (1.8 - 4.75 * 0.25, 0.45, LOW)),
            },
        )

    def test_stakes(self):
        """A stake 80 mm beside its plant; a bar runs past the outer ones by 0.10 m."""
        self.stands(
            test_stakes.StakesWithABar,
            {
                "post@30": (6, (0.3, 0.08, -0.45), (0.3, 0.08, 1.7)),
                "bar@20": (1, (0.2, 0.08, 1.2), (3.4, 0.08, 1.2)),
            },
            [(0.3, 0), (0.9, 0)],
        )
        self.stands(
            test_stakes.OldStakeInAPot, {"post@25": (1, (0.25, 0.08, -0.35), (0.25, 0.08, 0.85))}, [(0.25, 0)]
        )

    def test_drop_strings(self):
        """Strings end at the plants 0.10 m beside the row (0.20 m in a bed with two); the diagonal meets the
        middle post 0.10 m up.
        """
        self.stands(
            test_strings.BeamWithADiagonal,
            {
                "string@23": (8, (1.8 - 3.5 * 0.45, 0, 2), (1.8 - 3.5 * 0.45, 0.1, LOW)),
                "post@180": (3, (1.8, 0, -0.6), (1.8, 0, 2)),
                "brace-first": (2, (0, 0, 2), (1.8, 0, 0.1)),
                "joint@360": (3, (3.6, 0, 2)),
            },
            [(0.225, 0.1)],
        )
        y = 0.6 + 0.089 / 2
        self.stands(
            test_strings.WiresOverABed,
            {
                "post@0": (6, (0, y, -0.02), (0, y, 1.9)),
                "crossbar@0": (3, (0, y, 1.9), (0, -y, 1.9)),
                "wire@0": (1, (0, 0, 1.9), (1.5, 0, 1.9)),
                "top-brace": (1, (0, 0, 1.95), (3, 0, 1.95)),
                "string@26": (12, (1.5 - 2.75 * 0.45, 0, 1.9), (1.5 - 2.75 * 0.45, 0.2, LOW)),
            },
        )
        self.stands(
            test_strings.HouseBar, {"string@338": (8, (1.8 + 3.5 * 0.45, 0, 2), (1.8 + 3.5 * 0.45, 0.1, LOW))}
        )

    def test_weaves(self):
        """Runs pass posts on alternate sides by 30 mm, first 0.25 m up; a corral stands off by its width."""
        self.stands(
            test_weaves.BasketWeave,
            {
                "run@0": (6, (0, 0.03, 0.25), (1.2, -0.03, 0.25), (2.4, 0.03, 0.25)),
                "run@0,6": (6, (0, 0.03, 1.2)),
                "post@120": (5, (1.2, 0, -0.5), (1.2, 0, 1.33)),
            },
            [(2.4 - 4.5 * 0.5, 0), (2.4 - 3.5 * 0.5, 0)],
        )
        self.stands(
            test_weaves.CorralOnStruts,
            {
                "run@0": (5, (0, 0.3, 0.25), (4 / 3, 0.3, 0.25)),
                "strut-first": (2, (0, 0, 0.8), (1.2, 0, 0)),
                "strut-last": (2, (4, 0, 0.8), (2.8, 0, 0)),
            },
        )
        self.stands(
            test_weaves.LadderOfCanes,
            {
                "rung@0": (6, (0, 0.03, 0.25), (4.8, 0.03, 0.25)),
                "rung@0,6": (6, (0, 0.03, 1.2)),
                "post@474": (7, (4.74, 0, -0.5)),
            },
        )

    def test_wire_trellises(self):
        """Leaning ends keep their feet: 70° out; guys at 45°; strings a plant."""
        out = 1.9 / math.tan(math.radians(70))
        self.stands(
            test_wires.OneWireOnLeaningEnds,
            {
                "post@300": (3, (3, 0, -0.6), (3, 0, 1.9)),
                "post@571": (3, (6 - 0.8 / math.tan(math.radians(70)), 0, -0.8), (6 + out, 0, 1.9)),
                "guy-first": (2, (-out, 0, 1.9), (-out - 1.9, 0, 0)),
                "seat@300": (1, (3, 0, 1.9)),
                "string@30": (13, (3 - 6 * 0.45, 0, 1.9), (3 - 6 * 0.45, 0.1, LOW)),
            },
            [(0.3, 0.1)],
        )
        self.stands(
            test_wires.TwoWiresOnArms,
            {
                "wire@0": (2, (0, 0.45, 1.9), (3, 0.45, 1.9)),
                "arm@0": (3, (0, -0.45, 1.9), (0, 0.45, 1.9)),
                "knee-left@0": (6, (0, 0.225, 1.9), (0, 0, 1.9 - 0.225)),
                "strut-first": (2, (0, 0, 1.9), (2.4, 0, 1.9)),
                "guy-first": (2, (2.4, 0, 1.9), (0, 0, 0.05)),
                "prop@450": (2, (4.5, 0, -0.3), (4.5, 0, 1.9)),
            },
            [(3 - 6.25 * 0.45, 0.45)],
        )
        self.stands(
            test_wires.ThreeLevelWiresOnStruts,
            {
                "post@600": (4, (6, 0, -0.8), (6, 0, 1.6)),
                "strut-first": (2, (0, 0, 1.6), (2.4, 0, 0)),
                "wire@0,3": (3, (0, 0, 0.6), (2, 0, 0.6)),
                "seat@400": (2, (4, 0, 1.6)),
            },
            [(3 - 2.5 * 0.9, 0.1)],
        )


class DimensionsTest(NearTestCase):
    """A dimension line is as long as it says, and lies at what it measures."""

    def test_dimensions(self):
        modules = (test_arches, test_bed_frames, test_cages, test_fences, test_frames, test_hoops)
        more = (test_others, test_poles, test_stakes, test_strings, test_weaves, test_wires)
        for sheet in {s for m in (*modules, *more) for s in vars(m).values() if _is_sheet(s)}:
            geometry = sheet.stand().geometry
            ends = np.array([point for member in geometry.members for point in member.points])
            for dimension in geometry.dimensions:
                with self.subTest(sheet=sheet.__name__, option=dimension.option):
                    self.assertNear(math.dist(dimension.start, dimension.end), dimension.value)
                    for x, _, z in (dimension.start, dimension.end):
                        self.assertTrue(ends[:, 0].min() - 1 <= x <= ends[:, 0].max() + 1, x)
                        top = max(ends[:, 2].max(), geometry.top)
                        self.assertTrue(min(ends[:, 2].min(), -0.65) <= z <= top + 0.1, z)


def _is_sheet(found: object) -> bool:
    return isinstance(found, type) and issubclass(found, hand.Sheet) and bool(found.family)
