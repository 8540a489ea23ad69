"""What is still to come of a harvest, from what has come so far."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..mechanics import Array
from ..mechanics.bayes import normal_posterior
from .harvest import Harvest

_GOOD = 1.2816  # standard deviations of a good year, one in ten, above a usual one
ONE_SEASON = 0.35  # spread of what a whole season tells of its own yield: dates that shift, picks not weighed
_LEAST_SHARE = 0.03  # of the season's harvest, before which nothing is told from it
_USUAL_SPREAD = 0.3  # of a crop whose good year is not known


@dataclass(frozen=True)
class HarvestForecast:
    """A harvest as it is forecast today.

    came: picked so far. [kg] meant: forecast for so far, before anything was picked. [kg] factor: on what is
    still to come. harvest: past weeks as they were, the rest with the factor.
    """

    came: float
    meant: float
    factor: float
    harvest: Harvest


def prior_spread(harvest: Harvest) -> float:
    """Return the standard deviation of the logarithm of a season's yield, from its good year: one in ten.
    [-]
    """
    return math.log(harvest.good) / _GOOD if harvest.good > 1 else _USUAL_SPREAD


def forecast_of(
    harvest: Harvest, mondays: Sequence[dt.date], picked: Sequence[tuple[dt.date, float]], today: dt.date
) -> HarvestForecast | None:
    """Return a harvest as it is forecast from what was picked so far; nothing where nothing was.

    The yield of a season over its usual one is taken as log-normal, its spread from a good year of the
    tables; what came over what was meant to come so far is one reading of it, the surer the more of the
    season has passed. Its posterior median is the factor on the rest.

    Args:
        harvest: As forecast before anything was picked.
        mondays: First days of its weeks.
        picked: Days, and what was picked on each. [kg]
        today: Of the garden.

    Source: gelman-2.5 (normal data, known variance)
    """
    in_season = [
        (day, kg) for day, kg in picked if mondays[0] <= day <= min(today, mondays[-1] + dt.timedelta(days=6))
    ]
    if not in_season:
        return None
    came_by_week: Array = np.zeros(len(mondays))
    for day, kg in in_season:
        came_by_week[(day - mondays[0]).days // 7] += kg
    passed = np.array([min(max((today - monday).days / 7, 0.0), 1.0) for monday in mondays])
    came, meant = float(np.sum(came_by_week)), float(np.sum(harvest.usual * passed))
    whole = float(np.sum(harvest.usual))
    share = meant / whole if whole else 0.0
    factor = 1.0
    if share >= _LEAST_SHARE:
        factor = math.exp(
            normal_posterior(
                0.0, prior_spread(harvest), math.log(came / meant), ONE_SEASON / math.sqrt(share)
            )[0]
        )

    def now(weeks: Array) -> Array:
        return np.asarray(came_by_week + weeks * (1 - passed) * factor)

    told = replace(harvest, low=now(harvest.low), usual=now(harvest.usual), high=now(harvest.high))
    return HarvestForecast(came, meant, factor, told)
