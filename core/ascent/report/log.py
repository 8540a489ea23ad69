"""The log in words: each entry as a sentence, and what each kind of entry is asked for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from .. import tables
from ..analysis.design import design_of
from ..log.members import name_of
from ..log.now import Break, parts_of
from ..path.geometry import Geometry
from ..plan.entries import EITHER, Entry
from ..plan.fields import Typed
from ..plan.structure import Structure
from ..site import Site
from ..wording import gust_text, money
from ..words.quantities import System, write
from ..words.texts import has, template

_KINDS = {  # of the fields that are quantities
    "mass": "mass",
    "moved": "length",
    "height": "length",
    "pull": "force",
    "volume": "volume",
    "gust": "speed",
    "low": "temperature",
}
_SMALL = 1.0  # mass below which it is written in grams or ounces [kg]
_LEAST = 0.005  # length below which it is written in millimetres or sixteenths [m]


class LogField(Typed):
    """A field of a kind of entry: its name, what it is called, whether it is needed.

    quantity: kind of quantity, where it is one.
    """

    name: str
    label: str
    quantity: str
    needed: bool


class LogKindReport(Typed):
    """A kind of entry: what it is called, what one does to make it, and its fields in order.

    either: fields of which it needs one.
    """

    key: str
    name: str
    verb: str
    of_support: bool
    fields: tuple[LogField, ...]
    either: tuple[str, ...]


@dataclass(frozen=True)
class Where:
    """What an entry's keys mean: names of supports and beds by key, geometries of supports whose parts are
    named.
    """

    names: Mapping[str, str]
    geometries: Mapping[str, Geometry]


def log_kinds() -> tuple[LogKindReport, ...]:
    """Return every kind of entry, in the order in which they are offered."""
    return tuple(
        LogKindReport(
            key=row.key,
            name=row.name,
            verb=row.verb,
            of_support=row.about == "structure",
            either=EITHER.get(row.key, ()),
            fields=tuple(
                LogField(
                    name=name,
                    label=template(f"log-field.{name}"),
                    quantity=_KINDS.get(name, ""),
                    needed=name in row.needs,
                )
                for name in row.fields
                if name != "mends"
            ),
        )
        for row in tables.log_kinds().values()
        if row.key != "photo"
    )


def weight_text(kg: float, system: System) -> str:
    """Return a weight as a kitchen scale shows it. [kg]"""
    if kg >= _SMALL:
        return write(kg, "mass", system)
    return f"{kg * 1000:.0f} g" if system == "metric" else f"{kg / 0.028349523125:.0f} oz"


def _length(metres: float, system: System) -> str:
    return (
        f"{metres * 100:.1f} cm" if system == "metric" and metres < 1.0 else write(metres, "length", system)
    )


def entry_words(entry: Entry, system: System, currency: str, where: Where | None = None) -> str:
    """Return what an entry says, in one sentence; where it was is said beside it."""
    values = _values(entry, system, currency)
    values["part"] = _part(entry, where)
    parts = [template(f"entry.{entry.kind}").format_map(values)]
    for name in ("height", "pull", "minutes", "cost", "gust", "low"):
        key = f"entry-more.{entry.kind}-{name}"
        if getattr(entry, name) is not None and has(key):
            parts.append(template(key).format_map(values))
    if entry.kind == "storm" and entry.found:
        parts.append(template(f"entry-found.{entry.found}"))
    return "".join(parts)[:1].upper() + "".join(parts)[1:]


def written_of(entry: Entry, system: System, where: Where | None = None) -> dict[str, str]:
    """Return how the quantities of an entry are written, and its part as it is counted."""
    written = {
        name: write(getattr(entry, name), kind, system)
        for name, kind in _KINDS.items()
        if getattr(entry, name) is not None
    }
    if entry.mass is not None:
        written["mass"] = weight_text(entry.mass, system)
    if entry.moved is not None:
        written["moved"] = _length(entry.moved, system)
    geometry = where.geometries.get(entry.structure or "") if where else None
    if entry.member and geometry:
        written["member"] = name_of(geometry, entry.member)
    return written


def _values(entry: Entry, system: System, currency: str) -> dict[str, str]:
    values = dict.fromkeys(Entry.model_fields, "") | written_of(entry, system)
    pieces = template("log.pieces").format(count=entry.count) if entry.count else ""
    values["amount"] = values["mass"] or pieces
    crop = tables.crops()[entry.crop].called if entry.crop else ""
    values["crop"] = crop or template("log.everything")
    values["minutes"] = f"{entry.minutes:.0f} min" if entry.minutes else ""
    values["cost"] = money(entry.cost, currency) if entry.cost is not None else ""
    values["waits"] = str(entry.waits)
    values["what"], values["note"] = entry.what, entry.note
    return values


def _part(entry: Entry, where: Where | None) -> str:
    if not entry.member:
        return template("log.it")
    geometry = where.geometries.get(entry.structure or "") if where else None
    return name_of(geometry, entry.member) if geometry else template("log.a-part")


def broken_words(breaks: Sequence[Break], site: Site, structure: Structure, geometry: Geometry) -> str:
    """Return what of a support is broken and not mended, what it holds as it is, and what once it is
    repaired.
    """
    name = structure.name
    parts = dict.fromkeys(
        name_of(geometry, each.entry.member) if each.entry.member else name for each in breaks
    )
    day = min(each.entry.on for each in breaks)
    said = template("log.broken").format(parts=", ".join(parts), on=f"{day.day} {day:%B}")
    design = design_of(site, structure)
    now, whole = (design.moist_limit(broken=gone) for gone in (parts_of(breaks), ()))
    system = site.garden.units
    limits = {"now": gust_text(now, system), "whole": gust_text(whole, system)}
    return f"{said} {template('log.broken-down' if now <= 0 else 'log.broken-holds').format(**limits)}"


def place_words(entry: Entry, where: Where) -> str:
    """Return where an entry was: its support, else its bed, nothing for the whole garden."""
    key = entry.structure or entry.bed
    return where.names.get(key, template("log.gone")) if key else ""
