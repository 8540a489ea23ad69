"""Calculation sheets of cages: lone heavy rings, a staked raft, a cylinder cut from a roll of mesh."""

from __future__ import annotations

import math

from ascent.plan.structure import Planting

from tests.sheets import hand
from tests.sheets.hand import Band, G

ROUND = 0.62


class LoneCages(hand.Sheet):
    """Ring cages of 5.5 mm wire, 1.22 m out of the soil on four legs 0.28 m in it, round bush tomatoes."""

    family = "cage"
    crop, count, spacing = "tom-det", 4, 0.75
    options = {"length": 3.0, "made": "bought", "cage": "cage_ring_heavy", "stakes": 0}
    week = 11

    def test_sheet(self):
        c = self.course()
        crop = self.stand().growths[0].crop
        leaf, wide = self.leaf(0.0055, 0.350, 0.240, 1.22), max(min(0.75, crop.depth_m), 0.45)
        blown = leaf * wide
        pressing = c["shoot_kg"] / crop.carried_share * 0.45 + c["fruit_kg"] * 0.60
        branch = pressing * G / 4 / 2 * 1.5
        z = 0.0055**3 / 6  # of a round wire: its whole section yields
        leg, bears = 0.6 * 400e6 * z, 448e6 * z
        leaned = pressing * G * 0.15 * min(c["top"], 1.52) / 2
        grown = c["grown"]
        stood = hand.in_loam(0.0055, 0.28, self.at)
        pulled = 3000 * math.pi * 0.0055 * 0.28 * 4 / 2 * 0.45
        allowed = (
            (2.8 + 0.5 * pressing) * G * 0.225 / 1.5
            + max(pulled / 1.5, 4 * min(stood / 1.5 * self.at, leg))
            + 5 * grown
        )
        median = (
            (2.8 + pressing) * G * 0.225 + max(pulled, 4 * min(stood * 1.33 * self.at, bears)) + 10 * grown
        )
        self.assertSheet(
            {
                ("ring", "cage-ring"): (branch * 0.350 / 8, leg, bears),
                ("ring", "cage-racks"): self.racks(
                    blown, 4, 0.0055, 0.28, 0.240 + 0.10, leg, bears, pressing * G
                ),
                ("tipping", "cage-tips"): (blown * self.at + leaned, allowed, median),
            }
        )

    def leaf(self, wire: float, along: float, up: float, stood: float) -> float:
        """Return the wind on a metre of width of leaf and bare mesh, and keep its height."""
        c, solid = self.course(), hand.mesh(wire, along, up)
        low = 0.20  # of bare stem
        bands = [Band(20, low, c["top"], solid, c["cover"], ROUND), Band(20, 0.0, low, solid, 0.0, ROUND)]
        if stood > c["top"]:
            bands.append(Band(20, c["top"], stood, solid, 0.0, ROUND))
        self.at = hand.centre(*bands)
        return sum(b.force for b in bands)

    def racks(
        self,
        blown: float,
        legs: int,
        wire: float,
        deep: float,
        free: float,
        leg: float,
        bears: float,
        on: float,
    ) -> tuple[float, ...]:
        """Return the wind on the legs below the first ring, fixed 0.10 m or half of them deep, and what they
        hold, yielding at ring and soil.
        """
        soil, grown = hand.in_loam(wire, deep, free) * free, self.course()["grown"]
        more = 1 / (1 - on * free**2 / (legs * 12 * 200e9 * math.pi * wire**4 / 64))
        return (
            max(blown - 5 * grown / self.at, 0) * more,
            legs * (leg + min(leg, soil / 1.5)) / free,
            legs * (bears + min(bears, soil * 1.33)) / free,
            max(blown - 10 * grown / self.at, 0) * more,
        )

    def test_of_two_crops_the_lesser_roots_count(self):
        """Stem and roots hold 5 N·m, expected 10, once grown (structures handbook 11): a pepper planted
        five weeks later has less, a cucumber has no stem.
        """
        grown = {}
        for crops in (("tom-det",), ("pepper-sweet",), ("tom-det", "pepper-sweet"), ("tom-det", "cuc-slice")):
            stand = self.of(
                *(
                    Planting(key=crop, crop=crop, count=4, spacing=0.75, planted=("05-04", "06-08")[n])
                    for n, crop in enumerate(crops)
                )
            )
            shares = [one.grown[8] if one.crop.key != "cuc-slice" else 0.0 for one in stand.growths]
            grown[crops] = min(shares)
            with self.subTest(crops=crops):
                self.assertNear(float(stand.rooted.allowable[0, 8, 0]), 5 * grown[crops])
                self.assertNear(float(stand.rooted.median[0, 8, 0]), 10 * grown[crops])
        self.assertLess(grown["tom-det", "pepper-sweet"], 0.8 * grown["tom-det",])


class StakedRaft(LoneCages):
    """The same cages three rows deep, tied with sisal across the diagonal, each on a stake 25 × 25 mm 0.4 m
    deep.
    """

    crop, count, spacing = "tom-det", 12, 0.75
    bed = {"width": 3.0}
    options = {
        "length": 3.0,
        "made": "bought",
        "cage": "cage_ring_heavy",
        "rows": 3,
        "row_spacing": 0.7,
        "link": "diagonal",
        "link_twine": "sisal_2.5",
        "stakes": 1,
        "stake": "post_sw_stake_25",
        "depth": 0.4,
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 11 + 3.5
        crop = self.stand().growths[0].crop
        blown = self.leaf(0.0055, 0.350, 0.240, 1.22) * max(min(0.75, crop.depth_m), 0.45)
        pressing = c["shoot_kg"] / crop.carried_share * 0.45 + c["fruit_kg"] * 0.60
        z, grown = 0.0055**3 / 6, c["grown"]
        leg, bears = 0.6 * 400e6 * z, 448e6 * z
        leaned = pressing * G * 0.15 * min(c["top"], 1.52) / 2
        moment = blown * self.at * (1 + 0.4 * 2) + 3 * leaned
        arm = (2 * 0.7 + 0.45) / 2
        stood = hand.in_loam(0.0055, 0.28, self.at)
        pulled = 3000 * math.pi * 0.0055 * 0.28 * 4 / 2 * 0.45
        allowed = 3 * (
            (2.8 + 0.5 * pressing) * G * arm / 1.5
            + max(pulled / 1.5, 4 * min(stood / 1.5 * self.at, leg))
            + 5 * grown
        )
        median = 3 * (
            (2.8 + pressing) * G * arm + max(pulled, 4 * min(stood * 1.33 * self.at, bears)) + 10 * grown
        )
        tied, s = 1.22 * 2 / 3, 0.025**3 / 6
        soil = hand.in_loam(0.025, 0.4, tied)
        stakes = 3 * min(soil / 1.5 * tied, s * 7.38e6)
        usual = 3 * min(soil * 1.33 * tied, s * 22e6)
        taken, expected = (max(moment - held, 0) / 3 / tied for held in (allowed, median))
        twine = [2 * x for x in hand.knotted(450, days, 0.6)]
        self.assertSheet(
            {
                ("ring", "cage-ring"): (pressing * G / 8 * 1.5 * 0.350 / 8, leg, bears),
                ("tipping", "cage-tips"): (moment, allowed + stakes, median + usual),
                ("link", "cage-link"): (blown * 2 / 3, *twine),
                ("stake", "post-bending-across"): (taken * tied, s * 7.38e6, s * 22e6, expected * tied),
                ("soil", "soil-grip"): (taken, soil / 1.5, soil * 1.33, expected),
            }
        )


class CutCylinder(LoneCages):
    """A cylinder 0.6 m across cut from a roll of 3.43 mm mesh, its cut ends 0.15 m in the soil, one free
    slicing tomato in each.
    """

    crop, count, spacing, training = "tom-slicer", 3, 0.9, "free"
    options = {
        "length": 2.7,
        "made": "cut",
        "mesh": "mesh_conc_roll",
        "diameter": 0.6,
        "height": 1.5,
        "leg": 0.15,
        "stakes": 0,
    }
    week = 15

    def test_sheet(self):
        c = self.course()
        crop = self.stand().growths[0].crop
        blown = self.leaf(0.00343, 0.152, 0.152, 1.35) * max(min(0.9, crop.depth_m), 0.6)
        pressing = c["shoot_kg"] / crop.carried_share * 0.45 + c["fruit_kg"] * 0.60
        legs = 12  # each upright wire, 152 mm apart
        z, grown = 0.00343**3 / 6, c["grown"]
        steel = hand.item("meshes", "mesh_conc_roll").material
        self.assertEqual(steel, "welded_hard")
        leg, bears = 0.6 * 450e6 * z, 520e6 * z
        leaned = pressing * G * 0.15 * min(c["top"], 1.65) / 2
        weight = 0.94 * (math.pi * 0.6 + 0.15) * 1.5
        stood = hand.in_loam(0.00343, 0.15, self.at)
        pulled = 3000 * math.pi * 0.00343 * 0.15 * legs / 2 * 0.6
        allowed = (
            (weight + 0.5 * pressing) * G * 0.3 / 1.5
            + max(pulled / 1.5, legs * min(stood / 1.5 * self.at, leg))
            + 5 * grown
        )
        median = (
            (weight + pressing) * G * 0.3
            + max(pulled, legs * min(stood * 1.33 * self.at, bears))
            + 10 * grown
        )
        self.assertSheet(
            {
                ("ring", "cage-ring"): (pressing * G / legs / 2 * 1.5 * 0.152 / 8, leg, bears),
                ("ring", "cage-racks"): self.racks(
                    blown, legs, 0.00343, 0.15, 0.152 + 0.075, leg, bears, pressing * G
                ),
                ("tipping", "cage-tips"): (blown * self.at + leaned, allowed, median),
            }
        )
