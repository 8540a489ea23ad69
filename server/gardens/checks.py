"""The system checks that load every table of the core and look for every text."""

from __future__ import annotations

from typing import Any

from ascent import tables
from ascent.errors import BrokenTable
from ascent.report.complete import missing_families, missing_texts
from django.core.checks import CheckMessage, Error, register


@register()
def tables_load(**_kwargs: Any) -> list[CheckMessage]:
    """Return what is wrong with the tables."""
    try:
        tables.load_all()
    except BrokenTable as error:
        return [Error(str(error), id="gardens.E001")]
    return []


@register()
def texts_are_there(**_kwargs: Any) -> list[CheckMessage]:
    """Return a complaint of every sentence that is asked for and not there."""
    return [Error(f"no texts.toml has the text ‘{path}’", id="gardens.E002") for path in missing_texts()]


@register()
def families_are_whole(**_kwargs: Any) -> list[CheckMessage]:
    """Return a complaint of every family that is not listed or says nothing of itself."""
    return [Error(said, id="gardens.E003") for said in missing_families()]
