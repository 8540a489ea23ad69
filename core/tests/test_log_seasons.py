"""The years of a log: rotation, weeks of harvest, years side by side, and what may be refused."""

from __future__ import annotations

import csv
import datetime as dt
import io

from ascent.analysis.design import geometry_of
from ascent.drawing.sheet import Line
from ascent.files.svg import sheet_svg
from ascent.log.harvest_table import harvest_csv, harvest_sheet
from ascent.log.members import member_called
from ascent.log.now import open_breaks
from ascent.log.seasons import grew_in, picked_by_week, with_past
from ascent.plan.entries import Entry
from ascent.plan.garden import Garden
from ascent.report.diary import entries_of
from ascent.report.life import life_report
from ascent.report.log import Where
from ascent.report.season_parts import waits_words
from ascent.report.years import years_report
from ascent.season.kept import kept_of
from ascent.season.rotation import too_soon

from tests.support import NearTestCase, demo, demo_log

AT = dt.datetime(2026, 8, 1, 18, 0, tzinfo=dt.UTC)
POUND = 0.45359237


def entry(key: str, kind: str, on: dt.date, **fields) -> Entry:
    return Entry(key=key, kind=kind, on=on, at=AT, **fields)


class SeasonsTest(NearTestCase):
    """The years that a log holds."""

    def test_what_was_picked_somewhere_grew_there_and_rotation_reads_it(self):
        garden = demo()
        bed = next(bed for bed in garden.beds if bed.key == "twine-bed")
        self.assertEqual(too_soon(bed, garden.year), ())
        log = [
            entry("h", "harvest", dt.date(2025, 8, 1), structure="twine-beam", crop="tom-cherry", mass=1.0),
            entry("n", "harvest", dt.date(2026, 8, 1), structure="twine-beam", crop="tom-cherry", mass=1.0),
        ]
        known = with_past(garden, grew_in(log))
        after = next(bed for bed in known.beds if bed.key == "twine-bed")
        self.assertEqual([(past.crop, past.year) for past in after.past], [("tom-cherry", 2025)])
        (turn,) = too_soon(after, garden.year)
        self.assertEqual((turn.years, turn.level), (1, "wrong"))
        self.assertEqual(with_past(known, grew_in(log)), known)

    def test_a_week_runs_from_monday_and_pieces_are_weighed(self):
        log = [
            entry("a", "harvest", dt.date(2026, 8, 2), structure="twine-beam", crop="tom-cherry", mass=1.0),
            entry("b", "harvest", dt.date(2026, 8, 3), structure="twine-beam", crop="tom-cherry", mass=2.0),
            entry("c", "harvest", dt.date(2026, 8, 9), structure="lantern-row", crop="tom-cherry", mass=0.5),
        ]
        weeks = picked_by_week(log)
        self.assertEqual(
            [(week.monday, week.mass) for week in weeks],
            [(dt.date(2026, 7, 27), 1.0), (dt.date(2026, 8, 3), 2.5)],
        )
        rows = list(csv.reader(io.StringIO(harvest_csv(weeks, "imperial"))))
        self.assertEqual(rows[0], ["week of", "crop", "picked (lb)"])
        self.assertNear(float(rows[2][2]) * POUND, 2.5, 1e-6)

    def test_a_drawn_week_is_as_high_as_what_was_picked(self):
        weeks = picked_by_week(demo_log())
        sheet = harvest_sheet(weeks, "Lantern Quay", "metric")
        bars = [
            mark
            for layer in sheet.layers
            if layer.key.startswith("year-")
            for mark in layer.marks
            if isinstance(mark, Line) and mark.fill
        ]
        self.assertEqual(len(bars), len(weeks))
        heights = [mark.points[2][1] - mark.points[1][1] for mark in bars]
        tallest = max(weeks, key=lambda week: week.mass)
        self.assertNear(max(heights) / sum(heights), tallest.mass / sum(week.mass for week in weeks), 1e-6)
        self.assertIn("<svg", sheet_svg(sheet))

    def test_years_side_by_side_tell_what_grew_failed_and_was_changed(self):
        report = years_report(demo(), demo_log(), dt.date(2026, 8, 11))
        self.assertEqual([column.year for column in report.columns], [2026, 2025, 2024, 2023])
        cove = next(place for place in report.places if place.bed == "cove-bed")
        self.assertIn("failed: 1", cove.cells[3].lines)
        self.assertIn("repaired: Longer posts, 20 cm deeper.", cove.cells[3].lines)
        long_plot = next(place for place in report.places if place.bed == "long-plot-a")
        self.assertEqual(long_plot.cells[1].crops, "beefsteak tomato")  # as somebody wrote of its past
        self.assertEqual(years_report(Garden(name="New"), (), dt.date(2026, 8, 11)).places, ())

    def test_what_the_log_changes_at_once_can_be_refused(self):
        broken = entry("b", "break", dt.date(2026, 8, 1), structure="lantern-row")
        garden = demo()
        self.assertEqual(len(open_breaks(garden, "lantern-row", [broken], None)), 1)
        refused = garden.model_copy(update={"ignores": ("break", "harvest", "treatment")})
        self.assertEqual(open_breaks(refused, "lantern-row", [broken], None), [])
        bed, structure = next((b, s) for b in refused.beds for s in b.structures if s.key == "lantern-row")
        treated = entry("t", "treatment", dt.date(2026, 8, 9), structure="lantern-row", what="soap", waits=7)
        for place, said in ((garden, True), (refused, False)):
            kept = kept_of(place, bed, structure, [treated])
            self.assertEqual(bool(waits_words(kept, "tom-slicer", dt.date(2026, 8, 10))), said)

    def test_a_day_of_the_calendar_says_what_was_written_and_by_nobody(self):
        today = dt.date(2026, 8, 11)
        log = [
            entry(
                "a",
                "harvest",
                dt.date(2026, 8, 9),
                structure="twine-beam",
                crop="tom-cherry",
                mass=2.0,
                who="ada",
            ),
            entry("b", "frost", dt.date(2026, 8, 9), low=1.0),
            entry("c", "frost", dt.date(2026, 5, 9), low=1.0),
        ]
        found = [each for each in entries_of(demo(), today, log) if each.key.startswith("log-")]
        (day,) = found
        self.assertEqual((day.key, day.on, day.hour), ("log-2026-08-09", dt.date(2026, 8, 9), None))
        self.assertIn("Twine Beam: 2.0 kg picked: cherry tomato", day.text)
        self.assertNotIn("ada", day.text)

    def test_a_life_tells_what_wears_and_what_is_left_of_it(self):
        garden = demo()
        bed, structure = next((b, s) for b in garden.beds for s in b.structures if s.key == "twine-beam")
        string = member_called(geometry_of(bed, structure), "string", 1)
        old = [entry("n", "note", dt.date(2024, 7, 1), structure="twine-beam", note="Up.")]
        new = [*old, entry("r", "repair", dt.date(2026, 6, 1), structure="twine-beam", member=string.key)]
        for log, said in (
            (old, "since 2024. Lasts about 2 seasons: replace"),
            (new, "since 2026. Lasts about 2 seasons: 2 left"),
        ):
            report = life_report(garden, bed, structure, log, Where({}, {}), dt.date(2026, 8, 11))
            (part,) = [part for part in report.parts if part.name.startswith("Greenhouse twine")]
            self.assertIn(said, part.words)

    def test_a_long_life_is_told_from_its_latest_end(self):
        garden = demo()
        bed, structure = next((b, s) for b in garden.beds for s in b.structures if s.key == "twine-beam")
        log = [
            entry(
                f"n{n}",
                "note",
                dt.date(2024, 1, 1) + dt.timedelta(days=n),
                structure="twine-beam",
                note="Well.",
            )
            for n in range(500)
        ]
        report = life_report(garden, bed, structure, log, Where({}, {}), dt.date(2026, 8, 11))
        self.assertEqual(len(report.events), 300)
        self.assertGreaterEqual(report.earlier, 200)
