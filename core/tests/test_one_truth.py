"""One truth from the first line to the paper: what is ranked first is what its own report calls fit, and the
comparison, the report, the build page and the build sheet tell the same figures.
"""

from __future__ import annotations

import datetime as dt
import random

from ascent import tables
from ascent.analysis.design import design_of
from ascent.analysis.fitness import is_drawback, is_serious
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.plan.bed import Bed
from ascent.plan.garden import Garden
from ascent.plan.needs import Wants
from ascent.plan.place import Place
from ascent.report.build_sheet import build_sheet
from ascent.report.building import build_report
from ascent.report.choosing import KindReport, order_of, way_report
from ascent.report.report import full_report
from ascent.site import Site
from ascent.sizing.offer import for_each
from ascent.words.quantities import System
from ascent.words.texts import template

from tests.support import NearTestCase, some

ON = dt.date(2026, 5, 1)


def any_need(chance: random.Random) -> tuple[Site, Need, Wants]:
    """Return any bed, crop and wishes."""
    kind = chance.choice(("in-ground", "in-ground", "raised", "container"))
    pot = kind == "container"
    bed = Bed(
        key="b",
        name="Bed",
        kind=kind,
        length=chance.uniform(0.4, 1.2) if pot else chance.uniform(1.2, 15.0),
        width=chance.uniform(0.4, 0.8) if pot else chance.uniform(0.5, 1.6),
        soil=chance.choice(("firm_loam", "sandy", "stiff_clay", "loose_tilled")),
        fill_depth=0.0 if kind == "in-ground" else chance.uniform(0.2, 0.5),
    )
    crops = [key for key, row in tables.crops().items() if row.support_height_m >= 0.6]
    place = Place(
        name="P",
        units=chance.choice(("metric", "imperial")),
        exposure=chance.choice(("sheltered", "ordinary", "open")),
        currency="USD",
    )
    wants = Wants(
        first=chance.choice(("per-season", "cost", "strength", "work")),
        money=chance.choice((None, 60.0)),
        heads_pass=chance.random() < 0.2,
        headroom=chance.choice((None, 1.9)),
        tools=chance.choice((None, ("maul",), ())),
    )
    need = Need(
        chance.choice(crops),
        chance.choice((None, 4, 12)),
        chance.choice(("right", "both")),
        chance.choice(("pruned", "free")),
    )
    return Site(garden=place, bed=bed), need, wants


class OneTruthTest(NearTestCase):
    def test_what_is_first_is_fit_and_every_remark_on_it_is_told(self):
        for seed in range(some(40, 10)):
            site, need, wants = any_need(random.Random(f"truth {seed} {ON.year}"))
            units: System = site.garden.units
            ways = {key: way_report(site, key, need, wants, units, closely=False) for key in FAMILIES}
            able = {key: way.figures for key, way in ways.items() if not way.against}
            places = order_of(able, wants.first, "USD", units)
            self.assertEqual([place.rank for place in places], list(range(1, len(able) + 1)))
            for key, way in ways.items():
                with self.subTest(f"{seed} {key} {need.crop}"):
                    self.tells_itself(site, need, way)
            if places:
                first, *others = (able[place.family] for place in places)
                sound = [f for f in others if f.score >= first.score and f.holds and not f.serious]
                if sound:
                    self.assertTrue(first.holds and not first.serious, f"{seed} {places[0].family}")

    def tells_itself(self, site: Site, need: Need, way: KindReport) -> None:
        where, _, each = for_each(site, way.family, need)
        structure = Bed.model_validate(
            {
                **site.bed.model_dump(),
                "structures": [
                    {
                        "key": "s",
                        "name": way.title,
                        "family": way.family,
                        "options": way.options,
                        "plantings": way.plantings,
                    }
                ],
            }
        ).structures[0]
        found = design_of(where, structure)
        if not way.against:
            self.assertNotIn("wrong", {remark.level for remark in found.findings})
            self.assertNotEqual(found.state, "inadequate")
        weighed = [remark for remark in found.findings if is_serious(remark) or is_drawback(remark)]
        for remark in weighed:
            self.assertIn(template(f"brief.{remark.key}"), way.told.minds)
        report = full_report(where, structure, site.garden.units)
        self.assertEqual(report.headline.state, way.state)
        self.assertEqual(report.headline.limit_text, way.told.limit)
        self.assertEqual(f"needs {report.headline.required_text}", way.told.needs)
        if each > 1:
            return
        self.assertEqual((report.cost_text, report.costs.season), (way.told.cost, way.told.yearly))
        bed = Bed.model_validate({**site.bed.model_dump(), "structures": [structure]})
        garden = Garden.model_validate({**site.garden.model_dump(), "beds": [bed]})
        told = build_report(garden, bed, structure, None, site.garden.units)
        self.assertEqual(told.before.clock, way.told.minutes)
        sheet = str(build_sheet(told, report, None, "P", site.garden.units, ON))
        self.assertIn(f"Parts cost {way.told.cost}.", sheet)
        self.assertIn(way.told.minutes, sheet)
        for remark in report.remarks:
            if remark.level != "fine":
                self.assertIn(remark.text, [line.text for line in told.before.remarks])
                self.assertIn(repr(remark.text)[1:-1], sheet)
