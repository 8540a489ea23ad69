"""Calculation sheets of poles that meet: tripods in the soil and in a pot, crossed pairs of canes, scaffold
tubes in concrete on guys.
"""

from __future__ import annotations

import math

from scipy.integrate import quad

from tests.sheets import hand
from tests.sheets.hand import Band, G

ROUND = 0.62
CANE_E, CANE, CANE_MEAN = 15e9, 30e6, 80e6


def cane(d: float) -> tuple[float, float]:
    """Return section modulus and inertia of a cane hollow to half its width. [m³], [m⁴]"""
    inertia = math.pi / 64 * (d**4 - (d / 2) ** 4)
    return inertia * 2 / d, inertia


class Legs(hand.Sheet):
    """What holds of every set of legs; the wind's force and lever are worked out by each."""

    def leaned(
        self,
        force: float,
        at: float,
        hung: float,
        resting: float,
        legs: int,
        radius: float,
        h: float,
        d: float,
        depth: float,
        skin: float,
        stood: tuple[float, float],
        tied: tuple[float, float] = (0.0, 0.0),
        centre: tuple[float, float] = (0.0, 0.0),
    ) -> dict:
        """Return the checks of pole, lashing and feet, by joints: each leg a strut, the worst in line with
        the wind.
        """
        s, inertia = cane(d)
        k, tilt, long = 2 if legs == 2 else legs / 2, math.atan2(h, radius), math.hypot(radius, h)
        apex = force * at / h
        push, slip = (w / legs / math.sin(tilt) + apex / k / math.cos(tilt) for w in (0.53 * hung, hung / 2))
        critical = math.pi**2 * CANE_E * inertia / (0.8 * long if depth > 0.1 else long) ** 2
        bends = force / legs * long / 8
        arm = radius if legs == 2 else radius * math.cos(math.pi / legs)
        pulled = (skin / 2 + tied[0]) * k * radius, (skin * 2 + tied[1]) * k * radius
        return {
            ("pole", "leg"): (
                push * 3 / critical + bends / s / CANE,
                1,
                1,
                push / critical + bends / s / CANE_MEAN,
            ),
            ("lashing", "lashing"): (slip, 60, 120),
            ("feet", "feet-hold"): (
                force * at,
                resting * arm / 1.5 + pulled[0] + legs * min(stood[0] * at, s * CANE) + centre[0],
                resting * arm + pulled[1] + legs * min(stood[1] * at, s * CANE_MEAN) + centre[1],
            ),
        }


class Tripods(Legs):
    """Two tripods of canes 20 mm, feet on a circle of 0.4 m, 0.3 m deep in loam; pole beans climb them to
    where they meet.
    """

    family = "tripod"
    crop, count, spacing, planted = "bean-pole", 6, 0.15, "05-20"
    options = {
        "sets": 2,
        "legs": 3,
        "radius": 0.4,
        "pole": "cane_20",
        "pole_length": 2.4,
        "in_soil": 0.3,
        "tail": 0.2,
        "crossing": "lashed",
        "binding": "sisal_2.5",
    }
    week = 10
    plants, legs, radius, d, kg, long, outside = 3, 3, 0.4, 0.020, 0.15, 2.4, 0.05

    def blown(self) -> None:
        """Work out the wind on one set: leaves on a face as wide as the poles stand apart on the mean,
        tapering to the top, and the bare poles.
        """
        c = self.course()
        self.h = math.sqrt((self.long - 0.3 - 0.2) ** 2 - self.radius**2)
        wide = 2 * self.legs * self.radius * math.sin(math.pi / self.legs) / math.pi
        leaf = Band(20, 0.20, c["top"], 0.0, c["cover"], ROUND)

        def width(z: float) -> float:
            return wide * (1 - z / self.h) + 2 * self.outside

        area, moment = (quad(lambda z, n=n: width(z) * z**n, 0.20, c["top"])[0] for n in (0, 1))
        poles = 1.2 * 245 * self.d * self.h * self.legs
        self.force = leaf.pressure * area + poles
        self.at = (leaf.pressure * moment + poles * self.h / 2) / self.force
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        bare = self.legs * self.kg * self.long * G
        self.hung = self.plants * usual + good - usual + bare
        self.resting = bare + 0.5 * self.plants * c["shoot_kg"] * G

    def test_sheet(self):
        self.blown()
        soil = hand.in_loam(0.020, 0.3, self.at)
        skin = 5e3 * math.pi * 0.020 * 0.15
        self.assertSheet(
            self.leaned(
                self.force,
                self.at,
                self.hung,
                self.resting,
                3,
                0.4,
                self.h,
                0.020,
                0.3,
                skin,
                (soil / 1.5, soil * 1.33),
            )
        )


class StakedTripodInAPot(Tripods):
    """Four canes 16 mm in a pot 0.6 m across, tied to its rim, a bar 12 mm in the middle."""

    count = 4
    bed = {"kind": "container", "length": 0.6, "width": 0.6, "fill_depth": 0.4}
    options = {
        "sets": 1,
        "legs": 4,
        "radius": 0.25,
        "pole": "cane_16",
        "pole_length": 1.8,
        "in_soil": 0.3,
        "tail": 0.2,
        "held": "rim",
        "centre": "stake",
        "stake": "rod_rebar_12",
        "stake_depth": 0.35,
        "crossing": "lashed",
        "binding": "sisal_2.5",
    }
    plants, legs, radius, d, kg, long = 4, 4, 0.25, 0.016, 0.10, 1.8

    def test_sheet(self):
        self.blown()
        foot, bar = (hand.sand(28, 10e3, b, deep, self.at, 0.05) for b, deep in ((0.016, 0.3), (0.012, 0.35)))
        skin = 3e3 * math.pi * 0.016 * 0.25
        tied = [2 * x for x in hand.knotted(450, 7 * 10 + 3.5, 0.6)]
        z = min(0.012**3 / 6, 1.6 * math.pi * 0.012**3 / 32)
        centre = min(bar / 1.5 * self.at, z * 300e6), min(bar * 1.3 * self.at, z * 550e6)
        rows = self.leaned(
            self.force,
            self.at,
            self.hung,
            self.resting,
            4,
            0.25,
            self.h,
            0.016,
            0.3,
            skin,
            (foot / 1.5, foot * 1.3),
            tuple(tied),
            centre,
        )
        weight = 0.6 * 0.6 * 0.4 * 550 * G
        self.assertSheet(
            {
                **rows,
                ("pot", "pot-tips"): (
                    self.force * (0.4 + self.at),
                    weight * 0.85 * 0.3 / 1.5,
                    weight * 0.85 * 0.3,
                ),
            }
        )


class CrossedCanes(Legs):
    """Pairs of canes 16 mm every 0.3 m, 0.6 m apart at their feet and 0.3 m deep, a cane in the V, a wire
    down the end; runner beans.
    """

    family = "crossed-poles"
    crop, count, spacing, side, planted = "bean-runner", 20, 0.25, "both", "05-20"
    options: dict = {
        "length": 2.4,
        "pair_spacing": 0.3,
        "spread": 0.6,
        "pole": "cane_16",
        "pole_length": 2.4,
        "in_soil": 0.3,
        "tail": 0.2,
        "ridge": "pole",
        "ridge_pole": "cane_20",
        "brace": "diagonal",
        "brace_wire": "wire_soft_14",
        "crossing": "lashed",
        "binding": "sisal_2.5",
    }
    week = 10

    def test_sheet(self):
        c, h = self.course(), math.sqrt(1.9**2 - 0.3**2)
        leaf = Band(20, 0.20, c["top"], 0.0, c["cover"])
        leafy, bare = leaf.force * 0.3, 1.2 * 245 * 0.016 * 2 * h
        force = leafy + bare
        at = (leafy * leaf.centre + bare * h / 2) / force
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        poles = (2 * 0.10 * 2.4 + 0.15 * 0.3) * G
        hung = self.capped(3, 0.3 * (c["top"] - 0.20)) + good - usual + poles
        resting = poles + 0.5 * c["shoot_kg"] * 20 * 0.3 / 2.4 * G
        soil, skin = hand.in_loam(0.016, 0.3, at), 5e3 * math.pi * 0.016 * 0.15
        share, _ = hand.gust_share(0.20, c["top"])
        depth = self.stand().growths[0].crop.depth_m
        end = leaf.pressure * (c["top"] - 0.20) * depth * max(0.3 / depth, 1)
        along = (
            (end + 2 * 0.10 * share * 245 * hand.streaming(20) * (c["top"] - 0.20) * 2.4) * leaf.centre / h
        )
        self.assertSheet(
            {
                **self.leaned(
                    force, at, hung, resting, 2, 0.3, h, 0.016, 0.3, skin, (soil / 1.5, soil * 1.33)
                ),
                ("brace", "brace-wire"): (
                    along / 2 * math.hypot(1.0, h) / 1.0,
                    *hand.breaks(2.032, 400, 440),
                ),
            }
        )


class ScaffoldInConcrete(hand.Sheet):
    """Scaffold tubes 48 mm in concrete 0.6 m deep, 0.8 m apart and 1.8 m along, coupled, a wire over them,
    strings on hooks, guys on stones.
    """

    family = "crossed-poles"
    crop, count, spacing, side, planted = "bean-runner", 20, 0.25, "both", "05-20"
    options: dict = {
        "length": 3.6,
        "pair_spacing": 1.8,
        "spread": 0.8,
        "pole": "tube_scaffold_48",
        "pole_length": 3.0,
        "in_soil": 0.6,
        "tail": 0.2,
        "footing": "concrete",
        "crossing": "coupled",
        "ridge": "wire",
        "ridge_wire": "wire_soft_125",
        "between": "strings",
        "hung_by": "hook",
        "string": "sisal_2.5",
        "hook": "hook_s_4",
        "brace": "guy",
        "anchor": "deadman_stones_30",
        "brace_wire": "wire_soft_14",
        "base": "peg_wire",
    }
    week = 10

    def test_sheet(self):
        c, days, h = self.course(), 7 * 10 + 3.5, math.sqrt(2.2**2 - 0.4**2)
        leaf = Band(20, 0.20, c["top"], 0.0, c["cover"])
        tall = c["top"] - 0.20
        leafy, bare = leaf.force * 1.8, 1.2 * 245 * 0.0483 * 2 * h
        force = leafy + bare
        at = (leafy * leaf.centre + bare * h / 2) / force
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        poles = 2 * 3.56 * 3.0 * G
        crop = self.capped(8, 1.8 * tall) + good - usual
        hung, resting = crop + poles, poles + 0.5 * 0.5 * c["shoot_kg"] * 20 * G
        d, wall = 0.0483, 0.0032
        inertia = math.pi / 64 * (d**4 - (d - 2 * wall) ** 4)
        whole = min((d**3 - (d - 2 * wall) ** 3) / 6, 1.6 * inertia * 2 / d)
        bears, breaks = whole * 136.6e6, whole * 250e6
        tilt = math.atan2(h, 0.4)
        push, slip = (
            w / 2 / math.sin(tilt) + force * at / h / 2 / math.cos(tilt) for w in (0.53 * hung, hung / 2)
        )
        critical, bends = math.pi**2 * 200e9 * inertia / (0.8 * 2.2) ** 2, force / 2 * 2.2 / 8
        pier = hand.pier(30e3, 0.28, 0.6, at)
        skin = 5e3 * math.pi * 0.28 * (0.6 - 0.05)
        blown = leaf.pressure * tall * 0.25
        share, _ = hand.gust_share(0.20, c["top"])
        depth = self.stand().growths[0].crop.depth_m
        end = leaf.pressure * tall * depth * max(0.4 / depth, 1)
        along = (end + 2 * 0.10 * share * 245 * hand.streaming(20) * tall * 3.6) * leaf.centre / h
        # the wire, and guys at 45° from the crossing
        down, side = crop / 1.8, leaf.force / 2
        load, ea = math.hypot(down, side), 200e9 * math.pi / 4 * 0.002515**2
        up, dragged = hand.buried(30, 0.4, 0.25, 0.4, 0.3, 17e3)
        held = min(up, dragged) * math.sqrt(2) / 1.5
        guy = 1 / (h * math.sqrt(2) / (200e9 * math.pi / 4 * 0.002032**2) + 0.010 / held)
        end_k = guy / 2
        pull = hand.tight(load, 1.8, 60, 1 / (1 / ea + 1 / end_k / 1.8))
        given, expected = (min(pull, hand.left_at(load, 1.8, g)) + along for g in (0.05, 0.10))
        tight, tight_down = given * math.sqrt(2), expected * math.sqrt(2)
        column = math.pi**2 * 200e9 * inertia / h**2
        foot = hand.pier(30e3, 0.28, 0.6, 0.0)
        tip = skin + 9 * 30e3 * math.pi / 4 * 0.28**2
        k = 2 * 0.4
        self.assertSheet(
            {
                ("string", "string"): (
                    math.hypot(good, blown / 2),
                    *hand.knotted(450, days, 0.6),
                    math.hypot(usual, blown / 2),
                ),
                ("hook", "hook"): (math.hypot(good, blown / 2), 150, 450, math.hypot(usual, blown / 2)),
                ("base", "base"): (0.2 * good, 15, 30, 0.2 * usual),
                ("ridge", "main-wire"): (
                    math.hypot(min(pull, hand.left_at(load, 1.8, 0.03 * 1.8)), load * 0.9),
                    *hand.breaks(2.515, 400, 440),
                ),
                ("pole", "leg"): (
                    push * 2.5 / critical + bends / bears,
                    1,
                    1,
                    push / critical + bends / breaks,
                ),
                ("lashing", "coupled"): (slip, 6000, 12000),
                ("feet", "feet-hold"): (
                    force * at,
                    resting * 0.4 / 1.5 + skin / 2 * k + 2 * min(pier / 1.5 * at, bears),
                    resting * 0.4 + skin * 2 * k + 2 * min(pier * 1.33 * at, breaks),
                ),
                ("end-post", "end-post-bending"): (0, bears, breaks),
                ("end-post", "end-post-lasting"): (0, bears, breaks),
                ("end-post", "end-post-pushed"): (given * 2.5 / column, 1, 1, given / column),
                ("end-soil", "end-soil-grip"): (0, foot / 1.5, foot * 1.33),
                ("end-soil", "end-soil-lasting"): (0, foot / 2, foot * 1.33),
                ("end-soil", "end-bearing"): (given, tip / 2, tip * 1.33),
                ("guy", "guy"): (tight, *hand.breaks(2.032, 400, 440)),
                ("anchor", "deadman-lift"): (given, up / 1.5, up, expected),
                ("anchor", "deadman-drag"): (given, dragged / 1.5, dragged * 1.33, expected),
            }
        )
        self.assertGreater(tight, tight_down)
