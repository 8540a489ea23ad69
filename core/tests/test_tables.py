"""The data tables: all rows read, sources known, and enough of them for a mesh fence."""

from __future__ import annotations

import csv
import tempfile
from pathlib import Path
from unittest import mock

from ascent import tables
from ascent.checks import sections
from ascent.errors import BrokenTable, UnknownItem

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
    def broken(self, name: str, change) -> None:
        """Expect a table to be refused after a change to its text."""
        original = tables.DATA
        with tempfile.TemporaryDirectory() as folder:
            for path in original.glob("*.csv"):
                text = path.read_text(encoding="utf-8")
                (Path(folder) / path.name).write_text(
                    change(text) if path.name == name else text, encoding="utf-8"
                )
            clear = (tables.posts, tables.meshes, tables.materials, tables.sources, tables.soils)
            with mock.patch.object(tables, "DATA", Path(folder)):
                for table in clear:
                    table.cache_clear()
                try:
                    with self.assertRaises(BrokenTable) as caught:
                        tables.load_all()
                finally:
                    for table in clear:
                        table.cache_clear()
        self.assertIn(name.removesuffix(".csv")[:4], str(caught.exception).lower())

    def test_a_bad_cell_names_its_place(self):
        self.broken("posts.csv", lambda text: text.replace(",22,22,", ",wide,22,"))

    def test_a_key_that_stands_twice(self):
        self.broken("soils.csv", lambda text: text + text.splitlines()[1] + "\n")

    def test_a_source_that_is_not_there(self):
        self.broken("posts.csv", lambda text: text.replace("handbook-parts-2.1", "hearsay", 1))

    def test_a_material_that_is_not_there(self):
        self.broken("posts.csv", lambda text: text.replace(",bamboo,", ",reed,", 1))

    def test_a_missing_column(self):
        self.broken("posts.csv", lambda text: text.replace("kg_m", "weight", 1))

    def test_an_unknown_key_suggests_the_nearest(self):
        with self.assertRaises(UnknownItem) as caught:
            tables.posts()["tpost_2.2"]
        self.assertIn("tpost_2.1", caught.exception.suggestion)
