"""The system check that loads every table of the core."""

from __future__ import annotations

from typing import Any

from ascent import tables
from ascent.errors import BrokenTable
from django.core.checks import CheckMessage, Error, register


@register()
def tables_load(**_kwargs: Any) -> list[CheckMessage]:
    """Return what is wrong with the tables."""
    try:
        tables.load_all()
    except BrokenTable as error:
        return [Error(str(error), id="gardens.E001")]
    return []
