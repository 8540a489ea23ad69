"""Any fence that the model accepts, on any bed, can be drawn, reckoned, bought and said: nothing raises, nothing is NaN."""

from __future__ import annotations

import json

import numpy as np
from ascent import tables
from ascent.families import FAMILIES
from ascent.family import Need
from ascent.model import Planting, Site, Structure
from ascent.offer import offer
from ascent.parts import shopping
from ascent.present import full_report
from ascent.report import evaluate
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import NearTestCase, site

FAMILY = FAMILIES["mesh-fence"]


def serving(table: str, role: str) -> list[str]:
    """Return the keys of a table's rows that serve in a role."""
    rows = tables.ITEM_TABLES[table]().values()
    return [row.key for row in rows if not role or role in (*getattr(row, "roles", ()), *getattr(row, "use", ()))]


@st.composite
def options(draw) -> dict:
    """Draw any options within their bounds, from the model's own description of them."""
    found = {}
    for name, field in FAMILY.options.model_json_schema()["properties"].items():
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
    return found


@st.composite
def places(draw) -> Site:
    """Draw any bed of any soil and exposure, raised or not."""
    raised = draw(st.booleans())
    return site(
        draw(st.sampled_from(list(tables.soils()))), draw(st.sampled_from(list(tables.exposures()))),
        kind="raised" if raised else "in-ground", fill_depth=draw(st.floats(0.0, 1.2)) if raised else 0.0,
        length=draw(st.floats(0.3, 60.0)), width=draw(st.floats(0.2, 20.0)),
    )  # fmt: skip


@st.composite
def plantings(draw) -> Planting:
    """Draw any crop, any number, any day of the year."""
    return Planting(
        crop=draw(st.sampled_from(list(tables.crops()))), count=draw(st.integers(1, 600)), spacing=draw(st.floats(0.03, 3.0)),
        side=draw(st.sampled_from(["left", "right", "both"])), training=draw(st.sampled_from(["pruned", "free"])),
        planted=f"{draw(st.integers(1, 12)):02d}-{draw(st.integers(1, 28)):02d}",
    )  # fmt: skip


class AnyFenceTest(NearTestCase):
    @settings(max_examples=60, deadline=None, derandomize=True)
    @given(options(), places(), st.lists(plantings(), min_size=1, max_size=2))
    def test_is_reckoned_drawn_bought_and_said(self, chosen, place, grown):
        structure = Structure(key="x", name="x", family=FAMILY.key, options=chosen, plantings=tuple(grown))
        found = evaluate(place, structure)
        for link in found.links:
            for check in link.checks:
                self.assertFalse(np.isnan(check.use).any(), f"{link.key} {check.key}")
                self.assertTrue((check.use >= 0).all(), f"{link.key} {check.key}")
        self.assertTrue((found.limit[1] <= found.limit[0] + 1e-9).all())
        for part in shopping(found.geometry, {}):
            self.assertGreater(part.packs, 0, part.key)
        for system in ("metric", "imperial"):
            text = full_report(place, structure, system).model_dump_json()
            self.assertNotIn("NaN", text)
            self.assertNotIn("Infinity", text)
            json.loads(text)

    @settings(max_examples=25, deadline=None, derandomize=True)
    @given(places(), st.sampled_from(list(tables.crops())), st.sampled_from(["left", "right", "both"]), st.sampled_from(["pruned", "free"]))
    def test_what_is_offered_fits_its_bed_and_gives_every_reason(self, place, crop, side, training):
        offered = offer(place, FAMILY.key, Need(crop, None, side, training), "metric")
        chosen = FAMILY.options.model_validate(offered.structure.options)
        if place.bed.length >= 0.9:
            self.assertLessEqual(chosen.length, place.bed.length + 1e-9)
        self.assertTrue(all(value.text and value.reason.endswith(".") for value in offered.values))
        named = {value.option for value in offered.values}
        self.assertLessEqual({"plantings.0.count", "plantings.0.spacing", "plantings.0.planted", "length", "post", "depth"}, named)
        wrong = {remark.key for remark in evaluate(place, offered.structure).remarks if remark.level == "wrong"}
        self.assertLessEqual(wrong, {"beyond-bed", "crowded-row"} if place.bed.length < 0.9 else set(), (crop, wrong))
