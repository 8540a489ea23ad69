"""When to plant: published planting guides of four climates, from memory; windows are found for gardens of
such places, made from latitude, frosts and nearness of water alone.
"""

from __future__ import annotations

import datetime as dt
import unittest

import numpy as np
from ascent import tables
from ascent.loads.outlook import outlook, plantable, proposed_day
from ascent.loads.season import course_of, planted_at
from ascent.plan.climate import Warmth
from ascent.plan.place import Place
from ascent.plan.structure import Planting
from ascent.season.windows import fate_of
from ascent.weather.course import turn_of

from .guides import (
    BEYOND,
    COVER,
    GUIDES,
    NEAR,
    PLACES,
    Guide,
    away,
    between,
    first_and_end,
    garden,
    offered,
    window_fits,
)

TOWN = Place(
    name="cool coast", latitude=51.5, last_frost="04-18", first_frost="10-30", warmth=Warmth(water="near")
)
MIDWEST = Place(
    name="warm inland",
    latitude=39.0,
    last_frost="04-15",
    first_frost="10-20",
    warmth=Warmth(water="inland", height=250),
)
SOUTH = Place(
    name="southern temperate",
    latitude=-37.8,
    last_frost="09-05",
    first_frost="06-10",
    warmth=Warmth(water="near"),
)
HIGH = Place(
    name="high and cool",
    latitude=46.5,
    last_frost="05-25",
    first_frost="09-20",
    warmth=Warmth(water="inland", height=1400),
)


def month_is_good(place: Place, crop: str, month: int) -> float:
    """Return the share of a month in which a crop can be planted."""
    seen, turns = outlook(place, crop), turn_of(place)
    months = np.array([(turns + dt.timedelta(days=int(day))).month for day in seen.days])
    return float(np.mean(seen.good[months == month]))


class GuidesTest(unittest.TestCase):
    """Months in which guides say to plant, and not to."""

    def check(self, place, crop, good, bad):
        for month in good:
            with self.subTest(place=place.name, crop=crop, good=month):
                self.assertGreater(month_is_good(place, crop, month), 0.4)
        for month in bad:
            with self.subTest(place=place.name, crop=crop, bad=month):
                self.assertLess(month_is_good(place, crop, month), 0.15)

    def test_south_of_england(self):
        """The national horticultural society's advice, value from memory: tomatoes out from late May to
        June, runner beans sown outdoors from mid-May to June, peas from March to June, cucumbers outdoors in
        June; none of the tender ones in April or August.
        """
        self.check(TOWN, "tom-cherry", (6,), (3, 4, 8, 9))
        self.check(TOWN, "bean-runner", (6,), (3, 4, 8, 9))
        self.check(TOWN, "pea-snap", (4, 5), (10, 12))
        self.check(TOWN, "cuc-slice", (6,), (4, 8, 9))

    def test_inland_at_39_degrees(self):
        """A state extension's vegetable calendar for Kansas and Missouri, from memory: tomatoes set from
        May to mid-June (a second planting to early July), beans from late April to July, peas in March and
        April, winter squash in May and June.
        """
        self.check(MIDWEST, "tom-slicer", (5, 6), (3, 8, 9))
        self.check(MIDWEST, "bean-pole", (5, 6), (3, 9))
        self.check(MIDWEST, "pea-snap", (), (5, 11))
        self.assertGreater(month_is_good(MIDWEST, "pea-snap", 3), 0.15)
        self.check(MIDWEST, "butternut", (5, 6), (3, 8))

    def test_south_of_the_equator(self):
        """A state agriculture department's guide for Victoria, value from memory: tomatoes from October to
        December, beans from October to January, peas from autumn to spring, cucumbers from October to
        December; nothing tender in June or July.
        """
        self.check(SOUTH, "tom-slicer", (10, 11, 12), (5, 6, 7))
        self.check(SOUTH, "bean-pole", (11, 12, 1), (6, 7))
        self.check(SOUTH, "cuc-slice", (11, 12), (6, 7))
        self.check(SOUTH, "pea-snap", (7, 8), (11, 12))

    def test_high_and_cool(self):
        """Common practice, no source: at 1400 m under 46° peas and broad beans do, slicing tomatoes and
        melons do not.
        """
        self.check(HIGH, "pea-snap", (5, 6), (9, 10))
        self.check(HIGH, "fava", (5,), (8, 9))
        for crop in ("tom-slicer", "melon", "sweet-potato"):
            fate = fate_of(HIGH, Planting(key="p", crop=crop, count=4, spacing=0.45, planted="06-10"))
            self.assertIn(fate.verdict, ("short", "late"), crop)


class DatesTest(unittest.TestCase):
    """Windows, first picks and ends of thirteen places (`guides.py`, from memory): how many of them fit, and
    that none of the many that do is lost.
    """

    def test_first_picks(self):
        asked = [guide for guide in GUIDES if guide.first]
        far = [guide for guide in asked if away(first_and_end(guide)[0], *guide.first) > NEAR]
        self.assertLessEqual(len(far) / len(asked), 0.1, far)

    def test_ends(self):
        asked = [guide for guide in GUIDES if guide.end]
        far = [guide for guide in asked if away(first_and_end(guide)[1], guide.end, guide.end) > NEAR]
        self.assertLessEqual(len(far) / len(asked), 0.2, far)

    def test_windows_of_tender_crops(self):
        """Tomatoes, cucumbers, beans and squash in frosty places: seven in ten."""
        asked = [
            guide
            for guide in GUIDES
            if guide.windows
            and not tables.calendars()[guide.crop].hardy
            and guide.place not in ("phoenix", "houston", "miami", "auckland")
        ]
        fits = [window_fits(guide) for guide in asked]
        near = [cover >= COVER and beyond <= BEYOND for cover, beyond in fits]
        self.assertGreaterEqual(sum(near) / len(near), 0.7, list(zip(asked, fits, strict=True)))

    def test_all_of_a_window_is_offered(self):
        """Whatever is offered beyond it, of seven in ten windows four fifths are."""
        fits = [window_fits(guide)[0] for guide in GUIDES if guide.windows]
        self.assertGreaterEqual(sum(cover >= COVER for cover in fits) / len(fits), 0.7)


class ProposalsTest(unittest.TestCase):
    """What is proposed is judged well: the same outlook does both."""

    def test_proposed_days_are_good(self):
        for name in PLACES:
            place = garden(name)
            for crop in plantable(place):
                with self.subTest(place=name, crop=crop):
                    day = proposed_day(place, crop)
                    planting = Planting(key="p", crop=crop, count=4, spacing=0.4, planted="05-01")
                    fate = fate_of(place, planted_at(place, planting, day))
                    self.assertEqual(fate.verdict, "good", day)

    def test_a_desert_has_a_spring_and_an_autumn(self):
        """Low-desert planting calendars, from memory: cucumbers from late February and again in August and
        September; between them it is too hot.
        """
        windows = outlook(garden("phoenix"), "cuc-slice").near(0)
        year = [window for window in windows if -30 <= window.first <= 300]
        self.assertEqual([window.closes for window in year], ["hot", "late"])

    def test_peas_are_not_sown_into_a_hot_july(self):
        for name in ("inland39", "plateau40", "atlanta", "minneapolis"):
            for crop in ("pea-snap", "sweet-pea", "fava"):
                july = between("06-20", "07-31")
                self.assertFalse(np.any(offered(Guide(name, crop, ())) & july), (name, crop))


class HandbookTest(unittest.TestCase):
    """Season handbook 6: its worked example, last frost 1 May, first 10 October, spread 10 days."""

    PLACE = Place(name="-", last_frost="05-01", first_frost="10-10", frost_spread=10.0)

    def test_snap_peas_and_the_tomato_after_them(self):
        """Peas sown 42 days before the last frost, tomatoes 10 days after: weeks of overlap; by days of the
        table, without heat, they end in the first half of June.
        """
        peas = course_of(
            self.PLACE, Planting(key="p", crop="pea-snap", count=20, spacing=0.05, planted="03-20")
        )
        self.assertEqual(peas.start, -42)
        tomato = course_of(
            self.PLACE, Planting(key="q", crop="tom-slicer", count=6, spacing=0.45, planted="05-11")
        )
        self.assertEqual(tomato.start, 10)
        self.assertLessEqual(tomato.end, 162)  # its first frost
        self.assertTrue(25 <= peas.end - tomato.start <= 50, peas)

    def test_the_last_useful_day_of_fall_peas(self):
        """L = 283 − (62 × 1.2 + 0.5 · 7 · 3) = day 198, 17 July: within a week, for its 65 days here are the
        middle of the crop table's 60 to 70.
        """
        seen = outlook(self.PLACE, "pea-snap")
        last = max(window.last for window in seen.near(0))
        day = turn_of(self.PLACE) + dt.timedelta(days=last)
        self.assertLess(abs((day - dt.date(2026, 7, 17)).days), 8, day)

    def test_too_late_peas_are_told(self):
        """A re-sowing in mid-August is right in mild climates only: it is told so here."""
        late = Planting(key="p", crop="pea-snap", count=20, spacing=0.05, planted="08-13")
        self.assertEqual(fate_of(self.PLACE, late).verdict, "late")
        mild = self.PLACE.model_copy(update={"first_frost": "11-20"})
        self.assertEqual(fate_of(mild, late).verdict, "good")
