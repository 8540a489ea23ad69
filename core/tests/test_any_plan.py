"""Random gardens through everything that is told of them: no page fails, whatever the plan allows."""

from __future__ import annotations

import datetime as dt
import os
import unittest
from collections.abc import Callable

from ascent.building.asbuilt import coming_off
from ascent.buying.back import put_back
from ascent.errors import AscentError
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.files.calendar_file import write_calendar
from ascent.files.pdf import write_pdf
from ascent.plan.needs import Wants
from ascent.report.building import build_report, paper_of
from ascent.report.choosing import way_report
from ascent.report.diary import entries_of
from ascent.report.report import full_report
from ascent.report.season import skipped_words, week_report
from ascent.report.storms import weather_report
from ascent.report.year import year_report
from ascent.site import Site

from tests.random_plans import Drawn, drawn
from tests.support import some

PLANS = int(os.environ.get("ASCENT_PLANS", some(5000, 250)))


def pages(plan: Drawn) -> dict[str, Callable[[], object]]:
    """Return everything that is told of a garden, by what it is."""
    garden, bed, structure, today = plan.garden, plan.bed, plan.structure, plan.today
    site = Site(garden=garden, bed=bed)
    need = Need(structure.plantings[0].crop, None, structure.plantings[0].side, "pruned")
    family = list(FAMILIES)[len(structure.options) % len(FAMILIES)]
    now = dt.datetime.combine(today, dt.time(12), dt.UTC)
    keys = iter(f"new-{n}" for n in range(999))
    return {
        "report": lambda: full_report(site, structure, garden.units, today).model_dump_json(),
        "build": lambda: build_report(garden, bed, structure, None, garden.units),
        "paper": lambda: write_pdf(paper_of(garden, bed, structure, None, garden.units, today)),
        "choose": lambda: way_report(site, family, need, Wants(), garden.units, closely=False),
        "year": lambda: year_report(garden, today),
        "week": lambda: week_report(garden, today),
        "skipped": lambda: skipped_words(garden, bed, structure, today),
        "weather": lambda: weather_report(garden, today, plan.forecast, plan.forecast.days, now),
        "calendar": lambda: write_calendar("It", entries_of(garden, today), garden.timezone, "it", now),
        "down": lambda: put_back((), *coming_off(site, structure), 1, lambda _: next(keys)),
    }


def failures(number: int) -> list[str]:
    """Return what fails of a random garden's pages; what a person can put right is no failure."""
    found = []
    for name, make in pages(drawn(number)).items():
        try:
            make()
        except AscentError:
            continue
        except Exception as error:
            found.append(f"plan {number}, {name}: {type(error).__name__} {error}"[:200])
    return found


class AnyPlanTest(unittest.TestCase):
    def test_every_page_of_it_is_told(self):
        """A share of 5,000 by day, the others on other days; all of them in a thorough run."""
        first = dt.datetime.now(dt.UTC).toordinal() * PLANS % 5000 if PLANS < 5000 else 0
        failed = [words for n in range(PLANS) for words in failures((first + n) % 5000)]
        self.assertEqual(failed, [], f"{len(failed)} fail")


if __name__ == "__main__":
    unittest.main()
