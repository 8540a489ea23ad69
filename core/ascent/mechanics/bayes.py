"""Bayes’ rule where it has a closed form."""

from __future__ import annotations


def normal_posterior(mean: float, sd: float, reading: float, error: float) -> tuple[float, float]:
    """Return mean and standard deviation of a normal quantity after one reading of it.

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
