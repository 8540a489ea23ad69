"""The choices that divide growers: the tables are right, and what computing decides agrees with practice."""

from __future__ import annotations

from ascent import tables
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.plan.needs import Wants
from ascent.report.divides import divide_reports
from ascent.sizing.choose import way_of
from ascent.sizing.divides import divided
from ascent.words.texts import template

from tests.support import NearTestCase, site


class RowsTest(NearTestCase):
    def test_every_choice_of_the_handbook_is_there_with_its_texts(self):
        """Parts handbook 6: D1 to D23."""
        rows = tables.divides()
        self.assertEqual(len(rows), 23)
        for key in rows:
            for part in ("topic", "one", "other", "gain_one", "gain_other"):
                self.assertTrue(template(f"divide.{key}.{part}"))

    def test_what_is_decided_can_be(self):
        for row in tables.divides().values():
            kinds = row.families or tuple(FAMILIES)
            with self.subTest(row.key):
                self.assertEqual(bool(row.one and row.other), row.by != "none")
                if row.by == "kinds":
                    self.assertLessEqual({*row.one, *row.other}, set(FAMILIES))
                if row.option:
                    having = [kind for kind in kinds if row.option in FAMILIES[kind].options.model_fields]
                    self.assertTrue(having)
                    self.assertEqual(set(row.families) - set(having), set())
                if row.by == "item":
                    for side in (row.one, row.other):
                        for prefix in side:
                            known = tables.ITEM_TABLES[row.table]()
                            self.assertTrue(any(key.startswith(prefix) for key in known), prefix)


class DecidedTest(NearTestCase):
    def decided(self, family: str, **wants):
        """Which side won each choice, for slicers on a windy bed."""
        here = site(length=3.6)
        need = Need("tom-slicer", None, "right", "pruned")
        kinds = ("mesh-fence", "panel-arch", "stake", "cage")
        ways = {k: way_of(here, k, need, Wants(**wants), "metric", closely=False) for k in kinds}
        figures = {k: way.figures for k, way in ways.items() if not way.against}
        structure = ways[family].sized.structure
        return here, structure, figures, {d.key: d for d in divided(here, structure, figures, "per-season")}

    def test_as_growers_find_where_one_side_plainly_wins(self):
        """Parts handbook 6, D5 and D13: 0.3 m does for peas, not for a leafy face; a cane snaps at the soil
        under a tall tomato where a stout stake stands.
        """
        *_, stake = self.decided("stake")
        self.assertEqual(stake["stake"].won, "other")
        self.assertFalse(stake["stake"].one.holds)
        *_, fence = self.decided("mesh-fence")
        self.assertEqual(fence["deep"].won, "other")
        self.assertGreater(fence["deep"].other.limit, fence["deep"].one.limit)

    def test_the_winner_holds_or_neither_does_and_costs_no_more_where_both_do(self):
        for family in ("mesh-fence", "panel-arch", "stake"):
            *_, found = self.decided(family)
            for key, each in found.items():
                if not each.won or not each.option:
                    continue
                won, lost = (each.one, each.other) if each.won == "one" else (each.other, each.one)
                with self.subTest(family, choice=key):
                    self.assertGreaterEqual(won.holds, lost.holds)
                    if won.holds and lost.holds:
                        self.assertLessEqual(won.cost, lost.cost + 0.01)

    def test_each_is_told_with_both_sides_and_what_would_turn_it(self):
        here, structure, figures, found = self.decided("mesh-fence")
        told = divide_reports(here, structure, figures, "per-season", "imperial")
        self.assertEqual({each.key for each in told}, set(found))
        for each in told:
            with self.subTest(each.key):
                self.assertTrue(each.topic and each.won and each.why)
                self.assertEqual(bool(each.turn), bool(found[each.key].won))
                self.assertNotIn("{", each.why + each.turn + each.won)
                self.assertNotIn(" m/s", each.why + each.turn)
