"""The support families, one file each."""

from __future__ import annotations

from typing import Any

from ..errors import UnknownItem
from ..family.protocol import Family
from .a_frame import AFrame
from .bed_frame import BedFrame
from .brushwood import Brushwood
from .cage import Cages
from .crossed_poles import CrossedPoles
from .drop_strings import DropStrings
from .existing import Existing
from .hoops import Hoops
from .living_support import LivingSupport
from .mesh_fence import MeshFence
from .panel_arch import PanelArch
from .stake import Stake
from .tripod import Tripod
from .weave import Weave
from .wire_trellis import WireTrellis

FAMILIES: dict[str, Family[Any]] = {
    family.key: family
    for family in (
        MeshFence(),
        WireTrellis(),
        LivingSupport(),
        PanelArch(),
        DropStrings(),
        Weave(),
        Cages(),
        Stake(),
        Tripod(),
        CrossedPoles(),
        AFrame(),
        BedFrame(),
        Hoops(),
        Existing(),
        Brushwood(),
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
