"""Any structure that the model accepts, on any bed, can be drawn, calculated, bought and said: nothing
raises, nothing is NaN.
"""

from __future__ import annotations

import json

import numpy as np
from ascent import tables
from ascent.analysis.design import design_of
from ascent.analysis.sensitivity import sensitivity
from ascent.buying.lists import shopping
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.plan.structure import Planting, Structure
from ascent.report.report import report_of
from ascent.site import Site
from ascent.sizing.offer import offer
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import NearTestCase, site, some


def serving(table: str, role: str) -> list[str]:
    """Return the keys of a table's rows that serve in a role."""
    return [item.key for item in tables.ITEM_TABLES[table]().values() if not role or role in item.serves]


@st.composite
def wanted(draw) -> tuple[str, dict]:
    """Draw any family with any options within their bounds, from the model's own description of them."""
    key, found = draw(st.sampled_from(list(FAMILIES))), {}
    for name, field in FAMILIES[key].options.model_json_schema()["properties"].items():
        if field["kind"] == "item":
            found[name] = draw(st.sampled_from(serving(field["table"], field["role"])))
        elif field.get("enum"):
            found[name] = draw(st.sampled_from(field["enum"]))
        elif field.get("type") == "boolean":
            found[name] = draw(st.booleans())
        elif field["kind"] == "count":
            found[name] = draw(st.integers(field["minimum"], field["maximum"]))
        else:
            found[name] = draw(st.floats(field["minimum"], field["maximum"]))
    return key, found


@st.composite
def places(draw) -> Site:
    """Draw any bed of any soil and exposure, raised or not."""
    raised = draw(st.booleans())
    return site(
        draw(st.sampled_from(list(tables.soils()))),
        draw(st.sampled_from(list(tables.exposures()))),
        kind="raised" if raised else "in-ground",
        fill_depth=draw(st.floats(0.0, 1.2)) if raised else 0.0,
        length=draw(st.floats(0.3, 60.0)),
        width=draw(st.floats(0.2, 20.0)),
    )


@st.composite
def plantings(draw) -> Planting:
    """Draw any crop, any number, any day of the year."""
    return Planting(
        key=draw(st.sampled_from(["p1", "p2"])),
        crop=draw(st.sampled_from(list(tables.crops()))),
        count=draw(st.integers(1, 600)),
        spacing=draw(st.floats(0.03, 3.0)),
        side=draw(st.sampled_from(["left", "right", "both"])),
        training=draw(st.sampled_from(["pruned", "free"])),
        planted=f"{draw(st.integers(1, 12)):02d}-{draw(st.integers(1, 28)):02d}",
    )


class AnyFamilyTest(NearTestCase):
    @settings(max_examples=some(50, 3), deadline=None, derandomize=True)
    @given(
        wanted(),
        places(),
        st.lists(plantings(), min_size=1, max_size=2, unique_by=lambda planting: planting.key),
    )
    def test_is_calculated_drawn_bought_and_said(self, chosen, place, grown):
        structure = Structure(key="x", name="x", family=chosen[0], options=chosen[1], plantings=tuple(grown))
        found = design_of(place, structure)
        for link in found.links:
            for check in link.checks:
                self.assertFalse(np.isnan(check.utilisation).any(), f"{link.key} {check.key}")
                self.assertTrue((check.utilisation >= 0).all(), f"{link.key} {check.key}")
        self.assertTrue((found.limit[1] <= found.limit[0] + 1e-9).all())
        for part in shopping(found.geometry, {}):
            self.assertGreater(part.packs, 0, part.key)
        for system in ("metric", "imperial"):
            text = report_of(found, system).model_dump_json()
            self.assertNotIn("NaN", text)
            self.assertNotIn("Infinity", text)
            json.loads(text)

    @settings(max_examples=some(16, 2), deadline=None, derandomize=True)
    @given(
        st.sampled_from(list(FAMILIES)),
        places(),
        st.sampled_from(list(tables.crops())),
        st.sampled_from(["left", "right", "both"]),
        st.sampled_from(["pruned", "free"]),
    )
    def test_what_is_offered_fits_its_bed_and_gives_every_reason(self, key, place, crop, side, training):
        offered = offer(place, key, Need(crop, None, side, training), "metric")
        chosen = FAMILIES[key].options.model_validate(offered.structure.options)
        if place.bed.length >= 2.0 and hasattr(chosen, "length"):
            self.assertLessEqual(chosen.length, place.bed.length + 1e-9)
        self.assertTrue(all(value.text and value.reason.endswith(".") for value in offered.values))
        named = {value.option for value in offered.values}
        self.assertLessEqual({"plantings.p1.count", "plantings.p1.spacing", "plantings.p1.planted"}, named)
        wrong = {
            remark.key for remark in design_of(place, offered.structure).remarks if remark.level == "wrong"
        }
        small = (
            {"beyond-bed", "crowded-row", "block-wide", "cages-touch", "roots-cut"}
            if place.bed.length < 2.0 or place.bed.width < 0.9
            else set()
        )
        self.assertLessEqual(
            wrong - {"host-overwhelmed", "twiner-level", "stake-short"}, small, (key, crop, wrong)
        )

    @settings(max_examples=16, deadline=None, derandomize=True)
    @given(st.sampled_from(list(FAMILIES)), places(), st.sampled_from(list(tables.crops())))
    def test_what_it_rests_on_is_between_its_ends(self, key, place, crop):
        """More drag or crop never raises a limit, more strength never lowers one; the widest spread leads."""
        proposed = FAMILIES[key].propose(Need(crop, None, "right", "pruned"), place)
        structure = Structure(
            key="x", name="x", family=key, options=proposed.options.model_dump(), plantings=proposed.plantings
        )
        found = sensitivity(place, structure)
        spreads = [abs(high - low) for _, low, high in found]
        self.assertEqual(spreads, sorted(spreads, reverse=True))
        for row, low, high in found:
            if row.key in ("leaf", "crop"):
                self.assertLessEqual(high, low + 1e-9, (key, row.key))
            elif row.acts == "strength":
                self.assertLessEqual(low, high + 1e-9, (key, row.key))
