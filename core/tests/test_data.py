"""A wrong digit in a table: columns against each other, against physics, and against neighbours where a table
is a curve.
"""

from __future__ import annotations

import csv
import math

import numpy as np
from ascent import tables
from ascent.checks import sections

from tests.support import NearTestCase

DENSITY = {
    "wood": (390, 1350),
    "cane": (350, 1000),
    "metal": (1300, 8100),
}  # kg/m³, dry pine to green sticks, PVC to steel: common practice, no source


def off_the_curve(values: np.ndarray) -> np.ndarray:
    """Return how far each inner value of a column lies from the cubic through its four neighbours, over their
    spread.
    """
    v = np.asarray(values, dtype=float)
    middle = (-v[:-4] + 4 * v[1:-3] + 4 * v[3:-1] - v[4:]) / 6
    spread = np.max([v[i : len(v) - 4 + i] for i in (0, 1, 3, 4)], axis=0) - np.min(
        [v[i : len(v) - 4 + i] for i in (0, 1, 3, 4)], axis=0
    )
    return np.abs(v[2:-2] - middle) / (spread + 0.02 * np.max(np.abs(v)) + 1e-12)


class CurvesTest(NearTestCase):
    def test_bent_panels_lie_on_smooth_curves(self):
        """Each figure of arches.csv over opening and over the height of its ties; the ends of a curve by the
        slope to their neighbours.
        """
        holds, openings, grids = tables.arches()
        self.assertEqual((len(holds), len(openings)), (12, 14))
        for name, grid in grids.items():
            for n, row in enumerate(grid):
                with self.subTest(name, hold=holds[n]):
                    self.assertLess(float(np.max(off_the_curve(row))), SMOOTH.get(name, 0.10))
                    self.steady(row, name)

    def test_clamped_panels_lie_on_smooth_curves(self):
        _, columns = tables.clamped_arches()
        for name, column in columns.items():
            with self.subTest(name):
                self.assertLess(float(np.max(off_the_curve(column))), SMOOTH.get(f"clamped {name}", 0.12))
                self.steady(column, name)

    def steady(self, row: np.ndarray, name: str) -> None:
        """Fail when an end of a curve leaves the line of its neighbours by more than the whole curve spreads
        in two steps.
        """
        if not np.any(row):
            return  # nothing ties
        for a, b, c, d in (row[:4], row[::-1][:4]):
            self.assertLess(
                abs(a - (3 * b - 3 * c + d)),
                STEADY.get(name, 0.12) * (np.ptp(row) + 0.02 * np.max(np.abs(row))),
            )


SMOOTH = {
    "curvature": 0.30,
    "tie_gain": 1.3,
    "clamped curvature": 0.12,
}  # sharpest at the crown or at the legs: a kink
STEADY = {"curvature": 0.22, "tie_gain": 2.0, "tie": 0.3}


RATIOS = (  # of two columns of crops.csv: what nature and trade allow, common practice, no source
    ("height_high_m", "height_m", 1.15, 2.1),
    ("height_m", "height_low_m", 1.15, 2.6),
    ("support_height_m", "height_m", 0.3, 1.7),
    ("spacing_m", "free_spacing_low_m", 0.6, 1.55),
    ("free_spacing_high_m", "free_spacing_low_m", 1.3, 2.55),
    ("shoot_high_kg", "shoot_kg", 1.5, 2.6),
    ("yield_high_kg", "yield_kg", 1.6, 3.1),
    ("free_shoot_kg", "shoot_kg", 1.4, 3.4),
    ("free_shoot_high_kg", "free_shoot_kg", 1.6, 2.1),
    ("free_yield_kg", "yield_kg", 1.15, 1.75),
    ("free_yield_high_kg", "free_yield_kg", 1.7, 2.4),
    ("t95_d", "t50_d", 1.4, 1.85),
    ("first_high_d", "first_low_d", 1.0, 1.5),
    ("first_low_d", "t95_d", 0.6, 1.35),
    ("harvest_high_wk", "harvest_low_wk", 1.0, 2.1),
    ("set_to_pick_d", "first_high_d", 0.08, 0.95),
    ("fruit_heaviest_kg", "fruit_kg", 1.3, 5.0),
    ("fruit_max_mm", "fruit_min_mm", 1.0, 3.6),
    ("depth_m", "spacing_m", 0.3, 5.1),
)


class RowsTest(NearTestCase):
    def rows(self, name: str) -> list[dict[str, str]]:
        with (tables.DATA / f"{name}.csv").open(newline="", encoding="utf-8") as handle:
            return list(csv.DictReader(handle))

    def test_posts_weigh_what_their_section_does(self):
        """Mass per metre over area lies between the lightest and the heaviest of its stuff."""
        for post in tables.posts().values():
            low, high = DENSITY[tables.materials()[post.material].stuff]
            if (
                post.shape != "tee" and "ladder" not in post.key and "spiral" not in post.key
            ):  # a spiral has more length than a straight rod
                with self.subTest(post.key):
                    self.assertTrue(
                        low <= post.kg_m / sections.of_post(post).A <= high,
                        post.kg_m / sections.of_post(post).A,
                    )

    def test_posts_live_and_are_sold_like_posts(self):
        for post in tables.posts().values():
            with self.subTest(post.key):
                self.assertLessEqual(post.life_wet, post.life_dry)
                self.assertGreaterEqual(post.life_wet, 0.3 * post.life_dry)
                self.assertEqual(list(post.lengths_m), sorted(post.lengths_m))
                self.assertTrue(all(0.3 <= long <= 7.3 for long in post.lengths_m))
                self.assertLess(max(post.lengths_m) / min(post.lengths_m), 3.4)
                if post.shape in ("square", "round", "cane") and "winds" not in post.roles:
                    self.assertNear(post.soil_width, post.a, 0.01)

    def numbers(self, name: str) -> list[dict]:
        """Return the rows of a table with what is a number as one."""

        def cell(text: str):
            return float(text) if text.replace(".", "").replace("-", "").isdigit() else text

        return [{head: cell(text) for head, text in row.items()} for row in self.rows(name)]

    def test_crops_keep_their_proportions(self):
        caps = {row["key"]: row for row in self.numbers("face_caps")}
        for crop in self.numbers("crops"):
            for above, below, low, high in RATIOS:
                if (
                    isinstance(crop[above], float)
                    and isinstance(crop[below], float)
                    and crop[below]
                    and crop[above]
                ):
                    with self.subTest(crop["key"], ratio=f"{above}/{below}"):
                        self.assertTrue(low <= crop[above] / crop[below] <= high, crop[above] / crop[below])
            with self.subTest(crop["key"]):
                grown = crop["extension_mm_d"] * crop["t95_d"] / 1000 / crop["height_m"]
                self.assertTrue(0.75 <= grown <= 3.0, f"it grows as tall as it gets: {grown}")
                face = crop["spacing_m"] * max(crop["support_height_m"], 0.3)
                self.assertTrue(
                    0.35 <= crop["shoot_kg"] / face / caps[crop["cap_group"]]["shoot_kg_m2"] <= 2.6,
                    "shoot of a face and what light feeds",
                )
                self.assertTrue(
                    crop["yield_kg"] * crop["hanging_share"] / face
                    <= 1.7 * caps[crop["cap_group"]]["fruit_kg_m2"]
                )
                self.assertTrue(0.15 <= crop["rain_share"] <= 0.25)
                self.assertTrue(0.5 <= crop["cover"] <= 0.9)
                self.assertTrue(all(0 <= crop[each] <= 1 for each in ("hanging_share", "carried_share")))
                if isinstance(crop["face_limit_m2"], float):
                    self.assertTrue(
                        0.5 <= crop["face_limit_m2"] / crop["spacing_m"] / crop["support_height_m"] <= 2.1
                    )

    def test_face_caps_keep_their_proportions(self):
        for cap in self.numbers("face_caps"):
            with self.subTest(cap["key"]):
                self.assertTrue(1.2 <= cap["shoot_high_kg_m2"] / cap["shoot_kg_m2"] <= 2.6)
                self.assertTrue(
                    not cap["fruit_kg_m2"] or 1.2 <= cap["fruit_high_kg_m2"] / cap["fruit_kg_m2"] <= 3.1
                )

    def test_clays_follow_davisson_and_sands_terzaghi(self):
        """Davisson 1970: k = 67 cu; Terzaghi 1955 for sand above and under water: dense 17.6 and 10.7, medium
        6.6 and 4.4, loose 2.2 and 1.3 MN/m³ (from memory).
        """
        sands = {
            "gravelly": (17.6, 10.7),
            "sandy": (6.6, 4.4),
            "loose_tilled": (2.2, 1.3),
            "raised_bed_mix": (2.2, 1.3),
            "potting_mix": (1.1, 0.65),
        }
        for soil in self.numbers("soils"):
            with self.subTest(soil["key"]):
                if soil["model"] == "clay":
                    self.assertNear(soil["modulus_MN"], 67e-3 * soil["cu_kPa"], 0.02)
                    self.assertNear(soil["modulus_saturated_MN"], soil["modulus_MN"] / 2, 0.02)
                    self.assertTrue(16 <= soil["gamma_kN_m3"] <= 20)
                elif soil["key"] in sands:
                    for head, value in zip(
                        ("modulus_MN", "modulus_saturated_MN"), sands[soil["key"]], strict=True
                    ):
                        self.assertNear(soil[head], value, 0.1)
                    self.assertTrue(25 <= soil["phi_deg"] <= 40)
                self.assertTrue(1.0 <= soil["median"] <= 1.4)
                self.assertTrue(0.4 <= soil["saturated"] <= 0.6)
                self.assertTrue(soil["key"] == "straw" or 3 <= soil["skin_kPa"] <= 5)

    def test_wires_and_twines_break_like_their_stuff(self):
        for wire in self.numbers("wires"):
            with self.subTest(wire["key"]):
                self.assertTrue(350 <= wire["break_MPa"] <= 1200)
                self.assertNear(wire["median_MPa"], 1.1 * wire["break_MPa"], 0.01)
                self.assertTrue(wire["E_GPa"] in (82, 150, 195, 200))
                self.assertEqual(wire["factor"], 2)
                self.assertTrue(0.5 <= wire["life_wet"] / wire["life_dry"] <= 1)
        for twine in self.numbers("twines"):
            with self.subTest(twine["key"]):
                stress = twine["break_N"] / (
                    math.pi / 4 * twine["d_mm"] ** 2
                )  # natural fibre 40 to 130, plastic 150 to 350 MPa: common practice, no source
                natural = twine["key"].split("_")[0] in ("jute", "sisal", "hemp", "cotton")
                self.assertTrue((35 <= stress <= 130) if natural else (130 <= stress <= 350), stress)
                self.assertTrue(0.03 <= twine["stretch"] <= 0.30)
                self.assertTrue(0.5 <= twine["season_end"] <= 0.9)

    def test_ties_are_made_of_what_breaks_so(self):
        """Wire of 1.6 mm breaks at 350 MPa or so; a loop of twine is that twine twice, knotted; cable ties
        rise with their width.
        """
        ties = {row["key"]: row for row in self.numbers("ties")}
        twines = {row["key"]: row for row in self.numbers("twines")}
        self.assertNear(ties["tie_wire_16"]["break_N"], 350 * math.pi / 4 * 1.587**2, 0.02)
        for loop, twine in (
            ("twine_sisal_loop", "sisal_2.5"),
            ("twine_jute_3_loop", "jute_3"),
            ("twine_jute_2_loop", "jute_2"),
            ("twine_cotton_loop", "cotton_2"),
        ):
            self.assertEqual(
                (ties[loop]["break_N"], ties[loop]["season_end"]),
                (twines[twine]["break_N"], twines[twine]["season_end"]),
            )
        widths = [
            ties[key]["break_N"]
            for key in (
                "tie_cable_2.5",
                "tie_cable_3.6",
                "tie_cable_4.8_uv",
                "tie_cable_7.6_uv",
                "tie_cable_9.0_uv",
            )
        ]
        self.assertEqual(widths, sorted(widths))
        for tie in ties.values():
            with self.subTest(tie["key"]):
                self.assertTrue(
                    1.0 <= tie["median"] <= 1.5 and tie["factor"] in (1, 2) and tie["strands"] in (1, 2)
                )
                self.assertTrue(0.35 <= tie["season_end"] <= tie["season_new"] <= 1)
                self.assertTrue(0.4 <= tie["life_wet"] / tie["life_dry"] <= 1)

    def test_cages_weigh_what_their_wire_does(self):
        """Legs or uprights as tall as the cage, rings every step of it: within 35 % of the weight of that
        wire.
        """
        for cage in self.numbers("cages"):
            if cage["key"] == "cage_square_fold":
                continue  # its four panels each have uprights of their own
            area = math.pi / 4 * (cage["wire_mm"] / 1000) ** 2
            rings = max(round((cage["height_m"] - cage["leg_m"]) / (cage["up_mm"] / 1000)), 1)
            long = (
                max(cage["legs"], round(math.pi * cage["diameter_m"] / (cage["along_mm"] / 1000)))
                * cage["height_m"]
                + rings * math.pi * cage["diameter_m"]
            )
            with self.subTest(cage["key"], kg=cage["kg"], wire=area * long * 7850):
                self.assertNear(cage["kg"], area * long * 7850, 0.45)
                self.assertNear(cage["median_MPa"], 1.12 * cage["yield_MPa"], 0.06)

    def test_meshes_of_steel_weigh_what_their_wire_does(self):
        for mesh in self.numbers("meshes"):
            if mesh["material"] in ("welded_hard", "welded_soft") and "rack" not in mesh["key"]:
                area = math.pi / 4 * (mesh["wire_mm"] / 1000) ** 2
                with self.subTest(mesh["key"]):
                    self.assertNear(
                        mesh["kg_m2"], area * 7850 * (1000 / mesh["along_mm"] + 1000 / mesh["up_mm"]), 0.3
                    )
            with self.subTest(mesh["key"]):
                self.assertTrue(0.3 <= mesh["life_wet"] / mesh["life_dry"] <= 1)

    def test_fittings_anchors_and_the_rest_stay_in_proportion(self):
        for fitting in self.numbers("fittings"):
            with self.subTest(fitting["key"]):
                self.assertTrue(1 <= fitting["median"] <= 3)
                self.assertTrue(0.3 <= fitting["life_wet"] / fitting["life_dry"] <= 1)
        anchors = {row["key"]: row for row in self.numbers("anchors")}
        for soil in ("loose_N", "loam_N", "clay_N", "gravel_N"):
            held = [
                anchors[key][soil] for key in ("anchor_screw_15x3", "anchor_screw_30x4", "anchor_screw_48x6")
            ]
            self.assertEqual(held, sorted(held))
        for anchor in anchors.values():
            if anchor["loam_N"]:
                self.assertTrue(
                    1.5 <= anchor["loam_N"] / anchor["loose_N"] <= 3
                    and 1 <= anchor["clay_N"] / anchor["loam_N"] <= 4,
                    anchor["key"],
                )
        for row in self.numbers("uncertainties"):
            self.assertTrue(0.25 <= row["low"] < 1 < row["high"] <= 3, row["key"])
            self.assertTrue(0.5 <= row["low"] * row["high"] <= 1.6, "as far below as above, near enough")
        for climate in self.numbers("climates"):
            months = [
                climate[name]
                for name in (
                    "jan",
                    "feb",
                    "mar",
                    "apr",
                    "may",
                    "jun",
                    "jul",
                    "aug",
                    "sep",
                    "oct",
                    "nov",
                    "dec",
                )
            ]
            self.assertTrue(all(0.6 <= month <= 1.5 for month in months), climate["key"])
            steps = np.abs(np.diff([*months, months[0]]))
            self.assertLessEqual(float(np.max(steps)), 0.35, climate["key"])
        gusts = [row["design_gust_m_s"] for row in self.numbers("exposures")]
        self.assertEqual(gusts, [10, 15, 20, 25])

    def test_gauges_thin_by_even_steps(self):
        """Each number of a gauge is 0.84 to 0.95 of the one before it (American steel wire and British
        standard gauges).
        """
        wires: dict[str, list[tuple[float, float]]] = {}
        for row in self.numbers("gauges"):
            wires.setdefault(row["standard"], []).append((row["number"], row["d_mm"]))
        for standard, steps in wires.items():
            for (n0, d0), (n1, d1) in zip(sorted(steps), sorted(steps)[1:], strict=False):
                with self.subTest(standard, number=n1):
                    self.assertTrue(0.84 <= (d1 / d0) ** (1 / (n1 - n0)) <= 0.96, d1 / d0)
