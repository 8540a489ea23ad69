"""Tables in and out with the quirks of spreadsheets, drawings as SVG, changes in words."""

from __future__ import annotations

import csv
import io
import unittest
import xml.etree.ElementTree as ET
from typing import get_args
from unittest import mock

from ascent.drawing.sheet import Dot, Drawn, Line, Words, north, scale_bar
from ascent.drawing.views_sheet import views_sheet
from ascent.errors import InvalidPlan
from ascent.files import csv_tables
from ascent.files.csv_tables import COLUMNS, What, read_table, write_table
from ascent.files.svg import sheet_svg
from ascent.ground.plan_sheet import plan_sheet
from ascent.ground.plot import plot_of
from ascent.plan.documents import MOST_PROBLEMS
from ascent.plan.features import Feature
from ascent.plan.garden import Garden
from ascent.report.changes import differences, sentence
from ascent.report.report import full_report
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import EXAMPLES, demo, fence, site


def refused(garden, what, text, system="metric") -> dict[str, str]:
    """Return what is refused of a table: allowed by path."""
    try:
        read_table(garden, what, text, system)
    except InvalidPlan as error:
        return {problem.path: problem.allowed for problem in error.problems}
    return {}


class RoundTripTest(unittest.TestCase):
    def test_every_table_in_either_system_comes_back_as_it_went_out(self):
        garden = demo().model_copy(update={"prices": {"tpost_2.1": 9.5, "clip_tpost": 0.0}})
        for what in get_args(What):
            for system in ("metric", "imperial"):
                with self.subTest(what, system=system):
                    self.assertEqual(
                        read_table(garden, what, write_table(garden, what, system), system, take_away=True),
                        garden,
                    )

    def test_every_column_is_documented(self):
        text = (EXAMPLES.parent / "plan-file.md").read_text(encoding="utf-8")
        for what, columns in COLUMNS.items():
            for column in columns:
                self.assertIn(f"`{column.head}`", text, what)

    def test_a_name_is_never_a_formula(self):
        garden = demo()
        beds = (garden.beds[0].model_copy(update={"name": "=2+3"}), *garden.beds[1:])
        risky = garden.model_copy(update={"beds": beds})
        text = write_table(risky, "beds", "metric")
        self.assertEqual(next(csv.DictReader(io.StringIO(text)))["name"], "'=2+3")
        self.assertEqual(read_table(risky, "beds", text, "metric"), risky)


class QuirksTest(unittest.TestCase):
    """How the same table comes out of different spreadsheets; common practice, no source."""

    def bed(self, text: str, system: str = "metric"):
        return read_table(demo(), "beds", text, system).beds[-1]

    def test_semicolons_decimal_commas_bom_and_units_in_cells(self):
        for text in (
            "name,length,width\nNew,3.6,1.2\n",
            "\ufeffname;length;width\r\nNew;3,6;1,2\r\n",
            "Name\tLength (cm)\tWidth [cm]\nNew\t360\t120\n",
            "name,length,width\nNew,360 cm,1200 mm\n\n,,\n",
            'NAME,LENGTH,WIDTH\nNew,"3,6 m","1,2"\n',
            "width,remarks,length,name\n1.2,sunny,3.6,New\n",
        ):
            with self.subTest(text):
                bed = self.bed(text)
                self.assertEqual((bed.name, bed.length, bed.width, bed.key), ("New", 3.6, 1.2, "new"))

    def test_feet_and_inches(self):
        for text in ("name,length,width\nNew,12,4' 6\"\n", "name,length (ft),width (ft)\nNew,12,4.5\n"):
            bed = self.bed(text.replace("New,12,4'", "New,12 ft,4'"), "imperial")
            self.assertAlmostEqual(bed.length, 3.6576, places=4)
            self.assertAlmostEqual(bed.width, 1.3716, places=4)

    def test_soil_by_name_bearing_by_compass_and_kind_in_words(self):
        bed = self.bed(
            "name,length,width,soil,bearing,kind,filled to\nNew,3,1,Firm loam,NE,Straw bales,45 cm\n"
        )
        self.assertEqual(
            (bed.soil, bed.bearing, bed.kind, bed.fill_depth), ("firm_loam", 45.0, "straw-bale", 0.45)
        )

    def test_a_bed_of_the_same_key_or_name_is_changed_not_doubled(self):
        garden = read_table(demo(), "beds", "name,length,width\nCove Bed,4,1.2\n", "metric")
        self.assertEqual(len(garden.beds), len(demo().beds))
        cove = next(bed for bed in garden.beds if bed.key == "cove-bed")
        self.assertEqual((cove.length, len(cove.structures), cove.kind), (4.0, 1, "raised"))

    def test_plantings_by_name_of_structure_and_crop_and_by_any_date(self):
        for date in ("05-04", "2026-05-04", "4.5.", "4.5.2026"):
            text = f"structure,crop,plants,spacing,planted\nLantern Row,Pole (snap) bean,20.0,15 cm,{date}\n"
            garden = read_table(demo(), "plantings", text, "metric")
            (planting,) = next(
                s for bed in garden.beds for s in bed.structures if s.key == "lantern-row"
            ).plantings
            self.assertEqual(
                (planting.crop, planting.count, planting.spacing, planting.planted),
                ("bean-pole", 20, 0.15, "05-04"),
            )

    def test_a_planting_keeps_its_key_through_a_table(self):
        """By its key, else by its crop; another crop is another planting."""
        own = (
            next(s for bed in demo().beds for s in bed.structures if s.key == "lantern-row").plantings[0].crop
        )
        for rows, keys in (
            (f"{own},8,0.45,05-04,\n", ["p1"]),
            (f"pea-snap,8,0.05,04-01,\n{own},4,0.45,05-04,\n", ["p2", "p1"]),
            ("pea-snap,8,0.05,04-01,early\n", ["early"]),
        ):
            text = "structure,crop,plants,spacing,planted,key\n" + "".join(
                f"lantern-row,{row}\n" for row in rows.strip().split("\n")
            )
            garden = read_table(demo(), "plantings", text, "metric")
            found = next(s for bed in garden.beds for s in bed.structures if s.key == "lantern-row").plantings
            self.assertEqual([planting.key for planting in found], keys)
        with self.assertRaises(InvalidPlan) as caught:
            read_table(
                demo(),
                "plantings",
                "structure,crop,plants,spacing,planted,key\n" + "lantern-row,pea-snap,8,0.05,04-01,a\n" * 2,
                "metric",
            )
        self.assertIn("a key of its own", str(caught.exception))

    def test_only_prices_that_differ_become_one_s_own(self):
        text = write_table(demo(), "materials", "metric").replace("clip_tpost,", "clip_tpost,", 1)
        self.assertEqual(read_table(demo(), "materials", text, "metric").prices, {})
        garden = read_table(demo(), "materials", "item;price\ntpost_2.1;9,75\ntpost_1.8;\n", "metric")
        self.assertEqual(garden.prices, {"tpost_2.1": 9.75})


class RefusalTest(unittest.TestCase):
    def test_every_wrong_cell_at_once_by_row_and_column(self):
        text = "name,length,width,soil\nA,4 furlongs,1,firm_loam\nB,900,1,firm_lome\n,3,,\n"
        found = refused(demo(), "beds", text)
        self.assertLessEqual({"row 2, length", "row 4, name", "row 4, width"}, set(found))
        self.assertIn(
            "firm_loam", refused(demo(), "beds", "name,length,width,soil\nB,9,1,firm_lome\n")["row 2, soil"]
        )
        self.assertIn("60", refused(demo(), "beds", "name,length,width\nB,900,1\n")["row 2, length"])

    def test_units_in_headings_say_what_the_numbers_are_and_spoil_nothing(self):
        """Headings as exports of spreadsheets have them: the unit of a length counts, of a price or a bearing
        it only says what it is.
        """
        garden = read_table(
            demo(), "beds", "name,length (cm),width [m],bearing (deg)\nKai,360,1.2,45\n", "imperial"
        )
        bed = garden.beds[-1]
        self.assertEqual((bed.length, bed.width, bed.bearing), (3.6, 1.2, 45.0))
        garden = read_table(demo(), "materials", "item,price (EUR)\ntpost_2.1,9.50\n", "metric")
        self.assertEqual(garden.prices["tpost_2.1"], 9.5)
        self.assertIn(
            "not a unit of length",
            refused(demo(), "beds", "name,length (furlong),width\nA,1,1\n")["beds, headings"],
        )
        self.assertIn(
            "can be 1200 or 1.200",
            refused(demo(), "beds", 'name,length,width\nA,"1,200 mm",1\n')["row 2, length"],
        )

    def test_a_table_made_to_be_refused_is_refused_in_few_words(self):
        """Bounded by work: at most fifty cells are told of, and no more rows are looked into than that
        takes.
        """
        for text in (
            "name,length,width\n" + "x,y,z\n" * 4000,
            "name,length,width\n" + "b,1,1\n" * 4000,
            "item,price\n" + "no,1\n" * 4000,
        ):
            what = "materials" if text.startswith("item") else "beds"
            with (
                mock.patch("ascent.files.csv_tables._value", side_effect=csv_tables._value) as looked,
                self.assertRaises(InvalidPlan) as caught,
            ):
                read_table(demo(), what, text, "metric")
            self.assertLessEqual(len(caught.exception.problems), MOST_PROBLEMS)
            self.assertLessEqual(looked.call_count, 12_000)

    def test_headings_that_are_missing_are_named(self):
        found = refused(demo(), "plantings", "a,b\n1,2\n")
        self.assertIn("structure, crop, plants, spacing, planted must be there", found["plantings, headings"])

    def test_what_does_not_exist(self):
        plantings = (
            "structure,crop,plants,spacing,planted\n"
            "Nowhere,bean-pole,2,0.2,05-04\n"
            "lantern-row,bean-poll,2,0.2,31.2.\n"
        )
        found = refused(demo(), "plantings", plantings)
        self.assertLessEqual({"row 2, structure", "row 3, crop", "row 3, planted"}, set(found))
        self.assertIn("row 2, item", refused(demo(), "materials", "item,price\ngold,1\n"))
        self.assertIn("row 2, name", refused(demo(), "materials", "name,price\ngold,1\n"))
        self.assertIn("materials, headings", refused(demo(), "materials", "name,cost\ngold,1\n"))

    def test_prices_by_name_with_the_sign_of_their_currency(self):
        text = "Name,Price\nSoftwood stake 38 mm,$4.50\n softwood stake 25 mm ,2.10 €\njute 3 mm,\n"
        self.assertEqual(
            read_table(demo(), "materials", text, "imperial").prices,
            {**demo().prices, "post_sw_stake_38": 4.5, "post_sw_stake_25": 2.1},
        )
        text = 'name,price\n"softwood stake 1 1/2 in",5\n'
        self.assertEqual(
            read_table(demo(), "materials", text, "imperial").prices,
            {**demo().prices, "post_sw_stake_38": 5.0},
        )
        self.assertIn("row 3, key", refused(demo(), "beds", "key,name,length,width\na,A,3,1\na,B,3,1\n"))
        self.assertIn("beds", refused(demo(), "beds", "name,length,width\n" + "x,1,1\n" * 5001))

    @given(st.text(alphabet=st.characters(codec="utf-8"), max_size=200))
    @settings(max_examples=150, deadline=None)
    def test_no_text_is_more_than_refused(self, text):
        for what in get_args(What):
            refused(demo(), what, text)
            refused(demo(), what, f"{','.join(c.head for c in COLUMNS[what])}\n{text}")


class SvgTest(unittest.TestCase):
    def test_the_plan_names_what_is_on_it_and_has_a_scale(self):
        garden = demo()
        for system, unit in (("metric", "m"), ("imperial", "ft")):
            root = ET.fromstring(sheet_svg(plan_sheet(plot_of(garden), garden.name, system)))  # noqa: S314 - our own
            words = {text.text for text in root.iter("{http://www.w3.org/2000/svg}text")}
            self.assertLessEqual(
                {bed.name for bed in garden.beds} | {f.name for f in garden.features} | {"N"}, words
            )
            self.assertTrue(any(text.endswith(f" {unit}") for text in words))

    def test_the_name_of_a_line_stands_over_it_towards_its_end(self):
        wall = Feature(key="w", name="Wall", kind="wall", points=((1, 2), (6, 2), (11, 7)), width=0.3)
        sheet = plan_sheet(plot_of(Garden(name="g", features=(wall,))), "g", "metric")
        (name,) = [mark for layer in sheet.layers if layer.key == "names" for mark in layer.marks]
        (x, y) = name.at
        self.assertAlmostEqual(x, 9.0)  # four fifths of the way from its first point to its last
        self.assertTrue(6.0 < y < 6.0 + sheet.letter, y)

    def test_what_is_round_is_drawn_as_broad_as_it_is(self):
        tree = Feature(key="t", name="Stump", kind="stump", points=((1, 2),), width=0.8)
        sheet = plan_sheet(plot_of(Garden(name="g", features=(tree,))), "g", "metric")
        (dot,) = [mark for layer in sheet.layers for mark in layer.marks if isinstance(mark, Dot)]
        self.assertEqual((dot.at, dot.radius), ((1.0, 2.0), 0.4))

    def test_what_lies_under_comes_first_and_each_layer_is_a_group(self):
        sheet = plan_sheet(plot_of(demo()), "g", "metric")
        keys = [layer.key for layer in sheet.layers]
        self.assertEqual(
            keys,
            sorted(keys, key=["paths", "features", "beds", "structures", "plants", "names", "scale"].index),
        )
        root = ET.fromstring(sheet_svg(sheet))  # noqa: S314 - our own
        self.assertEqual([group.attrib["id"] for group in root.iter("{http://www.w3.org/2000/svg}g")], keys)

    def test_a_metre_is_a_metre_and_up_is_up(self):
        """A hundred user units to the metre, y down as SVG counts; 0.8 m of paper all round."""
        drawn = Drawn("t", (1.0, 2.0), (4.0, 4.0))
        drawn.on(
            "a", Line(((1.0, 2.0), (4.0, 4.0)), 0.05, "wood", dash=(0.1, 0.2)), Dot((2.0, 3.0), 0.1, "leaf")
        )
        drawn.on("b", Words((4.0, 2.0), "x"))
        root = ET.fromstring(sheet_svg(drawn.done()))  # noqa: S314 - our own
        (line,), (dot,), (text,) = (
            list(root.iter(f"{{http://www.w3.org/2000/svg}}{kind}")) for kind in ("path", "circle", "text")
        )
        self.assertEqual(root.attrib["viewBox"], "0 0 460.0 360.0")
        self.assertEqual(line.attrib["d"], "M80.0 280.0L380.0 80.0")
        self.assertEqual((line.attrib["stroke-width"], line.attrib["stroke-dasharray"]), ("5.0", "10 20"))
        self.assertEqual((dot.attrib["cx"], dot.attrib["cy"], dot.attrib["r"]), ("180.0", "180.0", "10.0"))
        self.assertEqual(
            (text.attrib["x"], text.attrib["y"], text.attrib["font-size"]), ("380.0", "280.0", "16.0")
        )

    def test_the_scale_is_the_longest_round_length_that_fits(self):
        for room, system, words, long in (
            (7.0, "metric", "5 m", 5.0),
            (5.0, "metric", "5 m", 5.0),
            (4.99, "metric", "2 m", 2.0),
            (7.0, "imperial", "20 ft", 20 * 0.3048),
            (0.2, "metric", "1 m", 1.0),
        ):
            bar, said = scale_bar((10.0, 20.0), room, system)
            with self.subTest(room=room, system=system):
                self.assertEqual(said.text, words)
                self.assertAlmostEqual(bar.points[2][0] - bar.points[1][0], long)
                self.assertEqual((bar.points[1], said.at[1]), ((10.0, 20.0), 20.0))
        _, shaft, letter = north((3.0, 1.0), 0.2)
        self.assertEqual((shaft.points[0], letter.at, letter.text), ((3.0, 1.0), (3.0, 0.8), "N"))

    def test_the_views_carry_their_measures_and_stay_on_the_paper(self):
        report = full_report(site(), fence(ends="guy", top="wire"), "metric")
        root = ET.fromstring(sheet_svg(views_sheet(report.views, "A & B <fence>", "metric")))  # noqa: S314 - our own
        words = [text.text for text in root.iter("{http://www.w3.org/2000/svg}text")]
        self.assertLessEqual({"3.60 m", "1.20 m", "0.45 m"}, set(words))
        _, _, width, height = map(float, root.attrib["viewBox"].split())
        for text in root.iter("{http://www.w3.org/2000/svg}text"):
            self.assertTrue(0 <= float(text.attrib["x"]) <= width)
            self.assertTrue(0 <= float(text.attrib["y"]) <= height)


class ChangesTest(unittest.TestCase):
    def test_in_words_and_units(self):
        old = fence()
        new = old.model_copy(
            update={
                "options": {**old.options, "depth": 0.6, "tie": "twine_jute_3_loop"},
                "along": 1.0,
                "name": "New",
            }
        )
        self.assertEqual(
            sentence(old, new, "metric"),
            "New: moved, Name Fence → New, Post depth 0.45 m → 0.60 m, "
            "Ties to the post doubled 16-gauge tie wire → jute 3 mm figure of eight",
        )
        self.assertEqual(sentence(None, new, "metric"), "New added")
        self.assertEqual(sentence(new, None, "metric"), "New removed")

    def test_field_by_field_and_nothing_else(self):
        garden = demo()
        bed = garden.beds[0]
        found = differences(
            bed, bed.model_copy(update={"soil": "sandy", "length": 20.0, "exposure": None}), "imperial"
        )
        self.assertEqual(
            [(d.path, d.before, d.after) for d in found],
            [("length", "78 ft 9 in", "65 ft 7 1/2 in"), ("exposure", "open", "–")],
        )
        self.assertEqual(differences(bed, bed, "metric"), ())
