"""The hostile case by name: every rule beside every feature, every link's fixes in every kind of bed,
documents made to be costly.
"""

from __future__ import annotations

import json
import re
import unittest
from dataclasses import replace
from typing import Any, get_args
from unittest import mock

import numpy as np
from ascent import tables
from ascent.analysis.design import design_of
from ascent.analysis.sensitivity import sensitivity
from ascent.errors import InvalidPlan
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.files import plan
from ascent.files.plan import read_plan
from ascent.ground import clashes
from ascent.ground.clashes import RULES, warned
from ascent.ground.plot import laid_out
from ascent.ground.shade import canopies
from ascent.loads.cases import GUSTS, MOIST_GUSTS
from ascent.plan import documents
from ascent.plan.bed import Bed, BedKind
from ascent.plan.features import Feature, FeatureKind
from ascent.plan.fields import GREATEST_GUST
from ascent.plan.garden import Garden
from ascent.plan.structure import Structure
from ascent.report.readout import SizingWanted
from ascent.report.report import full_report
from ascent.report.sensitivity import curve_report
from ascent.report.sizes import link_fixes, sizing
from ascent.site import Site
from ascent.sizing.fixes import fixes_for
from ascent.sizing.representative import representative
from ascent.wording import gust_text
from pydantic import ValidationError

from tests.support import demo, share

KINDS = get_args(BedKind)


def planted(family: str, crop: str, kind: str, **fields: Any) -> Bed:
    """Return a bed of a kind with what a family proposes for a crop on it."""
    bare = Bed(
        key="b",
        name="b",
        **{
            "length": 2.4,
            "width": 1.2,
            "kind": kind,
            "fill_depth": 0.0 if kind == "in-ground" else 0.35,
            **fields,
        },
    )
    proposed = FAMILIES[family].propose(
        Need(crop, None, "both", "pruned"), Site(garden=Garden(name="g", exposure="storm-swept"), bed=bare)
    )
    structure = Structure(
        key="s", name="s", family=family, options=proposed.options.model_dump(), plantings=proposed.plantings
    )
    return bare.model_copy(update={"structures": (structure,)})


def beside_everything(bed: Bed) -> Garden:
    """Return a garden in which every kind of feature goes through a bed, lies on its edge and stands away
    from it.
    """
    features = [
        Feature(
            key=f"{kind}-{n}",
            name=kind,
            kind=kind,
            points=((-3, y),) if kind in ("steel-post", "stump") else ((-3, y), (3, y)),
            depth=0.2,
        )
        for kind in get_args(FeatureKind)
        for n, y in enumerate((0.0, 0.6, 4.0))
    ]
    return Garden(name="g", beds=(bed,), features=tuple(features))


class RulesTest(unittest.TestCase):
    def test_every_rule_over_every_proposal_for_every_crop_beside_every_feature(self):
        for number, crop in enumerate(tables.crops()):
            for family in share(FAMILIES, 3, number % 3):
                bed = planted(family, crop, KINDS[number % len(KINDS)])
                garden = beside_everything(bed)
                ground = clashes.GardenShapes(garden, laid_out(garden))
                for name, rule in RULES.items():
                    with self.subTest(family, crop=crop, rule=name):
                        list(rule(ground))

    def test_a_rule_that_fails_is_said_to_have_failed_and_the_rest_stands(self):
        garden = demo()
        laid = laid_out(garden)
        usual = clashes.clashes(garden, laid)
        with (
            mock.patch.dict(RULES, {"over-buried": lambda _ground: 1 / 0}),
            self.assertLogs("ascent.errors", "ERROR"),
        ):
            found = clashes.clashes(garden, laid)
        self.assertEqual(
            [c for c in found if c.key != "not-looked-at"],
            [c for c in usual if not c.key.startswith("near-")],
        )
        (said,) = (w.text for w in warned(found, "metric") if w.key == "not-looked-at")
        self.assertIn("could not check whether anything driven is too near to what is buried", said)


class FixesTest(unittest.TestCase):
    def test_every_link_of_every_family_opens_with_its_fixes_in_every_kind_of_bed(self):
        """All of them in one kind of bed; in the others those that it has of its own."""
        place = Garden(name="g", exposure="storm-swept")
        for family in share(FAMILIES, 3, 1):
            opened: set[str] = set()
            for kind in KINDS:
                bed = planted(
                    family,
                    "bean-pole" if family in ("tripod", "living-support") else "pea-snap",
                    kind,
                    length=1.2,
                    width=1.0,
                )
                found = design_of(Site(garden=place, bed=bed), bed.structures[0])
                for link in found.links:
                    if link.key in opened:
                        continue
                    opened.add(link.key)
                    with self.subTest(family, kind=kind, link=link.key):
                        self.assertTrue(all(fix.option in link.levers for fix in fixes_for(found, link.key)))

    def test_a_pot_in_the_wind_opens_its_link(self):
        for family in ("tripod", "brushwood", "stake", "cage"):
            bed = planted(family, "tom-slicer", "container", length=0.5, width=0.5)
            found = design_of(
                Site(garden=Garden(name="g", exposure="storm-swept"), bed=bed), bed.structures[0]
            )
            self.assertIn("pot", [link.key for link in found.links])
            fixes_for(found, "pot")


class StretchTest(unittest.TestCase):
    def raft(self, rows: int, length: float) -> tuple[Site, Structure]:
        bed = Bed(key="b", name="b", length=length, width=12.0)
        proposed = FAMILIES["cage"].propose(
            Need("tom-slicer", None, "both", "pruned"),
            Site(garden=Garden(name="g", exposure="storm-swept"), bed=bed),
        )
        options = proposed.options.model_copy(update={"rows": rows, "length": min(length, 30.0), "stakes": 1})
        planting = proposed.plantings[0].model_copy(update={"count": 600, "spacing": 0.4})
        structure = Structure(
            key="s",
            name="s",
            family="cage",
            options=options.model_dump(),
            plantings=tuple(planting.model_copy(update={"key": f"p{n}"}) for n in range(3)),
        )
        return Site(garden=Garden(name="g", exposure="storm-swept"), bed=bed), structure

    def test_a_stretch_stands_for_the_whole_and_says_so(self):
        site, structure = self.raft(8, 30.0)
        evaluated = representative(site, structure)
        self.assertLess(evaluated.share, 0.2)
        self.assertEqual(
            {key: value for key, value in evaluated.structure.options.items() if key != "length"},
            {key: value for key, value in structure.options.items() if key != "length"},
        )
        whole, part = design_of(site, structure), design_of(evaluated.site, evaluated.structure)
        others = part.moist_limits()
        for key, limit in whole.moist_limits().items():
            np.testing.assert_allclose(others[key].min(), limit.min(), rtol=0.01, err_msg=key)
        fixes = link_fixes(site, structure, "tipping", "metric")
        self.assertRegex(fixes.said, r"^We calculate the first \d\.\d\d m; the rest is alike\.$")
        self.assertTrue(fixes.fixes)

    def test_how_long_the_stretch_is(self):
        """1800 plants, of which 120 are a fifteenth: 30 m become 2 m, the bed too; 600 of a planting 40, in
        eight whole rows.
        """
        site, structure = self.raft(8, 30.0)
        evaluated = representative(site, structure)
        self.assertAlmostEqual(evaluated.share, 120 / 1800)
        self.assertEqual(
            (evaluated.length, evaluated.structure.options["length"], evaluated.site.bed.length),
            (2.0, 2.0, 2.0),
        )
        self.assertEqual([p.count for p in evaluated.structure.plantings], [40, 40, 40])
        self.assertEqual(
            evaluated.said("imperial"), "We calculate the first 6 ft 6 3/4 in; the rest is alike."
        )
        few = structure.model_copy(
            update={"plantings": tuple(p.model_copy(update={"count": 40}) for p in structure.plantings)}
        )
        self.assertEqual(
            (representative(site, few).share, representative(site, few).said("metric")), (1.0, "")
        )

    def test_the_work_for_a_row_at_all_its_limits_is_that_of_a_stretch(self):
        """Bounded by work: the members of all that is laid out while fixes are evaluated."""
        site, structure = self.raft(8, 30.0)
        members = len(design_of(site, structure).geometry.members)
        laid: list[int] = []
        real = FAMILIES["cage"].geometry

        def counted(*args: Any) -> Any:
            found = real(*args)
            laid.append(len(found.members))
            return found

        with mock.patch.dict(FAMILIES, cage=replace(FAMILIES["cage"], geometry=counted)):
            link_fixes(site, structure, "tipping", "metric")
        self.assertLess(sum(laid), 6 * members, f"{len(laid)} layouts of {members}")

    def test_what_is_not_alike_is_tried_whole(self):
        """An A-frame has a few feet and long rails: a segment of it is another thing."""
        bed = planted("a-frame", "pea-snap", "in-ground", length=12.0)
        row = bed.structures[0].model_copy(
            update={
                "plantings": tuple(
                    p.model_copy(update={"count": 600, "spacing": 0.03}) for p in bed.structures[0].plantings
                )
            }
        )
        self.assertEqual(representative(Site(garden=Garden(name="g"), bed=bed), row).share, 1.0)

    def test_a_search_that_has_gone_on_for_long_enough_says_what_it_has(self):
        site, structure = self.raft(2, 10.0)
        weak = structure.model_copy(update={"options": {**structure.options, "stakes": 0, "link": "none"}})
        asked: list[int] = []

        def enough() -> bool:
            asked.append(1)
            return True

        found = sizing(site, weak, "metric", SizingWanted(), enough)
        self.assertEqual(found.changes, {})
        self.assertIn("There may be a better one.", found.looked)
        self.assertIn("No design that holds was found", found.stopped)
        self.assertTrue(asked)


class CapTest(unittest.TestCase):
    def test_one_greatest_gust_everywhere(self):
        """What can hardly break: curve, inputs, words and grid all end at the same gust."""
        bed = planted("existing", "pea-snap", "in-ground")
        site = Site(garden=Garden(name="g", exposure="sheltered"), bed=bed)
        self.assertEqual((GUSTS[-1], MOIST_GUSTS[-1]), (GREATEST_GUST, GREATEST_GUST))
        option = next(iter(bed.structures[0].options))
        points = curve_report(site, bed.structures[0], option, "metric").points
        self.assertLessEqual(max(point.limit for point in points), GREATEST_GUST)
        for _, low, high in sensitivity(site, bed.structures[0]):
            self.assertLessEqual(max(low, high), GREATEST_GUST)
        self.assertEqual(gust_text(GREATEST_GUST + 1, "metric"), "over 45 m/s")


METRIC = re.compile(r"\d\s?(?:mm|cm|m|kg|N|kN|km/h|m/s|kPa|MPa|N/m|m²)(?![\w²/·])(?! \()")


class UnitsTest(unittest.TestCase):
    def metric(self, found: Any) -> list[str]:
        """Return every text in a document that has a metric size, and no other beside it."""
        if isinstance(found, dict):
            return [text for value in found.values() for text in self.metric(value)]
        if isinstance(found, list | tuple):
            return [text for value in found for text in self.metric(value)]
        return [found] if isinstance(found, str) and METRIC.search(found) else []

    def test_readers_of_feet_and_inches_get_no_metric_words_in_any_part(self):
        garden = demo()
        for bed in garden.beds:
            for structure in share(bed.structures, 2):
                site = Site(garden=garden, bed=bed)
                report = full_report(site, structure, "imperial").model_dump(mode="json")
                weakest = report["headline"]["weakest"]
                with self.subTest(structure.name):
                    self.assertEqual(self.metric(report), [])
                    self.assertEqual(
                        self.metric(link_fixes(site, structure, weakest, "imperial").model_dump(mode="json")),
                        [],
                    )
        self.assertEqual(
            self.metric(full_report(site, structure, "metric").model_dump(mode="json")) == [],
            False,
            "the pattern finds what it looks for",
        )


class ShadeTest(unittest.TestCase):
    def test_peas_of_february_with_tomatoes_of_may_shade_until_autumn(self):
        bed = planted("mesh-fence", "tom-slicer", "in-ground")
        (first,) = bed.structures[0].plantings
        peas = first.model_copy(update={"key": "peas", "crop": "pea-snap", "planted": "02-10"})
        tomatoes = first.model_copy(update={"planted": "05-10"})
        row = bed.structures[0].model_copy(update={"plantings": (peas, tomatoes)})
        garden = Garden(name="g", beds=(bed.model_copy(update={"structures": (row,)}),))
        leaves = [sum(c.cover for c in canopies(garden, laid_out(garden), day)) for day in range(1, 366)]
        self.assertGreater(leaves[238], 0.5, "the end of August")
        self.assertGreater(leaves[120], 0.0, "peas in May")
        self.assertEqual(sum(leaves[:40]) + sum(leaves[330:]), 0.0, "winter")


def garden_text(**fields: Any) -> str:
    return json.dumps({"format": "ascent-plan", "version": 3, "garden": {"name": "g", **fields}})


COSTLY = {
    "beds without end": garden_text(beds=[{}] * 300_000),
    "structures without end": garden_text(beds=[{"structures": [{}] * 250}] * 400),
    "unknown keys": garden_text(**{f"k{n}": 1 for n in range(100_000)}),
    "few unknown keys in many things": garden_text(beds=[{f"k{n}": 1 for n in range(300)}] * 400),
    "plantings": garden_text(beds=[{"structures": [{"plantings": [{}] * 900}] * 100}]),
    "points": garden_text(features=[{"points": [[0]] * 900}] * 100),
    "deep": "[" * 500_000,
    "deep options": garden_text(
        beds=[{"structures": [{"options": {"a": json.loads("[" * 900 + "]" * 900)}}]}]
    ),
    "digits": garden_text(latitude=1).replace("1}", "1" * 500_000 + "}"),
    "long text": garden_text(name="x" * 1_000_000),
    "half a character": garden_text(name="\ud800"),
}


class CostTest(unittest.TestCase):
    def test_the_worst_documents_are_refused_in_few_words_and_few_looks(self):
        """Bounded by work: how many problems, how many validations, how much text is written of what was
        given.
        """
        for name, text in COSTLY.items():
            with (
                self.subTest(name),
                mock.patch("ascent.files.plan._wrong_thing", side_effect=plan._wrong_thing) as looked,
            ):
                with self.assertRaises(InvalidPlan) as caught:
                    read_plan(text)
                self.assertLessEqual(len(caught.exception.problems), documents.MOST_PROBLEMS)
                self.assertLess(len(str(caught.exception)), 20_000)
                self.assertLessEqual(looked.call_count, 3 * documents.MOST_PROBLEMS)

    def test_a_list_is_counted_before_it_is_read(self):
        for kind, field, most in (
            (Structure, "plantings", 4),
            (Bed, "structures", 250),
            (Feature, "points", 20),
            (Garden, "beds", 400),
        ):
            with self.assertRaises(ValidationError) as caught:
                kind.model_validate({field: [{}] * (most + 1)})
            about = [error for error in caught.exception.errors() if error["loc"][0] == field]
            self.assertEqual(
                [error["loc"] for error in about], [(field,)], f"{field}: one problem, none of its contents"
            )

    def test_when_more_is_wrong_than_is_said_it_says_so(self):
        with self.assertRaises(InvalidPlan) as caught:
            read_plan(garden_text(beds=[{}] * 100))
        self.assertIn("the first 49 are named", str(caught.exception.problems[-1]))

    def test_the_largest_garden_is_not_too_large(self):
        bed = demo().beds[0].model_dump(mode="json")
        row = next(s for b in demo().beds for s in b.structures if s.family == "wire-trellis").model_dump(
            mode="json"
        )
        row["plantings"] = [{**planting, "key": f"p{n}"} for n in range(4) for planting in row["plantings"]]
        feature = Feature(key="f", name="f", kind="path", points=tuple((n, n) for n in range(20))).model_dump(
            mode="json"
        )
        beds = [
            {
                **bed,
                "key": f"b{i}",
                "structures": [{**row, "key": f"s{i}-{j}"} for j in range(2 if i < 200 else 1)],
            }
            for i in range(400)
        ]
        text = garden_text(
            beds=beds,
            features=[{**feature, "key": f"f{n}"} for n in range(400)],
            prices={f"p{n}": 1.0 for n in range(500)},
        )
        self.assertEqual(len(read_plan(text).garden.beds), 400)


if __name__ == "__main__":
    unittest.main()
