"""A season week by week: loads, canopy, what can be done."""

from __future__ import annotations

from ..analysis.design import Design
from ..wording import speed_text
from ..words.quantities import System
from .figures import finite, of_winds
from .readout import Foliage, Week


def week_report(e: Design, index: int, system: System) -> Week:
    """Return one week of a design in words: its limit gust and what moves."""
    date = e.season.date(index)
    lean = e.service[0].amount
    return Week(
        date=f"{date:%Y-%m-%d}",
        label=e.season.label(index),
        short=f"{date.day} {date:%b}",
        limit=finite(float(e.limit[0, index])),
        limit_text=speed_text(float(e.limit[0, index]), system),
        saturated=finite(float(e.limit[1, index])),
        median=finite(float(e.median_limit[0, index])),
        weakest=e.weakest(index),
        usual=finite(float(e.weekly_gusts["usual"][index])),
        rare=finite(float(e.weekly_gusts["rare"][index])),
        lean=of_winds(lean, index),
        sag=of_winds(next((service.amount for service in e.service if service.key == "sag"), 0.0), index),
    )


def foliage_of(e: Design) -> tuple[Foliage, ...]:
    """Return the leaves of each planting by week, for the drawings."""
    foliages = []
    for growth in e.growths:
        crop = growth.crop
        foliages.append(
            Foliage(
                crop=crop.key,
                name=crop.name,
                habit=crop.habit,
                top=tuple(finite(float(v)) for v in growth.top),
                bottom=growth.bottom,
                cover=tuple(finite(float(v)) for v in growth.cover),
                depth=crop.depth_m,
                fruit_kg=tuple(finite(float(v)) for v in growth.fruit_kg),
                fruit_size=crop.fruit_max or 0.01,
            )
        )
    return tuple(foliages)
