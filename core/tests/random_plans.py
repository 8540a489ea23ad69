"""Gardens drawn at random, whatever the plan's own model allows: each by its number, always the same."""

from __future__ import annotations

import datetime as dt
import random
from dataclasses import dataclass
from typing import Any

from ascent import tables
from ascent.families import FAMILIES
from ascent.files.weather import Day, WindForecast
from ascent.plan.bed import Bed
from ascent.plan.climate import Warmth
from ascent.plan.features import Feature
from ascent.plan.garden import Garden
from ascent.plan.structure import Covered, Planting, Structure

KINDS = ("in-ground", "in-ground", "raised", "container", "straw-bale")


@dataclass(frozen=True)
class Drawn:
    """A garden of one bed with one structure, on a day, with a forecast for it."""

    garden: Garden
    bed: Bed
    structure: Structure
    today: dt.date
    forecast: WindForecast


def serving(table: str, role: str) -> list[str]:
    """Return the keys of a table's rows that serve in a role."""
    return [item.key for item in tables.ITEM_TABLES[table]().values() if not role or role in item.serves]


def options_of(chance: random.Random, family: str, often: float) -> dict[str, Any]:
    """Return options of a family, each drawn within its bounds so often and else left as it is usual."""
    found: dict[str, Any] = {}
    for name, field in FAMILIES[family].options.model_json_schema()["properties"].items():
        if chance.random() > often:
            continue
        if field["kind"] == "item":
            found[name] = chance.choice(serving(field["table"], field["role"]))
        elif field.get("enum"):
            found[name] = chance.choice(field["enum"])
        elif field.get("type") == "boolean":
            found[name] = chance.random() < 0.5
        elif field["kind"] == "count":
            found[name] = chance.randint(field["minimum"], field["maximum"])
        else:
            found[name] = round(chance.uniform(field["minimum"], field["maximum"]), 3)
    return found


def drawn(number: int) -> Drawn:
    """Return the random garden of a number."""
    chance = random.Random(number)
    today = dt.date(2026, 1, 1) + dt.timedelta(days=chance.randrange(365))
    family = list(FAMILIES)[number % len(FAMILIES)]
    kind = chance.choice(KINDS)
    structure = Structure(
        key="it",
        name="It",
        family=family,
        options=options_of(chance, family, chance.choice((0.1, 0.5, 1.0))),
        plantings=tuple(_planting(chance, f"p{n}") for n in range(chance.choice((1, 1, 1, 2, 3)))),
        covers=(_cover(chance),) if chance.random() < 0.3 else (),
        along=round(chance.uniform(-0.5, 0.5), 2),
        turn=chance.choice((0.0, 0.0, 0.0, 90.0, 33.0)),
    )
    bed = Bed(
        key="bed",
        name="Bed",
        kind=kind,
        length=round(chance.uniform(0.3, 12.0), 2),
        width=round(chance.uniform(0.25, 3.0), 2),
        soil=chance.choice(list(tables.soils())),
        fill=chance.choice(list(tables.soils())),
        fill_depth=0.0 if kind == "in-ground" else round(chance.uniform(0.05, 1.2), 2),
        board=round(chance.uniform(0.0, 0.08), 3),
        structures=(structure,),
    )
    frosts = chance.choice(
        (("04-24", "10-27"), ("05-20", "09-20"), ("02-10", "12-20"), ("10-05", "04-25"), (None, None))
    )
    garden = Garden(
        name="Garden",
        latitude=chance.choice((-40.0, -25.0, 0.0, 26.0, 39.0, 53.0, 60.0)),
        last_frost=frosts[0],
        first_frost=frosts[1],
        warmth=_warmth(chance) if chance.random() < 0.5 else None,
        exposure=chance.choice(list(tables.exposures())),
        units=chance.choice(("metric", "imperial")),
        year=2026,
        beds=(bed,),
        features=_features(chance, bed),
    )
    return Drawn(garden, bed, structure, today, _forecast(chance, today))


def _planting(chance: random.Random, key: str) -> Planting:
    return Planting(
        key=key,
        crop=chance.choice(list(tables.crops())),
        count=chance.choice((1, 4, 9, 30, 600)),
        spacing=round(chance.uniform(0.03, 1.5), 2),
        side=chance.choice(("left", "right", "both")),
        training=chance.choice(("pruned", "free")),
        raised=chance.choice(("usual", "sown", "potted")),
        planted=_day(chance),
    )


def _day(chance: random.Random) -> str:
    return f"{chance.randint(1, 12):02d}-{chance.randint(1, 28):02d}"


def _cover(chance: random.Random) -> Covered:
    return Covered(cover=chance.choice(list(tables.covers())), on=_day(chance), off=_day(chance))


def _warmth(chance: random.Random) -> Warmth:
    return Warmth(
        height=round(chance.uniform(-50, 3000)),
        water=chance.choice(list(tables.waters())),
        rain=chance.choice(list(tables.rains())),
        rain_mm=round(chance.uniform(0, 3000)),
    )


def _features(chance: random.Random, bed: Bed) -> tuple[Feature, ...]:
    """Return what lies about a bed: most often lines along it, as drip lines lie."""
    found = []
    for n in range(chance.randint(0, 4)):
        kind = chance.choice(("drip-line", "drip-line", "water-pipe", "cable", "wall", "fence"))
        along = chance.random() < 0.6
        offset = round(chance.uniform(-bed.width, bed.width), 2)
        ends = ((-8.0, offset), (8.0, offset)) if along else ((offset, -6.0), (offset, 6.0))
        depth = chance.choice((None, 0.3, 0.6, 1.0)) if kind in ("water-pipe", "cable", "drip-line") else None
        found.append(Feature(key=f"f{n}", name=f"Thing {n}", kind=kind, points=ends, width=0.03, depth=depth))
    return tuple(found)


def _forecast(chance: random.Random, today: dt.date) -> WindForecast:
    days = [
        Day(
            day=today + dt.timedelta(days=n),
            low=5.0,
            high=20.0,
            rain=chance.choice((None, 0.0, 30.0, 428.0)),
            gust=chance.choice((None, 8.0, 18.0, 25.0, 40.0)),
        )
        for n in range(chance.randint(0, 8))
    ]
    issued = dt.datetime.combine(today, dt.time(5), dt.UTC)
    return WindForecast(
        format="ascent-weather",
        version=1,
        kind="forecast",
        station="Mast",
        issued=chance.choice((issued, issued.replace(tzinfo=None))),
        days=tuple(days),
    )
