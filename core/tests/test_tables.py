"""The data tables: all rows read, sources known, and enough of them for a mesh fence."""

from __future__ import annotations

import csv
import io
import shutil
import tempfile
from pathlib import Path
from unittest import mock

from ascent import tables
from ascent.checks import sections
from ascent.errors import BrokenTable, UnknownItem
from ascent.tables import reading
from ascent.tables.registry import TABLES

from tests.support import NearTestCase


class ContentTest(NearTestCase):
    def test_all_tables_load_and_cite_known_sources(self):
        tables.load_all()

    def test_there_are_rows_enough(self):
        self.assertGreaterEqual(len(tables.posts()), 20)
        self.assertGreaterEqual(len(tables.meshes()), 12)
        self.assertGreaterEqual(len(tables.crops()), 12)

    def test_every_file_has_source_and_certainty_columns(self):
        for path in tables.DATA.glob("*.csv"):
            if path.name == "sources.csv":
                continue
            with self.subTest(path.name), path.open(newline="", encoding="utf-8") as handle:
                head = next(csv.reader(handle))
                self.assertLessEqual({"source", "certainty"}, set(head))

    def test_weights_of_steel_follow_from_their_sections(self):
        """Steel of 7850 kg/m³ (EN 1991-1-1, from memory) times area: bars, tubes and T-posts within 8 %
        (studs, paint).
        """
        for post in tables.posts().values():
            if post.material in ("rebar_500", "tube_steel", "tpost_steel") and "scaffold" not in post.key:
                with self.subTest(post.key):
                    self.assertNear(post.kg_m, sections.of_post(post).A * 7850, 0.08)

    def test_weights_of_meshes_follow_from_their_wires(self):
        """Steel wire both ways per square metre; panels and sheets within 12 % (edge wires, closer bars at
        the foot).
        """
        for mesh in tables.meshes().values():
            if mesh.material == "welded_hard" and mesh.along == mesh.up:
                with self.subTest(mesh.key):
                    area = 3.14159 * mesh.wire**2 / 4
                    self.assertNear(mesh.kg_m2, area * 7850 * (1 / mesh.along + 1 / mesh.up), 0.12)

    def test_ranges_are_in_order(self):
        for crop in tables.crops().values():
            with self.subTest(crop.key):
                self.assertLessEqual(crop.shoot_kg, crop.shoot_high_kg)
                self.assertLessEqual(crop.yield_kg, crop.yield_high_kg)
                self.assertLess(crop.t50_d, crop.t95_d)
                self.assertLessEqual(crop.first_low_d, crop.first_high_d)
                self.assertTrue(0 < crop.cover <= 0.95)
                self.assertIn(crop.cap_group, tables.face_caps())
        for soil in tables.soils().values():
            self.assertTrue(soil.saturated <= soil.dry <= soil.moist == 1.0, soil.key)


class RefusalTest(NearTestCase):
    def broken(self, name: str, change, says: str = "") -> None:
        """Expect a table to be refused after a change to its text."""
        self.addCleanup(tables.forget)
        with tempfile.TemporaryDirectory() as folder:
            there = Path(folder)
            for path in tables.DATA.glob("*.csv"):
                shutil.copy(path, there)
            text = (there / name).read_text(encoding="utf-8")
            (there / name).write_text(change(text), encoding="utf-8")
            self.assertNotEqual(change(text), text)
            with mock.patch.object(reading, "DATA", there):
                tables.forget()
                with self.assertRaises(BrokenTable) as caught:
                    tables.load_all()
        self.assertIn(says or name.removesuffix(".csv")[:4], str(caught.exception).lower())

    def test_a_bad_cell_names_its_place(self):
        self.broken("posts.csv", lambda text: text.replace(",22,22,", ",wide,22,"))

    def test_a_key_that_stands_twice(self):
        self.broken("soils.csv", lambda text: text + text.splitlines()[1] + "\n")

    def test_a_source_that_is_not_there(self):
        self.broken("posts.csv", lambda text: text.replace("handbook-parts-2.1", "hearsay", 1))

    def test_a_material_that_is_not_there(self):
        self.broken("posts.csv", lambda text: text.replace(",bamboo,", ",reed,", 1))

    def test_every_reference_to_another_table_is_checked(self):
        """Of each table that refers to another: the first key that is changed stops the start."""
        for name, each in TABLES.items():
            for column, other in each.refers.items():
                if (tables.DATA / f"{name}.csv").exists():
                    with self.subTest(name, column=column, to=other):
                        says = f" in {column}, which names rows of"
                        self.broken(f"{name}.csv", lambda text, column=column: _spoilt(text, column), says)

    def test_files_of_figures_are_read_at_start_too(self):
        for name in ("drag", "arches", "clamped_arches", "gauges"):
            for column in ("source", "certainty"):
                with self.subTest(name, column=column):
                    self.broken(f"{name}.csv", lambda text, column=column: _spoilt(text, column), "hearsay")

    def test_a_family_that_says_nothing_of_a_crop(self):
        self.broken("crops.csv", lambda text: _twice(text, "tom-beef"), "crops")

    def test_a_missing_column(self):
        self.broken("posts.csv", lambda text: text.replace("kg_m", "weight", 1))

    def test_an_unknown_key_suggests_the_nearest(self):
        with self.assertRaises(UnknownItem) as caught:
            tables.posts()["tpost_2.2"]
        self.assertIn("tpost_2.1", caught.exception.suggestion)


def _spoilt(text: str, column: str) -> str:
    """Return a table with the first key in a column changed."""
    lines = list(csv.DictReader(io.StringIO(text)))
    row = next(line for line in lines if line[column] not in ("", "*"))
    row[column] = " ".join(("hearsay", *row[column].split()[1:]))
    out = io.StringIO()
    writer = csv.DictWriter(out, list(row))
    writer.writeheader()
    writer.writerows(lines)
    return out.getvalue()


def _twice(text: str, key: str) -> str:
    """Return a table with one more row, like another but for its key."""
    row = next(line for line in text.splitlines() if line.startswith(f"{key},"))
    return text + row.replace(key, "unheard-of", 1) + "\n"
