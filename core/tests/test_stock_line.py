"""Things of a shed in one line, as people say them: names of the trade, common practice, no source."""

from __future__ import annotations

from ascent.errors import InvalidPlan
from ascent.files.stock_line import read_stock

from tests.support import NearTestCase

FOOT = 0.3048
# line, system: what it is, how many, how long, seasons, how it looks, how sure
SAID = (
    ("20 bamboo canes 6 ft, two years old", "imperial", "bamboo cane", 20, 6 * FOOT, 2, "good", "seen"),
    ("6 used steel T-posts 7 ft", "imperial", "steel T-post 2.1 m", 6, 7 * FOOT, 0, "fair", "seen"),
    ("six T posts, 1.8 m, bent", "metric", "steel T-post 1.8 m", 6, 1.8, 0, "poor", "seen"),
    ("50 m jute twine", "metric", "jute", 1, 50.0, 0, "good", "known"),
    ("3 hazel poles 2.4 m, 1 season, good", "metric", "cut hazel pole", 3, 2.4, 1, "good", "seen"),
    ("a dozen canes 16 mm 2.1 m", "metric", "bamboo cane 16 mm", 12, 2.1, 0, "good", "known"),
    ("string from feed bags 100 m", "metric", "string from feed bags", 1, 100.0, 0, "good", "known"),
    ("1 cattle panel", "imperial", "livestock panel", 1, 4.88, 0, "good", "known"),
    ("8 rebar 12 mm 1.5 m", "metric", "reinforcing bar 12 mm", 8, 1.5, 0, "good", "known"),
    ("5 canes 5 ft 6 in", "imperial", "bamboo cane", 5, 5.5 * FOOT, 0, "good", "known"),
)


class StockLineTest(NearTestCase):
    def test_a_line_is_read(self):
        for line, system, name, count, length, age, condition, sure in SAID:
            with self.subTest(line):
                found = read_stock(line, system)
                self.assertTrue(found.name.startswith(name), found.name)
                self.assertEqual(found.count, count)
                self.assertNear(found.length, length, 0.001)
                self.assertEqual((found.age, found.condition, found.sure), (age, condition, sure))

    def test_what_is_not_known_is_asked_for_with_an_example(self):
        for line in ("", "3 elephants", "?", "20"):
            with self.subTest(line), self.assertRaises(InvalidPlan) as refused:
                read_stock(line, "metric")
            self.assertIn("20 bamboo canes", refused.exception.problems[0].allowed)

    def test_what_is_too_many_or_too_long_is_refused(self):
        for line in ("5000 bamboo canes 2 m", "3 bamboo canes 900 m"):
            with self.subTest(line), self.assertRaises(InvalidPlan):
                read_stock(line, "metric")
