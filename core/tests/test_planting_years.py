"""A planting has a year: across the turn of a garden's year, in gardens without frost, and when a season is
closed.
"""

from __future__ import annotations

import datetime as dt
import unittest

from ascent.loads.season import course_of, date_of, dated, in_next_season, planted_at, season_of, season_year
from ascent.plan.climate import Warmth
from ascent.plan.place import Place
from ascent.plan.structure import Planting
from ascent.season.windows import fate_of
from ascent.weather.frosts import frosts_of

from .published.guides import garden

COLD = Place(name="-", last_frost="04-15", first_frost="10-25", year=2026)
FREE = Place(name="-", latitude=26.0, last_frost=None, first_frost=None, year=2026)
SOUTH = Place(name="-", latitude=-38.0, last_frost="09-05", first_frost="06-10", year=2026)


def planting(crop: str = "tom-slicer", on: str = "05-10", year: int | None = None) -> Planting:
    return Planting(key="p", crop=crop, count=4, spacing=0.4, planted=on, year=year)


class YearTest(unittest.TestCase):
    def test_every_date_of_three_years_can_be_chosen(self):
        for place in (COLD, FREE, SOUTH):
            day = dt.date(2025, 1, 1)
            while day < dt.date(2028, 1, 1):
                self.assertEqual(date_of(place, dated(place, planting(), day)), day)
                day += dt.timedelta(days=9)

    def test_a_year_is_written_down_where_it_is_needed_only(self):
        self.assertIsNone(dated(COLD, planting(), dt.date(2026, 5, 10)).year)
        self.assertEqual(dated(COLD, planting(), dt.date(2027, 5, 10)).year, 2027)

    def test_tomatoes_of_late_summer_in_a_garden_without_frost(self):
        """On 14 August they are planned for the 25th: they are dated then, not a year back."""
        late = dated(FREE, planting(on="08-25"), dt.date(2026, 8, 25))
        self.assertEqual(date_of(FREE, late), dt.date(2026, 8, 25))
        self.assertGreater(course_of(FREE, late).first, 236)

    def test_broad_beans_cross_the_turn_of_the_year(self):
        """Sown in November, picked in spring and early summer: common practice, no source."""
        place = garden("plateau40").model_copy(update={"year": 2026})
        for year in (2025, 2026):
            beans = planting("fava", "11-10", year)
            course = course_of(place, beans)
            first = date_of(place, beans) + dt.timedelta(days=course.first - course.start)
            self.assertTrue(dt.date(year + 1, 3, 15) < first < dt.date(year + 1, 6, 10), first)
            self.assertEqual(fate_of(place, beans).verdict, "good")
            season = season_of(place, (beans,))
            self.assertLessEqual(season.date(0), dt.date(year, 11, 10))
            self.assertGreater(season.date(season.weeks - 1), first)

    def test_the_season_a_planting_is_of_does_not_change_with_the_one_that_is_open(self):
        for place in (COLD, FREE, SOUTH):
            for on in ("02-01", "05-10", "08-25", "11-10"):
                usual = planting(on=on)
                (kept,) = in_next_season(place, (usual,), (), dt.date(2026, 9, 1), begun=True)
                after = place.model_copy(update={"year": 2027})
                self.assertEqual(date_of(after, kept), date_of(place, usual), on)
                self.assertEqual(season_year(after, kept), 2026)


class ClosingTest(unittest.TestCase):
    def test_what_is_cleared_is_planned_anew_and_what_is_not_keeps_its_date(self):
        plantings = tuple(
            planting(crop, on, year).model_copy(update={"key": key})
            for key, crop, on, year in (
                ("a", "tom-slicer", "05-10", None),
                ("b", "bean-pole", "05-20", None),
                ("c", "fava", "11-10", 2025),
            )
        )
        kept = in_next_season(COLD, plantings, {"a", "c"}, dt.date(2026, 9, 1), begun=True)
        after = COLD.model_copy(update={"year": 2027})
        dates = [date_of(after, each) for each in kept]
        self.assertEqual(dates, [dt.date(2027, 5, 10), dt.date(2026, 5, 20), dt.date(2026, 11, 10)])

    def test_a_season_that_never_began_is_planned_for_the_next_year(self):
        (kept,) = in_next_season(COLD, (planting(),), (), dt.date(2026, 3, 1), begun=False)
        self.assertEqual(date_of(COLD.model_copy(update={"year": 2027}), kept), dt.date(2027, 5, 10))


class MildWinterTest(unittest.TestCase):
    """Frost in four winters of twenty."""

    PLACE = FREE.model_copy(
        update={
            "warmth": Warmth(
                years=20,
                lasts=("01-05", "01-20", "02-02", "12-28"),
                firsts=("01-03", "01-18", "02-02", "12-28"),
            )
        }
    )

    def test_it_is_a_chance_and_no_date(self):
        frosts = frosts_of(self.PLACE)
        self.assertIsNotNone(frosts)
        self.assertFalse(frosts.usual)
        self.assertAlmostEqual(frosts.chance_after(-60), 4 / 20)
        self.assertAlmostEqual(frosts.chance_after(10), 2 / 20)
        self.assertEqual(frosts.chance_after(60), 0.0)

    def test_what_is_planted_is_not_ended_by_it(self):
        later = planted_at(self.PLACE, planting(), 300)
        self.assertNotEqual(course_of(self.PLACE, later).ends, "frost")
