"""What people write, against the units library and the trade's own tables."""

from __future__ import annotations

import pint
from ascent.errors import UnreadableQuantity
from ascent.words.quantities import (
    BEAUFORT_NAMES,
    STYLES,
    beaufort,
    beaufort_mean,
    beaufort_number,
    gauge_diameter,
    read,
    with_sizes,
    write,
)
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import NearTestCase

UNITS = pint.UnitRegistry()


class ReadingTest(NearTestCase):
    def test_lengths_that_people_write(self):
        inch = 0.0254
        for text, metres in {
            "1.2 m": 1.2,
            "1,2m": 1.2,
            "120cm": 1.2,
            "1200 mm": 1.2,
            "1.2": 1.2,
            "18 in": 18 * inch,
            '18"': 18 * inch,
            "6'": 72 * inch,
            "6' 4\"": 76 * inch,
            "6' 4 1/2\"": 76.5 * inch,
            "6'4½\"": 76.5 * inch,
            "6 ft 2 in": 74 * inch,
            "5 1/2 ft": 66 * inch,
            "1/2 in": 0.5 * inch,
            "6′ 2″": 74 * inch,
            "6’2”": 74 * inch,
            "5-1/2 in": 5.5 * inch,
            "15/16 in": 15 / 16 * inch,
            "1 15/16 in": 31 / 16 * inch,
            "2 yd": 72 * inch,
            "1 m 20 cm": 1.2,
            "1e0 m": 1.0,
        }.items():
            with self.subTest(text):
                self.assertAlmostEqual(read(text, "length"), metres, places=9)

    def test_a_comma_that_may_part_thousands_is_asked_about_and_no_other(self):
        """A comma before three figures parts thousands where English is written and decimals elsewhere.
        Common practice, no source.
        """
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
        for text, metres in {
            "1,2 m": 1.2,
            "1,25 m": 1.25,
            "0,250 m": 0.25,
            "1200,5 mm": 1.2005,
            "1.200 m": 1.2,
            "1,2500 m": 1.25,
        }.items():
            self.assertAlmostEqual(read(text, "length"), metres)

    def test_numbers_that_no_float_holds(self):
        for text in (
            "1e400",
            "9" * 5000,
            "1e400 m",
            "1/" + "9" * 5000 + " in",
            "9" * 5000 + "/2 in",
            "1/0 in",
        ):
            for kind in ("length", "count", "ratio", "bearing"):
                with self.subTest(text[:20], kind=kind), self.assertRaises(UnreadableQuantity):
                    read(text, kind)

    def test_sizes_in_names_for_readers_of_inches_against_the_units_library(self):
        for name, found in {
            "hardwood stake 38 mm": "hardwood stake 1 1/2 in",
            "sawn board 38 × 89 on edge": "sawn board 1 1/2 in × 3 1/2 in on edge",
            "baler twine 2.2 mm": "baler twine 0.087 in",
            "eye bolt M8 through the post": "eye bolt M8 through the post",
            "high-tensile wire 12.5 gauge": "high-tensile wire 12.5 gauge",
            "steel T-post 2.1 m": "steel T-post 7 ft",
            "screw anchor 0.76 m": "screw anchor 2 ft 6 in",
        }.items():
            self.assertEqual(with_sizes(name, "imperial"), found)
            self.assertEqual(with_sizes(name, "metric"), name)
        self.assertEqual(with_sizes("mesh, 1.25 m high", "imperial", exact=True), "mesh, 4 ft 1 1/4 in high")
        self.assertAlmostEqual(UNITS.Quantity(2.2, "mm").to("inch").magnitude, 0.087, places=3)
        kilos = float(with_sizes("60 kg of stones", "imperial").split()[0])
        self.assertAlmostEqual(UNITS.Quantity(kilos, "pound").to("kg").magnitude, 60, delta=1.5)

    def test_a_bare_number_is_in_the_gardeners_unit(self):
        self.assertAlmostEqual(read("18", "length", "imperial", 0.1, 3.0), 18 * 0.0254)
        self.assertAlmostEqual(read("34", "speed", "imperial"), 34 * 0.44704)
        self.assertAlmostEqual(read("2", "mass"), 2.0)

    def test_a_bare_length_is_asked_about_where_feet_and_inches_are_both_allowed(self):
        """20 in a field that shows feet is 20 ft to whoever writes it."""
        foot, inch = 0.3048, 0.0254
        self.assertAlmostEqual(read("20", "length", "imperial", 1.0, 60.0), 20 * foot)  # 20 in are too few
        self.assertAlmostEqual(read("18", "length", "imperial", 0.1, 3.0), 18 * inch)  # 18 ft are too many
        self.assertEqual(read("0", "length", "imperial"), 0.0)
        for bounds in ((None, None), (0.3, 60.0)):
            with self.assertRaisesRegex(UnreadableQuantity, "20 ft or 20 in"):
                read("20", "length", "imperial", *bounds)

    def test_a_sign_is_of_the_whole(self):
        foot, inch = 0.3048, 0.0254
        for text, metres in (
            ("−3 ft 6 in", -3.5 * foot),
            ("-3 ft 6 in", -3.5 * foot),
            ("-6 1/2 in", -6.5 * inch),
            ("−1 ft 7 3/4 in", -19.75 * inch),
            ("- 1 m 20 cm", -1.2),
        ):
            self.assertAlmostEqual(read(text, "length", "imperial"), metres, places=9)
        for text in ("--3 ft", "-", "- -3 ft"):
            with self.assertRaises(UnreadableQuantity):
                read(text, "length", "imperial")

    @settings(max_examples=400, deadline=None, derandomize=True)
    @given(
        st.sampled_from([*STYLES, "count", "ratio", "angle", "bearing", "temperature"]),
        st.sampled_from(["metric", "imperial"]),
        st.floats(-300.0, 300.0) | st.floats(-0.2, 0.2) | st.floats(-1e5, 1e5),
    )
    def test_whatever_is_shown_is_read_back_as_it_was(self, kind, system, value):
        """All kinds, both systems, below nothing too: what the program shows may be typed into it."""
        if kind == "bearing":
            value = abs(value) % 360.0
        shown = write(value, kind, system)
        found = read(shown, kind, system)
        self.assertEqual(write(found, kind, system), shown)
        self.assertGreaterEqual(found * value, -1e-9 * abs(value) - (300.0 if kind == "temperature" else 0.0))

    def test_other_kinds_against_pint(self):
        for text, kind, quantity in (
            ("35 lb", "mass", UNITS.Quantity(35, "pound")),
            ("800 g", "mass", UNITS.Quantity(800, "gram")),
            ("6 oz", "mass", UNITS.Quantity(6, "ounce")),
            ("35 lbf", "force", UNITS.Quantity(35, "force_pound")),
            ("0.3 kN", "force", UNITS.Quantity(300, "newton")),
            ("20 kgf", "force", UNITS.Quantity(20, "force_kilogram")),
            ("40 mph", "speed", UNITS.Quantity(40, "mile/hour")),
            ("54 km/h", "speed", UNITS.Quantity(15, "m/s")),
            ("30 knots", "speed", UNITS.Quantity(30, "knot")),
            ("0.1 in", "wire", UNITS.Quantity(0.1, "inch")),
        ):
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
            ("", "length", "1.2 m"),
            ("six feet", "length", "such as"),
            ("1.2 kg", "length", "not a unit of length"),
            ("12 ga", "wire", "standard"),
            ("1/0 in", "length", "such as"),
            ("1e400 m", "length", "such as"),
            ("nan", "length", "such as"),
            ("3 2 m", "length", "such as"),
            ("Beaufort 13", "speed", "0 to 12"),
            ("99 W&M", "wire", "known here"),
            ("1.5", "count", "whole"),
            ("2 m 3", "length", "such as"),
            ("-", "length", "such as"),
            ("1.2.3 m", "length", "such as"),
        ):
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
            (1.2, "length", "metric", "1.20 m"),
            (0.048, "length", "metric", "48 mm"),
            (1.9431, "length", "imperial", "6 ft 4 1/2 in"),
            (0.6096, "length", "imperial", "2 ft"),
            (0.0254 * 7.25, "length", "imperial", "7 1/4 in"),
            (0.0127, "length", "imperial", "1/2 in"),
            (15.0, "speed", "imperial", "34 mph"),
            (1234.0, "force", "metric", "1.23 kN"),
            (300.0, "force", "imperial", "67 lbf"),
            (-0.3, "length", "metric", "−0.30 m"),
            (float("inf"), "force", "metric", "beyond measure"),
            (4.0, "count", "metric", "4"),
        ):
            with self.subTest(text):
                self.assertEqual(write(value, kind, system), text)

    @settings(max_examples=300, deadline=None, derandomize=True)
    @given(st.floats(0.01, 60.0), st.sampled_from(["metric", "imperial"]))
    def test_a_length_that_is_written_is_read_back(self, value, system):
        """To what is shown: a centimetre (a millimetre when small), or a quarter inch."""
        back = read(write(value, "length", system), "length", system)
        self.assertAlmostEqual(back, value, delta=0.0051 if system == "metric" else 0.0254 / 8 + 1e-9)

    @settings(max_examples=200, deadline=None, derandomize=True)
    @given(
        st.sampled_from(["mass", "force", "speed"]),
        st.floats(0.1, 900.0),
        st.sampled_from(["metric", "imperial"]),
    )
    def test_other_kinds_are_read_back(self, kind, value, system):
        style = STYLES[kind][system]
        step = 10.0**-style.decimals * float(UNITS.Quantity(1, style.unit).to_base_units().magnitude)
        self.assertAlmostEqual(
            read(write(value, kind, system), kind, system), value, delta=max(step / 2, 5.1e-3 * value) + 1e-9
        )

    @settings(max_examples=400, deadline=None, derandomize=True)
    @given(
        st.text(alphabet="0123456789.,/'\" ftincmkgedlbx-+½″&", max_size=14),
        st.sampled_from(["length", "mass", "wire", "speed", "force"]),
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
        for text, expected in (
            ("N", 0),
            ("ne", 45),
            ("E", 90),
            ("SSW", 202.5),
            ("W", 270),
            ("nnw", 337.5),
            ("90", 90),
            ("45°", 45),
            ("12,5 °", 12.5),
            ("-35", -35),
        ):
            self.assertEqual(read(text, "bearing"), expected, text)

    def test_what_is_none(self):
        for text in ("north-ish", "NEE", "", "12 m"):
            with self.assertRaises(UnreadableQuantity):
                read(text, "bearing")
        with self.assertRaises(UnreadableQuantity):
            read("400", "bearing", "metric", 0, 359.9)

    def test_written(self):
        self.assertEqual([write(v, "bearing") for v in (0, 45.4, -35)], ["0°", "45°", "−35°"])
        self.assertEqual(
            (write(10.0, "area", "metric"), write(10.0, "area", "imperial")), ("10.0 m²", "108 ft²")
        )
        self.assertEqual(
            (write(0.0, "length"), write(0.085, "length"), write(0.0, "length", "imperial")),
            ("0.00 m", "85 mm", "0 in"),
        )


class EveryKindTest(NearTestCase):
    """Every kind in both systems against the units library, and the trade's own tables."""

    def test_what_a_hundred_of_each_is(self):
        for kind, value, metric, imperial in (
            ("mass", 100.0, "100.0 kg", "220.5 lb"),
            ("moment", 100.0, "100 N·m", "74 lbf·ft"),
            ("pressure", 100.0, "100 Pa", "2.09 lbf/ft²"),
            ("stress", 1e8, "100 MPa", "14.5 ksi"),
            ("line_load", 100.0, "100.0 N/m", "6.85 lbf/ft"),
            ("wire", 2.5e-3, "2.50 mm", "0.098 in"),
            ("cooling", 10.0, "10 °C", "18 °F"),
            ("volume", 0.1, "100 L", "26.4 gal"),
            ("area", 100.0, "100.0 m²", "1076 ft²"),
            ("speed", 100.0, "100 m/s", "224 mph"),
            ("force", 100.0, "100 N", "22 lbf"),
        ):
            with self.subTest(kind):
                self.assertEqual((write(value, kind), write(value, kind, "imperial")), (metric, imperial))
        for kind, value, unit in (
            ("moment", 100.0, "force_pound * foot"),
            ("pressure", 100.0, "force_pound / foot ** 2"),
            ("stress", 1e8, "ksi"),
            ("line_load", 100.0, "force_pound / foot"),
            ("volume", 0.1, "gallon"),
            ("area", 100.0, "foot ** 2"),
        ):
            shown = float(write(value, kind, "imperial").split()[0])
            self.assertNear(UNITS.Quantity(shown, unit).to_base_units().magnitude, value, 0.006)

    def test_small_and_large_ones(self):
        """Below ten, forces, moments and pressures show a tenth; from a thousand on, newtons are
        kilonewtons.
        """
        self.assertEqual(
            [write(v, "force") for v in (0.0, 4.26, 9.96, 10.4, 999.4, 1000.0, -2500.0)],
            ["0 N", "4.3 N", "10 N", "10 N", "999 N", "1.00 kN", "−2.50 kN"],
        )
        self.assertEqual(
            (write(4.26, "moment"), write(4.26, "pressure"), write(4.26, "line_load")),
            ("4.3 N·m", "4.3 Pa", "4.3 N/m"),
        )
        self.assertEqual(
            (write(20.0, "force", "imperial"), write(0.3, "ratio"), write(3.0, "angle")),
            ("4.5 lbf", "0.30", "3°"),
        )

    def test_small_lengths_to_the_sixteenth_and_large_ones_to_the_quarter(self):
        inch = 0.0254
        for inches, text in (
            (0.5625, "9/16 in"),
            (1.9375, "1 15/16 in"),
            (2.1, "2 in"),
            (2.3, "2 1/4 in"),
            (11.9, "1 ft"),
            (12.25, "1 ft 1/4 in"),
            (36.0, "3 ft"),
            (1.0, "1 in"),
            (0.0625, "1/16 in"),
        ):
            self.assertEqual(write(inches * inch, "length", "imperial"), text)
        self.assertEqual(
            [write(m, "length") for m in (0.0994, 0.0996, 0.0004, 12.345)],
            ["99 mm", "0.10 m", "0.00 m", "12.35 m"],
        )
        self.assertEqual(write(-1.5 * 12 * inch, "length", "imperial"), "−1 ft 6 in")

    def test_what_else_people_write(self):
        for text, kind, unit, count in (
            ("0.04 m³", "volume", "litre", 40),
            ("0.04 m3", "volume", "litre", 40),
            ("10 gal", "volume", "gallon", 10),
            ("40 L", "volume", "litre", 40),
            ("7 lbf/ft", "line_load", "force_pound / foot", 7),
            ("10 kg/m", "line_load", "kilogram_force / metre", 10),
            ("0.1 kN/m", "line_load", "newton / metre", 100),
            ("100 N/m", "line_load", "newton / metre", 100),
            ("2 t", "mass", "kilogram", 2000),
            ("1.5 km", "length", "metre", 1500),
            ("50 ft/s", "speed", "foot / second", 50),
            ("20 kn", "speed", "knot", 20),
            ("12 kph", "speed", "kilometre / hour", 12),
            ("3 lb 4 oz", "mass", "ounce", 52),
        ):
            with self.subTest(text):
                self.assertNear(read(text, kind), UNITS.Quantity(count, unit).to_base_units().magnitude, 1e-6)
        for text, kind, system, unit, count in (
            ("10", "volume", "imperial", "gallon", 10),
            ("2", "pressure", "imperial", "force_pound / foot ** 2", 2),
            ("18", "cooling", "imperial", "kelvin", 10),
            ("12", "area", "metric", "metre ** 2", 12),
        ):
            self.assertNear(
                read(text, kind, system), UNITS.Quantity(count, unit).to_base_units().magnitude, 1e-6
            )

    def test_bounds_are_allowed_and_what_lies_past_them_is_not(self):
        self.assertEqual(
            (read("0.3 m", "length", low=0.3, high=2.0), read("2 m", "length", low=0.3, high=2.0)), (0.3, 2.0)
        )
        for text, low, high, words in (
            ("0.29 m", 0.3, None, "0.30 m or more"),
            ("2.01 m", None, 2.0, "up to 2.00 m"),
            ("0.2 m", 0.3, 2.0, "0.30 m to 2.00 m"),
        ):
            with self.assertRaises(UnreadableQuantity) as caught:
                read(text, "length", "metric", low, high)
            self.assertEqual(caught.exception.allowed, f"{words} is allowed")

    def test_the_beaufort_scale(self):
        """Lowest mean speed of each number at 10 m, m/s. WMO-No. 306, code table 1100: 0.3, 1.6, 3.4, 5.5,
        8.0, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7 (value from memory).
        """
        lowest = (0.3, 1.6, 3.4, 5.5, 8.0, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7)
        self.assertEqual([beaufort(v) for v in lowest], list(range(1, 13)))
        self.assertEqual([beaufort(v - 0.11) for v in lowest], list(range(12)))
        self.assertEqual([beaufort(beaufort_mean(n)) for n in range(13)], list(range(13)))
        self.assertEqual(
            (beaufort_number("Force 10"), beaufort_number("b 3"), beaufort_number("ten")), (10, 3, None)
        )
        self.assertEqual(
            (BEAUFORT_NAMES[8], BEAUFORT_NAMES[12], len(BEAUFORT_NAMES)), ("a gale", "a hurricane", 13)
        )

    def test_a_gauge_that_no_standard_has(self):
        for number, standard in ((41, "awg"), (-1, "awg"), (99, "swg"), (12.25, "w&m")):
            with self.assertRaises(UnreadableQuantity):
                gauge_diameter(number, standard)
        self.assertNear(gauge_diameter(0, "awg") * 1e3, 8.251, 1e-3)  # ASTM B258
        self.assertNear(gauge_diameter(40, "awg") * 1e3, 0.07987, 2e-3)
