"""Calculation sheets of A-frames: net on stakes, rungs on screw anchors, cleats on boards, nothing but their
weight, bent mesh.
"""

from __future__ import annotations

import math

from tests.sheets import hand
from tests.sheets.hand import Band, G

E, STRONG, LASTS, MEAN = 7.45e9, 7.38e6, 5.31e6, 22e6  # of softwood stakes
S38, I38 = 0.038**3 / 6, 0.038**4 / 12


class NetFrame(hand.Sheet):
    """Two faces of 2.1 m that stand 1.2 m apart, three pairs of stakes 38 × 38 mm over 2.4 m, polypropylene
    net, cucumbers up both.
    """

    family = "a-frame"
    crop, count, spacing, side, planted = "cuc-slice", 12, 0.3, "both", "05-20"
    options: dict = {
        "length": 2.4,
        "leg": 2.1,
        "spread": 1.2,
        "rail_spacing": 1.2,
        "filled": "mesh",
        "mesh": "net_pp_150",
        "frame_wood": "post_sw_stake_38",
        "hinge": "hinge_strap_150",
        "foot_tie": "cord",
        "cord": "polyester_3",
        "foot": "stake",
        "stake": "post_sw_stake_38",
        "in_soil": 0.45,
        "brace": "diagonal",
        "brace_wire": "wire_soft_14",
        "setting": "driven",
        "tie": "twine_sisal_loop",
    }
    week = 9
    solid, face_kg, framed = hand.mesh(1.25, 150, 150), 0.025, 2

    def worked(self) -> None:
        """Work out what comes on one pair of legs and its 1.2 m of face."""
        c, h = self.course(), math.sqrt(2.1**2 - 0.6**2)
        self.h, self.tilt = h, math.acos(0.6 / 2.1)
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        self.hanging = self.capped(8, 1.2 * 2 * (h - 0.20)) + good - usual
        wood = 0.72 * (2 * 2.1 + 2 * 2 * 1.2) if self.framed else 0.0
        self.bare = (wood + 2 * self.face_kg * 2.1 * 1.2) * G
        self.resting = self.bare + 0.5 * G * c["shoot_kg"] * 12 * 1.2 / 2.4
        one = 0.85 * c["grown"]
        self.bands = [Band(20, 0.20, h, self.solid, one), Band(20, 0.0, 0.20, self.solid)]
        twice = (
            1 - (1 - self.solid) ** 2
        )  # the feet stand closer than half the height: both faces catch the wind as one
        both = sum(b.force for b in (Band(20, 0.20, h, twice, 0.95), Band(20, 0.0, 0.20, twice))) * 1.2
        rails = 1.2 * 245 * 0.038 * h * self.framed
        self.force = both + rails
        self.at = (both * hand.centre(*self.bands) + rails * h / 2) / self.force
        self.lifted = max(self.force * self.at - self.resting * 0.6, 0) / 1.2
        self.thrust = (
            (self.hanging + self.bare) / 4 / math.tan(self.tilt)
        )  # hung along the faces, not at the ridge
        self.onto = self.hanging / 2 * math.cos(self.tilt) + sum(
            b.force for b in self.bands
        ) * 1.2 * math.sin(self.tilt)
        share, _ = hand.gust_share(0.20, h)
        end = Band(20, 0.20, h, 0.0, one).pressure * (h - 0.20) * 0.30
        self.along = (end + 2 * 0.10 * share * 245 * hand.streaming(20) * (h - 0.20) * one / 0.95 * 2.4) / 2

    def frame(self) -> dict:
        """Return the checks of rails, hinge and brace."""
        apex = self.force * self.at / self.h
        down, all_ = 0.53 * (self.hanging + self.bare), (self.hanging + self.bare) / 2
        push, pin = (w / 2 / math.sin(self.tilt) + apex / 2 / math.cos(self.tilt) for w in (down, all_))
        critical, bends = math.pi**2 * E * I38 / 2.1**2, self.onto * 2.1 / 8
        lasting = self.hanging / 2 * math.cos(self.tilt) * 2.1 / 8
        return {
            ("rail-leg", "leg"): (
                push * 2.5 / critical + bends / S38 / STRONG,
                1,
                1,
                push / critical + bends / S38 / MEAN,
            ),
            ("rail-leg", "end-post-lasting"): (lasting, S38 * LASTS, S38 * MEAN * LASTS / STRONG),
            ("hinge", "hinge"): (pin, 600, 1800),
            **self.racked(),
        }

    def racked(self) -> dict:
        return {
            ("brace", "brace-wire"): (
                self.along / 2 * math.hypot(1.2, 2.1) / 1.2,
                *hand.breaks(2.032, 400, 440),
            )
        }

    def test_sheet(self):
        self.worked()
        on_wire = self.onto / 1.2 / 14
        rail = 48 * E * I38 / 2.1**3
        axial = 1 / (1 / (1.0e9 * math.pi / 4 * 0.00125**2) + 14 / rail / 1.2)
        _, pull = hand.belly(on_wire, 1.2, 1e-6, axial)
        area = math.pi / 4 * 1.25**2
        cord = hand.knotted(1500, 7 * 9 + 3.5, 0.9)
        skin, grip = 5e3 * 4 * 0.038 * (0.45 - 0.05), hand.clay(30e3, 0.038, 0.45, 0.05, 0.05)
        self.assertSheet(
            {
                ("face", "mesh-tension"): (pull, area * 100 * 0.35 / 3, area * 100 * 0.35),
                **self.frame(),
                ("foot-tie", "cord"): (self.thrust, *cord),
                ("foot", "uplift"): (self.lifted, skin / 2, skin * 2),
                ("foot", "foot-grip"): (self.force / 2, grip / 1.5, grip * 1.33),
            }
        )


class RungFrame(NetFrame):
    """The same with rungs of cane 12 mm every 0.18 m, bars across the feet and small screw anchors; nothing
    against racking.
    """

    options = {
        **NetFrame.options,
        "filled": "rungs",
        "bar": "cane_12",
        "bar_step": 0.18,
        "foot": "anchor",
        "foot_tie": "bar",
        "anchor": "anchor_screw_15x3",
        "brace": "none",
    }
    solid, face_kg = 0.012 / 0.18, 0.06 / 0.18

    def racked(self) -> dict:
        more = 1 / (1 - self.hanging / 2 / (math.pi**2 * E * I38 / (2.1 * self.h) ** 2))
        return {("rail-leg", "racking"): (self.along * self.h / 6 * more, S38 * STRONG, S38 * MEAN)}

    def test_sheet(self):
        self.worked()
        cane = math.pi * (0.012**4 - 0.006**4) / 32 / 0.012
        each = self.onto / 1.2 / 2.1 * 0.18
        lone = self.course()["high_kg"] * G * math.cos(self.tilt) / 1.2
        self.assertSheet(
            {
                ("face", "rail-bending"): (max(each, lone) * 1.2**2 / 8, cane * 30e6, cane * 80e6),
                **self.frame(),
                ("foot-tie", "foot-tie"): (self.thrust, 972, 1944),
                ("foot", "anchor"): (math.hypot(self.lifted, self.force / 2), 110, 286),
            }
        )


class CleatedFrame(NetFrame):
    """The net frame on cleats, with nothing across its feet: they push outward as well."""

    options = {**NetFrame.options, "foot": "cleat", "foot_tie": "none", "cleat": "cleat_wood"}

    def test_sheet(self):
        self.worked()
        found = {key: None for key in self.found() if key[0] != "face"}
        rows = {
            **self.frame(),
            ("foot", "cleats"): (math.hypot(self.force / 2 + self.thrust, self.lifted), 600, 1200),
        }
        self.assertEqual(set(found), set(rows))
        self.assertSheet({**rows, ("face", "mesh-tension"): (None, None, None)})


class LooseFrame(NetFrame):
    """The net frame that stands by its weight alone, its feet tied: half the wind's lift and slide are its
    only foes.
    """

    options = {**NetFrame.options, "foot": "none"}

    def test_sheet(self):
        self.worked()
        whole = self.hanging + self.bare
        self.assertSheet(
            {
                ("face", "mesh-tension"): (None, None, None),
                **self.frame(),
                ("foot-tie", "cord"): (self.thrust, *hand.knotted(1500, 7 * 9 + 3.5, 0.9)),
                ("foot", "frame-tips"): (self.force * self.at, self.resting * 0.6 / 1.5, whole * 0.6),
                ("foot", "frame-slides"): (
                    self.force,
                    self.bare * 0.40 / 1.5,
                    self.bare * 0.40 * 1.3,
                    self.force * self.bare / whole,
                ),
            }
        )


class BentFrame(NetFrame):
    """One net bent over: its own wires are the beams from foot to ridge."""

    options = {**NetFrame.options, "filled": "bent"}
    framed = 0

    def test_sheet(self):
        self.worked()
        z = 0.00125**3 / 6
        skin, grip = 5e3 * 4 * 0.038 * (0.45 - 0.05), hand.clay(30e3, 0.038, 0.45, 0.05, 0.05)
        self.assertSheet(
            {
                ("bent", "slope-wires"): (
                    self.onto / 2.1 / 1.2 * 0.15 * 2.1**2 / 8,
                    0.6 * 100e6 * z,
                    100e6 * z,
                ),
                ("foot-tie", "cord"): (self.thrust, *hand.knotted(1500, 7 * 9 + 3.5, 0.9)),
                ("foot", "uplift"): (self.lifted, skin / 2, skin * 2),
                ("foot", "foot-grip"): (self.force / 2, grip / 1.5, grip * 1.33),
            }
        )
