"""What differs between two states of a thing, field by field, in words."""

from __future__ import annotations

from calendar import day_name
from collections.abc import Callable
from typing import Any

from .. import tables
from ..families import family_of
from ..family.options import extra_of
from ..plan.bed import BareBed
from ..plan.entries import Entry
from ..plan.features import Feature
from ..plan.fields import Typed
from ..plan.needs import KeptNeed
from ..plan.place import Place
from ..plan.record import Diary, Differs, Record
from ..plan.shed import Stock
from ..plan.structure import Covered, Planting, Structure
from ..wording import day_text, option_text
from ..words.quantities import System, write
from ..words.texts import has, template
from .log import entry_words
from .taught import taught_text

_KINDS = {
    "length": (
        "length",
        "height",
        "width",
        "x",
        "y",
        "board",
        "fill_depth",
        "along",
        "across",
        "path_width",
        "spacing",
        "depth",
        "moved",
    ),
    "wire": ("thickness",),
    "bearing": ("bearing", "turn", "latitude"),
    "speed": ("design_gust", "gust"),
    "mass": ("mass",),
    "force": ("pull",),
    "volume": ("volume",),
}
_TABLES: dict[str, Any] = {
    "soil": tables.soils,
    "fill": tables.soils,
    "exposure": tables.exposures,
    "climate": tables.climates,
    "crop": tables.crops,
}
_TOLD_ALONE = {
    "at",
    "photos",
    "said",
    "key",
    "beds",
    "features",
    "stock",
    "needs",
    "records",
    "diaries",
    "structures",
}
_DATED = ("name", "begun", "joining", "stands")
_SAID = 3  # differences named in a sentence


class Difference(Typed):
    """One field that differs: its path in the thing, what it is called, and both values as written."""

    path: str
    label: str
    before: str
    after: str


def differences(before: Typed, after: Typed, system: System) -> tuple[Difference, ...]:
    """Return the fields in which two states of one thing differ.

    Args:
        before, after: Two structures, beds, features or gardens' own fields.
        system: The reader's units.
    """
    first, second = _fields(before, system), _fields(after, system)
    paths = dict.fromkeys([*first, *second])
    return tuple(
        Difference(
            path=path,
            label=_label(path, isinstance(after, Stock)),
            before=first.get(path, ("", "–"))[1],
            after=second.get(path, ("", "–"))[1],
        )
        for path in paths
        if first.get(path, ("", ""))[0] != second.get(path, ("", ""))[0]
    )


def written_fields(thing: Typed, system: System) -> dict[str, str]:
    """Return every field of a thing by path, as it is written."""
    return {path: text for path, (_, text) in _fields(thing, system).items()}


def sentence(before: Typed | None, after: Typed | None, system: System) -> str:
    """Return a change in one sentence: made, removed, or what is different now."""
    thing = after or before
    name = entry_words(thing, system, "") if isinstance(thing, Entry) else getattr(thing, "name", "")
    if before is None:
        return f"{name} added"
    if after is None:
        return f"{name} removed"
    differing = differences(before, after, system)
    placed = {"x", "y", "bearing", "along", "across", "turn", "points"}
    moved = [field for field in differing if field.path in placed]
    rest = [field for field in differing if field.path not in placed]
    said = [f"{field.label} {field.before} → {field.after}" for field in rest[:_SAID]]
    if len(rest) > _SAID:
        said.append(f"{len(rest) - _SAID} more")
    if moved:
        said.insert(0, "turned" if any(field.path in ("bearing", "turn") for field in moved) else "moved")
    return f"{name}: {', '.join(said) or 'nothing different'}"


def _label(path: str, in_shed: bool) -> str:
    last = path.rsplit(".", maxsplit=1)[-1].split("@", maxsplit=1)[0]
    if path.startswith("ticks.") and last in tables.steps():
        return tables.steps()[last].title.format(what=template("field.parts-of-it"))
    if path.startswith("marks."):
        job = path.split(".")[-2]
        title = tables.jobs()[job].title if job in tables.jobs() else template("field.a-run")
        return title.replace("{crop}", template("field.the-crop")).split(" {", maxsplit=1)[0]
    if path.startswith("storms."):
        return f"{template('field.storm')} {path.split('.', 1)[1]}"
    if in_shed and has(f"stock-field.{last}"):
        return template(f"stock-field.{last}")
    tables_ = ("option", "field") if path.startswith("options.") else ("field", "option")
    for key in (f"{table}.{last}" for table in tables_):
        if has(key):
            return template(key)
    return last.replace("_", " ").capitalize()


def _fields(thing: Typed, system: System) -> dict[str, tuple[Any, str]]:
    """Return every field of a thing by path: its value and how it is written."""
    if isinstance(thing, Structure):
        return _of_structure(thing, system)
    if isinstance(thing, Record):
        return _of_record(thing, system)
    if isinstance(thing, Diary):
        return _of_diary(thing)
    skipped = {"key"} if isinstance(thing, KeptNeed) else _TOLD_ALONE
    kinds: tuple[type[Typed], ...] = (BareBed, Feature, Place, Stock, KeptNeed, Entry)
    names = next(kind for kind in kinds if isinstance(thing, kind)).model_fields
    return {
        name: (getattr(thing, name), _text(name, getattr(thing, name), system))
        for name in names
        if name not in skipped
    }


def _of_structure(structure: Structure, system: System) -> dict[str, tuple[Any, str]]:
    options = family_of(structure.family).options
    given = options.model_validate(structure.options)
    fields = {
        name: (getattr(structure, name), _text(name, getattr(structure, name), system))
        for name in ("name", "along", "across", "turn")
    }
    for name in options.model_fields:
        value = getattr(given, name)
        fields[f"options.{name}"] = (value, option_text(value, extra_of(options, name), system))
    if structure.covers:
        fields["covers"] = (structure.covers, ", ".join(_cover(cover) for cover in structure.covers))
    if structure.taken:
        fields["taken"] = (structure.taken, f"{len(structure.taken)} kinds of thing")
    for planting in structure.plantings:
        for name in [name for name in Planting.model_fields if name != "key"]:
            value = getattr(planting, name)
            fields[planting.path(name)] = (value, _text(name, value, system))
    return fields


def _cover(cover: Covered) -> str:
    return f"{tables.covers()[cover.cover].name}, {day_text(cover.on)} – {day_text(cover.off)}"


def _of_record(record: Record, system: System) -> dict[str, tuple[Any, str]]:
    fields = {name: (value, "–" if value is None else str(value)) for name, value in record if name in _DATED}
    for key, tick in record.ticks.items():
        fields[f"ticks.{key}"] = (tick, "done" + (f" (‘{tick.note}’)" if tick.note else ""))
    for key, test in record.pulls.items():
        fields[f"pulls.{key}"] = (test, f"{len(test.readings)} readings")
    for key, differs in record.differs.items():
        fields[f"differs.{key}"] = (differs, differing_text(differs, system))
    return fields


def _of_diary(diary: Diary) -> dict[str, tuple[Any, str]]:
    fields: dict[str, tuple[Any, str]] = {}
    for key, mark in diary.marks.items():
        said = template(f"mark.{mark.state}") + (f" (‘{mark.note}’)" if mark.note else "")
        fields[f"marks.{key}"] = (mark, said)
    for day, found in diary.storms.items():
        fields[f"storms.{day}"] = (found, template(f"found.{found.found}"))
    return fields


def built_text(record: Record) -> str:
    """Return how far a structure is built, in a line."""
    otherwise = len(record.differs)
    went = f", {otherwise} differ from the design" if otherwise else ""
    if record.stands:
        return f"stands since {record.stands.isoformat()}{went}"
    steps = len(record.ticks)
    return f"being built: {steps} {'step' if steps == 1 else 'steps'} done{went}"


def differing_text(differs: Differs, system: System) -> str:
    """Return what went in otherwise than planned, as it is written."""
    if isinstance(differs.value, bool | str):
        return str(differs.value).replace("_", " ").replace("-", " ")
    kind = next((kind for kind, names in _KINDS.items() if differs.option in names), "length")
    whole = isinstance(differs.value, int)
    return str(differs.value) if whole else write(float(differs.value), kind, system)


def _text(name: str, value: Any, system: System) -> str:
    """Return a field's value as people write it."""
    kind = next((kind for kind, names in _KINDS.items() if name in names), "")
    if value is None or (name in _TABLES and not value):
        text = "–"
    elif name in _TABLES:
        text = str(_TABLES[name]()[value].name)
    elif kind:
        text = write(float(value), kind, system)
    elif name in _OTHERS:
        text = _OTHERS[name](value, system)
    else:
        text = str(value)
    return text


def _points(value: Any, system: System) -> str:
    return " · ".join(f"{write(x, 'length', system)}, {write(y, 'length', system)}" for x, y in value)


def _warmth(value: Any, system: System) -> str:
    if value.normals:
        return template("warmth.recorded").format(years=value.years)
    near, rain = tables.waters()[value.water].name, tables.rains()[value.rain].name
    said = template("warmth.made").format(height=write(value.height, "length", system), near=near, rain=rain)
    return said + (template("warmth.seen").format(weeks=len(value.seen)) if value.seen else "")


def _taught(value: Any, _system: System) -> str:
    return "; ".join(taught_text(each) for each in value) or "–"


def _word(value: Any, _system: System) -> str:
    return str(value).replace("-", " ")


def _day(value: Any, _system: System) -> str:
    return day_text(value)


_OTHERS: dict[str, Callable[[Any, System], str]] = {
    "points": _points,
    "visits": lambda value, _system: ", ".join(day_name[day] for day in value),
    "taught": _taught,
    "warmth": _warmth,
    "careful": _word,
    "past": lambda value, _system: ", ".join(f"{each.crop} {each.year}" for each in value) or "–",
    "raised": _word,
    "planted": _day,
    "year": lambda value, _system: str(value) if value else "that of the season",
    "last_frost": _day,
    "first_frost": _day,
    "kind": _word,
    "side": _word,
    "training": _word,
    "table": _word,
    "item": _word,
    "condition": _word,
    "sure": _word,
    "strength": lambda value, _system: f"{100 * value:.0f} %",
    "others": lambda value, _system: ", ".join(tables.crops()[each.crop].name for each in value) or "–",
    "beds": lambda value, _system: ", ".join(value) or "–",
    "tested": lambda value, _system: f"{value.grip:.2f} × the grip, {value.stiffness:.2f} × as stiff",
    "wants": lambda value, _system: f"{len(value.model_fields_set)} wishes",
    "prices": lambda value, _system: f"{len(value)} own prices",
}
