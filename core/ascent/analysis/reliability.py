"""The reliability of a structure over its season, from the gusts of its weeks and the dispersion of its
strengths.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import NormalDist

import numpy as np

from .. import tables
from ..mechanics import Array, wind
from ..memory import remembered
from .crossings import stacked

_LEAF = "leaf"  # row of uncertainties.csv: how hard the wind pulls
_BLOWN = 0.01  # by which a use grows from calm to storm, in its logarithm, if the wind loads it at all
_APART = 100.0  # more than the logarithms of uses span
_DRAWS = 128  # of strengths, spread evenly over what they may be
_NEVER = 2.25  # times the ten-season gust: exceeded in fewer than one of 10^15 weeks


@dataclass(frozen=True)
class Reliability:
    """How likely it is that the links of a structure stand a season.

    exceeded: how often a season the gusts are expected to be more than each link, and the whole, bears, for
        each draw of the strengths, {key: (N,)} and (N,).
    """

    links: Mapping[str, Array]
    exceeded: Array

    @property
    def whole(self) -> float:
        """Return the chance that the structure stands the coming season."""
        return self.seasons(1)

    def seasons(self, count: int) -> float:
        """Return the chance that it stands so many seasons in a row, the same strengths all along."""
        return float(np.mean(np.exp(-count * self.exceeded)))

    def return_period(self, link: str = "") -> tuple[float, float, float]:
        """Return once in how many seasons the whole, or a link, is expected to go: on the whole, and from
        weak to strong of what it is made.

        The first is the mean over all strengths; the others are where one strength in ten is weaker, and one
        in ten is stronger.
        """
        exceeded = self.links[link] if link else self.exceeded
        goes = 1.0 - np.exp(-exceeded)
        weak, strong = (float(q) for q in np.quantile(goes, (0.9, 0.1)))
        return _seasons(float(np.mean(goes))), _seasons(weak), _seasons(strong)

    def of(self, link: str) -> float:
        """Return the chance that a link stands the coming season, whatever becomes of the others."""
        return float(np.mean(np.exp(-self.links[link])))


def _seasons(goes: float) -> float:
    return 1.0 / max(goes, 1e-6)


@remembered(64)
def _draws(dimensions: int) -> Array:
    """Return standard normal draws spread evenly in so many dimensions, (N, D): an additive sequence,
    mirrored so that its mean is 0.
    """
    root = 2.0
    for _ in range(50):
        root = (1.0 + root) ** (1.0 / (dimensions + 1))
    steps = np.array([(1.0 / root ** (d + 1)) % 1.0 for d in range(dimensions)])
    half = (0.5 + steps[None, :] * np.arange(1, _DRAWS // 2 + 1)[:, None]) % 1.0
    normal = NormalDist()
    z = np.vectorize(normal.inv_cdf)(np.clip(half, 1e-6, 1 - 1e-6))
    z = np.concatenate((z, -z))
    return np.asarray(z / np.sqrt(np.mean(z**2, axis=0)))


def _reached(rows_: Array, wanted: Array, at: Array) -> Array:
    """Return where each rising row, (R, G), reaches each value that is wanted of it, (R, N): all rows in one
    reading, each moved past the one before.
    """
    past = _APART * np.arange(len(rows_))[:, None]
    across = np.interp((wanted + past).ravel(), (rows_ + past).ravel(), np.tile(at, len(rows_)))
    return np.where(
        wanted < rows_[:, :1], -np.inf, np.where(wanted > rows_[:, -1:], np.inf, across.reshape(wanted.shape))
    )


def reliability_of(
    uses: Sequence[tuple[str, str, Array]],
    gusts: Array,
    weeks: int,
    rough: Array,
    learnt: Mapping[str, float] | None = None,
) -> Reliability:
    """Return how likely the links of a structure are to stand the season of so many weeks.

    What is of one material group (all that the soil holds, all that is wood) is strong or weak together,
    lognormal about its median with the spread of its row in uncertainties.csv, and stays so all season; how
    hard the wind pulls at leaves is as little known and common to all that the wind loads. The strongest
    gusts of the weeks are independent of each other. In a week the gust exceeds what a link bears with the
    yearly law of EN 1991-1-4, whose integral over the gusts of a week has a closed form, so that P = E[exp(−Σ
    h)], h = exp(−((v/v10)² a − 1)/K)/20 at the gust v at which the drawn strength is reached.

    Args:
        uses: Of each check: the key of its link, the row of uncertainties.csv it rests on, and its use by
            median strengths over weeks and rising gusts in moist soil, (W or 1, G or 1).
        gusts: The rising gusts, (G,). [m/s]
        weeks: Number of weeks.
        rough: Once-in-ten-seasons gust of each week, (W,). [m/s]
        learnt: Spreads that the log of the garden taught, in place of those of uncertainties.csv.

    Source: en-1991-1-4
    """
    classes = sorted({material_group for _, material_group, _ in uses} | {_LEAF})
    known = learnt or {}
    spread = np.array([known.get(key, tables.uncertainties()[key].dispersion) for key in classes])
    drawn = dict(zip(classes, (_draws(len(classes)) * spread).T, strict=True))
    use = stacked([given for _, _, given in uses], (weeks, len(gusts)))
    log_use = np.maximum.accumulate(np.log(np.clip(use, 1e-12, 1e12)), axis=-1)
    blown = np.any(log_use[..., -1] > log_use[..., 0] + _BLOWN, axis=-1)
    wanted = np.stack(
        [
            drawn[material_group] - (drawn[_LEAF] if moved and material_group != _LEAF else 0.0)
            for (_, material_group, _), moved in zip(uses, blown, strict=True)
        ]
    )
    # what even the weakest bears in a gust that never comes is not read further
    far = np.minimum(np.searchsorted(gusts, _NEVER * rough), len(gusts) - 1)
    near = log_use[:, np.arange(weeks), far] >= np.min(wanted, axis=-1)[:, None]
    of, week = np.nonzero(near)
    rates = np.zeros((*near.shape, wanted.shape[-1]))
    if of.size:
        borne = np.exp(_reached(log_use[of, week], wanted[of], np.log(gusts)))
        rates[of, week] = wind.weekly_rate(borne / rough[week, None])
    links: dict[str, Array] = {}
    for (key, _, _), rate in zip(uses, rates, strict=True):
        links[key] = np.maximum(links[key], rate) if key in links else rate
    together = np.maximum.reduce(list(links.values()))
    return Reliability({key: np.sum(rate, axis=0) for key, rate in links.items()}, np.sum(together, axis=0))
