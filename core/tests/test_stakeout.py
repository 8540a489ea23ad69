"""Stake-out against an independent geometry library (Shapely): two tapes meet at the mark, nowhere flat."""

from __future__ import annotations

import math

import numpy as np
import shapely
from ascent.analysis.design import geometry_of
from ascent.building.before import buried_near, driven, in_board, to_ask, ways_clear
from ascent.building.stakeout import stake_out
from ascent.families import FAMILIES
from ascent.ground.plot import Laid, laid_out, structure_frame
from ascent.plan.bed import Bed
from ascent.plan.features import Feature
from ascent.plan.structure import Structure

from tests.support import NearTestCase, demo, fence


def laid(structure: Structure, **bed: object) -> Laid:
    """Return a structure in the middle of a bed of 12 m."""
    row = Bed(key="bed", name="Bed", **{"length": 12.0, "width": 1.2, **bed})
    geometry = geometry_of(row, structure)
    return Laid(structure, row, geometry, structure_frame(row, structure, geometry.length))


def pipe(x: float, depth: float | None = 0.45, kind: str = "water-pipe") -> Feature:
    """Return a buried line across the bed."""
    return Feature(key="pipe", name="Pipe", kind=kind, points=((x, -5.0), (x, 5.0)), width=0.03, depth=depth)


class TapesTest(NearTestCase):
    def test_meet_at_the_mark_at_no_flat_angle(self):
        garden = demo()
        marks = 0
        for standing in laid_out(garden):
            found = stake_out(standing, garden.beds, garden.features, ())
            for mark in found.marks:
                one, other = mark.tapes
                rings = [
                    shapely.Point(t.corner.at).buffer(t.length, quad_segs=4096).exterior for t in (one, other)
                ]
                crossing = rings[0].intersection(rings[1])
                self.assertLess(crossing.distance(shapely.Point(mark.at)), 0.002, mark.member.key)
                a, b = (np.subtract(t.corner.at, mark.at) for t in (one, other))
                turn = abs(math.degrees(math.atan2(a[0] * b[1] - a[1] * b[0], a @ b)))
                self.assertTrue(12.0 < turn < 168.0, f"{standing.structure.key} {turn:.0f}°")
                marks += 1
        self.assertGreater(marks, 100)

    def test_running_distances_are_from_one_end_and_do_not_add(self):
        standing = laid(fence(length=4.8, post_spacing=1.2))
        found = stake_out(standing, [standing.bed], (), ())
        self.assertEqual([round(mark.running, 3) for mark in found.marks], [0.0, 1.2, 2.4, 3.6, 4.8])
        self.assertEqual(found.lines[0], tuple(mark.member.key for mark in found.marks))
        line = shapely.LineString([found.marks[0].at, found.marks[-1].at])
        for mark in found.marks:
            self.assertNear(
                line.project(shapely.Point(mark.at)), mark.running, 1e-3
            ) if mark.running else None

    def test_diagonals_are_those_of_the_outermost_four(self):
        """The eight posts of a tunnel of two panels."""
        garden = demo()
        arch = next(s for s in laid_out(garden) if s.structure.key == "lantern-arch")
        found = stake_out(arch, garden.beds, garden.features, ())
        at = {mark.member.key: shapely.Point(mark.at) for mark in found.marks}
        a, b, c, d = found.diagonals[0].members
        self.assertNear(at[a].distance(at[d]), found.diagonals[0].length, 1e-3)
        self.assertNear(at[b].distance(at[c]), found.diagonals[0].length, 1e-3)
        self.assertNear(found.gauges[0].clear, arch.structure.options["span"], 0.02)

    def test_u_and_zigzag_and_serpentine_have_their_lines(self):
        for plan, lines in (("straight", 1), ("u", 2), ("zigzag", 2), ("serpentine", 2)):
            standing = laid(fence(length=4.8, post_spacing=1.2, plan=plan))
            found = stake_out(standing, [standing.bed], (), ())
            self.assertEqual(len(found.lines), lines, plan)
            self.assertEqual(bool(found.diagonals), plan == "u", plan)
            self.assertEqual(
                {k for line in found.lines for k in line} - {m.member.key for m in found.marks}, set()
            )

    def test_a_ring_has_its_middle(self):
        garden = demo()
        ring = next(s for s in laid_out(garden) if s.structure.key == "barrel-tripod")
        centre, *_ = stake_out(ring, garden.beds, garden.features, ()).centres
        self.assertNear(centre.radius, ring.structure.options["radius"], 0.1)
        self.assertTrue(ring.ground.contains(shapely.Point(centre.at)))
        for tape in centre.tapes:
            away = shapely.distance(shapely.Point(tape.corner.at), shapely.Point(centre.at))
            self.assertNear(tape.length, float(away), 1e-6)


class BuriedTest(NearTestCase):
    """Distances to keep: parts handbook 4.6."""

    def test_a_post_beside_a_pipe_is_too_near_below_thirty_centimetres(self):
        standing = laid(fence(length=3.6, depth=0.6))
        foot = standing.spot(1.2, 0.0)[0]
        for away, wrong in ((0.10, True), (0.28, True), (0.33, False)):
            near = [n for n in buried_near(standing, [pipe(foot + away + 0.015)]) if n.away < 0.5]
            self.assertNear(min(n.away for n in near), away, 0.02)
            self.assertEqual(any(n.too_near for n in near), wrong, away)

    def test_a_post_that_ends_well_above_a_deep_pipe_may_stand(self):
        standing = laid(fence(length=3.6, depth=0.45))
        foot = standing.spot(1.2, 0.0)[0]
        self.assertTrue(any(n.too_near for n in buried_near(standing, [pipe(foot, 0.59)])))
        self.assertFalse(any(n.too_near for n in buried_near(standing, [pipe(foot, 0.75)])))
        self.assertTrue(any(n.too_near for n in buried_near(standing, [pipe(foot, None)])))

    def test_every_way_out_is_clear(self):
        standing = laid(fence(length=3.6, depth=0.6))
        across = pipe(standing.spot(1.35, 0.0)[0])
        ways = {way.key: way for way in ways_clear(standing, [across])}
        self.assertGreaterEqual(set(ways), {"moved", "bays"})
        for way in ways.values():
            options = {**standing.structure.options, **way.options}
            there = {"along": way.along, "across": way.across, "options": options}
            moved = laid(standing.structure.model_copy(update=there))
            feet = shapely.points([moved.spot(*m.points[0][:2]) for m in moved.geometry.by_role("post")])
            self.assertGreaterEqual(
                shapely.distance(shapely.LineString(across.points), feet).min() - 0.015, 0.294
            )
        self.assertEqual(ways_clear(standing, [pipe(40.0)]), ())

    def test_a_post_against_a_board_pushes_it_out(self):
        standing = laid(fence(length=3.6).model_copy(update={"across": 0.55}), kind="raised", fill_depth=0.28)
        self.assertEqual(len(in_board(standing)), 4)
        inner = laid(fence(length=3.6), kind="raised", fill_depth=0.28)
        self.assertEqual(in_board(inner), ())

    def test_whoever_owns_a_wall_near_by_is_asked(self):
        standing = laid(fence(length=3.6))
        wall = Feature(key="wall", name="Wall", kind="wall", points=((-6.0, 1.0), (6.0, 1.0)), width=0.22)
        self.assertEqual(to_ask(standing, [wall]), (wall,))
        self.assertEqual(
            to_ask(standing, [wall.model_copy(update={"points": ((-6.0, 4.0), (6.0, 4.0))})]), ()
        )

    def test_what_goes_into_the_ground_is_read_from_its_members(self):
        """Handbook 4.6: whatever is driven or pushed in counts, whatever its kind of support calls it."""
        for family, options, deep in (
            ("crossed-poles", {"in_soil": 0.45}, 0.45),
            ("brushwood", {"pattern": "crossed", "in_soil": 0.3, "tied": "none"}, 0.3),
            ("cage", {"stakes": 1, "depth": 0.6}, 0.6),
            ("hoops", {"hoop_of": "ladder-mesh", "held": "stakes", "foot_depth": 0.5}, 0.5),
            ("a-frame", {"foot": "anchor", "anchor": "anchor_screw_30x4"}, 0.76),
            ("panel-arch", {"foot": "buried", "buried": 0.3}, 0.3),
            ("a-frame", {"foot": "none"}, 0.0),
            ("panel-arch", {"foot": "block"}, 0.0),
        ):
            structure = Structure(
                key="x", name="x", family=family, options=options, plantings=fence().plantings
            )
            depths = [depth for _, _, depth in driven(laid(structure))]
            self.assertNear(max(depths, default=0.0), deep, 0.03)  # a pole leans

    def test_beside_a_raised_bed_the_ground_lies_lower(self):
        structure = Structure(
            key="x", name="x", family="bed-frame", options={"length": 2.4}, plantings=fence().plantings
        )
        self.assertEqual(driven(laid(structure, kind="raised", fill_depth=0.3, board=0.038)), [])

    def test_a_long_screw_anchor_reaches_a_deep_pipe(self):
        structure = Structure(
            key="x",
            name="x",
            family="a-frame",
            options={"foot": "anchor", "anchor": "anchor_screw_48x6"},
            plantings=fence().plantings,
        )
        standing = laid(structure)
        at = next(at for member, at, _ in driven(standing) if member.role == "anchor")
        deep = pipe(standing.spot(*at)[0], 0.9)
        self.assertTrue(any(near.too_near for near in buried_near(standing, [deep])))


class PegTest(NearTestCase):
    """A peg is no nearer to a buried line than a post may be: parts handbook 4.6."""

    def test_stands_clear_of_the_whole_line(self):
        standing = laid(fence(length=3.6, depth=0.6))
        x, y = standing.spot(1.2, 0.0)
        lines = {
            "square": ((x - 5.0, y + 0.085), (x + 5.0, y + 0.085)),
            "along": ((x + 0.085, y - 5.0), (x + 0.085, y + 5.0)),
        }
        for way, points in lines.items():
            buried = Feature(key="pipe", name="Pipe", kind="water-pipe", points=points, width=0.03)
            unsafe = [near.member.key for near in buried_near(standing, [buried]) if near.too_near]
            pegs = [m.peg for m in stake_out(standing, [standing.bed], [buried], unsafe).marks if m.peg]
            self.assertTrue(pegs)
            self.assertEqual({peg.way for peg in pegs}, {way})
            for peg in pegs:
                away = shapely.LineString(points).distance(shapely.Point(peg.at))
                self.assertGreaterEqual(away, 0.30 + 0.015 - 1e-9)

    def test_is_none_where_pipes_lie_all_round(self):
        standing = laid(fence(length=3.6, depth=0.6))
        x, y = standing.spot(1.2, 0.0)
        net = [
            Feature(
                key=f"p{n}",
                name="Pipe",
                kind="water-pipe",
                points=((x - 4, y + d), (x + 4, y + d)),
                width=0.03,
            )
            for n, d in enumerate((-1.0, -0.6, -0.3, 0.0, 0.3, 0.6, 1.0))
        ]
        unsafe = [near.member.key for near in buried_near(standing, net) if near.too_near]
        self.assertFalse([m.peg for m in stake_out(standing, [standing.bed], net, unsafe).marks if m.peg])


class AlongTheRowTest(NearTestCase):
    def test_a_spacing_at_its_least_has_no_nearer_way(self):
        """Drip lines along a bed: no bay can be closed up below the least spacing there is."""
        drips = [
            Feature(key=f"drip{n}", name="Drip", kind="drip-line", points=((-8.0, y), (8.0, y)), width=0.02)
            for n, y in enumerate((-0.3, 0.0, 0.3))
        ]
        for family, spacing in (("mesh-fence", "post_spacing"), ("crossed-poles", "pair_spacing")):
            least = FAMILIES[family].options.model_json_schema()["properties"][spacing]["minimum"]
            for value in (least, 2 * least):
                structure = Structure(
                    key="x", name="x", family=family, options={spacing: value}, plantings=fence().plantings
                )
                for way in ways_clear(laid(structure), drips):
                    FAMILIES[family].options.model_validate({**structure.options, **way.options})
