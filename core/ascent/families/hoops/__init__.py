"""Hoops: ladder mesh or pipe bent over a bed, pushed in or slipped over driven rods, joined along their
crowns.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from .geometry import laid_out
from .links import BentHoops
from .options import KEY, HoopsOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

HOOPS = Family(
    key=KEY,
    options=HoopsOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=BentHoops,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
)
