"""A design and its variations: what is kept, and that nothing is kept that should not be."""

from __future__ import annotations

import random

import numpy as np
from ascent.analysis.design import Design, design_of
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.loads import cases as case_sets
from ascent.memory import Said, content_of, forget_all, remembered
from ascent.sizing.grid import COARSE, grid_of

from tests.support import NearTestCase, fence, site
from tests.test_every_family import structure_of


class VariationTest(NearTestCase):
    def test_a_variation_is_the_design_made_anew(self):
        """Of every family: one option after another is changed on one design, and each is compared with a
        design that was never varied.
        """
        for key, family in FAMILIES.items():
            chance, where = random.Random(f"vary {key}"), site()
            structure = structure_of(family, family.propose(Need("pea-snap", 12, "right", "pruned"), where))
            first = Design(where, structure)
            first.calculate(lambda: None)
            grid = grid_of(where, structure, "metric", COARSE)
            for _ in range(3):
                pick = grid.at([chance.randrange(len(axis.levels)) for axis in grid.axes])
                varied = first.with_(pick)
                anew = Design(where, structure.model_copy(update={"options": {**structure.options, **pick}}))
                with self.subTest(key, pick=pick):
                    self.assertEqual(varied.geometry, anew.geometry)
                    self.assertEqual(varied.unfit, anew.unfit)
                    self.assertEqual(varied.moist_limit(), anew.moist_limit())

    def test_what_does_not_change_is_kept_and_what_does_is_not(self):
        first = Design(site(), fence())
        first.calculate(lambda: None)
        deeper = first.with_({"depth": 0.8})
        self.assertIs(deeper.season, first.season)
        self.assertIs(deeper.weekly_gusts, first.weekly_gusts)
        self.assertNotIn("geometry", deeper.__dict__)
        self.assertNotIn("limits", deeper.__dict__)
        garden = first.site.garden.model_copy(update={"exposure": "open"})
        windier = first.with_(site=first.site.model_copy(update={"garden": garden}))
        self.assertIs(windier.geometry, first.geometry)
        self.assertGreater(windier.required_gust, first.required_gust)
        planted = first.with_(structure=fence(count=3))
        self.assertNotIn("geometry", planted.__dict__)
        self.assertEqual(len(planted.geometry.plants), 3)

    def test_samples_stay_apart(self):
        """A sample axis is not summed over: each sample has the limits that it has by itself."""
        design, factors = Design(site(), fence()), np.array([0.8, 1.0, 1.3])
        grid, moist = case_sets.MOIST_GUSTS, case_sets.moist_gusts()
        together = design.limits_under(moist.scaled("leaf", factors.reshape(3, 1, 1, 1)), grid)
        for n, factor in enumerate(factors):
            alone = design.limits_under(moist.scaled("leaf", float(factor)), grid)
            for key, limit in alone.items():
                self.assertEqual(together[key].shape, (3, *limit.shape))
                np.testing.assert_allclose(together[key][n], limit, rtol=1e-12)
        late = np.array([[0.0], [10.0]])
        self.assertEqual(
            case_sets.Cases(moist.gust, moist.crop, moist.saturated, late=late).shape(7), (2, 1, 7)
        )


class MemoryTest(NearTestCase):
    def test_equal_content_is_known_again_and_other_content_is_not(self):
        self.assertIs(design_of(site(), fence()), design_of(site(), fence()))
        self.assertIsNot(design_of(site(), fence()), design_of(site(), fence(depth=0.7)))
        self.assertIsNot(design_of(site(), fence()), design_of(site("sandy"), fence()))
        self.assertNotEqual(content_of(site().bed), content_of(site().garden))

    def test_it_is_bounded_and_can_be_emptied(self):
        made: list[int] = []

        @remembered(2)
        def double(number: int) -> int:
            made.append(number)
            return 2 * number

        for number in (1, 2, 1, 3, 1, 2):
            self.assertEqual(double(number), 2 * number)
        self.assertEqual(made, [1, 2, 3, 2], "the one used longest ago goes first")
        forget_all()
        double(2)
        self.assertEqual(made, [1, 2, 3, 2, 2])

    def test_fields_that_do_not_matter_do_not_count(self):
        one, other = fence(), fence().model_copy(update={"along": 1.5})
        self.assertEqual(Said(one, "along"), Said(other, "along"))
        self.assertNotEqual(Said(one), Said(other))
