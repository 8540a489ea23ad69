"""What several tests of the core start from."""

from __future__ import annotations

import os
import unittest
from collections.abc import Iterable
from dataclasses import replace
from functools import cache
from pathlib import Path
from typing import Any, TypeVar

import numpy as np
from ascent.files.plan import read_plan
from ascent.plan.bed import Bed
from ascent.plan.entries import Entry
from ascent.plan.garden import Garden
from ascent.plan.structure import Planting, Structure
from ascent.shapes import earth
from ascent.site import Site

ROOT = Path(__file__).resolve().parent.parent.parent
EXAMPLES = ROOT / "docs" / "examples"
THOROUGH = os.environ.get("ASCENT_THOROUGH") == "1"  # ./ascent test --thorough
Thing = TypeVar("Thing")


def share(things: Iterable[Thing], of: int, first: int = 0) -> list[Thing]:
    """Return every so many-th of many alike things, from one of them on; all of them in a thorough run.

    Tests that differ in `first` look at different ones, so that none is looked at by no test.
    """
    return list(things) if THOROUGH else list(things)[first::of]


def some(often: int, of: int) -> int:
    """Return how often a test tries things drawn at random: so often in a thorough run, a part of it else."""
    return often if THOROUGH else often // of


class NearTestCase(unittest.TestCase):
    """Compares within a share of the expected value: 1 % unless the test says why not."""

    def assertNear(self, found: Any, expected: float, share: float = 0.01) -> None:  # noqa: N802 - unittest's own style
        """Fail when a number is further off than that share."""
        value = float(np.asarray(found).ravel()[0])
        self.assertLessEqual(
            abs(value - expected), abs(expected) * share, f"{value:.5g} against {expected:.5g}"
        )


def site(soil: str = "firm_loam", exposure: str = "ordinary", **bed: Any) -> Site:
    """Return a bed of 12 m in a plain garden."""
    row = Bed(key="bed", name="Bed", **{"length": 12.0, "width": 1.2, "soil": soil, **bed})
    return Site(garden=Garden(name="Garden", exposure=exposure, beds=(row,)), bed=row)


def handbooks(soil: str = "firm_loam") -> earth.PostGround:
    """Return ground as the handbooks' tables calculate with it: its dug top of 0.15 m is nothing at all."""
    ground = earth.ground_of(site(soil).bed, "driven")
    return replace(ground, loose=replace(ground.loose, gamma=0.0))


def fence(
    crop: str = "tom-slicer", count: int = 8, spacing: float = 0.45, training: str = "pruned", **options: Any
) -> Structure:
    """Return a mesh fence on 2.1 m T-posts 0.45 m deep, changed as asked."""
    chosen = {
        "length": 3.6,
        "mesh": "mesh_conc_150_5",
        "mesh_height": 1.2,
        "post_spacing": 1.2,
        "depth": 0.45,
        **options,
    }
    planting = Planting(key="p1", crop=crop, count=count, spacing=spacing, training=training, planted="05-04")
    return Structure(key="fence", name="Fence", family="mesh-fence", options=chosen, plantings=(planting,))


@cache
def demo() -> Garden:
    """Return the demo garden, read once."""
    return read_plan((EXAMPLES / "lantern-quay.json").read_text(encoding="utf-8")).garden


def demo_log() -> tuple[Entry, ...]:
    """Return what happened in the demo garden."""
    return read_plan((EXAMPLES / "lantern-quay.json").read_text(encoding="utf-8")).log
