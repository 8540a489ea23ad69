"""What people who measure in feet and inches are offered is round in them."""

from __future__ import annotations

from ascent.analysis.design import Design
from ascent.families import FAMILIES
from ascent.family.options import extra_of
from ascent.family.protocol import Need
from ascent.sizing.offer import start_of
from ascent.sizing.rounding import rounded_for, to_inches
from ascent.words.quantities import write

from tests.support import NearTestCase, site

INCH = 0.0254
NEED = Need("tom-slicer", None, "right", "pruned")


class BornTest(NearTestCase):
    def test_sizes_that_the_trade_sells_and_gardeners_say(self):
        """0.45 m is 18 in between plants, 0.60 m is 2 ft deep, 1.22 m is 4 ft, 2.4 m is 8 ft: common
        practice, no source.
        """
        for metres, inches in (
            (0.45, 18),
            (0.60, 24),
            (1.22, 48),
            (2.4, 96),
            (0.30, 12),
            (0.15, 6),
            (0.9, 36),
        ):
            self.assertAlmostEqual(to_inches(metres) / INCH, inches, 1)
        self.assertEqual(write(to_inches(0.45), "length", "imperial"), "1 ft 6 in")
        self.assertAlmostEqual(to_inches(0.013) / INCH, 0.5, 2)

    def test_every_family_starts_in_halves_of_an_inch_and_says_the_value_it_has(self):
        where = site(length=12 * 0.3048, width=4 * 0.3048)
        halves, lengths = 0, 0
        for key, family in FAMILIES.items():
            start = start_of(where, key, NEED, "imperial")
            options = start.proposal.options
            with self.subTest(key):
                for name in family.options.model_fields:
                    if extra_of(family.options, name)["kind"] == "length":
                        lengths += 1
                        double = getattr(options, name) / INCH * 2
                        halves += abs(double - round(double)) < 0.02
                plain = family.propose(NEED, where)
                was = start.structure.model_copy(
                    update={"options": plain.options.model_dump(), "plantings": plain.plantings}
                )
                self.assertLessEqual(Design(where, start.structure).unfit.keys, Design(where, was).unfit.keys)
        self.assertGreater(halves / lengths, 0.95, "a few stay as they are, where rounding would not do")

    def test_in_metres_nothing_is_moved(self):
        proposed = FAMILIES["mesh-fence"].propose(NEED, site())
        self.assertIs(rounded_for("metric", "mesh-fence", proposed, site()), proposed)

    def test_a_reason_tells_the_value_as_it_is(self):
        start = start_of(site(), "mesh-fence", NEED, "imperial")
        depth = start.proposal.reasons["depth"].values["depth"][0]
        self.assertEqual(depth, start.proposal.options.depth)
        self.assertAlmostEqual(depth / INCH, 24, 1)
