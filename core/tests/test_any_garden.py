"""Random gardens: turned and moved as a whole nothing changes; files and tables come back as they went
out.
"""

from __future__ import annotations

import json
import math
import unittest
from itertools import combinations
from typing import get_args

import numpy as np
import shapely
from ascent.files.csv_tables import What, read_table, write_table
from ascent.files.plan import read_plan, write_plan
from ascent.ground.clashes import Looked, clashes, clashes_since, gaps
from ascent.ground.plot import Frame, bed_outline, laid_out, placed, plot_of, room_for
from ascent.plan.bed import Bed
from ascent.plan.features import Feature
from ascent.plan.garden import Garden
from ascent.plan.structure import Structure
from ascent.plan.upgrades import lay_out, upgraded
from ascent.report.changes import differences, sentence
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.support import fence

FEW = settings(max_examples=15, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))
SOME = settings(max_examples=30, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))
NAMES = st.text(alphabet="abcdefghij ÄÖüé’-=+@0123456789", min_size=1, max_size=18).filter(
    lambda text: text.strip() == text
)


@st.composite
def beds(draw, key: str, structures: bool = True) -> Bed:
    """Return a bed anywhere, of any kind, with or without a fence on it."""
    length, width = draw(st.floats(1.0, 8.0)), draw(st.floats(0.4, 2.0))
    rows: tuple[Structure, ...] = ()
    if structures and draw(st.booleans()):
        row = fence(
            length=round(max(length - 0.3, 0.6), 2), ends=draw(st.sampled_from(["plain", "guy"])), top="wire"
        )
        moved = {
            "key": f"{key}-row",
            "along": draw(st.floats(-0.5, 0.5)),
            "turn": draw(st.sampled_from([0.0, 0.0, 12.0, 90.0])),
        }
        rows = (row.model_copy(update=moved),)
    kind = draw(st.sampled_from(["in-ground", "raised", "container", "straw-bale"]))
    return Bed(
        key=key,
        name=draw(NAMES),
        kind=kind,
        length=round(length, 3),
        width=round(width, 3),
        bearing=draw(st.integers(0, 359)),
        x=round(draw(st.floats(-12, 12)), 3),
        y=round(draw(st.floats(-12, 12)), 3),
        fill_depth=0.3 if kind != "in-ground" else 0.0,
        structures=rows,
    )


@st.composite
def features(draw, key: str) -> Feature:
    """Return a path, a wall or something buried."""
    kind = draw(st.sampled_from(["path", "wall", "fence", "drip-line", "water-pipe", "cable"]))
    points = tuple(
        (round(draw(st.floats(-14, 14)), 3), round(draw(st.floats(-14, 14)), 3))
        for _ in range(draw(st.integers(2, 3)))
    )
    assume(len(set(points)) > 1)
    return Feature(
        key=key, name=draw(NAMES), kind=kind, points=points, width=draw(st.sampled_from([0.05, 0.2, 0.8]))
    )


@st.composite
def gardens(draw) -> Garden:
    """Return a garden of a few beds and features."""
    return Garden(
        name=draw(NAMES),
        path_width=draw(st.sampled_from([0.45, 0.75])),
        beds=tuple(draw(beds(f"bed-{n}")) for n in range(draw(st.integers(0, 5)))),
        features=tuple(draw(features(f"feature-{n}")) for n in range(draw(st.integers(0, 3)))),
    )


def carried(garden: Garden, turn: float, east: float, north: float) -> Garden:
    """Return a garden turned round the origin and moved, as a whole."""
    frame = Frame(east, north, turn % 360.0)

    def out(x: float, y: float) -> tuple[float, float]:
        """Turn clockwise and move; a frame counts along (north at 0°) and left (west at 0°)."""
        found = frame.out(np.array([[y, -x]]))[0]
        return float(found[0]), float(found[1])

    def bed(row: Bed) -> Bed:
        x, y = out(row.x, row.y)
        return row.model_copy(update={"x": x, "y": y, "bearing": (row.bearing + turn) % 360.0})

    moved = tuple(f.model_copy(update={"points": tuple(out(*p) for p in f.points)}) for f in garden.features)
    return garden.model_copy(update={"beds": tuple(map(bed, garden.beds)), "features": moved})


class WholeTest(unittest.TestCase):
    @given(gardens(), st.floats(0, 359), st.floats(-30, 30), st.floats(-30, 30))
    @FEW
    def test_a_garden_turned_and_moved_as_a_whole_keeps_every_length(self, garden, turn, east, north):
        other = carried(garden, turn, east, north)
        for a, b in zip(laid_out(garden), laid_out(other), strict=True):
            self.assertAlmostEqual(math.dist(*a.row), math.dist(*b.row), places=2)
            self.assertAlmostEqual(a.ground.area, b.ground.area, places=2)
        shapes = [[shapely.Polygon(bed_outline(bed)) for bed in each.beds] for each in (garden, other)]
        for (a, c), (b, d) in zip(combinations(shapes[0], 2), combinations(shapes[1], 2), strict=True):
            self.assertAlmostEqual(a.distance(c), b.distance(d), places=6)

    @given(gardens(), gardens(), st.data())
    @settings(SOME, max_examples=60)
    def test_what_is_in_the_way_is_found_the_same_round_what_moved(self, garden, other, data):
        """Some things moved, some renamed, some gone, some come: the whole garden looked at says the same."""
        beds = [*garden.beds]
        for n, bed in enumerate(beds):
            way = data.draw(st.sampled_from(["stay", "move", "rename", "go", "bare"]))
            change = {
                "stay": {},
                "move": {"x": bed.x + data.draw(st.floats(-2, 2)), "bearing": (bed.bearing + 30.0) % 360},
                "rename": {"name": "Other"},
                "go": None,
                "bare": {"structures": ()},
            }[way]
            beds[n] = None if change is None else bed.model_copy(update=change)
        features = [f for f in garden.features if data.draw(st.booleans())]
        features += [f.model_copy(update={"key": f"other-{f.key}"}) for f in other.features]
        after = garden.model_copy(
            update={"beds": tuple(bed for bed in beds if bed), "features": tuple(features)}
        )
        before = laid_out(garden)
        looked = Looked(garden, before, clashes(garden, before))
        laid = laid_out(after)
        self.assertEqual(clashes_since(looked, after, laid), clashes(after, laid))

    @given(gardens(), st.sampled_from([90.0, 180.0, 270.0]))
    @FEW
    def test_what_is_in_the_way_does_not_hang_on_the_compass(self, garden, turn):
        """By quarter turns, where even the rounding to the millimetre is the same."""

        def said(each: Garden) -> list[tuple[str, tuple[str, ...]]]:
            return sorted((c.key, tuple(sorted(c.things))) for c in clashes(each, laid_out(each)))

        self.assertEqual(said(garden), said(carried(garden, turn, 3.0, -7.0)))

    @given(gardens())
    @SOME
    def test_every_clash_names_things_that_are_there_and_a_place_on_the_plan(self, garden):
        laid = laid_out(garden)
        keys = (
            {bed.key for bed in garden.beds}
            | {f.key for f in garden.features}
            | {each.structure.key for each in laid}
        )
        drawing = plot_of(garden, laid)
        for clash in clashes(garden, laid):
            self.assertLessEqual(set(clash.things), keys)
            self.assertTrue(
                all(math.isfinite(value) and value >= 0 for value, _ in clash.values.values()), clash
            )
            self.assertTrue(drawing.low[0] - 3 <= clash.at[0] <= drawing.high[0] + 3)

    @given(gardens())
    @FEW
    def test_a_distance_is_the_same_from_either_side(self, garden):
        laid = laid_out(garden)
        for bed in garden.beds:
            for gap in gaps(garden, laid, bed.key, "metric"):
                back = {other.to: other.text for other in gaps(garden, laid, gap.to, "metric")}
                if bed.key in back:
                    self.assertEqual(back[bed.key], gap.text)

    @given(gardens(), st.floats(0.5, 6), st.floats(0.3, 2))
    @FEW
    def test_there_is_always_room_for_one_more_bed(self, garden, length, width):
        x, y = room_for(garden, length, width)
        new = shapely.Polygon(bed_outline(Bed(key="new", name="new", length=length, width=width, x=x, y=y)))
        for bed in garden.beds:
            self.assertGreater(new.distance(shapely.Polygon(bed_outline(bed))), garden.path_width - 0.01)

    @given(st.floats(1.2, 3.0), st.integers(1, 3))
    @FEW
    def test_rows_put_on_one_bed_do_not_take_each_other_s_ground_while_there_is_room(self, width, count):
        home = Bed(key="a", name="A", length=6.0, width=width)
        for n in range(count):
            garden = Garden(name="g", beds=(home,))
            new = placed(garden, home, fence().model_copy(update={"key": f"row-{n}"}))
            home = home.model_copy(update={"structures": (*home.structures, new)})
        grounds = [each.ground for each in laid_out(Garden(name="g", beds=(home,)))]
        if all(s.across for s in home.structures[1:]):
            self.assertTrue(all(not a.intersects(b) for a, b in combinations(grounds, 2)))


class FilesTest(unittest.TestCase):
    @given(gardens())
    @SOME
    def test_the_plan_file_comes_back_as_it_went_out(self, garden):
        again = read_plan(write_plan(garden)).garden
        self.assertEqual(again, read_plan(write_plan(again)).garden)
        self.assertEqual(
            [bed.model_dump(exclude={"structures"}) for bed in again.beds],
            [bed.model_dump(exclude={"structures"}) for bed in garden.beds],
        )

    @given(gardens())
    @SOME
    def test_tables_of_any_garden_come_back_in_either_system(self, garden):
        rounded = read_plan(write_plan(garden)).garden
        for what in get_args(What):
            for system in ("metric", "imperial"):
                again = read_table(rounded, what, write_table(rounded, what, system), system, take_away=True)
                for before, after in zip(rounded.beds, again.beds, strict=True):
                    self.assertEqual(before.name, after.name)
                    for field in ("length", "width", "x", "y", "bearing", "fill_depth"):
                        self.assertAlmostEqual(getattr(before, field), getattr(after, field), delta=1e-3)

    @given(st.lists(st.tuples(st.floats(0.3, 30), st.floats(0.2, 10), st.integers(0, 359)), max_size=8))
    @SOME
    def test_beds_of_old_files_are_laid_out_clear_of_one_another(self, sizes):
        old = [
            {"key": f"b{n}", "name": "b", "length": a, "width": b, "bearing": float(c)}
            for n, (a, b, c) in enumerate(sizes)
        ]
        shapes = [shapely.Polygon(bed_outline(Bed.model_validate(bed))) for bed in lay_out(old)]
        for a, b in combinations(shapes, 2):
            self.assertGreater(a.distance(b), 0.7)

    @given(
        st.recursive(
            st.none() | st.integers() | st.text(max_size=5),
            lambda inner: (
                st.lists(inner, max_size=3)
                | st.dictionaries(st.sampled_from(["garden", "beds", "version", "length"]), inner, max_size=3)
            ),
            max_leaves=8,
        )
    )
    @SOME
    def test_bringing_up_never_fails_on_nonsense(self, nonsense):
        upgraded({"version": 1, "garden": nonsense})
        upgraded({"version": 1, "garden": {"beds": nonsense if isinstance(nonsense, list) else [nonsense]}})
        json.dumps(upgraded({"version": nonsense}))


class DegenerateTest(unittest.TestCase):
    def test_a_line_of_no_length_is_refused(self):
        """Found by random gardens: a path from a point to itself has no middle."""
        for points, kind in ((((1, 1), (1, 1)), "path"), (((1, 1),), "wall"), (((1, 1), (2, 2)), "stump")):
            with self.assertRaises(ValidationError):
                Feature(key="f", name="f", kind=kind, points=points)
        Feature(key="f", name="f", kind="path", points=((1, 1), (1, 1), (2, 1)))


class WordsTest(unittest.TestCase):
    @given(gardens(), gardens())
    @FEW
    def test_a_change_and_its_undoing_name_the_same_fields(self, one, two):
        for a, b in zip(one.beds, two.beds, strict=False):
            there, back = differences(a, b, "metric"), differences(b, a, "metric")
            self.assertEqual([d.path for d in there], [d.path for d in back])
            self.assertEqual([(d.before, d.after) for d in there], [(d.after, d.before) for d in back])
            self.assertTrue(sentence(a, b, "imperial").startswith(b.name))
