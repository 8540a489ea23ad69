"""What storms teach: supports that stood and supports that failed, against what each was calculated to hold.

What is not well known (uncertainties.csv, and how gusty the place is) is drawn many times by its prior; each
draw calculates the load path of each support in the week of each storm, and weighs as much as it fits what
was found.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from .. import tables
from ..analysis.design import design_of
from ..loads.cases import Cases
from ..loads.season import season_of
from ..log.now import DAMAGED
from ..mechanics import Array
from ..mechanics.importance import Weighted, posterior, survival_log_likelihood
from ..path.loadpath import Link
from ..plan.entries import Entry
from ..plan.garden import Garden
from ..plan.structure import Structure, as_it_stands
from ..site import GROUND, Site, plain_site, untaught

SITE = "site"
DRAWS = 1200
_LOADS = ("leaf", "crop", "stiffness")
_SHARED, _OWN = 0.8, 0.6  # of the spread of the ground: of its soil wherever it lies, and of a bed by itself
_MOST = 16  # reports that are learnt from, those that tell most
_STOOD = 2  # reports of one support that stood: the strongest gusts hold all that the others tell
_NEAR = 2  # days between a storm and what was found after it
_LEAST_GUST = 8.0  # at 10 m, in which nothing is told [m/s]

Thing = tuple[str, str]  # key of what is not well known, and about what: as in `plan.place.Taught`


@dataclass(frozen=True)
class Met:
    """A gust that a support met, at 10 m [m/s], and whether it stood; member: what broke, empty for all."""

    site: Site
    structure: Structure
    on: dt.date
    gust: float
    stood: bool
    member: str = ""


@dataclass(frozen=True)
class Posterior:
    """What storms told of one thing: mean and standard deviation of the logarithm of its factor, before and
    after.
    """

    thing: Thing
    prior: float
    mean: float
    sd: float

    @property
    def factor(self) -> float:
        """Return how many times what the tables say it is, as likely more as less."""
        return float(np.exp(self.mean))


@dataclass(frozen=True)
class StormLesson:
    """What the storms of a garden teach: of what, on which reports, and how many draws fit them."""

    met: tuple[Met, ...]
    told: tuple[Posterior, ...]
    effective: float
    draws: int


def gusts_of(log: Sequence[Entry]) -> dict[dt.date, float]:
    """Return the strongest gusts that were written, by day, at 10 m. [m/s]"""
    found: dict[dt.date, float] = {}
    for entry in log:
        if entry.kind == "storm" and entry.gust:
            found[entry.on] = max(entry.gust, found.get(entry.on, 0.0))
    return found


def storm_about(gusts: Mapping[dt.date, float], on: dt.date) -> float | None:
    """Return the strongest gust of a storm of that day or the days before it, nothing where there was none.
    [m/s]
    """
    return max((gust for day, gust in gusts.items() if 0 <= (on - day).days <= _NEAR), default=None)


def _gust_of(entry: Entry, gusts: Mapping[dt.date, float], garden: Garden) -> float | None:
    """Return the gust in which an entry’s support was found as it was; a part that broke in no storm broke by
    itself.
    """
    on = entry.on
    if entry.gust or (near := storm_about(gusts, on)):
        return entry.gust or near
    if entry.kind != "storm" and entry.member:
        return None
    monday = on - dt.timedelta(days=on.weekday())
    weeks = garden.warmth.seen if garden.warmth else ()
    return next((week.gust for week in weeks if week.monday == monday), None)


def met_in(garden: Garden, log: Sequence[Entry]) -> list[Met]:
    """Return the gusts that supports of a garden met and somebody wrote how they were found, the most telling
    first: what failed, then what stood in the strongest.

    Args:
        garden: Its supports are taken as they stand now.
        log: All that happened, in order of days.
    """
    gusts = gusts_of(log)
    own = {
        structure.key: (plain_site(garden, bed), as_it_stands(structure))
        for bed in garden.beds
        for structure in bed.structures
    }
    failed, stood = {}, []
    for entry in log:
        place = own.get(entry.structure or "")
        if place is None or not _tells(entry):
            continue
        gust = _gust_of(entry, gusts, garden)
        if gust is None or gust < _LEAST_GUST:
            continue
        site, structure = untaught(place[0], "yield"), place[1]
        if _week(site, structure, entry.on) is None:
            continue
        if entry.found == "stood":
            stood.append(Met(site, structure, entry.on, gust, True))
            continue
        key = (structure.key, entry.on)
        if key not in failed or entry.member:
            failed[key] = Met(site, structure, entry.on, gust, False, entry.member)
    kept: dict[str, int] = {}
    strongest = []
    for met in sorted(stood, key=lambda met: -met.gust):
        kept[met.structure.key] = kept.get(met.structure.key, 0) + 1
        if kept[met.structure.key] <= _STOOD and (met.structure.key, met.on) not in failed:
            strongest.append(met)
    return [*failed.values(), *strongest][:_MOST]


def _tells(entry: Entry) -> bool:
    return entry.kind in ("break", "slip") or (entry.kind == "storm" and entry.found in ("stood", *DAMAGED))


def _week(site: Site, structure: Structure, on: dt.date) -> int | None:
    """Return the week of its season that a day of any year lies in."""
    return season_of(site.garden, structure.plantings, structure.covers).week_in_any_year(on)


class _Loaded:
    """A support in the storm that it met, to be asked with many draws."""

    def __init__(self, met: Met) -> None:
        self.met, self.design = met, design_of(met.site, met.structure)
        self.week = _week(met.site, met.structure, met.on) or 0
        self.gust = met.gust * met.site.forecast_ratio
        self.material_group = {check.material_group for link in self._path({}) for check in link.checks}

    def _path(self, factors: Mapping[str, Array]) -> tuple[Link, ...]:
        gust = np.full((1, 1, 1), self.gust) * factors.get(SITE, 1.0)
        cases = Cases(gust, np.ones((1, 1, 1)), np.zeros((1, 1, 1)))
        for key in _LOADS:
            if key in factors:
                cases = cases.scaled(key, factors[key])
        return self.design.under(cases).path()

    def log_likelihood(self, logs: Mapping[str, Array], draws: int) -> Array:
        """Return how likely each draw makes what was found, (N,).

        Args:
            logs: Of each thing, the logarithms of its factor, (N,).
            draws: N.
        """
        factors = {key: np.exp(logs[key]).reshape(-1, 1, 1, 1) for key in (SITE, *_LOADS)}
        margins: dict[str, Array] = {}
        blamed = []
        for link in self._path(factors):
            own = [
                logs.get(check.material_group, 0.0) - self._log_use(check.median_utilisation, draws)
                for check in link.checks
            ]
            margins[link.key] = np.minimum.reduce([np.broadcast_to(each, (draws,)) for each in own])
            if self.met.member and self.met.member in link.members:
                blamed.append(link.key)
        least = np.minimum.reduce([margins[key] for key in blamed or margins])
        return survival_log_likelihood(least, tables.constant("storm_misfit"), self.met.stood)

    def _log_use(self, use: Array, draws: int) -> Array:
        weeks = np.asarray(use)
        while weeks.ndim < 4:
            weeks = weeks[None]
        of_week = weeks[:, 0, min(self.week, weeks.shape[2] - 1), 0]
        return np.log(np.clip(np.broadcast_to(of_week, (draws,)), 1e-6, 1e6))


def lesson_of(garden: Garden, log: Sequence[Entry], draws: int = DRAWS) -> StormLesson | None:
    """Return what storms teach a garden; nothing where nobody wrote how anything was found in one.

    Beds of one soil share most of what is not known of it, and keep a rest of their own.

    Args:
        garden: With its supports.
        log: All that happened, in order of days.
        draws: How many.

    Source: gelman-10.4
    """
    met = met_in(garden, log)
    if not met:
        return None
    loaded = [_Loaded(each) for each in met]
    things = _things(loaded)
    index = {thing: n for n, thing in enumerate(things)}

    def logs_at(site: Site, z: Array) -> dict[str, Array]:
        found = {key: _spread(key) * z[:, n] for (key, about), n in index.items() if not about}
        for key in GROUND:
            soil, bed = index.get((key, f"soil/{site.bed.soil}")), index.get((key, f"bed/{site.bed.key}"))
            if soil is not None and bed is not None:
                found[key] = _spread(key) * (_SHARED * z[:, soil] + _OWN * z[:, bed])
        return found

    def log_likelihood(z: Array) -> Array:
        return np.asarray(sum(each.log_likelihood(logs_at(each.met.site, z), len(z)) for each in loaded))

    found = posterior(len(things), log_likelihood, draws)
    soils = {f"bed/{each.met.site.bed.key}": f"soil/{each.met.site.bed.soil}" for each in loaded}
    return StormLesson(tuple(met), tuple(_told(found, index, soils)), found.effective, draws)


def _spread(key: str) -> float:
    return tables.constant("site_gust") if key == SITE else tables.uncertainties()[key].dispersion


def _things(loaded: Sequence[_Loaded]) -> list[Thing]:
    found: dict[Thing, None] = dict.fromkeys([(SITE, ""), *((key, "") for key in _LOADS)])
    for each in loaded:
        for key in sorted(each.material_group):
            if key in GROUND:
                found[key, f"soil/{each.met.site.bed.soil}"] = None
                found[key, f"bed/{each.met.site.bed.key}"] = None
            elif key not in _LOADS:
                found[key, ""] = None
    return list(found)


def _told(found: Weighted, index: Mapping[Thing, int], soils: Mapping[str, str]) -> list[Posterior]:
    told = []
    for (key, about), n in index.items():
        spread = _spread(key)
        z = found.z[:, n]
        if about.startswith("bed/"):
            z = _SHARED * found.z[:, index[key, soils[about]]] + _OWN * z
        elif about:
            z = _SHARED * z
        mean = float(found.weights @ z)
        sd = float(np.sqrt(found.weights @ np.square(z - mean)))
        rest = _OWN if about.startswith("soil/") else 0.0  # of a bed of which nothing was seen
        told.append(Posterior((key, about), spread, spread * mean, spread * float(np.hypot(sd, rest))))
    return told
