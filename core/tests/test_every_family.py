"""What holds of every support family, run over the list: a new family gets these for free."""

from __future__ import annotations

import dataclasses
import itertools
import math
import re
from functools import cache
from typing import get_args

import numpy as np
from ascent import tables
from ascent.analysis.design import design_of
from ascent.buying.lists import shopping
from ascent.drawing.sketch import seen, sketch_of
from ascent.errors import InvalidPlan
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.loads import cases
from ascent.plan.structure import Structure
from ascent.report.report import full_report, report_of
from ascent.report.wishes import ways_to
from ascent.site import Site
from ascent.words import texts
from pydantic import ValidationError

from tests.support import NearTestCase, demo, share, site

CROPS = ("tom-slicer", "tom-det", "pea-snap", "bean-pole", "butternut", "blackberry")


@cache
def proposals():
    """Return every family with what it proposes for several crops and sides."""
    wanted = itertools.product(FAMILIES.values(), CROPS, ("left", "both"))
    return [
        (family, family.propose(Need(crop, None, side, "pruned"), site()), crop)
        for family, crop, side in wanted
    ]


def variants():
    """Yield every family with each value of each of its choices in turn, on what it proposes for one crop."""
    for family in FAMILIES.values():
        proposal = family.propose(Need("tom-slicer", None, "both", "pruned"), site())
        for name, field in family.options.model_fields.items():
            values = get_args(field.annotation) if field.json_schema_extra["kind"] == "choice" else ()
            for value in values or ((True, False) if field.annotation is bool else ()):
                yield (
                    family,
                    dataclasses.replace(proposal, options=proposal.options.model_copy(update={name: value})),
                    f"{name}={value}",
                )


def structure_of(family, proposal) -> Structure:
    return Structure(
        key="x",
        name="x",
        family=family.key,
        options=proposal.options.model_dump(),
        plantings=proposal.plantings,
    )


class OptionsTest(NearTestCase):
    def test_every_option_has_kind_label_bounds_and_reason(self):
        for family, proposal, _ in proposals():
            for name, field in family.options.model_fields.items():
                with self.subTest(family.key, option=name):
                    extra = field.json_schema_extra
                    self.assertIn(
                        extra["kind"], {"length", "count", "force", "angle", "line_load", "item", "choice"}
                    )
                    self.assertTrue(texts.template(f"option.{name}"))
                    if extra["kind"] not in ("item", "choice"):
                        self.assertEqual(len(field.metadata), 2, "a measure has both bounds")
                        self.assertGreater(extra["step"], 0)
                    if "when" not in extra:
                        self.assertIn(name, proposal.reasons, "every filled-in value has its reason")

    def test_reasons_read_as_sentences(self):
        for _, proposal, crop in proposals():
            for name, reason in proposal.reasons.items():
                with self.subTest(crop, option=name):
                    said = texts.say(f"reason.{reason.key}", "imperial", reason.values, reason.words)
                    self.assertNotIn("{", said)
                    self.assertTrue(said.endswith("."))

    def test_values_outside_bounds_are_refused(self):
        for family in FAMILIES.values():
            for name, field in family.options.model_fields.items():
                if field.json_schema_extra["kind"] in ("item", "choice"):
                    continue
                for value in (1e9, -1.0, float("nan"), float("inf")):
                    with (
                        self.subTest(family.key, option=name, value=value),
                        self.assertRaises(ValidationError),
                    ):
                        family.options.model_validate({name: value})


class GeometryTest(NearTestCase):
    def test_names_are_unique_and_points_finite(self):
        for family, proposal, crop in proposals():
            with self.subTest(family.key, crop=crop):
                geometry = family.geometry(proposal.options, proposal.plantings, site())
                keys = [m.key for m in geometry.members]
                self.assertEqual(len(keys), len(set(keys)))
                self.assertTrue(np.isfinite([p for m in geometry.members for p in m.points]).all())
                self.assertTrue(all(plant.at[2] == 0.0 for plant in geometry.plants))
                planted = [plant for plant in geometry.plants if plant.planting < len(proposal.plantings)]
                self.assertEqual(len(planted), sum(p.count for p in proposal.plantings))

    def test_mirrored_side_mirrors_the_plants_and_changes_no_limit(self):
        for family in FAMILIES.values():
            limits, places = [], []
            for side in ("left", "right"):
                proposal = family.propose(Need("tom-slicer", None, side, "pruned"), site())
                structure = structure_of(family, proposal)
                found = design_of(site(), structure)
                limits.append(found.moist_limit())
                planted = [p.at for p in found.geometry.plants if p.planting == 0]
                places.append(np.array([(x, y if side == "left" else -y) for x, y, _ in planted]))
            with self.subTest(family.key):
                self.assertNear(limits[0], limits[1], 1e-9)
                np.testing.assert_allclose(places[0], places[1], atol=1e-9)


class LoadPathTest(NearTestCase):
    def test_every_link_reaches_the_ground_and_names_real_things(self):
        for family, proposal, crop in proposals():
            with self.subTest(family.key, crop=crop):
                found = design_of(site(), structure_of(family, proposal))
                links = {link.key: link for link in found.links}
                members = {m.key for m in found.geometry.members}
                for link in links.values():
                    self.assertLessEqual(set(link.members), members)
                    self.assertLessEqual(set(link.levers), set(family.options.model_fields))
                    step, seen = link, {link.key}
                    while step.hands_to:
                        step = links[step.hands_to[0]]
                        self.assertNotIn(step.key, seen, "the path never turns back")
                        seen.add(step.key)

    def test_more_wind_and_more_crop_never_lower_a_use(self):
        for family, proposal, crop in proposals():
            structure = structure_of(family, proposal)
            geometry = family.geometry(proposal.options, proposal.plantings, site())
            for name, grid in (("gust", cases.rising_gusts()), ("crop", cases.rising_crop(site()))):
                for link in family.loaded(proposal.options, geometry, structure, site(), grid).path():
                    with self.subTest(family.key, crop=crop, rising=name, link=link.key):
                        use = np.minimum(link.utilisation, 1e12)
                        self.assertTrue(np.all(np.diff(use, axis=-1) >= -1e-6 * (1 + use[..., 1:])))

    def test_softer_soil_never_raises_a_limit(self):
        for family, proposal, crop in proposals():
            found = design_of(site(), structure_of(family, proposal))
            with self.subTest(family.key, crop=crop):
                self.assertTrue(np.all(found.limit[1] <= found.limit[0] + 1e-9))
                self.assertTrue(np.all(found.median_limit[0] >= found.limit[0] - 1e-9))

    def test_every_source_is_known_and_every_text_is_there(self):
        for family, proposal, what in share((*variants(), *proposals()[::4]), 3):
            found = design_of(site(), structure_of(family, proposal))
            with self.subTest(family.key, what=what):
                for link in found.links:
                    for check in link.checks:
                        self.assertIn(check.source, tables.sources())
                        self.assertIn(check.material_group, tables.uncertainties())
                report = report_of(found, "imperial")
                for working in (w for link in report.links for w in link.workings):
                    self.assertNotIn("{", working.numbers + working.compare)
                    self.assertTrue(working.formula and working.words and working.source)

    def test_each_choice_draws_calculates_and_buys(self):
        for family, proposal, what in share(variants(), 3, 1):
            with self.subTest(family.key, what=what):
                found = design_of(site(), structure_of(family, proposal))
                self.assertFalse(
                    any(np.isnan(check.utilisation).any() for link in found.links for check in link.checks)
                )
                keys = {link.key for link in found.links}
                self.assertTrue(
                    all(set(link.hands_to) <= keys for link in found.links),
                    "every link hands to one that is there",
                )
                self.assertTrue(shopping(found.geometry, {}))

    def test_ground_takes_what_is_put_on(self):
        """Equilibrium: what wind and lean put on the whole structure is what its feet are asked for, in every
        case.
        """
        for family, proposal, crop in proposals():
            structure = structure_of(family, proposal)
            geometry = family.geometry(proposal.options, proposal.plantings, site())
            put_on, taken = family.loaded(
                proposal.options, geometry, structure, site(), cases.site_winds(site(), 15.0)
            ).balance()
            with self.subTest(family.key, crop=crop):
                np.testing.assert_allclose(*np.broadcast_arrays(put_on, taken), rtol=1e-9, atol=1e-9)


class PartsTest(NearTestCase):
    def test_every_member_that_is_bought_is_on_the_list(self):
        for family, proposal, crop in proposals():
            with self.subTest(family.key, crop=crop):
                geometry = family.geometry(proposal.options, proposal.plantings, site())
                parts = shopping(geometry, {})
                self.assertLessEqual(
                    {m.item for m in geometry.members if m.item}, {part.key for part in parts}
                )
                self.assertTrue(
                    all(
                        part.packs * part.pack_size + 1e-9 >= part.count or part.pack != "pack"
                        for part in parts
                    )
                )
                self.assertTrue(all(part.cost >= 0 for part in parts))


class WordsTest(NearTestCase):
    """What is said of the demo's structures, in both systems of units."""

    METRIC, IMPERIAL = (
        r"\d (m|cm|mm|kg|N|kN|N/m|N·m|m/s|MPa|°C|K)\b",
        r"\d (in|ft|lb|lbf|lbf·ft|lbf/ft|mph|°F)\b",
    )

    def said(self, system: str):
        """Yield every sentence with numbers of every structure."""
        garden = demo()
        for bed in garden.beds:
            for structure in bed.structures:
                report = full_report(Site(garden=garden, bed=bed), structure, system)
                yield from ((structure.name, remark.text) for remark in report.remarks)
                yield from (
                    (structure.name, working.numbers) for link in report.links for working in link.workings
                )
                yield structure.name, report.headline.sentence

    def test_nobody_reads_the_other_systems_units(self):
        for system, foreign in (("metric", self.IMPERIAL), ("imperial", self.METRIC)):
            for name, text in self.said(system):
                self.assertIsNone(re.search(foreign, text), f"{name}, {system}: {text}")

    def test_a_square_is_of_the_number_and_its_unit(self):
        """1.27 m² is an area; the square of 1.27 m is (1.27 m)²."""
        for name, text in self.said("metric"):
            self.assertIsNone(re.search(r"\d (m|N)²(?!\))(?= ÷| \+|\))", text), f"{name}: {text}")

    def test_nothing_is_left_unfilled(self):
        for system in ("metric", "imperial"):
            for name, text in self.said(system):
                self.assertNotRegex(text, r"[{}]|nan|\binf\b", f"{name}, {system}")


class DependsTest(NearTestCase):
    def test_what_an_option_depends_on_is_there_and_can_be_so(self):
        for family in FAMILIES.values():
            for name, field in family.options.model_fields.items():
                when = field.json_schema_extra.get("when")
                if not when:
                    continue
                with self.subTest(family.key, option=name):
                    parent = family.options.model_fields[when["option"]]
                    self.assertNotEqual(when["option"], name)
                    for value in when["is"]:
                        read = {"true": True, "false": False}.get(
                            value, int(value) if value.isdigit() else value
                        )
                        options = family.options.model_validate({when["option"]: read})
                        self.assertEqual(str(getattr(options, when["option"])).lower(), value)
                    self.assertTrue(parent.json_schema_extra["group"])

    def test_nothing_depends_on_itself_through_others(self):
        for family in FAMILIES.values():
            parents = {
                n: f.json_schema_extra.get("when", {}).get("option")
                for n, f in family.options.model_fields.items()
            }
            for name, parent in parents.items():
                reached, at = {name}, parent
                while at:
                    self.assertNotIn(at, reached, f"{family.key}: {name}")
                    reached.add(at)
                    at = parents[at]


class SketchTest(NearTestCase):
    """The picture that a kind of support is chosen by."""

    def test_everything_drawn_lies_within_its_frame_and_above_the_ground(self):
        for family, proposal, crop in proposals():
            geometry = family.geometry(proposal.options, proposal.plantings, site())
            sketch = sketch_of(geometry, 12.0, 1.2)
            with self.subTest(family.key, crop=crop):
                self.assertTrue(sketch.strokes)
                for u, v in (
                    *(p for stroke in sketch.strokes for p in stroke.points),
                    *sketch.leaves,
                    *sketch.ground,
                ):
                    self.assertTrue(sketch.low[0] - 1e-6 <= u <= sketch.high[0] + 1e-6)
                    self.assertTrue(sketch.low[1] - 1e-6 <= v <= sketch.high[1] + 1e-6)
                self.assertEqual(len(sketch.ground), 4)

    def test_height_is_seen_from_a_little_above(self):
        """An upright metre is drawn cos 16° long, what lies farther back higher."""
        (u0, v0), (u1, v1) = seen((0.0, 0.0, 0.0)), seen((0.0, 0.0, 1.0))
        self.assertNear(v1 - v0, math.cos(math.radians(16.0)), 2e-3)
        self.assertEqual(u0, u1)
        self.assertGreater(seen((0.0, 1.0, 0.0))[1], v0)

    def test_a_picture_is_small_enough_to_send(self):
        for family, proposal, _ in proposals():
            geometry = family.geometry(proposal.options, proposal.plantings, site())
            self.assertLessEqual(len(sketch_of(geometry, 12.0, 1.2).leaves), 700)


class WishTest(NearTestCase):
    def test_every_way_can_be_taken_and_gives_what_it_says(self):
        """The remark that follows from the changed options is the judge: it does not know of the wish."""
        for family in (each for each in FAMILIES.values() if each.wishes):
            for crop, wish, part in itertools.product(CROPS[:2], family.wishes, (0.0, 0.4, 1.0)):
                structure = structure_of(family, family.propose(Need(crop, None, "both", "pruned"), site()))
                wanted = {ask.name: ask.low + part * (ask.high - ask.low) for ask in wish.asks}
                found = ways_to(site(), structure, wish.key, wanted, "metric")
                self.assertTrue(found.ways)
                self.assertEqual(set(found.written), set(wanted))
                for way in found.ways:
                    with self.subTest(family.key, crop=crop, wanted=wanted, way=way.text):
                        report = full_report(
                            site(),
                            structure.model_copy(update={"options": {**structure.options, **way.changes}}),
                            "metric",
                        )
                        said = re.search(r"([\d.]+) m clear", way.text)[1]
                        self.assertIn(
                            f"{said} m is clear", " ".join(remark.text for remark in report.remarks)
                        )
                        self.assertEqual(way.reaches, float(said) >= wanted["clear"] - 0.006)

    def test_what_is_asked_out_of_bounds_is_refused_by_name(self):
        structure = structure_of(
            FAMILIES["panel-arch"],
            FAMILIES["panel-arch"].propose(Need("tom-slicer", None, "both", "pruned"), site()),
        )
        for wish, wanted, path in (
            ("moon", {}, "wish"),
            ("headroom", {"clear": 2.0}, "wanted.path"),
            ("headroom", {"clear": 9.0, "path": 1.0}, "wanted.clear"),
        ):
            with self.assertRaises(InvalidPlan) as caught:
                ways_to(site(), structure, wish, wanted, "metric")
            self.assertEqual([problem.path for problem in caught.exception.problems], [path])


class DemoTest(NearTestCase):
    def test_the_demo_has_every_family(self):
        self.assertEqual({s.family for bed in demo().beds for s in bed.structures}, set(FAMILIES))

    def test_the_demo_shows_one_that_holds_one_that_falls_short_and_one_far_too_strong(self):
        states = {}
        garden = demo()
        for bed in garden.beds:
            for structure in bed.structures:
                found = design_of(type(site())(garden=garden, bed=bed), structure)
                states[structure.name] = (found.state, float(np.min(found.limit[0])) / found.site.design_gust)
        self.assertGreaterEqual(sum(state == "inadequate" for state, _ in states.values()), 1)
        self.assertGreaterEqual(sum(share > 2.5 for _, share in states.values()), 1)
        self.assertGreaterEqual(
            sum(state != "inadequate" and share < 2 for state, share in states.values()), 1
        )
