"""Importance sampling: draws of what is not well known, weighted by how well they fit what was seen."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from scipy.special import log_ndtr

from . import Array

_ENOUGH = 0.2  # of the draws as an effective sample, from which no better proposal is looked for
_WIDER = 1.3  # than the draws that fit, a proposal is made, so that its tails are heavier than theirs
_ROUNDS = 6
_DEFENSIVE = 0.1  # share of the draws that stay with the prior


@dataclass(frozen=True)
class Weighted:
    """Draws of D standard normal things and their weights: z (N, D), weights (N,) that sum to one."""

    z: Array
    weights: Array

    @property
    def effective(self) -> float:
        """Return how many draws of the posterior itself they are worth.

        Source: gelman-10.4
        """
        return float(1.0 / np.sum(np.square(self.weights)))

    @property
    def mean(self) -> Array:
        """Return the posterior mean of each, (D,)."""
        return np.asarray(self.weights @ self.z)

    @property
    def sd(self) -> Array:
        """Return the posterior standard deviation of each, (D,)."""
        return np.sqrt(np.maximum(self.weights @ np.square(self.z - self.mean), 1e-12))


def posterior(
    dimensions: int, log_likelihood: Callable[[Array], Array], draws: int, seed: int = 1
) -> Weighted:
    """Return draws of independent standard normal things after what was seen of them. [-]

    The first draws are of the prior. While few of them fit, a normal proposal is set about those that do,
    somewhat wider, and a tenth of the draws stays with the prior, so that no weight grows without bound.

    Args:
        dimensions: How many things there are, D.
        log_likelihood: Of draws (N, D), the natural logarithm of how likely each makes what was seen, (N,).
        draws: N.
        seed: Of the draws.

    Returns:
        The draws of the round that fits best, with their weights.

    Source: gelman-10.4
    """
    rng = np.random.default_rng(seed)
    mean, sd = np.zeros(dimensions), np.ones(dimensions)
    best: Weighted | None = None
    for _ in range(_ROUNDS):
        z = mean + sd * rng.standard_normal((draws, dimensions))
        stays = rng.random(draws) < _DEFENSIVE
        z[stays] = rng.standard_normal((int(stays.sum()), dimensions))
        prior = -0.5 * np.sum(z**2, axis=1)
        own = -0.5 * np.sum(((z - mean) / sd) ** 2, axis=1) - np.sum(np.log(sd))
        proposed = np.logaddexp(np.log(1 - _DEFENSIVE) + own, np.log(_DEFENSIVE) + prior)
        found = Weighted(z, normalised(log_likelihood(z) + prior - proposed))
        if best is None or found.effective > best.effective:
            best = found
        if found.effective >= _ENOUGH * draws:
            break
        # how far it narrows is bounded by how few draws tell of it
        mean, sd = found.mean, np.clip(_WIDER * found.sd, 0.3, 1.5)
    assert best is not None  # noqa: S101 - there is one round at least
    return best


def survival_log_likelihood(log_margin: Array, dispersion: float, survived: bool) -> Array:
    """Return how likely it is that something with each margin survived, or failed. [-]

    Args:
        log_margin: Natural logarithms of strength over load by each draw, (N,).
        dispersion: Logarithmic standard deviation of what the draws do not hold, above 0.
        survived: Whether it stood.

    Returns:
        Natural logarithms of the likelihood, (N,).

    Source: gelman-10.4
    """
    distance = np.asarray(log_margin) / dispersion
    return np.asarray(log_ndtr(distance if survived else -distance))


def normalised(log_weights: Array) -> Array:
    """Return weights that sum to one, from their logarithms. [-]

    Args:
        log_weights: Of each draw, (N,); one that is impossible is minus infinity.

    Returns:
        Weights, (N,).

    Source: gelman-10.4
    """
    shifted = np.exp(log_weights - np.max(log_weights))
    return np.asarray(shifted / np.sum(shifted))
