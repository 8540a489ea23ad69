"""A sanity sweep: random valid option sets of every family. ASCENT_SWEEP=2000 sweeps wide; the suite keeps it
small.
"""

from __future__ import annotations

import os
import random
from typing import Any, get_args

import numpy as np
from ascent import tables
from ascent.buying.lists import shopping
from ascent.drawing.sketch import sketch_of
from ascent.drawing.solid import solid_of
from ascent.drawing.views import VIEWS, view_of
from ascent.families import FAMILIES
from ascent.family.protocol import Need
from ascent.loads import cases
from ascent.plan.structure import Planting, Structure
from ascent.site import Site

from tests.support import NearTestCase, site

COUNT = int(os.environ.get("ASCENT_SWEEP", "12"))
ONLY = os.environ.get("ASCENT_SWEEP_ONLY", "")


def some_options(family: Any, chance: random.Random, start: dict[str, Any]) -> dict[str, Any]:
    """Return options of which about half are drawn anew from all they may be."""
    found = dict(start)
    for name, field in family.options.model_fields.items():
        if chance.random() < 0.5:
            continue
        extra = field.json_schema_extra
        if extra["kind"] == "item":
            rows = tables.ITEM_TABLES[extra["table"]]().values()
            role = extra["role"]
            found[name] = chance.choice([item.key for item in rows if not role or role in item.serves])
        elif extra["kind"] == "choice":
            found[name] = chance.choice(
                [True, False] if field.annotation is bool else list(get_args(field.annotation))
            )
        else:
            low, high = (
                next(getattr(m, side) for m in field.metadata if hasattr(m, side)) for side in ("ge", "le")
            )
            found[name] = (
                chance.randint(int(low), int(high)) if extra["kind"] == "count" else chance.uniform(low, high)
            )
    return found


def some_place(chance: random.Random) -> Site:
    """Return a bed of any kind, soil and wind."""
    kind = chance.choice(["in-ground", "raised", "container", "straw-bale"])
    fill = 0.0 if kind == "in-ground" else chance.uniform(0.1, 0.6)
    return site(
        chance.choice(list(tables.soils())),
        chance.choice(list(tables.exposures())),
        kind=kind,
        fill_depth=fill,
        length=chance.uniform(0.4, 15.0),
        width=chance.uniform(0.3, 2.5),
        board=chance.uniform(0.0, 0.06),
    )


def some_plantings(chance: random.Random) -> tuple[Planting, ...]:
    """Return one planting or two, of any crop."""
    return tuple(
        Planting(
            key=f"p{n}",
            crop=chance.choice(list(tables.crops())),
            count=chance.randint(1, 60),
            spacing=chance.uniform(0.05, 1.0),
            side=chance.choice(["left", "right", "both"]),
            training=chance.choice(["pruned", "free"]),
            planted=f"{chance.randint(3, 6):02d}-{chance.randint(1, 28):02d}",
        )
        for n in range(chance.choice([1, 1, 1, 2]))
    )


def some_case(family: Any, chance: random.Random) -> tuple[Any, tuple[Planting, ...], Site]:
    """Return options of a family, about half of them drawn anew from all they may be, with plants and a
    place.
    """
    where, grown = some_place(chance), some_plantings(chance)
    need = Need(grown[0].crop, None, grown[0].side, grown[0].training)
    start = family.propose(need, where).options.model_dump()
    return family.options.model_validate(some_options(family, chance, start)), grown, where


def structure_of(family: Any, options: Any, grown: tuple[Planting, ...]) -> Structure:
    """Return the structure of some options and plants."""
    return Structure(key="x", name="x", family=family.key, options=options.model_dump(), plantings=grown)


class SweepTest(NearTestCase):
    def test_random_option_sets(self):
        """No exception, no NaN, equilibrium, everything priced, everything drawn inside its frame."""
        for family in FAMILIES.values():
            if ONLY and family.key not in ONLY.split(","):
                continue
            chance = random.Random(family.key)
            for number in range(COUNT):
                options, grown, where = some_case(family, chance)
                with self.subTest(family.key, number=number):
                    self.sound(family, options, grown, where)

    def sound(self, family: Any, options: Any, grown: tuple[Planting, ...], where: Site) -> None:
        """Check one structure."""
        geometry = family.geometry(options, grown, where)
        structure = structure_of(family, options, grown)
        loaded = family.loaded(
            options, geometry, structure, where, cases.site_winds(where, where.design_gust)
        )
        links = loaded.path()
        keys = {link.key for link in links}
        self.assertEqual(len(keys), len(links), "every link once")
        for link in links:
            self.assertLessEqual(set(link.hands_to), keys)
            self.assertLessEqual(
                set(link.levers),
                set(family.options.model_fields),
                f"{link.key}: what is turned to mend it is an option",
            )
            for check in link.checks:
                self.assertFalse(np.isnan(check.utilisation).any(), f"{link.key} {check.key}")
                self.assertTrue((check.utilisation >= 0).all(), f"{link.key} {check.key}")
        for service in loaded.service():
            self.assertTrue(np.isfinite(service.amount).all(), service.key)
        np.testing.assert_allclose(*np.broadcast_arrays(*loaded.balance()), rtol=1e-6, atol=1e-6)
        for part in shopping(geometry, {}):
            self.assertGreater(part.packs, 0, part.key)
            self.assertTrue(np.isfinite(part.cost) and part.cost >= 0, part.key)
        for name in VIEWS:
            view = view_of(geometry, where.bed, name, "metric")
            drawn = [
                (mark.member, p) for mark in view.marks for line in (mark.points, *mark.lines) for p in line
            ]
            drawn += [("plant", plant.at) for plant in view.plants]
            drawn += [(m.option, p) for m in view.measures for p in (m.start, m.end)]
            for what, (u, v) in drawn:
                inside = (
                    view.low[0] - 2e-3 <= u <= view.high[0] + 2e-3
                    and view.low[1] - 2e-3 <= v <= view.high[1] + 2e-3
                )
                self.assertTrue(inside, f"{name} {what}")
        self.assertTrue(sketch_of(geometry, where.bed.length, where.bed.width).ground)
        solid = solid_of(geometry, where.bed)
        self.assertTrue(all(np.isfinite(bar.points).all() for bar in solid.bars))
        self.assertTrue(all(np.isfinite(climber.way).all() for climber in solid.climbers))
        family.remarks(options, geometry, structure, where)
