"""Calculation sheets of weaves: a basket weave on T-posts, a corral of jute between strutted stakes, a ladder
of canes.
"""

from __future__ import annotations

import math

from tests.sheets import hand
from tests.sheets.hand import Band, G


class BasketWeave(hand.Sheet):
    """Six runs of sisal to 1.2 m on T-posts every 1.2 m, 0.5 m deep; pruned tomatoes lean on them by 10° and
    the wind blows them off.
    """

    family = "weave"
    count, spacing = 10, 0.5
    options = {
        "length": 4.8,
        "style": "basket",
        "twine": "sisal_2.5",
        "post": "tpost_1.8",
        "post_spacing": 1.2,
        "depth": 0.5,
        "top_run": 1.2,
        "ends": "plain",
        "setting": "driven",
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 1.20, 0.0, c["cover"])
        heights = [0.25 + n * 0.19 for n in range(6)]
        squares, levers = sum(z * z for z in heights), sum(heights)
        mass = (
            c["shoot_kg"] / 0.95 + c["fruit_kg"]
        ) / 0.5  # a metre of plants, leaning with all of their shoot
        leans = mass * G * math.sin(math.radians(10)) * 1.20 / 2
        moment = leans + leaf.force * leaf.centre
        loads, still = ([m * z / squares for z in heights] for m in (moment, leans))
        onto, at = moment * levers / squares * 1.2, squares / levers
        post = hand.tee(0.0349, 0.00358)
        first, full, other, full_other = (
            207e6 * post["S"],
            380e6 * post["Z"],
            207e6 * post["Z_other"],
            380e6 * post["Z_other"],
        )
        middle = levers / 6
        moved, turned = hand.rigid_in_clay(2.01e6, 0.5, middle)
        stiff = 1 / (moved + turned * middle + middle**3 / 3 / (200e9 * post["I_other"]))
        bays = 1 + 1 / 4
        axial = 1 / (1 / (450 / 0.04) + 6 / stiff / 1.2 / bays)
        pulls, idle = ([hand.tight(w, 1.2, 10, axial) for w in each] for each in (loads, still))

        def left(most: list[float], needs: list[float], lean: float) -> list[float]:
            return [
                min(p, hand.left_at(w, 1.2, lean * z / bays))
                for p, w, z in zip(most, needs, heights, strict=True)
            ]

        given, down, lasts = left(pulls, loads, 0.125), left(pulls, loads, 0.25), left(idle, still, 0.125)

        def bent(each: list[float]) -> float:
            return sum(p * z for p, z in zip(each, heights, strict=True))

        across = onto / 2
        foot, foot_down = math.hypot(across, sum(given)), math.hypot(across, sum(down))
        arms = [math.hypot(across * at, bent(p)) / f for p, f in ((given, foot), (down, foot_down))]

        def grip(e: float) -> float:
            return hand.in_loam(0.035, 0.5, e, 0.0105)

        self.assertSheet(
            {
                ("run", "run"): (math.hypot(pulls[-1], loads[-1] * 0.6), *hand.knotted(450, days, 0.6)),
                ("post", "post-bending-across"): (onto * at, first, full),
                ("soil", "soil-grip"): (onto, grip(at) / 1.5, grip(at) * 1.33),
                ("end-post", "end-post-bending"): (
                    math.hypot(across * at, bent(given) * first / other),
                    first,
                    full,
                    math.hypot(across * at, bent(down) * full / full_other),
                ),
                ("end-post", "end-post-lasting"): (bent(lasts), other, full_other),
                ("end-soil", "end-soil-grip"): (foot, grip(arms[0]) / 1.5, grip(arms[1]) * 1.33, foot_down),
                ("end-soil", "end-soil-lasting"): (
                    sum(lasts),
                    grip(bent(lasts) / sum(lasts)) / 2,
                    grip(bent(lasts) / sum(lasts)) * 1.33,
                ),
            }
        )

    def test_ends_yield(self):
        """An end post gives on by its soil where it is pulled low, by its steel, first yield 380 MPa over
        the whole of its weaker section, where it is pulled high.
        """
        stand, full = self.stand(), 380e6 * hand.tee(0.0349, 0.00358)["Z_other"]
        by_soil = {h: hand.in_loam(0.035, 0.5, h, 0.0105) * 1.33 for h in (0.3, 1.2)}
        self.assertLess(by_soil[0.3], full / 0.3)
        self.assertLess(full / 1.2, by_soil[1.2])
        self.assertNear(float(stand.ends.yields(0.3, stand.cases)[0, 0, 0]), by_soil[0.3])
        self.assertNear(float(stand.ends.yields(1.2, stand.cases)[0, 0, 0]), full / 1.2)


class CorralOnStruts(hand.Sheet):
    """Jute round broad beans that hold half of themselves, on stakes 38 × 38 mm every 1.33 m, 0.4 m deep,
    struts at the ends.
    """

    family = "weave"
    crop, count, spacing, side, planted = "fava", 40, 0.2, "both", "04-10"
    options = {
        "length": 4.0,
        "style": "corral",
        "twine": "jute_3",
        "post": "post_sw_stake_38",
        "post_spacing": 1.6,
        "depth": 0.4,
        "top_run": 0.9,
        "ends": "strut",
        "strut": "post_sw_stake_38",
        "setting": "driven",
    }
    week = 12

    def test_sheet(self):
        c, days = self.course(), 7 * 12 + 3.5
        leaf = Band(20, 0.20, c["top"], 0.0, c["cover"])
        heights = [0.25 + n * 0.65 / 4 for n in range(5)]
        up = [z for z in heights if z <= c["top"] + 1e-9]
        squares, levers, bay = sum(z * z for z in up), sum(up), 4 / 3
        crop = self.stand().growths[0].crop
        mass = (c["shoot_kg"] / crop.carried_share + c["fruit_kg"]) * 2 / 0.2
        leans = 0.5 * mass * G * math.sin(math.radians(10)) * min(c["top"], 1.2) / 2
        moment = leans + 0.5 * leaf.force * leaf.centre
        loads, still = ([m * z / squares for z in up] for m in (moment, leans))
        onto, at = moment * levers / squares * bay, squares / levers
        s, inertia = 0.038**3 / 6, 0.038**4 / 12
        hold = 0.8 * 1.0
        middle = sum(heights) / 5
        end = hand.End(7.45e9 * inertia, 0.4, hold, 50e3).stiffness(middle)
        bays = 1 + 0.5 / 4
        axial = 1 / (1 / (270 / 0.03) + 5 / end / bay / bays)
        pulls, idle = ([hand.tight(w, bay, 10, axial) for w in each] for each in (loads, still))

        def left(most: list[float], needs: list[float], gives: float, lean: float) -> list[float]:
            return [
                min(p, hand.left_at(w, bay, min(gives * z / hold, lean * z) / bays))
                for p, w, z in zip(most, needs, up, strict=True)
            ]

        def props(each: list[float]) -> tuple[float, float, float]:
            held = sum(p * z for p, z in zip(each, up, strict=True)) / hold
            between = sum(p * z * (hold - z) / hold for p, z in zip(each, up, strict=True) if z < hold)
            above = sum(p * (z - hold) for p, z in zip(each, up, strict=True) if z > hold)
            return held, abs(sum(each) - held), max(between, above)

        given, down, lasts = (
            left(pulls, loads, 0.05, 0.125),
            left(pulls, loads, 0.10, 0.25),
            left(idle, still, 0.05, 0.125),
        )
        held, foot, _ = props(given)
        held_down, foot_down, _ = props(down)
        _, foot_still, bent_still = props(lasts)
        _, _, before = props(pulls)  # wood breaks before the strut has given
        across = onto / 2
        out, out_down = math.hypot(across, foot), math.hypot(across, foot_down)

        def grip(e: float) -> float:
            return hand.in_loam(0.038, 0.4, e)

        long = math.hypot(1.5 * hold, hold)
        strut = math.pi**2 * 7.45e9 * inertia / long**2
        skin = 5e3 * 4 * 0.038 * (0.4 - 0.15)
        self.assertSheet(
            {
                ("run", "run"): (math.hypot(pulls[-1], loads[-1] * bay / 2), *hand.knotted(270, days, 0.5)),
                ("post", "post-bending-across"): (onto * at, s * 7.38e6, s * 22e6),
                ("soil", "soil-grip"): (onto, grip(at) / 1.5, grip(at) * 1.33),
                ("end-post", "end-post-bending"): (across * at + before, s * 7.38e6, s * 22e6),
                ("end-post", "end-post-lasting"): (bent_still, s * 5.31e6, s * 22e6 * 5.31 / 7.38),
                ("end-soil", "end-soil-grip"): (
                    out,
                    grip(across * at / out) / 1.5,
                    grip(across * at / out_down) * 1.33,
                    out_down,
                ),
                ("end-soil", "end-soil-lasting"): (foot_still, grip(0) / 2, grip(0) * 1.33),
                ("strut", "strut"): (held * long / 1.5 / hold, strut / 2.5, strut),
                ("strut-foot", "uplift"): (held / 1.5, skin / 2, skin * 2, held_down / 1.5),
            }
        )


class LadderOfCanes(hand.Sheet):
    """Six canes 20 mm tied to stakes 38 × 38 mm every 1.2 m: beams from stake to stake that pull at
    nothing.
    """

    family = "weave"
    count, spacing = 10, 0.5
    options = {
        "length": 4.8,
        "style": "ladder",
        "cane": "cane_20",
        "post": "post_sw_stake_38",
        "post_spacing": 1.2,
        "depth": 0.5,
        "top_run": 1.2,
    }

    def test_sheet(self):
        c = self.course()
        leaf = Band(20, 0.30, 1.20, 0.0, c["cover"])
        heights = [0.25 + n * 0.19 for n in range(6)]
        squares, levers = sum(z * z for z in heights), sum(heights)
        moment = (c["shoot_kg"] / 0.95 + c["fruit_kg"]) / 0.5 * G * math.sin(
            math.radians(10)
        ) * 0.60 + leaf.force * leaf.centre
        onto, at = moment * levers / squares * 1.2, squares / levers
        cane, s = math.pi * (0.020**4 - 0.010**4) / 32 / 0.020, 0.038**3 / 6
        grip = hand.in_loam(0.038, 0.5, at)
        self.assertSheet(
            {
                ("rung", "rail-bending"): (moment * 1.2 / squares * 1.2**2 / 8, cane * 30e6, cane * 80e6),
                ("post", "post-bending-across"): (onto * at, s * 7.38e6, s * 22e6),
                ("soil", "soil-grip"): (onto, grip / 1.5, grip * 1.33),
            }
        )
