"""What each family buys, counted and measured against the parts handbook's formulas and examples."""

from __future__ import annotations

import math

from ascent.families import FAMILIES
from ascent.family import Need
from ascent.model import Bed, Planting
from ascent.parts import shopping

from tests.support import NearTestCase, site


def planting(crop: str, count: int, spacing: float, side: str = "right") -> Planting:
    return Planting(crop=crop, count=count, spacing=spacing, side=side, training="pruned", planted="05-04")


class Laid(NearTestCase):
    """Lays out a structure of the family in `family`, with some options and plantings."""

    family = ""

    def lay(self, *plantings: Planting, bed: Bed | None = None, **options):
        family = FAMILIES[self.family]
        where = site() if bed is None else type(site())(garden=site().garden, bed=bed)
        crop = plantings[0].crop if plantings else "tom-slicer"
        proposed = family.propose(Need(crop, None, "right", "pruned"), where)
        chosen = family.options.model_validate({**proposed.options.model_dump(), **options})
        return family.geometry(chosen, plantings or proposed.plantings, where)

    def parts(self, geometry):
        return {(part.key, part.use): part for part in shopping(geometry, {})}


class PanelArchPartsTest(Laid):
    """Parts handbook 3.1."""

    family = "panel-arch"

    def test_two_panels(self):
        """Lap ties (N − 1) · 10, every 0.6 m of 4.88; 8 posts for two panels (common practice, no source); ties 2 per post."""
        arch = self.lay(planting("bean-pole", 8, 0.3, "both"), panels=2, overlap=0.2, ties_per_post=2)
        ties = [m.key for m in arch.by_role("tie")]
        self.assertEqual(sum(key.startswith("lap") for key in ties), 10)
        self.assertEqual(len(arch.by_role("post")), 8)
        self.assertEqual(sum(key.startswith("tie") for key in ties), 16)
        self.assertNear(arch.length, 2.34, 1e-9)  # N·width − (N − 1)·overlap

    def test_three_panels_lap_twice(self):
        arch = self.lay(planting("bean-pole", 8, 0.3, "both"), panels=3)
        self.assertEqual(sum(m.key.startswith("lap") for m in arch.by_role("tie")), 20)
        self.assertEqual(self.parts(arch)[("panel_large", "bent panel")].packs, 3)

    def test_slings_for_heavy_fruit_only(self):
        """Fruit over the threshold, and a tenth more."""
        self.assertFalse([s for s in self.lay(planting("bean-pole", 8, 0.3)).supplies if s.key == "sling"])
        (slings,) = [s for s in self.lay(planting("butternut", 8, 0.6)).supplies if s.key == "sling"]
        self.assertGreaterEqual(slings.count, 8)

    def test_panel_stands_inside_its_posts_and_posts_on_its_wires_edge(self):
        """Posts at y = ±(S/2 + half a post), set in from the panel's edge."""
        arch = self.lay(planting("bean-pole", 8, 0.3), panels=1, span=1.22, inset=0.125, panel_side="inside")
        for post in arch.by_role("post"):
            x, y, _ = post.points[0]
            self.assertGreater(abs(y), 0.61)
            self.assertAlmostEqual(min(x, arch.length - x), 0.125, places=6)
        outside = self.lay(planting("bean-pole", 8, 0.3), panels=1, span=1.22, panel_side="outside")
        self.assertTrue(all(abs(post.points[0][1]) < 0.61 for post in outside.by_role("post")))

    def test_a_pair_of_tubes(self):
        """3.1: a bought pair clad to 2 m, lines over the top; half a circle on legs: 1.22 wide and 2.2 high is 5.10 m of tube."""
        pair = self.lay(planting("bean-pole", 8, 0.3, "both"), frame="tubes", arches=2, span=1.22, tube_rise=2.2, clad=2.0)
        tubes = pair.by_role("arm")
        self.assertEqual(len(tubes), 2)
        self.assertNear(tubes[0].buy_length, 2 * (2.2 - 0.61) + math.pi * 0.61, 2e-3)
        self.assertEqual(self.parts(pair)[("tube_arch_16", "arm")].packs, 2)
        self.assertEqual(len(pair.by_role("mesh")), 2)
        self.assertTrue(all(line.points[0][2] > 1.9 for line in pair.by_role("wire")), "lines run over the top, above the mesh")


class StakePartsTest(Laid):
    """Parts handbook 3.6."""

    family = "stake"

    def test_one_stake_a_plant(self):
        row = self.lay(planting("tom-slicer", 7, 0.6), length=3.9)
        self.assertEqual(len(row.by_role("post")), 7)

    def test_ties_as_it_grows(self):
        """(h − first) ÷ step + 1 per stem, × stems, and a fifth more over the season."""
        for stems, step in ((1, 0.25), (2, 0.25), (1, 0.20)):
            row = self.lay(planting("tom-slicer", 5, 0.6), length=3.0, height=1.5, tie_step=step, stems=stems)
            (ties,) = [s for s in row.supplies if s.table == "ties"]
            each = (1.5 - 0.25) / step + 1
            self.assertEqual(ties.count, math.ceil(round(5 * stems * math.floor(each) * 1.2, 6)))

    def test_a_bar_joins_neighbours(self):
        row = self.lay(planting("tom-slicer", 5, 0.6), length=3.0, bar="bar")
        self.assertTrue(row.by_role("rail"))
        self.assertNear(sum(m.buy_length for m in row.by_role("rail")), 2.4, 0.2)


class CagePartsTest(Laid):
    """Parts handbook 3.7: 20 plants as 4 × 5: 31 links between neighbours, 12 diagonals, one per cell."""

    family = "cage"

    def raft(self, link: str):
        lines = [planting("tom-det", 5, 0.6, side) for side in ("left", "right")]
        bed = Bed(key="b", name="b", length=4.0, width=3.0)
        return self.lay(*lines, bed=bed, rows=2, row_spacing=0.6, link=link, length=3.0, stakes=0)

    def test_links(self):
        """a · (b − 1) + b · (a − 1) between neighbours of a grid of a by b, (a − 1)(b − 1) across its cells; 0.35 m of twine, twice round."""
        for link, count in (("none", 0), ("row", 2 * 4), ("grid", 2 * 4 + 5), ("diagonal", 2 * 4 + 5 + 4)):
            links = self.raft(link).by_role("run")
            self.assertEqual(len(links), count, link)
            self.assertTrue(all(abs(m.buy_length - 0.70) < 1e-9 for m in links))

    def test_a_cylinder_from_the_roll(self):
        """Cut length π D and a lap: 0.48 m across takes 1.51 m and its lap."""
        cage = self.lay(planting("tom-det", 1, 0.6), made="cut", diameter=0.48, length=0.6)
        (ring,) = {round(m.buy_length, 3) for m in cage.by_role("ring")}
        self.assertGreaterEqual(ring, math.pi * 0.48)
        self.assertLessEqual(ring, math.pi * 0.48 + 0.35)


class DropStringsPartsTest(Laid):
    """Parts handbook 3.8: a string at 2.10 m takes 2.45 m, with 3.0 m to let down 5.45; 13 strings 32 m and 71 m, and a twentieth."""

    family = "drop-strings"

    def strings(self, **options):
        bed = Bed(key="b", name="b", length=7.0, width=1.2)
        laid = self.lay(planting("tom-slicer", 13, 0.45), bed=bed, length=6.0, top_height=2.10, **options)
        return laid, laid.by_role("string")

    def test_lengths(self):
        _, strings = self.strings(lower=False)
        self.assertEqual(len(strings), 13)
        self.assertNear(strings[0].buy_length, 2.45, 0.005)
        self.assertNear(sum(s.buy_length for s in strings), 32, 0.01)

    def test_spare_to_let_down(self):
        """A stem of 5.1 m on a 2.10 m string has 3.0 m lying."""
        laid, strings = self.strings(lower=True, stem_length=5.05)
        self.assertNear(strings[0].buy_length, 5.45, 0.01)
        found = next(part for (key, _), part in self.parts(laid).items() if key == strings[0].item)
        self.assertGreaterEqual(found.packs * found.pack_size, 71 * 1.05 - 0.5)

    def test_a_peg_a_plant_and_none_where_the_string_is_tied_to_the_stem(self):
        pegged, _ = self.strings(foot_held="peg")
        self.assertEqual(sum(s.count for s in pegged.supplies if s.key == "string-peg"), 13)
        looped, _ = self.strings(foot_held="loop")
        self.assertFalse([s for s in looped.supplies if s.key == "string-peg"])


class WireTrellisPartsTest(Laid):
    """Parts handbook 3.9: wire per line 1.01 L and two ends round their posts, × 1.03; 12 m, one wire: 14.2 m; 3 posts between at 3.0 m."""

    family = "wire-trellis"

    def test_twelve_metres(self):
        bed = Bed(key="b", name="b", length=14.0, width=1.2)
        row = self.lay(planting("tom-slicer", 20, 0.6), bed=bed, length=12.0, post_spacing=3.0, wires=1, ends="plain", safety_wire=False)
        safe = self.lay(planting("tom-slicer", 20, 0.6), bed=bed, length=12.0, post_spacing=3.0, wires=1, ends="plain", safety_wire=True)
        self.assertNear(safe.by_role("wire")[0].buy_length - row.by_role("wire")[0].buy_length, 1.2, 1e-6)
        (wire,) = [m for m in row.by_role("wire") if m.key.startswith("wire")]
        self.assertNear(wire.buy_length * 1.03, 14.2, 0.03)
        self.assertEqual(len(row.by_role("post")), 3 + 2)

    def test_more_wires_take_as_much_each(self):
        bed = Bed(key="b", name="b", length=14.0, width=1.2)
        one, three = (
            sum(m.buy_length for m in self.lay(bed=bed, length=12.0, wires=n, wire_step=0.4, crop_on="wires").by_role("wire"))
            for n in (1, 3)
        )
        self.assertNear(three, 3 * one, 0.05)


class WeavePartsTest(Laid):
    """Parts handbook 3.10: 6 m, 10 plants, 6 posts of 38 mm, 5 runs: 79 m with a twentieth of waste."""

    family = "weave"

    def test_six_metres(self):
        bed = Bed(key="b", name="b", length=8.0, width=1.2)
        row = self.lay(planting("tom-det", 10, 0.6), bed=bed, length=6.0, post="post_hw_stake_38", post_spacing=1.2, first_run=0.25,
                       run_step=0.2, top_run=1.05, style="basket", ends="plain")  # fmt: skip
        self.assertEqual(len({m.points[0][0] for m in row.by_role("post")}), 6)
        twine = sum(m.buy_length for m in row.by_role("run"))
        self.assertNear(twine * 1.05, 79, 0.03)

    def test_more_runs_take_more_twine(self):
        wide, close = (sum(m.buy_length for m in self.lay(run_step=step).by_role("run")) for step in (0.3, 0.15))
        self.assertGreater(close, 1.4 * wide)


class LivingSupportPartsTest(Laid):
    """Parts handbook 3.13: nothing to buy but seed, unless strings are drawn round the block."""

    family = "living-support"

    def test_nothing_to_buy(self):
        found = self.parts(self.lay(planting("bean-pole", 10, 0.6), backup="none"))
        self.assertEqual({use for _, use in found}, {"stem"})
        self.assertEqual(sum(part.cost for part in found.values()), 0.0)

    def test_strings_round_it(self):
        round_it = self.parts(self.lay(planting("bean-pole", 10, 0.6), backup="strings"))
        self.assertTrue({use for _, use in round_it} >= {"post", "string"})
