"""Calculation sheets of the mesh fence: a panel on tamped posts, a guyed roll with a wire and runs, one on
struts that is tied back.
"""

from __future__ import annotations

import math
from unittest.mock import patch

import numpy as np
from ascent.plan.structure import Planting

from tests.sheets import hand
from tests.sheets.hand import Band, G

DUG = 0.8  # of the soil's strength where a post is dug in


class PanelFence(hand.Sheet):
    """A panel 1.27 m high, 0.15 m off the ground, on round posts 75 mm, 1.2 m apart, dug 0.6 m into firm
    loam; pruned tomatoes.
    """

    family = "mesh-fence"
    options = {
        "length": 3.6,
        "mesh": "panel_large",
        "mesh_height": 1.27,
        "bottom_gap": 0.15,
        "post": "post_round_75",
        "post_spacing": 1.2,
        "depth": 0.6,
        "setting": "tamped",
        "tie": "staple_fence_30",
        "ties_per_post": 4,
        "leaned_on": True,
    }

    def test_sheet(self):
        c, solid, days = self.course(), hand.mesh(5.715, 203, 152), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 1.42, solid, c["cover"])
        below = Band(20, 0.15, 0.30, solid)
        onto, at = 1.2 * (leaf.force + below.force), hand.centre(leaf, below)
        # a stem tie: the good plant and its share of the leaf, five ties at 0.30 m, the worst half as much
        # again
        good, usual, blown = (
            c["high_kg"] * G,
            (c["shoot_kg"] + c["fruit_kg"]) * G,
            leaf.pressure * 1.12 * 0.45,
        )
        jute = 270 * 2 * 0.5 * (1 - 0.5 * days / 140)
        # three plants a post: 1.2 m of row has two or three; the middle one good
        hung = (3 * (c["shoot_kg"] + c["fruit_kg"]) + c["high_kg"] - c["shoot_kg"] - c["fruit_kg"]) * G
        face = self.stand().growths[0]
        cap = 1.2 * 1.12 * G  # what light feeds on a bay's face
        hung = (
            min(3 * c["shoot_kg"] * G, cap * float(face.face_shoot_kg_m2[18]))
            + min(3 * c["fruit_kg"] * G, cap * float(face.face_fruit_kg_m2[18]))
            + good
            - usual
        )
        weight = hung + 2.31 * 1.27 * 1.2 * G
        wind, staple = leaf.pressure * 1.27 * 1.2, 150 * 1.0 * (1 - 0.5 * days / 140)
        tie = math.hypot(wind / 4 * 1.5, weight / 3 * 1.5)
        # posts: 75 mm round in graded softwood, wet: 12.31 MPa allowed, 30 MPa in the mean
        s = math.pi * 0.075**3 / 32
        bears, breaks = s * 12.31e6, s * 30e6
        euler = math.pi**2 * 8.69e9 * math.pi * 0.075**4 / 64 / (2.1 * 1.42) ** 2
        more = 1 / (1 - weight / euler)
        soil = DUG * hand.in_loam(0.075, 0.6, at * more)
        along = Band(20, 0.30, 1.42, 0.0, c["cover"]).pressure * 1.12 * 0.45
        share, _ = hand.gust_share(0.30, 1.42)
        along += 0.10 * share * 0.6125 * 400 * hand.streaming(20) * 1.12 * c["cover"] / 0.95 * 3.6
        # end posts: the mesh pulls on one, half as tall as the fence; wood breaks before it yields, so only
        # the soil's give relieves it
        middle, inertia, area = 0.15 + 1.27 / 2, math.pi * 0.005715**4 / 64, math.pi / 4 * 0.005715**2
        load, bays = leaf.pressure * 1.27 / 8, 1 + 0.5 / 4
        moved, turned = hand.rigid_in_clay(2.01e6, 0.6, middle)
        give = moved + turned * middle + middle**3 / 3 / (8.69e9 * math.pi * 0.075**4 / 64)
        stiff = 1 / (1 / (200e9 * area) + 8 * give / 1.2 / bays)
        _, pull = hand.belly(load, 1.2, 200e9 * inertia, stiff)
        holds = DUG * hand.in_loam(0.075, 0.6, middle) * 1.33
        self.assertLess(8 * pull, holds, "the soil does not give")
        ends = onto / 2 * at
        person = 300 * 1.2
        grip = DUG * hand.in_loam(0.075, 0.6, 1.2)
        self.assertSheet(
            {
                ("stem-tie", "stem-tie"): (
                    math.hypot(good, blown) / 5 * 1.5,
                    jute / 2,
                    jute * 1.2,
                    math.hypot(usual, blown) / 5,
                ),
                ("mesh", "mesh-tension"): (
                    0.0,
                    math.pi / 4 * 5.715**2 * 550 / 2,
                    math.pi / 4 * 5.715**2 * 620,
                ),
                ("mesh", "mesh-weld"): (
                    tie,
                    241 * math.pi / 4 * 5.715**2 / 2,
                    241 * math.pi / 4 * 5.715**2 * 1.4,
                ),
                ("mesh-tie", "mesh-tie"): (tie, staple / 1, staple * 1.25, tie / 1.5),
                ("post", "post-bending-across"): (onto * at * more, bears, breaks),
                ("post", "post-bending-along"): (along * at / 4, bears, breaks),
                ("soil", "soil-grip"): (onto, soil / 1.5, soil * 1.33),
                ("end-post", "end-post-bending"): (math.hypot(ends, 8 * pull * middle), bears, breaks),
                ("end-soil", "end-soil-grip"): (
                    onto / 2,
                    DUG * hand.in_loam(0.075, 0.6, at) / 1.5,
                    DUG * hand.in_loam(0.075, 0.6, at) * 1.33,
                ),
                ("person", "person-pull-bending"): (person, bears, breaks),
                ("person", "person-pull-grip"): (300, grip / 1.5, grip * 1.33),
            }
        )

    @patch.object(hand.Sheet, "gust", 0.5)
    def test_ties_are_asked_of_the_heavier_crop(self):
        """Two crops are tied to the fence: the ties are checked for the one that hangs more on them,
        whichever was entered first; in still air, since both make one face to the wind.
        """
        heavy, light = (
            Planting(key=crop, crop=crop, count=4, spacing=0.45, planted="05-04")
            for crop in ("tom-beef", "tom-cherry")
        )
        alone = {p.key: self.tied(p) for p in (heavy, light)}
        self.assertGreater(alone["tom-beef"], 1.05 * alone["tom-cherry"])
        for both in ((heavy, light), (light, heavy)):
            self.assertNear(self.tied(*both), alone["tom-beef"], 0.02)

    def tied(self, *plantings: Planting) -> float:
        """Return the most that a stem's tie is asked for over the season. [N]"""
        (link,) = (link for link in self.of(*plantings).path() if link.key == "stem-tie")
        return float(np.max(link.checks[0].demand))


class RollFence(hand.Sheet):
    """A welded roll 1.2 m high on T-posts, a wire along its top, guys at its ends, and runs of sisal before
    it; free cucumbers.
    """

    family = "mesh-fence"
    crop, count, spacing, side, training, planted = "cuc-slice", 16, 0.30, "left", "free", "05-20"
    options = {
        "length": 4.8,
        "mesh": "weld_50x100_14",
        "mesh_height": 1.2,
        "bottom_gap": 0.05,
        "post": "tpost_2.1",
        "post_spacing": 1.6,
        "depth": 0.6,
        "tie": "clip_tpost",
        "ties_per_post": 4,
        "woven": "front",
        "run_step": 0.4,
        "twine": "sisal_2.5",
        "top": "wire",
        "wire": "wire_soft_125",
        "ends": "guy",
        "guy_wire": "wire_soft_14",
        "anchor": "anchor_screw_30x4",
    }
    week = 9

    def test_sheet(self):
        c, solid, days, v = self.course(), hand.mesh(2.03, 100, 50), 7 * 9 + 3.5, 20
        leaf, below = Band(v, 0.20, 1.55, solid, c["cover"]), Band(v, 0.05, 0.20, solid)
        onto, at = 1.6 * (leaf.force + below.force), hand.centre(leaf, below)
        plant = c["shoot_kg"] + c["fruit_kg"]
        face = self.stand().growths[0]
        cap = 1.6 * 1.35  # of face that feeds a bay
        hung = (
            min(5 * c["shoot_kg"], cap * float(face.face_shoot_kg_m2[9]))
            + min(5 * c["fruit_kg"], cap * float(face.face_fruit_kg_m2[9]))
            + c["high_kg"]
            - plant
        ) * G
        weight = hung + 0.76 * 1.2 * 1.6 * G
        wire_down = weight / 1.6
        # the end: a T-post held by a guy at 0.8 of its top, 45°, on a screw anchor that gives 10 mm at its
        # working 500 N
        post, hold = hand.tee(0.0349, 0.00358), 0.8 * (2.13 - 0.6)
        ei = 200e9 * post["I_other"]
        foot, _ = hand.rigid_in_clay(2.01e6, 0.6, 0.0)
        guy = 1 / (hold * math.sqrt(2) / (200e9 * math.pi / 4 * 0.002032**2) + 0.010 / 500)
        prop = guy / 2  # cos² 45°

        def stiff(z: float) -> float:
            bent = (z - hold) ** 2 * z / 3 / ei if z > hold else z**2 * (z - hold) ** 2 / 3 / ei / hold
            return 1 / (foot * (1 - z / hold) ** 2 + (z / hold) ** 2 / prop + bent)

        # what pulls: the mesh over 1.6 m, two runs of sisal, the wire along the top
        bays, middle = 1 + 0.5 / 4, 0.05 + 0.6
        steel, inertia, area = 200e9, math.pi * 0.00203**4 / 64, math.pi / 4 * 0.00203**2
        on_wire = leaf.pressure * 0.05  # of the mesh, 50 mm each
        yields = 500 * 2.6 * math.cos(math.pi / 4) * hold / middle / 24
        _, pull = hand.belly(
            on_wire, 1.6, steel * inertia, 1 / (1 / (steel * area) + 24 / stiff(middle) / 1.6 / bays)
        )
        self.assertLess(pull, yields, "the guy's anchor does not give for the mesh alone")
        deep = math.sqrt(3 / 8 * 0.03) * 1.6
        drawn = max(on_wire - 384 * steel * inertia * deep / 5 / 1.6**4, 0) * 1.6**2 / 8 / deep
        lean = math.sin(math.radians(10)) * plant / 0.30 * G / 2
        by_run = lean + 0.5 * leaf.pressure * 0.4
        run = hand.sliding(by_run, 1.6, 10, 450 / 0.04, stiff(middle) / 2, 3)
        still_run = hand.sliding(lean, 1.6, 10, 450 / 0.04, stiff(middle) / 2, 3)
        by_top = math.hypot(wire_down, leaf.pressure * 0.025)
        ea = steel * math.pi / 4 * 0.002515**2
        top = hand.tight(by_top, 1.6, 60, 1 / (1 / ea + 1 / stiff(1.25) / 1.6 / 1.5))
        still_top = hand.tight(wire_down, 1.6, 60, 1 / (1 / ea + 1 / stiff(1.25) / 1.6 / 1.5))
        # once the anchor has given 50 mm, or 100 mm: what the bellies that are then left need
        given, down, lasts = ({} for _ in range(3))
        for into, gives in ((given, 0.05), (down, 0.10)):
            g = min(gives * middle / hold, (0.125 if into is given else 0.25) * middle)
            into[middle] = min(
                24 * pull, 24 * hand.left_at(on_wire, 1.6, g / bays, 384 * steel * inertia / 5 / 1.6**4)
            )
            into[middle] += min(2 * run, 2 * hand.left_at(by_run, 1.6, g / bays))
            g = min(gives * 1.25 / hold, (0.125 if into is given else 0.25) * 1.25)
            into[1.25] = min(top, hand.left_at(by_top, 1.6, g / 1.5))
        lasts = {
            middle: min(2 * still_run, 2 * hand.left_at(lean, 1.6, 0.05 * middle / hold / bays)),
            1.25: min(still_top, hand.left_at(wire_down, 1.6, 0.05 * 1.25 / hold / 1.5)),
        }

        def ends(pulls: dict[float, float]) -> tuple[float, float, float]:
            """Return pull of the guy along the ground, push of the foot, and moment of a post on foot and
            guy.
            """
            held = sum(p * z for z, p in pulls.items()) / hold
            bent = max(pulls[middle] * middle * (hold - middle) / hold, pulls[1.25] * (1.25 - hold))
            return held, abs(sum(pulls.values()) - held), bent

        held, out, bent = ends(given)
        held_down, out_down, bent_down = ends(down)
        _, out_still, bent_still = ends(lasts)
        across = onto / 2 * at
        first, full, other = 207e6 * post["S"], 380e6 * post["Z"], 207e6 * post["Z_other"]
        tension = held * math.sqrt(2)
        foot_force, foot_down = math.hypot(onto / 2, out), math.hypot(onto / 2, out_down)

        def grip(e: float) -> float:
            return hand.in_loam(0.035, 0.6, e, 0.0105)

        euler = math.pi**2 * ei / hold**2
        euler_across = math.pi**2 * steel * post["I"] / hold**2
        more = 1 / (1 - weight / (math.pi**2 * steel * post["I"] / (2.1 * 1.25) ** 2))
        tie = leaf.pressure * 1.2 * 1.6
        share, _ = hand.gust_share(0.20, 1.55)
        along = Band(v, 0.20, 1.55, 0.0, c["cover"]).pressure * 1.35 * 0.30
        along += 0.10 * share * 0.6125 * v * v * hand.streaming(v) * 1.35 * c["cover"] / 0.95 * 4.8
        push = held  # tan 45°
        self.assertSheet(
            {
                ("run", "run"): (math.hypot(run, by_run * 0.8), *hand.knotted(450, days, 0.6)),
                ("mesh", "mesh-tension"): (
                    min(pull, drawn),
                    math.pi / 4 * 2.03**2 * 400 / 2,
                    math.pi / 4 * 2.03**2 * 440,
                ),
                ("mesh", "mesh-weld"): (
                    tie / 4 * 1.5,
                    241 * math.pi / 4 * 2.03**2 / 2,
                    241 * math.pi / 4 * 2.03**2 * 1.4,
                ),
                ("mesh-tie", "mesh-tie"): (tie / 4 * 1.5, 600 / 2, 900, tie / 4),
                ("top-line", "top-wire"): (
                    math.hypot(min(top, hand.left_at(by_top, 1.6, 0.03 * 1.6)), by_top * 0.8),
                    math.pi / 4 * 2.515**2 * 200,
                    math.pi / 4 * 2.515**2 * 440,
                ),
                ("post", "post-bending-across"): (onto * at * more, first, full),
                ("post", "post-bending-along"): (along * at / 4, other, 380e6 * post["Z_other"]),
                ("soil", "soil-grip"): (onto, grip(at * more) / 1.5, grip(at * more) * 1.33),
                ("end-post", "end-post-bending"): (
                    math.hypot(across, bent * first / other),
                    first,
                    full,
                    math.hypot(across, bent_down * post["Z"] / post["Z_other"]),
                ),
                ("end-post", "end-post-lasting"): (bent_still, other, 380e6 * post["Z_other"]),
                ("end-post", "end-post-pushed"): (
                    push / min(euler, euler_across) * 2.5 + across / first,
                    1,
                    1,
                    None,
                ),
                ("end-soil", "end-soil-grip"): (
                    foot_force,
                    grip(across / foot_force) / 1.5,
                    grip(across / foot_down) * 1.33,
                    foot_down,
                ),
                ("end-soil", "end-soil-lasting"): (out_still, grip(0) / 2.0, grip(0) * 1.33, out_still),
                ("end-soil", "end-bearing"): (push, None, None),
                ("guy", "guy"): (tension, math.pi / 4 * 2.032**2 * 200, math.pi / 4 * 2.032**2 * 440),
                ("anchor", "anchor"): (tension, 500, 1300, held_down * math.sqrt(2)),
            }
        )
