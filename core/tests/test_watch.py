"""Cold nights and hot days that are forecast: what dies, what drops its flowers, and what to do first."""

from __future__ import annotations

import datetime as dt
import unittest

from ascent import tables
from ascent.files.weather import Day, WindForecast
from ascent.report.storms import weather_report
from ascent.season.kept import everything
from ascent.season.watch import cold_watch, heat_watch

from tests.support import demo

LATE = dt.date(2026, 10, 8)  # the demo's tomatoes still stand
SPRING = dt.date(2026, 4, 20)  # its peas are young
AUGUST = dt.date(2026, 8, 4)


def forecast(on: dt.date, **day: float) -> WindForecast:
    return WindForecast(
        format="ascent-weather",
        version=1,
        kind="forecast",
        station="Mast",
        issued=dt.datetime(on.year, on.month, on.day, 6, tzinfo=dt.UTC),
        days=(
            Day(day=on, low=12, high=20),
            Day(day=on + dt.timedelta(days=1), **{"low": 12, "high": 20, **day}),
        ),
    )


class ColdTest(unittest.TestCase):
    def test_tender_crops_die_at_two_below(self):
        """Extension guides, from memory: tomatoes, cucumbers, beans and squash are killed at 0 to −1 °C."""
        found = cold_watch(everything(demo()), LATE, -2.0)
        killed = {one.grown.planting.crop for one in found if one.outcome == "dies"}
        self.assertIn("tom-slicer", killed)
        self.assertIn("bean-runner", killed)
        for one in found:
            self.assertLess(tables.frost_classes()[one.grown.calendar.frost_class].kills_C, 0.0)

    def test_young_peas_outlive_it(self):
        """Peas survive to −4 °C and below, and flowers do not survive −2: extension guides, from memory."""
        crops = {one.grown.planting.crop for one in cold_watch(everything(demo()), SPRING, -4.0)}
        self.assertFalse({"pea-snap", "pea-dwarf"} & crops)
        june = cold_watch(everything(demo()), dt.date(2026, 6, 18), -2.2)
        peas = {one.grown.planting.crop: one.outcome for one in june}
        self.assertIn(peas["pea-snap"], ("flowers", "may-die"))

    def test_a_mild_night_kills_nothing(self):
        self.assertEqual(cold_watch(everything(demo()), LATE, 4.0), [])

    def test_what_saves_the_most_in_a_minute_comes_first(self):
        found = cold_watch(everything(demo()), LATE, -2.0)
        best = [max((act.worth for act in one.acts), default=0.0) for one in found]
        self.assertEqual(best, sorted(best, reverse=True))
        for one in found:
            self.assertEqual(
                [act.worth for act in one.acts], sorted((a.worth for a in one.acts), reverse=True)
            )

    def test_fleece_is_offered_where_it_is_enough(self):
        """Fleece keeps off 2 K (season handbook 1): at −2 °C it saves tomatoes, at −4 it does not."""
        for low, offered in ((-2.0, True), (-4.0, False)):
            found = cold_watch(everything(demo()), LATE, low)
            tomatoes = [one for one in found if one.grown.planting.crop == "tom-slicer"]
            self.assertEqual(any(act.key == "cover" for one in tomatoes for act in one.acts), offered)


class HeatTest(unittest.TestCase):
    def test_tomatoes_drop_flowers_and_cucumbers_do_not(self):
        """Tomatoes set badly above 32 to 35 °C by day, cucumbers bear more: season handbook 2, memory."""
        crops = {one.grown.planting.crop for one in heat_watch(everything(demo()), AUGUST, 36.0)}
        self.assertIn("tom-slicer", crops)
        self.assertNotIn("cuc-slice", crops)
        self.assertEqual(heat_watch(everything(demo()), AUGUST, 25.0), [])


class ReportTest(unittest.TestCase):
    def test_it_is_said(self):
        report = weather_report(
            demo(), LATE, forecast(LATE, low=-2.0), (), dt.datetime(2026, 10, 8, 12, tzinfo=dt.UTC)
        )
        self.assertIn("tomorrow", report.cold.words)
        self.assertIn("kills it", report.cold.rows[0].words)
        self.assertTrue(report.cold.rows[0].acts[0].saves)
        self.assertIsNone(report.heat)
        hot = weather_report(
            demo(), AUGUST, forecast(AUGUST, high=37.0), (), dt.datetime(2026, 8, 4, 12, tzinfo=dt.UTC)
        )
        self.assertIsNone(hot.cold)
        self.assertTrue(any("flowers drop" in crop for crop in hot.heat.crops))
