"""The log: lines as people type them, what it says of things now, what is still to come of a harvest."""

from __future__ import annotations

import datetime as dt
from typing import get_args

import numpy as np
from ascent import tables
from ascent.analysis.design import design_of, geometry_of
from ascent.errors import InvalidPlan
from ascent.files.log_table import read_log, write_log
from ascent.files.plan import Plan, read_plan, write_plan
from ascent.log.line import read_entry
from ascent.log.members import counted, member_called, name_of
from ascent.log.now import closed, open_breaks, whole_log
from ascent.plan.entries import Entry, EntryKind
from ascent.plan.garden import Garden
from ascent.plan.record import Diary, Found, Marked
from ascent.report.log import entry_words
from ascent.season.forecast import forecast_of
from ascent.season.harvest import Harvest
from ascent.season.storm import storm_check
from ascent.site import plain_site

from tests.support import NearTestCase, demo

AT = dt.datetime(2026, 7, 10, 18, 0, tzinfo=dt.UTC)  # a Friday
POUND = 0.45359237
BUSHEL_OF_TOMATOES, BUSHEL_OF_BEANS = 53.0, 30.0  # USDA Agriculture Handbook 697, values from memory
# line, written at: kind, fields that it has besides day and place
SAID = (
    ("6 lb tomatoes from Lantern Row", "", "harvest", {"structure": "lantern-row", "mass": 6 * POUND}),
    ("3 lb 4 oz tomatoes from lantern row", "", "harvest", {"mass": 3.25 * POUND, "crop": "tom-slicer"}),
    ("half a bushel of tomatoes", "lantern-row", "harvest", {"mass": BUSHEL_OF_TOMATOES / 2 * POUND}),
    ("2 quarts of beans from Barrel Tripod", "", "harvest", {"mass": 2 / 32 * BUSHEL_OF_BEANS * POUND}),
    ("800 g beans from Barrel Tripod", "", "harvest", {"mass": 0.8, "crop": "bean-pole"}),
    ("picked 14 cucumbers at Quay Fence", "", "harvest", {"count": 14, "crop": "cuc-slice"}),
    ("post 3 leans 4 cm", "lantern-row", "lean", {"moved": 0.04}),
    ("post 2 leans 4 cm at 1.5 m under 100 N", "lantern-row", "lean", {"height": 1.5, "pull": 100.0}),
    ("post 2 broke", "lantern-row", "break", {"structure": "lantern-row"}),
    ("repaired post 2 of Lantern Row, 40 min", "", "repair", {"minutes": 40.0}),
    ("storm 25 m/s, Lantern Row fell", "", "storm", {"gust": 25.0, "found": "fell"}),
    ("frost, -2 °C", "", "frost", {"low": -2.0}),
    ("saw aphids on tomatoes", "lantern-row", "sighting", {"what": "aphids", "crop": "tom-slicer"}),
    ("sprayed with soap, wait 3 days", "lantern-row", "treatment", {"what": "soap", "waits": 3}),
    ("watered 40 l", "lantern-row", "water", {"volume": 0.04}),
    ("worked 1 h 20 min", "", "hours", {"minutes": 80.0}),
    ("paid 12.50 for twine", "", "cost", {"cost": 12.5, "what": "twine"}),
    ("a quiet evening", "", "note", {"note": "a quiet evening"}),
)
DAYS = (
    ("2 kg tomatoes from Lantern Row yesterday", dt.date(2026, 7, 9)),
    ("2 kg tomatoes from Lantern Row on Monday", dt.date(2026, 7, 6)),
    ("2 kg tomatoes from Lantern Row 2026-07-01", dt.date(2026, 7, 1)),
)


def entry(key: str, kind: str, day: str, **fields) -> Entry:
    """Return an entry of Lantern Row."""
    return Entry(key=key, kind=kind, on=dt.date.fromisoformat(day), at=AT, structure="lantern-row", **fields)


def read(line: str, about: str = "", garden: Garden | None = None) -> Entry:
    """Return a line read in the demo's garden."""
    return read_entry(line, garden or demo(), "log-1", AT, AT.date(), about)


class LineTest(NearTestCase):
    def test_a_line_is_read(self):
        for line, about, kind, fields in SAID:
            with self.subTest(line):
                found = read(line, about)
                self.assertEqual(found.kind, kind)
                for name, value in fields.items():
                    if isinstance(value, float):
                        self.assertNear(getattr(found, name), value, 1e-6)
                    else:
                        self.assertEqual(getattr(found, name), value)

    def test_days_are_read(self):
        for line, day in DAYS:
            with self.subTest(line):
                self.assertEqual(read(line).on, day)

    def test_a_crop_that_grows_elsewhere_is_not_put_at_hand(self):
        self.assertEqual(read("2 kg butternut", "lantern-row").structure, "lantern-arch")
        self.assertIsNone(read("12 cucumbers", "lantern-row").structure)  # two fences have them
        self.assertEqual(read("2 kg tomatoes", "lantern-row").structure, "lantern-row")

    def test_what_is_missing_is_asked_for(self):
        for line, about, allowed in (
            ("post 3 leans 4 cm", "", "the name of its support"),
            ("post 33 leans 4 cm", "lantern-row", "counted from the start of the row"),
            ("post 1 leans", "lantern-row", "how far it moved"),
            ("sprayed with soap", "lantern-row", "the days until picking"),
            ("", "", "1 to 200 letters"),
            ("x" * 201, "", "1 to 200 letters"),
        ):
            with self.subTest(line), self.assertRaises(InvalidPlan) as refused:
                read(line, about)
            self.assertIn(allowed, refused.exception.problems[0].allowed)

    def test_what_is_read_is_told_in_the_same_figures(self):
        for line, about, _, _ in SAID:
            with self.subTest(line):
                self.assertTrue(entry_words(read(line, about), "metric", "€"))
        self.assertEqual(
            entry_words(read("6 lb tomatoes from Lantern Row"), "imperial", "$"),
            "6.0 lb picked: slicing tomato",
        )

    def test_parts_are_counted_from_the_start_of_the_row(self):
        garden = demo()
        for bed in garden.beds:
            for structure in bed.structures:
                geometry = geometry_of(bed, structure)
                posts = counted(geometry, "post")
                for number, post in enumerate(posts, start=1):
                    self.assertEqual(name_of(geometry, post.key), f"post {number}")
                    self.assertIs(member_called(geometry, "post", number), post)
                self.assertIsNone(member_called(geometry, "post", len(posts) + 1))


class EntryTest(NearTestCase):
    def test_the_model_and_the_table_know_the_same_kinds(self):
        self.assertEqual(list(get_args(EntryKind)), list(tables.log_kinds()))

    def test_it_has_the_fields_of_its_kind_only(self):
        with self.assertRaisesRegex(ValueError, "mass: no such field"):
            entry("a", "lean", "2026-07-01", moved=0.1, mass=2.0)
        with self.assertRaisesRegex(ValueError, "weight or a number of pieces"):
            entry("a", "harvest", "2026-07-01", crop="tom-slicer")
        with self.assertRaisesRegex(ValueError, "its key is needed"):
            Entry(key="a", kind="break", on=AT.date(), at=AT)

    def test_pieces_weigh_what_such_fruit_weighs(self):
        found = entry("a", "harvest", "2026-07-01", crop="tom-cherry", count=100)
        self.assertNear(found.kg or 0.0, 1.5, 0.5)  # 10 to 20 g each: common practice, no source

    def test_a_plan_file_carries_it(self):
        log = (entry("a", "lean", "2026-07-01", moved=0.1), entry("b", "note", "2026-07-02", note="dry"))
        text = write_plan(demo(), log)
        self.assertEqual(read_plan(text), Plan(format="ascent-plan", version=8, garden=demo(), log=log))
        twice = write_plan(demo(), (log[0], log[0]))
        with self.assertRaises(InvalidPlan) as refused:
            read_plan(twice)
        self.assertEqual(refused.exception.problems[0].path, "log[1].key")

    def test_a_table_carries_it_out_and_in_to_the_same_figures(self):
        garden = demo()
        lines = [*SAID, ("2 kg tomatoes from Lantern Row at dusk", "", "harvest", {})]
        log = [
            read(line, about).model_copy(update={"key": f"log-{n}", "said": ""})
            for n, (line, about, _, _) in enumerate(lines)
        ]
        for system in ("metric", "imperial"):
            back = read_log(write_log(log, garden, system), garden, system, AT)
            for was, now in zip(log, back, strict=True):
                with self.subTest(was.kind, system=system):
                    kept = {"bed": was.bed if not was.structure else None}
                    self.assertTrue(_same(was.model_copy(update=kept), now), (was, now))

    def test_a_table_of_ones_own_is_read_and_twice_is_once(self):
        text = "Date;Kind;Place;Crop;Weight (kg)\n2026-07-01;harvest;Lantern Row;slicing tomato;1,5\n"
        first, second = (read_log(text, demo(), "metric", AT) for _ in range(2))
        self.assertEqual(
            (first[0].mass, first[0].structure, first[0].crop), (1.5, "lantern-row", "tom-slicer")
        )
        self.assertEqual(first[0].key, second[0].key)

    def test_a_wrong_table_names_the_row_and_what_is_allowed(self):
        for row, path in (
            ("2026-07-01,harvest,Nowhere,tom-slicer,1", "row 2, place"),
            ("2026-07-01,dance,Lantern Row,,", "row 2.kind"),
            ("2026-13-01,note,Lantern Row,,", "row 2.on"),
        ):
            with self.subTest(row), self.assertRaises(InvalidPlan) as refused:
                read_log(f"date,kind,place,crop,weight\n{row}\n", demo(), "metric", AT)
            self.assertEqual(refused.exception.problems[0].path, path)


def _same(one: Entry, other: Entry) -> bool:
    """Return whether two entries say the same, figures to a part in a hundred thousand."""
    for name in Entry.model_fields:
        a, b = getattr(one, name), getattr(other, name)
        if a != b and not (isinstance(a, float) and isinstance(b, float) and abs(a - b) <= 1e-5 * abs(a)):
            return False
    return True


class NowTest(NearTestCase):
    def test_a_break_is_open_until_it_is_mended(self):
        broke = entry("a", "break", "2026-07-01", member="post@114")
        other = entry("b", "repair", "2026-07-02", member="post@0")
        same = entry("c", "repair", "2026-07-02", member="post@114")
        whole = entry("d", "repair", "2026-07-02")
        before = entry("e", "repair", "2026-06-30", member="post@114")

        def open_of(*log: Entry, diary: Diary | None = None) -> list[str]:
            ordered = sorted(log, key=lambda each: each.on)
            return [each.entry.key for each in open_breaks(demo(), "lantern-row", ordered, diary)]

        self.assertEqual(open_of(broke), ["a"])
        self.assertEqual(open_of(broke, other), ["a"])
        self.assertEqual(open_of(before, broke), ["a"])
        self.assertEqual(open_of(broke, same), [])
        self.assertEqual(open_of(broke, whole), [])
        self.assertEqual(open_of(broke, entry("f", "repair", "2026-07-02", mends="x")), ["a"])
        done = Diary(
            key="d", name="d", structure="lantern-row", marks={"2026.repair.a": Marked(state="done", at=AT)}
        )
        self.assertEqual(open_of(broke, diary=done), [])

    def test_what_fell_in_a_storm_is_broken_and_what_stood_is_not(self):
        for found, keys in (("fell", ["a"]), ("torn", ["a"]), ("stood", []), ("leans", [])):
            storm = entry("a", "storm", "2026-07-01", found=found)
            self.assertEqual([b.entry.key for b in open_breaks(demo(), "lantern-row", [storm], None)], keys)

    def test_the_longest_wait_closes_a_crop(self):
        log = [
            entry("a", "treatment", "2026-07-01", what="soap", waits=1),
            entry("b", "treatment", "2026-07-02", what="sulphur", waits=7),
            entry("c", "treatment", "2026-07-03", what="oil", waits=3, crop="cuc-slice"),
        ]
        found = closed(log, "long-plot-a", "lantern-row", "tom-slicer", dt.date(2026, 7, 4))
        self.assertIsNotNone(found)
        self.assertEqual((found.until, found.entry.key), (dt.date(2026, 7, 9), "b"))
        self.assertIsNone(closed(log, "long-plot-a", "lantern-row", "tom-slicer", dt.date(2026, 7, 9)))
        self.assertIsNone(closed(log, "long-plot-a", "other-row", "tom-slicer", dt.date(2026, 7, 4)))

    def test_what_was_ticked_in_the_week_is_of_the_log(self):
        garden = demo()
        planting = next(s.plantings[0] for b in garden.beds for s in b.structures if s.key == "lantern-row")
        diary = Diary(
            key="diary",
            name="diary",
            structure="lantern-row",
            marks={f"2026.{planting.key}.pick.1": Marked(state="done", at=AT, picked=2.5)},
            storms={"2026-07-03": Found(found="torn", at=AT)},
        )
        log = whole_log(garden.model_copy(update={"diaries": (diary,)}), ())
        self.assertEqual([(each.kind, each.on.day) for each in log], [("storm", 3), ("harvest", 10)])
        self.assertEqual((log[1].mass, log[1].crop), (2.5, planting.crop))


class ForecastTest(NearTestCase):
    mondays = tuple(dt.date(2026, 7, 6) + dt.timedelta(days=7 * n) for n in range(10))

    def harvest(self, good: float = 1.5) -> Harvest:
        weeks = np.full(10, 2.0)
        return Harvest(weeks / good, weeks, weeks * good, good)

    def test_nothing_weighed_moves_nothing(self):
        self.assertIsNone(forecast_of(self.harvest(), self.mondays, [], dt.date(2026, 8, 10)))

    def test_the_rest_follows_by_the_closed_form(self):
        """Half of a season of 20 kg has passed and 5 kg came of 10: by hand, prior spread ln 1.5 / 1.2816 =
        0.3164, error of the reading 0.35 / √0.5 = 0.4950; weight 0.1001 / (0.1001 + 0.2450) = 0.2901; factor
        exp(0.2901 · ln 0.5) = 0.818.
        """
        today = self.mondays[5]
        told = forecast_of(
            self.harvest(), self.mondays, [(self.mondays[1], 2.0), (self.mondays[3], 3.0)], today
        )
        self.assertIsNotNone(told)
        self.assertEqual((told.came, told.meant), (5.0, 10.0))
        self.assertNear(told.factor, 0.818, 1e-3)
        self.assertNear(float(told.harvest.usual.sum()), 5.0 + 10.0 * 0.818, 1e-3)

    def test_it_agrees_with_the_whole_posterior_by_brute_force(self):
        today, came = self.mondays[7], 20.0
        told = forecast_of(self.harvest(), self.mondays, [(self.mondays[2], came)], today)
        self.assertIsNotNone(told)
        grid = np.linspace(-2.0, 2.0, 40_001)
        prior = np.exp(-0.5 * (grid / (np.log(1.5) / 1.2816)) ** 2)
        seen = np.exp(-0.5 * ((np.log(came / 14.0) - grid) / (0.35 / np.sqrt(0.7))) ** 2)
        weights = np.cumsum(prior * seen)
        median = float(grid[np.searchsorted(weights, weights[-1] / 2)])
        self.assertNear(told.factor, float(np.exp(median)), 1e-3)

    def test_one_early_pick_hardly_moves_it_and_more_of_a_season_does(self):
        factors = []
        for weeks in (1, 3, 6, 9):
            told = forecast_of(
                self.harvest(), self.mondays, [(self.mondays[0], weeks * 1.0)], self.mondays[weeks]
            )
            self.assertIsNotNone(told)
            factors.append(told.factor)
        self.assertEqual(factors, sorted(factors, reverse=True))
        self.assertTrue(0.88 < factors[0] < 1.0 and 0.5 < factors[-1] < 0.8, factors)


class BrokenTest(NearTestCase):
    """What holds while a part is broken: its neighbours carry its share (tributary width, trade fact: common
    practice, no source).
    """

    def setUp(self):
        garden = demo()
        self.bed, self.structure = next(
            (bed, each) for bed in garden.beds for each in bed.structures if each.key == "lantern-row"
        )
        self.site = plain_site(garden, self.bed)
        self.post = member_called(geometry_of(self.bed, self.structure), "post", 3)

    def test_the_two_beside_a_post_carry_half_its_share_each(self):
        before = {link.key: link for link in design_of(self.site, self.structure).path}
        for key, link in before.items():
            after = link.without({self.post.key})
            if self.post.key in link.members:
                self.assertGreater(len(link.members), 2)
                np.testing.assert_allclose(after.utilisation, 1.5 * link.utilisation, err_msg=key)
            else:
                self.assertIs(after, link)

    def test_the_only_one_left_carries_all_and_where_none_is_left_nothing_holds(self):
        link = next(
            link for link in design_of(self.site, self.structure).path if self.post.key in link.members
        )
        np.testing.assert_allclose(
            link.without(link.members[1:]).utilisation, len(link.members) * link.utilisation
        )
        self.assertTrue(np.all(np.isinf(link.without(link.members).utilisation[link.utilisation > 0])))

    def test_it_holds_less_and_fallen_nothing_and_a_storm_knows(self):
        whole = design_of(self.site, self.structure).moist_limit()
        self.assertLess(design_of(self.site, self.structure).moist_limit(broken={self.post.key}), whole)
        self.assertEqual(design_of(self.site, self.structure).moist_limit(broken={""}), 0.0)
        on = dt.date(2026, 8, 5)
        stands, down = (
            storm_check(self.site, self.structure, on, 6.0, False, frozenset(broken))
            for broken in ((), ("",))
        )
        self.assertEqual((stands.outcome, down.outcome), ("holds", "goes"))
        self.assertEqual(down.moves, ())
