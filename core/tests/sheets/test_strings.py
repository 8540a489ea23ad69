"""Calculation sheets of drop strings: from a beam that is braced, tied back or neither, from twisted wires
over a bed, from a house's bar.
"""

from __future__ import annotations

import math

from tests.sheets import hand
from tests.sheets.hand import Band, G

STRONG, MEAN, LASTS, E = 12.31e6, 30e6, 8.85e6, 8.69e9  # of graded softwood, wet
S89, I89 = 0.089**3 / 6, 0.089**4 / 12


class BeamWithADiagonal(hand.Sheet):
    """Eight strings on hooks from a board 38 × 89 mm on edge, 2 m high over posts 89 × 89 mm every 1.8 m, 0.6
    m deep; a wire down its end bays.
    """

    family = "drop-strings"
    count, spacing = 8, 0.45
    options: dict = {
        "length": 3.6,
        "top": "beam",
        "beam": "post_lumber_38x89",
        "top_height": 2.0,
        "post": "post_lumber_89",
        "post_spacing": 1.8,
        "depth": 0.6,
        "setting": "driven",
        "brace": "diagonal",
        "string": "pp_greenhouse",
        "hung_by": "hook",
        "hook": "hook_s_4",
        "foot_held": "peg",
        "joint": "bolt_carriage_m8",
        "stem_tie": "clip_spring_small",
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 2.00, 0.0, c["cover"])
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        blown = leaf.pressure * 1.70 * 0.45
        down = (
            self.capped(4, 1.8 * 1.70) + good - usual
        ) / 1.8 + 1.69 * G  # four strings in a bay, and the board
        side = leaf.force / 2
        strong, weak = 0.038 * 0.089**2 / 6, 0.089 * 0.038**2 / 6
        upright, level = down * 1.8**2 / 8, side * 1.8**2 / 8
        onto, hung = side * 1.8, down * 1.8
        share, _ = hand.gust_share(0.30, 2.00)
        along = 0.5 * (
            leaf.pressure * 1.70 * 0.45
            + 0.10 * share * 245 * hand.streaming(20) * 1.70 * c["cover"] / 0.95 * 3.6
        )
        euler = math.pi**2 * E * I89 / (2.1 * 2.0) ** 2
        more = 1 / (1 - hung / euler)
        soil = hand.in_loam(0.089, 0.6, 2.0 * more)
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
                ("hook", "hook"): (math.hypot(good, blown / 2), 150, 450, math.hypot(usual, blown / 2)),
                ("base", "base"): (0.2 * good, 15, 30, 0.2 * usual),
                ("beam", "beam-gust"): (upright + level * strong / weak, strong * STRONG, strong * MEAN),
                ("beam", "beam-lasting"): (upright, strong * LASTS, strong * MEAN * LASTS / STRONG),
                ("joint", "joint"): (math.hypot(hung, onto), 900, 2250),
                ("post", "post-bending-across"): (onto * 2.0 * more, S89 * STRONG, S89 * MEAN),
                ("soil", "soil-grip"): (onto, soil / 1.5, soil * 1.33),
                **self.braced(along, hung, onto * 2.0 * more),
            }
        )

    def braced(self, along: float, hung: float, across: float) -> dict:
        return self.wired(
            along * math.hypot(1.8, 2.0) / 1.8, along, 1.8, 2.0, hung, across
        )  # its foot taken at the soil

    def wired(self, tight: float, along: float, run: float, tall: float, hung: float, across: float) -> dict:
        """Return the checks of a wire at 12.5 gauge, and of the post it pulls down on."""
        push = along * tall / run + hung
        critical = math.pi**2 * E * I89 / 2.0**2
        return {
            ("brace", "brace-wire"): (tight, *hand.breaks(2.515, 400, 440)),
            ("brace", "end-post-pushed"): (
                push * 2.5 / critical + across / S89 / STRONG,
                1,
                1,
                push / critical + across / S89 / MEAN,
            ),
        }


class BeamTiedBack(BeamWithADiagonal):
    """The same with a wire from the top of each end post back to a driven bar."""

    options = {**BeamWithADiagonal.options, "brace": "back-tie"}

    def braced(self, along: float, hung: float, across: float) -> dict:
        run = 2.0
        tight = along * math.hypot(run, 2.0) / run
        return {
            **self.wired(tight, along, run, 2.0, hung, across),
            ("brace-anchor", "anchor"): (tight, 124, 124 * 2.4),
        }


class BeamUnbraced(BeamWithADiagonal):
    """The same with nothing against racking: its posts bend along the row."""

    options = {**BeamWithADiagonal.options, "brace": "none"}

    def braced(self, along: float, hung: float, across: float) -> dict:  # noqa: ARG002 - only a wire pushes the post
        more = 1 / (1 - hung / (math.pi**2 * E * I89 / (2.1 * 2.0) ** 2))
        return {("post", "racking"): (along * 2.0 / 3 * more, S89 * STRONG, S89 * MEAN)}


class WiresOverABed(hand.Sheet):
    """Twelve strings from two twisted wires 1.9 m over a bed, a pair of uprights every 1.5 m screwed to its
    boards, a bar from end to end.
    """

    family = "drop-strings"
    count, spacing, side = 12, 0.45, "both"
    bed = {"kind": "raised", "fill_depth": 0.3}
    options = {
        "length": 3.0,
        "top": "wire",
        "wire": "wire_soft_125",
        "doubled": True,
        "top_height": 1.9,
        "zigzag": 0.4,
        "post": "post_lumber_89",
        "post_spacing": 1.5,
        "footing": "bed",
        "uprights": "pair",
        "ends": "top-brace",
        "pretension": 100.0,
        "strut": "post_sw_stake_38",
        "screws": "screws_76_pair",
        "screw_gap": 0.15,
        "string": "pp_greenhouse",
        "stem_tie": "clip_spring_small",
        "foot_held": "peg",
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 1.90, 0.0, c["cover"])
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        blown = leaf.pressure * 1.60 * 0.45
        hung = self.capped(6, 1.5 * 1.60) + good - usual
        down, side = hung / 1.5, leaf.force / 2
        load, ea = math.hypot(down, side), 2 * 200e9 * math.pi / 4 * 0.002515**2
        pull = hand.sliding(load, 1.5, 100, ea, 100e3, 2)  # between ends as stiff as their brace
        # a bar that bows out by a twentieth of its length shortens by 0.0062 of it, half at each end
        short = math.pi**2 / 4 / 400 * 3.0 / 2
        given, usual_pull = (min(pull, hand.left_at(load, 1.5, n * short / 1)) for n in (1, 2))
        each = side * 1.5 / 2  # two uprights share it
        more = 1 / (1 - hung / 2 / (math.pi**2 * E * I89 / (2.1 * 1.9) ** 2))
        stake = math.pi**2 * 7.45e9 * 0.038**4 / 12 / 1.5**2
        wire = hand.breaks(2.515, 400, 440)
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
                ("wire", "overhead-wire"): (
                    math.hypot(min(pull, hand.left_at(load, 1.5, 0.03 * 1.5)), load * 0.75),
                    *(2 * 0.9 * w for w in wire),
                ),
                ("post", "post-bending-across"): (each * 1.9 * more, S89 * STRONG, S89 * MEAN),
                ("board", "screwed"): (each * 1.9 * more / 0.15, 972, 1944),
                ("end-post", "end-post-bending"): (each / 2 * 1.9, S89 * STRONG, S89 * MEAN),
                ("end-post", "end-post-lasting"): (0, S89 * LASTS, S89 * MEAN * LASTS / STRONG),
                ("top-brace", "strut"): (given, stake / 2.5, stake, usual_pull),
            }
        )


class HouseBar(hand.Sheet):
    """Eight strings looped on a house's bar that may carry 150 N on each metre; the vine winds up them."""

    family = "drop-strings"
    count, spacing = 8, 0.45
    options = {
        "length": 3.6,
        "top": "house",
        "top_height": 2.0,
        "purlin_load": 150.0,
        "string": "pp_greenhouse",
        "attach": "twist",
        "foot_held": "loop",
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.30, 2.00, 0.0, c["cover"])
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        blown = leaf.pressure * 1.70 * 0.45
        bay = 1.8
        down = (self.capped(4, bay * 1.70) + good - usual) / bay
        self.assertSheet(
            {
                ("string", "string"): (
                    math.hypot(good, blown / 2),
                    *hand.knotted(600, days, 0.75),
                    math.hypot(usual, blown / 2),
                ),
                ("purlin", "purlin"): (math.hypot(down, leaf.force / 2), 150, 225),
            }
        )
