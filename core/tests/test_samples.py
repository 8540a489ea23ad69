"""What is not well known, many samples of it at once, is what each sample gives alone: no load path makes one
figure of them on its way.
"""

from __future__ import annotations

import random
from dataclasses import replace
from typing import Any

import numpy as np
from ascent.analysis.design import design_of
from ascent.errors import UnknownItem
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.loads import cases
from ascent.plan.structure import Planting
from ascent.site import Site

from tests.support import NearTestCase, site
from tests.test_sweep import some_case, structure_of

CROP, LEAF, STIFFNESS, LATE = (0.7, 1.0, 1.6), (0.8, 1.3, 1.0), (1.0, 0.5, 2.0), (0.0, 21.0, -10.0)


def sample(values: tuple[float, ...]) -> np.ndarray:
    """Return factors as a sample over the cases, (N, 1, 1, 1)."""
    return np.array(values).reshape(-1, 1, 1, 1)


class SamplesTest(NearTestCase):
    def test_samples_at_once_are_the_samples_one_by_one(self):
        for family in FAMILIES.values():
            chance = random.Random(family.key)
            for number in range(8):
                options, grown, where = some_case(family, chance)
                with self.subTest(family.key, number=number):
                    self.same(family, options, grown, where)

    def same(self, family: Any, options: Any, grown: tuple[Planting, ...], where: Site) -> None:
        """Compare every link, movement and balance of three samples at once with those of each."""
        geometry = family.geometry(options, grown, where)
        structure = structure_of(family, options, grown)
        usual = cases.site_winds(where, where.design_gust)

        def loaded(crop: Any, leaf: Any, stiffness: Any, late: Any) -> Any:
            varied = usual.scaled("crop", crop).scaled("leaf", leaf).scaled("stiffness", stiffness)
            return family.loaded(options, geometry, structure, where, replace(varied, late=late))

        at_once = loaded(sample(CROP), sample(LEAF), sample(STIFFNESS), np.array(LATE).reshape(-1, 1))
        together = {link.key: link for link in at_once.path()}
        for n, factors in enumerate(zip(CROP, LEAF, STIFFNESS, LATE, strict=True)):
            alone = loaded(*factors)
            for link in alone.path():
                for before, now in (
                    (link.utilisation, together[link.key].utilisation),
                    (link.median_utilisation, together[link.key].median_utilisation),
                    (link.carries, together[link.key].carries),
                ):
                    self.one_of(now, n, before, link.key)
            for service, before in zip(at_once.service(), alone.service(), strict=True):
                self.one_of(service.amount, n, before.amount, service.key)
            for now, before in zip(at_once.balance(), alone.balance(), strict=True):
                self.one_of(now, n, before, "balance")

    def one_of(self, many: Any, n: int, one: Any, about: str) -> None:
        """Check that a sample among many is what it is by itself."""
        many, one = np.asarray(many), np.asarray(one)
        mine = many[n] if many.ndim == 4 and len(many) > 1 else many
        mine = mine[0] if mine.ndim == 4 else mine
        mine, one = np.broadcast_arrays(mine, one)
        np.testing.assert_allclose(mine, one, rtol=1e-9, atol=1e-9, err_msg=about)

    def test_what_grows_late_hangs_less_early_on(self):
        """Common practice, no source: three weeks behind, a vine in June is lighter and shorter."""
        where = site("firm_loam", "ordinary")
        family = FAMILIES["mesh-fence"]
        options = family.propose(Need("tom-slicer", None, "both", "pruned"), where).options
        grown = (Planting(key="a", crop="tom-slicer", count=8, spacing=0.5, planted="05-10"),)
        geometry = family.geometry(options, grown, where)
        structure = structure_of(family, options, grown)
        usual = cases.site_winds(where, where.design_gust)
        late = replace(usual, late=np.array([[0.0], [21.0]]))
        (growth,) = family.loaded(options, geometry, structure, where, late).growths
        self.assertEqual(growth.top.shape, growth.plant_kg.shape)
        self.assertTrue((growth.plant_kg[1, 2:8] < growth.plant_kg[0, 2:8]).all())
        self.assertTrue((growth.top[1] <= growth.top[0] + 1e-12).all())

    def test_only_what_acts_on_loads_scales_the_cases(self):
        with self.assertRaisesRegex(UnknownItem, "one of leaf, crop, stiffness is allowed"):
            cases.moist_gusts().scaled("wood", 2.0)


class WindsTest(NearTestCase):
    def test_still_air_working_wind_and_the_gust_asked_are_the_same_by_themselves(self):
        """An evaluation calculates them with the rising gusts; each link and movement is what these three
        winds alone give.
        """
        for family in FAMILIES.values():
            options, grown, where = some_case(family, random.Random(family.key))
            structure = structure_of(family, options, grown)
            found = design_of(where, structure)
            winds = cases.site_winds(where, found.required_gust)
            alone = family.loaded(options, found.geometry, structure, where, winds)
            for now, by_itself in zip(found.links, alone.path(), strict=True):
                with self.subTest(family.key, link=now.key):
                    for name in ("utilisation", "median_utilisation", "carries"):
                        self.same(getattr(now, name), getattr(by_itself, name))
            for now, by_itself in zip(found.service, alone.service(), strict=True):
                with self.subTest(family.key, movement=now.key):
                    self.same(now.amount, by_itself.amount)

    def same(self, now: Any, by_itself: Any) -> None:
        """Compare two arrays over cases."""
        now, by_itself = np.broadcast_arrays(now, by_itself)
        self.assertLessEqual(now.shape[-1], 3)
        np.testing.assert_allclose(now, by_itself, rtol=1e-9, atol=1e-9)
