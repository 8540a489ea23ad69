"""Calculation sheets of frames screwed to the boards of a bed: strings, mesh with a brace, uprights alone
behind stakes.
"""

from __future__ import annotations

import math

from tests.sheets import hand
from tests.sheets.hand import Band, G

E, STRONG, LASTS, MEAN = 7.45e9, 7.38e6, 5.31e6, 22e6  # of softwood stakes
S38, I38 = 0.038**3 / 6, 0.038**4 / 12


class FrameWithStrings(hand.Sheet):
    """Three uprights 38 × 38 mm, 1.5 m high, 1.05 m apart on either side of a raised bed, bars over the top,
    strings to a rail, tomatoes.
    """

    family = "bed-frame"
    bed: dict = {"kind": "raised", "fill_depth": 0.3, "length": 2.4, "board": 0.038}
    count, spacing, side = 10, 0.45, "both"
    options: dict = {
        "length": 2.4,
        "infill": "strings",
        "post_spacing": 1.2,
        "sides": "both",
        "crossbar": "top",
        "height": 1.5,
        "post": "post_sw_stake_38",
        "rail": "post_sw_stake_38",
        "string": "pp_greenhouse",
        "stem_tie": "twine_jute_3_loop",
        "screw": "screw_64",
        "screw_rows": 2,
        "screw_gap": 0.15,
        "boards": "bed",
    }
    solid, bay, uprights, rows, plants, high, thick = 0.0, 1.05, 3, 2, 5, 0.33, 0.038

    def worked(self) -> None:
        """Work out what comes on one upright."""
        c = self.course()
        self.leaf = Band(20, 0.30, 1.50, self.solid, c["cover"])
        bare = Band(20, 0.0, 0.30, self.solid)
        bands = [self.leaf, bare] if self.solid else [self.leaf]
        self.force, self.at = sum(b.force for b in bands), hand.centre(*bands)
        self.good, self.usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        self.weight = self.capped(self.plants, self.bay * 1.20) + self.good - self.usual
        joined = self.rows == 2
        self.onto = (
            self.force * self.bay * (0.7 if joined else 1.0)
        )  # the upright behind takes two fifths, and the bar shares it
        bends = self.onto / 2 if joined else self.onto
        self.more = 1 / (1 - self.weight / (math.pi**2 * E * I38 / (2.1 * 1.5) ** 2))
        self.bend = bends * (self.at - self.rim()) * self.more
        self.moment = self.bend + 0.10 * self.weight
        self.on_board = (self.moment + self.onto * self.high / 2) * self.uprights
        share, _ = hand.gust_share(0.30, 1.50)
        end = Band(20, 0.30, 1.50, 0.0, c["cover"]).pressure * 1.20 * 0.45
        self.along = (
            (end + 0.10 * share * 245 * hand.streaming(20) * 1.20 * c["cover"] / 0.95 * 2.4) / 2 * self.rows
        )

    def rim(self) -> float:
        """Return how far a board stands above the soil."""
        return 0.03

    def stood(self, corners_backed: tuple[float, float] = (0.0, 0.0), free: float = 2.4) -> dict:
        """Return the checks of uprights, screws, board and bed."""
        board, width = self.high * self.thick**2 / 6, self.onto / self.bay
        corners = 2 * 3 * 486 * self.high / 2
        rows = {
            ("upright", "post-bending-across"): (self.bend, S38 * STRONG, S38 * MEAN),
            ("upright", "end-post-lasting"): (0.10 * self.weight, S38 * LASTS, S38 * MEAN * LASTS / STRONG),
            ("screws", "screwed"): (self.moment / 0.15, 390, 780),
            ("board", "board-pushed"): (width * free**2 / 8, board * 10.67e6, board * 26e6),
            ("board", "board-turned"): (
                self.on_board,
                corners + corners_backed[0],
                2 * corners + corners_backed[1],
            ),
        }
        if self.options["boards"] == "bed":
            fill = 10e3 * 2.4 * 1.2 * 0.3
            rows["bed", "bed-tips"] = (self.on_board * self.rows, fill * 0.6 / 1.5, fill * 0.6)
        return rows

    def racks(self) -> dict:
        return {
            ("upright", "racking"): (
                self.along * 1.5 / self.uprights / self.rows * self.more,
                S38 * STRONG,
                S38 * MEAN,
            )
        }

    def stem(self, spacing: float = 0.45) -> dict:
        days = 7 * 18 + 3.5
        blown, jute = self.leaf.pressure * 1.20 * spacing, 270 * 2 * 0.5 * (1 - 0.5 * days / 140)
        tie = math.hypot(self.good, blown) / 5 * 1.5
        return {("stem-tie", "stem-tie"): (tie, jute / 2, jute * 1.2, math.hypot(self.usual, blown) / 5)}

    def test_sheet(self):
        self.worked()
        blown = self.leaf.pressure * 1.20 * 0.45
        rail = math.hypot(self.weight / self.bay, self.force / 2) * self.bay**2 / 8
        self.assertSheet(
            {
                **self.stem(),
                ("string", "string"): (
                    math.hypot(self.good, blown / 2),
                    *hand.knotted(600, 7 * 18 + 3.5, 0.75),
                    math.hypot(self.usual, blown / 2),
                ),
                ("top-line", "rail-bending"): (rail, S38 * STRONG, S38 * MEAN),
                **self.stood(),
                **self.racks(),
            }
        )


class FrameWithMesh(FrameWithStrings):
    """Mesh on one side, on boards of its own, with a wire down its length."""

    options = {
        **FrameWithStrings.options,
        "infill": "mesh",
        "mesh": "panel_large",
        "sides": "one",
        "boards": "own",
        "brace": "diagonal",
        "brace_wire": "wire_soft_14",
    }
    side, solid, rows, plants, high = "left", hand.mesh(5.715, 203, 152), 1, 3, 0.28

    def test_sheet(self):
        self.worked()
        self.assertLess(
            5 * self.leaf.pressure * 0.152 * 1.05**4 / 384 / (200e9 * math.pi * 0.005715**4 / 64),
            1.05 / 20,
            "the mesh bends as a beam",
        )
        area = math.pi / 4 * 5.715**2
        push = self.along * 1.5 / 2.1 + self.weight
        critical = math.pi**2 * E * I38 / 1.5**2
        self.assertSheet(
            {
                **self.stem(),
                ("mesh", "mesh-tension"): (0.0, area * 550 / 2, area * 620),
                **self.stood(),
                ("brace", "brace-wire"): (
                    self.along * math.hypot(2.1, 1.5) / 2.1,
                    *hand.breaks(2.032, 400, 440),
                ),
                ("brace", "end-post-pushed"): (
                    push * 2.5 / critical + self.moment / S38 / STRONG,
                    1,
                    1,
                    push / critical + self.moment / S38 / MEAN,
                ),
            }
        )


class FrameBehindStakes(FrameWithStrings):
    """Five uprights a side 0.525 m apart, each for its own plant; stakes behind the boards every 1.2 m."""

    options = {
        **FrameWithStrings.options,
        "infill": "none",
        "post_spacing": 0.6,
        "backing": "stakes",
        "backing_step": 1.2,
        "stake": "post_sw_stake_38",
    }
    bay, uprights, plants = 0.525, 5, 3

    def test_sheet(self):
        self.worked()
        at = 0.8 * 0.33
        soil = hand.clay(30e3, 0.038, 0.45, at, 0.05)
        backed = 3 * min(soil / 1.5 * at, S38 * STRONG), 3 * min(soil * 1.33 * at, S38 * MEAN)
        self.assertSheet({**self.stem(), **self.stood(backed, 1.2), **self.racks()})


class FrameTiedBack(FrameBehindStakes):
    """The same with ties from board to board instead."""

    options = {**FrameBehindStakes.options, "backing": "ties"}

    def test_sheet(self):
        self.worked()
        backed = 2 * 972 * 0.33
        self.assertSheet({**self.stem(), **self.stood((backed, 2 * backed), 1.2), **self.racks()})
