"""Monthly means and dates as people write them, on both sides of the Atlantic."""

from __future__ import annotations

import datetime as dt
import unittest

from ascent.errors import InvalidPlan
from ascent.files.normals import are_months, read_normals
from ascent.files.weather import read_days

LOWS = (-6, -3.7, 1.6, 7.3, 13.4, 18.7, 21, 20, 15, 8.6, 2, -4)
HIGHS = (4, 6.9, 13, 18.7, 24, 29, 31.5, 31, 26.5, 20, 12, 5.7)
NAMES = ("Jan", "Feb", "Mar", "Apr", "May", "June", "July", "Aug", "Sept", "Oct", "Nov", "Dec")


def down(join: str, point: str = ".", named: bool = True) -> str:
    """Return a line for each month."""
    rows = zip(NAMES, LOWS, HIGHS, strict=True)
    return "\n".join(
        join.join(([name] if named else []) + [str(value).replace(".", point) for value in values])
        for name, *values in rows
    )


def across(join: str, point: str = ".") -> str:
    """Return a line of lows and one of highs."""
    return "\n".join(join.join(str(value).replace(".", point) for value in row) for row in (LOWS, HIGHS))


class MonthsTest(unittest.TestCase):
    def test_ways_to_write_them(self):
        for text in (
            down(" "),
            down("\t", ","),
            down(";", ","),
            down(","),
            down(", "),
            down(" ", ",", named=False),
            "month;low;high\n" + down(";", ","),
            "\n".join(f"{n};{low};{high}" for n, (low, high) in enumerate(zip(LOWS, HIGHS, strict=True), 1)),
            across(" ", ","),
            across(","),
            across(", "),
            "high " + " ".join(map(str, HIGHS)) + "\nlow " + " ".join(map(str, LOWS)),
        ):
            with self.subTest(text=text[:40]):
                self.assertTrue(are_months(text))
                found = read_normals(text)
                self.assertEqual([month.low for month in found], list(LOWS))
                self.assertEqual([month.high for month in found], list(HIGHS))

    def test_fahrenheit_and_inches(self):
        """32 °F is 0 °C, 50 °F is 10 °C, an inch is 25.4 mm: by definition."""
        for text in (
            "month, low °F, high °F, rain in\n" + "\n".join(f"{name}, 32, 50, 1" for name in NAMES),
            "\n".join(f"{name} 32 50.2" for name in NAMES),
        ):
            found = read_normals(text)
            self.assertAlmostEqual(found[0].low, 0.0, places=1)
            self.assertAlmostEqual(found[0].high, 10.0, delta=0.2)
        self.assertAlmostEqual(
            read_normals("rain in\n" + "\n".join(f"{n} 1 9 1" for n in NAMES))[0].rain, 25.4
        )

    def test_what_is_wrong_is_named(self):
        for text, path in (
            ("", "months"),
            ("warm and wet", "months"),
            ("\n".join(f"{name} 9 3" for name in NAMES), "jan"),
            ("\n".join(f"{name} -90 3" for name in NAMES), "jan.low"),
        ):
            with self.subTest(text=text[:20]), self.assertRaises(InvalidPlan) as raised:
                read_normals(text)
            self.assertEqual(raised.exception.problems[0].path, path)

    def test_days_are_no_months(self):
        self.assertFalse(are_months("date,low,high\n2024-01-01,2,5\n"))
        self.assertFalse(are_months("date,low,high\n" + "2024-01-01,2,5\n" * 90))


class DatesTest(unittest.TestCase):
    """Day first in Europe, month first in America, year first in the standard (ISO 8601)."""

    def days(self, form: str) -> list[dt.date]:
        start = dt.date(2024, 2, 3)
        dates = [start + dt.timedelta(days=n) for n in range(20)]
        rows = [f"{date.strftime(form)};1,5;9,5" for date in dates]
        self.assertEqual([day.day for day in read_days("date;low;high\n" + "\n".join(rows))], dates)
        return dates

    def test_habits(self):
        for form in ("%Y-%m-%d", "%Y/%m/%d", "%d.%m.%Y", "%d/%m/%Y", "%m/%d/%Y", "%d.%m.%y", "%d-%m-%Y"):
            with self.subTest(form=form):
                self.days(form)

    def test_days_that_could_be_either_follow_one_another(self):
        for form in ("%d/%m/%Y", "%m/%d/%Y"):
            dates = [dt.date(2024, 3, n) for n in range(1, 9)]
            text = "date,low,high\n" + "\n".join(f"{date.strftime(form)},1,9" for date in dates)
            self.assertEqual([day.day for day in read_days(text)], dates)
