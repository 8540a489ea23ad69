"""Bayes’ rule where it has a closed form."""

from __future__ import annotations


def normal_posterior(mean: float, sd: float, reading: float, error: float) -> tuple[float, float]:
    """Return mean and standard deviation of a normal quantity after one reading of it. [the unit of the
    quantity]

    Args:
        mean: Of the prior.
        sd: Of the prior, above 0.
        reading: What was read.
        error: Standard deviation of the reading, above 0.

    Returns:
        Mean and standard deviation of the posterior, in the unit of the quantity.

    Source: gelman-2.5
    """
    prior, seen = 1.0 / sd**2, 1.0 / error**2
    return (mean * prior + reading * seen) / (prior + seen), (prior + seen) ** -0.5


def gamma_posterior(shape: float, exposure: float, count: int, seen: float) -> tuple[float, float]:
    """Return shape and exposure of a gamma-distributed rate after so many events in so long. [-]

    Args:
        shape: Of the prior, above 0.
        exposure: Of the prior, in the unit of time, above 0.
        count: Events that were seen.
        seen: How long was looked, in that unit.

    Returns:
        Shape and exposure of the posterior; its mean is their ratio.

    Source: gelman-2.6
    """
    return shape + count, exposure + seen
