"""Calculation sheets of brushwood, of what stands already, and of stems that carry a climber."""

from __future__ import annotations

import math

from tests.sheets import hand
from tests.sheets.hand import Band, G

FIRST_SUNFLOWER = (75, 100)


class UprightBrush(hand.Sheet):
    """Twiggy sticks of 12 mm, in their second season, 0.25 m deep every 0.15 m, a string along them; snap
    peas on both sides.
    """

    family = "brushwood"
    crop, count, spacing, side, planted = "pea-snap", 60, 0.05, "both", "04-10"
    options: dict = {
        "length": 3.0,
        "stick": "brush_12",
        "stick_length": 1.2,
        "in_soil": 0.25,
        "stick_spacing": 0.15,
        "pattern": "upright",
        "tied": "string",
        "twine": "sisal_2.5",
        "season": 2,
    }
    week = 9
    tall, broad, left = 0.95, 0.15, 0.75

    def worked(self) -> dict:
        """Return the checks of stick and soil: wind on its width of face, and vines that lean by 10°."""
        c, s = self.course(), math.pi * 0.012**3 / 32
        leaf, bare = Band(20, 0.20, self.tall, 0.12, c["cover"]), Band(20, 0.0, 0.20, 0.12)
        self.force, at = (leaf.force + bare.force) * self.broad, hand.centre(leaf, bare)
        leans = (
            (c["shoot_kg"] + c["fruit_kg"])
            * 2
            / 0.05
            * self.tall
            / 2
            * G
            * math.sin(math.radians(10))
            * self.broad
        )
        moment = self.force * at + leans
        soil = hand.in_loam(0.012, 0.25, at)
        return {
            ("stick", "post-bending-across"): (moment, s * 20e6 * self.left, s * 45e6 * self.left),
            ("soil", "soil-grip"): (moment / at, soil / 1.5, soil * 1.33),
        }

    def test_sheet(self):
        rows = self.worked()
        self.assertSheet(
            {**rows, ("along", "cord"): (0.5 * self.force, *hand.knotted(450, 7 * 9 + 3.5, 0.6))}
        )


class CrossedBrush(UprightBrush):
    """New sticks crossed in pairs, leaning to 0.12 m either side, with a cane along them."""

    options = {**UprightBrush.options, "pattern": "crossed", "tied": "cane", "cane": "cane_12", "season": 1}
    tall = 0.95 * math.cos(math.atan2(0.12, 0.85 * 0.95))
    broad, left = 0.075, 1.0

    def test_sheet(self):
        rows, cane = self.worked(), math.pi * (0.012**4 - 0.006**4) / 32 / 0.012
        self.assertSheet(
            {**rows, ("along", "rail-bending"): (0.5 * self.force * 0.3 / 8, cane * 30e6, cane * 80e6)}
        )


class WiresOnAWall(hand.Sheet):
    """Tomatoes tied to five wires 12.5 gauge on eyes every 1.5 m of a sound wall."""

    family = "existing"
    count, spacing = 6, 0.45
    options: dict = {
        "length": 3.0,
        "fixed_to": "wall",
        "height": 2.0,
        "infill": "none",
        "wires": 5,
        "wire": "wire_soft_14",
        "eye": "vine_eye_80",
        "offset": 0.08,
        "fix_spacing": 1.5,
        "state": "sound",
        "stem_tie": "twine_jute_3_loop",
    }

    def worked(self) -> dict:
        """Return the checks of ties, wires and eyes: five wires share unevenly, the worst takes three
        tenths.
        """
        c, days = self.course(), 7 * 18 + 3.5
        self.leaf = leaf = Band(20, 0.30, 2.0, 0.0, c["cover"])
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        blown, jute = leaf.pressure * 1.70 * 0.45, 270 * 2 * 0.5 * (1 - 0.5 * days / 140)
        down = (self.capped(3, 1.5 * 1.70) + good - usual) / 1.5 * 0.3
        side = leaf.force * 0.3
        self.load = load = math.hypot(down, side)
        axial = 1 / (1 / (200e9 * math.pi / 4 * 0.002032**2) + 1 / 100e3 / 1.5 / 1.0)
        pull = hand.tight(load, 1.5, 60, axial)
        eye = math.hypot(max(pull, load * 1.5), 0.5 * down * 1.5) * 1.08
        drawn = min(pull, hand.left_at(load, 1.5, 0.03 * 1.5))
        return {
            ("stem-tie", "stem-tie"): (
                math.hypot(good, blown) / 7 * 1.5,
                jute / 2,
                jute * 1.2,
                math.hypot(usual, blown) / 7,
            ),
            ("wire", "main-wire"): (math.hypot(drawn, load * 0.75), *hand.breaks(2.032, 400, 440)),
            ("eye", "eye"): (eye, 500 * self.kept(), 1500 * self.kept()),
        }

    def kept(self) -> float:
        return 1.0

    def test_sheet(self):
        self.assertSheet(self.worked())
        (wire,) = (link for link in self.stand().path() if link.key == "wire")
        self.assertNear(self.one(wire.carries), self.load * 1.5)  # of one bay


class WiresOnATiredFence(WiresOnAWall):
    """The same on a board fence 1.8 m high whose posts give when they are pushed: half of its strength is
    left.
    """

    options = {
        **WiresOnAWall.options,
        "fixed_to": "fence",
        "boards": "closed",
        "fence_height": 1.8,
        "fence_post": "post_lumber_89",
        "fence_spacing": 1.8,
        "fence_depth": 0.6,
        "state": "tired",
    }

    def kept(self) -> float:
        return 0.5

    def test_sheet(self):
        c, s = self.course(), 0.089**3 / 6
        # closed boards up to 1.8 m, behind leaves that go on to 2 m
        sail = Band(20, 0.30, 2.0, 1.0, c["cover"]), Band(20, 0.0, 0.30, 1.0)
        force, at = sum(b.force for b in sail) * 1.8, hand.centre(*sail)
        soil = hand.clay(30e3, 0.089, 0.6, at, 0.05)
        self.assertSheet(
            {
                **self.worked(),
                ("fence-post", "added-sail"): (force * at, s * 12.31e6 / 2, s * 30e6 / 2),
                ("fence-soil", "soil-grip"): (force, soil / 1.5 / 2, soil * 1.33 / 2),
            }
        )


class HopsOnAPole(hand.Sheet):
    """Four hop bines to the top of a steel pole 5 m high, 60 mm, in 1.2 m of concrete, three guys from 3.5 m
    at 55° to screw anchors.
    """

    family = "existing"
    crop, count, spacing = "hops", 4, 1.0
    options = {
        "fixed_to": "pole",
        "pole": "pole_tube_60",
        "pole_top": 5.0,
        "pole_depth": 1.2,
        "guyed": True,
        "string": "sisal_2.5",
        "guy_wire": "wire_soft_9",
        "anchor": "anchor_screw_30x4",
        "base": "peg_wire",
    }

    def test_sheet(self):
        c, days = self.course(), 7 * 18 + 3.5
        leaf = Band(20, 0.20, 5.0, 0.0, c["cover"])
        wide = max(0.5, self.stand().growths[0].crop.depth_m)
        force, at = leaf.pressure * 4.8 * wide, 0.20 + 2.4
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        string = force / 4
        w, above = force / (2 * at), 2 * at - 3.5
        d, wall = 0.0603, 0.0029
        inertia = math.pi / 64 * (d**4 - (d - 2 * wall) ** 4)
        whole = min((d**3 - (d - 2 * wall) ** 3) / 6, 1.6 * inertia * 2 / d)
        foot = force * (1 - at / 3.5)
        soil = hand.pier(30e3, 0.28, 1.2, 0.05)
        tight = force * at / 3.5 / math.cos(math.radians(55))
        self.assertSheet(
            {
                ("string", "string"): (
                    math.hypot(good, string / 2),
                    *hand.knotted(450, days, 0.6),
                    math.hypot(usual, string / 2),
                ),
                ("base", "base"): (0.2 * good, 15, 30, 0.2 * usual),
                ("pole", "tall-pole"): (
                    max(w * 3.5**2 / 8, w * above**2 / 2),
                    whole * 136.6e6,
                    whole * 250e6,
                ),
                ("pole-soil", "soil-grip"): (max(foot, force / 4), soil / 1.5, soil * 1.33),
                ("guy", "guy"): (tight, *hand.breaks(3.767, 400, 440)),
                ("anchor", "anchor"): (tight, 500, 1300),
            }
        )


class BeansOnSunflowers(hand.Sheet):
    """Eight pole beans on three rows of sunflowers 0.3 m apart, polyester round the block at 1.2 m on T-posts
    every 1.2 m.
    """

    family = "living-support"
    crop, count, spacing, planted = "bean-pole", 8, 0.3, "06-01"
    options = {
        "length": 2.4,
        "host": "sunflower",
        "rows": 3,
        "row_spacing": 0.4,
        "host_spacing": 0.3,
        "head_start": 21,
        "backup": "strings",
        "post": "tpost_1.8",
        "post_spacing": 1.2,
        "depth": 0.6,
        "backup_twine": "polyester_3",
    }
    week = 10

    def test_sheet(self):
        c, days = self.course(), 7 * 10 + 3.5
        block = self.stand()
        living = block.living
        cover = 1 - (1 - c["cover"]) * (1 - float(living.cover[10]))
        top = max(c["top"], float(living.top[10]))
        share, at = hand.gust_share(0.20, top)
        shelter = (1 + 0.4 * 2) / 3
        force = 0.62 * share * 245 * 5 / 20 * hand.drag(cover) * (top - 0.20) * 0.3 * shelter
        stems = 3 * 8  # of 0.3 m along 2.4 m less its edges
        vine = (c["shoot_kg"] + c["fruit_kg"]) * 8 / stems
        leans = vine * G * 0.15 * c["top"]
        moment = (force * at + leans) / 2  # the strings take half
        grown = self.one(block.grown)
        plate = 0.43 * 30e3 * 0.18**3 * grown
        on_string = (force * at + leans) / 2 / 1.2 * 3 / 0.3
        post = hand.tee(0.0349, 0.00358)
        moved, turned = hand.rigid_in_clay(2.01e6, 0.6, 1.2)
        give = moved + turned * 1.2 + 1.2**3 / 3 / (200e9 * post["I_other"])
        pull = hand.sliding(on_string, 1.2, 10, 1500 / 0.12, 1 / give, 2)
        worst = max(on_string * 1.2, math.hypot(pull, on_string * 0.6))
        grip = hand.in_loam(0.035, 0.6, 1.2, 0.0105)
        self.assertSheet(
            {
                ("host", "host-stem"): (moment, 80 * grown / 1.5, 80 * grown),
                ("host", "host-carries"): (vine, 1.0, 2.0),
                ("roots", "host-roots"): (moment, plate / 1.5, plate * 1.33),
                ("backup", "run"): (math.hypot(pull, on_string * 0.6), *hand.knotted(1500, days, 0.9)),
                ("post", "post-bending-across"): (worst * 1.2, 207e6 * post["S"], 380e6 * post["Z"]),
                ("soil", "soil-grip"): (worst, grip / 1.5, grip * 1.33),
            }
        )

    def test_hosts_dry(self):
        """A giant sunflower is first cut after 75 to 100 days, dry a fortnight later, and over the next fifty
        days loses 3/10 of its strength and half its leaf (judgement); it was sown 21 days before the beans.
        """
        block, row = self.stand(), self.stand().growths[-1].crop
        self.assertEqual((row.first_low_d, row.first_high_d), FIRST_SUNFLOWER)
        full = max(block.living.cover)
        for week, cover in enumerate(block.living.cover):
            age = block.season.growing_days(0)[week] + 21
            dried = min(max(age - (sum(FIRST_SUNFLOWER) / 2 + 14), 0) / 50, 1)
            with self.subTest(week=week):
                up = self.fully(age, row)
                self.assertNear(float(block.grown[0, week, 0]), max(up, 0.02) * (1 - 0.3 * dried))
                if up > 0.99:
                    self.assertNear(cover, full * (1 - 0.5 * dried), 0.02)

    @staticmethod
    def fully(age: float, row) -> float:
        """Return the logistic course through its half and its 95 %, from nothing."""
        steep = math.log(19) / (row.t95_d - row.t50_d)
        return 0.0 if age <= 0 else 1 / (1 + math.exp(-steep * (age - row.t50_d)))
