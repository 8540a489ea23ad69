"""Bayes’ rule against its closed form.

Source: Gelman, Carlin, Stern, Dunson, Vehtari, Rubin, Bayesian Data Analysis, section 2.5 (from memory).
"""

from __future__ import annotations

import math

from ascent.mechanics.bayes import normal_posterior

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
