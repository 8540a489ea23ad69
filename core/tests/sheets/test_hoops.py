"""Calculation sheets of hoops: ladder mesh braced and alone, plastic pipe on rods with an end stake, steel
tube.
"""

from __future__ import annotations

import math
from functools import cache

import numpy as np
from ascent.mechanics import rod

from tests.sheets import hand
from tests.sheets.hand import Band, G


@cache
def bent(span: float, hold: float, arc: float):
    """Return rise, pushes, curvature and sway of a strip of unit stiffness, from a chain of links bent to
    it.
    """
    shape = rod.bent(span / arc, links=120)
    for held in np.linspace(0.02, hold / arc, 5):
        shape = rod.bent(span / arc, float(held), links=120, start=shape)
    sway = rod.sway_weight(shape, span / arc, hold / arc, links=120)
    return shape.y.max() * arc, shape.foot / arc**2, shape.tie / arc**2, arc / shape.curvature, sway / arc**3


class LadderHoops(hand.Sheet):
    """Ladder mesh of two 4 mm rods, 3.05 m long over 0.9 m, its ends 0.25 m in the soil, every 0.75 m, a wire
    over the crowns, snap peas.
    """

    family = "hoops"
    crop, count, spacing, side, planted = "pea-snap", 60, 0.08, "both", "04-10"
    options: dict = {
        "length": 3.0,
        "hoop_of": "ladder-mesh",
        "ladder": "ladder_mesh_3",
        "arc": 3.05,
        "span": 0.9,
        "hoop_spacing": 0.75,
        "push_in": 0.25,
        "ridge": "wire",
        "brace": "diagonal",
        "brace_wire": "wire_soft_14",
        "tie": "tie_wire_16",
    }
    week = 9
    span, hold, sunk, ei, kg, wide, creep = 0.9, 0.25, 0.25, 200e9 * 25.13e-12, 0.25, 0.004, 1.0

    def worked(self, sprung: bool = True) -> None:
        """Work out what comes on one hoop: one side's leaves up to its crown, the bare hoop, and its
        spring.
        """
        c = self.course()
        rise, foot, tie, self.radius, sway = bent(self.span, self.hold, 3.05)
        self.rise, self.sway = rise - self.sunk, sway * self.ei / self.creep
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        self.bare = self.kg * 3.05 * G
        self.hanging = self.capped(self.plants(), 0.75 * 3.05) + good - usual
        top = min(c["top"], self.rise)
        cover = self.one_side(c["grown"])
        leaf = Band(20, 0.0, top, 0.0, cover)
        self.across = leaf.force * 0.75 + 1.2 * 245 * self.wide * self.rise
        self.lever = 0.55 * self.rise
        self.pushing = (
            max(abs(foot), abs(tie)) * self.ei / self.creep
            if sprung
            else (self.hanging + self.bare) / math.pi
        )
        resting = self.bare + 0.5 * c["shoot_kg"] * 60 * 0.75 / 3.0 * G
        self.lift = max(self.across * self.lever - resting * self.span / 2, 0) / self.span
        share, _ = hand.gust_share(0.0, top)
        depth = self.stand().growths[0].crop.depth_m
        end = leaf.pressure * top * depth * max(self.span / 2 / depth, 1)
        self.along = 0.55 * (end + 2 * 0.10 * share * 245 * hand.streaming(20) * top * cover / 0.95 * 3.0)

    def plants(self) -> int:
        return 19  # of 0.08 m on two sides within 0.375 m of a hoop, at the most

    def one_side(self, grown: float) -> float:
        """Return the cover of one side's leaves, sown a little wider than usual: 1 − (1 − cover)^(leaf over
        usual).
        """
        crop = self.stand().growths[0].crop
        return (1 - (1 - crop.cover) ** (crop.spacing_m / 0.08)) * grown

    def sprung(self, bears: float, breaks: float, least: float) -> dict:
        """Return the checks of a hoop that is bent as it is set."""
        weight = (self.hanging + self.bare) / 3.05
        crowned = (self.bare + self.hanging * (1 + (0.4 - 1 / 3) * (1 / 0.53 - 1))) / 3.05
        blown = self.across * max(self.lever - max(self.hold - self.sunk, 0), 0.1) / (1 - weight / self.sway)
        return {
            ("hoop", "arch-sway"): (weight, self.sway / 1.9, self.sway),
            ("hoop", "arch-crown"): (crowned, self.sway / 1.9, self.sway),
            ("hoop", "hoop-bend"): (least, self.radius, 1.6 * self.radius),
            ("hoop", "hoop-blown"): (blown, 4 * bears, 4 * breaks),
        }

    def joined(self) -> dict:
        tie = 693 * 0.7
        return {("ridge-tie", "hoop-joined"): (self.along / 4 * 1.5, tie / 2, tie * 1.1, self.along / 4)}

    def buried(self) -> dict:
        grip = 2 * hand.clay(30e3, 0.004, 0.25, 0.0, 0.05)
        return {("buried", "buried-grip"): (self.pushing + self.across / 2, grip / 1.5, grip * 1.33)}

    def test_sheet(self):
        self.worked()
        z = 1.6 * 12.57e-9  # both rods yield whole, but no more than 1.6 times what they bear at their edges
        skin = 2 * 5e3 * math.pi * 0.004 * 0.20
        self.assertSheet(
            {
                **self.sprung(z * 270e6, z * 520e6, 40 * 0.004),
                **self.buried(),
                ("buried", "buried-lift"): (self.lift, skin / 2, skin * 2),
                **self.joined(),
                ("brace", "brace-wire"): (
                    self.along * math.hypot(1.5, self.rise) / 1.5,
                    *hand.breaks(2.032, 400, 440),
                ),
            },
            0.02,
        )


class LadderAlone(LadderHoops):
    """The same held down by stakes 25 × 25 mm, with nothing along the row: each foot's two rods bend below
    the lowest rung.
    """

    options = {
        **LadderHoops.options,
        "held": "stakes",
        "foot_stake": "post_sw_stake_25",
        "foot_depth": 0.45,
        "brace": "none",
        "ridge": "none",
    }

    def test_sheet(self):
        self.worked()
        z = 1.6 * 12.57e-9
        skin = 5e3 * 4 * 0.025 * 0.30
        one = min(0.004**3 / 6, 1.6 * math.pi * 0.004**3 / 32)
        soil = hand.in_loam(0.004, 0.25, self.rise) * self.rise
        leaning = (self.hanging + self.bare) * self.rise / 2 * math.sin(math.radians(10))
        self.assertSheet(
            {
                **self.sprung(z * 270e6, z * 520e6, 40 * 0.004),
                **self.buried(),
                ("buried", "uplift"): (self.lift, skin / 2, skin * 2),
                ("along", "hoops-along"): (
                    self.along * self.rise + leaning,
                    4 * min(soil / 1.5, one * 270e6),
                    4 * min(soil * 1.33, one * 520e6),
                ),
            },
            0.02,
        )


class PipeOnRods(LadderHoops):
    """Plastic pipe 26.7 mm over bars 12 mm, soft from weeks in the sun, a cane over the crowns, a stake at
    each end.
    """

    options = {
        "length": 3.0,
        "hoop_of": "pipe",
        "pipe": "pipe_pvc_20",
        "span": 0.9,
        "arc": 3.05,
        "hoop_spacing": 0.75,
        "rod": "rod_rebar_12",
        "in_soil": 0.40,
        "brace": "stake",
        "stake": "post_sw_stake_38",
        "stake_depth": 0.45,
        "ridge": "pole",
        "tie": "tie_wire_16",
    }
    d, wall = 0.0267, 0.00287
    hold, sunk, kg, wide, creep = 0.30, 0.0, 0.30, 0.0267, 3.0
    inertia = math.pi / 64 * (d**4 - (d - 2 * wall) ** 4)
    ei, bears, breaks = 2.76e9 * inertia, inertia * 2 / d * 10.35e6, inertia * 2 / d * 40e6

    def test_sheet(self):
        self.worked()
        critical = 2 * math.pi**2 * self.ei / (self.rise - 0.30) ** 2
        self.assertSheet(
            {
                **self.sprung(self.bears, self.breaks, self.d / 0.06),
                **self.on_rods(critical),
                **self.joined(),
                **self.staked(),
            },
            0.02,
        )

    def on_rods(self, critical: float) -> dict:
        """Return the checks of tube and rods: the tube bends both ways between the rod inside it and its
        crown.
        """
        weight = self.hanging + self.bare
        hung = weight * self.span * (0.5 - 1 / math.pi) / 2
        bend = self.across / 2 * max(self.lever - 0.30, 0.1) / 2 / (1 - weight / critical) + hung
        one = min(0.012**3 / 6, 1.6 * math.pi * 0.012**3 / 32)
        push, at, low = self.pushing + self.across / 2, self.rise / 2, min(self.rise / 2, 0.30)
        grip, lasts = hand.in_loam(0.012, 0.40, at), hand.in_loam(0.012, 0.40, low)
        skin = 5e3 * math.pi * 0.012 * 0.25
        return {
            ("hoop", "arch-tube"): (bend, self.bears, self.breaks),
            ("rod", "post-bending-across"): (push * at, one * 300e6, one * 550e6),
            ("rod", "end-post-lasting"): (self.pushing * low, one * 300e6, one * 550e6),
            ("soil", "soil-grip"): (push, grip / 1.5, grip * 1.33),
            ("soil", "soil-lasting"): (self.pushing, lasts / 2, lasts * 1.33),
            ("soil", "uplift"): (self.lift, skin / 2, skin * 2),
        }

    def own(self) -> tuple[float, float, float]:
        """Return the moment along the row on five joined hoops, and what their ten rods hold of it."""
        one = min(0.012**3 / 6, 1.6 * math.pi * 0.012**3 / 32)
        soil = hand.in_loam(0.012, 0.40, self.rise) * self.rise
        leaning = (self.hanging + self.bare) * self.rise / 2 * math.sin(math.radians(10)) * 5
        return (
            self.along * self.rise + leaning,
            10 * min(soil / 1.5, one * 300e6),
            10 * min(soil * 1.33, one * 550e6),
        )

    def staked(self) -> dict:
        """Return the checks of an end stake: it takes what the hoops do not hold, a twentieth at the
        least.
        """
        moment, holds, expected = self.own()
        left, usual = (self.along * max(1 - h / moment, 0.05) for h in (holds, expected))
        at, s = 0.9 * self.rise, 0.038**3 / 6
        grip = hand.in_loam(0.038, 0.45, at)
        return {
            ("end-stake", "post-bending-along"): (left * at, s * 7.38e6, s * 22e6, usual * at),
            ("end-stake", "soil-grip"): (left, grip / 1.5, grip * 1.33, usual),
        }


class SteelTubes(PipeOnRods):
    """Steel conduit 23 mm, bent beforehand to 1.2 m: it pushes by its crop alone, and nothing braces it along
    the row.
    """

    options = {**PipeOnRods.options, "pipe": "tube_emt_20", "span": 1.2, "brace": "none"}
    d, wall = 0.0234, 0.00124
    span, kg, wide, creep = 1.2, 0.68, 0.0234, 1.0
    inertia = math.pi / 64 * (d**4 - (d - 2 * wall) ** 4)
    whole = min((d**3 - (d - 2 * wall) ** 3) / 6, 1.6 * inertia * 2 / d)
    ei, bears, breaks = 200e9 * inertia, whole * 136.6e6, whole * 250e6

    def test_sheet(self):
        self.worked(sprung=False)
        weight, critical = self.hanging + self.bare, 2 * math.pi**2 * self.ei / (self.rise - 0.30) ** 2
        rows = {
            ("hoop", "arch-tube-sway"): (weight, critical / 1.9, critical),
            ("along", "hoops-along"): self.own(),
        }
        self.assertSheet({**rows, **self.on_rods(critical), **self.joined()}, 0.02)
