"""Bayes’ rule against its closed form.

Source: Gelman, Carlin, Stern, Dunson, Vehtari, Rubin, Bayesian Data Analysis, sections 2.5, 2.6 and 10.4
(values from memory).
"""

from __future__ import annotations

import math

import numpy as np
from ascent.mechanics.bayes import gamma_posterior, normal_posterior
from ascent.mechanics.importance import Weighted, posterior, survival_log_likelihood

from tests.support import NearTestCase


class NormalTest(NearTestCase):
    def test_equal_precisions_meet_in_the_middle(self):
        mean, sd = normal_posterior(0.0, 1.0, 1.0, 1.0)
        self.assertNear(mean, 0.5)
        self.assertNear(sd, math.sqrt(0.5))

    def test_n_readings_one_by_one_are_their_mean_at_once(self):
        """μₙ = (μ₀/τ₀² + n·ȳ/σ²) / (1/τ₀² + n/σ²)."""
        readings = (3.1, 2.4, 4.0, 3.3)
        mean, sd = 1.0, 2.0
        for reading in readings:
            mean, sd = normal_posterior(mean, sd, reading, 0.8)
        precision = 1 / 2.0**2 + len(readings) / 0.8**2
        self.assertNear(mean, (1.0 / 2.0**2 + sum(readings) / 0.8**2) / precision, 1e-9)
        self.assertNear(sd, precision**-0.5, 1e-9)


class GammaTest(NearTestCase):
    """A gamma prior of a rate and events at that rate: shape + count, exposure + time (section 2.6)."""

    def test_against_the_posterior_summed_over_a_grid_of_rates(self):
        shape, exposure, count, seen = 3.0, 6.0, 2, 9.0
        rates = np.linspace(1e-4, 6.0, 60_001)
        density = rates ** (shape - 1) * np.exp(-exposure * rates) * rates**count * np.exp(-seen * rates)
        mean = float(np.sum(rates * density) / np.sum(density))
        after, longer = gamma_posterior(shape, exposure, count, seen)
        self.assertNear(after / longer, mean, 1e-4)


def _normal_log_likelihood(reading: float, error: float):
    return lambda z: -0.5 * ((reading - z[:, 0]) / error) ** 2


class ImportanceTest(NearTestCase):
    """Importance sampling (section 10.4) where the answer is known in another way."""

    def test_against_the_closed_form_of_a_normal(self):
        for reading, error in ((0.5, 1.0), (-1.5, 0.5), (3.0, 0.3)):
            mean, sd = normal_posterior(0.0, 1.0, reading, error)
            found = posterior(2, _normal_log_likelihood(reading, error), 4000)
            self.assertAlmostEqual(found.mean[0], mean, delta=0.06)
            self.assertAlmostEqual(found.sd[0], sd, delta=0.05)
            self.assertAlmostEqual(found.mean[1], 0.0, delta=0.12)  # what nothing was seen of stays as it was
            self.assertAlmostEqual(found.sd[1], 1.0, delta=0.1)

    def test_against_brute_force_over_a_grid(self):
        """One failure of something that hangs on two things: summed over the plane."""

        def seen(z):
            return survival_log_likelihood(1.2 + z[:, 0] - 0.5 * z[:, 1], 0.3, survived=False)

        axis = np.linspace(-6, 6, 601)
        grid = np.stack([each.ravel() for each in np.meshgrid(axis, axis)], axis=1)
        weights = np.exp(seen(grid) - 0.5 * np.sum(grid**2, axis=1))
        weights /= weights.sum()
        found = posterior(2, seen, 6000)
        for number in (0, 1):
            self.assertAlmostEqual(found.mean[number], float(weights @ grid[:, number]), delta=0.06)

    def test_against_rejection_sampling(self):
        """Draws of the prior that a coin with the odds of the likelihood keeps are the posterior itself."""

        def seen(z):
            return survival_log_likelihood(-0.4 + z[:, 0], 0.4, survived=True) + survival_log_likelihood(
                0.8 + z[:, 0] + z[:, 1], 0.4, survived=False
            )

        rng = np.random.default_rng(7)
        z = rng.standard_normal((200_000, 2))
        kept = z[np.log(rng.random(len(z))) < seen(z)]
        found = posterior(2, seen, 6000)
        self.assertGreater(len(kept), 5000)
        for number in (0, 1):
            self.assertAlmostEqual(found.mean[number], float(kept[:, number].mean()), delta=0.06)
            self.assertAlmostEqual(found.sd[number], float(kept[:, number].std()), delta=0.06)

    def test_intervals_hold_the_truth_as_often_as_they_say(self):
        """Four in five intervals of four in five hold what was drawn: by 200 made-up truths."""
        rng = np.random.default_rng(11)
        inside = 0
        for truth in rng.standard_normal(200):
            gusts = rng.normal(0.0, 1.0, 6)
            stood = rng.standard_normal(6) * 0.4 < truth - gusts

            def seen(z, gusts=gusts, stood=stood):
                return sum(
                    survival_log_likelihood(z[:, 0] - gust, 0.4, survived=bool(held))
                    for gust, held in zip(gusts, stood, strict=True)
                )

            found = posterior(1, seen, 800, seed=int(rng.integers(1, 10**6)))
            order = np.argsort(found.z[:, 0])
            upto = np.cumsum(found.weights[order])
            low, high = (found.z[order, 0][np.searchsorted(upto, share)] for share in (0.1, 0.9))
            inside += low <= truth <= high
        self.assertAlmostEqual(inside / 200, 0.8, delta=0.08)  # three standard errors

    def test_the_effective_sample_of_equal_weights_is_all_and_of_one_weight_one(self):
        z = np.zeros((50, 1))
        self.assertAlmostEqual(Weighted(z, np.full(50, 0.02)).effective, 50.0)
        self.assertAlmostEqual(Weighted(z, np.eye(50)[3]).effective, 1.0)
