"""Bed frame: uprights screwed to the boards of a raised bed, one for each plant, joined over the bed; nothing
is driven.
"""

from __future__ import annotations

from ...family.dependencies import dependencies_beside
from ...family.protocol import Family
from ...family.steps import Joined
from .geometry import laid_out
from .links import Framed
from .options import KEY, BedFrameOptions
from .proposal import proposed
from .remarks import cautions, remarked
from .steps import steps
from .tending import tending

BED_FRAME = Family(
    key=KEY,
    options=BedFrameOptions,
    propose=proposed,
    geometry=laid_out,
    loaded=Framed,
    remarks=remarked,
    cautions=cautions,
    moves=dependencies_beside(__file__),
    steps=steps,
    tending=tending,
    joined=Joined("bed-frame", "ground"),
)
