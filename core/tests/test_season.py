"""The season: one growth with the load path, tasks that keep to plantings, visits, storms, calendars."""

from __future__ import annotations

import datetime as dt
import json
import unittest
from itertools import pairwise

import numpy as np
import vobject
from ascent import tables
from ascent.analysis.design import design_of, geometry_of
from ascent.errors import InvalidPlan
from ascent.families import FAMILIES
from ascent.files.calendar_file import CalendarEntry, write_calendar
from ascent.files.weather import Day, read_days, read_forecast, read_observed, recorded, weeks_of
from ascent.loads.season import course_of, season_of
from ascent.plan.bed import Bed, GrewHere
from ascent.plan.climate import SeenWeek, Warmth
from ascent.plan.fields import day_of_year, month_day
from ascent.plan.garden import Garden
from ascent.plan.place import Place
from ascent.plan.record import Diary, Marked
from ascent.plan.structure import Covered, Planting, Structure
from ascent.report.diary import entries_of
from ascent.report.season import week_report
from ascent.report.year import year_report
from ascent.season.harvest import gluts_and_gaps, harvest_of, measured
from ascent.season.kept import everything
from ascent.season.rotation import next_on, too_soon
from ascent.season.storm import at_the_plant, storm_check
from ascent.season.succession import clashes_of
from ascent.season.tasks import Tended, grown_of
from ascent.season.visits import visit_day, visits_of, walk
from ascent.site import Site
from ascent.weather.course import turn_of
from ascent.weather.frosts import frosts_of
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from tests.support import demo, fence

BED = Bed(key="bed", name="Bed", length=12.0, width=1.2)
RAISING = ("sow-pots", "pot-on", "harden", "build", "build-day")
AFTER = ("clear", "take-down")


def garden_with(structure: Structure, **place) -> Garden:
    """Return a garden with one structure on one bed."""
    return Garden(name="Garden", beds=(BED.model_copy(update={"structures": (structure,)}),), **place)


def tended(structure: Structure, garden: Garden) -> Tended:
    """Return a structure with its tasks."""
    return Tended(Site(garden=garden, bed=BED), structure, geometry_of(BED, structure))


class OneGrowthTest(unittest.TestCase):
    """Tasks and load path share one growth."""

    def test_a_run_is_due_in_the_week_in_which_the_bench_loads_it(self):
        for warmth in (None, Warmth(), Warmth(water="inland")):
            planting = Planting(key="p1", crop="tom-det", count=10, spacing=0.6, planted="05-20")
            weave = Structure(
                key="w", name="W", family="weave", options={"length": 6.0}, plantings=(planting,)
            )
            garden = garden_with(weave, warmth=warmth)
            site = Site(garden=garden, bed=BED)
            found = design_of(site, weave)
            top = np.max([growth.top for growth in found.growths], axis=0)
            runs = [task for task in tended(weave, garden).tasks if task.job == "weave"]
            self.assertGreaterEqual(len(runs), 3)
            # the first goes on as soon as there is anything to hold, and no two on one day
            for before, task in pairwise(runs):
                height = task.values["height"][0]
                loaded = int(np.flatnonzero(top >= height - 1e-9)[0])
                with self.subTest(warmth=warmth, height=height):
                    begins = max(found.season.date(loaded), before.on + dt.timedelta(days=4))
                    self.assertEqual(task.on, begins)

    def test_a_cold_spring_moves_growth_and_tasks(self):
        structure = fence()
        usual = Warmth()
        course = course_of(garden_with(structure, warmth=usual), structure.plantings[0])
        cold = tuple(
            SeenWeek(monday=dt.date(2026, 5, 4) + dt.timedelta(days=7 * n), low=5.0, high=11.0)
            for n in range(6)
        )
        chilled = garden_with(structure, warmth=usual.model_copy(update={"seen": cold}))
        later = course_of(chilled, structure.plantings[0])
        self.assertGreater(later.first, course.first + 5)
        ties = [
            next(t.on for t in tended(structure, garden).tasks if t.job == "tie")
            for garden in (garden_with(structure, warmth=usual), chilled)
        ]
        self.assertGreater(ties[1], ties[0])

    def test_without_warmth_it_is_as_the_tables_say(self):
        """Extension guides of warm places, from memory: a slicer is first picked 52 to 69 days after it is
        planted out. (The crops handbook, A5, gives 65 to 80, which are days of catalogues.)
        """
        course = course_of(Place(name="-"), fence().plantings[0])
        self.assertTrue(52 <= course.first - course.start <= 69)

    def test_pots_give_a_start(self):
        """Handbook season 3: what is sown in place and raised in pots has its weeks indoors behind it."""
        sown = Planting(key="p", crop="cuc-slice", count=4, spacing=0.3, planted="06-05")
        potted = sown.model_copy(update={"raised": "potted"})
        one, other = (course_of(Place(name="-"), planting) for planting in (sown, potted))
        indoors = tables.calendars()["cuc-slice"].indoors_d
        self.assertAlmostEqual(one.first - other.first, indoors, delta=1)


latitudes = st.one_of(st.floats(20.0, 60.0), st.floats(-50.0, -20.0), st.floats(-15.0, 15.0))
CROPS = sorted(key for key in tables.crops() if tables.calendars()[key].counted_from != "shoots")


@st.composite
def gardens(draw):
    """Draw a garden on either half of the earth, with frosts or without, with a crop on a support."""
    latitude = draw(latitudes)
    free = abs(latitude) < 18.0 and draw(st.booleans())
    middle = 105 if latitude >= 0 else 288
    last = None if free else month_day(middle + draw(st.integers(-40, 40)))
    first = None if free else month_day(middle + draw(st.integers(110, 250)))
    warmth = draw(st.sampled_from([None, Warmth(), Warmth(water="shore"), Warmth(water="inland")]))
    family = draw(st.sampled_from(sorted(FAMILIES)))
    crop = draw(st.sampled_from(CROPS))
    planting = Planting(
        key="p1",
        crop=crop,
        count=draw(st.integers(1, 12)),
        spacing=0.4,
        planted=month_day(draw(st.integers(1, 365))),
        raised=draw(st.sampled_from(["usual", "sown", "potted"])),
    )
    structure = Structure(key="s1", name="S", family=family, options={}, plantings=(planting,))
    visits = tuple(sorted(draw(st.sets(st.integers(0, 6), min_size=1))))
    return garden_with(
        structure, latitude=latitude, last_frost=last, first_frost=first, warmth=warmth, visits=visits
    )


class AnyGardenTest(unittest.TestCase):
    """Random gardens on both halves of the earth."""

    @settings(max_examples=60, deadline=None)
    @given(gardens())
    def test_tasks_keep_to_their_plantings(self, garden):
        """None before its planting, none after its crop is gone, each in its days, each known by its key."""
        structure = garden.beds[0].structures[0]
        found = tended(structure, garden)
        grown = found.grown[0]
        start, end = grown.date(grown.course.start), grown.date(grown.course.end)
        keys = [task.key for task in found.tasks]
        self.assertEqual(len(keys), len(set(keys)))
        for task in found.tasks:
            self.assertLessEqual(task.on, task.until)
            self.assertGreater(task.minutes, 0)
            if task.job not in RAISING:
                self.assertGreaterEqual(task.on, start, task.key)
            if task.job not in AFTER:
                self.assertLessEqual(task.on, end, task.key)

    @settings(max_examples=40, deadline=None)
    @given(gardens())
    def test_every_visit_has_a_reason_and_a_day_people_come_on(self, garden):
        kept = everything(garden)[0]
        start = kept.tended.grown[0].date(kept.tended.grown[0].course.start)
        due = set()
        for visit in kept.visits:
            self.assertTrue(visit.due)
            self.assertTrue(visit.on.weekday() in garden.visits or visit.on == start, visit.on)
            due |= {(each.task.job, each.task.planting) for each in visit.due}
        self.assertEqual(due, {(task.job, task.planting) for task in kept.tended.tasks})
        report = year_report(garden, dt.date(garden.year, 6, 1))
        self.assertEqual(len(report.rows[0].minutes), len(report.mondays))
        for day in (start, start + dt.timedelta(days=40)):
            week = week_report(garden, day)
            for visit in [v for d in (week.now, *week.coming) if d for v in d.visits]:
                for task in visit.tasks:
                    self.assertTrue(task.why and task.how and task.title)
                    self.assertNotIn("{", task.why + task.how + task.title)

    @settings(max_examples=30, deadline=None)
    @given(gardens(), st.integers(-30, 30))
    def test_nothing_is_lost_by_a_change_of_date(self, garden, days):
        """What was marked stays marked; what is done once is there once, whatever the day."""
        structure = garden.beds[0].structures[0]
        once = {t.key: t for t in tended(structure, garden).tasks if t.job in ("sow", "plant", "clear")}
        marks = {key: Marked(state="done", at=dt.datetime(2026, 5, 1, tzinfo=dt.UTC)) for key in once}
        planting = structure.plantings[0]
        moved = planting.model_copy(update={"planted": month_day(day_of_year(planting.planted) + days)})
        later = structure.model_copy(update={"plantings": (moved,)})
        changed = garden_with(later, **{n: getattr(garden, n) for n in Place.model_fields if n != "name"})
        changed = changed.model_copy(
            update={"diaries": (Diary(key="d", name="D", structure="s1", marks=marks),)}
        )
        kept = everything(changed)[0]
        assume(not any(grown.fate.hopeless for grown in kept.tended.grown))  # nobody plants it then
        found = {due.task.key: due.mark for visit in kept.visits for due in visit.due}
        for key in once:
            self.assertIn(key, found)
            self.assertIsNotNone(found[key], key)

    @settings(max_examples=40, deadline=None)
    @given(gardens())
    def test_harvest_is_within_what_plants_bear(self, garden):
        structure = garden.beds[0].structures[0]
        grown = grown_of(garden, structure.plantings[0], 2.0)
        first = grown.date(grown.course.start) - dt.timedelta(days=14)
        mondays = [first + dt.timedelta(days=7 * n) for n in range(70)]
        harvest = harvest_of(grown, mondays)
        whole = structure.plantings[0].count * grown.crop.yield_kg
        low, usual, high = harvest.totals
        self.assertLessEqual(usual, 1.25 * whole + 1e-6)  # a long season brings a quarter more at most
        self.assertLessEqual(low, usual + 1e-9)
        self.assertLessEqual(usual, high + 1e-9)
        self.assertTrue(np.all(harvest.usual >= -1e-12))


class HeatTest(unittest.TestCase):
    def test_a_crop_is_shaded_where_it_is_too_hot_for_it_only(self):
        """Season handbook 2 and 12: tomatoes drop flowers above 32 °C."""
        for latitude, last, first, wanted in ((31.0, "03-20", "11-15", 1), (51.0, "04-24", "10-27", 0)):
            warmth = Warmth(water="inland" if wanted else "near")
            garden = garden_with(
                fence(), latitude=latitude, warmth=warmth, last_frost=last, first_frost=first
            )
            found = [task for task in tended(fence(), garden).tasks if task.job == "shade"]
            self.assertEqual(len(found), wanted, latitude)
            for task in found:
                self.assertGreater(task.values["hot"][0], 32.0)


class VisitsTest(unittest.TestCase):
    def test_work_is_put_on_the_days_people_come(self):
        structure = fence()
        task = next(t for t in tended(structure, garden_with(structure)).tasks if t.job == "tie")
        for weekdays in ((0,), (2, 5), (6,)):
            day = visit_day(task, weekdays)
            self.assertIn(day.weekday(), weekdays)
            self.assertLessEqual(abs((day - task.on).days), 7)

    def test_what_comes_round_more_often_than_people_is_done_once_a_visit(self):
        structure = fence(crop="cuc-slice")
        all_ = tended(structure, garden_with(structure)).tasks
        visits = visits_of(all_, (5,), None, {"p1": dt.date(2026, 5, 4)})
        for visit in visits:
            jobs = [(due.task.job, due.task.planting) for due in visit.due]
            self.assertEqual(len(jobs), len(set(jobs)))

    def test_one_walks_to_the_nearest_next(self):
        places = {"a": (0.0, 0.0), "b": (10.0, 0.0), "c": (5.0, 0.0), "d": (10.0, 8.0)}
        self.assertEqual(walk(places), ["a", "c", "b", "d"])
        self.assertEqual(walk({}), [])


class OneAfterTheOtherTest(unittest.TestCase):
    def place(self) -> Place:
        return Place(name="-", last_frost="05-01", first_frost="10-10")

    def two(self, first: str, one: str, second: str, other: str) -> Structure:
        return Structure(
            key="s",
            name="S",
            family="mesh-fence",
            options={},
            plantings=(
                Planting(key="p1", crop=first, count=20, spacing=0.05, planted=one),
                Planting(key="p2", crop=second, count=4, spacing=0.25, planted=other),
            ),
        )

    def test_too_long_an_overlap_has_its_ways_out(self):
        """Season handbook 6: peas and a tomato weeks into them: earlier peas, the tomato held in a pot where
        that is short enough, or another crop later.
        """
        clashes = clashes_of(self.place(), self.two("pea-snap", "03-20", "tom-slicer", "05-11"))
        self.assertEqual([clash.kind for clash in clashes][:1], ["too-long"])
        ways = {way.kind for way in clashes[0].ways}
        self.assertIn("later", ways)
        self.assertIn("instead", ways)

    def test_in_time_there_is_nothing_to_say(self):
        self.assertEqual(clashes_of(self.place(), self.two("pea-snap", "03-20", "cuc-slice", "07-01")), ())

    def test_peas_before_beans_are_one_family(self):
        kinds = [
            c.kind for c in clashes_of(self.place(), self.two("pea-snap", "03-20", "bean-pole", "07-01"))
        ]
        self.assertEqual(kinds, ["family"])

    def test_rotation(self):
        """Crops handbook 9: the same family not sooner than after three years."""
        grew = (GrewHere(year=2025, crop="tom-det"), GrewHere(year=2024, crop="bean-pole"))
        bed = BED.model_copy(update={"past": grew, "structures": (fence(),)})
        turns = too_soon(bed, 2026)
        self.assertEqual(
            [(turn.family, turn.years, turn.level) for turn in turns], [("Solanaceae", 1, "wrong")]
        )
        bed = bed.model_copy(update={"past": (GrewHere(year=2023, crop="tom-det"),)})
        self.assertEqual(too_soon(bed, 2026), ())
        families = [each.family for each in next_on(Place(name="-"), bed, 2027)]
        self.assertNotIn("Solanaceae", families)

    def test_gluts_and_gaps(self):
        total = np.array([0, 1, 1, 1, 0.05, 1, 8, 1, 0.0])
        self.assertEqual(gluts_and_gaps(total), ([6], [4]))

    def test_measures(self):
        """Crops handbook 6.2 and 7: 53 lb, 24.0 kg, to a bushel of tomatoes; three bushels are 72 kg."""
        count, name = measured("tom-slicer", 72.12)
        self.assertEqual((round(count, 2), name), (3.0, "bushel"))
        self.assertEqual(measured("tom-slicer", 8.0)[1], "lug")
        self.assertEqual(measured("bean-pole", 0.43), (0.43 / (30 * 0.45359237 / 32), "quart"))
        self.assertIsNone(measured("malabar", 5.0))


class StormTest(unittest.TestCase):
    def test_what_is_done_before_helps_and_is_ordered(self):
        site = Site(garden=Garden(name="G", beds=(BED,), exposure="open"), bed=BED)
        structure = fence(crop="cuc-slice", depth=0.3)
        felt = at_the_plant(site, 24.0)
        self.assertAlmostEqual(felt, 0.8 * 24.0)  # structures handbook 1.4, open
        check = storm_check(site, structure, dt.date(2026, 7, 20), felt, False)
        soaked = storm_check(site, structure, dt.date(2026, 7, 20), felt, True)
        self.assertLessEqual(soaked.limit, check.limit + 1e-9)
        self.assertIn(check.outcome, ("goes", "may-go"))
        gains = [(move.limit - check.limit) / move.minutes for move in check.moves]
        self.assertEqual(gains, sorted(gains, reverse=True))
        self.assertGreater(check.done, check.limit)
        found = design_of(site, structure)
        week = found.season.nearest_week(dt.date(2026, 7, 20))
        self.assertAlmostEqual(check.limit, float(found.limit[0, week]), delta=0.3)

    def test_out_of_its_season_it_is_bare(self):
        site = Site(garden=Garden(name="G", beds=(BED,)), bed=BED)
        self.assertEqual(storm_check(site, fence(), dt.date(2026, 1, 5), 20.0, False).outcome, "bare")

    def test_taking_the_cover_off_after_the_crop_is_told(self):
        """A cover that stays on when nothing grows any more: without it there is no such week of a season."""
        site = Site(garden=Garden(name="G", beds=(BED,), exposure="open"), bed=BED)
        covered = fence(depth=0.3).model_copy(
            update={"covers": (Covered(cover="shade_50", on="05-10", off="02-20"),)}
        )
        for on in (dt.date(2026, 12, 28), dt.date(2027, 2, 15)):
            check = storm_check(site, covered, on, 30.0, False)
            off = next(move for move in check.moves if move.key == "cover-off")
            self.assertGreater(off.limit, check.limit)
            self.assertTrue(np.isfinite(off.limit))


class WeatherFilesTest(unittest.TestCase):
    def odd(self, **changed: object) -> str:
        head = {"format": "ascent-weather", "version": 1, "kind": "forecast", "station": "S"}
        return json.dumps({**head, "issued": "2026-08-11T05:00:00Z", "days": [], **changed})

    def test_a_time_without_a_zone_is_one_of_utc(self):
        told = read_forecast(self.odd(issued="2026-08-11T05:00:00"))
        self.assertEqual(told.issued, dt.datetime(2026, 8, 11, 5, tzinfo=dt.UTC))

    def test_days_of_no_weather_are_refused(self):
        for issued in ("0001-01-01T00:00:00Z", "9999-12-31T23:00:00-05:00"):
            with self.assertRaises(InvalidPlan):
                read_forecast(self.odd(issued=issued))
        for year in ("0001", "9999"):
            with self.assertRaisesRegex(InvalidPlan, "line 2"):
                read_days(self.HEAD + f"{year}-01-01,1,2,0,3\n")

    def test_a_week_of_cloudbursts_is_a_week(self):
        """428 mm a day, as a gauge may tell: more than any week holds."""
        monday = dt.date(2026, 8, 3)
        days = [Day(day=monday + dt.timedelta(days=n), low=9, high=19, rain=428.0) for n in range(7)]
        self.assertEqual(weeks_of(days)[0].rain, 2996.0)
        days = [day.model_copy(update={"rain": 600.0}) for day in days]
        self.assertEqual(weeks_of(days)[0].rain, 3000.0)

    HEAD = "date,low °C,high °C,rain mm,gust m/s\n"

    def test_units_and_commas(self):
        days = read_days("day;min (°F);max (°F);rain (in);gust (mph)\n2025-01-01;32;50,0;1;22.37\n")
        self.assertAlmostEqual(days[0].low, 0.0, places=2)
        self.assertAlmostEqual(days[0].high, 10.0, places=2)
        self.assertAlmostEqual(days[0].rain, 25.4)
        self.assertAlmostEqual(days[0].gust, 10.0, places=1)

    def test_what_is_wrong_is_named(self):
        for text, path in (
            ("", "heads"),
            ("date,low\n", "heads"),
            (self.HEAD, "record"),
            (self.HEAD + "yesterday,1,2,,\n", "line 2.date"),
            (self.HEAD + "2025-01-01,cold,2,,\n", "line 2.low"),
            (self.HEAD + "2025-01-01,-273,2,,\n", "line 2.low"),
            (self.HEAD + "2025-01-01,1,2,,\n2025-01-01,1,2,,\n", "line 3.date"),
            ("date,low °K,high\n", "heads.low"),
            (self.HEAD + "x" * 200_000 + "\n", "record"),
        ):
            with self.subTest(text=text), self.assertRaises(InvalidPlan) as caught:
                read_days(text)
            self.assertEqual(caught.exception.problems[0].path, path)
        with self.assertRaises(InvalidPlan):
            recorded(read_days(self.HEAD + "2025-01-01,1,2,,\n"), Warmth(), north=True)

    def test_weeks_with_gaps(self):
        lines = "".join(
            f"2025-03-{day:02d},{day},{day + 10},1,\n" for day in range(3, 17) if day not in (11, 12, 13)
        )
        weeks = weeks_of(read_days(self.HEAD + lines))
        self.assertEqual([week.monday.isoformat() for week in weeks], ["2025-03-03"])
        self.assertAlmostEqual(weeks[0].low, 6.0)
        self.assertAlmostEqual(weeks[0].rain, 7.0)

    def test_answers_of_a_service(self):
        good = '{"format":"ascent-weather","version":1,"kind":"observed","station":"S","days":[%s]}'
        self.assertEqual(len(read_observed(good % '{"day":"2026-01-01","low":1.0,"high":3}').days), 1)
        for days in (
            '{"day":"2026-01-01","low":-99}',
            '{"day":"x"}',
            '{"day":"2026-01-02"},{"day":"2026-01-01"}',
        ):
            with self.subTest(days=days), self.assertRaises(InvalidPlan):
                read_observed(good % days)
        with self.assertRaises(InvalidPlan):
            read_forecast(good % "")

    def test_a_long_record_has_quantiles_of_its_own(self):
        """Season handbook 1: from twenty years on the record's own, not the normal law."""
        lasts = tuple(f"05-{day:02d}" for day in range(1, 22))
        place = Place(
            name="-", last_frost="05-11", warmth=Warmth(lasts=lasts, firsts=("10-10",) * 21, years=21)
        )
        frosts = frosts_of(place)
        self.assertEqual(frosts.years, 21)
        self.assertAlmostEqual(frosts.last_with(0.1), 8.0, delta=0.01)  # the nineteenth of twenty-one
        self.assertAlmostEqual(frosts.chance_after(0), 10 / 21)
        self.assertIsNone(frosts_of(Place(name="-", last_frost=None, first_frost=None)))
        with self.assertRaises(ValueError):
            Place(name="-", last_frost=None)


class CalendarTest(unittest.TestCase):
    def read(self, entries, of="g1"):
        stamp = dt.datetime(2026, 5, 1, 8, 0, tzinfo=dt.UTC)
        text = write_calendar("Lantern Quay", entries, "Europe/Lisbon", of, stamp).decode()
        return text, next(vobject.readComponents(text))

    def test_another_reader_opens_it(self):
        """vobject, which is not what wrote it."""
        day = dt.date(2026, 7, 4)
        text, calendar = self.read(
            [
                CalendarEntry("day-1", day, "Evening; with, commas", "line\nline", 18, 42.0, sort="visits"),
                CalendarEntry("sow-1", day, "Sow peas", "", sort="sow"),
                CalendarEntry("off-1", day, "Off", "", 18, 5.0, 3, "cancelled"),
            ]
        )
        self.assertTrue(all(len(line.encode()) <= 75 for line in text.split("\r\n")))
        timed, whole, off = calendar.vevent_list
        self.assertEqual(timed.summary.value, "Evening; with, commas")
        self.assertEqual(timed.dtstart.value.utcoffset(), dt.timedelta(hours=1))
        self.assertEqual(timed.dtend.value - timed.dtstart.value, dt.timedelta(minutes=42))
        self.assertEqual(timed.valarm.trigger.value, dt.timedelta(minutes=-30))
        self.assertEqual(whole.dtstart.value, day)
        self.assertEqual((off.status.value, off.sequence.value), ("CANCELLED", "3"))
        self.assertEqual(len({event.uid.value for event in calendar.vevent_list}), 3)
        self.assertTrue(any(zone.tzid.value == "Europe/Lisbon" for zone in calendar.vtimezone_list))

    def test_a_garden_s_own(self):
        garden = demo()
        entries = entries_of(garden, dt.date(2026, 3, 1))
        keys = [entry.key for entry in entries]
        self.assertEqual(len(keys), len(set(keys)))
        _, calendar = self.read(entries)
        self.assertEqual(len(calendar.vevent_list), len(entries))
        self.assertTrue(any("Sow" in entry.text for entry in entries))
        self.assertEqual(len({entry.on for entry in entries}), len(entries))

    def test_a_planting_that_moves_keeps_its_entry(self):
        once = (".build.", ".plant.", ".clear.", ".take-down.")
        structure = fence()
        one = {e.key: e for e in entries_of(garden_with(structure), dt.date(2026, 1, 1), each_task=True)}
        moved = structure.plantings[0].model_copy(update={"planted": "05-20"})
        later = garden_with(structure.model_copy(update={"plantings": (moved,)}))
        two = {e.key: e for e in entries_of(later, dt.date(2026, 1, 1), each_task=True)}
        plant = next(key for key in one if ".plant." in key)
        self.assertNotEqual(one[plant].on, two[plant].on)
        self.assertEqual(
            {key for key in one if any(job in key for job in once)},
            {key for key in two if any(job in key for job in once)},
        )


class SeasonOfYearsTest(unittest.TestCase):
    """Southern gardens turn their seasons round; frost-free ones have one that nothing ends."""

    def test_southern_plantings_lie_around_their_own_last_frost(self):
        place = Place(name="-", latitude=-37.8, last_frost="09-05", first_frost="06-10", year=2026)
        planting = Planting(key="p", crop="tom-slicer", count=4, spacing=0.45, planted="11-01")
        season = season_of(place, (planting,))
        self.assertEqual(season.date(0).year, 2026)
        self.assertEqual(season.date(season.weeks - 1).year, 2027)

    def test_without_frost_it_ends_by_its_age(self):
        place = Place(name="-", latitude=20.0, last_frost=None, first_frost=None, year=2026)
        planting = Planting(key="p", crop="tom-slicer", count=4, spacing=0.45, planted="10-15")
        course = course_of(place, planting)
        age = tables.crops()["tom-slicer"].first_d + tables.calendars()["tom-slicer"].bears_d
        self.assertEqual(course.ends, "age")
        self.assertAlmostEqual(course.end - course.start, age, delta=1)
        self.assertEqual(season_of(place, (planting,)).date(0).year, 2026)

    def test_a_planting_for_autumn_is_of_the_season_that_comes(self):
        """Autumn is a planting time of low deserts and frost-free coasts: common practice, no source."""
        for latitude, last, first in ((26.0, None, None), (33.0, "02-10", "12-20")):
            place = Place(name="-", latitude=latitude, last_frost=last, first_frost=first, year=2026)
            for day in ("08-25", "09-20"):
                planting = Planting(key="p", crop="tom-slicer", count=4, spacing=0.45, planted=day)
                self.assertEqual(
                    turn_of(place) + dt.timedelta(days=course_of(place, planting).start),
                    dt.date.fromisoformat(f"2026-{day}"),
                )
                structure = fence().model_copy(update={"plantings": (planting,)})
                garden = garden_with(structure, **place.model_dump(exclude={"name"}))
                tasks = [task for task in tended(structure, garden).tasks if task.job == "plant"]
                self.assertEqual([task.on.year for task in tasks], [2026])

    def test_what_is_sown_before_the_last_frost_is_of_that_spring(self):
        place = Place(name="-", last_frost="04-24", first_frost="10-27", year=2026)
        for day, offset in (("03-01", -54), ("11-05", -170), ("10-01", 160)):
            planting = Planting(key="p", crop="pea-snap", count=4, spacing=0.05, planted=day)
            self.assertEqual(course_of(place, planting).start, offset)


class CoversTest(unittest.TestCase):
    """A cover has its wind in its own weeks, and snow where it freezes."""

    def arch(self, *covers, **options) -> tuple[Site, Structure]:
        planting = Planting(key="p1", crop="cuc-slice", count=6, spacing=0.4, planted="05-20", side="both")
        structure = Structure(
            key="a", name="A", family="panel-arch", options=options, plantings=(planting,), covers=covers
        )
        return Site(garden=garden_with(structure), bed=BED), structure

    def limits(self, *covers, **options):
        found = design_of(*self.arch(*covers, **options))
        return found.limit[0], found.season

    def test_in_its_weeks_it_is_as_the_arch_s_own_cover(self):
        bare, season = self.limits()
        always, _ = self.limits(cover="shade_50")
        cloth = Covered(cover="shade_50", on="07-06", off="08-02")
        found, _ = self.limits(cloth)
        on = [w for w in range(season.weeks) if dt.date(2026, 7, 6) <= season.date(w) <= dt.date(2026, 8, 2)]
        self.assertEqual(len(on), 4)
        np.testing.assert_allclose(found[on], always[on], rtol=0.02)
        off = [w for w in range(season.weeks) if w not in on]
        np.testing.assert_allclose(found[off], bare[off], rtol=1e-6)
        self.assertTrue(np.all(found[on] < bare[on]))

    def test_film_in_winter_carries_snow_where_it_freezes(self):
        film = Covered(cover="sheet", on="11-10", off="02-20")
        site, structure = self.arch(film)
        cold = season_of(site.garden, structure.plantings, structure.covers)
        mild = season_of(
            site.garden.model_copy(update={"last_frost": None, "first_frost": None, "latitude": 20.0}),
            structure.plantings,
            structure.covers,
        )
        self.assertAlmostEqual(float(cold.cloth_kg_m2.max()), 20.12)  # season handbook 6: snow, recheck
        self.assertAlmostEqual(float(mild.cloth_kg_m2.max()), 0.12)
        jobs = [task.job for task in tended(structure, site.garden).tasks]
        self.assertEqual((jobs.count("cover-on"), jobs.count("cover-off")), (1, 1))

    def test_it_comes_off_before_a_storm(self):
        site, structure = self.arch(Covered(cover="sheet", on="07-01", off="08-30"))
        check = storm_check(site, structure, dt.date(2026, 7, 20), 22.0, False)
        move = next(move for move in check.moves if move.key == "cover-off")
        self.assertGreater(move.limit, check.limit)
