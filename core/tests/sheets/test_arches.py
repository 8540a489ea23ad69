"""Calculation sheets of panel arches: on posts, clamped, on boards, on blocks, buried, and of tubes."""

from __future__ import annotations

import math
from functools import cache

import numpy as np
from ascent.mechanics import rod

from tests.sheets import hand
from tests.sheets.hand import Band, G

D, ARC, WIDE = 0.005715, 4.88, 1.27
WIRES = 8  # along the arch in 1.27 m of 152 mm squares
EI = WIRES * 200e9 * math.pi * D**4 / 64
OWN = 2.31 * WIDE * ARC * G
SOLID = hand.mesh(5.715, 203, 152)


@cache
def bent(span: float, hold: float, clamped: bool = False):
    """Return rise, pushes and sway of a panel, from a chain of 120 links bent to it: its unit is a strip of
    unit length and stiffness.
    """
    if clamped:
        free = ARC - 2 * hold
        shape = rod.bent(span / free, links=120, start=rod.bent(0.5, links=120), clamped=True)
        sway = rod.sway_weight(shape, span / free, 0.0, links=120, clamped=True) * EI / free**3
        turn = shape.clamp * EI / free / hold
        return (
            hold + shape.y.max() * free,
            turn,
            shape.foot * EI / free**2 - turn,
            free / shape.curvature,
            sway,
            None,
        )
    shape = rod.bent(span / ARC, links=120)
    for held in np.linspace(0.02, hold / ARC, 6) if hold else ():
        shape = rod.bent(span / ARC, float(held), links=120, start=shape)
    sway = rod.sway_weight(shape, span / ARC, hold / ARC, links=120)
    one = shape
    for share in (0.05, 0.1, 0.15, 0.2):
        one = rod.bent(span / ARC, hold / ARC, share * sway, 0.0, 120, one)
    gain = (max(one.tie, one.other_tie, key=abs) - shape.tie) / (0.2 * sway) * ARC
    return (
        shape.y.max() * ARC,
        shape.foot * EI / ARC**2,
        shape.tie * EI / ARC**2,
        ARC / shape.curvature,
        sway * EI / ARC**3,
        gain,
    )


class Arch(hand.Sheet):
    """A panel 4.88 × 1.27 m over 1.22 m of path, tied upright at 0.91 m to light T-posts 0.6 m deep,
    butternut up both sides.
    """

    family = "panel-arch"
    crop, count, spacing, side, planted = "butternut", 4, 0.6, "both", "05-20"
    options: dict = {
        "panel": "panel_large",
        "panel_length": 4.88,
        "panel_width": 1.27,
        "panels": 1,
        "span": 1.22,
        "hold_height": 0.91,
        "foot": "posts",
        "post": "tpost_light_1.5",
        "depth": 0.6,
        "tie": "tie_wire_16_double",
        "ties_per_post": 2,
        "sling": "sling_knotted",
    }
    week = 13
    span, hold, plants, clamped, sunk, panels = 1.22, 0.91, 4, False, 0.0, 1

    def carried(self) -> dict:
        """Return the checks of sling and panel, and keep the wind and what the feet take."""
        c = self.course()
        rise, self.foot, self.tie, radius, sway, self.gain = bent(self.span, self.hold, self.clamped)
        rise -= self.sunk
        self.good, self.usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        self.hanging = self.capped(self.plants, WIDE * ARC) + self.good - self.usual
        # the wind sees one side's leaves, which have climbed half the arc by now: up to the crown
        leaf = 0.85 * c["grown"]
        bands = [Band(20, 0.20, rise, SOLID, leaf), Band(20, 0.0, 0.20, SOLID)]
        self.rise_ = rise
        share, _ = hand.gust_share(0.20, rise)
        tall = rise - 0.20
        total = WIDE * self.panels - 0.2 * (self.panels - 1)
        skin = 0.10 * share * 245 * hand.streaming(20) * tall * leaf / 0.95
        self.along = 2 * (
            Band(20, 0.20, rise, 0.0, leaf).pressure * tall * self.stand().growths[0].crop.depth_m
            + skin * total
        )
        self.at, self.across, self.pressure = (
            hand.centre(*bands),
            sum(b.force for b in bands) * WIDE,
            bands[0].pressure,
        )
        weight = (self.hanging + OWN) / ARC
        crowned = (OWN + self.hanging * (1 + (0.4 - 1 / 3) * (1 / 0.53 - 1))) / ARC
        z = D**3 / 6
        bears = WIRES * 0.6 * 450e6 * z, WIRES * 520e6 * z
        hinges = 4
        blown = self.across * max(self.at - self.hold, 0.1) / (1 - weight / sway)
        self.lift = max(self.across * self.at - OWN * self.span / 2, 0) / self.span
        weld = 241e6 * math.pi / 4 * D**2
        return {
            ("sling", "sling"): (3 * 2.5 * G, 390, 390, 1.5 * 2.5 * G),
            ("sling", "mesh-weld"): (3 * 2.5 * G, weld / 2, weld * 1.4),
            ("panel", "arch-sway"): (weight, sway / 1.9, sway),
            ("panel", "arch-crown"): (crowned, sway / 1.9, sway),
            ("panel", "arch-bend"): (40 * D, radius, 1.6 * radius),
            ("panel", "arch-blown"): (blown, hinges * bears[0], hinges * bears[1]),
        }


class ArchOnPosts(Arch):
    def test_sheet(self):
        rows = self.carried()
        more = self.gain * self.hanging / (ARC / 2) / 2 if self.gain else 0.0
        push = self.tie + more if abs(self.tie + more) > abs(self.tie) else self.tie
        self.assertSheet({**rows, **self.on_posts(push, 2, 0.91)}, 0.02)

    def on_posts(
        self,
        push: float,
        legs: int,
        lever: float,
        tie: tuple[float, float] = (693 * 2 * 0.7 / 2, 693 * 2 * 0.7 * 1.1),
        posts: int = 4,
    ) -> dict:
        """Return the checks of ties, posts and their hold in the soil, of so many posts on each side."""
        each, blown = push / legs, self.across / 2 / legs
        pulled = max(blown - each, 0) if each > 0 else abs(each) + blown
        force = abs(each) + blown
        post = hand.tee(0.0349, 0.00335)
        first, full, other, full_other = (
            207e6 * post["S"],
            380e6 * post["Z"],
            207e6 * post["Z_other"],
            380e6 * post["Z_other"],
        )
        grip = hand.in_loam(0.035, 0.6, lever, 0.0105)
        skin = 5e3 * 4 * 0.0349 * (0.6 - 0.15)
        lift = self.lift / legs
        both = [math.hypot(lift / s, force / g) for s, g in ((skin / 2, grip / 1.5), (skin * 2, grip * 1.33))]
        return {
            ("tie", "arch-tie"): (pulled * 1.5 / 2, *tie, pulled / 2),
            ("post", "post-bending-across"): (force * lever, first, full),
            ("post", "end-post-lasting"): (abs(each) * lever, other, full_other),
            ("post", "post-bending-along"): (self.along * lever / posts, other, full_other),
            ("soil", "soil-grip"): (force, grip / 1.5, grip * 1.33),
            ("soil", "soil-lasting"): (abs(each), grip / 2, grip * 1.33),
            ("hold-down", "uplift"): (lift, skin / 2, skin * 2),
            ("hold-down", "pulled-and-pushed"): (both[0], 1, 1, both[1]),
        }


class ClampedArch(ArchOnPosts):
    """The same held straight all the way up to 0.91 m."""

    options = {**Arch.options, "hold": "clamped"}
    clamped = True

    def test_sheet(self):
        rows = self.carried()
        gain = self.thrust_gain() * self.hanging / (ARC / 2) / 2
        push = max(self.tie, self.tie + gain, key=abs)
        self.assertSheet({**rows, **self.on_posts(push, 2, 0.91)}, 0.02)

    def thrust_gain(self) -> float:
        """Return what a metre's weight on one half adds to the push at a leg's top: H − M/h."""
        free, opening = ARC - 1.82, 1.22 / (ARC - 1.82)
        bare = rod.bent(opening, links=120, start=rod.bent(0.5, links=120), clamped=True)
        some = 0.2 * rod.sway_weight(bare, opening, 0.0, links=120, clamped=True)
        one = bare
        for share in (0.25, 0.5, 0.75, 1.0):
            one = rod.bent(opening, 0.0, some * share, 0.0, 120, one, clamped=True)
        return (one.foot - bare.foot) / some * free - (one.clamp - bare.clamp) / some * free**2 / 0.91


class ArchOnBoards(Arch):
    """Two panels lapped by 0.2 m, sprung between the boards of a raised bed 0.3 m high, strings hung
    inside.
    """

    count = 8
    bed = {"kind": "raised", "fill_depth": 0.3, "width": 1.2}
    options = {
        **Arch.options,
        "panels": 2,
        "overlap": 0.2,
        "foot": "board",
        "span": 1.2,
        "strung": "inside",
        "string": "sisal_2.5",
        "board": "post_lumber_38x140",
        "cleat": "cleat_wood",
        "lap_tie": "tie_cable_7.6_uv",
        "stem_tie": "clip_spring_small",
    }
    span, hold, plants, panels = 1.2, 0.3, 4, 2

    def test_sheet(self):
        rows, days = self.carried(), 7 * 13 + 3.5
        more = self.gain * self.hanging / (ARC / 2) / 2
        push = max(self.tie, self.tie + more, key=abs)
        thrust = abs(self.foot + push) + self.across / 2
        blown = self.pressure * (self.rise_ - 0.20) * 0.6
        s = 0.140 * 0.038**2 / 6
        self.assertSheet(
            {
                **rows,
                ("string", "string"): (
                    math.hypot(self.good, blown / 2),
                    *hand.knotted(450, days, 0.6),
                    math.hypot(self.usual, blown / 2),
                ),
                ("lap", "arch-lap"): (
                    self.across / 4 / 10 * 1.5,
                    540 * 0.6 / 2,
                    540 * 0.6 * 1.25,
                    self.across / 4 / 10,
                ),
                ("cleat", "cleats"): (math.hypot(thrust, self.lift) / 2, 600, 1200),
                ("board", "board"): (
                    abs(self.foot + push) / 4 * (12 - WIDE / 2),
                    s * 7.67e6,
                    s * 26e6 * 7.67 / 10.67,
                ),
            },
            0.02,
        )


class ArchOnBlocks(Arch):
    """The same panel alone against two courses of filled blocks."""

    count = 8
    options = {**Arch.options, "foot": "block", "courses": 2, "span": 1.2}
    span, hold, plants = 1.2, 0.38, 4

    def test_sheet(self):
        rows = self.carried()
        more = self.gain * self.hanging / (ARC / 2) / 2
        push = max(self.tie, self.tie + more, key=abs)
        thrust, weight = abs(self.foot + push) + self.across / 2, 4 * 27 * G
        self.assertSheet(
            {
                **rows,
                ("block", "slides"): (thrust, weight * 0.45 / 1.5, weight * 0.45 * 1.3),
                ("block", "lifts"): (self.lift, weight / 1.5, weight),
            },
            0.02,
        )


class BuriedArch(Arch):
    """The same with its ends 0.3 m in the soil, each wire a little post."""

    count = 8
    options = {**Arch.options, "foot": "buried", "span": 1.4, "buried": 0.3}
    span, hold, plants, sunk = 1.4, 0.3, 4, 0.3

    def test_sheet(self):
        rows = self.carried()
        more = self.gain * self.hanging / (ARC / 2) / 2
        push = max(self.tie, self.tie + more, key=abs)
        grip = WIRES * hand.clay(30e3, D, 0.3, 0.0, 0.05)
        skin = WIRES * 5e3 * math.pi * D * 0.25
        self.assertSheet(
            {
                **rows,
                ("buried", "buried-grip"): (
                    max(abs(push), abs(self.foot)) + self.across / 2,
                    grip / 1.5,
                    grip * 1.33,
                ),
                ("buried", "buried-lift"): (self.lift, skin / 2, skin * 2),
            },
            0.02,
        )


class TubeArches(ArchOnPosts):
    """Three tube arches 16 mm, 1.5 m wide and 2.2 m high, a metre apart, clad 2 m up, kept upright by posts
    to 0.5 m.
    """

    count = 8
    options = {
        "frame": "tubes",
        "tube": "tube_arch_16",
        "foot": "posts",
        "post": "tpost_light_1.5",
        "depth": 0.6,
        "span": 1.5,
        "tube_rise": 2.2,
        "arches": 3,
        "arch_spacing": 1.0,
        "hold_height": 0.5,
        "clad": 2.0,
        "over_gap": 0.25,
        "clad_tie": "tie_cable_7.6_uv",
        "over_wire": "wire_soft_14",
        "tie": "clip_tpost",
        "ties_per_post": 2,
        "sling": "sling_knotted",
    }

    def test_sheet(self):
        c = self.course()
        arc = math.pi * 0.75 + 2 * (2.2 - 0.75)
        good, usual = c["high_kg"] * G, (c["shoot_kg"] + c["fruit_kg"]) * G
        hanging = self.capped(4, 1.0 * arc) + good - usual
        tube = hand.item("posts", "tube_arch_16")
        own = (tube.kg_m * arc + 2.31 * 1.0 * 2 * 2.0) * G
        leaf = 0.85 * c["grown"]
        bands = [Band(20, 0.20, 2.2, SOLID, leaf), Band(20, 0.0, 0.20, SOLID)]
        at, self.across = hand.centre(*bands), sum(b.force for b in bands)
        share, _ = hand.gust_share(0.20, 2.2)
        skin = 0.10 * share * 245 * hand.streaming(20) * 2.0 * leaf / 0.95
        self.along = 2 * (
            Band(20, 0.20, 2.2, 0.0, leaf).pressure * 2.0 * self.stand().growths[0].crop.depth_m + skin * 2.0
        )
        self.lift = max(self.across * at - own * 0.75, 0) / 1.5
        d, wall = tube.a, tube.b
        inertia = math.pi / 64 * (d**4 - (d - 2 * wall) ** 4)
        whole = min((d**3 - (d - 2 * wall) ** 3) / 6, 1.6 * inertia * 2 / d)
        weight = hanging + own
        critical = 2 * math.pi**2 * 200e9 * inertia / 1.7**2
        crown = weight * 1.5 * (0.5 - 1 / math.pi) / 2
        bend = self.across / 2 * (at - 0.5) / 2 / (1 - weight / critical) + crown
        count = 2 * (math.ceil(2.0 / 0.30) + 1)
        blown, down = self.across / count * 1.5, hanging / count * 1.5
        lines = math.ceil((arc - 4.0) / 0.25) - 1
        on_line = hanging * 0.4 / 1.0 / lines
        tie = 540 * 0.6 / 2, 540 * 0.6 * 1.25
        weld = 241e6 * math.pi / 4 * D**2
        self.assertSheet(
            {
                ("sling", "sling"): (3 * 2.5 * G, 390, 390, 1.5 * 2.5 * G),
                ("sling", "mesh-weld"): (3 * 2.5 * G, weld / 2, weld * 1.4),
                ("clad", "mesh-tie"): (math.hypot(blown, down), *tie, math.hypot(blown, down) / 1.5),
                ("clad", "main-wire"): (
                    math.hypot(min(on_line / 8 / 0.05, hand.left_at(on_line, 1.0, 0.03)), on_line / 2),
                    *hand.breaks(2.032, 400, 440),
                ),
                ("tube", "arch-tube"): (bend, whole * 138e6, whole * 260e6),
                ("tube", "arch-tube-sway"): (weight, critical / 1.9, critical),
                **self.on_posts(weight / math.pi, 1, 0.5 + (at - 0.5) / 2, (300, 900), 6),
            },
            0.015,
        )
