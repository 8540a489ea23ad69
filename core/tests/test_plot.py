"""The garden in plan: where rows lie, what is in the way of what, and what is bought together."""

from __future__ import annotations

import math
import unittest

import numpy as np
from ascent.clashes import clashes, gaps, warned
from ascent.model import Bed, Feature, Garden, Structure
from ascent.parts import shopping, total
from ascent.plan import read_plan
from ascent.plot import Frame, bed_outline, geometry_of, laid_out, placed, plot_of, room_for
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import EXAMPLES, NearTestCase, demo, fence

OLD = EXAMPLES.parent.parent / "core" / "tests" / "old" / "plan-1.json"


def bed(key: str, x: float = 0.0, y: float = 0.0, structures: tuple[Structure, ...] = (), **fields) -> Bed:
    return Bed(**{"key": key, "name": key.title(), "length": 4.0, "width": 1.2, "x": x, "y": y, "structures": structures, **fields})


def found(garden: Garden) -> dict[str, str]:
    """Return the garden's clashes by key, in words."""
    return {w.key: w.text for w in warned(clashes(garden, laid_out(garden)), "metric")}


class FrameTest(NearTestCase):
    def test_compass(self):
        """A bearing counts from north clockwise; left of a row that runs east is north. Common practice, no source."""
        for bearing, along, left in ((0, (0, 1), (-1, 0)), (90, (1, 0), (0, 1)), (180, (0, -1), (1, 0)), (270, (-1, 0), (0, -1))):
            out = Frame(3.0, 5.0, bearing).out(np.array([[2.0, 0.0], [0.0, 2.0]])) - [3.0, 5.0]
            np.testing.assert_allclose(out, [np.multiply(2, along), np.multiply(2, left)], atol=1e-9)

    @given(st.floats(0, 359.9), st.floats(-50, 50), st.floats(-50, 50))
    @settings(max_examples=60, deadline=None)
    def test_turning_and_moving_keeps_every_length(self, bearing, x, y):
        corners = bed_outline(bed("a", x, y, bearing=bearing))
        sides = [math.dist(a, b) for a, b in zip(corners, np.roll(corners, -1, axis=0), strict=True)]
        np.testing.assert_allclose(sides, [4.0, 1.2, 4.0, 1.2], atol=1e-9)
        np.testing.assert_allclose(corners.mean(axis=0), (x, y), atol=1e-9)

    def test_boards_stand_outside_the_bed(self):
        corners = bed_outline(bed("a", kind="raised", board=0.05))
        np.testing.assert_allclose(np.ptp(corners, axis=0), (4.1, 1.3))

    def test_plants_on_the_right_of_a_row_that_runs_north_are_east_of_it(self):
        row = plot_of(Garden(name="g", beds=(bed("a", structures=(fence(),), bearing=0.0),))).structures[0]
        self.assertTrue(all(x > 0.05 for x, _ in row.plants))

    def test_a_structure_lies_off_the_middle_of_its_bed_and_turned(self):
        moved = fence().model_copy(update={"along": 1.0, "across": 0.5, "turn": 90.0})
        mark = plot_of(Garden(name="g", beds=(bed("a", 10.0, 20.0, (moved,)),))).structures[0]
        np.testing.assert_allclose(mark.middle, (11.0, 20.5), atol=1e-3)
        self.assertEqual(mark.bearing, 180.0)
        np.testing.assert_allclose(mark.row, ((11.0, 22.3), (11.0, 18.7)), atol=1e-3)

    def test_place_on_the_plan_does_not_touch_the_structure(self):
        moved = fence().model_copy(update={"along": 1.0, "turn": 30.0})
        self.assertEqual(geometry_of(bed("a"), fence()), geometry_of(bed("a", 9.0, 9.0), moved))

    def test_an_empty_garden_has_room(self):
        drawing = plot_of(Garden(name="g"))
        self.assertEqual((drawing.low, drawing.high), ((-2.0, -2.0), (2.0, 2.0)))
        self.assertEqual(room_for(Garden(name="g"), 4.0, 1.2), (0.0, 0.0))

    def test_a_new_bed_lies_clear_of_the_others(self):
        garden = demo()
        x, y = room_for(garden, 3.0, 1.0)
        new = bed("new", x, y, length=3.0, width=1.0)
        self.assertFalse([g for g in gaps(garden.model_copy(update={"beds": (*garden.beds, new)}), laid_out(garden), "new", "metric")
                          if float(g.text.split()[0]) < garden.path_width - 0.01 and g.text.endswith(" m")])  # fmt: skip

    def test_a_second_row_finds_ground_of_its_own(self):
        home = bed("a", structures=(fence(),))
        second = placed(Garden(name="g", beds=(home,)), home, fence().model_copy(update={"key": "second"}))
        self.assertNotEqual(second.across, 0.0)
        both = Garden(name="g", beds=(bed("a", structures=(fence(), second)),))
        self.assertNotIn("taken-twice", found(both))


class ClashTest(unittest.TestCase):
    def test_beds_closer_than_the_garden_s_own_path(self):
        """Foot path 0.45 m, barrow path 0.75 m (project parts handbook 4.1)."""
        for gap, clash in ((0.70, True), (0.80, False), (0.0, False)):
            garden = Garden(name="g", path_width=0.75, beds=(bed("a"), bed("b", y=1.2 + gap)))
            self.assertEqual("narrow-gap" in found(garden), clash, gap)
        self.assertIn("0.70 m between A and B", found(Garden(name="g", path_width=0.75, beds=(bed("a"), bed("b", y=1.9))))["narrow-gap"])

    def test_a_path_too_narrow_and_one_squeezed(self):
        walk = Feature(key="w", name="Walk", kind="path", points=((-5, 1.0), (5, 1.0)), width=0.9)
        self.assertNotIn("squeezed-path", found(Garden(name="g", path_width=0.75, beds=(bed("a", y=-0.1),), features=(walk,))))
        text = found(Garden(name="g", path_width=0.75, beds=(bed("a", y=0.25),), features=(walk,)))["squeezed-path"]
        self.assertIn("A leaves 0.60 m of Walk", text)
        thin = walk.model_copy(update={"width": 0.5})
        self.assertIn("Walk is 0.50 m wide", found(Garden(name="g", path_width=0.75, features=(thin,)))["narrow-path"])

    def test_posts_keep_off_what_is_buried(self):
        """Water pipe 0.30 m, cable 0.60 m, drip tube 0.15 m (project parts handbook 4.6)."""
        home = bed("a", structures=(fence(),))
        for kind, keep in (("water-pipe", 0.30), ("cable", 0.60), ("drip-line", 0.15)):
            for away, clash in ((keep - 0.02, True), (keep + 0.02, False)):
                line = Feature(key="l", name="Line", kind=kind, points=((-9, away), (9, away)), width=0.005)
                self.assertEqual(f"near-{kind}" in found(Garden(name="g", beds=(home,), features=(line,))), clash, (kind, away))

    def test_a_line_well_below_the_posts_is_left_alone(self):
        """Flagged when the post's depth reaches the service's less 0.15 m (project parts handbook 4.6)."""
        home = bed("a", structures=(fence(depth=0.5),))
        for depth, clash in ((0.64, True), (0.67, False), (None, True)):
            line = Feature(key="l", name="Line", kind="cable", points=((-9, 0), (9, 0)), width=0.01, depth=depth)
            self.assertEqual("near-cable" in found(Garden(name="g", beds=(home,), features=(line,))), clash, depth)

    def test_a_guy_over_a_path_and_a_foot_in_it(self):
        walk = Feature(key="w", name="Walk", kind="path", points=((2.3, -4), (2.3, 4)), width=0.6)
        for ends, clash in (("guy", True), ("plain", False)):
            garden = Garden(name="g", beds=(bed("a", structures=(fence(ends=ends, top="wire"),)),), features=(walk,))
            self.assertEqual("guy-over-path" in found(garden), clash, ends)
        across = Feature(key="w", name="Walk", kind="path", points=((0.6, -4), (0.6, 4)), width=0.6)
        self.assertIn("foot-in-path", found(Garden(name="g", beds=(bed("a", structures=(fence(),)),), features=(across,))))

    def test_two_structures_in_the_same_ground(self):
        other = fence().model_copy(update={"key": "other", "name": "Other", "along": 0.3})
        self.assertIn("Fence and Other", found(Garden(name="g", beds=(bed("a", structures=(fence(), other)),)))["taken-twice"])

    def test_a_row_past_its_bed(self):
        out = fence().model_copy(update={"along": 1.0})
        self.assertIn("Fence ends 0.80 m past A", found(Garden(name="g", beds=(bed("a", structures=(out,)),)))["past-bed"])

    def test_a_fence_closes_off_the_wall_side_of_a_bed(self):
        """0.60 m is as far as an arm reaches over a bed (project parts handbook 4.1)."""
        wall = Feature(key="w", name="Wall", kind="wall", points=((-8, 0.55), (8, 0.55)), width=0.3)
        beds = (bed("a", width=0.6, structures=(fence(length=4.0),)),)
        self.assertIn("Fence closes off", found(Garden(name="g", beds=beds, features=(wall,)))["closed-off"])
        self.assertNotIn("closed-off", found(Garden(name="g", beds=beds)))
        self.assertNotIn("closed-off", found(Garden(name="g", beds=(bed("a", width=0.6),), features=(wall,))))

    def test_a_bed_wider_than_two_arms(self):
        """1.2 m with two paths (project parts handbook 4.1)."""
        self.assertIn("out-of-reach", found(Garden(name="g", beds=(bed("a", width=2.4),))))
        self.assertNotIn("out-of-reach", found(Garden(name="g", beds=(bed("a", width=1.2),))))

    def test_a_bed_that_nobody_gets_to(self):
        ring = ((-4, -3), (4, -3), (4, 3), (-4, 3), (-4, -3))
        yard = Feature(key="y", name="Yard wall", kind="wall", points=ring, width=0.2)
        beds = (bed("in"), bed("out", y=6.0), bed("far", y=9.0))
        self.assertIn("Nobody can get to In", found(Garden(name="g", beds=beds, features=(yard,)))["no-way-to"])
        gate = yard.model_copy(update={"points": (*ring[:4], (-4, 0.5))})
        self.assertNotIn("no-way-to", found(Garden(name="g", beds=beds, features=(gate,))))

    def test_distances_to_neighbours(self):
        garden = Garden(name="g", beds=(bed("a"), bed("b", y=3.0), bed("c", x=6.0)))
        near = {gap.to: gap.text for gap in gaps(garden, laid_out(garden), "a", "metric")}
        self.assertEqual(near, {"b": "1.80 m", "c": "2.00 m"})
        self.assertEqual(gaps(garden, laid_out(garden), "nothing", "metric"), ())

    def test_every_clash_of_the_demo_has_its_words_and_number(self):
        garden = demo()
        for system in ("metric", "imperial"):
            words = [w.text for w in warned(clashes(garden, laid_out(garden)), system)]
            self.assertTrue(any("Cove Fence: a post stands" in text for text in words), words)
            self.assertTrue(all("{" not in text and text.endswith(".") for text in words))


class TogetherTest(unittest.TestCase):
    def test_packs_are_rounded_once(self):
        """Nine tenths of a pack for each of two makes two packs together, not more, and never dearer than apart."""
        home = bed("a", length=12.0)
        one, other = geometry_of(home, fence()), geometry_of(home, fence(length=4.8))
        apart, both = [*shopping(one, {}), *shopping(other, {})], shopping([one, other], {})
        self.assertLess(total(both), total(tuple(apart)))
        counts = {p.use: p.count for p in both}
        self.assertEqual(counts["mesh tie"], sum(p.count for p in apart if p.use == "mesh tie"))
        posts = {(p.key, p.length): p.packs for p in both if p.use == "post"}
        self.assertEqual(sum(posts.values()), 4 + 5)

    def test_different_meshes_stay_apart(self):
        home = bed("a", length=12.0)
        both = shopping([geometry_of(home, fence()), geometry_of(home, fence(mesh="weld_50x100_14"))], {})
        self.assertEqual(len([p for p in both if p.use.startswith("mesh,")]), 2)


class UpgradeTest(unittest.TestCase):
    def test_a_file_of_the_first_version_is_read_with_its_beds_laid_out(self):
        garden = read_plan(OLD.read_bytes()).garden
        self.assertEqual([b.key for b in garden.beds], ["sand-strip", "long-plot-a", "chandlers", "loft-bed-1", "cove-bed"])
        self.assertEqual(garden.beds[0].structures[0].options["depth"], 0.48)
        self.assertNotIn("narrow-gap", found(garden))
        self.assertNotIn("taken-twice", found(garden))
