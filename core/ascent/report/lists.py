"""A shopping list, how its stock is cut, and what it comes to in a season."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable

from .. import tables
from ..buying.buyer import CutBar
from ..buying.parts import Part
from ..plan.structure import Planting
from ..sizing.size import YEARS
from ..wording import money
from ..words.quantities import System, to_si, with_sizes, write
from ..words.texts import say
from .readout import CostReport, CutReport, PartReport

_CALLED = 0.025  # share by which a length sold may differ from how it is called


def part_reports(parts: Iterable[Part], system: System) -> tuple[PartReport, ...]:
    """Return the lines of a shopping list in words."""
    return tuple(_part(part, system) for part in parts)


def _part(part: Part, system: System) -> PartReport:
    long = part.pack in ("panel", "sheet", "roll", "coil", "spool") or (part.pack == "piece" and part.length)
    size = sold_length(part.pack_size, system) if long else ""
    of = f" of {part.pack_size:g}" if part.pack == "pack" else f" of {size}" if size else ""
    plural = "" if part.packs == 1 else "s"
    cut = f", cut to {write(part.length, 'length', system)}" if part.pack == "spool" else ""
    return PartReport(
        key=part.key,
        price_key=part.price_key,
        name=with_sizes(part.name, system),
        use=with_sizes(part.use, system, exact=True),
        count=part.count,
        buy=_from_shed(part, system) if part.own else f"{part.packs} {part.pack}{plural}{of}{cut}",
        price=part.price,
        cost=round(part.cost, 2),
        shelf=part.shelf,
        own=part.own,
        missing=part.missing,
        lasts=f"{part.life:g} season{'' if part.life == 1 else 's'}" if part.life else "",
    )


def sold_length(length: float, system: System) -> str:
    """Return a length as it is sold: for readers of feet in whole feet where it is called so, 7 ft for what
    is 2.10 m. [m]
    """
    feet = length / to_si("foot")
    if system == "imperial" and feet >= 1.0 and abs(feet - round(feet)) < _CALLED * feet:
        return f"{round(feet)} ft"
    return write(length, "length", system)


def _from_shed(part: Part, system: System) -> str:
    length = write(part.length, "length", system) if part.length else ""
    counted = f"{part.count} of {length}" if length and part.pack_size == part.length else length
    return f"{counted or part.count} from the shed"


def cut_reports(bars: Iterable[CutBar], system: System) -> tuple[CutReport, ...]:
    """Return how stock is cut, what is cut alike in one line."""
    alike = Counter(bars)
    return tuple(
        CutReport(
            name=with_sizes(bar.item.name, system),
            use=with_sizes(bar.use, system, exact=True),
            bars=count,
            length=bar.length,
            length_text=sold_length(bar.length, system),
            cuts=tuple((length, write(length, "length", system)) for length in bar.cuts),
            rest=bar.rest,
            rest_text=write(bar.rest, "length", system),
            own=bar.own,
            looked=say("cuts.over", system, {"over": (100 * bar.over, "count")})
            if bar.over
            else say("cuts.least", system),
        )
        for bar, count in alike.items()
    )


def cost_report(
    parts: tuple[Part, ...],
    plantings: Iterable[Planting],
    currency: str,
    system: System,
    *,
    hours: float = 0.0,
    hour: float = 0.0,
) -> CostReport:
    """Return what a shopping list comes to in a season: each part over its life, or as long as it is used.
    Hours of work [h], and what an hour is counted at [money/h].

    Args:
        parts: The list.
        plantings: What grows on it.
        currency: The garden's.
        system: The reader's units.
        hours: Of building it, in a season.
        hour: What one is counted at.

    Source: handbook-season-11
    """
    plantings = tuple(plantings)
    season = sum(part.cost / min(part.life or YEARS, YEARS) for part in parts) + hours * hour
    crop = sum(planting.count * usual_yield(planting) for planting in plantings)
    plant, weight = per_crop(season, plantings, currency, system)
    return CostReport(
        season=money(season, currency),
        plant=plant,
        crop=weight,
        said=say(
            "costs.said_hours" if hour else "costs.said",
            system,
            {"years": (YEARS, "count"), "crop": (crop, "mass")},
            {"hour": money(hour, currency), "work": money(hours * hour, currency)},
        ),
    )


def per_crop(season: float, plantings: Iterable[Planting], currency: str, system: System) -> tuple[str, str]:
    """Return what a season's cost comes to for each plant, and for each kilogram (pound) of the crop.
    [money]
    """
    plantings = tuple(plantings)
    plants = sum(planting.count for planting in plantings)
    crop = sum(planting.count * usual_yield(planting) for planting in plantings)
    unit, each = ("kg", 1.0) if system == "metric" else ("lb", to_si("pound"))
    return (
        f"{money(season / plants, currency)} a plant",
        f"{money(season / (crop / each), currency)} a {unit}" if crop else "",
    )


def usual_yield(planting: Planting) -> float:
    """Return what one plant usually bears in a season. [kg]"""
    crop = tables.crops()[planting.crop]
    free = planting.training == "free" and crop.free_yield_kg is not None
    return crop.free_yield_kg if free and crop.free_yield_kg is not None else crop.yield_kg
