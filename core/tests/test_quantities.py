"""What people write, against the units library and the trade's own tables."""

from __future__ import annotations

import pint
from ascent.errors import UnreadableQuantity
from ascent.quantities import STYLES, gauge_diameter, read, with_sizes, write
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import NearTestCase

UNITS = pint.UnitRegistry()


class ReadingTest(NearTestCase):
    def test_lengths_that_people_write(self):
        inch = 0.0254
        for text, metres in {
            "1.2 m": 1.2, "1,2m": 1.2, "120cm": 1.2, "1200 mm": 1.2, "1.2": 1.2, "18 in": 18 * inch, '18"': 18 * inch,
            "6'": 72 * inch, "6' 4\"": 76 * inch, "6' 4 1/2\"": 76.5 * inch, "6'4½\"": 76.5 * inch, "6 ft 2 in": 74 * inch,
            "5 1/2 ft": 66 * inch, "1/2 in": 0.5 * inch, "6′ 2″": 74 * inch, "6’2”": 74 * inch, "5-1/2 in": 5.5 * inch,
            "15/16 in": 15 / 16 * inch, "1 15/16 in": 31 / 16 * inch,
            "2 yd": 72 * inch, "1 m 20 cm": 1.2, "1e0 m": 1.0,
        }.items():  # fmt: skip
            with self.subTest(text):
                self.assertAlmostEqual(read(text, "length"), metres, places=9)

    def test_a_comma_that_may_part_thousands_is_asked_about_and_no_other(self):
        """A comma before three figures parts thousands where English is written and decimals elsewhere. Common practice, no source."""
        for text, kind in (
            ("1,200 mm", "length"),
            ("-1,200 mm", "length"),
            ("12,500 N", "force"),
            ("1,200", "count"),
            ("3,500", "ratio"),
            ("1,250 1/2 in", "length"),
        ):
            with self.subTest(text), self.assertRaises(UnreadableQuantity) as caught:
                read(text, kind)
            self.assertRegex(caught.exception.allowed, r"‘-?\d+,\d{3}’ can be -?\d+ or -?\d+\.\d{3}")
        for text, metres in {"1,2 m": 1.2, "1,25 m": 1.25, "0,250 m": 0.25, "1200,5 mm": 1.2005, "1.200 m": 1.2, "1,2500 m": 1.25}.items():
            self.assertAlmostEqual(read(text, "length"), metres)

    def test_numbers_that_no_float_holds(self):
        for text in ("1e400", "9" * 5000, "1e400 m", "1/" + "9" * 5000 + " in", "9" * 5000 + "/2 in", "1/0 in"):
            for kind in ("length", "count", "ratio", "bearing"):
                with self.subTest(text[:20], kind=kind), self.assertRaises(UnreadableQuantity):
                    read(text, kind)

    def test_sizes_in_names_for_readers_of_inches_against_the_units_library(self):
        for name, found in {
            "hardwood stake 38 mm": "hardwood stake 1 1/2 in", "sawn board 38 × 89 on edge": "sawn board 1 1/2 in × 3 1/2 in on edge",
            "baler twine 2.2 mm": "baler twine 0.087 in", "eye bolt M8 through the post": "eye bolt M8 through the post",
            "high-tensile wire 12.5 gauge": "high-tensile wire 12.5 gauge", "steel T-post 2.1 m": "steel T-post 7 ft",
            "screw anchor 0.76 m": "screw anchor 2 ft 6 in",
        }.items():  # fmt: skip
            self.assertEqual(with_sizes(name, "imperial"), found)
            self.assertEqual(with_sizes(name, "metric"), name)
        self.assertEqual(with_sizes("mesh, 1.25 m high", "imperial", exact=True), "mesh, 4 ft 1 1/4 in high")
        self.assertAlmostEqual(UNITS.Quantity(2.2, "mm").to("inch").magnitude, 0.087, places=3)
        kilos = float(with_sizes("60 kg of stones", "imperial").split()[0])
        self.assertAlmostEqual(UNITS.Quantity(kilos, "pound").to("kg").magnitude, 60, delta=0.1)

    def test_a_bare_number_is_in_the_gardeners_unit(self):
        self.assertAlmostEqual(read("18", "length", "imperial"), 18 * 0.0254)
        self.assertAlmostEqual(read("34", "speed", "imperial"), 34 * 0.44704)
        self.assertAlmostEqual(read("2", "mass"), 2.0)

    def test_other_kinds_against_pint(self):
        for text, kind, quantity in (
            ("35 lb", "mass", UNITS.Quantity(35, "pound")), ("800 g", "mass", UNITS.Quantity(800, "gram")),
            ("6 oz", "mass", UNITS.Quantity(6, "ounce")), ("35 lbf", "force", UNITS.Quantity(35, "force_pound")),
            ("0.3 kN", "force", UNITS.Quantity(300, "newton")), ("20 kgf", "force", UNITS.Quantity(20, "force_kilogram")),
            ("40 mph", "speed", UNITS.Quantity(40, "mile/hour")), ("54 km/h", "speed", UNITS.Quantity(15, "m/s")),
            ("30 knots", "speed", UNITS.Quantity(30, "knot")), ("0.1 in", "wire", UNITS.Quantity(0.1, "inch")),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertAlmostEqual(read(text, kind), quantity.to_base_units().magnitude, places=9)

    def test_beaufort(self):
        """WMO: v = 0.836 B^1.5, so force 7 is 15.5 m/s at 10 m."""
        self.assertNear(read("Beaufort 7", "speed"), 15.5)
        self.assertNear(read("bft 8", "speed"), 18.9)

    def test_gauges_by_their_standard(self):
        """Structures handbook 6.1: no. 12 is 2.68 W&M, 2.05 AWG, 2.64 mm SWG; ASTM B258's formula for AWG."""
        for text, mm in (
            ("12 W&M", 2.68),
            ("12 AWG", 2.053),
            ("12 SWG", 2.642),
            ("12.5 ga W&M", 2.515),
            ("no. 14 awg", 1.628),
            ("2.5 mm", 2.5),
        ):
            with self.subTest(text):
                self.assertNear(read(text, "wire") * 1e3, mm, 0.002)
        for number, mm in ((10, 2.588), (16, 1.291), (18, 1.024), (20, 0.812), (22, 0.644)):
            self.assertNear(gauge_diameter(number, "awg") * 1e3, mm, 0.002)

    def test_what_is_refused_says_what_is_allowed(self):
        for text, kind, words in (
            ("", "length", "1.2 m"), ("six feet", "length", "such as"), ("1.2 kg", "length", "not a unit of length"), ("12 ga", "wire", "standard"),
            ("1/0 in", "length", "such as"), ("1e400 m", "length", "such as"), ("nan", "length", "such as"), ("3 2 m", "length", "such as"),
            ("Beaufort 13", "speed", "0 to 12"), ("99 W&M", "wire", "known here"), ("1.5", "count", "whole"), ("2 m 3", "length", "such as"),
            ("-", "length", "such as"), ("1.2.3 m", "length", "such as"),
        ):  # fmt: skip
            with self.subTest(text, kind=kind), self.assertRaises(UnreadableQuantity) as caught:
                read(text, kind)
            self.assertIn(words, caught.exception.allowed)
            self.assertEqual(caught.exception.text, text)

    def test_bounds_are_named_in_the_gardeners_units(self):
        with self.assertRaises(UnreadableQuantity) as caught:
            read("3 m", "length", "imperial", 0.3048, 1.2192)
        self.assertEqual(caught.exception.allowed, "1 ft to 4 ft is allowed")


class WritingTest(NearTestCase):
    def test_as_people_write(self):
        for value, kind, system, text in (
            (1.2, "length", "metric", "1.20 m"), (0.048, "length", "metric", "48 mm"), (1.9431, "length", "imperial", "6 ft 4 1/2 in"),
            (0.6096, "length", "imperial", "2 ft"), (0.0254 * 7.25, "length", "imperial", "7 1/4 in"), (0.0127, "length", "imperial", "1/2 in"),
            (15.0, "speed", "imperial", "34 mph"), (1234.0, "force", "metric", "1.23 kN"), (300.0, "force", "imperial", "67 lbf"),
            (-0.3, "length", "metric", "−0.30 m"), (float("inf"), "force", "metric", "beyond measure"), (4.0, "count", "metric", "4"),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertEqual(write(value, kind, system), text)

    @settings(max_examples=300, deadline=None, derandomize=True)
    @given(st.floats(0.01, 60.0), st.sampled_from(["metric", "imperial"]))
    def test_a_length_that_is_written_is_read_back(self, value, system):
        """To what is shown: a centimetre (a millimetre when small), or a quarter inch."""
        back = read(write(value, "length", system), "length", system)
        self.assertAlmostEqual(back, value, delta=0.0051 if system == "metric" else 0.0254 / 8 + 1e-9)

    @settings(max_examples=200, deadline=None, derandomize=True)
    @given(st.sampled_from(["mass", "force", "speed"]), st.floats(0.1, 900.0), st.sampled_from(["metric", "imperial"]))
    def test_other_kinds_are_read_back(self, kind, value, system):
        style = STYLES[kind][system]
        step = 10.0**-style.decimals * float(UNITS.Quantity(1, style.unit).to_base_units().magnitude)
        self.assertAlmostEqual(read(write(value, kind, system), kind, system), value, delta=max(step / 2, 5.1e-3 * value) + 1e-9)

    @settings(max_examples=400, deadline=None, derandomize=True)
    @given(
        st.text(alphabet="0123456789.,/'\" ftincmkgedlbx-+½″&", max_size=14), st.sampled_from(["length", "mass", "wire", "speed", "force"])
    )
    def test_nothing_but_a_number_or_a_refusal(self, text, kind):
        try:
            value = read(text, kind)
        except UnreadableQuantity:
            return
        self.assertEqual(value, value)
        self.assertNotIn(value, (float("inf"), float("-inf")))


class BearingTest(NearTestCase):
    """Degrees from north clockwise, or the sixteen points; common practice, no source."""

    def test_points_and_degrees(self):
        for text, expected in (("N", 0), ("ne", 45), ("E", 90), ("SSW", 202.5), ("W", 270), ("nnw", 337.5), ("90", 90), ("45°", 45),
                               ("12,5 °", 12.5), ("-35", -35)):  # fmt: skip
            self.assertEqual(read(text, "bearing"), expected, text)

    def test_what_is_none(self):
        for text in ("north-ish", "NEE", "", "12 m"):
            with self.assertRaises(UnreadableQuantity):
                read(text, "bearing")
        with self.assertRaises(UnreadableQuantity):
            read("400", "bearing", "metric", 0, 359.9)

    def test_written(self):
        self.assertEqual([write(v, "bearing") for v in (0, 45.4, -35)], ["0°", "45°", "−35°"])
        self.assertEqual((write(10.0, "area", "metric"), write(10.0, "area", "imperial")), ("10.0 m²", "108 ft²"))
        self.assertEqual((write(0.0, "length"), write(0.085, "length"), write(0.0, "length", "imperial")), ("0.00 m", "85 mm", "0 in"))
