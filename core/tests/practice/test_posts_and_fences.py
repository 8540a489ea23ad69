"""What growers' structures do, with the structures handbook's numbers (section 14).

Facts are common practice, no source; the numbers beside them are the handbook's reference calculation.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from ascent import tables
from ascent.analysis.crossings import first_crossing
from ascent.analysis.design import design_of
from ascent.checks import bending, embedment
from ascent.loads import cases, face

from tests.support import NearTestCase, fence, handbooks, site


class Face(NamedTuple):
    """A leafy face on one post."""

    width: float
    height: float
    centre: float
    leaf: float
    mesh: float = 0.0


class Found(NamedTuple):
    """Force and uses at 15 m/s, and the limit gust."""

    force: float
    bending: float
    soil: float
    limit: float


def on_post(
    key: str, depth: float, leafy: Face, soil: str, saturated: bool = False, factors: bool = True
) -> Found:
    """Return what a post under a leafy face does in a soil, a steel one's 1/0.6 and the soil's 1.5 in it or
    not.
    """
    gusts = np.unique(np.append(cases.GUSTS, 15.0))
    grid, post, state = (
        cases.Cases(gusts.reshape(1, 1, -1), np.ones((1, 1, 1)), np.array([0.0, 1.0]).reshape(2, 1, 1)),
        tables.posts()[key],
        int(saturated),
    )
    force = (
        face.leafy_pressure(grid.gust, leafy.mesh, np.full((1, 1, 1), leafy.leaf))
        * leafy.width
        * leafy.height
    )
    height = np.full((1, 1, 1), leafy.centre)
    ground = handbooks(soil)
    checks = (
        bending.post_across(post, force, height, np.ones((1, 1, 1))),
        embedment.grip("soil-grip", ground, post, depth, force, height, grid),
    )
    shares = (1.0, 1.0) if factors else (0.6, 1 / 1.5)
    uses = [
        np.broadcast_to(c.utilisation * share, (2, 1, len(gusts)))[state, 0]
        for c, share in zip(checks, shares, strict=True)
    ]
    limit = first_crossing(np.maximum(*uses)[None], grid.gust[0, 0])[0]
    at = int(np.argmin(np.abs(grid.gust[0, 0] - 15.0)))
    return Found(float(force[0, 0, at]), float(uses[0][at]), float(uses[1][at]), float(limit))


class BeefsteakOnATPostTest(NearTestCase):
    """14.1 Beefsteak on an 8-ft T-post, 2 ft in: holds at 15 m/s in moist firm loam (common practice, no
    source).
    """

    FACE = Face(0.55, 1.6, 1.0, 0.65)

    def test_uses_at_fifteen(self):
        found = on_post("tpost_2.4", 0.6, self.FACE, "firm_loam")
        self.assertNear(found.force, 98.3)
        self.assertNear(found.bending, 0.43)
        self.assertAlmostEqual(found.soil, 0.30, delta=0.005)
        for soil, use in (("sandy", 1.06), ("loose_tilled", 1.53), ("raised_bed_mix", 2.07)):
            self.assertNear(on_post("tpost_2.4", 0.6, self.FACE, soil).soil, use)
        self.assertNear(on_post("tpost_2.4", 0.6, self.FACE, "firm_loam", saturated=True).soil, 0.59)

    def test_limit_gusts(self):
        for soil, saturated, limit, bare in (
            ("firm_loam", False, 25.3, 34.9),
            ("firm_loam", True, 20.8, 26.8),
            ("sandy", False, 14.5, 18.7),
            ("loose_tilled", False, 11.5, 14.8),
        ):
            self.assertNear(on_post("tpost_2.4", 0.6, self.FACE, soil, saturated).limit, limit)
            self.assertNear(on_post("tpost_2.4", 0.6, self.FACE, soil, saturated, factors=False).limit, bare)


class MeshFenceTest(NearTestCase):
    """14.2 posts 0.9–1.2 m apart, 7-ft posts 1.5 ft in: holds; 3.6 m apart or on 15 mm canes: falls short
    (common practice, no source).
    """

    CASES = [
        # post, spacing, depth, force, bending, soil, moist, saturated, sandy, without factors
        ("tpost_2.1", 1.07, 0.46, 170.4, 0.69, 0.80, 17.1, 11.3, 7.1, 21.9),
        ("tpost_2.1", 1.2, 0.46, 191.1, 0.78, 0.90, 16.0, 10.5, 6.7, 20.4),
        ("tpost_2.1", 1.2, 0.60, 191.1, 0.78, 0.54, 17.5, 14.3, 10.0, 23.8),
        ("tpost_2.1", 2.4, 0.46, 382.1, 1.55, 1.80, 10.5, 7.1, 4.7, 13.4),
        ("tpost_2.1", 3.6, 0.46, 573.2, 2.33, 2.70, 8.2, 5.8, 3.9, 10.5),
    ]

    def test_table(self):
        for post, spacing, depth, force, bent, soil, moist, soaked, sandy, bare in self.CASES:
            with self.subTest(spacing=spacing, depth=depth):
                leafy = Face(spacing, 1.45, 0.925, 0.6, 0.05)
                found = on_post(post, depth, leafy, "firm_loam")
                self.assertNear(found.force, force)
                self.assertNear(found.bending, bent)
                self.assertNear(found.soil, soil)
                limits = [
                    (found.limit, moist),
                    (on_post(post, depth, leafy, "firm_loam", saturated=True).limit, soaked),
                    (on_post(post, depth, leafy, "sandy").limit, sandy),
                    (on_post(post, depth, leafy, "firm_loam", factors=False).limit, bare),
                ]
                for limit, expected in limits:  # the handbook rounds to 0.1 m/s
                    self.assertAlmostEqual(limit, expected, delta=0.06)

    def test_a_cane_is_no_fence_post(self):
        """The handbook's 15 mm cane: limit 3.3 m/s. Ours is 16 mm, which the fourth power makes a fifth
        stiffer: under 4.2.
        """
        limit = on_post("cane_16", 0.46, Face(1.07, 1.45, 0.925, 0.6, 0.05), "firm_loam").limit
        self.assertTrue(3.3 < limit < 4.2, limit)

    def test_the_whole_structure_holds_at_practice_spacing_and_falls_short_wide_or_on_canes(self):
        """The same through the product: pruned tomatoes, 15 m/s, moist firm loam; the posts and their grip
        decide.
        """
        for bay in (0.9, 1.2):
            self.assertNotEqual(
                design_of(site(), fence(post_spacing=bay, post="tpost_2.1", depth=0.45)).state,
                "inadequate",
                bay,
            )
        for changes in (
            {"post_spacing": 3.6, "length": 7.2},
            {"post": "cane_16", "tie": "tie_wire_16_double"},
        ):
            found = design_of(site(), fence(**{"post": "tpost_2.1", **changes}))
            self.assertEqual(found.state, "inadequate", changes)
            self.assertLess(float(np.min(found.limit[0])), 10.0)

    def test_one_bay_on_two_posts_stands_where_a_row_of_such_bays_does_not(self):
        """14.2, last lines: fences of one 2.4 m bay on two posts stand for years (common practice, no
        source).

        The handbook's limit of 10.5 m/s is that of an inner post with a bay on either side; across the
        fence the two posts of a single bay carry half a bay each. What remains is the belly's pull, which a
        middle post cures; docs/method.md says what the model leaves out there.
        """
        single = design_of(site(), fence(count=4, length=2.4, post_spacing=2.4, depth=0.6))
        row = design_of(site(), fence(count=12, length=7.2, post_spacing=2.4, depth=0.6))
        for link in ("post", "soil"):
            self.assertGreater(float(np.min(single.limits[link][0])), 15.0)
        halved = design_of(site(), fence(count=4, length=2.4, post_spacing=1.2, depth=0.6))
        self.assertGreater(float(np.min(halved.limit[0])), 15.0)
        self.assertLess(float(np.min(row.limits["post"][0])), 0.75 * float(np.min(single.limits["post"][0])))


class LightPostTest(NearTestCase):
    """14.16 'at least a foot' for a light post is right to about 1.2 m of crop in firm ground only (common
    practice, no source).
    """

    def test_limits_by_height(self):
        """Canopy 0.4 m wide, leaf 0.5, twice z high; b 30 mm, 0.3 m deep. The handbook rounds to 1 m/s, so
        half is allowed.
        """
        for soil, limits in (
            ("firm_loam", (28, 19, 14, 10)),
            ("sandy", (11, 7, 6, 5)),
            ("raised_bed_mix", (7, 5, 4, 3)),
        ):
            ground = handbooks(soil)
            post = next(row for row in tables.posts().values() if row.key == "post_hw_stake_25")
            wide = type(post)(**{**post.__dict__, "soil_width": 0.030})
            for z, expected in zip((0.3, 0.45, 0.6, 0.8), limits, strict=True):
                with self.subTest(soil, z=z):
                    grid = cases.rising_gusts()
                    force = face.leafy_pressure(grid.gust, 0.0, np.full((1, 1, 1), 0.5)) * 0.4 * 2 * z
                    use = embedment.grip(
                        "soil-grip", ground, wide, 0.3, force, np.full((1, 1, 1), z), grid
                    ).utilisation
                    found = float(first_crossing(use[0, 0][None], cases.GUSTS)[0])
                    self.assertAlmostEqual(found, expected, delta=0.55)


class PersonTest(NearTestCase):
    def test_a_person_pulls_a_post(self):
        """14.20: 0.3 kN at 1.2 m: T-post 0.6 m deep bending 1.58, soil 1.03; 38 × 38 3.2; 89 × 89 0.25."""
        self.assertNear(bending.person_pull(tables.posts()["tpost_2.1"], 1.5).utilisation, 1.58)
        self.assertNear(bending.person_pull(tables.posts()["post_lumber_89"], 1.5).utilisation, 0.25)
        graded = tables.materials()["spf_graded"].allow_gust / tables.materials()["softwood_stake"].allow_gust
        self.assertNear(
            bending.person_pull(tables.posts()["post_sw_stake_38"], 1.5).utilisation / graded, 3.2
        )
        ground, post = handbooks(), tables.posts()["tpost_2.1"]
        moist = cases.moist_gusts()
        grip = embedment.grip(
            "person-pull-grip", ground, post, 0.6, np.full((1, 1, 1), 300.0), np.full((1, 1, 1), 1.2), moist
        )
        self.assertNear(grip.utilisation, 1.03)


class CucumberBayTest(NearTestCase):
    def test_one_tie_at_the_top_does_not_hold_a_bay(self):
        """14.13: a 2.4 m bay of cucumbers hangs 207 N on an inner post at 11 kg; two aged 3.6 mm cable ties
        that work at 54 N do not hold it.
        """
        found = design_of(
            site(exposure="sheltered"),
            fence(
                "cuc-slice",
                24,
                0.30,
                mesh="mesh_conc_150_5",
                mesh_height=1.2,
                post_spacing=2.4,
                length=7.2,
                tie="tie_cable_3.6",
                ties_per_post=2,
            ),
        )
        self.assertGreater(found.utilisation_of("mesh-tie", found.worst_week), 1.0)

    def test_a_stiff_panel_that_stands_on_the_ground_hangs_nothing_on_its_ties(self):
        """14.13: panel of 4 mm wire or more touching the ground: vertical demand on ties is zero (common
        practice, no source).
        """
        standing = design_of(site(), fence(mesh="panel_large", mesh_height=1.27, bottom_gap=0.0))
        hung = design_of(site(), fence(mesh="panel_large", mesh_height=1.27, bottom_gap=0.15))
        still = [
            float(
                np.max(
                    np.broadcast_to(
                        next(link for link in e.links if link.key == "mesh-tie").utilisation,
                        (2, e.season.weeks, 3),
                    )[0, :, 0]
                )
            )
            for e in (standing, hung)
        ]
        self.assertEqual(still[0], 0.0)
        self.assertGreater(still[1], 0.1)
