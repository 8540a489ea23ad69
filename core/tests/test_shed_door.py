"""The shed-door sheet: one page, whatever is due, with a box for each support."""

from __future__ import annotations

import datetime as dt
import io
import unittest

from ascent.drawing.paper import Heading, Listed, Text
from ascent.files.pdf import write_pdf
from ascent.report.season import week_report
from ascent.report.shed_door import shed_door_sheet
from pypdf import PdfReader

from tests.support import demo, demo_log

DAYS = (dt.date(2026, 5, 12), dt.date(2026, 8, 11), dt.date(2026, 12, 1))
STORM = ("Gusts to 23 m/s are forecast on Thursday (at 10 m, over open ground).",)


class SheetTest(unittest.TestCase):
    def test_it_is_one_page(self):
        for day in DAYS:
            for form in ("A4", "Letter"):
                with self.subTest(day=day, form=form):
                    pdf = write_pdf(shed_door_sheet(demo(), day, demo_log(), STORM), form)
                    self.assertEqual(len(PdfReader(io.BytesIO(pdf)).pages), 1)

    def test_the_storm_is_on_top_and_no_reasons_are_given(self):
        day = DAYS[1]
        sheet = shed_door_sheet(demo(), day, demo_log(), STORM)
        self.assertIsInstance(sheet.blocks[0], Heading)
        self.assertEqual(sheet.blocks[1], Text(STORM[0], "care"))
        text = PdfReader(io.BytesIO(write_pdf(sheet))).pages[0].extract_text()
        first = week_report(demo(), day, demo_log()).now
        self.assertIn(first.label, text)
        why = first.visits[0].tasks[0].why
        self.assertNotIn(why[:30], text)

    def test_today_comes_whole_before_the_next_day_begins(self):
        sheet = shed_door_sheet(demo(), DAYS[1], demo_log())
        lists = [block for block in sheet.blocks if isinstance(block, Listed)]
        self.assertTrue(all(block.boxes and block.large for block in lists))
        open_ = [
            visit
            for visit in week_report(demo(), DAYS[1], demo_log()).now.visits
            if any(task.state is None and not task.waits for task in visit.tasks)
        ]
        self.assertTrue(len(lists) == 1 or len(lists[0].items) == len(open_))
