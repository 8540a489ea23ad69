"""What a picker lists: crops, soils, exposures, items, and each family's options as its model describes
them.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import asdict
from functools import lru_cache
from typing import Any, get_args

from ascent import plan as model
from ascent import tables
from ascent.families import FAMILIES
from ascent.family.wishes import Wish
from ascent.tables import own
from ascent.tables.rows import Cover, Crop, Item, Rain, Water, WindClimate
from ascent.words.quantities import System, with_sizes
from ascent.words.texts import has, template

from .. import schemas


@lru_cache(maxsize=2)
def catalogue(units: System) -> schemas.Catalogue:
    """Return everything a picker lists, sizes in names as people of those units write them."""
    return schemas.Catalogue(
        bed_tops=[
            schemas.Choice(key=key, name=template(f"value.{key}"), roles=[]) for key in get_args(model.BedTop)
        ],
        bed_kinds=[
            schemas.Choice(key=key, name=template(f"bed-kind.{key}"), roles=[])
            for key in get_args(model.BedKind)
        ],
        feature_kinds=[
            schemas.FeatureChoice(
                key=kind,
                name=row.name,
                group=row.group,
                width=row.width,
                length=row.length,
                round=kind in model.ROUND,
            )
            for kind, row in ((kind, tables.features()[kind]) for kind in get_args(model.FeatureKind))
        ],
        crops=_choices(tables.crops().values()),
        soils=[
            schemas.Choice(key=s.key, name=f"{s.name} ({s.also})" if s.also else s.name, roles=[])
            for s in tables.soils().values()
        ],
        climates=_choices(tables.climates().values()),
        covers=_choices(tables.covers().values()),
        waters=_choices(tables.waters().values()),
        rains=_choices(tables.rains().values()),
        tools=[schemas.Choice(key=tool.key, name=tool.name, roles=[]) for tool in tables.tools().values()],
        exposures=[
            schemas.Choice(key=e.key, name=f"{e.name}: {e.where}", roles=[])
            for e in tables.exposures().values()
        ],
        stocked=[
            schemas.Choice(key=key, name=template(f"table.{key}"), roles=[])
            for key in get_args(model.StockTable)
        ],
        measures={table: [m.name for m in of if m.name != "strength"] for table, of in own.MEASURES.items()},
        tables={name: _choices(table().values(), units) for name, table in tables.ITEM_TABLES.items()},
        bounds=_bounds(),
        families=[
            schemas.FamilyOut(
                key=key,
                name=template(f"family.{key}.name"),
                noun=template(f"family.{key}.noun"),
                options=_fields(family.options),
                wishes=[_wish(wish) for wish in family.wishes],
            )
            for key, family in FAMILIES.items()
        ],
    )


def _choices(
    rows: Iterable[Crop | WindClimate | Water | Rain | Cover | Item], units: System = "metric"
) -> list[schemas.Choice]:
    return [
        schemas.Choice(
            key=row.key,
            name=with_sizes(row.name, units),
            roles=list(row.serves) if isinstance(row, Item) else [],
        )
        for row in rows
    ]


def _fields(options: type[model.Typed]) -> list[schemas.OptionField]:
    properties: dict[str, dict[str, Any]] = options.model_json_schema()["properties"]
    option_fields = []
    for name, field in properties.items():
        when = field.get("when", {})
        values: Sequence[str] = field.get("enum") or (
            ["true", "false"] if field.get("type") == "boolean" else []
        )
        option_fields.append(
            schemas.OptionField(
                name=name,
                label=template(f"option.{name}"),
                group=template(f"group.{field['group']}"),
                kind=field["kind"] if field.get("type") != "boolean" else "flag",
                step=field.get("step", 0),
                low=field.get("minimum"),
                high=field.get("maximum"),
                table=field.get("table", ""),
                role=field.get("role", ""),
                when_option=when.get("option", ""),
                when_is=when.get("is", []),
                choices=[_value(name, v) for v in values],
                help=template(f"help.{name}") if has(f"help.{name}") else "",
            )
        )
    return option_fields


def _wish(wish: Wish) -> schemas.WishField:
    asks = [
        schemas.AskField(label=template(f"wish.{wish.key}.{ask.name}"), **asdict(ask)) for ask in wish.asks
    ]
    return schemas.WishField(key=wish.key, name=template(f"wish.{wish.key}.name"), asks=asks)


def _value(option: str, value: str) -> schemas.Choice:
    """Return one value of an option, with what it gains where growers are divided."""
    gain = f"gain.{option}.{value}"
    return schemas.Choice(
        key=value,
        name=template(f"value.{value}") if has(f"value.{value}") else value,
        roles=[],
        gain=template(gain) if has(gain) else "",
    )


def _bounds() -> dict[str, schemas.Bounds]:
    bounds = {}
    for name, kind in (
        ("planting", model.Planting),
        ("bed", model.BareBed),
        ("feature", model.Feature),
        ("structure", model.Structure),
        ("garden", model.Place),
        ("stock", model.Stock),
    ):
        for field, schema in kind.model_json_schema()["properties"].items():
            bounded = next(
                (each for each in (schema, *schema.get("anyOf", ())) if {"minimum", "maximum"} <= set(each)),
                None,
            )
            if bounded:
                bounds[f"{name}.{field}"] = schemas.Bounds(low=bounded["minimum"], high=bounded["maximum"])
    for measures in own.MEASURES.values():
        bounds |= {f"stock.{m.name}": schemas.Bounds(low=m.low, high=m.high) for m in measures}
    return bounds
