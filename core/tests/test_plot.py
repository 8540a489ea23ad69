"""The garden in plan: where rows lie, what is in the way of what, and what is bought together."""

from __future__ import annotations

import itertools
import math
import unittest
from unittest import mock

import numpy as np
from ascent import tables
from ascent.analysis.design import geometry_of
from ascent.buying.lists import shopping, total
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.files.plan import read_plan
from ascent.ground.clashes import RULES, clashes, gaps, warned
from ascent.ground.next_bed import next_bed
from ascent.ground.plot import Frame, bed_outline, laid_out, placed, plot_of, room_for
from ascent.ground.shade import canopies, shade_of
from ascent.ground.shapes import shape_of
from ascent.plan.bed import Bed
from ascent.plan.features import Feature
from ascent.plan.garden import Garden
from ascent.plan.structure import Structure
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.support import EXAMPLES, NearTestCase, demo, fence, site

OLD = EXAMPLES.parent.parent / "core" / "tests" / "old" / "plan-1.json"


def bed(key: str, x: float = 0.0, y: float = 0.0, structures: tuple[Structure, ...] = (), **fields) -> Bed:
    return Bed(
        **{
            "key": key,
            "name": key.title(),
            "length": 4.0,
            "width": 1.2,
            "x": x,
            "y": y,
            "structures": structures,
            **fields,
        }
    )


def found(garden: Garden) -> dict[str, str]:
    """Return the garden's clashes by key, in words."""
    return {w.key: w.text for w in warned(clashes(garden, laid_out(garden)), "metric")}


class FrameTest(NearTestCase):
    def test_compass(self):
        """A bearing counts from north clockwise; left of a row that runs east is north. Common practice, no
        source.
        """
        for bearing, along, left in (
            (0, (0, 1), (-1, 0)),
            (90, (1, 0), (0, 1)),
            (180, (0, -1), (1, 0)),
            (270, (-1, 0), (0, -1)),
        ):
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

    def test_where_a_new_bed_goes_by_hand(self):
        """Below a bed of 4.0 × 1.2 m at (1, 2) that runs east: left edge −1.0, lower edge 1.4; a path of 0.6
        m below it, 0.5 m of the new one.
        """
        garden = Garden(name="g", path_width=0.6, beds=(bed("a", 1.0, 2.0, bearing=90.0, width=1.2),))
        drawing = plot_of(garden)
        self.assertEqual(drawing.low, (-1.0, 0.0))  # a plan is 4 m high at the least, about its middle
        self.assertEqual(drawing.high, (3.0, 4.0))
        x, y = room_for(garden, 3.0, 1.0)
        self.assertEqual((x, y), (-1.0 + 1.5, round(0.0 - 0.6 - 0.5, 3)))

    def test_the_next_bed_is_like_the_last_and_a_path_away(self):
        """South of a bed that runs east, 1.2 m wide, with a path of 0.6 m: 1.8 m off. Where a wall stands
        there, to the north; where that is taken, too, end to end.
        """
        first = bed("a", 1.0, 2.0, bearing=90.0, width=1.2).model_copy(update={"soil": "sandy"})
        garden = Garden(name="g", path_width=0.6, beds=(first,))
        made = next_bed(garden)
        self.assertEqual((made.x, made.y, made.length, made.bearing), (1.0, 0.2, first.length, 90.0))
        self.assertEqual((made.soil, made.name), ("sandy", "Bed 2"))
        south = Feature(key="s", name="S", kind="wall", points=((-3.0, 0.2), (5.0, 0.2)), width=0.2)
        north = Feature(key="n", name="N", kind="path", points=((-3.0, 4.0), (5.0, 4.0)), width=0.6)
        walled = garden.model_copy(update={"features": (south,)})
        self.assertEqual(next_bed(walled).y, 3.8)
        both = garden.model_copy(update={"features": (south, north)})
        self.assertEqual((next_bed(both).x, next_bed(both).y), (1.0 + first.length + 0.6, 2.0))
        pipe = south.model_copy(update={"kind": "water-pipe"})
        self.assertEqual(next_bed(garden.model_copy(update={"features": (pipe,)})).y, 0.2)

    def test_the_extent_takes_in_features_as_wide_as_they_are(self):
        tree = Feature(key="t", name="T", kind="stump", points=((9.0, -3.0),), width=2.0)
        drawing = plot_of(Garden(name="g", beds=(bed("a", bearing=90.0),), features=(tree,)))
        self.assertEqual((drawing.low, drawing.high), ((-2.0, -4.0), (10.0, 0.6)))

    def test_a_bed_and_its_row_by_hand(self):
        """A bed of 4.0 × 1.2 m that runs east, with boards of 50 mm; its row of 3.6 m stands 0.2 m to the
        left (north) and 0.1 m on (east).
        """
        home = bed("a", 5.0, 3.0, bearing=90.0, kind="raised", board=0.05, fill_depth=0.3)
        self.assertNear(np.array(bed_outline(home)).min(axis=0)[0], 5.0 - 2.05, 1e-6)
        self.assertNear(np.array(bed_outline(home)).max(axis=0)[1], 3.0 + 0.65, 1e-6)
        row = fence().model_copy(update={"along": 0.1, "across": 0.2})
        (laid,) = laid_out(Garden(name="g", beds=(home.model_copy(update={"structures": (row,)}),)))
        (x0, y0), (x1, y1) = laid.row
        self.assertEqual(
            (x0, y0, x1, y1),
            (round(5.1 - laid.geometry.length / 2, 3), 3.2, round(5.1 + laid.geometry.length / 2, 3), 3.2),
        )
        self.assertEqual(laid.mark.middle, (5.1, 3.2))
        posts = [spots[0] for member, spots in laid.lines if member.role == "post"]
        self.assertEqual(posts[0][1], 3.2)
        self.assertEqual((posts[0][0], posts[-1][0]), (x0, x1))
        self.assertEqual(laid.leaves, tables.crops()["tom-slicer"].depth_m / 2)
        low_x, low_y, high_x, high_y = laid.reach.bounds
        self.assertLessEqual(low_x, x0 - 0.06)
        self.assertGreaterEqual(high_x, x1 + 0.06)
        self.assertAlmostEqual(low_y + high_y, 2 * 3.2, delta=0.5)

    def test_a_second_row_moves_no_further_than_it_must(self):
        """Looked for every 50 mm, to the left first: the ground of a bare row is 60 mm to either side, and
        its plants'.
        """
        home = bed("a", structures=(fence(),))
        second = placed(Garden(name="g", beds=(home,)), home, fence().model_copy(update={"key": "second"}))
        first, wide = laid_out(Garden(name="g", beds=(home,)))[0], second.across
        _, x0, _, x1 = first.ground.bounds
        self.assertAlmostEqual(wide / 0.05, round(wide / 0.05), delta=1e-6)
        self.assertGreater(wide, 0.0)
        self.assertTrue(x1 - x0 < wide + 1e-6 < x1 - x0 + 0.0501, (wide, x1 - x0))

    def test_a_row_that_shares_a_hair_moves_one_step(self):
        """Two centimetres into its neighbour, it is moved the first five centimetres that are looked at."""
        (laid,) = laid_out(Garden(name="g", beds=(bed("a", bearing=90.0, structures=(fence(),)),)))
        _, low, _, high = laid.ground.bounds
        for side, step in ((-1.0, 0.05), (1.0, -0.05)):
            first = fence().model_copy(update={"key": "first", "across": side * (high - low - 0.02)})
            home = bed("a", bearing=90.0, structures=(first,))
            with self.subTest(side=side):
                self.assertEqual(placed(Garden(name="g", beds=(home,)), home, fence()).across, step)

    def test_a_bare_row_takes_a_boot_s_width_of_ground(self):
        """60 mm to either side and beyond its ends of whatever stands in it. Judgement, no source."""
        (laid,) = laid_out(Garden(name="g", beds=(bed("a", bearing=90.0, structures=(fence(),)),)))
        spots = [m.points[0] for m in laid.geometry.members if m.role == "post"]
        spots += [plant.at for plant in laid.geometry.plants]
        x0, y0, x1, y1 = laid.ground.bounds
        for had, axis in ((x1 - x0, 0), (y1 - y0, 1)):
            least = max(spot[axis] for spot in spots) - min(spot[axis] for spot in spots)
            self.assertAlmostEqual(had, least + 0.12, delta=0.03)

    def test_a_row_may_lie_as_far_out_as_the_bed_is_wide(self):
        """Where rows take the middle of a bed out to two fifths of its width, the next lies beyond them."""
        first = fence()
        wide = bed("a", bearing=90.0, width=3.0, structures=(first,))
        (laid,) = laid_out(Garden(name="g", beds=(wide,)))
        _, low, _, high = laid.ground.bounds
        apart = (high - low) * 0.9  # so near that no room is left between two
        count = math.ceil(2 * 0.4 * wide.width / apart)
        rows = tuple(
            first.model_copy(
                update={"key": f"r{n}", "name": f"R{n}", "across": (n - (count - 1) / 2) * apart}
            )
            for n in range(count)
        )
        full = wide.model_copy(update={"structures": rows})
        lies = placed(Garden(name="g", beds=(full,)), full, first)
        self.assertGreater(abs(lies.across), 0.4 * wide.width)
        self.assertLess(abs(lies.across), 0.5 * wide.width)
        most = tuple(
            first.model_copy(update={"key": f"r{n}", "name": f"R{n}", "across": (n - 20) * apart})
            for n in range(math.ceil(wide.width / apart) + 40)
        )
        full = wide.model_copy(update={"structures": most})
        self.assertEqual(placed(Garden(name="g", beds=(full,)), full, first), first)

    def test_a_new_bed_lies_clear_of_the_others(self):
        garden = demo()
        x, y = room_for(garden, 3.0, 1.0)
        new = bed("new", x, y, length=3.0, width=1.0)
        self.assertFalse(
            [
                g
                for g in gaps(
                    garden.model_copy(update={"beds": (*garden.beds, new)}), laid_out(garden), "new", "metric"
                )
                if float(g.text.split()[0]) < garden.path_width - 0.01 and g.text.endswith(" m")
            ]
        )

    def test_a_second_row_finds_ground_of_its_own(self):
        home = bed("a", structures=(fence(),))
        second = placed(Garden(name="g", beds=(home,)), home, fence().model_copy(update={"key": "second"}))
        self.assertNotEqual(second.across, 0.0)
        both = Garden(name="g", beds=(bed("a", structures=(fence(), second)),))
        self.assertNotIn("taken-twice", found(both))


class LaidTest(NearTestCase):
    def test_each_member_lies_where_its_own_points_do(self):
        """A row that runs east: along it is east of its middle, across it is north."""
        (laid,) = laid_out(
            Garden(name="g", beds=(bed("a", x=3.0, y=-2.0, bearing=90.0, structures=(fence(),)),))
        )
        self.assertEqual(len(laid.lines), len(laid.geometry.members))
        west = 3.0 - laid.geometry.length / 2
        for member, spots in laid.lines:
            self.assertEqual(len(spots), len(member.points))
            for (east, north), (along, across, _) in zip(spots, member.points, strict=True):
                self.assertNear(east, west + along, 1e-3)
                self.assertNear(north, -2.0 + across, 1e-3)

    def test_the_mark_of_a_structure_is_where_it_stands(self):
        """On a bed that lies askew: the middle of its row, its plants, and its guys out to their anchors."""
        row = next(s for b in demo().beds for s in b.structures if s.family == "wire-trellis")
        home = bed("a", 3.0, -2.0, bearing=37.0, length=12.0, structures=(row,))
        (laid,) = laid_out(Garden(name="g", beds=(home,)))
        mark = laid.mark
        (x0, y0), (x1, y1) = laid.row
        np.testing.assert_allclose(mark.middle, ((x0 + x1) / 2, (y0 + y1) / 2), atol=1e-3)
        np.testing.assert_allclose(
            mark.plants, laid.frame.out(np.array([p.at[:2] for p in laid.geometry.plants])), atol=1e-3
        )
        guys = [member for member in laid.geometry.members if member.role == "guy"]
        drawn = [stroke.points for stroke in mark.strokes if stroke.role == "guy"]
        self.assertTrue(guys)
        for guy, points in zip(guys, drawn, strict=True):
            flat = [p[:2] for p in guy.points]
            self.assertAlmostEqual(math.dist(*points), math.dist(flat[0], flat[-1]), places=2)

    def test_leaves_hang_as_far_over_as_the_broadest_crop_s(self):
        slim, broad = fence().plantings[0], fence(crop="butternut").plantings[0]
        deep = {p.crop: tables.crops()[p.crop].depth_m for p in (slim, broad)}
        self.assertNotEqual(*deep.values())
        both = fence().model_copy(update={"plantings": (slim, broad.model_copy(update={"key": "p2"}))})
        (laid,) = laid_out(Garden(name="g", beds=(bed("a", structures=(both,)),)))
        self.assertEqual(laid.leaves, max(deep.values()) / 2)

    def test_leaves_stand_over_their_row_from_half_a_space_before_the_first_plant(self):
        garden = Garden(name="g", beds=(bed("a", bearing=90.0, structures=(fence(),)),))
        (laid,) = laid_out(garden)
        (leaves,) = canopies(garden, [laid], 220)
        (planting,) = laid.structure.plantings
        first = min(plant.at[0] for plant in laid.geometry.plants) - laid.geometry.length / 2
        last = max(plant.at[0] for plant in laid.geometry.plants) - laid.geometry.length / 2
        for corner, end in ((0, first), (3, first), (1, last), (2, last)):
            off = planting.spacing / 2 * (-1 if end == first else 1)
            self.assertAlmostEqual(leaves.corners[corner][0], end + off, places=6)
        np.testing.assert_allclose(leaves.corners[:, 1], 0.0, atol=1e-9)


class NoSunTest(unittest.TestCase):
    def test_at_the_edge_of_the_arctic_the_shortest_day_has_no_sun(self):
        """At 66° north the noon sun of the solstice stands at 90 - 66 - 23.4 = 0.6°. Common practice, no
        source. Nothing is lost then where there is nothing, and the day is closed up at noon.
        """
        garden = Garden(name="g", latitude=66.0, beds=(bed("a", structures=(fence(),)),))
        shade = shade_of(garden, laid_out(garden), "12-21", 12.0)
        self.assertAlmostEqual(shade.altitude, 0.6, delta=0.1)
        self.assertEqual((shade.rises, shade.sets, shade.shadows), (12.0, 12.0, ()))
        self.assertEqual([(sun.open, sun.lost) for sun in shade.beds], [(0.0, 0.0)])


class ClashTest(unittest.TestCase):
    def test_beds_closer_than_the_garden_s_own_path(self):
        """Foot path 0.45 m, barrow path 0.75 m (project parts handbook 4.1)."""
        for gap, clash in ((0.70, True), (0.80, False), (0.0, False)):
            garden = Garden(name="g", path_width=0.75, beds=(bed("a"), bed("b", y=1.2 + gap)))
            self.assertEqual("narrow-gap" in found(garden), clash, gap)
        self.assertIn(
            "0.70 m between A and B",
            found(Garden(name="g", path_width=0.75, beds=(bed("a"), bed("b", y=1.9))))["narrow-gap"],
        )

    def test_a_path_too_narrow_and_one_squeezed(self):
        walk = Feature(key="w", name="Walk", kind="path", points=((-5, 1.0), (5, 1.0)), width=0.9)
        self.assertNotIn(
            "squeezed-path",
            found(Garden(name="g", path_width=0.75, beds=(bed("a", y=-0.1),), features=(walk,))),
        )
        text = found(Garden(name="g", path_width=0.75, beds=(bed("a", y=0.25),), features=(walk,)))[
            "squeezed-path"
        ]
        self.assertIn("A leaves only 0.60 m of Walk free", text)
        thin = walk.model_copy(update={"width": 0.5})
        self.assertIn(
            "Walk is 0.50 m wide", found(Garden(name="g", path_width=0.75, features=(thin,)))["narrow-path"]
        )

    def test_exactly_enough_is_enough(self):
        """A bed that leaves just the garden's width of a path, or only touches it, takes nothing from it; nor
        is a path of just that width too narrow. Every rule has looked.
        """
        walk = Feature(key="w", name="Walk", kind="path", points=((-5, 1.0), (5, 1.0)), width=0.9)
        for y in (0.10, -0.05):  # its edge at 0.70, and at 0.55 where the path begins
            with self.subTest(y=y):
                self.assertEqual(
                    {"squeezed-path", "narrow-path", "not-looked-at"}
                    & set(found(Garden(name="g", path_width=0.75, beds=(bed("a", y=y),), features=(walk,)))),
                    set(),
                )
        just = walk.model_copy(update={"width": 0.75})
        self.assertEqual(found(Garden(name="g", path_width=0.75, features=(just,))), {})

    def test_a_rule_that_fails_is_said_on_the_first_bed_or_where_the_plan_begins(self):
        def fails(_):
            raise ValueError

        for beds, at in (((bed("a", x=3.0, y=2.0),), (3.0, 2.0)), ((), (0.0, 0.0))):
            garden = Garden(name="g", beds=beds)
            with mock.patch.dict(RULES, {"narrow-gaps": fails}), self.assertLogs("ascent", "ERROR"):
                (clash,) = (c for c in clashes(garden, laid_out(garden)) if c.key == "not-looked-at")
            self.assertEqual(clash.at, at)

    def test_what_is_round_is_as_broad_as_it_is(self):
        """A stump 0.60 m across beside a path's edge: from 0.30 m on nothing is taken of the path."""
        walk = Feature(key="w", name="Walk", kind="path", points=((-5, 0.0), (5, 0.0)), width=0.9)
        for away, free in ((0.45 + 0.31, True), (0.45 + 0.05, False)):
            stump = Feature(key="s", name="Stump", kind="stump", points=((0.0, away),), width=0.6)
            garden = Garden(name="g", features=(walk, stump))
            shape = shape_of(stump)
            with self.subTest(away=away):
                self.assertAlmostEqual(shape.bounds[3] - shape.bounds[1], 0.6, places=6)
                self.assertEqual(not shape.intersects(shape_of(walk)), free, found(garden))

    def test_posts_keep_off_what_is_buried(self):
        """Water pipe 0.30 m, cable 0.60 m, drip tube 0.15 m (project parts handbook 4.6)."""
        home = bed("a", structures=(fence(),))
        for kind, keep in (("water-pipe", 0.30), ("cable", 0.60), ("drip-line", 0.15)):
            for away, clash in ((keep - 0.02, True), (keep + 0.02, False)):
                line = Feature(key="l", name="Line", kind=kind, points=((-9, away), (9, away)), width=0.005)
                self.assertEqual(
                    f"near-{kind}" in found(Garden(name="g", beds=(home,), features=(line,))),
                    clash,
                    (kind, away),
                )

    def test_how_near_and_how_many_of_the_posts(self):
        """Four posts at the row's bays, two of them nearer than 0.30 m to a pipe that crosses the row at 0.25
        m from the first and runs on askew.
        """
        home = bed("a", bearing=90.0, structures=(fence(),))
        (laid,) = laid_out(Garden(name="g", beds=(home,)))
        posts = [spots[0] for member, spots in laid.lines if member.role == "post"]
        pipe = Feature(key="l", name="Line", kind="water-pipe", points=((-9, 0.2), (9, 0.2)), width=0.1)
        (clash,) = [
            c
            for c in clashes(Garden(name="g", beds=(home,), features=(pipe,)), [laid])
            if c.key == "near-water-pipe"
        ]
        self.assertAlmostEqual(clash.values["away"][0], 0.2 - 0.05, places=6)  # to its edge
        self.assertEqual(
            (clash.values["count"][0], clash.values["keep"][0], clash.level), (len(posts), 0.30, "wrong")
        )
        drip = pipe.model_copy(
            update={"kind": "drip-line", "points": ((posts[0][0] + 0.1, -5), (posts[0][0] + 0.1, 5))}
        )
        (clash,) = [
            c
            for c in clashes(Garden(name="g", beds=(home,), features=(drip,)), [laid])
            if c.key == "near-drip-line"
        ]
        self.assertEqual((clash.values["count"][0], clash.level, clash.at), (1, "watch", posts[0]))

    def test_what_is_left_of_a_path_beside_a_row_and_beside_a_bed(self):
        """A path of 0.80 m that a bed reaches 0.25 m into leaves 0.55 m; with a path of 0.50 m asked for,
        nothing is said.
        """
        walk = Feature(key="w", name="Walk", kind="path", points=((-3, 0.75), (3, 0.75)), width=0.8)
        home = bed("a", bearing=90.0)  # its edge lies at 0.60 m, the path's at 0.35 m
        (clash,) = [
            c
            for c in clashes(Garden(name="g", path_width=0.6, beds=(home,), features=(walk,)), [])
            if c.key == "squeezed-path"
        ]
        self.assertAlmostEqual(clash.values["free"][0], 0.55, places=6)
        self.assertNotIn(
            "squeezed-path", found(Garden(name="g", path_width=0.5, beds=(home,), features=(walk,)))
        )
        narrow = walk.model_copy(update={"points": ((-3, 3), (3, 3)), "width": 0.55})
        self.assertIn(
            "narrow-path", found(Garden(name="g", path_width=0.6, beds=(home,), features=(narrow,)))
        )
        self.assertNotIn(
            "narrow-path", found(Garden(name="g", path_width=0.55, beds=(home,), features=(narrow,)))
        )

    def test_what_is_left_of_a_bent_path_on_either_side_of_it(self):
        """A path of 1.2 m runs 6 m east and then 6 m north; a bed reaches a little or far into either leg,
        from its left or its right. What is left is what one would measure with a tape across that leg.
        """
        walk = Feature(key="w", name="Walk", kind="path", points=((0, 0), (6, 0), (6, 6)), width=1.2)
        for where, reach in itertools.product(("under", "over", "left", "right"), (0.1, 0.4, 0.7)):
            home = {
                "under": bed("a", 2.0, -0.6 - 0.6 + reach, bearing=90.0, length=2.0),
                "over": bed("a", 2.0, 0.6 + 0.6 - reach, bearing=90.0, length=2.0),
                "left": bed("a", 5.4 - 0.6 + reach, 3.0, bearing=0.0, length=2.0),
                "right": bed("a", 6.6 + 0.6 - reach, 3.0, bearing=0.0, length=2.0),
            }[where]
            with self.subTest(where=where, reach=reach):
                (clash,) = [
                    c
                    for c in clashes(Garden(name="g", path_width=1.15, beds=(home,), features=(walk,)), [])
                    if c.key == "squeezed-path"
                ]
                self.assertAlmostEqual(clash.values["free"][0], 1.2 - reach, places=6)

    def test_a_narrow_gap_is_marked_half_way(self):
        pair = (bed("a", 3.0, 2.0, bearing=90.0), bed("b", 7.0, 2.0 + 1.2 + 0.3, bearing=90.0, length=5.0))
        (clash,) = [
            c for c in clashes(Garden(name="g", path_width=0.5, beds=pair), []) if c.key == "narrow-gap"
        ]
        self.assertAlmostEqual(clash.values["gap"][0], 0.3, places=6)
        self.assertAlmostEqual(clash.at[1], 2.0 + 0.6 + 0.15, places=3)
        self.assertTrue(7.0 - 2.5 <= clash.at[0] <= 3.0 + 2.0, "between what both of them take")

    def test_beds_corner_to_corner_are_walked_between(self):
        """Two beds that face each other at their corners alone leave no lane to be narrow; over a third
        of a metre they do.
        """
        for along, clash in ((4.0, False), (3.7, True), (3.5, True)):
            pair = (bed("a", bearing=90.0), bed("b", along, 1.2 + 0.3, bearing=90.0))
            self.assertEqual("narrow-gap" in found(Garden(name="g", path_width=0.5, beds=pair)), clash, along)

    def test_a_neck_is_walked_through_that_is_a_foot_path_wide(self):
        """0.45 m (project parts handbook 4.1): a yard whose neck is a little narrower keeps everybody out."""
        for clear, out in ((0.42, True), (0.47, False)):
            half = clear / 2 + 0.1  # to the middle of walls 0.2 m thick
            neck = ((-6, half), (-2, half), (-2, 2), (3, 2), (3, -2), (-2, -2), (-2, -half), (-6, -half))
            yard = Feature(key="y", name="Yard wall", kind="wall", points=neck, width=0.2)
            beds = (bed("in", 0.5, length=2.0), bed("out", y=6.0), bed("far", y=9.0))
            with self.subTest(clear=clear):
                said = found(Garden(name="g", beds=beds, features=(yard,)))
                self.assertEqual("no-way-to" in said, out, said)

    def test_the_row_nearest_to_what_it_closes_off_is_named(self):
        wall = Feature(key="w", name="Wall", kind="wall", points=((-8, 0.55), (20, 0.55)), width=0.3)
        row = fence(length=4.0)
        far = row.model_copy(update={"key": "far", "name": "Far fence"})
        beds = (bed("a", width=0.6, structures=(row,)), bed("b", x=10.0, y=-3.0, structures=(far,)))
        said = found(Garden(name="g", beds=beds, features=(wall,)))["closed-off"]
        self.assertTrue(said.startswith("Fence blocks"), said)

    def test_a_row_a_hand_past_its_bed_is_said_and_a_finger_is_not(self):
        """Over 50 mm. Judgement, no source."""
        (laid,) = laid_out(Garden(name="g", beds=(bed("a", bearing=90.0, structures=(fence(),)),)))
        spare = (4.0 - laid.geometry.length) / 2
        for past, said in ((0.04, False), (0.06, True)):
            row = fence().model_copy(update={"along": spare + past})
            with self.subTest(past=past):
                home = bed("a", bearing=90.0, structures=(row,))
                self.assertEqual("past-bed" in found(Garden(name="g", beds=(home,))), said)

    def test_beds_a_finger_apart_are_one_to_walk_round(self):
        """Under 50 mm. Judgement, no source."""
        for gap, said in ((0.03, False), (0.07, True)):
            with self.subTest(gap=gap):
                pair = (bed("a"), bed("b", y=1.2 + gap))
                self.assertEqual("narrow-gap" in found(Garden(name="g", path_width=0.5, beds=pair)), said)

    def test_how_much_lies_past_and_how_much_is_shared(self):
        home = bed("a", bearing=90.0)
        out = fence().model_copy(update={"along": 1.0})
        garden = Garden(name="g", beds=(home.model_copy(update={"structures": (out,)}),))
        (laid,) = laid_out(garden)
        (clash,) = [c for c in clashes(garden, [laid]) if c.key == "past-bed"]
        self.assertAlmostEqual(clash.values["past"][0], laid.geometry.length / 2 + 1.0 - 2.0, places=6)
        self.assertTrue(2.0 <= clash.at[0] <= 2.0 + clash.values["past"][0])
        other = fence().model_copy(update={"key": "other", "along": 0.3})
        both = Garden(name="g", beds=(home.model_copy(update={"structures": (fence(), other)}),))
        (clash,) = [c for c in clashes(both, laid_out(both)) if c.key == "taken-twice"]
        x0, y0, x1, y1 = laid_out(both)[0].ground.bounds
        self.assertAlmostEqual(clash.values["over"][0], math.hypot(x1 - x0 - 0.3, y1 - y0), delta=0.02)

    def test_how_much_of_a_bed_no_arm_reaches(self):
        """2.4 m wide with paths all round: 0.60 m from every edge, so 2.8 × 1.2 m are left (project parts
        handbook 4.1).
        """
        garden = Garden(name="g", beds=(bed("a", width=2.4),))
        (clash,) = [c for c in clashes(garden, []) if c.key == "out-of-reach"]
        self.assertAlmostEqual(clash.values["area"][0], (4.0 - 1.2) * (2.4 - 1.2), delta=0.03)
        self.assertEqual((clash.values["reach"][0], clash.at), (0.6, (0.0, 0.0)))

    def test_a_strip_that_is_little_of_its_bed_is_not_said_to_be_out_of_reach(self):
        """A bed 1.30 m wide leaves a strip of 0.10 m in the middle: a twentieth of it."""
        garden = Garden(name="g", beds=(bed("a", width=1.3),))
        self.assertNotIn("out-of-reach", found(garden))

    def test_a_fifth_of_a_bed_out_of_reach_is_said_and_a_tenth_is_not(self):
        """(4 - 1.2) × (w - 1.2) of 4 × w: a fifth at 1.68 m, a tenth at 1.40 m. Judgement, no source."""
        for width, said in ((1.68, True), (1.40, False)):
            with self.subTest(width=width):
                self.assertEqual(
                    "out-of-reach" in found(Garden(name="g", beds=(bed("a", width=width),))), said
                )

    def test_what_is_out_of_reach_is_marked_where_most_of_it_is(self):
        """A row that parts a bed unevenly leaves two strips that no arm reaches: the mark lies on the wide
        one.
        """
        row = fence(length=6.0).model_copy(update={"across": 1.0})
        home = bed("a", bearing=90.0, length=6.0, width=4.2, structures=(row,))
        garden = Garden(name="g", beds=(home,))
        (clash,) = [c for c in clashes(garden, laid_out(garden)) if c.key == "out-of-reach"]
        self.assertLess(clash.at[1], 0.6)

    def test_the_nearest_four_within_six_metres(self):
        beds = (bed("a", bearing=0.0), *(bed(f"b{n}", x=2.0 + 1.9 * n, bearing=0.0) for n in range(6)))
        near = gaps(Garden(name="g", beds=beds), (), "a", "metric")
        self.assertEqual(
            [(g.to, g.text) for g in near], [("b0", "0.80 m"), ("b1", "2.70 m"), ("b2", "4.60 m")]
        )
        self.assertEqual((near[0].start[0], near[0].end[0]), (0.6, 1.4))
        close = (bed("a", bearing=0.0), *(bed(f"b{n}", x=1.3 + 1.25 * n, bearing=0.0) for n in range(6)))
        self.assertEqual(len(gaps(Garden(name="g", beds=close), (), "a", "metric")), 4)

    def test_a_line_well_below_the_posts_is_left_alone(self):
        """Flagged when the post's depth reaches the service's less 0.15 m (project parts handbook 4.6)."""
        home = bed("a", structures=(fence(depth=0.5),))
        for depth, clash in ((0.64, True), (0.67, False), (None, True)):
            line = Feature(
                key="l", name="Line", kind="cable", points=((-9, 0), (9, 0)), width=0.01, depth=depth
            )
            self.assertEqual(
                "near-cable" in found(Garden(name="g", beds=(home,), features=(line,))), clash, depth
            )

    def test_a_guy_over_a_path_and_a_foot_in_it(self):
        walk = Feature(key="w", name="Walk", kind="path", points=((2.3, -4), (2.3, 4)), width=0.6)
        for ends, clash in (("guy", True), ("plain", False)):
            garden = Garden(
                name="g", beds=(bed("a", structures=(fence(ends=ends, top="wire"),)),), features=(walk,)
            )
            self.assertEqual("guy-over-path" in found(garden), clash, ends)
        across = Feature(key="w", name="Walk", kind="path", points=((0.6, -4), (0.6, 4)), width=0.6)
        self.assertIn(
            "foot-in-path",
            found(Garden(name="g", beds=(bed("a", structures=(fence(),)),), features=(across,))),
        )

    def test_what_stands_where_a_gate_swings(self):
        """Common practice, no source: a leaf swings as far as it is wide, to either side."""
        for away, clash in ((0.5, True), (-0.5, True), (1.6, False)):
            gate = Feature(key="d", name="Gate", kind="door", points=((0.0, away), (0.9, away)), width=0.04)
            garden = Garden(name="g", beds=(bed("a", structures=(fence(),)),), features=(gate,))
            self.assertEqual("before-door" in found(garden), clash, away)

    def test_two_structures_in_the_same_ground(self):
        other = fence().model_copy(update={"key": "other", "name": "Other", "along": 0.3})
        self.assertIn(
            "Fence and Other",
            found(Garden(name="g", beds=(bed("a", structures=(fence(), other)),)))["taken-twice"],
        )

    def test_how_much_ground_two_structures_share(self):
        """The second is moved 0.3 m along a row of the same length: all but 0.3 m of it, and what the ground
        of each has more at its ends, is shared.
        """
        other = fence().model_copy(update={"key": "other", "name": "Other", "along": 0.3})
        garden = Garden(name="g", beds=(bed("a", bearing=90.0, structures=(fence(), other)),))
        laid = laid_out(garden)
        (clash,) = (c for c in clashes(garden, laid) if c.key == "taken-twice")
        x0, y0, x1, y1 = laid[0].ground.bounds
        self.assertAlmostEqual(clash.values["over"][0], math.hypot(x1 - x0 - 0.3, y1 - y0), places=6)

    def test_a_post_that_leans_is_drawn_where_it_stands(self):
        proposed = FAMILIES["wire-trellis"].propose(Need("tom-slicer", None, "left", "pruned"), site())
        row = Structure(
            key="row",
            name="Row",
            family="wire-trellis",
            options={**proposed.options.model_dump(), "ends": "lean"},
            plantings=proposed.plantings,
        )
        garden = Garden(name="g", beds=(bed("a", length=8.0, structures=(row,)),))
        (laid,) = laid_out(garden)
        feet = {spots[0] for member, spots in laid.lines if member.role == "post"}
        (mark,) = plot_of(garden).structures
        drawn = {stroke.points for stroke in mark.strokes if stroke.role == "post"}
        self.assertEqual(drawn, {(foot,) for foot in feet})

    def test_a_bent_panel_is_drawn_closed_round_its_corners(self):
        proposed = FAMILIES["panel-arch"].propose(Need("cuc-slice", None, "both", "pruned"), site())
        arch = Structure(
            key="arch",
            name="Arch",
            family="panel-arch",
            options=proposed.options.model_dump(),
            plantings=proposed.plantings,
        )
        (mark,) = plot_of(Garden(name="g", beds=(bed("a", structures=(arch,)),))).structures
        panels = [stroke.points for stroke in mark.strokes if stroke.role == "panel"]
        self.assertTrue(panels)
        for outline in panels:
            self.assertEqual(outline[0], outline[-1])
            self.assertEqual(len(set(outline)), len(outline) - 1)

    def test_a_row_past_its_bed(self):
        out = fence().model_copy(update={"along": 1.0})
        self.assertIn(
            "Fence reaches 0.80 m beyond A",
            found(Garden(name="g", beds=(bed("a", structures=(out,)),)))["past-bed"],
        )

    def test_a_fence_closes_off_the_wall_side_of_a_bed(self):
        """0.60 m is as far as an arm reaches over a bed (project parts handbook 4.1)."""
        wall = Feature(key="w", name="Wall", kind="wall", points=((-8, 0.55), (8, 0.55)), width=0.3)
        beds = (bed("a", width=0.6, structures=(fence(length=4.0),)),)
        self.assertIn("Fence blocks", found(Garden(name="g", beds=beds, features=(wall,)))["closed-off"])
        self.assertNotIn("closed-off", found(Garden(name="g", beds=beds)))
        self.assertNotIn("closed-off", found(Garden(name="g", beds=(bed("a", width=0.6),), features=(wall,))))

    def test_nobody_picks_round_the_very_end_of_a_row(self):
        """A bed that goes on for 0.3 m past each end of its row is parted by it; one that goes on for 0.5 m
        is walked into there. Judgement, no source.
        """
        wall = Feature(key="w", name="Wall", kind="wall", points=((-8, 0.55), (8, 0.55)), width=0.3)
        for past, parted in ((0.3, True), (0.5, False)):
            row = fence(length=3.6)
            (laid,) = laid_out(Garden(name="g", beds=(bed("a", width=0.6, structures=(row,)),)))
            home = bed("a", width=0.6, length=laid.geometry.length + 2 * past, structures=(row,))
            with self.subTest(past=past):
                said = found(Garden(name="g", beds=(home,), features=(wall,)))
                self.assertEqual("closed-off" in said, parted, said)

    def test_a_bed_wider_than_two_arms(self):
        """1.2 m with two paths (project parts handbook 4.1)."""
        self.assertIn("out-of-reach", found(Garden(name="g", beds=(bed("a", width=2.4),))))
        self.assertNotIn("out-of-reach", found(Garden(name="g", beds=(bed("a", width=1.2),))))

    def test_a_bed_that_nobody_gets_to(self):
        ring = ((-4, -3), (4, -3), (4, 3), (-4, 3), (-4, -3))
        yard = Feature(key="y", name="Yard wall", kind="wall", points=ring, width=0.2)
        beds = (bed("in"), bed("out", y=6.0), bed("far", y=9.0))
        self.assertIn(
            "There is no way to In", found(Garden(name="g", beds=beds, features=(yard,)))["no-way-to"]
        )
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
            self.assertTrue(any("Cove Fence: a post is" in text for text in words), words)
            self.assertTrue(all("{" not in text and text.endswith(".") for text in words))


class TogetherTest(unittest.TestCase):
    def test_packs_are_rounded_once(self):
        """Nine tenths of a pack for each of two makes two packs together, not more, and never dearer than
        apart.
        """
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
        self.assertEqual(
            [b.key for b in garden.beds], ["sand-strip", "long-plot-a", "chandlers", "loft-bed-1", "cove-bed"]
        )
        self.assertEqual(garden.beds[0].structures[0].options["depth"], 0.48)
        self.assertNotIn("narrow-gap", found(garden))
        self.assertNotIn("taken-twice", found(garden))
