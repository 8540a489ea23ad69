"""Sensitivity: how far the limit gust moves with each quantity that is not well known."""

from __future__ import annotations

import numpy as np

from .. import tables
from ..loads import cases as case_sets
from ..mechanics import Array
from ..path.loadpath import Check
from ..plan.fields import GREATEST_GUST
from ..plan.structure import Structure
from ..site import Site
from ..tables.rows import Uncertainty
from .crossings import crossings
from .design import design_of


def sensitivity(site: Site, structure: Structure) -> tuple[tuple[Uncertainty, float, float], ...]:
    """Return what is not well known, with the limit gust at its low and its high end, the widest spread
    first. [m/s]

    What acts on loads is a sample of the cases: as expected, and each at its low and its high end by itself.
    What a strength rests on scales the uses of the checks that rest on it.

    Source: handbook-15
    """
    uncertain = tables.uncertainties().values()
    loads = [row for row in uncertain if row.acts == "load"]
    varied, samples = case_sets.moist_gusts(), 1 + 2 * len(loads)
    for n, row in enumerate(loads):
        factors = np.ones((samples, 1, 1, 1))
        factors[1 + 2 * n], factors[2 + 2 * n] = row.low, row.high
        varied = varied.scaled(row.key, factors)
    design = design_of(site, structure)
    links = design.under(varied).path()
    shape = (*varied.shape(design.season.weeks), len(case_sets.MOIST_GUSTS))

    def usual(check: Check) -> Array:
        return np.asarray(np.broadcast_to(check.utilisation, shape)[0])

    def with_strength(key: str, factor: float) -> float:
        uses = {
            link.key: np.maximum.reduce(
                [usual(check) / (factor if check.material_group == key else 1.0) for check in link.checks]
            )
            for link in links
        }
        return float(_least(uses, shape[1:-1])[0])

    by_sample = _least({link.key: link.utilisation for link in links}, shape[:-1])
    cited = {check.material_group for link in links for check in link.checks}
    ends: dict[str, tuple[float, float]] = {
        row.key: (float(by_sample[1 + 2 * n]), float(by_sample[2 + 2 * n])) for n, row in enumerate(loads)
    } | {
        row.key: (with_strength(row.key, row.low), with_strength(row.key, row.high))
        for row in uncertain
        if row.acts == "strength" and row.key in cited
    }
    rests = [
        (row, min(ends[row.key][0], GREATEST_GUST), min(ends[row.key][1], GREATEST_GUST))
        for row in uncertain
        if row.key in ends
    ]
    return tuple(sorted(rests, key=lambda each: -abs(each[2] - each[1])))


def _least(uses: dict[str, Array], shape: tuple[int, ...]) -> Array:
    """Return the least limit gust over links and weeks, of each sample. [m/s]"""
    limits = np.stack(list(crossings(uses, shape, case_sets.MOIST_GUSTS).values()))
    return np.asarray(np.min(limits, axis=(0, *range(2, limits.ndim))))
