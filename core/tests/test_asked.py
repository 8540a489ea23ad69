"""A link asked with another item answers as the whole laid out anew with that item does."""

from __future__ import annotations

import random

import numpy as np
from ascent import tables
from ascent.families import FAMILIES
from ascent.family.options import extra_of
from ascent.family.protocol import Need
from ascent.loads import cases
from ascent.path.loadpath import Link
from ascent.plan.fields import Typed
from ascent.plan.structure import Planting
from ascent.site import Site

from tests.support import NearTestCase, site, some
from tests.test_sweep import some_case, structure_of

ALONE = {"stem-tie", "string", "hook", "base", "mesh-tie", "hinge", "sling", "seat", "tensioner"}


class AskedTest(NearTestCase):
    def test_one_link_asked_is_the_whole_laid_out_anew(self):
        """Every other link keeps its uses, and the asked one has those of the new whole."""
        asked: set[str] = set()
        for family in FAMILIES.values():
            chance = random.Random(family.key)
            for number in range(some(8, 2)):
                options, grown, where = some_case(family, chance)
                with self.subTest(family.key, number=number):
                    asked |= self.agrees(family.key, options, grown, where)
        self.assertLessEqual(ALONE, asked)

    def agrees(self, key: str, options: Typed, grown: tuple[Planting, ...], where: Site) -> set[str]:
        """Compare every link that can be asked alone, with every item its option may be."""
        before = self.path(key, options, grown, where)
        asked = set()
        for link in before.values():
            for option in link.levers:
                extra = extra_of(options, option)
                if extra.get("kind") != "item" or link.item != (extra["table"], getattr(options, option)):
                    continue
                for item in tables.ITEM_TABLES[extra["table"]]().values():
                    other = link.made_with(item)
                    if other is None or (extra["role"] and extra["role"] not in item.serves):
                        continue
                    after = self.path(key, options.model_copy(update={option: item.key}), grown, where)
                    asked.add(link.key)
                    self.assertEqual(set(before), set(after))
                    for name, new in after.items():
                        now = other if name == link.key else before[name]
                        self.assertEqual(now.item, new.item)
                        np.testing.assert_array_equal(
                            now.utilisation, new.utilisation, f"{link.key} of {item.key}: {name}"
                        )
                        np.testing.assert_array_equal(now.median_utilisation, new.median_utilisation)
        return asked

    @staticmethod
    def path(key: str, options: Typed, grown: tuple[Planting, ...], where: Site) -> dict[str, Link]:
        """Return the links of a structure laid out from nothing."""
        family = FAMILIES[key]
        geometry = family.geometry(options, grown, where)
        structure = structure_of(family, options, grown)
        winds = cases.site_winds(where, where.design_gust)
        return {link.key: link for link in family.loaded(options, geometry, structure, where, winds).path()}

    def test_a_link_whose_item_feeds_back_says_so(self):
        """A stiffer post draws more of the mesh's pull: it cannot be asked alone."""
        where = site("firm_loam", "ordinary")
        family = FAMILIES["mesh-fence"]
        options = family.propose(Need("tom-slicer", None, "both", "pruned"), where).options
        grown = (Planting(key="a", crop="tom-slicer", count=8, spacing=0.5, planted="05-10"),)
        post = self.path("mesh-fence", options, grown, where)["post"]
        self.assertIsNone(post.made_with(tables.item("posts", "tpost_1.8")))
        tie = self.path("mesh-fence", options, grown, where)["mesh-tie"]
        self.assertIsNone(tie.made_with(tables.item("posts", "tpost_1.8")))
