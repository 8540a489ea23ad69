"""What the log teaches: from what happened to factors, and what they change."""

from __future__ import annotations

import datetime as dt
import math

import numpy as np
from ascent.analysis.design import Design, design_of, geometry_of
from ascent.families import family_of
from ascent.learning.readings import grounds_of, sag_at, tensions_of
from ascent.learning.storms import lesson_of, met_in
from ascent.learning.wear import lives_of
from ascent.learning.work import work_of
from ascent.learning.yields import yields_of
from ascent.log.members import member_called
from ascent.plan.entries import Entry
from ascent.plan.garden import Garden
from ascent.plan.place import Taught
from ascent.plan.record import Diary, Marked
from ascent.plan.structure import as_it_stands
from ascent.report.lesson_use import with_taught, without_taught
from ascent.report.lessons import lessons_report
from ascent.report.taught import counted_with
from ascent.season.harvest import harvest_of
from ascent.season.tasks import Tended
from ascent.site import plain_site
from ascent.sizing.evaluations import evaluated

from tests.support import NearTestCase, demo, demo_log

TODAY = dt.date(2026, 8, 11)
AT = dt.datetime(2026, 8, 1, 18, 0, tzinfo=dt.UTC)
STORM = dt.date(2025, 8, 2)


def entry(key: str, kind: str, on: dt.date, **fields) -> Entry:
    return Entry(key=key, kind=kind, on=on, at=AT, **fields)


def taught(key: str, factor: float, about: str = "", spread: float = 0.1) -> Taught:
    return Taught(key=key, about=about, factor=factor, spread=spread, on=TODAY)


class LearningTestCase(NearTestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.garden = demo()

    def place(self, key: str, garden: Garden | None = None):
        garden = garden or self.garden
        return next((bed, each) for bed in garden.beds for each in bed.structures if each.key == key)

    def limit(self, garden: Garden, key: str) -> float:
        bed, structure = self.place(key, garden)
        return design_of(plain_site(garden, bed), structure).moist_limit()

    def tended(self, key: str, garden: Garden | None = None) -> Tended:
        bed, structure = self.place(key, garden)
        return Tended(plain_site(garden or self.garden, bed), structure, geometry_of(bed, structure))


class StormTest(LearningTestCase):
    def log(self, found: str, gust: float = 22.0, key: str = "cove-fence") -> list[Entry]:
        return [
            entry("s", "storm", STORM, gust=gust),
            entry("f", "storm", STORM + dt.timedelta(days=1), structure=key, found=found),
        ]

    def soil(self, log: list[Entry]) -> tuple[float, float]:
        lesson = lesson_of(self.garden, log)
        assert lesson is not None
        found = next(each for each in lesson.told if each.thing == ("soil", "bed/cove-bed"))
        return found.mean, found.prior

    def test_what_stood_as_calculated_moves_little_and_what_failed_much(self):
        stood, prior = self.soil(self.log("stood"))
        failed, _ = self.soil(self.log("fell"))
        self.assertLess(abs(stood), 0.25 * prior)
        self.assertLess(failed, -0.75 * prior)
        self.assertGreater(abs(failed), 4 * abs(stood))

    def test_a_soft_breeze_says_next_to_nothing(self):
        calm, prior = self.soil(self.log("stood", gust=9.0))
        self.assertLess(abs(calm), 0.12 * prior)

    def test_a_bed_of_the_same_soil_learns_less_than_the_bed_itself(self):
        lesson = lesson_of(self.garden, self.log("fell"))
        assert lesson is not None
        means = {each.thing: each.mean for each in lesson.told}
        bed, soil = means["soil", "bed/cove-bed"], means["soil", "soil/loose_tilled"]
        self.assertLess(bed, soil)
        self.assertLess(soil, 0.0)

    def test_a_part_that_failed_blames_what_holds_that_part(self):
        """A wire that broke in a storm says nothing of the soil that a whole fence down does."""
        bed, structure = self.place("chandlers-wire")
        wire = member_called(geometry_of(bed, structure), "wire", 1)
        assert wire is not None
        log = [
            entry("s", "storm", STORM, gust=24.0),
            entry("b", "break", STORM, structure="chandlers-wire", member=wire.key),
        ]
        lesson = lesson_of(self.garden, log)
        assert lesson is not None
        moved = {
            each.thing[0]: each.mean / each.prior for each in lesson.told if "soil/" not in each.thing[1]
        }
        self.assertLess(moved["screws"], -0.5)  # a wire hangs on its hooks
        self.assertLess(abs(moved["soil"]), 0.25)

    def test_only_what_somebody_looked_at_is_learnt_from(self):
        self.assertIsNone(lesson_of(self.garden, [entry("s", "storm", STORM, gust=25.0)]))
        self.assertEqual(met_in(self.garden, self.log("leans")), met_in(self.garden, self.log("leans")))
        winter = [
            entry("s", "storm", dt.date(2025, 1, 12), gust=30.0),
            entry("f", "storm", dt.date(2025, 1, 13), structure="cove-fence", found="stood"),
        ]
        self.assertEqual(met_in(self.garden, winter), [])  # nothing grew on it then

    def test_one_support_is_heard_twice_at_most_for_standing(self):
        log = []
        for number in range(5):
            day = STORM - dt.timedelta(days=7 * number)
            log += [
                entry(f"s{number}", "storm", day, gust=15.0 + number),
                entry(f"f{number}", "storm", day, structure="cove-fence", found="stood"),
            ]
        self.assertEqual([met.gust for met in met_in(self.garden, log)], [19.0, 18.0])


class TaughtTest(LearningTestCase):
    """What was learnt and accepted changes what is calculated; without it, nothing does."""

    def with_(self, *those: Taught) -> Garden:
        return with_taught(self.garden, those)

    def test_weaker_ground_of_a_bed_lowers_the_limit_there_and_nowhere_else(self):
        weak = self.with_(taught("soil", 0.5, "bed/cove-bed"))
        self.assertLess(self.limit(weak, "cove-fence"), 0.9 * self.limit(self.garden, "cove-fence"))
        self.assertEqual(self.limit(weak, "lantern-row"), self.limit(self.garden, "lantern-row"))

    def test_what_a_bed_was_taught_comes_before_what_its_soil_was(self):
        both = self.with_(taught("soil", 0.5, "soil/loose_tilled"), taught("soil", 1.0, "bed/cove-bed"))
        self.assertEqual(self.limit(both, "cove-fence"), self.limit(self.garden, "cove-fence"))

    def test_what_proved_stronger_is_designed_to_in_part_only(self):
        strong = taught("soil", 1.5, "bed/cove-bed", spread=0.3)
        self.assertNear(strong.careful_strength, 1.5 * math.exp(-0.6745 * 0.3), 1e-3)
        self.assertEqual(taught("soil", 1.1, "bed/b", spread=0.5).careful_strength, 1.0)
        self.assertEqual(taught("soil", 0.6, "bed/b", spread=0.5).careful_strength, 0.6)
        self.assertNear(taught("leaf", 0.7, spread=0.2).careful_load, 0.7 * math.exp(0.6745 * 0.2), 1e-3)
        self.assertEqual(taught("leaf", 1.3, spread=0.2).careful_load, 1.3)

    def test_a_surer_strength_of_the_same_middle_goes_less_often(self):
        bed, structure = self.place("cove-fence")
        sure = self.with_(taught("soil", 1.0, "bed/cove-bed", spread=0.05), taught("leaf", 1.0, spread=0.02))
        before = design_of(plain_site(self.garden, bed), structure).reliability.whole
        self.assertNotAlmostEqual(
            design_of(plain_site(sure, bed), structure).reliability.whole, before, places=4
        )

    def test_a_gustier_site_is_asked_for_more_and_meets_more_of_a_forecast(self):
        bed, structure = self.place("cove-fence")
        gusty = plain_site(self.with_(taught("site", 1.2)), bed)
        site = plain_site(self.garden, bed)
        self.assertNear(
            design_of(gusty, structure).required_gust, 1.2 * design_of(site, structure).required_gust, 1e-9
        )
        self.assertNear(gusty.forecast_ratio, 1.2 * site.forecast_ratio, 1e-9)

    def test_a_crop_that_bears_more_is_forecast_and_hangs_so(self):
        more = self.with_(taught("yield", 1.5, "tom-cherry"))
        now, then = self.tended("twine-beam").grown[0], self.tended("twine-beam", more).grown[0]
        mondays = [dt.date(2026, 5, 18) + dt.timedelta(days=7 * n) for n in range(30)]
        self.assertNear(sum(harvest_of(then, mondays).usual), 1.5 * sum(harvest_of(now, mondays).usual), 1e-9)
        bed, structure = self.place("twine-beam")
        family = family_of(structure.family)
        self.assertTrue(family.moves)
        hung = [
            float(np.max(design_of(plain_site(each, bed), structure).growths[0].fruit_kg))
            for each in (self.garden, more)
        ]
        self.assertNear(hung[1], 1.5 * hung[0], 1e-9)

    def test_minutes_and_lives_are_those_of_here(self):
        slow = self.with_(taught("minutes", 1.4), taught("life", 0.5, "pp_greenhouse"))
        for now, then in zip(
            self.tended("twine-beam").tasks, self.tended("twine-beam", slow).tasks, strict=True
        ):
            self.assertNear(then.minutes, 1.4 * now.minutes, 1e-9)
        bed, structure = self.place("twine-beam")
        lives = [
            {
                part.key: part.life
                for share in evaluated(Design(plain_site(each, bed), structure))[0].shares.values()
                for part in share.lines
            }
            for each in (self.garden, slow)
        ]
        self.assertNear(lives[1]["pp_greenhouse"], 0.5 * lives[0]["pp_greenhouse"], 1e-9)

    def test_it_is_said_where_it_is_counted_with(self):
        garden = self.with_(
            taught("soil", 0.5, "bed/cove-bed"), taught("yield", 0.8, "tom-cherry"), taught("minutes", 1.2)
        )
        cove, twine = (plain_site(garden, self.place(key)[0]) for key in ("cove-fence", "twine-beam"))
        self.assertIn("50 % less", counted_with(cove, ["cuc-slice"]))
        self.assertNotIn("tomato", counted_with(cove, ["cuc-slice"]))
        self.assertIn("20 % less", counted_with(twine, ["tom-cherry"]))
        self.assertEqual(
            counted_with(plain_site(self.garden, self.place("cove-fence")[0]), ["cuc-slice"]), ""
        )


class HarvestTest(LearningTestCase):
    def weighed(self, share: float, every: int = 1) -> list[Entry]:
        grown = self.tended("twine-beam").grown[0]
        mondays = [dt.date(2026, 5, 18) + dt.timedelta(days=7 * n) for n in range(30)]
        usual = harvest_of(grown, mondays).usual
        return [
            entry(
                f"h{n}",
                "harvest",
                monday - dt.timedelta(days=365),
                structure="twine-beam",
                crop="tom-cherry",
                mass=share * float(kg),
            )
            for n, (monday, kg) in enumerate(zip(mondays, usual, strict=True))
            if kg > 0.05 and n % every == 0
        ]

    def test_a_season_moves_the_yield_part_of_the_way(self):
        """The normal posterior of one reading ln 0.6, spread 0.35, about the prior of a good year."""
        (found,) = yields_of(self.garden, self.weighed(0.6), TODAY)
        self.assertNear(found.seasons[0][1], 0.6, 0.02)
        weight = found.prior**2 / (found.prior**2 + 0.35**2)
        self.assertNear(math.log(found.factor), weight * math.log(found.seasons[0][1]), 1e-6)

    def test_a_season_that_was_weighed_now_and_then_says_nothing(self):
        self.assertEqual(yields_of(self.garden, self.weighed(0.6, every=4), TODAY), [])


class ReadingsTest(LearningTestCase):
    def test_a_sag_gives_back_the_tension_that_it_was_made_with(self):
        bed, structure = self.place("chandlers-wire")
        site, standing = plain_site(self.garden, bed), as_it_stands(structure)
        on = dt.date(2026, 8, 3)
        season = self.tended("chandlers-wire").grown[0]
        self.assertGreater(season.date(season.course.end), on)
        week = design_of(site, standing).season.nearest_week(on)
        for tight in (90.0, 250.0, 600.0):
            sag = sag_at(site, standing, week, tight)
            log = [entry("s", "sag", on, structure="chandlers-wire", moved=sag)]
            (found,) = tensions_of(self.garden, log)
            self.assertNear(found.found, tight, 0.01)

    def test_a_post_that_leans_twice_as_far_stands_in_softer_ground(self):
        bed, structure = self.place("chandlers-wire")
        post = member_called(geometry_of(bed, structure), "post", 2)
        assert post is not None
        stiffer = []
        for moved in (0.012, 0.024):
            log = [
                entry(
                    "l",
                    "lean",
                    TODAY,
                    structure="chandlers-wire",
                    member=post.key,
                    moved=moved,
                    height=1.2,
                    pull=150.0,
                )
            ]
            (found,) = grounds_of(self.garden, log)
            self.assertIsNotNone(found.compared.stiffer)
            stiffer.append(found.compared.stiffer)
        self.assertLess(stiffer[1], 0.5 * stiffer[0])

    def test_a_lean_of_nobody_knows_how_much_pull_says_nothing(self):
        log = [entry("l", "lean", TODAY, structure="chandlers-wire", moved=0.04)]
        self.assertEqual(grounds_of(self.garden, log), [])


class WearAndWorkTest(LearningTestCase):
    def test_what_broke_by_itself_shortens_a_life_and_what_broke_in_a_storm_does_not(self):
        bed, structure = self.place("twine-beam")
        string = member_called(geometry_of(bed, structure), "string", 2)
        assert string is not None
        log = [entry("b1", "break", dt.date(2026, 7, 1), structure="twine-beam", member=string.key)]
        (found,) = lives_of(self.garden, log, TODAY)
        self.assertNear(found.after, (3 * found.before + 1) / 4, 1e-9)  # gamma: three failures and one
        storm = entry("s", "storm", dt.date(2026, 6, 30), gust=20.0)
        self.assertEqual(lives_of(self.garden, [storm, *log], TODAY), [])

    def test_hours_against_what_was_ticked_on_the_day(self):
        task = next(task for task in self.tended("twine-beam").tasks if task.minutes >= 10)
        mark = Marked(state="done", at=AT)
        diary = Diary(key="d", name="Diary", structure="twine-beam", marks={task.key: mark})
        garden = self.garden.model_copy(update={"diaries": (diary,)})
        found = work_of(
            garden, [entry("w", "hours", AT.date(), structure="twine-beam", minutes=2 * task.minutes)]
        )
        assert found is not None
        self.assertNear(math.log(found.factor), math.log(2.0) * 0.5**2 / (0.5**2 + 0.6**2), 1e-6)
        self.assertIsNone(work_of(garden, [entry("w", "hours", dt.date(2026, 8, 2), minutes=30)]))


class DemoTest(LearningTestCase):
    """Four years of the demo: accepted, undone, and the same again."""

    def test_what_is_accepted_is_used_and_what_is_undone_is_gone(self):
        log = demo_log()
        lessons = {each.key: each for each in lessons_report(self.garden, log, TODAY)}
        self.assertFalse(any(each.used for each in lessons.values()))
        self.assertIn("% less", lessons["yield.tom-cherry"].title)
        self.assertTrue(any("Cove Fence" in move for move in lessons["storms"].moves))
        garden = self.garden
        for each in lessons.values():
            if each.taught:
                garden = with_taught(garden, each.taught)
        again = {each.key: each for each in lessons_report(garden, log, TODAY)}
        for key, each in again.items():
            if each.taught:
                self.assertTrue(each.used, key)
        # what the log says is counted from the tables, so that it does not grow by being used
        self.assertEqual(again["yield.tom-cherry"].taught, lessons["yield.tom-cherry"].taught)
        back = garden
        for each in again.values():
            back = without_taught(back, each.taught)
        self.assertEqual(back.taught, ())

    def test_what_the_log_does_not_say_any_more_can_still_be_undone(self):
        garden = with_taught(self.garden, [taught("yield", 0.7, "tom-cherry")])
        (left,) = lessons_report(garden, [], TODAY)
        self.assertTrue(left.used)
        self.assertEqual(without_taught(garden, left.taught), self.garden)
