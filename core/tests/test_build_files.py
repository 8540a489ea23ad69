"""What goes out of a structure, read by what did not write it: pypdf, trimesh, and plain group codes."""

from __future__ import annotations

import datetime as dt
import io
import re

import ezdxf
import numpy as np
import trimesh
from ascent.analysis.design import geometry_of
from ascent.drawing.paper import Drawing, Heading, Paper, PaperTable, Text
from ascent.drawing.sheet import Layer, Sheet, Words
from ascent.drawing.solid import solid_of
from ascent.drawing.views_sheet import views_sheet
from ascent.files.dxf import sheet_dxf
from ascent.files.gltf import solid_gltf
from ascent.files.pdf import _Footed, printable, write_pdf
from ascent.files.svg import sheet_svg
from ascent.report.building import build_report, paper_of
from pypdf import PdfReader

from tests.support import NearTestCase, demo

NAMES = (
    "Őszi Łódź",
    "Θάλεια Νερού",
    "Грядка Оли",
    "Đậu leo tường",
    "بستان ورد",
    "גן המזח",
    "मीरा क्यारी",
    "港の庭 さくら",
    "番茄架 园子",
    "콩 지지대",
)
FAMILIES = ("quay-fence", "lantern-arch", "chandlers-wire", "barrel-tripod", "runner-row")


def structures(*keys: str):
    """Yield structures of the demo with their beds."""
    garden = demo()
    for bed in garden.beds:
        for structure in bed.structures:
            if structure.key in keys:
                yield garden, bed, structure


def words_of(pdf: bytes) -> str:
    """Return the text of a PDF on one line."""
    return " ".join(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages).split())


class PdfTest(NearTestCase):
    def test_holds_every_post_every_part_every_step_and_its_fingerprint(self):
        for garden, bed, structure in structures(*FAMILIES):
            told = build_report(garden, bed, structure, None, "metric")
            paper = paper_of(garden, bed, structure, None, "metric", dt.date(2026, 4, 12))
            for form, size in (("A4", (595, 842)), ("Letter", (612, 792))):
                data = write_pdf(paper, form)
                text = words_of(data)
                box = PdfReader(io.BytesIO(data)).pages[0].mediabox
                self.assertEqual((round(float(box.width)), round(float(box.height))), size)
                for mark in told.stake.marks:
                    self.assertIn(f"{mark.name} {mark.what}", text, structure.key)
                for piece in told.before.carry:
                    self.assertIn(" ".join(printable(piece).split()), text, structure.key)
                for step in told.steps:
                    self.assertIn(step.title, text)
                self.assertIn(told.fingerprint, text)
                self.assertIn("2026-04-12", text)
                self.assertIn("local codes", text)

    def test_a_name_is_printed_in_its_own_script(self):
        """In title, text, table and drawing. What is written from right to left comes out of a PDF in the
        order of the page, so its words are looked for one by one.
        """
        layer = Layer("names", tuple(Words((1.0, float(n)), name) for n, name in enumerate(NAMES)))
        drawn = Sheet("names", (0.0, -1.0), (6.0, len(NAMES) + 1.0), 0.3, (layer,))
        blocks = [block for name in NAMES for block in (Heading(name), Text(f"Build {name}.", "strong"))]
        rows = PaperTable(("name",), tuple((name,) for name in NAMES), (1.0,))
        pdf = write_pdf(Paper(NAMES[3], NAMES[1], (*blocks, rows, Drawing(drawn, 0.1))))
        # dots that a typeface draws by themselves have no letter of their own
        text = re.sub(r"[\x00-\x1f]", "", words_of(pdf))
        for name in NAMES:
            for word in name.split():
                with self.subTest(word=word):
                    self.assertGreaterEqual(text.count(word), 4)
        self.assertNotIn("[…]", text)
        self.assertEqual(PdfReader(io.BytesIO(pdf)).metadata.title, NAMES[3])

    def test_letters_that_join_are_joined(self):
        """Devanagari conjuncts and Arabic forms are fewer or other glyphs than the letters alone; common
        practice, no source.
        """
        for joined, apart in (("क्ष", "क ् ष"), ("لا", "ل ا")):
            widths = []
            for text in (joined, apart.replace(" ", "|")):
                pages = _Footed("", "A4")
                pages.add_page()
                pages.set_font("barlow", size=10)
                widths.append(pages.get_string_width(pages.set_in_type(text)))
            self.assertLess(widths[0], 0.9 * widths[1])

    def test_letters_that_no_typeface_draws_are_told_before_and_left_out(self):
        garden, bed, structure = next(structures("quay-fence"))
        named = structure.model_copy(update={"name": "畑の柵 𓀀𓀁 ✓ Łąka"})
        self.assertIn("𓀀𓀁", build_report(garden, bed, named, None, "metric").unprinted)
        text = words_of(write_pdf(paper_of(garden, bed, named, None, "metric", dt.date(2026, 4, 12))))
        self.assertIn("畑の柵 […] done Łąka", text)


class DxfTest(NearTestCase):
    def test_has_the_extents_the_layers_and_the_measures(self):
        for garden, bed, structure in structures(*FAMILIES):
            views = build_report(garden, bed, structure, None, "metric").views
            sheet = views_sheet(views, structure.name, "metric")
            text = sheet_dxf(sheet)
            pairs = [line.strip() for line in text.splitlines()]
            codes = list(zip(pairs[::2], pairs[1::2], strict=False))
            layers = {value for (code, value) in codes if code == "8"}
            self.assertGreaterEqual(layers, {layer.key for layer in sheet.layers if layer.marks})
            kinds = [i for i, pair in enumerate(codes) if pair == ("0", "DIMENSION")]
            self.assertEqual(len(kinds), sum(len(view.measures) for view in views))
            read = sorted(
                next(float(value) for code, value in codes[start:] if code == "42") for start in kinds
            )
            self.assertEqual(
                [round(value) for value in read],
                sorted(
                    round(1000 * max(abs(m.start[0] - m.end[0]), abs(m.start[1] - m.end[1])))
                    if min(abs(m.start[0] - m.end[0]), abs(m.start[1] - m.end[1])) < 1e-6
                    else round(1000 * float(np.hypot(m.start[0] - m.end[0], m.start[1] - m.end[1])))
                    for view in views
                    for m in view.measures
                ),
            )
            side = next(view for view in views if view.name == "elevation")
            drawn = trimesh.load(io.StringIO(text), file_type="dxf")
            wide = 1000 * (side.high[0] - side.low[0])
            self.assertGreaterEqual(drawn.extents[0], wide * 0.99)
            self.assertLessEqual(drawn.extents[0], 1000 * (sheet.high[0] - sheet.low[0]) * 1.01)

    def test_a_name_stays_what_it_is(self):
        name = "100%%d Θάλεια %%u 港\n2"
        layer = Layer("names", (Words((1.0, 1.0), name),))
        drawing = ezdxf.read(io.StringIO(sheet_dxf(Sheet("", (0.0, 0.0), (2.0, 2.0), 0.1, (layer,)))))
        text = next(iter(drawing.modelspace().query("TEXT")))
        self.assertEqual(text.plain_text(), name.replace("\n", " "))

    def test_is_in_millimetres(self):
        garden, bed, structure = next(structures("quay-fence"))
        views = build_report(garden, bed, structure, None, "imperial").views
        text = sheet_dxf(views_sheet(views, structure.name, "imperial"))
        pairs = [line.strip() for line in text.splitlines()]
        self.assertEqual(pairs[pairs.index("$INSUNITS") + 2], "4", "4 is millimetres, DXF reference")

    def test_the_same_sheet_says_the_same_in_svg(self):
        garden, bed, structure = next(structures("lantern-arch"))
        views = build_report(garden, bed, structure, None, "metric").views
        svg = sheet_svg(views_sheet(views, structure.name, "metric"))
        for view in views:
            for measure in view.measures:
                self.assertIn(measure.text, svg)


class GltfTest(NearTestCase):
    def test_read_back_it_is_as_large_as_the_structure_and_each_member_is_a_node(self):
        for _, bed, structure in structures(*FAMILIES):
            geometry = geometry_of(bed, structure)
            solid = solid_of(geometry, bed)
            scene = trimesh.load(io.BytesIO(solid_gltf(solid, structure.name)), file_type="glb")
            points = np.array(
                [p for bar in solid.bars for p in bar.points]
                + [p for strands in solid.strands for line in strands.lines for p in line]
                + [p for climber in solid.climbers for p in climber.way]
            )
            low, high = points.min(axis=0), points.max(axis=0)
            wanted = np.array([high[0] - low[0], high[2] - low[2], high[1] - low[1]])
            thick = max(max(bar.wide, bar.deep) for bar in solid.bars)
            self.assertTrue(np.all(scene.extents >= wanted - 1e-3), structure.key)
            self.assertTrue(np.all(scene.extents <= wanted + 2 * thick), structure.key)
            members = {bar.member for bar in solid.bars} | {strands.member for strands in solid.strands}
            self.assertLessEqual(members, set(scene.graph.nodes), structure.key)
