"""Calculation sheets of the wire trellis: one wire between leaning ends, two on T-arms between H-braces,
three level ones on struts.
"""

from __future__ import annotations

import math

from tests.sheets import hand
from tests.sheets.hand import Band, G

R75, R100 = math.pi * 0.075**3 / 32, math.pi * 0.100**3 / 32
I75, I100 = math.pi * 0.075**4 / 64, math.pi * 0.100**4 / 64
STRONG, MEAN, LASTS = 12.31e6, 30e6, 8.85e6  # of graded softwood, wet
E = 8.69e9


class OneWireOnLeaningEnds(hand.Sheet):
    """Thirteen strings 0.45 m apart on a high-tensile wire 1.9 m high, posts every 3 m, ends leaning 70° on
    guys at 45° to 60 kg of stones.
    """

    family = "wire-trellis"
    count, spacing = 13, 0.45
    options = {
        "length": 6.0,
        "top_height": 1.9,
        "wire": "wire_ht_125",
        "pretension": 200.0,
        "post": "post_round_75",
        "post_spacing": 3.0,
        "depth": 0.6,
        "ends": "lean",
        "end_post": "post_round_100",
        "end_depth": 0.8,
        "lean": 70.0,
        "guy_wire": "wire_soft_9",
        "anchor": "deadman_stones_60",
        "string": "sisal_2.5",
        "stem_tie": "clip_spring_small",
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 1.90, 0.0, c["cover"])
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        blown = leaf.pressure * 1.60 * 0.45
        # seven plants stand over the fuller bay of 3 m
        wire = 7850 * math.pi / 4 * 0.002515**2 * 3 * G
        weight = self.capped(7, 3 * 1.60) + good - usual + wire
        down, side = weight / 3, leaf.force / 2
        load = math.hypot(down, side)
        ea, psi, beta = 200e9 * math.pi / 4 * 0.002515**2, math.radians(70), math.radians(45)
        lever = math.cos(beta) + math.sin(beta) / math.tan(psi)
        up, dragged = hand.buried(60, 0.5, 0.3, 0.6, 0.4, 17e3)
        anchored = min(up / math.sin(beta), dragged / math.cos(beta)) / 1.5
        guy = 200e9 * math.pi / 4 * 0.003767**2 / (1.9 * math.sqrt(2))
        end = hand.End(E * I100, 0.8, 1.9, lever**2 / (1 / guy + 0.010 / anchored)).stiffness(1.9)
        pull, still = (hand.sliding(w, 3, 200, ea, end, 2) for w in (load, down))
        cold = 200 + 30 * 12e-6 / (1 / ea + 2 / end / 6)
        given, expected = (min(pull, hand.left_at(load, 3, g)) for g in (0.05, 0.10))
        lasts = min(still, hand.left_at(down, 3, 0.05))
        tight, tight_down, tight_still = (p / lever for p in (given, expected, lasts))
        push, push_down, push_still = (
            (t * math.sin(beta) + w) / math.sin(psi)
            for t, w in ((tight, weight / 2), (tight_down, weight / 2), (tight_still, 0))
        )
        onto, ends = side * 3, side * 1.5
        out, out_down = math.hypot(ends, push * math.cos(psi)), math.hypot(ends, push_down * math.cos(psi))
        more = 1 / (1 - weight / (math.pi**2 * E * I75 / (2.1 * 1.9) ** 2))
        dug = 0.8 * hand.in_loam(0.075, 0.6, 1.9 * more)

        def grip(e: float) -> float:
            return 0.8 * hand.in_loam(0.100, 0.8, e)

        share, _ = hand.gust_share(0.30, 1.90)
        along = (
            leaf.pressure * 1.60 * 0.45
            + 0.10 * share * 245 * hand.streaming(20) * 1.60 * c["cover"] / 0.95 * 6
        )
        tip = 5e3 * math.pi * 0.1 * (0.8 - 0.15) + 9 * 30e3 * 0.0225
        long = 1.9 / math.sin(psi)
        self.assertSheet(
            {
                ("stem-tie", "stem-tie"): (
                    math.hypot(good, blown) / 7 * 1.5,
                    20,
                    50,
                    math.hypot(usual, blown) / 7,
                ),
                ("string", "string"): (
                    math.hypot(good, blown / 2),
                    *hand.knotted(450, days, 0.6),
                    math.hypot(usual, blown / 2),
                ),
                ("base", "base"): (0.2 * good, 15, 30, 0.2 * usual),
                ("wire", "main-wire"): (
                    math.hypot(min(pull, hand.left_at(load, 3, 0.01 * 3)), load * 1.5),
                    *hand.breaks(2.515, 1170, 1287),
                ),
                ("wire", "cold-wire"): (cold, *hand.breaks(2.515, 1170, 1287)),
                ("seat", "seat"): (onto, 500, 750),
                ("post", "post-bending-across"): (onto * 1.9 * more, R75 * STRONG, R75 * MEAN),
                ("post", "post-bending-along"): (along * leaf.centre / 3, R75 * STRONG, R75 * MEAN),
                ("soil", "soil-grip"): (onto, dug / 1.5, dug * 1.33),
                ("tensioner", "tensioner"): (max(pull, cold), 3000, 7500),
                ("end-post", "end-post-bending"): (ends * 1.9, R100 * STRONG, R100 * MEAN),
                ("end-post", "end-post-lasting"): (0, R100 * LASTS, R100 * MEAN * LASTS / STRONG),
                ("end-post", "end-post-pushed"): (
                    push * 2.5 / (math.pi**2 * E * I100 / long**2) + ends * 1.9 / R100 / STRONG,
                    1,
                    1,
                    push / (math.pi**2 * E * I100 / long**2) + ends * 1.9 / R100 / MEAN,
                ),
                ("end-soil", "end-soil-grip"): (
                    out,
                    grip(ends * 1.9 / out) / 1.5,
                    grip(ends * 1.9 / out_down) * 1.33,
                    out_down,
                ),
                ("end-soil", "end-soil-lasting"): (push_still * math.cos(psi), grip(0) / 2, grip(0) * 1.33),
                ("end-soil", "end-bearing"): (push, 0.8 * tip / 2, 0.8 * tip * 1.33),
                ("guy", "guy"): (tight, *hand.breaks(3.767, 400, 440)),
                ("anchor", "deadman-lift"): (
                    tight * math.sin(beta),
                    up / 1.5,
                    up,
                    tight_down * math.sin(beta),
                ),
                ("anchor", "deadman-drag"): (
                    tight * math.cos(beta),
                    dragged / 1.5,
                    dragged * 1.33,
                    tight_down * math.cos(beta),
                ),
            }
        )


class TwoWiresOnArms(hand.Sheet):
    """Two lines 0.9 m apart on arms with knees, propped in mid-bay, everything in concrete, H-braces 2.4 m
    long at the ends.
    """

    family = "wire-trellis"
    count, spacing, side = 26, 0.45, "both"
    options = {
        "length": 6.0,
        "lines": "tee",
        "arm": 0.9,
        "top_height": 1.9,
        "wire": "wire_soft_9",
        "props": True,
        "post": "post_lumber_89_treated",
        "end_post": "post_lumber_89_treated",
        "post_spacing": 3.0,
        "ends": "brace",
        "setting": "concrete",
        "string": "pp_greenhouse",
        "stem_tie": "clip_spring_small",
        "guy_wire": "wire_soft_9",
        "strut": "post_round_75",
        "prop": "tube_emt_25",
        "end_depth": 0.8,
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 1.90, 0.0, c["cover"])
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        blown = leaf.pressure * 1.60 * 0.45
        wires = 2 * 7850 * math.pi / 4 * 0.003767**2 * 3 * G
        weight = self.capped(13, 3 * 1.60) + good - usual + wires
        down, side = weight / 6, leaf.force / 4
        whole = math.hypot(down, side)
        load = math.hypot(
            down / 2, side
        )  # a prop halves the span of the weight, so it draws as hard as half of it
        ea = 200e9 * math.pi / 4 * 0.003767**2
        s, i = 0.089**3 / 6, 0.089**4 / 12
        end = hand.End(E * i, 0.8, 1.9, 100e3, h_brace=True).stiffness(1.9) / 2
        pull, still = (hand.sliding(w, 3, 300, ea, end, 2) for w in (load, down / 2))
        cold = 300 + 30 * 12e-6 / (1 / ea + 2 / end / 6)
        given, expected = (2 * min(pull, hand.left_at(load, 3, g)) for g in (0.05, 0.10))
        lasts = 2 * min(still, hand.left_at(down / 2, 3, 0.05))
        onto, ends = 2 * side * 3, side * 3
        more = 1 / (1 - weight / (math.pi**2 * E * i / (2.1 * 1.9) ** 2))
        share, _ = hand.gust_share(0.30, 1.90)
        along = (
            leaf.pressure * 1.60 * 0.45
            + 0.10 * share * 245 * hand.streaming(20) * 1.60 * c["cover"] / 0.95 * 6
        )
        out, out_down = math.hypot(ends, given), math.hypot(ends, expected)
        arm = 0.089 * 0.038**2 / 6, 0.038 * 0.089**2 / 6
        skin = 5e3 * math.pi * 0.28 * (0.8 - 0.05)
        prop = self.tube(0.02946, 0.00145)
        self.assertSheet(
            {
                ("stem-tie", "stem-tie"): (
                    math.hypot(good, blown) / 7 * 1.5,
                    20,
                    50,
                    math.hypot(usual, blown) / 7,
                ),
                ("string", "string"): (
                    math.hypot(good, blown / 2),
                    *hand.knotted(600, days, 0.75),
                    math.hypot(usual, blown / 2),
                ),
                ("base", "base"): (0.2 * good, 15, 30, 0.2 * usual),
                ("wire", "main-wire"): (
                    math.hypot(min(pull, hand.left_at(whole, 3, 0.03 * 3)), whole * 1.5),
                    *hand.breaks(3.767, 400, 440),
                ),
                ("wire", "cold-wire"): (cold, *hand.breaks(3.767, 400, 440)),
                ("arm", "arm-bending"): (
                    down * 3 * 0.45,
                    max(arm) * 8.85e6,
                    max(arm) * 30e6 * LASTS / STRONG,
                ),
                ("arm", "knee"): (down * 3 * 0.45 / (0.225 * math.sin(math.pi / 4)), 900, 2250),
                ("prop", "prop"): (
                    weight / 2 / 1,
                    math.pi**2 * 200e9 * prop / 1.9**2 / 2.5,
                    math.pi**2 * 200e9 * prop / 1.9**2,
                ),
                ("post", "post-bending-across"): (onto * 1.9 * more, s * STRONG, s * MEAN),
                ("post", "post-bending-along"): (along * leaf.centre / 3, s * STRONG, s * MEAN),
                ("post", "one-side"): (down * 3 * 0.45, s * LASTS, s * MEAN * LASTS / STRONG),
                ("soil", "soil-grip"): (
                    onto,
                    hand.pier(30e3, 0.28, 0.6, 1.9 * more) / 1.5,
                    hand.pier(30e3, 0.28, 0.6, 1.9 * more) * 1.33,
                ),
                ("tensioner", "tensioner"): (max(pull, cold), 3000, 7500),
                ("end-post", "end-post-bending"): (ends * 1.9, s * STRONG, s * MEAN),
                ("end-post", "end-post-lasting"): (0, s * LASTS, s * MEAN * LASTS / STRONG),
                ("end-soil", "end-soil-grip"): (
                    out,
                    hand.pier(30e3, 0.28, 0.8, ends * 1.9 / out) / 1.5,
                    hand.pier(30e3, 0.28, 0.8, ends * 1.9 / out_down) * 1.33,
                    out_down,
                ),
                ("end-soil", "end-soil-lasting"): (
                    lasts,
                    hand.pier(30e3, 0.28, 0.8, 0) / 2,
                    hand.pier(30e3, 0.28, 0.8, 0) * 1.33,
                ),
                ("strut", "strut"): (
                    given,
                    math.pi**2 * E * I75 / 2.4**2 / 2.5,
                    math.pi**2 * E * I75 / 2.4**2,
                ),
                ("strut", "brace-wire"): (given * math.hypot(2.4, 1.9) / 2.4, *hand.breaks(3.767, 400, 440)),
                ("strut-foot", "uplift"): (given * 1.9 / 2.4, skin / 2, skin * 2, expected * 1.9 / 2.4),
            }
        )

    def tube(self, d: float, wall: float) -> float:
        return math.pi / 64 * (d**4 - (d - 2 * wall) ** 4)


class ThreeLevelWiresOnStruts(hand.Sheet):
    """Blackberries tied to three wires 0.5 m apart, the top one 1.6 m high, posts every 2 m, struts at the
    ends.
    """

    family = "wire-trellis"
    crop, count, spacing = "blackberry", 6, 0.9
    options = {
        "length": 6.0,
        "wires": 3,
        "wire_step": 0.5,
        "top_height": 1.6,
        "crop_on": "wires",
        "ends": "strut",
        "post_spacing": 2.0,
        "wire": "wire_ht_125",
        "pretension": 300.0,
        "post": "post_round_75",
        "depth": 0.6,
        "end_post": "post_round_100",
        "end_depth": 0.8,
        "strut": "post_round_75",
        "setting": "tamped",
    }

    def test_sheet(self):
        c = self.course()
        leaf = Band(20, 0.30, 1.60, 0.0, c["cover"])
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        wires = 3 * 7850 * math.pi / 4 * 0.002515**2 * 2 * G
        weight = self.capped(2, 2 * 1.30) + good - usual + wires
        down, side = weight / 2 * 0.5, leaf.force * 0.5  # of three wires one carries half
        load, ea = math.hypot(down, side), 200e9 * math.pi / 4 * 0.002515**2
        post = hand.End(E * I100, 0.8, 1.6, 50e3)
        end = post.stiffness(1.6) / 3
        pull, still = (hand.sliding(w, 2, 300, ea, end, 3) for w in (load, down))
        cold = 300 + 30 * 12e-6 / (1 / ea + 2 / end / 6)
        heights = (1.6, 1.1, 0.6)

        def ends(most: float, w: float, gives: float, lean: float) -> tuple[float, float, float]:
            """Return what the strut holds, what the foot does, and the moment between them."""
            each = [min(most, hand.left_at(w, 2, min(gives * z / 1.6, lean * z) / 1.5)) for z in heights]
            held = sum(p * z for p, z in zip(each, heights, strict=True)) / 1.6
            return (
                held,
                sum(each) - held,
                sum(p * z * (1.6 - z) / 1.6 for p, z in zip(each, heights, strict=True)),
            )

        held, foot, _ = ends(pull, load, 0.05, 0.125)
        held_down, foot_down, _ = ends(pull, load, 0.10, 0.25)
        _, foot_still, bent_still = ends(still, down, 0.05, 0.125)
        onto, across = leaf.force * 2, leaf.force
        more = 1 / (1 - weight / (math.pi**2 * E * I75 / (2.1 * 1.6) ** 2))
        dug = 0.8 * hand.in_loam(0.075, 0.6, leaf.centre * more)
        out, out_down = math.hypot(across, foot), math.hypot(across, foot_down)

        def grip(e: float) -> float:
            return 0.8 * hand.in_loam(0.100, 0.8, e)

        share, _ = hand.gust_share(0.30, 1.60)
        along = leaf.pressure * 1.30 * self.stand().growths[0].crop.depth_m
        along += 0.10 * share * 245 * hand.streaming(20) * 1.30 * c["cover"] / 0.95 * 6
        slope = math.hypot(2.4, 1.6)
        skin = 0.8 * 5e3 * math.pi * 0.1 * (0.8 - 0.15)
        self.assertSheet(
            {
                ("wire", "main-wire"): (
                    math.hypot(min(pull, hand.left_at(load, 2, 0.01 * 2)), load),
                    *hand.breaks(2.515, 1170, 1287),
                ),
                ("wire", "cold-wire"): (cold, *hand.breaks(2.515, 1170, 1287)),
                ("seat", "seat"): (side * 2, 500, 750),
                ("post", "post-bending-across"): (onto * leaf.centre * more, R75 * STRONG, R75 * MEAN),
                ("post", "post-bending-along"): (along * leaf.centre / 4, R75 * STRONG, R75 * MEAN),
                ("soil", "soil-grip"): (onto, dug / 1.5, dug * 1.33),
                ("tensioner", "tensioner"): (max(pull, cold), 3000, 7500),
                ("end-post", "end-post-bending"): (
                    math.hypot(across * leaf.centre, self.brittle(pull, heights)),
                    R100 * STRONG,
                    R100 * MEAN,
                ),
                ("end-post", "end-post-lasting"): (bent_still, R100 * LASTS, R100 * MEAN * LASTS / STRONG),
                ("end-soil", "end-soil-grip"): (
                    out,
                    grip(across * leaf.centre / out) / 1.5,
                    grip(across * leaf.centre / out_down) * 1.33,
                    out_down,
                ),
                ("end-soil", "end-soil-lasting"): (foot_still, grip(0) / 2, grip(0) * 1.33),
                ("strut", "strut"): (
                    held * slope / 2.4,
                    math.pi**2 * E * I75 / slope**2 / 2.5,
                    math.pi**2 * E * I75 / slope**2,
                ),
                ("strut-foot", "uplift"): (held * 1.6 / 2.4, skin / 2, skin * 2, held_down * 1.6 / 2.4),
            }
        )

    def brittle(self, pull: float, heights: tuple[float, ...]) -> float:
        """Return the moment of a wooden post between foot and strut under the wires as they pull before
        anything gives.
        """
        return sum(pull * z * (1.6 - z) / 1.6 for z in heights)
