"""Calculation sheets of stakes: a row of softwood stakes with a bar, and one old stake in a pot."""

from __future__ import annotations

import math

from tests.sheets import hand
from tests.sheets.hand import Band, G

ROUND = 0.62  # of a flat face's drag


class StakesWithABar(hand.Sheet):
    """Softwood stakes 38 × 38 mm, 1.4 m out of the soil, 0.45 m in it, 0.08 m beside pruned tomatoes, sisal
    every 0.25 m; a cane along them.
    """

    family = "stake"
    count, spacing = 6, 0.6
    options = {
        "length": 3.6,
        "stake": "post_sw_stake_38",
        "height": 1.4,
        "depth": 0.45,
        "offset": 0.08,
        "stem_tie": "twine_sisal_loop",
        "tie_step": 0.25,
        "bar": "bar",
        "bar_wood": "cane_20",
        "bar_height": 1.2,
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 1.40, 0.0, c["cover"], ROUND)
        wide = 0.45  # as wide as the plant is deep: less than its neighbours leave
        blown, good = leaf.force * wide, c["high_kg"] * G
        s = 0.038**3 / 6
        euler = math.pi**2 * 7.45e9 * 0.038**4 / 12 / (2.1 * 1.4) ** 2
        more = 1 / (1 - good / euler)
        hung = 0.5 * good * (0.08 + 0.25 * 0.15 * 1.40)  # a bar shares it with the neighbours
        soil = hand.in_loam(0.038, 0.45, leaf.centre * more)
        loop = 450 * 2 * 0.5 * (1 - 0.4 * days / 140)
        tie = math.hypot(good, blown) / 5
        bar = math.pi * (0.020**4 - 0.010**4) / 32 / 0.020
        self.assertSheet(
            {
                ("stem-tie", "stem-tie"): (tie * 1.5, loop / 2, loop * 1.2, tie),
                ("bar", "rail-bending"): (blown / 2 * 0.6 / 8, bar * 30e6, bar * 80e6),
                ("stake", "post-bending-across"): (blown * leaf.centre * more, s * 7.38e6, s * 22e6),
                ("stake", "end-post-lasting"): (hung, s * 5.31e6, s * 22e6 * 5.31 / 7.38),
                ("soil", "soil-grip"): (blown, soil / 1.5, soil * 1.33),
            }
        )


class OldStakeInAPot(hand.Sheet):
    """A hardwood stake 25 × 25 mm in its fourth season in a pot of 0.5 m across and 0.4 m deep, one sweet
    pepper; it stands by half itself.
    """

    family = "stake"
    crop, count, spacing = "pepper-sweet", 1, 0.5
    bed = {"kind": "container", "length": 0.5, "width": 0.5, "fill_depth": 0.4}
    options = {
        "length": 0.5,
        "stake": "post_hw_stake_25",
        "height": 0.8,
        "depth": 0.35,
        "post_age": 3,
        "stem_tie": "tie_soft_tube",
        "tie_step": 0.25,
    }
    week = 15

    def test_sheet(self):
        c = self.course()
        leaf = Band(20, 0.20, c["top"], 0.0, c["cover"], ROUND)
        wide = 0.45
        blown, good = 0.5 * leaf.force * wide, c["high_kg"] * G
        s, sound = 0.025**3 / 6, 1 - 0.5 * 3 / 4
        euler = math.pi**2 * 11e9 * 0.025**4 / 12 / (2.1 * 0.8) ** 2
        more = 1 / (1 - good / euler)
        lever = leaf.centre * more
        mix = hand.sand(28, 10e3, 0.025, 0.35, lever, 0.05)
        leaned = good * 0.15
        hung = 0.5 * good * (0.08 + 0.25 * 0.15 * c["top"])
        weight = 0.5 * 0.5 * 0.4 * 550 * G
        self.assertSheet(
            {
                ("stem-tie", "stem-tie"): (
                    math.hypot(leaned, blown) / 3 * 1.5,
                    40 * 0.6 / 2,
                    40 * 0.6 * 1.25,
                    math.hypot(leaned, blown) / 3,
                ),
                ("stake", "post-bending-across"): (
                    blown * leaf.centre * more,
                    s * 20e6 * sound,
                    s * 48e6 * sound,
                ),
                ("stake", "end-post-lasting"): (hung, s * 14e6 * sound, s * 48e6 * 14 / 20 * sound),
                ("soil", "soil-grip"): (blown, mix / 1.5, mix * 1.3),
                ("pot", "pot-tips"): (
                    blown * (0.4 + leaf.centre),
                    weight * 0.85 * 0.25 / 1.5,
                    weight * 0.85 * 0.25,
                ),
            }
        )
