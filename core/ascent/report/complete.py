"""Whether everything is there that a table or a family asks for: sentences, and rows about the family."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import get_args

from .. import families, tables
from ..families import FAMILIES
from ..ground.clashes import RULES
from ..path.geometry import Role
from ..words.texts import has

FOLDER = Path(families.__file__).parent
_OF_FAMILY = ("name", "noun", "what", "suits", "weak")
_MARKED: tuple[Role, ...] = ("ring", "post", "anchor", "strut", "arm")


def missing_families() -> tuple[str, ...]:
    """Return what families lack: a place in the list of families, or a row of traits in their folder."""
    folders = {path.parent.name.replace("_", "-") for path in FOLDER.glob("*/__init__.py")}
    return (
        *(f"families/__init__.py does not name ‘{key}’" for key in sorted(folders - set(FAMILIES))),
        *(f"the folder of ‘{key}’ has no traits.csv" for key in FAMILIES if key not in tables.traits()),
    )


def missing_texts() -> tuple[str, ...]:
    """Return the path of every text that something asks for by a key of its own and that is not there."""
    return tuple(path for path in dict.fromkeys(_asked_for()) if not has(path))


def _asked_for() -> Iterator[str]:
    for step in tables.steps().values():
        yield from (f"caution.{key}" for key in step.cautions)
    for key, family in FAMILIES.items():
        yield from (f"family.{key}.{name}" for name in _OF_FAMILY)
        yield from (f"option.{name}" for name in family.options.model_fields)
        if family.joined:
            yield from (f"joined.{family.joined.key}.{way}" for way in ("ground", "place"))
        for option in family.options.model_fields.values():
            extra = option.json_schema_extra
            if isinstance(extra, dict):
                yield f"group.{extra['group']}"
                if extra["kind"] == "choice":
                    yield from (f"value.{str(value).lower()}" for value in get_args(option.annotation))
    yield from (f"part.{role}" for role in _MARKED)
    yield from (f"rule.{rule}" for rule in RULES)
    yield from (f"{part}.{key}" for key in tables.remarks() for part in ("remark", "brief"))
    yield from (f"remedy.{key}" for key, row in tables.remarks().items() if row.remedy)
    for divide in tables.divides():
        yield f"divide.{divide}.topic"
