"""What harvests teach: how much a crop bears here against what the tables say."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..log.now import picked_of
from ..mechanics.bayes import normal_posterior
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..season.forecast import ONE_SEASON, prior_spread
from ..season.harvest import Harvest, harvest_of
from ..season.tasks import GrownPlanting
from .tables_alone import tended_by_tables

_WEEKS = 53
_WEIGHED = 0.5  # of the weeks of a harvest, in which it was weighed at least, or its season tells nothing
_BY_WEEK = 0.02  # of a season's harvest in a week, from which it is one of its weeks


@dataclass(frozen=True)
class YieldLesson:
    """What the seasons of a crop teach: each season's harvest over what the tables say, by year; and the
    factor from all of them with the spreads of its logarithm before and after.
    """

    crop: str
    seasons: tuple[tuple[int, float], ...]
    factor: float
    prior: float
    spread: float


def yields_of(garden: Garden, log: Sequence[Entry], today: dt.date) -> list[YieldLesson]:
    """Return what the harvests of seasons that are over teach, crop by crop.

    A season counts for a support where it was weighed in at least half of the weeks of its harvest; past
    seasons are held against the plants that grow on it now. The yield here over that of the tables is taken
    as log-normal, its spread from a good year; a season reads it with the spread of one.

    Args:
        garden: With its supports and plants.
        log: All that happened, in order of days.
        today: Of the garden; a harvest that goes on is not read.

    Source: gelman-2.5
    """
    ratios: dict[str, dict[int, list[float]]] = {}
    priors: dict[str, float] = {}
    for bed in garden.beds:
        for structure in bed.structures:
            for grown in tended_by_tables(garden, bed, structure).grown:
                crop = grown.planting.crop
                if not grown.crop.yield_kg:
                    continue
                mondays = _mondays(grown)
                harvest = harvest_of(grown, mondays)
                priors[crop] = prior_spread(harvest)
                for year, ratio in _seasons(grown, harvest, mondays, log, structure.key, today):
                    ratios.setdefault(crop, {}).setdefault(year, []).append(ratio)
    return [_lesson(crop, years, priors[crop]) for crop, years in sorted(ratios.items())]


def _lesson(crop: str, years: dict[int, list[float]], prior: float) -> YieldLesson:
    mean, sd = 0.0, prior
    seasons = []
    for year, found in sorted(years.items()):
        log_ratio = float(np.mean(np.log(found)))
        mean, sd = normal_posterior(mean, sd, log_ratio, ONE_SEASON)
        seasons.append((year, math.exp(log_ratio)))
    return YieldLesson(crop, tuple(seasons), math.exp(mean), prior, sd)


def _mondays(grown: GrownPlanting) -> tuple[dt.date, ...]:
    first = grown.date(grown.course.start)
    begins = first - dt.timedelta(days=first.weekday())
    return tuple(begins + dt.timedelta(days=7 * n) for n in range(_WEEKS))


def _seasons(
    grown: GrownPlanting,
    harvest: Harvest,
    mondays: Sequence[dt.date],
    log: Sequence[Entry],
    structure: str,
    today: dt.date,
) -> list[tuple[int, float]]:
    """Return the years in which a planting was weighed as long as it bore, with what came over what the
    tables say.
    """
    usual = float(np.sum(harvest.usual))
    if usual <= 0:
        return []
    own = np.flatnonzero(harvest.usual > _BY_WEEK * usual)
    first, last = mondays[int(own[0])], mondays[int(own[-1])] + dt.timedelta(days=6)
    picked = picked_of(log, structure, grown.planting.crop)
    found = []
    for back in range(30):
        begins, ends = _back(first, back), _back(last, back)
        if ends >= today:
            continue
        about = dt.timedelta(days=28)
        came = [(day, kg) for day, kg in picked if begins - about <= day <= ends + about]
        weeks = {(day - begins).days // 7 for day, _ in came}
        if came and len(weeks) >= _WEIGHED * len(own):
            found.append((ends.year, sum(kg for _, kg in came) / usual))
    return found


def _back(day: dt.date, years: int) -> dt.date:
    return day - dt.timedelta(days=round(365.2425 * years))
