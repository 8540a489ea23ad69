"""The support families, one file each."""

from __future__ import annotations

from typing import Any

from ..errors import UnknownItem
from ..family import Family
from .mesh_fence import MeshFence

FAMILIES: dict[str, Family[Any]] = {family.key: family for family in (MeshFence(),)}


def family_of(key: str) -> Family[Any]:
    """Return the family of that key.

    Raises:
        UnknownItem: No such family.
    """
    if key not in FAMILIES:
        raise UnknownItem("families", key, f"known here: {', '.join(FAMILIES)}")
    return FAMILIES[key]
