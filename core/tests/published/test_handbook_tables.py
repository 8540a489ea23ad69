"""The project's tables against the handbooks' own, cell by cell: crops handbook 1 and 5.5, parts handbook 2.

The handbooks' tables lie in `handbook/` as they stand there; what the project knowingly has otherwise is
named in `OTHERWISE` with its reason.
"""

import csv
import re
import unittest
from collections.abc import Iterator
from pathlib import Path

DATA = Path(__file__).parents[2] / "ascent" / "data"
HANDBOOK = Path(__file__).parent / "handbook"

_NEAR = 0.02  # a grid of six inches is said as 150 mm

# the beginning of a handbook column: the project's columns whose numbers stand in it, in their order
CROPS = {
    "height or vine length": ("height_low_m", "height_m", "height_high_m"),
    "support height": ("support_height_m",),
    "in-row spacing on a support": ("spacing_m",),
    "in-row, unpruned": ("free_spacing_low_m", "free_spacing_high_m"),
    "thickest strand": ("strand_max_mm",),
    "mesh opening": ("opening_min_mm",),
    "fruit diameter": ("fruit_min_mm", "fruit_max_mm"),
    "single fruit kg": ("fruit_kg", "fruit_heaviest_kg"),
    "fresh shoot mass without": ("shoot_kg", "shoot_high_kg"),
    "same, unpruned": ("free_shoot_kg", "free_shoot_high_kg"),
    "marketable yield": ("yield_kg", "yield_high_kg"),
    "yield, unpruned": ("free_yield_kg", "free_yield_high_kg"),
    "share of yield": ("hanging_share",),
    "share of shoot": ("carried_share",),
    "canopy depth": ("depth_m",),
    "leaf cover": ("cover",),
    "days to 50": ("t50_d",),
    "days to 95": ("t95_d",),
    "peak extension": ("extension_mm_d",),
    # its days to first picks are those of catalogues: ours are fitted to planting guides (guides.py)
    "harvest length": ("harvest_low_wk", "harvest_high_wk"),
    "plant or sow": ("plant_low_d", "plant_high_d"),
}
CAPS = {
    "fresh shoot mass per m²": ("shoot_kg_m2", "shoot_high_kg_m2"),
    "fruit hanging at once per m²": ("fruit_kg_m2", "fruit_high_kg_m2"),
}
PARTS = {
    "posts": {
        "size mm": ("a_mm", "b_mm"),
        "stock lengths": ("lengths_m",),
        "kg/m": ("kg_m",),
        "life": ("life_dry", "life_wet"),
    },
    "meshes": {
        "wire d": ("wire_mm",),
        "openings": ("along_mm", "up_mm"),
        "kg/m²": ("kg_m2",),
        "life": ("life_dry", "life_wet"),
    },
    "cages": {"life": ("life_dry", "life_wet"), "mass kg": ("kg",), "price": ("price",)},
    "wires": {
        "d mm": ("d_mm",),
        "pack m": ("packs_m",),
        "life": ("life_dry", "life_wet"),
        "price": ("price_m",),
    },
    "twines": {
        "d mm": ("d_mm",),
        "break N": ("break_N",),
        "stretch": ("stretch",),
        "season left": ("season_end",),
        "pack m": ("packs_m",),
        "price": ("price_m",),
    },
    "ties": {"loop strength": ("break_N",), "life": ("life_dry", "life_wet"), "price": ("price",)},
    "fittings": {"working load": ("working_N",), "life": ("life_dry", "life_wet"), "price": ("price",)},
}
RENAMED = {
    "jute_2mm": "jute_2",
    "jute_3mm": "jute_3",
    "sisal_2.5mm": "sisal_2.5",
    "hemp_2mm": "hemp_2",
    "cotton_2mm": "cotton_2",
    "pp_baler_heavy_4000": "pp_baler_4000",
    "pp_greenhouse_1000": "pp_greenhouse",
    "nylon_3mm": "nylon_3",
    "masons_nylon_1.5mm": "masons_nylon_1.5",
    "polyester_3mm": "polyester_3",
    "cord_550": "cord_4",
    "clip_spool_hook": "hook_spool",
    "sling_net_knotted": "sling_knotted",
    "screw_deck_64": "screw_64",
    "screw_deck_76": "screw_76",
    "screw_deck_100": "screw_100",
}
CAPPED = {
    "melon, small watermelon": "melon",
    "tomato and tomatillo": "tomato",
    "cucumber, bitter melon": "cucumber",
    "peas, sweet pea": "pea",
    "sweet potato vine": "sweet-potato",
    "brambles": "bramble",
}
# what the project has otherwise, and why
OTHERWISE = {
    ("luffa", "days to first"): "the handbook's 130 to 180 are for sponges",
    ("post_round_75", "kg/m"): "as treated",
    ("pole_telescopic", "kg/m"): "the handbook has the whole pole",
    ("wire_barbed_125", "d mm"): "one wire of the two strands' area",
    ("wire_coated_garden_2", "d mm"): "the core, which alone carries",
    ("cage_hex_40", "mass kg"): "with its canes",
    ("tie_wire_16_double", "loop strength"): "of one strand; strands and knot are counted apart",
    ("tie_copper", "loop strength"): "of one strand; the knot is counted apart",
    ("clip_spring_small", "loop strength"): "the handbook has its working load",
    ("clip_spring_large", "loop strength"): "the handbook has its working load",
    ("tie_copper", "price"): "by the length it is sold in",
    ("tie_soft_tube", "price"): "by the length it is sold in",
    ("tie_wire_16_double", "price"): "by the length it is sold in",
    ("tpost_light_1.5", "size mm"): "the thickness is the T-post standard's",
    ("pole_telescopic", "size mm"): "the thickness is a guess of the project's",
    ("stake_spiral_10", "size mm"): "as a rod of seven tenths of its strength",
    ("tube_alu_25", "size mm"): "side and wall",
    ("pole_hazel_25", "size mm"): "between its butt and its tip",
}


def project(name: str) -> dict[str, dict[str, str]]:
    """Return the rows of a table of the project as they stand in its file."""
    with (DATA / f"{name}.csv").open(encoding="utf-8") as file:
        return {row["key"]: row for row in csv.DictReader(file)}


def handbook(name: str) -> Iterator[dict[str, str]]:
    """Yield every row of every table of a handbook."""
    heads: list[str] = []
    for line in (HANDBOOK / f"{name}.md").read_text(encoding="utf-8").splitlines():
        if not line.startswith("|"):
            heads = []
            continue
        cells = [cell.strip() for cell in line.strip("|").split("|")]
        if not heads:
            heads = cells
        elif not set(cells[0]) <= {"-"}:
            yield dict(zip(heads, cells, strict=False))


def numbers(cell: str) -> list[float]:
    """Return the numbers of a cell: a dash between two is no minus."""
    plain = re.sub(r"\([^)]*\)", "", cell).translate(str.maketrans("–…Ø", "   "))
    return [float(found.replace("−", "-")) for found in re.findall(r"(?<![\w.])[−-]?\d+(?:\.\d+)?", plain)]


def differences(
    ours: dict[str, str], row: dict[str, str], columns: dict[str, tuple[str, ...]]
) -> Iterator[str]:
    """Yield what a row of the project has that lies outside what the handbook's says, nearly."""
    for start, names in columns.items():
        cell = next((cell for head, cell in row.items() if head.startswith(start)), "")
        said = [number / (100 if start == "stretch" else 1) for number in numbers(cell)]
        if not said or (ours["key"], start) in OTHERWISE:
            continue
        exact = start == "size mm" or (len(names) == len(said) and start != "openings")
        for n, name in enumerate(names[: len(said)] if start == "size mm" else names):
            for number in map(float, ours[name].split()):
                low, high = (said[n], said[n]) if exact else (min(said), max(said))
                if not low - _NEAR * abs(low) <= number <= high + _NEAR * abs(high):
                    yield f"{ours['key']}: {name} is {number:g}, the handbook says {cell}"


class HandbookTablesTest(unittest.TestCase):
    def same(self, table: str, book: str, columns, renamed: dict[str, str], least: int) -> None:
        ours, found, seen = project(table), [], set()
        for row in handbook(book):
            key = next(iter(row.values()))
            if (mine := ours.get(renamed.get(key, key))) and any(
                head.startswith(start) for head in row for start in columns
            ):
                found += differences(mine, row, columns)
                seen.add(mine["key"])
        # what the handbook calls free costs nothing out of one's own shed, and a shop's price otherwise
        found = [each for each in found if not each.endswith("price_m is 0.02, the handbook says 0")]
        self.assertGreaterEqual(len(seen), least)
        self.assertEqual(found, [], "\n".join(found))

    def test_crops(self):
        self.same("crops", "crops", CROPS, {}, 43)

    def test_face_caps(self):
        self.same("face_caps", "crops", CAPS, CAPPED, 7)

    def test_parts(self):
        for table, least in (
            ("posts", 50),
            ("meshes", 22),
            ("cages", 7),
            ("wires", 13),
            ("twines", 15),
            ("ties", 14),
            ("fittings", 20),
        ):
            with self.subTest(table):
                self.same(table, "parts", PARTS[table], RENAMED, least)

    def test_anchors(self):
        ours = project("anchors")
        for row in handbook("parts"):
            said = next((cell for head, cell in row.items() if head.startswith("working load N (soil)")), "")
            for name, word in (
                ("loose_N", "loose bed"),
                ("loam_N", "medium loam"),
                ("gravel_N", "dense gravelly"),
            ):
                if (number := re.search(rf"{word} (\d+)", said)) and row["key"] in ours:
                    with self.subTest(row["key"], column=name):
                        self.assertEqual(float(ours[row["key"]][name]), float(number[1]))
            for name, word in (("loam_N", "loam"), ("clay_N", "clay")):
                if (number := re.search(rf"(?<!\w) ?{word} (\d+)", said)) and row["key"] in ours:
                    with self.subTest(row["key"], column=name):
                        self.assertEqual(float(ours[row["key"]][name]), float(number[1]))


if __name__ == "__main__":
    unittest.main()
