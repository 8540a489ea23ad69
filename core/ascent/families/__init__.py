"""The support families, a folder each; none knows another."""

from __future__ import annotations

from typing import Any

from ..errors import UnknownItem
from ..family.as_taught import as_taught
from ..family.protocol import Family
from .a_frame import A_FRAME
from .bed_frame import BED_FRAME
from .brushwood import BRUSHWOOD
from .cage import CAGE
from .crossed_poles import CROSSED_POLES
from .drop_strings import DROP_STRINGS
from .existing import EXISTING
from .hoops import HOOPS
from .living_support import LIVING_SUPPORT
from .mesh_fence import MESH_FENCE
from .panel_arch import PANEL_ARCH
from .stake import STAKE
from .tripod import TRIPOD
from .weave import WEAVE
from .wire_trellis import WIRE_TRELLIS

FAMILIES: dict[str, Family[Any]] = {
    family.key: as_taught(family)
    for family in (
        MESH_FENCE,
        WIRE_TRELLIS,
        LIVING_SUPPORT,
        PANEL_ARCH,
        DROP_STRINGS,
        WEAVE,
        CAGE,
        STAKE,
        TRIPOD,
        CROSSED_POLES,
        A_FRAME,
        BED_FRAME,
        HOOPS,
        EXISTING,
        BRUSHWOOD,
    )
}


def family_of(key: str) -> Family[Any]:
    """Return the family of that key.

    Raises:
        UnknownItem: No such family.
    """
    if key not in FAMILIES:
        raise UnknownItem("families", key, f"known here: {', '.join(FAMILIES)}")
    return FAMILIES[key]
